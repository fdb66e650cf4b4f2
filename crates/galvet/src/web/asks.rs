//! Whose question or rig an address asks with: a customer's is nobody's but theirs and the staff's.

use galvet_store::Catalogue;
use galvet_store::files::outing::OutingEntry;
use rocket::http::RawStr;

/// Name in an address of the saved question it starts from.
const BRIEF: &str = "brief";

/// Name in an address of the rig it asks with.
const RIG: &str = "rig";

/// The customer whose question or rig an address asks with, or whose outing or rig it tells;
/// `None` where it is nobody's.
pub(super) fn asked_by(catalogue: &Catalogue, address: &str) -> Option<String> {
    let (path, query) = address.split_once('?').unwrap_or((address, ""));
    let rig_of = |key: &str| Some(catalogue.rigs_of_customers().get(key)?.name.clone());
    // As the routes read it: part by part, each out of what it is written in.
    let parts = path.split('/').filter(|part| !part.is_empty());
    let parts: Vec<_> = parts
        .map(|part| RawStr::new(part).percent_decode_lossy())
        .collect();
    match parts.iter().map(AsRef::as_ref).collect::<Vec<_>>()[..] {
        ["log", "outings", key, ..] => {
            let mut outings = catalogue.sheets_of::<OutingEntry>();
            let found = outings.find(|outing| outing.key == key)?;
            return Some(found.who.clone()).filter(|name| !name.is_empty());
        }
        ["rigs", key, ..] => {
            if let Some(name) = rig_of(key) {
                return Some(name);
            }
        }
        _ => {}
    }
    let query = query.split('#').next().unwrap_or_default();
    form_urlencoded::parse(query.as_bytes()).find_map(|(name, key)| match &*name {
        BRIEF => {
            let brief = catalogue.briefs.iter().find(|b| b.key == key)?;
            Some(brief.customer.clone()).filter(|name| !name.is_empty())
        }
        RIG => rig_of(&key),
        _ => None,
    })
}

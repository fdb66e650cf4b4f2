//! Whose question or rig an address asks with: a customer's is nobody's but theirs and the staff's.

use galvet_store::Catalogue;
use galvet_store::files::outing::OutingEntry;

/// Name in an address of the saved question it starts from.
const BRIEF: &str = "brief";

/// Where the page of an outing is.
const OUTING: &str = "/log/outings/";

/// Where the pages of a rig are.
const RIGS: &str = "/rigs/";

/// Name in an address of the rig it asks with.
const RIG: &str = "rig";

/// The customer whose question or rig an address asks with, or whose outing or rig it tells;
/// `None` where it is nobody's.
pub(super) fn asked_by(catalogue: &Catalogue, address: &str) -> Option<String> {
    let (path, query) = address.split_once('?').unwrap_or((address, ""));
    if let Some(key) = path.strip_prefix(OUTING) {
        let mut outings = catalogue.sheets_of::<OutingEntry>();
        let found = outings.find(|outing| outing.key == key)?;
        return Some(found.who.clone()).filter(|name| !name.is_empty());
    }
    let rig_of = |key: &str| Some(catalogue.rigs_of_customers().get(key)?.name.clone());
    let rig = path.strip_prefix(RIGS).and_then(|rest| {
        let key = rest.split(['/', '.']).next()?;
        rig_of(key)
    });
    if rig.is_some() {
        return rig;
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

//! Whose question an address asks: a customer's is nobody's but theirs and the staff's.

use galvet_store::Catalogue;
use galvet_store::files::outing::OutingEntry;

/// Name in an address of the saved question it starts from.
const BRIEF: &str = "brief";

/// Where the page of an outing is.
const OUTING: &str = "/log/outings/";

/// The customer whose question an address asks, or whose outing it tells; `None` where it is nobody's.
pub(super) fn asked_by(catalogue: &Catalogue, address: &str) -> Option<String> {
    let (path, query) = address.split_once('?').unwrap_or((address, ""));
    if let Some(key) = path.strip_prefix(OUTING) {
        let mut outings = catalogue.sheets_of::<OutingEntry>().into_iter();
        let found = outings.find(|outing| outing.key == key)?;
        return Some(found.who).filter(|name| !name.is_empty());
    }
    let query = query.split('#').next().unwrap_or_default();
    form_urlencoded::parse(query.as_bytes())
        .filter(|(name, _)| name == BRIEF)
        .find_map(|(_, key)| {
            let brief = catalogue.briefs.iter().find(|b| b.key == key)?;
            Some(brief.customer.clone()).filter(|name| !name.is_empty())
        })
}

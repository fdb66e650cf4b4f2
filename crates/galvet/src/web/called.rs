//! What pages are called where they are listed: as their own navigation calls them.

use super::records::Records;
use crate::present::page::papers::PaperKind;
use galvet_core::base::Keyed;
use galvet_store::files::outing::OutingEntry;

/// Pages of a hull beside its first: the last part of their address, and what they are
/// called.
pub(crate) const HULL_PAGES: &[(&str, &str)] = &[
    ("record", "Specs"),
    ("walk", "Measure"),
    ("fittings", "Fittings"),
    ("stow", "Layout"),
    ("pond", "Pond"),
    ("comfort", "Comfort and handling"),
    ("changes", "Modifications"),
    ("lines", "Lines"),
    ("afloat", "Float tests"),
    ("trials", "Test paddles"),
    ("photos", "Photos"),
    ("card", "Survey sheet"),
    ("papers", "Papers"),
];

/// Pages that are about no record.
const PAGES: &[(&str, &str)] = &[
    ("ask", "Ask"),
    ("hulls", "Hulls"),
    ("kit", "Kit"),
    ("compare", "Compare"),
    ("pond", "Pond"),
    ("papers", "Papers"),
    ("log", "Log"),
    ("reckons", "Methods"),
    ("validation", "How the methods were checked"),
    ("summary", "The question and its hulls"),
    ("flip", "What would change the winner"),
    ("moving", "Moving house"),
    ("events", "Event rules"),
    ("waters", "Waters"),
    ("parts", "Parts of the pages"),
    ("tour", "Tour"),
];

/// What one of a list is called.
fn named(pages: &[(&'static str, &'static str)], part: &str) -> Option<&'static str> {
    let mut pages = pages.iter();
    pages.find(|(of, _)| *of == part).map(|(_, name)| *name)
}

/// What the page of an address is called.
pub(super) fn called(records: &Records, page: &str) -> String {
    let path = page.split(['?', '#']).next().unwrap_or_default();
    let steps: Vec<&str> = path.split('/').filter(|s| !s.is_empty()).collect();
    let all = &records.catalogue;
    let hull = |key: &str| {
        let found = records.hulls.iter().find(|h| h.survey.key == key);
        found.map_or(key.to_owned(), |h| h.survey.name())
    };
    let named = |pages, part: &str| named(pages, part).map_or(part.to_owned(), str::to_owned);
    match steps.as_slice() {
        [] => "Ranking".to_owned(),
        ["hulls", key] => hull(key),
        ["hulls", key, "papers", kind] => {
            let label = PaperKind::from_key(kind).map(PaperKind::label);
            format!("{}: {}", label.unwrap_or(kind), hull(key))
        }
        ["hulls", key, "figures", _] => format!("A figure: {}", hull(key)),
        ["hulls", key, part, ..] => format!("{}: {}", named(HULL_PAGES, part), hull(key)),
        ["rigs", key, ..] => {
            let rig = all.rigs.iter().find(|rig| rig.key == *key);
            format!("Rig: {}", rig.map_or(*key, |rig| rig.name.as_str()))
        }
        ["kit", key, ..] => {
            let thing = all.gear.iter().find(|thing| thing.key == *key);
            thing.map_or((*key).to_owned(), |thing| thing.name.clone())
        }
        ["waters", key, ..] => {
            let water = all.waters.iter().find(|water| water.key == *key);
            format!("Water: {}", water.map_or(*key, |water| water.name.as_str()))
        }
        ["log", "outings", key, ..] => {
            let outing = all.sheets_of::<OutingEntry>().find(|o| o.key == *key);
            format!("Outing: {}", outing.map_or(*key, |o| o.name.as_str()))
        }
        [part, ..] => named(PAGES, part),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::web::rules::RULES;
    use galvet_store::Store;
    use rocket::http::Method;

    #[test]
    fn every_page_that_is_handed_out_has_a_name() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let records = Records::read(&store, None).unwrap();
        let lines = RULES.iter();
        let lines =
            lines.filter(|(rule, method, _)| *method == Method::Get && rule.is_handed_out());
        let mut pages = 0;
        for route in lines.flat_map(|(.., routes)| *routes) {
            // Parts of pages and files are no pages.
            let last = route.rsplit('/').next().unwrap_or_default();
            if route.starts_with("/part/") || last.contains('.') || last == "<file>" {
                continue;
            }
            let name = called(&records, route);
            let proper = name
                .chars()
                .next()
                .is_some_and(|c| c.is_uppercase() || c == '<');
            assert!(proper && !name.starts_with("</"), "{route}: {name}");
            pages += 1;
        }
        assert!(pages > 30, "{pages}");
        let name = |page| called(&records, page);
        assert_eq!(name("/?mass=88"), "Ranking");
        assert_eq!(name("/hulls/gone/stow?mass=88"), "Layout: gone");
        assert_eq!(name("/hulls/gone/papers/launch"), "Launch: gone");
    }
}

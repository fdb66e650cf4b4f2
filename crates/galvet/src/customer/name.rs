//! A name is what links: when two are one person's, and who there is.

use galvet_store::files::customer::CustomerEntry;
use galvet_store::{Catalogue, Kind};

/// A customer's kind.
pub(crate) const KIND: Kind = Kind::of::<CustomerEntry>();

/// Whether two names are one person's: without regard to capitals and space.
pub(crate) fn same(a: &str, b: &str) -> bool {
    let plain = |name: &str| {
        let words: Vec<String> = name.split_whitespace().map(str::to_lowercase).collect();
        words.join(" ")
    };
    plain(a) == plain(b)
}

/// All customers, by name.
pub(crate) fn customers(catalogue: &Catalogue) -> Vec<CustomerEntry> {
    let mut all: Vec<CustomerEntry> = catalogue.sheets_of().cloned().collect();
    all.sort_by_key(|c| c.name.to_lowercase());
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_person_is_one_name_however_it_is_typed() {
        assert!(same("Mereth Oskwin", " mereth   OSKWIN "));
        assert!(!same("Mereth Oskwin", "Mereth Oskwin (harbour)"));
        assert!(same("", "  "));
    }
}

//! Addresses: a path of ours with the question, and whatever else, behind it.

use form_urlencoded::{Serializer, parse};

/// Names and values as they stand in an address, led by a question mark; empty for none.
pub(super) fn query<N: AsRef<str>, V: AsRef<str>>(
    pairs: impl IntoIterator<Item = (N, V)>,
) -> String {
    more("", pairs)
}

/// A query with further names and values behind it.
pub(super) fn more<N: AsRef<str>, V: AsRef<str>>(
    query: &str,
    pairs: impl IntoIterator<Item = (N, V)>,
) -> String {
    let mut all = Serializer::new(query.trim_start_matches('?').to_owned());
    all.extend_pairs(pairs);
    match all.finish() {
        none if none.is_empty() => none,
        all => format!("?{all}"),
    }
}

/// A path with a query, and further names and values behind it.
pub(super) fn address(path: &str, query: &str, pairs: &[(&str, &str)]) -> String {
    format!("{path}{}", more(query, pairs.iter().copied()))
}

/// Names and values of a query, for a form that is sent by GET: its address loses what
/// stands behind the question mark.
pub(super) fn carried(query: &str) -> Vec<(String, String)> {
    let pairs = parse(query.trim_start_matches('?').as_bytes());
    pairs.into_owned().collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn addresses_take_the_question_along() {
        assert_eq!(address("/a", "", &[]), "/a");
        assert_eq!(address("/a", "?kg=80", &[]), "/a?kg=80");
        assert_eq!(
            address("/a", "?kg=80", &[("zone", "tank well & more")]),
            "/a?kg=80&zone=tank+well+%26+more"
        );
    }

    #[test]
    fn what_a_form_carries_is_what_the_address_said() {
        let said = [("mass", "12 st 4 & more"), ("rig", "Örtchen=1+1?#%")];
        let carried = carried(&query(said));
        assert_eq!(carried, said.map(|(n, v)| (n.to_owned(), v.to_owned())));
        assert!(super::carried("").is_empty());
    }
}

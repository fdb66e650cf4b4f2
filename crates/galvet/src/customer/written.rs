//! A name as it stands in words, keys and addresses, and what is left without it.

use super::name::customers;
use galvet_store::Catalogue;
use regex::{Captures, Regex};
use std::collections::BTreeSet;

/// What stands where a name stood.
pub(super) const SOMEBODY: &str = "somebody";

/// Names in any of the ways in which they are written.
pub(crate) struct Written(Regex);

/// Words of a name as they are told apart, in letters of an address as well.
fn words(name: &str) -> Vec<String> {
    let words = name.split(|c: char| !c.is_alphanumeric());
    let words = words.filter(|word| !word.is_empty());
    words.map(regex::escape).collect()
}

/// Whether a name says so much that it can be looked for in words without being asked.
pub(crate) fn says_much(name: &str) -> bool {
    name.split_whitespace().count() > 1
}

impl Written {
    /// Names as they are, in a key, in an address, in a page; `None` of none.
    pub(super) fn of(names: &[String]) -> Option<Self> {
        // Between words: signs, or what stands for one in an address or a page.
        const BETWEEN: &str = r"(?:%[0-9A-Fa-f]{2}|&#?\w+;|[^\p{Alphabetic}\p{Nd}])+";
        let ways = |name: &String| {
            let plain = words(name).join(BETWEEN);
            let slug = words(&slug::slugify(name)).join(BETWEEN);
            let encoded: String = form_urlencoded::byte_serialize(name.as_bytes()).collect();
            let all = [plain.clone(), slug, regex::escape(&encoded)];
            (!plain.is_empty()).then(|| all.join("|"))
        };
        // The longer name first: one may begin with the other.
        let mut names = names.to_vec();
        names.sort_by_key(|name| std::cmp::Reverse(name.len()));
        let any: Vec<String> = names.iter().filter_map(ways).collect();
        if any.is_empty() {
            return None;
        }
        let either = format!(
            r"(?i)(^|[^\p{{Alphabetic}}\p{{Nd}}])(?:{})($|[^\p{{Alphabetic}}\p{{Nd}}])",
            any.join("|")
        );
        Regex::new(&either).ok().map(Self)
    }

    /// The customers of a catalogue who may be named in a text, by names that say much.
    pub(crate) fn in_text(catalogue: &Catalogue, text: &str) -> Option<Self> {
        let split = |text: &str| -> Vec<String> {
            let words = text.split(|c: char| !c.is_alphanumeric());
            words
                .map(str::to_lowercase)
                .filter(|w| !w.is_empty())
                .collect()
        };
        let stand: BTreeSet<String> = split(text).into_iter().collect();
        let may_stand =
            |name: &String| says_much(name) && split(name).iter().all(|w| stand.contains(w));
        let names = customers(catalogue).into_iter().map(|one| one.name);
        Self::of(&names.filter(may_stand).collect::<Vec<_>>())
    }

    /// A text without the names; `None` where none stands in it.
    pub(crate) fn without(&self, text: &str) -> Option<String> {
        if !self.0.is_match(text) {
            return None;
        }
        let somebody = |found: &Captures<'_>| {
            let [before, after] = [1, 2].map(|n| found.get(n).map_or("", |m| m.as_str()));
            format!("{before}{SOMEBODY}{after}")
        };
        // Twice: what ends one name may begin the next.
        let once = self.0.replace_all(text, somebody);
        Some(self.0.replace_all(&once, somebody).into_owned())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn written(name: &str) -> Written {
        Written::of(&[name.to_owned()]).unwrap()
    }

    #[test]
    fn a_name_is_found_in_every_way_it_is_written_and_within_no_other_word() {
        let mereth = written("Mereth Øskwin");
        for (text, without) in [
            ("Mereth Øskwin said it squeaks", "somebody said it squeaks"),
            ("for mereth  øskwin.", "for somebody."),
            (
                "/?brief=mereth-oskwin-sound&mass=1",
                "/?brief=somebody-sound&mass=1",
            ),
            ("/x?who=Mereth+%C3%98skwin", "/x?who=somebody"),
            ("Mereth Øskwin, Mereth Øskwin", "somebody, somebody"),
            ("Mereth Øskwin Mereth Øskwin", "somebody somebody"),
            ("Mereth&nbsp;Øskwin", "somebody"),
        ] {
            assert_eq!(mereth.without(text).as_deref(), Some(without), "{text}");
        }
        for other in [
            "Mereth",
            "Mereth Øskwinson",
            "Amereth Øskwin",
            "Øskwin Mereth",
            "",
        ] {
            assert_eq!(mereth.without(other), None, "{other}");
        }
        // A name with signs in it is no pattern.
        assert_eq!(
            written("J. (Jo) [x]*")
                .without("by J. (Jo) [x]* here")
                .as_deref(),
            Some("by somebody]* here")
        );
        let told = written("Nia O'Dair").without("of Nia O&#39;Dair, harbour");
        assert_eq!(told.as_deref(), Some("of somebody, harbour"));
        assert!(Written::of(&[]).is_none() && Written::of(&["?".to_owned()]).is_none());
    }
}

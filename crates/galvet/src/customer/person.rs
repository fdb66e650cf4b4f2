//! Somebody to be forgotten: what is theirs, and what only names them.

use super::name::{KIND, same};
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::handed::Handed;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::stock::BookingEntry;
use galvet_store::files::ticked::Ticked;
use galvet_store::{Catalogue, Forget, Kind, Share};
use regex::{Captures, Regex};
use serde_json::Value;
use std::collections::BTreeSet;

/// What stands where a name stood.
const SOMEBODY: &str = "somebody";

/// A customer, as what is kept speaks of them.
pub(crate) struct Person {
    key: String,
    name: String,
    /// Keys of their questions.
    questions: Vec<String>,
    /// Keys of rigs that are theirs.
    rigs: Vec<String>,
    /// Keys of records that are not theirs.
    keys: BTreeSet<String>,
    /// Their name in any of the ways in which addresses and keys write it; `None` where
    /// notes are left as they are.
    written: Option<Regex>,
}

/// Words of a name as they are told apart, in letters of an address as well.
fn words(name: &str) -> Vec<String> {
    let words = name.split(|c: char| !c.is_alphanumeric());
    let words = words.filter(|word| !word.is_empty());
    words.map(regex::escape).collect()
}

/// A name in any of the ways in which it is written: as it is, in a key, in an address.
fn written(name: &str) -> Option<Regex> {
    // Between words of an address: signs, or what stands for one.
    const BETWEEN: &str = r"(?:%[0-9A-Fa-f]{2}|[^\p{Alphabetic}\p{Nd}])+";
    let plain = words(name).join(BETWEEN);
    let slug = words(&slug::slugify(name)).join(BETWEEN);
    let encoded: String = form_urlencoded::byte_serialize(name.as_bytes()).collect();
    let encoded = regex::escape(&encoded);
    if plain.is_empty() {
        return None;
    }
    let either = format!(
        r"(?i)(^|[^\p{{Alphabetic}}\p{{Nd}}])(?:{plain}|{slug}|{encoded})($|[^\p{{Alphabetic}}\p{{Nd}}])"
    );
    Regex::new(&either).ok()
}

/// Keys that other records name a record by.
fn keys(catalogue: &Catalogue) -> BTreeSet<String> {
    let hulls = catalogue.hulls.iter().map(|h| &h.survey.key);
    let kit = catalogue.gear.iter().map(|g| &g.key);
    let rigs = catalogue.rigs.iter().map(|r| &r.key);
    let waters = catalogue.waters.iter().map(|w| &w.key);
    hulls
        .chain(kit)
        .chain(rigs)
        .chain(waters)
        .cloned()
        .collect()
}

impl Person {
    /// A customer of a catalogue; with what `notes` say of them as well.
    pub(crate) fn of(customer: &CustomerEntry, catalogue: &Catalogue, notes: bool) -> Self {
        let questions = catalogue.briefs.iter();
        let questions = questions.filter(|b| same(&b.customer, &customer.name));
        Self {
            key: customer.key.clone(),
            name: customer.name.clone(),
            questions: questions.map(|b| b.key.clone()).collect(),
            rigs: customer.rigs.clone(),
            keys: keys(catalogue),
            written: notes.then(|| written(&customer.name)).flatten(),
        }
    }

    /// The ways in which the name stands in bytes: as it is, as a key, as in an address.
    pub(crate) fn spellings(&self) -> Vec<String> {
        let encoded: String = form_urlencoded::byte_serialize(self.name.as_bytes()).collect();
        let mut all = vec![
            self.name.clone(),
            slug::slugify(&self.name),
            slug::slugify(&self.name).replace('-', " "),
            encoded,
        ];
        all.sort();
        all.dedup();
        all
    }

    /// Whether an address asks one of their questions.
    fn asks_theirs(&self, address: &str) -> bool {
        let query = address.split_once('?').map_or(address, |(_, query)| query);
        form_urlencoded::parse(query.as_bytes())
            .any(|(name, value)| name == "brief" && self.questions.iter().any(|q| *q == value))
    }

    /// A document without their test paddles, and without their name in any text of it.
    fn mended(&self, kind: Kind, document: &Value) -> Option<Value> {
        let mut out = document.clone();
        if kind == Kind::Hull {
            let trials = out
                .pointer_mut("/looked/trials")
                .and_then(Value::as_array_mut);
            for trial in trials.into_iter().flatten() {
                let theirs = |who: &Value| who.as_str().is_some_and(|who| same(who, &self.name));
                if trial.get("who").is_some_and(theirs) {
                    trial["who"] = SOMEBODY.into();
                    if let Some(fields) = trial.as_object_mut() {
                        fields.remove("note");
                    }
                }
            }
        }
        self.walk(&mut out, true);
        (out != *document).then_some(out)
    }

    /// Takes the name out of every text; keys of records stay, since others name them.
    fn walk(&self, value: &mut Value, top: bool) {
        match value {
            // What names another record goes on naming it.
            Value::String(text) if self.keys.contains(text.as_str()) => {}
            Value::String(text) => {
                if let Some(without) = self.without(text) {
                    *text = without;
                }
            }
            Value::Array(all) => all.iter_mut().for_each(|v| self.walk(v, false)),
            Value::Object(fields) => {
                for (name, value) in fields {
                    if !(top && name == "key") {
                        self.walk(value, false);
                    }
                }
            }
            _ => {}
        }
    }

    fn theirs(&self, kind: Kind, document: &Value) -> bool {
        let text = |name: &str| {
            document
                .get(name)
                .and_then(Value::as_str)
                .unwrap_or_default()
        };
        let is = |name: &str| same(text(name), &self.name) && !text(name).trim().is_empty();
        match kind {
            Kind::Brief => is("customer"),
            Kind::Rig => self.rigs.iter().any(|rig| rig == text("key")),
            kind if kind == KIND => text("key") == self.key,
            kind if kind == Kind::of::<OutingEntry>() || kind == Kind::of::<BookingEntry>() => {
                is("who")
            }
            kind if kind == Kind::of::<Handed>() => self.asks_theirs(text("page")),
            kind if kind == Kind::of::<Ticked>() => self.asks_theirs(text("question")),
            _ => false,
        }
    }
}

impl Forget for Person {
    fn share(&self, kind: Kind, document: &Value) -> Share {
        if self.theirs(kind, document) {
            return Share::All;
        }
        self.mended(kind, document)
            .map_or(Share::None, Share::Without)
    }

    fn without(&self, text: &str) -> Option<String> {
        let written = self.written.as_ref()?;
        if !written.is_match(text) {
            return None;
        }
        let somebody = |found: &Captures<'_>| {
            let [before, after] = [1, 2].map(|n| found.get(n).map_or("", |m| m.as_str()));
            format!("{before}{SOMEBODY}{after}")
        };
        // Twice: what ends one name may begin the next.
        let once = written.replace_all(text, somebody);
        Some(written.replace_all(&once, somebody).into_owned())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn person(name: &str) -> Person {
        let customer = CustomerEntry {
            key: slug::slugify(name),
            name: name.to_owned(),
            ..CustomerEntry::default()
        };
        Person::of(&customer, &Catalogue::default(), true)
    }

    #[test]
    fn a_name_is_found_in_every_way_it_is_written_and_within_no_other_word() {
        let mereth = person("Mereth Øskwin");
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
        let odd = person("J. (Jo) [x]*");
        assert_eq!(
            odd.without("by J. (Jo) [x]* here").as_deref(),
            Some("by somebody]* here")
        );
    }
}

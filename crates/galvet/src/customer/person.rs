//! Somebody to be forgotten: what is theirs, and what only names them.

use super::name::{KIND, customers, same};
use super::written::{SOMEBODY, Written, says_much};
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::handed::Handed;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::Photo;
use galvet_store::files::stock::BookingEntry;
use galvet_store::files::ticked::Ticked;
use galvet_store::{Catalogue, Forget, Kind, SavedBrief, Share, Store, StoreError, Untouched};
use serde_json::Value;
use std::collections::BTreeSet;

/// A customer, as what is kept speaks of them.
pub(crate) struct Person {
    key: String,
    /// What they are called, and were called once; nobody else is called that now.
    names: Vec<String>,
    /// Those of them that are looked for in words.
    sought: Vec<String>,
    /// Keys of their questions.
    questions: Vec<String>,
    /// Keys of rigs that are theirs.
    rigs: Vec<String>,
    /// Keys of their outings: photos taken on them are theirs too.
    outings: BTreeSet<String>,
    /// Keys of records that are not theirs.
    keys: BTreeSet<String>,
    /// What takes their names out of words; `None` where notes are left as they are.
    written: Option<Written>,
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
    /// A customer of a catalogue, under all names they ever had; with what `notes` say of
    /// them as well.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub(crate) fn of(
        store: &Store,
        (customer, catalogue): (&CustomerEntry, &Catalogue),
        notes: bool,
    ) -> Result<Self, StoreError> {
        let mut names = vec![customer.name.clone()];
        if let Some((known, _)) = store.record(KIND, &customer.key)? {
            let changes = store.history(KIND, known.id, (usize::MAX, None))?;
            let states = changes.iter().flat_map(|c| [&c.before, &c.after]).flatten();
            let called = states.filter_map(|state| state.get("name")?.as_str());
            for name in called.map(str::to_owned) {
                // Somebody else is called that now.
                let mut others = customers(catalogue).into_iter();
                let taken = others.any(|o| o.key != customer.key && same(&o.name, &name));
                if !taken && !names.iter().any(|n| same(n, &name)) {
                    names.push(name);
                }
            }
        }
        let theirs = (customer.rigs.as_slice(), catalogue);
        let mut one = Self::called((&customer.key, names), theirs, notes);
        one.outings = one.outings_of(store)?;
        Ok(one)
    }

    /// Keys of their outings, of those thrown away as well, unless the key is another's by
    /// now.
    fn outings_of(&self, store: &Store) -> Result<BTreeSet<String>, StoreError> {
        let all = store.untouched_since(Kind::of::<OutingEntry>(), i64::MAX)?;
        let (theirs, others): (Vec<_>, Vec<_>) = all.into_iter().partition(|outing| {
            let document = outing.record.document().unwrap_or_default();
            self.is(document.get("who").and_then(Value::as_str).unwrap_or(""))
        });
        let keys = |all: &[Untouched]| -> BTreeSet<String> {
            all.iter().map(|o| o.record.slug().to_owned()).collect()
        };
        Ok(&keys(&theirs) - &keys(&others))
    }

    /// Somebody of a key and names.
    fn called(
        (key, names): (&str, Vec<String>),
        (rigs, catalogue): (&[String], &Catalogue),
        notes: bool,
    ) -> Self {
        let questions = catalogue.briefs.iter();
        let theirs = |b: &&SavedBrief| names.iter().any(|name| same(&b.customer, name));
        // A former name of one word may mean something else in a note.
        let sought = names.iter().enumerate();
        let sought = sought.filter(|(i, name)| *i == 0 || says_much(name));
        let sought: Vec<String> = sought.map(|(_, name)| name.clone()).collect();
        Self {
            key: key.to_owned(),
            questions: questions.filter(theirs).map(|b| b.key.clone()).collect(),
            rigs: rigs.to_vec(),
            outings: BTreeSet::new(),
            keys: keys(catalogue),
            written: notes.then(|| Written::of(&sought)).flatten(),
            names,
            sought,
        }
    }

    /// What they were called once.
    pub(crate) fn formerly(&self) -> &[String] {
        self.names.get(1..).unwrap_or_default()
    }

    fn is(&self, name: &str) -> bool {
        !name.trim().is_empty() && self.names.iter().any(|own| same(own, name))
    }

    /// The ways in which the names stand in bytes: as they are, as a key, as in an address.
    pub(crate) fn spellings(&self) -> Vec<String> {
        let ways = |name: &String| {
            let encoded: String = form_urlencoded::byte_serialize(name.as_bytes()).collect();
            let slug = slug::slugify(name);
            [name.clone(), slug.replace('-', " "), slug, encoded]
        };
        let mut all: Vec<String> = self.sought.iter().flat_map(ways).collect();
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
                let theirs = |who: &Value| who.as_str().is_some_and(|who| self.is(who));
                if trial.get("who").is_some_and(theirs) {
                    trial["who"] = SOMEBODY.into();
                    if let Some(fields) = trial.as_object_mut() {
                        fields.remove("note");
                    }
                }
            }
        }
        if kind == Kind::of::<Photo>()
            && out
                .get("who")
                .and_then(Value::as_str)
                .is_some_and(|who| self.is(who))
        {
            out["who"] = SOMEBODY.into();
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
        let is = |name: &str| self.is(text(name));
        match kind {
            Kind::Brief => is("customer"),
            Kind::Rig => self.rigs.iter().any(|rig| rig == text("key")),
            kind if kind == KIND => text("key") == self.key,
            kind if kind == Kind::of::<OutingEntry>() || kind == Kind::of::<BookingEntry>() => {
                is("who")
            }
            kind if kind == Kind::of::<Photo>() => self.outings.contains(text("outing")),
            kind if kind == Kind::of::<Handed>() => self.asks_theirs(text("page")),
            kind if kind == Kind::of::<Ticked>() => self.asks_theirs(text("question")),
            _ => false,
        }
    }
}

impl Forget for Person {
    fn share(&self, (kind, _): (Kind, i64), document: &Value) -> Share {
        if self.theirs(kind, document) {
            return Share::All;
        }
        self.mended(kind, document)
            .map_or(Share::None, Share::Without)
    }

    fn without(&self, text: &str) -> Option<String> {
        self.written.as_ref()?.without(text)
    }
}

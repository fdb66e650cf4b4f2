//! A form's fields as they stand on the record, or as somebody typed them.

use crate::survey::Shown;
use galvet_core::base::Keyed;
use std::collections::{BTreeMap, HashMap};

/// What somebody typed that was not taken.
#[derive(Debug, Clone, Default)]
pub struct NotTaken {
    /// Fields as typed; empty where nothing was sent.
    pub typed: HashMap<String, String>,
    /// Mistakes by field; under the empty name what concerns the whole.
    pub mistakes: BTreeMap<String, String>,
}

/// A field that is typed in, with what was not understood.
pub struct Field {
    pub name: &'static str,
    pub label: &'static str,
    pub hint: &'static str,
    pub value: String,
    pub mistake: String,
}

/// A field of words: key, label, chosen.
pub type Words = Vec<(&'static str, &'static str, bool)>;

/// A tick: field, label, set.
pub type Tick = (String, String, bool);

/// A form being filled.
pub(super) struct Filled<'a> {
    /// What it shows of the record as it stands.
    pub(super) shown: Shown,
    /// What was typed over it.
    pub(super) not_taken: &'a NotTaken,
}

impl Filled<'_> {
    /// What stands in a field.
    pub(super) fn value(&self, name: &str) -> String {
        if self.not_taken.typed.is_empty() {
            return self.shown.text(name).to_owned();
        }
        self.not_taken.typed.get(name).cloned().unwrap_or_default()
    }

    /// What was not understood of a field.
    pub(super) fn mistake(&self, name: &str) -> String {
        self.not_taken
            .mistakes
            .get(name)
            .cloned()
            .unwrap_or_default()
    }

    /// What is wrong with the whole.
    pub(super) fn trouble(&self) -> String {
        self.mistake("")
    }

    pub(super) fn field(
        &self,
        name: &'static str,
        label: &'static str,
        hint: &'static str,
    ) -> Field {
        Field {
            name,
            label,
            hint,
            value: self.value(name),
            mistake: self.mistake(name),
        }
    }

    pub(super) fn tick(&self, name: String, label: String) -> Tick {
        let set = !self.value(&name).is_empty();
        (name, label, set)
    }

    /// Words to choose from; `none` is what none of them is called, where that
    /// can be said.
    pub(super) fn select<T: Keyed>(&self, name: &str, none: Option<&'static str>) -> Words {
        let chosen = self.value(name);
        let none = none.map(|label| ("", label, chosen.is_empty()));
        let all = T::ALL.iter();
        let all = all.map(|v| (v.key(), v.label(), v.key() == chosen));
        none.into_iter().chain(all).collect()
    }
}

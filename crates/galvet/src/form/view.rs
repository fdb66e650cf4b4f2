//! A form as it is shown: what stands on the record, or what somebody typed over it.

use super::Sent;
use super::field::{Field, Takes};
use super::refusal::Mistakes;
use super::shown::Shown;
use std::borrow::Cow;

/// What somebody typed that was not taken.
#[derive(Debug, Clone, Default)]
pub struct NotTaken {
    /// Fields as typed; empty where nothing was sent.
    pub typed: Sent,
    /// Mistakes by field; under the empty name what concerns the whole.
    pub mistakes: Mistakes,
}

impl NotTaken {
    /// What was not understood of a field; of the whole, under the empty name.
    #[must_use]
    pub fn mistake(&self, name: &str) -> String {
        self.mistakes.get(name).cloned().unwrap_or_default()
    }

    /// What stands in a field that shows `shown` of the record.
    #[must_use]
    pub fn value(&self, name: &str, shown: &Shown) -> String {
        if self.typed.is_empty() {
            return shown.text(name).to_owned();
        }
        self.typed.get(name).cloned().unwrap_or_default()
    }
}

/// Words to choose from: what is sent, what it is called, whether it is chosen.
pub type Words = Vec<(Cow<'static, str>, Cow<'static, str>, bool)>;

/// A field with what stands in it, and what was not understood.
pub struct FieldView {
    pub name: String,
    pub label: String,
    pub hint: &'static str,
    pub value: String,
    pub mistake: String,
    /// Words to choose from; empty for what is typed or ticked.
    pub words: Words,
    /// Whether it has room for several lines.
    pub long: bool,
    /// Whether it is a figure.
    pub number: bool,
    /// Whether it is ticked or not.
    pub tick: bool,
}

impl FieldView {
    /// Its name where no blank may stand.
    #[must_use]
    pub fn id(&self) -> String {
        self.name.replace(' ', "-")
    }

    pub(super) fn of<D>(field: &Field<D>, shown: &Shown, not_taken: &NotTaken) -> Self {
        let value = not_taken.value(&field.name, shown);
        let words = match &field.takes {
            Takes::Words(offered) => {
                let words = offered.iter();
                words
                    .map(|(k, l)| (k.clone(), l.clone(), *k == value))
                    .collect()
            }
            _ => Words::new(),
        };
        Self {
            name: field.name.clone(),
            label: field.label.clone(),
            hint: field.hint,
            mistake: not_taken.mistake(&field.name),
            words,
            long: field.takes == Takes::Lines,
            number: field.takes == Takes::Number,
            tick: field.takes == Takes::Tick,
            value,
        }
    }
}

/// Fields under a heading.
pub struct GroupView {
    pub title: &'static str,
    pub hint: &'static str,
    pub folded: bool,
    pub fields: Vec<FieldView>,
}

impl GroupView {
    /// Whether something in it was not understood.
    pub fn wrong(&self) -> bool {
        self.fields.iter().any(|field| !field.mistake.is_empty())
    }
}

/// A form.
pub struct FormView {
    pub groups: Vec<GroupView>,
    /// What is wrong with the whole.
    pub trouble: String,
    /// What it shows, to be sent along; empty for a new record's.
    pub shown: String,
}

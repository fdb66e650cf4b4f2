//! Fields of a form as they were typed, read one by one; what is not understood
//! is kept with the field's name.

use galvet_core::base::{
    Bare, Bounds, Dimension, LONGEST_NAME, NameError, System, day, one_line, typed_name,
};
use std::collections::{BTreeMap, HashMap};

/// Mistakes by the names of fields; under the empty name what concerns the whole.
pub type Mistakes = BTreeMap<String, String>;

/// Why a change was refused: mistakes by the names of fields, or one of the whole.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Refusal(pub Mistakes);

impl std::fmt::Display for Refusal {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let all: Vec<&str> = self.0.values().map(String::as_str).collect();
        f.write_str(&all.join("; "))
    }
}

impl From<Mistakes> for Refusal {
    fn from(mistakes: Mistakes) -> Self {
        Self(mistakes)
    }
}

impl From<String> for Refusal {
    fn from(problem: String) -> Self {
        Self([(String::new(), problem)].into())
    }
}

impl From<&str> for Refusal {
    fn from(problem: &str) -> Self {
        problem.to_owned().into()
    }
}

/// The unit a bare length has; SI for what is no length.
pub(super) const fn bare_length(system: System, dimension: Dimension) -> Bare {
    match (system, dimension) {
        (System::Metric, Dimension::ShortLength | Dimension::FineLength) => Bare::CENTIMETRES,
        (System::Imperial, Dimension::Length) => Bare::FEET,
        (System::Imperial, Dimension::ShortLength | Dimension::FineLength) => Bare::INCHES,
        _ => Bare::SI,
    }
}

/// The unit a bare number has, as people of a system write such a figure.
pub(super) const fn bare_unit(system: System, dimension: Dimension) -> Bare {
    match (system, dimension) {
        (System::Imperial, Dimension::Mass) => Bare::POUNDS,
        _ => bare_length(system, dimension),
    }
}

/// A typed number with its value in SI. A length written in metres where
/// centimetres are usual (`0.86`) is understood too.
///
/// # Errors
/// What would be accepted.
pub(super) fn number(typed: &str, bounds: Bounds, system: System) -> Result<f64, String> {
    let read = bounds.parse(typed, bare_unit(system, bounds.dimension));
    let in_metres = || bounds.parse(typed, Bare::SI).ok();
    match read {
        Ok(value) => Ok(value),
        Err(error) => match (system, in_metres()) {
            (System::Metric, Some(value)) => Ok(value),
            _ => Err(error.to_string()),
        },
    }
}

/// What was typed, a bare number with the unit [`number`] takes it to have.
pub(super) fn with_unit(typed: &str, bounds: Bounds, system: Option<System>) -> String {
    let said = bounds.with_unit(typed, system);
    let in_metres = || bounds.parse(typed, Bare::SI).is_ok();
    if system == Some(System::Metric) && bounds.parse(&said, Bare::SI).is_err() && in_metres() {
        return bounds.with_unit(typed, None);
    }
    said
}

/// A form being read.
pub(crate) struct Typed<'a> {
    form: &'a HashMap<String, String>,
    system: System,
    /// What was not understood so far.
    pub(crate) mistakes: Mistakes,
}

impl<'a> Typed<'a> {
    pub(crate) fn of(form: &'a HashMap<String, String>, system: System) -> Self {
        Self {
            form,
            system,
            mistakes: Mistakes::new(),
        }
    }

    /// What stands in a field; empty where nothing does.
    pub(crate) fn text(&self, name: &str) -> &'a str {
        self.form.get(name).map_or("", |text| text.trim())
    }

    /// A name that must be there: one line of what one sees.
    pub(crate) fn name(&mut self, field: &str) -> String {
        let read = typed_name(self.text(field));
        read.unwrap_or_else(|problem| {
            self.mistakes.insert(field.to_owned(), problem.to_string());
            String::new()
        })
    }

    /// A line that may be empty.
    pub(crate) fn line(&mut self, field: &str) -> String {
        match one_line(self.text(field)) {
            Ok(line) if line.chars().count() <= LONGEST_NAME => line,
            refused => {
                let problem = refused.err().unwrap_or(NameError::Long);
                self.mistakes.insert(field.to_owned(), problem.to_string());
                String::new()
            }
        }
    }

    /// A day; `today` where none was written.
    pub(crate) fn day(&mut self, field: &str, today: &str) -> String {
        let text = self.text(field);
        if text.is_empty() {
            return today.to_owned();
        }
        day(text).unwrap_or_else(|problem| {
            self.mistakes.insert(field.to_owned(), problem.to_string());
            String::new()
        })
    }

    /// A number that must be there; a percent or a degree sign may stand behind it.
    pub(crate) fn number(&mut self, name: &str, bounds: Bounds) -> Option<f64> {
        let typed = self.text(name).trim_end_matches(['%', '°']).trim();
        match number(typed, bounds, self.system) {
            Ok(value) => Some(value),
            Err(problem) => {
                self.mistakes.insert(name.to_owned(), problem);
                None
            }
        }
    }

    /// The same where it may be left empty.
    pub(crate) fn maybe(&mut self, name: &str, bounds: Bounds) -> Option<f64> {
        if self.text(name).is_empty() {
            return None;
        }
        self.number(name, bounds)
    }
}

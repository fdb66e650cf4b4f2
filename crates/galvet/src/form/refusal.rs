//! Why what was typed was not taken.

use std::collections::BTreeMap;

/// Mistakes by the names of fields; under the empty name what concerns the whole.
pub type Mistakes = BTreeMap<String, String>;

/// Why a change was refused: mistakes by the names of fields, or one of the whole.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
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

impl Refusal {
    /// A mistake of one field.
    pub fn at(field: &str, problem: String) -> Self {
        Self([(field.to_owned(), problem)].into())
    }
}

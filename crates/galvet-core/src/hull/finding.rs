//! Something about a record that its reader should check.

use super::measure::Measure;

/// What of a record has to be looked at for it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum About {
    /// A figure.
    Measure(Measure),
    /// A place, by its name.
    Zone(String),
    /// A fitting, by its name.
    Fitting(String),
    /// Its bottom.
    Bottom,
    /// What the rated capacity counts.
    Basis,
    /// What was changed on it.
    Modifications,
}

/// Something about a record that its reader should check.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Finding {
    /// Whether figures disagree (true) or one is missing (false).
    pub contradiction: bool,
    /// What to look at first.
    pub about: About,
    /// Plain words.
    pub text: String,
}

impl Finding {
    /// Figures that disagree.
    #[must_use]
    pub fn contradiction(about: About, text: impl Into<String>) -> Self {
        Self {
            contradiction: true,
            about,
            text: text.into(),
        }
    }

    /// A figure that is missing.
    #[must_use]
    pub fn gap(about: About, text: impl Into<String>) -> Self {
        Self {
            contradiction: false,
            about,
            text: text.into(),
        }
    }
}

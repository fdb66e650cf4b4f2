//! What a reader must know of a record before trusting it.

/// Something about a record that a reader must know before trusting it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Finding {
    /// Whether figures disagree (true) or one is missing (false).
    pub contradiction: bool,
    /// Plain words.
    pub text: String,
}

impl Finding {
    /// Figures that disagree.
    #[must_use]
    pub fn contradiction(text: impl Into<String>) -> Self {
        Self {
            contradiction: true,
            text: text.into(),
        }
    }

    /// A figure that is missing.
    #[must_use]
    pub fn gap(text: impl Into<String>) -> Self {
        Self {
            contradiction: false,
            text: text.into(),
        }
    }
}

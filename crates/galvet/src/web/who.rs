//! Who changes something from a page.

/// Whoever it is: there are no accounts yet.
pub(super) const WHO: &str = "page";

//! Figures found in what somebody wrote: how far each goes, and what it measures.

use galvet_core::base::{Bare, Bounds, Dimension};

/// Whether a place in a text is between words.
pub fn between(lower: &str, at: usize) -> bool {
    let letter = |c: Option<char>| c.is_some_and(char::is_alphanumeric);
    let before = lower.get(..at).and_then(|t| t.chars().next_back());
    let after = lower.get(at..).and_then(|t| t.chars().next());
    !(letter(before) && letter(after))
}

/// The figure that begins at a place, with where it ends: as long as it can be.
pub fn figure_at(text: &str, at: usize) -> Option<(usize, Dimension, f64)> {
    let rest = text.get(at..)?;
    let ends: Vec<usize> = rest
        .char_indices()
        .map(|(i, c)| i + c.len_utf8())
        .take(26)
        .collect();
    let wide = |dimension| Bounds::new("it", dimension, 0.0, 1e6);
    ends.into_iter().rev().find_map(|end| {
        let part = rest.get(..end)?;
        let last = part.chars().next_back()?;
        let whole = between(text, at + end) || matches!(last, '"' | '\'');
        if !whole || part.trim_end() != part {
            return None;
        }
        let says = part.contains(|c: char| c.is_alphabetic() || matches!(c, '"' | '\''));
        let of = |dimension: Dimension| {
            let read = wide(dimension).parse(part, Bare::SI).ok()?;
            Some((at + end, dimension, read))
        };
        says.then(|| of(Dimension::Length).or_else(|| of(Dimension::Mass)))?
    })
}

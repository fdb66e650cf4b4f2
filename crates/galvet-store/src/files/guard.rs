//! Texts that a spreadsheet would make something else of.

/// Marks a text that a spreadsheet would run as a formula or take for a date.
const GUARD: char = '\'';

/// Whether a spreadsheet would make something else of a text.
fn would_change(text: &str) -> bool {
    let formula = text.starts_with(['=', '+', '-', '@', '\t', '\r', GUARD]);
    let number_like = text.starts_with(|c: char| c.is_ascii_digit())
        && text
            .chars()
            .all(|c| c.is_ascii_digit() || "-/.:, ".contains(c));
    formula || number_like
}

/// A text made harmless for spreadsheets.
#[must_use]
pub fn guarded(text: &str) -> String {
    if would_change(text) {
        format!("{GUARD}{text}")
    } else {
        text.to_owned()
    }
}

/// The text a guarded cell stands for.
pub(super) fn unguarded(cell: &str) -> &str {
    match cell.strip_prefix(GUARD) {
        Some(inside) if would_change(inside) => inside,
        _ => cell,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_a_spreadsheet_would_run_or_turn_is_guarded_and_comes_back() {
        for text in [
            "=1+1", "+49", "-", "@x", "'quoted", "1-2", "12/3", "3.4", "2026", "\tx",
        ] {
            let out = guarded(text);
            assert!(out.starts_with('\''), "{text}");
            assert_eq!(unguarded(&out), text);
        }
        for text in ["", "Tarn 12", "12 ft boat", "a=b", "’s"] {
            assert_eq!(guarded(text), text);
            assert_eq!(unguarded(text), text);
        }
    }
}

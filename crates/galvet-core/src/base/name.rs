//! What people call things.

use thiserror::Error;

/// Longest name typed in a form, characters. Files may bring longer ones.
pub const LONGEST_NAME: usize = 120;

/// Why a text is no name.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum NameError {
    /// Nothing in it.
    #[error("give it a name")]
    Empty,
    /// Line breaks, tabs and characters nobody sees.
    #[error("a name is one line without control characters")]
    Control,
    /// Longer than [`LONGEST_NAME`].
    #[error("a name has at most {LONGEST_NAME} characters")]
    Long,
}

/// A name, without the space around it.
///
/// # Errors
/// [`NameError`] for nothing, and for characters nobody sees.
pub fn name(text: &str) -> Result<String, NameError> {
    let name = one_line(text)?;
    if name.is_empty() {
        return Err(NameError::Empty);
    }
    Ok(name)
}

/// The same where it is typed: no longer than [`LONGEST_NAME`].
///
/// # Errors
/// [`NameError`].
pub fn typed_name(text: &str) -> Result<String, NameError> {
    let name = name(text)?;
    if name.chars().count() > LONGEST_NAME {
        return Err(NameError::Long);
    }
    Ok(name)
}

/// A line of text that may be empty.
///
/// # Errors
/// [`NameError::Control`].
pub fn one_line(text: &str) -> Result<String, NameError> {
    // Marks that turn the reading direction hide what stands behind them.
    let hidden = |c: char| {
        c.is_control()
            || matches!(c, '\u{200b}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}' | '\u{feff}')
    };
    let text = text.trim();
    if text.contains(hidden) {
        return Err(NameError::Control);
    }
    Ok(text.to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_is_one_line_of_what_one_sees() {
        assert_eq!(name(" Tarn 12 ").as_deref(), Ok("Tarn 12"));
        assert_eq!(name("Ångström – 釣り").as_deref(), Ok("Ångström – 釣り"));
        for empty in ["", "  ", "\t\n"] {
            assert_eq!(name(empty), Err(NameError::Empty));
            assert_eq!(one_line(empty).as_deref(), Ok(""));
        }
        for hidden in ["a\nb", "a\u{0}", "a\u{7}b", "a\u{202e}b", "\u{200b}a"] {
            assert_eq!(name(hidden), Err(NameError::Control), "{hidden:?}");
        }
        let long = "n".repeat(LONGEST_NAME + 1);
        assert_eq!(name(&long).as_deref(), Ok(long.as_str()));
        assert_eq!(typed_name(&long), Err(NameError::Long));
        assert_eq!(typed_name(&long[1..]).as_deref(), Ok(&long[1..]));
    }
}

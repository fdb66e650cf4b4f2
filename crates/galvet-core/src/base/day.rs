//! Days, as they stand in records: ISO 8601 text.

use thiserror::Error;
use time::Date;
use time::macros::format_description;

/// A text that is no day, or none anybody measured a kayak on.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("“{0}” is no day between 1950 and 2100; write it as 2026-04-12")]
pub struct NotADay(String);

/// A day that exists, within reason, as it is kept.
///
/// # Errors
/// [`NotADay`].
pub fn day(text: &str) -> Result<String, NotADay> {
    let text = text.trim();
    let read = Date::parse(text, format_description!("[year]-[month]-[day]"));
    match read {
        // A sign is read as well, and is not how a day is kept.
        Ok(day) if (1950..=2100).contains(&day.year()) && !text.starts_with('+') => {
            Ok(text.to_owned())
        }
        _ => Err(NotADay(text.chars().take(40).collect())),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_day_exists_within_reason() {
        for real in ["2026-04-12", "1999-12-31", "2024-02-29", " 2026-11-29 "] {
            assert_eq!(day(real).as_deref(), Ok(real.trim()));
        }
        for odd in [
            "",
            "12.4.2026",
            "2026-13-01",
            "2026-02-29",
            "2026-4-1",
            "2026-04-12T10",
            "0001-01-01",
            "9999-12-31",
            "+2026-04-12",
            "x-04-12",
        ] {
            assert!(day(odd).is_err(), "{odd}");
        }
    }
}

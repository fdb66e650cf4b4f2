//! Guide values of one's own: a flat JSON object of names and numbers in SI.

use super::{FileError, read_json};
use galvet_core::guide::{Guide, Guides};
use serde_json::{Map, Value};

/// Reads guide values and puts them in place of the shipped ones.
///
/// # Errors
/// [`FileError`] naming the value and its accepted range.
pub fn read(file: &str, text: &str) -> Result<Guides, FileError> {
    let given: Map<String, Value> = read_json(file, text)?;
    let mut guides = Guides::default();
    for (name, value) in given {
        let wrong = |problem: String| {
            let shown: String = name.chars().take(60).collect();
            FileError::whole(file, format!("“{shown}”: {problem}"))
        };
        let guide =
            Guide::named(&name).ok_or_else(|| wrong("there is no such guide value".to_owned()))?;
        let number = value
            .as_f64()
            .ok_or_else(|| wrong("a guide value is a number".to_owned()))?;
        guides
            .set(guide, number)
            .map_err(|e| wrong(e.to_string()))?;
    }
    Ok(guides)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_are_put_in_place_or_refused_by_name() {
        let guides = read("g.json", r#"{ "crew.dressed_extra": 9 }"#).unwrap();
        assert_eq!(guides[Guide::DressedExtra], 9.0);
        for (text, words) in [
            (r#"{ "crew.dressed": 9 }"#, "there is no such guide value"),
            (r#"{ "crew.dressed_extra": "9" }"#, "is a number"),
            (
                r#"{ "crew.dressed_extra": 900 }"#,
                "must lie between 1 and 20 kg",
            ),
            ("[]", "g.json, line 1"),
        ] {
            let said = read("g.json", text).unwrap_err().to_string();
            assert!(said.contains(words), "{text}: {said}");
        }
    }
}

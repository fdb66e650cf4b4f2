//! JSON documents: each name once, an object at the head, and what is wrong in
//! the words of people who write such files, never a type of ours.

use super::{FileError, LARGEST_ON_DISK};
use serde::de::{DeserializeOwned, Error, IgnoredAny, MapAccess, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use serde_json::Value;
use serde_json::value::RawValue;
use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};
use std::fmt;

/// Reads a JSON document of type `T`, naming line and column of a mistake.
///
/// # Errors
/// [`FileError`] for a file too large or not of the shape.
pub fn read_json<T: DeserializeOwned + Serialize>(file: &str, text: &str) -> Result<T, FileError> {
    if text.len() > LARGEST_ON_DISK {
        let limit = format!("larger than {} MiB", LARGEST_ON_DISK >> 20);
        return Err(FileError::whole(file, limit));
    }
    let text = text.trim_start_matches('\u{feff}');
    // A list would be taken for the object's values in their order.
    if text.trim_start().starts_with('[') {
        let before = text.len() - text.trim_start().len();
        return Err(FileError {
            line: Some(1 + text[..before].matches('\n').count() as u64),
            ..FileError::whole(file, "a list [ … ] where an object { … } belongs")
        });
    }
    let wrong = |error: serde_json::Error| FileError {
        file: file.to_owned(),
        line: (error.line() > 0).then_some(error.line() as u64),
        column: (error.line() > 0).then(|| error.column().to_string()),
        problem: problem(&error),
    };
    serde_json::from_str::<NamesOnce>(text).map_err(wrong)?;
    let read: T = serde_json::from_str(text).map_err(wrong)?;
    let given: Value = serde_json::from_str(text).map_err(wrong)?;
    let shape = serde_json::to_value(&read).map_err(wrong)?;
    let mut path = Vec::new();
    if list_for_object(&given, &shape, &mut path) {
        return Err(FileError {
            line: line_of(text, &path),
            ..FileError::whole(file, list_where_object(&path))
        });
    }
    Ok(read)
}

/// Lets a document through whose objects all were given as such.
pub(super) fn no_list_for_object<T: Serialize>(given: &Value, read: T) -> Result<T, String> {
    let shape = serde_json::to_value(&read).map_err(|e| e.to_string())?;
    let mut path = Vec::new();
    if list_for_object(given, &shape, &mut path) {
        return Err(list_where_object(&path));
    }
    Ok(read)
}

fn list_where_object(path: &[String]) -> String {
    let place = path.join(".");
    format!("“{place}” is a list [ … ] where an object {{ … }} belongs")
}

/// Whether somewhere a list stands for an object, its values taken in the order
/// of the object's names: never guessed. `shape` is what was read, written out
/// again; `path` leads there.
fn list_for_object(given: &Value, shape: &Value, path: &mut Vec<String>) -> bool {
    let inside = |name: String, pair: (&Value, &Value), path: &mut Vec<String>| {
        path.push(name);
        let found = list_for_object(pair.0, pair.1, path);
        if !found {
            path.pop();
        }
        found
    };
    match (given, shape) {
        (Value::Array(_), Value::Object(_)) => true,
        (Value::Array(given), Value::Array(shape)) => {
            let mut pairs = given.iter().zip(shape).enumerate();
            pairs.any(|(at, pair)| inside(at.to_string(), pair, path))
        }
        (Value::Object(given), Value::Object(shape)) => {
            let mut pairs = given
                .iter()
                .filter_map(|(k, v)| Some((k, v, shape.get(k)?)));
            pairs.any(|(name, v, s)| inside(name.clone(), (v, s), path))
        }
        _ => false,
    }
}

/// The line, from 1, on which the value at `path` begins in a JSON document: names
/// for objects, numbers from 0 for lists. Where the path goes further than the
/// document, the line of the last value it meets.
#[must_use]
pub fn line_of(text: &str, path: &[String]) -> Option<u64> {
    let text = text.trim_start_matches('\u{feff}');
    let mut here: &RawValue = serde_json::from_str(text).ok()?;
    for step in path {
        let inside = match step.parse::<usize>() {
            Ok(at) => {
                let list: Option<Vec<&RawValue>> = serde_json::from_str(here.get()).ok();
                list.and_then(|list| list.get(at).copied())
            }
            Err(_) => {
                let object: Option<BTreeMap<Cow<'_, str>, &RawValue>> =
                    serde_json::from_str(here.get()).ok();
                object.and_then(|object| object.get(step.as_str()).copied())
            }
        };
        match inside {
            Some(value) => here = value,
            None => break,
        }
    }
    // A raw value borrows from the text: where it lies tells the line.
    let offset = (here.get().as_ptr() as usize).checked_sub(text.as_ptr() as usize)?;
    Some(1 + text.get(..offset)?.matches('\n').count() as u64)
}

/// Any document in whose objects no name stands twice.
struct NamesOnce;

impl<'de> Deserialize<'de> for NamesOnce {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct Walk;
        macro_rules! taken {
            ($($visit:ident: $type:ty),*) => {$(
                fn $visit<E: Error>(self, _: $type) -> Result<NamesOnce, E> {
                    Ok(NamesOnce)
                }
            )*};
        }
        impl<'de> Visitor<'de> for Walk {
            type Value = NamesOnce;

            fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                f.write_str("a value")
            }

            taken!(visit_bool: bool, visit_i64: i64, visit_u64: u64, visit_f64: f64, visit_str: &str);

            fn visit_unit<E: Error>(self) -> Result<NamesOnce, E> {
                Ok(NamesOnce)
            }

            fn visit_seq<A: SeqAccess<'de>>(self, mut all: A) -> Result<NamesOnce, A::Error> {
                while all.next_element::<NamesOnce>()?.is_some() {}
                Ok(NamesOnce)
            }

            fn visit_map<A: MapAccess<'de>>(self, mut all: A) -> Result<NamesOnce, A::Error> {
                let mut seen = BTreeSet::new();
                while let Some(name) = all.next_key::<String>()? {
                    if seen.contains(&name) {
                        all.next_value::<IgnoredAny>()?;
                        return Err(A::Error::custom(format!("duplicate field `{name}`")));
                    }
                    seen.insert(name);
                    all.next_value::<NamesOnce>()?;
                }
                Ok(NamesOnce)
            }
        }
        deserializer.deserialize_any(Walk)
    }
}

/// The problem of a JSON document without the place, which stands beside it.
#[must_use]
pub fn problem(error: &serde_json::Error) -> String {
    let said = error.to_string();
    let said = said.split(" at line ").next().unwrap_or_default();
    let quoted = |text: &str| text.replace('`', "\u{201d}");
    let name = |text: &str| text.split('`').nth(1).unwrap_or_default().to_owned();
    if let Some(rest) = said.strip_prefix("unknown field ") {
        return format!("“{}” is not known here{}", name(rest), accepted(rest));
    }
    if let Some(rest) = said.strip_prefix("unknown variant ") {
        return format!("“{}” is not known here{}", name(rest), accepted(rest));
    }
    if let Some(rest) = said.strip_prefix("missing field ") {
        return format!("“{}” is missing", name(rest));
    }
    if let Some(rest) = said.strip_prefix("duplicate field ") {
        return format!("“{}” stands twice", name(rest));
    }
    for start in ["invalid type: ", "invalid value: "] {
        let parts = said.strip_prefix(start);
        if let Some((found, wanted)) = parts.and_then(|rest| rest.split_once(", expected ")) {
            return format!("{} where {} belongs", thing(found), kind(wanted));
        }
    }
    if let Some(rest) = said.strip_prefix("invalid length ") {
        let length = rest.split(',').next().unwrap_or_default();
        return format!("a list of {length} where another number of values belongs");
    }
    if said.starts_with("EOF while parsing") {
        return "the file ends before it is complete".to_owned();
    }
    if said.starts_with("data did not match any variant") {
        return "this is none of the forms accepted here".to_owned();
    }
    quoted(said)
}

/// "; accepted: a, b" out of "…, expected one of `a`, `b`".
fn accepted(rest: &str) -> String {
    let Some((_, wanted)) = rest.split_once(", expected ") else {
        return String::new();
    };
    let words: Vec<&str> = wanted.split('`').skip(1).step_by(2).collect();
    if words.is_empty() {
        return String::new();
    }
    format!("; accepted: {}", words.join(", "))
}

/// What stands in the file.
fn thing(found: &str) -> String {
    let literal = |text: &str| text.trim_matches(['`', '"']).to_owned();
    match found.split_once(' ') {
        Some(("string", text)) => format!("the text “{}”", literal(text)),
        Some(("floating", rest)) => {
            format!("the number {}", literal(rest.trim_start_matches("point ")))
        }
        Some(("integer", text)) => format!("the number {}", literal(text)),
        Some(("boolean", text)) => literal(text),
        _ => match found {
            "map" => "an object { … }".to_owned(),
            "sequence" => "a list [ … ]".to_owned(),
            "null" => "nothing (null)".to_owned(),
            _ => "something else".to_owned(),
        },
    }
}

/// What belongs there.
fn kind(wanted: &str) -> String {
    let whole = ["u8", "u16", "u32", "u64", "usize", "i32", "i64"];
    if wanted == "f64" || wanted == "f32" {
        return "a number".to_owned();
    }
    if whole.contains(&wanted) {
        return "a whole number, 0 or more,".to_owned();
    }
    if wanted.starts_with("struct ") || wanted == "a map" {
        return "an object { … }".to_owned();
    }
    if wanted.starts_with("a tuple") || wanted.starts_with("an array") || wanted == "a sequence" {
        return "a list [ … ]".to_owned();
    }
    match wanted {
        "a string" => "text in quotes".to_owned(),
        "a boolean" => "true or false".to_owned(),
        _ => "something else".to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[derive(Debug, Deserialize, Serialize)]
    #[serde(deny_unknown_fields)]
    #[allow(dead_code, reason = "only read into")]
    struct Crate {
        mass_kg: f64,
        #[serde(default)]
        count: u32,
        #[serde(default)]
        name: String,
        #[serde(default)]
        inside: Vec<Crate>,
    }

    #[test]
    fn a_value_is_found_on_its_line() {
        let text =
            "\u{feff}{\n \"rig\": {\n  \"li\\u006ees\": [\n   {},\n   { \"mass_kg\": 4 }\n] } }";
        let at = |path: &[&str]| {
            let path: Vec<String> = path.iter().map(|&p| p.to_owned()).collect();
            line_of(text, &path)
        };
        assert_eq!(at(&["rig"]), Some(2));
        assert_eq!(at(&["rig", "lines", "0"]), Some(4));
        assert_eq!(at(&["rig", "lines", "1", "mass_kg"]), Some(5));
        // As far as the document goes.
        assert_eq!(at(&["rig", "lines", "7"]), Some(3));
        assert_eq!(at(&["rig", "zines"]), Some(2));
        assert_eq!(line_of("{", &[]), None);
    }

    #[test]
    fn no_parser_shows_through() {
        for (text, says) in [
            ("7", "the number 7 where an object { … } belongs"),
            (
                r#"{"mass_kg": "heavy"}"#,
                "the text “heavy” where a number belongs",
            ),
            (
                r#"{"mass_kg": null}"#,
                "nothing (null) where a number belongs",
            ),
            (
                r#"{"mass_kg": 1, "count": -2}"#,
                "the number -2 where a whole number",
            ),
            (
                r#"{"mass_kg": 1, "count": 1.5}"#,
                "the number 1.5 where a whole number",
            ),
            (
                r#"{"mass_kg": 1, "name": true}"#,
                "true where text in quotes belongs",
            ),
            (
                r#"{"mass_kg": 1, "inside": {}}"#,
                "an object { … } where a list [ … ] belongs",
            ),
            (
                r#"{"mass": 1}"#,
                "“mass” is not known here; accepted: mass_kg, count, name, inside",
            ),
            (r#"{"count": 1}"#, "“mass_kg” is missing"),
            (r#"{"mass_kg": 1, "mass_kg": 2}"#, "“mass_kg” stands twice"),
            ("[1, 2]", "a list [ … ] where an object { … } belongs"),
            // Of the very length and kinds of the object's values.
            (
                r#"{"mass_kg": 1, "inside": [{"mass_kg": 1}, [2, 3, "x", []]]}"#,
                "“inside.1” is a list [ … ] where an object { … } belongs",
            ),
            (
                r#"{"name": {"a": 1, "b": [{"c": 1, "c": 2}]}}"#,
                "“c” stands twice",
            ),
            (r#"{"mass_kg": 1"#, "the file ends before it is complete"),
        ] {
            let problem = read_json::<Crate>("c.json", text).unwrap_err().problem;
            assert!(problem.contains(says), "{text}: {problem}");
            for inside in ["struct", "f64", "u32", "Crate", "variant", "`"] {
                assert!(!problem.contains(inside), "{inside} in {problem}");
            }
        }
    }
}

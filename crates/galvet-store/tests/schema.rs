//! The JSON Schema in `docs/schema/` is the one the types make, and describes what
//! is written.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_store::files::exchange;
use serde_json::Value;
use std::fs;
use std::path::Path;

#[test]
fn the_schema_shipped_is_that_of_the_types() {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/schema/exchange.schema.json");
    let fresh = serde_json::to_string_pretty(&exchange::schema()).unwrap() + "\n";
    if std::env::var_os("GALVET_WRITE_SCHEMA").is_some() {
        fs::create_dir_all(path.parent().unwrap()).unwrap();
        fs::write(&path, &fresh).unwrap();
    }
    let shipped = fs::read_to_string(&path).unwrap_or_default();
    assert!(
        shipped == fresh,
        "docs/schema is stale: run this test with GALVET_WRITE_SCHEMA=1 and commit"
    );
}

#[test]
fn the_schema_knows_every_word_and_every_part() {
    let schema = exchange::schema();
    let at = |path: &str| -> Value { schema.pointer(path).cloned().unwrap_or_default() };
    let parts = at("/properties");
    for part in ["galvet", "hulls", "gear", "rigs", "waters", "questions"] {
        assert!(parts.get(part).is_some(), "{part}");
    }
    let words = at("/$defs/HullDoc/properties/construction/enum");
    assert_eq!(
        words,
        serde_json::json!(["sit-on-top", "sit-inside", "board"])
    );
    // Nothing else is taken than what it names.
    assert_eq!(
        at("/$defs/HullDoc/additionalProperties"),
        Value::Bool(false)
    );
    let zone = at("/$defs/Zone/required");
    assert!(
        zone.as_array().unwrap().contains(&"from_m".into()),
        "{zone}"
    );
}

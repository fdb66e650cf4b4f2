//! Two people changed one record: put together what they did not both touch.

use serde_json::{Map, Value};

/// Two versions put together.
#[derive(Debug, Clone, PartialEq)]
pub struct Merged {
    /// The whole, theirs where both touched a field.
    pub document: Value,
    /// Fields both touched differently: path, mine, theirs.
    pub clashes: Vec<(String, Value, Value)>,
}

/// Merges `mine` and `theirs`, both made from `base`, field by field. A list
/// counts as one field.
#[must_use]
pub fn merge(base: &Value, mine: &Value, theirs: &Value) -> Merged {
    let mut clashes = Vec::new();
    let document = field("", base, mine, theirs, &mut clashes);
    Merged { document, clashes }
}

fn field(
    path: &str,
    base: &Value,
    mine: &Value,
    theirs: &Value,
    clashes: &mut Vec<(String, Value, Value)>,
) -> Value {
    if mine == theirs || theirs == base {
        return mine.clone();
    }
    if mine == base {
        return theirs.clone();
    }
    let (Value::Object(m), Value::Object(t)) = (mine, theirs) else {
        clashes.push((path.to_owned(), mine.clone(), theirs.clone()));
        return theirs.clone();
    };
    let empty = Map::new();
    let b = base.as_object().unwrap_or(&empty);
    let mut out = Map::new();
    let names = m.keys().chain(t.keys().filter(|k| !m.contains_key(*k)));
    for name in names {
        let at = |o: &Map<String, Value>| o.get(name).cloned().unwrap_or(Value::Null);
        let inner = if path.is_empty() {
            name.clone()
        } else {
            format!("{path}.{name}")
        };
        let value = field(&inner, &at(b), &at(m), &at(t), clashes);
        // Gone from one and untouched by the other is gone.
        if !value.is_null() {
            out.insert(name.clone(), value);
        }
    }
    Value::Object(out)
}

/// What a table says of a record, put over it: what it does not say stays.
#[must_use]
pub fn over(kept: &Value, told: &Value) -> Value {
    match (kept, told) {
        (kept, Value::Null) => kept.clone(),
        (Value::Object(k), Value::Object(t)) => {
            let mut out = k.clone();
            for (name, told) in t {
                let kept = k.get(name).unwrap_or(&Value::Null);
                out.insert(name.clone(), over(kept, told));
            }
            Value::Object(out)
        }
        (Value::Array(k), Value::Array(t)) if k.len() == t.len() && t.contains(&Value::Null) => {
            Value::Array(k.iter().zip(t).map(|(k, t)| over(k, t)).collect())
        }
        (_, told) => told.clone(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn what_only_one_touched_is_kept_from_that_one() {
        let base = json!({"name": "a", "readings": {"beam": [1], "length": [2]}, "notes": "x"});
        let mine = json!({"name": "b", "readings": {"beam": [1], "length": [3]}, "notes": "x"});
        let theirs = json!({"name": "a", "readings": {"beam": [9], "length": [2]}});
        let merged = merge(&base, &mine, &theirs);
        assert!(merged.clashes.is_empty(), "{merged:?}");
        assert_eq!(
            merged.document,
            json!({"name": "b", "readings": {"beam": [9], "length": [3]}})
        );
    }

    #[test]
    fn what_both_touched_differently_is_named() {
        let base = json!({"name": "a", "deep": {"x": 1}});
        let mine = json!({"name": "b", "deep": {"x": 2}});
        let theirs = json!({"name": "c", "deep": {"x": 2}});
        let merged = merge(&base, &mine, &theirs);
        assert_eq!(
            merged.clashes,
            [("name".to_owned(), json!("b"), json!("c"))]
        );
        assert_eq!(merged.document["deep"]["x"], 2);
    }
}

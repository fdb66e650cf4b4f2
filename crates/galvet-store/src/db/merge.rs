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

/// What was typed, put over what is kept: every field that reads back from the form as it
/// was shown (`shown`) as it does from the form as it was sent (`typed`) stays as it is
/// kept, to the last digit, and with all the form does not show. Of a list as long as the
/// one that was shown, entry by entry, by their names where they have some; what is kept
/// beyond the shown ones stays.
#[must_use]
pub fn carry(shown: &Value, typed: &Value, kept: &Value) -> Value {
    if typed == shown {
        return kept.clone();
    }
    match (shown, typed, kept) {
        (Value::Object(s), Value::Object(t), Value::Object(k)) => {
            let mut out = k.clone();
            out.retain(|name, _| t.contains_key(name) || !s.contains_key(name));
            for (name, typed) in t {
                let field = match (s.get(name), k.get(name)) {
                    (Some(shown), Some(kept)) => carry(shown, typed, kept),
                    // Shown so though nothing of it is kept: it stays so.
                    (Some(shown), None) if shown == typed => continue,
                    _ => typed.clone(),
                };
                out.insert(name.clone(), field);
            }
            Value::Object(out)
        }
        (Value::Array(s), Value::Array(t), Value::Array(k))
            if s.len() == t.len() && k.len() >= s.len() =>
        {
            let mut out = k.clone();
            for (shown, typed) in paired(s, t) {
                let at = named(k, name(&s[shown])).unwrap_or(shown);
                out[at] = carry(&s[shown], &t[typed], &k[at]);
            }
            Value::Array(out)
        }
        _ => typed.clone(),
    }
}

/// What an entry of a list is called; nothing for one without a name.
fn name(entry: &Value) -> Option<&str> {
    entry.get("name").and_then(Value::as_str)
}

/// Where in a list the entry of a name is.
fn named(list: &[Value], wanted: Option<&str>) -> Option<usize> {
    let wanted = wanted?;
    list.iter().position(|entry| name(entry) == Some(wanted))
}

/// Entries of two lists of one length that are the same thing: those of one name, the
/// others in their order. A record may put them in another order when one is changed.
fn paired(one: &[Value], two: &[Value]) -> Vec<(usize, usize)> {
    let mut pairs: Vec<(usize, usize)> = Vec::new();
    let mut left: Vec<usize> = (0..two.len()).collect();
    let mut alone = Vec::new();
    for (at, entry) in one.iter().enumerate() {
        let same = named(two, name(entry));
        match same.and_then(|there| left.iter().position(|&l| l == there)) {
            Some(found) => pairs.push((at, left.remove(found))),
            None => alone.push(at),
        }
    }
    pairs.extend(alone.into_iter().zip(left));
    pairs
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
    fn what_was_not_typed_stays_to_the_last_digit() {
        let kept = json!({"price": 19.95, "size": [0.3044, 0.2, 0.1], "note": "", "of": [{"a": 1.234, "b": 2}, {"a": 9}]});
        // Shown with fewer digits, and of a list only the first.
        let shown =
            json!({"price": 20.0, "size": [0.304, 0.2, 0.1], "note": "", "of": [{"a": 1.2}]});
        assert_eq!(carry(&shown, &shown, &kept), kept);
        let mut typed = shown.clone();
        typed["note"] = json!("spare");
        let mut wanted = kept.clone();
        wanted["note"] = json!("spare");
        assert_eq!(carry(&shown, &typed, &kept), wanted);
        typed["size"][1] = json!(0.25);
        typed["of"][0]["a"] = json!(1.5);
        wanted["size"][1] = json!(0.25);
        wanted["of"][0]["a"] = json!(1.5);
        assert_eq!(carry(&shown, &typed, &kept), wanted);
        // Emptied is gone, put in is there, of another kind is replaced.
        typed.as_object_mut().unwrap().remove("price");
        typed["new"] = json!(1);
        typed["of"] = json!("none");
        let out = carry(&shown, &typed, &kept);
        assert_eq!(
            (out.get("price"), &out["new"], &out["of"]),
            (None, &json!(1), &json!("none"))
        );
    }

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

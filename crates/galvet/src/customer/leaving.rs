//! One person's data, as a zip they can be given.

use super::person::Person;
use super::theirs::Theirs;
use galvet_store::files::bundle;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::{Catalogue, Share, Store, StoreError};
use serde_json::{Value, json};
use thiserror::Error;

/// What stands in the archive beside the data.
const READ_ME: &str = "What this shop keeps of one person, in an open format (JSON, UTF-8).\n\
customer.json: how they are called and reached, notes, hulls they look at, pages kept.\n\
questions.json, outings.json, bookings.json, rigs.json: records under their name, as they\n\
stand in the shop's own exchange file; from the trash as well.\n\
photos.json, photos/: photos taken on their outings.\n\
test-paddles.json: hulls they tried, and how it went.\n\
also-named.json: other records in whose words their name stands.\n\
history.json: every change of these records that is still known: when, what it was called,\n\
what it was before and after.\n\
Masses in kg, lengths in m. Not in it: copies (backups) made before today, which the shop\n\
keeps for itself.\n";

/// Why there is no archive.
#[derive(Debug, Error)]
pub(crate) enum LeavingError {
    /// The store.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// What could not be written.
    #[error("{0}")]
    Written(String),
}

/// Everything of one person, packed.
pub(crate) fn archive(
    store: &Store,
    customer: &CustomerEntry,
    catalogue: &Catalogue,
) -> Result<Vec<u8>, LeavingError> {
    let person = Person::of(store, (customer, catalogue), true)?;
    let theirs = Theirs::of(customer, catalogue);
    let mut lists: Vec<(&str, Vec<Value>)> = Vec::new();
    let mut named = Vec::new();
    let mut history = Vec::new();
    let mut photos = Vec::new();
    for (kind, document, share) in store.theirs(&person)? {
        let list = match (share, kind.key()) {
            (Share::All, "customer") => "customer.json",
            (Share::All, "brief") => "questions.json",
            (Share::All, "outing") => "outings.json",
            (Share::All, "booking") => "bookings.json",
            (Share::All, "rig") => "rigs.json",
            (Share::All, "photo") => {
                let name = document.get("picture").and_then(Value::as_str);
                if let Some(jpeg) = name.map(|n| store.picture(n)).transpose()?.flatten() {
                    let key = document.get("key").and_then(Value::as_str);
                    let file = format!("photos/{}.jpg", key.unwrap_or("photo"));
                    photos.push((file, jpeg));
                }
                "photos.json"
            }
            (Share::All, _) => "others.json",
            _ => {
                named.push(json!({
                    "kind": kind.key(),
                    "key": document.get("key"),
                    "name": document.get("name"),
                }));
                continue;
            }
        };
        match lists.iter_mut().find(|(name, _)| *name == list) {
            Some((_, all)) => all.push(document),
            None => lists.push((list, vec![document])),
        }
    }
    for change in store.history_of(&person)? {
        history.push(json!({
            "at_ms": change.at, "what": change.label, "kind": change.kind.key(),
            "before": change.before, "after": change.after,
        }));
    }
    let trials: Vec<Value> = theirs
        .trials
        .iter()
        .map(|(key, name, trial)| {
            json!({
                "hull": key, "hull_name": name, "day": trial.date,
                "felt": galvet_core::base::Keyed::key(trial.felt),
                "stood": trial.stood, "note": trial.note,
            })
        })
        .collect();
    lists.push(("test-paddles.json", trials));
    lists.push(("also-named.json", named));
    lists.push(("history.json", history));
    let mut files = vec![("read-me.txt".to_owned(), READ_ME.as_bytes().to_vec())];
    for (name, all) in lists {
        let text = serde_json::to_string_pretty(&all);
        let text = text.map_err(|error| LeavingError::Written(error.to_string()))?;
        files.push((name.to_owned(), text.into_bytes()));
    }
    files.extend(photos);
    bundle::pack(&files).map_err(LeavingError::Written)
}

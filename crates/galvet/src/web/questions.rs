//! Saving a question, and undoing what was last done.

use super::ask::query_of;
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use crate::question::{self, Ask};
use galvet_store::{Door, Kind, Record, SavedBrief, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, post, routes};

/// Whoever changes something from a page: there are no accounts yet.
const WHO: &str = "page";
/// Longest name of a saved question.
const LONGEST_NAME: usize = 80;

#[derive(FromForm)]
struct SaveForm<'r> {
    name: &'r str,
}

/// A slug made of a name: its letters and digits, joined by dashes.
fn slug_of(name: &str) -> String {
    let mut slug = String::new();
    for c in name.to_lowercase().chars() {
        if c.is_ascii_alphanumeric() {
            slug.push(c);
        } else if !slug.is_empty() && !slug.ends_with('-') {
            slug.push('-');
        }
    }
    slug.truncate(48);
    let slug = slug.trim_matches('-');
    if slug.is_empty() {
        "question".to_owned()
    } else {
        slug.to_owned()
    }
}

/// The slug, with a number behind it where it is taken.
fn free_slug(door: &mut Door<'_>, wanted: &str) -> Result<String, StoreError> {
    let mut slug = wanted.to_owned();
    let mut number = 2;
    while door.find(Kind::Brief, &slug)?.is_some() {
        slug = format!("{wanted}-{number}");
        number += 1;
    }
    Ok(slug)
}

/// Keeps the question of this address under a name.
#[post("/questions", data = "<form>")]
async fn save(
    ask: Ask,
    form: Form<SaveForm<'_>>,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let name: String = form.name.trim().chars().take(LONGEST_NAME).collect();
    let Ok(asked) = ask.resolve(&shelf.catalogue, reader.units) else {
        return Ok(Err(Status::NotFound));
    };
    if name.is_empty() || !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let store = shared.store.clone();
    let question = question::document(&asked.brief, asked.own_weight);
    let label = format!("question “{name}” saved");
    let slug = rocket::tokio::task::spawn_blocking(move || {
        store.write(WHO, &label, |door| {
            let key = free_slug(door, &slug_of(&name))?;
            let saved = SavedBrief {
                key: key.clone(),
                name,
                question,
            };
            door.put(&Record::Brief(saved), None)?;
            Ok(key)
        })
    });
    let key = slug.await??;
    let address = format!("/{}", query_of(&Ask::start_from(key)));
    Ok(Ok(Redirect::to(back_to(&address))))
}

#[derive(FromForm)]
struct UndoForm<'r> {
    back: &'r str,
}

/// Undoes what was last done.
#[post("/undo", data = "<form>")]
async fn undo(form: Form<UndoForm<'_>>, shared: &State<Shared>) -> Result<Redirect, Trouble> {
    let store = shared.store.clone();
    let undone = rocket::tokio::task::spawn_blocking(move || store.undo(WHO)).await?;
    match undone {
        // Another page was quicker: there is nothing left to do.
        Ok(_) | Err(StoreError::Nothing(_) | StoreError::Conflict { .. }) => {}
        Err(error) => return Err(error.into()),
    }
    Ok(Redirect::to(back_to(form.back)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![save, undo]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn slugs_are_plain_and_never_empty() {
        assert_eq!(slug_of("Ana's marsh — standing!"), "ana-s-marsh-standing");
        assert_eq!(slug_of("  "), "question");
        assert_eq!(slug_of("Über"), "ber");
        assert!(slug_of(&"x".repeat(500)).len() <= 48);
    }
}

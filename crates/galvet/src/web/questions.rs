//! Saving a question, and undoing what was last done.

use super::ask::query_of;
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::who::WHO;
use crate::question::{self, Ask};
use crate::survey::{free_slug, slug_of};
use galvet_store::{Kind, Record, SavedBrief, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, post, routes};

/// Longest name of a saved question.
const LONGEST_NAME: usize = 80;

#[derive(FromForm)]
struct SaveForm<'r> {
    name: &'r str,
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
    let question = question::kept(&asked.brief, asked.own_weight, &shelf.catalogue.rigs);
    let label = format!("question “{name}” saved");
    let slug = rocket::tokio::task::spawn_blocking(move || {
        store.write(WHO, &label, |door| {
            let key = free_slug(door, Kind::Brief, &slug_of(&name, "question"))?;
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

/// Does again what was undone last.
#[post("/redo", data = "<form>")]
async fn redo(form: Form<UndoForm<'_>>, shared: &State<Shared>) -> Result<Redirect, Trouble> {
    let store = shared.store.clone();
    let redone = rocket::tokio::task::spawn_blocking(move || store.redo(WHO)).await?;
    match redone {
        Ok(_) | Err(StoreError::Nothing(_) | StoreError::Conflict { .. }) => {}
        Err(error) => return Err(error.into()),
    }
    Ok(Redirect::to(back_to(form.back)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![save, undo, redo]
}

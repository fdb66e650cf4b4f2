//! Taking back what one did, and doing it again: exactly the act the page named.

use super::errors::{Told, told};
use super::reader::{Reader, back_to};
use super::shared::Shared;
use super::trouble::Trouble;
use super::who::Names;
use galvet_store::{Kind, Steps, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, State, post, routes};

/// What the reader can take back and do again: of a record where one is named, else of
/// anything.
pub(super) async fn steps(
    shared: &Shared,
    reader: Reader,
    about: Option<(Kind, &str)>,
) -> Result<Steps, Trouble> {
    let (store, about) = (shared.store.clone(), about.map(|(k, s)| (k, s.to_owned())));
    let look = move || {
        let about = about.as_ref().map(|(kind, slug)| (*kind, slug.as_str()));
        store.steps(reader.hand.who(), about)
    };
    Ok(spawn_blocking(look).await??)
}

#[derive(FromForm)]
struct UndoForm<'r> {
    act: i64,
    back: &'r str,
}

/// Takes an act back, or does again one that was taken back; says why not.
#[post("/undo", data = "<form>")]
async fn undo(
    form: Form<UndoForm<'_>>,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let (store, act) = (shared.store.clone(), form.act);
    let done = spawn_blocking(move || store.reverse(reader.hand.who(), act)).await?;
    let why = match done {
        Ok(_) => return Ok(Ok(Redirect::to(back_to(form.back)))),
        Err(StoreError::Nothing(why)) => format!("Not done: {why}."),
        Err(StoreError::Conflict { theirs }) => format!(
            "Not done: {} changed it since. It stays as it is now.",
            Names::of(shared, reader.hand).await?.call(&theirs.who)
        ),
        Err(StoreError::Taken { kind, slug }) => {
            format!(
                "Not done: by now another {} is called “{slug}”.",
                kind.key()
            )
        }
        Err(StoreError::Reference(why)) => format!("Not done: {why}."),
        Err(error) => return Err(error.into()),
    };
    Ok(Err(told(
        Status::Conflict,
        "That was not taken back",
        why,
        form.back,
    )))
}

pub(super) fn routes() -> Vec<Route> {
    routes![undo]
}

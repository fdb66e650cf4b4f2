//! Changing a hull's record from a page: off the request's thread, with what
//! came of it.

use super::errors::{Told, told};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::Visit;
use super::who::Names;
use crate::form::{Refusal, Sent};
use crate::survey::{self, EditError};
use galvet_core::body::Lines;
use galvet_core::hull::Survey;
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Store, StoreError};
use rocket::http::Status;
use rocket::tokio::task::spawn_blocking;
use std::sync::Arc;

/// What a form asks to be done to a record.
pub(super) type Change = Box<dyn Fn(&mut HullRecord) -> Result<(), Refusal> + Send + Sync>;

/// What a form's button asks for.
pub(super) fn action(typed: &Sent) -> &str {
    typed.get("action").map_or("keep", String::as_str)
}

/// Changes the hull of a slug as it stands now, off the request's thread; `label` names
/// the change in the history. What makes no sense for this hull is told.
pub(super) async fn edit<E: Into<Refusal>>(
    visit: &Visit<'_>,
    slug: &str,
    label: String,
    change: impl FnOnce(&mut HullRecord) -> Result<(), E> + Send + 'static,
) -> Result<Result<(), Refusal>, Trouble> {
    let (store, slug, who) = (
        visit.shared.store.clone(),
        slug.to_owned(),
        visit.reader.hand,
    );
    let done = spawn_blocking(move || survey::edit_hull(&store, who.who(), &slug, &label, change));
    came_of(done.await?.map(|_| ()))
}

/// What came of a change: kept, refused with the reasons, or the trouble with it.
pub(super) fn came_of<T>(done: Result<T, EditError>) -> Result<Result<T, Refusal>, Trouble> {
    match done {
        Ok(made) => Ok(Ok(made)),
        Err(EditError::Gone) => Err(Trouble::Gone),
        Err(EditError::Refused(refusal)) => Ok(Err(refusal)),
        Err(EditError::Store(error)) => Err(error.into()),
    }
}

/// Throws a record away; tells why it was not.
pub(super) async fn throw(
    visit: &Visit<'_>,
    (kind, slug): (Kind, String),
    seen: Option<i64>,
) -> Result<Result<(), Told>, Trouble> {
    let (store, reader) = (visit.shared.store.clone(), visit.reader);
    let done = spawn_blocking(move || store.throw_away(reader.hand.who(), (kind, &slug), seen));
    let why = match done.await? {
        // Another page was quicker.
        Ok(_) => return Ok(Ok(())),
        Err(StoreError::Conflict { theirs }) => format!(
            "Not done: {} changed it since this page was opened. Look it over again, then delete it.",
            Names::of(visit.shared, reader.hand)
                .await?
                .call(&theirs.who)
        ),
        Err(StoreError::Reference(why)) => format!("It is needed: {why}."),
        Err(error) => return Err(error.into()),
    };
    Ok(Err(told(Status::Conflict, "That was not deleted", why, "")))
}

/// Throws a record of the kit away, for a form that tells what was refused.
pub(super) fn kit_throw(store: &Store, who: &str, record: (Kind, &str)) -> Result<(), EditError> {
    match store.throw_away(who, record, None) {
        Ok(Some(_)) => Ok(()),
        Ok(None) => Err(EditError::Gone),
        Err(StoreError::Reference(why)) => Err(EditError::Refused(why.into())),
        Err(error) => Err(error.into()),
    }
}

/// A hull by its slug, with the lines of its middle shape where it can be floated.
pub(super) async fn drawn(
    shared: &Shared,
    slug: &str,
) -> Result<(Arc<Survey>, Option<Lines>), Trouble> {
    let records = shared.records().await?;
    let hull = records.hull(slug)?.clone();
    let desk = shared.desk.clone();
    let made = spawn_blocking(move || {
        let shapes = desk.shapes(&hull).ok();
        (
            hull.survey.clone(),
            shapes.map(|s| s.form.lines(&s.middle())),
        )
    });
    Ok(made.await?)
}

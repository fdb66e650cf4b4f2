//! Changing a hull's record from a page: off the request's thread, with what
//! came of it.

use super::errors::{Told, told};
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::form::Refusal;
use crate::survey::{self, EditError};
use galvet_core::body::Lines;
use galvet_core::hull::Survey;
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Store, StoreError};
use rocket::http::Status;
use rocket::tokio::task::spawn_blocking;
use std::sync::Arc;

pub(super) use crate::form::Sent as Typed;

/// What a form asks to be done to a record.
pub(super) type Change = Box<dyn Fn(&mut HullRecord) -> Result<(), Refusal> + Send + Sync>;

/// What a form's button asks for.
pub(super) fn action(typed: &Typed) -> &str {
    typed.get("action").map_or("keep", String::as_str)
}

/// What came of a change.
#[derive(Debug, PartialEq, Eq)]
pub(super) enum Edited {
    /// It is kept.
    Kept,
    /// There is no such hull.
    Gone,
    /// It makes no sense for this hull.
    Refused(Refusal),
}

/// Changes the hull of a slug as it stands now; `label` names the change in the
/// history.
pub(super) async fn edit<E: Into<Refusal>>(
    (shared, reader): (&Shared, Reader),
    slug: &str,
    label: String,
    change: impl Fn(&mut HullRecord) -> Result<(), E> + Send + 'static,
) -> Result<Edited, Trouble> {
    let (store, slug) = (shared.store.clone(), slug.to_owned());
    let done =
        spawn_blocking(move || survey::edit_hull(&store, reader.hand.who(), &slug, &label, change));
    match done.await? {
        Ok(_) => Ok(Edited::Kept),
        Err(EditError::Gone) => Ok(Edited::Gone),
        Err(EditError::Refused(problem)) => Ok(Edited::Refused(problem)),
        Err(EditError::Store(error)) => Err(error.into()),
    }
}

/// Throws a record away; tells why it was not.
pub(super) async fn throw(
    shared: &Shared,
    reader: Reader,
    (kind, slug): (Kind, String),
    seen: Option<i64>,
) -> Result<Result<(), Told>, Trouble> {
    let store = shared.store.clone();
    let done = spawn_blocking(move || store.throw_away(reader.hand.who(), (kind, &slug), seen));
    let why = match done.await? {
        // Another page was quicker.
        Ok(_) => return Ok(Ok(())),
        Err(StoreError::Conflict { theirs }) => format!(
            "Not done: {} changed it since this page was opened. Look it over again, then delete it.",
            reader.hand.calls(&theirs.who)
        ),
        Err(StoreError::Reference(why)) => format!("It is needed: {why}."),
        Err(error) => return Err(error.into()),
    };
    Ok(Err(told(Status::Conflict, "That was not deleted", why, "")))
}

/// Throws a record of the kit away, for a form that tells what was refused.
pub(super) fn kit_throw(
    store: &Store,
    reader: Reader,
    record: (Kind, &str),
) -> Result<(), EditError> {
    match store.throw_away(reader.hand.who(), record, None) {
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
) -> Result<Option<(Arc<Survey>, Option<Lines>)>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(None);
    };
    let desk = shared.desk.clone();
    let made = spawn_blocking(move || {
        let shapes = desk.shapes(&hull).ok();
        (
            hull.survey.clone(),
            shapes.map(|s| s.form.lines(&s.middle())),
        )
    });
    Ok(Some(made.await?))
}

/// An address with more to say: `pairs` are put behind the question, percent-encoded.
pub(super) fn address(path: &str, query: &str, pairs: &[(&str, &str)]) -> String {
    let mut all: Vec<String> = Vec::new();
    if let Some(own) = query.strip_prefix('?') {
        all.push(own.to_owned());
    }
    let encoded = |text: &str| rocket::http::RawStr::new(text).percent_encode().to_string();
    all.extend(pairs.iter().map(|(n, v)| format!("{n}={}", encoded(v))));
    if all.is_empty() {
        path.to_owned()
    } else {
        format!("{path}?{}", all.join("&"))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn addresses_take_the_question_along() {
        assert_eq!(address("/a", "", &[]), "/a");
        assert_eq!(address("/a", "?kg=80", &[]), "/a?kg=80");
        assert_eq!(
            address("/a", "?kg=80", &[("zone", "tank well & more")]),
            "/a?kg=80&zone=tank%20well%20%26%20more"
        );
    }
}

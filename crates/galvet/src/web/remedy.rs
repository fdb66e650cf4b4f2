//! A remedy taken at a tap: the hull's change is planned, or the rig kept as a variant,
//! and the page that shows what it moves is next.

use super::address::address;
use super::ask::query_of;
use super::edit;
use super::reader::back_to;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::form::Sent;
use crate::kit::{kept_already, put_variant, rig_with};
use crate::survey;
use galvet_core::figures::{Change, Remedy, Setup, remedies};
use galvet_core::hull::{Modification, Progress};
use galvet_core::rig::Rig;
use galvet_store::StoreError;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, post, routes};
use std::sync::Arc;

/// Remedies looked through for the one that was asked for.
const MOST: usize = 12;

/// The remedy of a word for a line of the question's rig, worked out anew; the rig.
async fn worked_out(
    slug: &str,
    typed: &Sent,
    visit: &Visit<'_>,
) -> Result<Option<(Remedy, Rig)>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let line: Option<usize> = typed.get("line").and_then(|l| l.parse().ok());
    let word = typed.get("remedy").cloned().unwrap_or_default();
    let desk = shared.desk.clone();
    let found = shared.work(reader.caller, move || {
        let shapes = desk.shapes(&hull).ok()?;
        let brief = Arc::new(asked.brief.floating_part(desk.guides()));
        let setup = Setup::new(shapes, brief);
        let mut left = setup.loads.layout.unplaced.iter();
        let left = left.find(|u| Some(u.line) == line)?;
        let all = remedies(&setup, left, MOST);
        let remedy = all.into_iter().find(|r| r.key() == word)?;
        Some((remedy, asked.brief.rig.clone()))
    });
    found.await
}

/// The change as it is put on a record: planned, and told from what.
fn planned(made: &Modification, thing: &str) -> Modification {
    Modification {
        progress: Progress::Planned,
        note: format!("worked out so that there is a place for: {thing}; prices are guide values"),
        ..made.clone()
    }
}

#[post("/hulls/<slug>/remedy", data = "<form>")]
async fn take(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let typed = form.into_inner();
    let board = visit.to(&format!("/hulls/{slug}/stow"), &[]);
    let Some((remedy, rig)) = worked_out(slug, &typed, &visit).await? else {
        // What was offered is no remedy any more: the board as it is now says so.
        return Ok(Ok(Redirect::to(back_to(&board))));
    };
    let line = typed.get("line").and_then(|l| l.parse::<usize>().ok());
    let thing = line.and_then(|l| rig.lines.get(l)).map_or("", |l| &l.item);
    if let Change::Fit(made) = &remedy.change {
        let made = planned(made, thing);
        let label = format!("change “{}” planned", made.name);
        let kept = edit::edit(&visit, slug, label, move |hull| {
            let mut all = hull.survey.fitout.modifications.iter();
            if all.any(|m| m.name == made.name) {
                return Ok(());
            }
            survey::put_modification(hull, None, made.clone())
        });
        return Ok(match kept.await? {
            Ok(()) => {
                let to = visit.to(&format!("/hulls/{slug}/changes"), &[]);
                Ok(Redirect::to(back_to(&to)))
            }
            Err(_) => Err(Status::UnprocessableEntity),
        });
    }
    let records = shared.records().await?;
    let kept = records.catalogue.rigs.iter().find(|r| r.key == rig.key);
    let Some(variant) = kept.and_then(|kept| rig_with(kept, &rig, &remedy).ok()) else {
        return Ok(Err(Status::UnprocessableEntity));
    };
    let key = match kept_already(&records.catalogue.rigs, &variant) {
        Some(there) => there.key.clone(),
        None => {
            let (store, slug, was) = (shared.store.clone(), slug.to_owned(), rig.key.clone());
            let put = move || put_variant(&store, reader.hand.who(), variant, (&slug, &was));
            match spawn_blocking(put).await? {
                Err(StoreError::Conflict { .. }) => return Ok(Ok(Redirect::to(back_to(&board)))),
                put => put?,
            }
        }
    };
    let to = query_of(&ask.with_rig(&key));
    let to = address(&format!("/hulls/{slug}/stow"), &to, &[("since", &rig.key)]);
    Ok(Ok(Redirect::to(back_to(&to))))
}

pub(super) fn routes() -> Vec<Route> {
    routes![take]
}

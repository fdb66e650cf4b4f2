//! Fittings of a hull, put on the drawing one by one.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, address};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use crate::present::page::fittings::{self, AtFitting, FittingsView};
use crate::present::page::walk::NotTaken;
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::Fitting;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "fittings.html")]
struct FittingsPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    undo: Option<String>,
    fittings: FittingsView,
}

impl FittingsPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    /// The page's address with something at hand.
    fn with(&self, name: &str, value: &str) -> String {
        let f = &self.fittings;
        let change = Some(f.change.as_str()).filter(|c| !c.is_empty());
        here(&f.key, &self.query, change, Some((name, value)))
    }
}

/// Address of the fittings of delivery or of a change, with something at hand.
fn here(slug: &str, query: &str, change: Option<&str>, hand: Option<(&str, &str)>) -> String {
    let change = change.map(|change| ("change", change));
    let pairs: Vec<(&str, &str)> = hand.into_iter().chain(change).collect();
    address(&format!("/hulls/{slug}/fittings"), query, &pairs)
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    at: AtFitting,
    not_taken: NotTaken,
) -> Result<Option<FittingsPage>, Trouble> {
    let Some((survey, lines)) = edit::drawn(shared, slug).await? else {
        return Ok(None);
    };
    let query = query_of(ask);
    Ok(Some(FittingsPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&format!("/hulls/{slug}/fittings"), &query, &[]),
        place: "hull",
        undo: shared.store.undoable()?,
        query,
        fittings: fittings::fittings(&survey, lines.as_ref(), &at, &not_taken, reader.units),
    }))
}

#[get("/hulls/<slug>/fittings?<at>&<add>&<change>")]
async fn page(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
    change: Option<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<FittingsPage, Status>, Trouble> {
    let at = AtFitting { at, add, change };
    let page = look(slug, &ask, reader, shared, at, NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// What a form asks to be done: the history's words, and the change itself.
fn asked(
    at: &AtFitting,
    was: Option<&Fitting>,
    typed: &HashMap<String, String>,
    units: System,
) -> Result<(String, Edit), survey::Mistakes> {
    let theirs = at.change.clone();
    if let (Some(was), Some("forget")) = (was, typed.get("action").map(String::as_str)) {
        let name = was.name.clone();
        let label = format!("{name} taken off");
        let forget =
            move |hull: &mut HullRecord| survey::forget_fitting(hull, theirs.as_deref(), &name);
        return Ok((label, Box::new(forget)));
    }
    let kind = was.map(|f| survey::key_of(&f.kind)).or(at.add.as_deref());
    let placed = survey::fitting(kind.unwrap_or(""), was, typed, units)?;
    let what = kind
        .and_then(survey::kind_of)
        .map_or("fitting", |k| k.label);
    let label = match &at.at {
        Some(name) => format!("{name} changed"),
        None if placed.both_sides => format!("{what}, a pair, put on"),
        None => format!("{what} put on"),
    };
    let mine = at.at.clone();
    let put = move |hull: &mut HullRecord| {
        survey::put_fitting(hull, theirs.as_deref(), mine.as_deref(), &placed).map(|_| ())
    };
    Ok((label, Box::new(put)))
}

/// A change to a record.
type Edit = Box<dyn Fn(&mut HullRecord) -> Result<(), String> + Send>;

/// Puts a fitting on the record, changes it, or takes it off.
#[post("/hulls/<slug>/fittings?<at>&<add>&<change>", data = "<form>")]
#[expect(clippy::too_many_arguments, reason = "each is a part of the request")]
async fn put(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
    change: Option<String>,
    form: Form<HashMap<String, String>>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<FittingsPage>)>, Trouble> {
    let typed = form.into_inner();
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(Err((Status::NotFound, None)));
    };
    let hand = AtFitting { at, add, change };
    let on = fittings::fittings_on(&hull.survey, hand.change.as_deref()).iter();
    let was = hand
        .at
        .as_deref()
        .and_then(|name| on.clone().find(|f| f.name == name));
    let mistakes = match asked(&hand, was, &typed, reader.units) {
        Err(mistakes) => mistakes,
        Ok((label, make)) => match edit::edit(shared, slug, label, make).await? {
            Edited::Kept => {
                // On with another of its kind, or back to the one changed.
                let named = typed.get("name").map(|n| n.trim());
                let named = named.filter(|n| !n.is_empty());
                let gone = typed.get("action").is_some_and(|a| a == "forget");
                let next = match (&hand.at, &hand.add) {
                    _ if gone => None,
                    (Some(was), _) => Some(("at", named.unwrap_or(was))),
                    (None, kind) => kind.as_deref().map(|kind| ("add", kind)),
                };
                let to = here(slug, &query_of(&ask), hand.change.as_deref(), next);
                return Ok(Ok(Redirect::to(back_to(&to))));
            }
            Edited::Gone => return Ok(Err((Status::NotFound, None))),
            Edited::Refused(problem) => [(String::new(), problem)].into(),
        },
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(slug, &ask, reader, shared, hand, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, put]
}

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
        let path = format!("/hulls/{}/fittings", self.fittings.key);
        address(&path, &self.query, &[(name, value)])
    }
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

#[get("/hulls/<slug>/fittings?<at>&<add>")]
async fn page(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<FittingsPage, Status>, Trouble> {
    let at = AtFitting { at, add };
    let page = look(slug, &ask, reader, shared, at, NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Puts a fitting on the record, changes it, or takes it off.
#[post("/hulls/<slug>/fittings?<at>&<add>", data = "<form>")]
async fn put(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
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
    let on = hull.survey.fitout.fittings.iter();
    let was = at
        .as_deref()
        .and_then(|name| on.clone().find(|f| f.name == name));
    let path = format!("/hulls/{slug}/fittings");
    let query = query_of(&ask);
    if let (Some(was), Some("forget")) = (was, typed.get("action").map(String::as_str)) {
        let name = was.name.clone();
        let done = edit::edit(shared, slug, format!("{name} taken off"), move |hull| {
            survey::forget_fitting(hull, &name)
        });
        return match done.await? {
            Edited::Kept => Ok(Ok(Redirect::to(back_to(&address(&path, &query, &[]))))),
            Edited::Gone => Ok(Err((Status::NotFound, None))),
            Edited::Refused(problem) => {
                let mistakes = [(String::new(), problem)].into();
                let not_taken = NotTaken {
                    typed: HashMap::new(),
                    mistakes,
                };
                let at = AtFitting { at, add };
                let page = look(slug, &ask, reader, shared, at, not_taken).await?;
                Ok(Err((Status::UnprocessableEntity, page)))
            }
        };
    }
    let kind = was.map(|f| survey::key_of(&f.kind)).or(add.as_deref());
    let read = survey::fitting(kind.unwrap_or(""), was, &typed, reader.units);
    let mistakes = match read {
        Err(mistakes) => mistakes,
        Ok(placed) => {
            let what = kind
                .and_then(survey::kind_of)
                .map_or("fitting", |k| k.label);
            let label = match &at {
                Some(name) => format!("{name} changed"),
                None if placed.both_sides => format!("{what}, a pair, put on"),
                None => format!("{what} put on"),
            };
            let mine = at.clone();
            let done = edit::edit(shared, slug, label, move |hull| {
                survey::put_fitting(hull, mine.as_deref(), &placed).map(|_| ())
            });
            match done.await? {
                Edited::Kept => {
                    // On with another of its kind, or back to the one changed.
                    let named = typed
                        .get("name")
                        .map(|n| n.trim())
                        .filter(|n| !n.is_empty());
                    let back = match (&at, &add) {
                        (Some(was), _) => ("at", named.unwrap_or(was)),
                        (None, Some(kind)) => ("add", kind.as_str()),
                        (None, None) => ("add", ""),
                    };
                    let to = address(&path, &query, &[back]);
                    return Ok(Ok(Redirect::to(back_to(&to))));
                }
                Edited::Gone => return Ok(Err((Status::NotFound, None))),
                Edited::Refused(problem) => [(String::new(), problem)].into(),
            }
        }
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(slug, &ask, reader, shared, AtFitting { at, add }, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, put]
}

//! Fittings of a hull, put on the drawing one by one.

use super::address::address;
use super::edit::{self, Change, action};
use super::reader::back_to;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::NotTaken;
use crate::form::Refusal;
use crate::form::Sent;
use crate::present::page::survey::fittings::{self, AtFitting, FittingsView};
use crate::survey::{self, OfFitting};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::Kind;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "fittings.html")]
struct FittingsPage {
    frame: Frame,
    fittings: FittingsView,
}

impl FittingsPage {
    /// The page's address with something at hand.
    fn with(&self, name: &str, value: &str) -> String {
        let f = &self.fittings;
        let change = Some(f.change.as_str()).filter(|c| !c.is_empty());
        here(&f.key, &self.frame.query, change, Some((name, value)))
    }
}

/// Address of the fittings of delivery or of a change, with something at hand.
fn here(slug: &str, query: &str, change: Option<&str>, hand: Option<(&str, &str)>) -> String {
    let change = change.map(|change| ("change", change));
    let pairs: Vec<(&str, &str)> = hand.into_iter().chain(change).collect();
    address(&format!("/hulls/{slug}/fittings"), query, &pairs)
}

async fn fittings_page(
    slug: &str,
    visit: &Visit<'_>,
    at: AtFitting,
    not_taken: NotTaken,
) -> Result<FittingsPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let (survey, lines) = edit::drawn(shared, slug).await?;
    Ok(FittingsPage {
        frame: visit
            .frame_of(
                "hull",
                visit.to(&format!("/hulls/{slug}/fittings"), &[]),
                Some((Kind::Hull, slug)),
            )
            .await?,
        fittings: fittings::fittings(&survey, lines.as_ref(), &at, &not_taken, reader.units),
    })
}

#[get("/hulls/<slug>/fittings?<at>&<add>&<change>")]
async fn page(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
    change: Option<String>,
    visit: Visit<'_>,
) -> Result<FittingsPage, Trouble> {
    let at = AtFitting { at, add, change };
    fittings_page(slug, &visit, at, NotTaken::default()).await
}

/// What a form asks to be done, with the words for the history.
fn asked(at: &AtFitting, typed: Sent, units: System) -> (String, Change) {
    let forgets = action(&typed) == "forget";
    let new = at.add.as_deref().and_then(survey::kind_of);
    let what = new.map_or("fitting", |kind| kind.label);
    let label = match &at.at {
        Some(name) if forgets => format!("{name} taken off"),
        Some(name) => format!("{name} changed"),
        None if typed.contains_key("both") => format!("{what}, a pair, put on"),
        None => format!("{what} put on"),
    };
    let at = at.clone();
    let change = move |hull: &mut HullRecord| -> Result<(), Refusal> {
        let of = OfFitting {
            change: at.change.as_deref(),
            was: at.at.as_deref().unwrap_or_default(),
            kind: at.add.as_deref().unwrap_or_default(),
        };
        if forgets {
            return survey::forget_fitting(hull, of, &typed, units);
        }
        survey::keep_fitting(hull, of, &typed, units).map(|_| ())
    };
    (label, Box::new(change))
}

/// Puts a fitting on the record, changes it, or takes it off.
#[post("/hulls/<slug>/fittings?<at>&<add>&<change>", data = "<form>")]
async fn put(
    slug: &str,
    at: Option<String>,
    add: Option<String>,
    change: Option<String>,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, FittingsPage)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let typed = form.into_inner();
    let mut hand = AtFitting { at, add, change };
    let (label, make) = asked(&hand, typed.clone(), reader.units);
    let mistakes = match edit::edit(&visit, slug, label, make).await? {
        Ok(()) => {
            // On with another of its kind, or back to the one changed.
            let named = typed.get("name").map(|n| n.trim());
            let named = named.filter(|n| !n.is_empty());
            let next = match (&hand.at, &hand.add) {
                _ if action(&typed) == "forget" => None,
                (Some(was), _) => Some(("at", named.unwrap_or(was))),
                (None, kind) => kind.as_deref().map(|kind| ("add", kind)),
            };
            let to = here(slug, &visit.query, hand.change.as_deref(), next);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Err(refusal) => refusal.0,
    };
    // Taken off by somebody else: what was typed stands as one to put on.
    let on = shared.records().await?;
    let mut hulls = on.hulls.iter();
    let on = hulls.find(|h| h.survey.key == slug).map(|h| &h.survey);
    let on = on.map(|s| fittings::fittings_on(s, hand.change.as_deref()));
    let there = |name: &String| on.is_some_and(|on| on.iter().any(|f| f.name == *name));
    if hand.at.as_ref().is_some_and(|name| !there(name)) {
        hand.at = None;
        hand.add = typed.get("kind").cloned();
    }
    let not_taken = NotTaken { typed, mistakes };
    let page = fittings_page(slug, &visit, hand, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, put]
}

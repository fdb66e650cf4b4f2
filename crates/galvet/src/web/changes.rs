//! Changes of a hull, made or planned, and ways of setting her up, compared.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Change, Edited, Typed, action, address};
use super::moved::moved_on;
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::answer::{outcome, ways};
use crate::form::NotTaken;
use crate::present::page::changes::{self, AtChange, ChangesView};
use crate::present::page::sentence::{self, Sentence};
use crate::present::page::variants::side_by_side;
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::Progress;
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Steps};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "changes.html")]
struct ChangesPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    sentence: Sentence,
    changes: ChangesView,
}

/// The page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "changes.html", block = "answer")]
struct ChangesPart {
    query: String,
    here: String,
    steps: Steps,
    sentence: Sentence,
    changes: ChangesView,
}

impl ChangesPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    fn with(&self, name: &str, value: &str) -> String {
        with(&self.changes, &self.query, name, value)
    }

    fn adds(&self, change: &str) -> String {
        adds(&self.changes, &self.query, change)
    }
}

impl ChangesPart {
    fn with(&self, name: &str, value: &str) -> String {
        with(&self.changes, &self.query, name, value)
    }

    fn adds(&self, change: &str) -> String {
        adds(&self.changes, &self.query, change)
    }
}

/// The page's address with something at hand.
fn with(changes: &ChangesView, query: &str, name: &str, value: &str) -> String {
    address(
        &format!("/hulls/{}/changes", changes.key),
        query,
        &[(name, value)],
    )
}

/// Address of the fittings a change adds.
fn adds(changes: &ChangesView, query: &str, change: &str) -> String {
    let path = format!("/hulls/{}/fittings", changes.key);
    address(&path, query, &[("change", change)])
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    at: AtChange,
    not_taken: NotTaken,
) -> Result<Option<ChangesPage>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(None);
    };
    let lines = edit::drawn(shared, slug).await?.and_then(|d| d.1);
    let answered = shared.ranking(&asked, &shelf, reader.caller).await?;
    let path = format!("/hulls/{slug}/changes");
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, path.clone(), reader.units);
    sentence.moved = moved_on(&hull, ask, &asked, &shelf, reader, shared).await?;
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let made = shared.work(reader.caller, move || {
        let all = ways(&hull).into_iter();
        let all: Vec<_> = all
            .map(|way| outcome(&desk, way, &brief, &answered))
            .collect();
        changes::changes(
            &hull.survey,
            lines.as_ref(),
            side_by_side(&all, &brief, reader.units),
            &at,
            &not_taken,
            reader.units,
        )
    });
    let query = query_of(ask);
    Ok(Some(ChangesPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&path, &query, &[]),
        place: "hull",
        steps: steps(shared, reader, Some((Kind::Hull, slug))).await?,
        query,
        sentence,
        changes: made.await?,
    }))
}

#[get("/hulls/<slug>/changes?<change>&<set_up>")]
async fn page(
    slug: &str,
    change: Option<String>,
    set_up: Option<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ChangesPage, Status>, Trouble> {
    let at = AtChange { change, set_up };
    let page = look(slug, &ask, reader, shared, at, NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

#[get("/part/hulls/<slug>/changes")]
async fn part(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ChangesPart, Status>, Trouble> {
    let nothing = (AtChange::default(), NotTaken::default());
    let page = look(slug, &ask, reader, shared, nothing.0, nothing.1).await?;
    Ok(page.ok_or(Status::NotFound).map(|page| ChangesPart {
        query: page.query,
        here: page.here,
        steps: page.steps,
        sentence: page.sentence,
        changes: page.changes,
    }))
}

/// What a form asks to be done to a change, with the words for the history.
fn of_change(was: String, typed: Typed, units: System) -> (String, Change) {
    let label = match action(&typed) {
        "forget" => format!("change “{was}” taken off"),
        "done" => format!("“{was}” done"),
        "planned" => format!("“{was}” undone again"),
        _ => format!("change “{}” noted", named(&typed, &was)),
    };
    let change = move |hull: &mut HullRecord| match action(&typed) {
        "forget" => survey::forget_modification(hull, &was, &typed, units),
        "done" => Ok(survey::set_progress(hull, &was, Progress::Done)?),
        "planned" => Ok(survey::set_progress(hull, &was, Progress::Planned)?),
        _ => survey::keep_modification(hull, &was, &typed, units),
    };
    (label, Box::new(change))
}

/// What it is called now.
fn named<'a>(typed: &'a Typed, was: &'a str) -> &'a str {
    typed.get("name").map_or(was, |name| name.trim())
}

/// What a form asks to be done to a configuration, with the words for the history.
fn of_set_up(was: String, typed: Typed, units: System) -> (String, Change) {
    let label = match action(&typed) {
        "forget" => format!("set-up “{was}” taken off"),
        _ => format!("set-up “{}” noted", named(&typed, &was)),
    };
    let change = move |hull: &mut HullRecord| match action(&typed) {
        "forget" => survey::forget_configuration(hull, &was, &typed, units),
        _ => survey::keep_configuration(hull, &was, &typed, units),
    };
    (label, Box::new(change))
}

/// Keeps a change or a configuration, marks it done, or takes it off.
#[post("/hulls/<slug>/changes?<change>&<set_up>", data = "<form>")]
async fn put(
    slug: &str,
    change: Option<String>,
    set_up: Option<String>,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<ChangesPage>)>, Trouble> {
    let typed = form.into_inner();
    let (label, make) = match (&change, &set_up) {
        (Some(was), _) => of_change(was.clone(), typed.clone(), reader.units),
        (None, Some(was)) => of_set_up(was.clone(), typed.clone(), reader.units),
        (None, None) => return Ok(Err((Status::NotFound, None))),
    };
    let mistakes = match edit::edit((shared, reader), slug, label, make).await? {
        Edited::Kept => {
            let to = address(&format!("/hulls/{slug}/changes"), &query_of(&ask), &[]);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Edited::Gone => return Ok(Err((Status::NotFound, None))),
        Edited::Refused(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let at = AtChange { change, set_up };
    let page = look(slug, &ask, reader, shared, at, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, put]
}

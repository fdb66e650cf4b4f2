//! Changes of a hull, made or planned, and ways of setting her up, compared.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, address};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use crate::answer::{outcome, ways};
use crate::present::page::changes::{self, AtChange, ChangesView};
use crate::present::page::sentence::{self, Sentence};
use crate::present::page::walk::NotTaken;
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::Progress;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "changes.html")]
struct ChangesPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    undo: Option<String>,
    sentence: Sentence,
    changes: ChangesView,
}

/// The page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "changes.html", block = "answer")]
struct ChangesPart {
    query: String,
    here: String,
    undo: Option<String>,
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
    let Ok(asked) = ask.resolve(&shelf.catalogue, reader.units) else {
        return Ok(None);
    };
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(None);
    };
    let lines = edit::drawn(shared, slug).await?.and_then(|d| d.1);
    let answered = shared.ranking(&asked, &shelf, reader.caller).await?;
    let path = format!("/hulls/{slug}/changes");
    let sentence = sentence::sentence(&asked, &shelf.catalogue, path.clone(), reader.units);
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let made = shared.work(reader.caller, move || {
        let all = ways(&hull).into_iter();
        let all: Vec<_> = all
            .map(|way| outcome(&desk, way, &brief, &answered))
            .collect();
        changes::changes(
            &hull.survey,
            lines.as_ref(),
            &all,
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
        undo: shared.store.undoable()?,
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
        undo: page.undo,
        sentence: page.sentence,
        changes: page.changes,
    }))
}

/// A change to the record, with the words for the history.
type Change = (
    String,
    Box<dyn Fn(&mut HullRecord) -> Result<(), String> + Send + Sync>,
);

/// What a form asks to be done to a change.
fn of_change(
    was: &str,
    typed: &HashMap<String, String>,
    hull: &galvet_core::hull::Survey,
    units: System,
) -> Result<Change, survey::Mistakes> {
    let name = was.to_owned();
    Ok(match typed.get("action").map_or("keep", String::as_str) {
        "forget" => (
            format!("change “{was}” taken off"),
            Box::new(move |hull| {
                survey::forget_modification(hull, &name);
                Ok(())
            }),
        ),
        "done" => (
            format!("“{was}” done"),
            Box::new(move |hull| survey::set_progress(hull, &name, Progress::Done)),
        ),
        "planned" => (
            format!("“{was}” undone again"),
            Box::new(move |hull| survey::set_progress(hull, &name, Progress::Planned)),
        ),
        _ => {
            let old = hull.fitout.modifications.iter().find(|m| m.name == was);
            let made = survey::modification(old, typed, units)?;
            let label = format!("change “{}” noted", made.name);
            let was = old.map(|m| m.name.clone());
            let put = move |hull: &mut HullRecord| {
                survey::put_modification(hull, was.as_deref(), made.clone())
            };
            (label, Box::new(put))
        }
    })
}

/// What a form asks to be done to a configuration.
fn of_set_up(
    was: &str,
    typed: &HashMap<String, String>,
    units: System,
) -> Result<Change, survey::Mistakes> {
    let name = was.to_owned();
    if typed.get("action").is_some_and(|a| a == "forget") {
        let forget = move |hull: &mut HullRecord| {
            survey::forget_configuration(hull, &name);
            Ok(())
        };
        return Ok((format!("set-up “{was}” taken off"), Box::new(forget)));
    }
    let made = survey::configuration(typed, units)?;
    let label = format!("set-up “{}” noted", made.name);
    let put = move |hull: &mut HullRecord| {
        let was = Some(name.as_str()).filter(|n| !n.is_empty());
        survey::put_configuration(hull, was, made.clone())
    };
    Ok((label, Box::new(put)))
}

/// Keeps a change or a configuration, marks it done, or takes it off.
#[post("/hulls/<slug>/changes?<change>&<set_up>", data = "<form>")]
async fn put(
    slug: &str,
    change: Option<String>,
    set_up: Option<String>,
    form: Form<HashMap<String, String>>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<ChangesPage>)>, Trouble> {
    let typed = form.into_inner();
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(Err((Status::NotFound, None)));
    };
    let asked = match (&change, &set_up) {
        (Some(was), _) => of_change(was, &typed, &hull.survey, reader.units),
        (None, Some(was)) => of_set_up(was, &typed, reader.units),
        (None, None) => return Ok(Err((Status::NotFound, None))),
    };
    let mistakes = match asked {
        Err(mistakes) => mistakes,
        Ok((label, make)) => match edit::edit(shared, slug, label, make).await? {
            Edited::Kept => {
                let to = address(&format!("/hulls/{slug}/changes"), &query_of(&ask), &[]);
                return Ok(Ok(Redirect::to(back_to(&to))));
            }
            Edited::Gone => return Ok(Err((Status::NotFound, None))),
            Edited::Refused(problem) => [(String::new(), problem)].into(),
        },
    };
    let not_taken = NotTaken { typed, mistakes };
    let at = AtChange { change, set_up };
    let page = look(slug, &ask, reader, shared, at, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, put]
}

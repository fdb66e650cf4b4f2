//! The rig builder.

use super::ask::query_of;
use super::assets;
use super::edit::{Typed, action, address, kit_throw};
use super::errors::{Told, told};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::kit::{self, LineChange};
use crate::present::page::rig::{self, RigView};
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use crate::survey::EditError;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{System, typed_name};
use galvet_core::gear::Gear;
use galvet_core::rig::Importance;
use galvet_store::{Kind, Record, Steps, Store};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, State, get, post, routes};

/// A rig's page.
#[derive(Template, WebTemplate)]
#[template(path = "rig.html")]
struct RigPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    /// Who is aboard: the question's crew.
    sentence: Sentence,
    rig: RigView,
}

impl RigPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    /// The page's form address, the search kept.
    fn form(&self) -> String {
        let path = format!("/rigs/{}", self.rig.key);
        let find = Some(self.rig.find.as_str()).filter(|f| !f.is_empty());
        let pairs: Vec<(&str, &str)> = find.map(|f| ("find", f)).into_iter().collect();
        address(&path, &self.query, &pairs)
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    (find, against, trouble): (String, Option<String>, String),
) -> Result<Option<RigPage>, Trouble> {
    let on = shared.shelf().await?;
    let all = &on.catalogue;
    let Some(mine) = all.rigs.iter().find(|r| r.key == slug) else {
        return Ok(None);
    };
    let query = query_of(ask);
    let question = ask.resolve(all)?;
    let path = format!("/rigs/{slug}");
    let sentence = sentence::sentence(&question, all, path, reader.units);
    let asked = (find.as_str(), against.as_deref());
    Ok(Some(RigPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&format!("/rigs/{slug}"), &query, &[]),
        place: "kit",
        steps: steps(shared, reader, Some((Kind::Rig, slug))).await?,
        query,
        sentence,
        rig: rig::rig(mine, &all.gear, &all.rigs, asked, trouble, reader.units),
    }))
}

#[get("/rigs/<slug>?<find>&<against>")]
async fn page(
    slug: &str,
    find: Option<String>,
    against: Option<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<RigPage, Status>, Trouble> {
    let asked = (find.unwrap_or_default(), against, String::new());
    let page = look(slug, &ask, reader, shared, asked).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Begins a rig.
#[post("/rigs", data = "<form>")]
async fn begin(
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let named = match kit::new_rig(form.get("name").map_or("", String::as_str)) {
        Ok(named) => named,
        Err(problem) => {
            let why = format!("{problem}.");
            let back = address("/kit", &query_of(&ask), &[]);
            return Ok(Err(told(
                Status::UnprocessableEntity,
                "No rig was begun",
                why,
                &back,
            )));
        }
    };
    let store = shared.store.clone();
    let key = spawn_blocking(move || kit::put_rig(&store, reader.hand.who(), named)).await??;
    let to = address(&format!("/rigs/{key}"), &query_of(&ask), &[]);
    Ok(Ok(Redirect::to(back_to(&to))))
}

/// The step a form asks for, with the words for the history.
fn step(typed: &Typed, shelf: &[Gear]) -> Result<(LineChange, String), String> {
    let text = |name: &str| typed.get(name).map_or("", String::as_str);
    let item = text("item");
    Ok(match action(typed) {
        "add" => {
            let gear = shelf.iter().find(|g| g.key == text("gear"));
            let gear = gear.ok_or("that is not on the shelf any more")?;
            (
                LineChange::Add(Box::new(gear.clone())),
                format!("{} put on the rig", gear.name),
            )
        }
        "more" => (LineChange::Count(1), format!("one more {item}")),
        "fewer" => (LineChange::Count(-1), format!("one {item} fewer")),
        "must" => (
            LineChange::Importance(Importance::Must),
            format!("{item} must come"),
        ),
        "want" => (
            LineChange::Importance(Importance::Want),
            format!("{item} may stay ashore"),
        ),
        "into" => {
            let into = text("into").to_owned();
            let label = if into.is_empty() {
                format!("{item} taken out")
            } else {
                format!("{item} packed in the {}", into.replace('-', " "))
            };
            (LineChange::Into(into), label)
        }
        "off" => (LineChange::Off, format!("{item} taken off the rig")),
        _ => return Err("there is no such step".to_owned()),
    })
}

/// A copy of a rig under a name of its own, to be varied.
fn branch(store: &Store, reader: Reader, slug: &str, name: &str) -> Result<String, EditError> {
    let named = kit::new_rig(name);
    let named = named.map_err(|problem| EditError::Refused(problem.to_string().into()))?;
    let Some((_, Record::Rig(rig))) = store.record(Kind::Rig, slug)? else {
        return Err(EditError::Gone);
    };
    let copy = galvet_core::rig::Rig {
        lines: rig.lines,
        ..named
    };
    Ok(kit::put_rig(store, reader.hand.who(), copy)?)
}

/// Does what a form asks; the rig to show then.
fn apply(
    store: &Store,
    reader: Reader,
    slug: &str,
    typed: &Typed,
    shelf: &[Gear],
) -> Result<String, EditError> {
    let text = |name: &str| typed.get(name).map_or("", String::as_str);
    let refused = |problem: String| EditError::Refused(problem.into());
    match action(typed) {
        "branch" => return branch(store, reader, slug, text("name")),
        "rename" => {
            let name = typed_name(text("name")).map_err(|problem| refused(problem.to_string()))?;
            kit::edit_rig(store, reader.hand.who(), slug, "rig renamed", |rig| {
                rig.name.clone_from(&name);
                Ok(())
            })?;
        }
        "throw-away" => {
            kit_throw(store, reader, (Kind::Rig, slug))?;
            return Ok(String::new());
        }
        _ => {
            let (change, label) = step(typed, shelf).map_err(refused)?;
            let line = text("line").parse().unwrap_or(usize::MAX);
            kit::edit_rig(store, reader.hand.who(), slug, &label, |rig| {
                kit::change_line(rig, (line, text("item")), &change)
            })?;
        }
    }
    Ok(slug.to_owned())
}

#[post("/rigs/<slug>?<find>", data = "<form>")]
async fn put(
    slug: &str,
    find: Option<String>,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<RigPage>)>, Trouble> {
    let typed = form.into_inner();
    let shelf = shared.shelf().await?;
    let (store, key) = (shared.store.clone(), slug.to_owned());
    let done = spawn_blocking(move || apply(&store, reader, &key, &typed, &shelf.catalogue.gear));
    let trouble = match done.await? {
        Ok(to) => {
            let path = if to.is_empty() {
                "/kit".to_owned()
            } else {
                format!("/rigs/{to}")
            };
            let find = find.filter(|f| !f.is_empty() && !to.is_empty());
            let pairs: Vec<(&str, &str)> = find.iter().map(|f| ("find", f.as_str())).collect();
            let to = address(&path, &query_of(&ask), &pairs);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Err(EditError::Gone) => return Ok(Err((Status::NotFound, None))),
        Err(EditError::Refused(refusal)) => refusal.to_string(),
        Err(EditError::Store(error)) => return Err(error.into()),
    };
    let asked = (find.unwrap_or_default(), None, trouble);
    let page = look(slug, &ask, reader, shared, asked).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, begin, put]
}

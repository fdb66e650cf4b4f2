//! The rig builder.

use super::address::address;
use super::edit::{action, came_of, kit_throw};
use super::errors::{Told, told};
use super::reader::Reader;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::Sent;
use crate::kit::{self, LineChange};
use crate::present::page::rig::{self, RigView};
use crate::present::page::sentence::{self, Sentence};
use crate::survey::EditError;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::typed_name;
use galvet_core::gear::Gear;
use galvet_core::rig::Importance;
use galvet_store::{Kind, Record, Store};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};

/// A rig's page.
#[derive(Template, WebTemplate)]
#[template(path = "rig.html")]
struct RigPage {
    frame: Frame,
    /// Who is aboard: the question's crew.
    sentence: Sentence,
    rig: RigView,
}

impl RigPage {
    /// The address of a page of ours, with this rig in the question.
    fn with(&self, path: &str) -> String {
        address(path, &self.frame.query, &[("rig", self.rig.key.as_str())])
    }

    /// The page's form address, the search kept.
    fn form(&self) -> String {
        let path = format!("/rigs/{}", self.rig.key);
        let find = Some(self.rig.find.as_str()).filter(|f| !f.is_empty());
        let pairs: Vec<(&str, &str)> = find.map(|f| ("find", f)).into_iter().collect();
        address(&path, &self.frame.query, &pairs)
    }
}

async fn rigs_page(
    slug: &str,
    visit: &Visit<'_>,
    (find, against, trouble): (String, Option<String>, String),
) -> Result<RigPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let on = shared.records().await?;
    let all = &on.catalogue;
    let mine = all.rigs.iter().find(|r| r.key == slug);
    let mine = mine.ok_or(Trouble::Gone)?;
    let question = ask.resolve(all)?;
    let path = format!("/rigs/{slug}");
    let sentence = sentence::sentence(&question, all, path, reader.units);
    let asked = (find.as_str(), against.as_deref());
    Ok(RigPage {
        frame: visit
            .frame_of(
                "kit",
                visit.to(&format!("/rigs/{slug}"), &[]),
                Some((Kind::Rig, slug)),
            )
            .await?,
        sentence,
        rig: RigView {
            hulls: all
                .hulls
                .iter()
                .map(|h| (h.survey.key.clone(), h.survey.name()))
                .collect(),
            ..rig::rig(mine, &all.gear, &all.rigs, asked, trouble, reader.units)
        },
    })
}

#[get("/rigs/<slug>?<find>&<against>")]
async fn page(
    slug: &str,
    find: Option<String>,
    against: Option<String>,
    visit: Visit<'_>,
) -> Result<RigPage, Trouble> {
    let asked = (find.unwrap_or_default(), against, String::new());
    rigs_page(slug, &visit, asked).await
}

/// Begins a rig.
#[post("/rigs", data = "<form>")]
async fn begin(form: Form<Sent>, visit: Visit<'_>) -> Result<Result<Redirect, Told>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let named = match kit::new_rig(form.get("name").map_or("", String::as_str)) {
        Ok(named) => named,
        Err(problem) => {
            let why = format!("{problem}.");
            let back = visit.to("/kit", &[]);
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
    Ok(Ok(visit.go(&format!("/rigs/{key}"), &[])))
}

/// The step a form asks for, with the words for the history.
fn step(typed: &Sent, records: &[Gear]) -> Result<(LineChange, String), String> {
    let text = |name: &str| typed.get(name).map_or("", String::as_str);
    let item = text("item");
    Ok(match action(typed) {
        "add" => {
            let gear = records.iter().find(|g| g.key == text("gear"));
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
    typed: &Sent,
    records: &[Gear],
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
            kit_throw(store, reader.hand.who(), (Kind::Rig, slug))?;
            return Ok(String::new());
        }
        _ => {
            let (change, label) = step(typed, records).map_err(refused)?;
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
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, RigPage)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let typed = form.into_inner();
    let records = shared.records().await?;
    let (store, key) = (shared.store.clone(), slug.to_owned());
    let done = spawn_blocking(move || apply(&store, reader, &key, &typed, &records.catalogue.gear));
    let trouble = match came_of(done.await?)? {
        Ok(to) => {
            let path = if to.is_empty() {
                "/kit".to_owned()
            } else {
                format!("/rigs/{to}")
            };
            let find = find.filter(|f| !f.is_empty() && !to.is_empty());
            let pairs: Vec<(&str, &str)> = find.iter().map(|f| ("find", f.as_str())).collect();
            return Ok(Ok(visit.go(&path, &pairs)));
        }
        Err(refusal) => refusal.to_string(),
    };
    let asked = (find.unwrap_or_default(), None, trouble);
    let page = rigs_page(slug, &visit, asked).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, begin, put]
}

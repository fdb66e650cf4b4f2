//! The rig builder.

use super::address::address;
use super::edit::{action, came_of, kit_throw};
use super::errors::{Told, told};
use super::reader::Reader;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::{FormView, NotTaken, Sent, typed_number};
use crate::kit::{self, Confirmed, LineChange};
use crate::present::page::kit::rig::{self, RigView};
use crate::present::page::ranking::sentence::{self, Sentence};
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
use std::borrow::Borrow;

/// A rig's page.
#[derive(Template, WebTemplate)]
#[template(path = "rig.html")]
struct RigPage {
    frame: Frame,
    /// Who is aboard: the question's crew.
    sentence: Sentence,
    rig: RigView,
    /// The line that is being changed: its number, what it is, its form.
    line: Option<(usize, String, FormView)>,
}

/// What of a rig is looked at.
#[derive(Default)]
struct At {
    /// What is looked for on the shelf.
    find: String,
    /// The rig it is held against.
    against: Option<String>,
    /// Which line is being changed.
    line: Option<usize>,
    /// What somebody wrote that they carry.
    words: String,
}

impl RigPage {
    /// The address of a page of ours, with this rig in the question.
    fn with(&self, path: &str) -> String {
        address(path, &self.frame.query, &[("rig", self.rig.key.as_str())])
    }

    /// The address at which a line's figures are typed.
    fn change(&self, line: impl Borrow<usize>) -> String {
        let path = format!("/rigs/{}", self.rig.key);
        address(
            &path,
            &self.frame.query,
            &[("line", &line.borrow().to_string())],
        )
    }

    /// Where a thing that is not on the shelf is made, to land on this rig.
    fn new_thing(&self) -> String {
        address(
            "/new-thing",
            &self.frame.query,
            &[("for", self.rig.key.as_str())],
        )
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
    at: At,
    not_taken: NotTaken,
) -> Result<RigPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let on = shared.records().await?;
    let all = &on.catalogue;
    let mine = all.rigs.iter().find(|r| r.key == slug);
    let mine = mine.ok_or(Trouble::Gone)?;
    let question = ask.resolve(all)?;
    let path = format!("/rigs/{slug}");
    let sentence = sentence::sentence(&question, all, path, reader.units);
    let asked = (at.find.as_str(), at.against.as_deref());
    let form = |number: usize| {
        let form = kit::form_of_line(mine, number, &not_taken, reader.units)?;
        Some((number, mine.lines.get(number)?.item.clone(), form))
    };
    let line = at.line.and_then(form);
    // What is wrong with a line stands at its form.
    let trouble = match line {
        None => not_taken.mistake(""),
        Some(_) => String::new(),
    };
    Ok(RigPage {
        line,
        frame: visit
            .frame_of(
                "kit",
                visit.to(&format!("/rigs/{slug}"), &[]),
                Some((Kind::Rig, slug)),
            )
            .await?,
        sentence,
        rig: RigView {
            spoken: rig::spoken(&kit::spoken(&at.words, &all.gear), &all.gear, reader.units),
            words: at.words,
            hulls: all
                .hulls
                .iter()
                .map(|h| (h.survey.key.clone(), h.survey.name()))
                .collect(),
            ..rig::rig(mine, &all.gear, &all.rigs, asked, trouble, reader.units)
        },
    })
}

#[get("/rigs/<slug>?<find>&<against>&<line>")]
async fn page(
    slug: &str,
    find: Option<String>,
    against: Option<String>,
    line: Option<usize>,
    visit: Visit<'_>,
) -> Result<RigPage, Trouble> {
    let find = find.unwrap_or_default();
    let at = At {
        find,
        against,
        line,
        words: String::new(),
    };
    rigs_page(slug, &visit, at, NotTaken::default()).await
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
                "No rig was started",
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

/// What was typed of a line, without which it is.
fn typed_of(form: &Sent) -> Sent {
    let mut typed = form.clone();
    typed.retain(|name, _| !["line", "item"].contains(&name.as_str()));
    typed
}

/// The things somebody wrote, as they were confirmed.
fn confirmed(typed: &Sent, reader: Reader) -> Result<Vec<Confirmed>, String> {
    let mut out = Vec::new();
    for n in 0.. {
        let text = |name: &str| typed.get(&format!("say-{n}-{name}")).map(String::as_str);
        let Some(is) = text("is") else {
            break;
        };
        if is == rig::LEAVE {
            continue;
        }
        let count = text("count").and_then(|c| c.parse().ok()).unwrap_or(1);
        let name = text("name").unwrap_or_default();
        let new = if is == rig::NEW {
            let name = typed_name(name).map_err(|e| format!("“{name}”: {e}"))?;
            let mass = text("mass").unwrap_or_default();
            let mass = typed_number(mass, Gear::MASS, reader.units);
            Some((
                name.clone(),
                mass.map_err(|e| format!("what “{name}” weighs: {e}"))?,
            ))
        } else {
            None
        };
        out.push(Confirmed {
            count,
            key: is.to_owned(),
            new,
        });
    }
    Ok(out)
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
    let number = text("line").parse().unwrap_or(usize::MAX);
    match action(typed) {
        "branch" => return branch(store, reader, slug, text("name")),
        "rename" => {
            let name = typed_name(text("name")).map_err(|problem| refused(problem.to_string()))?;
            kit::edit_rig(store, reader.hand.who(), slug, "rig renamed", |rig| {
                rig.name.clone_from(&name);
                Ok(())
            })?;
        }
        "said" => {
            let said = confirmed(typed, reader).map_err(refused)?;
            kit::put_spoken(store, reader.hand.who(), slug, &said, records)?;
        }
        "throw-away" => {
            kit_throw(store, reader.hand.who(), (Kind::Rig, slug))?;
            return Ok(String::new());
        }
        "line" => {
            let line = (slug, number, text("item"));
            kit::keep_line(
                store,
                reader.hand.who(),
                line,
                &typed_of(typed),
                reader.units,
            )?;
        }
        _ => {
            let (change, label) = step(typed, records).map_err(refused)?;
            kit::edit_rig(store, reader.hand.who(), slug, &label, |rig| {
                Ok(kit::change_line(rig, (number, text("item")), &change)?)
            })?;
        }
    }
    Ok(slug.to_owned())
}

#[post("/rigs/<slug>?<find>&<line>", data = "<form>")]
async fn put(
    slug: &str,
    find: Option<String>,
    line: Option<usize>,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, RigPage)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let typed = form.into_inner();
    if action(&typed) == "speak" {
        let at = At {
            words: typed.get("words").cloned().unwrap_or_default(),
            ..At::default()
        };
        let page = rigs_page(slug, &visit, at, NotTaken::default()).await?;
        return Ok(Err((Status::Ok, page)));
    }
    let records = shared.records().await?;
    let (store, key) = (shared.store.clone(), slug.to_owned());
    let sent = typed.clone();
    let done = spawn_blocking(move || apply(&store, reader, &key, &sent, &records.catalogue.gear));
    let mistakes = match came_of(done.await?)? {
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
        Err(refusal) => refusal.0,
    };
    let find = find.unwrap_or_default();
    let at = At {
        find,
        line,
        against: None,
        words: String::new(),
    };
    let page = rigs_page(slug, &visit, at, NotTaken { typed, mistakes }).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, begin, put]
}

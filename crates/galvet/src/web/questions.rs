//! Saving a question, and undoing what was last done.

use super::ask::query_of;
use super::assets;
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::who::WHO;
use crate::present::page::sentence::sentence;
use crate::question::{self, Ask};
use crate::survey::{free_slug, slug_of};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::{Kind, Record, SavedBrief, Steps, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, get, post, routes};
use std::collections::BTreeMap;

/// Longest name of a saved question.
const LONGEST_NAME: usize = 80;

#[derive(FromForm)]
struct SaveForm<'r> {
    name: &'r str,
    /// For whom; empty for oneself.
    #[field(default = "")]
    customer: &'r str,
}

/// A saved question in the list.
struct Line {
    key: String,
    name: String,
    words: String,
}

/// Questions of one customer; of oneself where nobody is named.
struct Folder {
    customer: String,
    questions: Vec<Line>,
}

/// Saved questions by customer.
#[derive(Template, WebTemplate)]
#[template(path = "questions.html")]
struct QuestionsPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    folders: Vec<Folder>,
}

impl QuestionsPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// The list.
#[get("/questions")]
async fn list(ask: Ask, reader: Reader, shared: &State<Shared>) -> Result<QuestionsPage, Trouble> {
    let shelf = shared.shelf().await?;
    let mut folders: BTreeMap<String, Vec<Line>> = BTreeMap::new();
    for saved in &shelf.catalogue.briefs {
        let start = Ask::start_from(saved.key.clone());
        let words = start.resolve(&shelf.catalogue).map(|asked| {
            let path = "/".to_owned();
            sentence(&asked, &shelf.catalogue, path, reader.units).said()
        });
        let folder = folders.entry(saved.customer.clone());
        folder.or_default().push(Line {
            key: saved.key.clone(),
            name: saved.name.clone(),
            words: words.unwrap_or_default(),
        });
    }
    let query = query_of(&ask);
    Ok(QuestionsPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/questions{query}"),
        place: "ask",
        query,
        steps: shared.store.steps()?,
        folders: folders
            .into_iter()
            .map(|(customer, questions)| Folder {
                customer,
                questions,
            })
            .collect(),
    })
}

/// Throws a saved question away; that can be undone.
#[post("/questions/<slug>/throw-away")]
async fn throw_away(slug: &str, shared: &State<Shared>) -> Result<Redirect, Trouble> {
    let (store, slug) = (shared.store.clone(), slug.to_owned());
    let done = rocket::tokio::task::spawn_blocking(move || {
        let Some((known, record)) = store.record(Kind::Brief, &slug)? else {
            return Ok(());
        };
        let name = match record {
            Record::Brief(saved) => saved.titled(),
            _ => slug,
        };
        let label = format!("question “{name}” thrown away");
        let gone = store.write(WHO, &label, |door| door.throw_away(Kind::Brief, known));
        match gone {
            // Somebody changed it meanwhile: it stays.
            Ok(_) | Err(StoreError::Conflict { .. }) => Ok(()),
            Err(error) => Err(error),
        }
    });
    done.await??;
    Ok(Redirect::to("/questions"))
}

/// Keeps the question of this address under a name.
#[post("/questions", data = "<form>")]
async fn save(
    ask: Ask,
    form: Form<SaveForm<'_>>,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let short = |text: &str| text.trim().chars().take(LONGEST_NAME).collect::<String>();
    let (name, customer) = (short(form.name), short(form.customer));
    let Ok(asked) = ask.resolve(&shelf.catalogue) else {
        return Ok(Err(Status::NotFound));
    };
    if name.is_empty() || !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let store = shared.store.clone();
    let question = question::kept(&asked.brief, asked.own_weight, &shelf.catalogue.rigs);
    let mut saved = SavedBrief {
        key: String::new(),
        name,
        customer,
        question,
    };
    let title = saved.titled();
    let label = format!("question “{title}” saved");
    let slug = rocket::tokio::task::spawn_blocking(move || {
        store.write(WHO, &label, |door| {
            saved.key = free_slug(door, Kind::Brief, &slug_of(&title, "question"))?;
            let key = saved.key.clone();
            door.put(&Record::Brief(saved), None)?;
            Ok(key)
        })
    });
    let key = slug.await??;
    let address = format!("/{}", query_of(&Ask::start_from(key)));
    Ok(Ok(Redirect::to(back_to(&address))))
}

#[derive(FromForm)]
struct UndoForm<'r> {
    back: &'r str,
}

/// Undoes what was last done.
#[post("/undo", data = "<form>")]
async fn undo(form: Form<UndoForm<'_>>, shared: &State<Shared>) -> Result<Redirect, Trouble> {
    let store = shared.store.clone();
    let undone = rocket::tokio::task::spawn_blocking(move || store.undo(WHO)).await?;
    match undone {
        // Another page was quicker: there is nothing left to do.
        Ok(_) | Err(StoreError::Nothing(_) | StoreError::Conflict { .. }) => {}
        Err(error) => return Err(error.into()),
    }
    Ok(Redirect::to(back_to(form.back)))
}

/// Does again what was undone last.
#[post("/redo", data = "<form>")]
async fn redo(form: Form<UndoForm<'_>>, shared: &State<Shared>) -> Result<Redirect, Trouble> {
    let store = shared.store.clone();
    let redone = rocket::tokio::task::spawn_blocking(move || store.redo(WHO)).await?;
    match redone {
        Ok(_) | Err(StoreError::Nothing(_) | StoreError::Conflict { .. }) => {}
        Err(error) => return Err(error.into()),
    }
    Ok(Redirect::to(back_to(form.back)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![save, list, throw_away, undo, redo]
}

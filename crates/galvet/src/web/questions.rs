//! Saving a question, and undoing what was last done.

use super::address::{carried, more};
use super::ask::query_of;
use super::edit::throw;
use super::errors::{Told, told};
use super::reader::{back_to, today};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::customer::{customers, known_by_name};
use crate::form::{free_slug, slug_of};
use crate::present::page::ranking::sentence::sentence;
use crate::question::{self, Ask};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{LONGEST_NAME, NameError, one_line, typed_name};
use galvet_store::{Kind, Record, SavedBrief, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, get, post, routes};
use std::collections::BTreeMap;

#[derive(FromForm)]
struct SaveForm<'r> {
    name: &'r str,
    /// For whom; empty for oneself.
    #[field(default = "")]
    customer: &'r str,
    /// The slug of the saved one that is brought up to date; empty for a new one.
    #[field(default = "")]
    update: &'r str,
    /// The page of ours that goes on with it; the ranking where none is named.
    #[field(default = "/")]
    back: &'r str,
}

/// The way to a page that asks with a saved question, what the page has beside it kept.
fn with_saved(key: String, page: &str) -> Redirect {
    let (path, beside) = page.split_once('?').unwrap_or((page, ""));
    let query = more(&query_of(&Ask::start_from(key)), carried(beside));
    Redirect::to(back_to(&format!("{path}{query}")))
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
    frame: Frame,
    folders: Vec<Folder>,
    /// Names of customers, to choose from.
    customers: Vec<String>,
}

/// The list.
#[get("/questions")]
async fn list(visit: Visit<'_>) -> Result<QuestionsPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let mut folders: BTreeMap<String, Vec<Line>> = BTreeMap::new();
    for saved in &records.catalogue.briefs {
        let start = Ask::start_from(saved.key.clone());
        let words = start.resolve(&records.catalogue).map(|asked| {
            let path = "/".to_owned();
            sentence(&asked, &records.catalogue, path, reader.units).said()
        });
        let folder = folders.entry(saved.customer.clone());
        folder.or_default().push(Line {
            key: saved.key.clone(),
            name: saved.name.clone(),
            words: words.unwrap_or_default(),
        });
    }
    Ok(QuestionsPage {
        frame: visit
            .frame_of("ask", visit.to("/questions", &[]), None)
            .await?,
        customers: customers(&records.catalogue)
            .into_iter()
            .map(|one| one.name)
            .collect(),
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
async fn throw_away(slug: String, visit: Visit<'_>) -> Result<Result<Redirect, Told>, Trouble> {
    let thrown = throw(&visit, (Kind::Brief, slug), None).await?;
    Ok(thrown.map(|()| visit.go("/questions", &[])))
}

/// Keeps the question of this address under a name.
#[post("/questions", data = "<form>")]
async fn save(
    form: Form<SaveForm<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let refused = |why: String| {
        let back = visit.to("/", &[]);
        told(
            Status::UnprocessableEntity,
            "That was not saved",
            why,
            &back,
        )
    };
    if let Some(mistake) = asked.errors.values().next() {
        return Ok(Err(refused(format!(
            "Not understood: {}.",
            mistake.problem
        ))));
    }
    let name = match typed_name(form.name) {
        Ok(name) => name,
        Err(problem) => return Ok(Err(refused(format!("The question: {problem}.")))),
    };
    let customer = match one_line(form.customer) {
        Ok(customer) if customer.chars().count() <= LONGEST_NAME => customer,
        read => {
            let problem = read.err().unwrap_or(NameError::Long);
            return Ok(Err(refused(format!("Whom it is for: {problem}."))));
        }
    };
    let store = shared.store.clone();
    let question = question::kept(&asked.brief, asked.own_weight, &records.catalogue.rigs);
    let mut saved = SavedBrief {
        key: String::new(),
        name,
        customer,
        question,
    };
    let title = saved.titled();
    if !form.update.is_empty() {
        let (label, key) = (
            format!("question “{title}” updated"),
            form.update.to_owned(),
        );
        let (kept, store) = (key.clone(), store.clone());
        let done = rocket::tokio::task::spawn_blocking(move || {
            let known = (Kind::Brief, kept.as_str());
            store.edit::<StoreError>(reader.hand.who(), &label, known, |record| {
                *record = Record::Brief(SavedBrief {
                    key: kept.clone(),
                    ..saved
                });
                Ok(())
            })
        });
        return match done.await?? {
            Some(_) => Ok(Ok(with_saved(key, form.back))),
            None => Ok(Err(refused("It is not there any more.".to_owned()))),
        };
    }
    let label = format!("question “{title}” saved");
    let slug = rocket::tokio::task::spawn_blocking(move || {
        let catalogue = store.catalogue()?;
        store.write(reader.hand.who(), &label, |door| {
            known_by_name(door, &catalogue, (&saved.customer, &today()))?;
            saved.key = free_slug(door, Kind::Brief, &slug_of(&title, "question"))?;
            let key = saved.key.clone();
            door.put(&Record::Brief(saved), None)?;
            Ok(key)
        })
    });
    let key = slug.await??;
    Ok(Ok(with_saved(key, form.back)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![save, list, throw_away]
}

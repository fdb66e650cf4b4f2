//! Pages of records that are one form: listed, shown, put in, changed, thrown away.

use super::edit::{action, came_of, kit_throw};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::{FormView, NotTaken, Sent};
use crate::kit::{Kept, form_of, keep_record};
use crate::present::page::ask::waters::Demand;
use crate::survey::EditError;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::{Catalogue, Store};
use rocket::data::FromData;
use rocket::form::Form;
use rocket::http::{Method, Status};
use rocket::outcome::Outcome as Came;
use rocket::request::FromRequest;
use rocket::response::Redirect;
use rocket::route::{Handler, Outcome, Route};
use rocket::tokio::task::spawn_blocking;
use rocket::{Data, Request};
use std::marker::PhantomData;

/// What a kind of record has on its page beside its form.
#[derive(Default)]
pub(super) struct About {
    /// What is said beneath its name.
    pub(super) words: String,
    /// What it asks of a hull, drawn.
    pub(super) demand: Option<Demand>,
    /// Whether it can be hung on a scale.
    pub(super) weighs: bool,
}

/// What pages of a kind say.
pub(super) struct Words {
    /// What the list is called, in a title and in a sentence.
    pub(super) list: [&'static str; 2],
    /// What is said beneath its title.
    pub(super) hint: &'static str,
    /// What a new one is called.
    pub(super) new: &'static str,
    /// What is done with one: put in, thrown away.
    pub(super) acts: [&'static str; 2],
}

/// A kind of record with a page of its own.
pub(super) trait OnPage: Kept<Record: Sync + Send> + Send + Sync {
    /// Where they are listed; the page of one is beneath it, by its slug.
    const LIST: &'static str;
    /// Where a new one is put in.
    const NEW: &'static str;
    /// Where in the navigation they belong.
    const PLACE: &'static str;
    /// What its pages say.
    const WORDS: Words;

    /// Puts a new one onto the record of a slug, where it has one it goes onto; the address
    /// to go to then.
    ///
    /// # Errors
    /// [`EditError`].
    fn put_onto(_: &Store, _: &str, _made: &str, _onto: &str) -> Result<Option<String>, EditError> {
        Ok(None)
    }

    /// What else stands on the page.
    fn about(_: Option<&Self::Record>, _: &Catalogue, _: &Shared) -> About {
        About::default()
    }

    /// What it is told by in the list: what it is like, facts with their names, notes.
    fn told(_: &Self::Record, _: System) -> Told {
        Told::default()
    }
}

/// What a record is told by in a list.
#[derive(Default)]
pub(super) struct Told {
    pub(super) words: String,
    pub(super) facts: Vec<(&'static str, String)>,
    pub(super) notes: Vec<String>,
    /// What it asks of a hull, drawn.
    pub(super) demand: Option<Demand>,
}

/// A record in a list.
struct Line {
    key: String,
    name: String,
    told: Told,
}

/// The list of a kind.
#[derive(Template, WebTemplate)]
#[template(path = "kept-list.html")]
struct ListPage {
    frame: Frame,
    list: &'static str,
    new: &'static str,
    words: Words,
    lines: Vec<Line>,
}

async fn list_page<K: OnPage>(visit: &Visit<'_>) -> Result<ListPage, Trouble> {
    let records = visit.shared.records().await?;
    let kept = records.catalogue.of_kind(K::KIND).into_iter();
    let lines = kept.filter_map(|record| {
        Some(Line {
            key: record.slug().to_owned(),
            name: record.name(),
            told: K::told(&K::of_record(&record)?, visit.reader.units),
        })
    });
    Ok(ListPage {
        frame: visit
            .frame_of(K::PLACE, visit.to(K::LIST, &[]), None)
            .await?,
        list: K::LIST,
        new: K::NEW,
        words: K::WORDS,
        lines: lines.collect(),
    })
}

/// In an address: what a new one is put onto.
const ONTO: &str = "for";

/// The page of a record, or of a new one.
#[derive(Template, WebTemplate)]
#[template(path = "kept.html")]
struct KeptPage {
    frame: Frame,
    list: &'static str,
    words: Words,
    /// Its slug; empty for a new one.
    key: String,
    name: String,
    about: About,
    form: FormView,
    /// Where it is, and where its form is sent to.
    path: String,
    action: String,
}

/// The address of a record; of a new one without a slug.
fn path_of<K: OnPage>(slug: &str) -> String {
    if slug.is_empty() {
        K::NEW.to_owned()
    } else {
        format!("{}/{slug}", K::LIST)
    }
}

async fn kept_page<K: OnPage>(
    visit: &Visit<'_>,
    slug: &str,
    not_taken: &NotTaken,
    onto: &str,
) -> Result<KeptPage, Trouble> {
    let records = visit.shared.records().await?;
    let all = records.catalogue.of_kind(K::KIND);
    let one = all.iter().find(|one| one.slug() == slug);
    let one = one.and_then(K::of_record);
    if one.is_none() && !slug.is_empty() {
        return Err(Trouble::Gone);
    }
    let path = path_of::<K>(slug);
    let here = visit.to(&path, &[]);
    Ok(KeptPage {
        frame: visit
            .frame_of(K::PLACE, here, Some((K::KIND, slug)))
            .await?,
        list: K::LIST,
        words: K::WORDS,
        key: slug.to_owned(),
        name: one
            .clone()
            .map_or(String::new(), |one| K::record(one).name()),
        about: K::about(one.as_ref(), &records.catalogue, visit.shared),
        form: form_of::<K>(one.as_ref(), not_taken, visit.reader.units),
        action: match onto {
            "" => visit.to(&path, &[]),
            onto => visit.to(&path, &[(ONTO, onto)]),
        },
        path,
    })
}

/// Does what a form asks; the address to go to.
fn apply<K: OnPage>(
    store: &Store,
    visit: (&str, System),
    slug: &str,
    sent: &Sent,
) -> Result<String, EditError> {
    let (who, units) = visit;
    if action(sent) == "forget" {
        kit_throw(store, who, (K::KIND, slug))?;
        return Ok(K::LIST.to_owned());
    }
    let key = keep_record::<K>(store, who, slug, sent, units)?;
    Ok(path_of::<K>(&key))
}

/// Does what a form asks, and shows what came of it.
async fn keep<K: OnPage>(
    visit: &Visit<'_>,
    slug: &str,
    typed: Sent,
    onto: String,
) -> Result<Result<Redirect, (Status, KeptPage)>, Trouble> {
    let (store, key, sent) = (visit.shared.store.clone(), slug.to_owned(), typed.clone());
    let (hand, units) = (visit.reader.hand, visit.reader.units);
    let to = onto.clone();
    let done = spawn_blocking(move || {
        let path = apply::<K>(&store, (hand.who(), units), &key, &sent)?;
        if to.is_empty() || !key.is_empty() {
            return Ok(path);
        }
        let made = path.rsplit('/').next().unwrap_or_default();
        Ok(K::put_onto(&store, hand.who(), made, &to)?.unwrap_or(path))
    });
    let mistakes = match came_of(done.await?)? {
        Ok(path) => return Ok(Ok(visit.go(&path, &[]))),
        Err(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = kept_page::<K>(visit, slug, &not_taken, &onto).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

/// The pages of a kind: the list, one of a slug, or a new one; and what their forms send.
struct Pages<K>(PhantomData<fn() -> K>);

impl<K> Clone for Pages<K> {
    fn clone(&self) -> Self {
        Self(PhantomData)
    }
}

#[rocket::async_trait]
impl<K: OnPage> Handler for Pages<K> {
    async fn handle<'r>(&self, request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r> {
        let Came::Success(visit) = Visit::from_request(request).await else {
            return Outcome::Error(Status::InternalServerError);
        };
        let last = request.uri().path().segments().last();
        let new = request.uri().path().as_str() == K::NEW;
        if request.uri().path().as_str() == K::LIST {
            return Outcome::from(request, list_page::<K>(&visit).await);
        }
        let slug = last.filter(|_| !new).unwrap_or_default();
        let onto = request.query_value::<String>(ONTO);
        let onto = onto.and_then(Result::ok).unwrap_or_default();
        if request.method() != Method::Post {
            let page = kept_page::<K>(&visit, slug, &NotTaken::default(), &onto).await;
            return Outcome::from(request, page);
        }
        match Form::<Sent>::from_data(request, data).await {
            Came::Success(form) => {
                let typed = form.into_inner();
                Outcome::from(request, keep::<K>(&visit, slug, typed, onto).await)
            }
            Came::Error((status, _)) | Came::Forward((_, status)) => Outcome::Error(status),
        }
    }
}

/// The routes of a kind's pages.
pub(super) fn routes<K: OnPage>() -> Vec<Route> {
    let pages = || Pages::<K>(PhantomData);
    let one = format!("{}/<slug>", K::LIST);
    let at = |path: &str| {
        let show = Route::new(Method::Get, path, pages());
        [show, Route::new(Method::Post, path, pages())]
    };
    at(&one).into_iter().chain(at(K::NEW)).collect()
}

/// The same, and that of their list.
pub(super) fn listed<K: OnPage>() -> Vec<Route> {
    let list = Route::new(Method::Get, K::LIST, Pages::<K>(PhantomData));
    routes::<K>().into_iter().chain([list]).collect()
}

/// Where a kind is listed, and what the list is called.
pub(super) fn list_of<K: OnPage>() -> (&'static str, &'static str) {
    (K::LIST, K::WORDS.list[0])
}

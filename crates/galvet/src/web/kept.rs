//! Pages of records that are one form: shown, put in, changed, thrown away.

use super::edit::{action, came_of, kit_throw};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::{FormView, NotTaken, Sent};
use crate::kit::{Kept, form_of, keep_record};
use crate::present::page::waters::Demand;
use askama::Template;
use askama_web::WebTemplate;
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

/// A kind of record with a page of its own.
pub(super) trait OnPage: Kept<Record: Sync + Send> + Send + Sync {
    /// Where they are listed; the page of one is beneath it, by its slug.
    const LIST: &'static str;
    /// Where a new one is put in.
    const NEW: &'static str;
    /// Where in the navigation they belong.
    const PLACE: &'static str;
    /// What the list is called; what a new one is; what is done with it: put in, thrown away.
    const WORDS: [&'static str; 4];

    /// Those on record.
    fn all(catalogue: &Catalogue) -> &[Self::Record];

    /// What else stands on the page.
    fn about(_: Option<&Self::Record>, _: &Catalogue, _: &Shared) -> About {
        About::default()
    }
}

/// The page of a record, or of a new one.
#[derive(Template, WebTemplate)]
#[template(path = "kept.html")]
struct KeptPage {
    frame: Frame,
    list: &'static str,
    words: [&'static str; 4],
    /// Its slug; empty for a new one.
    key: String,
    name: String,
    about: About,
    form: FormView,
    /// Where it is sent to.
    path: String,
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
) -> Result<KeptPage, Trouble> {
    let records = visit.shared.records().await?;
    let mut all = K::all(&records.catalogue).iter();
    let one = all.find(|one| K::slug(one) == slug);
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
        name: one.map_or(String::new(), |one| K::record(one.clone()).name()),
        about: K::about(one, &records.catalogue, visit.shared),
        form: form_of::<K>(one, not_taken, visit.reader.units),
        path,
    })
}

/// Does what a form asks; the address to go to.
fn apply<K: OnPage>(
    store: &Store,
    visit: (&str, galvet_core::base::System),
    slug: &str,
    sent: &Sent,
) -> Result<String, crate::survey::EditError> {
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
) -> Result<Result<Redirect, (Status, KeptPage)>, Trouble> {
    let (store, key, sent) = (visit.shared.store.clone(), slug.to_owned(), typed.clone());
    let (hand, units) = (visit.reader.hand, visit.reader.units);
    let done = spawn_blocking(move || apply::<K>(&store, (hand.who(), units), &key, &sent));
    let mistakes = match came_of(done.await?)? {
        Ok(path) => return Ok(Ok(visit.go(&path, &[]))),
        Err(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = kept_page::<K>(visit, slug, &not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

/// The pages of a kind: one of a slug, or a new one; shown, and what their forms send.
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
        let slug = last.filter(|_| !new).unwrap_or_default();
        if request.method() != Method::Post {
            let page = kept_page::<K>(&visit, slug, &NotTaken::default()).await;
            return Outcome::from(request, page);
        }
        match Form::<Sent>::from_data(request, data).await {
            Came::Success(form) => {
                Outcome::from(request, keep::<K>(&visit, slug, form.into_inner()).await)
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

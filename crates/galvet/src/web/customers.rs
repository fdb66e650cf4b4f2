//! Customers of the shop: found while typing, what stands under a name, taken along.

use super::called::called;
use super::edit::{action, came_of};
use super::reader::today;
use super::shortlist::Shortlist;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::customer::{self, KIND, Theirs, archive, customers, unrecorded};
use crate::form::{FormView, NotTaken, Refusal, Sent};
use crate::survey::EditError;
use crate::terminal;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_store::Catalogue;
use galvet_store::files::customer::{CustomerEntry, KeptPage};
use rocket::form::Form;
use rocket::http::{ContentType, Header, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Responder, Route, get, post, routes};

/// Most customers shown at once: more are found by typing.
const SHOWN: usize = 60;

/// A customer in the list.
struct Line {
    key: String,
    name: String,
    reach: String,
    /// What is under their name, in words.
    has: String,
}

/// Customers, found while typing.
#[derive(Template, WebTemplate)]
#[template(path = "customers.html")]
struct ListPage {
    frame: Frame,
    find: String,
    lines: Vec<Line>,
    more: usize,
    unrecorded: Vec<String>,
    /// A page to be kept for one of them, and what it is called; empty for none.
    page: String,
    called: String,
}

/// What is under a name, in words.
fn has(theirs: &Theirs) -> String {
    let parts = [
        (theirs.questions.len(), "question", "questions"),
        (theirs.trials.len(), "test paddle", "test paddles"),
        (theirs.outings.len(), "outing", "outings"),
        (theirs.bookings.len(), "booking", "bookings"),
        (theirs.hulls.len(), "hull looked at", "hulls looked at"),
    ];
    let parts = parts.into_iter().filter(|(n, ..)| *n > 0);
    let parts = parts.map(|(n, one, many)| format!("{n} {}", if n == 1 { one } else { many }));
    parts.collect::<Vec<_>>().join(", ")
}

/// Whether a customer is meant by what is typed: every word of it begins one of theirs.
fn is_meant(one: &CustomerEntry, find: &str) -> bool {
    let text = format!("{} {}", one.name, one.reach).to_lowercase();
    let begins =
        |word: &str| text.split_whitespace().any(|w| w.starts_with(word)) || text.contains(word);
    find.to_lowercase().split_whitespace().all(begins)
}

async fn list_page(visit: &Visit<'_>, find: &str, page: &str) -> Result<ListPage, Trouble> {
    let records = visit.shared.records().await?;
    let catalogue = &records.catalogue;
    let mut found = customers(catalogue);
    found.retain(|one| is_meant(one, find));
    let more = found.len().saturating_sub(SHOWN);
    let line = |one: CustomerEntry| Line {
        has: has(&Theirs::of(&one, catalogue)),
        key: one.key,
        name: one.name,
        reach: one.reach,
    };
    Ok(ListPage {
        frame: visit
            .frame_of("customers", visit.to("/customers", &[]), None)
            .await?,
        find: find.to_owned(),
        lines: found.into_iter().take(SHOWN).map(line).collect(),
        more,
        unrecorded: if find.is_empty() {
            unrecorded(catalogue)
        } else {
            Vec::new()
        },
        page: page.to_owned(),
        called: called(&records, page),
    })
}

#[get("/customers?<find>&<keep>")]
async fn list(
    find: Option<&str>,
    keep: Option<&str>,
    visit: Visit<'_>,
) -> Result<ListPage, Trouble> {
    list_page(&visit, find.unwrap_or_default(), keep.unwrap_or_default()).await
}

/// A customer, or a new one.
#[derive(Template, WebTemplate)]
#[template(path = "customer.html")]
struct CustomerPage {
    frame: Frame,
    key: String,
    name: String,
    form: FormView,
    theirs: Option<Theirs>,
    pages: Vec<KeptPage>,
    /// Rigs that could be theirs.
    rigs: Vec<(String, String)>,
    /// How many hulls are on this browser's shortlist.
    listed: usize,
    /// What was not done.
    trouble: String,
}

/// The customer of a slug.
pub(super) fn one(catalogue: &Catalogue, slug: &str) -> Result<CustomerEntry, Trouble> {
    let mut all = customers(catalogue).into_iter();
    all.find(|one| one.key == slug).ok_or(Trouble::Gone)
}

async fn customer_page(
    visit: &Visit<'_>,
    slug: &str,
    (not_taken, listed): (&NotTaken, usize),
) -> Result<CustomerPage, Trouble> {
    let records = visit.shared.records().await?;
    let catalogue = &records.catalogue;
    let (units, today) = (visit.reader.units, today());
    let known = if slug.is_empty() {
        None
    } else {
        Some(one(catalogue, slug)?)
    };
    let path = if slug.is_empty() {
        "/new-customer".to_owned()
    } else {
        format!("/customers/{slug}")
    };
    let rigs = catalogue.rigs.iter();
    let theirs = known.as_ref().map(|one| Theirs::of(one, catalogue));
    let is_theirs = |key: &str| {
        known
            .as_ref()
            .is_some_and(|one| one.rigs.iter().any(|r| r == key))
    };
    Ok(CustomerPage {
        frame: visit
            .frame_of("customers", visit.to(&path, &[]), Some((KIND, slug)))
            .await?,
        key: slug.to_owned(),
        name: known.as_ref().map_or(String::new(), |one| one.name.clone()),
        form: customer::form_of(known.as_ref(), not_taken, (units, &today)),
        pages: known.as_ref().map_or(Vec::new(), |one| one.pages.clone()),
        rigs: rigs
            .filter(|rig| !is_theirs(&rig.key))
            .map(|rig| (rig.key.clone(), rig.name.clone()))
            .collect(),
        theirs,
        listed,
        trouble: String::new(),
    })
}

#[get("/customers/<slug>")]
async fn page(slug: &str, list: Shortlist, visit: Visit<'_>) -> Result<CustomerPage, Trouble> {
    let told = (&NotTaken::default(), list.slugs().len());
    customer_page(&visit, slug, told).await
}

#[get("/new-customer?<name>")]
async fn new(name: Option<&str>, visit: Visit<'_>) -> Result<CustomerPage, Trouble> {
    let mut page = customer_page(&visit, "", (&NotTaken::default(), 0)).await?;
    let fields = page.form.groups.iter_mut().flat_map(|g| &mut g.fields);
    if let (Some(name), Some(field)) = (name, fields.into_iter().find(|f| f.name == "name")) {
        name.clone_into(&mut field.value);
    }
    Ok(page)
}

/// What a form of a customer's page asks beside its fields.
enum Act {
    /// Fields as typed.
    Keep,
    /// Hulls of the shortlist put under the name.
    Hulls(Vec<String>),
    /// One of a list taken off: which list, which one.
    Off(&'static str, String),
    /// A rig that is theirs.
    Rig(String),
    /// A page kept.
    Page(KeptPage),
}

/// Most of a list that grows.
fn put(all: &mut Vec<String>, one: String) {
    if !all.contains(&one) && all.len() < CustomerEntry::MOST {
        all.push(one);
    }
}

fn apply(one: &mut CustomerEntry, act: Act) {
    match act {
        Act::Keep => {}
        Act::Hulls(hulls) => hulls.into_iter().for_each(|hull| put(&mut one.hulls, hull)),
        Act::Rig(rig) => put(&mut one.rigs, rig),
        Act::Page(page) => {
            one.pages.retain(|kept| kept.page != page.page);
            one.pages.insert(0, page);
            one.pages.truncate(CustomerEntry::MOST);
        }
        Act::Off("hull", key) => one.hulls.retain(|hull| *hull != key),
        Act::Off("rig", key) => one.rigs.retain(|rig| *rig != key),
        Act::Off(_, key) => one.pages.retain(|kept| kept.page != key),
    }
}

/// What a form asks.
fn asked(sent: &Sent, list: &Shortlist) -> Act {
    let word = action(sent);
    let of = |name: &str| sent.get(name).cloned().unwrap_or_default();
    match word {
        "shortlist" => Act::Hulls(list.slugs().to_vec()),
        "rig" => Act::Rig(of("rig")),
        "page" => Act::Page(KeptPage {
            day: today(),
            name: of("called").chars().take(120).collect(),
            page: of("page"),
        }),
        word => match word.split_once(' ') {
            Some(("off-hull", key)) => Act::Off("hull", key.to_owned()),
            Some(("off-rig", key)) => Act::Off("rig", key.to_owned()),
            Some(("off-page", key)) => Act::Off("page", key.to_owned()),
            _ => Act::Keep,
        },
    }
}

type Answer = Result<Result<Redirect, (Status, CustomerPage)>, Trouble>;

/// Does what a form asks, and shows what came of it.
async fn send(visit: &Visit<'_>, slug: &str, typed: Sent, list: &Shortlist) -> Answer {
    let (store, hand, units) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        visit.reader.units,
    );
    let (key, sent, act) = (slug.to_owned(), typed.clone(), asked(&typed, list));
    let done = spawn_blocking(move || match act {
        Act::Keep => customer::keep(&store, hand.who(), &key, (&sent, units, &today())),
        act => {
            let told = (hand.who(), "a customer changed");
            customer::change(&store, told, &key, |one| apply(one, act))?;
            Ok::<_, EditError>(key)
        }
    });
    let mistakes = match came_of(done.await?)? {
        Ok(key) => return Ok(Ok(visit.go(&format!("/customers/{key}"), &[]))),
        Err(Refusal(mistakes)) => mistakes,
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = customer_page(visit, slug, (&not_taken, list.slugs().len())).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

#[post("/new-customer", data = "<form>")]
async fn make(form: Form<Sent>, list: Shortlist, visit: Visit<'_>) -> Answer {
    send(&visit, "", form.into_inner(), &list).await
}

#[post("/customers/<slug>", data = "<form>")]
async fn save(slug: &str, form: Form<Sent>, list: Shortlist, visit: Visit<'_>) -> Answer {
    send(&visit, slug, form.into_inner(), &list).await
}

/// A file to be saved.
#[derive(Responder)]
struct Saved(Vec<u8>, ContentType, Header<'static>);

/// One person's data as a zip.
#[get("/customers/<slug>/data.zip")]
async fn data(slug: &str, visit: Visit<'_>) -> Result<Saved, Trouble> {
    let records = visit.shared.records().await?;
    let one = one(&records.catalogue, slug)?;
    let store = visit.shared.store.clone();
    let packed = spawn_blocking(move || archive(&store, &one, &records.catalogue));
    let packed = packed.await?.map_err(|error| {
        terminal::warn(error);
        Trouble::Ours
    })?;
    let name = format!("attachment; filename=\"{slug}.zip\"");
    Ok(Saved(
        packed,
        ContentType::ZIP,
        Header::new("Content-Disposition", name),
    ))
}

pub(super) fn routes() -> Vec<Route> {
    routes![list, page, new, make, save, data]
}

//! The quick start: a hull from a leaflet, floated as one types.

use super::answered::Part;
use super::moved::{keep_along, moved_on};
use super::reader::{Reader, fields, today};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::Hull;
use crate::form::Sent;
use crate::present::page::ranking::facts;
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::present::page::survey::draft::{self, DraftView};
use crate::survey::{Draft, Incoming, OnDouble, double, leaflets, put_hull, take_in};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Catalogue;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::request::{FromRequest, Outcome, Request};
use rocket::response::Redirect;
use rocket::{FromForm, Route, get, post, routes};
use std::collections::BTreeMap;
use std::convert::Infallible;
use std::sync::Arc;

/// The quick start's page.
#[derive(Template, WebTemplate)]
#[template(path = "new-hull.html", blocks = ["answer"])]
struct NewHullPage {
    frame: Frame,
    sentence: Sentence,
    draft: DraftView,
    /// A text that was pasted, and figures of it that were not used.
    pasted: String,
    unused: Vec<String>,
    /// The hulls it describes, where it does several.
    many: Vec<Described>,
}

impl NewHullPage {
    /// How many of several can be added as they stand.
    fn ready(&self) -> usize {
        let whole = |m: &&Described| m.wrong.is_empty() && m.double.is_empty();
        self.many.iter().filter(whole).count()
    }
}

/// One of several hulls in a text.
struct Described {
    name: String,
    facts: String,
    /// What to look at in it.
    doubts: Vec<String>,
    /// Why it cannot be added; empty where it can.
    wrong: String,
    /// The hull that is here already.
    double: String,
    /// Where it stands alone, to be filled in.
    fill: String,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Draft {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let Outcome::Success(reader) = request.guard::<Reader>().await else {
            return Outcome::Success(Self::default());
        };
        Outcome::Success(Self::of(fields(request), reader.typed_in))
    }
}

/// Hulls with which there is something to choose from.
const FEW: usize = 3;

/// Key of a draft while it is ranked beside those kept; no slug can be it.
const DRAFT: &str = "(draft)";

/// The page of a draft under the brief.
async fn new_hull_page(typed: Draft, visit: &Visit<'_>) -> Result<NewHullPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let action = "/new-hull".to_owned();
    let mut sentence = sentence::sentence(&asked, &records.catalogue, action, reader.units);
    let mut read = typed.read(&today());
    read.survey.key = DRAFT.to_owned();
    let hull = Hull {
        known: None,
        survey: Arc::new(read.survey.clone()),
    };
    if !typed.is_empty() {
        sentence.moved = moved_on(visit, &hull, &asked, &records).await?;
    }
    // What is typed stays, whatever becomes of the question.
    keep_along(&mut sentence, &typed.pairs(), true);
    let (desk, brief) = (shared.desk.clone(), Arc::new(asked.brief));
    let view = shared.work_watched(reader.caller, move |watch| {
        let mut hulls = records.hulls.clone();
        hulls.push(hull.clone());
        let answered = desk.ranking(&brief, &hulls, watch).ok();
        // What the ranking floated already is not floated again.
        let afloat = match answered.as_ref().and_then(|a| a.afloat.get(DRAFT)) {
            Some(afloat) => Ok(afloat.clone()),
            None => desk.afloat(&hull, &brief),
        };
        draft::draft(&typed, &read, &afloat, answered.as_ref(), reader.units)
    });
    Ok(NewHullPage {
        frame: visit.frame("hulls", visit.to("/new-hull", &[])),
        sentence,
        draft: view.await?,
        pasted: String::new(),
        unused: Vec::new(),
        many: Vec::new(),
    })
}

/// A text about a hull, or several.
#[derive(FromForm)]
struct Pasted {
    leaflet: String,
    #[field(default = String::new())]
    action: String,
}

/// Fills the fields from a text, each marked with the words it was read from; of several
/// hulls shows what each would be, and puts those in that can be.
#[post("/new-hull/leaflet", data = "<form>")]
async fn leaflet(
    form: Form<Pasted>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, NewHullPage>, Trouble> {
    let form = form.into_inner();
    let found = leaflets(&form.leaflet);
    let (reader, shared) = (visit.reader, visit.shared);
    if found.len() == 1 {
        let one = &found[0];
        let mut page = new_hull_page(one.draft(), &visit).await?;
        page.draft.mark(one);
        page.unused.clone_from(&one.unused);
        if one.read.is_empty() {
            let nothing = "nothing in it says what its figures are of".to_owned();
            page.unused.push(nothing);
        }
        page.pasted = form.leaflet;
        return Ok(Err(page));
    }
    let records = shared.records().await?;
    let there = &records.catalogue.hulls;
    let read: Vec<_> = found.iter().map(|one| one.hull(&today())).collect();
    if form.action == "keep" {
        let hulls = read.into_iter().flatten().collect();
        let incoming = Incoming {
            catalogue: Catalogue {
                hulls,
                ..Catalogue::default()
            },
            ..Incoming::default()
        };
        let store = shared.store.clone();
        let taken = rocket::tokio::task::spawn_blocking(move || {
            let left_out = |_| OnDouble::Skip;
            take_in(
                &store,
                reader.hand.who(),
                "pasted text",
                &incoming,
                left_out,
            )
        });
        taken.await??;
        return Ok(Ok(visit.go("/hulls", &[])));
    }
    let mut page = new_hull_page(Draft::default(), &visit).await?;
    let described = found.iter().zip(&read).map(|(one, hull)| {
        let same = hull.as_ref().ok().and_then(|hull| double(hull, there));
        let value = |field: &str| one.read.iter().find(|r| r.field == field);
        let doubts = one.read.iter().filter(|r| !r.doubt.is_empty());
        let pairs: Vec<(&str, &str)> = one
            .read
            .iter()
            .map(|r| (r.field, r.value.as_str()))
            .collect();
        Described {
            name: value("hull-model").map_or("without a name".to_owned(), |r| r.value.clone()),
            facts: facts(&one.draft().read("").survey, reader.units),
            doubts: doubts
                .map(|r| format!("“{}”: {}", r.quote, r.doubt))
                .collect(),
            wrong: hull.as_ref().err().cloned().unwrap_or_default(),
            double: same.map_or(String::new(), |h| h.survey.name()),
            fill: visit.to("/new-hull", &pairs),
        }
    });
    page.many = described.collect();
    page.pasted = form.leaflet;
    Ok(Err(page))
}

#[get("/new-hull")]
async fn page(draft: Draft, visit: Visit<'_>) -> Result<NewHullPage, Trouble> {
    new_hull_page(draft, &visit).await
}

#[get("/part/new-hull")]
async fn part(draft: Draft, visit: Visit<'_>) -> Result<Part, Trouble> {
    Part::of(&new_hull_page(draft, &visit).await?.as_answer())
}

/// Keeps the draft and goes to its page; what is not understood comes back as it
/// was typed.
#[post("/new-hull", data = "<form>")]
async fn keep(
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, NewHullPage)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let typed = form.iter();
    let typed = typed.map(|(name, value)| (name.as_str(), value.clone()));
    let typed = Draft::of(typed, reader.typed_in);
    let read = typed.read(&today());
    if typed.is_empty() || !read.mistakes.is_empty() {
        let page = new_hull_page(typed, &visit).await?;
        return Ok(Err((Status::UnprocessableEntity, page)));
    }
    let hull = HullRecord {
        survey: read.survey,
        extra: BTreeMap::new(),
    };
    // The first few lead on to a comparison.
    let few = shared.records().await?.hulls.len() < FEW;
    let store = shared.store.clone();
    let kept =
        rocket::tokio::task::spawn_blocking(move || put_hull(&store, reader.hand.who(), hull));
    let slug = kept.await??;
    let to = if few {
        "/".to_owned()
    } else {
        format!("/hulls/{slug}")
    };
    Ok(Ok(visit.go(&to, &[])))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, keep, leaflet]
}

//! One hull's page, and its lines as offsets.

use super::address::address;
use super::answered::{Answered, Part, answered};
use super::moved::moved_on;
use super::records::Records;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{digest, held};
use crate::present::page::hulls::check::{Check, Lead};
use crate::present::page::hulls::hull::{self, HullView};
use crate::present::page::hulls::hull_head::place;
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::shop::{Shelf, shelves};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::question::Brief;
use galvet_store::files::offsets;
use rocket::http::{ContentType, Status};
use rocket::{Route, State, get, routes};
use std::sync::Arc;

/// What a hull's page weighs in words and drawings, bytes (guide: as measured).
const HULL: usize = 256 * 1024;

/// A hull's page.
#[derive(Template, WebTemplate)]
#[template(path = "hull.html", blocks = ["answer"])]
struct HullPage {
    frame: Frame,
    sentence: Sentence,
    hull: Arc<HullView>,
    /// Its place in the ranking, where that is known.
    place: String,
    /// What the shop has of it, where it has one.
    shelf: Option<Shelf>,
}

impl HullPage {
    /// What is to be minded of a hull that cannot be floated.
    const fn nothing_to_mind(&self) -> &[String] {
        &[]
    }

    /// The address of the field where something of the record is put right.
    fn lead(&self, lead: &Lead) -> String {
        let path = format!("/hulls/{}{}", self.hull.key, lead.page);
        let opens = lead.opens.iter();
        let pairs: Vec<(&str, &str)> = opens.map(|(n, v)| (*n, v.as_str())).collect();
        let to = address(&path, &self.frame.query, &pairs);
        format!("{to}#{}", lead.field)
    }
}

/// A hull's page in words and drawings under a question, as it was last made where nothing
/// has changed.
async fn seen(
    visit: &Visit<'_>,
    (records, index): (&Arc<Records>, usize),
    brief: Brief,
) -> Result<Arc<HullView>, Trouble> {
    let (shared, units) = (visit.shared, visit.reader.units);
    // What is told against a hull one knows follows that one's record, too.
    let known = records.hulls[index].known.filter(|_| brief.known.is_none());
    let key = known.map(|known| (known, digest(&brief), units == System::Imperial));
    let before = key.and_then(|key| held(&shared.hull_views).get(&key).cloned());
    if let Some(view) = before {
        return Ok(view);
    }
    let (desk, records) = (shared.desk.clone(), records.clone());
    let made = shared.work(visit.reader.caller, move || {
        let afloat = desk.afloat(&records.hulls[index], &brief);
        let brief = desk.yardstick(&brief, &records.hulls);
        let record = &records.catalogue.hulls[index];
        Arc::new(hull::hull(record, &afloat, &brief, units))
    });
    let view = made.await?;
    if let Some(key) = key {
        held(&shared.hull_views).put(key, view.clone(), HULL);
    }
    Ok(view)
}

async fn hull_page(slug: &str, visit: &Visit<'_>) -> Result<Answered<HullPage>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let mut hulls = records.hulls.iter();
    let index = hulls.position(|h| h.survey.key == slug);
    let index = index.ok_or(Trouble::Gone)?;
    let path = format!("/hulls/{slug}");
    let here = visit.to(&path, &[]);
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path, reader.units);
    sentence.moved = moved_on(visit, &records.hulls[index], &asked, &records).await?;
    let (brief, desk) = (asked.brief.clone(), shared.desk.clone());
    // Whoever comes from the ranking is told the place; it is not ranked for that.
    let ranked = desk.known(records.state, &brief);
    let place = ranked.map_or(String::new(), |answer| place(&answer, slug));
    let shelf = shelves(&records.catalogue, reader.units).remove(slug);
    let shelf = shelf.filter(|shelf| shelf.here);
    let view = seen(visit, (&records, index), brief).await?;
    let page = HullPage {
        frame: visit.frame("hull", here),
        sentence,
        shelf,
        place,
        hull: view,
    };
    Ok(answered(&asked, page))
}

#[get("/hulls/<slug>")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<Answered<HullPage>, Trouble> {
    hull_page(slug, &visit).await
}

#[get("/part/hulls/<slug>")]
async fn part(slug: &str, visit: Visit<'_>) -> Result<Answered<Part>, Trouble> {
    let page = hull_page(slug, &visit).await?;
    page.part(|page| Part::of(&page.as_answer()))
}

/// The lines of the middle shape, or the measured ones, as offsets.
#[get("/hulls/<slug>/offsets.csv")]
async fn hull_offsets(
    slug: &str,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = shared.records().await?;
    let hull = records.hull(slug)?.clone();
    let desk = shared.desk.clone();
    let text = rocket::tokio::task::spawn_blocking(move || {
        let shapes = desk.shapes(&hull).ok()?;
        let stations = shapes.form.stations(&shapes.middle(), &hull.survey.offsets);
        Some(offsets::write(&stations))
    });
    let text = text.await?.ok_or(Status::NotFound);
    Ok(text.map(|text| (ContentType::CSV, text)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, hull_offsets]
}

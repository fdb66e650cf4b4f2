//! The walk along a hull, zone after zone.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, Typed, action};
use super::reader::{Reader, back_to, today};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::form::NotTaken;
use crate::form::Refusal;
use crate::present::page::next::{NextStep, next_steps};
use crate::present::page::walk::{self, WalkView};
use crate::question::Ask;
use crate::survey::{self, ZoneStep};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::{Source, Survey, zones};
use galvet_store::{Kind, Steps};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "walk.html")]
struct WalkPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    walk: WalkView,
}

impl WalkPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    /// Address that says she has a place after all.
    fn there(&self, zone: &str) -> String {
        let path = format!("/hulls/{}/walk/there", self.walk.key);
        edit::address(&path, &self.query, &[("zone", zone)])
    }

    /// The walk's address at a zone.
    fn at(&self, zone: &str) -> String {
        address(
            &self.walk.key,
            &self.query,
            Some(zone),
            self.walk.from_stern,
        )
    }
}

/// Address of the walk, at a zone where one is named.
fn address(slug: &str, query: &str, zone: Option<&str>, from_stern: bool) -> String {
    let mut pairs: Vec<(&str, &str)> = Vec::new();
    pairs.extend(zone.map(|zone| ("zone", zone)));
    if from_stern {
        pairs.push(("end", "stern"));
    }
    edit::address(&format!("/hulls/{slug}/walk"), query, &pairs)
}

/// What would tell most of her under the question.
async fn next(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Vec<NextStep>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(Vec::new());
    };
    let desk = shared.desk.clone();
    let steps = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&hull, &asked.brief).ok();
        afloat.map(|a| next_steps(&a.assessment, &asked.brief, 1))
    });
    Ok(steps.await?.unwrap_or_default())
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    (zone, from_stern): (Option<String>, bool),
    not_taken: NotTaken,
) -> Result<Option<WalkPage>, Trouble> {
    let Some((survey, lines)) = edit::drawn(shared, slug).await? else {
        return Ok(None);
    };
    // A place typed in that somebody else says she has not, is shown as she had it.
    let absent = |name: &String| survey.looked.absent.contains(name);
    let anew = !not_taken.typed.is_empty() && zone.as_ref().is_some_and(absent);
    let mut survey = Survey::clone(&survey);
    if anew {
        let here = |name: &String| zone.as_ref() != Some(name);
        survey.looked.absent.retain(here);
    }
    let walk = walk::walk(
        &survey,
        zones(&survey),
        lines.as_ref(),
        zone.as_deref(),
        from_stern,
        &not_taken,
        reader.units,
    );
    let next = next(slug, ask, reader, shared).await?;
    let walk = WalkView { anew, next, ..walk };
    let query = query_of(ask);
    Ok(Some(WalkPage {
        units: reader.units,
        sun: reader.sun,
        here: address(slug, &query, None, from_stern),
        place: "hull",
        steps: steps(shared, reader, Some((Kind::Hull, slug))).await?,
        query,
        walk,
    }))
}

#[get("/hulls/<slug>/walk?<zone>&<end>")]
async fn page(
    slug: &str,
    zone: Option<String>,
    end: Option<&str>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<WalkPage, Status>, Trouble> {
    let at = (zone, end == Some("stern"));
    let page = look(slug, &ask, reader, shared, at, NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Says that she has a place of the template after all.
#[post("/hulls/<slug>/walk/there?<zone>")]
async fn there_after_all(
    slug: &str,
    zone: String,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let to = address(slug, &query_of(&ask), Some(&zone), false);
    let label = format!("{zone} on her after all");
    let done = edit::edit(
        (shared, reader),
        slug,
        label,
        move |hull| -> Result<(), Refusal> {
            survey::set_absent(hull, &zone, false);
            Ok(())
        },
    );
    Ok(match done.await? {
        Edited::Gone => Err(Status::NotFound),
        _ => Ok(Redirect::to(back_to(&to))),
    })
}

/// Keeps a zone as it was measured and goes on to the next, or takes it off.
#[post("/hulls/<slug>/walk?<zone>&<end>", data = "<form>")]
async fn measure(
    slug: &str,
    zone: String,
    end: Option<&str>,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<WalkPage>)>, Trouble> {
    let typed = form.into_inner();
    let from_stern = end == Some("stern");
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(Err((Status::NotFound, None)));
    };
    let was = survey::zone_of(&hull.survey, &zone);
    if was.is_none() && !hull.survey.looked.absent.contains(&zone) {
        return Ok(Err((Status::NotFound, None)));
    }
    let label = match action(&typed) {
        "forget" => format!("{zone} taken off"),
        "absent" => format!("no {zone} on her"),
        "draft" => format!("{zone} begun"),
        _ => format!("{zone} measured"),
    };
    let step = match action(&typed) {
        "forget" => ZoneStep::Forget,
        "absent" => ZoneStep::Absent,
        "draft" => ZoneStep::Begin(was.is_none_or(|z| z.source == Source::Guess)),
        _ => ZoneStep::Keep,
    };
    let (name, sent, units) = (zone.clone(), typed.clone(), reader.units);
    let done = edit::edit((shared, reader), slug, label, move |hull| {
        survey::keep_zone(hull, (&name, step), &sent, (units, &today()))
    });
    let mistakes = match done.await? {
        Edited::Kept => {
            let goes_on = matches!(action(&typed), "keep" | "absent");
            let next = typed.get("next").filter(|n| goes_on && !n.is_empty());
            let here = (action(&typed) != "absent").then_some(zone.as_str());
            let to = next.map(String::as_str).or(here);
            let there = address(slug, &query_of(&ask), to, from_stern);
            return Ok(Ok(Redirect::to(back_to(&there))));
        }
        Edited::Gone => return Ok(Err((Status::NotFound, None))),
        Edited::Refused(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let at = (Some(zone), from_stern);
    let page = look(slug, &ask, reader, shared, at, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, measure, there_after_all]
}

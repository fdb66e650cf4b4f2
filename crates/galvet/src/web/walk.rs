//! The walk along a hull, zone after zone.

use super::address::address;
use super::edit::{self, action};
use super::reader::{back_to, today};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::NotTaken;
use crate::form::Refusal;
use crate::form::Sent;
use crate::present::page::hulls::next::{NextStep, next_steps};
use crate::present::page::survey::walk::{self, WalkView};
use crate::survey::{self, ZoneStep};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::hull::{Source, Survey, zones};
use galvet_store::Kind;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "walk.html")]
struct WalkPage {
    frame: Frame,
    walk: WalkView,
}

impl WalkPage {
    /// Address that says it has a place after all.
    fn there(&self, zone: &str) -> String {
        let path = format!("/hulls/{}/walk/there", self.walk.key);
        address(&path, &self.frame.query, &[("zone", zone)])
    }

    /// The walk's address at a zone.
    fn at(&self, zone: &str) -> String {
        let (query, stern) = (&self.frame.query, self.walk.from_stern);
        at(&self.walk.key, query, Some(zone), stern)
    }
}

/// Address of the walk, at a zone where one is named.
fn at(slug: &str, query: &str, zone: Option<&str>, from_stern: bool) -> String {
    let mut pairs: Vec<(&str, &str)> = Vec::new();
    pairs.extend(zone.map(|zone| ("zone", zone)));
    if from_stern {
        pairs.push(("end", "stern"));
    }
    address(&format!("/hulls/{slug}/walk"), query, &pairs)
}

/// What would tell most of it under the question.
async fn next(slug: &str, visit: &Visit<'_>) -> Result<Vec<NextStep>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let Some(hull) = records.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(Vec::new());
    };
    let desk = shared.desk.clone();
    let steps = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&hull, &asked.brief).ok();
        afloat.map(|a| next_steps(&a.assessment, &asked.brief, 1))
    });
    Ok(steps.await?.unwrap_or_default())
}

async fn walk_page(
    slug: &str,
    visit: &Visit<'_>,
    (zone, from_stern): (Option<String>, bool),
    not_taken: NotTaken,
) -> Result<WalkPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let (survey, lines) = edit::drawn(shared, slug).await?;
    // A place typed in that somebody else says it has not, is shown as it had it.
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
    let next = next(slug, visit).await?;
    let walk = WalkView { anew, next, ..walk };
    Ok(WalkPage {
        frame: visit
            .frame_of(
                "hull",
                at(slug, &visit.query, None, from_stern),
                Some((Kind::Hull, slug)),
            )
            .await?,
        walk,
    })
}

#[get("/hulls/<slug>/walk?<zone>&<end>")]
async fn page(
    slug: &str,
    zone: Option<String>,
    end: Option<&str>,
    visit: Visit<'_>,
) -> Result<WalkPage, Trouble> {
    let at = (zone, end == Some("stern"));
    walk_page(slug, &visit, at, NotTaken::default()).await
}

/// Says that it has a place of the template after all.
#[post("/hulls/<slug>/walk/there?<zone>")]
async fn there_after_all(slug: &str, zone: String, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let to = at(slug, &visit.query, Some(&zone), false);
    let label = format!("{zone} on it after all");
    let done = edit::edit(&visit, slug, label, move |hull| -> Result<(), Refusal> {
        survey::set_absent(hull, &zone, false);
        Ok(())
    });
    let _nothing_to_refuse = done.await?;
    Ok(Redirect::to(back_to(&to)))
}

/// Keeps a zone as it was measured and goes on to the next, or takes it off.
#[post("/hulls/<slug>/walk?<zone>&<end>", data = "<form>")]
async fn measure(
    slug: &str,
    zone: String,
    end: Option<&str>,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, WalkPage)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let typed = form.into_inner();
    let from_stern = end == Some("stern");
    let records = shared.records().await?;
    let hull = records.hull(slug)?;
    let was = survey::zone_of(&hull.survey, &zone);
    if was.is_none() && !hull.survey.looked.absent.contains(&zone) {
        return Err(Trouble::Gone);
    }
    let label = match action(&typed) {
        "forget" => format!("{zone} taken off"),
        "absent" => format!("no {zone} on it"),
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
    let done = edit::edit(&visit, slug, label, move |hull| {
        survey::keep_zone(hull, (&name, step), &sent, (units, &today()))
    });
    let mistakes = match done.await? {
        Ok(()) => {
            let goes_on = matches!(action(&typed), "keep" | "absent");
            let next = typed.get("next").filter(|n| goes_on && !n.is_empty());
            let here = (action(&typed) != "absent").then_some(zone.as_str());
            let to = next.map(String::as_str).or(here);
            // Where one was: at the form, not at the head of the page.
            let place = back_to(&at(slug, &visit.query, to, from_stern));
            return Ok(Ok(Redirect::to(format!("{place}#here-title"))));
        }
        Err(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let at = (Some(zone), from_stern);
    let page = walk_page(slug, &visit, at, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, measure, there_after_all]
}

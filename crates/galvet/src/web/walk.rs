//! The walk along a hull, zone after zone.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited};
use super::reader::{Reader, back_to, today};
use super::shared::{Shared, Trouble};
use crate::present::page::walk::{self, NotTaken, WalkView};
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::{Source, Zone, zones};
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "walk.html")]
struct WalkPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    undo: Option<String>,
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
    let walk = walk::walk(
        &survey,
        zones(&survey),
        lines.as_ref(),
        zone.as_deref(),
        from_stern,
        &not_taken,
        reader.units,
    );
    let query = query_of(ask);
    Ok(Some(WalkPage {
        units: reader.units,
        sun: reader.sun,
        here: address(slug, &query, None, from_stern),
        place: "hull",
        undo: shared.store.undoable()?,
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
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let to = address(slug, &query_of(&ask), Some(&zone), false);
    let label = format!("{zone} on her after all");
    let done = edit::edit(shared, slug, label, move |hull| {
        survey::set_absent(hull, &zone, false);
        Ok(())
    });
    Ok(match done.await? {
        Edited::Gone => Err(Status::NotFound),
        _ => Ok(Redirect::to(back_to(&to))),
    })
}

/// Does to the record as it stands what a form asks; `guessed` says whether the
/// zone was a guess when the form was filled in.
fn apply(hull: &mut HullRecord, action: &str, zone: &Zone, guessed: bool) -> Result<(), String> {
    let name = zone.name.as_str();
    match action {
        "forget" => survey::forget_zone(hull, name),
        "absent" => {
            survey::forget_zone(hull, name)?;
            survey::set_absent(hull, name, true);
            Ok(())
        }
        "draft" => {
            // What was on its way as begun is overtaken by what was kept meanwhile.
            let measured = |z: &Zone| z.name == name && z.source != Source::Guess;
            let overtaken = guessed && zones(&hull.survey).iter().any(measured)
                || hull.survey.looked.absent.iter().any(|n| n == name);
            if overtaken {
                return Ok(());
            }
            survey::put_zone(hull, zone.clone())
        }
        _ => survey::put_zone(hull, zone.clone()),
    }
}

/// Keeps a zone as it was measured and goes on to the next, or takes it off.
#[post("/hulls/<slug>/walk?<zone>&<end>", data = "<form>")]
async fn measure(
    slug: &str,
    zone: String,
    end: Option<&str>,
    form: Form<HashMap<String, String>>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<WalkPage>)>, Trouble> {
    let typed = form.into_inner();
    let from_stern = end == Some("stern");
    let shelf = shared.shelf().await?;
    let hull = shelf.hulls.iter().find(|h| h.survey.key == slug);
    let was = hull.and_then(|h| zones(&h.survey).into_iter().find(|z| z.name == zone));
    let Some(was) = was else {
        return Ok(Err((Status::NotFound, None)));
    };
    let action = typed
        .get("action")
        .map_or("keep", String::as_str)
        .to_owned();
    let read = match action.as_str() {
        "forget" | "absent" => Ok(was.clone()),
        // While somebody types, what was understood is kept, as a guess still.
        "draft" if was.source == Source::Guess => {
            let read = survey::zone(&was, &typed, reader.units, "");
            read.map(|begun| Zone {
                source: Source::Guess,
                ..begun
            })
        }
        _ => survey::zone(&was, &typed, reader.units, &today()),
    };
    let mistakes = match read {
        Err(mistakes) => mistakes,
        Ok(measured) => {
            let name = &measured.name;
            let label = match action.as_str() {
                "forget" => format!("{name} taken off"),
                "absent" => format!("no {name} on her"),
                "draft" => format!("{name} begun"),
                _ => format!("{name} measured"),
            };
            let (what, guessed) = (action.clone(), was.source == Source::Guess);
            let done = edit::edit(shared, slug, label, move |hull| {
                apply(hull, &what, &measured, guessed)
            });
            match done.await? {
                Edited::Kept => {
                    let goes_on = matches!(action.as_str(), "keep" | "absent");
                    let next = typed.get("next").filter(|n| goes_on && !n.is_empty());
                    let here = (action != "absent").then_some(zone.as_str());
                    let to = next.map(String::as_str).or(here);
                    let there = address(slug, &query_of(&ask), to, from_stern);
                    return Ok(Ok(Redirect::to(back_to(&there))));
                }
                Edited::Gone => return Ok(Err((Status::NotFound, None))),
                Edited::Refused(problem) => [(String::new(), problem)].into(),
            }
        }
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(
        slug,
        &ask,
        reader,
        shared,
        (Some(zone), from_stern),
        not_taken,
    )
    .await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, measure, there_after_all]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_on_its_way_never_undoes_what_was_kept() {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        let mut hull = hulls.find(|h| h.survey.key == "pellune-rusko").unwrap();
        let all = zones(&hull.survey);
        let guess = all.iter().find(|z| z.name == "tank well").unwrap();
        let begun = Zone {
            width: 0.44,
            ..guess.clone()
        };
        let measured = Zone {
            source: Source::Tape,
            ..begun.clone()
        };
        let now = |hull: &HullRecord| {
            let zones = zones(&hull.survey);
            zones.into_iter().find(|z| z.name == "tank well")
        };
        apply(&mut hull, "draft", &begun, true).unwrap();
        assert_eq!(now(&hull).unwrap(), begun);
        apply(&mut hull, "keep", &measured, true).unwrap();
        apply(&mut hull, "draft", &begun, true).unwrap();
        assert_eq!(now(&hull).unwrap().source, Source::Tape);
        apply(&mut hull, "absent", &measured, false).unwrap();
        apply(&mut hull, "draft", &begun, true).unwrap();
        assert_eq!(now(&hull), None);
    }
}

//! Courses of the pond: played as JSON for a picture that moves, as a table, as a strip.

use super::{Picked, Wanted, made};
use crate::answer::{Afloat, Desk, Pond};
use crate::pond::{course, moves};
use crate::present::draw::paper::STYLE;
use crate::present::draw::pond::{Strip, strip};
use crate::present::page::pond::{Trial, words};
use crate::web::trouble::Trouble;
use crate::web::visit::Visit;
use askama::Template;
use galvet_core::base::{Keyed, System};
use galvet_core::guide::{Guide, Guides};
use galvet_core::pond::{Act, Boat, Course, Play, Scene, Sea, Setting};
use rayon::prelude::*;
use rocket::http::{ContentType, Status};
use rocket::{Route, get, routes};
use serde_json::{Value, json};
use std::sync::Arc;

/// What is played: on which boats, by which moves, over which time.
struct Played {
    setting: Setting,
    script: Vec<(f64, Act)>,
    up: bool,
    from: f64,
    until: f64,
}

impl Wanted {
    /// The exercise's, or moves of one's own.
    fn played(&self, picked: &Picked, guides: &Guides) -> Result<Played, String> {
        let (trial, brief) = (&picked.trial, &picked.asked.brief);
        if let Some((part, mistake)) = picked.asked.errors.first_key_value() {
            return Err(format!("{part}: {}", mistake.problem));
        }
        let done = trial.done(guides);
        let script = match self.moves.as_deref() {
            Some(text) => moves::parsed(text)?,
            None => done.script.clone(),
        };
        let sea = match self.sea.as_deref() {
            None => done.sea,
            Some("flat") => Sea::Flat,
            Some("wake") => Sea::Wake {
                height: guides[Guide::PondWake],
                at: 0.0,
            },
            Some("chop") => Sea::Chop(guides[Guide::PondChop]),
            Some(_) => return Err("which water: flat, wake or chop".to_owned()),
        };
        let within = |time: Option<f64>, usual: f64| {
            let time = time.unwrap_or(usual);
            if time.is_finite() {
                time.clamp(0.0, moves::LONGEST)
            } else {
                usual
            }
        };
        Ok(Played {
            setting: Setting {
                by: (trial.seed, 0),
                ..Setting::of(brief, trial.practice, sea, guides)
            },
            script,
            up: self.up.unwrap_or(done.up),
            from: within(self.from, 0.0),
            until: within(self.until, done.until),
        })
    }
}

impl Played {
    fn on(&self, boat: &Boat) -> Course {
        Play::new(boat, self.setting, &self.script, self.up).run(self.until, course::EVERY, false)
    }
}

/// What is drawn of a boat: still and moving.
fn drawn((boat, scene): &(Boat, Scene), played: &Played) -> Value {
    json!({
        "still": course::still(boat, scene),
        "moving": course::moving(&played.on(boat), played.from),
    })
}

/// A course with what is drawn of it.
fn told(
    afloat: &Afloat,
    pond: &Pond,
    other: Option<(&str, Arc<Pond>)>,
    played: &Played,
    (trial, units): (&Trial, System),
) -> Value {
    let faint: Vec<Value> = pond
        .ends
        .par_iter()
        .map(|(boat, scene)| {
            json!({
                "still": course::still(boat, scene),
                "heel": course::heeling(&played.on(boat), played.from),
            })
        })
        .collect();
    let whole = played.on(&pond.middle.0);
    let balance = played.setting.balance;
    // Whoever sat down of their own will does not end on the feet.
    let mut acts = played.script.iter().rev().map(|(_, act)| *act);
    let last = acts.find(|act| matches!(act, Act::Stand | Act::Sit));
    let standing = last.map_or(played.up, |act| act == Act::Stand);
    let waves = played.setting.sea != Sea::Flat;
    let how = (trial.practice, standing, false, waves);
    let story = words::story(&whole, &pond.middle.0, &balance, how, units);
    json!({
        "every": f64::from(course::EVERY) * galvet_core::pond::TICK,
        "script": moves::written(&played.script),
        "support": afloat.assessment.median(galvet_core::figures::Quantity::StandingSupport),
        "main": {
            "still": course::still(&pond.middle.0, &pond.middle.1),
            "moving": course::moving(&whole, played.from),
        },
        "faint": faint,
        "ghost": other.map(|(name, pond)| json!({"name": name, "drawn": drawn(&pond.middle, played)})),
        "story": story,
    })
}

/// A course for a picture that moves: from the exercise, or by moves of one's own.
#[get("/pond/course.json?<wanted..>")]
async fn course_json(
    wanted: Wanted,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), (Status, String)>, Trouble> {
    let (shared, reader) = (visit.shared, visit.reader);
    let records = shared.records().await?;
    let picked = wanted.picked(&visit, &records).await?;
    let (trial, guides) = (picked.trial, shared.desk.guides());
    let played = match wanted.played(&picked, guides) {
        Ok(played) => played,
        Err(wrong) => return Ok(Err((Status::UnprocessableEntity, wrong))),
    };
    let (desk, beside): (Arc<Desk>, _) = (shared.desk.clone(), picked.beside.clone());
    let made = made(shared, &picked, reader.caller, move |afloat, pond| {
        let other = beside.as_ref().and_then(|(hull, brief)| {
            let pond = desk.afloat(hull, brief).ok()?.pond()?;
            Some((hull.survey.name(), pond))
        });
        let other = other
            .as_ref()
            .map(|(name, pond)| (name.as_str(), pond.clone()));
        told(afloat, pond, other, &played, (&trial, reader.units)).to_string()
    });
    Ok(match made.await? {
        Some(text) => Ok((ContentType::JSON, text)),
        None => Err((Status::NotFound, "it does not float so".to_owned())),
    })
}

/// The course as a table.
#[get("/pond/trace.csv?<wanted..>")]
async fn trace(
    wanted: Wanted,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), (Status, String)>, Trouble> {
    let records = visit.shared.records().await?;
    let picked = wanted.picked(&visit, &records).await?;
    let played = match wanted.played(&picked, visit.shared.desk.guides()) {
        Ok(played) => played,
        Err(wrong) => return Ok(Err((Status::UnprocessableEntity, wrong))),
    };
    let made = made(
        visit.shared,
        &picked,
        visit.reader.caller,
        move |_, pond| course::table(&played.on(&pond.middle.0)).ok(),
    );
    Ok(match made.await?.flatten() {
        Some(text) => Ok((ContentType::CSV, text)),
        None => Err((Status::NotFound, "it does not float so".to_owned())),
    })
}

/// The strip as a drawing of its own.
#[derive(Template)]
#[template(path = "pond-strip.svg", escape = "html")]
struct StripFile {
    title: String,
    style: &'static str,
    strip: Strip,
}

#[get("/pond/strip.svg?<wanted..>")]
async fn strip_svg(
    wanted: Wanted,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = visit.shared.records().await?;
    let picked = wanted.picked(&visit, &records).await?;
    let trial = picked.trial;
    let title = format!("{}: {}", picked.hull.survey.name(), trial.exercise.label());
    let made = made(
        visit.shared,
        &picked,
        visit.reader.caller,
        move |afloat, pond| {
            let done = trial.done(afloat.assessment.setup.guides());
            let course = trial.course(afloat, pond, 5);
            let (boat, scene) = &pond.middle;
            let file = StripFile {
                title,
                style: &STYLE,
                strip: strip(scene, boat, &course, &done.script),
            };
            file.render().ok()
        },
    );
    let text = made.await?.flatten().ok_or(Status::NotFound);
    Ok(text.map(|text| (ContentType::SVG, text)))
}
pub(super) fn routes() -> Vec<Route> {
    routes![course_json, trace, strip_svg]
}

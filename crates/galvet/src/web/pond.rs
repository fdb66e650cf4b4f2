//! The pond: an exercise on a hull, played; a course as JSON, table and strip.

use super::answered::{Answered, answered};
use super::records::Records;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{Afloat, Desk, Hull, Pond};
use crate::pond::{course, moves};
use crate::present::draw::hull::{Side, side};
use crate::present::draw::paper::STYLE;
use crate::present::draw::pond::{Strip, strip};
use crate::present::page::pond::{PondView, Trial, exercise, view, words};
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::question::Asked;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{Keyed, System};
use galvet_core::crew::Posture;
use galvet_core::guide::{Guide, Guides};
use galvet_core::pond::{Act, Boat, Course, Exercise, Play, Scene, Sea, Setting, helps};
use galvet_core::question::{Brief, Practice};
use rayon::prelude::*;
use rocket::form::FromForm;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::{Route, get, routes};
use serde_json::{Value, json};
use std::sync::Arc;

/// What an address asks beside the question.
#[derive(FromForm, Default)]
struct Wanted {
    hull: Option<String>,
    /// The exercise.
    #[field(name = "do")]
    what: Option<String>,
    /// `feet` or `seat`, where it may be done either way.
    on: Option<String>,
    /// Which of the tries is played.
    seed: Option<u64>,
    /// Another hull under the same moves; `raised`: the same with the seat on risers.
    beside: Option<String>,
    /// Moves of one's own, in place of the exercise's.
    moves: Option<String>,
    /// `flat`, `wake` or `chop`.
    sea: Option<String>,
    /// Whether it begins on the feet.
    up: Option<bool>,
    /// From when on frames are wanted, and until when, s.
    from: Option<f64>,
    until: Option<f64>,
}

/// The word for the same hull with its seat on risers.
const RAISED: &str = "raised";
/// How high those are, m.
const RISERS: f64 = 0.10;

/// One of the exercises, as a page offers it.
struct Tile {
    label: &'static str,
    href: String,
    chosen: bool,
}

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "pond.html")]
struct PondPage {
    frame: Frame,
    sentence: Sentence,
    /// Hulls: key, name, chosen.
    hulls: Vec<(String, String, bool)>,
    /// What may be put beside it: key, name, chosen.
    beside: Vec<(String, String, bool)>,
    key: String,
    name: String,
    tiles: Vec<Tile>,
    exercise: &'static str,
    word: &'static str,
    /// Whether it may be done standing or seated, and which.
    either: bool,
    stands: bool,
    /// Practice: word, label, chosen.
    practices: Vec<(&'static str, &'static str, bool)>,
    view: Option<PondView>,
    /// The hull from the side.
    side: Option<Side>,
    /// Where the moving picture asks, and with what it begins.
    course: String,
    script: String,
    sea: &'static str,
    until: f64,
    up: bool,
    seed: u64,
    /// Pages and files of the same try.
    again: String,
    help: String,
    strip: String,
    trace: String,
}

/// What is tried on which hull.
struct Picked {
    asked: Asked,
    hull: Hull,
    beside: Option<(Hull, Brief)>,
    trial: Trial,
}

impl Wanted {
    /// Practice is a part of the question; the rest is the pond's own.
    async fn picked(&self, visit: &Visit<'_>, records: &Arc<Records>) -> Result<Picked, Trouble> {
        let asked = visit.ask.resolve(&records.catalogue)?;
        let hull = match self.hull.as_deref().filter(|k| !k.is_empty()) {
            Some(key) => records.hull(key)?.clone(),
            None => winner(visit, records, &asked).await?,
        };
        let brief = &asked.brief;
        let beside = match self.beside.as_deref().filter(|k| !k.is_empty()) {
            None => None,
            Some(RAISED) => {
                let mut brief = brief.clone();
                brief.raised = (brief.raised + RISERS).min(Brief::RAISED.hi);
                Some((hull.clone(), brief))
            }
            Some(key) => Some((records.hull(key)?.clone(), brief.clone())),
        };
        let stands = match self.on.as_deref() {
            Some("feet") => true,
            Some("seat") => false,
            _ => brief.posture != Posture::Sits,
        };
        let first = Exercise::first(brief.posture);
        let trial = Trial {
            exercise: exercise(self.what.as_deref(), first),
            stands,
            practice: brief.wishes.practice,
            seed: self.seed.unwrap_or(1),
        };
        Ok(Picked {
            hull,
            beside,
            trial,
            asked,
        })
    }
}

/// The hull in first place, or the first there is.
async fn winner(visit: &Visit<'_>, records: &Arc<Records>, asked: &Asked) -> Result<Hull, Trouble> {
    let answer = visit
        .shared
        .ranking(asked, records, visit.reader.caller)
        .await?;
    let first = answer
        .ranking
        .ranked
        .first()
        .map(|r| r.survey().key.clone());
    let found = first.and_then(|key| records.hull(&key).ok().cloned());
    found
        .or_else(|| records.hulls.first().cloned())
        .ok_or(Trouble::Gone)
}

/// The word of a sea.
const fn sea_word(sea: Sea) -> &'static str {
    match sea {
        Sea::Flat => "flat",
        Sea::Wake { .. } | Sea::Regular { .. } => "wake",
        Sea::Chop(_) => "chop",
    }
}

#[get("/pond?<wanted..>")]
async fn page(wanted: Wanted, visit: Visit<'_>) -> Result<Answered<PondPage>, Trouble> {
    let (shared, reader) = (visit.shared, visit.reader);
    let records = shared.records().await?;
    let picked = wanted.picked(&visit, &records).await?;
    let (trial, hull) = (picked.trial, picked.hull.clone());
    let key = hull.survey.key.clone();
    let beside = wanted.beside.clone().unwrap_or_default();
    let seed = trial.seed.to_string();
    let on = if trial.stands { "feet" } else { "seat" };
    let link = |path: &str, what: Exercise, seed: &str| {
        let mut pairs = vec![
            ("hull", key.as_str()),
            ("do", what.key()),
            ("on", on),
            ("seed", seed),
        ];
        if !beside.is_empty() {
            pairs.push(("beside", &beside));
        }
        visit.to(path, &pairs)
    };
    let tiles = Exercise::ALL.iter().map(|&what| Tile {
        label: what.label(),
        href: link("/pond", what, &seed),
        chosen: what == trial.exercise,
    });
    let named = records.named();
    let offered = |chosen: &str| {
        let all = named
            .iter()
            .map(|(k, name)| (k.clone(), name.clone(), k == chosen));
        all.collect::<Vec<_>>()
    };
    let mut besides = vec![
        (String::new(), "nothing".to_owned(), beside.is_empty()),
        (
            RAISED.to_owned(),
            "the same, its seat on risers".to_owned(),
            beside == RAISED,
        ),
    ];
    besides.extend(offered(&beside).into_iter().filter(|(k, ..)| *k != key));
    let guides = shared.desk.guides().clone();
    let done = trial.done(&guides);
    let again = trial.seed.wrapping_add(1).to_string();
    let practices = [Practice::New, Practice::Some, Practice::Skilled];
    let here = link("/pond", trial.exercise, &seed);
    let sentence = sentence::sentence(
        &picked.asked,
        &records.catalogue,
        "/pond".to_owned(),
        reader.units,
    );
    let made = made(shared, &picked, reader.caller, move |afloat, pond| {
        let side = side(&afloat.portrait().side, reader.units);
        (view(afloat, pond, &trial, reader.units), side)
    });
    let (view, side) = made.await?.unzip();
    let page = PondPage {
        frame: visit.frame("pond", here),
        sentence,
        hulls: offered(&key),
        beside: besides,
        name: hull.survey.name(),
        tiles: tiles.collect(),
        exercise: trial.exercise.label(),
        word: trial.exercise.key(),
        either: !trial.exercise.on_the_feet() && trial.exercise.done(true, &guides).must_stand,
        stands: trial.stands,
        practices: practices
            .map(|p| (p.key(), p.label(), p == trial.practice))
            .to_vec(),
        view,
        side,
        course: link("/pond/course.json", trial.exercise, &seed),
        script: moves::written(&done.script),
        sea: sea_word(done.sea),
        until: done.until,
        up: done.up,
        seed: trial.seed,
        again: link("/pond", trial.exercise, &again),
        help: link("/pond/help", trial.exercise, &seed),
        strip: link("/pond/strip.svg", trial.exercise, &seed),
        trace: link("/pond/trace.csv", trial.exercise, &seed),
        key,
    };
    Ok(answered(&picked.asked, page))
}

/// Makes something of a hull on the pond; `None` where it does not float.
async fn made<T: Send + 'static>(
    shared: &Shared,
    picked: &Picked,
    caller: super::caller::Caller,
    make: impl FnOnce(&Afloat, &Pond) -> T + Send + 'static,
) -> Result<Option<T>, Trouble> {
    let (desk, hull, brief) = (
        shared.desk.clone(),
        picked.hull.clone(),
        picked.asked.brief.clone(),
    );
    let made = shared.work(caller, move || {
        let afloat = desk.afloat(&hull, &brief).ok()?;
        let pond = afloat.pond()?;
        Some(make(&afloat, &pond))
    });
    made.await
}

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
    let standing = played.script.iter().any(|(_, act)| *act == Act::Stand) || played.up;
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

/// What would help.
#[derive(Template, WebTemplate)]
#[template(path = "pond-help.html")]
struct HelpPage {
    frame: Frame,
    name: String,
    exercise: &'static str,
    lines: Vec<String>,
    back: String,
}

#[get("/pond/help?<wanted..>")]
async fn help(wanted: Wanted, visit: Visit<'_>) -> Result<HelpPage, Trouble> {
    let records = visit.shared.records().await?;
    let picked = wanted.picked(&visit, &records).await?;
    let (trial, units) = (picked.trial, visit.reader.units);
    let made = made(
        visit.shared,
        &picked,
        visit.reader.caller,
        move |afloat, _| {
            let a = &afloat.assessment;
            let all = helps(
                &a.setup,
                &a.middle,
                trial.exercise,
                trial.stands,
                trial.practice,
            );
            words::helped(&all, trial.exercise.in_waves(), units)
        },
    );
    let key = picked.hull.survey.key.clone();
    let on = if trial.stands { "feet" } else { "seat" };
    let pairs = [
        ("hull", key.as_str()),
        ("do", trial.exercise.key()),
        ("on", on),
    ];
    let lines = made.await?.unwrap_or_default();
    Ok(HelpPage {
        frame: visit.frame("pond", visit.to("/pond/help", &pairs)),
        name: picked.hull.survey.name(),
        exercise: trial.exercise.label(),
        lines,
        back: visit.to("/pond", &pairs),
    })
}

/// From a hull.
#[get("/hulls/<slug>/pond")]
async fn of_hull(slug: &str, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let records = visit.shared.records().await?;
    let hull = records.hull(slug)?;
    Ok(visit.go("/pond", &[("hull", &hull.survey.key)]))
}

pub(super) fn routes() -> Vec<Route> {
    routes![of_hull, page, course_json, trace, strip_svg, help]
}

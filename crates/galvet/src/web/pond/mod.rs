//! The pond's pages: an exercise on a hull, what would help with it.

mod played;

use super::answered::{Answered, answered};
use super::caller::Caller;
use super::records::Records;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{Afloat, Hull, Pond};
use crate::pond::moves;
use crate::present::draw::hull::{Side, side};
use crate::present::page::pond::{PondView, Trial, exercise, view, words};
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::question::Asked;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::crew::Posture;
use galvet_core::pond::{Exercise, Sea, helps};
use galvet_core::question::{Brief, Practice};
use rocket::form::FromForm;
use rocket::response::Redirect;
use rocket::{Route, get, routes};
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
async fn page(
    wanted: Wanted,
    visit: Visit<'_>,
) -> Result<Result<Answered<PondPage>, Redirect>, Trouble> {
    let (shared, reader) = (visit.shared, visit.reader);
    let records = shared.records().await?;
    if records.hulls.is_empty() {
        // Where it is said how to begin.
        return Ok(Err(visit.go("/", &[])));
    }
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
    Ok(Ok(answered(&picked.asked, page)))
}

/// Makes something of a hull on the pond; `None` where it does not float.
async fn made<T: Send + 'static>(
    shared: &Shared,
    picked: &Picked,
    caller: Caller,
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
    let mut all = routes![of_hull, page, help];
    all.extend(played::routes());
    all
}

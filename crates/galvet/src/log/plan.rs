//! An outing as it is planned: what comes along, what it weighs, and how it was laden then.

use super::draft::Thing;
use crate::answer::{Desk, Hull};
use crate::question::{Ask, Asked};
use galvet_core::figures::{Quantity, Setup};
use galvet_core::gear::Category;
use galvet_core::hull::Aboard;
use galvet_core::load::{Carriage, Stance};
use galvet_core::log::{Carried, Fate, Outing};
use galvet_core::question::Brief;
use galvet_core::rig::Rig;
use galvet_store::Catalogue;
use std::sync::Arc;

/// What of a rig comes along on an outing, as things one can say something of.
pub(crate) fn things_of(rig: &Rig) -> Vec<Carried> {
    let mut all: Vec<Carried> = Vec::new();
    for line in rig.lines.iter().filter(|l| l.count > 0) {
        // Who comes along is no kit.
        let company = line.thing.as_ref().map(|t| t.category) == Some(Category::Company);
        let one = Carried {
            item: line.item.clone(),
            gear: line.gear.clone(),
            fate: None,
        };
        let there = all.iter().any(|c| Thing::of(c).key == Thing::of(&one).key);
        if !company && !there {
            all.push(one);
        }
    }
    all
}

/// An outing in a hull on a day as a question plans it; what is aboard is worked out where
/// the hull floats.
pub(crate) fn planned(
    desk: &Desk,
    hull: &Hull,
    (brief, question): (&Brief, &str),
    day: &str,
) -> Outing {
    let people = 1 + brief
        .others
        .iter()
        .filter(|o| o.line().dry_mass <= 0.0)
        .count();
    Outing {
        day: day.to_owned(),
        water: brief.water.key.clone(),
        density: brief.water.density,
        hull: hull.survey.key.clone(),
        rig: brief.rig.key.clone(),
        question: question.trim_start_matches('?').to_owned(),
        people: u16::try_from(people).unwrap_or(1),
        forecast: brief.outing.wind,
        aboard: aboard(desk, hull, brief),
        scuppers: brief.scuppers,
        speed_by: hull.survey.propulsion,
        carried: things_of(&brief.rig),
        ..Outing::blank()
    }
}

/// What a question puts aboard, of the middle shape: mass, place, height.
fn aboard(desk: &Desk, hull: &Hull, brief: &Brief) -> Option<Aboard> {
    let shapes = desk.shapes(hull).ok()?;
    let setup = Setup::new(shapes.clone(), Arc::new(brief.floating_part(desk.guides())));
    let shape = shapes.middle();
    let body = shapes.form.draw(&[shape]);
    let floor = body.standing_height;
    let load = setup
        .loads
        .load(Carriage::Seated, &Stance::of(&[shape], floor));
    let place = (load.x.0[0] - shapes.form.bow()) / shapes.form.length();
    let round = |value: f64, step: f64| (value / step).round() * step;
    Some(Aboard {
        mass: round(load.mass.0[0], 0.1),
        place: round(place.clamp(0.0, 1.0), 0.001),
        height: round(load.z.0[0] - floor.0[0], 0.001),
    })
}

/// How a hull was laden on an outing; kg.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Laden {
    /// The outing's key and day.
    pub(crate) key: String,
    pub(crate) day: String,
    /// Load that counts, at the label's own account.
    pub(crate) load: f64,
    /// What was left of the tightest limit: least, middle, most.
    pub(crate) margin: (f64, f64, f64),
}

/// The question an outing was planned with, with what stayed ashore left out; `None` where it
/// has none, or one that is not understood any more.
pub(crate) fn asked_on(catalogue: &Catalogue, outing: &Outing) -> Option<Asked> {
    if outing.question.is_empty() {
        return None;
    }
    let pairs = form_urlencoded::parse(outing.question.as_bytes()).into_owned();
    let pairs: Vec<(String, String)> = pairs.collect();
    let ask = Ask::of(pairs.iter().map(|(n, v)| (n.as_str(), v.clone())));
    let mut asked = ask.resolve(catalogue).ok()?;
    // What it names is gone or not understood: another question is not its own.
    if !asked.errors.is_empty() {
        return None;
    }
    let ashore = |key: &Option<String>, item: &str| {
        let mut all = outing.carried.iter();
        all.any(|c| c.fate == Some(Fate::Ashore) && (&c.gear, c.item.as_str()) == (key, item))
    };
    for line in &mut asked.brief.rig.lines {
        if ashore(&line.gear, &line.item) {
            line.count = 0;
        }
    }
    Some(asked)
}

/// Outings of which it is worked out how they were laden: the newest.
const NEWEST: usize = 48;

/// How each outing was laden that says with which question it was planned.
pub(crate) fn laden(
    desk: &Desk,
    hulls: &[Hull],
    catalogue: &Catalogue,
    outings: &[Outing],
) -> Vec<Laden> {
    let one = |outing: &Outing| {
        let hull = hulls.iter().find(|h| h.survey.key == outing.hull)?;
        let asked = asked_on(catalogue, outing)?;
        let afloat = desk.afloat(hull, &asked.brief).ok()?;
        let a = &afloat.assessment;
        let range = a.range(Quantity::BindingMargin)?;
        Some(Laden {
            key: outing.key.clone(),
            day: outing.day.clone(),
            load: a.median(Quantity::Counted)?,
            margin: (range.p5, range.p50, range.p95),
        })
    };
    outings.iter().take(NEWEST).filter_map(one).collect()
}

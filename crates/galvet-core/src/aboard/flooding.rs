//! Water aboard of a hull under a question, over its possible shapes.

use super::course::{swamped, with_loose};
use super::loose::Loosened;
use super::room::Shut;
use crate::body::{Body, Shape};
use crate::draining::{Deck, Draining, apart};
use crate::draining::{Usual, inlets};
use crate::figures::{Absent, Afloat, Assessment, Quantity, Range, Setup, Shown};
use crate::float::Accuracy;
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Fitting, FittingKind, Flooded, Survey};
use crate::load::Carriage;
use rayon::prelude::*;

/// Shapes it is taken over: each is filled, drained and leaned anew.
const SHAPES: usize = 5;

/// What one shape does with water aboard; volumes in m³, times in s.
#[derive(Debug, Clone, PartialEq)]
pub struct Wet {
    /// From brim-full; `None` for what has no recess, or does not float with it full.
    pub draining: Option<Draining>,
    /// Until a lasting lean to its righting peak has half filled it.
    pub fills: Option<f64>,
    /// Loose water at which what is lost.
    pub loose: Loosened,
    /// Rain it catches in an hour of 10 mm, m³.
    pub rain: f64,
}

impl Wet {
    /// What stands for a shape that does not rest: the worst there can be.
    const LOST: Self = Self {
        draining: None,
        fills: Some(0.0),
        loose: Loosened {
            wet_floor: Some(0.0),
            gm_zero: Some(0.0),
            founders: Some(0.0),
        },
        rain: 0.0,
    };
}

/// Water aboard over plausible shapes: a share where not all of them have it.
#[derive(Debug, Clone, PartialEq)]
pub struct Flooding {
    /// Seconds until the deck is clear.
    pub clear: Option<Range>,
    /// Seconds until it is steady for good.
    pub tender: Option<Range>,
    /// What stays, m.
    pub stays: Option<Range>,
    /// Brim-full, m³.
    pub brim: Option<Range>,
    /// Seconds until a lasting lean has half filled it.
    pub fills: Option<Range>,
    /// Loose water to a wet floor, m³.
    pub wet_floor: Option<Range>,
    /// Loose water to no GM, m³.
    pub gm_zero: Option<Range>,
    /// Loose water to foundering, m³.
    pub founders: Option<Range>,
    /// Rain it catches in an hour of 10 mm, m³.
    pub rain: Option<Range>,
    /// Whether its scuppers are guesses.
    pub guessed: bool,
    /// How the middle shape drains: seconds, and m³ aboard; empty where it does not.
    pub course: Vec<(f64, f64)>,
    /// When that one is steady again, and clear, s.
    pub marks: [Option<f64>; 2],
}

/// Does to one shape what water can; `None` where it does not rest. `discharge` is the
/// share of a free jet its scuppers let through.
#[must_use]
pub fn wet(setup: &Setup, shape: &Shape, usual: Usual, discharge: f64) -> Option<Wet> {
    let shapes = [*shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let case = afloat.case(Carriage::Seated);
    if !case.upright.rests(0) {
        return None;
    }
    let mut guides: Guides = setup.guides().clone();
    guides.set(Guide::Discharge, discharge).ok()?;
    let body: &Body<1> = &afloat.body;
    let load = (case.weight, setup.brief.water.density);
    let survey = &setup.posterior.survey;
    let shut = Shut::of(setup, body);
    let loose = with_loose(setup, (body, load), &shut, |loose| loose.limits())?;
    if !body.has_recess() || survey.construction != Construction::SitOnTop {
        return Some(Wet {
            draining: None,
            fills: None,
            loose,
            rain: 0.0,
        });
    }
    let apart = apart(body);
    let apart = apart.as_ref().map(|[a, b]| [&**a, &**b]);
    let form = &setup.posterior.form;
    let all = inlets(survey, (form, shape), setup.brief.scuppers, usual);
    let deck = Deck::new(body, apart, load, &all, &guides);
    let draining = deck.drain(guides[Guide::TenderGm]);
    let figures = afloat.figures();
    let peak = figures[0].0.get(Quantity::PeakAngle).unwrap_or(0.0);
    let fills = if setup.open == Flooded::NONE || peak < 0.5 {
        None
    } else {
        deck.fill(peak.to_radians()).and_then(|f| f.half)
    };
    Some(Wet {
        draining,
        fills,
        loose,
        rain: 0.010 * deck.plan_area(),
    })
}

/// How one shape drains from brim-full; `None` for what has no recess, or does not float
/// with it full.
fn drained(setup: &Setup, shape: &Shape, usual: Usual) -> Option<Draining> {
    let shapes = [*shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let case = afloat.case(Carriage::Seated);
    let (body, survey) = (&*afloat.body, &setup.posterior.survey);
    if !case.upright.rests(0) || !body.has_recess() {
        return None;
    }
    if survey.construction != Construction::SitOnTop {
        return None;
    }
    let apart = apart(body);
    let apart = apart.as_ref().map(|[a, b]| [&**a, &**b]);
    let load = (case.weight, setup.brief.water.density);
    let form = (&setup.posterior.form, shape);
    let all = inlets(survey, form, setup.brief.scuppers, usual);
    let deck = Deck::new(body, apart, load, &all, setup.guides());
    deck.drain(setup.guides()[Guide::TenderGm])
}

/// Share of a few shapes, spread over the possible ones, that stay up and steady enough to
/// be bailed with the cockpit full to its rim. Of a hull one sits in; of any other 1.
#[must_use]
pub fn stays_up_swamped(assessment: &Assessment) -> f64 {
    /// Few, since a ranking may ask it of every hull.
    const FEW: usize = 3;
    let setup = &assessment.setup;
    if setup.posterior.survey.construction != Construction::SitInside {
        return 1.0;
    }
    let order = assessment.evenly();
    let stride = (order.len() / FEW).max(1);
    let chosen = order.into_iter().skip(stride / 2).step_by(stride).take(FEW);
    let chosen: Vec<usize> = chosen.collect();
    let stays = |i: &usize| {
        let swamped = swamped(setup, &setup.posterior.shapes[*i]);
        swamped.is_some_and(|s| s.gm > 0.0 && s.rim > 0.0)
    };
    let up = chosen.iter().filter(|i| stays(i)).count();
    up as f64 / chosen.len().max(1) as f64
}

/// Whether nobody noted a hull's scuppers.
#[must_use]
pub fn scuppers_guessed(survey: &Survey) -> bool {
    let all = survey.fitout.fittings_now();
    let noted = |f: &Fitting| matches!(f.kind, FittingKind::Scupper { .. });
    !all.iter().any(noted)
}

/// Seconds in which a deck full of water drains, of a few shapes spread over the possible
/// ones; empty for what has no recess.
#[must_use]
pub fn drain_times(assessment: &Assessment) -> Vec<Option<f64>> {
    /// Few, since a ranking may ask it of every hull.
    const FEW: usize = 3;
    let setup = &assessment.setup;
    let order = assessment.evenly();
    let stride = (order.len() / FEW).max(1);
    let chosen = order.into_iter().skip(stride / 2).step_by(stride).take(FEW);
    let times = chosen.enumerate().filter_map(|(k, i)| {
        let shapes = [setup.posterior.shapes[i]];
        let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
        let case = afloat.case(Carriage::Seated);
        // What does not rest drains nothing.
        if !case.upright.rests(0) {
            return Some(None);
        }
        if !afloat.body.has_recess() {
            return None;
        }
        let load = (case.weight, setup.brief.water.density);
        let apart = apart(&afloat.body);
        let apart = apart.as_ref().map(|[a, b]| [&**a, &**b]);
        let form = (&setup.posterior.form, &shapes[0]);
        let asked = setup.brief.scuppers;
        let all = inlets(&setup.posterior.survey, form, asked, Usual::case(k, FEW));
        let deck = Deck::new(&afloat.body, apart, load, &all, setup.guides());
        Some(deck.clears())
    });
    times.collect()
}

/// Water aboard of an assessed hull. `None` where no shape rests.
#[must_use]
pub fn flooding(assessment: &Assessment) -> Option<Flooding> {
    let setup = &assessment.setup;
    let guides = setup.guides();
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let chosen: Vec<usize> = order.into_iter().step_by(stride).take(SHAPES).collect();
    let row = Guide::Discharge.row();
    let count = chosen.len();
    let found: Vec<Option<Wet>> = chosen
        .par_iter()
        .enumerate()
        .map(|(k, &i)| {
            // How freely a hole lets water through is as little known as how wide it is:
            // spread the other way, so that the two are not one.
            let share = (k as f64 * 0.618).fract();
            let middle = guides[Guide::Discharge];
            let discharge = middle + (share - 0.5) * 0.5 * (row.hi - row.lo);
            let usual = Usual::case(k, count);
            wet(
                setup,
                &setup.posterior.shapes[i],
                usual,
                discharge.clamp(row.lo, row.hi),
            )
        })
        .collect();
    if found.iter().all(Option::is_none) {
        return None;
    }
    // No figure gets better by losing shapes.
    let found: Vec<Wet> = found.into_iter().map(|w| w.unwrap_or(Wet::LOST)).collect();
    // One that never drains counts as the slowest, one that never fills as the slowest
    // to fill.
    let range = |f: &dyn Fn(&Wet) -> Option<f64>| {
        let shown = found.iter().map(|w| Shown {
            value: f(w).unwrap_or(f64::NAN),
            weight: 1.0,
            absent: Absent::Highest,
        });
        Range::over_all(&shown.collect::<Vec<_>>())
    };
    let draining =
        |f: fn(&Draining) -> Option<f64>| range(&move |w: &Wet| w.draining.as_ref().and_then(f));
    let middle = drained(setup, &assessment.middle, Usual::MIDDLE);
    Some(Flooding {
        marks: middle.as_ref().map_or([None; 2], |d| [d.tender, d.clear]),
        course: middle.map_or_else(Vec::new, |d| d.course),
        clear: draining(|d| d.clear),
        tender: draining(|d| d.tender),
        stays: draining(|d| Some(d.stays)),
        brim: draining(|d| Some(d.brim)),
        fills: range(&|w| w.fills),
        wet_floor: range(&|w| w.loose.wet_floor),
        gm_zero: range(&|w| w.loose.gm_zero),
        founders: range(&|w| w.loose.founders),
        rain: range(&|w| w.draining.as_ref().map(|_| w.rain)),
        guessed: scuppers_guessed(&setup.posterior.survey),
    })
}

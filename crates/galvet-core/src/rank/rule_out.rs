//! Why a hull is out of the question, and by how much.

use super::peril::{self, Peril};
use super::reason::{Code, Reason};
use super::{demands, wishes};
use crate::aboard::stays_up_swamped;
use crate::base::{Dimension, Keyed, System};
use crate::figures::{Assessment, Deciding, Quantity, Range, WaterLimit};
use crate::guide::Guide;
use crate::hull::{
    Construction, Fitting, FittingKind, Measure, Recess, drains, fittings, holds_water,
};
use crate::papers::{Facts, Outcome, check, shopping};
use crate::question::{Brief, DemandUse, Effect};

/// Whether a hull is ranked, and the peril that is then said beside its place.
///
/// # Errors
///
/// Everything that rules it out, gravest first.
pub fn passes(assessment: &Assessment, brief: &Brief) -> Result<Option<Peril>, Vec<Reason>> {
    let peril = peril::peril(assessment);
    let reasons = reasons(assessment, brief, peril.as_ref());
    if reasons.is_empty() {
        Ok(peril::beside(assessment, peril))
    } else {
        Err(reasons)
    }
}

fn reasons(assessment: &Assessment, brief: &Brief, peril: Option<&Peril>) -> Vec<Reason> {
    let mut found: Vec<Reason> = peril
        .and_then(|p| peril::reason(assessment, p))
        .into_iter()
        .collect();
    if found.is_empty() {
        found.extend(tender(assessment));
    }
    found.extend(laden(assessment));
    found.extend(suitable(assessment, brief));
    found.extend(must_haves(assessment, brief));
    let short = assessment.setup.loads.company.short;
    if short > 0 {
        let by = f64::from(short);
        found.push(Reason::by(Code::NoSeat, by, Dimension::Ratio));
    }
    found.extend(without_place(assessment));
    found.sort_by_key(|r| r.code);
    found
}

/// A hull that answers hardly any lean: shapes that answer none count as none.
fn tender(assessment: &Assessment) -> Option<Reason> {
    let weights = &assessment.setup.posterior.weights;
    let rooms = assessment
        .sample
        .iter()
        .map(|v| v.get(Deciding::LeanRoom).unwrap_or(0.0));
    let room = Range::of(rooms.zip(weights.iter().copied()))?.p50;
    let least = assessment.setup.guides()[Guide::TooTender];
    (room < least).then(|| Reason::by(Code::TooTender, room, Dimension::ShortLength))
}

fn laden(assessment: &Assessment) -> Vec<Reason> {
    let mut found = Vec::new();
    let setup = &assessment.setup;
    let median = |q| assessment.median(q);
    if let Some(margin) = median(Quantity::LabelMargin)
        && margin < 0.0
    {
        found.push(Reason::by(Code::OverLabel, -margin, Dimension::Mass));
    }
    if let Some(margin) = median(Quantity::WaterlineMargin)
        && margin < 0.0
    {
        let want = setup.least_clearance();
        let (code, have) = match setup.limit {
            WaterLimit::Floor | WaterLimit::Deck => (Code::TooWet, Quantity::FloorAboveWater),
            WaterLimit::Gunwale => (Code::TooLow, Quantity::Freeboard),
        };
        let short = median(have).map_or(0.0, |have| want - have).max(0.0);
        let mut reason = Reason::by(code, short, Dimension::FineLength);
        reason.shed = Some(-margin);
        found.push(reason);
    }
    found
}

fn suitable(assessment: &Assessment, brief: &Brief) -> Vec<Reason> {
    let mut found = Vec::new();
    let setup = &assessment.setup;
    found.extend(wishes::unmet(assessment, brief));
    if brief.demands == DemandUse::Only {
        let unmet = demands::demands(assessment, brief).into_iter();
        let unmet = unmet.filter(|m| m.met == Some(false));
        found.extend(unmet.map(|m| Reason {
            detail: m.demand.label().to_owned(),
            ..Reason::by(Code::WaterAsks, m.by.unwrap_or(0.0), m.dimension)
        }));
    }
    // The floating part of the question carries the launch's limits as well.
    if setup.brief.water.must_drain {
        found.extend(undrained(assessment));
    }
    // A drive that lifts is up where the water is too shallow for it, and it goes by
    // paddle; one that does not needs the depth.
    let survey = &setup.posterior.survey;
    let fixed = survey.propulsion.has_drive() && !survey.drive_lifts;
    let down = assessment.median(Quantity::DraftWithDrive);
    let drive = down.filter(|_| fixed);
    // A hull that finds no rest has no draft; that is said already.
    if let Some(deepest) = drive.or(assessment.median(Quantity::Deepest))
        && deepest > setup.brief.water.least_depth
    {
        let by = deepest - setup.brief.water.least_depth;
        found.push(Reason::by(Code::TooDeep, by, Dimension::FineLength));
    }
    found
}

/// Why water in the cockpit would stay there, where it would.
fn undrained(assessment: &Assessment) -> Option<Reason> {
    let setup = &assessment.setup;
    let detail = match setup.posterior.survey.construction {
        Construction::Board => return None,
        // What keeps the water out, or keeps it up full of water, is what decides.
        Construction::SitInside if setup.sprayed() => return None,
        Construction::SitInside => {
            let up = assessment.stays_up_swamped(stays_up_swamped);
            if up > 0.5 {
                return None;
            }
            "swamped it goes down or rolls, and no spray deck keeps the water out: take one, or bulkheads or bags at both ends"
        }
        Construction::SitOnTop if holds_water(&setup.scuppers, Recess::Cockpit) => {
            "plugged scuppers cannot drain: this water asks for open ones"
        }
        // With open scuppers a floor under water is said to be too wet already.
        Construction::SitOnTop if setup.limit == WaterLimit::Floor => return None,
        Construction::SitOnTop => {
            let above = assessment.median(Quantity::FloorAboveWater)?;
            if drains(&setup.scuppers, Recess::Cockpit, above) {
                return None;
            }
            "valves cannot drain it: the floor lies under the water at this load"
        }
    };
    Some(Reason::plain(Code::DoesNotDrain, detail))
}

/// Musts that surely find no place on it: on a guessed place they may, and that
/// is a doubt.
fn without_place(assessment: &Assessment) -> Option<Reason> {
    let missing = assessment.setup.loads.layout.missing();
    let unplaced: Vec<_> = missing.cloned().collect();
    // Of several the worst amount; none is told where it is crowding.
    let by = unplaced.iter().map(|u| u.why.by()).fold(0.0, f64::max);
    (!unplaced.is_empty()).then(|| Reason {
        remedies: assessment.remedies().to_vec(),
        unplaced,
        ..Reason::by(Code::DoesNotFit, by, Dimension::FineLength)
    })
}

/// A limit that was asked for.
struct Limit {
    code: Code,
    /// By how much it is missed, SI: below zero where it is kept, `None` where the
    /// record does not tell.
    missed: Option<f64>,
    dimension: Dimension,
    /// What is said where the record does not tell.
    unknown: &'static str,
}

/// Limits asked for, each against the record.
fn limits(assessment: &Assessment, brief: &Brief) -> Vec<Limit> {
    let setup = &assessment.setup;
    let (survey, form, guides) = (
        &setup.posterior.survey,
        &setup.posterior.form,
        setup.guides(),
    );
    let must = brief.must;
    let lifted = stripped(assessment);
    let stripped = lifted.map(|l| l.0);
    let length = Some(form.length());
    let bed = |most: f64| most + guides[Guide::BedOverhang];
    let limit = |code, missed, dimension, unknown| Limit {
        code,
        missed,
        dimension,
        unknown,
    };
    // Over a most, or under a least.
    let over = |most: Option<f64>, have: Option<f64>| most.map(|most| have.map(|h| h - most));
    let under = |least: Option<f64>, have: Option<f64>| least.map(|least| have.map(|h| least - h));
    let all = [
        over(must.longest, length).map(|m| limit(Code::TooLong, m, Dimension::Length, "")),
        over(must.heaviest_lift, stripped).map(|m| {
            let unknown = "no weight is known: it may be too heavy to lift";
            limit(Code::TooHeavy, m, Dimension::Mass, unknown)
        }),
        over(must.roof, stripped.map(|kg| kg + guides[Guide::RoofBars])).map(|m| {
            let unknown = "no weight is known: it may be more than the roof bears";
            limit(Code::OverRoof, m, Dimension::Mass, unknown)
        }),
        over(must.bed.map(bed), length).map(|m| limit(Code::OverBed, m, Dimension::Length, "")),
        over(must.budget, survey.value(Measure::Price)).map(|m| {
            let unknown = "no price is known: it may be over the budget";
            limit(Code::OverBudget, m, Dimension::Money, unknown)
        }),
        must.whole.map(|most| {
            let unknown = "some prices are not known: the whole may cost more than asked";
            let missed = whole_price(assessment, brief).and_then(|(sum, unpriced)| {
                // What is known already is too much, or all is known.
                (sum > most || unpriced == 0).then_some(sum - most)
            });
            limit(Code::WholeOverBudget, missed, Dimension::Money, unknown)
        }),
        under(must.seats, Some(f64::from(survey.seats)))
            .map(|m| limit(Code::FewSeats, m, Dimension::Ratio, "")),
        under(must.track, track(assessment)).map(|m| {
            let unknown = "no track is on record: it may be less than asked for";
            limit(Code::ShortTrack, m, Dimension::Length, unknown)
        }),
    ];
    all.into_iter().flatten().collect()
}

/// What hull, missing rig and planned work come to, and how many prices nobody knows.
/// Fasteners and sealant, which nobody prices, are left out.
fn whole_price(assessment: &Assessment, brief: &Brief) -> Option<(f64, u32)> {
    let facts = Facts::of(assessment, brief, System::Metric);
    let all = shopping(&facts);
    let hull = all.hull?;
    Some(all.priced(hull))
}

/// What is lifted with all that comes off taken off, kg, and how it is known: the bare
/// hull and what was built on; the fitted one where no bare weight is on record. `None`
/// where no weight is.
fn stripped(assessment: &Assessment) -> Option<(f64, &'static str)> {
    let survey = &assessment.setup.posterior.survey;
    let built_on = assessment.setup.loads.fixed_mass();
    let bare = survey.value(Measure::BareWeight).map(|kg| (kg, "bare"));
    let fitted = survey.value(Measure::FittedWeight).map(|kg| (kg, "fitted"));
    bare.or(fitted)
        .map(|(kg, how)| ((kg + built_on).max(0.5 * kg), how))
}

/// All track on record, m; `None` where there is none, or it is only guessed: nobody
/// may have looked.
fn track(assessment: &Assessment) -> Option<f64> {
    let form = &assessment.setup.posterior.form;
    let survey = &assessment.setup.posterior.survey;
    let (all, guessed) = fittings(survey, [form.length(), form.beam()]);
    let long = |f: &Fitting| match f.kind {
        FittingKind::Track { length, .. } => Some(length),
        _ => None,
    };
    let sum: f64 = all.iter().filter_map(long).sum();
    (!guessed && sum > 0.0).then_some(sum)
}

fn must_haves(assessment: &Assessment, brief: &Brief) -> Vec<Reason> {
    let missed = limits(assessment, brief).into_iter();
    let missed = missed.filter_map(|l| Some((l.code, l.missed?, l.dimension)));
    let lifted = stripped(assessment);
    let broken = event(assessment, brief).0;
    missed
        .filter(|(_, by, _)| *by > 0.0)
        .map(|(code, by, dimension)| Reason {
            weight: lifted.filter(|_| matches!(code, Code::TooHeavy | Code::OverRoof)),
            ..Reason::by(code, by, dimension)
        })
        .chain(broken)
        .collect()
}

/// What of the event's rules is broken so that it is out, and what nobody knows.
fn event(assessment: &Assessment, brief: &Brief) -> (Option<Reason>, Option<String>) {
    let Some(set) = &brief.event else {
        return (None, None);
    };
    if set.rules.is_empty() {
        return (None, Some(format!("no rules of {} are known", set.name)));
    }
    let facts = Facts::of(assessment, brief, System::Metric);
    let checked = check(&facts, set);
    let decides = checked
        .iter()
        .filter(|c| c.rule.effect == Effect::Disqualify);
    let (mut broken, mut unknown) = (Vec::new(), Vec::new());
    for c in decides {
        match c.outcome {
            Outcome::Fail(_) => broken.push(c.rule.text.as_str()),
            Outcome::Unknown(_) => unknown.push(c.rule.text.as_str()),
            Outcome::Pass(_) | Outcome::Printed => {}
        }
    }
    let broken = (!broken.is_empty()).then(|| {
        let detail = format!("breaks rules of {}: {}", set.name, broken.join("; "));
        Reason::plain(Code::EventRules, detail)
    });
    let unknown = (!unknown.is_empty())
        .then(|| format!("not known for {}: {}", set.name, unknown.join("; ")));
    (broken, unknown)
}

/// Limits asked for that the record does not let anybody check.
#[must_use]
pub fn unchecked(assessment: &Assessment, brief: &Brief) -> Vec<String> {
    let unknown = limits(assessment, brief).into_iter();
    unknown
        .filter(|l| l.missed.is_none())
        .map(|l| l.unknown.to_owned())
        .chain(event(assessment, brief).1)
        .collect()
}

//! What a hull lacks of what is asked beside floating well: what rules out, and what
//! a buyer must mind.

use super::Candidate;
use super::reason::{Code, Reason};
use crate::base::{Dimension, Keyed, System};
use crate::figures::{Assessment, Quantity};
use crate::guide::{Guide, Guides};
use crate::hull::{Judgement, Measure, Propulsion, Survey};
use crate::question::{
    Brief, Drilling, Drive, Felt, Fishing, Joints, Known, Launch, Practice, Reverse,
};
use std::sync::Arc;

/// Standing support needed to stand, by practice (the guide bands of chapter 2), and
/// by how a hull one knows felt: what one stood in will do, what one sat down in will
/// not. Never less than the band below which everybody stays seated.
#[must_use]
pub fn support_needed(brief: &Brief, guides: &Guides) -> f64 {
    let by_practice = guides[match brief.wishes.practice {
        Practice::Skilled => Guide::StaySeated,
        Practice::Some => Guide::StandPractised,
        Practice::New => Guide::StandNew,
    }];
    let known = brief
        .known
        .as_ref()
        .and_then(|k| Some((k.felt, k.support?)));
    let needed = match known {
        None => by_practice,
        Some((Felt::Steady | Felt::Care, support)) => by_practice.min(support),
        Some((Felt::SatDown, support)) => by_practice.max(support + guides[Guide::SatDownMore]),
    };
    needed.max(guides[Guide::StaySeated])
}

/// The guide band of a standing support for who knows a hull: the bands of chapter 2
/// shifted so that it lies where it felt; never lower than the band below which
/// everybody stays seated. `None` where no hull one knows has been judged.
#[must_use]
pub fn own_band(support: f64, brief: &Brief, guides: &Guides) -> Option<&'static str> {
    let known = brief.known.as_ref()?;
    let hers = known.support?;
    let least = guides[Guide::StaySeated];
    let (practised, steady) = (guides[Guide::StandPractised], guides[Guide::StandNew]);
    // Where it lies in the bands of everybody.
    let shift = match known.felt {
        Felt::Steady => hers - steady,
        Felt::Care => hers - practised,
        // What one sat down in is short of the shortest stand.
        Felt::SatDown => (hers + guides[Guide::SatDownMore] - least).max(0.0),
    };
    let edge = |band: f64| (band + shift).max(least);
    Some(match support {
        s if s < edge(least) => "stay seated",
        s if s < edge(practised) => "short stands, for you",
        s if s < edge(steady) => "with practice, for you",
        _ => "steady for you",
    })
}

/// The question with the standing support of the hull one knows, where it is among
/// those to be judged.
pub(super) fn with_known(brief: &Arc<Brief>, candidates: &[Candidate]) -> Arc<Brief> {
    let Some(known) = &brief.known else {
        return brief.clone();
    };
    let hers = candidates
        .iter()
        .find(|(survey, _)| survey.key == known.hull);
    let hers = hers.and_then(|(_, assessed)| assessed.as_ref().ok());
    let support = hers.and_then(|a| a.median(Quantity::StandingSupport));
    // Who judges a hull alone brings it along.
    let known = Known {
        support: support.or(known.support),
        ..known.clone()
    };
    Arc::new(Brief {
        known: Some(known),
        ..(**brief).clone()
    })
}

fn survey_of(assessment: &Assessment) -> &Survey {
    &assessment.setup.posterior.survey
}

/// Whether a hull goes backwards as it is asked to; `None` where nobody noted it. A paddle
/// goes either way.
fn reverses(survey: &Survey, asked: Reverse) -> Option<bool> {
    let noted = survey.looked.judged.get(&Judgement::Reverse).copied();
    let paddled = survey.propulsion == Propulsion::Paddle;
    match (asked, noted) {
        (Reverse::Any, _) | (Reverse::Must, Some("paddle" | "drive")) => Some(true),
        (Reverse::Drive, Some("drive")) => Some(true),
        (_, Some(_)) => Some(false),
        (Reverse::Must, None) if paddled => Some(true),
        (Reverse::Drive, None) if paddled => Some(false),
        (_, None) => None,
    }
}

/// What rules a hull out.
pub(super) fn unmet(assessment: &Assessment, brief: &Brief) -> Vec<Reason> {
    let setup = &assessment.setup;
    let mut found = Vec::new();
    let needed = support_needed(brief, setup.guides());
    if brief.posture.stands()
        && let Some(support) = assessment.median(Quantity::StandingSupport)
        && support < needed
    {
        let mut reason = Reason::by(Code::StaySeated, needed - support, Dimension::Ratio);
        let felt = brief.known.as_ref().filter(|k| k.support.is_some());
        if let Some(known) = felt.filter(|k| k.felt == Felt::SatDown) {
            reason.detail = format!(
                " for who sat down again in the {}",
                known.hull.replace('-', " ")
            );
        } else if brief.wishes.practice != Practice::Skilled {
            reason.detail = format!(" for somebody {}", brief.wishes.practice.label());
        }
        found.push(reason);
    }
    let driven = setup.posterior.survey.propulsion;
    let suits = match brief.wishes.drive {
        Drive::Any => true,
        Drive::Paddle => driven == Propulsion::Paddle,
        Drive::Pedal => matches!(driven, Propulsion::RotaryPedal | Propulsion::FinPedal),
        Drive::Motor => driven == Propulsion::Motor,
    };
    if !suits {
        let detail = format!("not driven as asked: it comes with {}", driven.label());
        found.push(Reason::plain(Code::NotDriven, detail));
    }
    if reverses(survey_of(assessment), brief.wishes.reverse) == Some(false) {
        let detail = match brief.wishes.reverse {
            Reverse::Drive => "does not go backwards by its drive",
            _ => "does not go backwards",
        };
        found.push(Reason::plain(Code::NotDriven, detail));
    }
    let holes = setup.loads.layout.deck.as_ref().map_or(0, |d| d.holes);
    if brief.wishes.drilling == Drilling::None && holes > 0 {
        let holes = f64::from(holes);
        found.push(Reason::by(Code::NeedsHoles, holes, Dimension::Ratio));
    }
    found
}

/// "landing a fish does not hold in 38 of 100 possible shapes", where it is enough of
/// them to be told.
#[must_use]
pub fn reach_told(assessment: &Assessment) -> Option<String> {
    let lost = assessment.reach_lost();
    (lost > assessment.setup.guides()[Guide::ReachTold]).then(|| {
        format!(
            "leaning out to land a fish does not hold in {:.0} of 100 possible shapes",
            (100.0 * lost).ceil().min(100.0)
        )
    })
}

/// What a buyer must mind of a hull, though it does not rule it out.
#[must_use]
pub fn minds(assessment: &Assessment, brief: &Brief, system: System) -> Vec<String> {
    let setup = &assessment.setup;
    let survey = &setup.posterior.survey;
    let (wishes, mut out) = (brief.wishes, Vec::new());
    let company = &setup.loads.company;
    if company.short == 0 && company.sat.iter().any(|s| s.guessed) {
        out.push("where the other seat is nobody noted: guessed, and trim with it".to_owned());
    }
    let up = assessment.median(Quantity::GettingUp);
    if wishes.joints == Joints::Complain
        && up.is_some_and(|share| share < setup.guides()[Guide::FromTheFloor])
    {
        out.push(
            "back or knees complain, and getting up is from the floor on this seat".to_owned(),
        );
    }
    let back = survey.looked.judged.get(&Judgement::Backrest);
    if wishes.joints == Joints::Complain && matches!(back, Some(&("none" | "low"))) {
        out.push("back or knees complain, and the backrest is low".to_owned());
    }
    let standing_up = setup
        .loads
        .layout
        .deck
        .as_ref()
        .map_or(0, |d| d.projections);
    if wishes.fishing == Fishing::Fly && standing_up > 0 {
        out.push(format!(
            "standing up ahead of the seat, where a fly line is stripped: {standing_up}"
        ));
    }
    out.extend(reach_told(assessment));
    if assessment.drive_up() {
        let how = if survey.drive_lifts {
            "by paddle, and the speeds told are the paddle's"
        } else {
            "and it does not lift"
        };
        out.push(format!(
            "this water is too shallow for the drive to be down: {how}"
        ));
    } else if assessment.drive_may_ground() {
        out.push(
            "how far the drive reaches below the bottom nobody measured, and it does not lift: it may be too deep for this water"
                .to_owned(),
        );
    }
    if wishes.fishing == Fishing::Trolling && !survey.tracks_straight {
        out.push("trolling, and nothing on the record keeps it straight".to_owned());
    }
    if reverses(survey, wishes.reverse).is_none() {
        out.push("whether it goes backwards nobody noted: try it".to_owned());
    }
    let holds = survey.looked.judged.get(&Judgement::Holding);
    if wishes.fishing == Fishing::Bottom && holds == Some(&"no") {
        out.push("bottom fishing, and it holds a place only at anchor".to_owned());
    }
    let weighed = [Measure::FittedWeight, Measure::BareWeight];
    let weighed = weighed.into_iter().any(|m| survey.value(m).is_some());
    let carried = matches!(wishes.launch, Launch::Bank | Launch::Steps);
    let kg = assessment.fitted_mass();
    if carried && weighed && kg > setup.guides()[Guide::TwoLift] {
        out.push(format!(
            "launched {}: {} fitted is more than two usually carry",
            wishes.launch.label(),
            system.text(Dimension::Mass, kg, 0)
        ));
    }
    out
}

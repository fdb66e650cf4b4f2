//! Wind, the way home and holding, in words.

use super::headwind::over_headwind;
use super::{DAWN, minutes, told};
use galvet_core::base::{Dimension, System};
use galvet_core::beyond::{Beyond, Extra};
use galvet_core::figures::Assessment;
use galvet_core::handling::{bow, chop_wave, meets};
use galvet_core::hull::BottomShape;
use galvet_core::question::Outing;

/// Which anchor holds in what (guide).
const BY_BOTTOM: &str = "Sand or mud: a folding or claw anchor with a metre of chain, in water under two metres a pole. Weed: more weight, or a pole. Rock: a hooked one on a line that breaks before the boat is held under.";

/// Wind and the way home, in words.
pub(super) fn home(
    a: &Assessment,
    beyond: &Beyond,
    outing: &Outing,
    system: System,
) -> Vec<String> {
    let Some(way) = &beyond.way else {
        return vec!["This water names no wind in knots: say one in its conditions, or a forecast in the question, and the way home is worked out.".to_owned()];
    };
    let water = &a.setup.brief.water;
    let (asked, streams, wave) = (
        outing.distance.is_some(),
        water.stream.is_some(),
        water.wave(),
    );
    let mut says = Vec::new();
    let speed = |v: f64| system.text(Dimension::Speed, v, 0);
    let wind = speed(way.bound.weather.wind);
    let far = system.text(Dimension::Distance, way.bound.distance, 1);
    let out = beyond.range(Extra::Out).map(|r| minutes(r.p50));
    match (out, beyond.median(Extra::Back), beyond.range(Extra::Back)) {
        (Some(out), Some(back), Some(range)) => {
            let back = if range.share < 1.0 - 1e-9 {
                format!(
                    "{}, and in {:.0} of 100 cases it does not get back",
                    minutes(back),
                    100.0 * (1.0 - range.share)
                )
            } else {
                match minutes(range.p95) {
                    worst if worst == minutes(back) => worst,
                    worst => format!("{}, at worst {worst}", minutes(back)),
                }
            };
            let far = match asked {
                true => far,
                false => format!("{far} (nobody said how far)"),
            };
            says.push(format!(
                "{far} with {wind} of wind and the stream behind take {out}; the same way back against them {back}."
            ));
        }
        _ => says.push(format!(
            "Against {wind} of wind and the stream it does not get back by an effort one keeps up: stay upwind, or ashore."
        )),
    }
    says.extend(turn_by(beyond, outing, system));
    says.extend(over_headwind(a, outing, system));
    if let (Some(forecast), Some(home)) = (outing.wind, beyond.range(Extra::HomeWind)) {
        // Gusts at the boat are about the forecast's mean.
        let gusts = if forecast > home.p5 {
            "its gusts alone may stop it"
        } else {
            "its gusts do not stop it"
        };
        says.push(format!(
            "A forecast of {} is about {wind} at the boat; {gusts}.",
            speed(forecast)
        ));
    }
    if let Some(r) = beyond.range(Extra::HomeWind) {
        says.push(format!(
            "A headwind of {} stops it{}. Gusts are a third above a forecast's mean: turn while there is some in hand.",
            told(Extra::HomeWind, r.p50, system),
            if r.p5 < 0.9 * r.p50 {
                format!(", of {} where one tires or sits high", told(Extra::HomeWind, r.p5, system))
            } else {
                String::new()
            }
        ));
    }
    if let Some(bow) = beyond.range(Extra::BowFreeboard) {
        let stands = told(Extra::BowFreeboard, bow.p50, system);
        says.push(match wave {
            // A crest stands half the wave's height over still water, and the bow dips as far.
            Some(wave) if bow.p50 < wave => format!(
                "Its bow stands {stands} over the water: waves of {} come over it, and the ride is wet.",
                system.text(Dimension::Length, wave, 1)
            ),
            _ => format!("Its bow stands {stands} over the water."),
        });
    }
    if !streams {
        says.push(format!(
            "This water says no stream: {} is taken.",
            system.text(Dimension::Speed, way.bound.weather.stream, 1)
        ));
    }
    if let Some(r) = beyond.range(Extra::Drift) {
        let socked = beyond.range(Extra::Socked).map_or(String::new(), |s| {
            format!(
                ", with the drift sock out {}",
                told(Extra::Socked, s.p50, system)
            )
        });
        says.push(format!(
            "Left alone it drifts {} beam on{socked}.",
            told(Extra::Drift, r.p50, system)
        ));
    }
    says.extend(towing(beyond, system));
    says.extend(ride(a, beyond));
    says
}

/// By when to turn, and what is left in the battery and without the drive, in words.
fn turn_by(beyond: &Beyond, outing: &Outing, system: System) -> Vec<String> {
    let mut says = Vec::new();
    match (outing.dark, beyond.range(Extra::TurnBy)) {
        (Some(_), Some(by)) if by.share > 0.5 && by.p5 < DAWN => says.push(
            "The way back may take longer than the day has hours: stay near, or upwind.".to_owned(),
        ),
        (Some(dark), Some(by)) if by.share > 0.5 => says.push(format!(
            "Dark at {}: turn back by {} at the latest, a quarter of the way back in hand.",
            system.text(Dimension::Clock, dark, 0),
            told(Extra::TurnBy, by.p5, system)
        )),
        _ => {}
    }
    if let Some(left) = beyond.range(Extra::Battery) {
        says.push(if left.p5 < 0.0 || left.share < 0.95 {
            "The battery may not last both ways: turn on what it shows, not on the clock."
                .to_owned()
        } else {
            format!(
                "Both ways leave {} in the battery, at worst {}.",
                told(Extra::Battery, left.p50, system),
                told(Extra::Battery, left.p5, system)
            )
        });
    }
    match (beyond.median(Extra::BackUp), beyond.range(Extra::BackUp)) {
        (Some(back), _) => says.push(format!(
            "With the drive up, or failed, the way back by paddle takes {}.",
            told(Extra::BackUp, back, system)
        )),
        (None, Some(_)) => says.push(
            "With the drive up, or failed, it does not get back by paddle against this wind."
                .to_owned(),
        ),
        (None, None) => {}
    }
    says
}

/// What is towed costs, in words.
fn towing(beyond: &Beyond, system: System) -> Option<String> {
    let (pull, slows) = (
        beyond.range(Extra::Towed)?,
        beyond.range(Extra::TowedSlows)?,
    );
    Some(format!(
        "What is towed pulls with {} to its side and costs {}: tow it on the side away from the rudder's pull, and take it in for the way home.",
        told(Extra::Towed, pull.p50, system),
        told(Extra::TowedSlows, slows.p50, system)
    ))
}

/// How it goes over chop, in words: pitching in time with it, and slap.
fn ride(a: &Assessment, beyond: &Beyond) -> Vec<String> {
    let mut says = Vec::new();
    let middle = bow(&a.setup, a.middle);
    if let (Some(bow), Some(way)) = (middle, &beyond.way) {
        // At a walk's speed into the waves.
        let meets = meets(chop_wave(way.bound.chop.0), 1.2);
        let ratio = bow.pitch / meets;
        if (0.75..1.35).contains(&ratio) {
            says.push(
                "Going into this water's chop it pitches in time with the waves: weight out of the ends, or a slower or slanting course.".to_owned(),
            );
        }
    }
    let slaps = match a.setup.posterior.survey.bottom {
        Some(BottomShape::Flat | BottomShape::Board) => "Its flat bottom slaps on chop.",
        Some(BottomShape::Tunnel | BottomShape::TriLobe) => {
            "Between its runners chop slaps, most at anchor."
        }
        Some(BottomShape::ShallowArch | BottomShape::ShallowVee) => {
            "Its rounded bottom goes over chop quietly."
        }
        None => "",
    };
    says.extend(Some(slaps.to_owned()).filter(|s| !s.is_empty()));
    says
}

/// At anchor, in words.
pub(super) fn at_anchor(beyond: &Beyond, system: System) -> Vec<String> {
    let Some(way) = &beyond.way else {
        return Vec::new();
    };
    let text = |v: f64| system.text(Dimension::Force, v, 0);
    let mut says = vec![format!(
        "Bow or stern on it pulls with {}, beam on with {}: gear for twice that. {} of line for {} of depth.",
        text(way.hold.p95),
        text(way.hold_beam_on.p95),
        told(Extra::HoldLine, way.line, system),
        system.text(Dimension::Length, way.bound.depth, 1)
    )];
    if let Some(hold) = beyond.range(Extra::HoldWatts) {
        let usual = way.effort[1];
        says.push(format!(
            "To stay there without an anchor takes {} all the time: {}.",
            told(Extra::HoldWatts, hold.p50, system),
            if hold.p95 > usual {
                "more than one keeps up"
            } else {
                "less than one keeps up for hours"
            }
        ));
    }
    says.push(BY_BOTTOM.to_owned());
    says
}

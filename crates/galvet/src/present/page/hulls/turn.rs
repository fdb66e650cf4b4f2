//! What it does when the day turns: water aboard, wind and the way home, ashore.

use super::figure::signed_percent;
use crate::answer::Afloat;
use crate::present::draw::turn::{DrainCurve, Rose, drain_curve, rose};
use galvet_core::base::{Dimension, System};
use galvet_core::beyond::{Beyond, Extra, Part};
use galvet_core::figures::Range;
use galvet_core::handling;
use galvet_core::hull::Construction;

/// A figure of it.
pub struct Line {
    pub label: &'static str,
    pub value: String,
    pub range: String,
    pub meaning: &'static str,
}

/// A part of it: what is read first, what to mind, then figures.
pub struct Side {
    pub title: &'static str,
    pub says: Vec<String>,
    pub caution: &'static str,
    pub lines: Vec<Line>,
}

/// All of it.
pub struct Turn {
    pub sides: Vec<Side>,
    pub drain: Option<DrainCurve>,
    pub rose: Option<Rose>,
    /// What the rose says, in words.
    pub rose_words: String,
}

/// Directions of the rose.
const DIRECTIONS: u32 = 24;

/// A figure with its unit, as the row of the table has it.
pub fn told(extra: Extra, v: f64, system: System) -> String {
    let row = extra.row();
    match extra {
        Extra::Out | Extra::Back => minutes(v),
        Extra::HelmRest | Extra::HelmUnderWay => signed_percent(v),
        _ => system.text(row.dimension, v, row.decimals),
    }
}

/// A time as people say it.
fn minutes(seconds: f64) -> String {
    let whole = (seconds / 60.0).round();
    if whole < 100.0 {
        return format!("{whole:.0}\u{a0}min");
    }
    let hours = (whole / 60.0).floor();
    format!("{hours:.0}\u{a0}h\u{a0}{:02.0}", whole - 60.0 * hours)
}

/// Of a hundred possible shapes.
fn in_hundred(share: f64) -> String {
    format!("{:.0} of 100 possible shapes", 100.0 * share)
}

fn line(beyond: &Beyond, extra: Extra, system: System) -> Line {
    let row = extra.row();
    let text = |v: f64| told(extra, v, system);
    let (value, range) = match beyond.range(extra) {
        None => (row.absent.to_owned(), String::new()),
        Some(r) => {
            let width = if r.p5 == r.p95 {
                String::new()
            } else {
                format!("{} to {}", text(r.p5), text(r.p95))
            };
            let value = if r.share > 0.5 {
                text(r.p50)
            } else {
                row.absent.to_owned()
            };
            let range = if r.share < 1.0 - 1e-9 {
                format!("in {} {width}", in_hundred(r.share))
            } else {
                width
            };
            (value, range)
        }
    };
    Line {
        label: row.label,
        value,
        range,
        meaning: row.meaning,
    }
}

fn lines(beyond: &Beyond, extras: &[Extra], system: System) -> Vec<Line> {
    extras.iter().map(|&e| line(beyond, e, system)).collect()
}

/// "about 70 s, at worst 110": the worse end of a range beside its middle.
fn at_worst(extra: Extra, r: Range, system: System) -> String {
    let better = extra.row().better;
    let worst = match better {
        galvet_core::figures::Better::Higher => r.p5,
        _ => r.p95,
    };
    let (middle, worst) = (told(extra, r.p50, system), told(extra, worst, system));
    if middle == worst {
        middle
    } else {
        format!("{middle}, at worst {worst}")
    }
}

/// A wave over the deck, in words.
fn over_the_deck(beyond: &Beyond, construction: Construction, system: System) -> Vec<String> {
    if construction == Construction::Board {
        return vec!["A board has no recess: a wave runs off over its edges.".to_owned()];
    }
    if construction == Construction::SitInside {
        return vec![
            "What comes into its cockpit stays until it is pumped or bailed: with neither bulkheads nor bags it swamps. A spray deck keeps it out.".to_owned(),
        ];
    }
    let median = |extra| beyond.median(extra).and_then(|_| beyond.range(extra));
    let mut says = Vec::new();
    match (median(Extra::Clear), median(Extra::Tender)) {
        (Some(clear), Some(tender)) => says.push(format!(
            "A deck full of water drains in about {}. For the first {} of it the boat is unsteady: sit low and still.",
            at_worst(Extra::Clear, clear, system),
            told(Extra::Tender, tender.p95, system)
        )),
        (Some(clear), None) => says.push(format!(
            "A deck full of water drains in about {}, and what stays keeps it unsteady: bail it.",
            at_worst(Extra::Clear, clear, system)
        )),
        (None, _) => says.push(
            "A deck full of water does not drain by itself: bail it, and keep off water that breaks."
                .to_owned(),
        ),
    }
    if let Some(stays) = beyond.range(Extra::Stays).filter(|r| r.p50 > 0.008) {
        says.push(format!(
            "{} of it stays.",
            at_worst(Extra::Stays, stays, system)
        ));
    }
    if let Some(fills) = median(Extra::Fills) {
        says.push(format!(
            "Held far over, water coming up its scuppers half fills it within {}.",
            told(Extra::Fills, fills.p5, system)
        ));
    }
    says
}

/// Water inside, in words.
fn inside(beyond: &Beyond, system: System) -> Vec<String> {
    let mut says = Vec::new();
    if let Some(r) = beyond.range(Extra::GmZero) {
        says.push(format!(
            "With {} loose inside it no longer holds itself upright{}.",
            told(Extra::GmZero, r.p5, system),
            match beyond.range(Extra::Founders) {
                Some(f) => format!("; by {} it goes down", told(Extra::Founders, f.p5, system)),
                None => String::new(),
            }
        ));
    }
    // A round hatch of 20 cm a hand's breadth under a wave for a second.
    let area = std::f64::consts::PI * 0.01;
    let guides = galvet_core::guide::Guides::default();
    let wave = galvet_core::aboard::hatch_volume(area, 0.1, 1.0, &guides);
    says.push(format!(
        "A hatch of {} left open takes {} with every wave over it.",
        system.text(Dimension::ShortLength, 0.2, 0),
        system.text(Dimension::Volume, wave, 0)
    ));
    says
}

/// Wind and the way home, in words.
fn home(
    beyond: &Beyond,
    (asked, streams, wave): (bool, bool, Option<f64>),
    system: System,
) -> Vec<String> {
    let Some(way) = &beyond.way else {
        return vec!["This water names no wind in knots: say one in its conditions, and the way home is worked out.".to_owned()];
    };
    let mut says = Vec::new();
    let wind = system.text(Dimension::Speed, way.bound.weather.wind, 0);
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
        says.push(format!(
            "Left alone it drifts {} beam on.",
            told(Extra::Drift, r.p50, system)
        ));
    }
    says
}

/// At anchor, in words.
fn at_anchor(beyond: &Beyond, system: System) -> Vec<String> {
    let Some(way) = &beyond.way else {
        return Vec::new();
    };
    let text = |v: f64| system.text(Dimension::Force, v, 0);
    vec![format!(
        "Bow or stern on it pulls with {}, beam on with {}: gear for twice that. {} of line for {} of depth.",
        text(way.hold.p95),
        text(way.hold_beam_on.p95),
        told(Extra::HoldLine, way.line, system),
        system.text(Dimension::Length, way.bound.depth, 1)
    )]
}

/// Ashore, in words.
fn ashore(beyond: &Beyond, system: System) -> Vec<String> {
    /// What one person lifts, kg, and keeps pulling, N (ISO 11228-1; HSE L23).
    const ONE: (f64, f64) = (25.0, 100.0);
    let mut says = Vec::new();
    if let Some(r) = beyond.range(Extra::Heaviest) {
        let two = if r.p95 > ONE.0 {
            format!(
                ": lift it with two, {} is the guide for one",
                system.text(Dimension::Mass, ONE.0, 0)
            )
        } else {
            String::new()
        };
        says.push(format!(
            "Heaviest single thing {}{two}.",
            told(Extra::Heaviest, r.p50, system)
        ));
    }
    match (beyond.range(Extra::Cart), beyond.range(Extra::Drag)) {
        (Some(cart), Some(drag)) => says.push(format!(
            "Up from this launch it takes {} on a cart with its kit, {} dragged; {} is what one keeps up.",
            told(Extra::Cart, cart.p50, system),
            told(Extra::Drag, drag.p50, system),
            system.text(Dimension::Force, ONE.1, 0)
        )),
        _ => says.push("On steps it is carried: the lower one bears more.".to_owned()),
    }
    says
}

/// Says all of it.
pub(super) fn turn(afloat: &Afloat, system: System) -> Turn {
    use Extra as E;
    let (beyond, a) = (afloat.beyond(), &afloat.assessment);
    let construction = a.setup.posterior.survey.construction;
    let side = |title, says, caution, extras: &[Extra]| Side {
        title,
        says,
        caution,
        lines: lines(beyond, extras, system),
    };
    let recess = construction == Construction::SitOnTop;
    let deck: &[Extra] = if recess {
        &[E::Clear, E::Tender, E::Stays, E::Fills]
    } else {
        &[]
    };
    let guessed = beyond.flooding.as_ref().is_some_and(|f| f.guessed) && recess;
    let brief = &a.setup.brief;
    let said = (
        brief.outing.distance.is_some(),
        brief.water.stream.is_some(),
        brief.water.wave(),
    );
    let rose_of = handling::rose(a, DIRECTIONS);
    let flooding = beyond.flooding.as_ref();
    Turn {
        sides: vec![
            side(
                "A wave over the deck",
                over_the_deck(beyond, construction, system),
                if construction == Construction::SitInside {
                    "One wave can fill an open cockpit: spray deck on, bags or bulkheads fore and aft, and stay where you can get ashore."
                } else if !recess {
                    "What is loose on a board goes with the wave: tie it on."
                } else if guessed {
                    "Nobody noted its scuppers: how many and how wide is guessed, and the range is as wide. A draining boat is unsteady first."
                } else {
                    "A draining boat is unsteady first. Plugs keep feet dry and water in."
                },
                deck,
            ),
            side(
                "Water inside the hull",
                inside(beyond, system),
                "Shut the drain before launching; open no hatch afloat in waves; a pump and a bailer within reach.",
                &[E::WetFloor, E::GmZero, E::Founders],
            ),
            side(
                "Wind and the way home",
                home(beyond, said, system),
                "Guidance for a typical day: the local forecast, warnings and your own limits decide. An offshore wind takes you out.",
                &[
                    E::HomeWind,
                    E::Out,
                    E::Back,
                    E::Drift,
                    E::BowFreeboard,
                    E::BowVolume,
                ],
            ),
            side(
                "At anchor",
                at_anchor(beyond, system),
                "From bow or stern only, with a quick release; never from the side in current, and never tie yourself to the boat in moving water.",
                &[E::Hold, E::HoldLine],
            ),
            side(
                "Ashore",
                ashore(beyond, system),
                "Lift with two people above your own limit; follow the car's roof and tow ratings.",
                &[E::Heaviest, E::OneEnd, E::Cart, E::Drag],
            ),
        ],
        drain: flooding.and_then(|f| drain_curve(&f.course, f.marks)),
        rose_words: rose_words(rose_of.as_deref()),
        rose: rose_of.as_deref().and_then(rose),
    }
}

/// The rose in words: ahead, abeam, behind.
fn rose_words(all: Option<&[Option<f64>]>) -> String {
    let Some(all) = all else { return String::new() };
    let at = |k: usize| match all.get(k).copied().flatten() {
        Some(m) => minutes(60.0 * m),
        None => "not home".to_owned(),
    };
    let quarter = all.len() / 4;
    format!(
        "The way back by where the wind comes from: ahead {}, abeam {}, behind {}",
        at(0),
        at(quarter),
        at(2 * quarter)
    )
}

/// Parts of the table this page has no side for: none, so that a new one is missed here.
const _: fn(Part) = |part| match part {
    Part::Flooding | Part::Wind | Part::Lift => {}
};

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn times_are_told_as_people_say_them() {
        assert_eq!(minutes(52.0 * 60.0), "52\u{a0}min");
        assert_eq!(minutes(125.0 * 60.0), "2\u{a0}h\u{a0}05");
    }

    #[test]
    fn a_rose_is_read_out_by_its_quarters() {
        let mut all = vec![Some(30.0); 24];
        all[0] = None;
        all[6] = Some(45.0);
        let said = rose_words(Some(&all));
        assert!(said.ends_with("ahead not home, abeam 45\u{a0}min, behind 30\u{a0}min"));
    }
}

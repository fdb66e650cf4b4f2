//! What it does when the day turns: water aboard, wind and the way home, ashore.

mod ashore;
mod headwind;
mod people;
mod water;
mod wind;

pub use headwind::Efforts;

use super::figure::signed_percent;
use crate::answer::Afloat;
use crate::present::draw::leak::{LeakCurves, Sloshing, leak_curves, sloshing};
use crate::present::draw::turn::{DrainCurve, Drifting, Rose, drain_curve, drifting_boat, rose};
use galvet_core::aboard::{leaking, wetted_section};
use galvet_core::base::System;
use galvet_core::beyond::{Beyond, Extra, Part};
use galvet_core::figures::Range;
use galvet_core::handling;
use galvet_core::hull::Construction;
use galvet_core::question::{Day, Outing};

/// A figure of it.
pub struct Line {
    /// Its word in the address of how it comes about.
    pub key: &'static str,
    pub label: &'static str,
    pub value: String,
    pub range: String,
    pub meaning: &'static str,
}

/// What is drawn beside a part.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Drawn {
    /// Nothing.
    Nothing,
    /// A deck draining.
    Deck,
    /// Water inside.
    Inside,
    /// The way home, and the boat adrift.
    Wind,
}

impl Drawn {
    /// Whether it is a deck draining.
    #[must_use]
    pub fn is_deck(self) -> bool {
        self == Self::Deck
    }

    /// Whether it is water inside.
    #[must_use]
    pub fn is_inside(self) -> bool {
        self == Self::Inside
    }

    /// Whether it is wind.
    #[must_use]
    pub fn is_wind(self) -> bool {
        self == Self::Wind
    }
}

/// A part of it: what is read first, what to mind, then figures.
pub struct Side {
    pub title: &'static str,
    pub shows: Drawn,
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
    /// Litre by litre; `None` where it does not rest.
    pub leak: Option<LeakCurves>,
    /// Its section with some of it inside, leaned over.
    pub sloshing: Option<Sloshing>,
    /// What a pace takes against harder and harder wind.
    pub efforts: Option<Efforts>,
    /// The boat adrift; `None` where no wind is named.
    pub drifting: Option<Drifting>,
}

/// Water, m³, and heel, °, of the section that is drawn with water in it.
const SLOSHES: (f64, f64) = (0.020, 5.0);
/// Hours before which nobody turns back.
const DAWN: f64 = 5.0;
/// Directions of the rose.
const DIRECTIONS: u32 = 24;

/// A figure with its unit, as the row of the table has it.
pub fn told(extra: Extra, v: f64, system: System) -> String {
    let row = extra.row();
    match extra {
        Extra::Out | Extra::Back | Extra::BackUp => minutes(v),
        // Dark less the way back lies before the day.
        Extra::TurnBy if !v.is_finite() || v < DAWN => "no hour of that day".to_owned(),
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

/// A range in words, and in how many of the possible shapes there is one.
pub(super) fn range_words(extra: Extra, range: Option<Range>, system: System) -> String {
    let Some(r) = range else {
        return String::new();
    };
    let text = |v: f64| told(extra, v, system);
    let width = if r.p5 == r.p95 {
        String::new()
    } else {
        format!("{} to {}", text(r.p5), text(r.p95))
    };
    if r.share < 1.0 - 1e-9 {
        format!("in {} {width}", in_hundred(r.share))
    } else {
        width
    }
}

fn line(beyond: &Beyond, extra: Extra, system: System) -> Line {
    let row = extra.row();
    let range = beyond.range(extra);
    Line {
        key: row.key,
        label: row.label,
        value: match range.filter(|r| r.share > 0.5) {
            Some(r) => told(extra, r.p50, system),
            None => row.absent.to_owned(),
        },
        range: range_words(extra, range, system),
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

/// Says all of it.
pub(super) fn turn(afloat: &Afloat, day: &Day, system: System) -> Turn {
    use Extra as E;
    let outing = &day.outing;
    let (beyond, a) = (afloat.beyond(day), &afloat.assessment);
    let beyond = &*beyond;
    let construction = a.setup.posterior.survey.construction;
    let side = |title, says, caution, extras: &[Extra]| Side {
        title,
        shows: Drawn::Nothing,
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
    let rose_of = handling::rose(a, outing, DIRECTIONS);
    let flooding = beyond.flooding.as_deref();
    let towed: &[Extra] = if a.setup.towed() > 0.0 {
        &[E::Towed, E::TowedSlows]
    } else {
        &[]
    };
    let wind = [
        &[
            E::HomeWind,
            E::Out,
            E::Back,
            E::TurnBy,
            E::BackUp,
            E::Battery,
        ][..],
        &[E::Drift, E::Socked],
        towed,
        &[E::BowFreeboard, E::BowVolume],
    ];
    // What nobody asked, or has none of, is not told as missing.
    let told: Vec<Extra> = wind
        .concat()
        .into_iter()
        .filter(|&e| asked(e, outing, beyond))
        .collect();
    let steadied = people::outriggers(a, system);
    let drawn = |shows, side: Side| Side { shows, ..side };
    let mut sides = vec![
        drawn(
            Drawn::Wind,
            side(
                "Wind and the way home",
                wind::home(a, beyond, outing, system),
                "Guidance for a typical day: the local forecast, warnings and your own limits decide. An offshore wind takes you out.",
                &told,
            ),
        ),
        side(
            "At anchor",
            wind::at_anchor(beyond, system),
            "From bow or stern only, with a quick release; never from the side in current, and never tie yourself to the boat in moving water.",
            &[E::Hold, E::HoldWatts, E::HoldLine],
        ),
        drawn(
            Drawn::Deck,
            side(
                "A wave over the deck",
                water::over_the_deck(a, beyond, system),
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
        ),
        drawn(
            Drawn::Inside,
            side(
                "Water inside the hull",
                water::inside(a, beyond, system),
                "Shut the drain before launching; open no hatch afloat in waves; a pump and a bailer within reach.",
                &[E::WetFloor, E::GmZero, E::Founders],
            ),
        ),
    ];
    if !steadied.is_empty() {
        sides.push(side(
            "Outriggers",
            steadied,
            "They hide how tender the hull is until an arm gives: try without them, close to the shore.",
            &[],
        ));
    }
    sides.push(side(
        "Who moves",
        people::postures(a, system),
        "Try it in shallow warm water first, somebody near; sit down before you reach.",
        &[],
    ));
    sides.push(side(
        "Ashore",
        ashore::ashore(beyond, system),
        "Lift with two people above your own limit; follow the car's roof and tow ratings.",
        &[E::Heaviest, E::OneEnd, E::Cart, E::Drag],
    ));
    Turn {
        sides,
        drain: flooding.and_then(|f| drain_curve(&f.course, f.marks)),
        rose_words: rose_words(rose_of.as_deref()),
        rose: rose_of.as_deref().and_then(rose),
        leak: leak_curves(&leaking(&a.setup, &a.middle), system),
        sloshing: wetted_section(&a.setup, &a.middle, SLOSHES.0, SLOSHES.1.to_radians())
            .as_ref()
            .map(sloshing),
        efforts: headwind::effort_table(a, outing, system),
        drifting: drifting(beyond, system),
    }
}

/// Whether a figure is told: those that hang on something nobody said or brought only
/// where somebody did.
fn asked(extra: Extra, outing: &Outing, beyond: &Beyond) -> bool {
    match extra {
        Extra::TurnBy => outing.dark.is_some(),
        Extra::BackUp | Extra::Battery | Extra::Socked => beyond.range(extra).is_some(),
        _ => true,
    }
}

/// How it lies adrift: its attitude to the wind and its speed.
fn drifting(beyond: &Beyond, system: System) -> Option<Drifting> {
    let (drift, helm) = (beyond.range(Extra::Drift)?, beyond.range(Extra::HelmRest)?);
    Some(drifting_boat(
        helm.p50,
        told(Extra::Drift, drift.p50, system),
    ))
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

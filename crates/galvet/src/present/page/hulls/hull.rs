//! One hull's page: its record, drawings and figures.

use super::check::{Check, checks};
use super::deck::{deck_lines, kit_doubts, kit_line};
use super::figure::{Figure, figure_of};
use super::going::{Going, going};
use super::hull_head::{Head, head};
use super::judged::said;
use super::next::next_steps;
use super::turn::{Turn, turn};
use crate::answer::Afloat;
use crate::present::draw::curve::{Curve, curve};
use crate::present::draw::hull::{Side, side};
use crate::present::draw::section::{Section, section};
use crate::present::page::ranking::facts;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::{Assessment, Group, Quantity};
use galvet_core::hull::{Datum, Evidence, FloatReading, Measure, Reading, Survey};
use galvet_core::plausible::CannotFloat;
use galvet_core::question::Brief;
use galvet_core::rank::{Met, demands, steadiness, takes, told};
use galvet_store::files::hulls::HullRecord;
use std::sync::Arc;

/// A line of the record.
pub struct RecordLine {
    pub label: &'static str,
    pub value: String,
    pub source: String,
    /// Readings that were not used.
    pub others: Vec<String>,
}

/// Figures under a heading.
pub struct FigureGroup {
    pub title: &'static str,
    /// What its figures come to, in words.
    pub verdict: String,
    pub caution: &'static str,
    pub figures: Vec<Figure>,
}

/// Drawings and figures of a hull that floats.
pub struct Floating {
    pub head: Head,
    pub side: Side,
    pub sections: Vec<Section>,
    pub curve: Curve,
    pub groups: Vec<FigureGroup>,
    pub reasons: Vec<String>,
    /// What some of its plausible shapes do, where that does not rule it out.
    pub peril: String,
    pub remarks: Vec<String>,
    /// What the water asks that it does; empty for nothing.
    pub met: String,
    pub going: Option<Going>,
    pub turn: Turn,
    pub assumed: String,
    /// What of the rig is aboard, what of it is doubtful, what is left of the deck.
    pub kit: String,
    pub kit_doubts: Vec<String>,
    pub deck: Vec<(&'static str, String)>,
}

/// The page.
pub struct HullView {
    pub key: String,
    pub name: String,
    pub facts: String,
    pub words: Vec<(&'static str, String)>,
    pub record: Vec<RecordLine>,
    pub extra: Vec<(String, String)>,
    /// What is to be checked or measured.
    pub checks: Vec<Check>,
    /// What was measured afloat.
    pub evidence: Vec<String>,
    pub floating: Result<Floating, String>,
}

/// Units a metre in the sections.
const SECTION_SCALE: f64 = 260.0;

/// Makes a hull's page under a brief.
#[must_use]
pub fn hull(
    record: &HullRecord,
    afloat: &Result<Arc<Afloat>, CannotFloat>,
    brief: &Brief,
    system: System,
) -> HullView {
    let survey = &record.survey;
    let floating = match afloat {
        Ok(afloat) => Ok(floating(afloat, brief, system)),
        Err(CannotFloat::NotKnown(what)) => Err(format!(
            "The {what} is not known. Put a tape across the hull and note it: then it can be floated, drawn and ranked."
        )),
        Err(problem) => Err(format!(
            "{problem}. Mend the sections, or take them off the record: then it is floated from its measures."
        )),
    };
    let next = afloat.as_ref().ok();
    let next = next.map(|a| next_steps(&a.assessment, brief, 3));
    let next = next.unwrap_or_default();
    HullView {
        key: survey.key.clone(),
        name: survey.name(),
        facts: facts(survey, system),
        words: words(survey),
        record: record_lines(survey, system),
        extra: record.extra.clone().into_iter().collect(),
        checks: checks(survey.findings(), next),
        evidence: survey
            .evidence
            .iter()
            .map(|e| evidence(e, system))
            .collect(),
        floating,
    }
}

/// A measurement in words.
#[must_use]
pub fn evidence(evidence: &Evidence, system: System) -> String {
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    let aboard = system.text(Dimension::Mass, evidence.aboard.mass, 0);
    let read = match &evidence.reading {
        FloatReading::Heights { datum, heights } => {
            let line = match datum {
                Datum::Floor => "floor",
                Datum::Gunwale => "gunwale",
            };
            let read: Vec<String> = heights
                .iter()
                .map(|&(place, h)| format!("{} at {:.0}\u{a0}%", fine(h), place * 100.0))
                .collect();
            format!("{line} above the water: {} of the length", read.join(", "))
        }
        FloatReading::Waterline { length, beam } => format!(
            "at the water {} long and {} wide",
            system.text(Dimension::Length, *length, 2),
            system.text(Dimension::ShortLength, *beam, 1)
        ),
        FloatReading::Tilt { gm, error, .. } => format!(
            "tilt test: GM {} ± {}",
            system.text(Dimension::ShortLength, *gm, 0),
            system.text(Dimension::ShortLength, *error, 0)
        ),
        FloatReading::Drift { speed, wind, .. } => format!(
            "drifted at {} in a wind of {}",
            system.text(Dimension::Speed, *speed, 1),
            system.text(Dimension::Speed, *wind, 0)
        ),
        FloatReading::Speed { speed, watts, by } => format!(
            "kept up {} by {} at {}",
            system.text(Dimension::Speed, *speed, 1),
            by.label(),
            system.text(Dimension::Power, *watts, 0)
        ),
        FloatReading::Drain { seconds } => format!(
            "drained from brim-full in {}",
            system.text(Dimension::Time, *seconds, 0)
        ),
    };
    let date = if evidence.date.is_empty() {
        String::new()
    } else {
        format!(", {}", evidence.date)
    };
    format!("{read}, with {aboard} aboard{date}")
}

fn floating(afloat: &Afloat, brief: &Brief, system: System) -> Floating {
    let assessment = &*afloat.assessment;
    let drawn = afloat.portrait();
    let group = |group, title, verdict, caution| FigureGroup {
        title,
        verdict,
        caution,
        figures: Quantity::ALL
            .iter()
            .filter(|q| q.row().group == group)
            .map(|&q| figure_of(assessment, q, system))
            .collect(),
    };
    let shape = assessment.middle;
    let (peril, reasons) = said(assessment, brief, system);
    let layout = &assessment.setup.loads.layout;
    let mut remarks = told(assessment, brief, system);
    // What the water asks: all of it, met or not.
    let (met, unmet): (Vec<_>, Vec<_>) = demands(assessment, brief)
        .into_iter()
        .partition(|m| m.met == Some(true));
    let words = |m: &Met| m.text(system);
    remarks.extend(
        unmet
            .iter()
            .map(|m| format!("asked of it here: {}", words(m))),
    );
    let met: Vec<String> = met.iter().map(words).collect();
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    Floating {
        head: head(assessment, brief, system),
        side: side(&drawn.side, system),
        sections: drawn
            .sections
            .iter()
            .map(|view| section(view, SECTION_SCALE, true, system))
            .collect(),
        curve: curve(&drawn.curves, system),
        groups: vec![
            group(
                Group::Capacity,
                "What it carries",
                format!("{}.", takes(assessment, system)),
                "Guidance. The maker's rated capacity and instructions stand above these figures.",
            ),
            group(
                Group::Floating,
                "How it lies",
                lies(assessment, system),
                "Estimates at rest in flat water; waves, wet clothing and rain come on top.",
            ),
            group(
                Group::Stability,
                "How steady it is",
                format!("{}.", steadiness(assessment, brief)),
                "Guidance, not a guarantee: wear the flotation aid, always, and try a stand in shallow warm water first.",
            ),
        ],
        peril,
        reasons,
        kit: kit_line(layout, &assessment.setup.brief.rig, system),
        kit_doubts: kit_doubts(layout, system),
        deck: layout
            .deck
            .as_ref()
            .map_or(Vec::new(), |d| deck_lines(d, system)),
        remarks,
        met: met.join("; "),
        going: afloat
            .outlook(&brief.outing)
            .map(|o| going(&o, assessment, brief, system)),
        turn: turn(afloat, &brief.day(), system),
        assumed: if assessment.setup.posterior.form.is_measured() {
            "Drawn from its measured sections.".to_owned()
        } else {
            format!(
                "Drawn from the middle of {} possible shapes, dashed where guessed: depth {}, floor {} above the bottom, fitted hull {}.",
                assessment.sample.len(),
                fine(shape.depth),
                fine(shape.floor),
                system.text(Dimension::Mass, shape.hull_mass, 0)
            )
        },
    }
}

/// How a hull lies, in words: its draft, and what its trim does.
fn lies(a: &Assessment, system: System) -> String {
    let draft = a.median(Quantity::Deepest);
    let draft = draft.map(|m| Quantity::Deepest.row().text(system, m));
    let trim = a
        .median(Quantity::Trim)
        .and_then(|t| Quantity::Trim.band(t));
    match (draft, trim) {
        (Some(draft), Some(trim)) => format!("Floats in {draft} of water, {trim}."),
        (Some(draft), None) => format!("Floats in {draft} of water."),
        _ => "It finds no rest in the water.".to_owned(),
    }
}

fn words(survey: &Survey) -> Vec<(&'static str, String)> {
    let yes_no = |yes: bool| if yes { "yes" } else { "no" }.to_owned();
    let mut words = vec![
        ("construction", survey.construction.label().to_owned()),
        (
            "bottom",
            survey
                .bottom
                .map_or("not looked at".to_owned(), |b| b.label().to_owned()),
        ),
        ("propulsion", survey.propulsion.label().to_owned()),
        ("rudder or skeg", yes_no(survey.tracks_straight)),
        ("seats", survey.seats.to_string()),
        (
            "rated capacity counts",
            survey.capacity_basis.label().to_owned(),
        ),
    ];
    if survey.construction == galvet_core::hull::Construction::Board {
        words.retain(|(label, _)| *label != "bottom");
    }
    if survey.propulsion.has_drive() {
        words.push(("drive lifts clear", yes_no(survey.drive_lifts)));
    }
    if let Some(year) = survey.year {
        words.push(("model year", year.to_string()));
    }
    if !survey.fitted_includes.is_empty() {
        words.push(("fitted includes", survey.fitted_includes.clone()));
    }
    if !survey.notes.is_empty() {
        words.push(("notes", survey.notes.clone()));
    }
    words
}

/// Where a reading comes from, with day and person where noted.
fn source_of(reading: &Reading) -> String {
    let mut out = reading.source.label().to_owned();
    for more in [&reading.date, &reading.who, &reading.note] {
        if !more.is_empty() {
            out.push_str(", ");
            out.push_str(more);
        }
    }
    out
}

fn record_lines(survey: &Survey, system: System) -> Vec<RecordLine> {
    Measure::ALL
        .iter()
        .filter_map(|&measure| {
            let best = survey.best(measure)?;
            let text = |value| measure.text(system, value);
            let others = survey.readings.get(&measure)?;
            Some(RecordLine {
                label: measure.row().label,
                value: text(best.value),
                source: source_of(best),
                others: others
                    .iter()
                    .filter(|r| *r != best)
                    .map(|r| format!("{} by {}", text(r.value), source_of(r)))
                    .collect(),
            })
        })
        .collect()
}

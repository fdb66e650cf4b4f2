//! One hull's page: its record, drawings and figures.

use super::ranking::facts;
use super::{Figure, figure_of};
use crate::draw::curve::{Curve, EffortCurve, curve, effort_curve};
use crate::draw::hull::{Section, Side, section, side};
use galvet_core::assess::Assessment;
use galvet_core::brief::Brief;
use galvet_core::effort::outlook::{Outlook, outlook};
use galvet_core::evaluate::CannotFloat;
use galvet_core::evidence::{Datum, Evidence, Reading};
use galvet_core::hull::{Finding, Measure, Propulsion, Survey};
use galvet_core::measure_next;
use galvet_core::portrait::portrait;
use galvet_core::quantity::{Group, Quantity};
use galvet_core::rank::{rule_out, score::Scales};
use galvet_core::sample::{DEFAULT_SIZE, Range};
use galvet_core::units::{Dimension, System};
use galvet_store::files::hulls::HullRecord;

/// A line of the record.
pub(crate) struct RecordLine {
    pub(crate) label: &'static str,
    pub(crate) value: String,
    pub(crate) source: &'static str,
    /// Readings that were not used.
    pub(crate) others: Vec<String>,
}

/// Figures under a heading.
pub(crate) struct FigureGroup {
    pub(crate) title: &'static str,
    pub(crate) caution: &'static str,
    pub(crate) figures: Vec<Figure>,
}

/// Drawings and figures of a hull that floats.
pub(crate) struct Floating {
    pub(crate) side: Side,
    pub(crate) sections: Vec<Section>,
    pub(crate) curve: Curve,
    pub(crate) groups: Vec<FigureGroup>,
    pub(crate) reasons: Vec<String>,
    pub(crate) remarks: Vec<String>,
    /// What to measure next on this hull, best first.
    pub(crate) next: Vec<String>,
    pub(crate) going: Option<Going>,
    pub(crate) assumed: String,
}

/// Speed and effort.
pub(crate) struct Going {
    pub(crate) curve: EffortCurve,
    /// Label, middle, range, meaning.
    pub(crate) lines: Vec<(&'static str, String, String, &'static str)>,
    pub(crate) basis: String,
}

/// The page.
pub(crate) struct HullView {
    pub(crate) key: String,
    pub(crate) name: String,
    pub(crate) facts: String,
    pub(crate) words: Vec<(&'static str, String)>,
    pub(crate) record: Vec<RecordLine>,
    pub(crate) extra: Vec<(String, String)>,
    pub(crate) findings: Vec<Finding>,
    /// What was measured afloat.
    pub(crate) evidence: Vec<String>,
    pub(crate) floating: Result<Floating, String>,
}

/// Units a metre in the sections.
const SECTION_SCALE: f64 = 260.0;

/// Makes a hull's page under a brief.
pub(crate) fn hull(record: &HullRecord, brief: &Brief, system: System) -> HullView {
    let survey = &record.survey;
    let floating = match Assessment::of(survey, brief, DEFAULT_SIZE) {
        Ok(assessment) => Ok(floating(&assessment, system)),
        Err(CannotFloat::NotKnown(what)) => Err(format!(
            "The {what} is not known. Put a tape across the hull and note it: then it can be floated, drawn and ranked."
        )),
    };
    HullView {
        key: survey.key.clone(),
        name: survey.name(),
        facts: facts(survey, system),
        words: words(survey),
        record: record_lines(survey, system),
        extra: record.extra.clone().into_iter().collect(),
        findings: survey.findings(),
        evidence: survey
            .evidence
            .iter()
            .map(|e| evidence(e, system))
            .collect(),
        floating,
    }
}

/// A measurement in words.
fn evidence(evidence: &Evidence, system: System) -> String {
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    let aboard = system.text(Dimension::Mass, evidence.aboard.mass, 0);
    let read = match &evidence.reading {
        Reading::Float { datum, heights } => {
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
        Reading::Waterline { length, beam } => format!(
            "at the water {} long and {} wide",
            system.text(Dimension::Length, *length, 2),
            system.text(Dimension::ShortLength, *beam, 1)
        ),
        Reading::Tilt { gm, error } => format!(
            "tilt test: GM {} ± {}",
            system.text(Dimension::ShortLength, *gm, 0),
            system.text(Dimension::ShortLength, *error, 0)
        ),
    };
    format!("{read}, with {aboard} aboard")
}

fn floating(assessment: &Assessment<'_>, system: System) -> Floating {
    let drawn = portrait(assessment);
    let group = |group, title, caution| FigureGroup {
        title,
        caution,
        figures: Quantity::ALL
            .iter()
            .filter(|q| q.row().group == group)
            .map(|&q| figure_of(assessment, q, system))
            .collect(),
    };
    let shape = assessment.median_shape;
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    Floating {
        side: side(&drawn.side, system),
        sections: drawn
            .sections
            .iter()
            .map(|view| section(view, SECTION_SCALE, true, system))
            .collect(),
        curve: curve(&drawn.curve, system),
        groups: vec![
            group(
                Group::Capacity,
                "What it carries",
                "Guidance. The maker's rated capacity and instructions stand above these figures.",
            ),
            group(
                Group::Floating,
                "How it lies",
                "Estimates at rest in flat water; waves, wet clothing and rain come on top.",
            ),
            group(
                Group::Stability,
                "How steady it is",
                "Guidance, not a guarantee: wear the flotation aid, always, and try a stand in shallow warm water first.",
            ),
        ],
        reasons: rule_out::reasons(assessment)
            .iter()
            .map(|reason| reason.text(system))
            .collect(),
        remarks: assessment.remarks(),
        next: measure_next::for_hull(assessment, &Scales::default())
            .iter()
            .take(3)
            .map(|s| {
                let share = s.narrows * 100.0;
                format!(
                    "{}: it would take about {share:.0}\u{a0}% off the doubt in its points",
                    s.target.label()
                )
            })
            .collect(),
        going: outlook(assessment).map(|o| going(&o, assessment, system)),
        assumed: format!(
            "Drawn from the middle of {DEFAULT_SIZE} plausible shapes: depth {}, floor {} above the bottom, fitted hull {}.",
            fine(shape.depth),
            fine(shape.floor),
            system.text(Dimension::Mass, shape.hull_mass, 0)
        ),
    }
}

fn going(outlook: &Outlook, assessment: &Assessment<'_>, system: System) -> Going {
    let line = |label, range: Range, scale: f64, dimension, decimals, unit: &str, meaning| {
        let text = |v: f64| system.text(dimension, v * scale, decimals);
        let lo = system.number(dimension, range.p5 * scale, decimals);
        let (middle, hi) = (text(range.p50), text(range.p95));
        (
            label,
            format!("{middle}{unit}"),
            format!("{lo} to {hi}{unit}"),
            meaning,
        )
    };
    let propulsion = assessment.setup.survey.propulsion;
    let mut lines = vec![
        line(
            "cruise",
            outlook.cruise,
            1.0,
            Dimension::Speed,
            1,
            "",
            "speed that can be kept up",
        ),
        line(
            "top",
            outlook.top,
            1.0,
            Dimension::Speed,
            1,
            "",
            "speed at twice that effort, for minutes",
        ),
        line(
            "energy for 10\u{a0}km",
            outlook.energy_10_km,
            1.0 / 3600.0,
            Dimension::Ratio,
            0,
            "\u{a0}Wh",
            "work at hand, foot or battery at cruise",
        ),
    ];
    if let Some(range) = outlook.battery {
        lines.push(line(
            "range on the battery",
            range,
            1.0,
            Dimension::Distance,
            0,
            "",
            "distance at cruise with 30 % of the battery kept back; in still water, without wind",
        ));
    }
    let at = if propulsion == Propulsion::Motor {
        "electric input"
    } else {
        "at hand or foot"
    };
    Going {
        curve: effort_curve(outlook, system),
        lines,
        basis: format!(
            "Estimated: friction, waves and still air at the attitude it floats in, by {}, {:.0} to {:.0}\u{a0}W {at}. Wind, chop, weed and a foul bottom cost more.",
            propulsion.label(),
            outlook.effort[0],
            outlook.effort[2]
        ),
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
                .map_or("not looked at".to_owned(), |b| b.key().replace('-', " ")),
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

fn record_lines(survey: &Survey, system: System) -> Vec<RecordLine> {
    Measure::ALL
        .iter()
        .filter_map(|&measure| {
            let best = survey.best(measure)?;
            let text = |value| match measure {
                Measure::SeatPlace => format!("{:.0} % from the bow", value * 100.0),
                _ => {
                    let dimension = measure.bounds().dimension;
                    let decimals = match dimension {
                        Dimension::Length => 2,
                        Dimension::ShortLength => 1,
                        _ => 0,
                    };
                    system.text(dimension, value, decimals)
                }
            };
            let others = survey.readings.get(&measure)?;
            Some(RecordLine {
                label: measure.label(),
                value: text(best.value),
                source: best.source.label(),
                others: others
                    .iter()
                    .filter(|r| **r != best)
                    .map(|r| format!("{} by {}", text(r.value), r.source.label()))
                    .collect(),
            })
        })
        .collect()
}

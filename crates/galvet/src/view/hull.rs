//! One hull's page: its record, drawings and figures.

use super::ranking::facts;
use super::{Figure, figure};
use crate::draw::hull::{Curve, Section, Side, curve, section, side};
use galvet_core::assess::Assessment;
use galvet_core::brief::Brief;
use galvet_core::evaluate::CannotFloat;
use galvet_core::hull::{Finding, Measure, Survey};
use galvet_core::portrait::portrait;
use galvet_core::quantity::{Group, Quantity};
use galvet_core::rank::rule_out;
use galvet_core::sample::DEFAULT_SIZE;
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
    pub(crate) assumed: String,
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
        floating,
    }
}

fn floating(assessment: &Assessment<'_>, system: System) -> Floating {
    let drawn = portrait(assessment);
    let group = |group, title, caution| FigureGroup {
        title,
        caution,
        figures: Quantity::ALL
            .iter()
            .filter(|q| q.row().group == group)
            .map(|&q| figure(q, assessment.range(q), system))
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
        assumed: format!(
            "Drawn from the middle of {DEFAULT_SIZE} plausible shapes: depth {}, floor {} above the bottom, fitted hull {}.",
            fine(shape.depth),
            fine(shape.floor),
            system.text(Dimension::Mass, shape.hull_mass, 0)
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

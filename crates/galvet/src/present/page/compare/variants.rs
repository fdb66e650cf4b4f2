//! Ways of one hull, or several hulls, side by side under one question.

use super::costs::{Cost, costs};
use crate::answer::Outcome;
use crate::present::columns::{self, COLUMNS, Cell, Which, Worked, cells};
use crate::present::draw::gauge::{Gauge, full_scale, gauge};
use crate::present::draw::hull::{Side, side};
use crate::present::draw::overlay::{Overlay, overlay};
use crate::present::draw::section::{Section, section, section_within};
use crate::present::page::hulls::deck::kit_line;
use crate::present::page::hulls::figure::{Figure, figure_of};
use crate::present::page::ranking::facts;
use crate::present::page::survey::draft::ordinal;
use galvet_core::base::System;
use galvet_core::figures::{Better, Quantity};
use galvet_core::portrait::landing;
use galvet_core::question::Brief;
use galvet_core::rank::{explain, verdict};

/// One of them.
pub struct Column {
    pub key: String,
    /// Whether it is the hull as it stands, whose own pages tell of it.
    pub herself: bool,
    pub name: String,
    pub facts: String,
    /// "2nd", or why ruled out.
    pub place: String,
    pub out: bool,
    pub peril: String,
    /// Steady or not, and how much more it takes.
    pub verdict: String,
    pub section: Option<Section>,
    /// The same as somebody leans out to land a fish, and how far it heels then: one
    /// lean, its own heel.
    pub landing: Option<(Section, String)>,
    /// Load against the limits, all on one scale.
    pub gauge: Option<Gauge>,
    /// Profile and plan with the kit where it lies.
    pub side: Option<Side>,
    /// What of the rig is aboard, and what is not.
    pub kit: String,
    pub unplaced: Vec<String>,
}

/// A figure of all of them.
pub struct Row {
    /// Name in JSON.
    pub key: &'static str,
    pub label: &'static str,
    pub meaning: &'static str,
    /// One a column, each with by how much it is the best, where it is; `None`
    /// where the hull cannot be floated.
    pub cells: Vec<Option<(Figure, Option<String>)>>,
}

/// Something beside the figures, of all of them.
pub struct Beside {
    pub label: &'static str,
    /// Where it is told how it comes about, behind a hull's own address.
    pub leads: &'static str,
    /// Text, range, whether it is the best.
    pub cells: Vec<(String, String, bool)>,
}

/// Columns whose figures stand among the told ones.
const TOLD_ABOVE: [Which; 1] = [Which::Draft];

/// The table.
pub struct SideBySide {
    pub columns: Vec<Column>,
    pub rows: Vec<Row>,
    /// Deck, speed, wind, comfort, price.
    pub beside: Vec<Beside>,
    /// Their outlines over each other.
    pub overlay: Option<Overlay>,
    /// What each costs the other.
    pub costs: Vec<Cost>,
}

/// Figures that are told side by side.
const TOLD: [Quantity; 15] = [
    Quantity::BindingMargin,
    Quantity::LabelMargin,
    Quantity::WorkingMargin,
    Quantity::WaterlineMargin,
    Quantity::FloorAboveWater,
    Quantity::Freeboard,
    Quantity::Draft,
    Quantity::Trim,
    Quantity::Gm,
    Quantity::StandingSupport,
    Quantity::StandingRoom,
    Quantity::LeanRoom,
    Quantity::LastingLean,
    Quantity::ReachHeel,
    Quantity::Reserve,
];

/// Half the width, and the height, drawn of somebody who leans out, shares of the stature.
const LANDING_FRAME: [f64; 2] = [0.42, 0.68];
/// Units a metre in the sections.
const SCALE: f64 = 150.0;

fn column(outcome: &Outcome, full: f64, system: System) -> Column {
    let survey = &outcome.way.hull.survey;
    let reason = outcome.ruled_out.as_ref().and_then(|r| r.reasons.first());
    let afloat = outcome.afloat.as_ref().ok();
    let may_be = outcome.ranked.as_ref().and_then(explain::peril);
    Column {
        key: survey.key.clone(),
        herself: outcome.way.hull.known.is_some() && outcome.way.seat.is_none(),
        name: outcome.way.name.clone(),
        facts: facts(survey, system),
        place: match (outcome.place, reason) {
            (Some(place), _) => ordinal(place),
            (None, Some(reason)) => format!("ruled out: {}", reason.text(system)),
            (None, None) => "cannot be floated yet".to_owned(),
        },
        out: outcome.place.is_none(),
        peril: may_be.unwrap_or_default(),
        verdict: afloat.map_or(String::new(), |a| {
            verdict(&a.assessment, &a.assessment.setup.brief, system)
        }),
        landing: afloat.and_then(|a| {
            let view = landing(&a.assessment)?;
            let heel = Quantity::ReachHeel.row().text(system, view.heel_deg);
            // Leaning out, the head stands outside the hull: one frame for all of them.
            let frame = LANDING_FRAME.map(|share| share * a.assessment.setup.brief.crew.stature());
            Some((section_within(&view, SCALE, frame, system), heel))
        }),
        section: afloat.map(|a| section(a.glyph(), SCALE, false, system)),
        gauge: afloat.map(|a| gauge(&a.assessment, full, system)),
        side: afloat.map(|a| side(&a.portrait().side, system)),
        kit: afloat.map_or(String::new(), |a| {
            let setup = &a.assessment.setup;
            kit_line(&setup.loads.layout, &setup.brief.rig, system)
        }),
        unplaced: afloat.map_or(Vec::new(), |a| {
            let unplaced = a.assessment.setup.loads.layout.unplaced.iter();
            unplaced.map(|u| u.text(system)).collect()
        }),
    }
}

/// Deck, speed, wind, comfort and price beside the figures, the better one marked; what
/// the pond says where that is worth hundreds of tries of each.
fn beside(outcomes: &[Outcome], (brief, tries): (&Brief, bool), system: System) -> Vec<Beside> {
    let told: Vec<Vec<Cell>> = outcomes
        .iter()
        .map(|o| {
            let afloat = o.afloat.as_ref().ok();
            let survey = &o.way.hull.survey;
            let quick = afloat.map(|a| a.quick());
            let assessment = afloat.map(|a| &*a.assessment);
            let beyond = afloat.map(|a| a.beyond(&brief.day()));
            let tried = afloat.filter(|_| tries).map(|a| a.tried_by(brief));
            cells(
                assessment,
                &Worked {
                    quick,
                    beyond: beyond.as_deref(),
                    tried: tried.as_deref(),
                },
                survey,
                brief,
                system,
            )
        })
        .collect();
    let passes: Vec<bool> = outcomes.iter().map(|o| o.place.is_some()).collect();
    let row = |(n, column): (usize, &columns::Column)| {
        let value = |cells: &Vec<Cell>| cells[n].value;
        let passing = told.iter().zip(&passes).filter(|(_, passes)| **passes);
        let known = passing.filter_map(|(c, _)| value(c));
        // How long or wide it is, is neither good nor bad.
        let judged = !matches!(column.which, Which::Length | Which::Beam);
        let best = known.reduce(if column.less { f64::min } else { f64::max });
        let best = best.filter(|_| judged);
        let differ = told.windows(2).any(|w| w[0][n].text != w[1][n].text);
        let marked = told.iter().zip(&passes).map(|(cells, &passes)| {
            let is_best = best.is_some() && value(cells) == best;
            let cell = &cells[n];
            (
                cell.text.clone(),
                cell.range.clone(),
                passes && differ && is_best,
            )
        });
        Beside {
            label: column.label,
            leads: column.leads(),
            cells: marked.collect(),
        }
    };
    let rows = COLUMNS.iter().enumerate();
    rows.filter(|(_, c)| !TOLD_ABOVE.contains(&c.which))
        .filter(|(_, c)| tries || !c.which.of_the_pond())
        .map(row)
        .filter(|r| r.cells.iter().any(|c| c.0 != "not known"))
        .collect()
}

/// Plans in frames of one size, so that a longer hull is drawn longer.
fn at_one_scale(columns: &mut [Column]) {
    let sizes = columns
        .iter()
        .filter_map(|c| Some(c.side.as_ref()?.plan_size));
    let frame = sizes.fold([0.0_f64; 2], |most, size| {
        [most[0].max(size[0]), most[1].max(size[1])]
    });
    for side in columns.iter_mut().filter_map(|c| c.side.as_mut()) {
        side.plan_box = format!("0 0 {:.0} {:.0}", frame[0], frame[1]);
    }
}

/// Puts them side by side; with what the pond says where `tries` is set, which takes a
/// second.
#[must_use]
pub fn side_by_side(
    outcomes: &[Outcome],
    (brief, tries): (&Brief, bool),
    system: System,
) -> SideBySide {
    let afloat = outcomes.iter().filter_map(|o| o.afloat.as_ref().ok());
    let full = full_scale(afloat.map(|a| &*a.assessment));
    let row = |quantity: Quantity| {
        let median = |o: &Outcome| {
            let assessment = &o.afloat.as_ref().ok()?.assessment;
            assessment.median(quantity)
        };
        let shown = quantity.row();
        let values: Vec<Option<f64>> = outcomes.iter().map(median).collect();
        // What is ruled out is not praised for anything.
        let passes: Vec<bool> = outcomes.iter().map(|o| o.place.is_some()).collect();
        let passing = values.iter().zip(&passes).filter(|(_, passes)| **passes);
        let known = passing.filter_map(|(value, _)| *value);
        let best = match shown.better {
            Better::Higher => known.reduce(f64::max),
            Better::Lower => known.reduce(f64::min),
            Better::Neither => None,
        };
        // Alike to the last digit shown is alike.
        let alike = |v: f64, w: f64| shown.number(system, v) == shown.number(system, w);
        let known = values.iter().flatten();
        let differ = best.is_some_and(|b| known.clone().any(|&v| !alike(v, b)));
        // Against the next best of those that pass; alike ones share the mark.
        let rest = values.iter().zip(&passes).filter(|(_, passes)| **passes);
        let rest = rest
            .filter_map(|(v, _)| *v)
            .filter(|&v| best.is_some_and(|b| !alike(v, b)));
        let next = match shown.better {
            Better::Lower => rest.reduce(f64::min),
            _ => rest.reduce(f64::max),
        };
        let by = next.zip(best).map_or("best".to_owned(), |(n, b)| {
            let by = shown.text(system, (b - n).abs());
            // Apart by less than the last digit shown, and yet shown apart.
            if by == shown.text(system, 0.0) {
                "best by a hair".to_owned()
            } else {
                format!("best by {by}")
            }
        });
        let all = outcomes.iter().zip(&values).zip(&passes);
        // One cell a column, also where there is nothing to tell.
        let cells = all.map(|((o, value), &passes)| {
            let assessment = &o.afloat.as_ref().ok()?.assessment;
            let best = value.is_some_and(|v| best.is_some_and(|b| alike(v, b)));
            let figure = figure_of(assessment, quantity, system);
            Some((figure, (passes && differ && best).then(|| by.clone())))
        });
        Row {
            key: shown.key,
            label: shown.label,
            meaning: shown.meaning,
            cells: cells.collect(),
        }
    };
    let mut columns: Vec<Column> = outcomes.iter().map(|o| column(o, full, system)).collect();
    at_one_scale(&mut columns);
    SideBySide {
        columns,
        beside: beside(outcomes, (brief, tries), system),
        rows: TOLD.iter().map(|&q| row(q)).collect(),
        overlay: overlay(outcomes),
        costs: costs(outcomes, system),
    }
}

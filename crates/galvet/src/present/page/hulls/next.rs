//! What to measure or look at next on a hull: each with a drawing of how, and a place to
//! put what was found.

use crate::present::draw::bottom::section_of;
use crate::survey::{FIELDS, FieldKind, bottom_note};
use galvet_core::advise::measure_next::{self, Suggestion};
use galvet_core::base::Keyed;
use galvet_core::crew::SeatHeight;
use galvet_core::figures::Assessment;
use galvet_core::hull::{BottomShape, Measure};
use galvet_core::plausible::Target;
use galvet_core::question::Brief;
use galvet_core::rank::Scales;

/// A bottom to point at.
pub struct Bottom {
    pub key: &'static str,
    pub label: &'static str,
    pub note: &'static str,
    /// Its section.
    pub drawn: String,
}

/// One thing to measure or look at.
pub struct NextStep {
    /// Its word, for the drawing.
    pub key: &'static str,
    /// "Look at the bottom".
    pub title: String,
    /// What knowing it takes off the doubt.
    pub gain: String,
    /// The bottoms to point at, where that is the question.
    pub bottoms: Vec<Bottom>,
    /// The figure of the record it is, its word and label; `None` where it is one of the
    /// tests afloat.
    pub figure: Option<(&'static str, &'static str)>,
    /// The field of the quick start that takes it; empty for none.
    pub field: &'static str,
}

/// The figure of the record a target is.
const fn measure(target: Target, seat: SeatHeight) -> Option<Measure> {
    Some(match target {
        Target::Seat => match seat {
            SeatHeight::Low => Measure::SeatLow,
            SeatHeight::High => Measure::SeatHigh,
        },
        Target::Depth => Measure::Depth,
        Target::Floor => Measure::FloorHeight,
        Target::FloorWidth => Measure::FloorWidth,
        Target::Transom => Measure::TransomWidth,
        Target::Beam => Measure::Beam,
        Target::Weight => Measure::FittedWeight,
        Target::Bottom | Target::WaterlineBeam => return None,
    })
}

fn bottoms() -> Vec<Bottom> {
    let all = BottomShape::ALL
        .iter()
        .filter(|b| **b != BottomShape::Board);
    all.map(|&bottom| Bottom {
        key: bottom.key(),
        label: bottom.label(),
        note: bottom_note(bottom),
        drawn: section_of(bottom),
    })
    .collect()
}

/// The field of the quick start for a figure of the record.
fn field_of(target: Target, seat: SeatHeight) -> &'static str {
    let takes = |kind: &FieldKind| match (kind, measure(target, seat)) {
        (FieldKind::Figure(m), Some(wanted)) => *m == wanted,
        (FieldKind::Weight, _) => target == Target::Weight,
        _ => false,
    };
    let field = FIELDS.iter().find(|f| takes(&f.kind));
    match (field, target) {
        (Some(field), _) => field.name,
        (None, Target::Bottom) => "hull-bottom",
        _ => "",
    }
}

fn step(s: &Suggestion, seat: SeatHeight) -> NextStep {
    let instruction = s.target.instruction();
    let mut letters = instruction.chars();
    let first = letters.next().map(|c| c.to_uppercase().to_string());
    NextStep {
        key: s.target.key(),
        title: first.unwrap_or_default() + letters.as_str(),
        gain: format!(
            "takes about {:.0}\u{a0}% off the doubt in its points",
            s.narrows * 100.0
        ),
        bottoms: if s.target == Target::Bottom {
            bottoms()
        } else {
            Vec::new()
        },
        figure: measure(s.target, seat).map(|m| (m.key(), m.label())),
        field: field_of(s.target, seat),
    }
}

/// What to measure next on a hull, best first.
#[must_use]
pub fn next_steps(assessment: &Assessment, brief: &Brief, most: usize) -> Vec<NextStep> {
    let scales = Scales::of(assessment.setup.guides());
    let found = measure_next::for_hull(assessment, brief, &scales);
    let steps = found.iter().take(most).map(|s| step(s, brief.seat));
    steps.collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn everything_that_can_be_measured_has_a_drawing_and_a_place_to_put_it() {
        let drawings = include_str!("../../../../../../web/templates/next.html");
        for &target in Target::ALL {
            let suggestion = Suggestion {
                target,
                narrows: 0.346,
            };
            let shown = step(&suggestion, SeatHeight::High);
            assert!(
                drawings.contains(&format!("\"{}\"", shown.key)),
                "{} is not drawn",
                shown.key
            );
            let places = [
                shown.bottoms.len() == 5,
                shown
                    .figure
                    .is_some_and(|(key, _)| Measure::from_key(key).is_some()),
                target == Target::WaterlineBeam,
            ];
            assert_eq!(places.iter().filter(|p| **p).count(), 1, "{}", shown.key);
            assert_eq!(
                shown.gain,
                "takes about 35\u{a0}% off the doubt in its points"
            );
        }
        let bottom = Suggestion {
            target: Target::Bottom,
            narrows: 0.1,
        };
        assert_eq!(step(&bottom, SeatHeight::Low).title, "Look at the bottom");
        assert_eq!(field_of(Target::Seat, SeatHeight::Low), "hull-seat");
        assert_eq!(field_of(Target::Weight, SeatHeight::Low), "hull-weight");
    }
}

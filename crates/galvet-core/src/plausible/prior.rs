//! What is guessed of a hull's shape and weight, and how widely.
//!
//! Leaflets give length, beam and weight; the rest is a guess with a width.
//! The guesses are guide values; whatever the survey has measured replaces them.

use super::bottoms::Bottoms;
use super::fitted::{masses, seats};
use super::spread::{Spread, length_sd};
use crate::body::{Shape, estimate::LEAST_HEIGHT};
use crate::guide::{Guide, Guides};
use crate::hull::{BottomShape, Construction, Measure, Reading, Survey, ZoneKind};

/// Number of shape parameters, and dimensions of the sample.
pub const DIMENSIONS: usize = 18;

/// Which coordinate of the sample a parameter is. A hull's bottom is a coordinate like
/// the others: its place among the bottoms such a hull may have, narrowest first.
pub(crate) mod coordinate {
    pub(crate) const STERN_END: usize = 2;
    pub(crate) const DEPTH: usize = 3;
    pub(crate) const FLOOR: usize = 6;
    pub(crate) const FULLNESS: usize = 7;
    pub(crate) const HULL_MASS: usize = 8;
    pub(crate) const RECESS_BREADTH: usize = 10;
    pub(crate) const RECESS_TO: usize = 12;
    pub(crate) const BOTTOM: usize = 13;
    pub(crate) const FLARE: usize = 14;
    pub(crate) const BEAM: usize = 15;
    pub(crate) const SEAT: usize = 16;
    pub(crate) const HIGH_SEAT: usize = 17;
}

/// What is known and guessed about a hull, parameter by parameter.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapePrior {
    spreads: [Spread; DIMENSIONS],
    /// Whether [`coordinate::HULL_MASS`] is the bare hull, on which the kit
    /// comes, rather than the fitted one, in which it is.
    bare: bool,
    measured: bool,
    sheer: (f64, f64),
    board: bool,
    bottom: Bottoms,
    /// How much wider than its section an arch is at the water, share.
    arch_keeps: f64,
}

/// Error of the beam, share of it, by who read it.
fn beam_share(reading: Option<&Reading>, guides: &Guides) -> f64 {
    use crate::hull::Source;
    match reading {
        Some(Reading {
            error: Some(error),
            value,
            ..
        }) => error.max(guides[Guide::BeamTapeSd]) / value,
        Some(r) if r.source.is_measured() => guides[Guide::BeamTapeSd] / r.value,
        Some(Reading {
            source: Source::Brochure | Source::Label,
            ..
        }) => guides[Guide::BeamSheetShare],
        _ => guides[Guide::BeamTalkShare],
    }
}

impl ShapePrior {
    /// Builds the prior of a surveyed hull: guide values by construction,
    /// replaced wherever the survey has measured. `length` and `beam` in m;
    /// `measured` where its sections are.
    #[must_use]
    pub fn of(survey: &Survey, length: f64, beam: f64, measured: bool, guides: &Guides) -> Self {
        let g = |guide: Guide| guides[guide];
        let board = survey.construction == Construction::Board;
        let pick = |usual: Guide, of_a_board: Guide| g(if board { of_a_board } else { usual });
        let inside = survey.construction == Construction::SitInside;
        let (depth, floor) = match survey.construction {
            Construction::SitOnTop => (Guide::DepthSitOnTop, Guide::FloorSitOnTop),
            Construction::SitInside => (Guide::DepthSitInside, Guide::FloorSitInside),
            Construction::Board => (Guide::DepthBoard, Guide::FloorBoard),
        };
        let (breadth, from, to) = if inside {
            (Guide::OpeningBreadth, Guide::OpeningFrom, Guide::OpeningTo)
        } else {
            (Guide::RecessBreadth, Guide::RecessFrom, Guide::RecessTo)
        };
        // The deep cockpit of a sit-on-top lies between 25 and 62 % of the
        // length; the opening of a sit-inside reaches over mid-length.
        let (latest, earliest) = if inside { (0.45, 0.55) } else { (0.24, 0.66) };
        let (mass, kit, bare) = masses(survey, length, beam, guides);
        let [seat, high_seat] = seats(survey, beam, guides);
        let floor_sd = if inside {
            Guide::FloorSitInsideSd
        } else {
            Guide::FloorSd
        };
        let rise = g(Guide::RiseSd);
        let ends = g(Guide::RecessEndSd);
        let mut spreads = [
            Spread::new(
                pick(Guide::PlanBow, Guide::PlanBowBoard),
                g(Guide::PlanSd),
                1.5,
                6.0,
            ),
            Spread::new(
                pick(Guide::PlanStern, Guide::PlanSternBoard),
                g(Guide::PlanSd),
                1.5,
                6.0,
            ),
            Spread::new(
                pick(Guide::SternEnd, Guide::SternEndBoard),
                g(Guide::SternEndSd),
                0.0,
                1.0,
            ),
            Spread::new(g(depth), g(Guide::DepthSd), 0.08, 0.8),
            Spread::new(g(Guide::RiseBow), rise, 0.0, 0.25),
            Spread::new(g(Guide::RiseStern), rise, 0.0, 0.20),
            Spread::new(g(floor), g(floor_sd), 0.01, 0.6),
            Spread::new(0.0, g(Guide::FullnessSd), -0.2, 0.2),
            mass,
            kit,
            Spread::new(g(breadth), g(Guide::RecessBreadthSd), 0.1, 0.95),
            Spread::new(g(from), ends, 0.03, latest),
            Spread::new(g(to), ends, earliest, 0.99),
            Spread::new(0.0, 1.0, -9.0, 9.0),
            Spread::new(g(Guide::Flare), g(Guide::FlareSd), -0.2, 0.2),
            Spread::new(
                1.0,
                beam_share(survey.best(Measure::Beam), guides),
                0.9,
                1.1,
            ),
            seat,
            high_seat,
        ];
        let mut known = |index: usize, measure: Measure, scale: f64| {
            if let Some(reading) = survey.best(measure) {
                spreads[index].read(reading.value * scale, length_sd(reading, guides) * scale);
            }
        };
        known(coordinate::DEPTH, Measure::Depth, 1.0);
        known(coordinate::FLOOR, Measure::FloorHeight, 1.0);
        known(coordinate::STERN_END, Measure::TransomWidth, 1.0 / beam);
        known(coordinate::RECESS_BREADTH, Measure::FloorWidth, 1.0 / beam);
        if let Some(to) = well_end(survey) {
            spreads[coordinate::RECESS_TO].read(to / length, g(Guide::TapeSd) / length);
        }
        if measured {
            let error = g(Guide::OffsetShare);
            spreads[coordinate::DEPTH] = Spread::new(1.0, error, 0.9, 1.1);
            spreads[coordinate::FULLNESS] = Spread::new(1.0, error, 0.9, 1.1);
        }
        Self {
            spreads,
            bare,
            measured,
            sheer: (g(Guide::SheerBow), g(Guide::SheerStern)),
            board,
            bottom: Bottoms::of(survey, beam, guides),
            arch_keeps: g(Guide::ArchKeeps),
        }
    }

    /// The shape whose every parameter lies `normal[i]` standard deviations
    /// from its median, made consistent: floor below the gunwale at every
    /// station, ends higher than nothing.
    #[must_use]
    pub fn shape(&self, normal: &[f64; DIMENSIONS]) -> Shape {
        let v: [f64; DIMENSIONS] = std::array::from_fn(|i| self.spreads[i].at(normal[i]));
        let [
            bow_exponent,
            stern_exponent,
            stern_end,
            depth,
            bow_rise,
            stern_rise,
            floor,
            fullness,
            mass,
            kit_mass,
            recess_breadth,
            recess_from,
            recess_to,
            bottom,
            flare,
            breadth,
            seat,
            high_seat,
        ] = v;
        let bottom = self.bottom.at(bottom);
        let keeps = match bottom {
            BottomShape::ShallowArch => self.arch_keeps,
            _ => 0.0,
        };
        let most_rise = |sheer: f64| depth + sheer - LEAST_HEIGHT;
        // A floor cannot lie above the gunwale: 3 cm of side are left where
        // there is room for them. A board's pad is not above its deck.
        let highest = if self.board {
            depth
        } else {
            (depth - 0.03).max(0.5 * depth)
        };
        let hull_mass = if self.bare { mass + kit_mass } else { mass };
        Shape {
            bottom,
            bow_exponent,
            stern_exponent,
            stern_end,
            depth,
            bow_rise: bow_rise.min(most_rise(self.sheer.0)),
            stern_rise: stern_rise.min(most_rise(self.sheer.1)),
            floor: floor.min(highest),
            fullness: if self.measured { 0.0 } else { fullness },
            flare: if self.measured { 0.0 } else { flare - keeps },
            recess_breadth,
            recess_from,
            recess_to,
            breadth_scale: if self.measured { fullness } else { breadth },
            height_scale: if self.measured { depth } else { 1.0 },
            hull_mass,
            // A part is less than the whole, whatever a wild record says.
            kit_mass: kit_mass.min(0.7 * hull_mass),
            seats: [seat, high_seat.max(seat)],
            guess: [0.0; 3],
        }
    }

    /// Whether it is not known which of several bottoms the hull has.
    pub(super) const fn bottom_is_open(&self) -> bool {
        self.bottom.is_open()
    }

    /// The median shape.
    #[must_use]
    pub fn median(&self) -> Shape {
        self.shape(&[0.0; DIMENSIONS])
    }
}

/// Where the tank well ends, m from the bow: where somebody put a tape to it.
fn well_end(survey: &Survey) -> Option<f64> {
    let zones = survey.fitout.zones.iter();
    let wells = zones.filter(|z| z.kind == ZoneKind::TankWell && z.source.is_measured());
    wells.map(|z| z.to).reduce(f64::max)
}

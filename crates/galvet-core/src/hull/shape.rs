//! The parameters of an estimated body, their medians and their spreads.
//!
//! Spec sheets give length, beam and weight; the rest of the shape is a guess
//! with a width. This file is the one place where those guesses live.

use super::survey::{Construction, Measure, Survey};

/// What is needed besides length, beam and bottom shape to draw a body.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shape {
    /// Exponent of the plan form forward of mid-length.
    pub bow_exponent: f64,
    /// Exponent of the plan form aft of mid-length.
    pub stern_exponent: f64,
    /// Breadth left at the stern's end, as a share of the beam.
    pub stern_end: f64,
    /// Hull depth at mid-length, baseline to gunwale, m.
    pub depth: f64,
    /// Rise of the keel at the bow's end, m.
    pub bow_rise: f64,
    /// Rise of the keel at the stern's end, m.
    pub stern_rise: f64,
    /// Cockpit floor above the baseline, m (boards: the standing surface).
    pub floor: f64,
    /// Swell of the half-section, see [`super::section::swell`].
    pub fullness: f64,
    /// Mass of the fitted hull, kg.
    pub hull_mass: f64,
}

/// A value with the width of our ignorance of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// Middle value.
    pub median: f64,
    /// One standard deviation.
    pub sd: f64,
    /// Physical floor below which no sample goes.
    pub lo: f64,
    /// Physical ceiling above which no sample goes.
    pub hi: f64,
}

impl Spread {
    const fn new(median: f64, sd: f64, lo: f64, hi: f64) -> Self {
        Self { median, sd, lo, hi }
    }

    /// Value `normal` standard deviations from the median, kept physical.
    #[must_use]
    pub fn at(&self, normal: f64) -> f64 {
        (self.median + self.sd * normal).clamp(self.lo, self.hi)
    }
}

/// Number of shape parameters, and dimensions of the sample.
pub const DIMENSIONS: usize = 9;

/// What is known and guessed about a hull's shape, parameter by parameter, in
/// the order of [`Shape`]'s fields.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapePrior {
    spreads: [Spread; DIMENSIONS],
}

/// Reading error of a careful tape over a moulded hull, 1 sd, m. Guide value.
const TAPE_SD: f64 = 0.004;
/// A brochure's depth is rounded and its datum uncertain, 1 sd, m. Guide value.
const BROCHURE_SD: f64 = 0.012;
/// Mass of a fitted hull for each m² of length × beam, kg/m²: what the demo
/// fleet and the sanity table have in common. Guide value, used only where no
/// weight is known, and marked.
const MASS_PER_AREA: f64 = 11.0;
/// 1 sd of that guess, kg/m². Guide value.
const MASS_PER_AREA_SD: f64 = 1.6;
/// What a drive, its seat and its rudder add to a bare hull, kg, and 1 sd.
/// Handbook, chapter 1: a drive alone is 8-12 kg. Guide value.
const DRIVE_MASS: Spread = Spread::new(11.0, 2.5, 4.0, 25.0);
/// What a seat and its rails add, kg, and 1 sd. Guide value.
const SEAT_MASS: Spread = Spread::new(2.5, 0.8, 0.5, 6.0);
/// Readings of weight on a scale, and from a brochure, 1 sd as a share.
const SCALE_SHARE_SD: f64 = 0.005;
const BROCHURE_SHARE_SD: f64 = 0.02;

impl ShapePrior {
    /// Builds the prior of a surveyed hull: guide values by construction,
    /// replaced wherever the survey has measured. `length` and `beam` in m.
    #[must_use]
    pub fn of(survey: &Survey, length: f64, beam: f64) -> Self {
        let board = survey.construction == Construction::Board;
        // Handbook, chapter 2, "Starting medians and spreads".
        let stern_end = if board { 0.4 } else { 0.12 };
        let (depth, floor) = match survey.construction {
            Construction::SitOnTop => (0.36, 0.135),
            // A sit-inside's angler sits near the bottom in a deeper shell.
            Construction::SitInside => (0.34, 0.045),
            Construction::Board => (0.20, 0.16),
        };
        let mut spreads = [
            Spread::new(if board { 3.5 } else { 2.6 }, 0.35, 1.5, 6.0),
            Spread::new(if board { 4.0 } else { 2.9 }, 0.35, 1.5, 6.0),
            Spread::new(stern_end, 0.08, 0.0, 0.8),
            Spread::new(depth, 0.025, 0.08, 0.8),
            Spread::new(0.09, 0.03, 0.0, 0.25),
            Spread::new(0.06, 0.03, 0.0, 0.20),
            Spread::new(floor, 0.02, 0.02, 0.6),
            Spread::new(0.0, 0.08, -0.2, 0.2),
            hull_mass(survey, length, beam),
        ];
        let mut measured = |index: usize, measure: Measure, scale: f64| {
            if let Some(reading) = survey.best(measure) {
                let sd = if reading.source.is_measured() {
                    TAPE_SD
                } else {
                    BROCHURE_SD
                };
                spreads[index].median = reading.value * scale;
                spreads[index].sd = sd * scale;
            }
        };
        measured(3, Measure::Depth, 1.0);
        measured(6, Measure::FloorHeight, 1.0);
        measured(2, Measure::TransomWidth, 1.0 / beam);
        Self { spreads }
    }

    /// The shape whose every parameter lies `normal[i]` standard deviations
    /// from its median.
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
            hull_mass,
        ] = v;
        // A floor cannot lie above the gunwale, nor flush with the bottom.
        let floor = floor.min(depth - 0.03);
        Shape {
            bow_exponent,
            stern_exponent,
            stern_end,
            depth,
            bow_rise,
            stern_rise,
            floor,
            fullness,
            hull_mass,
        }
    }

    /// The median shape.
    #[must_use]
    pub fn median(&self) -> Shape {
        self.shape(&[0.0; DIMENSIONS])
    }
}

/// The fitted hull's mass with its width: the fitted weight where known, else
/// bare plus what fitting usually adds, else a guess from the size.
fn hull_mass(survey: &Survey, length: f64, beam: f64) -> Spread {
    let share = |measured: bool| {
        if measured {
            SCALE_SHARE_SD
        } else {
            BROCHURE_SHARE_SD
        }
    };
    let kit = if survey.propulsion.has_drive() {
        DRIVE_MASS
    } else {
        SEAT_MASS
    };
    let (median, sd) = if let Some(fitted) = survey.best(Measure::FittedWeight) {
        (
            fitted.value,
            fitted.value * share(fitted.source.is_measured()),
        )
    } else if let Some(bare) = survey.best(Measure::BareWeight) {
        let scale = bare.value * share(bare.source.is_measured());
        (bare.value + kit.median, scale.hypot(kit.sd))
    } else {
        let area = length * beam;
        (area * MASS_PER_AREA, area * MASS_PER_AREA_SD)
    };
    Spread::new(median, sd, 5.0, 160.0)
}

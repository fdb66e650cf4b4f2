//! What is foretold of a reading by what is known without it.

use super::posterior::Posterior;
use super::predict::{Tank, readings};
use super::sampled::{LANES, Sampled};
use crate::base::Range;
use crate::body::Shape;
use crate::hull::{Evidence, FloatReading};

/// Nodes of Gauss and Hermite's rule for a normal error, and their weights (Abramowitz and
/// Stegun, *Handbook of Mathematical Functions*, table 25.10, n = 5, for a unit normal).
const ERRORS: [(f64, f64); 5] = [
    (-2.856_970_013_872_806, 0.011_257_411_327_720_69),
    (-1.355_626_179_974_266, 0.222_075_922_005_612_6),
    (0.0, 0.533_333_333_333_333_3),
    (1.355_626_179_974_266, 0.222_075_922_005_612_6),
    (2.856_970_013_872_806, 0.011_257_411_327_720_69),
];

/// Shapes a speed is foretold over.
const FEW: usize = 16;

/// One number read, and what was foretold of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Foretold {
    /// As read: m, s or m/s.
    pub read: f64,
    /// Between what it was expected to be read: over the plausible shapes, with the error of
    /// the reading itself. Its share is of the shapes that have an answer.
    pub range: Range,
}

impl Foretold {
    /// Whether it was read between the ends of what was foretold.
    #[must_use]
    pub fn holds(&self) -> bool {
        (self.range.p5..=self.range.p95).contains(&self.read)
    }

    /// How far it was read above the middle, in its own unit.
    #[must_use]
    pub fn off(&self) -> f64 {
        self.read - self.range.p50
    }
}

/// What a posterior foretells for each number of a measurement, in the order they stand in
/// it. The measurement must not be among its own evidence, else it foretells itself.
/// Empty where nothing floats with what was aboard.
#[must_use]
pub fn foretold(posterior: &Posterior, e: &Evidence) -> Vec<Foretold> {
    // Waves are dear, and what they spread is small beside the effort.
    let few = matches!(e.reading, FloatReading::Speed { .. });
    let posterior = &if few {
        posterior.coarse(FEW)
    } else {
        posterior.clone()
    };
    let sampled = Sampled {
        survey: &posterior.survey,
        guides: &posterior.guides,
        form: &posterior.form,
        shapes: &posterior.shapes,
    };
    let rows = readings(sampled.survey, e, sampled.guides);
    let tank = Tank::of(sampled);
    let mut predicted: Vec<Vec<f64>> = vec![Vec::new(); rows.len()];
    for group in posterior.shapes.chunks(LANES) {
        let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
        let body = posterior.form.draw(&lanes);
        for (column, row) in predicted.iter_mut().zip(tank.predict(&lanes, &body, e)) {
            column.extend(&row[..group.len()]);
        }
    }
    let by_logarithm = matches!(
        e.reading,
        FloatReading::Drift { .. } | FloatReading::Speed { .. } | FloatReading::Drain { .. }
    );
    let back = |v: f64| if by_logarithm { v.exp() } else { v };
    let found = rows
        .into_iter()
        .zip(predicted)
        .filter_map(|((read, sd), all)| {
            let weighed = all.iter().zip(&posterior.weights);
            let spread = weighed.flat_map(|(value, weight)| {
                ERRORS.map(|(off, share)| (back(value + sd * off), weight * share))
            });
            Some(Foretold {
                read: back(read),
                range: Range::of(spread)?,
            })
        });
    found.collect()
}

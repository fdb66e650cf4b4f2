//! A hull's figures with their ranges: the whole sample evaluated.

use crate::brief::Brief;
use crate::evaluate::{Afloat, CannotFloat, Setup};
use crate::float::Accuracy;
use crate::hull::{Shape, Survey};
use crate::quantity::{Quantity, Values};
use crate::sample::{self, Range};

/// Shapes worked side by side. Four doubles are two SSE2 registers or one AVX
/// register; eight spill too much. Measured in `docs/architecture.md`.
pub const LANES: usize = 4;

/// All figures of one hull under one brief.
#[derive(Debug, Clone)]
pub struct Assessment<'a> {
    /// Hull and brief.
    pub setup: Setup<'a>,
    /// The median shape, for drawing.
    pub median_shape: Shape,
    /// Figures of every shape of the sample, in its order.
    pub sample: Vec<Values>,
    ranges: Vec<Option<Range>>,
}

impl<'a> Assessment<'a> {
    /// Evaluates `survey` under `brief` with `size` shapes.
    ///
    /// # Errors
    /// [`CannotFloat`] when there is no body to float.
    pub fn of(survey: &'a Survey, brief: &'a Brief, size: usize) -> Result<Self, CannotFloat> {
        let setup = Setup::new(survey, brief)?;
        let shapes = sample::shapes(&survey.key, &setup.prior, size);
        let sample = evaluate_all(&setup, &shapes);
        let ranges = Quantity::ALL
            .iter()
            .map(|&q| Range::of(sample.iter().filter_map(|v| v.get(q)).collect()))
            .collect();
        Ok(Self {
            median_shape: setup.prior.median(),
            setup,
            sample,
            ranges,
        })
    }

    /// Median and 5-95 % range of a figure; `None` where it does not apply or
    /// is not known.
    #[must_use]
    pub fn range(&self, quantity: Quantity) -> Option<Range> {
        self.ranges[quantity as usize]
    }

    /// Median of a figure, SI.
    #[must_use]
    pub fn median(&self, quantity: Quantity) -> Option<f64> {
        self.range(quantity).map(|r| r.p50)
    }
}

/// Evaluates shapes in groups of [`LANES`]; the last group repeats its last
/// shape to fill the lanes.
fn evaluate_all(setup: &Setup<'_>, shapes: &[Shape]) -> Vec<Values> {
    let mut out = Vec::with_capacity(shapes.len());
    for group in shapes.chunks(LANES) {
        let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
        let figures = Afloat::new(setup, &lanes, Accuracy::SAMPLE).figures();
        out.extend(figures.into_iter().take(group.len()));
    }
    out
}

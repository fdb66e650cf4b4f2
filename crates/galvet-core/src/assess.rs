//! A hull's figures with their ranges: the whole sample evaluated.

use crate::brief::Brief;
use crate::evaluate::{Afloat, CannotFloat, Setup, WaterLimit};
use crate::evidence::{self, Weighed};
use crate::float::Accuracy;
use crate::hull::{Shape, Survey};
use crate::quantity::{Quantity, Values};
use crate::sample::Range;
use rayon::prelude::*;

/// Shapes worked side by side. Four doubles are two SSE2 registers or one AVX
/// register; eight spill too much. Measured in `docs/architecture.md`.
pub const LANES: usize = 4;

/// All figures of one hull under one brief.
#[derive(Debug, Clone)]
pub struct Assessment<'a> {
    /// Hull and brief.
    pub setup: Setup<'a>,
    /// The shape nearest the middle of the weighted sample, for drawing.
    pub median_shape: Shape,
    /// The shapes with their weights, and what disagrees.
    pub weighed: Weighed,
    /// Figures of every shape of the sample, in its order.
    pub sample: Vec<Values>,
    ranges: Vec<Option<Range>>,
}

impl<'a> Assessment<'a> {
    /// Evaluates `survey` under `brief` with `size` shapes, weighed by the
    /// label and by what was measured afloat.
    ///
    /// # Errors
    /// [`CannotFloat`] when there is no body to float.
    pub fn of(survey: &'a Survey, brief: &'a Brief, size: usize) -> Result<Self, CannotFloat> {
        let setup = Setup::new(survey, brief)?;
        let weighed = evidence::weigh(&setup, &survey.evidence, size);
        let sample = evaluate_all(&setup, &weighed.shapes);
        let ranges = Quantity::ALL
            .iter()
            .map(|&q| {
                let known = sample.iter().zip(&weighed.weights);
                Range::of(known.filter_map(|(v, &w)| Some((v.get(q)?, w))).collect())
            })
            .collect();
        Ok(Self {
            median_shape: middle_shape(&setup, &weighed),
            setup,
            weighed,
            sample,
            ranges,
        })
    }

    /// What the label and the measurements say that a reader must hear.
    #[must_use]
    pub fn remarks(&self) -> Vec<String> {
        let mut out = self.weighed.disagreements.clone();
        let shapes = [self.median_shape];
        let afloat = Afloat::new(&self.setup, &shapes, Accuracy::SAMPLE);
        let label = self.median(Quantity::LabelMargin);
        if self.setup.limit == WaterLimit::Floor
            && let Some(label) = label
        {
            let case = afloat.case(self.setup.carriage());
            let wet = afloat.further(&case, Some(0.0)).map(|f| f.0[0]);
            if wet.is_some_and(|wet| wet < label) {
                out.push(
                    "the label holds only with plugs: loaded to it with open scuppers, the floor is under water"
                        .to_owned(),
                );
            }
        }
        out
    }

    /// Indices of the sample in which every shape stands as often as it weighs
    /// (systematic resampling), spread over the sample so that pairing two
    /// hulls' indices mixes them.
    #[must_use]
    pub fn evenly(&self) -> Vec<usize> {
        let size = self.sample.len();
        let mut out = vec![0; size];
        let (mut i, mut reached) = (0, self.weighed.weights.first().copied().unwrap_or(0.0));
        // Steps by the golden section walk through all places once when the
        // step and the size have no common factor.
        let step = coprime_step(size);
        let mut place = 0;
        for n in 0..size {
            let wanted = (n as f64 + 0.5) / size as f64;
            while reached < wanted && i + 1 < size {
                i += 1;
                reached += self.weighed.weights[i];
            }
            out[place] = i;
            place = (place + step) % size;
        }
        out
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

/// The shape whose parameters are the weighted medians.
fn middle_shape(setup: &Setup<'_>, weighed: &Weighed) -> Shape {
    let middle = std::array::from_fn(|j| {
        let column = weighed.normals.iter().zip(&weighed.weights);
        Range::of(column.map(|(n, &w)| (n[j], w)).collect()).map_or(0.0, |r| r.p50)
    });
    setup.prior.shape(&middle)
}

/// A step near the golden section of `size` without a factor in common.
fn coprime_step(size: usize) -> usize {
    fn common(a: usize, b: usize) -> usize {
        if b == 0 { a } else { common(b, a % b) }
    }
    let wanted = (size as f64 * 0.618) as usize;
    (wanted.max(1)..)
        .find(|&step| common(step, size.max(1)) == 1)
        .unwrap_or(1)
}

/// Evaluates shapes in groups of [`LANES`]; the last group repeats its last
/// shape to fill the lanes.
fn evaluate_all(setup: &Setup<'_>, shapes: &[Shape]) -> Vec<Values> {
    shapes
        .par_chunks(LANES)
        .flat_map_iter(|group| {
            let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
            let figures = Afloat::new(setup, &lanes, Accuracy::SAMPLE).figures();
            figures.into_iter().take(group.len())
        })
        .collect()
}

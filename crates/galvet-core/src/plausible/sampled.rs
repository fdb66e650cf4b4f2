//! A record's shapes, as they are asked what they predict.

use crate::body::{Form, Shape};
use crate::guide::Guides;
use crate::hull::Survey;

/// Shapes worked side by side. Four doubles are two SSE2 registers or one AVX
/// register; eight spill too much. Measured in `docs/architecture.md`.
pub const LANES: usize = 4;

/// A record's shapes, to be asked what each predicts.
#[derive(Clone, Copy)]
pub(super) struct Sampled<'a> {
    pub(super) survey: &'a Survey,
    pub(super) guides: &'a Guides,
    pub(super) form: &'a Form,
    pub(super) shapes: &'a [Shape],
}

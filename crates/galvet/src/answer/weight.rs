//! What is remembered, in bytes: what lies on the heap for it, counted by its parts. A
//! test holds it against what the allocator gave out.

use super::afloat::{Answered, Figures, Shapes};
use galvet_core::body::Shape;
use galvet_core::figures::{Kept, Quantity, Range, Setup};
use galvet_core::float::Fate;
use galvet_core::rank::{Ranked, RuledOut};
use galvet_core::stow::{Layout, Stowed};

/// Words, record and what a hull's bodies are drawn from.
const RECORD: usize = 9 * 1024;
/// Drawings and words of a hull, made when somebody looks: one whole portrait is 10 kB,
/// a row's section 1, what else is reckoned for it 2, what a day that turns does to it 3.
const LOOKED_AT: usize = 7 * 1024;
/// The names of a thing and of its place.
const NAMES: usize = 96;
/// What is left of the deck, place by place.
const DECK: usize = 1024;
/// Reasons and demands of a hull in an answer.
const REASONS: usize = 768;

/// A hull's shapes. The points they follow from are all hulls' own, but where evidence
/// moved them.
pub(super) fn shapes(shapes: &Shapes) -> usize {
    let weight = |p: &std::sync::Arc<_>| {
        let p: &galvet_core::plausible::Posterior = p;
        p.shapes.len() * (size_of::<Shape>() + 2 * size_of::<f64>())
    };
    RECORD + shapes.as_ref().map_or(0, weight)
}

fn layout(layout: &Layout) -> usize {
    let things = layout.stowed.len() + layout.unplaced.len() + layout.doubts.len();
    DECK + things * (size_of::<Stowed>() + NAMES)
}

/// A hull's figures, without the shapes they are of.
pub(super) fn figures(figures: &Figures) -> usize {
    let Ok(afloat) = figures else {
        return LOOKED_AT;
    };
    let a = &afloat.assessment;
    let per_shape = size_of::<Kept>() + size_of::<Fate>();
    a.sample.len() * per_shape
        + size_of::<Setup>()
        + Quantity::COUNT * size_of::<Option<Range>>()
        + layout(&a.setup.loads.layout)
        + LOOKED_AT
}

/// A whole answer, with the figures in it.
pub(super) fn answer(answer: &Answered) -> usize {
    let afloat = answer.afloat.values();
    let floats: usize = afloat.map(|a| figures(&Ok(a.clone()))).sum();
    let ranking = &answer.ranking;
    let told = ranking.ranked.len() * size_of::<Ranked>()
        + ranking.ruled_out.len() * size_of::<RuledOut>();
    floats + told + REASONS * (ranking.ranked.len() + ranking.ruled_out.len())
}

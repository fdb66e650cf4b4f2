//! How a fishing kayak floats, what it carries and how steady it is.
//!
//! This crate computes. It reads no file, opens no socket, knows no clock, no
//! database and no page; everything it needs comes in as validated types and
//! everything it finds goes out as numbers with their ranges.
//!
//! The path of a ranking:
//!
//! 1. A [`hull::Survey`] says what is known of a hull and from whom; a
//!    [`brief::Brief`] asks the question.
//! 2. [`hull::ShapePrior`] turns what is not known into guesses with a width;
//!    [`mod@sample`] draws plausible shapes from them.
//! 3. [`hull::draw`] makes bodies of the shapes, [`mod@float`] settles them under
//!    the loads of [`load`], [`stability`] heels them.
//! 4. [`evaluate`] collects every figure of the [`quantity`] table,
//!    [`assess`] their ranges.
//! 5. [`mod@rank`] rules out, scores, orders and explains.
//! 6. [`portrait`] gives the outlines that the drawings show.
//!
//! Frame everywhere: `x` from the bow, aft positive; `y` to starboard; `z` up
//! from the baseline. Heel is positive to starboard, trim bow up. SI units
//! unless a name says otherwise.

pub mod assess;
pub mod brief;
pub mod effort;
pub mod evaluate;
pub mod evidence;
pub mod float;
pub mod hull;
pub mod lanes;
pub mod load;
pub mod measure_next;
pub mod portrait;
pub mod quantity;
pub mod rank;
pub mod sample;
pub mod stability;
pub mod tilt;
pub mod units;
pub mod water;

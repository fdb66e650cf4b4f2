//! How a fishing kayak floats, what it carries and how steady it is.
//!
//! This crate computes. It reads no file, opens no socket, knows no clock, no
//! database and no page; everything it needs comes in as validated types and
//! everything it finds goes out as numbers with their ranges.
//!
//! Rooms, lower ones first; a room uses those above it in this list, never one
//! below:
//!
//! 1. [`base`]: units, bounds, keyed enums, lanes. [`guide`]: every value that
//!    is judged rather than derived.
//! 2. [`hull`]: the record. [`body`]: geometry, estimated or measured.
//! 3. [`mod@float`], [`stability`], [`effort`], [`draining`]: what water does to a body.
//! 4. [`crew`], [`gear`], [`power`] (batteries wired together), [`rig`], [`stow`], [`load`]: who and what is aboard, and where.
//! 5. [`plausible`]: `Survey → Posterior`, the shapes a record leaves possible.
//! 6. [`question`]: brief, water, schools. [`figures`]: every figure of a hull
//!    under a brief, with its range.
//! 7. [`mod@rank`]: rule out, score, order, explain. [`advise`]: what to measure
//!    next. [`portrait`]: outlines for the drawings. [`papers`], [`log`], [`ahead`]: what
//!    follows for the garage, the water and the next outing. [`pond`]: a hull rolling in time.
//!
//! Frame everywhere: `x` from the bow, aft positive; `y` to starboard; `z` up
//! from the baseline. Heel is positive to starboard, trim bow up. SI units
//! unless a name says otherwise.

pub mod aboard;
pub mod advise;
pub mod ahead;
pub mod base;
pub mod beyond;
pub mod body;
pub mod circuit;
pub mod crew;
pub mod draining;
pub mod effort;
pub mod figures;
pub mod float;
pub mod gear;
pub mod guide;
pub mod handling;
pub mod hull;
pub mod load;
pub mod log;
pub mod papers;
pub mod plausible;
pub mod pond;
pub mod portrait;
pub mod power;
pub mod question;
pub mod rank;
pub mod rig;
pub mod stability;
pub mod stow;

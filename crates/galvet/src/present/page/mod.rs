//! What the pages show, as plain owned values: every number already in the
//! reader's units, every choice already made. Templates only lay it out.

pub mod afloat;
pub mod beside;
pub mod card;
pub mod catalogue;
pub mod changes;
pub mod columns;
pub mod comfort;
pub mod costs;
pub mod deck;
pub mod derivation;
pub mod draft;
pub mod figure;
pub mod filled;
pub mod fittings;
pub mod flip;
pub mod going;
pub mod hull;
pub mod import;
pub mod kit;
pub mod lines;
pub mod moved;
pub mod offer;
pub mod outing;
pub mod ranking;
pub mod reckons;
pub mod record;
pub mod rig;
pub mod sentence;
pub mod sift;
pub mod stow;
pub mod talk;
pub mod variants;
pub mod walk;
pub mod waters;
pub mod work;

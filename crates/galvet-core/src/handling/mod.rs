//! How she handles in wind, from what stands in it and what holds her in the water.
//!
//! Guide figures for columns and tie-breakers: an estimate of an estimated body at
//! rest, beam on to the wind, no waves. How she tracks, turns and holds is judged by
//! people and stands in the record.

mod windage;

pub use windage::{SideAreas, Windage, drift, helm, side_areas, windage};

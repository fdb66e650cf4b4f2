//! How it handles in wind, from what stands in it and what holds it in the water.
//!
//! Guide figures for columns and tie-breakers: an estimate of an estimated body at
//! rest, beam on to the wind, no waves. How it tracks, turns and holds is judged by
//! people and stands in the record.

mod windage;

pub use windage::{SideAreas, Windage, drift, helm, side_areas, windage};

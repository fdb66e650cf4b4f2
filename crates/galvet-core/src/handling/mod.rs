//! How it handles in wind, from what stands in it and what holds it in the water.
//!
//! Guide figures for columns and tie-breakers: an estimate of an estimated body at
//! rest, beam on to the wind, no waves. How it tracks, turns and holds is judged by
//! people and stands in the record.

mod bow;
mod drive;
mod headwind;
mod lift;
mod way;
mod windage;

pub use bow::{Bow, bow, chop_wave, meets};
pub use drive::{Boat, Drive, LEAST, Weather, chop, leeway};
pub use headwind::{Effort, against, efforts};
pub use lift::{Ground, Mass, one_end};
pub use way::{
    Account, Bound, OneWay, Tow, WayHome, account, braked, one_way, rose, tow, way_home,
};
pub use windage::{Drag, SideAreas, Windage, drift, drift_socked, helm, side_areas, windage};

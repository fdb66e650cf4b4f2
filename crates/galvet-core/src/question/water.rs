//! Water types: how much dryness, share of the label and depth each asks for.
//!
//! The values are data (shipped as a file, editable); this module gives them
//! types and says what they mean.

use crate::base::{Bounds, Dimension, words};

words! {
/// How people fish on this water as far as standing goes.
pub enum StandingUse {
    /// Not done here.
    #[strum(message = "not on this water")]
    No,
    /// For a moment.
    #[strum(message = "for a moment")]
    Brief,
    /// Usual.
    #[strum(message = "usual")]
    Wanted,
    /// What the water is fished by.
    #[strum(message = "how it is fished")]
    Essential,
}
}

/// A water type. Lengths in m, mass density in kg/m³.
#[derive(Debug, Clone, PartialEq)]
pub struct Water {
    /// Stable key.
    pub key: String,
    /// Name in the trade's words.
    pub name: String,
    /// Density: fresh 1000, brackish 1010, salt 1025 kg/m³.
    pub density: f64,
    /// Least gunwale freeboard (plugged, sit-inside, board), m.
    pub freeboard: f64,
    /// Least height of the floor above the water (open scuppers), m.
    pub floor_clearance: f64,
    /// Share of the rated capacity to work with, 0.3-1.
    pub working_share: f64,
    /// Least depth of the water, m.
    pub least_depth: f64,
    /// Typical wave and wind in words; a local forecast stands above it.
    pub conditions: String,
    /// Standing on this water.
    pub standing: StandingUse,
    /// Share of capacity in the ranking, 0-1, unless the brief says otherwise.
    pub capacity_weight: f64,
    /// Share of the rough-water reserve in the seated stability score, 0-1.
    pub reserve_share: f64,
    /// Whether a deck that does not drain rules a hull out.
    pub must_drain: bool,
    /// Whether plugging the scuppers is acceptable.
    pub plugs_allowed: bool,
    /// This water's own cautions.
    pub cautions: Vec<String>,
}

impl Water {
    /// Accepted densities, kg/m³.
    pub const DENSITY: Bounds = Bounds::new("water density", Dimension::Ratio, 990.0, 1035.0);
    /// Accepted least freeboards, m.
    pub const FREEBOARD: Bounds = Bounds::new("least freeboard", Dimension::ShortLength, 0.0, 0.5);
    /// Accepted floor clearances, m.
    pub const FLOOR: Bounds = Bounds::new("floor above water", Dimension::FineLength, 0.0, 0.2);
    /// Accepted working shares.
    pub const SHARE: Bounds = Bounds::new("working share", Dimension::Ratio, 0.3, 1.0);
    /// Accepted depths, m.
    pub const DEPTH: Bounds = Bounds::new("least depth", Dimension::Length, 0.05, 50.0);
    /// Accepted weights.
    pub const WEIGHT: Bounds = Bounds::new("weight", Dimension::Ratio, 0.0, 1.0);
}

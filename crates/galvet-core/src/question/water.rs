//! Water types: how much dryness, share of the label and depth each asks for.
//!
//! The values are data (shipped as a file, editable); this module gives them
//! types and says what they mean.

use super::demand::Demand;
use super::wishes::Launch;
use crate::base::{Bounds, Dimension, words};
use crate::guide::{Guide, Guides};

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
    /// Stream, m/s; `None` where nobody says.
    pub stream: Option<f64>,
    /// Depth one anchors in, m; `None` where nobody says.
    pub anchor_depth: Option<f64>,
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
    /// What it asks of a hull.
    pub demands: Vec<Demand>,
    /// This water's own cautions.
    pub cautions: Vec<String>,
}

impl Water {
    /// A quiet lake of fresh water, which asks nothing else of a hull: the lake's guide
    /// values (handbook, chapter 4).
    #[must_use]
    pub fn lake() -> Self {
        Self {
            key: "lake".to_owned(),
            name: "lake".to_owned(),
            density: 1000.0,
            freeboard: 0.15,
            floor_clearance: 0.01,
            working_share: 0.8,
            least_depth: 0.4,
            conditions: String::new(),
            stream: Some(0.0),
            anchor_depth: Some(4.0),
            standing: StandingUse::Wanted,
            capacity_weight: 0.5,
            reserve_share: 0.2,
            must_drain: false,
            plugs_allowed: true,
            demands: Vec::new(),
            cautions: Vec::new(),
        }
    }

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
    /// Accepted streams, m/s.
    pub const STREAM: Bounds = Bounds::new("stream", Dimension::Speed, 0.0, 5.0);
    /// Accepted anchoring depths, m.
    pub const ANCHOR_DEPTH: Bounds = Bounds::new("anchoring depth", Dimension::Length, 0.1, 60.0);
    /// Accepted weights.
    pub const WEIGHT: Bounds = Bounds::new("weight", Dimension::Ratio, 0.0, 1.0);

    /// The same with the limits of a launch, where those are tighter: one who goes out
    /// through surf is bound by the surf's whatever the water beyond.
    #[must_use]
    pub fn launched(mut self, launch: Launch, guides: &Guides) -> Self {
        if launch == Launch::Surf {
            self.freeboard = self.freeboard.max(guides[Guide::SurfFreeboard]);
            self.floor_clearance = self.floor_clearance.max(guides[Guide::SurfFloor]);
            self.working_share = self.working_share.min(guides[Guide::SurfShare]);
            self.must_drain = true;
            self.plugs_allowed = false;
        }
        self
    }

    /// The typical wind its conditions name, m/s: the number before "kn"; `None` where
    /// they name none.
    #[must_use]
    pub fn wind(&self) -> Option<f64> {
        /// A knot is a nautical mile of 1852 m an hour.
        const KNOT: f64 = 1852.0 / 3600.0;
        let usable = self.named("kn").filter(|kn| (0.0..=60.0).contains(kn));
        usable.map(|knots| knots * KNOT)
    }

    /// The typical wave its conditions name, m: the number before "m"; `None` where they
    /// name none.
    #[must_use]
    pub fn wave(&self) -> Option<f64> {
        self.named("m").filter(|m| (0.0..=5.0).contains(m))
    }

    /// The number its conditions name before a unit.
    fn named(&self, unit: &str) -> Option<f64> {
        let words: Vec<&str> = self.conditions.split_whitespace().collect();
        words.windows(2).find_map(|pair| {
            let its = pair[1].trim_end_matches(|c: char| !c.is_alphabetic()) == unit;
            its.then(|| pair[0].parse::<f64>().ok()).flatten()
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn saying(conditions: &str) -> Water {
        Water {
            conditions: conditions.into(),
            ..Water::lake()
        }
    }

    #[test]
    fn the_tighter_limit_of_launch_and_water_binds() {
        let guides = Guides::default();
        let lake = saying("");
        assert_eq!(lake.clone().launched(Launch::Ramp, &guides), lake);
        let surf = lake.launched(Launch::Surf, &guides);
        let limits = (surf.freeboard, surf.floor_clearance, surf.working_share);
        assert_eq!(limits, (0.22, 0.02, 0.60));
        assert!(surf.must_drain && !surf.plugs_allowed);
        // What is tighter on the water stays.
        let mut strict = saying("");
        (
            strict.freeboard,
            strict.floor_clearance,
            strict.working_share,
        ) = (0.3, 0.05, 0.5);
        let then = strict.launched(Launch::Surf, &guides);
        let limits = (then.freeboard, then.floor_clearance, then.working_share);
        assert_eq!(limits, (0.3, 0.05, 0.5));
    }

    #[test]
    fn the_wind_is_read_from_what_is_said_of_the_water() {
        let wind = |said: &str| saying(said).wind();
        let twelve = wind("0.15 m / 12 kn").unwrap();
        assert!((twelve - 6.1733).abs() < 1e-4, "{twelve}");
        assert_eq!(wind("waves of 0.3 m, wind 12 kn."), Some(twelve));
        for none in ["", "moving water", "kn", "many kn", "900 kn"] {
            assert_eq!(wind(none), None, "{none}");
        }
    }
}

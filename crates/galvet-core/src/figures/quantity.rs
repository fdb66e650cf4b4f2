//! The quantity table: every figure Galvet shows, once.
//!
//! Pages, JSON, CSV, print and help all read this table, so a figure has one
//! symbol, one precision, one label and one plain meaning everywhere. To add a
//! figure: add a row here, and set it where it is computed.

use crate::base::{Dimension, System};

/// Which way a figure is better.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Better {
    /// More is better.
    Higher,
    /// Less is better.
    Lower,
    /// Neither: it depends, or it should be near zero.
    Neither,
}

/// Which group a figure is shown in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Group {
    /// What it carries.
    Capacity,
    /// How it lies in the water.
    Floating,
    /// How steady it is.
    Stability,
}

/// One row of the table.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Row {
    /// Name in JSON and CSV, carrying the unit of [`Row::json_scale`].
    pub key: &'static str,
    /// Symbol of the trade or the field.
    pub symbol: &'static str,
    /// Short label.
    pub label: &'static str,
    /// What it means, for somebody who has not met it.
    pub meaning: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Decimals shown in metric units.
    pub decimals: usize,
    /// Factor from SI to the unit in [`Row::key`].
    pub json_scale: f64,
    /// Which way is better.
    pub better: Better,
    /// Where it is shown.
    pub group: Group,
}

impl Row {
    /// Value and unit in the reader's system.
    #[must_use]
    pub fn text(&self, system: System, si: f64) -> String {
        system.text(self.dimension, si, self.decimals)
    }

    /// The number alone in the reader's system.
    #[must_use]
    pub fn number(&self, system: System, si: f64) -> String {
        system.number(self.dimension, si, self.decimals)
    }
}

macro_rules! quantities {
    ($($(#[$doc:meta])* $name:ident = $key:literal, $symbol:literal, $label:literal, $dim:ident, $decimals:literal, $scale:expr, $better:ident, $group:ident, $meaning:literal;)*) => {
        /// A figure of a hull under a brief. Values are SI; angles in degrees.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
        pub enum Quantity {
            $($(#[$doc])* $name,)*
        }

        impl Quantity {
            /// All figures in the order they are shown.
            pub const ALL: &'static [Self] = &[$(Self::$name),*];
            /// How many there are.
            pub const COUNT: usize = Self::ALL.len();

            /// Its row in the table.
            #[must_use]
            pub const fn row(self) -> Row {
                match self {
                    $(Self::$name => Row {
                        key: $key,
                        symbol: $symbol,
                        label: $label,
                        meaning: $meaning,
                        dimension: Dimension::$dim,
                        decimals: $decimals,
                        json_scale: $scale,
                        better: Better::$better,
                        group: Group::$group,
                    },)*
                }
            }
        }
    };
}

quantities! {
    /// Load counted against the label, kg.
    Counted = "counted_kg", "W", "counted load", Mass, 0, 1.0, Neither, Capacity,
        "everything the maker's rated capacity is meant to cover: crew, clothing, kit, water and fish, and seat and drive where the label counts them";
    /// Rated capacity less the counted load, kg.
    LabelMargin = "label_margin_kg", "", "label margin", Mass, 0, 1.0, Higher, Capacity,
        "what is left under the maker's rated capacity";
    /// Working share of the rated capacity less the counted load, kg.
    WorkingMargin = "working_margin_kg", "", "working margin", Mass, 0, 1.0, Higher, Capacity,
        "what is left under the share of the rated capacity that this water allows";
    /// Mass the hull takes until the water reaches its limit, kg.
    WaterlineMargin = "waterline_margin_kg", "", "waterline margin", Mass, 0, 1.0, Higher, Capacity,
        "what can still come aboard before the floor is too near the water (open scuppers) or the gunwale too low (plugged, sit-inside, board)";
    /// The smallest margin, kg.
    BindingMargin = "binding_margin_kg", "", "margin", Mass, 0, 1.0, Higher, Capacity,
        "the tightest of the three limits: label, working share, waterline";
    /// Draft of the hull at mid-length, m.
    Draft = "draft_m", "T", "draft", FineLength, 0, 1.0, Lower, Floating,
        "how deep the hull sits at mid-length";
    /// Depth of the deepest point of the bottom, as trimmed, m.
    Deepest = "deepest_m", "", "deepest point", FineLength, 0, 1.0, Lower, Floating,
        "how deep the lowest point of the bottom lies as the hull is trimmed, wherever along the hull that is";
    /// Depth with the drive or motor down, m.
    DraftWithDrive = "draft_with_drive_m", "", "deepest, drive down", FineLength, 0, 1.0, Lower, Floating,
        "depth of water needed with the drive or motor down, reckoned from the deepest point";
    /// Trim, degrees, bow up positive.
    Trim = "trim_deg", "θ", "trim, bow up", Angle, 1, 1.0, Neither, Floating,
        "how far the bow lies up; bow down more than half a degree ploughs, stern down more than one and a half slaps";
    /// List, degrees.
    List = "list_deg", "", "list", Angle, 1, 1.0, Lower, Floating,
        "how far it leans by itself because the load lies to one side";
    /// How far the angler sits aside to level the kit, m; only where it would not rest
    /// without.
    LevelShift = "level_shift_m", "", "sits aside to level it", FineLength, 0, 1.0, Lower, Floating,
        "how far the angler sits to one side to level kit that lies off the middle, where it would not rest otherwise";
    /// Cockpit floor above the water, m.
    FloorAboveWater = "floor_above_water_m", "", "floor above water", FineLength, 0, 1.0, Higher, Floating,
        "height of the lowest place of the cockpit floor over the water: below zero, open scuppers let water in";
    /// Least gunwale freeboard, m.
    Freeboard = "freeboard_m", "F", "least freeboard", FineLength, 0, 1.0, Higher, Floating,
        "lowest place of the gunwale over the water";
    /// Least rim freeboard with the recess full, m.
    SwampedFreeboard = "swamped_freeboard_m", "", "freeboard, swamped", FineLength, 0, 1.0, Higher, Floating,
        "height of the rim over the water after the cockpit has filled: above zero it floats high enough to bail, below it does not";
    /// Highest point above the water, m.
    AirDraft = "air_draft_m", "", "air draft", Length, 2, 1.0, Lower, Floating,
        "height of the angler's head or of the highest kit above the water on a crest of this water's wave, for bridges and branches";
    /// Metacentric height, seated, m.
    Gm = "gm_m", "GM", "initial stability (GM)", ShortLength, 0, 1.0, Higher, Stability,
        "how strongly the hull starts to push back when it begins to lean, seated";
    /// Righting moment for each degree of heel, N·m/°.
    Stiffness = "stiffness_nm_per_deg", "", "initial stiffness", Stiffness, 1, 1.0, Higher, Stability,
        "turning force against each degree of lean, at small angles, seated";
    /// Lean room in a brief lean, m.
    LeanRoom = "lean_room_cm", "s", "lean room, brief", ShortLength, 1, 100.0, Higher, Stability,
        "how far the seated angler's whole weight can move sideways for a few seconds, landing a fish or reaching, before the hull pushes back no harder or water runs in over the rim";
    /// Lean room in a lasting lean, m.
    LastingLean = "lean_room_lasting_cm", "", "lean room, lasting", ShortLength, 1, 100.0, Higher, Stability,
        "the same held for long, while water comes up through what is open";
    /// Shift at which the floor's edge meets the water, m.
    DryLean = "dry_lean_cm", "", "dry lean", ShortLength, 1, 100.0, Higher, Stability,
        "how far the weight can move sideways before water reaches the floor's edge: comfort, not safety";
    /// Heel while landing a fish, degrees.
    ReachHeel = "reach_heel_deg", "", "heel when landing a fish", Angle, 1, 1.0, Lower, Stability,
        "how far it leans for a moment with the torso leaned out and a fish held at the gunwale";
    /// List sitting sideways with the legs over the side, degrees.
    SidewaysList = "sideways_list_deg", "", "list sitting sideways", Angle, 1, 1.0, Lower, Stability,
        "how far it lies over with the angler sitting sideways, legs over the side";
    /// Lean room left sitting sideways, m.
    SidewaysRoom = "sideways_room_cm", "", "lean room left sideways", ShortLength, 1, 100.0, Higher, Stability,
        "how far the weight can still move outward, sitting sideways with the legs over the side";
    /// Seat height over the floor as a share of knee height.
    GettingUp = "getting_up", "", "getting up", Ratio, 2, 1.0, Higher, Stability,
        "seat height over the floor as a share of the angler's knee height: the higher, the easier to stand up from, and the less steady";
    /// Heel at which the floor's edge meets the water, degrees.
    FloorWetAngle = "floor_wet_angle_deg", "", "floor edge wets at", Angle, 1, 1.0, Higher, Stability,
        "lean at which water first reaches the edge of the cockpit floor";
    /// Heel at which the gunwale meets the water, degrees.
    EdgeAngle = "edge_angle_deg", "", "gunwale meets water at", Angle, 1, 1.0, Higher, Stability,
        "lean at which the gunwale goes under; with plugs in or a sit-inside, water pours in over the rim from there";
    /// Heel at which water runs in over the rim, degrees.
    DownFlooding = "down_flooding_deg", "", "water runs in at", Angle, 1, 1.0, Higher, Stability,
        "lean at which water runs over the rim into a cockpit that does not let it out: from here it swamps";
    /// Largest righting arm, m.
    RightingPeak = "righting_peak_m", "GZ max", "righting arm, largest", ShortLength, 1, 1.0, Higher, Stability,
        "the longest lever with which the hull pushes back";
    /// Heel of the largest righting arm, degrees.
    PeakAngle = "peak_angle_deg", "", "largest at", Angle, 0, 1.0, Higher, Stability,
        "lean at which the hull pushes back hardest; past it, leaning gets easier";
    /// Angle of vanishing stability, degrees.
    VanishingAngle = "vanishing_angle_deg", "AVS", "stability vanishes at", Angle, 0, 1.0, Higher, Stability,
        "lean from which the hull with a still body aboard no longer comes back";
    /// Righting energy, J.
    Reserve = "reserve_j", "", "reserve", Energy, 0, 1.0, Higher, Stability,
        "work it takes to lean the hull until the gunwale goes under, or to 40°: what a wave or a lunge must bring";
    /// Natural roll period, s.
    RollPeriod = "roll_period_s", "", "roll period", Time, 1, 1.0, Neither, Stability,
        "time of one roll from side to side and back; short is snappy, long is lazy";
    /// Standing support κ.
    StandingSupport = "standing_support", "κ", "standing support", Ratio, 2, 1.0, Higher, Stability,
        "stiffness of the hull against what a still, stiff body on it would need: at 1 the platform alone could hold it up, below that balance has to do the rest";
    /// Standing room, m.
    StandingRoom = "standing_room_cm", "", "standing room", ShortLength, 1, 100.0, Higher, Stability,
        "how far the weight under the feet can move sideways before the hull leans 10° or the floor's edge wets";
    /// Metacentric height with a rigid standing body, m.
    RigidStandingGm = "rigid_standing_gm_m", "", "GM, rigid standing body", ShortLength, 0, 1.0, Higher, Stability,
        "initial stability if the standing body were a statue; often negative on hulls that people do stand in";
}

/// A guide band of a figure.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Band {
    /// Values below this (SI) belong to it.
    pub below: f64,
    /// What it means.
    pub words: &'static str,
}

impl Quantity {
    /// Guide bands of the figure, rising; empty where there are none. Handbook,
    /// chapters 2 and 3.
    #[must_use]
    pub const fn bands(self) -> &'static [Band] {
        const fn band(below: f64, words: &'static str) -> Band {
            Band { below, words }
        }
        match self {
            Self::StandingSupport => {
                const {
                    &[
                        band(0.6, "stay seated"),
                        band(0.8, "short stands, skilled"),
                        band(1.0, "with practice"),
                        band(f64::INFINITY, "steady"),
                    ]
                }
            }
            Self::GettingUp => {
                const {
                    &[
                        band(0.6, "from the floor"),
                        band(0.85, "with a push"),
                        band(f64::INFINITY, "easy"),
                    ]
                }
            }
            Self::Trim => {
                const {
                    &[
                        band(-0.5, "bow down: ploughs"),
                        band(1.5, "level enough"),
                        band(f64::INFINITY, "stern down: slaps"),
                    ]
                }
            }
            _ => &[],
        }
    }

    /// Words of the band a value lies in.
    #[must_use]
    pub fn band(self, value: f64) -> Option<&'static str> {
        let bands = self.bands().iter();
        bands.into_iter().find(|b| value < b.below).map(|b| b.words)
    }

    /// What stands where a hull has no such figure.
    #[must_use]
    pub const fn absent(self) -> &'static str {
        match self {
            Self::LabelMargin | Self::WorkingMargin => "no label",
            Self::DraftWithDrive => "no drive depth",
            Self::FloorAboveWater => "no floor",
            Self::FloorWetAngle | Self::DryLean => "no open floor",
            Self::DownFlooding => "nothing fills",
            Self::SwampedFreeboard => "nothing fills",
            Self::LevelShift => "sits in the middle",
            Self::EdgeAngle => "not by 90°",
            Self::ReachHeel => "does not hold",
            Self::SidewaysList | Self::SidewaysRoom => "not on this hull",
            Self::VanishingAngle => "not by 90°",
            Self::RollPeriod => "not stable upright",
            _ => "not known",
        }
    }
}

/// The figures of one body under one brief; a figure that does not apply or is
/// not known is no number.
#[derive(Debug, Clone, PartialEq)]
pub struct Values([f64; Quantity::COUNT]);

impl Default for Values {
    fn default() -> Self {
        Self([f64::NAN; Quantity::COUNT])
    }
}

impl Values {
    /// Sets a figure. A number that is not finite is a figure not known.
    pub fn set(&mut self, quantity: Quantity, value: f64) {
        self.0[quantity as usize] = if value.is_finite() { value } else { f64::NAN };
    }

    /// Sets a figure that may not apply.
    pub fn set_some(&mut self, quantity: Quantity, value: Option<f64>) {
        self.set(quantity, value.unwrap_or(f64::NAN));
    }

    /// Reads a figure.
    #[must_use]
    pub fn get(&self, quantity: Quantity) -> Option<f64> {
        let value = self.raw(quantity);
        value.is_finite().then_some(value)
    }

    /// Reads a figure; no number where there is none.
    #[must_use]
    pub const fn raw(&self, quantity: Quantity) -> f64 {
        self.0[quantity as usize]
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    #[test]
    fn the_table_is_complete_and_unambiguous() {
        let mut keys = BTreeSet::new();
        let mut labels = BTreeSet::new();
        for &quantity in Quantity::ALL {
            let row = quantity.row();
            assert!(keys.insert(row.key), "{} twice", row.key);
            assert!(labels.insert(row.label), "{} twice", row.label);
            assert!(row.meaning.len() > 20, "{} is not explained", row.key);
            let suffix = match row.dimension {
                Dimension::Mass => "_kg",
                Dimension::Angle => "_deg",
                Dimension::Energy => "_j",
                Dimension::Time => "_s",
                Dimension::Ratio | Dimension::Stiffness => "",
                _ if row.json_scale == 100.0 => "_cm",
                _ => "_m",
            };
            assert!(row.key.ends_with(suffix), "{} names its unit", row.key);
        }
    }

    #[test]
    fn bands_rise_and_name_what_the_handbook_says() {
        for &quantity in Quantity::ALL {
            let bands = quantity.bands();
            assert!(bands.is_sorted_by(|a, b| a.below < b.below));
        }
        let words = |v| Quantity::StandingSupport.band(v).unwrap();
        assert_eq!(
            [0.59, 0.6, 0.99, 1.0].map(words),
            [
                "stay seated",
                "short stands, skilled",
                "with practice",
                "steady"
            ]
        );
        assert_eq!(Quantity::Trim.band(-0.6), Some("bow down: ploughs"));
        let up = |v| Quantity::GettingUp.band(v).unwrap();
        assert_eq!(
            [0.59, 0.6, 0.85].map(up),
            ["from the floor", "with a push", "easy"]
        );
        assert_eq!(Quantity::Gm.band(0.3), None);
    }

    #[test]
    fn values_that_are_not_numbers_are_not_known() {
        let mut values = Values::default();
        values.set(Quantity::Gm, f64::NAN);
        assert_eq!(values.get(Quantity::Gm), None);
        values.set(Quantity::Gm, 0.3);
        assert_eq!(values.get(Quantity::Gm), Some(0.3));
    }
}

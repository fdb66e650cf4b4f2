//! What becomes of a loaded body: the first thing anybody must know of it.

/// What a load makes of a body.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Fate {
    /// It floats upright, or with a list where the load lies to one side.
    Rests {
        /// List, rad, towards the heavier side.
        list: f64,
    },
    /// Unstable upright, it lies at an angle.
    Lolls {
        /// Angle of loll, rad.
        angle: f64,
        /// GM short of zero, m.
        missing: f64,
    },
    /// It finds no stable heel before water runs in, or short of 90°.
    Capsizes {
        /// GM short of zero, m; 0 where it is the load to one side that
        /// capsizes a body stable upright.
        missing: f64,
        /// How far the whole weight lies outside the largest righting arm, m;
        /// 0 for a centred load.
        outside: f64,
    },
    /// Its rim lies under the water at rest: it fills.
    Swamps {
        /// By how much, m.
        by: f64,
    },
    /// It goes down by an end.
    Founders {
        /// Which end.
        by_the_stern: bool,
    },
    /// The whole body displaces less than the load.
    Sinks {
        /// By how much, kg.
        by: f64,
    },
}

impl Fate {
    /// Whether it floats upright and stays there.
    #[must_use]
    pub const fn is_rest(&self) -> bool {
        matches!(self, Self::Rests { .. })
    }

    /// The word used in JSON.
    #[must_use]
    pub const fn key(&self) -> &'static str {
        match self {
            Self::Rests { .. } => "rests",
            Self::Lolls { .. } => "lolls",
            Self::Capsizes { .. } => "capsizes",
            Self::Swamps { .. } => "swamps",
            Self::Founders { .. } => "founders",
            Self::Sinks { .. } => "sinks",
        }
    }
}

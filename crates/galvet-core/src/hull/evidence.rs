//! What was measured afloat, as it is kept with the hull.

use super::kinds::Propulsion;
use super::scupper::Scuppers;
use crate::base::{Bounds, Dimension, OutOfRange, words};

/// What lay aboard besides the hull itself while it was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aboard {
    /// Mass, kg.
    pub mass: f64,
    /// Its centre's place from the bow, share of the length.
    pub place: f64,
    /// Its centre above the cockpit floor, m.
    pub height: f64,
}

words! {
/// What the tape was held against.
pub enum Datum {
    /// The cockpit floor.
    Floor,
    /// The gunwale.
    Gunwale,
}
}

/// What was read.
#[derive(Debug, Clone, PartialEq)]
pub enum FloatReading {
    /// Height of floor or gunwale over the water at places along the hull
    /// (share of the length, m), three by custom.
    Heights {
        /// From what.
        datum: Datum,
        /// Places and heights.
        heights: Vec<(f64, f64)>,
    },
    /// Length and beam at the water, m.
    Waterline {
        /// Length at the water.
        length: f64,
        /// Beam at the water amidships.
        beam: f64,
    },
    /// Metacentric height from a tilt test, m, with its standard error.
    Tilt {
        /// GM with the crew and kit aboard as given.
        gm: f64,
        /// Standard error.
        error: f64,
        /// Each reading: the moment moved over g, kg·m to starboard, and the heel it
        /// made, ° to starboard, the list taken off. Empty where only GM was noted.
        shifts: Vec<(f64, f64)>,
    },
    /// Drift beam-on with nobody paddling.
    Drift {
        /// Over the water, m/s.
        speed: f64,
        /// Wind met at the boat, m/s.
        wind: f64,
        /// Drag area of people and kit in that wind, m²: C·A.
        shows: f64,
    },
    /// Speed through the water kept up in calm.
    Speed {
        /// m/s.
        speed: f64,
        /// Effort at hand, foot or battery, W.
        watts: f64,
        /// By what.
        by: Propulsion,
    },
    /// Deck filled to the brim until the floor was clear.
    Drain {
        /// s.
        seconds: f64,
    },
}

/// A measurement afloat with the circumstances it was made in: it says
/// something of the hull only together with them.
#[derive(Debug, Clone, PartialEq)]
pub struct Evidence {
    /// The load.
    pub aboard: Aboard,
    /// Density of the water it was made in, kg/m³.
    pub density: f64,
    /// The scuppers' state while it was made; means nothing on a hull without.
    pub scuppers: Scuppers,
    /// The day it was made, ISO 8601; empty where not noted.
    pub date: String,
    /// The reading.
    pub reading: FloatReading,
}

impl Evidence {
    /// Accepted masses aboard, kg.
    pub const MASS: Bounds = Bounds::new("the mass aboard", Dimension::Mass, 0.0, 400.0);
    /// Accepted places.
    pub const PLACE: Bounds = Bounds::new("the place along the hull", Dimension::Ratio, 0.0, 1.0);
    /// Accepted heights, m.
    pub const HEIGHT: Bounds = Bounds::new("a height", Dimension::FineLength, -0.5, 1.5);
    /// Accepted dimensions at the water, m.
    pub const WATERLINE: Bounds = Bounds::new("a waterline dimension", Dimension::Length, 0.2, 8.0);
    /// Accepted metacentric heights, m.
    pub const GM: Bounds = Bounds::new("GM", Dimension::ShortLength, -1.0, 2.0);
    /// Accepted standard errors of GM, m.
    pub const GM_ERROR: Bounds =
        Bounds::new("the standard error of GM", Dimension::ShortLength, 0.0, 1.0);
    /// Accepted moments of a tilt test over g, kg·m.
    pub const MOMENT: Bounds = Bounds::new("a moment moved", Dimension::Ratio, -230.0, 230.0);
    /// Accepted heels of a tilt test, °.
    pub const HEEL: Bounds = Bounds::new("a heel", Dimension::Angle, -30.0, 30.0);
    /// Accepted speeds, drifting or driven, m/s.
    pub const SPEED: Bounds = Bounds::new("a speed kept up", Dimension::Speed, 0.02, 6.0);
    /// Accepted winds met, m/s.
    pub const WIND: Bounds = Bounds::new("the wind met", Dimension::Speed, 0.5, 30.0);
    /// Accepted drag areas of people and kit, m².
    pub const SHOWS: Bounds = Bounds::new(
        "what people and kit show to the wind",
        Dimension::Ratio,
        0.0,
        5.0,
    );
    /// Accepted efforts, W.
    pub const WATTS: Bounds = Bounds::new("the effort", Dimension::Power, 5.0, 3_000.0);
    /// Accepted times to drain, s.
    pub const DRAIN: Bounds = Bounds::new("the time to drain", Dimension::Time, 2.0, 3_600.0);
    /// Accepted densities of water, kg/m³.
    pub const DENSITY: Bounds = Bounds::new("water density", Dimension::Ratio, 990.0, 1035.0);
    /// Fresh water, kg/m³: where nothing else is noted.
    pub const FRESH: f64 = 1000.0;

    /// A reading in fresh water with open scuppers, not dated.
    #[must_use]
    pub const fn fresh(aboard: Aboard, reading: FloatReading) -> Self {
        Self {
            aboard,
            density: Self::FRESH,
            scuppers: Scuppers::Open,
            date: String::new(),
            reading,
        }
    }

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::MASS.check(self.aboard.mass)?;
        Self::PLACE.check(self.aboard.place)?;
        Self::HEIGHT.check(self.aboard.height)?;
        Self::DENSITY.check(self.density)?;
        match &self.reading {
            FloatReading::Heights { heights, .. } => {
                for &(place, height) in heights {
                    Self::PLACE.check(place)?;
                    Self::HEIGHT.check(height)?;
                }
            }
            FloatReading::Waterline { length, beam } => {
                Self::WATERLINE.check(*length)?;
                Self::WATERLINE.check(*beam)?;
            }
            FloatReading::Tilt { gm, error, shifts } => {
                Self::GM.check(*gm)?;
                Self::GM_ERROR.check(*error)?;
                for &(moment, heel) in shifts {
                    Self::MOMENT.check(moment)?;
                    Self::HEEL.check(heel)?;
                }
            }
            FloatReading::Drift { speed, wind, shows } => {
                Self::SPEED.check(*speed)?;
                Self::WIND.check(*wind)?;
                Self::SHOWS.check(*shows)?;
            }
            FloatReading::Speed { speed, watts, .. } => {
                Self::SPEED.check(*speed)?;
                Self::WATTS.check(*watts)?;
            }
            FloatReading::Drain { seconds } => {
                Self::DRAIN.check(*seconds)?;
            }
        }
        Ok(self)
    }

    /// Its name in sentences.
    #[must_use]
    pub const fn name(&self) -> &'static str {
        match self.reading {
            FloatReading::Heights { .. } => "the float test",
            FloatReading::Waterline { .. } => "the waterline test",
            FloatReading::Tilt { .. } => "the tilt test",
            FloatReading::Drift { .. } => "the drift",
            FloatReading::Speed { .. } => "the speed kept up",
            FloatReading::Drain { .. } => "the draining",
        }
    }
}

//! Fittings: what a hull offers for holding things, each at its place.

use super::kinds::Source;
use super::scupper::{Recess, ScupperState};
use crate::base::{Bounds, Dimension, OutOfRange, words};

words! {
/// Where a holder faces.
pub enum Facing {
    /// To the bow.
    Forward,
    /// To the stern.
    Aft,
    /// To its own side.
    Outward,
    /// Straight up.
    Up,
}
}

/// What a fitting is, with the sizes that decide what it holds, m and degrees.
#[derive(Debug, Clone, PartialEq)]
pub enum FittingKind {
    /// A rail.
    Track {
        /// Usable length.
        length: f64,
        /// Width of its slot.
        slot: Option<f64>,
    },
    /// A holder for one rod.
    RodHolder {
        /// Sunk into the deck.
        flush: bool,
        /// Above the level, °.
        angle: Option<f64>,
        /// Where it faces.
        facing: Facing,
        /// Whether it can be turned round.
        reversible: bool,
    },
    /// A tube or a rod stager.
    Tube {
        /// Usable length.
        length: f64,
        /// Across.
        diameter: f64,
    },
    /// A cup holder.
    CupHolder {
        /// How deep.
        depth: f64,
        /// Whether it drains.
        drains: bool,
    },
    /// Threaded inserts.
    Insert,
    /// A plate that can be exchanged.
    Plate,
    /// A recess or scupper for a transducer.
    TransducerRecess {
        /// Footprint along.
        length: f64,
        /// Footprint across.
        width: f64,
    },
    /// A scupper.
    Scupper {
        /// The recess it drains.
        recess: Recess,
        /// Across.
        diameter: f64,
        /// What is done with it.
        state: ScupperState,
        /// Whether a plug for it is at hand.
        plug: bool,
    },
    /// A pad eye.
    PadEye,
    /// A D-ring.
    DRing,
    /// A bungee.
    Bungee {
        /// Length at rest.
        length: f64,
        /// Hooks a metre.
        hooks_per_metre: f64,
    },
    /// A handle for carrying.
    Handle,
    /// A seat; its place is the middle of its slide.
    Seat {
        /// How far it slides in all; nought where it does not.
        slide: f64,
        /// Its surface above the floor at its lowest.
        low: Option<f64>,
        /// The same at its highest.
        high: Option<f64>,
    },
    /// Foot braces or pedals; their place is the middle of their slide.
    FootBraces {
        /// How far they slide in all.
        slide: f64,
    },
    /// A strap or rail to pull oneself up by.
    AssistStrap,
    /// The drain plug.
    DrainPlug,
    /// A wall across the inside that water does not pass.
    Bulkhead,
    /// Floats on arms at both sides; their place is the middle of their length.
    Outriggers {
        /// Length of one.
        length: f64,
        /// Across.
        diameter: f64,
        /// From the middle to the axis of one.
        reach: f64,
        /// Height of the underside over the water, the boat loaded and at rest.
        clear: f64,
    },
}

/// One fitting. `x` from the bow, `y` to starboard, `z` above the baseline, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Fitting {
    /// What the record calls it; its own on this hull.
    pub name: String,
    /// What it is.
    pub kind: FittingKind,
    /// Its middle, along.
    pub x: f64,
    /// Its middle, across.
    pub y: f64,
    /// Its height; `None` where nobody looked.
    pub z: Option<f64>,
    /// The interface it offers (slot, hole pattern, thread), as the trade names
    /// it; empty where not known.
    pub mount: String,
    /// Where these figures come from.
    pub source: Source,
}

impl Fitting {
    /// Accepted widths of a scupper, m: a bare 35 means millimetres, and is asked about.
    pub const SCUPPER: Bounds =
        Bounds::new("a scupper's hole", Dimension::ShortLength, 0.008, 0.12);
    /// Accepted widths of a rod tube, m.
    pub const TUBE: Bounds = Bounds::new("a tube", Dimension::ShortLength, 0.02, 0.15);
    /// Accepted places along, m.
    pub const X: Bounds = Bounds::new("a fitting's place", Dimension::Length, -0.5, 7.5);
    /// Accepted places across, m.
    pub const Y: Bounds = Bounds::new("a fitting's side", Dimension::ShortLength, -0.8, 0.8);
    /// Accepted heights, m.
    pub const Z: Bounds = Bounds::new("a fitting's height", Dimension::ShortLength, -0.6, 2.0);
    /// Accepted sizes, m.
    pub const SIZE: Bounds = Bounds::new("a fitting's size", Dimension::ShortLength, 0.002, 5.0);
    /// Accepted angles, °.
    pub const ANGLE: Bounds = Bounds::new("a holder's angle", Dimension::Angle, -10.0, 100.0);
    /// Accepted hooks a metre.
    pub const HOOKS: Bounds = Bounds::new("hooks a metre", Dimension::Ratio, 0.0, 60.0);

    /// Accepted heights of a seat above the floor, m.
    pub const SEAT: Bounds = Bounds::new("a seat's height", Dimension::ShortLength, 0.0, 0.9);
    /// Accepted lengths of a float, m.
    pub const FLOAT_LENGTH: Bounds =
        Bounds::new("a float's length", Dimension::ShortLength, 0.1, 3.0);
    /// Accepted diameters of a float, m.
    pub const FLOAT: Bounds = Bounds::new("across a float", Dimension::ShortLength, 0.03, 0.6);
    /// Accepted distances of a float's axis from the middle, m.
    pub const FLOAT_REACH: Bounds = Bounds::new(
        "from the middle to a float",
        Dimension::ShortLength,
        0.2,
        2.0,
    );
    /// Accepted heights of a float over the water, m; below zero where it is always wet.
    pub const FLOAT_CLEAR: Bounds = Bounds::new(
        "a float's height over the water",
        Dimension::ShortLength,
        -0.2,
        0.4,
    );

    /// Accepted slides, m.
    pub const SLIDE: Bounds = Bounds::new("a slide", Dimension::ShortLength, 0.0, 1.2);

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::X.check(self.x)?;
        Self::Y.check(self.y)?;
        if let Some(z) = self.z {
            Self::Z.check(z)?;
        }
        let size = |value: f64| Self::SIZE.check(value).map(|_| ());
        match self.kind {
            FittingKind::Track { length, slot } => {
                size(length)?;
                slot.map_or(Ok(()), size)?;
            }
            FittingKind::RodHolder {
                angle: Some(angle), ..
            } => {
                Self::ANGLE.check(angle)?;
            }
            FittingKind::Tube { length, diameter } => {
                size(length)?;
                size(diameter)?;
            }
            FittingKind::CupHolder { depth, .. } => size(depth)?,
            FittingKind::TransducerRecess { length, width } => {
                size(length)?;
                size(width)?;
            }
            FittingKind::Scupper { diameter, .. } => size(diameter)?,
            FittingKind::Bungee {
                length,
                hooks_per_metre,
            } => {
                size(length)?;
                Self::HOOKS.check(hooks_per_metre)?;
            }
            FittingKind::Seat { slide, low, high } => {
                Self::SLIDE.check(slide)?;
                for height in [low, high].into_iter().flatten() {
                    Self::SEAT.check(height)?;
                }
            }
            FittingKind::FootBraces { slide } => {
                Self::SLIDE.check(slide)?;
            }
            FittingKind::Outriggers {
                length,
                diameter,
                reach,
                clear,
            } => {
                Self::FLOAT_LENGTH.check(length)?;
                Self::FLOAT.check(diameter)?;
                Self::FLOAT_REACH.check(reach)?;
                Self::FLOAT_CLEAR.check(clear)?;
            }
            _ => {}
        }
        Ok(self)
    }
}

//! The measure table: every figure of a hull record, once.
//!
//! Files, database, pages and the shape's prior read this table. To add a
//! measure: add a row, and use it where the shape or a load is made of it.

use crate::base::{Bounds, Dimension, System, words};

macro_rules! measures {
    ($($(#[$doc:meta])* $name:ident = $key:literal, $label:literal, $dim:ident, $lo:literal ..= $hi:literal, $decimals:literal, $told:expr;)*) => {
        words! {
            /// The figures of a hull record.
            pub enum Measure {
                $($(#[$doc])* #[strum(serialize = $key, message = $label)] $name,)*
            }
        }

        impl Measure {
            /// Its row in the table.
            #[must_use]
            pub const fn row(self) -> MeasureRow {
                match self {
                    $(Self::$name => MeasureRow {
                        label: $label,
                        dimension: Dimension::$dim,
                        lo: $lo,
                        hi: $hi,
                        decimals: $decimals,
                        told: $told,
                    },)*
                }
            }
        }
    };
}

/// How far a printed or told figure is usually off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Error {
    /// By so much, SI.
    By(f64),
    /// By a share of the value.
    Share(f64),
}

impl Error {
    /// The error at a value, SI.
    #[must_use]
    pub fn at(self, value: f64) -> f64 {
        match self {
            Self::By(sd) => sd,
            Self::Share(share) => share * value.abs(),
        }
    }
}

/// One row of the table.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeasureRow {
    /// Short label.
    pub label: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Least accepted, SI.
    pub lo: f64,
    /// Most accepted, SI.
    pub hi: f64,
    /// Decimals shown in metric units.
    pub decimals: usize,
    /// Two readings further apart than this contradict each other.
    pub told: Error,
}

measures! {
    /// Length over all.
    Length = "length", "length", Length, 1.8 ..= 7.0, 2, Error::By(0.025);
    /// Greatest beam.
    Beam = "beam", "beam", ShortLength, 0.4 ..= 1.5, 1, Error::By(0.015);
    /// Depth at mid-length, bottom to gunwale.
    Depth = "depth", "depth", ShortLength, 0.08 ..= 0.8, 1, Error::By(0.015);
    /// Cockpit floor above the bottom.
    FloorHeight = "floor_height", "floor height", ShortLength, 0.02 ..= 0.5, 1, Error::By(0.015);
    /// Breadth of the cockpit floor's opening between the sides.
    FloorWidth = "floor_width", "floor width", ShortLength, 0.1 ..= 1.2, 1, Error::By(0.015);
    /// Breadth of the stern's end.
    TransomWidth = "transom_width", "transom width", ShortLength, 0.0 ..= 1.2, 1, Error::By(0.015);
    /// Hull alone.
    BareWeight = "bare_weight", "bare weight", Mass, 6.0 ..= 150.0, 1, Error::Share(0.04);
    /// Hull with seat, drive, rudder as sold.
    FittedWeight = "fitted_weight", "fitted weight", Mass, 6.0 ..= 150.0, 1, Error::Share(0.04);
    /// The maker's rated capacity.
    RatedCapacity = "rated_capacity", "rated capacity", Mass, 50.0 ..= 500.0, 0, Error::Share(0.04);
    /// Lowest seat surface above the floor.
    SeatLow = "seat_low", "seat, low", ShortLength, 0.0 ..= 0.7, 1, Error::By(0.015);
    /// Highest seat surface above the floor.
    SeatHigh = "seat_high", "seat, high", ShortLength, 0.0 ..= 0.7, 1, Error::By(0.015);
    /// Seat's place along the hull from the bow, as a share of the length.
    SeatPlace = "seat_place", "seat place", Ratio, 0.3 ..= 0.75, 2, Error::By(0.02);
    /// Depth below the bottom that the drive reaches when down.
    DriveDepth = "drive_depth", "drive below the bottom", ShortLength, 0.0 ..= 1.0, 1, Error::By(0.015);
    /// Price asked.
    Price = "price", "price", Money, 0.0 ..= 50_000.0, 0, Error::Share(0.02);
}

impl Measure {
    /// Accepted range, SI.
    #[must_use]
    pub const fn bounds(self) -> Bounds {
        let row = self.row();
        Bounds::new(row.label, row.dimension, row.lo, row.hi)
    }

    /// Two readings of it closer than this are the same reading, SI.
    #[must_use]
    pub fn tolerance(self, value: f64) -> f64 {
        self.row().told.at(value)
    }

    /// A value with its unit.
    #[must_use]
    pub fn text(self, system: System, si: f64) -> String {
        match self {
            Self::SeatPlace => format!("{:.0}\u{a0}% from the bow", si * 100.0),
            _ => system.text(self.row().dimension, si, self.row().decimals),
        }
    }
}

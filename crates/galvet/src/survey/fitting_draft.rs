//! A fitting as a form takes its sizes apart.

use crate::form::{Draft, Mistakes};
use galvet_core::hull::{Facing, Fitting, FittingKind, Recess, ScupperState};

/// Sizes of a fitting of any kind, m and degrees; a figure that must be there and is not
/// yet is no number.
#[derive(Clone)]
pub(super) struct Sizes {
    pub(super) length: f64,
    pub(super) width: f64,
    pub(super) depth: f64,
    pub(super) diameter: f64,
    pub(super) hooks: f64,
    pub(super) reach: f64,
    pub(super) clear: f64,
    pub(super) slide: Option<f64>,
    pub(super) slot: Option<f64>,
    pub(super) low: Option<f64>,
    pub(super) high: Option<f64>,
    pub(super) angle: Option<f64>,
    pub(super) flush: bool,
    pub(super) reversible: bool,
    pub(super) drains: bool,
    pub(super) plug: bool,
    pub(super) facing: Facing,
    pub(super) recess: Recess,
    pub(super) state: ScupperState,
}

impl Default for Sizes {
    fn default() -> Self {
        let nobody_said = f64::NAN;
        Self {
            length: nobody_said,
            width: nobody_said,
            depth: nobody_said,
            diameter: nobody_said,
            hooks: nobody_said,
            reach: nobody_said,
            clear: nobody_said,
            slide: None,
            slot: None,
            low: None,
            high: None,
            angle: None,
            flush: false,
            reversible: false,
            drains: false,
            plug: false,
            facing: Facing::Aft,
            recess: Recess::Cockpit,
            // What nobody said stands open: the careful reading.
            state: ScupperState::Open,
        }
    }
}

impl Sizes {
    /// The sizes of a fitting.
    fn of(kind: &FittingKind) -> Self {
        let none = Self::default();
        match *kind {
            FittingKind::Track { length, slot } => Self {
                length,
                slot,
                ..none
            },
            FittingKind::RodHolder {
                flush,
                angle,
                facing,
                reversible,
            } => Self {
                flush,
                angle,
                facing,
                reversible,
                ..none
            },
            FittingKind::Tube { length, diameter } => Self {
                length,
                diameter,
                ..none
            },
            FittingKind::CupHolder { depth, drains } => Self {
                depth,
                drains,
                ..none
            },
            FittingKind::TransducerRecess { length, width } => Self {
                length,
                width,
                ..none
            },
            FittingKind::Scupper {
                recess,
                diameter,
                state,
                plug,
            } => Self {
                recess,
                diameter,
                state,
                plug,
                ..none
            },
            FittingKind::Bungee {
                length,
                hooks_per_metre,
            } => Self {
                length,
                hooks: hooks_per_metre,
                ..none
            },
            FittingKind::Seat { slide, low, high } => Self {
                slide: Some(slide),
                low,
                high,
                ..none
            },
            FittingKind::FootBraces { slide } => Self {
                slide: Some(slide),
                ..none
            },
            FittingKind::Insert
            | FittingKind::Plate
            | FittingKind::PadEye
            | FittingKind::DRing
            | FittingKind::Handle
            | FittingKind::AssistStrap
            | FittingKind::DrainPlug
            | FittingKind::Bulkhead => none,
            FittingKind::Outriggers {
                length,
                diameter,
                reach,
                clear,
            } => Self {
                length,
                diameter,
                reach,
                clear,
                ..none
            },
        }
    }

    /// A fitting of the kind of `was`, with these sizes.
    pub(super) fn made(self, was: &FittingKind) -> FittingKind {
        let slide = self.slide.unwrap_or(0.0);
        match was {
            FittingKind::Track { .. } => FittingKind::Track {
                length: self.length,
                slot: self.slot,
            },
            FittingKind::RodHolder { .. } => FittingKind::RodHolder {
                flush: self.flush,
                angle: self.angle,
                facing: self.facing,
                reversible: self.reversible,
            },
            FittingKind::Tube { .. } => FittingKind::Tube {
                length: self.length,
                diameter: self.diameter,
            },
            FittingKind::CupHolder { .. } => FittingKind::CupHolder {
                depth: self.depth,
                drains: self.drains,
            },
            FittingKind::TransducerRecess { .. } => FittingKind::TransducerRecess {
                length: self.length,
                width: self.width,
            },
            FittingKind::Scupper { .. } => FittingKind::Scupper {
                recess: self.recess,
                diameter: self.diameter,
                state: self.state,
                plug: self.plug,
            },
            FittingKind::Bungee { .. } => FittingKind::Bungee {
                length: self.length,
                hooks_per_metre: self.hooks,
            },
            FittingKind::Seat { .. } => FittingKind::Seat {
                slide,
                low: self.low,
                high: self.high,
            },
            FittingKind::FootBraces { .. } => FittingKind::FootBraces { slide },
            FittingKind::Outriggers { .. } => FittingKind::Outriggers {
                length: self.length,
                diameter: self.diameter,
                reach: self.reach,
                clear: self.clear,
            },
            plain => plain.clone(),
        }
    }
}

/// A fitting as its form takes it apart.
#[derive(Clone)]
pub(crate) struct FittingDraft {
    pub(super) fitting: Fitting,
    pub(super) sizes: Sizes,
}

impl Draft for FittingDraft {
    type Record = Fitting;

    fn of(record: &Fitting) -> Self {
        Self {
            fitting: record.clone(),
            sizes: Sizes::of(&record.kind),
        }
    }

    fn made(self) -> Result<Fitting, Mistakes> {
        let kind = self.sizes.made(&self.fitting.kind);
        Ok(Fitting {
            kind,
            ..self.fitting
        })
    }
}

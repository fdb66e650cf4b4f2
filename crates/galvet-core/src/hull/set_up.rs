//! A hull as it is set up: modifications made or not, a configuration chosen.
//!
//! Zones and fittings of the record are those of delivery. A modification that
//! is done changes them, weighs what it weighs, and brings its own.

use super::fitout::{Configuration, Fitout, Modification, Progress, SeatSetting, SeatUsed};
use super::fitting::{Fitting, FittingKind};
use super::kinds::Source;
use super::measure::Measure;
use super::scupper::{Recess, Scupper, ScupperState, Scuppers};
use super::survey::{Reading, Survey};
use super::zone::Zone;

/// Masses a modification adds to the hull, or takes off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fixed {
    /// Mass, kg; below zero where something is taken off.
    pub mass: f64,
    /// Its place from the bow, m.
    pub x: f64,
    /// Its height above the baseline, m.
    pub z: f64,
}

impl Fitout {
    /// Modifications that are done, in the order of the record.
    pub fn done(&self) -> impl Iterator<Item = &Modification> {
        let done = |m: &&Modification| m.progress == Progress::Done;
        self.modifications.iter().filter(done)
    }

    /// Zones as it stands: those of delivery, changed by what is done.
    #[must_use]
    pub fn zones_now(&self) -> Vec<Zone> {
        let mut zones = self.zones.clone();
        for m in self.done() {
            zones.retain(|z| !m.removes.contains(&z.name));
            zones.extend(m.zones.iter().cloned());
            for (name, dryness) in &m.dryness {
                for zone in zones.iter_mut().filter(|z| z.name == *name) {
                    zone.dryness = Some(*dryness);
                }
            }
        }
        zones
    }

    /// Fittings as it stands.
    #[must_use]
    pub fn fittings_now(&self) -> Vec<Fitting> {
        let mut fittings = self.fittings.clone();
        for m in self.done() {
            fittings.retain(|f| !m.removes.contains(&f.name));
            fittings.extend(m.fittings.iter().cloned());
        }
        fittings
    }

    /// Whether a fitting was added by a change that is done.
    #[must_use]
    pub fn adds(&self, fitting: &str) -> bool {
        let mut added = self.done().flat_map(|m| &m.fittings);
        added.any(|f| f.name == fitting)
    }

    /// Masses of what is done.
    pub fn fixed(&self) -> impl Iterator<Item = Fixed> + '_ {
        let weighs = self.done().filter(|m| m.mass != 0.0);
        weighs.map(|m| Fixed {
            mass: m.mass,
            x: m.x,
            z: m.z,
        })
    }
}

impl Survey {
    /// The hull with those modifications done for which `made` says so, and no
    /// others.
    #[must_use]
    pub fn with_made(&self, made: impl Fn(&Modification) -> bool) -> Self {
        let mut hull = self.clone();
        for m in &mut hull.fitout.modifications {
            m.progress = if made(m) {
                Progress::Done
            } else {
                Progress::Planned
            };
        }
        hull
    }

    /// The hull in a configuration: its modifications done, its propulsion, its
    /// seat's place where the record has it.
    #[must_use]
    pub fn configured(&self, configuration: &Configuration) -> Self {
        let mut hull = self.with_made(|m| configuration.modifications.contains(&m.name));
        hull.propulsion = configuration.propulsion;
        let place = configuration.seat_place(&hull);
        if let (Some(x), Some(length)) = (place, hull.value(Measure::Length))
            && let Ok(reading) = Reading::new(Measure::SeatPlace, x / length, Source::Tape)
        {
            hull.readings.insert(Measure::SeatPlace, vec![reading]);
        }
        hull
    }

    /// Its scuppers, as the question sets them, or one by one as they are on it;
    /// a recess of which none is recorded counts as open.
    #[must_use]
    pub fn scuppers(&self, asked: Scuppers) -> Vec<Scupper> {
        if asked != Scuppers::AsFound {
            return asked.fitted().to_vec();
        }
        let mut found: Vec<Scupper> = Vec::new();
        for fitting in self.fitout.fittings_now() {
            if let FittingKind::Scupper { recess, state, .. } = fitting.kind {
                found.push(Scupper { recess, state });
            }
        }
        for recess in [Recess::Cockpit, Recess::TankWell] {
            if !found.iter().any(|s| s.recess == recess) {
                let state = ScupperState::Open;
                found.push(Scupper { recess, state });
            }
        }
        found
    }
}

impl Configuration {
    /// Whether the seat stands high.
    #[must_use]
    pub const fn sits_high(&self) -> bool {
        matches!(self.seat, SeatSetting::High | SeatSetting::Fishing)
    }

    /// Place of the seat used along the hull, m from the bow: of several seats on
    /// the record the foremost or the aftmost; `None` where the record has not
    /// two of them.
    #[must_use]
    pub fn seat_place(&self, hull: &Survey) -> Option<f64> {
        let seats = hull.fitout.fittings_now();
        let seats = seats
            .iter()
            .filter(|f| matches!(f.kind, FittingKind::Seat { .. }));
        let mut places: Vec<f64> = seats.map(|f| f.x).collect();
        places.sort_by(f64::total_cmp);
        match self.seat_used {
            SeatUsed::Front if places.len() > 1 => places.first().copied(),
            SeatUsed::Rear if places.len() > 1 => places.last().copied(),
            _ => None,
        }
    }
}

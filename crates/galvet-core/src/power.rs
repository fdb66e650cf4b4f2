//! Batteries wired together: what a bank gives, what is wrong with it, how long
//! it lasts.
//!
//! In series voltages add and the bank is as large as its smallest battery; in
//! parallel amp-hours add, and all must have one voltage (handbook, chapter 1).
//! A nominal figure is a maker's: what can be used of it depends on the
//! chemistry.

use crate::gear::Chemistry;
use crate::guide::{Guide, Guides};
use thiserror::Error;

/// One battery, nominal figures as printed on it.
#[derive(Debug, Clone, PartialEq)]
pub struct Cell {
    /// What it is called, in messages.
    pub name: String,
    /// Nominal voltage, V.
    pub volts: f64,
    /// Capacity, Ah.
    pub amp_hours: f64,
    /// Chemistry.
    pub chemistry: Chemistry,
}

/// How batteries are wired together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wiring {
    /// One after the other: voltages add.
    Series,
    /// Side by side: amp-hours add.
    Parallel,
}

/// Something about a bank a person must hear before wiring it.
#[derive(Debug, Clone, PartialEq)]
pub enum Warning {
    /// Batteries in series are not alike: the bank is as large as the smallest,
    /// `lost` Wh of the others are carried for nothing, and the smallest is
    /// emptied too far.
    SmallestCounts {
        /// The smallest battery.
        name: String,
        /// Its capacity, Ah.
        amp_hours: f64,
        /// Printed energy of the others that cannot be used, Wh.
        lost: f64,
    },
    /// Different chemistries in one bank: one charger and one cut-off do not suit
    /// both.
    MixedChemistry,
    /// Different capacities side by side: the larger one charges the smaller
    /// when they are joined.
    UnequalInParallel,
}

/// Why batteries make no bank.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum BankError {
    /// None at all.
    #[error("a bank needs a battery")]
    Empty,
    /// Side by side they must have one voltage: current would rush from one into
    /// the other.
    #[error(
        "{a} ({a_volts} V) and {b} ({b_volts} V) must not lie side by side: they need one voltage"
    )]
    Voltages {
        /// One of them.
        a: String,
        /// Its voltage, V.
        a_volts: f64,
        /// The other.
        b: String,
        /// Its voltage, V.
        b_volts: f64,
    },
}

/// A bank of batteries.
#[derive(Debug, Clone, PartialEq)]
pub struct Bank {
    /// Nominal voltage, V.
    pub volts: f64,
    /// Capacity, Ah.
    pub amp_hours: f64,
    /// Energy as printed that the bank can give, Wh.
    pub energy: f64,
    /// What can be used of it, Wh: by the chemistry that allows least.
    pub usable: f64,
    /// What a person must hear.
    pub warnings: Vec<Warning>,
}

/// Voltages closer than this are one nominal voltage, V.
const ONE_VOLTAGE: f64 = 0.05;
/// Capacities closer than this share are alike.
const ALIKE: f64 = 0.02;

/// Share of the printed energy that can be used.
#[must_use]
pub fn usable_share(chemistry: Chemistry, guides: &Guides) -> f64 {
    guides[match chemistry {
        Chemistry::Lifepo4 => Guide::UsableLifepo4,
        Chemistry::Lead => Guide::UsableLead,
        Chemistry::Other => Guide::UsableOther,
    }]
}

impl Bank {
    /// Wires batteries together; a single one is a bank either way.
    ///
    /// # Errors
    /// [`BankError`].
    pub fn wire(cells: &[Cell], wiring: Wiring, guides: &Guides) -> Result<Self, BankError> {
        let first = cells.first().ok_or(BankError::Empty)?;
        let smallest = cells
            .iter()
            .min_by(|a, b| a.amp_hours.total_cmp(&b.amp_hours))
            .unwrap_or(first);
        let largest = cells.iter().map(|c| c.amp_hours).fold(0.0, f64::max);
        let alike = largest - smallest.amp_hours <= ALIKE * largest;
        let mut warnings = Vec::new();
        let (volts, amp_hours) = match wiring {
            Wiring::Series => {
                if !alike {
                    let lost = cells
                        .iter()
                        .map(|c| c.volts * (c.amp_hours - smallest.amp_hours));
                    warnings.push(Warning::SmallestCounts {
                        name: smallest.name.clone(),
                        amp_hours: smallest.amp_hours,
                        lost: lost.sum(),
                    });
                }
                (cells.iter().map(|c| c.volts).sum(), smallest.amp_hours)
            }
            Wiring::Parallel => {
                let other = |c: &&Cell| (c.volts - first.volts).abs() > ONE_VOLTAGE;
                if let Some(other) = cells.iter().find(other) {
                    return Err(BankError::Voltages {
                        a: first.name.clone(),
                        a_volts: first.volts,
                        b: other.name.clone(),
                        b_volts: other.volts,
                    });
                }
                if !alike {
                    warnings.push(Warning::UnequalInParallel);
                }
                (first.volts, cells.iter().map(|c| c.amp_hours).sum())
            }
        };
        if cells.iter().any(|c| c.chemistry != first.chemistry) {
            warnings.push(Warning::MixedChemistry);
        }
        let share = cells
            .iter()
            .map(|c| usable_share(c.chemistry, guides))
            .fold(1.0, f64::min);
        let energy = volts * amp_hours;
        Ok(Self {
            volts,
            amp_hours,
            energy,
            usable: share * energy,
            warnings,
        })
    }

    /// Hours it feeds `loads` (watts, share of the time), with the guide value's
    /// share kept back; `None` where nothing draws.
    #[must_use]
    pub fn hours(&self, loads: &[(f64, f64)], guides: &Guides) -> Option<f64> {
        let watts: f64 = loads.iter().map(|(watts, duty)| watts * duty).sum();
        let given = self.usable * guides[Guide::BatteryShare];
        (watts > 0.0).then(|| given / watts)
    }

    /// Whether a motor of `volts` can be fed.
    #[must_use]
    pub fn feeds(&self, volts: f64) -> bool {
        (self.volts - volts).abs() <= 0.15 * volts
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn cell(name: &str, volts: f64, amp_hours: f64, chemistry: Chemistry) -> Cell {
        Cell {
            name: name.into(),
            volts,
            amp_hours,
            chemistry,
        }
    }

    #[test]
    fn in_series_the_smallest_counts_and_is_warned_of() {
        let guides = Guides::default();
        let cells = [
            cell("new", 12.8, 100.0, Chemistry::Lifepo4),
            cell("old", 12.8, 60.0, Chemistry::Lifepo4),
        ];
        let bank = Bank::wire(&cells, Wiring::Series, &guides).unwrap();
        assert!((bank.volts - 25.6).abs() < 1e-12);
        assert_eq!(bank.amp_hours, 60.0);
        // 25.6 V × 60 Ah, of which nine tenths can be used.
        assert!((bank.energy - 1536.0).abs() < 1e-9);
        assert!((bank.usable - 0.9 * 1536.0).abs() < 1e-9);
        // Forty amp-hours of the new one are carried for nothing.
        let [
            Warning::SmallestCounts {
                name,
                amp_hours,
                lost,
            },
        ] = &bank.warnings[..]
        else {
            panic!("{:?}", bank.warnings);
        };
        assert_eq!((name.as_str(), *amp_hours), ("old", 60.0));
        assert!((lost - 12.8 * 40.0).abs() < 1e-9);
        // Alike, nothing is said.
        let pair = [cells[0].clone(), cells[0].clone()];
        let bank = Bank::wire(&pair, Wiring::Series, &guides).unwrap();
        assert!(bank.warnings.is_empty() && bank.amp_hours == 100.0);
    }

    #[test]
    fn in_parallel_amp_hours_add_and_voltages_must_be_one() {
        let guides = Guides::default();
        let lead = cell("lead", 12.0, 80.0, Chemistry::Lead);
        let bank = Bank::wire(&[lead.clone(), lead.clone()], Wiring::Parallel, &guides).unwrap();
        assert_eq!((bank.volts, bank.amp_hours), (12.0, 160.0));
        assert!((bank.usable - 0.5 * 1920.0).abs() < 1e-9);
        let other = cell("packs", 24.0, 80.0, Chemistry::Lead);
        let refused = Bank::wire(&[lead.clone(), other], Wiring::Parallel, &guides).unwrap_err();
        assert!(refused.to_string().contains("24 V"), "{refused}");
        // Mixed, the one that allows least decides.
        let lithium = cell("lithium", 12.0, 20.0, Chemistry::Lifepo4);
        let bank = Bank::wire(&[lead, lithium], Wiring::Parallel, &guides).unwrap();
        assert!((bank.usable - 0.5 * 1200.0).abs() < 1e-9);
        let wanted = [Warning::UnequalInParallel, Warning::MixedChemistry];
        assert_eq!(bank.warnings, wanted);
        let none = Bank::wire(&[], Wiring::Series, &guides).unwrap_err();
        assert_eq!(none, BankError::Empty);
    }

    #[test]
    fn hours_are_what_is_used_over_what_draws() {
        let guides = Guides::default();
        let small = cell("sounder's", 12.8, 10.0, Chemistry::Lifepo4);
        let bank = Bank::wire(&[small], Wiring::Series, &guides).unwrap();
        // 128 Wh, 0.9 of it usable, 0.7 of that given; 12 W always and 5 W a fifth
        // of the time.
        let hours = bank.hours(&[(12.0, 1.0), (5.0, 0.2)], &guides).unwrap();
        assert!((hours - 128.0 * 0.9 * 0.7 / 13.0).abs() < 1e-9);
        assert_eq!(bank.hours(&[], &guides), None);
        assert!(bank.feeds(12.0) && !bank.feeds(24.0));
    }
}

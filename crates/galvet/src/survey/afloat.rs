//! What was measured afloat, as it is typed.

use crate::form::{Mistakes, Typed};
use galvet_core::base::{Bounds, Dimension, Keyed, System};
use galvet_core::hull::{Aboard, Datum, Evidence, FloatReading, Scuppers};
use galvet_core::plausible::tilt::{Shift, Tilt, reduce};
use std::collections::HashMap;

/// The tests that can be made.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Test {
    /// Tape from floor or gunwale to the water at three places.
    Heights,
    /// Length and beam at the water.
    Waterline,
    /// A weight moved sideways, the heel read.
    Tilt,
}

impl Test {
    /// The test of a name in forms.
    #[must_use]
    pub fn from_key(key: &str) -> Option<Self> {
        match key {
            "heights" => Some(Self::Heights),
            "waterline" => Some(Self::Waterline),
            "tilt" => Some(Self::Tilt),
            _ => None,
        }
    }
}

/// Places of the tape in a float test, from 1.
pub const PLACES: usize = 3;
/// Shifts of a tilt test there is room for.
pub const SHIFTS: usize = 6;

/// A measurement understood.
#[derive(Debug, Clone, PartialEq)]
pub struct Measured {
    /// What is kept.
    pub evidence: Evidence,
    /// A tilt test's result, with what may be wrong with it.
    pub tilt: Option<Tilt>,
}

const SHIFTED: Bounds = Bounds::new("the mass moved", Dimension::Mass, 0.5, 150.0);
const WAY: Bounds = Bounds::new("the way moved", Dimension::ShortLength, -1.5, 1.5);
const HEEL: Bounds = Bounds::new("the heel", Dimension::Angle, -25.0, 25.0);
const PERCENT: Bounds = Bounds::new("the place along the hull", Dimension::Ratio, 0.0, 100.0);
/// Accepted weights of the hull as it floats, kg.
const HULL: Bounds = Bounds::new("the hull's weight", Dimension::Mass, 6.0, 150.0);

impl Typed<'_> {
    fn share(&mut self, name: &str) -> Option<f64> {
        self.number(name, PERCENT).map(|percent| percent / 100.0)
    }

    fn aboard(&mut self) -> Option<Aboard> {
        let mass = self.number("aboard", Evidence::MASS);
        let place = self.share("aboard-place");
        let height = self.number("aboard-height", Evidence::HEIGHT);
        Some(Aboard {
            mass: mass?,
            place: place?,
            height: height?,
        })
    }

    fn heights(&mut self) -> Option<FloatReading> {
        let datum = Datum::from_key(self.text("datum")).unwrap_or(Datum::Floor);
        let mut heights = Vec::new();
        for n in 1..=PLACES {
            // A place left empty was not read.
            if self.text(&format!("height-{n}")).is_empty() {
                continue;
            }
            let place = self.share(&format!("place-{n}"));
            let height = self.number(&format!("height-{n}"), Evidence::HEIGHT);
            heights.push((place, height));
        }
        if heights.is_empty() {
            let needed = "hold the tape at one place at least, better at three".to_owned();
            self.mistakes.insert(String::new(), needed);
            return None;
        }
        let heights = heights.into_iter().map(|(p, h)| Some((p?, h?)));
        let heights = heights.collect::<Option<_>>()?;
        Some(FloatReading::Heights { datum, heights })
    }

    fn waterline(&mut self) -> Option<FloatReading> {
        let length = self.number("water-length", Evidence::WATERLINE);
        let beam = self.number("water-beam", Evidence::WATERLINE);
        Some(FloatReading::Waterline {
            length: length?,
            beam: beam?,
        })
    }

    fn tilt(&mut self, aboard: Option<Aboard>) -> Option<Tilt> {
        let hull = self.number("hull-mass", HULL);
        let mut shifts = Vec::new();
        for n in 1..=SHIFTS {
            let names = ["moved", "way", "heel"].map(|name| format!("{name}-{n}"));
            if names.iter().all(|name| self.text(name).is_empty()) {
                continue;
            }
            let mass = self.number(&names[0], SHIFTED);
            let distance = self.number(&names[1], WAY);
            let heel_deg = self.number(&names[2], HEEL);
            shifts.push((mass, distance, heel_deg));
        }
        let shifts = shifts.into_iter().map(|(mass, distance, heel_deg)| {
            Some(Shift {
                mass: mass?,
                distance: distance?,
                heel_deg: heel_deg?,
            })
        });
        let shifts = shifts.collect::<Option<Vec<_>>>()?;
        match reduce(&shifts, aboard?.mass + hull?) {
            Ok(tilt) => Some(tilt),
            Err(error) => {
                self.mistakes.insert(String::new(), error.to_string());
                None
            }
        }
    }
}

/// Fills in the heel of every shift of a tilt test that has a weight and a way,
/// as `meter` shows it; returns how many were read. `meter` takes the shift's
/// moment, kg·m, and gives the heel, °, where it comes to rest.
pub fn read_heels(
    form: &mut HashMap<String, String>,
    system: System,
    mut meter: impl FnMut(f64) -> Option<f64>,
) -> usize {
    let mut read = 0;
    for n in 1..=SHIFTS {
        let moment = {
            let mut typed = Typed::of(form, system);
            let mass = typed.maybe(&format!("moved-{n}"), SHIFTED);
            let distance = typed.maybe(&format!("way-{n}"), WAY);
            mass.zip(distance).map(|(m, d)| m * d)
        };
        if let Some(heel) = moment.and_then(&mut meter) {
            form.insert(format!("heel-{n}"), format!("{heel:.1}"));
            read += 1;
        }
    }
    read
}

/// Reads a measurement; `date` is today, for one that is not dated.
///
/// # Errors
/// What was not understood, field by field.
pub fn measured(
    test: Test,
    form: &HashMap<String, String>,
    system: System,
    date: &str,
) -> Result<Measured, Mistakes> {
    let mut typed = Typed::of(form, system);
    let aboard = typed.aboard();
    let mut tilt = None;
    let reading = match test {
        Test::Heights => typed.heights(),
        Test::Waterline => typed.waterline(),
        Test::Tilt => {
            tilt = typed.tilt(aboard);
            tilt.as_ref().map(|t| FloatReading::Tilt {
                gm: t.gm,
                error: t.error,
                shifts: t.readings.clone(),
            })
        }
    };
    let density = match typed.text("water-kind") {
        "salt" => 1025.0,
        "brackish" => 1010.0,
        _ => Evidence::FRESH,
    };
    let scuppers = Scuppers::from_key(typed.text("scuppers-state")).unwrap_or(Scuppers::Open);
    let dated = typed.day("date", date);
    let (Some(aboard), Some(reading)) = (aboard, reading) else {
        return Err(typed.mistakes);
    };
    let evidence = Evidence {
        aboard,
        density,
        scuppers,
        date: dated,
        reading,
    };
    let evidence = evidence.check().map_err(|error| {
        let mut whole = Mistakes::new();
        whole.insert(String::new(), error.to_string());
        whole
    })?;
    Ok(Measured { evidence, tilt })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn form(pairs: &[(&str, &str)]) -> HashMap<String, String> {
        let usual = [
            ("aboard", "80"),
            ("aboard-place", "54 %"),
            ("aboard-height", "40"),
        ];
        let all = usual.iter().chain(pairs);
        all.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    #[test]
    fn heels_are_read_where_a_weight_was_moved() {
        let mut typed = form(&[("moved-1", "10"), ("way-1", "0.3 m"), ("moved-2", "10")]);
        let read = read_heels(&mut typed, System::Metric, |moment| Some(moment * 1.5));
        assert_eq!(read, 1);
        assert_eq!(typed["heel-1"], "4.5");
        assert!(!typed.contains_key("heel-2"));
    }

    #[test]
    fn a_float_test_is_read_in_any_unit() {
        let typed = form(&[
            ("datum", "gunwale"),
            ("place-1", "25"),
            ("height-1", "21 cm"),
            ("place-2", "50"),
            ("height-2", "8 in"),
            ("water-kind", "salt"),
        ]);
        let read = measured(Test::Heights, &typed, System::Metric, "2026-11-25")
            .unwrap()
            .evidence;
        let wanted = FloatReading::Heights {
            datum: Datum::Gunwale,
            heights: vec![(0.25, 0.21), (0.5, 0.2032)],
        };
        assert_eq!(read.reading, wanted);
        assert_eq!((read.density, read.date.as_str()), (1025.0, "2026-11-25"));
        assert_eq!((read.aboard.place, read.aboard.height), (0.54, 0.4));
    }

    #[test]
    fn a_tilt_test_is_reduced_with_all_that_floats() {
        // Δ = 120 kg and GM 0.25 m: 10 kg moved 0.3 m heel it by atan 0.1.
        let heel = 0.1_f64.atan().to_degrees();
        let heels = [format!("{heel}"), format!("-{heel}"), "0".to_owned()];
        let typed = form(&[
            ("hull-mass", "40"),
            ("moved-1", "10"),
            ("way-1", "30"),
            ("heel-1", &heels[0]),
            ("moved-2", "10"),
            ("way-2", "-30"),
            ("heel-2", &heels[1]),
            ("moved-3", "10"),
            ("way-3", "0"),
            ("heel-3", &heels[2]),
        ]);
        let read = measured(Test::Tilt, &typed, System::Metric, "").unwrap();
        let FloatReading::Tilt { gm, error, shifts } = read.evidence.reading else {
            panic!("no tilt");
        };
        assert!((gm - 0.25).abs() < 1e-9, "{gm}");
        assert!(error < 1e-9);
        // Each reading goes along, to be held against the hull's own arms.
        assert_eq!(shifts.len(), 3);
        assert!((shifts[0].0 - 3.0).abs() < 1e-9 && (shifts[0].1 - heel).abs() < 1e-9);
        let mut held = typed.clone();
        held.insert("heel-1".to_owned(), format!("-{heel}"));
        held.insert("heel-2".to_owned(), format!("{heel}"));
        let told = measured(Test::Tilt, &held, System::Metric, "").unwrap_err();
        assert!(told[""].contains("heels the other way"), "{told:?}");
    }

    #[test]
    fn mistakes_are_named_at_their_fields() {
        let typed = form(&[("aboard", "much"), ("place-1", "25"), ("height-1", "9 m")]);
        let told = measured(Test::Heights, &typed, System::Metric, "").unwrap_err();
        assert!(told["aboard"].contains("29.0 kg"));
        assert!(
            told["height-1"].contains("between -0.5 and 1.5 m"),
            "{told:?}"
        );
        let told = measured(Test::Heights, &form(&[]), System::Metric, "").unwrap_err();
        assert!(told[""].contains("hold the tape"));
        let told = measured(
            Test::Tilt,
            &form(&[("hull-mass", "30")]),
            System::Metric,
            "",
        );
        assert!(told.unwrap_err()[""].contains("at least three"));
    }
}

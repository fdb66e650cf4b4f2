//! What was measured afloat, as it is typed.

mod draft;

use crate::form::{FormView, Mistakes, NotTaken, Sent, Typed};
pub(crate) use draft::FloatsIn;
use draft::{SHIFTED, SHIFTS, TestDraft, WAY, test_form};
use galvet_core::base::System;
use galvet_core::hull::{Evidence, Survey};
use galvet_core::plausible::tilt::Tilt;
use std::collections::HashMap;
use strum::{EnumMessage, IntoStaticStr, VariantArray};

/// The tests that can be made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, VariantArray, EnumMessage, IntoStaticStr)]
#[strum(serialize_all = "kebab-case")]
pub enum Test {
    /// Tape from floor or gunwale to the water at three places.
    #[strum(message = "Float test: a tape from the floor to the water")]
    Heights,
    /// Length and beam at the water.
    #[strum(message = "Waterline test: how long and how wide it is at the water")]
    Waterline,
    /// A weight moved sideways, the heel read.
    #[strum(message = "Tilt test: a weight moved sideways, the heel read")]
    Tilt,
    /// Left to the wind.
    #[strum(message = "Drift: left to the wind, side on")]
    Drift,
    /// Driven for a while in calm.
    #[strum(message = "Speed: kept up in calm for a quarter of an hour")]
    Speed,
    /// Filled and left to drain.
    #[strum(message = "Draining: filled to the brim, until the floor is clear")]
    Drain,
}

/// A measurement understood.
#[derive(Debug, Clone, PartialEq)]
pub struct Measured {
    /// What is kept.
    pub evidence: Evidence,
    /// A tilt test's result, with what may be wrong with it.
    pub tilt: Option<Tilt>,
}

/// The form of a test on a hull, to be filled in.
pub(crate) fn form_of_test(
    test: Test,
    survey: &Survey,
    date: &str,
    (not_taken, system): (&NotTaken, System),
) -> FormView {
    let usual = TestDraft::usual(test, survey, date);
    test_form(test).form(&usual, true, not_taken, system)
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

/// Reads a measurement on a hull; `date` is today, for one that is not dated.
///
/// # Errors
/// What was not understood, field by field.
pub fn measured(
    test: Test,
    form: &Sent,
    (survey, date): (&Survey, &str),
    system: System,
) -> Result<Measured, Mistakes> {
    let usual = TestDraft::usual(test, survey, date);
    let made = test_form(test).make(&usual, form, system);
    made.map_err(|refusal| refusal.0)?.measured()
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::hull::Datum;
    use galvet_core::hull::FloatReading;

    fn taken(test: Test, form: &Sent, date: &str) -> Result<Measured, Mistakes> {
        let survey = crate::demo_data::hull("fennick-dunmarrow").survey;
        measured(test, form, (&survey, date), System::Metric)
    }

    fn form(pairs: &[(&str, &str)]) -> Sent {
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
        let read = taken(Test::Heights, &typed, "2026-11-25").unwrap().evidence;
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
        let read = taken(Test::Tilt, &typed, "").unwrap();
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
        let told = taken(Test::Tilt, &held, "").unwrap_err();
        assert!(told[""].contains("heels the other way"), "{told:?}");
    }

    #[test]
    fn mistakes_are_named_at_their_fields() {
        let typed = form(&[("aboard", "much"), ("place-1", "25"), ("height-1", "9 m")]);
        let told = taken(Test::Heights, &typed, "").unwrap_err();
        assert!(told["aboard"].contains("29.0 kg"));
        assert!(
            told["height-1"].contains("between -0.5 and 1.5 m"),
            "{told:?}"
        );
        let told = taken(Test::Heights, &form(&[]), "").unwrap_err();
        assert!(told[""].contains("hold the tape"));
        let told = taken(Test::Tilt, &form(&[("hull-mass", "30")]), "");
        assert!(told.unwrap_err()[""].contains("at least three"));
    }
}

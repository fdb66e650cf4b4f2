//! What was measured afloat, as it is typed.

use crate::form::{
    Draft, Field, FormView, Group, Mistakes, NotTaken, Sent, Table, Typed, choice, day, number,
    percent,
};
use galvet_core::base::{Bounds, Dimension, System};
use galvet_core::hull::{Aboard, Datum, Evidence, FloatReading, Measure, Scuppers, Survey};
use galvet_core::plausible::tilt::{Shift, Tilt, reduce};
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
}

/// The water it floats in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, VariantArray, EnumMessage, IntoStaticStr)]
#[strum(serialize_all = "kebab-case")]
enum FloatsIn {
    /// A lake or river.
    #[strum(message = "fresh")]
    Fresh,
    /// An estuary.
    #[strum(message = "brackish")]
    Brackish,
    /// The sea.
    #[strum(message = "salt")]
    Salt,
}

impl FloatsIn {
    /// kg/m³. Guide values; of fresh water the table's.
    const fn density(self) -> f64 {
        match self {
            Self::Fresh => Evidence::FRESH,
            Self::Brackish => 1010.0,
            Self::Salt => 1025.0,
        }
    }
}

/// Places of the tape in a float test.
const PLACES: usize = 3;
/// Shifts of a tilt test there is room for.
const SHIFTS: usize = 6;

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
/// Accepted weights of the hull as it floats, kg.
const HULL: Bounds = Bounds::new("the hull's weight", Dimension::Mass, 6.0, 150.0);

/// A test as its form takes it apart. What must be there and is not yet is no number.
#[derive(Debug, Clone)]
struct TestDraft {
    test: Test,
    aboard: Aboard,
    water: FloatsIn,
    scuppers: Scuppers,
    date: String,
    datum: Datum,
    /// Where the tape was held, share of the length, and what it read, m.
    heights: [(Option<f64>, Option<f64>); PLACES],
    length: f64,
    beam: f64,
    hull: f64,
    /// What was moved, kg, how far, m, and the heel it made, °.
    shifts: [[Option<f64>; 3]; SHIFTS],
}

impl TestDraft {
    /// A test nobody has made yet, on a hull and a day.
    fn usual(test: Test, survey: &Survey, date: &str) -> Self {
        let weight = survey.value(Measure::FittedWeight);
        let weight = weight.or_else(|| survey.value(Measure::BareWeight));
        Self {
            test,
            aboard: Aboard {
                mass: f64::NAN,
                place: 0.54,
                height: f64::NAN,
            },
            water: FloatsIn::Fresh,
            scuppers: Scuppers::Open,
            date: date.to_owned(),
            datum: Datum::Floor,
            heights: [0.25, 0.5, 0.75].map(|place| (Some(place), None)),
            length: f64::NAN,
            beam: f64::NAN,
            hull: weight.unwrap_or(f64::NAN),
            shifts: [[None; 3]; SHIFTS],
        }
    }

    fn height<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.heights[N].1
    }

    fn place<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.heights[N].0
    }

    fn shift<const N: usize, const WHAT: usize>(&mut self) -> &mut Option<f64> {
        &mut self.shifts[N][WHAT]
    }

    fn tape(&self, mistakes: &mut Mistakes) -> FloatReading {
        let mut heights = Vec::new();
        for (n, &(place, height)) in (1..).zip(&self.heights) {
            // A place without a height was not read.
            match (place, height) {
                (Some(place), Some(height)) => heights.push((place, height)),
                (None, Some(_)) => {
                    let where_ = "say where the tape was held".to_owned();
                    mistakes.insert(format!("place-{n}"), where_);
                }
                (_, None) => {}
            }
        }
        if heights.is_empty() && mistakes.is_empty() {
            let needed = "hold the tape at one place at least, better at three".to_owned();
            mistakes.insert(String::new(), needed);
        }
        FloatReading::Heights {
            datum: self.datum,
            heights,
        }
    }

    fn tilted(&self, mistakes: &mut Mistakes) -> Option<Tilt> {
        let mut shifts = Vec::new();
        for (n, shift) in (1..).zip(&self.shifts) {
            match *shift {
                [None, None, None] => {}
                [Some(mass), Some(distance), Some(heel_deg)] => shifts.push(Shift {
                    mass,
                    distance,
                    heel_deg,
                }),
                _ => {
                    let names = ["moved", "way", "heel"].into_iter().zip(shift);
                    for (name, _) in names.filter(|(_, figure)| figure.is_none()) {
                        let all = "a shift needs its weight, its way and the heel".to_owned();
                        mistakes.insert(format!("{name}-{n}"), all);
                    }
                }
            }
        }
        if !mistakes.is_empty() {
            return None;
        }
        let tilt = reduce(&shifts, self.aboard.mass + self.hull);
        tilt.map_err(|error| mistakes.insert(String::new(), error.to_string()))
            .ok()
    }

    /// What it comes to, with all that is wrong with it.
    fn measured(self) -> Result<Measured, Mistakes> {
        let (mut mistakes, mut tilt) = (Mistakes::new(), None);
        let reading = match self.test {
            Test::Heights => self.tape(&mut mistakes),
            Test::Waterline => FloatReading::Waterline {
                length: self.length,
                beam: self.beam,
            },
            Test::Tilt => {
                tilt = self.tilted(&mut mistakes);
                let read = tilt.as_ref().ok_or_else(|| mistakes.clone())?;
                FloatReading::Tilt {
                    gm: read.gm,
                    error: read.error,
                    shifts: read.readings.clone(),
                }
            }
        };
        if !mistakes.is_empty() {
            return Err(mistakes);
        }
        let evidence = Evidence {
            aboard: self.aboard,
            density: self.water.density(),
            scuppers: self.scuppers,
            date: self.date,
            reading,
        };
        let whole = |error: galvet_core::base::OutOfRange| [(String::new(), error.to_string())];
        let evidence = evidence.check().map_err(|error| whole(error).into());
        evidence.map(|evidence| Measured { evidence, tilt })
    }
}

impl Draft for TestDraft {
    type Record = Self;

    fn of(draft: &Self) -> Self {
        draft.clone()
    }

    fn made(self) -> Result<Self, Mistakes> {
        self.clone().measured()?;
        Ok(self)
    }
}

/// The fields of one place of the tape.
fn place<const N: usize>() -> [Field<TestDraft>; 2] {
    let (n, at) = (N + 1, Evidence::PLACE);
    [
        percent(
            &format!("place-{n}"),
            &format!("{n}: held at, % from the bow"),
            at,
            TestDraft::place::<N>,
        ),
        number(
            &format!("height-{n}"),
            "above the water there",
            Evidence::HEIGHT,
            TestDraft::height::<N>,
        ),
    ]
}

/// The fields of one shift.
fn shift<const N: usize>() -> [Field<TestDraft>; 3] {
    let n = N + 1;
    [
        number(
            &format!("moved-{n}"),
            &format!("{n}: weight moved"),
            SHIFTED,
            TestDraft::shift::<N, 0>,
        ),
        number(
            &format!("way-{n}"),
            &format!("{n}: by, starboard +"),
            WAY,
            TestDraft::shift::<N, 1>,
        ),
        number(
            &format!("heel-{n}"),
            &format!("{n}: heel, degrees"),
            HEEL,
            TestDraft::shift::<N, 2>,
        ),
    ]
}

/// The form of a test.
fn test_form(test: Test) -> Table<TestDraft> {
    type D = TestDraft;
    let aboard = vec![
        number(
            "aboard",
            "weight aboard, all but the hull",
            Evidence::MASS,
            |d: &mut D| &mut d.aboard.mass,
        ),
        percent(
            "aboard-place",
            "its place, % from the bow",
            Evidence::PLACE,
            |d: &mut D| &mut d.aboard.place,
        ),
        number(
            "aboard-height",
            "its centre above the floor",
            Evidence::HEIGHT,
            |d: &mut D| &mut d.aboard.height,
        )
        .hint("of somebody seated: about a hand above the seat"),
        choice("water-kind", "water", |d: &mut D| &mut d.water),
        choice("scuppers-state", "scuppers meanwhile", |d: &mut D| {
            &mut d.scuppers
        }),
        day("date", "day", |d: &mut D| &mut d.date),
    ];
    let read = match test {
        Test::Heights => std::iter::once(choice("datum", "tape held at", |d: &mut D| &mut d.datum))
            .chain(place::<0>())
            .chain(place::<1>())
            .chain(place::<2>())
            .collect(),
        Test::Waterline => vec![
            number(
                "water-length",
                "length at the water",
                Evidence::WATERLINE,
                |d: &mut D| &mut d.length,
            ),
            number(
                "water-beam",
                "beam at the water",
                Evidence::WATERLINE,
                |d: &mut D| &mut d.beam,
            ),
        ],
        Test::Tilt => std::iter::once(
            number("hull-mass", "the hull as it floats", HULL, |d: &mut D| {
                &mut d.hull
            })
            .hint("on a scale, if you can"),
        )
        .chain(shift::<0>())
        .chain(shift::<1>())
        .chain(shift::<2>())
        .chain(shift::<3>())
        .chain(shift::<4>())
        .chain(shift::<5>())
        .collect(),
    };
    let group = |title, fields| Group {
        title,
        hint: "",
        folded: false,
        fields,
    };
    Table(vec![
        group("How it lay", aboard),
        group("What was read", read),
    ])
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

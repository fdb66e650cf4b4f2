//! A test afloat as its form takes it apart.

use super::{Measured, Test};
use crate::form::{Draft, Field, Group, Mistakes, Table, choice, day, number, percent};
use galvet_core::base::{Bounds, Dimension};
use galvet_core::effort::lasting;
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{
    Aboard, Datum, Evidence, FloatReading, Measure, Propulsion, Scuppers, Survey,
};
use galvet_core::plausible::tilt::{Shift, Tilt, reduce};
use strum::{EnumMessage, IntoStaticStr, VariantArray};

/// The water it floats in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, VariantArray, EnumMessage, IntoStaticStr)]
#[strum(serialize_all = "kebab-case")]
pub(crate) enum FloatsIn {
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
    /// The one a density is nearest to.
    pub(crate) fn of(density: f64) -> Self {
        let off = |one: &Self| (one.density() - density).abs();
        let all = [Self::Fresh, Self::Brackish, Self::Salt];
        let near = |a: &Self, b: &Self| off(a).total_cmp(&off(b));
        all.into_iter().min_by(near).unwrap_or(Self::Fresh)
    }

    /// kg/m³. Guide values; of fresh water the table's.
    pub(crate) const fn density(self) -> f64 {
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
pub(super) const SHIFTS: usize = 6;

pub(super) const SHIFTED: Bounds = Bounds::new("the mass moved", Dimension::Mass, 0.5, 150.0);
pub(super) const WAY: Bounds = Bounds::new("the way moved", Dimension::ShortLength, -1.5, 1.5);
const HEEL: Bounds = Bounds::new("the heel", Dimension::Angle, -25.0, 25.0);
/// Accepted weights of the hull as it floats, kg.
const HULL: Bounds = Bounds::new("the hull's weight", Dimension::Mass, 6.0, 150.0);

/// A test as its form takes it apart. What must be there and is not yet is no number.
#[derive(Debug, Clone)]
pub(super) struct TestDraft {
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
    /// Speed drifting or driven, m/s.
    speed: f64,
    /// Wind met, m/s.
    wind: f64,
    /// What people and kit show to it, C·A in m².
    shows: f64,
    /// Effort, W.
    watts: f64,
    by: Propulsion,
    /// Until the floor was clear, s.
    seconds: f64,
}

impl TestDraft {
    /// A test nobody has made yet, on a hull and a day.
    pub(super) fn usual(test: Test, survey: &Survey, date: &str) -> Self {
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
            speed: f64::NAN,
            wind: f64::NAN,
            shows: Guides::default()[Guide::DragSitsSide],
            watts: lasting(survey.propulsion, &Guides::default()),
            by: survey.propulsion,
            seconds: f64::NAN,
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
    pub(super) fn measured(self) -> Result<Measured, Mistakes> {
        let (mut mistakes, mut tilt) = (Mistakes::new(), None);
        let reading = match self.test {
            Test::Heights => self.tape(&mut mistakes),
            Test::Waterline => FloatReading::Waterline {
                length: self.length,
                beam: self.beam,
            },
            Test::Drift => FloatReading::Drift {
                speed: self.speed,
                wind: self.wind,
                shows: self.shows,
            },
            Test::Speed => FloatReading::Speed {
                speed: self.speed,
                watts: self.watts,
                by: self.by,
            },
            Test::Drain => FloatReading::Drain {
                seconds: self.seconds,
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
pub(super) fn test_form(test: Test) -> Table<TestDraft> {
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
        Test::Drift => vec![
            number("speed", "drifted at", Evidence::SPEED, |d: &mut D| {
                &mut d.speed
            })
            .hint("side on, nobody paddling, over the water"),
            number(
                "met-wind",
                "wind met at the boat",
                Evidence::WIND,
                |d: &mut D| &mut d.wind,
            ),
            number(
                "shows",
                "people and kit show to it, C·A in m²",
                Evidence::SHOWS,
                |d: &mut D| &mut d.shows,
            )
            .hint("one person seated 0.35, standing 0.45; a crate with rods 0.1 more"),
        ],
        Test::Speed => vec![
            number("speed", "kept up", Evidence::SPEED, |d: &mut D| {
                &mut d.speed
            })
            .hint("through the water: there and back, the mean of both"),
            choice("by", "by", |d: &mut D| &mut d.by),
            number("watts", "at an effort of", Evidence::WATTS, |d: &mut D| {
                &mut d.watts
            })
            .hint("a motor's meter; of a person what is kept up for hours, by guess"),
        ],
        Test::Drain => vec![
            number("seconds", "clear after", Evidence::DRAIN, |d: &mut D| {
                &mut d.seconds
            })
            .hint("from brim-full until no puddle but what stays is left"),
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

//! How a column of the ranking comes about: speed, drift, helm, comfort, price by the
//! trip, each with its numbers, what went in and the guide values used.

use super::derivation::{Derivation, Input, OF_THE_MIDDLE, OVER_SHAPES, guide_values, input};
use super::figure::{Figure, signed_percent};
use crate::answer::Afloat;
use crate::present::columns::{Column, Filed, Which, Worked, cells, column_named};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::outlook::held_back;
use galvet_core::guide::Guide;
use galvet_core::handling::{helm, side_areas};
use galvet_core::hull::{Measure, Propulsion};
use galvet_core::question::Brief;
use galvet_core::rank::explain::area;
use galvet_core::rank::{by_the_trip, comfort, seat};

/// A column that is reckoned rather than read off a record.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Reckoned {
    /// Speed kept up.
    Speed,
    /// Drift beam-on.
    Drift,
    /// Helm under way.
    Helm,
    /// Comfort of the seat.
    Comfort,
    /// Price by the trip.
    Trip,
}

impl Reckoned {
    /// The one a word in an address means.
    #[must_use]
    pub fn named(key: &str) -> Option<Self> {
        let (_, column) = column_named(key)?;
        Some(match column.which {
            Which::Speed => Self::Speed,
            Which::Drift => Self::Drift,
            Which::Helm => Self::Helm,
            Which::Comfort => Self::Comfort,
            Which::Trip => Self::Trip,
            _ => return None,
        })
    }

    const fn which(self) -> Which {
        match self {
            Self::Speed => Which::Speed,
            Self::Drift => Which::Drift,
            Self::Helm => Which::Helm,
            Self::Comfort => Which::Comfort,
            Self::Trip => Which::Trip,
        }
    }

    const fn meaning(self) -> &'static str {
        match self {
            Self::Speed => {
                "speed that can be kept up for hours in still water, without wind: an estimate"
            }
            Self::Drift => {
                "how fast it drifts lying beam-on in this water's typical wind; waves and current come on top"
            }
            Self::Helm => {
                "how far the wind's centre lies behind the water's under way, of the length: above zero it turns into the wind, and the further from zero, the more work it is to hold its course"
            }
            Self::Comfort => "what was judged of its seat, as so many of five: a guide of ours",
            Self::Trip => "what it costs for each time out, over some years",
        }
    }

    fn guides(self, propulsion: Propulsion) -> Vec<Guide> {
        use Guide as G;
        match self {
            Self::Speed => {
                let (share, efforts): (Guide, &[Guide]) = match propulsion {
                    Propulsion::Paddle => (G::EfficiencyPaddle, &BY_BODY),
                    Propulsion::RotaryPedal => (G::EfficiencyRotary, &BY_BODY),
                    Propulsion::FinPedal => (G::EfficiencyFin, &BY_BODY),
                    Propulsion::Motor => (G::EfficiencyMotor, &[G::MotorCruise]),
                };
                let rest = [share, G::FormFactor, G::DragArea];
                efforts.iter().copied().chain(rest).collect()
            }
            Self::Drift => vec![
                G::AirDensity,
                G::AirDrag,
                G::SideDrag,
                G::DriveArea,
                G::RudderArea,
            ],
            Self::Helm => vec![G::CentreForward, G::DriveArea, G::RudderArea],
            Self::Comfort => Vec::new(),
            Self::Trip => vec![Guide::TripYears],
        }
    }

    fn measures(self) -> &'static [Measure] {
        use Measure as M;
        match self {
            Self::Speed => &[
                M::Length,
                M::Beam,
                M::Depth,
                M::FittedWeight,
                M::BareWeight,
                M::SeatPlace,
            ],
            Self::Drift | Self::Helm => &[
                M::Length,
                M::Beam,
                M::Depth,
                M::FittedWeight,
                M::DriveDepth,
                M::SeatPlace,
            ],
            Self::Comfort => &[],
            Self::Trip => &[M::Price],
        }
    }
}

/// Efforts of who paddles or pedals.
const BY_BODY: [Guide; 3] = [Guide::EffortEasy, Guide::EffortUsual, Guide::EffortStrong];

/// How it comes about for a hull.
#[must_use]
pub fn reckoned(afloat: &Afloat, what: Reckoned, brief: &Brief, system: System) -> Derivation {
    let a = &afloat.assessment;
    let survey = &a.setup.posterior.survey;
    let of = Of {
        afloat,
        brief,
        system,
    };
    Derivation {
        figure: of.figure(what),
        verdict: String::new(),
        formula: None,
        picture: None,
        over: match what {
            Reckoned::Speed => "from the least to the most effort kept up",
            _ => OVER_SHAPES,
        },
        basis: match what {
            Reckoned::Speed => "With the numbers of its middle shape.",
            Reckoned::Drift | Reckoned::Helm => OF_THE_MIDDLE,
            Reckoned::Comfort | Reckoned::Trip => "",
        },
        steps: of.steps(what),
        inputs: what
            .measures()
            .iter()
            .map(|&m| input(survey, m, system))
            .chain(judged(survey, what))
            .collect(),
        guides: guide_values(&what.guides(survey.propulsion), a.setup.guides(), system),
        narrows: of.narrows(what),
    }
}

/// Answers that went into comfort.
fn judged(survey: &galvet_core::hull::Survey, what: Reckoned) -> Vec<Input> {
    if what != Reckoned::Comfort {
        return Vec::new();
    }
    let answers = seat(survey).into_iter().map(|j| Input {
        label: j.judgement.label(),
        value: j.answer.to_owned(),
        source: "looked at and judged".to_owned(),
    });
    answers.collect()
}

struct Of<'a> {
    afloat: &'a Afloat,
    brief: &'a Brief,
    system: System,
}

impl Of<'_> {
    /// As the ranking's row shows it.
    fn figure(&self, what: Reckoned) -> Figure {
        let a = &self.afloat.assessment;
        let survey = &a.setup.posterior.survey;
        let quick = self.afloat.quick();
        let all = cells(
            Some(a),
            &Worked {
                quick: Some(quick),
                ..Worked::default()
            },
            survey,
            self.brief,
            self.system,
        );
        let cell = all.into_iter().find(|c| c.key == what.which().key());
        let column: Option<&Column> = column_named(what.which().key()).map(|(_, column)| column);
        let (value, range, known) = cell.map_or((String::new(), String::new(), false), |c| {
            // What is not a spread of numbers is told in words beside the value.
            (c.text, c.range, matches!(c.filed, Some(Filed::Range(_))))
        });
        let (range, band) = if known {
            (range, String::new())
        } else {
            (String::new(), range)
        };
        Figure {
            key: what.which().key(),
            symbol: "",
            label: column.map_or("", |c| c.label),
            meaning: what.meaning(),
            value,
            known,
            band,
            range,
            share: String::new(),
        }
    }

    fn steps(&self, what: Reckoned) -> Vec<String> {
        match what {
            Reckoned::Speed => self.speed(),
            Reckoned::Drift => self.drift(),
            Reckoned::Helm => self.helm(),
            Reckoned::Comfort => self.comfort(),
            Reckoned::Trip => self.trip(),
        }
    }

    fn text(&self, dimension: Dimension, value: f64, decimals: usize) -> String {
        self.system.text(dimension, value, decimals)
    }

    fn speed(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let Some(held) = held_back(a) else {
            return vec![
                "its middle shape does not rest, or goes faster than speeds are reckoned"
                    .to_owned(),
            ];
        };
        let speed = |v| self.text(Dimension::Speed, v, 2);
        let [friction, waves, air] = held.parts;
        let sum: f64 = held.parts.iter().sum();
        let wanted = held.efficiency * held.effort[1];
        let at = match a.setup.posterior.survey.propulsion {
            Propulsion::Motor => "from the battery",
            _ => "at hand or foot",
        };
        vec![
            format!(
                "the usual effort, {:.0}\u{a0}W {at}, of which {:.0}\u{a0}% arrive in the water: {wanted:.0}\u{a0}W",
                held.effort[1],
                100.0 * held.efficiency
            ),
            format!(
                "at {} friction on {} of skin, {} long in the water, holds it back with {friction:.1}\u{a0}N, the waves it makes with {waves:.1}\u{a0}N, still air with {air:.1}\u{a0}N: {sum:.1}\u{a0}N",
                speed(held.speed[1]),
                area(held.wetted_area, self.system),
                self.text(Dimension::Length, held.waterline, 2)
            ),
            format!(
                "{sum:.1}\u{a0}N at that speed are {:.0}\u{a0}W: the speed at which they are those {wanted:.0}\u{a0}W is read off a curve with a place every eighth of a metre a second",
                sum * held.speed[1]
            ),
            format!(
                "by the least effort, {:.0}\u{a0}W, {}; by the most, {:.0}\u{a0}W, {}: that is the range told",
                held.effort[0],
                speed(held.speed[0]),
                held.effort[2],
                speed(held.speed[2])
            ),
        ]
    }

    fn drift(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let (water, guides) = (&self.brief.water, a.setup.guides());
        let Some((areas, wind)) = side_areas(&a.setup, a.middle).zip(water.wind()) else {
            return vec![self.without_wind()];
        };
        let drag = areas.drag(guides);
        let v = galvet_core::handling::drift(wind, &areas, water.density, guides);
        let speed = |v| self.text(Dimension::Speed, v, 2);
        let shown = |m2| area(m2, self.system);
        vec![
            format!(
                "in the wind stand {} of its side and {} of kit, with drag {}; people count by what the wind pushes of them, {}: {}",
                shown(areas.hull.size),
                shown(areas.kit.size),
                guides[Guide::AirDrag],
                shown(areas.people_drag[1]),
                shown(drag.air)
            ),
            format!(
                "in the water {} of its side, with drive, rudder or skeg let down where it has them, and drag {}: {}",
                shown(areas.below.size),
                guides[Guide::SideDrag],
                shown(drag.water)
            ),
            format!(
                "the root of {:.3} over {:.0}, each times the weight of its air or water, is {:.4}; of a typical wind of {} it takes that share of one and itself: {}",
                guides[Guide::AirDensity] * drag.air,
                water.density * drag.water,
                v / (wind - v),
                speed(wind),
                speed(v)
            ),
        ]
    }

    fn helm(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let (guides, form) = (a.setup.guides(), &a.setup.posterior.form);
        let Some(areas) = side_areas(&a.setup, a.middle) else {
            return vec![self.without_wind()];
        };
        let place = |x: f64| self.text(Dimension::Length, x - form.bow(), 2);
        let (at_rest, under_way) = helm(&areas, form.length(), guides);
        vec![
            format!(
                "the middle of what stands in the wind lies {} from the bow, that of its side in the water {}: {} of its {} at rest",
                place(areas.drag(guides).air_at),
                place(areas.below.centre()),
                signed_percent(at_rest),
                self.text(Dimension::Length, form.length(), 2)
            ),
            format!(
                "going ahead, the water's moves forward by {:.0}\u{a0}% of the length: {}",
                100.0 * guides[Guide::CentreForward],
                signed_percent(under_way)
            ),
        ]
    }

    fn without_wind(&self) -> String {
        format!(
            "{} names no wind in knots, or it does not rest",
            self.brief.water.name
        )
    }

    fn comfort(&self) -> Vec<String> {
        let judged = seat(&self.afloat.assessment.setup.posterior.survey);
        let Some(comfort) = comfort(&judged) else {
            return vec![format!(
                "{} of five things of the seat were looked at; told from three on",
                judged.len()
            )];
        };
        let parts: Vec<String> = judged
            .iter()
            .map(|j| format!("{}: {}, {:.1}", j.judgement.label(), j.answer, j.share))
            .collect();
        vec![
            format!(
                "each from 0, the worst, to 1, the best: {}",
                parts.join("; ")
            ),
            format!("their mean, of five: {:.1}", comfort),
        ]
    }

    fn trip(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let survey = &a.setup.posterior.survey;
        let years = a.setup.guides()[Guide::TripYears];
        let money = |v| self.text(Dimension::Money, v, 0);
        let told = survey.value(Measure::Price).zip(self.brief.outing.trips);
        let Some(((price, trips), each)) = told.zip(by_the_trip(survey, self.brief, years)) else {
            return vec![
                "it takes a price in its record, and trips a year in the question".to_owned(),
            ];
        };
        vec![format!(
            "{} over {trips:.0} trips a year in {years:.0} years, {:.0} trips: {}",
            money(price),
            trips * years,
            money(each)
        )]
    }

    fn narrows(&self, what: Reckoned) -> Vec<String> {
        let unknown = |m: Measure| {
            let survey = &self.afloat.assessment.setup.posterior.survey;
            survey.value(m).is_none()
        };
        let measures = what.measures().iter().copied().filter(|&m| unknown(m));
        let mut out: Vec<String> = measures
            .map(|m| format!("{} is not known", m.label()))
            .collect();
        match what {
            Reckoned::Speed => out
                .push("a timed mile: what a person keeps up spreads more than hulls do".to_owned()),
            Reckoned::Comfort if out.is_empty() => {
                out.push("an hour in its seat".to_owned());
            }
            _ => {}
        }
        out
    }
}

//! A figure's formula with this hull's numbers in it, term by term: to be checked with a
//! pocket calculator. How it is set is `formula.html`'s affair.

use galvet_core::base::{Dimension, GRAVITY, System};
use galvet_core::figures::{Quantity, Setup, Values};
use galvet_core::hull::Measure;
use galvet_core::question::Brief;

/// A term: its symbol, what it is, its value.
pub struct Term {
    pub symbol: &'static str,
    pub meaning: &'static str,
    pub value: String,
}

/// A formula with its numbers.
pub struct Formula {
    /// Which of those in `formula.html`.
    pub word: &'static str,
    pub terms: Vec<Term>,
    /// What comes of it.
    pub result: String,
}

/// A formula in symbols, as Methods tells it.
pub struct Method {
    /// Which of those in `formula.html`.
    pub word: &'static str,
    /// The figures it gives.
    pub gives: &'static [Quantity],
    /// Symbols and what they stand for, in the order its numbers stand in it.
    pub terms: &'static [(&'static str, &'static str)],
    /// What to mind of it, or where it is from.
    pub source: &'static str,
}

/// The figures whose formula fits on a line.
pub static METHODS: [Method; 8] = [
    Method {
        word: "label",
        gives: &[Quantity::LabelMargin],
        terms: &[("R", "rated capacity"), ("C", "counted load")],
        source: "the maker's label, and what it counts",
    },
    Method {
        word: "working",
        gives: &[Quantity::WorkingMargin],
        terms: &[
            ("s", "what of the label this water works to"),
            ("R", "rated capacity"),
            ("C", "counted load"),
        ],
        source: "the share is the water's, a guide value",
    },
    Method {
        word: "binding",
        gives: &[Quantity::BindingMargin],
        terms: &[
            ("a", "label margin"),
            ("b", "working margin"),
            ("c", "waterline margin"),
        ],
        source: "the tightest of the three",
    },
    Method {
        word: "support",
        gives: &[Quantity::StandingSupport],
        terms: &[
            (
                "K",
                "moment that answers a radian of lean, secant to 5°, the weight at the feet",
            ),
            ("m", "the angler, dressed and wet"),
            ("h", "middle of the body over the floor"),
        ],
        source: "a person on a hull as an inverted pendulum on a spring: 1 holds by itself",
    },
    Method {
        word: "stiffness",
        gives: &[Quantity::Stiffness],
        terms: &[("Δ", "all that floats"), ("GM", "initial stability")],
        source: "initial righting moment a degree of heel",
    },
    Method {
        word: "lean",
        gives: &[Quantity::LeanRoom, Quantity::LastingLean],
        terms: &[
            (
                "M",
                "most of Δ·GZ / cos φ over the lean, up to water running in",
            ),
            ("m", "the angler, dressed and wet"),
            ("u", "what who comes along may take up"),
        ],
        source: "a brief lean before water comes up through the scuppers, a lasting one after",
    },
    Method {
        word: "roll",
        gives: &[Quantity::RollPeriod],
        terms: &[
            ("k", "how far from the middle the masses lie"),
            ("GM", "initial stability"),
        ],
        source: "small angles, undamped",
    },
    Method {
        word: "rise",
        gives: &[Quantity::GettingUp],
        terms: &[("s", "seat over the floor"), ("k", "height of the knee")],
        source: "the higher the seat over the knee, the easier to get up",
    },
];

/// What a formula is told of: a hull as it is set up and floats, in the reader's units.
pub(super) struct Told<'a> {
    pub(super) setup: &'a Setup,
    pub(super) brief: &'a Brief,
    pub(super) values: &'a Values,
    pub(super) system: System,
    /// What floats with the crew seated, and with it on its feet, kg.
    pub(super) afloat: [f64; 2],
}

impl Told<'_> {
    fn mass(&self, kg: f64) -> String {
        self.system.text(Dimension::Mass, kg, 1)
    }

    fn length(&self, m: f64) -> String {
        self.system.text(Dimension::Length, m, 3)
    }

    fn figure(&self, q: Quantity) -> Option<String> {
        Some(q.row().text(self.system, self.values.get(q)?))
    }

    /// The formula of a figure; `None` where it has none that fits on a line, or is not
    /// known.
    pub(super) fn formula(&self, q: Quantity) -> Option<Formula> {
        let method = METHODS.iter().find(|m| m.gives.contains(&q))?;
        let terms = method.terms.iter().zip(self.numbers(q)?);
        let terms = terms.map(|(&(symbol, meaning), value)| Term {
            symbol,
            meaning,
            value,
        });
        Some(Formula {
            word: method.word,
            terms: terms.collect(),
            result: self.figure(q)?,
        })
    }

    /// The numbers of a figure's terms, in their order.
    fn numbers(&self, q: Quantity) -> Option<Vec<String>> {
        use Quantity as Q;
        let loads = &self.setup.loads;
        let figure = self.values.get(q)?;
        let rated = self.setup.posterior.survey.value(Measure::RatedCapacity);
        Some(match q {
            Q::LabelMargin => vec![self.mass(rated?), self.figure(Q::Counted)?],
            Q::WorkingMargin => {
                let share = format!("{:.2}", self.brief.water.working_share);
                vec![share, self.mass(rated?), self.figure(Q::Counted)?]
            }
            Q::BindingMargin => vec![
                self.figure(Q::LabelMargin)?,
                self.figure(Q::WorkingMargin)?,
                self.figure(Q::WaterlineMargin)?,
            ],
            Q::StandingSupport => {
                let (mass, height) = (loads.crew_mass(), loads.standing_centre());
                let answers = figure * mass * GRAVITY * height;
                let answers = format!("{answers:.0}\u{a0}N·m");
                vec![answers, self.mass(mass), self.length(height)]
            }
            Q::Stiffness => {
                let gm = self.values.get(Q::Gm)?;
                vec![self.mass(self.afloat[0]), self.length(gm)]
            }
            Q::LeanRoom | Q::LastingLean => {
                // What others take up by moving comes off it.
                let mass = loads.crew_mass();
                let taken = loads.live_moment() / mass;
                let moment = format!("{:.2}\u{a0}kg·m", (figure + taken) * mass);
                vec![moment, self.mass(mass), self.length(taken)]
            }
            Q::RollPeriod => {
                let gm = self.values.get(Q::Gm)?;
                let radius = figure * (GRAVITY * gm).sqrt() / std::f64::consts::TAU;
                vec![self.length(radius), self.length(gm)]
            }
            Q::GettingUp => {
                let knee = self.brief.crew.knee_height(self.setup.guides());
                vec![self.length(figure * knee), self.length(knee)]
            }
            _ => return None,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::{Desk, Hull};
    use crate::demo_data;
    use crate::present::page::hulls::derivation::derivation;
    use crate::question::Ask;
    use galvet_core::guide::Guides;
    use std::sync::Arc;

    /// The first number of a term as it is shown.
    fn number(text: &str) -> f64 {
        let text = text.replace('\u{2212}', "-");
        let end = text.find(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-'));
        text[..end.unwrap_or(text.len())].parse().unwrap()
    }

    #[test]
    fn a_pocket_calculator_comes_to_the_same() {
        use Quantity as Q;
        let catalogue = demo_data::catalogue().unwrap();
        let kept = catalogue.hulls.iter();
        let kept = kept.clone().find(|h| h.survey.key == "fennick-dunmarrow");
        let hull = Hull {
            known: None,
            survey: Arc::new(kept.unwrap().survey.clone()),
        };
        let asked = Ask::of(std::iter::empty::<(&str, String)>());
        let asked = asked.resolve(&catalogue).map_err(|_| "a question").unwrap();
        let desk = Desk::remembering(Arc::new(Guides::default()), 1 << 24);
        let afloat = desk.afloat(&hull, &asked.brief).unwrap();
        let mut seen = 0;
        for q in Q::ALL {
            let told = derivation(&afloat, *q, &asked.brief, System::Metric);
            let Some(f) = told.formula else { continue };
            seen += 1;
            let t: Vec<f64> = f.terms.iter().map(|t| number(&t.value)).collect();
            let come = match f.word {
                "label" => t[0] - t[1],
                "working" => t[0] * t[1] - t[2],
                "binding" => t[0].min(t[1]).min(t[2]),
                "support" => t[0] / (t[1] * GRAVITY * t[2]),
                "stiffness" => t[0] * GRAVITY * t[1] * std::f64::consts::PI / 180.0,
                // What comes of the shift stands in centimetres.
                "lean" => 100.0 * (t[0] / t[1] - t[2]),
                "roll" => std::f64::consts::TAU * t[0] / (GRAVITY * t[1]).sqrt(),
                "rise" => t[0] / t[1],
                other => panic!("{other}"),
            };
            let said = number(&f.result);
            assert!(
                (come - said).abs() <= 0.015 * said.abs().max(1.0),
                "{q:?}: {come} for {}",
                f.result
            );
        }
        assert_eq!(seen, 9);
    }
}

//! A figure's formula with this hull's numbers in it, term by term: to be checked with a
//! pocket calculator. How it is set is `formula.html`'s affair.

use galvet_core::base::{Dimension, GRAVITY, System};
use galvet_core::figures::{Quantity, Setup, Values};
use galvet_core::hull::Measure;
use galvet_core::load::Carriage;
use galvet_core::question::Brief;

/// A term: its symbol, what it is, its value.
pub struct Term {
    pub symbol: &'static str,
    pub meaning: String,
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
    fn term(&self, symbol: &'static str, meaning: &str, value: String) -> Term {
        Term {
            symbol,
            meaning: meaning.to_owned(),
            value,
        }
    }

    fn mass(&self, symbol: &'static str, meaning: &str, kg: f64) -> Term {
        self.term(symbol, meaning, self.system.text(Dimension::Mass, kg, 1))
    }

    fn length(&self, symbol: &'static str, meaning: &str, m: f64) -> Term {
        self.term(symbol, meaning, self.system.text(Dimension::Length, m, 3))
    }

    fn figure(&self, symbol: &'static str, q: Quantity) -> Option<Term> {
        let value = self.values.get(q)?;
        let row = q.row();
        Some(self.term(symbol, row.label, row.text(self.system, value)))
    }

    fn of(&self, carriage: Carriage) -> f64 {
        match carriage {
            Carriage::Seated => self.afloat[0],
            Carriage::AtTheFeet => self.afloat[1],
        }
    }

    /// The formula of a figure; `None` where it has none that fits on a line, or is not
    /// known.
    pub(super) fn formula(&self, q: Quantity) -> Option<Formula> {
        use Quantity as Q;
        let result = q.row().text(self.system, self.values.get(q)?);
        let loads = &self.setup.loads;
        let (word, terms) = match q {
            Q::LabelMargin | Q::WorkingMargin => {
                let rated = self.setup.posterior.survey.value(Measure::RatedCapacity)?;
                let rated = self.mass("R", "rated capacity", rated);
                let counted = self.figure("C", Q::Counted)?;
                if q == Q::LabelMargin {
                    ("label", vec![rated, counted])
                } else {
                    let share = format!("{:.2}", self.brief.water.working_share);
                    let share = self.term("s", "what of the label this water works to", share);
                    ("working", vec![share, rated, counted])
                }
            }
            Q::BindingMargin => (
                "binding",
                vec![
                    self.figure("a", Q::LabelMargin)?,
                    self.figure("b", Q::WorkingMargin)?,
                    self.figure("c", Q::WaterlineMargin)?,
                ],
            ),
            Q::StandingSupport => {
                let (mass, height) = (loads.crew_mass(), loads.standing_centre());
                let tips = mass * GRAVITY * height;
                let answers = self.values.get(q)? * tips;
                (
                    "support",
                    vec![
                        self.term(
                            "K",
                            "moment that answers a radian of lean, secant to 5°, the weight at the feet",
                            format!("{answers:.0}\u{a0}N·m"),
                        ),
                        self.mass("m", "the angler, dressed and wet", mass),
                        self.length("h", "middle of the body over the floor", height),
                    ],
                )
            }
            Q::Stiffness => (
                "stiffness",
                vec![
                    self.mass("Δ", "all that floats", self.of(Carriage::Seated)),
                    self.length("GM", Q::Gm.row().label, self.values.get(Q::Gm)?),
                ],
            ),
            Q::LeanRoom | Q::LastingLean => {
                // What others take up by moving comes off it.
                let taken = loads.live_moment() / loads.crew_mass();
                let shift = self.values.get(q)? + taken;
                let moment = shift * loads.crew_mass();
                (
                    "lean",
                    vec![
                        self.term(
                            "M",
                            "most of Δ·GZ / cos φ over the lean, up to water running in",
                            format!("{moment:.2}\u{a0}kg·m"),
                        ),
                        self.mass("m", "the angler, dressed and wet", loads.crew_mass()),
                        self.length("u", "what who comes along may take up", taken),
                    ],
                )
            }
            Q::RollPeriod => {
                let (period, gm) = (self.values.get(q)?, self.values.get(Q::Gm)?);
                let radius = period * (GRAVITY * gm).sqrt() / std::f64::consts::TAU;
                (
                    "roll",
                    vec![
                        self.length("k", "how far from the middle the masses lie", radius),
                        self.length("GM", Q::Gm.row().label, gm),
                    ],
                )
            }
            Q::GettingUp => {
                let knee = self.brief.crew.knee_height(self.setup.guides());
                let rise = self.values.get(q)? * knee;
                (
                    "rise",
                    vec![
                        self.length("s", "seat over the floor", rise),
                        self.length("k", "height of the knee", knee),
                    ],
                )
            }
            _ => return None,
        };
        Some(Formula {
            word,
            terms,
            result,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::{Desk, Hull};
    use crate::demo_data;
    use crate::present::page::derivation::derivation;
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

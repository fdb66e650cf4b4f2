//! What stands beside the points and needs no floating: comfort of the seat, price by the
//! trip.

use crate::hull::{Judgement, Measure, Survey};
use crate::question::Brief;

/// What is judged of a seat, and the answer that is best (guide values: a high backrest, a
/// lumbar support that adjusts, a recline set freely, mesh that dries, a base above the
/// water that stands).
pub const SEAT: [(Judgement, &str); 5] = [
    (Judgement::Backrest, "high"),
    (Judgement::Lumbar, "adjusts"),
    (Judgement::Recline, "free"),
    (Judgement::Padding, "mesh"),
    (Judgement::SeatBase, "above"),
];

/// Of the seat's five things at least so many have to be looked at for a figure.
pub const LOOKED_AT: usize = 3;

/// One thing judged of a seat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Seated {
    /// What was judged.
    pub judgement: Judgement,
    /// The answer, in words.
    pub answer: &'static str,
    /// How far it stands from the worst (0) towards the best (1).
    pub share: f64,
}

/// What was judged of a hull's seat.
#[must_use]
pub fn seat(survey: &Survey) -> Vec<Seated> {
    let looked = |&(judgement, best): &(Judgement, &str)| {
        let word = survey.looked.judged.get(&judgement)?;
        let answers = judgement.answers();
        let at = answers.iter().position(|a| a.0 == *word)?;
        let top = answers.iter().position(|a| a.0 == best)?;
        Some(Seated {
            judgement,
            answer: answers[at].1,
            share: at as f64 / top.max(1) as f64,
        })
    };
    SEAT.iter().filter_map(looked).collect()
}

/// How many of five things of the seat were judged good, 0 to 5: the mean of those looked
/// at, times five; `None` below [`LOOKED_AT`].
#[must_use]
pub fn comfort(judged: &[Seated]) -> Option<f64> {
    let sum: f64 = judged.iter().map(|j| j.share).sum();
    let mean = sum / judged.len().max(1) as f64;
    (judged.len() >= LOOKED_AT).then_some(mean * SEAT.len() as f64)
}

/// Price of a hull over the trips of some `years`; `None` where either is not known.
#[must_use]
pub fn by_the_trip(survey: &Survey, brief: &Brief, years: f64) -> Option<f64> {
    let both = survey.value(Measure::Price).zip(brief.outing.trips);
    both.map(|(price, trips)| price / (trips * years))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_best_answer_is_one_of_its_judgement() {
        for (judgement, best) in SEAT {
            assert!(judgement.answer(best).is_some(), "{judgement:?}: {best}");
        }
    }

    #[test]
    fn comfort_is_the_mean_of_what_was_looked_at_of_five() {
        let one = |share| Seated {
            judgement: Judgement::Backrest,
            answer: "",
            share,
        };
        assert_eq!(comfort(&[one(1.0), one(1.0)]), None);
        // (1 + 0.5 + 0) / 3 of five.
        assert_eq!(comfort(&[one(1.0), one(0.5), one(0.0)]), Some(2.5));
    }
}

//! One hull in several ways, or several hulls, each under the same question: what
//! becomes of each, and where it would stand in the ranking.

use super::afloat::{Answered, Figures};
use super::desk::{Desk, Hull};
use galvet_core::crew::SeatHeight;
use galvet_core::hull::{Fitout, Progress, Survey};
use galvet_core::question::Brief;
use galvet_core::rank::{Ranked, RuledOut, judge};
use std::sync::Arc;

/// A hull in one way of setting it up.
#[derive(Debug, Clone)]
pub struct Way {
    /// "as delivered", a configuration's name, a hull's.
    pub name: String,
    /// The hull so.
    pub hull: Hull,
    /// The seat, where this way decides it.
    pub seat: Option<SeatHeight>,
}

/// What became of a way.
#[derive(Debug)]
pub struct Outcome {
    /// The way.
    pub way: Way,
    /// Its figures.
    pub afloat: Figures,
    /// Its place among the hulls of the ranking, from 1; `None` where ruled out.
    pub place: Option<usize>,
    /// How it is ranked, where it is.
    pub ranked: Option<Ranked>,
    /// Why it is ruled out, where it is.
    pub ruled_out: Option<RuledOut>,
}

/// The ways a hull's record knows: as delivered, as it stands, with each change
/// that is planned, and each configuration.
#[must_use]
pub fn ways(hull: &Hull) -> Vec<Way> {
    let survey = &hull.survey;
    let Fitout {
        modifications,
        configurations,
        ..
    } = &survey.fitout;
    let so = |name: String, survey: Survey, seat| Way {
        name,
        hull: Hull {
            known: None,
            survey: Arc::new(survey),
        },
        seat,
    };
    let done = |m: &galvet_core::hull::Modification| m.progress == Progress::Done;
    let mut all = vec![so(
        "as delivered".to_owned(),
        survey.with_made(|_| false),
        None,
    )];
    if modifications.iter().any(done) {
        all.push(Way {
            name: "as it stands".to_owned(),
            hull: hull.clone(),
            seat: None,
        });
    }
    for planned in modifications.iter().filter(|m| !done(m)) {
        let with = survey.with_made(|m| done(m) || m.name == planned.name);
        all.push(so(format!("with {}", planned.name), with, None));
    }
    for c in configurations {
        let seat = if c.sits_high() {
            SeatHeight::High
        } else {
            SeatHeight::Low
        };
        all.push(so(c.name.clone(), survey.configured(c), Some(seat)));
    }
    all
}

/// Works a way out under a question; its place is that among the other hulls of
/// the `answered` ranking.
#[must_use]
pub fn outcome(desk: &Desk, way: Way, brief: &Brief, answered: &Answered) -> Outcome {
    let mut brief = brief.clone();
    brief.seat = way.seat.unwrap_or(brief.seat);
    // What the hull one knows is worth was found when all were ranked.
    brief.known.clone_from(&answered.ranking.brief.known);
    let afloat = desk.afloat(&way.hull, &brief);
    let candidate = afloat.clone().map(|a| a.assessment.clone());
    let survey = way.hull.survey.clone();
    let key = survey.key.clone();
    let mut judged = judge(&Arc::new(brief), vec![(survey, candidate)], desk.guides());
    let ranked = judged.ranked.pop();
    let place = ranked.as_ref().map(|mine| {
        let others = answered.ranking.ranked.iter();
        let better = |r: &&Ranked| r.survey().key != key && r.score.total > mine.score.total;
        1 + others.filter(better).count()
    });
    Outcome {
        way,
        afloat,
        place,
        ranked,
        ruled_out: judged.ruled_out.pop(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::Patient;
    use crate::demo_data;
    use crate::question::Ask;
    use galvet_core::figures::Quantity;
    use galvet_core::guide::Guides;

    #[test]
    fn a_hull_as_she_stands_has_her_place_in_the_ranking() {
        let demo = demo_data::catalogue().unwrap();
        let desk = Desk::new(Arc::new(Guides::default()));
        let hulls: Vec<Hull> = demo
            .hulls
            .iter()
            .map(|h| Hull {
                known: None,
                survey: Arc::new(h.survey.clone()),
            })
            .collect();
        let asked = Ask::default().resolve(&demo).unwrap();
        let brief = Arc::new(asked.brief);
        let answered = desk.ranking(&brief, &hulls, &Patient).unwrap();
        let hull = hulls.iter().find(|h| h.survey.key == "fennick-dunmarrow");
        let hull = hull.unwrap();
        let all = ways(hull);
        let names: Vec<&str> = all.iter().map(|w| w.name.as_str()).collect();
        assert_eq!(
            names,
            [
                "as delivered",
                "as it stands",
                "with rear hatch for the battery",
                "fishing, drive in",
                "travelling, paddled",
                "with the battery hatch"
            ]
        );
        let out: Vec<Outcome> = all
            .into_iter()
            .map(|way| outcome(&desk, way, &brief, &answered))
            .collect();
        let place = answered.ranking.ranked.iter();
        let place = place
            .clone()
            .position(|r| r.survey().key == hull.survey.key);
        assert_eq!(out[1].place, place.map(|p| p + 1));
        let counted = |n: usize| {
            let afloat = out[n].afloat.as_ref().unwrap();
            afloat.assessment.median(Quantity::Counted).unwrap()
        };
        // The strap of 0.3 kg is on it; the hatch of 0.9 kg would come on top.
        assert!((counted(1) - counted(0) - 0.3).abs() < 1e-9);
        assert!((counted(2) - counted(1) - 0.9).abs() < 1e-9);
        // The seat high against low: less steady seated.
        let gm = |n: usize| {
            let afloat = out[n].afloat.as_ref().unwrap();
            afloat.assessment.median(Quantity::Gm).unwrap()
        };
        assert!(gm(3) < gm(4), "{} {}", gm(3), gm(4));
    }
}

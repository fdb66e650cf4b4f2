//! What would change the winner: a few shapes of every hull tell who may win anywhere
//! between the question and the farthest change of it; those few are ranked in full.

use super::afloat::Answered;
use super::desk::{Desk, Hull};
use super::watch::{Unwanted, Watch};
use galvet_core::advise::flip::{Flip, Tried};
use galvet_core::figures::Assessment;
use galvet_core::question::Brief;
use galvet_core::rank::{Candidate, Ranking, judge};
use rayon::prelude::*;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

/// The winner, and what would change it.
#[derive(Debug, Clone, PartialEq)]
pub struct Flips {
    /// Its key.
    pub winner: String,
    /// What was tried so far, and the smallest change of that kind that gives another.
    pub tried: Vec<(Tried, Option<Flip>)>,
}

/// Hulls ranked in full for each kind of change: those likeliest to win.
const CONTENDERS: usize = 12;
/// Hulls this many points behind the best win nowhere: more than few shapes are off by.
const BEHIND: f64 = 8.0;
/// Likewise where all shapes told both ends: more than points bend in between.
const BEHIND_EXACTLY: f64 = 4.0;
/// Shapes by which it is told which hulls are worth working out in full.
const COARSE: usize = 16;
/// Steps between the question and the farthest change of it.
const STEPS: u32 = 8;

/// What would change the winner of a question; `None` where no hull passes. Told line by
/// line: `tell` is given all that is known after each.
///
/// # Errors
/// [`Unwanted`] once `watch` says so.
pub fn flips(
    desk: &Desk,
    brief: &Brief,
    hulls: &[Hull],
    watch: &dyn Watch,
    tell: &dyn Fn(&Flips),
) -> Result<Option<Flips>, Unwanted> {
    Search { desk, hulls, watch }.run(brief, tell)
}

/// Where a hull stands under a question.
#[derive(Debug, Clone, Copy)]
struct Standing {
    points: f64,
    in_hand: bool,
}

/// Where the hulls that pass stand, by their keys.
type Standings = BTreeMap<String, Standing>;

fn standings(ranking: &Ranking) -> Standings {
    let of = |r: &galvet_core::rank::Ranked| Standing {
        points: r.score.total,
        in_hand: r.binding.is_some_and(|(_, kg)| kg >= 0.0),
    };
    let ranked = ranking.ranked.iter();
    ranked.map(|r| (r.survey().key.clone(), of(r))).collect()
}

/// How far each hull is ahead of the best that is sure to pass, at a share of the way
/// between two ends: points go evenly from end to end, and who passes at one end only is
/// given its points there all the way.
fn ahead<'a>(near: &'a Standings, far: &'a Standings, share: f64) -> Vec<(f64, &'a String)> {
    let at = |key: &str| match (near.get(key), far.get(key)) {
        (Some(a), Some(b)) => a.points + share * (b.points - a.points),
        (Some(one), None) | (None, Some(one)) => one.points,
        (None, None) => f64::NEG_INFINITY,
    };
    let sure = |key: &str| {
        let ends = [near.get(key), far.get(key)];
        ends.iter().all(|s| s.is_some_and(|s| s.in_hand))
    };
    let keys: BTreeSet<&String> = near.keys().chain(far.keys()).collect();
    let best = keys.iter().filter(|key| sure(key.as_str()));
    let best = best.map(|key| at(key)).fold(0.0, f64::max);
    keys.into_iter().map(|key| (at(key) - best, key)).collect()
}

/// Those that may win somewhere between two ends, likeliest first.
fn may_win(near: &Standings, far: &Standings, behind: f64) -> Vec<String> {
    let mut most: BTreeMap<&String, f64> = BTreeMap::new();
    for step in 0..=STEPS {
        let share = f64::from(step) / f64::from(STEPS);
        for (by, key) in ahead(near, far, share) {
            let known = most.entry(key).or_insert(f64::NEG_INFINITY);
            *known = known.max(by);
        }
    }
    let mut ahead: Vec<(&String, f64)> = most.into_iter().filter(|m| m.1 > -behind).collect();
    ahead.sort_by(|a, b| b.1.total_cmp(&a.1));
    let few = ahead.into_iter().take(CONTENDERS);
    few.map(|(key, _)| key.clone()).collect()
}

/// Those that may win at a share of the way between two ends.
fn may_win_at(near: &Standings, far: &Standings, share: f64, behind: f64) -> Vec<String> {
    let all = ahead(near, far, share).into_iter();
    let few = all.filter(|(by, _)| *by > -behind);
    few.map(|(_, key)| key.clone()).collect()
}

/// Looks for changes among the few that can win.
struct Search<'a> {
    desk: &'a Desk,
    hulls: &'a [Hull],
    watch: &'a dyn Watch,
}

impl Search<'_> {
    /// A question asked of some hulls.
    fn ranked(&self, brief: &Brief, among: &[Hull]) -> Result<Answered, Unwanted> {
        self.watch.rest();
        let brief = Arc::new(brief.clone());
        self.desk.ranking(&brief, among, self.watch)
    }

    /// The winner and some others, as they stand in the catalogue.
    fn among(&self, winner: &str, few: &[String]) -> Vec<Hull> {
        let wanted = |h: &&Hull| h.survey.key == winner || few.contains(&h.survey.key);
        self.hulls.iter().filter(wanted).cloned().collect()
    }

    /// Which of some hulls is first.
    fn first(&self, brief: &Brief, among: &[Hull]) -> Result<Option<String>, Unwanted> {
        let answer = self.ranked(brief, among)?;
        let first = answer.ranking.ranked.first();
        Ok(first.map(|r| r.survey().key.clone()))
    }

    /// How all hulls stand under a question, as a few shapes of each tell it: who is
    /// worth working out in full, nothing that is told. With an answer about the same
    /// `rig` everything lies as it does there.
    fn coarse(&self, brief: &Brief, rig: Option<&Answered>) -> Result<Standings, Unwanted> {
        self.watch.rest();
        let floating = Arc::new(brief.floating_part(self.desk.guides()));
        let candidate = |hull: &Hull| {
            let coarse = self.desk.shapes(hull).map(|shapes| {
                let few = Arc::new(shapes.coarse(COARSE));
                let wanted = || self.watch.wanted();
                let like = rig.and_then(|answer| answer.afloat.get(&hull.survey.key));
                match like {
                    Some(like) => {
                        let like = &like.assessment.setup;
                        Assessment::laid_as(few, floating.clone(), like, &wanted)
                    }
                    None => Assessment::while_wanted(few, floating.clone(), &wanted),
                }
            });
            match coarse {
                Ok(None) => Err(Unwanted),
                Ok(Some(assessment)) => {
                    let assessment = Arc::new(assessment.without_remedies());
                    Ok((hull.survey.clone(), Ok(assessment)))
                }
                Err(cannot) => Ok((hull.survey.clone(), Err(cannot))),
            }
        };
        let candidates: Vec<Candidate> = self
            .hulls
            .par_iter()
            .map(candidate)
            .collect::<Result<_, Unwanted>>()?;
        let ranking = judge(&Arc::new(brief.clone()), candidates, self.desk.guides());
        Ok(standings(&ranking))
    }

    fn run(&self, brief: &Brief, tell: &dyn Fn(&Flips)) -> Result<Option<Flips>, Unwanted> {
        let now = self.ranked(brief, self.hulls)?;
        let near = standings(&now.ranking);
        let Some(winner) = now.ranking.ranked.first() else {
            return Ok(None);
        };
        let mut flips = Flips {
            winner: winner.survey().key.clone(),
            tried: Vec::new(),
        };
        // The same for all that may stay ashore.
        let mut ashore: Option<Vec<String>> = None;
        for tried in Tried::all(brief) {
            let Some(far) = tried.far(brief) else {
                continue;
            };
            let few = match (tried, &ashore) {
                (Tried::Without(_), Some(few)) => few.clone(),
                (Tried::Without(_), None) => {
                    let few = may_win(&near, &self.coarse(&far, None)?, BEHIND);
                    ashore.insert(few).clone()
                }
                _ => may_win(&near, &self.coarse(&far, Some(&now))?, BEHIND),
            };
            let among = self.among(&flips.winner, &few);
            let found = if matches!(tried, Tried::Lighter | Tried::Heavier) {
                // Looked at many times in between: at each place only who may win there,
                // now that both ends are known of all shapes.
                let there = standings(&self.ranked(&far, &among)?.ranking);
                let here = near.iter().filter(|(key, _)| few.contains(key));
                let here: Standings = here.map(|(key, at)| (key.clone(), *at)).collect();
                let whole = far.crew.mass() - brief.crew.mass();
                let first = |asked: &Brief| {
                    let share = (asked.crew.mass() - brief.crew.mass()) / whole;
                    let fewer = may_win_at(&here, &there, share, BEHIND_EXACTLY);
                    self.first(asked, &self.among(&flips.winner, &fewer))
                };
                tried.smallest(brief, &flips.winner, &first)?
            } else {
                let first = |asked: &Brief| self.first(asked, &among);
                tried.smallest(brief, &flips.winner, &first)?
            };
            flips.tried.push((tried, found));
            tell(&flips);
        }
        Ok(Some(flips))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::Patient;
    use crate::demo_data;
    use crate::question::Ask;
    use galvet_core::guide::Guides;
    use galvet_store::Known;
    use std::cell::Cell;

    #[test]
    fn who_may_win_between_two_ends() {
        let standings = |rows: &[(&str, f64, bool)]| -> Standings {
            let rows = rows
                .iter()
                .map(|&(key, points, in_hand)| (key.to_owned(), Standing { points, in_hand }));
            rows.collect()
        };
        // Second here and third there, it is nearest to winning half way.
        let near = [
            ("here", 80.0, true),
            ("between", 76.0, true),
            ("far", 50.0, true),
        ];
        let far = [
            ("here", 50.0, true),
            ("between", 60.0, true),
            ("far", 70.0, true),
        ];
        let few = may_win(&standings(&near), &standings(&far), BEHIND);
        assert_eq!(few, ["between", "far", "here"]);
        // Who is far behind everywhere is not asked, who has nothing in hand at one end is.
        let near = [
            ("first", 80.0, true),
            ("last", 60.0, true),
            ("full", 79.0, false),
        ];
        let far = [
            ("first", 80.0, true),
            ("last", 70.0, true),
            ("light", 90.0, true),
        ];
        let few = may_win(&standings(&near), &standings(&far), BEHIND);
        assert_eq!(few, ["light", "first", "full"]);
        // Where nobody is sure to pass, everybody who may is asked.
        let few = may_win(
            &standings(&[("one", 10.0, false)]),
            &Standings::new(),
            BEHIND,
        );
        assert_eq!(few, ["one"]);
    }

    #[test]
    fn the_few_that_can_win_tell_what_all_of_them_do() {
        let demo = demo_data::catalogue().unwrap();
        let hulls: Vec<Hull> = (1..)
            .zip(&demo.hulls)
            .map(|(id, record)| Hull {
                known: Some((0, Known { id, revision: 1 })),
                survey: Arc::new(record.survey.clone()),
            })
            .collect();
        let desk = Desk::new(Arc::new(Guides::default()));
        let hulls = &hulls[..];
        let search = Search {
            desk: &desk,
            hulls,
            watch: &Patient,
        };
        for (rig, mass) in [
            ("reed-edge-day", 84.0),
            ("sound-trolling", 84.0),
            ("reed-edge-day", 101.0),
        ] {
            let ask = [("rig", rig.to_owned()), ("mass", mass.to_string())];
            let brief = Ask::of(ask.into_iter()).resolve(&demo).unwrap().brief;
            let lines = Cell::new(0);
            let tell = |flips: &Flips| {
                lines.set(lines.get() + 1);
                assert_eq!(flips.tried.len(), lines.get());
            };
            let found = flips(&desk, &brief, hulls, &Patient, &tell)
                .unwrap()
                .unwrap();
            assert_eq!(found.tried.len(), lines.get());
            assert!(lines.get() >= 3);
            let all = |brief: &Brief| search.first(brief, hulls);
            assert_eq!(all(&brief).unwrap().as_deref(), Some(found.winner.as_str()));
            for (tried, flip) in found.tried {
                let whole = tried.smallest(&brief, &found.winner, &all).unwrap();
                assert_eq!(flip, whole, "{rig}, {mass} kg, {tried:?}");
            }
        }
    }
}

//! What would change the winner, looked for once and remembered: a few shapes of every hull
//! tell who can win at the far ends of what is changed; those few are ranked in full some
//! twenty times between.

use super::desk::{Desk, Digest, Hull, digest};
use super::watch::{Unwanted, Watch};
use galvet_core::advise::flip::{Change, FARTHEST, Flip, flips, heavier, only_musts, other_seat};
use galvet_core::figures::Assessment;
use galvet_core::question::Brief;
use galvet_core::rank::{Candidate, judge};
use galvet_store::State;
use lru::LruCache;
use rayon::prelude::*;
use std::collections::BTreeSet;
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex, PoisonError};

/// Answers remembered: a few lines each.
const FLIPS: NonZeroUsize = NonZeroUsize::new(64).unwrap();

/// The winner, and what would change her.
#[derive(Debug, Clone, PartialEq)]
pub struct Flips {
    /// Her key.
    pub winner: String,
    /// The changes.
    pub found: Vec<Flip>,
}

/// `None` where no hull passed.
type Looked = Option<Arc<Flips>>;

/// What was looked for already, by the state of the records and the question.
#[derive(Debug)]
pub struct FlipsLooked(Mutex<LruCache<(State, Digest), Looked>>);

impl Default for FlipsLooked {
    fn default() -> Self {
        Self(Mutex::new(LruCache::new(FLIPS)))
    }
}

impl FlipsLooked {
    /// What would change the winner of a question, ranked at `desk`; `None` where no
    /// hull passes.
    ///
    /// # Errors
    /// [`Unwanted`] once `watch` says so.
    pub fn flips(
        &self,
        desk: &Desk,
        state: State,
        brief: &Arc<Brief>,
        hulls: &[Hull],
        watch: &dyn Watch,
    ) -> Result<Looked, Unwanted> {
        let key = (state, digest(brief));
        // A panic while the lock was held leaves a whole cache behind.
        let hold = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(known) = hold().get(&key) {
            return Ok(known.clone());
        }
        let found = Search { desk, hulls, watch }.run(brief)?;
        let found = found.map(Arc::new);
        hold().put(key, found.clone());
        Ok(found)
    }
}

/// So many of the best at each end of what is looked at may win in between.
const CONTENDERS: usize = 5;
/// Shapes by which it is told which hulls are worth working out in full.
const COARSE: usize = 24;
/// Rounds in which somebody else turns out to win.
const ROUNDS: usize = 3;

/// Looks for changes among the few that can win; what is told is ranked anew with all.
struct Search<'a> {
    desk: &'a Desk,
    hulls: &'a [Hull],
    watch: &'a dyn Watch,
}

impl Search<'_> {
    /// The keys in order when a question is asked of some hulls.
    fn order(&self, brief: &Brief, among: &[Hull]) -> Result<Vec<String>, Unwanted> {
        self.watch.rest();
        let answer = self
            .desk
            .ranking(&Arc::new(brief.clone()), among, self.watch)?;
        let ranked = answer.ranking.ranked.iter();
        Ok(ranked.map(|r| r.survey().key.clone()).collect())
    }

    /// The best of all hulls under a question, as a few shapes of each tell it: who is
    /// worth working out in full, nothing that is told.
    fn contenders(&self, brief: &Brief) -> Result<Vec<String>, Unwanted> {
        self.watch.rest();
        let floating = Arc::new(brief.floating_part(self.desk.guides()));
        let candidate = |hull: &Hull| {
            let coarse = self.desk.shapes(hull).map(|shapes| {
                let few = Arc::new(shapes.coarse(COARSE));
                let wanted = || self.watch.wanted();
                Assessment::while_wanted(few, floating.clone(), &wanted)
            });
            match coarse {
                Ok(None) => Err(Unwanted),
                Ok(Some(assessment)) => Ok((hull.survey.clone(), Ok(Arc::new(assessment)))),
                Err(cannot) => Ok((hull.survey.clone(), Err(cannot))),
            }
        };
        let candidates: Vec<Candidate> = self
            .hulls
            .par_iter()
            .map(candidate)
            .collect::<Result<_, Unwanted>>()?;
        let best = judge(&Arc::new(brief.clone()), candidates, self.desk.guides()).ranked;
        let best = best.iter().map(|r| r.survey().key.clone());
        Ok(best.take(CONTENDERS).collect())
    }

    /// Those of the hulls that are named.
    fn named(&self, keys: &BTreeSet<String>) -> Vec<Hull> {
        let hulls = self.hulls.iter();
        let named = hulls.filter(|h| keys.contains(&h.survey.key));
        named.cloned().collect()
    }

    fn run(&self, brief: &Brief) -> Result<Option<Flips>, Unwanted> {
        let order = self.order(brief, self.hulls)?;
        let Some(winner) = order.first().cloned() else {
            return Ok(None);
        };
        let mut few: BTreeSet<String> = order.into_iter().take(CONTENDERS).collect();
        // Who is best at the far ends of what is changed.
        let far = [FARTHEST, -FARTHEST].map(|by| heavier(brief, by));
        let seated = Some(other_seat(brief));
        for end in far
            .into_iter()
            .flatten()
            .chain(seated)
            .chain([only_musts(brief)])
        {
            few.extend(self.contenders(&end)?);
        }
        for round in 0..=ROUNDS {
            let all = round == ROUNDS || few.len() + CONTENDERS > self.hulls.len();
            let among = if all {
                self.hulls.to_vec()
            } else {
                self.named(&few)
            };
            let first = |brief: &Brief| Ok(self.order(brief, &among)?.into_iter().next());
            let found = flips(brief, &winner, &first)?;
            let others = if all {
                BTreeSet::new()
            } else {
                self.others(brief, &few, &found)?
            };
            if others.is_empty() {
                return Ok(Some(Flips { winner, found }));
            }
            few.extend(others);
        }
        Ok(None)
    }

    /// Who wins instead, among the `few` and whoever else can win where a change was found.
    fn others(
        &self,
        brief: &Brief,
        few: &BTreeSet<String>,
        found: &[Flip],
    ) -> Result<BTreeSet<String>, Unwanted> {
        let mut others = BTreeSet::new();
        for flip in found {
            let then = match &flip.change {
                Change::Mass(by) => heavier(brief, *by),
                Change::Seat(_) => Some(other_seat(brief)),
                Change::Without(_) => None,
            };
            let Some(then) = then else { continue };
            let mut among: BTreeSet<String> = self.contenders(&then)?.into_iter().collect();
            if among.is_subset(few) {
                continue;
            }
            among.extend(few.iter().cloned());
            let order = self.order(&then, &self.named(&among))?;
            if order.first() != flip.first.as_ref() {
                others.extend(order.into_iter().next());
            }
        }
        Ok(others)
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
        let watch = &Patient;
        let hulls = &hulls[..];
        let search = Search {
            desk: &desk,
            hulls,
            watch,
        };
        for asked in ["reed-edge-day", "sound-trolling"] {
            let ask = Ask::of([("rig", asked.to_owned())].into_iter());
            let brief = ask.resolve(&demo).unwrap().brief;
            let found = search.run(&brief).unwrap();
            let all =
                |brief: &Brief| Ok::<_, Unwanted>(search.order(brief, hulls)?.into_iter().next());
            let winner = all(&brief).unwrap();
            let whole = winner.map(|winner| Flips {
                found: flips(&brief, &winner, &all).unwrap(),
                winner,
            });
            assert_eq!(found, whole, "{asked}");
        }
    }
}

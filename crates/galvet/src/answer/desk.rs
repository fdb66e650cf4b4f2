//! What is computed is remembered: plausible shapes by record, figures by
//! record and the floating part of the question. Judging is done anew: it
//! floats nothing.

use super::afloat::{Afloat, Answered, Figures, Shapes};
use super::memory::{BUDGET, Memory, held};
use super::watch::{Unwanted, Watch};
use super::weight;
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::guide::Guides;
use galvet_core::hull::Survey;
use galvet_core::plausible::{DEFAULT_SIZE, Posterior};
use galvet_core::question::Brief;
use galvet_core::rank::{Candidate, Ranking, judge};
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Known, State};
use rayon::prelude::*;
use std::collections::HashMap;
use std::convert::Infallible;
use std::sync::{Arc, Mutex};

/// A hull as it is asked about: its record, and its id and revision where it is
/// kept in a database.
#[derive(Debug, Clone)]
pub struct Hull {
    /// Epoch of the database, id and revision; a hull from a file has none and is
    /// not remembered.
    pub known: Option<(i64, Known)>,
    /// The record.
    pub survey: Arc<Survey>,
}

impl Hull {
    /// Hulls as a new database keeps them: each at its first revision.
    pub fn first_kept<'a>(records: impl Iterator<Item = &'a HullRecord>) -> Vec<Self> {
        let kept = (1..).zip(records).map(|(id, record)| Self {
            known: Some((0, Known { id, revision: 1 })),
            survey: Arc::new(record.survey.clone()),
        });
        kept.collect()
    }
}

/// Epoch, id and revision of a record.
type RecordKey = (i64, i64, i64);

/// A whole answer: the state of the records, and the question.
type AnswerKey = (State, Digest);

/// What stands for a question, however long its rig is.
pub(crate) type Digest = [u8; 32];

/// Where a whole answer lies once it is ready; held while it is worked out.
type Place = Arc<Mutex<Option<Arc<Answered>>>>;

/// The desk at which questions are answered.
#[derive(Debug)]
pub struct Desk {
    guides: Arc<Guides>,
    answers: Mutex<Memory<AnswerKey, Place>>,
    posteriors: Mutex<Memory<RecordKey, Shapes>>,
    figures: Mutex<Memory<(RecordKey, Digest), Figures>>,
    /// Places of the ranking made last, by key: another question begins with those hulls.
    places: Mutex<Arc<HashMap<String, usize>>>,
}

/// Looks something up, or makes it without holding the lock meanwhile; what could
/// not be made is not remembered.
fn remembered<K: std::hash::Hash + Eq + Clone, V: Clone, E>(
    memory: &Mutex<Memory<K, V>>,
    key: K,
    weight: fn(&V) -> usize,
    make: impl FnOnce() -> Result<V, E>,
) -> Result<V, E> {
    if let Some(found) = held(memory).get(&key) {
        return Ok(found.clone());
    }
    let made = make()?;
    held(memory).put(key, made.clone(), weight(&made));
    Ok(made)
}

/// What stands for a question: of its debug form, which is complete and exact for
/// floating point.
pub(crate) fn digest(brief: &Brief) -> Digest {
    blake3::hash(format!("{brief:?}").as_bytes()).into()
}

/// The floating part of a question as a key.
fn floating_key(brief: &Brief, guides: &Guides) -> Digest {
    digest(&brief.floating_part(guides))
}

impl Desk {
    /// A desk that goes by `guides`.
    #[must_use]
    pub fn new(guides: Arc<Guides>) -> Self {
        Self::remembering(guides, BUDGET)
    }

    /// The same, remembering about so many bytes.
    #[must_use]
    pub fn remembering(guides: Arc<Guides>, budget: usize) -> Self {
        // Answers hold the figures they are of: what is in both counts twice.
        Self {
            guides,
            answers: Mutex::new(Memory::new(budget / 4)),
            posteriors: Mutex::new(Memory::new(budget / 4)),
            figures: Mutex::new(Memory::new(budget / 2)),
            places: Mutex::default(),
        }
    }

    /// The guide values in force.
    #[must_use]
    pub fn guides(&self) -> &Arc<Guides> {
        &self.guides
    }

    /// What is remembered, bytes: what stands in two memories counts twice.
    #[must_use]
    pub fn remembered(&self) -> usize {
        held(&self.answers).bytes() + held(&self.posteriors).bytes() + held(&self.figures).bytes()
    }

    /// Plausible shapes of a hull.
    ///
    /// # Errors
    /// [`galvet_core::plausible::CannotFloat`].
    pub fn shapes(&self, hull: &Hull) -> Shapes {
        let make =
            || Posterior::of(hull.survey.clone(), self.guides.clone(), DEFAULT_SIZE).map(Arc::new);
        match hull.known {
            Some((epoch, known)) => {
                let key = (epoch, known.id, known.revision);
                let Ok(shapes) = remembered(&self.posteriors, key, weight::shapes, || {
                    Ok::<_, Infallible>(make())
                });
                shapes
            }
            None => make(),
        }
    }

    /// The question with the standing support of the hull one knows, for who judges
    /// others without it.
    #[must_use]
    pub fn yardstick(&self, brief: &Brief, hulls: &[Hull]) -> Brief {
        let mut out = brief.clone();
        if let Some(known) = &mut out.known {
            let hers = hulls.iter().find(|h| h.survey.key == known.hull);
            let hers = hers.and_then(|hull| self.afloat(hull, brief).ok());
            known.support = hers.and_then(|a| a.assessment.median(Quantity::StandingSupport));
        }
        out
    }

    /// A hull's figures under a question.
    ///
    /// # Errors
    /// [`galvet_core::plausible::CannotFloat`].
    pub fn afloat(&self, hull: &Hull, brief: &Brief) -> Figures {
        let floating = Arc::new(brief.floating_part(self.guides()));
        let Ok(figures) = self.afloat_by(hull, &floating_key(brief, self.guides()), |shapes| {
            Ok::<_, Infallible>(Assessment::of(shapes, floating))
        });
        figures
    }

    fn afloat_by<E>(
        &self,
        hull: &Hull,
        key: &Digest,
        assess: impl FnOnce(Arc<Posterior>) -> Result<Assessment, E>,
    ) -> Result<Figures, E> {
        let make = || match self.shapes(hull) {
            Ok(shapes) => Ok(Ok(Arc::new(Afloat::of(assess(shapes)?)))),
            Err(cannot) => Ok(Err(cannot)),
        };
        match hull.known {
            Some((epoch, known)) => {
                let key = ((epoch, known.id, known.revision), *key);
                remembered(&self.figures, key, weight::figures, make)
            }
            None => make(),
        }
    }

    /// The place of a whole answer.
    fn place(&self, key: AnswerKey) -> Place {
        let mut answers = held(&self.answers);
        if let Some(place) = answers.get(&key) {
            return place.clone();
        }
        let place = Place::default();
        answers.put(key, place.clone(), size_of::<AnswerKey>());
        place
    }

    /// The answer to a question, where it is ready: `state` is that of the
    /// records.
    #[must_use]
    pub fn known(&self, state: State, brief: &Brief) -> Option<Arc<Answered>> {
        let place = self.place((state, digest(brief)));
        // Held by whoever works it out: not ready.
        place.try_lock().ok().and_then(|ready| ready.clone())
    }

    /// As [`Desk::ranking`], worked out once however many ask at once, and
    /// remembered. Not to be called from a worker of the computation itself:
    /// it waits.
    ///
    /// # Errors
    /// [`Unwanted`]; whoever else waits for the same works it out.
    pub fn answer(
        &self,
        state: State,
        brief: &Arc<Brief>,
        hulls: &[Hull],
        watch: &dyn Watch,
    ) -> Result<Arc<Answered>, Unwanted> {
        let key = (state, digest(brief));
        let place = self.place(key);
        let mut ready = held(&place);
        if let Some(answer) = ready.as_ref() {
            return Ok(answer.clone());
        }
        let answer = Arc::new(self.ranking(brief, hulls, watch)?);
        *ready = Some(answer.clone());
        held(&self.answers).weigh(&key, weight::answer(&answer));
        Ok(answer)
    }

    /// Where to begin: the hull one knows, by which others are judged; then those that did
    /// best when hulls were ranked last, so that what is told meanwhile is worth it.
    fn promising(&self, brief: &Brief, hulls: &[Hull]) -> Vec<usize> {
        let places = held(&self.places).clone();
        let known = brief.known.as_ref().map(|k| &k.hull);
        let rank = |&i: &usize| {
            let key = &hulls[i].survey.key;
            let place = places.get(key).copied().unwrap_or(usize::MAX);
            (known != Some(key), place)
        };
        let mut order: Vec<usize> = (0..hulls.len()).collect();
        order.sort_by_key(rank);
        order
    }

    /// Notes who stands where, unless it is of a few hulls only.
    fn note_places(&self, ranking: &Ranking) {
        let mut places = held(&self.places);
        if 2 * ranking.ranked.len() >= places.len() {
            let placed = ranking.ranked.iter().map(|r| r.survey().key.clone());
            *places = Arc::new(placed.zip(0..).collect());
        }
    }

    /// Ranks hulls for a question.
    ///
    /// # Errors
    /// [`Unwanted`] once `watch` says so; figures ready by then are kept.
    pub fn ranking(
        &self,
        brief: &Arc<Brief>,
        hulls: &[Hull],
        watch: &dyn Watch,
    ) -> Result<Answered, Unwanted> {
        let (floating, key) = (
            Arc::new(brief.floating_part(self.guides())),
            floating_key(brief, self.guides()),
        );
        // One after the other from the most promising on, on as many threads as there are.
        let order = self.promising(brief, hulls).into_iter().par_bridge();
        let mut figures: Vec<(usize, Figures, Candidate)> = order
            .map(|at| {
                let hull = &hulls[at];
                if !watch.wanted() {
                    return Err(Unwanted);
                }
                let figures = self.afloat_by(hull, &key, |shapes| {
                    let wanted = || watch.wanted();
                    Assessment::while_wanted(shapes, floating.clone(), &wanted).ok_or(Unwanted)
                })?;
                let assessment = figures.clone().map(|a| a.assessment.clone());
                let candidate = (hull.survey.clone(), assessment);
                watch.done(&candidate);
                Ok((at, figures, candidate))
            })
            .collect::<Result<_, _>>()?;
        figures.sort_unstable_by_key(|(at, ..)| *at);
        let afloat = figures.iter().filter_map(|(_, figures, (survey, _))| {
            Some((survey.key.clone(), figures.as_ref().ok()?.clone()))
        });
        let afloat = afloat.collect();
        let candidates: Vec<Candidate> = figures.into_iter().map(|(.., c)| c).collect();
        let ranking = judge(brief, candidates, &self.guides);
        self.note_places(&ranking);
        Ok(Answered { ranking, afloat })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::Patient;
    use crate::demo_data;
    use crate::question::Ask;
    use std::sync::atomic::{AtomicUsize, Ordering};

    fn at(change: i64) -> State {
        State { epoch: 0, change }
    }

    fn kept(records: &[HullRecord]) -> Vec<Hull> {
        Hull::first_kept(records.iter())
    }

    #[test]
    fn what_only_judges_floats_nothing_anew() {
        let demo = demo_data::catalogue().unwrap();
        let hulls = kept(&demo.hulls);
        let desk = Desk::new(Arc::new(Guides::default()));
        let asked = Ask::default().resolve(&demo).unwrap();
        let ranked = |brief: &Brief| {
            let brief = Arc::new(brief.clone());
            desk.ranking(&brief, &hulls, &Patient).unwrap()
        };
        let mut brief = asked.brief;
        let first = ranked(&brief);
        brief.capacity_weight = 0.9;
        brief.must.budget = Some(2000.0);
        let second = ranked(&brief);
        for (slug, one) in &first.afloat {
            assert!(
                Arc::ptr_eq(one, &second.afloat[slug]),
                "{slug} floated anew"
            );
        }
        // A heavier angler is floated anew, on the same plausible shapes.
        brief.crew = galvet_core::crew::Crew::new(120.0, 1.9).unwrap();
        let third = ranked(&brief);
        for (slug, one) in &first.afloat {
            let two = &third.afloat[slug];
            assert!(!Arc::ptr_eq(one, two));
            let shapes = |a: &Afloat| a.assessment.setup.posterior.clone();
            assert!(Arc::ptr_eq(&shapes(one), &shapes(two)), "{slug} drawn anew");
        }
        // The same revision of another database is another hull.
        let mut restored = hulls[0].clone();
        restored.known = Some((1, Known { id: 1, revision: 1 }));
        let new = desk.afloat(&restored, &brief).unwrap();
        assert!(!Arc::ptr_eq(&new, &third.afloat[&restored.survey.key]));
        // A new revision of a record is another hull.
        let mut changed = hulls[0].clone();
        changed.known = Some((0, Known { id: 1, revision: 2 }));
        let new = desk.afloat(&changed, &brief).unwrap();
        assert!(!Arc::ptr_eq(&new, &third.afloat[&changed.survey.key]));
    }

    /// Notes in which order hulls are done.
    #[derive(Default)]
    struct Order(Mutex<Vec<String>>);

    impl Watch for Order {
        fn done(&self, candidate: &Candidate) {
            held(&self.0).push(candidate.0.key.clone());
        }
    }

    #[test]
    fn the_most_promising_are_looked_at_first_and_the_answer_is_the_same() {
        let demo = demo_data::catalogue().unwrap();
        let hulls = kept(&demo.hulls);
        let mut asked = Ask::default().resolve(&demo).unwrap();
        // One worker, so that the order is that in which they are begun.
        let alone = rayon::ThreadPoolBuilder::new().num_threads(1).build();
        let alone = alone.unwrap();
        let ranked = |desk: &Desk, brief: &Brief| {
            let (order, brief) = (Order::default(), Arc::new(brief.clone()));
            let answer = alone.install(|| desk.ranking(&brief, &hulls, &order));
            let ranking = answer.unwrap().ranking;
            let placed = ranking.ranked.iter().map(|r| r.survey().key.clone());
            let out = ranking.ruled_out.iter().map(|o| o.survey.key.clone());
            (
                placed.collect::<Vec<_>>(),
                out.collect::<Vec<_>>(),
                held(&order.0).clone(),
            )
        };
        let desk = Desk::new(Arc::new(Guides::default()));
        let (placed, _, order) = ranked(&desk, &asked.brief);
        let listed: Vec<String> = hulls.iter().map(|h| h.survey.key.clone()).collect();
        assert_eq!(order, listed, "nothing was ranked yet");
        // A few hulls tell nothing of the others.
        let few = Arc::new(asked.brief.clone());
        desk.ranking(&few, &hulls[..2], &Patient).unwrap();
        asked.brief.crew = galvet_core::crew::Crew::new(96.0, 1.9).unwrap();
        // The hull one knows comes before all others.
        let known = listed.iter().find(|k| !placed.contains(k)).unwrap();
        asked.brief.known = Some(galvet_core::question::Known {
            hull: known.clone(),
            felt: galvet_core::question::Felt::Steady,
            support: None,
        });
        let (now, out, order) = ranked(&desk, &asked.brief);
        assert_eq!(order[0], *known);
        assert_eq!(order[1..=placed.len()], placed);
        let fresh = Desk::new(Arc::new(Guides::default()));
        let (first, first_out, _) = ranked(&fresh, &asked.brief);
        assert_eq!((now, out), (first, first_out));
    }

    /// Goes away after some hulls.
    struct Leaves(AtomicUsize);

    impl Watch for Leaves {
        fn wanted(&self) -> bool {
            self.0.load(Ordering::Relaxed) > 0
        }

        fn done(&self, _: &Candidate) {
            self.0.fetch_sub(1, Ordering::Relaxed);
        }
    }

    #[test]
    fn work_for_one_who_has_gone_stops_and_what_is_ready_is_kept() {
        let demo = demo_data::catalogue().unwrap();
        let hulls = kept(&demo.hulls);
        let desk = Desk::new(Arc::new(Guides::default()));
        let asked = Ask::default().resolve(&demo).unwrap();
        let brief = Arc::new(asked.brief);
        let leaves = Leaves(AtomicUsize::new(0));
        assert!(desk.answer(at(1), &brief, &hulls, &leaves).is_err());
        let ready = |desk: &Desk| desk.figures.lock().unwrap().len();
        assert_eq!(ready(&desk), 0, "not begun");
        // One worker, so that the count cannot run ahead.
        let alone = rayon::ThreadPoolBuilder::new().num_threads(1).build();
        let leaves = Leaves(AtomicUsize::new(3));
        let stopped = alone
            .unwrap()
            .install(|| desk.answer(at(1), &brief, &hulls, &leaves));
        assert_eq!(stopped.unwrap_err(), Unwanted);
        assert_eq!(ready(&desk), 3);
        assert!(desk.known(at(1), &brief).is_none());
        // The next who asks gets it all.
        assert!(desk.answer(at(1), &brief, &hulls, &Patient).is_ok());
        assert_eq!(ready(&desk), hulls.len());
    }

    #[test]
    fn one_question_is_worked_out_once_however_many_ask() {
        let demo = demo_data::catalogue().unwrap();
        let hulls = kept(&demo.hulls[..4]);
        let desk = Desk::new(Arc::new(Guides::default()));
        let asked = Ask::default().resolve(&demo).unwrap();
        let brief = Arc::new(asked.brief);
        assert!(desk.known(at(7), &brief).is_none());
        let answers: Vec<Arc<Answered>> = std::thread::scope(|scope| {
            let ask = || scope.spawn(|| desk.answer(at(7), &brief, &hulls, &Patient).unwrap());
            let all: Vec<_> = std::iter::repeat_with(ask).take(12).collect();
            all.into_iter().map(|a| a.join().unwrap()).collect()
        });
        assert!(answers.iter().all(|a| Arc::ptr_eq(a, &answers[0])));
        assert!(desk.known(at(7), &brief).is_some());
        // A change of the records asks anew.
        assert!(desk.known(at(8), &brief).is_none());
    }
}

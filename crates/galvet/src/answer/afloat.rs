//! What an answer is made of: a hull's figures, and the ranking of all.

use galvet_core::aboard::{Flooding, flooding};
use galvet_core::beyond::{Beyond, beyond};
use galvet_core::figures::{Assessment, outlook::Outlook, outlook::cruise, outlook::outlook};
use galvet_core::handling::{Windage, windage};
use galvet_core::plausible::{CannotFloat, Posterior};
use galvet_core::pond::{Boat, Exercise, Numbers, Scene, ends, numbers, scene};
use galvet_core::portrait::{Portrait, SectionView, glyph, portrait};
use galvet_core::question::{Brief, Day, Outing, Practice};
use galvet_core::rank::Ranking;
use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, OnceLock, PoisonError};

/// A hull's figures under a question, with what is drawn and reckoned of it
/// only when somebody looks.
#[derive(Debug)]
pub struct Afloat {
    /// The figures.
    pub assessment: Arc<Assessment>,
    glyph: OnceLock<SectionView>,
    portrait: OnceLock<Portrait>,
    quick: OnceLock<Quick>,
    flooding: OnceLock<Option<Arc<Flooding>>>,
    /// What depends on how the day goes, with the day it is of: the last few asked.
    beyond: ByDay<Day, Arc<Beyond>>,
    outlook: ByDay<Outing, Option<Arc<Outlook>>>,
    pond: OnceLock<Option<Arc<Pond>>>,
    tried: Mutex<BTreeMap<Tried, Arc<Numbers>>>,
}

/// A hull as the pond plays it.
#[derive(Debug)]
pub struct Pond {
    /// The middle shape.
    pub middle: (Boat, Scene),
    /// One of the least stiff and one of the stiffest of its possible shapes.
    pub ends: Vec<(Boat, Scene)>,
}

/// What is tried: the exercise, whether who does it stands, and how practised they are.
pub type Tried = (Exercise, bool, Practice);

/// What was worked out for the days asked last.
type ByDay<K, T> = Mutex<Vec<(K, T)>>;

/// Days remembered of one hull.
const DAYS: usize = 2;

/// What is remembered for a day, or else made.
fn of_day<K: Copy + PartialEq, T: Clone>(
    all: &ByDay<K, T>,
    asked: &K,
    make: impl FnOnce() -> T,
) -> T {
    let known = |all: &Vec<(K, T)>| {
        let found = all.iter().find(|(day, _)| day == asked);
        found.map(|(_, made)| made.clone())
    };
    let lock = || all.lock().unwrap_or_else(PoisonError::into_inner);
    if let Some(made) = known(&lock()) {
        return made;
    }
    // Made outside the lock: who asks for another day does not wait.
    let made = make();
    let mut all = lock();
    if known(&all).is_none() {
        all.truncate(DAYS - 1);
        all.insert(0, (*asked, made.clone()));
    }
    made
}

/// What a row tells of speed and wind.
#[derive(Debug, Clone, Copy, Default)]
pub struct Quick {
    /// Speed kept up at the least, the usual and the most effort, m/s.
    pub cruise: Option<[f64; 3]>,
    /// Drift and helm in the water's typical wind.
    pub windage: Option<Windage>,
}

impl Afloat {
    pub(super) fn of(assessment: Assessment) -> Self {
        Self {
            assessment: Arc::new(assessment),
            glyph: OnceLock::new(),
            portrait: OnceLock::new(),
            quick: OnceLock::new(),
            flooding: OnceLock::new(),
            beyond: Mutex::default(),
            outlook: Mutex::default(),
            pond: OnceLock::new(),
            tried: Mutex::default(),
        }
    }

    /// The section in a row.
    pub fn glyph(&self) -> &SectionView {
        self.glyph.get_or_init(|| glyph(&self.assessment))
    }

    /// The whole portrait.
    pub fn portrait(&self) -> &Portrait {
        self.portrait.get_or_init(|| portrait(&self.assessment))
    }

    /// Speed and wind at a glance.
    pub fn quick(&self) -> Quick {
        *self.quick.get_or_init(|| {
            let a = &self.assessment;
            let wind = a.setup.brief.water.wind();
            Quick {
                cruise: cruise(a),
                windage: wind.and_then(|wind| windage(a, wind)),
            }
        })
    }

    /// What it does when a day that goes so turns.
    pub fn beyond(&self, day: &Day) -> Arc<Beyond> {
        of_day(&self.beyond, day, || {
            let a = &self.assessment;
            let flooding = self.flooding.get_or_init(|| flooding(a).map(Arc::new));
            Arc::new(beyond(a, day, flooding.clone()))
        })
    }

    /// What the pond plays; `None` where it does not float.
    pub fn pond(&self) -> Option<Arc<Pond>> {
        let made = self.pond.get_or_init(|| {
            let a = &self.assessment;
            let boat = Boat::of(&a.setup, &a.middle)?;
            Some(Arc::new(Pond {
                middle: (boat, scene(&a.setup, &a.middle)),
                ends: ends(&a.setup),
            }))
        });
        made.clone()
    }

    /// What many tries came to of what a question's angler would try first.
    pub fn tried_by(&self, brief: &Brief) -> Arc<Numbers> {
        let exercise = Exercise::first(brief.posture);
        self.tried((exercise, brief.posture.stands(), brief.wishes.practice))
    }

    /// What many tries on the pond came to.
    pub fn tried(&self, what: Tried) -> Arc<Numbers> {
        let lock = || self.tried.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(known) = lock().get(&what) {
            return known.clone();
        }
        // Made outside the lock: who asks for something else does not wait.
        let (exercise, stands, practice) = what;
        let made = Arc::new(numbers(&self.assessment.setup, exercise, stands, practice));
        lock().insert(what, made.clone());
        made
    }

    /// What it costs to move on a day that goes so.
    pub fn outlook(&self, outing: &Outing) -> Option<Arc<Outlook>> {
        of_day(&self.outlook, outing, || {
            outlook(&self.assessment, outing).map(Arc::new)
        })
    }
}

/// A ranking, and the hulls in it by their slugs.
#[derive(Debug)]
pub struct Answered {
    /// The ranking.
    pub ranking: Ranking,
    /// What floats.
    pub afloat: BTreeMap<String, Arc<Afloat>>,
}

pub(super) type Shapes = Result<Arc<Posterior>, CannotFloat>;
pub(super) type Figures = Result<Arc<Afloat>, CannotFloat>;

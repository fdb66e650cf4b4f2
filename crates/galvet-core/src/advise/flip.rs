//! The smallest change of the question that gives it another winner, found by
//! ranking anew and verified so.

use crate::crew::{Crew, SeatHeight};
use crate::question::Brief;
use crate::rig::Importance;

/// A change of the question.
#[derive(Debug, Clone, PartialEq)]
pub enum Change {
    /// So much more aboard with the angler, kg; less below zero.
    Mass(f64),
    /// The other seat height.
    Seat(SeatHeight),
    /// A thing that may stay ashore left there.
    Without(String),
}

/// A change that gives another winner.
#[derive(Debug, Clone, PartialEq)]
pub struct Flip {
    /// What is changed.
    pub change: Change,
    /// Key of the hull that is first then; `None` where none passes any more.
    pub first: Option<String>,
}

/// How far the mass is changed at most, kg, and in which steps it is looked.
pub const FARTHEST: f64 = 25.0;
const STEP: f64 = 5.0;
/// To this the smallest change is told, kg.
const TOLD: f64 = 0.5;
/// Most things tried ashore.
const MOST_THINGS: usize = 6;

/// The question with so much more aboard with the angler; `None` where that is no
/// person any more.
#[must_use]
pub fn heavier(brief: &Brief, by: f64) -> Option<Brief> {
    let crew = Crew::new(brief.crew.mass() + by, brief.crew.stature()).ok()?;
    Some(Brief {
        crew,
        ..brief.clone()
    })
}

/// The question with all that may stay ashore left there.
#[must_use]
pub fn only_musts(brief: &Brief) -> Brief {
    let mut bare = brief.clone();
    let lines = &mut bare.rig.lines;
    lines.retain(|l| l.importance == Importance::Must || !l.within.is_empty());
    // What was packed in something stays ashore with it.
    let there: Vec<Option<String>> = lines.iter().map(|l| l.gear.clone()).collect();
    lines.retain(|l| l.within.is_empty() || there.contains(&Some(l.within.clone())));
    bare
}

/// The question with the other seat height.
#[must_use]
pub fn other_seat(brief: &Brief) -> Brief {
    let seat = match brief.seat {
        SeatHeight::Low => SeatHeight::High,
        SeatHeight::High => SeatHeight::Low,
    };
    Brief {
        seat,
        ..brief.clone()
    }
}

/// A way in which a question is changed to find another winner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tried {
    /// The other seat height.
    Seat,
    /// Less aboard with the angler, by up to [`FARTHEST`].
    Lighter,
    /// More aboard with the angler.
    Heavier,
    /// A line of the rig left ashore, by its place there.
    Without(usize),
}

impl Tried {
    /// What is tried of a question: the seat, the mass either way, and the first few
    /// things that may stay ashore, one by one.
    pub fn all(brief: &Brief) -> impl Iterator<Item = Self> {
        let wants = brief.rig.lines.iter().enumerate();
        let wants = wants.filter(|(_, l)| l.importance == Importance::Want && l.within.is_empty());
        let wants = wants.map(|(at, _)| Self::Without(at)).take(MOST_THINGS);
        [Self::Seat, Self::Lighter, Self::Heavier]
            .into_iter()
            .chain(wants)
    }

    /// The question changed as far as is tried, for who asks what can win in between;
    /// `None` where that is no person any more. All that may stay ashore is left there
    /// for any one thing.
    #[must_use]
    pub fn far(self, brief: &Brief) -> Option<Brief> {
        match self {
            Self::Seat => Some(other_seat(brief)),
            Self::Lighter => heavier(brief, -FARTHEST),
            Self::Heavier => heavier(brief, FARTHEST),
            Self::Without(_) => Some(only_musts(brief)),
        }
    }

    /// The smallest change of its kind that gives another winner than `now`; `first`
    /// ranks a question anew and names its winner. What changes the mass is looked for
    /// in steps of 5 kg up to 25, then to half a kilogram: at that much less `now` was
    /// still first, and a winner who leads only between two steps is not found.
    ///
    /// # Errors
    /// What `first` gives where it was given up.
    pub fn smallest<E>(
        self,
        brief: &Brief,
        now: &str,
        first: &dyn Fn(&Brief) -> Result<Option<String>, E>,
    ) -> Result<Option<Flip>, E> {
        let (change, asked) = match self {
            Self::Lighter => return by_mass(brief, now, -1.0, first),
            Self::Heavier => return by_mass(brief, now, 1.0, first),
            Self::Seat => {
                let asked = other_seat(brief);
                (Change::Seat(asked.seat), asked)
            }
            Self::Without(at) => (
                Change::Without(brief.rig.lines[at].item.clone()),
                without(brief, at),
            ),
        };
        let then = first(&asked)?;
        Ok((then.as_deref() != Some(now)).then_some(Flip {
            change,
            first: then,
        }))
    }
}

/// The question with a line of its rig left ashore, and what is packed in it.
fn without(brief: &Brief, at: usize) -> Brief {
    let mut without = brief.clone();
    let lines = &mut without.rig.lines;
    let key = lines.remove(at).gear.unwrap_or_default();
    lines.retain(|l| key.is_empty() || l.within != key);
    without
}

/// All changes that are [`Tried`] and give another winner than `now`.
///
/// # Errors
/// What `first` gives where it was given up.
pub fn flips<E>(
    brief: &Brief,
    now: &str,
    first: &dyn Fn(&Brief) -> Result<Option<String>, E>,
) -> Result<Vec<Flip>, E> {
    Tried::all(brief)
        .filter_map(|tried| tried.smallest(brief, now, first).transpose())
        .collect()
}

fn by_mass<E>(
    brief: &Brief,
    now: &str,
    direction: f64,
    first: &dyn Fn(&Brief) -> Result<Option<String>, E>,
) -> Result<Option<Flip>, E> {
    let (mut low, mut by) = (0.0, STEP);
    let at = |by: f64| -> Result<Option<Option<String>>, E> {
        let Some(changed) = heavier(brief, direction * by) else {
            return Ok(None);
        };
        first(&changed).map(Some)
    };
    let mut winner = loop {
        if by > FARTHEST {
            return Ok(None);
        }
        let Some(then) = at(by)? else {
            return Ok(None);
        };
        if then.as_deref() != Some(now) {
            break then;
        }
        low = by;
        by += STEP;
    };
    // Between `low`, where the winner still wins, and `by`, where it does not.
    while by - low > TOLD + 1e-9 {
        let steps = ((by - low) / TOLD / 2.0).floor().max(1.0);
        let middle = low + TOLD * steps;
        let Some(then) = at(middle)? else {
            return Ok(None);
        };
        if then.as_deref() == Some(now) {
            low = middle;
        } else {
            by = middle;
            winner = then;
        }
    }
    Ok(Some(Flip {
        change: Change::Mass(direction * by),
        first: winner,
    }))
}

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

/// Looks for changes that give another winner than `now`; `first` ranks a question
/// anew and names its winner. Each is found by ranking at it, and at 0.5 kg less
/// `now` was still first. What changes the mass is looked for in both directions, in
/// steps of 5 kg up to 25: a winner who leads only between two steps is not found.
///
/// `first` gives `Err` where it was given up; then so is this.
///
/// # Errors
/// What `first` gives.
pub fn flips<E>(
    brief: &Brief,
    now: &str,
    first: &dyn Fn(&Brief) -> Result<Option<String>, E>,
) -> Result<Vec<Flip>, E> {
    let mut found = Vec::new();
    for direction in [1.0, -1.0] {
        found.extend(by_mass(brief, now, direction, first)?);
    }
    let seated = other_seat(brief);
    let then = first(&seated)?;
    if then.as_deref() != Some(now) {
        found.push(Flip {
            change: Change::Seat(seated.seat),
            first: then,
        });
    }
    let wants = brief.rig.lines.iter().enumerate();
    let wants = wants.filter(|(_, l)| l.importance == Importance::Want && l.within.is_empty());
    for (at, line) in wants.take(MOST_THINGS) {
        let mut without = brief.clone();
        without.rig.lines.remove(at);
        // What is packed in it stays ashore with it.
        let key = line.gear.clone().unwrap_or_default();
        let packed = |within: &str| !key.is_empty() && within == key;
        without.rig.lines.retain(|l| !packed(&l.within));
        let then = first(&without)?;
        if then.as_deref() != Some(now) {
            found.push(Flip {
                change: Change::Without(line.item.clone()),
                first: then,
            });
        }
    }
    Ok(found)
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

//! What belongs to the old hull: its drive, its rudder, what was made on it.

use super::super::facts::Facts;
use super::{Goes, Move, made};
use crate::base::Keyed;
use crate::hull::{Fitting, FittingKind, Modification, Progress};

/// Rows of the hull itself and of what was changed on it.
pub(super) fn of_the_hull(old: &Facts<'_>, new: &Facts<'_>) -> Vec<Move> {
    let mut all = Vec::new();
    if let Some(drive) = old.drive() {
        all.push(Move {
            because: "its well, its spares and its service go with the hull".to_owned(),
            ..stays(&format!("{} drive with its spares", drive.label()))
        });
    }
    if old.hull().tracks_straight {
        all.push(Move {
            because: "cut and lined for this stern".to_owned(),
            ..stays("rudder or skeg")
        });
    }
    let done = old.hull().fitout.modifications.iter();
    for m in done.filter(|m| m.progress == Progress::Done) {
        if !m.can_be_undone || !m.zones.is_empty() || m.fittings.is_empty() {
            all.push(Move {
                because: if m.can_be_undone {
                    "part of the hull by now; it can be taken back to stock".to_owned()
                } else {
                    "cut for good: told to who buys it".to_owned()
                },
                price: m.price,
                ..stays(&m.name)
            });
            continue;
        }
        all.extend(
            m.fittings
                .iter()
                .enumerate()
                .map(|(k, f)| fitting(new, m, (k, f))),
        );
    }
    all
}

fn stays(item: &str) -> Move {
    Move {
        item: item.to_owned(),
        gear: None,
        line: None,
        count: 1,
        from: "part of the hull".to_owned(),
        to: String::new(),
        goes: Goes::Stays,
        because: String::new(),
        buy: Vec::new(),
        holes_left: 0,
        holes_made: 0,
        mass: 0.0,
        price: None,
        minutes: 0.0,
        remedy: None,
        idle: None,
    }
}

/// A fitting somebody put on: bolted on the new hull as well, unless that has its own.
fn fitting(new: &Facts<'_>, m: &Modification, (k, f): (usize, &Fitting)) -> Move {
    let same = |kind: &FittingKind| std::mem::discriminant(kind) == std::mem::discriminant(&f.kind);
    let has = new.fitted(same);
    // A modification's holes and mass are those of all its fittings: the first tells them.
    let share = |holes: u16| if k == 0 { holes } else { 0 };
    let count = m.fittings.len() as f64;
    let moved = !has;
    Move {
        from: format!("bolted on: {}", m.name),
        to: if moved {
            "bolted on, as a planned modification".to_owned()
        } else {
            String::new()
        },
        goes: if moved { Goes::Adapter } else { Goes::Sell },
        because: if moved {
            "the new hull has none: its place is taken over by its share of the length, and \
             felt for beneath before anything is drilled"
                .to_owned()
        } else {
            "the new hull has its own".to_owned()
        },
        holes_left: share(m.holes),
        holes_made: if moved { share(m.holes) } else { 0 },
        mass: m.mass.max(0.0) / count,
        price: m.price.map(|p| p / count),
        minutes: if moved { made::BOLTED } else { 0.0 },
        ..stays(&f.name)
    }
}

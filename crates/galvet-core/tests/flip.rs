//! What would change the winner, against rankings made by hand and verified by
//! ranking anew.

use crate::common;

use common::{brief, ranking, rig, survey};
use galvet_core::advise::flip::{Change, flips, heavier, other_seat};
use galvet_core::crew::SeatHeight;
use galvet_core::hull::{BottomShape, Construction, Measure, Survey};
use galvet_core::question::Brief;
use std::cell::Cell;

type Never = std::convert::Infallible;

#[test]
fn the_smallest_change_of_weight_is_found_to_half_a_kilogram() {
    let asked = brief(80.0, 1.80, rig(10.0, 0.6, 0.2));
    let asked_for = Cell::new(0);
    // From 83.3 kg on the second wins, below 71 kg nobody passes.
    let by_hand = |b: &Brief| -> Result<Option<String>, Never> {
        asked_for.set(asked_for.get() + 1);
        Ok(match b.crew.mass() {
            m if m < 71.0 => None,
            m if m >= 83.3 => Some("second".to_owned()),
            _ => Some("first".to_owned()),
        })
    };
    let found = flips(&asked, "first", &by_hand).unwrap();
    assert_eq!(found.len(), 2, "{found:?}");
    // 80 - 9 = 71 still passes; half a kilogram more does not.
    assert_eq!(found[0].change, Change::Mass(-9.5));
    assert_eq!(found[0].first, None);
    assert_eq!(found[1].change, Change::Mass(3.5));
    assert_eq!(found[1].first.as_deref(), Some("second"));
    assert!(asked_for.get() < 20, "{}", asked_for.get());
    // Nothing within reach changes it.
    let never = |_: &Brief| -> Result<Option<String>, Never> { Ok(Some("first".to_owned())) };
    assert!(flips(&asked, "first", &never).unwrap().is_empty());
}

#[test]
fn the_seat_and_what_may_stay_ashore_are_tried() {
    let mut asked = brief(80.0, 1.80, rig(10.0, 0.6, 0.2));
    asked.rig.lines[0].importance = galvet_core::rig::Importance::Want;
    let by_hand = |b: &Brief| -> Result<Option<String>, Never> {
        let high = b.seat == SeatHeight::High;
        Ok(Some(
            if high || b.rig.lines.is_empty() {
                "b"
            } else {
                "a"
            }
            .to_owned(),
        ))
    };
    let found = flips(&asked, "a", &by_hand).unwrap();
    let changes: Vec<_> = found.into_iter().map(|f| f.change).collect();
    let kit = Change::Without("kit".to_owned());
    assert_eq!(changes, [Change::Seat(SeatHeight::High), kit]);
}

fn hull(key: &str, [length, beam]: [f64; 2], rated: f64) -> Survey {
    let readings = [
        (Measure::Length, length),
        (Measure::Beam, beam),
        (Measure::FittedWeight, 36.0),
        (Measure::RatedCapacity, rated),
        (Measure::SeatLow, 0.1),
    ];
    let mut hull = survey(Construction::SitOnTop, BottomShape::Flat, &readings);
    key.clone_into(&mut hull.key);
    hull
}

#[test]
fn a_flip_holds_when_everything_is_ranked_anew() {
    // The wide one is steadier, and its label soon short.
    let hulls = [
        hull("wide", [3.4, 0.92], 150.0),
        hull("long", [4.1, 0.80], 230.0),
    ];
    let asked = brief(80.0, 1.80, rig(10.0, 0.6, 0.2));
    let first = |b: &Brief| -> Result<Option<String>, Never> {
        let ranked = ranking(&hulls, b, 32).ranked;
        Ok(ranked.first().map(|r| r.survey().key.clone()))
    };
    let now = first(&asked).unwrap().unwrap();
    let found = flips(&asked, &now, &first).unwrap();
    assert!(!found.is_empty(), "{now} wins whatever is changed");
    for flip in found {
        let then = match flip.change {
            Change::Mass(by) => {
                let just_under = heavier(&asked, by - 0.5 * by.signum()).unwrap();
                assert_eq!(first(&just_under).unwrap().as_ref(), Some(&now));
                heavier(&asked, by).unwrap()
            }
            Change::Seat(_) => other_seat(&asked),
            Change::Without(_) => unreachable!("the only line must come"),
        };
        assert_eq!(first(&then).unwrap(), flip.first);
        assert_ne!(flip.first.as_deref(), Some(now.as_str()));
    }
}

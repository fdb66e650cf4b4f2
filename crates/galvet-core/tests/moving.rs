//! Moving house: what goes from one hull onto another, with what, and what it ends as.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::papers::{self, afloat, carrying, taped, worn};

use galvet_core::base::System;
use galvet_core::figures::Change;
use galvet_core::gear::{Fixing, Gear, Serves};
use galvet_core::hull::{
    Fitting, FittingKind, Modification, Opening, Progress, Source, Survey, Zone, ZoneKind, zones,
};
use galvet_core::papers::{Facts, Goes, Move, into_rig, modification, moving, sum};
use galvet_core::question::Brief;

/// A thing that is stood in its place: nobody has to look what to strap it to.
fn thing(key: &str, serves: &[Serves], size: [f64; 3]) -> Gear {
    Gear {
        fixings: vec![Fixing::Loose],
        ..papers::thing(key, serves, size)
    }
}

/// What goes where from `old` to `new`.
fn moves(old: &Survey, new: &Survey, asked: &Brief) -> Vec<Move> {
    let (a, b) = (afloat(old, asked), afloat(new, asked));
    let facts = [&a, &b].map(|a| Facts::of(a, asked, System::Metric));
    moving(&facts[0], &facts[1], &|key| (key == "idle").then_some(9))
}

fn of<'a>(all: &'a [Move], item: &str) -> &'a Move {
    all.iter().find(|m| m.item == item).unwrap()
}

/// A measured place of a hull of ours.
fn well(length: f64, width: f64, height: f64) -> Zone {
    Zone {
        height: Some(height),
        source: Source::Tape,
        ..Zone::plain("tank well", ZoneKind::TankWell, [2.4, 2.4 + length, width])
    }
}

/// A hull of which every place was measured, its tank well like this.
fn hull_with(well: Zone) -> Survey {
    let mut hull = taped();
    let others = zones(&hull)
        .into_iter()
        .filter(|z| z.kind != ZoneKind::TankWell);
    let taped = others.map(|zone| Zone {
        source: Source::Tape,
        ..zone
    });
    hull.fitout.zones = taped.chain([well]).collect();
    hull
}

#[test]
fn onto_the_same_hull_everything_moves_as_it_is() {
    let kit = [
        thing("crate", &[], [0.35, 0.30, 0.28]),
        worn("aid", &[Serves::FoamAid]),
    ];
    let asked = carrying(&kit);
    let all = moves(&taped(), &taped(), &asked);
    for m in all.iter().filter(|m| m.gear.is_some()) {
        assert_eq!((m.goes, m.from == m.to), (Goes::Moves, true), "{m:?}");
        assert!(m.buy.is_empty() && m.holes_made == 0, "{m:?}");
    }
    let s = sum(&all);
    // Two of a kilogram each.
    assert_eq!((s.goes[0], s.mass, s.buy), (2, 2.0, (0.0, 0)));
    // The rig is the same, and nothing is planned.
    let a = afloat(&taped(), &asked);
    let facts = Facts::of(&a, &asked, System::Metric);
    assert_eq!(into_rig(&asked.rig, &all, &[]).lines, asked.rig.lines);
    assert_eq!(modification(&facts, &facts, &all), None);
}

#[test]
fn what_is_measured_not_to_fit_is_sold_and_what_nobody_measured_is_not() {
    let big = Gear {
        zones: vec![ZoneKind::TankWell],
        price: Some(90.0),
        ..thing("cooler", &[], [0.60, 0.40, 0.40])
    };
    let asked = carrying(&[big]);
    let wide = hull_with(well(0.9, 0.6, 0.5));
    let narrow = hull_with(well(0.5, 0.3, 0.2));
    let m = moves(&wide, &narrow, &asked);
    let cooler = of(&m, "cooler");
    assert_eq!(cooler.goes, Goes::Sell, "{cooler:?}");
    assert!(
        cooler.because.contains("tank well takes"),
        "{}",
        cooler.because
    );
    assert_eq!((cooler.to.as_str(), cooler.holes_made), ("", 0));
    assert_eq!(sum(&m).mass, 0.0);
    // Sold, it is off the new hull's rig.
    assert!(into_rig(&asked.rig, &m, &[]).lines.is_empty());
    // Of what keeps somebody alive that is never said: it is to be found a place.
    let line = Gear {
        zones: vec![ZoneKind::TankWell],
        ..thing("throw line", &[Serves::ThrowLine], [0.60, 0.40, 0.40])
    };
    let safe = carrying(&[line]);
    let m = moves(&wide, &narrow, &safe);
    assert_eq!(of(&m, "throw line").goes, Goes::Measure);
    assert_eq!(into_rig(&safe.rig, &m, &[]).lines.len(), 1);
    // The same onto places nobody measured: it may fit, and is neither moved nor sold.
    let guessed = hull_with(Zone {
        source: Source::Guess,
        ..well(0.5, 0.3, 0.2)
    });
    let m = moves(&wide, &guessed, &asked);
    assert_eq!(
        of(&m, "cooler").goes,
        Goes::Measure,
        "{:?}",
        of(&m, "cooler")
    );
    assert_eq!(into_rig(&asked.rig, &m, &[]).lines.len(), 1);
}

#[test]
fn what_is_glued_stays_and_is_bought_again() {
    let pad = Gear {
        fixings: vec![Fixing::Glue],
        zones: vec![ZoneKind::CockpitFloor],
        price: Some(12.0),
        ..thing("pad", &[], [0.3, 0.2, 0.01])
    };
    let asked = carrying(&[pad]);
    let m = moves(&taped(), &taped(), &asked);
    let pad = of(&m, "pad");
    assert_eq!(pad.goes, Goes::Stays, "{pad:?}");
    assert_eq!((pad.buy[0].price, pad.holes_left), (Some(12.0), 0));
    assert_eq!(sum(&m).buy, (12.0, 0));
}

#[test]
fn what_was_bolted_leaves_holes_and_makes_them_anew() {
    let mount = Gear {
        fixings: vec![Fixing::Drill],
        holes: 4,
        zones: vec![ZoneKind::BowDeck, ZoneKind::CockpitFloor],
        ..thing("mount", &[], [0.1, 0.1, 0.1])
    };
    let asked = carrying(&[mount]);
    let m = moves(&taped(), &taped(), &asked);
    let mount = of(&m, "mount");
    assert_eq!((mount.holes_left, mount.holes_made), (4, 4), "{mount:?}");
    assert!(
        mount.goes >= Goes::Adapter && mount.minutes >= 40.0,
        "{mount:?}"
    );
    assert_eq!(sum(&m).holes, (4, 4));
}

/// A hull with a modification that was made on it.
fn changed(can_be_undone: bool, fittings: Vec<Fitting>, zones: Vec<Zone>) -> Survey {
    let mut hull = taped();
    hull.fitout.modifications = vec![Modification {
        name: "extra".into(),
        progress: Progress::Done,
        removes: Vec::new(),
        zones,
        fittings,
        dryness: Vec::new(),
        mass: 0.8,
        x: 1.85,
        z: 0.3,
        holes: 6,
        price: Some(50.0),
        can_be_undone,
        note: String::new(),
    }];
    hull
}

fn rail(x: f64) -> Fitting {
    Fitting {
        name: "rail".into(),
        kind: FittingKind::Track {
            length: 0.4,
            slot: None,
        },
        x,
        y: 0.35,
        z: Some(0.33),
        mount: String::new(),
        source: Source::Tape,
    }
}

#[test]
fn what_was_made_on_a_hull_is_bolted_on_the_new_one_or_stays() {
    let asked = carrying(&[worn("aid", &[Serves::FoamAid])]);
    let old = changed(true, vec![rail(1.85)], Vec::new());
    let new = taped();
    let m = moves(&old, &new, &asked);
    let moved = of(&m, "rail");
    assert_eq!(
        (moved.goes, moved.holes_left, moved.holes_made),
        (Goes::Adapter, 6, 6)
    );
    // It ends as a planned modification, at the same share of the length, as a guess.
    let (a, b) = (afloat(&old, &asked), afloat(&new, &asked));
    let facts = [&a, &b].map(|a| Facts::of(a, &asked, System::Metric));
    let plan = modification(&facts[0], &facts[1], &m).unwrap();
    assert_eq!(
        (plan.progress, plan.holes, plan.mass),
        (Progress::Planned, 6, 0.8)
    );
    assert_eq!(
        (plan.fittings[0].x, plan.fittings[0].source),
        (1.85, Source::Guess)
    );
    // What is there already costs nothing again.
    assert_eq!(plan.price, Some(0.0));
    // A hull that has its own needs none.
    let mut own = taped();
    own.fitout.fittings.push(rail(1.7));
    let m = moves(&old, &own, &asked);
    assert_eq!(
        (of(&m, "rail").goes, of(&m, "rail").holes_made),
        (Goes::Sell, 0)
    );
    // What was cut for good stays, and is told.
    let lid = Zone {
        opening: Some(Opening::Round(0.2)),
        ..well(0.3, 0.3, 0.2)
    };
    let cut = changed(false, Vec::new(), vec![lid]);
    let m = moves(&cut, &new, &asked);
    let cut = of(&m, "extra");
    assert_eq!(cut.goes, Goes::Stays);
    assert!(cut.because.contains("told to who buys it"));
    // What is only planned is not there to be moved.
    let mut planned = old;
    planned.fitout.modifications[0].progress = Progress::Planned;
    let m = moves(&planned, &new, &asked);
    assert!(m.iter().all(|m| m.item != "rail"));
}

#[test]
fn what_finds_no_place_is_first_offered_the_cheapest_way_to_one() {
    let screen = Gear {
        fixings: vec![Fixing::Insert],
        mount: "ball 25".into(),
        zones: vec![ZoneKind::CockpitFloor],
        ..thing("screen", &[], [0.15, 0.1, 0.1])
    };
    let adapter = Gear {
        brings: galvet_core::gear::Brings {
            adapts: Some(("track 20".into(), "ball 25".into())),
            ..Default::default()
        },
        price: Some(29.0),
        owned: false,
        ..thing("track ball", &[], [0.05, 0.03, 0.03])
    };
    let asked = carrying(&[screen]).bringing(&[adapter]);
    let mut with = taped();
    with.fitout.fittings.push(Fitting {
        name: "insert".into(),
        kind: FittingKind::Insert,
        mount: "ball 25".into(),
        ..rail(1.6)
    });
    let mut tracks = taped();
    tracks.fitout.fittings.push(Fitting {
        mount: "track 20".into(),
        ..rail(1.6)
    });
    let m = moves(&with, &tracks, &asked);
    let screen = of(&m, "screen");
    // Whatever way is found first (here a part bolted on, as dear and with holes), it is told
    // with what it costs, and the thing is on the new hull's rig.
    assert_eq!(screen.goes, Goes::Adapter, "{screen:?}");
    assert!(
        screen.buy[0].price.is_some() && !screen.to.is_empty(),
        "{screen:?}"
    );
    assert_eq!(sum(&m).buy.0, screen.buy[0].price.unwrap());
    let rig = into_rig(&asked.rig, &m, &[]);
    assert!(rig.lines.iter().any(|l| l.item == "screen"));
    match m.iter().find_map(|m| m.remedy.as_ref()).map(|r| &r.change) {
        Some(Change::Bring(_)) => assert!(rig.lines.iter().any(|l| l.item == "track ball")),
        Some(Change::Fit(made)) => {
            let (a, b) = (afloat(&with, &asked), afloat(&tracks, &asked));
            let facts = [&a, &b].map(|a| Facts::of(a, &asked, System::Metric));
            let plan = modification(&facts[0], &facts[1], &m).unwrap();
            assert_eq!((plan.holes, &plan.fittings), (made.holes, &made.fittings));
        }
        other => panic!("{other:?}"),
    }
}

#[test]
fn what_was_never_used_is_told_and_left_behind_only_when_asked() {
    let kit = [
        thing("idle", &[], [0.2, 0.2, 0.1]),
        thing("busy", &[], [0.2, 0.2, 0.1]),
    ];
    let asked = carrying(&kit);
    let m = moves(&taped(), &taped(), &asked);
    assert_eq!((of(&m, "idle").idle, of(&m, "busy").idle), (Some(9), None));
    assert_eq!(of(&m, "idle").goes, Goes::Moves);
    assert_eq!(into_rig(&asked.rig, &m, &[]).lines.len(), 2);
    let left = into_rig(&asked.rig, &m, &["idle".to_owned()]);
    assert_eq!(left.lines.len(), 1);
    // Of what keeps somebody alive it is not told.
    let asked = carrying(&[Gear {
        serves: vec![Serves::Pump],
        ..thing("idle", &[], [0.2, 0.2, 0.1])
    }]);
    let m = moves(&taped(), &taped(), &asked);
    assert_eq!(of(&m, "idle").idle, None);
}

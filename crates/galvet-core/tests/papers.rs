//! Papers: essentials, lists, the order of a job, what the whole costs.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{assess, brief};
use galvet_core::base::System;
use galvet_core::figures::Assessment;
use galvet_core::gear::{Category, Fixing, Gear, Serves};
use galvet_core::hull::{
    Facing, Fitting, FittingKind, Measure, Modification, Progress, Reading, Source, Survey,
    ZoneKind,
};
use galvet_core::papers::{
    Asks, Facts, List, Nine, Standing, checklist, essentials, job_sheet, shopping,
};
use galvet_core::question::Brief;
use galvet_core::rank::{Code, unchecked};
use galvet_core::rig::{Rig, RigLine};

/// A thing that serves as something.
pub(crate) fn thing(key: &str, serves: &[Serves], size: [f64; 3]) -> Gear {
    Gear {
        serves: serves.to_vec(),
        fixings: vec![Fixing::Strap, Fixing::Loose],
        zones: vec![
            ZoneKind::TankWell,
            ZoneKind::CockpitFloor,
            ZoneKind::BowDeck,
        ],
        ..Gear::plain(key, key, Category::Other, 1.0, Some(size))
    }
}

pub(crate) fn worn(key: &str, serves: &[Serves]) -> Gear {
    Gear {
        fixings: vec![Fixing::Worn],
        zones: vec![ZoneKind::OnThePerson],
        ..thing(key, serves, [0.3, 0.2, 0.1])
    }
}

pub(crate) fn carrying(gear: &[Gear]) -> Brief {
    let lines = gear.iter().map(RigLine::of).collect();
    let rig = Rig {
        key: "rig".into(),
        name: "rig".into(),
        lines,
    };
    brief(85.0, 1.8, rig)
}

pub(crate) fn afloat(hull: &Survey, asked: &Brief) -> Assessment {
    assess(hull, asked, 8)
}

/// A hull of which length and weight were measured.
pub(crate) fn taped() -> Survey {
    let mut hull = common::tunnel(&[(Measure::SeatLow, 0.2)]);
    for (measure, value) in [
        (Measure::Length, 3.7),
        (Measure::Beam, 0.9),
        (Measure::FittedWeight, 50.0),
    ] {
        let reading = Reading::new(measure, value, Source::Tape).unwrap();
        hull.readings.insert(measure, vec![reading]);
    }
    hull.fitout.fittings = vec![Fitting {
        name: "holder".into(),
        kind: FittingKind::RodHolder {
            flush: true,
            angle: None,
            facing: Facing::Aft,
            reversible: false,
        },
        x: 2.2,
        y: 0.3,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    }];
    hull
}

fn standing(gear: &[Gear], water: &str, id: &str) -> (Asks, Standing, bool) {
    let mut asked = carrying(gear);
    asked.water.key = water.into();
    let hull = taped();
    let a = afloat(&hull, &asked);
    let all = essentials(&Facts::of(&a, &asked, System::Metric));
    let one = all.iter().find(|e| e.id == id).unwrap();
    (one.asks, one.standing.clone(), one.is_red())
}

#[test]
fn an_aid_in_a_hatch_is_not_worn_and_what_nobody_said_is_no_pass() {
    let aid = |g: &[Gear]| standing(g, "lake", "aid");
    assert_eq!(aid(&[]).1, Standing::Missing);
    assert!(aid(&[]).2);
    let stowed = thing("aid", &[Serves::FoamAid], [0.4, 0.3, 0.1]);
    assert!(matches!(aid(&[stowed]).1, Standing::Wrong(..)));
    let (_, on, red) = aid(&[worn("aid", &[Serves::FoamAid])]);
    assert_eq!((on, red), (Standing::There("aid".into()), false));
    // By its name alone it may be one: red until somebody says so.
    let named = Gear {
        serves: Vec::new(),
        ..thing("throw line, 15 m", &[], [0.3, 0.2, 0.1])
    };
    let (asks, is, red) = standing(&[named], "quick-creek", "throw-line");
    assert_eq!((asks, red), (Asks::Must, true));
    assert!(matches!(is, Standing::Unsure(_)));
    // Whistle and knife: one of both is not both.
    let whistle = worn("whistle", &[Serves::Whistle]);
    assert_eq!(
        standing(&[whistle], "lake", "whistle-knife").1,
        Standing::Missing
    );
    // An anchor in a quick stream is barred, and its lack is no fault.
    let anchor = thing("anchor", &[Serves::Anchor], [0.3, 0.1, 0.1]);
    assert!(standing(&[anchor], "quick-creek", "anchor").2);
    assert!(!standing(&[], "quick-creek", "anchor").2);
}

#[test]
fn a_water_of_ones_own_is_asked_what_it_resembles() {
    let of = |change: fn(&mut galvet_core::question::Water)| {
        let mut water = galvet_core::question::Water::lake();
        water.key = "the-old-pit".into();
        change(&mut water);
        Nine::of(&water)
    };
    assert_eq!(of(|_| {}), Nine::Lake);
    assert_eq!(of(|w| w.stream = Some(1.2)), Nine::QuickCreek);
    assert_eq!(of(|w| w.stream = Some(0.3)), Nine::SlowRiver);
    assert_eq!(of(|w| w.density = 1025.0), Nine::Estuary);
    assert_eq!(of(|w| w.must_drain = true), Nine::Coast);
    assert_eq!(
        of(|w| w.conditions = "waves to 0.4 m".into()),
        Nine::OpenLake
    );
}

#[test]
fn lists_follow_hull_rig_and_water() {
    let asks = |gear: &[Gear], water: &str, list: List| -> Vec<String> {
        let mut asked = carrying(gear);
        asked.water.key = water.into();
        let hull = taped();
        let a = afloat(&hull, &asked);
        let lines = checklist(&Facts::of(&a, &asked, System::Metric), list);
        assert!(lines.iter().all(|l| !l.why.is_empty()));
        lines.into_iter().map(|l| l.id).collect()
    };
    let launch = asks(&[], "pond", List::Launch);
    for hard in ["drain-shut", "aid-on"] {
        assert!(launch.iter().any(|l| l == hard), "{hard}");
    }
    assert!(
        !launch
            .iter()
            .any(|l| l == "nobody-tied" || l == "radio-on" || l == "kill-cord")
    );
    let sea = asks(&[], "coast", List::Launch);
    assert!(sea.iter().any(|l| l == "radio-on") && sea.iter().any(|l| l == "nobody-tied"));
    // Shut at launch, open to dry: both lists say so.
    let back = asks(&[], "pond", List::Return);
    assert!(back.iter().any(|l| l == "return-drain"));
    let battery = Gear {
        serves: vec![Serves::Battery],
        ..thing("block", &[], [0.2; 3])
    };
    assert!(
        asks(&[battery], "lake", List::Loading)
            .iter()
            .any(|l| l == "off-battery")
    );
    // Never stripped: aid, radio, knife.
    assert!(
        asks(&[], "surf", List::Surf)
            .iter()
            .any(|l| l == "surf-never")
    );
}

/// A track that is planned.
fn planned(holes: u16) -> Modification {
    Modification {
        name: "track to port".into(),
        progress: Progress::Planned,
        removes: Vec::new(),
        zones: Vec::new(),
        fittings: vec![Fitting {
            name: "new track".into(),
            kind: FittingKind::Track {
                length: 0.4,
                slot: None,
            },
            x: 1.5,
            y: -0.35,
            z: None,
            mount: String::new(),
            source: Source::Guess,
        }],
        dryness: Vec::new(),
        mass: 0.6,
        x: 1.5,
        z: 0.3,
        holes,
        price: Some(40.0),
        can_be_undone: true,
        note: String::new(),
    }
}

#[test]
fn a_job_says_where_how_and_what_is_not_good_enough() {
    let mut hull = taped();
    hull.fitout.modifications = vec![planned(6)];
    let asked = carrying(&[thing("crate", &[], [0.35, 0.3, 0.25])]);
    let a = afloat(&hull, &asked);
    let facts = Facts::of(&a, &asked, System::Metric);
    let sheet = job_sheet(&facts);
    let track = sheet.steps.iter().find(|s| s.what == "new track").unwrap();
    // What its record says of holes is what is drilled, not what is usual.
    assert_eq!((track.holes, sheet.holes(), track.later), (6, 6, true));
    let [x, y, _] = track.at.unwrap();
    assert!((x - (1.5 - a.setup.loads.layout.bow)).abs() < 1e-12 && y == -0.35);
    // Nobody felt beneath: a reaching arm is not held by a well nut.
    assert!(
        track.warns.contains("no nut beneath: not for"),
        "{}",
        track.warns
    );
    let at = |id: &str| sheet.steps.iter().position(|s| s.id == id).unwrap();
    let stowed = sheet.steps.iter().position(|s| s.what == "crate").unwrap();
    let drilled = sheet
        .steps
        .iter()
        .position(|s| s.what == "new track")
        .unwrap();
    assert!(at("dry-fit") < stowed && stowed < at("fish-first"));
    assert!(at("fish-first") < drilled && at("waterline") < drilled && at("beneath") < drilled);
    assert!(drilled < at("hose") && at("hose") < at("written"));
    // Bought: the track at its price, fasteners for its holes at nobody knows what.
    let bought = shopping(&facts);
    let (sum, unknown) = bought.sum();
    assert!((sum - bought.hull.unwrap_or(0.0) - 40.0).abs() < 1e-9);
    assert_eq!(unknown, 2 + u32::from(bought.hull.is_none()));
}

#[test]
fn the_whole_price_counts_what_the_rig_lacks() {
    let mut hull = taped();
    let price = Reading::new(Measure::Price, 1500.0, Source::Label).unwrap();
    hull.readings.insert(Measure::Price, vec![price]);
    let wanted = Gear {
        owned: false,
        price: Some(400.0),
        ..thing("cart", &[Serves::Cart], [0.4, 0.3, 0.2])
    };
    let unpriced = Gear {
        price: None,
        ..Gear {
            key: "well".into(),
            name: "well".into(),
            ..wanted.clone()
        }
    };
    let owned = Gear {
        owned: true,
        ..Gear {
            key: "net".into(),
            name: "net".into(),
            ..wanted.clone()
        }
    };
    let outcome = |gear: &[Gear], most: f64| {
        let mut asked = carrying(gear);
        asked.must.whole = Some(most);
        let answer = common::ranking(std::slice::from_ref(&hull), &asked, 8);
        let mut out = answer.ruled_out.iter().flat_map(|r| &r.reasons);
        let over = out.find(|r| r.code == Code::WholeOverBudget).map(|r| r.by);
        let a = afloat(&hull, &asked);
        (over, unchecked(&a, &asked).len())
    };
    // 1,500 and 400; what is owned costs nothing more.
    assert_eq!(outcome(&[wanted.clone(), owned], 1_900.0), (None, 0));
    assert_eq!(
        outcome(std::slice::from_ref(&wanted), 1_800.0),
        (Some(100.0), 0)
    );
    // One price nobody knows: too much already is too much; else it is said.
    assert_eq!(
        outcome(&[wanted.clone(), unpriced.clone()], 1_800.0),
        (Some(100.0), 0)
    );
    assert_eq!(outcome(&[wanted, unpriced], 2_000.0), (None, 1));
}

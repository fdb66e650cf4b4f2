//! The log: hours, service, kit, and what it decides.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::gear::{Category, Gear, Serves};
use galvet_core::hull::Propulsion;
use galvet_core::log::{
    Carried, Decision, Fate, Fault, Outing, Served, Standing, carried, cost_per_outing, decide,
    faults, hours, mend, met, months, upkeep,
};

fn outing(day: &str, hull: &str, hours: Option<f64>) -> Outing {
    Outing {
        key: format!("{day}-{hull}"),
        done: true,
        day: day.into(),
        hull: hull.into(),
        hours,
        ..Outing::blank()
    }
}

#[test]
fn hours_are_summed_by_hull_and_month_and_what_nobody_noted_is_told() {
    let mut log = vec![
        outing("2026-04-18", "a", Some(5.0)),
        outing("2026-04-19", "a", None),
        outing("2026-06-02", "a", Some(2.5)),
        outing("2026-06-03", "b", Some(4.0)),
    ];
    log[0].by = [Some(1.0), Some(4.0), None];
    log[0].distance = Some(8_000.0);
    let all = hours(&log);
    assert_eq!(all.len(), 2);
    let a = &all[0];
    assert_eq!((a.hull.as_str(), a.outings, a.not_noted), ("a", 3, 1));
    assert_eq!((a.noted, a.by, a.distance), (7.5, [1.0, 4.0, 0.0], 8_000.0));
    assert_eq!(a.last, "2026-06-02");
    let by_month = months(&log);
    let told: Vec<_> = by_month
        .iter()
        .map(|m| (m.when, m.hours, m.not_noted))
        .collect();
    // May stands between, with nothing in it.
    assert_eq!(
        told,
        [
            ((2026, 4), 5.0, 1),
            ((2026, 5), 0.0, 0),
            ((2026, 6), 6.5, 0)
        ]
    );
    // From one year into the next.
    let turn = [
        outing("2025-11-30", "a", None),
        outing("2026-01-01", "a", None),
    ];
    let turn: Vec<_> = months(&turn).iter().map(|m| m.when).collect();
    assert_eq!(turn, [(2025, 11), (2025, 12), (2026, 1)]);
    assert!(months(&[]).is_empty() && hours(&[]).is_empty());
}

#[test]
fn an_outing_costs_what_was_noted_and_its_share_of_what_was_bought() {
    let mut log = [
        outing("2026-04-18", "a", None),
        outing("2026-05-18", "a", None),
    ];
    log[0].cost = Some(6.0);
    let of: Vec<&Outing> = log.iter().collect();
    assert_eq!(
        cost_per_outing(&of, Some(1_994.0)),
        Some((3.0, Some(1_000.0)))
    );
    assert_eq!(cost_per_outing(&of, None), Some((3.0, None)));
    assert_eq!(cost_per_outing(&[], Some(1.0)), None);
}

const ROTARY: &[&str] = &["rotary", "hull", "battery"];

fn due(log: &[Outing], served: &[Served], today: &str) -> Vec<(String, Standing)> {
    let all = upkeep(("a", Propulsion::RotaryPedal), ROTARY, log, served, today);
    all.iter()
        .map(|d| (d.care.id.to_owned(), d.standing))
        .collect()
}

fn served(care: &str, day: &str) -> Served {
    Served {
        hull: "a".into(),
        care: care.into(),
        day: day.into(),
    }
}

#[test]
fn service_nobody_noted_is_not_done() {
    // A used drive's hours do not begin with the log: a single hour of it is not "not yet".
    let log = [outing("2026-04-18", "a", Some(1.0))];
    let all = due(&log, &[], "2026-04-19");
    assert!(all.iter().all(|(_, s)| *s == Standing::NotKnown), "{all:?}");
    // Of another hull's service nothing is known here.
    let other = Served {
        hull: "b".into(),
        ..served("rotary", "2026-04-10")
    };
    let all = due(&log, &[other], "2026-04-19");
    assert!(all.contains(&("rotary".into(), Standing::NotKnown)));
}

#[test]
fn service_is_due_by_hours_or_months_whichever_comes_first() {
    let done = [
        served("rotary", "2026-04-01"),
        served("hull", "2026-04-01"),
        served("battery", "2026-04-01"),
    ];
    let standing = |log: &[Outing], today: &str, care: &str| {
        let all = due(log, &done, today);
        all.into_iter().find(|(id, _)| id == care).unwrap().1
    };
    // 25 h in fresh water: 19 not yet, 21 soon (four fifths), 25 due.
    let fresh = |hours| vec![outing("2026-04-10", "a", Some(hours))];
    assert_eq!(
        standing(&fresh(19.0), "2026-04-20", "rotary"),
        Standing::Later
    );
    assert_eq!(
        standing(&fresh(21.0), "2026-04-20", "rotary"),
        Standing::Soon
    );
    assert_eq!(
        standing(&fresh(25.0), "2026-04-20", "rotary"),
        Standing::Due
    );
    // In salt half of it: 12.5 h.
    let salt = |hours| {
        vec![Outing {
            density: 1025.0,
            ..outing("2026-04-10", "a", Some(hours))
        }]
    };
    assert_eq!(
        standing(&salt(12.4), "2026-04-20", "rotary"),
        Standing::Soon
    );
    assert_eq!(standing(&salt(12.5), "2026-04-20", "rotary"), Standing::Due);
    // Three months in fresh water, a month and a half in salt: 46 days.
    assert_eq!(
        standing(&fresh(1.0), "2026-05-20", "rotary"),
        Standing::Later
    );
    assert_eq!(standing(&salt(1.0), "2026-05-20", "rotary"), Standing::Due);
    assert_eq!(standing(&fresh(1.0), "2026-07-05", "rotary"), Standing::Due);
    // A battery asks for no hours.
    assert_eq!(
        standing(&fresh(40.0), "2026-04-20", "battery"),
        Standing::Later
    );
    // What was done is counted from its day on.
    let again = [
        served("rotary", "2026-04-01"),
        served("rotary", "2026-04-12"),
    ];
    let all = due(&fresh(25.0), &again, "2026-04-20");
    assert!(all.contains(&("rotary".into(), Standing::Later)), "{all:?}");
    // Hours by drive alone count for a drive, all of them for the hull.
    let mut split = fresh(30.0);
    split[0].by = [Some(25.0), Some(5.0), None];
    assert_eq!(standing(&split, "2026-04-20", "rotary"), Standing::Later);
    assert_eq!(standing(&split, "2026-04-20", "hull"), Standing::Later);
}

#[test]
fn outings_without_hours_may_have_been_as_long_as_the_longest() {
    let done = [served("rotary", "2026-04-01")];
    let log = [
        outing("2026-03-01", "a", Some(8.0)),
        outing("2026-04-10", "a", Some(6.0)),
        outing("2026-04-11", "a", None),
        outing("2026-04-12", "a", None),
    ];
    let all = upkeep(
        ("a", Propulsion::RotaryPedal),
        ROTARY,
        &log,
        &done,
        "2026-04-20",
    );
    let rotary = all.iter().find(|d| d.care.id == "rotary").unwrap();
    // 6 h noted and twice what may have been 8: 22 of 25.
    assert_eq!((rotary.hours, rotary.not_noted), (Some((6.0, 25.0)), 2));
    assert_eq!(rotary.standing, Standing::Soon);
    // A motor on a pedalled hull of whose hours nobody told which were by motor: all of them
    // may have been. It is not "not yet".
    let done = [served("stern-motor", "2026-04-01")];
    let log = [outing("2026-04-10", "a", Some(30.0))];
    let all = upkeep(
        ("a", Propulsion::RotaryPedal),
        &["stern-motor"],
        &log,
        &done,
        "2026-04-20",
    );
    assert_eq!((all[0].standing, all[0].not_noted), (Standing::Soon, 1));
    // Where somebody split them, what is not in it was none.
    let mut split = log;
    split[0].by = [None, Some(30.0), None];
    let all = upkeep(
        ("a", Propulsion::RotaryPedal),
        &["stern-motor"],
        &split,
        &done,
        "2026-04-20",
    );
    assert_eq!((all[0].standing, all[0].not_noted), (Standing::Later, 0));
}

fn thing(key: &str, serves: &[Serves], price: Option<f64>) -> Gear {
    Gear {
        serves: serves.to_vec(),
        price,
        ..Gear::plain(key, key, Category::Other, 1.0, None)
    }
}

fn with(day: &str, things: &[(&str, Option<Fate>)]) -> Outing {
    let carried = things.iter().map(|(key, fate)| Carried {
        item: (*key).to_owned(),
        gear: Some((*key).to_owned()),
        fate: *fate,
    });
    Outing {
        carried: carried.collect(),
        ..outing(day, "a", Some(3.0))
    }
}

#[test]
fn only_what_was_said_not_to_be_used_eight_times_is_told_to_stay_ashore() {
    let shelf = [
        thing("gaff", &[], Some(40.0)),
        thing("net", &[], None),
        thing("flares", &[Serves::Beacon], None),
        thing("crate", &[], None),
    ];
    let find = |key: &str| shelf.iter().find(|g| g.key == key);
    let day = |n: usize| format!("2026-{:02}-10", n + 1);
    let unused = Some(Fate::Unused);
    let log: Vec<Outing> = (0..8)
        .map(|n| {
            with(
                &day(n),
                &[
                    ("gaff", unused),
                    // Nobody said of one outing: seven said are not eight.
                    ("net", if n == 3 { None } else { unused }),
                    ("flares", unused),
                    ("crate", if n == 7 { Some(Fate::Used) } else { unused }),
                    ("a bucket", unused),
                ],
            )
        })
        .collect();
    let all = carried(&log, &find);
    let stays: Vec<&str> = all
        .iter()
        .filter(|k| k.stays_ashore())
        .map(|k| k.item.as_str())
        .collect();
    // Never safety kit, never what the shelf does not know, never what was used.
    assert_eq!(stays, ["gaff"]);
    let of = |item: &str| all.iter().find(|k| k.item == item).unwrap();
    assert_eq!(
        (of("net").carried, of("net").unused, of("net").unsaid),
        (8, 7, 1)
    );
    assert_eq!((of("crate").used, of("crate").idle), (1, 0));
    assert!(of("flares").safety);
    // A year's share of its price: the log spans seven months, which count as one year.
    assert_eq!(of("gaff").a_year, Some(40.0));
    // What is not written to its end says nothing yet.
    let mut begun = log.clone();
    begun[0].done = false;
    assert_eq!(
        carried(&begun, &find)
            .iter()
            .filter(|k| k.stays_ashore())
            .count(),
        0
    );
    // Two of a thing on one outing are one outing; left ashore, it was not carried.
    let twice = [
        with(
            "2026-05-01",
            &[("gaff", unused), ("gaff", Some(Fate::Used))],
        ),
        with("2026-05-02", &[("gaff", Some(Fate::Ashore))]),
    ];
    let all = carried(&twice, &find);
    assert_eq!((all[0].carried, all[0].used, all[0].ashore), (1, 1, 1));
}

#[test]
fn whatever_may_keep_somebody_alive_is_never_told_to_stay() {
    use galvet_core::base::Keyed;
    const KIT: [Serves; 14] = [
        Serves::Rod,
        Serves::RodHolder,
        Serves::TackleBox,
        Serves::PersonLeash,
        Serves::MeasuringBoard,
        Serves::Gaff,
        Serves::LiveWell,
        Serves::Battery,
        Serves::Motor,
        Serves::Sounder,
        Serves::Net,
        Serves::Camera,
        Serves::NetClip,
        Serves::SeatRiser,
    ];
    const MORE: [Serves; 3] = [Serves::Cushion, Serves::Identifier, Serves::Cart];
    for &what in Serves::ALL {
        let kit = KIT.contains(&what) || MORE.contains(&what);
        assert_eq!(thing("x", &[what], None).keeps_alive(), !kit, "{what:?}");
    }
    let of_kind = Gear {
        category: Category::Safety,
        ..thing("x", &[], None)
    };
    assert!(of_kind.keeps_alive());
    // One of which only the name says so may be: it counts as if it were.
    assert!(thing("whistle", &[], None).keeps_alive());
}

#[test]
fn a_log_decides_by_the_handbooks_counts() {
    let mut log: Vec<Outing> = (1..=3)
        .map(|n| Outing {
            missed: vec![if n == 2 { "Anchor line" } else { "anchor line" }.to_owned()],
            battery_left: Some(if n == 1 { 0.30 } else { 0.29 }),
            ..outing(&format!("2026-05-{n:02}"), "a", Some(3.0))
        })
        .collect();
    let fault = |mended: &str| Fault {
        part: "rudder line".into(),
        hour: Some(2.0),
        cause: String::new(),
        mended: mended.into(),
    };
    log[0].faults = vec![fault("2026-05-02")];
    log[1].faults = vec![fault("")];
    log[2].turned_back = true;
    log[2].wind = Some(8.0);
    log[1].turned_back = true;
    log[1].wind = Some(7.0);
    let all = decide(&log, &[], &[]);
    let told: Vec<String> = all
        .iter()
        .map(|d| match d {
            Decision::OwnLimit(w, n) => format!("limit {w} {n}"),
            Decision::Spare(p, n, care) => format!("spare {p} {n} {}", care.unwrap().id),
            Decision::Battery(n) => format!("battery {n}"),
            Decision::Buy(w, n) => format!("buy {w} {n}"),
            _ => "other".to_owned(),
        })
        .collect();
    let wanted = [
        "limit 7 2",
        "spare rudder line 2 rudder",
        "battery 2",
        "buy anchor line 3",
    ];
    assert_eq!(told.len(), wanted.len(), "{told:?}");
    for (told, wanted) in told.iter().zip(wanted) {
        assert!(told.eq_ignore_ascii_case(wanted), "{told} {wanted}");
    }
    // One less of each decides nothing.
    let less = decide(&log[..1], &[], &[]);
    assert!(less.is_empty(), "{less:?}");
    // Known faults are those not put right; what mends them afloat is told.
    let known = faults(&log, Some("a"));
    assert_eq!(known.len(), 1);
    assert_eq!((known[0].times, known[0].care.unwrap().id), (2, "rudder"));
    assert!(faults(&log, Some("b")).is_empty());
    for (part, id) in [
        ("propeller pin", "rotary"),
        ("Fins", "fin"),
        ("hatch seal", "rotary-seals"),
        ("stern hatch", "hull"),
        ("fuse", "electronics"),
    ] {
        assert_eq!(mend(part).unwrap().id, id, "{part}");
    }
    assert!(mend("spinnaker").is_none() && mend("finish").is_none());
}

#[test]
fn the_wind_met_is_told_as_a_share_of_the_one_foretold() {
    let log: Vec<Outing> = [(5.0, 5.0), (4.0, 6.0), (5.0, 4.0)]
        .iter()
        .map(|(f, w)| Outing {
            forecast: Some(*f),
            wind: Some(*w),
            ..outing("2026-05-01", "a", None)
        })
        .collect();
    let usual = |_: &Outing| Some(4.5);
    let m = met(&log, &usual).unwrap();
    assert_eq!((m.count, m.share, m.worse), (3, [0.8, 1.0, 1.5], 1));
    assert_eq!(m.unusual, 2);
    assert_eq!(met(&log, &|_| None).unwrap().unusual, 0);
    assert!(met(&[outing("2026-05-01", "a", None)], &usual).is_none());
}

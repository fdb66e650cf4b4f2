//! Sense checks: what an expert would ask about on reading the sheet.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::survey;
use galvet_core::hull::{
    BottomShape, Construction, Fitting, FittingKind, Measure as M, Opening, Source, Survey, Zone,
    ZoneKind, template, zones,
};

fn sound() -> Vec<(M, f64)> {
    vec![
        (M::Length, 3.7),
        (M::Beam, 0.9),
        (M::Depth, 0.36),
        (M::FloorHeight, 0.135),
        (M::FloorWidth, 0.65),
        (M::BareWeight, 39.0),
        (M::FittedWeight, 50.0),
        (M::RatedCapacity, 205.0),
        (M::SeatLow, 0.2),
    ]
}

fn with(changed: &[(M, f64)]) -> Survey {
    let mut all = sound();
    for &(measure, value) in changed {
        all.retain(|(m, _)| *m != measure);
        all.push((measure, value));
    }
    survey(Construction::SitOnTop, BottomShape::Tunnel, &all)
}

fn said(survey: &Survey) -> Vec<String> {
    let found = survey.findings().into_iter().filter(|f| f.contradiction);
    found.map(|f| f.text).collect()
}

#[test]
fn a_sound_sheet_is_left_alone_also_at_the_ends_of_what_is_built() {
    assert!(said(&with(&[])).is_empty(), "{:?}", said(&with(&[])));
    for (length, beam, mass, rated) in [
        (2.7, 0.78, 17.0, 110.0),
        (4.6, 0.68, 29.0, 150.0),
        (3.4, 0.98, 62.0, 250.0),
        (4.3, 0.95, 68.0, 260.0),
    ] {
        let hull = survey(
            Construction::SitOnTop,
            BottomShape::Flat,
            &[
                (M::Length, length),
                (M::Beam, beam),
                (M::BareWeight, mass),
                (M::RatedCapacity, rated),
            ],
        );
        assert!(said(&hull).is_empty(), "{length}: {:?}", said(&hull));
    }
}

#[test]
fn what_cannot_be_right_together_is_named_with_the_reason() {
    for (changed, words) in [
        // 0.9 / 6.99 = 12.9 %, 1.49 / 3.7 = 40.3 %.
        (
            vec![(M::Length, 6.99), (M::FittedWeight, 60.0)],
            "the beam is 13 % of the length",
        ),
        (vec![(M::Beam, 1.49)], "the beam is 40 % of the length"),
        // 3.33 m²: 4.5 kg/m² are 15.0 kg, 24 kg/m² are 79.9 kg.
        (
            vec![(M::BareWeight, 14.9)],
            "15 kg is odd for 3.70 × 0.90 m: too light",
        ),
        (
            vec![(M::FittedWeight, 80.5)],
            "too heavy by far. Is the fitted weight",
        ),
        // 25 kg/m² are 83 kg, 110 kg/m² are 366 kg.
        (
            vec![(M::RatedCapacity, 370.0)],
            "no hull of that size carries it with a dry floor",
        ),
        (
            vec![(M::RatedCapacity, 80.0)],
            "is it what is left after the crew",
        ),
        (
            vec![(M::FloorWidth, 0.95)],
            "the floor (950 mm) is wider than the hull (900 mm)",
        ),
        (
            vec![(M::SeatLow, 0.3)],
            "the seat stands 75 mm above the gunwale",
        ),
    ] {
        let found = said(&with(&changed));
        assert!(
            found.iter().any(|f| f.contains(words)),
            "{words}: {found:?}"
        );
    }
    // Just inside, nothing is said.
    for changed in [
        vec![(M::BareWeight, 15.1)],
        vec![(M::FittedWeight, 79.5)],
        vec![(M::RatedCapacity, 365.0)],
        vec![(M::RatedCapacity, 84.0)],
        vec![(M::SeatLow, 0.22)],
    ] {
        assert!(
            said(&with(&changed)).is_empty(),
            "{changed:?}: {:?}",
            said(&with(&changed))
        );
    }
}

fn zone(name: &str, kind: ZoneKind, from: f64, to: f64) -> Zone {
    Zone {
        height: Some(0.2),
        source: Source::Tape,
        ..Zone::plain(name, kind, [from, to, 0.4])
    }
}

#[test]
fn zones_and_tracks_lie_on_their_hull_and_beside_each_other() {
    let mut hull = with(&[]);
    let zones = &mut hull.fitout.zones;
    zones.push(zone("bow", ZoneKind::BowDeck, 0.1, 0.5));
    zones.push(zone("floor", ZoneKind::CockpitFloor, 1.1, 1.9));
    zones.push(zone("well", ZoneKind::TankWell, 2.3, 3.2));
    // Beneath the deck another zone may lie under an open one.
    zones.push(zone("hatch", ZoneKind::CentreHatch, 1.4, 1.7));
    assert!(said(&hull).is_empty(), "{:?}", said(&hull));
    let broken = |change: &dyn Fn(&mut Survey)| {
        let mut hull = hull.clone();
        change(&mut hull);
        said(&hull)
    };
    let found = broken(&|h| h.fitout.zones[2].to = 3.75);
    assert!(
        found[0].contains("“well” reaches from 2.30 to 3.75 m on a hull of 3.70 m"),
        "{found:?}"
    );
    let found = broken(&|h| h.fitout.zones[2].from = 1.7);
    assert!(
        found[0].contains("“floor” and “well” lie over each other for 200 mm"),
        "{found:?}"
    );
    let found = broken(&|h| h.fitout.zones[1].offset = 0.3);
    assert!(
        found[0].contains("“floor” sticks out over the side"),
        "{found:?}"
    );
    let found = broken(&|h| h.fitout.zones[3].opening = Some(Opening::Rectangle(0.4, 0.2)));
    assert!(
        found[0].contains("“hatch” has an opening larger than itself"),
        "{found:?}"
    );
    let found = broken(&|h| h.fitout.zones[3].height_at_lid = Some(0.3));
    assert!(found[0].contains("higher beneath its lid"), "{found:?}");
    let found = broken(&|h| {
        h.fitout.fittings.push(Fitting {
            name: "port track".to_owned(),
            kind: FittingKind::Track {
                length: 0.8,
                slot: None,
            },
            x: 3.5,
            y: -0.3,
            z: None,
            mount: String::new(),
            source: Source::Tape,
        });
    });
    assert!(
        found[0].contains("“port track” reaches from 3.10 to 3.90 m"),
        "{found:?}"
    );
}

#[test]
fn the_template_fits_every_hull_it_is_scaled_to() {
    for construction in [
        Construction::SitOnTop,
        Construction::SitInside,
        Construction::Board,
    ] {
        for (length, beam) in [(2.7, 0.78), (3.7, 0.9), (4.6, 0.68)] {
            let readings = [(M::Length, length), (M::Beam, beam), (M::SeatLow, 0.1)];
            let mut hull = survey(construction, BottomShape::Flat, &readings);
            let zones = template(&hull).unwrap();
            assert!(zones.iter().all(|z| z.source == Source::Guess));
            hull.fitout.zones = zones;
            assert!(
                said(&hull).is_empty(),
                "{construction:?} {length}: {:?}",
                said(&hull)
            );
            assert!(hull.fitout.clone().check().is_ok());
        }
    }
    assert!(
        template(&survey(
            Construction::Board,
            BottomShape::Flat,
            &[(M::Length, 3.0)]
        ))
        .is_none()
    );
}

#[test]
fn a_guess_gives_way_to_what_was_measured() {
    let mut hull = with(&[]);
    // 0.63 and 0.87 of 3.7 m, 0.46 of 0.9 m; seat 0.2 m less two centimetres.
    let guessed = zones(&hull);
    let of = |zones: &[Zone], name: &str| zones.iter().find(|z| z.name == name).cloned();
    let well = of(&guessed, "tank well").unwrap();
    assert!((well.from - 2.331).abs() < 1e-9 && (well.to - 3.219).abs() < 1e-9);
    assert!((well.width - 0.414).abs() < 1e-9);
    let under = of(&guessed, "under the seat").unwrap().height.unwrap();
    assert!((under - 0.18).abs() < 1e-9);
    let port = of(&guessed, "port pocket").unwrap();
    assert!((port.offset - -0.33).abs() < 1e-9, "{}", port.offset);
    hull.fitout.zones.push(Zone {
        offset: -0.3,
        ..zone("beside the knee", ZoneKind::SidePocket, 1.7, 2.0)
    });
    hull.fitout
        .zones
        .push(zone("the well", ZoneKind::TankWell, 2.4, 3.2));
    let now = zones(&hull);
    assert_eq!(now.len(), guessed.len());
    assert!(of(&now, "tank well").is_none() && of(&now, "port pocket").is_none());
    assert!(
        of(&now, "starboard pocket").is_some(),
        "the other side is still a guess"
    );
    assert!(
        now.windows(2).all(|two| two[0].from <= two[1].from),
        "bow to stern"
    );
}

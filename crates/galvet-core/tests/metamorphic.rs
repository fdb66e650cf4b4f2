//! Over questions drawn at random: what a change of the question may never do to the
//! answer.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::families::{Dice, Truth, cases};
use common::{assess, brief, points, ranking, rig};
use galvet_core::crew::Posture;
use galvet_core::figures::Quantity as Q;
use galvet_core::guide::Guides;
use galvet_core::hull::{Measure, Survey};
use galvet_core::question::Brief;
use galvet_core::rank::{Scales, score};

/// Questions drawn at random over leaflet hulls.
fn questions(count: usize, seed: u64) -> impl Iterator<Item = (Survey, Brief, Dice)> {
    (0..count as u64).map(move |i| {
        let mut dice = Dice::new(7000 * seed + i);
        let truth = &Truth::drawn(1, 100 + seed * 1000 + i)[0];
        let mut asked = brief(
            dice.between(55.0, 115.0),
            dice.between(1.55, 1.98),
            rig(
                dice.between(4.0, 35.0),
                dice.between(0.5, 0.66),
                dice.between(0.05, 0.3),
            ),
        );
        asked.posture = dice.pick(&[Posture::Sits, Posture::Stands, Posture::SitsAndStands]);
        let known = match dice.between(0.0, 3.0) as u32 {
            0 => truth.leaflet(),
            1 => truth.taped(),
            _ => truth.all_but_bottom(),
        };
        (known, asked, dice)
    })
}

#[test]
fn more_load_never_has_more_margin() {
    for (hull, mut asked, mut dice) in questions(cases(60), 1) {
        // Under the seat: kit elsewhere may level it, and then it does bear more.
        asked.rig.lines[0].place = 0.53;
        asked.posture = Posture::Sits;
        let more = {
            let mut more = asked.clone();
            let line = &mut more.rig.lines[0];
            let extra = dice.between(1.0, 25.0);
            line.dry_mass += extra;
            line.loaded_mass += extra;
            more
        };
        let margin = |b: &Brief| assess(&hull, b, 32).median(Q::BindingMargin);
        let (less, more) = (margin(&asked), margin(&more));
        let lost = less.is_none() && more.is_some();
        assert!(!lost, "{less:?} {more:?}");
        if let (Some(less), Some(more)) = (less, more) {
            assert!(more < less + 0.05, "{less} {more}");
        }
    }
}

#[test]
fn a_raised_person_is_never_steadier() {
    for (hull, asked, mut dice) in questions(cases(60), 2) {
        let mut raised = asked.clone();
        raised.raised = dice.between(0.02, 0.15);
        let figures = |b: &Brief| {
            let a = assess(&hull, b, 32);
            [Q::Gm, Q::LeanRoom].map(|q| a.median(q).unwrap_or(f64::NEG_INFINITY))
        };
        let (low, high) = (figures(&asked), figures(&raised));
        for (low, high) in low.iter().zip(high) {
            assert!(high <= low + 0.002, "{low} {high}");
        }
    }
}

#[test]
fn order_of_rows_and_names_never_matters() {
    let drawn: Vec<(Survey, Brief, Dice)> = questions(12, 3).collect();
    let asked = drawn[0].1.clone();
    let hulls: Vec<Survey> = drawn
        .iter()
        .enumerate()
        .map(|(i, (hull, ..))| Survey {
            key: format!("h{i}"),
            ..hull.clone()
        })
        .collect();
    let mut renamed: Vec<Survey> = hulls.iter().rev().cloned().collect();
    for hull in &mut renamed {
        hull.key = format!("x-{}", hull.key);
        hull.maker = format!("Z{}", hull.maker);
    }
    let told = |hulls: &[Survey]| {
        let answer = ranking(hulls, &asked, 64);
        let order: Vec<(String, u64)> = answer
            .ranked
            .iter()
            .map(|r| {
                (
                    r.survey().key.trim_start_matches("x-").to_owned(),
                    r.score.total.to_bits(),
                )
            })
            .collect();
        order
    };
    assert_eq!(told(&hulls), told(&renamed));
}

#[test]
fn sits_and_stands_is_never_above_the_worse_of_the_two() {
    for (hull, mut asked, _) in questions(cases(60), 4) {
        let mut total = |posture| {
            asked.posture = posture;
            let a = assess(&hull, &asked, 32);
            let scored = score(&a, &asked, &Scales::of(&Guides::default())).total;
            (scored, a.median(Q::BindingMargin))
        };
        let [sits, stands, both] =
            [Posture::Sits, Posture::Stands, Posture::SitsAndStands].map(&mut total);
        // Where the floor lies at the water, searches from two starts end some kilograms
        // apart.
        assert!(
            both.0 <= sits.0.min(stands.0) + 1.5,
            "{sits:?} {stands:?} {both:?}"
        );
        if let (Some(a), Some(b), Some(c)) = (sits.1, stands.1, both.1) {
            assert!(c <= a.min(b) + 2.0, "{a} {b} {c}");
        }
    }
}

#[test]
fn leaving_a_reading_out_never_raises_a_score_beyond_its_luck() {
    // Over all that is left out the middle gain is within two points; one hull may gain
    // by its luck: what was measured of it was worse than such hulls are.
    let mut gains = Vec::new();
    for (hull, asked, mut dice) in questions(cases(60), 5) {
        let measured: Vec<Measure> = hull
            .readings
            .keys()
            .copied()
            .filter(|m| ![Measure::Length, Measure::Beam].contains(m))
            .collect();
        let mut less = hull.clone();
        less.readings.remove(&dice.pick(&measured));
        gains.push(points(&less, &asked) - points(&hull, &asked));
    }
    gains.sort_by(f64::total_cmp);
    let median = gains[gains.len() / 2];
    println!(
        "a reading less: median gain {median:.2}, greatest {:.1}",
        gains[gains.len() - 1]
    );
    assert!(median <= 2.0, "{median}");
}

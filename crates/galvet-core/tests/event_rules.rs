//! Event rules: each kind kept, broken and not known; what is out for them.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::papers::{afloat, carrying, taped, thing, worn};

use galvet_core::base::{Keyed, System};
use galvet_core::gear::{Category, Electric, Fixing, Gear, Serves, Tether};
use galvet_core::hull::{Measure, Reading, Source, Survey};
use galvet_core::papers::{Facts, Op, Outcome, Rule, RuleKind, RuleSet, check, told};
use galvet_core::question::{Brief, Effect};
use galvet_core::rank::{Code, unchecked};
use std::sync::Arc;

fn rule(kind: RuleKind, of: &[Serves], op: Op, value: Option<f64>) -> Rule {
    Rule {
        id: "r".into(),
        kind,
        of: of.to_vec(),
        op,
        value,
        ..Rule::default()
    }
}

/// How a rule comes out for a hull and what it carries: "pass", "fail", "unknown",
/// "printed", with its words.
fn comes_out(hull: &Survey, gear: &[Gear], rule: &Rule) -> (&'static str, String) {
    let asked = carrying(gear);
    let a = afloat(hull, &asked);
    let set = RuleSet {
        rules: vec![rule.clone()],
        ..RuleSet::default()
    };
    match &check(&Facts::of(&a, &asked, System::Metric), &set)[0].outcome {
        Outcome::Pass(words) => ("pass", words.clone()),
        Outcome::Fail(words) => ("fail", words.clone()),
        Outcome::Unknown(words) => ("unknown", words.clone()),
        Outcome::Printed => ("printed", String::new()),
    }
}

#[test]
fn every_kind_of_rule_is_kept_broken_and_not_known() {
    use RuleKind as K;
    use Serves as S;
    let hull = taped();
    let mut leaflet = hull.clone();
    for measure in [Measure::Length, Measure::Beam, Measure::FittedWeight] {
        let value = hull.value(measure).unwrap();
        let reading = Reading::new(measure, value, Source::Brochure).unwrap();
        leaflet.readings.insert(measure, vec![reading]);
    }
    let rod = |n: u32| thing(&format!("rod {n}"), &[S::Rod], [2.1, 0.1, 0.1]);
    let box_ = |long: f64| thing("box", &[S::TackleBox], [long, 0.2, 0.06]);
    let named = Gear {
        serves: Vec::new(),
        ..thing("yellow gaff, short", &[], [0.6, 0.1, 0.1])
    };
    let motor = |watts| Gear {
        electric: Electric::Draw {
            watts,
            duty: 0.5,
            volts: Some(12.0),
        },
        category: Category::Propulsion,
        ..thing("motor", &[], [0.4, 0.2, 0.2])
    };
    let loose = |fixing| Gear {
        fixings: vec![fixing],
        ..thing("block", &[S::Battery], [0.15, 0.1, 0.1])
    };
    let tied = |tether| Gear {
        tether,
        ..thing("board", &[S::MeasuringBoard], [0.6, 0.1, 0.02])
    };
    let sizeless = |what| Gear {
        size: None,
        ..thing("of no size", &[what], [0.1; 3])
    };
    let wells = |inside| {
        let mut well = thing("well", &[S::LiveWell], [0.5, 0.4, 0.4]);
        well.brings.inside = inside;
        well
    };
    let at_most = |kind, of: &[S], v| rule(kind, of, Op::AtMost, Some(v));
    let large = Rule {
        from_length: Some(0.34),
        ..at_most(K::Count, &[S::TackleBox], 0.0)
    };
    let strapped = Rule {
        held: vec![Fixing::Strap],
        ..at_most(K::Bar, &[S::RodHolder], 0.0)
    };
    let either = |fixing| Gear {
        fixings: vec![fixing],
        ..thing("clamp holder", &[S::RodHolder], [0.2, 0.1, 0.1])
    };
    let huge = Gear {
        ..thing("huge holder", &[S::RodHolder], [4.9, 2.0, 2.0])
    };
    let both = Gear {
        fixings: vec![Fixing::Worn, Fixing::Loose],
        ..worn("either aid", &[S::FoamAid])
    };
    let board = rule(K::Length, &[S::MeasuringBoard], Op::AtLeast, Some(0.6));
    let cases: Vec<(&str, &Survey, Vec<Gear>, Rule)> = vec![
        (
            "pass",
            &hull,
            vec![rod(1), rod(2)],
            at_most(K::Count, &[S::Rod], 2.0),
        ),
        (
            "fail",
            &hull,
            vec![rod(1), rod(2), rod(3)],
            at_most(K::Count, &[S::Rod], 2.0),
        ),
        (
            "unknown",
            &hull,
            vec![
                rod(1),
                Gear {
                    serves: vec![],
                    ..rod(2)
                },
            ],
            at_most(K::Count, &[S::Rod], 1.0),
        ),
        // A holder counts wherever it hangs: one stands on the hull.
        (
            "fail",
            &hull,
            vec![],
            at_most(K::Count, &[S::RodHolder], 0.0),
        ),
        ("pass", &hull, vec![box_(0.27)], large.clone()),
        ("fail", &hull, vec![box_(0.36)], large.clone()),
        ("unknown", &hull, vec![sizeless(S::TackleBox)], large),
        ("pass", &hull, vec![], at_most(K::HullLength, &[], 3.75)),
        ("fail", &hull, vec![], at_most(K::HullLength, &[], 3.6)),
        (
            "unknown",
            &leaflet,
            vec![],
            at_most(K::HullLength, &[], 3.71),
        ),
        ("pass", &hull, vec![], at_most(K::HullBeam, &[], 0.95)),
        ("fail", &hull, vec![], at_most(K::HullBeam, &[], 0.85)),
        (
            "unknown",
            &leaflet,
            vec![],
            at_most(K::HullBeam, &[], 0.901),
        ),
        ("pass", &hull, vec![], at_most(K::FittedMass, &[], 75.0)),
        ("fail", &hull, vec![], at_most(K::FittedMass, &[], 45.0)),
        (
            "unknown",
            &leaflet,
            vec![],
            at_most(K::FittedMass, &[], 50.5),
        ),
        ("pass", &hull, vec![rod(1)], at_most(K::KitMass, &[], 1.0)),
        (
            "fail",
            &hull,
            vec![rod(1), rod(2)],
            at_most(K::KitMass, &[], 1.0),
        ),
        (
            "pass",
            &hull,
            vec![motor(700.0)],
            at_most(K::MotorPower, &[], 750.0),
        ),
        (
            "fail",
            &hull,
            vec![motor(900.0)],
            at_most(K::MotorPower, &[], 750.0),
        ),
        (
            "pass",
            &hull,
            vec![tied(Tether::Sinks)],
            rule(K::Require, &[S::MeasuringBoard], Op::AtMost, None),
        ),
        (
            "fail",
            &hull,
            vec![],
            rule(K::Require, &[S::MeasuringBoard], Op::AtMost, None),
        ),
        (
            "unknown",
            &hull,
            vec![named.clone()],
            rule(K::Require, &[S::Gaff], Op::AtMost, None),
        ),
        (
            "pass",
            &hull,
            vec![worn("aid", &[S::FoamAid])],
            rule(K::Worn, &[S::FoamAid], Op::AtMost, None),
        ),
        // Aboard is not worn.
        (
            "fail",
            &hull,
            vec![thing("aid", &[S::FoamAid], [0.4, 0.3, 0.1])],
            rule(K::Worn, &[S::FoamAid], Op::AtMost, None),
        ),
        (
            "unknown",
            &hull,
            vec![both],
            rule(K::Worn, &[S::FoamAid], Op::AtMost, None),
        ),
        (
            "pass",
            &hull,
            vec![],
            rule(K::Bar, &[S::Gaff], Op::AtMost, None),
        ),
        (
            "fail",
            &hull,
            vec![thing("hook", &[S::Gaff], [0.6, 0.1, 0.1])],
            rule(K::Bar, &[S::Gaff], Op::AtMost, None),
        ),
        (
            "unknown",
            &hull,
            vec![named],
            rule(K::Bar, &[S::Gaff], Op::AtMost, None),
        ),
        ("fail", &hull, vec![either(Fixing::Strap)], strapped.clone()),
        ("pass", &hull, vec![either(Fixing::Loose)], strapped.clone()),
        ("unknown", &hull, vec![huge], strapped),
        (
            "pass",
            &hull,
            vec![],
            rule(K::OneOf, &[S::Camera, S::NetClip], Op::AtMost, None),
        ),
        ("pass", &hull, vec![tied(Tether::Sinks)], board.clone()),
        ("fail", &hull, vec![], board.clone()),
        ("unknown", &hull, vec![sizeless(S::MeasuringBoard)], board),
        (
            "pass",
            &hull,
            vec![thing("riser", &[S::SeatRiser], [0.3, 0.3, 0.03])],
            at_most(K::Height, &[S::SeatRiser], 0.03),
        ),
        (
            "fail",
            &hull,
            vec![thing("riser", &[S::SeatRiser], [0.3, 0.3, 0.05])],
            at_most(K::Height, &[S::SeatRiser], 0.03),
        ),
        (
            "unknown",
            &hull,
            vec![sizeless(S::SeatRiser)],
            at_most(K::Height, &[S::SeatRiser], 0.03),
        ),
        (
            "pass",
            &hull,
            vec![wells(Some([0.4, 0.3, 0.3]))],
            at_most(K::Inside, &[S::LiveWell], 0.06),
        ),
        (
            "fail",
            &hull,
            vec![wells(Some([0.5, 0.4, 0.4]))],
            at_most(K::Inside, &[S::LiveWell], 0.06),
        ),
        (
            "unknown",
            &hull,
            vec![wells(None)],
            at_most(K::Inside, &[S::LiveWell], 0.06),
        ),
        (
            "pass",
            &hull,
            vec![loose(Fixing::Strap)],
            rule(K::Fixed, &[S::Battery], Op::AtMost, None),
        ),
        (
            "fail",
            &hull,
            vec![loose(Fixing::Loose)],
            rule(K::Fixed, &[S::Battery], Op::AtMost, None),
        ),
        (
            "unknown",
            &hull,
            vec![sizeless(S::Battery)],
            rule(K::Fixed, &[S::Battery], Op::AtMost, None),
        ),
        (
            "pass",
            &hull,
            vec![tied(Tether::Tethered)],
            rule(K::Tethered, &[S::MeasuringBoard], Op::AtMost, None),
        ),
        (
            "fail",
            &hull,
            vec![tied(Tether::Sinks)],
            rule(K::Tethered, &[S::MeasuringBoard], Op::AtMost, None),
        ),
        (
            "printed",
            &hull,
            vec![],
            rule(K::Conduct, &[], Op::AtMost, None),
        ),
        // A rule without its limit keeps nobody out and lets nobody pass.
        (
            "unknown",
            &hull,
            vec![],
            rule(K::Count, &[S::Rod], Op::AtMost, None),
        ),
    ];
    for (n, (want, hull, gear, rule)) in cases.iter().enumerate() {
        let (got, words) = comes_out(hull, gear, rule);
        assert_eq!(&got, want, "case {n}, {:?}: {words}", rule.kind);
    }
    for &kind in RuleKind::ALL {
        assert!(
            cases.iter().any(|(.., r)| r.kind == kind),
            "{kind:?} is not tried"
        );
    }
}

#[test]
fn a_broken_rule_says_by_how_much_and_by_what() {
    let hull = taped();
    let rods: Vec<Gear> = (0..9)
        .map(|n| thing(&format!("rod {n}"), &[Serves::Rod], [2.1, 0.1, 0.1]))
        .collect();
    let eight = rule(RuleKind::Count, &[Serves::Rod], Op::AtMost, Some(8.0));
    let (_, words) = comes_out(&hull, &rods, &eight);
    assert!(words.starts_with("9: 1 too much (rod 0, rod 1"), "{words}");
    let long = rule(RuleKind::HullLength, &[], Op::AtMost, Some(3.5));
    let (_, words) = comes_out(&hull, &[], &long);
    assert!(words.contains("0.20") || words.contains("20"), "{words}");
    let set = RuleSet {
        rules: vec![eight, long],
        ..RuleSet::default()
    };
    let asked = carrying(&rods);
    let a = afloat(&hull, &asked);
    assert_eq!(
        told(&check(&Facts::of(&a, &asked, System::Metric), &set)),
        (2, 0)
    );
}

#[test]
fn an_events_rules_rule_out_and_what_nobody_knows_is_said() {
    let hull = taped();
    let mut asked = carrying(&[thing("rod", &[Serves::Rod], [2.1, 0.1, 0.1])]);
    let set = |rule: Rule| {
        Some(Arc::new(RuleSet {
            key: "round".into(),
            name: "the Round".into(),
            rules: vec![Rule {
                text: "a whistle".into(),
                ..rule
            }],
            note: String::new(),
        }))
    };
    let codes = |asked: &Brief| {
        let answer = common::ranking(std::slice::from_ref(&hull), asked, 8);
        let out = answer.ruled_out.iter().flat_map(|r| &r.reasons);
        out.map(|r| (r.code, r.text(System::Metric)))
            .collect::<Vec<_>>()
    };
    let whistle = rule(RuleKind::Require, &[Serves::Whistle], Op::AtMost, None);
    let before = codes(&asked);
    assert!(before.iter().all(|(c, _)| *c != Code::EventRules));
    asked.event = set(whistle.clone());
    let broken = codes(&asked);
    let told = broken.iter().find(|(c, _)| *c == Code::EventRules).unwrap();
    assert_eq!(told.1, "breaks rules of the Round: a whistle");
    // What only costs points keeps nobody out.
    asked.event = set(Rule {
        effect: Effect::Penalty,
        ..whistle
    });
    assert_eq!(codes(&asked), before);
    // What nobody knows is no pass, and is told.
    asked.event = set(rule(RuleKind::Count, &[Serves::Rod], Op::AtMost, None));
    assert_eq!(codes(&asked), before);
    let a = afloat(&hull, &asked);
    assert!(
        unchecked(&a, &asked)
            .iter()
            .any(|u| u.starts_with("not known for the Round"))
    );
    // An event of which no rule is known lets nobody pass unsaid either.
    asked.event = Some(Arc::new(RuleSet::default()));
    assert!(
        unchecked(&a, &asked)
            .iter()
            .any(|u| u.starts_with("no rules of"))
    );
}

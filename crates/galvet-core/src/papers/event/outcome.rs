//! One rule held against a rig on a hull.

use super::Outcome;
use crate::base::{Dimension, Keyed};
use crate::gear::{Electric, Fixing, Gear, Is, Serves, Tether};
use crate::hull::{FittingKind, Measure};
use crate::papers::Facts;
use crate::question::{Op, Rule, RuleKind};
use crate::stow::Stowed;

pub(super) fn outcome(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    match rule.kind {
        RuleKind::Conduct => Outcome::Printed,
        RuleKind::Count => count(facts, rule),
        RuleKind::HullLength => reading(facts, rule, Measure::Length),
        RuleKind::HullBeam => reading(facts, rule, Measure::Beam),
        RuleKind::FittedMass => reading(facts, rule, Measure::FittedWeight),
        RuleKind::KitMass => kit(facts, rule),
        RuleKind::MotorPower => motors(facts, rule),
        RuleKind::Require => require(facts, rule),
        RuleKind::Worn => worn(facts, rule),
        RuleKind::Bar => bar(facts, rule),
        RuleKind::OneOf => one_of(facts, rule),
        RuleKind::Length | RuleKind::Height | RuleKind::Inside => sized(facts, rule),
        RuleKind::Fixed => fixed(facts, rule),
        RuleKind::Tethered => tethered(facts, rule),
    }
}

/// A limit held against what lies for certain between two numbers; `words` tells a number.
fn within(
    rule: &Rule,
    [low, high]: [f64; 2],
    words: impl Fn(f64) -> String,
    settles: &str,
) -> Outcome {
    let Some(limit) = rule.value else {
        return Outcome::Unknown("the rule has no limit: put one in".to_owned());
    };
    let (surely, never) = match rule.op {
        Op::AtMost => (high <= limit + 1e-9, low > limit + 1e-9),
        Op::AtLeast => (low >= limit - 1e-9, high < limit - 1e-9),
    };
    let between = if (high - low).abs() < 1e-9 {
        words(low)
    } else {
        format!("{} to {}", words(low), words(high))
    };
    if surely {
        Outcome::Pass(between)
    } else if never {
        let by = match rule.op {
            Op::AtMost => format!("{} too much", words(low - limit)),
            Op::AtLeast => format!("{} too little", words(limit - high)),
        };
        Outcome::Fail(format!("{between}: {by}"))
    } else {
        Outcome::Unknown(format!("{between}: {settles}"))
    }
}

/// Things a rule is about, surely or perhaps: the thing, how many, whether surely.
fn about<'a>(facts: &Facts<'a>, rule: &Rule) -> Vec<(&'a Gear, u32, bool)> {
    let mut all = Vec::new();
    for (thing, n) in facts.things() {
        let best = rule.of.iter().map(|&s| thing.serves_as(s));
        let best = best.min_by_key(|is| match is {
            Is::Yes => 0,
            Is::Maybe => 1,
            Is::No => 2,
        });
        let sure = match best {
            Some(Is::Yes) => true,
            Some(Is::Maybe) => false,
            _ => continue,
        };
        // Of what size nobody measured it is not known whether it is one of these.
        let sized = |sure: bool| match thing.size {
            _ if rule.from_length.is_none() && rule.to_length.is_none() => Some(sure),
            None => Some(false),
            Some([long, ..]) => {
                let long_enough = rule.from_length.is_none_or(|l| long >= l);
                let short_enough = rule.to_length.is_none_or(|l| long < l);
                (long_enough && short_enough).then_some(sure)
            }
        };
        if let Some(sure) = sized(sure) {
            all.push((thing, n, sure));
        }
    }
    all
}

fn names(all: &[(&Gear, u32, bool)]) -> String {
    let names: Vec<&str> = all.iter().map(|(g, ..)| g.name.as_str()).collect();
    names.join(", ")
}

fn what(rule: &Rule) -> String {
    let words: Vec<&str> = rule.of.iter().map(|s| s.label()).collect();
    words.join(" or ")
}

fn count(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = about(facts, rule);
    let (mut low, mut high) = (0.0, 0.0);
    for (_, n, sure) in &all {
        high += f64::from(*n);
        low += if *sure { f64::from(*n) } else { 0.0 };
    }
    let mut settles = format!("say on the shelf which serve as {}", what(rule));
    if rule.of.contains(&Serves::RodHolder) {
        // A holder counts wherever it hangs: on the hull, on a crate.
        let fittings = facts.hull().fitout.fittings_now();
        let holders = fittings.iter().filter(|f| {
            matches!(
                f.kind,
                FittingKind::RodHolder { .. } | FittingKind::Tube { .. }
            )
        });
        let tubes: u32 = facts
            .things()
            .map(|(g, n)| n * u32::from(g.brings.tubes))
            .sum();
        let more = f64::from(u32::try_from(holders.count()).unwrap_or(u32::MAX)) + f64::from(tubes);
        low += more;
        high += more;
        if fittings.is_empty() {
            // Nobody noted any: there may be some.
            high = f64::INFINITY;
            settles = "count the holders on the hull and put them into its record".to_owned();
        }
    }
    let words = |n: f64| {
        if n.is_finite() {
            format!("{n:.0}")
        } else {
            "more".to_owned()
        }
    };
    let outcome = within(rule, [low, high], words, &settles);
    match outcome {
        Outcome::Fail(said) if !all.is_empty() => {
            Outcome::Fail(format!("{said} ({})", names(&all)))
        }
        other => other,
    }
}

/// A figure of the record, as far off as its source usually is.
fn reading(facts: &Facts<'_>, rule: &Rule, measure: Measure) -> Outcome {
    let Some(best) = facts.hull().best(measure) else {
        return Outcome::Unknown(format!("{} is not on record: measure it", measure.label()));
    };
    let off = if facts.measured(measure) {
        0.0
    } else {
        measure.tolerance(best.value)
    };
    let words = |v: f64| measure.text(facts.system, v);
    let settles = format!("by {}: measure it", best.source.label());
    within(rule, [best.value - off, best.value + off], words, &settles)
}

fn kit(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let kit = facts.rig().kit();
    let rough = facts.rig().lines.iter().any(|l| l.rough);
    let words = |v: f64| facts.system.text(Dimension::Mass, v, 1);
    if rough {
        return Outcome::Unknown(format!("{}: kit by guess, list it", words(kit)));
    }
    within(rule, [kit; 2], words, "weigh it")
}

fn motors(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let watts: f64 = facts
        .things()
        .filter(|(g, _)| g.serves_as(Serves::Motor) == Is::Yes)
        .map(|(g, n)| match g.electric {
            Electric::Draw { watts, .. } => f64::from(n) * watts,
            _ => 0.0,
        })
        .sum();
    if watts == 0.0 && facts.motor() {
        return Outcome::Unknown("the hull's own motor: its power is not on record".to_owned());
    }
    within(
        rule,
        [watts; 2],
        |v| facts.system.text(Dimension::Power, v, 0),
        "read its label",
    )
}

fn require(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = about(facts, rule);
    match all.iter().find(|(.., sure)| *sure) {
        Some((thing, ..)) => Outcome::Pass(thing.name.clone()),
        None if all.is_empty() => Outcome::Fail(format!("no {} on the rig", what(rule))),
        None => Outcome::Unknown(format!(
            "{}: say on the shelf that it serves as {}",
            names(&all),
            what(rule)
        )),
    }
}

fn worn(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = about(facts, rule);
    let only_worn =
        |g: &Gear| !g.fixings.is_empty() && g.fixings.iter().all(|f| *f == Fixing::Worn);
    if let Some((thing, ..)) = all.iter().find(|(g, _, sure)| *sure && only_worn(g)) {
        return Outcome::Pass(format!("{}, worn", thing.name));
    }
    match all.first() {
        None => Outcome::Fail(format!("no {} on the rig", what(rule))),
        // Aboard is not worn.
        Some((thing, _, true)) if !thing.fixings.contains(&Fixing::Worn) => {
            Outcome::Fail(format!("{} is stowed, not worn", thing.name))
        }
        Some((thing, ..)) => Outcome::Unknown(format!(
            "{} may be worn or stowed: say on the shelf",
            thing.name
        )),
    }
}

/// Things of the layout a rule is about, with whether surely.
fn laid<'a>(facts: &Facts<'a>, rule: &Rule) -> Vec<(&'a Stowed, &'a Gear, bool)> {
    let about = about(facts, rule);
    let stowed = facts.layout().stowed.iter();
    stowed
        .filter_map(|s| {
            let thing = facts.thing(s)?;
            let (_, _, sure) = about.iter().find(|(g, ..)| g.key == thing.key)?;
            Some((s, thing, *sure))
        })
        .collect()
}

fn bar(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let none = || Outcome::Pass(format!("no {} so aboard", what(rule)));
    if rule.held.is_empty() {
        let all = about(facts, rule);
        return match all.iter().find(|(.., sure)| *sure) {
            Some((thing, ..)) => Outcome::Fail(format!("{} is on the rig", thing.name)),
            None if all.is_empty() => none(),
            None => Outcome::Unknown(format!(
                "{}: say on the shelf what it serves as",
                names(&all)
            )),
        };
    }
    let all = laid(facts, rule);
    let so = |s: &Stowed| s.lies.as_ref().map(|l| rule.held.contains(&l.fixing));
    if let Some((s, ..)) = all.iter().find(|(s, _, sure)| *sure && so(s) == Some(true)) {
        return Outcome::Fail(format!("{} is held so", s.item));
    }
    if let Some((s, ..)) = all.iter().find(|(s, ..)| so(s) != Some(false)) {
        return Outcome::Unknown(format!("how {} is held: lay the rig out", s.item));
    }
    if all.len() < about(facts, rule).len() {
        return Outcome::Unknown("some found no place: lay the rig out".to_owned());
    }
    none()
}

fn one_of(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let seat = facts.assessment.setup.space().seat;
    let bow = facts.layout().bow;
    let on_it = |s: &&Stowed| {
        let on_track = s.lies.as_ref().is_some_and(|l| l.fixing == Fixing::Track);
        on_track && s.x - bow < seat
    };
    let all: Vec<&Stowed> = laid(facts, rule)
        .into_iter()
        .map(|(s, ..)| s)
        .filter(on_it)
        .collect();
    let names: Vec<&str> = all.iter().map(|s| s.item.as_str()).collect();
    match all.len() {
        0 => Outcome::Pass("none there".to_owned()),
        1 => Outcome::Pass(names.join(", ")),
        n => Outcome::Fail(format!("{n} there: {}", names.join(", "))),
    }
}

/// A size of things: length of the longest, heights together, insides of the largest.
fn sized(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = about(facts, rule);
    if all.is_empty() && facts.brief.raised == 0.0 {
        return match rule.op {
            Op::AtMost => Outcome::Pass(format!("no {}", what(rule))),
            Op::AtLeast => Outcome::Fail(format!("no {} on the rig", what(rule))),
        };
    }
    let of = |g: &Gear| match rule.kind {
        RuleKind::Length => g.size.map(|s| s[0]),
        RuleKind::Height => g.size.map(|s| s[2]),
        _ => g.brings.inside.map(|[l, w, h]| l * w * h),
    };
    let sizes: Option<Vec<f64>> = all
        .iter()
        .map(|(g, n, _)| Some((of(g)?, *n)))
        .map(|s| {
            s.map(|(size, n)| {
                if rule.kind == RuleKind::Height {
                    f64::from(n) * size
                } else {
                    size
                }
            })
        })
        .collect();
    let Some(sizes) = sizes.filter(|_| all.iter().all(|(.., sure)| *sure)) else {
        return Outcome::Unknown(format!(
            "{}: measure it, and put it on the shelf",
            names(&all)
        ));
    };
    let raised = if rule.of.contains(&Serves::SeatRiser) {
        facts.brief.raised
    } else {
        0.0
    };
    let value = match rule.kind {
        RuleKind::Height => sizes.iter().sum::<f64>().max(raised),
        _ => sizes.iter().copied().fold(0.0, f64::max),
    };
    let words = |v: f64| match rule.kind {
        RuleKind::Inside => facts.system.text(Dimension::Volume, v, 0),
        _ => facts.system.text(Dimension::ShortLength, v, 1),
    };
    within(rule, [value; 2], words, "measure it")
}

fn fixed(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = laid(facts, rule);
    if all.is_empty() {
        return match about(facts, rule).first() {
            None => Outcome::Pass(format!("no {} aboard", what(rule))),
            Some((thing, ..)) => {
                Outcome::Unknown(format!("{} found no place: lay the rig out", thing.name))
            }
        };
    }
    let mut unsure = None;
    for (s, ..) in &all {
        match s.lies.as_ref().map(|l| l.fixing) {
            Some(Fixing::Loose) => return Outcome::Fail(format!("{} stands loose", s.item)),
            None => unsure = Some(s.item.clone()),
            Some(_) => {}
        }
    }
    match unsure {
        Some(item) => Outcome::Unknown(format!("how {item} is held: lay the rig out")),
        None => Outcome::Pass("fixed where it lies".to_owned()),
    }
}

fn tethered(facts: &Facts<'_>, rule: &Rule) -> Outcome {
    let all = about(facts, rule);
    let Some((thing, _, sure)) = all.first() else {
        return Outcome::Pass(format!("no {} aboard", what(rule)));
    };
    match thing.tether {
        Tether::Tethered | Tether::Fixed | Tether::ClippedToPerson if *sure => {
            Outcome::Pass(format!("{} is on a line", thing.name))
        }
        Tether::Floats | Tether::Sinks if *sure => Outcome::Fail(format!(
            "{} is on no line: {}",
            thing.name,
            thing.tether.label()
        )),
        _ => Outcome::Unknown(format!(
            "{}: say on the shelf what it serves as",
            thing.name
        )),
    }
}

//! A rule as a line: `rods: count rod at-most 8; no more than eight rods; by a steward`.
//!
//! Before the first semicolon stands what is checked: the rule's word, a colon, the kind,
//! what it is about, and limits. Behind it what is printed, when, and what breaking it does.

use galvet_core::base::{Bare, Bounds, Dimension, Keyed};
use galvet_core::gear::{Fixing, Serves};
use galvet_core::papers::{Effect, Op, Proof, Rule, RuleKind};
use galvet_store::files::event::{LIMIT, PICKS};

/// In what a kind's limit is read: dimension, and what a bare number means.
const fn dimension(kind: RuleKind) -> Dimension {
    match kind {
        RuleKind::HullLength | RuleKind::HullBeam | RuleKind::Length | RuleKind::Height => {
            Dimension::Length
        }
        RuleKind::FittedMass | RuleKind::KitMass => Dimension::Mass,
        RuleKind::Inside => Dimension::Volume,
        RuleKind::MotorPower => Dimension::Power,
        _ => Dimension::Ratio,
    }
}

/// A rule as its line.
#[must_use]
pub(super) fn rule_words(rule: &Rule) -> String {
    let mut head = format!("{}: {}", rule.id, rule.kind.key());
    let keys = |all: Vec<&'static str>| all.join(",");
    if !rule.of.is_empty() {
        head += &format!(" {}", keys(rule.of.iter().map(|s| s.key()).collect()));
    }
    let text = |kind: Dimension, v: f64| exact(kind, v);
    if let Some(value) = rule.value {
        let op = match rule.op {
            Op::AtMost => "at-most",
            Op::AtLeast => "at-least",
        };
        head += &format!(" {op} {}", text(dimension(rule.kind), value));
    }
    if let Some(length) = rule.from_length {
        head += &format!(" from {}", text(Dimension::Length, length));
    }
    if let Some(length) = rule.to_length {
        head += &format!(" below {}", text(Dimension::Length, length));
    }
    if !rule.held.is_empty() {
        head += &format!(
            " held {}",
            keys(rule.held.iter().map(|f| f.key()).collect())
        );
    }
    let mut parts = vec![head];
    if !rule.when.is_empty() {
        parts.push(format!("when {}", rule.when));
    }
    if rule.effect != Effect::default() {
        parts.push(rule.effect.key().to_owned());
    }
    if rule.proof != Proof::default() {
        parts.push(rule.proof.key().to_owned());
    }
    // Its own words stand last, where people go on writing.
    if !rule.text.is_empty() {
        parts.push(rule.text.clone());
    }
    parts.join("; ")
}

/// A figure with its unit, to the last digit: what is shown is read back the same.
fn exact(dimension: Dimension, v: f64) -> String {
    match dimension {
        Dimension::Length => format!("{v}m"),
        Dimension::Mass => format!("{v}kg"),
        Dimension::Volume => format!("{}l", (v * 1e6).round() / 1e3),
        Dimension::Power => format!("{v}W"),
        _ => format!("{v}"),
    }
}

/// Reads a rule's line.
///
/// # Errors
/// What is wrong with it, and what would be accepted.
pub(super) fn read_rule(line: &str) -> Result<Rule, String> {
    let mut parts = line.split(';').map(str::trim);
    let head = parts.next().unwrap_or_default();
    let (id, head) = head.split_once(':').ok_or_else(|| {
        "a rule begins with its word and a colon: rods: count rod at-most 8".to_owned()
    })?;
    let mut words = head.split_whitespace();
    let kind = one::<RuleKind>("kind", words.next().unwrap_or_default())?;
    let mut rule = Rule {
        id: id.trim().to_owned(),
        kind,
        ..Rule::default()
    };
    while let Some(word) = words.next() {
        let mut next = |what: &str| {
            words
                .next()
                .ok_or_else(|| format!("“{word}” without {what}"))
        };
        match word {
            "at-most" | "at-least" => {
                rule.op = if word == "at-most" {
                    Op::AtMost
                } else {
                    Op::AtLeast
                };
                rule.value = Some(figure(next("a limit")?, dimension(kind), LIMIT)?);
            }
            "from" => rule.from_length = Some(figure(next("a length")?, Dimension::Length, PICKS)?),
            "below" => rule.to_length = Some(figure(next("a length")?, Dimension::Length, PICKS)?),
            "held" => {
                let all = next("how")?
                    .split(',')
                    .map(|w| one::<Fixing>("way to hold", w));
                rule.held = all.collect::<Result<_, _>>()?;
            }
            things => {
                let all = things.split(',').map(|w| one::<Serves>("thing", w));
                rule.of.extend(all.collect::<Result<Vec<_>, _>>()?);
            }
        }
    }
    for part in parts.filter(|p| !p.is_empty()) {
        if let Some(when) = part.strip_prefix("when ") {
            rule.when = when.trim().to_owned();
        } else if let Some(effect) = Effect::from_key(part) {
            rule.effect = effect;
        } else if let Some(proof) = Proof::from_key(part) {
            rule.proof = proof;
        } else if rule.text.is_empty() {
            rule.text = part.to_owned();
        } else {
            // A semicolon of the rule's own words.
            rule.text = format!("{}; {part}", rule.text);
        }
    }
    Ok(rule)
}

fn known<T: Keyed>() -> String {
    let keys: Vec<&str> = T::ALL.iter().map(|v| v.key()).collect();
    keys.join(", ")
}

fn one<T: Keyed>(what: &str, word: &str) -> Result<T, String> {
    T::from_key(word).ok_or_else(|| {
        format!(
            "“{word}” is no {what} known here; accepted: {}",
            known::<T>()
        )
    })
}

/// A figure in a rule; a bare one is in m, kg, l, W or a number.
fn figure(text: &str, dimension: Dimension, within: Bounds) -> Result<f64, String> {
    let text = text.trim_end_matches(['W', 'w']);
    let bounds = Bounds::new("the limit", dimension, within.lo, within.hi);
    bounds.parse(text, Bare::SI).map_err(|e| e.to_string())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rule_is_written_and_read_back_the_same() {
        for line in [
            "rods: count rod at-most 8; no more than eight rods aboard",
            "large: count tackle-box at-most 2 from 0.34m; two large boxes",
            "small: count tackle-box at-most 6 below 0.34m",
            "long: hull-length at-most 4.5m",
            "power: motor-power at-most 750W; when fishing it is off",
            "well: inside live-well at-most 60l",
            "tied: bar rod-holder held strap,glue; no holder tied on; steward",
            "board: tethered measuring-board; penalty; photo",
            "aid: worn foam-aid,inflatable-aid",
            "start: conduct; from the ramp; all together; when at six",
            "heavy: fitted-mass at-most 75kg",
        ] {
            let rule = read_rule(line).unwrap_or_else(|e| panic!("{line}: {e}"));
            let again = read_rule(&rule_words(&rule)).unwrap();
            assert_eq!(rule, again, "{line} → {}", rule_words(&rule));
        }
        let rule = read_rule("well: inside live-well at-most 60l").unwrap();
        assert_eq!(rule.value, Some(0.06));
        let rule = read_rule("long: hull-length at-least 12' 4\"");
        assert!(rule.is_err(), "words are parted by spaces");
        let rule = read_rule("long: hull-length at-most 180in").unwrap();
        assert!((rule.value.unwrap() - 4.572).abs() < 1e-9);
    }

    #[test]
    fn what_is_not_understood_is_told_with_what_would_be() {
        let told = |line: &str| read_rule(line).unwrap_err();
        assert!(told("eight rods").contains("its word and a colon"));
        assert!(told("a: counting rod").contains("accepted: count"));
        assert!(told("a: count rods").contains("“rods” is no thing known here"));
        assert!(told("a: count rod at-most").contains("without a limit"));
        assert!(told("a: count rod at-most many").len() > 5);
        assert!(told("a: count rod at-most -3").len() > 5);
    }
}

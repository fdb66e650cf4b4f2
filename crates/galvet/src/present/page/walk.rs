//! The walk along a hull: the plan as it fills, and the zone at hand.

use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::survey::{shown_across, shown_along};
use galvet_core::base::{Finding, Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{Dryness, Opening, Reach, Source, Survey, Zone};
use std::collections::{BTreeMap, HashMap};

/// A zone in the list.
pub struct Stop {
    pub name: String,
    pub measured: bool,
    pub here: bool,
    /// "0.30 to 0.74 m, 41 cm wide".
    pub words: String,
}

/// A field that is typed in.
pub struct Field {
    pub name: &'static str,
    pub label: &'static str,
    pub hint: &'static str,
    pub value: String,
    pub mistake: String,
}

/// A field of words: key, label, chosen.
pub type Words = Vec<(&'static str, &'static str, bool)>;

/// The zone at hand.
pub struct Here {
    pub name: String,
    pub kind: &'static str,
    pub measured: bool,
    /// "guessed from the size", "tape, 2026-11-25".
    pub from: String,
    pub fields: Vec<Field>,
    pub openings: Vec<Field>,
    pub opening: &'static str,
    pub dryness: Words,
    pub reach: Words,
    /// Name, label, answer.
    pub yes_no: Vec<(&'static str, &'static str, &'static str)>,
    pub trouble: String,
}

/// The page.
pub struct WalkView {
    pub key: String,
    pub name: String,
    pub plan: Option<HullPlan>,
    pub stops: Vec<Stop>,
    pub here: Option<Here>,
    /// Zones before and after this one, in the direction of the walk.
    pub before: Option<String>,
    pub after: Option<String>,
    pub measured: usize,
    pub from_stern: bool,
    /// Places of the template she has not.
    pub absent: Vec<String>,
    pub findings: Vec<Finding>,
}

/// What somebody typed that was not taken.
#[derive(Debug, Clone, Default)]
pub struct NotTaken {
    /// Fields as typed; empty where nothing was sent.
    pub typed: HashMap<String, String>,
    /// Mistakes by field.
    pub mistakes: BTreeMap<String, String>,
}

/// Makes the page; `at` names the zone at hand: without it, the first nobody
/// has measured.
#[must_use]
pub fn walk(
    survey: &Survey,
    zones: Vec<Zone>,
    lines: Option<&Lines>,
    at: Option<&str>,
    from_stern: bool,
    not_taken: &NotTaken,
    system: System,
) -> WalkView {
    let count = zones.len();
    let order: Vec<usize> = if from_stern {
        (0..count).rev().collect()
    } else {
        (0..count).collect()
    };
    let open = |i: &usize| zones[*i].source == Source::Guess;
    let named = at.and_then(|name| zones.iter().position(|z| z.name == name));
    let here = named
        .or_else(|| order.iter().copied().find(open))
        .or(order.first().copied());
    let step = here.and_then(|h| order.iter().position(|&i| i == h));
    let name_at = |n: usize| order.get(n).map(|&i| zones[i].name.clone());
    WalkView {
        key: survey.key.clone(),
        name: survey.name(),
        plan: lines.map(|lines| {
            let at_hand = AtHand {
                zone: here,
                fitting: None,
            };
            hull_plan(lines, &zones, &survey.fitout.fittings_now(), at_hand)
        }),
        stops: order
            .iter()
            .map(|&i| Stop {
                name: zones[i].name.clone(),
                measured: zones[i].source != Source::Guess,
                here: here == Some(i),
                words: words(&zones[i], system),
            })
            .collect(),
        here: here.map(|i| zone_at_hand(&zones[i], not_taken, system)),
        before: step.and_then(|n| n.checked_sub(1)).and_then(name_at),
        after: step.and_then(|n| name_at(n + 1)),
        measured: zones.iter().filter(|z| z.source != Source::Guess).count(),
        from_stern,
        absent: survey.looked.absent.clone(),
        findings: survey
            .findings()
            .into_iter()
            .filter(|f| f.contradiction)
            .collect(),
    }
}

fn words(zone: &Zone, system: System) -> String {
    format!(
        "{} to {}, {} wide",
        shown_along(system, zone.from),
        shown_along(system, zone.to),
        shown_across(system, zone.width)
    )
}

fn zone_at_hand(zone: &Zone, not_taken: &NotTaken, system: System) -> Here {
    let sent = !not_taken.typed.is_empty();
    let typed = |name: &str| not_taken.typed.get(name).cloned().unwrap_or_default();
    let field = |name, label, hint, value: Option<String>| Field {
        name,
        label,
        hint,
        value: if sent {
            typed(name)
        } else {
            value.unwrap_or_default()
        },
        mistake: not_taken.mistakes.get(name).cloned().unwrap_or_default(),
    };
    let s = |m: Option<f64>| m.map(|m| shown_across(system, m));
    let (kind, across, along) = match zone.opening {
        None => ("", None, None),
        Some(Opening::Round(d)) => ("round", Some(d), None),
        Some(Opening::Rectangle(l, w)) => ("rectangle", Some(w), Some(l)),
    };
    let opening = match (sent, typed("opening").as_str()) {
        (false, _) => kind,
        (true, "round") => "round",
        (true, "rectangle") => "rectangle",
        (true, _) => "",
    };
    let yes = |name: &'static str, label, now: Option<bool>| {
        let answer = match (sent, typed(name).as_str(), now) {
            (true, "yes", _) | (false, _, Some(true)) => "yes",
            (true, "no", _) | (false, _, Some(false)) => "no",
            _ => "",
        };
        (name, label, answer)
    };
    Here {
        name: zone.name.clone(),
        kind: zone.kind.label(),
        measured: zone.source != Source::Guess,
        from: match (zone.source, zone.date.as_str()) {
            (Source::Guess, _) => "guessed from her length and beam, good to about 15 %".to_owned(),
            (source, "") => source.label().to_owned(),
            (source, date) => format!("{}, {date}", source.label()),
        },
        fields: vec![
            field(
                "from",
                "begins, from the bow",
                "",
                Some(shown_along(system, zone.from)),
            ),
            field(
                "to",
                "ends, from the bow",
                "",
                Some(shown_along(system, zone.to)),
            ),
            field("width", "wide", "", s(Some(zone.width))),
            field(
                "offset",
                "its middle off the centreline",
                "starboard +, port −",
                s(Some(zone.offset)),
            ),
            field("height", "high", "what is usable", s(zone.height)),
            field(
                "height-at-lid",
                "high beneath the lid",
                "",
                s(zone.height_at_lid),
            ),
            field("floor", "its floor above the bottom", "", s(zone.floor)),
        ],
        openings: vec![
            field("along", "opening, along", "", s(along)),
            field("across", "opening, across", "", s(across)),
        ],
        opening,
        dryness: choices::<Dryness>(zone.dryness, sent, &typed("dryness")),
        reach: choices::<Reach>(zone.reach, sent, &typed("reach")),
        yes_no: vec![
            yes("non-slip", "foot hold on its floor", zone.non_slip),
            yes("padded", "padded", zone.padded),
            yes(
                "underside",
                "a nut can be put on from beneath",
                zone.underside_reachable,
            ),
        ],
        trouble: not_taken.mistakes.get("").cloned().unwrap_or_default(),
    }
}

fn choices<T: Keyed>(now: Option<T>, sent: bool, typed: &str) -> Words {
    let chosen = if sent {
        typed
    } else {
        now.map_or("", Keyed::key)
    };
    let all = T::ALL
        .iter()
        .map(|&v| (v.key(), v.label(), v.key() == chosen));
    std::iter::once(("", "nobody looked", chosen.is_empty()))
        .chain(all)
        .collect()
}

//! The walk along a hull: the plan as it fills, and the zone at hand.

use crate::form::{FormView, NotTaken, shown_across, shown_along};
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::present::page::hulls::next::NextStep;
use crate::survey::zone_form;
use galvet_core::base::{Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::Finding;
use galvet_core::hull::{Source, Survey, Zone};

/// A zone in the list.
pub struct Stop {
    pub name: String,
    pub measured: bool,
    pub here: bool,
    /// "0.30 to 0.74 m, 41 cm wide".
    pub words: String,
}

/// The zone at hand.
pub struct Here {
    pub name: String,
    pub kind: &'static str,
    pub measured: bool,
    /// "guessed from the size", "tape, 2026-11-25".
    pub from: String,
    pub form: FormView,
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
    /// Whether the zone at hand is one somebody else says it has not.
    pub anew: bool,
    /// Places of the template it has not.
    pub absent: Vec<String>,
    pub findings: Vec<Finding>,
    /// What would tell most of its now, whatever the place at hand.
    pub next: Vec<NextStep>,
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
                ..AtHand::default()
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
        anew: false,
        absent: survey.looked.absent.clone(),
        next: Vec::new(),
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
    Here {
        name: zone.name.clone(),
        kind: zone.kind.label(),
        measured: zone.source != Source::Guess,
        from: match (zone.source, zone.date.as_str()) {
            (Source::Guess, _) => "guessed from its length and beam, good to about 15 %".to_owned(),
            (source, "") => source.label().to_owned(),
            (source, date) => format!("{}, {date}", source.label()),
        },
        form: zone_form().form(zone, false, not_taken, system),
    }
}

//! Checklists: lines that follow from hull, rig, water and what drives it.

use super::essentials::{Asks, Standing, essentials};
use super::facts::Facts;
use super::lists::{From, List, ROWS};
use super::strip::{Leg, strip};
use super::word::Words;
use crate::hull::Measure;

/// One line to tick.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// Its own word on this list.
    pub id: String,
    /// What to do.
    pub text: String,
    /// Why.
    pub why: String,
    /// What is known of it from record and rig; empty where nothing is.
    pub known: String,
    /// Where it comes from.
    pub from: From,
    /// Whether it is never hidden, ticked singly, red until done.
    pub hard: bool,
    /// Whether something is wrong with it before anybody ticks.
    pub red: bool,
}

/// What on a line of the buying list is read off the hull.
const READ: [(&str, &[Measure]); 4] = [
    ("label", &[Measure::RatedCapacity]),
    ("weight", &[Measure::BareWeight]),
    (
        "body",
        &[
            Measure::Length,
            Measure::Beam,
            Measure::Depth,
            Measure::FloorHeight,
        ],
    ),
    ("seat", &[Measure::SeatLow]),
];

/// The lines of a list.
#[must_use]
pub fn checklist(facts: &Facts<'_>, list: List) -> Vec<Line> {
    let rows = ROWS
        .iter()
        .filter(|r| r.list == list && r.when.holds(facts));
    let mut lines: Vec<Line> = rows
        .map(|r| Line {
            id: r.id.to_owned(),
            text: r.text.to_owned(),
            why: r.why.to_owned(),
            known: known(facts, r.id),
            from: r.when.from(),
            hard: r.hard,
            red: false,
        })
        .collect();
    match list {
        List::Launch => lines.extend(asked(facts)),
        List::Surf => lines.extend(taken_off(facts)),
        _ => {}
    }
    lines
}

/// What the record says of what a line looks at.
fn known(facts: &Facts<'_>, id: &str) -> String {
    let Some((_, measures)) = READ.iter().find(|(of, _)| *of == id) else {
        return String::new();
    };
    let hull = facts.hull();
    let says = measures.iter().map(|&m| match hull.best(m) {
        None => format!("{}: not on record, look", m.label()),
        Some(r) if facts.measured(m) => format!(
            "{}: {} by {}",
            m.label(),
            m.text(facts.system, r.value),
            r.source.label()
        ),
        Some(r) => format!(
            "{}: {} by {}, nobody measured",
            m.label(),
            m.text(facts.system, r.value),
            r.source.label()
        ),
    });
    use crate::base::Keyed;
    says.collect::<Vec<_>>().join("; ")
}

/// Essentials of the water.
fn asked(facts: &Facts<'_>) -> Vec<Line> {
    let all = essentials(facts).into_iter().map(|e| {
        let red = e.is_red();
        let known = match &e.standing {
            Standing::There(what) => format!("on the rig: {what}"),
            Standing::Unsure(what) => {
                format!("not known: “{what}” may be it; say on the shelf what it serves as")
            }
            Standing::Wrong(what, why) => format!("{what}: {why}"),
            Standing::Missing if e.asks == Asks::Barred => "none on the rig".to_owned(),
            Standing::Missing => "not on the rig".to_owned(),
        };
        Line {
            id: format!("essential-{}", e.id),
            text: e.text.to_owned(),
            why: e.why.to_owned(),
            known,
            from: From::Water,
            hard: e.hard,
            red,
        }
    });
    all.collect()
}

/// What comes off for the surf.
fn taken_off(facts: &Facts<'_>) -> Vec<Line> {
    let steps = strip(facts, Leg::Surf).steps;
    let mut words = Words::default();
    let lines = steps.into_iter().map(|off| Line {
        id: words.of("off", &off.item),
        text: format!("{}: {}", off.item, off.goes),
        why: format!("from {}", off.place),
        known: String::new(),
        from: if off.number.is_some() {
            From::Rig
        } else {
            From::Hull
        },
        hard: false,
        red: false,
    });
    lines.collect()
}

//! Moving house: one hull's kit onto others, side by side.

use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::papers::{Goes, Move, Sum, sum};

/// A thing on its way to one hull.
pub struct MoveLine {
    pub item: String,
    pub from: String,
    pub to: String,
    pub goes: &'static str,
    pub class: &'static str,
    pub because: String,
    pub facts: String,
}

/// A candidate.
pub struct Candidate {
    pub key: String,
    pub name: String,
    pub verdict: String,
    pub facts: Vec<(&'static str, String)>,
    pub lines: Vec<MoveLine>,
    pub red: String,
}

const fn class(goes: Goes) -> &'static str {
    match goes {
        Goes::Moves => "goes-moves",
        Goes::Adapter => "goes-adapter",
        Goes::Measure => "goes-measure",
        Goes::Stays => "goes-stays",
        Goes::Sell => "goes-sell",
    }
}

/// Makes one of a hull.
#[must_use]
pub fn candidate((key, name): (&str, &str), moves: &[Move], system: System) -> Candidate {
    let all = sum(moves);
    Candidate {
        key: key.to_owned(),
        name: name.to_owned(),
        verdict: verdict(&all),
        facts: facts(&all, system),
        lines: moves.iter().map(|m| line(m, system)).collect(),
        red: match all.goes[2] {
            0 => String::new(),
            1 => "Of one thing nobody knows whether it fits: measure it first".to_owned(),
            n => format!("Of {n} things nobody knows whether they fit: measure them first"),
        },
    }
}

fn verdict(s: &Sum) -> String {
    let [moves, adapter, measure, stays, sell] = s.goes;
    let mut all = vec![format!("{moves} move as they are")];
    for (n, words) in [
        (adapter, "with an adapter or a change"),
        (measure, "to be measured first"),
        (stays, "stay with the old hull"),
        (sell, "to sell"),
    ] {
        if n > 0 {
            all.push(format!("{n} {words}"));
        }
    }
    all.join(", ")
}

fn facts(s: &Sum, system: System) -> Vec<(&'static str, String)> {
    let money = system.text(Dimension::Money, s.buy.0, 0);
    vec![
        (
            "to buy",
            match s.buy.1 {
                0 => money,
                1 => format!("{money}, and one price nobody knows"),
                n => format!("{money}, and {n} prices nobody knows"),
            },
        ),
        ("holes left", format!("{} to plug, and to tell", s.holes.0)),
        ("holes made", s.holes.1.to_string()),
        ("goes along", system.text(Dimension::Mass, s.mass, 0)),
        ("work", format!("about {:.0}\u{a0}min", s.minutes)),
    ]
}

fn line(m: &Move, system: System) -> MoveLine {
    let mut facts = Vec::new();
    for buy in &m.buy {
        facts.push(match buy.price {
            Some(p) if p > 0.0 => {
                format!("buy {} ({})", buy.item, system.text(Dimension::Money, p, 0))
            }
            Some(_) => format!("{}, owned", buy.item),
            None => format!("buy {} (price not known)", buy.item),
        });
    }
    if m.holes_left > 0 {
        facts.push(format!("leaves {} holes", m.holes_left));
    }
    if m.holes_made > 0 {
        facts.push(format!("makes {} holes", m.holes_made));
    }
    if m.mass > 0.0 {
        facts.push(system.text(Dimension::Mass, m.mass, 1));
    }
    if let (Some(p), Goes::Sell) = (m.price, m.goes) {
        facts.push(format!("new {}", system.text(Dimension::Money, p, 0)));
    }
    if let Some(times) = m.idle {
        facts.push(format!("not used on {times} outings anyway"));
    }
    MoveLine {
        item: if m.count > 1 {
            format!("{} × {}", m.count, m.item)
        } else {
            m.item.clone()
        },
        from: m.from.clone(),
        to: m.to.clone(),
        goes: m.goes.label(),
        class: class(m.goes),
        because: m.because.clone(),
        facts: facts.join(" · "),
    }
}

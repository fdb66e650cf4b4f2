//! The stow board: kit on one hull, what it does to it, what is lost when it goes
//! over, the day, the power.

use super::offer::{Offer, pins_json};
use super::outing::{
    DayCurve, DayLine, LossLine, PowerView, curves, day, day_heads, losses, lost, power, red,
};
use super::work::{WorkView, clash_words, work_view};
use crate::answer::Closeup;
use crate::form::{shown_across, shown_along};
use crate::present::draw::board::{BoardDrawing, board_drawing, shown};
use crate::present::page::hulls::deck::{counted, deck_lines};
use galvet_core::advise::trim::all_pins;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::{Change, Quantity};
use galvet_core::gear::Fixing;
use galvet_core::hull::Pin;
use galvet_core::rank::{explain::area, scale};
use galvet_core::stow::{LEVEL, LegRoom, Loss, Mode};

/// A thing in the list.
pub struct KitLine {
    /// Its number in the drawing.
    pub number: usize,
    pub name: String,
    /// Key and count on the rig, for its form; empty where it cannot be moved.
    pub thing: String,
    pub nth: u32,
    pub place: String,
    /// "strapped · turning round · drifts off".
    pub words: String,
    pub mass: String,
    pub here: bool,
    pub pinned: bool,
    pub packed: bool,
}

/// The thing at hand.
pub struct HandForm {
    pub name: String,
    pub thing: String,
    pub nth: u32,
    /// Places it can be put: name, chosen.
    pub places: Vec<(String, bool)>,
    pub x: String,
    pub y: String,
    pub turned: bool,
    pub pinned: bool,
}

/// A figure with its value.
pub struct BoardFigure {
    pub label: &'static str,
    pub value: String,
    /// Whether it is beyond what is level, dry or in reach.
    pub bad: bool,
}

/// A thing without a place.
pub struct Left {
    pub text: String,
    pub must: bool,
    /// Its line of the rig.
    pub line: usize,
    /// What would give it one: the word it is asked for by, in words, whether it
    /// changes the hull.
    pub remedies: Vec<(String, String, bool)>,
}

/// The page.
pub struct StowView {
    pub rig: String,
    pub drawing: BoardDrawing,
    pub headline: Vec<BoardFigure>,
    pub kit: Vec<KitLine>,
    pub hand: Option<HandForm>,
    pub unplaced: Vec<Left>,
    pub doubts: Vec<String>,
    pub deck: Vec<(&'static str, String)>,
    pub losses: Vec<LossLine>,
    pub lost: String,
    pub red: Vec<String>,
    pub day: Vec<DayLine>,
    /// Names of the figures in it.
    pub day_heads: Vec<&'static str>,
    pub curves: Vec<DayCurve>,
    pub power: Option<PowerView>,
    /// What holding it all takes.
    pub work: WorkView,
    /// What was put by hand and is in the way.
    pub clashes: Vec<String>,
    pub better: Option<Offer>,
    pub seat: String,
    /// How the angler is set up in it.
    pub fit: String,
    pub fit_bad: bool,
    pub paddle: String,
    /// The modes: word, label, shown.
    pub modes: Vec<(&'static str, &'static str, bool)>,
    /// Whether things can be put by hand now.
    pub going: bool,
    /// Everything put by hand, as JSON for the script.
    pub pins: String,
    pub pinned: usize,
    pub trouble: String,
}

fn left(board: &Closeup, system: System) -> Vec<Left> {
    let unplaced = board.setup.loads.layout.unplaced.iter();
    let none = Vec::new();
    let remedies = board.remedies.iter().chain(std::iter::repeat(&none));
    let left = unplaced.zip(remedies).map(|(u, remedies)| Left {
        text: u.text(system),
        must: u.must,
        line: u.line,
        remedies: remedies
            .iter()
            .map(|r| {
                let hull = matches!(r.change, Change::Fit(_));
                (r.key(), r.text(system), hull)
            })
            .collect(),
    });
    left.collect()
}

/// Makes the page; `here` names the thing at hand by key and number.
#[must_use]
pub fn stow(
    board: &Closeup,
    pins: &[Pin],
    here: Option<(&str, u32)>,
    trouble: String,
    system: System,
) -> StowView {
    let layout = &board.setup.loads.layout;
    let posture = board.setup.brief.posture;
    let named = names(board);
    let at_hand = here.and_then(|(thing, nth)| {
        let is =
            |n: &Option<(String, u32)>| n.as_ref().is_some_and(|(t, k)| t == thing && *k == nth);
        named.iter().position(is)
    });
    let kit = kit(board, &named, at_hand, system);
    let (marked, clashes) = clash_words(board, system);
    StowView {
        work: work_view(board, system),
        clashes,
        rig: board.setup.brief.rig.name.clone(),
        drawing: board_drawing(board, at_hand, &marked),
        headline: headline(board, system),
        kit,
        hand: at_hand.and_then(|n| hand(board, n, &named, system)),
        unplaced: left(board, system),
        doubts: doubts(board),
        deck: layout
            .deck
            .as_ref()
            .map_or(Vec::new(), |d| deck_lines(d, system)),
        losses: losses(board, system),
        lost: lost(board, system),
        red: red(board),
        day: day(&board.day, posture, system),
        day_heads: day_heads(posture),
        curves: curves(&board.day, system),
        power: board.power.as_ref().map(|p| power(p, system)),
        better: board.better.as_ref().map(|(pins, trim)| Offer {
            words: format!(
                "moves {}: trim {} then",
                pins.iter()
                    .map(|p| p.thing.replace('-', " "))
                    .collect::<Vec<_>>()
                    .join(", "),
                Quantity::Trim.row().text(system, *trim)
            ),
            pins: pins_json(pins),
        }),
        seat: board.seat.map_or(String::new(), |s| {
            let way = if s.by < 0.0 { "forward" } else { "aft" };
            format!(
                "Seat slid {} {way}: trim {} then, for who can still reach the pedals.",
                shown_across(system, s.by.abs()),
                Quantity::Trim.row().text(system, s.trim)
            )
        }),
        fit: fit_words(board.fit, system),
        fit_bad: matches!(board.fit, LegRoom::TooShort(_) | LegRoom::TooTall(_)),
        paddle: system.text(Dimension::Length, board.paddle, 2),
        modes: Mode::ALL
            .iter()
            .map(|m| (m.key(), m.label(), *m == board.mode))
            .collect(),
        going: board.mode == Mode::UnderWay,
        pins: pins_json(pins),
        pinned: pins.len(),
        trouble,
    }
}

/// Whether legs, seat and braces go together, in words.
fn fit_words(fit: LegRoom, system: System) -> String {
    let by = |m: f64| shown_across(system, m);
    match fit {
        LegRoom::SetUp { apart } => {
            format!("Seat and braces are set {} apart.", by(apart))
        }
        LegRoom::TooShort(m) => format!(
            "Legs are {} too short for its braces, however seat and braces are slid.",
            by(m)
        ),
        LegRoom::TooTall(m) => format!(
            "Legs are {} too long for its braces, however seat and braces are slid.",
            by(m)
        ),
        LegRoom::NotKnown => {
            "Whether legs, seat and braces go together is not known: note seat and foot braces among its fittings."
                .to_owned()
        }
    }
}

/// Key and number of each stowed thing that can be put by hand.
fn names(board: &Closeup) -> Vec<Option<(String, u32)>> {
    let layout = &board.setup.loads.layout;
    let mut out: Vec<Option<(String, u32)>> = Vec::new();
    for stowed in &layout.stowed {
        let thing = board.setup.brief.rig.lines.get(stowed.line);
        let thing = thing
            .and_then(|l| l.thing.as_ref())
            .filter(|_| shown(stowed));
        let name = thing.map(|t| {
            let before = out.iter().flatten().filter(|(key, _)| *key == t.key);
            (t.key.clone(), before.count() as u32)
        });
        out.push(name);
    }
    out
}

fn headline(board: &Closeup, system: System) -> Vec<BoardFigure> {
    let layout = &board.setup.loads.layout;
    // What ranks is told as it is at the hour at which it is worst, as the ranking does.
    let worst = |q: Quantity| {
        let now = std::iter::once(board.figures.get(q));
        let day = board.day.iter().map(|point| point.figures.get(q));
        let all: Option<Vec<f64>> = now.chain(day).collect();
        all.and_then(|all| all.into_iter().reduce(f64::min))
    };
    let figure = |q: Quantity, label, bad: fn(f64) -> bool| {
        let value = match q {
            Quantity::BindingMargin | Quantity::StandingSupport | Quantity::LeanRoom => worst(q),
            _ => board.figures.get(q),
        };
        BoardFigure {
            label,
            value: value.map_or("does not rest".to_owned(), |v| q.row().text(system, v)),
            bad: value.is_none_or(bad),
        }
    };
    let (placed, all) = counted(layout, &board.setup.brief.rig);
    let count = |label, n: usize, bad: bool| BoardFigure {
        label,
        value: n.to_string(),
        bad,
    };
    let brief = &board.setup.brief;
    let (steady, ends, _) = scale(brief, board.setup.guides());
    let tender = worst(steady).is_none_or(|v| v < ends[0]);
    let mut line = vec![
        figure(Quantity::BindingMargin, "margin", |kg| kg < 0.0),
        BoardFigure {
            bad: tender,
            ..figure(steady, steady.row().label, |_| false)
        },
        BoardFigure {
            label: "placed",
            value: format!("{placed} of {all}"),
            bad: placed < all,
        },
        figure(Quantity::Trim, "trim, bow up", |t| {
            !(LEVEL.0..=LEVEL.1).contains(&t)
        }),
        figure(Quantity::List, "list", |l| l.abs() > 1.0),
        figure(Quantity::FloorAboveWater, "floor above water", |z| z < 0.0),
        figure(Quantity::Freeboard, "least freeboard", |z| z < 0.05),
        figure(Quantity::AirDraft, "air draft", |_| false),
    ];
    if let Some(deck) = &layout.deck {
        line.push(count("holes", deck.holes as usize, deck.holes > 0));
        let out = deck.out_of_reach as usize;
        line.push(count("out of reach", out, out > 0));
        line.push(BoardFigure {
            label: "floor clear",
            value: deck
                .standing_floor
                .map_or("none".to_owned(), |m2| area(m2, system)),
            bad: false,
        });
    }
    line
}

/// Whether a line is one of leashes.
fn ties(board: &Closeup, line: usize) -> bool {
    let line = board.setup.brief.rig.lines.get(line);
    let thing = line.and_then(|l| l.thing.as_ref());
    thing.is_some_and(|g| g.brings.tethers > 0 && line.is_some_and(|l| l.within.is_empty()))
}

fn kit(
    board: &Closeup,
    named: &[Option<(String, u32)>],
    here: Option<usize>,
    system: System,
) -> Vec<KitLine> {
    let layout = &board.setup.loads.layout;
    let mut lines: Vec<(f64, KitLine)> = Vec::new();
    for (n, stowed) in layout.stowed.iter().enumerate() {
        let lies = stowed.lies.as_ref();
        let audited = board.audit.things.get(n);
        let mut words = Vec::new();
        if let Some(lies) = lies {
            words.push(lies.fixing.label().to_owned());
            words.push(lies.reach.label().to_owned());
            if lies.holes > 0 {
                words.push(format!("{} holes", lies.holes));
            }
            words.extend(lies.adapter.as_ref().map(|a| format!("with {a}")));
        } else {
            words.push("counted where the rig says".to_owned());
        }
        if let Some(lost) = audited.filter(|a| a.loss != Loss::Stays) {
            words.push(lost.loss.label().to_owned());
        }
        let (thing, nth) = named[n].clone().unwrap_or_default();
        lines.push((
            stowed.x,
            KitLine {
                number: n,
                name: stowed.item.clone(),
                thing,
                nth,
                place: lies.map_or("no place".to_owned(), |l| match &l.within {
                    Some(tied) if ties(board, stowed.line) => format!("tied to the {tied}"),
                    Some(container) => format!("in the {container}"),
                    None => l.zone.clone(),
                }),
                words: words.join(" · "),
                // What is worn weighs with who wears it.
                mass: match lies {
                    Some(l) if l.fixing == Fixing::Worn && stowed.loaded_mass == 0.0 => {
                        "weighed with who wears it".to_owned()
                    }
                    _ => system.text(Dimension::Mass, stowed.loaded_mass, 1),
                },
                here: here == Some(n),
                pinned: lies.is_some_and(|l| l.pinned),
                packed: lies.is_some_and(|l| l.within.is_some()),
            },
        ));
    }
    // Bow to stern, like a walk along it; what is packed after its container.
    lines.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.packed.cmp(&b.1.packed)));
    lines.into_iter().map(|(_, line)| line).collect()
}

fn hand(
    board: &Closeup,
    n: usize,
    named: &[Option<(String, u32)>],
    system: System,
) -> Option<HandForm> {
    let (thing, nth) = named[n].clone()?;
    let stowed = &board.setup.loads.layout.stowed[n];
    let lies = stowed.lies.as_ref()?;
    let bow = board.setup.posterior.form.bow();
    let space = &board.space;
    let areas = space.areas.iter().map(|a| &a.name);
    let rails = space.rails.iter().map(|r| &r.name);
    let sockets = space.sockets.iter().map(|s| &s.name);
    let places = areas.chain(rails).chain(sockets);
    let pin = all_pins(&board.setup);
    let pin = pin.iter().find(|p| p.thing == thing && p.nth == nth);
    Some(HandForm {
        name: stowed.item.clone(),
        places: places.map(|p| (p.clone(), *p == lies.zone)).collect(),
        x: shown_along(system, stowed.x - bow),
        y: shown_across(system, stowed.y),
        turned: pin.is_some_and(|p| p.turned),
        pinned: lies.pinned,
        thing,
        nth,
    })
}

fn doubts(board: &Closeup) -> Vec<String> {
    let layout = &board.setup.loads.layout;
    let said = layout.doubts.iter();
    let mut out: Vec<String> = said
        .map(|(item, d)| format!("{item}: {}", d.text()))
        .collect();
    let unpacked = layout.unpacked.iter();
    out.extend(unpacked.map(|(item, into, why)| format!("{item} lies beside the {into}: {why}")));
    out.dedup();
    out
}

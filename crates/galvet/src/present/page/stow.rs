//! The stow board: kit on one hull, what it does to her, what is lost when she goes
//! over, the day, the power.

use crate::answer::{Board, Point, Power, all_pins};
use crate::present::draw::board::{BoardDrawing, board_drawing, shown};
use crate::survey::{shown_across, shown_along};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::Quantity;
use galvet_core::hull::Pin;
use galvet_core::power::{Bank, BankError, Warning};
use galvet_core::stow::Loss;

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

/// A line of the day.
pub struct DayLine {
    pub label: &'static str,
    pub load: String,
    pub freeboard: String,
    pub trim: String,
    /// Height of the load's bar, of a hundred.
    pub share: f64,
    pub worst: bool,
}

/// What is lost.
pub struct LossLine {
    pub name: String,
    pub loss: &'static str,
    pub wets: bool,
    pub price: String,
}

/// Power in words.
pub struct PowerView {
    pub bank: String,
    pub warnings: Vec<String>,
    pub draws: Vec<String>,
    pub hours: String,
    pub cables: Vec<String>,
}

/// A step that is offered.
pub struct Offer {
    pub words: String,
    /// Pins it sets, as JSON; empty for none.
    pub pins: String,
}

/// The page.
pub struct StowView {
    pub rig: String,
    pub drawing: BoardDrawing,
    pub headline: Vec<BoardFigure>,
    pub kit: Vec<KitLine>,
    pub hand: Option<HandForm>,
    pub unplaced: Vec<(String, bool)>,
    pub doubts: Vec<String>,
    pub deck: Vec<(&'static str, String)>,
    pub losses: Vec<LossLine>,
    pub lost: String,
    pub red: Vec<String>,
    pub day: Vec<DayLine>,
    pub power: Option<PowerView>,
    pub better: Option<Offer>,
    pub seat: String,
    /// Everything put by hand, as JSON for the script.
    pub pins: String,
    pub pinned: usize,
    pub trouble: String,
}

/// Makes the page; `here` names the thing at hand by key and number.
#[must_use]
pub fn stow(
    board: &Board,
    pins: &[Pin],
    here: Option<(&str, u32)>,
    trouble: String,
    system: System,
) -> StowView {
    let layout = &board.setup.loads.layout;
    let named = names(board);
    let at_hand = here.and_then(|(thing, nth)| {
        let is =
            |n: &Option<(String, u32)>| n.as_ref().is_some_and(|(t, k)| t == thing && *k == nth);
        named.iter().position(is)
    });
    let kit = kit(board, &named, at_hand, system);
    let mut labels = vec![0; layout.stowed.len()];
    for (place, line) in kit.iter().enumerate() {
        labels[line.number] = place + 1;
    }
    StowView {
        rig: board.setup.brief.rig.name.clone(),
        drawing: board_drawing(board, at_hand, &labels),
        headline: headline(board, system),
        kit,
        hand: at_hand.and_then(|n| hand(board, n, &named, system)),
        unplaced: layout
            .unplaced
            .iter()
            .map(|u| (u.text(system), u.must))
            .collect(),
        doubts: doubts(board),
        deck: deck(board, system),
        losses: losses(board, system),
        lost: lost(board, system),
        red: red(board),
        day: day(&board.day, system),
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
        pins: pins_json(pins),
        pinned: pins.len(),
        trouble,
    }
}

/// Pins as the script and the forms send them.
#[must_use]
pub fn pins_json(pins: &[Pin]) -> String {
    let all = pins.iter().map(|p| {
        serde_json::json!({
            "thing": p.thing, "nth": p.nth, "place": p.place,
            "x": p.x, "y": p.y, "turned": p.turned,
        })
    });
    serde_json::Value::from_iter(all).to_string()
}

/// Key and number of each stowed thing that can be put by hand.
fn names(board: &Board) -> Vec<Option<(String, u32)>> {
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

fn headline(board: &Board, system: System) -> Vec<BoardFigure> {
    let layout = &board.setup.loads.layout;
    let figure = |q: Quantity, label, bad: fn(f64) -> bool| {
        let value = board.figures.get(q);
        BoardFigure {
            label,
            value: value.map_or("does not rest".to_owned(), |v| q.row().text(system, v)),
            bad: value.is_none_or(bad),
        }
    };
    let placed = layout.stowed.iter().filter(|s| s.lies.is_some()).count();
    let all = placed
        + layout
            .unplaced
            .iter()
            .map(|u| u.count as usize)
            .sum::<usize>();
    let count = |label, n: usize, bad: bool| BoardFigure {
        label,
        value: n.to_string(),
        bad,
    };
    let mut line = vec![
        BoardFigure {
            label: "placed",
            value: format!("{placed} of {all}"),
            bad: placed < all,
        },
        figure(Quantity::Trim, "trim, bow up", |t| {
            !(-0.5..=1.5).contains(&t)
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
    }
    line
}

fn kit(
    board: &Board,
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
                    Some(container) => format!("in the {container}"),
                    None => l.zone.clone(),
                }),
                words: words.join(" · "),
                mass: system.text(Dimension::Mass, stowed.loaded_mass, 1),
                here: here == Some(n),
                pinned: lies.is_some_and(|l| l.pinned),
                packed: lies.is_some_and(|l| l.within.is_some()),
            },
        ));
    }
    // Bow to stern, like a walk along her; what is packed after its container.
    lines.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.packed.cmp(&b.1.packed)));
    lines.into_iter().map(|(_, line)| line).collect()
}

fn hand(
    board: &Board,
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

fn doubts(board: &Board) -> Vec<String> {
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

fn deck(board: &Board, system: System) -> Vec<(&'static str, String)> {
    let Some(d) = &board.setup.loads.layout.deck else {
        return Vec::new();
    };
    let area = |m2: f64| match system {
        System::Metric => format!("{m2:.2}\u{a0}m²"),
        System::Imperial => format!("{:.1}\u{a0}sq\u{a0}ft", m2 * 10.7639),
    };
    let [long, wide] = d.largest_free;
    vec![
        (
            "clear standing floor",
            d.standing_floor.map_or("none".to_owned(), area),
        ),
        ("tank well left", area(d.well_free)),
        (
            "largest free rectangle",
            format!(
                "{} × {}",
                shown_across(system, long),
                shown_across(system, wide)
            ),
        ),
        ("track left", shown_across(system, d.track_left)),
        (
            "boxes, 36 × 22 × 5 cm, that still go in",
            d.boxes.to_string(),
        ),
        ("rods upright", d.rods_upright.to_string()),
        ("rods flat", d.rods_flat.to_string()),
        ("standing up ahead of the seat", d.projections.to_string()),
        ("minutes to set up", format!("{:.0}", d.setup_minutes)),
    ]
}

fn losses(board: &Board, system: System) -> Vec<LossLine> {
    let gone = board.audit.things.iter();
    gone.filter(|t| t.loss != Loss::Stays || t.wets)
        .map(|t| LossLine {
            name: t.item.clone(),
            loss: t.loss.label(),
            wets: t.wets,
            price: t.price.map_or("price not known".to_owned(), |p| {
                system.text(Dimension::Money, p, 0)
            }),
        })
        .collect()
}

fn lost(board: &Board, system: System) -> String {
    let audit = &board.audit;
    let sum = system.text(Dimension::Money, audit.lost, 0);
    let more = match audit.unpriced {
        0 => String::new(),
        1 => ", and one thing whose price is not known".to_owned(),
        n => format!(", and {n} things whose price is not known"),
    };
    format!(
        "{sum} lost or spoilt{more}; {} lines in the water one could hang in",
        audit.lines
    )
}

fn red(board: &Board) -> Vec<String> {
    let audit = &board.audit;
    let mut out = Vec::new();
    if !audit.aid_worn {
        out.push(
            "No flotation aid is worn on this rig. Its only place is on the person.".to_owned(),
        );
    }
    for aid in &audit.aids_stowed {
        out.push(format!("The {aid} is stowed: wear it."));
    }
    for leash in &audit.leashed {
        out.push(format!(
            "{leash} is clipped to the person: never near current or an anchor line."
        ));
    }
    out
}

fn day(points: &[Point], system: System) -> Vec<DayLine> {
    let most = points.iter().map(|p| p.load).fold(1.0, f64::max);
    let lowest = |p: &Point| {
        p.figures
            .get(Quantity::Freeboard)
            .unwrap_or(f64::NEG_INFINITY)
    };
    let worst = points.iter().map(lowest).fold(f64::INFINITY, f64::min);
    let text = |p: &Point, q: Quantity| {
        let value = p.figures.get(q);
        value.map_or("does not rest".to_owned(), |v| q.row().text(system, v))
    };
    points
        .iter()
        .map(|p| DayLine {
            label: p.hour.label(),
            load: system.text(Dimension::Mass, p.load, 0),
            freeboard: text(p, Quantity::Freeboard),
            trim: text(p, Quantity::Trim),
            share: (100.0 * p.load / most).round(),
            worst: lowest(p) <= worst,
        })
        .collect()
}

fn power(power: &Power, system: System) -> PowerView {
    let of_bank = |bank: &Result<Bank, BankError>| match bank {
        Ok(b) => format!(
            "{:.1}\u{a0}V, {:.0}\u{a0}Ah, {:.0}\u{a0}Wh, of which {:.0}\u{a0}Wh can be used",
            b.volts, b.amp_hours, b.energy, b.usable
        ),
        Err(problem) => problem.to_string(),
    };
    let mut warnings = Vec::new();
    let mut warn = |how: &str, bank: &Result<Bank, BankError>| {
        for warning in bank.iter().flat_map(|b| &b.warnings) {
            warnings.push(match warning {
                Warning::SmallestCounts {
                    name,
                    amp_hours,
                    lost,
                } => format!(
                    "{how}: as large as its smallest, {name} with {amp_hours:.0}\u{a0}Ah; {lost:.0}\u{a0}Wh of the others are carried for nothing"
                ),
                Warning::MixedChemistry => {
                    format!("{how}: different chemistries do not suit one charger and cut-off")
                }
                Warning::UnequalInParallel => {
                    format!("{how}: the larger one charges the smaller when they are joined")
                }
            });
        }
    };
    warn("side by side", &power.bank);
    let mut bank = match &power.bank {
        Err(BankError::Empty) => "No battery on this rig.".to_owned(),
        bank => of_bank(bank),
    };
    if let Some(series) = &power.series {
        warn("one after the other", series);
        bank = format!(
            "Side by side: {bank}. One after the other: {}",
            of_bank(series)
        );
    }
    PowerView {
        bank,
        warnings,
        draws: power
            .draws
            .iter()
            .map(|(name, watts, duty, motor)| {
                let kind = if *motor { ", a motor" } else { "" };
                format!(
                    "{name}: {watts:.0}\u{a0}W, {:.0}\u{a0}% of the time{kind}",
                    duty * 100.0
                )
            })
            .collect(),
        hours: power.hours.map_or(String::new(), |h| {
            format!("{h:.0} hours for all but a motor, three tenths kept back")
        }),
        cables: power
            .cables
            .iter()
            .map(|c| {
                format!(
                    "{} → {}: {} with slack",
                    c.from,
                    c.to,
                    system.text(Dimension::Length, c.length, 1)
                )
            })
            .collect(),
    }
}

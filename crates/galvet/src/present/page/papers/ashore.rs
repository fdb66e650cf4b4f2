//! Moving and keeping a hull; from home to fishing and back.

use super::{LineView, Paper, PaperKind, Section, TableView, blank, length, mass, minutes, some};
use galvet_core::base::{Bounds, Dimension};
use galvet_core::papers::{
    Ashore, BARS, Facts, Leg, Lift, MINUTES_OFF, Off, Transport, Words, strip, transport,
};
use galvet_core::question::MustHaves;

const LIFTED: &str = "Guidance. Your own limit stands above it: close to the body, knee to elbow; half at arm's length, off the floor or above the shoulder. Two people by default above 25 kg. Follow the car's roof and tow ratings and the load-marking rules of the road.";

/// A field of the page: name, label, bounds, what is typed where nobody said.
pub struct AshoreField {
    pub name: &'static str,
    pub label: &'static str,
    pub bounds: Bounds,
    pub at: fn(&mut Ashore) -> &mut Option<f64>,
}

/// What the page asks.
#[must_use]
pub fn ashore_asked() -> [AshoreField; 7] {
    let field = |name, label, bounds, at| AshoreField {
        name,
        label,
        bounds,
        at,
    };
    [
        field("limit", "most one person lifts", MustHaves::LIFT, |a| {
            &mut a.limit
        }),
        field(
            "edge",
            "roof bars or tailgate, over the ground",
            Ashore::EDGE,
            |a| &mut a.edge,
        ),
        field("truck", "bed with the flap down", MustHaves::BED, |a| {
            &mut a.bed
        }),
        field("corner", "a corner on the way: wide", Ashore::CORNER, |a| {
            &mut a.corner[0]
        }),
        field("after", "and after it", Ashore::CORNER, |a| {
            &mut a.corner[1]
        }),
        field("steps", "slope of steps, °", Ashore::SLOPE, |a| {
            &mut a.steps
        }),
        field("path", "slope of the cart's path, °", Ashore::SLOPE, |a| {
            &mut a.path
        }),
    ]
}

/// Who it takes, in words.
fn who(lift: Lift) -> String {
    match lift.people {
        1 => "one person".to_owned(),
        2 => "two people".to_owned(),
        n => format!("{n} people, or a cart"),
    }
}

/// How it is moved and kept.
pub(super) fn moving(facts: &Facts<'_>, asked: &Ashore) -> Paper {
    let t = transport(facts, asked);
    let system = facts.system;
    let kg = |v: f64| mass(system, v);
    let lead = format!(
        "Heaviest lift with everything off: {} ({}), {}. Coming home wet: {}, {}.",
        kg(t.heaviest.kg),
        t.heaviest_is,
        who(t.heaviest),
        kg(t.home.kg),
        who(t.home)
    );
    let mut paper = blank(PaperKind::Transport, lead, LIFTED);
    paper.red = refused(facts, &t);
    let lift =
        |name: &str, l: Lift, note: &str| vec![name.to_owned(), kg(l.kg), who(l), note.to_owned()];
    let handles = if t.handles {
        "at its handles on record"
    } else {
        "no handle on record: 2 % from the ends is taken"
    };
    let mut rows = vec![
        lift("all off, the heaviest", t.heaviest, &t.heaviest_is),
        lift(
            "seat and drive on",
            t.fitted,
            "take them off: that is what they weigh",
        ),
        lift("one end of it, bare", t.one_end, handles),
        lift(
            "each of two, the lower on steps",
            t.two,
            "at the end handles",
        ),
        lift(
            "on one side, by one",
            t.side,
            "it balances about its middle; a hull that wide bangs the knee",
        ),
        lift(
            "home: wet, with water and fish, tired",
            t.home,
            "limits count four fifths then",
        ),
    ];
    let onto = t.onto.iter().map(|&(what, edge, load)| {
        let how = format!("{} up, slid over it from the stern", length(system, edge));
        lift(&format!("onto {what}"), load, &how)
    });
    // After one end of it.
    rows.splice(3..3, onto);
    paper.sections = vec![
        Section {
            title: "Lifts".to_owned(),
            words: vec![format!(
                "One person is taken to lift {}{}; two lift two thirds of their sum.",
                kg(t.limit.0),
                if t.limit.1 { "" } else { " (nobody said)" }
            )],
            table: Some(TableView {
                heads: vec!["lift", "at the hands", "takes", "how"],
                rows,
                sum: Vec::new(),
            }),
            ..Section::default()
        },
        Section {
            title: "On the road".to_owned(),
            words: road(facts, &t),
            ..Section::default()
        },
        Section {
            title: "To the water".to_owned(),
            words: to_the_water(facts, &t),
            ..Section::default()
        },
        Section {
            title: "Kept".to_owned(),
            words: kept(facts, &t),
            ..Section::default()
        },
    ];
    paper
}

/// What does not go, in words.
fn refused(facts: &Facts<'_>, t: &Transport) -> String {
    let mut says = Vec::new();
    if let (load, Some(roof)) = t.roof
        && load > roof
    {
        says.push(format!(
            "{} too much for the roof",
            mass(facts.system, load - roof)
        ));
    }
    if let Some((_, false)) = t.bed {
        says.push("its centre lies outside the bed: it tips".to_owned());
    }
    if let Some((longest, false)) = t.corner {
        says.push(format!(
            "round that corner goes {} at most",
            length(facts.system, longest)
        ));
    }
    if let Some(longest) = facts.brief.must.longest
        && facts.size().0 > longest
    {
        says.push(format!(
            "{} too long for the store",
            length(facts.system, facts.size().0 - longest)
        ));
    }
    match says.len() {
        0 => String::new(),
        _ => format!("It does not go: {}.", says.join("; ")),
    }
}

fn road(facts: &Facts<'_>, t: &Transport) -> Vec<String> {
    let system = facts.system;
    let mut says = Vec::new();
    let (load, bears) = t.roof;
    says.push(match bears {
        Some(roof) => format!(
            "Roof: hull, bars and straps {} of {} it bears moving.",
            mass(system, load),
            mass(system, roof)
        ),
        None => format!(
            "Roof: hull, bars and straps {} (bars and straps {}). Hold it against the car's rating for a moving roof, not a parked one.",
            mass(system, load),
            mass(system, BARS)
        ),
    });
    says.push(match t.bed {
        Some((over, inside)) if over > 0.0 => format!(
            "Bed: {} stands over{}. From a metre on it is marked; the law says how.",
            length(system, over),
            if inside {
                ", its centre lies inside"
            } else {
                ", and its centre with it: an extender, or a trailer"
            }
        ),
        Some(_) => "Bed: it lies inside.".to_owned(),
        None => "Bed: say its length above, and what stands over is told.".to_owned(),
    });
    says.push("Trailer: 5 to 10 % of the mass on the hitch; lights, tyres, chain.".to_owned());
    says
}

fn to_the_water(facts: &Facts<'_>, t: &Transport) -> Vec<String> {
    let force = |n: f64| facts.system.text(Dimension::Force, n, 0);
    let mut says = Vec::new();
    match (t.cart, t.drag) {
        (Some(cart), Some(drag)) => {
            says.push(format!(
                "Up from this launch: {} at the bow handle on a cart with its kit, {} dragged with nothing in it. By hand about {} to start and {} to keep up.",
                force(cart), force(drag), force(200.0), force(100.0)
            ));
        }
        _ => says.push(
            "Down steps nothing rolls: it is carried; the lower of two bears more.".to_owned(),
        ),
    }
    if let Some(path) = t.on_the_path {
        says.push(format!(
            "On the path named: {} at the bow handle.",
            force(path)
        ));
    }
    says.push(match &t.cart_is {
        Some((name, Some(place))) => format!("{name}: rides afloat in {place}."),
        Some((name, None)) => format!("{name}: it found no place aboard; hide or lock it ashore."),
        None => "No cart on the rig.".to_owned(),
    });
    says.push(match t.grooved {
        Some(true) => "Its bottom has grooves: bunks along the runners, not across them; pegs only in sound scuppers.".to_owned(),
        Some(false) => "Its bottom is smooth: wide pads, the axle just behind the balance point, a strap over it.".to_owned(),
        None => "Nobody noted its bottom: look before you buy a cart.".to_owned(),
    });
    says.push("Dragged over stones or concrete its keel wears where it is thinnest: stern end first. Lift the stern, or lay a mat.".to_owned());
    says
}

fn kept(facts: &Facts<'_>, t: &Transport) -> Vec<String> {
    let [long, wide, high] = t.store.map(|v| v.map(|m| length(facts.system, m)));
    let say = |v: Option<String>| v.unwrap_or("not known".to_owned());
    let mut says = vec![format!(
        "Room: {} long, {} wide, {} high, without its seat; on edge {} wide.",
        say(long),
        say(wide.clone()),
        say(high.clone()),
        say(high)
    )];
    if let Some((longest, goes)) = t.corner {
        says.push(format!(
            "Round the corner a stiff thing as wide as it goes up to {}: {}.",
            length(facts.system, longest),
            if goes {
                "it goes, level"
            } else {
                "it does not; on edge it may"
            }
        ));
    }
    says.push("Hung in two slings a quarter of its length from either end, never by one handle; under its own weight a hull kept on its bottom dents in summer.".to_owned());
    says
}

/// From home to fishing and back.
pub(super) fn home_to_fishing(facts: &Facts<'_>) -> Paper {
    let off = strip(facts, Leg::Road);
    let about = |m: f64| format!("{} (give or take {:.0} %)", minutes(m), 100.0 * MINUTES_OFF);
    let lead = format!(
        "Strip for the road in about {}; set up again in about {}.",
        about(off.minutes()),
        minutes(off.back())
    );
    let mut paper = blank(
        PaperKind::Strip,
        lead,
        "Guide minutes. Drain open for the road, shut at the ramp; strap rods last; two people above your own limit.",
    );
    let line = |n: usize, s: &Off, id: String, back: bool| LineView {
        id,
        text: s.item.clone(),
        why: if s.after.is_empty() || back {
            format!("from {}", s.place)
        } else {
            format!("after {}", s.after.join(", "))
        },
        facts: vec![
            (
                if back { "to" } else { "goes" },
                if back {
                    s.place.clone()
                } else {
                    s.goes.to_owned()
                },
            ),
            ("about", minutes(if back { s.back } else { s.minutes })),
        ],
        number: (n + 1).to_string(),
        ..LineView::default()
    };
    let mut words = Words::default();
    let strips = off.steps.iter().enumerate();
    let strips: Vec<LineView> = strips
        .map(|(n, s)| line(n, s, words.of("off", &s.item), false))
        .collect();
    let sets = off.steps.iter().rev().enumerate();
    let mut sets: Vec<LineView> = sets
        .map(|(n, s)| line(n, s, words.of("on", &s.item), true))
        .collect();
    let checks = [
        "Screen tried",
        "Everything that floats is tethered",
        "Drain shut, felt with a finger",
        "Cart stowed",
    ];
    sets.extend(checks.iter().enumerate().map(|(n, &text)| LineView {
        id: format!("check-{n}"),
        text: text.to_owned(),
        why: "before it floats".to_owned(),
        hard: text.starts_with("Drain"),
        ..LineView::default()
    }));
    paper.sections = vec![
        Section {
            title: format!("Off for the road: {}", some(strips.len(), "step", "steps")),
            lines: strips,
            ..Section::default()
        },
        Section {
            title: "On again, beside the ramp".to_owned(),
            lines: sets,
            notes: true,
            ..Section::default()
        },
    ];
    paper
}

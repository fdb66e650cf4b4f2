//! The rigging job sheet: what is put on a hull for a rig and its planned modifications,
//! step by step in an order in which nothing comes before what it waits for.

mod planned;

use super::facts::Facts;
use super::fastening::{Chosen, fastening};
use super::trade::{How, Trade};
use super::word::Words;
use crate::gear::{Category, Electric, Fixing, Gear, Is, Serves, Strain};
use crate::hull::Progress;
use crate::stow::{Lies, Sounding, Stowed, sited};
use planned::of_a_modification;

/// What must be settled before the steps that wait for it, in this order: its word, what to
/// do, why.
pub static GATES: [(&str, &str, &str); 6] = [
    (
        "fish-first",
        "Fish it first: everything that needs no hole goes in, and one trip is made with it",
        "half of what is drilled is drilled in the wrong place",
    ),
    (
        "dry-fit",
        "Dry-fit with tape: seat set, person in, pedals, paddle and rods going",
        "knees, strokes and lids decide where a thing can stand",
    ),
    (
        "waterline",
        "Float it with the rig aboard and tape the waterline, all round",
        "no hole below it, nor less than 50 mm above",
    ),
    (
        "beneath",
        "Feel behind each hole: foam, tube, wire? Can a hand get there?",
        "a nut needs a hand beneath",
    ),
    (
        "trial-bag",
        "Try the transducer in a wet bag on the skin",
        "glue is for good; the picture decides",
    ),
    (
        "hose",
        "Hose on every hole for two minutes; open the hull and look",
        "a leak is found ashore or afloat",
    ),
];

/// One step.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// Its own word on this sheet.
    pub id: String,
    /// What is done: the thing's name, or a gate's words.
    pub what: String,
    /// What kind of work it is; `None` for a gate.
    pub trade: Option<Trade>,
    /// How, test, undo, mistake, tools.
    pub how: Option<&'static How>,
    /// Where, by the place's name.
    pub place: String,
    /// Middle from the bow, to starboard of the centreline, and over the floor, m; `None`
    /// for what has none.
    pub at: Option<[f64; 3]>,
    /// How it is held.
    pub held: String,
    /// Holes, each of so many mm.
    pub holes: u16,
    /// Width of a hole, mm; `None` where none is drilled.
    pub hole_mm: Option<f64>,
    /// Torque, N·m.
    pub torque: Option<f64>,
    /// What is not good enough, to be read before it is done; empty where nothing is.
    pub warns: String,
    /// Why it is there.
    pub why: String,
    /// Steps that come before it, by their words.
    pub waits: Vec<String>,
    /// Minutes.
    pub minutes: f64,
    /// Whether it drills, cuts or glues: for later.
    pub later: bool,
    /// Whether it is never to be skipped.
    pub hard: bool,
}

/// The whole sheet.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct JobSheet {
    /// In working order.
    pub steps: Vec<Step>,
}

impl JobSheet {
    /// Minutes of what needs no hole, and of the rest.
    #[must_use]
    pub fn minutes(&self) -> [f64; 2] {
        let of = |later: bool| -> f64 {
            let some = self.steps.iter().filter(|s| s.later == later);
            some.map(|s| s.minutes).sum()
        };
        [of(false), of(true)]
    }

    /// Holes in all.
    #[must_use]
    pub fn holes(&self) -> u32 {
        self.steps.iter().map(|s| u32::from(s.holes)).sum()
    }
}

/// Draws the sheet up.
#[must_use]
pub fn job_sheet(facts: &Facts<'_>) -> JobSheet {
    let mut steps = of_the_rig(facts);
    let planned = facts.hull().fitout.modifications.iter();
    for m in planned.filter(|m| m.progress == Progress::Planned) {
        steps.extend(of_a_modification(facts, m));
    }
    let drills = steps.iter().any(|s| s.later);
    let gate = |&(id, what, why): &(&str, &str, &str)| {
        let glued = steps.iter().any(|s| s.trade == Some(Trade::Glued));
        let needed = match id {
            "fish-first" | "hose" | "waterline" | "beneath" => drills,
            "trial-bag" => glued,
            _ => true,
        };
        needed.then(|| self::gate(id, what, why))
    };
    let gates: Vec<Step> = GATES.iter().filter_map(gate).collect();
    steps.extend(gates);
    steps.extend(wiring(facts));
    if !steps.iter().any(|s| s.trade.is_some()) {
        return JobSheet::default();
    }
    steps.push(Step {
        minutes: 20.0,
        later: drills,
        ..self::gate(
            "written",
            "Weigh it, float it again, and write the modification into its record",
            "the next load is worked out from it",
        )
    });
    JobSheet {
        steps: in_order(steps),
    }
}

fn gate(id: &str, what: &str, why: &str) -> Step {
    Step {
        id: id.to_owned(),
        what: what.to_owned(),
        trade: None,
        how: None,
        place: String::new(),
        at: None,
        held: String::new(),
        holes: 0,
        hole_mm: None,
        torque: None,
        warns: String::new(),
        why: why.to_owned(),
        waits: match id {
            // Floated with what needs no hole, felt beneath once it is known where.
            "beneath" => vec!["dry-fit".to_owned()],
            _ => Vec::new(),
        },
        minutes: match id {
            "fish-first" => 0.0,
            "dry-fit" | "waterline" => 30.0,
            _ => 15.0,
        },
        later: id != "dry-fit",
        hard: matches!(id, "waterline" | "hose"),
    }
}

/// Gates only what makes holes waits for.
const BEFORE_HOLES: [&str; 3] = ["waterline", "beneath", "trial-bag"];

/// The kind of work a stowed thing is.
fn trade_of(gear: &Gear, lies: &Lies, aft: bool, sounding: Option<Sounding>) -> Trade {
    let is = |what| gear.serves_as(what) == Is::Yes;
    if let Some(how) = sounding {
        return match how {
            Sounding::Recess => Trade::InRecess,
            Sounding::Arm | Sounding::Drive => Trade::OnArm,
            Sounding::Inside => Trade::Glued,
            Sounding::Bolted => Trade::ThroughHull,
        };
    }
    let held = matches!(
        lies.fixing,
        Fixing::Drill | Fixing::Glue | Fixing::Plate | Fixing::Insert
    );
    match gear.category {
        _ if is(Serves::Motor) => Trade::Motor,
        _ if gear.energy() > 0.0 => Trade::Battery,
        _ if gear.on_water.outriggers.is_some() => Trade::Outriggers,
        _ if is(Serves::SeatRiser) => Trade::Risers,
        _ if is(Serves::LiveWell) => Trade::LiveWell,
        _ if is(Serves::WhiteLight) || is(Serves::Flag) => Trade::Light,
        _ if is(Serves::Cart) => Trade::Cart,
        _ if is(Serves::Sounder) => Trade::Sounder,
        _ if is(Serves::RodHolder) && !held => Trade::Holder,
        _ if is(Serves::RodHolder) => Trade::FlushHolder,
        Category::Anchoring if lies.holes > 0 && !aft => Trade::Trolley,
        _ if held => Trade::Bolted,
        _ if lies.fixing == Fixing::Track => Trade::Holder,
        _ => Trade::Stowed,
    }
}

/// How a thing is held where it lies, in words.
fn held_words(lies: &Lies) -> String {
    match (&lies.adapter, lies.fixing) {
        (Some(adapter), fixing) => format!("{} on {adapter}", fixing_words(fixing)),
        (None, fixing) => fixing_words(fixing).to_owned(),
    }
}

const fn fixing_words(fixing: Fixing) -> &'static str {
    match fixing {
        Fixing::Worn => "worn",
        Fixing::Holder => "in the holder there",
        Fixing::Insert => "bolt M6 into the moulded inserts, 3 N·m",
        Fixing::Track => "on the track, its bolts hand-tight and a quarter turn",
        Fixing::Plate => "on the plate that can be exchanged",
        Fixing::Strap => "strapped",
        Fixing::Glue => "glued",
        Fixing::Drill => "bolted",
        Fixing::Loose => "stood in its place",
    }
}

/// What a step says of a fastening that is drilled.
fn fasten(step: &mut Step, strain: Strain, chosen: Chosen, known: Option<bool>) {
    step.held = format!(
        "{}; sealant only as a gasket: butyl or peelable marine sealant",
        chosen.fastening.name
    );
    step.hole_mm = chosen.fastening.hole;
    step.torque = chosen.fastening.torque;
    let mut warns = Vec::new();
    if !chosen.holds {
        warns.push(format!(
            "no nut beneath: not for {}. Move it to where a hand gets beneath, or onto a track",
            crate::base::Keyed::label(strain)
        ));
    }
    if known.is_none() {
        warns.push("nobody has felt beneath: look before you drill".to_owned());
    }
    step.warns = warns.join("; ");
}

fn of_the_rig(facts: &Facts<'_>) -> Vec<Step> {
    let setup = &facts.assessment.setup;
    let (layout, space) = (facts.layout(), setup.space());
    let transducers = sited(layout, facts.rig(), &space);
    let (mut steps, mut words) = (Vec::new(), Words::default());
    for (number, stowed) in layout.stowed.iter().enumerate() {
        let (Some(gear), Some(lies)) = (facts.thing(stowed), &stowed.lies) else {
            continue;
        };
        let aboard_by_itself = lies.within.is_none() && lies.fixing != Fixing::Worn;
        if !aboard_by_itself || gear.category == Category::Company {
            continue;
        }
        let sounding = transducers
            .iter()
            .find(|t| t.number == number)
            .map(|t| t.how);
        let aft = stowed.x - layout.bow > space.seat;
        let trade = trade_of(gear, lies, aft, sounding);
        let area = space.areas.iter().find(|a| a.name == lies.zone);
        let beneath = area.and_then(|a| a.underside);
        steps.push(rigged(
            words.of("thing", &stowed.item),
            stowed,
            (gear, lies),
            trade,
            (layout.bow, beneath),
        ));
    }
    if let Some(motor) = steps.iter().find(|s| s.trade == Some(Trade::Motor)) {
        let (id, place) = (motor.id.clone(), motor.place.clone());
        steps.push(Step {
            waits: vec!["dry-fit".to_owned(), id],
            ..plain(
                "steering",
                "steering cable and pedals",
                Trade::Steering,
                &place,
            )
        });
    }
    steps
}

/// A step of a trade of which nothing else is known.
fn plain(id: &str, what: &str, trade: Trade, place: &str) -> Step {
    let how = trade.how();
    Step {
        trade: Some(trade),
        how: Some(how),
        place: place.to_owned(),
        minutes: how.minutes,
        waits: how.waits.iter().map(|&w| w.to_owned()).collect(),
        why: "on the rig".to_owned(),
        later: false,
        hard: false,
        ..gate(id, what, "")
    }
}

fn rigged(
    id: String,
    stowed: &Stowed,
    (gear, lies): (&Gear, &Lies),
    trade: Trade,
    (bow, beneath): (f64, Option<bool>),
) -> Step {
    let mut step = Step {
        at: Some([stowed.x - bow, stowed.y, stowed.above_floor]),
        held: held_words(lies),
        later: lies.holes > 0 || lies.fixing == Fixing::Glue,
        hard: trade == Trade::Motor,
        holes: lies.holes,
        ..plain(&id, &stowed.item, trade, &lies.zone)
    };
    if trade == Trade::Stowed {
        step.minutes = gear.setup_minutes.unwrap_or(step.minutes);
    }
    if lies.holes > 0 {
        let strain = gear.strain;
        fasten(
            &mut step,
            strain,
            fastening(strain, false, beneath),
            beneath,
        );
        step.waits.push("waterline".to_owned());
    } else if !step.later {
        // What needs no hole is in before the first trip.
        step.waits.retain(|w| !BEFORE_HOLES.contains(&w.as_str()));
    }
    if lies.fixing == Fixing::Insert && gear.strain == Strain::Anchor {
        step.warns = "moulded inserts do not take an anchor's pull: a plate beneath".to_owned();
    }
    step
}

/// The wiring, where anything aboard gives electricity.
fn wiring(facts: &Facts<'_>) -> Vec<Step> {
    let draws = facts
        .things()
        .any(|(g, _)| matches!(g.electric, Electric::Draw { .. }));
    if !(facts.battery() && draws) {
        return Vec::new();
    }
    vec![Step {
        waits: vec!["dry-fit".to_owned()],
        ..plain(
            "wiring",
            "cables, glands and fuse, circuit by circuit",
            Trade::Wiring,
            "hull",
        )
    }]
}

/// The turn of a step where nothing else decides.
fn turn(step: &Step) -> u8 {
    match (step.id.as_str(), step.trade) {
        ("dry-fit", _) => 1,
        ("fish-first", _) => 3,
        ("waterline" | "trial-bag", _) => 4,
        ("beneath", _) => 4,
        ("hose", _) => 20,
        ("written", _) => 21,
        (_, Some(trade)) if !step.later => match trade {
            // What needs no hole is in before the first trip.
            Trade::Stowed | Trade::Cart => 1,
            trade => trade.how().turn.min(2),
        },
        (_, Some(trade)) => trade.how().turn,
        (_, None) => 5,
    }
}

/// Whether a step is what a word of the waits means: its own word, or its trade.
fn is_it(step: &Step, word: &str) -> bool {
    let trade = match word {
        "track" => Some(Trade::Track),
        "sounder" => Some(Trade::Sounder),
        "motor" => Some(Trade::Motor),
        _ => None,
    };
    step.id == word || trade.is_some() && step.trade == trade
}

/// Whether a step can be done before what is still to do.
fn is_free(step: &Step, to_do: &[Step]) -> bool {
    let holds_up = |other: &Step| other.id != step.id && step.waits.iter().any(|w| is_it(other, w));
    !to_do.iter().any(holds_up)
}

/// By turn, and nothing before what it waits for; those that wait for each other by turn.
fn in_order(mut to_do: Vec<Step>) -> Vec<Step> {
    to_do.sort_by_key(|s| (turn(s), s.id.clone()));
    let mut done = Vec::with_capacity(to_do.len());
    while !to_do.is_empty() {
        let next = to_do.iter().position(|s| is_free(s, &to_do));
        done.push(to_do.remove(next.unwrap_or(0)));
    }
    done
}

//! Kit on a hull, from above and from the side, on top of its plan.

use super::person::{Figure, figure};
use super::plan::{AtHand, Frame, HullPlan, SCALE, hull_plan};
use super::symbol::{short_name, symbol};
use super::{coordinate, path};
use crate::answer::Closeup;
use galvet_core::gear::Fixing;
use galvet_core::hull::zones;
use galvet_core::load::{Carriage, LoadPlan};
use galvet_core::portrait::{Person, from_above, seated, standing};
use galvet_core::stow::{Layout, Mode, Stowed};

/// A thing in the drawing.
pub struct KitMark {
    /// Which of the layout it is.
    pub number: usize,
    /// Where its name is written.
    pub middle: [String; 2],
    /// Its box from above, and from the side: x, y, width, height.
    pub above: [String; 4],
    pub aside: [String; 4],
    /// What leans in a holder is a line instead.
    pub line_above: Option<String>,
    pub line_aside: Option<String>,
    pub here: bool,
    pub pinned: bool,
    /// Whether it is in the way of something.
    pub clash: bool,
    pub name: String,
    /// Which symbol stands for it, and where the reel of a rod is.
    pub symbol: &'static str,
    pub reels: [[String; 2]; 2],
    /// Its name, where there is room on it; and whether along the hull or across.
    pub text: String,
    pub upright: bool,
}

/// A name beside the plan, with the way to what it names.
pub struct NameMark {
    pub number: usize,
    pub text: String,
    pub x: String,
    pub y: String,
    /// From the name to the thing.
    pub way: String,
}

/// A part of the plan that is kept free.
pub struct KeptMark {
    pub x: String,
    pub y: String,
    pub width: String,
    pub height: String,
    pub why: &'static str,
}

/// The drawing.
pub struct BoardDrawing {
    pub plan: HullPlan,
    pub kept: Vec<KeptMark>,
    pub kit: Vec<KitMark>,
    /// Names of what is too small to be written on.
    pub names: Vec<NameMark>,
    /// The water's surface from the side.
    pub water: Option<String>,
    /// Sides better left clear, from above.
    pub reserves: Vec<KeptMark>,
    /// Everybody aboard, from above and from the side.
    pub people: Vec<Figure>,
    /// How far an arm goes, seated and turning, from above: two lines.
    pub reach: String,
}

/// Things shown: what is packed is inside its container, what is worn on the
/// person.
#[must_use]
pub fn shown(stowed: &Stowed) -> bool {
    let lies = stowed.lies.as_ref();
    lies.is_some_and(|l| l.within.is_none() && l.fixing != Fixing::Worn)
}

/// Draws a board; `here` is the number of the thing at hand.
#[must_use]
pub fn board_drawing(board: &Closeup, here: Option<usize>, clashes: &[usize]) -> BoardDrawing {
    let survey = &board.setup.posterior.survey;
    let bow = board.setup.posterior.form.bow();
    let layout = &board.setup.loads.layout;
    // Rods reach far up: their lines are cut off, the air draft says how far.
    let boxes = layout.stowed.iter().filter(|s| shown(s) && !slender(s));
    let everybody = people(board);
    let heads = everybody.iter().map(|p| p.1.head.1 + p.1.head_radius);
    let kit = board.floor + boxes.map(Stowed::top).fold(0.0, f64::max);
    let tallest = heads.fold(kit, f64::max) + 0.12;
    let hand = AtHand {
        tallest,
        room: ROWS as f64 * LETTER[1] + 6.0,
        ..AtHand::default()
    };
    let (fittings, _) = galvet_core::hull::fittings(survey, board.space.size);
    let plan = hull_plan(&board.lines, &zones(survey), &fittings, hand);
    let frame = plan.frame;
    let kit = layout.stowed.iter().enumerate().filter(|(_, s)| shown(s));
    let at = Drawn {
        length: board.space.size[0],
        half: 0.5 * board.space.size[1],
        bow,
        floor: board.floor,
        tallest,
        frame,
    };
    let kit = kit.map(|(n, stowed)| KitMark {
        clash: clashes.contains(&n),
        ..mark(n, stowed, &at, here == Some(n))
    });
    let mut kit: Vec<KitMark> = kit.collect();
    // What leans lies beneath: whoever takes hold of a crate moves the crate, not a rod in it.
    kit.sort_by_key(|mark| mark.line_above.is_none());
    let kept = board.space.areas.iter().flat_map(|a| &a.kept);
    let kept = kept.filter(|k| k.why != "another place").map(|k| {
        let (x, y) = frame.above(k.from, k.port);
        KeptMark {
            x: coordinate(x),
            y: coordinate(y),
            width: coordinate((k.to - k.from) * SCALE),
            height: coordinate((k.starboard - k.port) * SCALE),
            why: k.why,
        }
    });
    let length = board.space.size[0];
    let half = 0.5 * board.space.size[1];
    let across = |x: f64| path([frame.above(x, -half), frame.above(x, half)], false);
    let arms = galvet_core::stow::Arms::of(&board.space, board.setup.guides());
    let (ahead, _) = arms.span(galvet_core::hull::Reach::Seated);
    let (_, behind) = arms.span(galvet_core::hull::Reach::Turning);
    let reserves = board.space.reserves.iter().map(|r| {
        let (port, starboard) = if r.side > 0.0 {
            (0.55 * half, half)
        } else {
            (-half, -0.55 * half)
        };
        let (x, y) = frame.above(r.from.max(0.0), port);
        KeptMark {
            x: coordinate(x),
            y: coordinate(y),
            width: coordinate((r.to - r.from.max(0.0)) * SCALE),
            height: coordinate((starboard - port) * SCALE),
            why: r.why,
        }
    });
    BoardDrawing {
        people: everybody
            .iter()
            .flat_map(|(above, aside)| {
                let down = figure(above, |(x, y)| frame.above(x, y), SCALE);
                [down, figure(aside, |(x, z)| frame.aside(x, z), SCALE)]
            })
            .collect(),
        reserves: reserves.collect(),
        kept: kept.collect(),
        names: names(layout, &kit, &at),
        kit,
        water: board.water.map(|(fore, aft)| {
            let ends = [frame.aside(0.0, fore), frame.aside(length, aft)];
            path(ends, false)
        }),
        reach: across(ahead.max(0.0)) + &across(behind.min(length)),
        plan,
    }
}

/// Everybody aboard, seen from above and from the side, x from the bow: the angler
/// on the feet where that is what is being done.
fn people(board: &Closeup) -> Vec<(Person, Person)> {
    let loads = &board.setup.loads;
    let shape = board.setup.posterior.middle();
    let bow = board.setup.posterior.form.bow();
    let floor = board.floor;
    let sits = |x: f64, height: f64, stature: f64| {
        let aside = seated((x, floor + height), floor, stature);
        (from_above((x, 0.0), stature), aside)
    };
    let stature = loads.crew().stature();
    let stands = board.setup.brief.posture.stands() && board.mode != Mode::Surf;
    let angler = if stands {
        let x = loads.crew_place(Carriage::AtTheFeet) - bow;
        (
            from_above((x, 0.0), 0.6 * stature),
            standing((x, floor), stature),
        )
    } else {
        let x = loads.crew_place(Carriage::Seated) - bow;
        sits(x, loads.seat_height(&shape), stature)
    };
    let others = loads.company.sat.iter();
    let others = others.map(|s| sits(s.x, LoadPlan::low_seat(&shape), s.who.stature()));
    std::iter::once(angler).chain(others).collect()
}

fn slender(stowed: &Stowed) -> bool {
    let lies = stowed.lies.as_ref();
    lies.is_some_and(|l| l.fixing == Fixing::Holder)
}

/// Where the drawing stands.
struct Drawn {
    length: f64,
    half: f64,
    bow: f64,
    floor: f64,
    tallest: f64,
    frame: Frame,
}

/// Rows of names on either side of the plan.
const ROWS: usize = 2;

/// Names of what has none written on it, beside the plan: what lies to port above it, to
/// starboard below, each as near its thing as the others let it.
fn names(layout: &Layout, kit: &[KitMark], at: &Drawn) -> Vec<NameMark> {
    let mut unnamed: Vec<(&KitMark, &Stowed)> = kit
        .iter()
        .filter(|mark| mark.text.is_empty())
        .filter_map(|mark| Some((mark, layout.stowed.get(mark.number)?)))
        .collect();
    unnamed.sort_by(|a, b| a.1.x.total_cmp(&b.1.x));
    let width = at.frame.above(at.length, 0.0).0;
    let (port, starboard) = (
        at.frame.above(0.0, -at.half).1,
        at.frame.above(0.0, at.half).1,
    );
    let mut ends = [[0.0_f64; ROWS]; 2];
    let mut out = Vec::new();
    for (mark, stowed) in unnamed {
        let text = short_name(&stowed.item).to_owned();
        let long = LETTER[0] * text.chars().count() as f64;
        let (x, y) = at.frame.above(stowed.x - at.bow, stowed.y);
        let side = usize::from(stowed.y >= 0.0);
        let wanted = (x - 0.5 * long).clamp(2.0, (width - long).max(2.0));
        let rows = (0..ROWS).map(|row| (row, wanted.max(ends[side][row])));
        let Some((row, left)) = rows.min_by(|a, b| a.1.total_cmp(&b.1)) else {
            continue;
        };
        // Rather close together than cut off.
        let left = left.min((width - long).max(2.0));
        ends[side][row] = left + long + LETTER[0];
        let off = 12.0 + row as f64 * LETTER[1];
        let (base, foot) = if side == 0 {
            (port - off, port - off + 3.0)
        } else {
            (starboard + off + 8.0, starboard + off - 4.0)
        };
        let middle = left + 0.5 * long;
        out.push(NameMark {
            number: mark.number,
            text,
            x: coordinate(middle),
            y: coordinate(base),
            way: path([(middle, foot), (x, y)], false),
        });
    }
    out
}

/// A letter's width in the drawing, and its height.
const LETTER: [f64; 2] = [7.8, 16.0];

/// A name where there is room for it on a thing of a size, m: along it or across; empty
/// where there is none.
fn written(name: &str, size: [f64; 2]) -> (&str, bool) {
    let [length, width] = size.map(|side| side * SCALE);
    let needed = LETTER[0] * name.chars().count() as f64 + 4.0;
    if needed <= length && LETTER[1] <= width {
        (name, false)
    } else if needed <= width && LETTER[1] <= length {
        (name, true)
    } else {
        ("", false)
    }
}

fn mark(number: usize, stowed: &Stowed, at: &Drawn, here: bool) -> KitMark {
    let Drawn {
        bow,
        floor,
        tallest,
        frame,
        ..
    } = *at;
    let lies = stowed.lies.as_ref();
    let [length, width, height] = lies.map_or([0.1; 3], |l| l.size);
    let base = floor + lies.map_or(stowed.above_floor, |l| l.base);
    let slender = slender(stowed);
    let (x, y) = (stowed.x - bow, stowed.y);
    let rect = |(left, top): (f64, f64), size: [f64; 2]| {
        [left, top, size[0] * SCALE, size[1] * SCALE].map(coordinate)
    };
    let (written, upright) = written(short_name(&stowed.item), [length, width]);
    KitMark {
        number,
        middle: {
            let (x, y) = frame.above(x, y);
            [x, y + 5.0].map(coordinate)
        },
        above: rect(
            frame.above(x - 0.5 * length, y - 0.5 * width),
            [length, width],
        ),
        aside: rect(
            frame.aside(x - 0.5 * length, base + height),
            [length, height],
        ),
        line_above: slender.then(|| path([frame.above(x, y), frame.above(x + length, y)], false)),
        line_aside: slender.then(|| {
            let share = ((tallest - base) / height.max(1e-6)).clamp(0.0, 1.0);
            let tip = frame.aside(x + share * length, base + share * height);
            path([frame.aside(x, base), tip], false)
        }),
        here,
        clash: false,
        pinned: lies.is_some_and(|l| l.pinned),
        name: stowed.item.clone(),
        symbol: symbol(&stowed.item, None),
        reels: {
            let along = |share: f64| x + share * length;
            let up = base + 0.12 * height;
            let (above, aside) = (frame.above(along(0.12), y), frame.aside(along(0.12), up));
            [above, aside].map(|(x, y)| [x, y].map(coordinate))
        },
        text: written.to_owned(),
        upright,
    }
}

//! Kit on a hull, from above and from the side, on top of her plan.

use super::plan::{AtHand, Frame, HullPlan, SCALE, hull_plan};
use super::{coordinate, path};
use crate::answer::Board;
use galvet_core::gear::Fixing;
use galvet_core::hull::zones;
use galvet_core::stow::Stowed;

/// A thing in the drawing.
pub struct KitMark {
    /// Which of the layout it is.
    pub number: usize,
    /// Its place in the list beside, and where that is written.
    pub label: usize,
    pub middle: [String; 2],
    /// Its box from above, and from the side: x, y, width, height.
    pub above: [String; 4],
    pub aside: [String; 4],
    /// What leans in a holder is a line instead.
    pub line_above: Option<String>,
    pub line_aside: Option<String>,
    pub here: bool,
    pub pinned: bool,
    pub name: String,
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
    /// The water's surface from the side.
    pub water: Option<String>,
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

/// Draws a board; `here` is the number of the thing at hand, `labels` has each
/// thing's place in the list.
#[must_use]
pub fn board_drawing(board: &Board, here: Option<usize>, labels: &[usize]) -> BoardDrawing {
    let survey = &board.setup.posterior.survey;
    let bow = board.setup.posterior.form.bow();
    let layout = &board.setup.loads.layout;
    // Rods reach far up: their lines are cut off, the air draft says how far.
    let boxes = layout.stowed.iter().filter(|s| shown(s) && !slender(s));
    let tallest = board.floor + boxes.map(Stowed::top).fold(0.0, f64::max) + 0.12;
    let hand = AtHand {
        tallest,
        ..AtHand::default()
    };
    let (fittings, _) = galvet_core::hull::fittings(survey, board.space.size);
    let plan = hull_plan(&board.lines, &zones(survey), &fittings, hand);
    let frame = plan.frame;
    let kit = layout.stowed.iter().enumerate().filter(|(_, s)| shown(s));
    let at = Drawn {
        bow,
        floor: board.floor,
        tallest,
        frame,
    };
    let kit = kit.map(|(n, stowed)| mark(n, stowed, &at, here == Some(n), labels));
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
    BoardDrawing {
        kept: kept.collect(),
        kit: kit.collect(),
        water: board.water.map(|(fore, aft)| {
            let ends = [frame.aside(0.0, fore), frame.aside(length, aft)];
            path(ends, false)
        }),
        reach: across(ahead.max(0.0)) + &across(behind.min(length)),
        plan,
    }
}

fn slender(stowed: &Stowed) -> bool {
    let lies = stowed.lies.as_ref();
    lies.is_some_and(|l| l.fixing == Fixing::Holder)
}

/// Where the drawing stands.
struct Drawn {
    bow: f64,
    floor: f64,
    tallest: f64,
    frame: Frame,
}

fn mark(number: usize, stowed: &Stowed, at: &Drawn, here: bool, labels: &[usize]) -> KitMark {
    let Drawn {
        bow,
        floor,
        tallest,
        frame,
    } = *at;
    let lies = stowed.lies.as_ref();
    let [length, width, height] = lies.map_or([0.1; 3], |l| l.size);
    let base = floor + lies.map_or(stowed.above_floor, |l| l.base);
    let slender = slender(stowed);
    let (x, y) = (stowed.x - bow, stowed.y);
    let rect = |(left, top): (f64, f64), size: [f64; 2]| {
        [left, top, size[0] * SCALE, size[1] * SCALE].map(coordinate)
    };
    KitMark {
        number,
        label: labels.get(number).copied().unwrap_or_default(),
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
        pinned: lies.is_some_and(|l| l.pinned),
        name: stowed.item.clone(),
    }
}

//! What holding a layout takes, in words: for the bench, and for buying.

use super::offer::{Offer, pins_json};
use crate::answer::Closeup;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::gear::Fixing;
use galvet_core::stow::{Against, Layout, Sited, Work};

/// Fixings and holes.
pub struct WorkView {
    /// "9 strapped, 3 on a track, none drilled".
    pub held: String,
    /// What is done on the hull.
    pub jobs: Vec<String>,
    /// What is bought for it.
    pub buy: Vec<String>,
    /// The layout without a hole, where this one has some.
    pub whole: Option<Offer>,
    /// Transducers, where they look from.
    pub sited: Vec<String>,
}

/// Puts a board's work into words.
#[must_use]
pub fn work_view(board: &Closeup, system: System) -> WorkView {
    let layout = &board.setup.loads.layout;
    WorkView {
        held: held(&board.work),
        jobs: jobs(&board.work),
        buy: buy(&board.work),
        whole: board.whole.as_ref().map(|(pins, other)| Offer {
            words: without_holes(layout, other),
            pins: pins_json(pins),
        }),
        sited: board
            .sited
            .iter()
            .map(|s| sited(s, board, system))
            .collect(),
    }
}

fn held(work: &Work) -> String {
    let mut words: Vec<String> = work
        .held
        .iter()
        .map(|(fixing, n)| format!("{n} {}", fixing.label()))
        .collect();
    if work.sealed == 0 {
        words.push("nothing drilled".to_owned());
    }
    words.join(", ")
}

fn jobs(work: &Work) -> Vec<String> {
    let all = work.jobs.iter().map(|job| {
        if job.fixing == Fixing::Glue {
            return format!(
                "{}: glue a pad at the {}; clean and roughen the skin, and let it cure before it is loaded",
                job.item, job.place
            );
        }
        let fasteners = match job.backed {
            Some(true) => "through-bolts with a backing plate beneath",
            Some(false) => "fasteners that hold from above: no hand gets beneath",
            None => "fasteners that hold from above; look whether a hand gets beneath, a nut holds better",
        };
        format!(
            "{}: {} at the {}, {fasteners}, every hole sealed",
            job.item,
            holes(u32::from(job.holes)),
            job.place
        )
    });
    all.collect()
}

fn holes(n: u32) -> String {
    match n {
        1 => "one hole".to_owned(),
        n => format!("{n} holes"),
    }
}

fn buy(work: &Work) -> Vec<String> {
    let all = [
        (work.bolts, "bolts with washers and locking nuts"),
        (u32::from(work.bolts > 0), "backing plate, cut to fit"),
        (work.from_above, "fasteners that hold from above"),
        (u32::from(work.sealed > 0), "tube of marine sealant"),
        (work.pads, "glue pads"),
        (
            work.track_bolts,
            "track bolts, where the thing has none of its own",
        ),
    ];
    let wanted = all.into_iter().filter(|(n, _)| *n > 0);
    wanted.map(|(n, what)| format!("{n} × {what}")).collect()
}

/// What the layout without a hole loses against this one.
fn without_holes(layout: &Layout, other: &Layout) -> String {
    let short = |l: &Layout| l.deck.as_ref().map_or(0, |d| d.out_of_reach);
    let mut loses: Vec<String> = other
        .unplaced
        .iter()
        .filter(|u| !layout.unplaced.iter().any(|v| v.item == u.item))
        .map(|u| format!("{} finds no place", u.item))
        .collect();
    if short(other) > short(layout) {
        let more = short(other) - short(layout);
        loses.push(format!("{more} more out of reach"));
    }
    if loses.is_empty() {
        "the same things aboard and in reach, held without a hole".to_owned()
    } else {
        format!("without a hole {}", loses.join(", "))
    }
}

fn sited(sited: &Sited, board: &Closeup, system: System) -> String {
    let cable = board.power.as_ref().and_then(|power| {
        let mut to = power.cables.iter();
        to.find(|c| c.to == sited.item || c.from == sited.item)
    });
    let cable = cable.map(|c| system.text(Dimension::Length, c.length, 1));
    let cable = cable.or_else(|| {
        let layout = &board.setup.loads.layout;
        let here = layout.stowed.get(sited.number)?;
        let sounder = layout.stowed.iter().find(|s| s.item.contains("sounder"))?;
        let length = (here.x - sounder.x).abs()
            + (here.y - sounder.y).abs()
            + (here.above_floor - sounder.above_floor).abs()
            + 0.4;
        Some(system.text(Dimension::Length, length, 1))
    });
    let cable = cable.map_or(String::new(), |c| {
        format!("; cable to the sounder about {c}, led over the deck or through a sealed gland, never through a drain")
    });
    let holes = match sited.holes {
        0 => "no hole".to_owned(),
        n => holes(u32::from(n)),
    };
    format!(
        "{}, {} ({}): {}; {}; {}; {holes}{cable}",
        sited.item,
        sited.how.label(),
        sited.place,
        sited.how.view(),
        sited.how.weed(),
        sited.how.beaching()
    )
}

/// What was put in the way of what: the numbers of those marked, and words.
#[must_use]
pub fn clash_words(board: &Closeup, system: System) -> (Vec<usize>, Vec<String>) {
    let layout = &board.setup.loads.layout;
    let name = |n: usize| layout.stowed.get(n).map_or("", |s| s.item.as_str());
    let mut marked = Vec::new();
    let mut said = Vec::new();
    for clash in &board.clashes {
        let item = name(clash.number);
        marked.push(clash.number);
        said.push(match clash.against {
            Against::Thing(other) => {
                marked.push(other);
                format!("{item} and {} take the same room", name(other))
            }
            Against::Kept(why) => format!("{item} lies on what is kept free: {why}"),
            Against::Side(by) => format!(
                "{item} stands {} out over the side",
                system.text(Dimension::ShortLength, by, 0)
            ),
            Against::TooLarge => {
                let lies = layout.stowed.get(clash.number);
                let lies = lies.and_then(|s| s.lies.as_ref());
                let place = lies.map_or("place", |l| l.zone.as_str());
                format!("{item} is larger than the {place}")
            }
            Against::Reserve(why) => format!("{item} stands up on {why}"),
        });
    }
    (marked, said)
}

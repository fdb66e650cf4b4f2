//! What holding a layout takes: fixings by kind, what is drilled and with what it
//! is bolted and sealed, and where a transducer looks from.

use super::layout::{Layout, Lies, Stowed};
use super::space::{SocketKind, Space};
use crate::base::words;
use crate::gear::Fixing;
use crate::rig::Rig;
use std::collections::BTreeMap;

/// One thing that wants work done on the hull before it can be carried.
#[derive(Debug, Clone, PartialEq)]
pub struct Job {
    /// What it is.
    pub item: String,
    /// Where.
    pub place: String,
    /// How it is fixed: drilled or glued.
    pub fixing: Fixing,
    /// Holes through the skin.
    pub holes: u16,
    /// Whether a nut and a backing plate can be put on from beneath; `None` where
    /// nobody looked.
    pub backed: Option<bool>,
}

/// What holding a layout takes.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Work {
    /// Things by how they are held, what is packed in others left out.
    pub held: BTreeMap<Fixing, u32>,
    /// What must be done on the hull.
    pub jobs: Vec<Job>,
    /// Bolts with washer, locking nut and a backing plate.
    pub bolts: u32,
    /// Fasteners that hold from above, where no nut can be put on.
    pub from_above: u32,
    /// Holes to seal.
    pub sealed: u32,
    /// Pads to glue.
    pub pads: u32,
    /// Bolts that slide in a track.
    pub track_bolts: u32,
    /// Straps.
    pub straps: u32,
}

/// Counts what a layout takes.
#[must_use]
pub fn work(layout: &Layout, space: &Space) -> Work {
    let mut work = Work::default();
    for stowed in &layout.stowed {
        let Some(lies) = stowed.lies.as_ref().filter(|l| l.within.is_none()) else {
            continue;
        };
        *work.held.entry(lies.fixing).or_default() += 1;
        match lies.fixing {
            Fixing::Track => work.track_bolts += 1,
            Fixing::Strap => work.straps += 1,
            Fixing::Glue => work.pads += 1,
            _ => {}
        }
        let drilled = lies.holes > 0;
        if !(drilled || lies.fixing == Fixing::Glue) {
            continue;
        }
        let area = space.areas.iter().find(|a| a.name == lies.zone);
        let backed = area.and_then(|a| a.underside);
        let holes = u32::from(lies.holes);
        work.sealed += holes;
        // Where nobody looked, what needs no nut is bought: it holds either way.
        if backed == Some(true) {
            work.bolts += holes;
        } else {
            work.from_above += holes;
        }
        work.jobs.push(Job {
            item: stowed.item.clone(),
            place: lies.zone.clone(),
            fixing: lies.fixing,
            holes: lies.holes,
            backed,
        });
    }
    work
}

words! {
/// How a transducer is put in the water.
pub enum Sounding {
    /// In a recess or scupper of the hull's bottom.
    #[strum(message = "in the hull's recess")]
    Recess,
    /// On an arm over the side.
    #[strum(message = "on an arm over the side")]
    Arm,
    /// Glued inside, sounding through the skin.
    #[strum(message = "glued inside the hull")]
    Inside,
    /// Bolted on.
    #[strum(message = "bolted on")]
    Bolted,
    /// On the drive.
    #[strum(message = "on the drive")]
    Drive,
}
}

impl Sounding {
    /// What it sees.
    #[must_use]
    pub const fn view(self) -> &'static str {
        match self {
            Self::Recess => "looks straight down, clear of the hull",
            Self::Arm => "looks down and to its own side; the hull hides the other",
            Self::Inside => {
                "sounds through the skin: less depth, no water temperature, no side view"
            }
            Self::Bolted => "looks straight down, clear of the hull",
            Self::Drive => "looks down past the blades: noise while they turn",
        }
    }

    /// What weed does to it.
    #[must_use]
    pub const fn weed(self) -> &'static str {
        match self {
            Self::Recess | Self::Inside => "sheds weed",
            Self::Arm => "catches weed: swing it up",
            Self::Bolted => "catches weed under the hull",
            Self::Drive => "catches weed with the drive",
        }
    }

    /// What landing does to it.
    #[must_use]
    pub const fn beaching(self) -> &'static str {
        match self {
            Self::Recess => "safe on a beach where it stands no prouder than its recess",
            Self::Arm => "swing it up before it grounds",
            Self::Inside => "safe on any beach",
            Self::Bolted => "takes the ground first: lift it, do not drag",
            Self::Drive => "lift the drive before it grounds",
        }
    }
}

/// A transducer where it is.
#[derive(Debug, Clone, PartialEq)]
pub struct Sited {
    /// What it is.
    pub item: String,
    /// How.
    pub how: Sounding,
    /// The place's name.
    pub place: String,
    /// Holes it takes.
    pub holes: u16,
    /// Which of the layout it is.
    pub number: usize,
}

/// Where the transducers of a layout are.
#[must_use]
pub fn sited(layout: &Layout, rig: &Rig, space: &Space) -> Vec<Sited> {
    let all = layout.stowed.iter().enumerate();
    all.filter_map(|(number, stowed)| {
        let key = &rig.lines.get(stowed.line)?.thing.as_ref()?.key;
        let lies = stowed
            .lies
            .as_ref()
            .filter(|_| key.starts_with("transducer"))?;
        Some(Sited {
            item: stowed.item.clone(),
            how: sounding(stowed, lies, space),
            place: lies.zone.clone(),
            holes: lies.holes,
            number,
        })
    })
    .collect()
}

fn sounding(stowed: &Stowed, lies: &Lies, space: &Space) -> Sounding {
    let socket = space.sockets.iter().find(|s| s.name == lies.zone);
    let recess = socket.is_some_and(|s| matches!(s.kind, SocketKind::Recess(..)));
    match lies.fixing {
        _ if recess => Sounding::Recess,
        Fixing::Glue => Sounding::Inside,
        Fixing::Drill if stowed.above_floor <= 0.0 => Sounding::Bolted,
        _ if lies.zone == "the drive" => Sounding::Drive,
        _ => Sounding::Arm,
    }
}

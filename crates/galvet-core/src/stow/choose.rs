//! Where a single thing could go, how it would be held there, and what that
//! costs; or why it cannot.

use super::pose::Pose;
use crate::gear::{Fixing, Strain};

/// A place on a hull, or on a container aboard.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Place {
    /// On the person.
    Person,
    /// On the drive.
    Drive,
    /// A socket.
    Socket(usize),
    /// A rail.
    Rail(usize),
    /// A tube of a container: the item that brings it.
    Tube(usize),
    /// On a container's lid: the item that brings it.
    Lid(usize),
    /// An area.
    Area(usize),
}

/// What a choice costs, gravest first: grades of reach short, grades of dryness
/// short, holes, how little it is liked.
pub type Cost = [u32; 4];

/// One way to stow an item.
#[derive(Debug, Clone, PartialEq)]
pub struct Choice {
    /// Where.
    pub place: Place,
    /// How it is held.
    pub fixing: Fixing,
    /// Holes it takes.
    pub holes: u16,
    /// What it costs.
    pub cost: Cost,
    /// Its far end must not lie further from the seat than this, m from the
    /// area's near end.
    pub within: f64,
    /// Whether it stands up where a side is better left clear: of two ways that
    /// cost the same the other is taken.
    pub crowds: bool,
    /// Adapter it sits on: an item of the rig.
    pub adapter: Option<usize>,
    /// Fits only if the guess is short by as much as guesses are.
    pub stretched: bool,
    /// Something is not known of it.
    pub doubt: Option<Doubt>,
}

/// Something that is not known of a place, and is to be measured or looked at.
#[derive(Debug, Clone, PartialEq)]
pub enum Doubt {
    /// A guessed place, named: it may be too small.
    MayNotFit(String),
    /// The mount of a fitting, named, is not known.
    Mount(String),
    /// Whether there is anything to strap to at a place, named.
    Straps(String),
    /// Whether a nut can be put on beneath a place, named.
    Underside(String),
    /// How dry a place, named, stays.
    Dryness(String),
    /// How high a place, named, is, or what passes into it.
    Opening(String),
    /// It is not laid as it was measured: whether it gives, or bears to lie so.
    Laid(Pose),
    /// The thing's own size.
    Size,
}

/// Why an item does not go into a place, with the amount in m where there is one.
#[derive(Debug, Clone, PartialEq)]
pub struct Refusal {
    /// Kind of reason.
    pub code: RefusedBy,
    /// The place's name.
    pub place: String,
    /// What the item needs, m.
    pub needs: f64,
    /// What the place gives, m.
    pub gives: f64,
}

/// Kinds of reasons against a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum RefusedBy {
    /// Too high for it.
    TooHigh,
    /// Too long for it.
    TooLong,
    /// Too wide for it.
    TooLarge,
    /// It does not pass through the opening.
    Opening,
    /// It would be in the paddle's way.
    InTheStroke,
    /// What else is there leaves no room.
    NoRoom,
    /// Nothing there holds it.
    NothingHolds,
    /// Where it is meant to go is not on this hull.
    NotThere,
}

/// What a rung of the ladder can bear (guide: a track holds a strike and an arm, a
/// glued pad only weight).
#[must_use]
pub const fn bears(fixing: Fixing, strain: Strain) -> bool {
    match strain {
        Strain::Light => true,
        Strain::Strike => !matches!(fixing, Fixing::Glue | Fixing::Loose),
        Strain::Boom => matches!(
            fixing,
            Fixing::Insert | Fixing::Track | Fixing::Plate | Fixing::Drill
        ),
        Strain::Anchor => matches!(fixing, Fixing::Insert | Fixing::Plate | Fixing::Drill),
        Strain::Heavy => matches!(
            fixing,
            Fixing::Strap | Fixing::Plate | Fixing::Insert | Fixing::Drill
        ),
    }
}

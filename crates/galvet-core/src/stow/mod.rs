//! Where everything of a rig lies on one hull: the stowing engine.
//!
//! `(Space, Rig, pins) → Layout`: a [`Space`] is what a hull offers as it is set
//! up with who is in it, a [`Layout`] where each thing lies, how it is held, and
//! what could not be placed and why. The load of a hull comes from a [`Layout`]
//! and from nothing else.
//!
//! Things whose size is known are laid into the hull's own places
//! ([`Choice`], `search`, [`pack()`]); what nobody measured lies where the
//! rig says, and is said to be a thing to measure.

mod audit;
mod bulk;
mod choose;
mod chooser;
mod clash;
mod day;
mod deck;
mod demand;
mod engine;
mod fit;
mod floors;
mod free;
mod hold;
mod layout;
mod modes;
mod pack;
mod pins;
mod places;
mod pose;
mod reach;
mod report;
mod search;
mod settle;
mod space;
mod words;
mod work;

pub use audit::{Audit, Audited, Loss, audit};
pub use bulk::Bulk;
pub use choose::{Choice, Cost, Doubt, Place, Refusal, RefusedBy, bears};
pub use clash::{Against, Clash, clashes};
pub use day::Hour;
pub use deck::{Deck, free_area};
pub use engine::{Balance, Demand, Engine, LEVEL, MOST};
pub use fit::{LegRoom, leg_room, paddle_length};
pub use layout::{Layout, Lies, Stowed, Unplaced};
pub use modes::Mode;
pub use pack::{EXACT, Packed, Piece, Rect, Room, pack};
pub use pose::Pose;
pub use reach::Arms;
pub use search::{NODES, WHOLE};
pub use settle::Stead;
pub use space::{Aboard, Area, KeepOut, Rail, Reserve, Socket, SocketKind, Space};
pub use work::{Job, Sited, Sounding, Work, sited, work};

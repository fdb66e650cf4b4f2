//! Papers: what follows from a hull, a rig laid out on it and a question, as work in order.
//! Nobody types a list; every line says why it stands there and where it comes from.
//!
//! Guide values of the handbook's chapter 8. Maker, law and the user's own limit come first.

mod checklist;
mod essentials;
mod event;
mod facts;
mod fastening;
mod job;
mod lists;
mod moving;
mod service;
mod shopping;
mod stock;
mod strip;
mod trade;
mod transport;
mod wiring;
mod word;

pub use crate::question::{Effect, Op, Proof, Rule, RuleKind, RuleSet};
pub use checklist::{Line, checklist};
pub use essentials::{Asks, Essential, Standing, essentials};
pub use event::{Checked, Outcome, check, told};
pub use facts::{Facts, Nine};
pub use fastening::{Chosen, FASTENINGS, Fastening, fastening};
pub use job::{GATES, JobSheet, Step, job_sheet};
pub use lists::{From, List, ROWS, Row, When};
pub use moving::{Buy, Goes, Move, Sum, into_rig, modification, moving, sum};
pub use service::{CARE, Care, due, service};
pub use shopping::{Shopping, Wanted, shopping};
pub use stock::{Back, to_stock};
pub use strip::{Leg, MINUTES_OFF, Off, Strip, strip};
pub use trade::{HOWS, How, Trade};
pub use transport::{
    Ashore, BARS, Lift, ONE_PERSON, TIRED, TWO, Transport, USUAL_EDGES, carried, people, slide,
    transport, turns_within,
};
pub use wiring::{FUSE_OVER_DRAW, FUSE_WITHIN, Wire, lost, wire};
pub use word::Words;

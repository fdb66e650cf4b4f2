//! Hulls: the catalogue, one of them afloat, its figures and how each comes about.

pub mod catalogue;
pub mod check;
pub mod deck;
pub mod derivation;
pub mod figure;
pub mod formula;
pub mod going;
pub mod hull;
pub mod hull_head;
pub mod judged;
pub mod next;
pub mod reckoned;
pub mod turn;
pub mod turned;

//! Where everything of a rig lies on one hull.
//!
//! The load of a hull comes from a [`Layout`] and from nothing else. Today a
//! rig says itself where its lines lie, as fractions of the hull.

use crate::rig::Rig;

/// One thing at its place on a hull. Heights count from the cockpit floor (a
/// board's deck).
#[derive(Debug, Clone, PartialEq)]
pub struct Stowed {
    /// What it is.
    pub item: String,
    /// Mass packed at home, kg, all of the line's together.
    pub dry_mass: f64,
    /// Mass with ice, water, fish or fuel, kg.
    pub loaded_mass: f64,
    /// Its centre from the bow's datum, m.
    pub x: f64,
    /// Its centre to starboard, m.
    pub y: f64,
    /// Its centre above the floor, m.
    pub above_floor: f64,
}

/// A rig laid out on one hull.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Layout {
    /// Everything aboard, in the rig's order.
    pub stowed: Vec<Stowed>,
}

impl Layout {
    /// Lays a rig where its own fractions put it, on a hull whose bow lies at
    /// `bow` m and which is `length` m long.
    #[must_use]
    pub fn by_fractions(rig: &Rig, bow: f64, length: f64) -> Self {
        let stowed = rig
            .lines
            .iter()
            .map(|line| Stowed {
                item: line.item.clone(),
                dry_mass: line.dry(),
                loaded_mass: line.loaded(),
                x: bow + line.place * length,
                y: line.offset,
                above_floor: line.height,
            })
            .collect();
        Self { stowed }
    }

    /// Mass with water and fish, kg.
    #[must_use]
    pub fn loaded(&self) -> f64 {
        self.stowed.iter().map(|s| s.loaded_mass).sum()
    }

    /// Mass of the water, ice and fish in it, kg.
    #[must_use]
    pub fn wet_part(&self) -> f64 {
        self.loaded() - self.stowed.iter().map(|s| s.dry_mass).sum::<f64>()
    }
}

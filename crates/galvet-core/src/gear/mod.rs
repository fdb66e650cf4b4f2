//! The shelf: things that can be carried, belonging to no hull and no rig.

mod on_water;
mod serves;

pub use on_water::{OnWater, Outriggers};
pub use serves::{Is, Serves};

use crate::base::{Bounds, Dimension, OutOfRange, words};
use crate::hull::{Dryness, Reach, ZoneKind};

words! {
/// What a thing is for.
pub enum Category {
    /// Rods, reels, holders.
    Rods,
    /// Tackle and its boxes.
    Tackle,
    /// Crates and other carriers.
    Crates,
    /// Coolers, fish bags, livewells.
    #[strum(message = "fish and bait")]
    Fish,
    /// Sounders, transducers, cameras.
    Electronics,
    /// Batteries.
    Power,
    /// Drives and motors.
    Propulsion,
    /// Anchors, poles, socks.
    Anchoring,
    /// Nets, gaffs, grips, boards.
    Landing,
    /// Cushions, risers, straps.
    Comfort,
    /// What keeps people alive.
    Safety,
    /// Carts, racks, straps for the road.
    Transport,
    /// Who comes along and needs room rather than a seat.
    #[strum(message = "who comes along")]
    Company,
    /// Anything else.
    Other,
}

/// How a thing may be held; a ladder names them best first.
pub enum Fixing {
    /// On the person.
    Worn,
    /// In a holder there.
    Holder,
    /// In a threaded insert.
    Insert,
    /// On a track.
    Track,
    /// On a plate that can be exchanged.
    Plate,
    /// Strapped.
    Strap,
    /// Glued.
    Glue,
    /// Bolted through new holes.
    Drill,
    /// Not at all.
    Loose,
}

/// What becomes of a thing when it goes over.
pub enum Tether {
    /// Floats, and drifts off.
    #[strum(message = "floats but drifts off")]
    Floats,
    /// On a line.
    Tethered,
    /// Fixed.
    Fixed,
    /// Sinks.
    Sinks,
    /// Clipped to the person: flagged near current and anchor lines.
    #[strum(message = "clipped to the person")]
    ClippedToPerson,
}

/// What a thing puts on its fixing, lightest first.
pub enum Strain {
    /// Its own weight.
    #[strum(message = "its own weight")]
    Light,
    /// A fish that strikes while it goes.
    #[strum(message = "a trolling strike")]
    Strike,
    /// An arm that reaches out.
    #[strum(message = "an arm that reaches out")]
    Boom,
    /// What holds it.
    #[strum(message = "an anchor's pull")]
    Anchor,
    /// A mass that must not come loose.
    #[strum(message = "a heavy thing that must not come loose")]
    Heavy,
}

/// Chemistries of a battery.
pub enum Chemistry {
    /// Lithium iron phosphate.
    #[strum(message = "lithium iron phosphate")]
    Lifepo4,
    /// Lead.
    Lead,
    /// Any other.
    Other,
}
}

/// What a thing does with electricity.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum Electric {
    /// Nothing.
    #[default]
    None,
    /// It draws `watts` for a share of the time.
    Draw {
        /// While on, W.
        watts: f64,
        /// Share of the day it is on.
        duty: f64,
        /// What it must be fed with, V; `None` where nobody said.
        volts: Option<f64>,
    },
    /// It gives.
    Battery {
        /// Nominal, V.
        volts: f64,
        /// As printed, Ah.
        amp_hours: f64,
        /// What is in it.
        chemistry: Chemistry,
    },
}

/// What a thing asks of its place.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Needs {
    /// From where it must be reached.
    pub reach: Option<Reach>,
    /// How dry it must lie.
    pub dry: Option<Dryness>,
    /// Must stand upright.
    pub upright: bool,
    /// Nothing may lie over it.
    pub clear_above: bool,
    /// Must see ahead.
    pub view_ahead: bool,
    /// Hangs in the water.
    pub in_the_water: bool,
}

/// What a thing brings for others.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Brings {
    /// Its inside, length, width and height, m; `None` for what is no container.
    pub inside: Option<[f64; 3]>,
    /// Tubes that each take one rod, net or pole upright.
    pub tubes: u16,
    /// Whether others may sit on its lid.
    pub lid: bool,
    /// How dry it keeps what is in it; `None` for not at all.
    pub keeps: Option<Dryness>,
    /// An adapter: the mount it sits on, and the one it offers.
    pub adapts: Option<(String, String)>,
    /// Length of the longest fish it takes, m.
    pub fish: Option<f64>,
    /// A leash: how many things it ties to it. It lies with what it ties and needs
    /// no place.
    pub tethers: u16,
    /// Whether one pulls oneself up by it: a strap, a rail.
    pub helps_up: bool,
}

/// One thing on the shelf. What nobody measured is `None`.
#[derive(Debug, Clone, PartialEq)]
pub struct Gear {
    /// Stable key.
    pub key: String,
    /// Generic name.
    pub name: String,
    /// What it is for.
    pub category: Category,
    /// Mass of one packed at home, kg.
    pub dry_mass: f64,
    /// Mass of one with its ice, water, fish or fuel, kg.
    pub loaded_mass: f64,
    /// Length, width and height, m.
    pub size: Option<[f64; 3]>,
    /// Whether it gives where it is pressed: a bag of cloth or foam.
    pub soft: bool,
    /// Its centre above what it stands on, m.
    pub centre_height: Option<f64>,
    /// How it may be held, best first.
    pub fixings: Vec<Fixing>,
    /// Holes it needs where it is bolted.
    pub holes: u16,
    /// Interface it needs, as the trade names it; empty where any will do.
    pub mount: String,
    /// Zones it likes, best first.
    pub zones: Vec<ZoneKind>,
    /// What it asks of its place.
    pub needs: Needs,
    /// What becomes of it when it goes over.
    pub tether: Tether,
    /// What it does with electricity.
    pub electric: Electric,
    /// What it puts on its fixing.
    pub strain: Strain,
    /// What it brings for others.
    pub brings: Brings,
    /// What it does on the water.
    pub on_water: OnWater,
    /// What it serves as, where lists and rules ask; empty where nobody said.
    pub serves: Vec<Serves>,
    /// Minutes to set up.
    pub setup_minutes: Option<f64>,
    /// Comes off for the road.
    pub comes_off: bool,
    /// Comes off for the surf.
    pub strip_for_surf: bool,
    /// What it costs.
    pub price: Option<f64>,
    /// Owned, or only wanted.
    pub owned: bool,
    /// Anything else.
    pub note: String,
}

impl Gear {
    /// Accepted masses, kg.
    pub const MASS: Bounds = Bounds::new("mass", Dimension::Mass, 0.0, 120.0);
    /// Accepted sizes, m.
    pub const SIZE: Bounds = Bounds::new("size", Dimension::ShortLength, 0.001, 5.0);
    /// Accepted voltages, V.
    pub const VOLTS: Bounds = Bounds::new("battery voltage", Dimension::Ratio, 1.0, 60.0);
    /// Accepted capacities, Ah.
    pub const AMP_HOURS: Bounds = Bounds::new("amp-hours", Dimension::Ratio, 0.1, 1_000.0);
    /// Accepted draws, W.
    pub const WATTS: Bounds = Bounds::new("electrical draw", Dimension::Ratio, 0.0, 5_000.0);
    /// Accepted shares of the time.
    pub const DUTY: Bounds = Bounds::new("share of the time", Dimension::Ratio, 0.0, 1.0);
    /// Accepted minutes.
    pub const MINUTES: Bounds = Bounds::new("minutes to set up", Dimension::Ratio, 0.0, 600.0);
    /// Accepted prices.
    pub const PRICE: Bounds = Bounds::new("price", Dimension::Money, 0.0, 50_000.0);

    /// A thing of which nothing else is known: it weighs the same dry and loaded,
    /// goes anywhere and sinks.
    #[must_use]
    pub fn plain(
        key: &str,
        name: &str,
        category: Category,
        mass: f64,
        size: Option<[f64; 3]>,
    ) -> Self {
        Self {
            key: key.to_owned(),
            name: name.to_owned(),
            category,
            dry_mass: mass,
            loaded_mass: mass,
            size,
            soft: false,
            centre_height: None,
            fixings: Vec::new(),
            holes: 0,
            mount: String::new(),
            zones: Vec::new(),
            needs: Needs::default(),
            tether: Tether::Sinks,
            electric: Electric::None,
            strain: Strain::Light,
            brings: Brings::default(),
            on_water: OnWater::default(),
            serves: Vec::new(),
            setup_minutes: None,
            comes_off: false,
            strip_for_surf: false,
            price: None,
            owned: true,
            note: String::new(),
        }
    }

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met; also when it is lighter loaded than dry.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::MASS.check(self.dry_mass)?;
        Bounds::new("loaded mass", Dimension::Mass, self.dry_mass, Self::MASS.hi)
            .check(self.loaded_mass)?;
        for size in self.size.iter().flatten().chain(&self.centre_height) {
            Self::SIZE.check(*size)?;
        }
        let inside = self.brings.inside.iter().flatten();
        for size in inside.chain(&self.brings.fish) {
            Self::SIZE.check(*size)?;
        }
        self.on_water.check()?;
        match self.electric {
            Electric::None => {}
            Electric::Draw { watts, duty, volts } => {
                if let Some(volts) = volts {
                    Self::VOLTS.check(volts)?;
                }
                Self::WATTS.check(watts)?;
                Self::DUTY.check(duty)?;
            }
            Electric::Battery {
                volts, amp_hours, ..
            } => {
                Self::VOLTS.check(volts)?;
                Self::AMP_HOURS.check(amp_hours)?;
            }
        }
        if let Some(minutes) = self.setup_minutes {
            Self::MINUTES.check(minutes)?;
        }
        if let Some(price) = self.price {
            Self::PRICE.check(price)?;
        }
        Ok(self)
    }

    /// Whether it is a flotation aid: its place is on the person.
    #[must_use]
    pub fn is_flotation_aid(&self) -> bool {
        let aids = [Serves::FoamAid, Serves::InflatableAid, Serves::ChildAid];
        self.key.starts_with("flotation-aid") || self.serves.iter().any(|s| aids.contains(s))
    }

    /// Whether it may lie on another side: nothing says it must stand, nothing is in
    /// it that would run out or fall over, and it feeds nothing.
    #[must_use]
    pub fn may_lie_otherwise(&self) -> bool {
        let holds = self.brings.inside.is_some() || self.brings.fish.is_some();
        let empty = !holds && self.loaded_mass <= self.dry_mass;
        let dead = matches!(self.electric, Electric::None);
        empty && dead && !self.needs.upright && self.centre_height.is_none()
    }

    /// What is in it, where it is a battery.
    #[must_use]
    pub fn chemistry(&self) -> Option<Chemistry> {
        match self.electric {
            Electric::Battery { chemistry, .. } => Some(chemistry),
            _ => None,
        }
    }

    /// Energy one of it brings, Wh as printed; 0 for what is no battery.
    #[must_use]
    pub fn energy(&self) -> f64 {
        match self.electric {
            Electric::Battery {
                volts, amp_hours, ..
            } => volts * amp_hours,
            _ => 0.0,
        }
    }
}

//! Who comes along: another adult, a child, a dog.
//!
//! People need a seat each; a dog needs room to lie, which the stowing engine
//! finds like any other room. All of them move, and no righting arm they use up
//! is left for the angler: see [`Company::live_moment`].

use super::angler::Crew;
use crate::base::{Bounds, Dimension, OutOfRange, words};
use crate::gear::{Category, Fixing, Gear, Needs};
use crate::guide::{Guide, Guides};
use crate::hull::{FittingKind, Measure, Survey, ZoneKind};
use crate::rig::RigLine;
use std::sync::Arc;

words! {
/// Who it is that comes along.
pub enum Kin {
    /// Another grown person, seated.
    Adult,
    /// A child, in a seat of its own and an aid of its own size.
    Child,
    /// A dog.
    Dog,
}
}

impl Kin {
    /// Accepted masses, kg.
    #[must_use]
    pub const fn masses(self) -> Bounds {
        let (lo, hi) = match self {
            Self::Adult => (30.0, 200.0),
            Self::Child => (8.0, 60.0),
            Self::Dog => (2.0, 90.0),
        };
        Bounds::new("the weight of who comes along", Dimension::Mass, lo, hi)
    }

    /// The stature where nobody said, m; a dog has none.
    #[must_use]
    pub const fn usual_stature(self) -> f64 {
        match self {
            Self::Adult => 1.75,
            Self::Child | Self::Dog => 1.25,
        }
    }
}

/// Somebody who comes along.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Companion {
    kin: Kin,
    mass: f64,
    stature: f64,
}

impl Companion {
    /// Accepted statures, m.
    pub const STATURE: Bounds =
        Bounds::new("the height of who comes along", Dimension::Length, 0.7, 2.3);
    /// Most who may come along: a kayak has at most four seats.
    pub const MOST: usize = 4;

    /// Somebody of `mass` kg (undressed) and `stature` m.
    ///
    /// # Errors
    /// [`OutOfRange`] for either.
    pub fn new(kin: Kin, mass: f64, stature: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            kin,
            mass: kin.masses().check(mass)?,
            stature: Self::STATURE.check(stature)?,
        })
    }

    /// Who it is.
    #[must_use]
    pub const fn kin(&self) -> Kin {
        self.kin
    }

    /// Body mass, kg.
    #[must_use]
    pub const fn mass(&self) -> f64 {
        self.mass
    }

    /// Stature, m.
    #[must_use]
    pub const fn stature(&self) -> f64 {
        self.stature
    }

    /// Whether a seat is needed.
    #[must_use]
    pub const fn sits(&self) -> bool {
        !matches!(self.kin, Kin::Dog)
    }

    /// Mass as it sits in the boat, kg: people dressed as the angler is.
    #[must_use]
    pub fn dressed_mass(&self, guides: &Guides) -> f64 {
        let extra = if self.sits() {
            guides[Guide::DressedExtra]
        } else {
            0.0
        };
        self.mass + extra
    }

    /// How far its weight may go to one side, m.
    fn sway(&self, guides: &Guides) -> f64 {
        guides[match self.kin {
            Kin::Adult => Guide::AdultSway,
            Kin::Child => Guide::ChildSway,
            Kin::Dog => Guide::DogSway,
        }]
    }

    /// A dog as a line of the rig: it must come, and lies loose where there is
    /// room for it. Its plan grows with the square of a length, its mass with
    /// the cube: 0.65 × 0.45 m for 20 kg (guide).
    #[must_use]
    pub fn line(&self) -> RigLine {
        let scale = (self.mass / 20.0).cbrt();
        let size = [0.65 * scale, 0.45 * scale, 0.45 * scale];
        let thing = Gear {
            centre_height: Some(0.5 * size[2]),
            fixings: vec![Fixing::Loose],
            zones: vec![
                ZoneKind::TankWell,
                ZoneKind::CockpitFloor,
                ZoneKind::BowDeck,
            ],
            needs: Needs::default(),
            ..Gear::plain("dog", "dog", Category::Company, self.mass, Some(size))
        };
        RigLine {
            thing: Some(Arc::new(thing)),
            ..RigLine::plain("dog", self.mass)
        }
    }
}

/// Somebody in a seat beside the angler's own.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sat {
    /// Who.
    pub who: Companion,
    /// The seat's place from the bow, m.
    pub x: f64,
    /// Whether nobody noted where that seat is.
    pub guessed: bool,
}

/// Who comes along, seated on one hull.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Company {
    /// People, each in a seat.
    pub sat: Vec<Sat>,
    /// Seats it is short of.
    pub short: u32,
    /// Dogs: their mass is the layout's, their sway is counted here.
    dogs: Vec<Companion>,
}

impl Company {
    /// Seats those who come along on a hull of `length` m. Who finds no seat is
    /// counted all the same, close ahead of the angler.
    #[must_use]
    pub fn seat(survey: &Survey, others: &[Companion], length: f64, guides: &Guides) -> Self {
        let own = survey.value(Measure::SeatPlace);
        let own = own.unwrap_or(guides[Guide::SeatPlace]) * length;
        let free = free_seats(survey, own, length, guides);
        let mut company = Self::default();
        for &who in others {
            if !who.sits() {
                company.dogs.push(who);
                continue;
            }
            let seat = free.get(company.sat.len()).copied();
            company.short += u32::from(seat.is_none());
            let (x, guessed) = seat.unwrap_or((own - NO_SEAT_AHEAD, true));
            company.sat.push(Sat { who, x, guessed });
        }
        company
    }

    /// Mass of the dogs, which lie where the layout has them, kg.
    #[must_use]
    pub fn dogs(&self) -> f64 {
        self.dogs.iter().map(Companion::mass).sum()
    }

    /// How far the weights of all those seated go to one side, added up, m.
    #[must_use]
    pub fn sways(&self, guides: &Guides) -> f64 {
        self.sat.iter().map(|s| s.who.sway(guides)).sum()
    }

    /// The heeling moment they may all put to one side at once, over g, kg·m:
    /// what a lean must leave for them.
    #[must_use]
    pub fn live_moment(&self, guides: &Guides) -> f64 {
        let people = self.sat.iter().map(|s| s.who);
        let all = people.chain(self.dogs.iter().copied());
        all.map(|c| c.dressed_mass(guides) * c.sway(guides)).sum()
    }
}

/// How far ahead of the angler somebody without a seat is counted, m.
const NO_SEAT_AHEAD: f64 = 0.7;

/// Seats beside the angler's own: where the record has them, else guessed ahead
/// of a seat that lies aft, behind one that lies forward.
fn free_seats(survey: &Survey, own: f64, length: f64, guides: &Guides) -> Vec<(f64, bool)> {
    let fittings = survey.fitout.fittings_now();
    let seats = fittings
        .iter()
        .filter(|f| matches!(f.kind, FittingKind::Seat { .. }));
    let mut places: Vec<f64> = seats.map(|f| f.x).collect();
    places.sort_by(|a, b| (a - own).abs().total_cmp(&(b - own).abs()));
    let mut free: Vec<(f64, bool)> = places.into_iter().skip(1).map(|x| (x, false)).collect();
    let wanted = usize::from(survey.seats).saturating_sub(1);
    let apart = guides[Guide::SeatsApart];
    let step = if own > 0.45 * length { -apart } else { apart };
    let mut next = own + step;
    while free.len() < wanted {
        free.push((next.clamp(0.1 * length, 0.9 * length), true));
        next += step;
    }
    free.truncate(wanted);
    free
}

impl Crew {
    /// Seats needed for the angler and who comes along.
    #[must_use]
    pub fn seats_with(others: &[Companion]) -> u32 {
        1 + others.iter().filter(|c| c.sits()).count() as u32
    }
}

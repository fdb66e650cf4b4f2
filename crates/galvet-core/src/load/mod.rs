//! Where every mass lies: hull, crew and what the layout stows.

mod stance;

pub use stance::{Carriage, LoadKind, Stance};

use crate::base::Lanes;
use crate::body::Shape;
use crate::crew::{Companion, Company, Crew, SeatHeight};
use crate::float::Weight;
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Fixed, Measure, Survey};
use crate::stow::Layout;
use stance::Rests;
use std::sync::Arc;

/// A mass at a place; its height counts from what it rests on.
#[derive(Debug, Clone, Copy)]
struct Placed {
    mass: f64,
    x: f64,
    y: f64,
    on: Rests,
    above: f64,
    radius: f64,
    /// Whether mass and place are a guess.
    rough: bool,
}

/// All loads on one hull, ready to be summed.
#[derive(Debug, Clone)]
pub struct LoadPlan {
    /// Where the rig lies.
    pub layout: Arc<Layout>,
    /// Who comes along; `x` of each from the bow.
    pub company: Company,
    crew: Crew,
    crew_mass: f64,
    /// Those seated beside the angler.
    seated: Vec<Placed>,
    /// Height of the tallest of their heads above the low seat, m.
    tallest: Option<f64>,
    live: f64,
    /// What each kilogram more on everybody seated adds to that, m.
    live_per_kg: f64,
    seat_x: f64,
    seat: usize,
    /// Risers and cushions under the angler, m.
    raised: f64,
    /// Whether who stands does so on the seat.
    on_the_seat: bool,
    seated_centre: f64,
    standing_centre: f64,
    sitting_height: f64,
    stands_forward: f64,
    seated_radius: f64,
    hull_x: f64,
    hull_z: f64,
    hull_radius: f64,
    /// What modifications added to the hull: `x` from the bow's datum.
    fixed: Vec<Fixed>,
    counts_kit: bool,
    /// How far off a guess is, 1 sd: share of its mass; along the hull and upward, m.
    spread: [f64; 3],
}

/// However far off a guess is, so much of its mass is there.
const LEAST_OF_GUESS: f64 = 0.3;

impl LoadPlan {
    /// Lays crew and layout on the hull of `survey`: its bow at `bow`, `length`
    /// and `beam` in m.
    #[must_use]
    pub fn lay(
        survey: &Survey,
        (crew, company): (Crew, Company),
        seat: SeatHeight,
        layout: Layout,
        [bow, length, beam]: [f64; 3],
        guides: &Guides,
    ) -> Self {
        let board = survey.construction == Construction::Board;
        let place = survey.value(Measure::SeatPlace);
        let sat = company.sat.iter();
        let head = |s: &crate::crew::Sat| guides[Guide::SittingHeight] * s.who.stature();
        Self {
            layout: Arc::new(layout),
            crew,
            crew_mass: crew.dressed_mass(guides),
            tallest: sat.clone().map(head).reduce(f64::max),
            seated: sat
                .map(|s| Placed {
                    mass: s.who.dressed_mass(guides),
                    x: bow + s.x,
                    y: 0.0,
                    // In the low seat, whatever the angler's own is set to.
                    on: Rests::Seat(0),
                    above: guides[Guide::SeatedCentre] * s.who.stature(),
                    radius: guides[Guide::SeatedRadius],
                    rough: false,
                })
                .collect(),
            live: company.live_moment(guides),
            live_per_kg: company.sways(guides),
            company,
            seat_x: bow + place.unwrap_or(guides[Guide::SeatPlace]) * length,
            seat: usize::from(seat == SeatHeight::High),
            raised: 0.0,
            on_the_seat: false,
            seated_centre: guides[Guide::SeatedCentre],
            standing_centre: guides[Guide::StandingCentre],
            sitting_height: guides[Guide::SittingHeight],
            stands_forward: guides[Guide::StandsForward],
            seated_radius: guides[Guide::SeatedRadius],
            hull_x: bow + guides[Guide::HullPlace] * length,
            hull_z: if board {
                guides[Guide::BoardHeight]
            } else {
                guides[Guide::HullHeight]
            },
            hull_radius: guides[Guide::HullRadius] * beam,
            fixed: survey
                .fitout
                .fixed()
                .map(|f| Fixed { x: bow + f.x, ..f })
                .collect(),
            counts_kit: survey.capacity_basis.counts_kit(),
            spread: [
                guides[Guide::RoughMass],
                guides[Guide::RoughPlace] * length,
                guides[Guide::RoughHeight],
            ],
        }
    }

    /// The same with everybody seated or standing heavier by `extra` kg: wet
    /// clothes.
    #[must_use]
    pub fn with_crew_heavier(mut self, extra: f64) -> Self {
        self.crew_mass += extra;
        for other in &mut self.seated {
            other.mass += extra;
        }
        self.live += extra * self.live_per_kg;
        self
    }

    /// The same with the angler's seat `by` m higher: risers and cushions, whose own
    /// mass is left out.
    #[must_use]
    pub fn raised(mut self, by: f64) -> Self {
        self.raised += by;
        self
    }

    /// The same with who stands standing on the seat.
    #[must_use]
    pub fn standing_on_the_seat(mut self) -> Self {
        self.on_the_seat = true;
        self
    }

    /// The heeling moment over g that those who come along may put to one side,
    /// kg·m: no part of it is left for the angler's own lean.
    #[must_use]
    pub const fn live_moment(&self) -> f64 {
        self.live
    }

    /// What modifications weigh in all, kg; below zero where they took off more.
    #[must_use]
    pub fn fixed_mass(&self) -> f64 {
        self.fixed.iter().map(|f| f.mass).sum()
    }

    /// What the maker's label counts, kind by kind, kg; `kit` is what "fitted"
    /// adds to the bare hull, kg. What was added to it since counts on any basis;
    /// what was taken off earns nothing.
    #[must_use]
    pub fn counted(&self, kit: f64) -> [(LoadKind, f64); 4] {
        let wet = self.layout.wet_part();
        let others = self.seated.iter().map(|p| p.mass).sum::<f64>();
        let dogs = self.company.dogs();
        [
            (LoadKind::Crew, self.crew_mass + others + dogs),
            (
                LoadKind::FixedKit,
                if self.counts_kit { kit } else { 0.0 } + self.fixed_mass().max(0.0),
            ),
            (LoadKind::LooseKit, self.layout.loaded() - wet - dogs),
            (LoadKind::WaterAndFish, wet),
        ]
    }

    /// Everything counted against the label, kg.
    #[must_use]
    pub fn counted_mass(&self, kit: f64) -> f64 {
        self.counted(kit).iter().map(|c| c.1).sum()
    }

    /// The angler.
    #[must_use]
    pub const fn crew(&self) -> Crew {
        self.crew
    }

    /// The angler as dressed, kg.
    #[must_use]
    pub const fn crew_mass(&self) -> f64 {
        self.crew_mass
    }

    /// Surface the angler sits on above the floor of a shape, m: the seat as set, with
    /// what raises it.
    #[must_use]
    pub const fn seat_height(&self, shape: &Shape) -> f64 {
        shape.seats[self.seat] + self.raised
    }

    /// The low seat's surface above the floor of a shape, m: where others sit.
    #[must_use]
    pub const fn low_seat(shape: &Shape) -> f64 {
        shape.seats[0]
    }

    /// Who sits beside the angler, and what they weigh as they sit there, kg.
    pub fn beside(&self) -> impl Iterator<Item = (Companion, f64)> + '_ {
        let sat = self.company.sat.iter().zip(&self.seated);
        sat.map(|(sat, placed)| (sat.who, placed.mass))
    }

    /// Body centre of a standing angler above the floor, m.
    #[must_use]
    pub fn standing_centre(&self) -> f64 {
        self.standing_centre * self.crew.stature()
    }

    /// Where the angler is along the hull, m from the bow's datum.
    #[must_use]
    pub fn crew_place(&self, carriage: Carriage) -> f64 {
        match carriage {
            Carriage::Seated => self.seat_x,
            Carriage::AtTheFeet if self.on_the_seat => self.seat_x,
            Carriage::AtTheFeet => self.seat_x - self.stands_forward,
        }
    }

    /// Height above the floor of the highest thing aboard, m: the angler's
    /// head on a shape, or the highest kit's top (its centre, where its size is not known).
    #[must_use]
    pub fn highest(&self, carriage: Carriage, shape: &Shape) -> f64 {
        let head = match carriage {
            Carriage::Seated => self.seat_height(shape) + self.sitting_height * self.crew.stature(),
            Carriage::AtTheFeet if self.on_the_seat => {
                self.seat_height(shape) + self.crew.stature()
            }
            Carriage::AtTheFeet => self.crew.stature(),
        };
        let kit = self.layout.stowed.iter().map(crate::stow::Stowed::top);
        let others = self.tallest.map(|t| Self::low_seat(shape) + t);
        kit.chain(others).fold(head, f64::max)
    }

    fn crew_placed(&self, carriage: Carriage) -> Placed {
        let (on, above, radius) = match carriage {
            Carriage::Seated => (
                Rests::Seat(self.seat),
                self.raised + self.seated_centre * self.crew.stature(),
                self.seated_radius,
            ),
            Carriage::AtTheFeet if self.on_the_seat => (Rests::Seat(self.seat), self.raised, 0.0),
            Carriage::AtTheFeet => (Rests::Floor, 0.0, 0.0),
        };
        Placed {
            mass: self.crew_mass,
            x: self.crew_place(carriage),
            y: 0.0,
            on,
            above,
            radius,
            rough: false,
        }
    }

    fn aboard(&self, carriage: Carriage) -> impl Iterator<Item = Placed> + '_ {
        let stowed = self.layout.stowed.iter().map(|s| Placed {
            mass: s.loaded_mass,
            x: s.x,
            y: s.y,
            on: Rests::Floor,
            above: s.above_floor,
            radius: 0.0,
            rough: s.rough,
        });
        let seated = self.seated.iter().copied();
        std::iter::once(self.crew_placed(carriage))
            .chain(seated)
            .chain(stowed)
    }

    /// Crew and rig without the hull, on shapes whose floor and seats lie as `stance`
    /// says.
    #[must_use]
    pub fn load<const N: usize>(&self, carriage: Carriage, stance: &Stance<N>) -> Weight<N> {
        let mut mass = 0.0;
        let mut moment = [0.0; 3];
        let mut sat = [0.0; 2];
        for p in self.aboard(carriage) {
            mass += p.mass;
            moment[0] += p.mass * p.x;
            moment[1] += p.mass * p.y;
            moment[2] += p.mass * p.above;
            if let Rests::Seat(at) = p.on {
                sat[at] += p.mass;
            }
        }
        if self.aboard(carriage).any(|p| p.rough) {
            return self.guessed(carriage, stance, (mass, moment, sat));
        }
        let seats = stance.seats[0] * (sat[0] / mass) + stance.seats[1] * (sat[1] / mass);
        Weight {
            mass: Lanes::splat(mass),
            x: Lanes::splat(moment[0] / mass),
            y: Lanes::splat(moment[1] / mass),
            z: stance.floor + seats + moment[2] / mass,
        }
    }

    /// The same where something aboard is a guess: beside each shape it weighs more or
    /// less, and lies elsewhere, than somebody said.
    fn guessed<const N: usize>(
        &self,
        carriage: Carriage,
        stance: &Stance<N>,
        (mass, moment, sat): (f64, [f64; 3], [f64; 2]),
    ) -> Weight<N> {
        let splat = Lanes::<N>::splat;
        let (mut mass, [mut x, y, mut z]) = (splat(mass), moment.map(splat));
        let mut side = y;
        for p in self.aboard(carriage).filter(|p| p.rough) {
            let weighs = stance.guess[0].map(|g| p.mass * self.factor(g));
            mass += weighs - p.mass;
            x += weighs * (stance.guess[1] * self.spread[1] + p.x) - p.mass * p.x;
            side += (weighs - p.mass) * p.y;
            z += weighs * (stance.guess[2] * self.spread[2] + p.above) - p.mass * p.above;
        }
        let seats = (stance.seats[0] * sat[0] + stance.seats[1] * sat[1]) / mass;
        Weight {
            mass,
            x: x / mass,
            y: side / mass,
            z: stance.floor + seats + z / mass,
        }
    }

    /// What a guessed mass is multiplied by where it is so many standard deviations off.
    fn factor(&self, guess: f64) -> f64 {
        (1.0 + self.spread[0] * guess).max(LEAST_OF_GUESS)
    }

    /// How much more than somebody guessed is aboard beside a shape, kg.
    #[must_use]
    pub fn off_guess(&self, shape: &Shape) -> f64 {
        let rough = self.layout.stowed.iter().filter(|s| s.rough);
        let guessed: f64 = rough.map(|s| s.loaded_mass).sum();
        guessed * (self.factor(shape.guess[0]) - 1.0)
    }

    /// The hull alone, with what modifications added to it and took off. However much
    /// they say they took, half the hull stays: more is a wrong record, and no margin is
    /// made of it (the record says so: [`Survey::findings`]).
    #[must_use]
    pub fn hull<const N: usize>(&self, hull_mass: Lanes<N>) -> Weight<N> {
        let mut mass = hull_mass;
        let (mut x, mut z) = (Lanes::splat(self.hull_x), Lanes::splat(self.hull_z));
        let taken: f64 = self.fixed.iter().map(|f| (-f.mass).max(0.0)).sum();
        for fixed in &self.fixed {
            let counts = hull_mass.map(|hull| match fixed.mass {
                off if off < 0.0 && taken > 0.5 * hull => off * 0.5 * hull / taken,
                as_said => as_said,
            });
            mass += counts;
            let share = counts / mass;
            x += (Lanes::splat(fixed.x) - x) * share;
            z += (Lanes::splat(fixed.z) - z) * share;
        }
        Weight {
            mass,
            x,
            y: Lanes::ZERO,
            z,
        }
    }

    /// Everything that floats: hull, crew and rig.
    #[must_use]
    pub fn total<const N: usize>(
        &self,
        carriage: Carriage,
        stance: &Stance<N>,
        hull_mass: Lanes<N>,
    ) -> Weight<N> {
        self.hull_with(hull_mass, self.load(carriage, stance))
    }

    /// The hull with any load in it.
    #[must_use]
    pub fn hull_with<const N: usize>(&self, hull_mass: Lanes<N>, load: Weight<N>) -> Weight<N> {
        let hull = self.hull(hull_mass);
        let mass = load.mass + hull.mass;
        let share = hull.mass / mass;
        let blend = |hull: Lanes<N>, load: Lanes<N>| load + (hull - load) * share;
        Weight {
            mass,
            x: blend(hull.x, load.x),
            y: blend(hull.y, load.y),
            z: blend(hull.z, load.z),
        }
    }

    /// Roll radius of gyration about the whole's centre, m, from the mass
    /// layout (no added water), for one shape whose floor lies `floor` m up.
    #[must_use]
    pub fn roll_radius(&self, carriage: Carriage, floor: f64, shape: &Shape) -> f64 {
        let hull_mass = shape.hull_mass;
        let stance = Stance::of(&[*shape], Lanes::splat(floor));
        let whole = self.total::<1>(carriage, &stance, Lanes::splat(hull_mass));
        let (centre, side) = (whole.z.0[0], whole.y.0[0]);
        let about = |mass: f64, y: f64, z: f64, own: f64| {
            mass * ((y - side).powi(2) + (z - centre).powi(2) + own * own)
        };
        let mut inertia = about(hull_mass, 0.0, self.hull_z, self.hull_radius);
        for f in &self.fixed {
            inertia += about(f.mass, 0.0, f.z, 0.0);
        }
        for p in self.aboard(carriage) {
            let seat = match p.on {
                Rests::Floor => 0.0,
                Rests::Seat(at) => shape.seats[at],
            };
            inertia += about(p.mass, p.y, floor + seat + p.above, p.radius);
        }
        (inertia / whole.mass.0[0]).sqrt()
    }
}

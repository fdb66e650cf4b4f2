//! Where every mass of a brief lies on a hull.

use crate::brief::{Brief, Crew, Posture, Rig, SeatHeight};
use crate::float::Weight;
use crate::hull::survey::{CapacityBasis, Construction, Measure, Survey};
use crate::lanes::Lanes;

/// Centre of a bare hull along its length, share, and above the baseline, m:
/// sit-on-top and sit-inside, then board. Guide values (prototype).
const HULL_PLACE: f64 = 0.51;
const HULL_HEIGHT: f64 = 0.18;
const BOARD_HEIGHT: f64 = 0.10;
/// Seat's place where the survey gives none, share of the length. Guide value.
const SEAT_PLACE: f64 = 0.53;
/// How far forward of the seat an angler stands, m. Guide value (prototype).
const STANDS_FORWARD: f64 = 0.25;
/// Seat surface above the floor where the survey gives none, m. Guide value.
const SEAT_HEIGHT: f64 = 0.10;
/// Roll radius of a hull about its own centre, share of the beam; of a seated
/// and a standing body about theirs, m. Guide values.
const HULL_ROLL_RADIUS: f64 = 0.38;
const SEATED_RADIUS: f64 = 0.25;
const STANDING_RADIUS: f64 = 0.48;

/// What kind of load a mass is, for the gauge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum LoadKind {
    /// The angler, dressed.
    Crew,
    /// Seat, drive, rudder: what "fitted" adds to the bare hull.
    FixedKit,
    /// The rig as packed.
    LooseKit,
    /// Ice, bait water, fish: what the rig gains on the day.
    WaterAndFish,
}

impl LoadKind {
    /// In the order they are stacked.
    pub const ALL: [Self; 4] = [
        Self::Crew,
        Self::FixedKit,
        Self::LooseKit,
        Self::WaterAndFish,
    ];

    /// Short label.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Crew => "angler, dressed",
            Self::FixedKit => "seat and drive",
            Self::LooseKit => "kit",
            Self::WaterAndFish => "water and fish",
        }
    }
}

/// How the angler is carried in a load case.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Carriage {
    /// In the seat.
    Seated,
    /// On the feet, a stiff body.
    Standing,
    /// On the feet, weight taken at floor level (for standing support).
    AtTheFeet,
}

/// A mass at a place; `z` counts from the cockpit floor.
#[derive(Debug, Clone, Copy)]
struct Placed {
    mass: f64,
    x: f64,
    y: f64,
    above_floor: f64,
    radius: f64,
}

/// All loads of a brief on one hull, ready to be summed.
#[derive(Debug, Clone)]
pub struct LoadPlan {
    rig: Vec<Placed>,
    crew: Crew,
    seat_x: f64,
    seat_height: f64,
    hull_x: f64,
    hull_z: f64,
    hull_radius: f64,
    /// Counted against the label, kg, by kind; fixed kit is `None` when it is
    /// free or not known.
    pub counted: [(LoadKind, f64); 4],
}

impl LoadPlan {
    /// Lays `brief`'s loads on the hull of `survey` (`length`, `beam` in m).
    #[must_use]
    pub fn lay(survey: &Survey, brief: &Brief, length: f64, beam: f64) -> Self {
        let board = survey.construction == Construction::Board;
        let heights = [Measure::SeatLow, Measure::SeatHigh].map(|m| survey.value(m));
        let seat_height = match (brief.seat, heights) {
            (SeatHeight::Low, [Some(low), _]) => low,
            (SeatHeight::High, [_, Some(high)]) => high,
            (_, [low, high]) => low.or(high).unwrap_or(SEAT_HEIGHT),
        };
        let rig = &brief.rig;
        Self {
            rig: rig
                .lines
                .iter()
                .map(|line| Placed {
                    mass: line.loaded(),
                    x: line.place * length,
                    y: line.offset,
                    above_floor: line.height,
                    radius: 0.0,
                })
                .collect(),
            crew: brief.crew,
            seat_x: survey.value(Measure::SeatPlace).unwrap_or(SEAT_PLACE) * length,
            seat_height,
            hull_x: HULL_PLACE * length,
            hull_z: if board { BOARD_HEIGHT } else { HULL_HEIGHT },
            hull_radius: HULL_ROLL_RADIUS * beam,
            counted: counted(survey, brief.crew, rig),
        }
    }

    /// Everything counted against the label, kg.
    #[must_use]
    pub fn counted_mass(&self) -> f64 {
        self.counted.iter().map(|c| c.1).sum()
    }

    /// The angler as dressed, kg.
    #[must_use]
    pub fn crew_mass(&self) -> f64 {
        self.crew.dressed_mass()
    }

    /// Body centre of a standing angler above the floor, m.
    #[must_use]
    pub fn standing_centre(&self) -> f64 {
        Crew::STANDING_CENTRE * self.crew.stature()
    }

    /// Where the angler is along the hull, m from the bow.
    #[must_use]
    pub fn crew_place(&self, carriage: Carriage) -> f64 {
        self.crew_placed(carriage).x
    }

    /// Height above the floor of the surface sat or stood on, m.
    #[must_use]
    pub const fn crew_surface(&self, carriage: Carriage) -> f64 {
        match carriage {
            Carriage::Seated => self.seat_height,
            Carriage::Standing | Carriage::AtTheFeet => 0.0,
        }
    }

    /// Highest place above the floor, m: the angler's head, or the highest
    /// kit's centre.
    #[must_use]
    pub fn highest(&self, carriage: Carriage) -> f64 {
        // Sitting height is about 0.52 of the stature (NASA STD-3000).
        let head = match carriage {
            Carriage::Seated => self.seat_height + 0.52 * self.crew.stature(),
            Carriage::Standing | Carriage::AtTheFeet => self.crew.stature(),
        };
        self.rig.iter().map(|p| p.above_floor).fold(head, f64::max)
    }

    fn crew_placed(&self, carriage: Carriage) -> Placed {
        let (x, above_floor, radius) = match carriage {
            Carriage::Seated => (
                self.seat_x,
                self.seat_height + Crew::SEATED_CENTRE * self.crew.stature(),
                SEATED_RADIUS,
            ),
            Carriage::Standing => (
                self.seat_x - STANDS_FORWARD,
                self.standing_centre(),
                STANDING_RADIUS,
            ),
            Carriage::AtTheFeet => (self.seat_x - STANDS_FORWARD, 0.0, 0.0),
        };
        Placed {
            mass: self.crew_mass(),
            x,
            y: 0.0,
            above_floor,
            radius,
        }
    }

    fn aboard(&self, carriage: Carriage) -> impl Iterator<Item = Placed> + '_ {
        std::iter::once(self.crew_placed(carriage)).chain(self.rig.iter().copied())
    }

    /// Crew and rig without the hull.
    #[must_use]
    pub fn load<const N: usize>(&self, carriage: Carriage, floor: Lanes<N>) -> Weight<N> {
        let mut mass = 0.0;
        let mut moment = [0.0; 3];
        for p in self.aboard(carriage) {
            mass += p.mass;
            moment[0] += p.mass * p.x;
            moment[1] += p.mass * p.y;
            moment[2] += p.mass * p.above_floor;
        }
        Weight {
            mass: Lanes::splat(mass),
            x: Lanes::splat(moment[0] / mass),
            y: Lanes::splat(moment[1] / mass),
            z: floor + moment[2] / mass,
        }
    }

    /// Everything that floats: hull, crew and rig.
    #[must_use]
    pub fn total<const N: usize>(
        &self,
        carriage: Carriage,
        floor: Lanes<N>,
        hull_mass: Lanes<N>,
    ) -> Weight<N> {
        self.hull_with(hull_mass, self.load(carriage, floor))
    }

    /// The hull with any load in it.
    #[must_use]
    pub fn hull_with<const N: usize>(&self, hull_mass: Lanes<N>, load: Weight<N>) -> Weight<N> {
        let mass = load.mass + hull_mass;
        let share = hull_mass / mass;
        let blend = |hull: f64, load: Lanes<N>| load + (Lanes::splat(hull) - load) * share;
        Weight {
            mass,
            x: blend(self.hull_x, load.x),
            y: blend(0.0, load.y),
            z: blend(self.hull_z, load.z),
        }
    }

    /// Roll radius of gyration about the whole's centre, m, from the mass
    /// layout (no added water), for one lane.
    #[must_use]
    pub fn roll_radius(&self, carriage: Carriage, floor: f64, hull_mass: f64) -> f64 {
        let whole = self.total::<1>(carriage, Lanes::splat(floor), Lanes::splat(hull_mass));
        let (centre, side) = (whole.z.0[0], whole.y.0[0]);
        let about = |mass: f64, y: f64, z: f64, own: f64| {
            mass * ((y - side).powi(2) + (z - centre).powi(2) + own * own)
        };
        let mut inertia = about(hull_mass, 0.0, self.hull_z, self.hull_radius);
        for p in self.aboard(carriage) {
            inertia += about(p.mass, p.y, floor + p.above_floor, p.radius);
        }
        (inertia / whole.mass.0[0]).sqrt()
    }
}

fn counted(survey: &Survey, crew: Crew, rig: &Rig) -> [(LoadKind, f64); 4] {
    let fixed = match survey.capacity_basis {
        CapacityBasis::GearAndCrew => 0.0,
        CapacityBasis::EverythingAboveBareHull | CapacityBasis::Unknown => {
            survey.fitted_kit().unwrap_or(0.0)
        }
    };
    let wet = rig.wet_part();
    [
        (LoadKind::Crew, crew.dressed_mass()),
        (LoadKind::FixedKit, fixed),
        (LoadKind::LooseKit, rig.loaded() - wet),
        (LoadKind::WaterAndFish, wet),
    ]
}

impl Carriage {
    /// The load case that decides capacity and trim for a posture: one who
    /// only stands is floated standing, anyone else seated.
    #[must_use]
    pub const fn of(posture: Posture) -> Self {
        match posture {
            Posture::Stands => Self::Standing,
            Posture::SitsAndStands | Posture::Sits => Self::Seated,
        }
    }
}

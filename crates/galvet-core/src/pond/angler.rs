//! The angler as a jointed body: legs and trunk, over the floor.

use crate::base::GRAVITY;

/// A body that leans: masses, lengths and moments (Winter, *Biomechanics and Motor Control of
/// Human Movement*, 1990).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Angler {
    /// Mass, dressed, kg.
    pub mass: f64,
    /// Stature, m.
    pub stature: f64,
    /// Seat over the floor, m.
    pub seat: f64,
}

/// The body at one height of its hips.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Felt {
    /// Hip over the floor, m.
    pub hip: f64,
    /// Centre of the legs over the floor, m.
    pub legs: f64,
    /// Inertias of legs, of both together, of the trunk, kg·m².
    pub inertia: [f64; 3],
    /// Their own about their centres, kg·m².
    pub own: [f64; 2],
    /// What pulls them over, N·m/rad: legs with the trunk on them, trunk.
    pub over: [f64; 2],
}

/// Shares of the mass: legs, trunk with arms and head.
const LEGS: f64 = 0.32;
const TRUNK: f64 = 0.68;

impl Angler {
    /// Hip over the floor seated and up, m.
    #[must_use]
    pub fn hips(&self) -> [f64; 2] {
        [self.seat + 0.02 * self.stature, 0.50 * self.stature]
    }

    /// Centre of the trunk over the hip, m.
    #[must_use]
    pub fn trunk(&self) -> f64 {
        0.20 * self.stature
    }

    /// What turning the legs while the hip goes up and down adds, N·m: on the legs, on the
    /// trunk. `hip` is its height, how fast it goes and how that changes.
    #[must_use]
    pub fn turns(&self, hip: [f64; 3], legs_rate: f64, delta: f64) -> [f64; 2] {
        let [height, rate, change] = hip;
        if rate == 0.0 && change == 0.0 {
            return [0.0; 2];
        }
        let [low, high] = self.hips();
        let ends = [self.seat - 0.03 * self.stature, 0.27 * self.stature];
        let by_hip = (ends[1] - ends[0]) / (high - low);
        let legs = ends[0] + by_hip * (height - low);
        let (m, e) = (self.mass, self.trunk());
        let own = LEGS * m * legs * by_hip + TRUNK * m * height;
        [
            2.0 * rate * legs_rate * own,
            TRUNK * m * e * (2.0 * rate * legs_rate * delta.cos() + change * delta.sin()),
        ]
    }

    /// The body with its hip so high.
    #[must_use]
    pub fn at(&self, hip: f64) -> Felt {
        let [low, high] = self.hips();
        let ends = [self.seat - 0.03 * self.stature, 0.27 * self.stature];
        let legs_by_hip = (ends[1] - ends[0]) / (high - low);
        let legs = ends[0] + legs_by_hip * (hip - low);
        let (m, e) = (self.mass, self.trunk());
        Felt {
            hip,
            legs,
            inertia: [
                LEGS * m * legs * legs + TRUNK * m * hip * hip,
                TRUNK * m * hip * e,
                TRUNK * m * e * e,
            ],
            own: [
                LEGS * m * (0.10 * self.stature).powi(2),
                TRUNK * m * (0.14 * self.stature).powi(2),
            ],
            over: [
                GRAVITY * (LEGS * m * legs + TRUNK * m * hip),
                GRAVITY * TRUNK * m * e,
            ],
        }
    }
}

impl Felt {
    /// What pulls the whole body over, N·m/rad.
    #[must_use]
    pub fn whole(&self) -> f64 {
        self.over[0] + self.over[1]
    }

    /// Inertia about the floor of the body held stiff, kg·m².
    #[must_use]
    pub fn stiff(&self) -> f64 {
        self.inertia[0] + 2.0 * self.inertia[1] + self.inertia[2] + self.own[0] + self.own[1]
    }

    /// What its leaning over moves sideways, kg·m/rad: legs with the trunk on them, trunk.
    #[must_use]
    pub(super) fn aside(&self, legs: f64, trunk: f64) -> [f64; 2] {
        [
            self.over[0] / GRAVITY * legs.cos(),
            self.over[1] / GRAVITY * trunk.cos(),
        ]
    }

    /// What turning flings sideways, N: leans and rates of legs and trunk.
    #[must_use]
    pub(super) fn flung(&self, legs: [f64; 2], trunk: [f64; 2]) -> f64 {
        let of = |over: f64, [lean, rate]: [f64; 2]| over / GRAVITY * lean.sin() * rate * rate;
        of(self.over[0], legs) + of(self.over[1], trunk)
    }
}

//! Where hull and body are, and what pushes at them.

/// How the angler is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mode {
    /// In the seat, hips free.
    Seated,
    /// In the seat, the trunk held stiff.
    Stiff,
    /// On the feet, on the way up to them or down from them.
    Up,
}

/// What pushes at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Push {
    /// Moment on the hull, N·m.
    pub moment: f64,
    /// How far to the side of its place the angler's weight lies, m.
    pub beside: f64,
    /// Force at the shoulders, N.
    pub force: f64,
    /// Slope of the water, rad.
    pub slope: f64,
}

/// What the angler wants, and feels beyond their own balance, as late as it is felt.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Aim {
    /// Lean of the trunk, rad.
    pub lean: f64,
    /// Moment on the hull that is felt, N·m.
    pub moment: f64,
    /// Pull at the rod that is leaned against, N.
    pub rod: f64,
    /// Slope of the water, rad.
    pub slope: f64,
    /// Between the feet, m.
    pub stance: f64,
}

/// What chance adds to a decision: noises of the lean, of what is asked of the feet and of the
/// trunk, sd 1; the push misjudged in rising, N·m.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Chance {
    /// Of the lean felt.
    pub lean: f64,
    /// Of what the feet give.
    pub asked: f64,
    /// Of the trunk, and of that of who sits beside.
    pub trunk: f64,
    /// See [`Chance::trunk`].
    pub mate: f64,
    /// Push of the feet, N·m.
    pub push: f64,
}

/// Hull, legs and trunk: leans from the vertical and their rates, rad and rad/s; what the
/// muscles do beyond their stiffness, N·m; the share of the recess that has filled.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct At {
    /// Heel of the hull.
    pub heel: f64,
    /// Its rate.
    pub heel_rate: f64,
    /// Lean of the legs.
    pub legs: f64,
    /// Its rate.
    pub legs_rate: f64,
    /// Lean of the trunk.
    pub trunk: f64,
    /// Its rate.
    pub trunk_rate: f64,
    /// Torque at the feet.
    pub feet: f64,
    /// Torque at the hips.
    pub hips: f64,
    /// Share filled.
    pub filled: f64,
    /// Speed sideways through the water, m/s, where the hull sways freely.
    pub sway: f64,
    /// Lean of the trunk of who sits beside the angler, its rate, and what their hips give.
    pub mate: [f64; 3],
}

impl At {
    fn all(&self) -> [f64; 13] {
        let [mate, mate_rate, mate_hips] = self.mate;
        [
            self.heel,
            self.heel_rate,
            self.legs,
            self.legs_rate,
            self.trunk,
            self.trunk_rate,
            self.feet,
            self.hips,
            self.filled,
            self.sway,
            mate,
            mate_rate,
            mate_hips,
        ]
    }

    /// Itself and so much of its rates.
    #[must_use]
    pub(super) fn plus(&self, by: f64, rate: &Self) -> Self {
        let (a, b) = (self.all(), rate.all());
        let [
            heel,
            heel_rate,
            legs,
            legs_rate,
            trunk,
            trunk_rate,
            feet,
            hips,
            filled,
            sway,
            mate,
            mate_rate,
            mate_hips,
        ] = std::array::from_fn(|i| a[i] + by * b[i]);
        Self {
            heel,
            heel_rate,
            legs,
            legs_rate,
            trunk,
            trunk_rate,
            feet,
            hips,
            filled,
            sway,
            mate: [mate, mate_rate, mate_hips],
        }
    }

    /// Whether every figure is one.
    #[must_use]
    pub fn is_finite(&self) -> bool {
        self.all().iter().all(|v| v.is_finite())
    }
}

//! Righting arms as a curve to be asked thousands of times a second.

/// Arms over heel, on a grid of whole degrees from upright, odd in the heel.
#[derive(Debug, Clone, PartialEq)]
pub struct Arms {
    /// On the sealed hull and on the open one, m.
    sealed: Vec<f64>,
    open: Vec<f64>,
    /// Height of the water over the middle of the floor, along the heeled vertical, m: the same
    /// two. For a drawing.
    levels: [Vec<f64>; 2],
}

/// Radians of a step of the grid.
const GRID: f64 = std::f64::consts::PI / 180.0;

impl Arms {
    /// Heels at which arms are asked for, rad: whole degrees from 0 to 90.
    #[must_use]
    pub fn heels() -> Vec<f64> {
        (0..=90).map(|deg| f64::from(deg) * GRID).collect()
    }

    /// Of arms at [`Arms::heels`], m; the shorter list is as long as both are taken.
    #[must_use]
    pub fn new(sealed: Vec<f64>, open: Vec<f64>) -> Self {
        Self {
            sealed,
            open,
            levels: [Vec::new(), Vec::new()],
        }
    }

    /// The same with the heights of the water at those heels, m: of the sealed hull, of the
    /// open one.
    #[must_use]
    pub(super) fn seen(mut self, levels: [Vec<f64>; 2]) -> Self {
        self.levels = levels;
        self
    }

    /// Heights of the water over the middle of the floor, along the heeled vertical, m, at
    /// [`Arms::heels`]: of the sealed hull, of the open one.
    #[must_use]
    pub const fn levels(&self) -> &[Vec<f64>; 2] {
        &self.levels
    }

    /// Arm at a heel, m: of the sealed hull, and of the open one by the share of the recess
    /// that has filled.
    #[must_use]
    pub fn at(&self, heel: f64, filled: f64) -> f64 {
        let sealed = hermite(&self.sealed, heel);
        if filled <= 0.0 {
            return sealed;
        }
        let open = hermite(&self.open, heel);
        sealed + filled.min(1.0) * (open - sealed)
    }

    /// Height of the water over the middle of the floor at a heel, along the heeled vertical, m.
    #[must_use]
    pub fn level(&self, heel: f64, filled: f64) -> f64 {
        let at = heel.abs() / GRID;
        let of = |grid: &[f64]| {
            let i = (at.floor() as usize).min(grid.len().saturating_sub(2));
            let share = (at - i as f64).clamp(0.0, 1.0);
            let value = |k: usize| grid.get(k).copied().unwrap_or(0.0);
            value(i) + share * (value(i + 1) - value(i))
        };
        let [dry, wet] = &self.levels;
        of(dry) + filled.clamp(0.0, 1.0) * (of(wet) - of(dry))
    }

    /// Slope upright, m/rad, sealed.
    #[must_use]
    pub fn slope(&self) -> f64 {
        self.sealed.get(1).map_or(0.0, |first| first / GRID)
    }
}

/// Cubic Hermite with central slopes (Fritsch and Carlson's notation, 1980), odd about
/// upright, held beyond the last.
fn hermite(grid: &[f64], heel: f64) -> f64 {
    let last = grid.len().saturating_sub(1);
    if last == 0 {
        return 0.0;
    }
    let at = (heel.abs() / GRID).min(last as f64);
    let i = (at.floor() as usize).min(last - 1);
    let t = at - i as f64;
    let value = |k: usize| grid[k.min(last)];
    let slope = |k: usize| match k {
        // Odd: what lies on the other side is its mirror.
        0 => value(1) - value(0),
        k => 0.5 * (value(k + 1) - value(k - 1)),
    };
    let (a, b) = (value(i), value(i + 1));
    let (da, db) = (slope(i), slope(i + 1));
    let (t2, t3) = (t * t, t * t * t);
    let arm = a * (2.0 * t3 - 3.0 * t2 + 1.0)
        + da * (t3 - 2.0 * t2 + t)
        + b * (3.0 * t2 - 2.0 * t3)
        + db * (t3 - t2);
    arm * heel.signum()
}

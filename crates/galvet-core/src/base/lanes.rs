//! Several bodies worked side by side.
//!
//! Every shape in a hull's sample has the same topology: the same number of
//! stations and the same number of points at each. So the inner loops of the
//! floating core run over [`Lanes<N>`], one lane a shape, in straight-line
//! arithmetic that the compiler can put into vector registers. `N = 1` is the
//! ordinary scalar case and runs through exactly the same code.

use std::array;
use std::ops::{Add, AddAssign, Div, Mul, Neg, Sub, SubAssign};

/// `N` numbers, one for each body worked side by side.
#[derive(Debug, Clone, Copy, PartialEq)]
#[repr(align(16))]
pub struct Lanes<const N: usize>(pub [f64; N]);

impl<const N: usize> Lanes<N> {
    /// Zero in every lane.
    pub const ZERO: Self = Self([0.0; N]);

    /// The same number in every lane.
    #[inline(always)]
    #[must_use]
    pub const fn splat(value: f64) -> Self {
        Self([value; N])
    }

    /// One number a lane, made by its index.
    #[inline(always)]
    #[must_use]
    pub fn from_fn(f: impl FnMut(usize) -> f64) -> Self {
        Self(array::from_fn(f))
    }

    /// Applies `f` to every lane.
    #[inline(always)]
    #[must_use]
    pub fn map(self, mut f: impl FnMut(f64) -> f64) -> Self {
        Self(array::from_fn(|i| f(self.0[i])))
    }

    /// Combines two lane by lane.
    #[inline(always)]
    #[must_use]
    pub fn zip(self, other: Self, mut f: impl FnMut(f64, f64) -> f64) -> Self {
        Self(array::from_fn(|i| f(self.0[i], other.0[i])))
    }

    /// The smaller of the two in every lane.
    #[inline(always)]
    #[must_use]
    pub fn min(self, other: Self) -> Self {
        self.zip(other, |a, b| if a < b { a } else { b })
    }

    /// The larger of the two in every lane.
    #[inline(always)]
    #[must_use]
    pub fn max(self, other: Self) -> Self {
        self.zip(other, |a, b| if a > b { a } else { b })
    }

    /// Absolute value of every lane.
    #[inline(always)]
    #[must_use]
    pub fn abs(self) -> Self {
        self.map(f64::abs)
    }

    /// Every lane held between `lo` and `hi`.
    #[inline(always)]
    #[must_use]
    pub fn clamp(self, lo: Self, hi: Self) -> Self {
        self.max(lo).min(hi)
    }

    /// Where `self` is negative `a`, elsewhere `b`: a choice without a branch.
    #[inline(always)]
    #[must_use]
    pub fn where_negative(self, a: Self, b: Self) -> Self {
        Self(array::from_fn(|i| {
            if self.0[i] < 0.0 { a.0[i] } else { b.0[i] }
        }))
    }

    /// 1 where the lane is negative, 0 elsewhere.
    #[inline(always)]
    #[must_use]
    pub fn is_negative(self) -> Self {
        self.map(|v| if v < 0.0 { 1.0 } else { 0.0 })
    }

    /// The same numbers, 0 for -0: what is not negative has no sign.
    #[inline(always)]
    #[must_use]
    pub fn without_negative_zero(self) -> Self {
        self.map(|v| v + 0.0)
    }

    /// Whether the two have different signs in some lane.
    #[inline(always)]
    #[must_use]
    pub fn signs_differ(self, other: Self) -> bool {
        let either = self.0.iter().zip(&other.0);
        let either = either.map(|(a, b)| a.to_bits() ^ b.to_bits());
        either.fold(0, |all, bits| all | bits) >> 63 != 0
    }

    /// The largest lane.
    #[inline]
    #[must_use]
    pub fn max_lane(self) -> f64 {
        self.0.into_iter().fold(f64::NEG_INFINITY, f64::max)
    }

    /// Whether every lane is a finite number.
    #[must_use]
    pub fn all_finite(self) -> bool {
        self.0.iter().all(|v| v.is_finite())
    }
}

macro_rules! lane_operator {
    ($($trait:ident $method:ident $op:tt),*) => {$(
        impl<const N: usize> $trait for Lanes<N> {
            type Output = Self;
            #[inline(always)]
            fn $method(self, rhs: Self) -> Self {
                Self(array::from_fn(|i| self.0[i] $op rhs.0[i]))
            }
        }
        impl<const N: usize> $trait<f64> for Lanes<N> {
            type Output = Self;
            #[inline(always)]
            fn $method(self, rhs: f64) -> Self {
                Self(array::from_fn(|i| self.0[i] $op rhs))
            }
        }
    )*};
}
lane_operator!(Add add +, Sub sub -, Mul mul *, Div div /);

impl<const N: usize> Neg for Lanes<N> {
    type Output = Self;
    #[inline(always)]
    fn neg(self) -> Self {
        self.map(|v| -v)
    }
}

impl<const N: usize> AddAssign for Lanes<N> {
    #[inline(always)]
    fn add_assign(&mut self, rhs: Self) {
        *self = *self + rhs;
    }
}

impl<const N: usize> SubAssign for Lanes<N> {
    #[inline(always)]
    fn sub_assign(&mut self, rhs: Self) {
        *self = *self - rhs;
    }
}

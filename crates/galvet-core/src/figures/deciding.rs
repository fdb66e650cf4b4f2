//! The figures that decide a place, shape by shape: all that is kept of a sample once
//! its ranges are taken.

use super::quantity::{Quantity, Values};

macro_rules! deciding {
    ($($(#[$doc:meta])* $name:ident),* $(,)?) => {
        /// A figure by which a shape of a sample is scored or ruled out: of these alone
        /// every shape's value is kept, so that what asks for another does not compile.
        #[derive(Debug, Clone, Copy, PartialEq, Eq)]
        pub enum Deciding {
            $(#[doc = concat!("[`Quantity::", stringify!($name), "`].")] $name,)*
        }

        impl Deciding {
            /// All of them.
            pub const ALL: &'static [Self] = &[$(Self::$name),*];

            /// The figure it is.
            #[must_use]
            pub const fn quantity(self) -> Quantity {
                match self {
                    $(Self::$name => Quantity::$name,)*
                }
            }
        }
    };
}

deciding! {
    Counted,
    LabelMargin,
    WorkingMargin,
    WaterlineMargin,
    BindingMargin,
    StandingSupport,
    LeanRoom,
    Reserve,
    Stiffness,
}

/// What decides of one shape of a sample: with seven digits, where the best of them are
/// told with three.
#[derive(Debug, Clone, PartialEq)]
pub struct Kept([f32; Deciding::ALL.len()]);

impl From<&Values> for Kept {
    fn from(values: &Values) -> Self {
        let mut kept = [f32::NAN; Deciding::ALL.len()];
        for (place, which) in kept.iter_mut().zip(Deciding::ALL) {
            *place = values.raw(which.quantity()) as f32;
        }
        Self(kept)
    }
}

impl Kept {
    /// Reads a figure, SI.
    #[must_use]
    pub fn get(&self, which: Deciding) -> Option<f64> {
        let value = f64::from(self.0[which as usize]);
        value.is_finite().then_some(value)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_is_kept_in_a_place_of_its_own() {
        let mut values = Values::default();
        for (n, which) in (1..).zip(Deciding::ALL) {
            values.set(which.quantity(), f64::from(n) + 0.1);
        }
        values.set(Quantity::LeanRoom, f64::NAN);
        let kept = Kept::from(&values);
        for (n, &which) in (1..).zip(Deciding::ALL) {
            let got = kept.get(which);
            let known = which != Deciding::LeanRoom;
            assert_eq!(got.is_some(), known, "{which:?}");
            let off = got.map_or(0.0, |v| v - f64::from(n) - 0.1);
            assert!(off.abs() < 1e-6, "{which:?}: {got:?}");
        }
    }
}

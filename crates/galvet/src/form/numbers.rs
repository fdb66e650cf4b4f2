//! Fields that take figures.

use super::field::{Field, Place, Takes};
use super::typed::{number as read_number, shown_across, shown_along};
use galvet_core::base::{Bounds, Dimension, System};

/// What a figure can be held by. A figure that must be there and is not yet is no number.
pub trait Holds {
    /// The figure; `None` where there is none.
    fn held(&self) -> Option<f64>;
    /// Takes another; whether it can be without one.
    fn hold(&mut self, figure: Option<f64>) -> bool;
}

impl Holds for f64 {
    fn held(&self) -> Option<f64> {
        (!self.is_nan()).then_some(*self)
    }

    fn hold(&mut self, figure: Option<f64>) -> bool {
        *self = figure.unwrap_or(*self);
        figure.is_some()
    }
}

impl Holds for Option<f64> {
    fn held(&self) -> Option<f64> {
        *self
    }

    fn hold(&mut self, figure: Option<f64>) -> bool {
        *self = figure;
        true
    }
}

/// How a figure stands in its field: fine enough to be read back as what it is, to the
/// tape's or the scale's own step.
fn shown(system: System, dimension: Dimension, value: f64) -> String {
    match dimension {
        Dimension::Length => shown_along(system, value),
        Dimension::ShortLength => shown_across(system, value),
        Dimension::FineLength => system.text(dimension, value, 0),
        Dimension::Mass | Dimension::Volume | Dimension::Speed | Dimension::Distance => {
            system.text(dimension, value, 2)
        }
        _ => format!("{value}"),
    }
}

/// A figure within bounds; whether it must be there follows from what holds it.
pub fn number<D: 'static, T: Holds + 'static>(
    name: &str,
    label: &str,
    bounds: Bounds,
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, system| {
        let held = at(d).held();
        held.map_or(String::new(), |v| shown(system, bounds.dimension, v))
    };
    let set = move |d: &mut D, typed: &str, system| {
        if typed.is_empty() && at(d).hold(None) {
            return Ok(());
        }
        let typed = typed.trim_end_matches(['%', '°']).trim();
        let read = read_number(typed, bounds, system)?;
        at(d).hold(Some(read));
        Ok(())
    };
    // Those keys have no minus.
    let takes = if bounds.lo < 0.0 {
        Takes::Line
    } else {
        Takes::Number
    };
    Field::new(name, label, takes, show, set)
}

/// A share, 0 to 1, typed in percent.
pub fn percent<D: 'static, T: Holds + 'static>(
    name: &str,
    label: &str,
    bounds: Bounds,
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, _| {
        let held = at(d).held();
        held.map_or(String::new(), |v| {
            format!("{}", (v * 1000.0).round() / 10.0)
        })
    };
    let set = move |d: &mut D, typed: &str, system| {
        if typed.is_empty() && at(d).hold(None) {
            return Ok(());
        }
        let of_100 = Bounds::new(
            bounds.what,
            Dimension::Ratio,
            bounds.lo * 100.0,
            bounds.hi * 100.0,
        );
        let typed = typed.trim_end_matches('%').trim();
        let read = read_number(typed, of_100, system)? / 100.0;
        at(d).hold(Some(read));
        Ok(())
    };
    Field::new(name, label, Takes::Number, show, set)
}

/// What a whole number can be held by.
pub trait Counts {
    /// The number; `None` where there is none, or none is meant.
    fn held(&self) -> Option<u16>;
    /// Takes another; whether it can.
    fn hold(&mut self, number: Option<u16>) -> bool;
}

impl Counts for u16 {
    fn held(&self) -> Option<u16> {
        (*self > 0).then_some(*self)
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number.unwrap_or(0);
        true
    }
}

impl Counts for u8 {
    fn held(&self) -> Option<u16> {
        (*self > 0).then(|| u16::from(*self))
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        let narrow = Self::try_from(number.unwrap_or(0));
        *self = narrow.unwrap_or(*self);
        narrow.is_ok()
    }
}

impl Counts for u32 {
    fn held(&self) -> Option<u16> {
        u16::try_from(*self).ok().filter(|n| *n > 0)
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number.unwrap_or(0).into();
        true
    }
}

impl Counts for Option<u16> {
    fn held(&self) -> Option<u16> {
        *self
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number;
        true
    }
}

/// A whole number within bounds; left empty, none of it where nought is within them, and
/// where it may be missing, nobody knows.
pub fn count<D: 'static, T: Counts + 'static>(
    name: &str,
    label: &str,
    (lo, hi, may_miss): (u16, u16, bool),
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, _| at(d).held().map_or(String::new(), |n| n.to_string());
    let set = move |d: &mut D, typed: &str, _| {
        let read = match typed {
            "" if lo == 0 || may_miss => Some(None),
            typed => typed
                .parse()
                .ok()
                .filter(|n| (lo..=hi).contains(n))
                .map(Some),
        };
        let taken = read.is_some_and(|number| at(d).hold(number));
        let problem = || format!("write a whole number, {lo} to {hi}");
        taken.then_some(()).ok_or_else(problem)
    };
    Field::new(name, label, Takes::Number, show, set)
}

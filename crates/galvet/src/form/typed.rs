//! Fields of a form as they were typed, read one by one; what is not understood
//! is kept with the field's name.

use super::refusal::Mistakes;
use galvet_core::base::{Bare, Bounds, Dimension, System};
use std::collections::HashMap;

/// The unit a bare length has; SI for what is no length.
const fn bare_length(system: System, dimension: Dimension) -> Bare {
    match (system, dimension) {
        (System::Metric, Dimension::ShortLength | Dimension::FineLength) => Bare::CENTIMETRES,
        (System::Imperial, Dimension::Length) => Bare::FEET,
        (System::Imperial, Dimension::ShortLength | Dimension::FineLength) => Bare::INCHES,
        _ => Bare::SI,
    }
}

/// The unit a bare number has, as people of a system write such a figure.
const fn bare_unit(system: System, dimension: Dimension) -> Bare {
    match (system, dimension) {
        (System::Imperial, Dimension::Mass) => Bare::POUNDS,
        (System::Metric, Dimension::Speed) => Bare::KM_PER_HOUR,
        (System::Imperial, Dimension::Speed) => Bare::MILES_PER_HOUR,
        (System::Metric, Dimension::Distance) => Bare::KILOMETRES,
        (System::Imperial, Dimension::Distance) => Bare::MILES,
        _ => bare_length(system, dimension),
    }
}

/// A typed number with its value in SI. A length written in metres where
/// centimetres are usual (`0.86`) is understood too.
///
/// # Errors
/// What would be accepted.
pub fn number(typed: &str, bounds: Bounds, system: System) -> Result<f64, String> {
    let read = match bounds.dimension {
        // Litres and gallons have no bare unit of their own.
        Dimension::Volume => bounds.parse(&bounds.with_unit(typed, Some(system)), Bare::SI),
        dimension => bounds.parse(typed, bare_unit(system, dimension)),
    };
    let in_metres = || bounds.parse(typed, Bare::SI).ok();
    match read {
        Ok(value) => Ok(value),
        Err(error) => match (system, in_metres()) {
            (System::Metric, Some(value)) => Ok(value),
            _ => Err(error.to_string()),
        },
    }
}

/// What was typed, a bare number with the unit [`number`] takes it to have.
pub fn with_unit(typed: &str, bounds: Bounds, system: Option<System>) -> String {
    let said = bounds.with_unit(typed, system);
    let in_metres = || bounds.parse(typed, Bare::SI).is_ok();
    if system == Some(System::Metric) && bounds.parse(&said, Bare::SI).is_err() && in_metres() {
        return bounds.with_unit(typed, None);
    }
    said
}

/// How a length along the hull stands in its field.
#[must_use]
pub fn shown_along(system: System, m: f64) -> String {
    system.text(Dimension::Length, m, 2)
}

/// How any other length stands in its field.
#[must_use]
pub fn shown_across(system: System, m: f64) -> String {
    system.text(Dimension::ShortLength, m, 1)
}

/// A form being read.
pub(crate) struct Typed<'a> {
    form: &'a HashMap<String, String>,
    system: System,
    /// What was not understood so far.
    pub(crate) mistakes: Mistakes,
}

impl<'a> Typed<'a> {
    pub(crate) fn of(form: &'a HashMap<String, String>, system: System) -> Self {
        Self {
            form,
            system,
            mistakes: Mistakes::new(),
        }
    }

    /// What stands in a field; empty where nothing does.
    pub(crate) fn text(&self, name: &str) -> &'a str {
        self.form.get(name).map_or("", |text| text.trim())
    }

    /// A number that must be there; a percent or a degree sign may stand behind it.
    pub(crate) fn number(&mut self, name: &str, bounds: Bounds) -> Option<f64> {
        let typed = self.text(name).trim_end_matches(['%', '°']).trim();
        match number(typed, bounds, self.system) {
            Ok(value) => Some(value),
            Err(problem) => {
                self.mistakes.insert(name.to_owned(), problem);
                None
            }
        }
    }

    /// The same where it may be left empty.
    pub(crate) fn maybe(&mut self, name: &str, bounds: Bounds) -> Option<f64> {
        if self.text(name).is_empty() {
            return None;
        }
        self.number(name, bounds)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_bare_number_is_in_the_units_in_which_such_figures_are_shown() {
        use Dimension as D;
        for dimension in [
            D::Length,
            D::ShortLength,
            D::Mass,
            D::Speed,
            D::Distance,
            D::Volume,
            D::Power,
            D::Time,
            D::Angle,
            D::Money,
            D::Ratio,
        ] {
            for system in [System::Metric, System::Imperial] {
                let bounds = Bounds::new("it", dimension, 0.0, 1e9);
                // A foot and its inches are written in one.
                let shown = system.convert(dimension, 1.25);
                let typed = format!("{shown}");
                let read = number(&typed, bounds, system).unwrap();
                assert!(
                    (read - 1.25).abs() < 1e-9,
                    "{dimension:?} {system:?}: {typed} is read as {read}"
                );
            }
        }
    }
}

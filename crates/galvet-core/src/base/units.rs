//! Units at the edges, and the ranges numbers must keep.
//!
//! Everything inside is SI. Here a number becomes words in the reader's own
//! units; what people type becomes a number in the module beside this one.

use thiserror::Error;

/// Standard gravity, m/s² (ISO 80000-3).
pub const GRAVITY: f64 = 9.806_65;
/// The international foot and inch, m.
pub const FOOT: f64 = 0.3048;
/// See [`FOOT`].
pub const INCH: f64 = 0.0254;
/// The international mile, m.
pub const MILE: f64 = 1609.344;
/// A kilometre an hour, m/s.
pub const KM_PER_HOUR: f64 = 1.0 / 3.6;
/// A mile an hour, m/s.
pub const MILE_PER_HOUR: f64 = MILE / 3600.0;
/// A knot, m/s.
pub const KNOT: f64 = 1852.0 / 3600.0;
/// The international avoirdupois pound, kg.
pub const POUND: f64 = 0.453_592_37;

/// The US liquid gallon, m³.
pub const GALLON: f64 = 0.003_785_411_784;

/// What a number measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Dimension {
    /// Lengths read in metres or feet.
    Length,
    /// Short lengths read in centimetres or inches.
    ShortLength,
    /// Lengths to the millimetre: drafts, clearances.
    FineLength,
    /// Masses in kilograms or pounds.
    Mass,
    /// Angles in degrees.
    Angle,
    /// Energy in joules.
    Energy,
    /// Power in watts.
    Power,
    /// Stiffness, N·m per degree.
    Stiffness,
    /// Times in seconds.
    Time,
    /// Speeds, m/s, read in kilometres or miles an hour.
    Speed,
    /// Distances, m, read in kilometres or miles.
    Distance,
    /// Volumes, m³, read in litres or gallons.
    Volume,
    /// Forces in newtons, or pounds of force.
    Force,
    /// Hours of the day, read as on a clock.
    Clock,
    /// Shares of a whole, read in per cent.
    Share,
    /// Money in the shop's own currency.
    Money,
    /// Bare numbers.
    Ratio,
}

/// Units a person reads.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum System {
    /// Metres, kilograms.
    #[default]
    Metric,
    /// Feet, inches, pounds.
    Imperial,
}

impl System {
    /// The unit's sign for a dimension, as printed behind a number.
    #[must_use]
    pub const fn unit(self, dimension: Dimension) -> &'static str {
        match (dimension, self) {
            (Dimension::Length, Self::Metric) => "m",
            (Dimension::Length, Self::Imperial) => "ft",
            (Dimension::ShortLength, Self::Metric) => "cm",
            (Dimension::FineLength, Self::Metric) => "mm",
            (Dimension::ShortLength | Dimension::FineLength, Self::Imperial) => "in",
            (Dimension::Mass, Self::Metric) => "kg",
            (Dimension::Mass, Self::Imperial) => "lb",
            (Dimension::Angle, _) => "°",
            (Dimension::Energy, _) => "J",
            (Dimension::Power, _) => "W",
            (Dimension::Stiffness, _) => "N·m/°",
            (Dimension::Time, _) => "s",
            (Dimension::Speed, Self::Metric) => "km/h",
            (Dimension::Speed, Self::Imperial) => "mph",
            (Dimension::Distance, Self::Metric) => "km",
            (Dimension::Distance, Self::Imperial) => "mi",
            (Dimension::Volume, Self::Metric) => "l",
            (Dimension::Volume, Self::Imperial) => "gal",
            (Dimension::Force, Self::Metric) => "N",
            (Dimension::Force, Self::Imperial) => "lbf",
            (Dimension::Share, _) => "%",
            (Dimension::Clock | Dimension::Money | Dimension::Ratio, _) => "",
        }
    }

    /// A number in SI brought to the unit of [`System::unit`].
    #[must_use]
    pub fn convert(self, dimension: Dimension, si: f64) -> f64 {
        match (dimension, self) {
            (Dimension::Length, Self::Imperial) => si / FOOT,
            (Dimension::ShortLength, Self::Metric) => si * 100.0,
            (Dimension::FineLength, Self::Metric) => si * 1000.0,
            (Dimension::ShortLength | Dimension::FineLength, Self::Imperial) => si / INCH,
            (Dimension::Mass, Self::Imperial) => si / POUND,
            (Dimension::Speed, Self::Metric) => si / KM_PER_HOUR,
            (Dimension::Speed, Self::Imperial) => si / MILE_PER_HOUR,
            (Dimension::Distance, Self::Metric) => si / 1000.0,
            (Dimension::Distance, Self::Imperial) => si / MILE,
            (Dimension::Volume, Self::Metric) => si * 1000.0,
            (Dimension::Volume, Self::Imperial) => si / GALLON,
            (Dimension::Force, Self::Imperial) => si / (POUND * super::GRAVITY),
            (Dimension::Share, _) => si * 100.0,
            _ => si,
        }
    }

    /// Decimals shown beside the metric ones: an inch is coarser than a
    /// millimetre, a foot than a metre.
    #[must_use]
    pub const fn decimals(self, dimension: Dimension, metric: usize) -> usize {
        match (dimension, self) {
            (Dimension::ShortLength, Self::Imperial) => metric + 1,
            (Dimension::FineLength, Self::Imperial) => metric + 2,
            _ => metric,
        }
    }

    /// The number alone, without its unit. A minus sign is a real one, and a
    /// number that rounds to zero carries none.
    #[must_use]
    pub fn number(self, dimension: Dimension, si: f64, metric_decimals: usize) -> String {
        let decimals = self.decimals(dimension, metric_decimals);
        let text = format!("{:.*}", decimals, self.convert(dimension, si));
        match text.strip_prefix('-') {
            Some(rest) if rest.chars().all(|c| c == '0' || c == '.') => rest.to_owned(),
            Some(rest) => format!("\u{2212}{rest}"),
            None => text,
        }
    }

    /// Number and unit.
    #[must_use]
    pub fn text(self, dimension: Dimension, si: f64, metric_decimals: usize) -> String {
        let number = self.number(dimension, si, metric_decimals);
        match (dimension, self) {
            (Dimension::Clock, _) => on_the_clock(si),
            (Dimension::Length, Self::Imperial) => feet_and_inches(si),
            (Dimension::Angle, _) => format!("{number}°"),
            _ => match self.unit(dimension) {
                "" => number,
                unit => format!("{number}\u{a0}{unit}"),
            },
        }
    }
}

/// An hour of the day as a clock shows it, to the minute: `17:05`. What lies before midnight
/// is of the day before.
fn on_the_clock(hours: f64) -> String {
    let minutes = (60.0 * hours).round().rem_euclid(24.0 * 60.0);
    format!("{:02.0}:{:02.0}", (minutes / 60.0).floor(), minutes % 60.0)
}

/// A length as feet and inches to the half inch, `12′ 4½″`.
#[must_use]
pub fn feet_and_inches(metres: f64) -> String {
    let halves = (metres.abs() / INCH * 2.0).round() as i64;
    let sign = if metres < 0.0 && halves > 0 {
        "\u{2212}"
    } else {
        ""
    };
    let (feet, rest) = (halves / 24, halves % 24);
    let half = if rest % 2 == 1 { "½" } else { "" };
    let inches = match (rest / 2, half) {
        (0, "½") => "½".to_owned(),
        (n, half) => format!("{n}{half}"),
    };
    format!("{sign}{feet}\u{2032}\u{a0}{inches}\u{2033}")
}

/// A number outside its accepted range.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error("{what} must lie between {} and {}{unit}, not {}", self.end(*lo, f64::ceil), self.end(*hi, f64::floor), self.refused())]
pub struct OutOfRange {
    /// What was being set.
    pub what: &'static str,
    /// The value refused (SI).
    pub value: f64,
    /// Least accepted (SI).
    pub lo: f64,
    /// Most accepted (SI).
    pub hi: f64,
    /// Unit the message is in, with a leading space, or nothing.
    pub unit: &'static str,
    /// That unit in SI: 0.0254 for inches.
    pub scale: f64,
}

impl OutOfRange {
    /// The same, told in the unit the value was written in: `scale` is that unit
    /// in SI. Nothing changes for what has no unit.
    #[must_use]
    pub(super) fn written_in(self, scale: f64) -> Self {
        let unit = match (self.unit, scale) {
            (" m", FOOT) => " ft",
            (" m", INCH) => " in",
            (" m", 0.01) => " cm",
            (" m", 0.001) => " mm",
            (" m", 1000.0) => " km",
            (" m", MILE) => " mi",
            (" m/s", KM_PER_HOUR) => " km/h",
            (" m/s", MILE_PER_HOUR) => " mph",
            (" m/s", KNOT) => " kn",
            (" kg", POUND) => " lb",
            (" kg", 0.001) => " g",
            _ => return self,
        };
        Self {
            unit,
            scale,
            ..self
        }
    }

    /// An end of the range; one that is not round is shortened inward, so that
    /// what is said to be accepted is.
    fn end(&self, si: f64, inward: fn(f64) -> f64) -> String {
        let value = si / self.scale;
        let round = (value * 100.0).round() / 100.0;
        if (value - round).abs() < 1e-9 || self.scale == 1.0 {
            return plain(value);
        }
        plain(inward(value * 100.0) / 100.0)
    }

    /// The value refused, as short as it can be told from the range's ends.
    fn refused(&self) -> String {
        let value = self.value / self.scale;
        let short = plain(value);
        let ends = [self.end(self.lo, f64::ceil), self.end(self.hi, f64::floor)];
        if ends.contains(&short) {
            value.to_string()
        } else {
            short
        }
    }
}

/// A number to four decimals at most, as people write it.
fn plain(value: f64) -> String {
    if !value.is_finite() || value.abs() >= 1e9 {
        return format!("{value:e}");
    }
    let text = format!("{value:.4}");
    let short = text.trim_end_matches('0').trim_end_matches('.');
    if short == "-0" { "0" } else { short }.to_owned()
}

/// An accepted range, SI, with its name.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bounds {
    /// What is bounded, in plain words.
    pub what: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Least accepted (SI).
    pub lo: f64,
    /// Most accepted (SI).
    pub hi: f64,
}

impl Bounds {
    /// A named range.
    #[must_use]
    pub const fn new(what: &'static str, dimension: Dimension, lo: f64, hi: f64) -> Self {
        Self {
            what,
            dimension,
            lo,
            hi,
        }
    }

    /// Lets a finite number within the range through.
    ///
    /// # Errors
    /// [`OutOfRange`] with the range, also for NaN and infinities.
    pub fn check(&self, value: f64) -> Result<f64, OutOfRange> {
        if value.is_finite() && value >= self.lo && value <= self.hi {
            return Ok(value);
        }
        Err(OutOfRange {
            what: self.what,
            value,
            lo: self.lo,
            hi: self.hi,
            unit: match self.dimension {
                Dimension::Length
                | Dimension::ShortLength
                | Dimension::FineLength
                | Dimension::Distance => " m",
                Dimension::Mass => " kg",
                Dimension::Speed => " m/s",
                Dimension::Angle => "°",
                _ => "",
            },
            scale: 1.0,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn refused_numbers_are_short_and_still_outside() {
        let weight = Bounds::new("mass", Dimension::Mass, 25.0, 220.0);
        let say = |v: f64| weight.check(v).unwrap_err().to_string();
        assert!(say(20.0 * POUND).ends_with("between 25 and 220 kg, not 9.0718"));
        assert!(say(24.999_999).ends_with("not 24.999999"));
        assert!(say(f64::NAN).ends_with("not NaN"));
        assert!(say(1e300).ends_with("not 1e300"));
        let pounds = weight.check(20.0 * POUND).unwrap_err().written_in(POUND);
        // 25 kg are 55.1156 lb, 220 kg 485.0170 lb: rounded inward.
        assert!(
            pounds
                .to_string()
                .ends_with("between 55.12 and 485.01 lb, not 20")
        );
    }

    #[test]
    fn numbers_are_written_in_the_readers_units() {
        assert_eq!(
            System::Imperial.text(Dimension::Length, 3.7592, 2),
            "12′\u{a0}4″"
        );
        assert_eq!(
            System::Metric.text(Dimension::ShortLength, 0.062, 1),
            "6.2\u{a0}cm"
        );
        assert_eq!(System::Metric.number(Dimension::Mass, -3.2, 0), "\u{2212}3");
        assert_eq!(System::Metric.number(Dimension::Mass, -0.2, 0), "0");
        assert_eq!(feet_and_inches(0.0127), "0′\u{a0}½″");
    }
}

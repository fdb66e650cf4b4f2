//! Quantities as people type them: any unit, decimal comma or point, feet and
//! inches, thousands set apart; what can be read two ways is asked about.

mod kinds;

use super::fraction::with_fraction;
use super::units::{
    Bounds, Dimension, FOOT, GALLON, GRAVITY, INCH, KM_PER_HOUR, MILE, MILE_PER_HOUR, OutOfRange,
    POUND, System,
};
use kinds::{
    parse_by, parse_clock, parse_distance, parse_length, parse_mass, parse_money, parse_plain,
    parse_speed,
};
use thiserror::Error;

/// Why a typed quantity was not understood.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum QuantityError {
    /// Nothing was typed.
    #[error("a number is needed here, for example {example}")]
    Empty {
        /// Something that would be accepted.
        example: &'static str,
    },
    /// Not a number with a known unit.
    #[error("“{text}” is not understood here; write for example {example}")]
    NotUnderstood {
        /// What was typed, shortened.
        text: String,
        /// Something that would be accepted.
        example: &'static str,
    },
    /// A comma that sets a thousand apart for some and is the decimal sign for
    /// others: never guessed.
    #[error("“{text}” can be read two ways: write {thousand} or {part}")]
    Ambiguous {
        /// What was typed, shortened.
        text: String,
        /// The number without its comma.
        thousand: String,
        /// The number with a decimal point.
        part: String,
    },
    /// Understood, but outside what makes sense.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
}

impl Bounds {
    /// Reads what a person typed; a bare number is in `bare` units.
    ///
    /// # Errors
    /// [`QuantityError`] that says what would be accepted.
    pub fn parse(&self, text: &str, bare: Bare) -> Result<f64, QuantityError> {
        let (number, scale) = match self.dimension {
            Dimension::Length | Dimension::ShortLength | Dimension::FineLength => {
                parse_length(text, bare)
            }
            Dimension::Mass => parse_mass(text, bare),
            Dimension::Distance => parse_distance(text, bare),
            Dimension::Money => parse_money(text).map(|n| (n, 1.0)),
            Dimension::Speed => parse_speed(text, bare),
            Dimension::Clock => parse_clock(text).map(|n| (n, 1.0)),
            Dimension::Volume => parse_by(text, &[("l", 1e-3), ("gal", GALLON), ("", 1e-3)]),
            Dimension::Force => parse_by(text, &[("n", 1.0), ("lbf", POUND * GRAVITY), ("", 1.0)]),
            Dimension::Time => {
                parse_by(text, &[("s", 1.0), ("min", 60.0), ("h", 3600.0), ("", 1.0)])
            }
            _ => parse_plain(text, System::Metric.unit(self.dimension)).map(|n| (n, 1.0)),
        }?;
        let checked = self.check(in_si(number, scale));
        Ok(checked.map_err(|refused| refused.written_in(scale))?)
    }

    /// What was typed, a bare number with the unit it was meant in, so that it is read
    /// alike whoever reads it: that of a system of units, SI where none is said.
    #[must_use]
    pub fn with_unit(&self, text: &str, system: Option<System>) -> String {
        use Dimension::{Distance, FineLength, Length, ShortLength, Speed};
        let bare = matches!(written(text), Written::Number(_));
        let unit = match (system, self.dimension) {
            (Some(system), dimension) => system.unit(dimension),
            (None, Length | ShortLength | FineLength | Distance) => "m",
            (None, Speed) => "m/s",
            (None, other) => System::Metric.unit(other),
        };
        match unit {
            unit if bare && !unit.is_empty() => format!("{} {unit}", text.trim()),
            _ => text.to_owned(),
        }
    }
}

/// A number of units that measure `scale` in SI. Decimal ones are divided, so
/// that 73.2 cm are 0.732 m to the last digit.
fn in_si(number: f64, scale: f64) -> f64 {
    // To a tenth: of kilometres an hour there are 3.6 to a metre a second.
    let parts = (10.0 / scale).round() / 10.0;
    if parts > 1.0 && (parts * scale - 1.0).abs() < 1e-12 {
        number / parts
    } else {
        number * scale
    }
}

/// What a number without a unit means in the field it was typed in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bare(f64);

impl Bare {
    /// The number is in SI already.
    pub const SI: Self = Self(1.0);
    /// Centimetres.
    pub const CENTIMETRES: Self = Self(0.01);
    /// Millimetres.
    pub const MILLIMETRES: Self = Self(0.001);
    /// Feet.
    pub const FEET: Self = Self(FOOT);
    /// Inches.
    pub const INCHES: Self = Self(INCH);
    /// Grams.
    pub const GRAMS: Self = Self(0.001);
    /// Pounds.
    pub const POUNDS: Self = Self(POUND);
    /// Kilometres an hour.
    pub const KM_PER_HOUR: Self = Self(KM_PER_HOUR);
    /// Miles an hour.
    pub const MILES_PER_HOUR: Self = Self(MILE_PER_HOUR);
    /// Kilometres.
    pub const KILOMETRES: Self = Self(1000.0);
    /// Miles.
    pub const MILES: Self = Self(MILE);
}

const LENGTH_EXAMPLE: &str = "3.76 m, 376 cm or 12' 4\"";
const MASS_EXAMPLE: &str = "29.0 kg or 64 lb";
const DISTANCE_EXAMPLE: &str = "8 km or 5 mi";
const SPEED_EXAMPLE: &str = "6 km/h, 4 mph or 3 kn";
const PLAIN_EXAMPLE: &str = "0.8";
const MONEY_EXAMPLE: &str = "1290 or € 1290";

fn refuse(text: &str, example: &'static str) -> QuantityError {
    if text.trim().is_empty() {
        return QuantityError::Empty { example };
    }
    QuantityError::NotUnderstood {
        text: text.chars().take(40).collect(),
        example,
    }
}

/// What a number was taken for.
enum Written {
    Number(f64),
    /// `1,290`: a thousand and more to some, one and a bit to others.
    Ambiguous(String, String),
    Nonsense,
}

/// A decimal number with point or comma, nothing else (no `inf`, no `nan`).
/// Thousands may be set apart where that cannot be misread: `1 290`, `1,290.5`.
fn written(text: &str) -> Written {
    if let Some(value) = with_fraction(text.trim()) {
        return Written::Number(value);
    }
    // `4½` is how we write it ourselves.
    let text = text.trim().replace('\u{2212}', "-").replace('½', ".5");
    let spaced = [' ', '\u{a0}', '\u{2009}', '\u{202f}', '\''];
    let mut digits = text.clone();
    if let Some(sign) = spaced.into_iter().find(|&s| text.contains(s)) {
        let whole = text.split(['.', ',']).next().unwrap_or_default();
        if !groups_of_three(whole, sign) {
            return Written::Nonsense;
        }
        digits = text.replace(sign, "");
    }
    let (points, commas) = (digits.matches('.').count(), digits.matches(',').count());
    let plain = match (points, commas) {
        (0, 1) => {
            let (whole, rest) = digits.split_once(',').unwrap_or_default();
            let bare = whole.trim_start_matches(['-', '+']);
            let thousand = groups_of_three(&digits, ',') && !bare.starts_with('0');
            if thousand && digits == text {
                return Written::Ambiguous(format!("{whole}{rest}"), {
                    let rest = rest.trim_end_matches('0');
                    format!("{whole}.{}", if rest.is_empty() { "0" } else { rest })
                });
            }
            digits.replace(',', ".")
        }
        (_, 0) if points < 2 => digits,
        // The last sign is the decimal one, the others set thousands apart.
        (1, _) if digits.rfind('.') > digits.rfind(',') => {
            let whole = digits.split('.').next().unwrap_or_default();
            if !groups_of_three(whole, ',') {
                return Written::Nonsense;
            }
            digits.replace(',', "")
        }
        (_, 1) if digits.rfind(',') > digits.rfind('.') => {
            let whole = digits.split(',').next().unwrap_or_default();
            if !groups_of_three(whole, '.') {
                return Written::Nonsense;
            }
            digits.replace('.', "").replace(',', ".")
        }
        (0, _) if groups_of_three(&digits, ',') => digits.replace(',', ""),
        (_, 0) if groups_of_three(&digits, '.') => digits.replace('.', ""),
        _ => return Written::Nonsense,
    };
    let only = |c: char| c.is_ascii_digit() || matches!(c, '.' | '-' | '+');
    if plain.is_empty() || !plain.chars().all(only) {
        return Written::Nonsense;
    }
    match plain.parse::<f64>() {
        Ok(value) if value.is_finite() => Written::Number(value),
        _ => Written::Nonsense,
    }
}

/// Whether `sign` parts the digits as it parts thousands.
fn groups_of_three(text: &str, sign: char) -> bool {
    let text = text.trim_start_matches(['-', '+']);
    let mut groups = text.split(sign);
    let digits = |g: &str| g.bytes().all(|b| b.is_ascii_digit());
    let first = groups.next().unwrap_or_default();
    (1..=3).contains(&first.len()) && digits(first) && groups.all(|g| g.len() == 3 && digits(g))
}

/// A number, or the error that says what would be one.
fn decimal(text: &str, whole: &str, example: &'static str) -> Result<f64, QuantityError> {
    match written(text) {
        Written::Number(value) => Ok(value),
        Written::Ambiguous(thousand, part) => Err(QuantityError::Ambiguous {
            text: text.trim().chars().take(40).collect(),
            thousand,
            part,
        }),
        Written::Nonsense => Err(refuse(whole, example)),
    }
}

/// Splits `12.3 kg` into number and unit.
fn split_unit(text: &str) -> (&str, &str) {
    let text = text.trim();
    let end = text
        .char_indices()
        .find(|(_, c)| c.is_alphabetic() || matches!(c, '\'' | '"' | '′' | '″' | '%' | '°'))
        .map_or(text.len(), |(i, _)| i);
    (text[..end].trim(), text[end..].trim())
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    const LENGTH: Bounds = Bounds::new("length", Dimension::Length, 0.0, 10.0);
    const MASS: Bounds = Bounds::new("mass", Dimension::Mass, 0.0, 500.0);

    #[test]
    fn a_bare_number_is_given_the_unit_it_was_meant_in() {
        let weighs = Bounds::new("weight", Dimension::Mass, 0.0, 500.0);
        let speed = Bounds::new("speed", Dimension::Speed, 0.0, 10.0);
        let day = Bounds::new("way", Dimension::Distance, 0.0, 1e5);
        let count = Bounds::new("seats", Dimension::Ratio, 0.0, 9.0);
        for (bounds, typed, system, written, si) in [
            (weighs, "195", System::Imperial, "195 lb", 88.450_512_15),
            (weighs, "88,5", System::Metric, "88,5 kg", 88.5),
            (weighs, "195 lb", System::Metric, "195 lb", 88.450_512_15),
            (LENGTH, "6' 1\"", System::Metric, "6' 1\"", 1.8542),
            (LENGTH, " 6 ", System::Imperial, "6 ft", 1.8288),
            (day, "5", System::Imperial, "5 mi", 8046.72),
            (speed, "5.4", System::Metric, "5.4 km/h", 1.5),
            (speed, "3", System::Imperial, "3 mph", 1.341_12),
            (speed, "3 kn", System::Metric, "3 kn", 1.543_333_333),
            (count, "2", System::Imperial, "2", 2.0),
        ] {
            assert_eq!(bounds.with_unit(typed, Some(system)), written);
            let read = bounds.parse(written, Bare::SI).unwrap();
            assert_relative_eq!(read, si, max_relative = 1e-9);
        }
        // Nonsense stays as it was typed.
        assert_eq!(weighs.with_unit("heavy", None), "heavy");
        assert_eq!(weighs.with_unit("", None), "");
        // Where nobody says, a number is SI and says so.
        for (bounds, said) in [
            (weighs, "80 kg"),
            (LENGTH, "80 m"),
            (day, "80 m"),
            (speed, "80 m/s"),
        ] {
            assert_eq!(bounds.with_unit("80", None), said);
        }
    }

    #[test]
    fn lengths_are_read_as_people_write_them() {
        for (text, metres) in [
            ("3.76 m", 3.76),
            ("3,76", 3.76),
            ("376cm", 3.76),
            ("12' 4\"", 12.0 * FOOT + 4.0 * INCH),
            ("12 ft 4 in", 12.0 * FOOT + 4.0 * INCH),
            ("12′4″", 12.0 * FOOT + 4.0 * INCH),
            ("12'4", 12.0 * FOOT + 4.0 * INCH),
            ("12.5 ft", 12.5 * FOOT),
            ("34 in", 34.0 * INCH),
            ("6′ ½″", 6.0 * FOOT + 0.5 * INCH),
            ("12′ 4½″", 12.0 * FOOT + 4.5 * INCH),
        ] {
            let read = LENGTH.parse(text, Bare::SI);
            assert_relative_eq!(read.unwrap(), metres, epsilon = 1e-12);
        }
    }

    #[test]
    fn masses_are_read_as_people_write_them() {
        // Not 0.7320000000000001.
        assert_eq!(LENGTH.parse("73.2", Bare::CENTIMETRES), Ok(0.732));
        assert_eq!(LENGTH.parse("135 mm", Bare::SI), Ok(0.135));
        for (text, kg) in [("29,0 kg", 29.0), ("64 lb", 64.0 * POUND), ("88", 88.0)] {
            assert_relative_eq!(MASS.parse(text, Bare::SI).unwrap(), kg, epsilon = 1e-12);
        }
        assert_relative_eq!(MASS.parse("100", Bare::POUNDS).unwrap(), 45.359_237);
    }

    #[test]
    fn a_comma_that_can_be_read_two_ways_is_asked_about() {
        const PRICE: Bounds = Bounds::new("price", Dimension::Money, 0.0, 50_000.0);
        for text in ["1,290", "€ 1,290", "1,290 EUR", "1.290", "1.290 €"] {
            let error = PRICE.parse(text, Bare::SI).unwrap_err().to_string();
            assert!(error.ends_with("write 1290 or 1.29"), "{error}");
        }
        let error = MASS.parse("1,290 kg", Bare::SI).unwrap_err().to_string();
        assert!(error.contains("can be read two ways"), "{error}");
        for (text, value) in [
            ("€ 1290", 1290.0),
            ("1290.50 $", 1290.5),
            ("1 290,50 €", 1290.5),
            ("1,290.5", 1290.5),
            ("1.290,5", 1290.5),
            ("1'290", 1290.0),
            ("12,345,678.5", 12_345_678.5),
            ("0,290", 0.29),
            ("1,29", 1.29),
            ("1,2900", 1.29),
        ] {
            let wide = Bounds::new("price", Dimension::Money, 0.0, 1e8);
            assert_eq!(wide.parse(text, Bare::SI), Ok(value), "{text}");
        }
        for text in [
            "1,29,0", "1 29", "1.2.3", "12,34.5", "1,290,5", "€", "1e5", ",", ".",
        ] {
            assert!(PRICE.parse(text, Bare::SI).is_err(), "{text}");
        }
    }

    #[test]
    fn nonsense_is_refused_with_an_example() {
        for text in [
            "", "inf", "NaN", "1e9", "12' 14\"", "3 m 4", "--3", "3 stone", "'", "9'9'9",
        ] {
            let error = LENGTH.parse(text, Bare::SI).unwrap_err().to_string();
            assert!(error.contains("3.76 m"), "{text}: {error}");
        }
        let error = MASS.parse("900 kg", Bare::SI).unwrap_err().to_string();
        assert_eq!(error, "mass must lie between 0 and 500 kg, not 900");
    }
}

//! Units at the edges: reading what people type, writing what they read.
//!
//! Everything inside is SI. Here a field such as `12' 4"`, `3.76 m`, `64 lb`
//! or `29,0 kg` becomes a number, and a number becomes words in the reader's
//! own units.

use thiserror::Error;

/// Standard gravity, m/s² (ISO 80000-3).
pub const GRAVITY: f64 = 9.806_65;
/// The international foot and inch, m.
pub const FOOT: f64 = 0.3048;
/// See [`FOOT`].
pub const INCH: f64 = 0.0254;
/// The international mile, m.
pub const MILE: f64 = 1609.344;
/// The international avoirdupois pound, kg.
pub const POUND: f64 = 0.453_592_37;

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
            (Dimension::Money | Dimension::Ratio, _) => "",
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
            (Dimension::Speed, Self::Metric) => si * 3.6,
            (Dimension::Speed, Self::Imperial) => si * 3600.0 / MILE,
            (Dimension::Distance, Self::Metric) => si / 1000.0,
            (Dimension::Distance, Self::Imperial) => si / MILE,
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
            (Dimension::Length, Self::Imperial) => feet_and_inches(si),
            (Dimension::Angle, _) => format!("{number}°"),
            _ => match self.unit(dimension) {
                "" => number,
                unit => format!("{number}\u{a0}{unit}"),
            },
        }
    }
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

/// A number outside its accepted range.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error("{what} must lie between {} and {}{unit}, not {}", plain(*lo), plain(*hi), self.refused())]
pub struct OutOfRange {
    /// What was being set.
    pub what: &'static str,
    /// The value refused (SI).
    pub value: f64,
    /// Least accepted (SI).
    pub lo: f64,
    /// Most accepted (SI).
    pub hi: f64,
    /// SI unit with a leading space, or nothing.
    pub unit: &'static str,
}

impl OutOfRange {
    /// The value refused, as short as it can be told from the range's ends.
    fn refused(&self) -> String {
        let short = plain(self.value);
        let like_an_end = [self.lo, self.hi].map(plain).contains(&short);
        if like_an_end {
            self.value.to_string()
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
                Dimension::Length | Dimension::ShortLength | Dimension::FineLength => " m",
                Dimension::Mass => " kg",
                Dimension::Angle => "°",
                _ => "",
            },
        })
    }

    /// Reads what a person typed; a bare number is in `bare` units.
    ///
    /// # Errors
    /// [`QuantityError`] that says what would be accepted.
    pub fn parse(&self, text: &str, bare: Bare) -> Result<f64, QuantityError> {
        let value = match self.dimension {
            Dimension::Length | Dimension::ShortLength | Dimension::FineLength => {
                parse_length(text, bare)
            }
            Dimension::Mass => parse_mass(text, bare),
            Dimension::Money => parse_money(text),
            _ => parse_plain(text),
        }?;
        Ok(self.check(value)?)
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
    /// Pounds.
    pub const POUNDS: Self = Self(POUND);
}

const LENGTH_EXAMPLE: &str = "3.76 m, 376 cm or 12' 4\"";
const MASS_EXAMPLE: &str = "29.0 kg or 64 lb";
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

fn parse_plain(text: &str) -> Result<f64, QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit {
        "" | "°" => 1.0,
        "%" => 0.01,
        _ => return Err(refuse(text, PLAIN_EXAMPLE)),
    };
    Ok(decimal(number, text, PLAIN_EXAMPLE)? * scale)
}

/// A price, its currency's sign or letters before or behind it left aside.
fn parse_money(text: &str) -> Result<f64, QuantityError> {
    let number =
        text.trim_matches(|c: char| c.is_alphabetic() || c.is_whitespace() || "€£$¥".contains(c));
    decimal(number, text, MONEY_EXAMPLE)
}

fn parse_mass(text: &str, bare: Bare) -> Result<f64, QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit.to_lowercase().as_str() {
        "" => bare.0,
        "kg" | "kilo" | "kilos" => 1.0,
        "g" => 0.001,
        "lb" | "lbs" | "pound" | "pounds" => POUND,
        _ => return Err(refuse(text, MASS_EXAMPLE)),
    };
    Ok(decimal(number, text, MASS_EXAMPLE)? * scale)
}

fn parse_length(text: &str, bare: Bare) -> Result<f64, QuantityError> {
    let refused = || refuse(text, LENGTH_EXAMPLE);
    let (number, unit) = split_unit(text);
    let value = decimal(number, text, LENGTH_EXAMPLE)?;
    let unit = unit.to_lowercase();
    let scale = match unit.as_str() {
        "" => bare.0,
        "m" => 1.0,
        "cm" => 0.01,
        "mm" => 0.001,
        "in" | "inch" | "inches" | "\"" | "″" => INCH,
        "ft" | "foot" | "feet" | "'" | "′" => FOOT,
        _ => return feet_then_inches(value, &unit).ok_or_else(refused),
    };
    Ok(value * scale)
}

/// The rest of `12' 4"`, `12 ft 4 in`, `12'4`: feet known, inches to read.
fn feet_then_inches(feet: f64, rest: &str) -> Option<f64> {
    let inches = ["feet", "ft", "'", "′"]
        .iter()
        .find_map(|mark| rest.strip_prefix(mark))?;
    let (number, unit) = split_unit(inches);
    if !matches!(unit, "" | "in" | "inch" | "inches" | "\"" | "″") {
        return None;
    }
    let Written::Number(inches) = written(number) else {
        return None;
    };
    if !(0.0..12.0).contains(&inches) {
        return None;
    }
    (feet >= 0.0).then_some(feet * FOOT + inches * INCH)
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    const LENGTH: Bounds = Bounds::new("length", Dimension::Length, 0.0, 10.0);
    const MASS: Bounds = Bounds::new("mass", Dimension::Mass, 0.0, 500.0);

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
        for (text, kg) in [("29,0 kg", 29.0), ("64 lb", 64.0 * POUND), ("88", 88.0)] {
            assert_relative_eq!(MASS.parse(text, Bare::SI).unwrap(), kg, epsilon = 1e-12);
        }
        assert_relative_eq!(MASS.parse("100", Bare::POUNDS).unwrap(), 45.359_237);
    }

    #[test]
    fn a_comma_that_can_be_read_two_ways_is_asked_about() {
        const PRICE: Bounds = Bounds::new("price", Dimension::Money, 0.0, 50_000.0);
        for text in ["1,290", "€ 1,290", "1,290 EUR"] {
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
    fn refused_numbers_are_short_and_still_outside() {
        let weight = Bounds::new("mass", Dimension::Mass, 25.0, 220.0);
        let say = |v: f64| weight.check(v).unwrap_err().to_string();
        assert!(say(20.0 * POUND).ends_with("between 25 and 220 kg, not 9.0718"));
        assert!(say(24.999_999).ends_with("not 24.999999"));
        assert!(say(f64::NAN).ends_with("not NaN"));
        assert!(say(1e300).ends_with("not 1e300"));
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

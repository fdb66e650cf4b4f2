//! Each kind of quantity as it is typed: its units, feet and inches, hours, money.

use super::super::units::{FOOT, INCH, KM_PER_HOUR, KNOT, MILE, MILE_PER_HOUR, POUND};
use super::{
    Bare, DISTANCE_EXAMPLE, LENGTH_EXAMPLE, MASS_EXAMPLE, MONEY_EXAMPLE, PLAIN_EXAMPLE,
    QuantityError, SPEED_EXAMPLE, Written, decimal, groups_of_three, refuse, split_unit, written,
};

/// A number that has one unit only, `sign`.
pub(super) fn parse_plain(text: &str, sign: &str) -> Result<f64, QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit {
        "" | "°" => 1.0,
        "%" => 0.01,
        unit if unit == sign => 1.0,
        _ => return Err(refuse(text, PLAIN_EXAMPLE)),
    };
    Ok(decimal(number, text, PLAIN_EXAMPLE)? * scale)
}

/// What is accepted as an hour of the day.
const CLOCK_EXAMPLE: &str = "20:30 or 8:30 pm";

/// An hour of the day: `20:30`, `20.5`, `8 pm`.
pub(super) fn parse_clock(text: &str) -> Result<f64, QuantityError> {
    let said = text.trim().to_lowercase();
    let (said, noon) = match (said.strip_suffix("pm"), said.strip_suffix("am")) {
        (Some(rest), _) => (rest.trim(), 12.0),
        (None, Some(rest)) => (rest.trim(), 0.0),
        (None, None) => (said.trim(), f64::NAN),
    };
    let hours = match said.split_once([':', 'h']) {
        Some((hours, minutes)) => {
            let minutes = match minutes.trim() {
                "" => 0.0,
                typed => decimal(typed, text, CLOCK_EXAMPLE)?,
            };
            if !(0.0..60.0).contains(&minutes) {
                return Err(refuse(text, CLOCK_EXAMPLE));
            }
            decimal(hours, text, CLOCK_EXAMPLE)? + minutes / 60.0
        }
        None => decimal(said, text, CLOCK_EXAMPLE)?,
    };
    if noon.is_nan() {
        return Ok(hours);
    }
    if !(1.0..13.0).contains(&hours) {
        return Err(refuse(text, CLOCK_EXAMPLE));
    }
    Ok(hours % 12.0 + noon)
}

/// A price, its currency's sign or letters before or behind it left aside.
pub(super) fn parse_money(text: &str) -> Result<f64, QuantityError> {
    let number =
        text.trim_matches(|c: char| c.is_alphabetic() || c.is_whitespace() || "€£$¥".contains(c));
    // No price has three decimals: a point before three digits sets thousands apart for
    // some and is a slip for others.
    if let Some((whole, part)) = number.split_once('.')
        && groups_of_three(number, '.')
        && !part.contains('.')
        && whole != "0"
    {
        let rest = part.trim_end_matches('0');
        return Err(QuantityError::Ambiguous {
            text: text.trim().chars().take(40).collect(),
            thousand: format!("{whole}{part}"),
            part: format!("{whole}.{}", if rest.is_empty() { "0" } else { rest }),
        });
    }
    decimal(number, text, MONEY_EXAMPLE)
}

/// The number, and its unit in kg.
pub(super) fn parse_mass(text: &str, bare: Bare) -> Result<(f64, f64), QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit.to_lowercase().as_str() {
        "" => bare.0,
        "kg" | "kilo" | "kilos" => 1.0,
        "g" => 0.001,
        "lb" | "lbs" | "pound" | "pounds" => POUND,
        _ => return Err(refuse(text, MASS_EXAMPLE)),
    };
    Ok((decimal(number, text, MASS_EXAMPLE)?, scale))
}

/// The number, and its unit in m/s.
pub(super) fn parse_speed(text: &str, bare: Bare) -> Result<(f64, f64), QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit.to_lowercase().as_str() {
        "" => bare.0,
        "m/s" => 1.0,
        "km/h" => KM_PER_HOUR,
        "mph" | "mi/h" => MILE_PER_HOUR,
        "kn" | "kt" | "kts" => KNOT,
        _ => return Err(refuse(text, SPEED_EXAMPLE)),
    };
    Ok((decimal(number, text, SPEED_EXAMPLE)?, scale))
}

/// The number, and what its unit is in SI, of some units in small letters.
pub(super) fn parse_by(text: &str, units: &[(&str, f64)]) -> Result<(f64, f64), QuantityError> {
    let (number, unit) = split_unit(text);
    let unit = unit.to_lowercase();
    let known = units.iter().find(|(sign, _)| *sign == unit);
    let (_, scale) = known.ok_or_else(|| refuse(text, PLAIN_EXAMPLE))?;
    Ok((decimal(number, text, PLAIN_EXAMPLE)?, *scale))
}

/// The number, and its unit in metres: what is gone over water.
pub(super) fn parse_distance(text: &str, bare: Bare) -> Result<(f64, f64), QuantityError> {
    let (number, unit) = split_unit(text);
    let scale = match unit.to_lowercase().as_str() {
        "" => bare.0,
        "km" => 1000.0,
        "mi" | "mile" | "miles" => MILE,
        "m" => 1.0,
        _ => return Err(refuse(text, DISTANCE_EXAMPLE)),
    };
    Ok((decimal(number, text, DISTANCE_EXAMPLE)?, scale))
}

/// The number, and its unit in metres.
pub(super) fn parse_length(text: &str, bare: Bare) -> Result<(f64, f64), QuantityError> {
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
        _ => {
            let feet = feet_then_inches(value, &unit).ok_or_else(refused)?;
            return Ok((feet, FOOT));
        }
    };
    Ok((value, scale))
}

/// The rest of `12' 4"`, `12 ft 4 in`, `12'4`: feet known, inches to read; in
/// feet.
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
    (feet >= 0.0).then_some(feet + inches / 12.0)
}

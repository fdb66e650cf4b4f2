//! Tables of countries where the comma is the decimal sign.

/// The number of a figure's cell, before a bracket.
fn number_of(part: &str) -> &str {
    part.split('(').next().unwrap_or_default().trim()
}

/// Whether some of a row's figures has a comma that can only be the decimal sign:
/// `3,76` or `0,135`, where `1,290` would leave it open.
pub(super) fn has_decimal_comma<'a>(mut figures: impl Iterator<Item = &'a str>) -> bool {
    let shows = |part: &str| {
        let number = number_of(part);
        let Some((whole, rest)) = number.split_once(',') else {
            return false;
        };
        let digits = rest.chars().take_while(char::is_ascii_digit).count();
        let once = !rest.contains(',') && !number.contains('.');
        once && digits > 0 && (digits != 3 || whole.trim() == "0")
    };
    figures.any(|cell| cell.split('|').any(shows))
}

/// The digits of a number in which points set thousands apart, as they do where the
/// comma is the decimal sign: `1.290`, `2.890 €`; else `None`.
fn thousands(number: &str) -> Option<String> {
    let digits = |c: char| c.is_ascii_digit() || c == '.';
    let from = number.find(|c: char| c.is_ascii_digit())?;
    let tail = &number[from..];
    let plain = &tail[..tail.find(|c| !digits(c)).unwrap_or(tail.len())];
    let mut groups = plain.split('.');
    let first = groups
        .next()
        .filter(|g| (1..=3).contains(&g.len()) && *g != "0")?;
    let rest: Vec<&str> = groups.collect();
    let whole = !rest.is_empty() && rest.iter().all(|g| g.len() == 3);
    // What follows is a unit or nothing, no further number.
    let after = &tail[plain.len()..];
    (whole && !after.contains(|c: char| c.is_ascii_digit() || c == ','))
        .then(|| format!("{}{first}{}{after}", &number[..from], rest.concat()))
}

/// The same figure with a decimal point, and no points that set thousands apart.
pub(super) fn with_point(part: &str) -> std::borrow::Cow<'_, str> {
    let number = number_of(part);
    if let Some(plain) = thousands(number) {
        let lead = part.len() - part.trim_start().len();
        let rest = &part[lead + number.len()..];
        return format!("{plain}{rest}").into();
    }
    if number.contains('.') || number.matches(',').count() != 1 {
        return part.into();
    }
    let end = part.len() - part.trim_start().len() + number.len();
    let (number, rest) = part.split_at(end);
    format!("{}{rest}", number.replace(',', ".")).into()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn where_the_comma_is_the_decimal_sign_a_point_parts_thousands() {
        for (cell, point) in [
            ("1.290", "1290"),
            ("2.890 €", "2890 €"),
            ("€ 2.890 (label)", "€ 2890 (label)"),
            ("12.345.678", "12345678"),
            ("3,76", "3.76"),
            ("0,135 m (tape)", "0.135 m (tape)"),
            ("3.76", "3.76"),
            ("0.290", "0.290"),
            ("1.290,50", "1.290,50"),
        ] {
            assert_eq!(with_point(cell), point, "{cell}");
        }
    }
}

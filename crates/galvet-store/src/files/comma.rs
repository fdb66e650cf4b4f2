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

/// The same figure with a decimal point.
pub(super) fn with_point(part: &str) -> std::borrow::Cow<'_, str> {
    let number = number_of(part);
    if number.contains('.') || number.matches(',').count() != 1 {
        return part.into();
    }
    let end = part.len() - part.trim_start().len() + number.len();
    let (number, rest) = part.split_at(end);
    format!("{}{rest}", number.replace(',', ".")).into()
}

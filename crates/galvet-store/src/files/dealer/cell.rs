//! What somebody wrote in a cell: a figure with its fractions, brackets and two units at
//! once. What can be read two ways is not read.

use super::vocabulary::{bare, same, unit};
use galvet_core::base::{Bare, Bounds, QuantityError};

/// What a weight is said to include.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Basis {
    /// The hull alone.
    Bare,
    /// Seat and drive as sold.
    Fitted,
}

/// A figure read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Figure {
    /// Its value, SI.
    pub(super) si: f64,
    /// What it says it includes.
    pub(super) basis: Option<Basis>,
}

/// Why a cell was not read.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) enum Unread {
    /// It names no unit, and neither does its column.
    Unit,
    /// Its comma or point parts thousands for some and decimals for others.
    TwoWays,
    /// In these words.
    Wrong(String),
}

/// How the bare numbers of a column are meant.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Column<'a> {
    /// Our sign of their unit.
    pub(super) unit: Option<&'a str>,
    /// Whether a comma is the decimal sign, where that is known.
    pub(super) comma: Option<bool>,
}

/// Cells that say nothing.
const NOTHING: [&str; 15] = [
    "",
    "-",
    "--",
    "–",
    "—",
    "n/a",
    "na",
    "n.a.",
    "tbd",
    "tba",
    "?",
    "unknown",
    "not stated",
    "not given",
    "none given",
];

/// Whether a cell says nothing.
pub(super) fn is_nothing(cell: &str) -> bool {
    NOTHING.contains(&cell.trim().to_lowercase().as_str())
}

/// Words in brackets about a weight.
pub(super) fn basis(words: &str) -> Option<Basis> {
    let lower = words
        .to_lowercase()
        .replace(['(', ')', '/', '.', ',', '-'], " ");
    let words: Vec<&str> = lower.split_whitespace().collect();
    let has = |word: &str| words.contains(&word);
    let without = has("without")
        || has("w o")
        || has("no")
        || lower.contains("w o ")
        || has("excl")
        || has("excluding")
        || has("less");
    let fitting = has("seat") || has("drive") || has("pedals") || has("gear") || has("accessories");
    let rest = [
        "approx",
        "about",
        "est",
        "with",
        "w",
        "incl",
        "including",
        "without",
        "o",
        "no",
        "excl",
        "excluding",
        "less",
        "seat",
        "drive",
        "pedals",
        "gear",
        "accessories",
        "and",
        "hull",
        "only",
        "alone",
        "bare",
        "kayak",
        "fitted",
        "rigged",
        "fully",
        "complete",
        "assembled",
        "as",
        "sold",
        "the",
        "weight",
        "rudder",
        "all",
        "up",
    ];
    if words.is_empty() || words.iter().any(|w| !rest.contains(w)) {
        return None;
    }
    if (without && fitting) || has("bare") || has("hull") || has("only") || has("alone") {
        Some(Basis::Bare)
    } else if fitting
        || has("fitted")
        || has("rigged")
        || has("complete")
        || has("assembled")
        || lower.contains("all up")
    {
        Some(Basis::Fitted)
    } else {
        None
    }
}

/// Signs as we write them: one mark for feet, one for inches, units in our letters.
#[must_use]
pub fn signs(cell: &str) -> String {
    let mut out = cell
        .replace("''", "\"")
        .replace("’’", "\"")
        .replace(['”', '“', '″'], "\"")
        .replace(['’', '‘', '′', '`'], "'")
        .replace(['\u{a0}', '\u{2009}', '\u{202f}'], " ");
    for (sign, part) in [
        ('½', " 1/2"),
        ('¼', " 1/4"),
        ('¾', " 3/4"),
        ('⅛', " 1/8"),
        ('⅜', " 3/8"),
        ('⅝', " 5/8"),
        ('⅞', " 7/8"),
        ('⅓', " 1/3"),
        ('⅔', " 2/3"),
    ] {
        out = out.replace(sign, part);
    }
    let out = out
        .trim()
        .trim_end_matches(['*', '†', '‡', '¹', '²'])
        .trim_end();
    let lower = out.to_lowercase();
    let about = [
        "approximately",
        "approx.",
        "approx",
        "about",
        "circa",
        "ca.",
        "ca ",
        "~",
        "≈",
        "up to",
        "max.",
        "max ",
    ];
    let lead = about
        .iter()
        .find(|w| lower.starts_with(**w))
        .map_or(0, |w| w.len());
    spelled(out.get(lead..).unwrap_or(out).trim())
}

/// Units as we write them, without the point some put behind.
fn spelled(text: &str) -> String {
    let mut out = String::new();
    let mut word = String::new();
    let mut letters = text.chars().peekable();
    while let Some(c) = letters.next() {
        if c.is_alphabetic() || c == '#' {
            word.push(c);
            let more = letters
                .peek()
                .is_some_and(|c| c.is_alphabetic() || *c == '#');
            if more {
                continue;
            }
            let known = unit(&word);
            out.push_str(known.map_or(word.as_str(), |(sign, _)| sign));
            if known.is_some() && letters.peek() == Some(&'.') {
                letters.next();
            }
            word.clear();
        } else {
            out.push(c);
        }
    }
    out.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// A cell and what stands behind it in brackets.
fn brackets(cell: &str) -> (String, Vec<String>) {
    let (mut outside, mut inside) = (String::new(), Vec::new());
    let mut depth = 0_usize;
    for c in cell.chars() {
        match c {
            '(' | '[' => {
                depth += 1;
                inside.push(String::new());
            }
            ')' | ']' => depth = depth.saturating_sub(1),
            c if depth > 0 => {
                if let Some(last) = inside.last_mut() {
                    last.push(c);
                }
            }
            c => outside.push(c),
        }
    }
    (outside.trim().to_owned(), inside)
}

/// One number with or without its unit.
fn one(text: &str, bounds: &Bounds, column: Column<'_>) -> Result<f64, Unread> {
    let says = text.contains(|c: char| c.is_alphabetic() || matches!(c, '\'' | '"'));
    let money = bounds.dimension == galvet_core::base::Dimension::Money;
    let units = !super::vocabulary::units_for(Some(bounds.dimension)).is_empty();
    let meant = match column.unit {
        _ if says || !units => Bare::SI,
        Some(sign) => bare(sign).ok_or(Unread::Unit)?,
        None if text.contains(|c: char| c.is_ascii_digit()) => return Err(Unread::Unit),
        None => Bare::SI,
    };
    let read = |text: &str| bounds.parse(text, meant);
    let text = match column.comma {
        Some(true) => decimal_comma(text),
        Some(false) => thousands_comma(text),
        None => text.to_owned(),
    };
    match read(&text) {
        Ok(value) => Ok(value),
        // Both ways are tried; where one of them is no hull, the other is meant.
        Err(QuantityError::Ambiguous { thousand, part, .. }) => {
            let with = |number: &str| read(&swapped(&text, number)).ok();
            match (with(&thousand), with(&part)) {
                // No price has three decimals.
                (Some(value), _) if money => Ok(value),
                (Some(value), None) | (None, Some(value)) => Ok(value),
                (Some(_), Some(_)) => Err(Unread::TwoWays),
                (None, None) => {
                    let outside = read(&swapped(&text, &thousand)).map_err(|e| e.to_string());
                    Err(Unread::Wrong(outside.err().unwrap_or_default()))
                }
            }
        }
        Err(error) => Err(Unread::Wrong(error.to_string())),
    }
}

/// A text with its number changed for another.
fn swapped(text: &str, number: &str) -> String {
    let digit = |c: char| c.is_ascii_digit();
    let (Some(from), Some(to)) = (text.find(digit), text.rfind(digit)) else {
        return text.to_owned();
    };
    let (from, to) = (
        from,
        text[from..=to]
            .find(|c: char| c.is_alphabetic() || c == ' ')
            .map_or(to + 1, |n| from + n),
    );
    format!("{}{number}{}", &text[..from], &text[to..])
}

/// Whether a sign parts the last three digits of a number, as it parts thousands.
fn before_three(text: &str, sign: char) -> bool {
    let digits = |t: &str| t.chars().take_while(char::is_ascii_digit).count();
    text.rsplit_once(sign)
        .is_some_and(|(_, rest)| digits(rest) == 3)
}

/// `1.290,50` and `1.290` as `1290.50` and `1290`; `3.76` stays.
fn decimal_comma(text: &str) -> String {
    if text.contains(',') {
        text.replace('.', "").replace(',', ".")
    } else if before_three(text, '.') {
        text.replace('.', "")
    } else {
        text.to_owned()
    }
}

/// `1,290.50` as `1290.50`.
fn thousands_comma(text: &str) -> String {
    if text.contains('.') || before_three(text, ',') {
        text.replace(',', "")
    } else {
        text.to_owned()
    }
}

/// The figure of a cell; `None` where it says nothing.
pub(super) fn figure(
    cell: &str,
    bounds: &Bounds,
    column: Column<'_>,
) -> Result<Option<Figure>, Unread> {
    if is_nothing(cell) {
        return Ok(None);
    }
    let (outside, inside) = brackets(&signs(cell));
    let mut basis_said = None;
    let mut also = Vec::new();
    for words in &inside {
        if let Some(said) = basis(words) {
            basis_said = Some(said);
        } else if words.contains(|c: char| c.is_ascii_digit()) {
            also.push(words.as_str());
        } else if !words.trim().is_empty() && unit(words).is_none() {
            let words = crate::files::echo(words);
            return Err(Unread::Wrong(format!(
                "“({words})” is not understood beside a figure"
            )));
        }
    }
    // `36 kg hull only`, `hull 36 kg`: words about it without brackets.
    let (number, words) = trailing(&outside);
    if !words.is_empty() {
        match basis(&words) {
            Some(said) => basis_said = Some(said),
            None => {
                let words = crate::files::echo(&words);
                return Err(Unread::Wrong(format!(
                    "“{words}” is not understood beside a figure"
                )));
            }
        }
    }
    // A bracket with a unit and nothing else is the column's: `82 (lb)`.
    let own = inside
        .iter()
        .find_map(|w| unit(w))
        .filter(|(_, of)| same(*of, bounds.dimension));
    let column = Column {
        unit: own.map(|(sign, _)| sign).or(column.unit),
        ..column
    };
    let mut values = split_two(&number);
    let first = values.remove(0);
    let si = one(&first, bounds, column)?;
    for other in values.iter().map(String::as_str).chain(also) {
        let says = other.contains(|c: char| c.is_alphabetic() || matches!(c, '\'' | '"'));
        if !says {
            return Err(Unread::Wrong(format!(
                "two numbers, {} and {}: which one is it?",
                crate::files::echo(&first),
                crate::files::echo(other)
            )));
        }
        let value = one(&spelled(other), bounds, column)?;
        // Rounded for a leaflet, each in its own unit.
        if (value - si).abs() > 0.015 * si.abs().max(value.abs()) {
            return Err(Unread::Wrong(format!(
                "“{}” says two things that are not the same",
                crate::files::echo(cell)
            )));
        }
    }
    Ok(Some(Figure {
        si,
        basis: basis_said,
    }))
}

/// The number with its unit, and words before or behind it.
fn trailing(text: &str) -> (String, String) {
    let (mut number, mut words) = (Vec::new(), Vec::new());
    for part in text.split(' ') {
        let letters = part
            .chars()
            .all(|c| c.is_alphabetic() || c == '/' || c == '-' || c == '.');
        let letters = letters && part.chars().any(char::is_alphabetic);
        let currency = matches!(
            part.to_lowercase().as_str(),
            "eur" | "usd" | "gbp" | "each" | "ea"
        );
        if currency || (letters && part == "/") {
            continue;
        }
        if letters && unit(part).is_none() {
            words.push(part);
        } else {
            number.push(part);
        }
    }
    (number.join(" "), words.join(" "))
}

/// `3.76 m / 12' 4"` as two; a fraction is one.
fn split_two(text: &str) -> Vec<String> {
    for sign in [" / ", " or ", " = ", "|", ";"] {
        if text.contains(sign) {
            return text.split(sign).map(|t| t.trim().to_owned()).collect();
        }
    }
    if let Some((a, b)) = text.split_once('/') {
        let fraction = a.ends_with(|c: char| c.is_ascii_digit())
            && b.starts_with(|c: char| c.is_ascii_digit());
        if !fraction {
            return vec![a.trim().to_owned(), b.trim().to_owned()];
        }
    }
    vec![text.to_owned()]
}

/// `370 x 86 cm`, `12' × 34"`: the parts of a size, each with the unit it has or the last
/// one's.
pub(super) fn sides(cell: &str) -> Vec<String> {
    let text = signs(cell)
        .replace(['×', '✕', '*'], "x")
        .replace(" by ", " x ");
    let parts: Vec<String> = text
        .split(['x', 'X'])
        .map(|p| p.trim().to_owned())
        .collect();
    let letters = |p: &str| -> Option<String> {
        let tail: String = p
            .chars()
            .rev()
            .take_while(|c| c.is_alphabetic() || matches!(c, '"' | '\''))
            .collect();
        let tail: String = tail.chars().rev().collect();
        unit(&tail).map(|(sign, _)| sign.to_owned())
    };
    let last = parts.last().and_then(|p| letters(p));
    let with = |p: &String| {
        let says = p.contains(|c: char| c.is_alphabetic() || matches!(c, '"' | '\''));
        match &last {
            Some(unit) if !says => format!("{p} {unit}"),
            _ => p.clone(),
        }
    };
    parts.iter().map(with).collect()
}

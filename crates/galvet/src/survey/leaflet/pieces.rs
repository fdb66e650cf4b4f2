//! A text in pieces: figures, the words that say of what they are, and where something ends.

use super::vocabulary::{LABELS, Label};
use crate::form::{between, figure_at};
use galvet_core::base::{Bare, Bounds, Dimension};

/// A piece of a text.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Piece {
    Label(Label),
    Figure(Dimension, f64),
    /// Where something ends: a comma, a line, a bullet.
    Break,
}

/// A piece with the place it stands at.
#[derive(Debug, Clone, Copy)]
pub(super) struct At {
    pub(super) from: usize,
    pub(super) to: usize,
    pub(super) piece: Piece,
}

/// Of each piece that is a figure, the place of the word that says of what: before it in
/// its clause where the clause begins with a word, else behind it; else the only word of the
/// clause before.
pub(super) fn labels(pieces: &[At]) -> Vec<Option<usize>> {
    let mut out = vec![None; pieces.len()];
    let is_break = |k: &usize| pieces[*k].piece == Piece::Break;
    let is_label = |k: &usize| matches!(pieces[*k].piece, Piece::Label(_));
    let mut before: Option<usize> = None;
    let mut from = 0;
    while from < pieces.len() {
        let to = (from..pieces.len()).find(is_break).unwrap_or(pieces.len());
        let clause = from..to;
        let words: Vec<usize> = clause.clone().filter(is_label).collect();
        let figures: Vec<usize> = clause.clone().filter(|k| !is_label(k)).collect();
        let first = clause.clone().next();
        for &k in &figures {
            out[k] = match first {
                _ if words.is_empty() => before,
                Some(first) if is_label(&first) => words.iter().rev().find(|w| **w < k).copied(),
                _ => words.iter().find(|w| **w > k).copied(),
            };
        }
        if !clause.is_empty() {
            let alone = figures.is_empty() && words.len() == 1;
            before = alone.then(|| words[0]);
        }
        from = to + 1;
    }
    out
}

/// The price that begins at a place: a sign of money and a number.
fn price_at(text: &str, at: usize) -> Option<(usize, Dimension, f64)> {
    let rest = text.get(at..)?;
    let sign = rest.chars().next().filter(|c| "€$£".contains(*c))?;
    let number = &rest[sign.len_utf8()..];
    let lead = number.len() - number.trim_start().len();
    let digits = |c: char| c.is_ascii_digit() || matches!(c, '.' | ',');
    let end = number[lead..]
        .find(|c| !digits(c))
        .unwrap_or(number.len() - lead);
    let number = number[lead..lead + end].trim_end_matches(['.', ',']);
    // No price has three decimals.
    let plain = match number.rsplit_once([',', '.']) {
        Some((whole, part)) if part.len() == 3 => {
            format!("{}{part}", whole.replace([',', '.'], ""))
        }
        _ => number.to_owned(),
    };
    let read = Bounds::new("price", Dimension::Money, 0.0, 1e6)
        .parse(&plain, Bare::SI)
        .ok()?;
    Some((
        at + sign.len_utf8() + lead + number.len(),
        Dimension::Money,
        read,
    ))
}

/// A text in pieces, as they stand.
pub(super) fn pieces(text: &str, lower: &str) -> Vec<At> {
    let mut out = Vec::new();
    let mut at = 0;
    while let Some(c) = text.get(at..).and_then(|t| t.chars().next()) {
        let starts = at == 0 || between(lower, at);
        let figure = match c {
            '€' | '$' | '£' => price_at(text, at),
            c if c.is_ascii_digit() && starts => figure_at(text, at),
            _ => None,
        };
        let next = text.get(at + c.len_utf8()..).and_then(|t| t.chars().next());
        let mut to = at + c.len_utf8();
        let piece = if let Some((end, dimension, si)) = figure {
            to = end;
            Some(Piece::Figure(dimension, si))
        } else if matches!(c, '\n' | ';' | '|' | '•' | '·')
            || (c == ',' && next.is_none_or(char::is_whitespace))
        {
            Some(Piece::Break)
        } else if starts && c.is_alphabetic() {
            let here = LABELS.iter().filter(|(word, _)| {
                lower[at..].starts_with(word) && between(lower, at + word.len())
            });
            here.max_by_key(|(word, _)| word.len())
                .map(|(word, label)| {
                    to = at + word.len();
                    Piece::Label(*label)
                })
        } else {
            None
        };
        if let Some(piece) = piece {
            out.push(At {
                from: at,
                to,
                piece,
            });
        } else if c.is_ascii_digit() {
            // A number of which nobody says the unit is passed over whole.
            let rest = &text[at..];
            to = at
                + rest
                    .find(|c: char| !c.is_ascii_digit())
                    .unwrap_or(rest.len());
        }
        at = to;
    }
    out
}

/// The words before all figures, where they are a name: short, on a line of their own or
/// before the first sign.
pub(super) fn name(text: &str, pieces: &[At]) -> Option<String> {
    let end = pieces.first().map_or(text.len(), |p| p.from);
    let head = text
        .get(..end)?
        .lines()
        .find(|line| !line.trim().is_empty())?;
    let head = head.trim().trim_end_matches([':', '-', '–', ',']).trim();
    let head = head.strip_suffix(" is").unwrap_or(head);
    let head = head.strip_prefix("The ").unwrap_or(head);
    let words = head.split_whitespace().count();
    let said = head.chars().next().is_some_and(char::is_uppercase);
    let fits = said && (1..=6).contains(&words) && head.chars().count() <= 60;
    fits.then(|| head.to_owned())
}

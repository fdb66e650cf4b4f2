//! A hull read out of what stands on a web page or a leaflet: figures beside the words that
//! name them, never a figure that nobody named. What is read says from which words.

mod pieces;
mod vocabulary;

use super::draft::Draft;
use crate::form::slug_of;
use galvet_core::base::{Bare, Dimension};
use galvet_core::hull::Measure;
use galvet_store::files::dealer::signs;
use galvet_store::files::hulls::HullRecord;
use pieces::{At, Piece, labels, name, pieces};
use std::collections::BTreeMap;
use vocabulary::{BARE, FITTED, Label, words};

/// A field read, with the words it was read from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Read {
    /// The quick start's field.
    pub field: &'static str,
    /// What is put into it.
    pub value: String,
    /// The words it was read from.
    pub quote: String,
    /// What to look at; empty where it is plain.
    pub doubt: &'static str,
}

/// What a text says of one hull.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Leaflet {
    /// What it says, field by field.
    pub read: Vec<Read>,
    /// Figures in it that were not used, each with why.
    pub unused: Vec<String>,
}

/// Longest text read, characters.
pub const LONGEST: usize = 20_000;
/// Most hulls out of one text.
const MOST: usize = 50;

/// Reads a text: each line by itself where several say enough to be a hull each, else the
/// whole as one.
#[must_use]
pub fn leaflets(text: &str) -> Vec<Leaflet> {
    let text: String = text.chars().take(LONGEST).collect();
    let whole = |leaflet: &Leaflet| {
        let has = |field: &str| leaflet.read.iter().any(|r| r.field == field);
        has("hull-length") && (has("hull-beam") || has("hull-weight") || has("hull-capacity"))
    };
    let lines: Vec<Leaflet> = text.lines().map(leaflet).filter(whole).collect();
    match lines.len() {
        0 | 1 => vec![leaflet(&text)],
        _ => lines.into_iter().take(MOST).collect(),
    }
}

/// What a text says of one hull.
fn leaflet(text: &str) -> Leaflet {
    let lines: Vec<String> = text.lines().map(signs).collect();
    let text = lines.join("\n");
    let lower = text.to_lowercase();
    // Small letters may be longer than capitals; then places would not fit.
    if lower.len() != text.len() {
        return Leaflet::default();
    }
    let pieces = pieces(&text, &lower);
    let mut out = Leaflet::default();
    if let Some(name) = name(&text, &pieces) {
        out.put("hull-model", name.clone(), &name, "");
    }
    for (k, label) in labels(&pieces).into_iter().enumerate() {
        out.figure((&text, &lower), (&pieces, k), label);
    }
    for (field, ours, at, doubt) in words(&lower) {
        let quote = text.get(at.0..at.1).unwrap_or_default();
        if !out.read.iter().any(|r| r.field == field) {
            out.put(field, ours.to_owned(), quote, doubt);
        }
    }
    out
}

impl Leaflet {
    fn put(&mut self, field: &'static str, value: String, quote: &str, doubt: &'static str) {
        self.read.push(Read {
            field,
            value,
            quote: quote.to_owned(),
            doubt,
        });
    }

    /// What it says, for the quick start's fields.
    #[must_use]
    pub fn draft(&self) -> Draft {
        let pairs = self.read.iter().map(|r| (r.field, r.value.clone()));
        Draft::of(pairs, None)
    }

    /// The hull it describes, its figures of a date; where something is missing or wrong,
    /// why it is none yet.
    ///
    /// # Errors
    /// In words, what has to be filled in.
    pub fn hull(&self, date: &str) -> Result<HullRecord, String> {
        let read = self.draft().read(date);
        if let Some(problem) = read.mistakes.into_values().next() {
            return Err(problem);
        }
        let mut survey = read.survey;
        survey.key = slug_of(&survey.model, "hull");
        Ok(HullRecord {
            survey,
            extra: BTreeMap::new(),
        })
    }

    /// A figure with the word it belongs to.
    fn figure(
        &mut self,
        (text, lower): (&str, &str),
        (pieces, k): (&[At], usize),
        label: Option<usize>,
    ) {
        let at = pieces[k];
        let Piece::Figure(dimension, si) = at.piece else {
            return;
        };
        let words = text
            .get(at.from..at.to)
            .unwrap_or_default()
            .trim()
            .to_owned();
        let of = label.map(|l| pieces[l].piece);
        let (field, measure) = match (of, dimension) {
            (Some(Piece::Label(Label::Length)), Dimension::Length) => {
                ("hull-length", Measure::Length)
            }
            (Some(Piece::Label(Label::Beam)), Dimension::Length) => ("hull-beam", Measure::Beam),
            (Some(Piece::Label(Label::Weight)), Dimension::Mass) => {
                ("hull-weight", Measure::BareWeight)
            }
            (Some(Piece::Label(Label::Capacity)), Dimension::Mass) => {
                ("hull-capacity", Measure::RatedCapacity)
            }
            (Some(Piece::Label(Label::Other)), _) => return,
            (_, Dimension::Money) => ("hull-price", Measure::Price),
            _ => {
                self.unused
                    .push(format!("{words}: nothing beside it says of what"));
                return;
            }
        };
        // "Weight: 300 lb max" is what it bears, or nothing that is sure.
        let next = pieces.get(k + 1);
        let behind = lower.get(at.to..next.map_or(lower.len(), |p| p.from));
        if field == "hull-weight" && behind.is_some_and(|words| words.contains("max")) {
            let said = format!("{words}: a most, of the hull or of its load?");
            self.unused.push(said);
            return;
        }
        if let Err(problem) = measure.bounds().check(si) {
            self.unused.push(format!("{words}: {problem}"));
            return;
        }
        let before = self.read.iter().position(|r| r.field == field);
        if let Some(there) = before {
            let known = measure.bounds().parse(&self.read[there].value, Bare::SI);
            // The same in another unit, rounded.
            if known.is_ok_and(|known| (known - si).abs() <= 0.015 * si) {
                return;
            }
            self.unused.push(format!(
                "{words}: a second {}, the first is kept",
                measure.bounds().what
            ));
            self.read[there].doubt = "the text has two, look which one is this hull's";
            return;
        }
        let label = label.map_or(at, |l| pieces[l]);
        let (from, mut to) = (at.from.min(label.from), at.to.max(label.to));
        // A bracket that opens in it closes in it.
        to += usize::from(text.get(to..).is_some_and(|rest| rest.starts_with(')')));
        let quote = text.get(from..to);
        let quote = quote.unwrap_or(&words).replace('\n', " ");
        let quote = quote.as_str();
        // A price as a plain number: its comma parts thousands.
        let value = match dimension {
            Dimension::Money => si.to_string(),
            _ => words,
        };
        self.put(field, value, quote, "");
        if field == "hull-weight" {
            self.weighed(lower, pieces, k);
        }
    }

    /// What stands about a weight: between the figure before and the one after it.
    fn weighed(&mut self, lower: &str, pieces: &[At], k: usize) {
        let is = |at: &&At| matches!(at.piece, Piece::Figure(..));
        let from = pieces[..k].iter().rev().find(is).map_or(0, |p| p.to);
        // The same in another unit may stand between; what is of another figure may not.
        let mut to = lower.len();
        let mut parted = None;
        for at in &pieces[k + 1..] {
            let other = match at.piece {
                Piece::Break => {
                    parted = parted.or(Some(at.from));
                    continue;
                }
                Piece::Label(label) => !matches!(label, Label::Weight | Label::Other),
                Piece::Figure(..) => parted.is_some(),
            };
            if other {
                to = parted.unwrap_or(at.from);
                break;
            }
        }
        let about = lower.get(from..to).unwrap_or_default();
        let has = |words: [&'static str; 9]| words.into_iter().find(|w| about.contains(w));
        match (has(BARE), has(FITTED)) {
            (Some(words), None) => self.put("hull-weighed", "bare".to_owned(), words, ""),
            (None, Some(words)) => self.put("hull-weighed", "fitted".to_owned(), words, ""),
            _ => {}
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::base::Keyed;

    fn expect(case: &str, leaflet: &Leaflet, said: &str) {
        let (model, rest) = said.split_once(" | ").map_or_else(
            || {
                if said.starts_with("model ") {
                    (said, "")
                } else {
                    ("", said)
                }
            },
            |(m, r)| (m, r),
        );
        let mut fields: BTreeMap<&str, &str> = leaflet
            .read
            .iter()
            .map(|r| (r.field.trim_start_matches("hull-"), r.value.as_str()))
            .collect();
        let name = fields.remove("model").unwrap_or_default();
        if let Some(wanted) = model.strip_prefix("model ") {
            assert_eq!(name, wanted, "{case}");
        }
        let survey = leaflet.draft().read("").survey;
        let words: Vec<&str> = rest.split_whitespace().collect();
        for pair in words.chunks(2) {
            let (field, value) = (pair[0].trim_end_matches('?'), pair[1]);
            let read = fields.remove(field);
            let read = read.unwrap_or_else(|| panic!("{case}: no {field} in {leaflet:?}"));
            let doubtful = leaflet
                .read
                .iter()
                .any(|r| r.field.ends_with(field) && !r.doubt.is_empty());
            let asked = pair[0].ends_with('?') || value.ends_with('?');
            assert_eq!(doubtful, asked, "{case}: {field}");
            let measure = match field {
                "length" => Measure::Length,
                "beam" => Measure::Beam,
                "capacity" => Measure::RatedCapacity,
                "price" => Measure::Price,
                "weight" if survey.value(Measure::FittedWeight).is_some() => Measure::FittedWeight,
                "weight" => Measure::BareWeight,
                _ => {
                    assert_eq!(read, value.trim_end_matches('?'), "{case}");
                    continue;
                }
            };
            let si = survey.value(measure);
            let si = si.unwrap_or_else(|| panic!("{case}: no {} in {leaflet:?}", measure.key()));
            let wanted: f64 = value.parse().unwrap();
            assert!(
                (si - wanted).abs() < 1e-6 * wanted,
                "{case}: {} is {si}",
                measure.key()
            );
        }
        assert!(fields.is_empty(), "{case}: {fields:?} that nobody said");
    }

    #[test]
    fn leaflets_fill_what_they_say_and_nothing_else() {
        let all: Vec<&str> = include_str!("../../../tests/leaflets.txt")
            .split("====\n")
            .collect();
        assert!(all.len() >= 30);
        let mut broken = 0;
        for case in all {
            let lines = case.lines();
            let (said, text): (Vec<&str>, Vec<&str>) = lines.partition(|l| l.starts_with('='));
            let read = leaflets(&text.join("\n"));
            assert_eq!(read.len(), said.len(), "{case}: {read:#?}");
            for (leaflet, said) in read.iter().zip(said) {
                let said = said.trim_start_matches('=').trim();
                // All that do not hold are told at once.
                let holds = std::panic::catch_unwind(|| expect(case, leaflet, said));
                broken += usize::from(holds.is_err());
                for read in &leaflet.read {
                    let whole = signs(&text.join(" ")).to_lowercase();
                    let quote = read.quote.to_lowercase();
                    assert!(whole.contains(quote.trim()), "{case}: “{quote}” in {whole}");
                }
            }
        }
        assert_eq!(broken, 0);
    }

    #[test]
    fn no_text_breaks_it() {
        for text in [
            "",
            "\n\n",
            "İİİ 3 m long",
            "12'",
            "€",
            "$,",
            "½ ½ ½",
            "9999999999999999999 m long",
        ] {
            for leaflet in leaflets(text) {
                assert!(
                    leaflet.read.iter().all(|r| r.field != "hull-length"),
                    "{text}"
                );
            }
        }
        let long = "12' 4\" long, ".repeat(5_000);
        assert!(leaflets(&long).len() <= MOST);
    }
}

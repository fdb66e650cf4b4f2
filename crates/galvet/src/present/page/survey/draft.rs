//! The quick start: what is typed, and how it floats with it.

use crate::answer::{Afloat, Answered};
use crate::present::draw::bottom::section_of;
use crate::present::draw::hull::{Side, side};
use crate::present::page::hulls::figure::{Figure, figure_of};
use crate::present::page::hulls::judged::said;
use crate::present::page::hulls::next::{NextStep, next_steps};
use crate::question::Offer;
use crate::survey::{Draft, Drafted, FIELDS, Field, FieldKind, Leaflet};
use galvet_core::base::{Keyed, System};
use galvet_core::figures::Quantity;
use galvet_core::hull::BottomShape;
use galvet_core::hull::Finding;
use galvet_core::plausible::CannotFloat;
use std::sync::Arc;

/// One answer of a field of words.
pub struct Choice {
    pub key: &'static str,
    pub label: &'static str,
    pub note: &'static str,
    pub chosen: bool,
    /// A half-section mirrored, where the answer is a shape.
    pub drawn: String,
}

/// One field.
pub struct FieldView {
    pub name: &'static str,
    pub title: &'static str,
    pub hint: &'static str,
    pub value: String,
    pub mistake: String,
    /// What was understood.
    pub echo: String,
    /// The words of a leaflet it was read from, or that none said it.
    pub read: String,
    /// Empty for a field that is typed in.
    pub choices: Vec<Choice>,
    /// Whether its answers are shown side by side as drawings.
    pub drawn: bool,
}

/// How it floats with what has been typed.
pub struct DraftFloating {
    pub side: Side,
    /// Its place, or why it has none.
    pub place: String,
    pub reasons: Vec<String>,
    pub peril: String,
    pub figures: Vec<Figure>,
    /// What to measure to know more, best first.
    pub next: Vec<NextStep>,
}

/// The page.
pub struct DraftView {
    pub fields: Vec<FieldView>,
    pub findings: Vec<Finding>,
    pub floating: Result<DraftFloating, String>,
}

/// Figures shown while one types.
const SHOWN: [Quantity; 4] = [
    Quantity::BindingMargin,
    Quantity::StandingSupport,
    Quantity::LeanRoom,
    Quantity::Draft,
];

/// Makes the page. `answered` ranks the draft among the hulls kept.
#[must_use]
pub fn draft(
    draft: &Draft,
    drafted: &Drafted,
    afloat: &Result<Arc<Afloat>, CannotFloat>,
    answered: Option<&Answered>,
    system: System,
) -> DraftView {
    let floating = match (afloat, answered) {
        (Ok(afloat), Some(answered)) => Ok(floating(afloat, answered, &drafted.survey.key, system)),
        (Err(CannotFloat::NotKnown(what)), _) => {
            Err(format!("Type the {what} and it floats here, as you type."))
        }
        (Err(problem), _) => Err(problem.to_string()),
        (Ok(_), None) => Err("It floats here as you type.".to_owned()),
    };
    DraftView {
        fields: FIELDS.iter().map(|f| field(f, draft, drafted)).collect(),
        findings: drafted.survey.findings(),
        floating,
    }
}

impl DraftView {
    /// Says at each field from which words of a leaflet it was read, and where a field that
    /// has an answer was not.
    pub fn mark(&mut self, leaflet: &Leaflet) {
        for field in &mut self.fields {
            let read = leaflet.read.iter().find(|r| r.field == field.name);
            field.read = match read {
                Some(read) if read.doubt.is_empty() => format!("read from “{}”", read.quote),
                Some(read) => format!("read from “{}”: {}", read.quote, read.doubt),
                None if matches!(field.name, "hull-construction" | "hull-propulsion") => {
                    "the text does not say".to_owned()
                }
                None => String::new(),
            };
        }
    }
}

fn field(field: &Field, draft: &Draft, drafted: &Drafted) -> FieldView {
    let shown = draft.shown(field);
    let is_bottom = field.name == "hull-bottom";
    let choices = match field.kind {
        FieldKind::Words(offered) => offered()
            .into_iter()
            .map(|offer| choice(offer, shown, is_bottom))
            .collect(),
        _ => Vec::new(),
    };
    let said = |of: &std::collections::BTreeMap<&'static str, String>| {
        of.get(field.name).cloned().unwrap_or_default()
    };
    // A page nobody has typed in yet makes no reproaches.
    let mistake = if draft.is_empty() {
        String::new()
    } else {
        said(&drafted.mistakes)
    };
    FieldView {
        name: field.name,
        title: field.title,
        hint: field.hint,
        value: shown.to_owned(),
        mistake,
        echo: said(&drafted.echoes),
        read: String::new(),
        choices,
        drawn: is_bottom,
    }
}

fn choice(offer: Offer, shown: &str, is_bottom: bool) -> Choice {
    let bottom = is_bottom
        .then(|| BottomShape::from_key(offer.key))
        .flatten();
    Choice {
        key: offer.key,
        label: offer.label,
        note: offer.note,
        chosen: offer.key == shown,
        drawn: bottom.map_or(String::new(), section_of),
    }
}

fn floating(afloat: &Afloat, answered: &Answered, key: &str, system: System) -> DraftFloating {
    let assessment = &*afloat.assessment;
    let drawn = afloat.portrait();
    let ranking = &answered.ranking;
    let (peril, reasons) = said(assessment, &ranking.brief, system);
    let others = ranking.ranked.len();
    let at = ranking
        .ranked
        .iter()
        .position(|e| e.assessment.setup.posterior.survey.key == key);
    let place = match at {
        Some(at) => format!(
            "it would come {} of {others} for this brief",
            ordinal(at + 1)
        ),
        None => "ruled out for this brief".to_owned(),
    };
    DraftFloating {
        side: side(&drawn.side, system),
        place,
        peril,
        reasons,
        figures: SHOWN
            .iter()
            .map(|&q| figure_of(assessment, q, system))
            .collect(),
        next: next_steps(assessment, &ranking.brief, 3),
    }
}

/// "first", "second", "12th".
#[must_use]
pub fn ordinal(n: usize) -> String {
    const WORDS: [&str; 5] = ["first", "second", "third", "fourth", "fifth"];
    if let Some(word) = WORDS.get(n - 1) {
        return (*word).to_owned();
    }
    let end = match (n % 100, n % 10) {
        (11..=13, _) => "th",
        (_, 1) => "st",
        (_, 2) => "nd",
        (_, 3) => "rd",
        _ => "th",
    };
    format!("{n}{end}")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_are_counted_as_people_do() {
        let said: Vec<String> = [1, 5, 6, 11, 12, 21, 22, 103, 111].map(ordinal).to_vec();
        let all = [
            "first", "fifth", "6th", "11th", "12th", "21st", "22nd", "103rd", "111th",
        ];
        assert_eq!(said, all);
    }
}

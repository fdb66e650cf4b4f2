//! A hull's lines, and the measured sections put on it.

use crate::present::draw::lines::{LinesPlan, lines_plan};
use crate::survey::sections_shown;
use galvet_core::base::{Dimension, System};
use galvet_core::body::Lines;
use galvet_core::hull::{Station, Survey};

/// The page.
pub struct LinesView {
    pub key: String,
    pub name: String,
    pub plan: Option<LinesPlan>,
    /// Whether they are measured.
    pub measured: bool,
    /// "65 sections, 3.30 m long, 95 cm wide".
    pub words: String,
    /// The file as sent and what is wrong with it, where something is.
    pub text: String,
    pub problem: String,
    /// Which sections the form shows, to be sent along.
    pub shown: String,
}

/// Makes the page from the lines and stations of the middle shape.
#[must_use]
pub fn lines(
    survey: &Survey,
    drawn: Option<&(Lines, Vec<Station>)>,
    (text, problem): (String, String),
    system: System,
) -> LinesView {
    let words = drawn.map_or(String::new(), |(lines, stations)| {
        let half = lines.plan.iter().map(|p| p.1).fold(0.0, f64::max);
        let ends = (lines.plan.first(), lines.plan.last());
        let length = match ends {
            (Some(bow), Some(stern)) => stern.0 - bow.0,
            _ => 0.0,
        };
        let sections = if survey.offsets.is_empty() {
            "the middle of its possible shapes".to_owned()
        } else {
            format!("{} sections", stations.len())
        };
        format!(
            "{sections}, {} long, {} wide",
            system.text(Dimension::Length, length, 2),
            system.text(Dimension::ShortLength, 2.0 * half, 1)
        )
    });
    LinesView {
        key: survey.key.clone(),
        name: survey.name(),
        plan: drawn.map(|(lines, stations)| lines_plan(lines, stations)),
        measured: !survey.offsets.is_empty(),
        words,
        text,
        problem,
        shown: sections_shown(&survey.offsets).sent_along(),
    }
}

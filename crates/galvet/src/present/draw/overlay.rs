//! Outlines of several hulls drawn over each other at one scale, bows together.

use super::{coordinate, path};
use crate::answer::Outcome;

/// One hull's outline.
pub struct Outline {
    pub name: String,
    /// Which of them, from 1: its line's pattern.
    pub number: usize,
    /// From above.
    pub plan: String,
    /// From the side.
    pub profile: String,
}

/// The drawing.
pub struct Overlay {
    pub view_box: String,
    pub outlines: Vec<Outline>,
}

/// Units a metre.
const SCALE: f64 = 180.0;
const MARGIN: f64 = 20.0;

/// Draws the hulls that float over each other; `None` for fewer than two.
#[must_use]
pub fn overlay(outcomes: &[Outcome]) -> Option<Overlay> {
    let drawn: Vec<_> = outcomes
        .iter()
        .enumerate()
        .filter_map(|(n, outcome)| {
            let afloat = outcome.afloat.as_ref().ok()?;
            let a = &afloat.assessment;
            let lines = a.setup.posterior.form.lines(&a.middle);
            Some((n + 1, outcome.way.name.clone(), lines))
        })
        .collect();
    if drawn.len() < 2 {
        return None;
    }
    let half =
        |lines: &galvet_core::body::Lines| lines.plan.iter().map(|p| p.1).fold(0.0, f64::max);
    let long = |lines: &galvet_core::body::Lines| {
        let ends = (lines.plan.first(), lines.plan.last());
        ends.1.map_or(0.0, |l| l.0) - ends.0.map_or(0.0, |f| f.0)
    };
    let tall =
        |lines: &galvet_core::body::Lines| lines.sheer.iter().map(|p| p.1).fold(0.0, f64::max);
    let most = |of: &dyn Fn(&galvet_core::body::Lines) -> f64| {
        drawn.iter().map(|d| of(&d.2)).fold(0.0, f64::max)
    };
    let (beam, length, depth) = (most(&half), most(&long), most(&tall));
    let middle = MARGIN + beam * SCALE;
    let top = middle + beam * SCALE + MARGIN;
    let outline = |(number, name, lines): &(usize, String, galvet_core::body::Lines)| {
        let bow = lines.plan.first().map_or(0.0, |p| p.0);
        let above =
            |side: f64, (x, y): (f64, f64)| (MARGIN + (x - bow) * SCALE, middle + side * y * SCALE);
        let aside = |(x, z): (f64, f64)| (MARGIN + (x - bow) * SCALE, top + (depth - z) * SCALE);
        let port = lines.plan.iter().map(|&p| above(-1.0, p));
        let starboard = lines.plan.iter().rev().map(|&p| above(1.0, p));
        let keel = lines.keel.iter().rev().map(|&p| aside(p));
        Outline {
            name: name.clone(),
            number: *number,
            plan: path(port.chain(starboard), true),
            profile: path(lines.sheer.iter().map(|&p| aside(p)).chain(keel), true),
        }
    };
    let width = coordinate(length * SCALE + 2.0 * MARGIN + 16.0);
    let height = coordinate(top + depth * SCALE + MARGIN);
    Some(Overlay {
        view_box: format!("0 0 {width} {height}"),
        outlines: drawn.iter().map(outline).collect(),
    })
}

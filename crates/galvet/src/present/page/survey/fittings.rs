//! Fittings on the drawing: the palette, the list, the one at hand.

use crate::form::{FormView, NotTaken, shown_across, shown_along};
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::survey::{KINDS, Kind, fitting_form, key_of, kind_of, new_fitting};
use galvet_core::base::{Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{Fitting, Progress, Survey, zones};

/// A fitting in the list.
pub struct Listed {
    pub name: String,
    /// "scupper, 1.22 m from the bow, 15 cm to port, tape".
    pub words: String,
    pub here: bool,
}

/// The fitting at hand: on the record, or being put on.
pub struct Here {
    /// Its name on the record; empty for a new one.
    pub was: String,
    pub kind: &'static str,
    pub label: &'static str,
    pub in_pairs: bool,
    pub form: FormView,
}

/// The page.
pub struct FittingsView {
    /// The change whose fittings they are; empty for those of delivery.
    pub change: String,
    pub key: String,
    pub name: String,
    pub plan: Option<HullPlan>,
    pub palette: &'static [Kind],
    pub listed: Vec<Listed>,
    pub here: Option<Here>,
}

/// What is at hand.
#[derive(Debug, Clone, Default)]
pub struct AtFitting {
    /// A fitting on the record, by its name.
    pub at: Option<String>,
    /// A kind to put on.
    pub add: Option<String>,
    /// The change whose fittings they are; `None` for those of delivery.
    pub change: Option<String>,
}

/// Makes the page.
#[must_use]
pub fn fittings(
    survey: &Survey,
    lines: Option<&Lines>,
    at: &AtFitting,
    not_taken: &NotTaken,
    system: System,
) -> FittingsView {
    let on = fittings_on(survey, at.change.as_deref());
    let named = at.at.as_deref();
    let there = named.and_then(|name| on.iter().find(|f| f.name == name));
    let here = match (there, at.add.as_deref().and_then(kind_of)) {
        (Some(fitting), _) => Some(at_hand(
            Some(fitting),
            key_of(&fitting.kind),
            survey,
            not_taken,
            system,
        )),
        (None, Some(kind)) => Some(at_hand(None, kind.key, survey, not_taken, system)),
        (None, None) => None,
    };
    // The plan shows the change at hand as if it were made.
    let shown = match at.change.as_deref() {
        Some(name) => survey.with_made(|m| m.progress == Progress::Done || m.name == name),
        None => survey.clone(),
    };
    FittingsView {
        change: at.change.clone().unwrap_or_default(),
        key: survey.key.clone(),
        name: survey.name(),
        plan: lines.map(|lines| {
            let hand = AtHand {
                zone: None,
                fitting: named,
                ..AtHand::default()
            };
            hull_plan(lines, &zones(&shown), &shown.fitout.fittings_now(), hand)
        }),
        palette: &KINDS,
        listed: in_order(on)
            .into_iter()
            .map(|f| Listed {
                name: f.name.clone(),
                words: words(f, system),
                here: named == Some(f.name.as_str()),
            })
            .collect(),
        here: here.flatten(),
    }
}

/// The fittings of delivery, or those a change adds.
#[must_use]
pub fn fittings_on<'a>(survey: &'a Survey, change: Option<&str>) -> &'a [Fitting] {
    let Some(name) = change else {
        return &survey.fitout.fittings;
    };
    let mut changes = survey.fitout.modifications.iter();
    changes
        .find(|m| m.name == name)
        .map_or(&[], |m| m.fittings.as_slice())
}

/// Fittings bow to stern.
#[must_use]
pub fn in_order(fittings: &[Fitting]) -> Vec<&Fitting> {
    let mut all: Vec<&Fitting> = fittings.iter().collect();
    all.sort_by(|a, b| a.x.total_cmp(&b.x).then(a.y.total_cmp(&b.y)));
    all
}

/// Where a fitting stands, in words.
#[must_use]
pub fn words(fitting: &Fitting, system: System) -> String {
    let side = match fitting.y {
        y if y > 0.0 => format!("{} to starboard", shown_across(system, y)),
        y if y < 0.0 => format!("{} to port", shown_across(system, -y)),
        _ => "on the middle".to_owned(),
    };
    let label = kind_of(key_of(&fitting.kind)).map_or("fitting", |kind| kind.label);
    let mut out = format!(
        "{label}, {} from the bow, {side}, {}",
        shown_along(system, fitting.x),
        fitting.source.label()
    );
    if !fitting.mount.is_empty() {
        out.push_str(", ");
        out.push_str(&fitting.mount);
    }
    out
}

fn at_hand(
    fitting: Option<&Fitting>,
    key: &str,
    survey: &Survey,
    not_taken: &NotTaken,
    system: System,
) -> Option<Here> {
    let kind = kind_of(key)?;
    let usual = || new_fitting(kind, survey);
    Some(Here {
        was: fitting.map_or(String::new(), |f| f.name.clone()),
        kind: kind.key,
        label: kind.label,
        in_pairs: kind.in_pairs && fitting.is_none(),
        form: fitting_form(kind).form_or_new(fitting, usual, not_taken, system),
    })
}

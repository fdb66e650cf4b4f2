//! Fittings on the drawing: the palette, the list, the one at hand.

use super::filled::{Filled, NotTaken, Words};
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::survey::{Ask, KINDS, Kind, Shown, key_of, kind_of, shown_across, shown_along};
use galvet_core::base::{Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{Fitting, Measure, Progress, Survey, zones};

/// A fitting in the list.
pub struct Listed {
    pub name: String,
    /// "scupper, 1.22 m from the bow, 15 cm to port, tape".
    pub words: String,
    pub here: bool,
}

/// A size of the fitting at hand.
pub struct SizeShown {
    pub name: &'static str,
    pub label: &'static str,
    pub value: String,
    pub words: Words,
    pub tick: bool,
    pub mistake: String,
}

/// The fitting at hand: on the record, or being put on.
pub struct Here {
    /// Its name on the record; empty for a new one.
    pub was: String,
    pub kind: &'static str,
    pub label: &'static str,
    pub name: String,
    pub mount: String,
    pub x: String,
    pub y: String,
    pub z: String,
    pub x_mistake: String,
    pub y_mistake: String,
    pub z_mistake: String,
    pub sizes: Vec<SizeShown>,
    pub in_pairs: bool,
    pub trouble: String,
    /// What the form shows, to be sent along; empty for a new one.
    pub shown: String,
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
    let form = Filled {
        shown: match fitting {
            Some(fitting) => Shown::of_fitting(fitting, system),
            None => Shown::of_new_fitting(survey.value(Measure::Length), system),
        },
        not_taken,
    };
    let sizes = kind.fields.iter().map(|field| {
        let value = form.value(field.name);
        let words = match field.ask {
            Ask::Words(all) => all.iter().map(|&(k, l)| (k, l, k == value)).collect(),
            _ => Words::new(),
        };
        SizeShown {
            name: field.name,
            label: field.label,
            words,
            tick: matches!(field.ask, Ask::Tick),
            mistake: form.mistake(field.name),
            value,
        }
    });
    Some(Here {
        was: fitting.map_or(String::new(), |f| f.name.clone()),
        kind: kind.key,
        label: kind.label,
        name: form.value("name"),
        mount: form.value("mount"),
        x: form.value("x"),
        y: form.value("y"),
        z: form.value("z"),
        x_mistake: form.mistake("x"),
        y_mistake: form.mistake("y"),
        z_mistake: form.mistake("z"),
        sizes: sizes.collect(),
        in_pairs: kind.in_pairs && fitting.is_none(),
        trouble: form.trouble(),
        shown: fitting.map_or(String::new(), |_| form.shown.sent_along()),
    })
}

//! What the first screen of a hull says: its place, its verdict, gauge and meters.

use super::figure::figure_of;
use crate::answer::Answered;
use crate::present::draw::gauge::{Gauge, full_scale, gauge};
use crate::present::draw::meter::{Meter, meter};
use crate::present::page::survey::draft::ordinal;
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Measure, Survey};
use galvet_core::question::Brief;
use galvet_core::rank::{scale, steadiness, takes};

/// The head of a hull's page.
pub struct Head {
    /// Steady or not, and how much more it takes.
    pub steady: String,
    pub takes: String,
    pub gauge: Gauge,
    /// The two that rank: margin and steadiness.
    pub meters: Vec<Meter>,
    /// What has to be lifted, and what it costs; empty where not known.
    pub lift: String,
    pub price: String,
}

/// The head of a hull's page under a brief.
#[must_use]
pub fn head(a: &Assessment, brief: &Brief, system: System) -> Head {
    let survey = &a.setup.posterior.survey;
    Head {
        steady: steadiness(a, brief),
        takes: takes(a, system),
        gauge: gauge(a, full_scale(std::iter::once(a)), system),
        meters: meters(a, brief, system),
        lift: lift(survey, system),
        price: price(survey, system),
    }
}

/// What has to be lifted: fitted, where that is known.
pub fn lift(survey: &Survey, system: System) -> String {
    let known = |m| {
        survey
            .value(m)
            .map(|kg| system.text(Dimension::Mass, kg, 0))
    };
    match (known(Measure::FittedWeight), known(Measure::BareWeight)) {
        (Some(fitted), _) => fitted,
        (None, Some(bare)) => format!("{bare} bare"),
        (None, None) => String::new(),
    }
}

/// What a hull costs; empty where that is not known.
pub fn price(survey: &Survey, system: System) -> String {
    let price = survey.value(Measure::Price);
    price.map_or(String::new(), |v| system.text(Dimension::Money, v, 0))
}

fn meters(a: &Assessment, brief: &Brief, system: System) -> Vec<Meter> {
    let told = |q| {
        let figure = figure_of(a, q, system);
        (figure.value, figure.range)
    };
    let mut out = Vec::new();
    let margin = Quantity::BindingMargin;
    if let Some(range) = a.range(margin) {
        // As far as it matters: half the load earns all points.
        let load = a.median(Quantity::Counted).unwrap_or(100.0);
        let words = ["too much aboard", "takes more"];
        let ends = (-0.25 * load, 0.75 * load);
        out.push(meter("margin", (range, told(margin)), ends, &[0.0], &words));
    }
    let (quantity, edges, words) = scale(brief, a.setup.guides());
    if let Some(range) = a.range(quantity) {
        let ends = (0.0, 1.5 * edges[2]);
        let label = quantity.row().label;
        out.push(meter(label, (range, told(quantity)), ends, &edges, &words));
    }
    out
}

/// "2nd of 5", or that it is ruled out, where the question has been ranked.
#[must_use]
pub fn place(answered: &Answered, key: &str) -> String {
    let ranked = &answered.ranking.ranked;
    match ranked.iter().position(|r| r.survey().key == key) {
        Some(at) => format!("{} of {} that pass", ordinal(at + 1), ranked.len()),
        None => "ruled out".to_owned(),
    }
}

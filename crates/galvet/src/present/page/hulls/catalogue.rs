//! The catalogue: every hull a line, drawn to one scale, under the brief in
//! force.

use super::figure::{Figure, figure_of};
use crate::answer::Answered;
use crate::present::draw::path;
use crate::present::page::paged::Paged;
use crate::present::page::ranking::facts;
use crate::survey::figure;
use galvet_core::base::{Keyed, System};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Construction, Measure, Propulsion, Survey};
use galvet_core::rank::explain;
use std::cmp::Ordering;
use std::sync::Arc;
use strum::{EnumMessage, IntoStaticStr, VariantArray};

/// What the reader wants to see, as chosen in the form.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Filter {
    /// Words to be found in name, maker, notes.
    pub find: String,
    /// Constructions; empty for all.
    pub construction: Option<Construction>,
    /// Drives; empty for all.
    pub propulsion: Option<Propulsion>,
    /// Seats; `None` for any.
    pub seats: Option<u8>,
    /// Most of length, weight and price, as typed.
    pub most: [String; 3],
    /// Only those that are not ruled out.
    pub fits: bool,
    /// Order.
    pub sort: Sort,
    /// How many of them come before those shown.
    pub from: usize,
}

/// Orders of the catalogue.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, VariantArray, IntoStaticStr, EnumMessage)]
#[strum(serialize_all = "kebab-case")]
pub enum Sort {
    /// As ranked; those ruled out last.
    #[default]
    #[strum(message = "place in the ranking")]
    Place,
    /// By name.
    #[strum(message = "name")]
    Name,
    /// Shortest first.
    #[strum(message = "length")]
    Length,
    /// Widest first.
    #[strum(message = "beam, widest first")]
    Beam,
    /// Lightest first.
    #[strum(message = "weight")]
    Weight,
    /// Cheapest first.
    #[strum(message = "price")]
    Price,
    /// Most doubts first.
    #[strum(message = "doubts, most first")]
    Doubts,
}

/// One hull.
pub struct Line {
    pub key: String,
    pub name: String,
    pub facts: String,
    /// Gunwale and recess from above, to the scale of all; empty where it has
    /// no length or beam.
    pub plan: String,
    pub recess: String,
    /// "3rd", or why it has no place.
    pub place: String,
    pub out: bool,
    pub peril: String,
    /// Margin and stability.
    pub figures: Vec<Figure>,
    pub doubts: usize,
    pub price: String,
}

/// The page.
pub struct CatalogueView {
    /// Those shown.
    pub lines: Vec<Line>,
    /// Hulls that are as asked for.
    pub found: usize,
    /// Which of them.
    pub page: Paged,
    /// Hulls in all.
    pub all: usize,
    pub view_box: String,
    /// Ticks along the scale: place and label.
    pub scale: Vec<(String, String)>,
    pub find: String,
    pub constructions: Vec<(&'static str, &'static str, bool)>,
    pub propulsions: Vec<(&'static str, &'static str, bool)>,
    pub sorts: Vec<(&'static str, &'static str, bool)>,
    pub fits: bool,
    pub seats: Vec<(&'static str, &'static str, bool)>,
    pub most: Vec<MostField>,
}

impl CatalogueView {
    /// Whether seats or the most of a figure are chosen.
    #[must_use]
    pub fn limited(&self) -> bool {
        self.seats.iter().any(|s| s.2) || self.most.iter().any(|f| !f.typed.is_empty())
    }
}

/// A field for the most of a figure.
pub struct MostField {
    pub name: &'static str,
    pub label: &'static str,
    pub typed: String,
    pub mistake: String,
}

/// The figures a filter can limit: name in the address, label, measure.
const LIMITED: [(&str, &str, Measure); 3] = [
    ("longest", "at most as long as", Measure::Length),
    ("heaviest", "as heavy as", Measure::FittedWeight),
    ("dearest", "as dear as", Measure::Price),
];

/// Units a metre.
const SCALE: f64 = 60.0;
/// Longest and widest hull that is drawn whole, m.
const LONGEST: f64 = 5.5;
const WIDEST: f64 = 1.4;

/// Where a hull stands in an answer.
struct Standing<'a> {
    survey: Arc<Survey>,
    assessment: Option<&'a Assessment>,
    /// From 0 where ranked.
    place: Option<usize>,
    reason: String,
    /// What it may do at that place.
    peril: String,
}

/// Makes the page.
#[must_use]
pub fn catalogue(answered: &Answered, filter: &Filter, system: System) -> CatalogueView {
    let ranking = &answered.ranking;
    let ranked = ranking.ranked.iter().enumerate().map(|(at, r)| Standing {
        survey: r.assessment.setup.posterior.survey.clone(),
        assessment: Some(&*r.assessment),
        place: Some(at),
        reason: String::new(),
        peril: explain::peril(r).unwrap_or_default(),
    });
    let out = ranking.ruled_out.iter().map(|r| Standing {
        survey: r.survey.clone(),
        assessment: r.assessment.as_deref(),
        place: None,
        reason: r
            .reasons
            .first()
            .map_or(String::new(), |reason| reason.text(system)),
        peril: String::new(),
    });
    let mut standing: Vec<Standing<'_>> = ranked.chain(out).collect();
    let all = standing.len();
    let limits = LIMITED.map(|(_, _, measure)| measure);
    let limits = std::array::from_fn(|i| Limit::read(limits[i], &filter.most[i], system));
    standing.retain(|s| wanted(s, filter, &limits));
    sort(&mut standing, filter.sort);
    let headline = explain::headline_stability(&ranking.brief);
    let found = standing.len();
    let page = Paged::of(found, filter.from);
    let shown = page.shown(&standing).iter();
    CatalogueView {
        lines: shown.map(|s| line(s, headline, system)).collect(),
        found,
        page,
        all,
        view_box: format!("0 0 {:.0} {:.0}", LONGEST * SCALE, WIDEST * SCALE),
        scale: scale(system),
        find: filter.find.clone(),
        constructions: choices(filter.construction),
        propulsions: choices(filter.propulsion),
        sorts: choices(Some(filter.sort)),
        fits: filter.fits,
        seats: [("1", "one"), ("2", "two"), ("3", "three or four")]
            .map(|(key, label)| {
                let chosen = filter.seats.is_some_and(|n| n.to_string() == key);
                (key, label, chosen)
            })
            .into(),
        most: (0..LIMITED.len())
            .map(|i| MostField {
                name: LIMITED[i].0,
                label: LIMITED[i].1,
                typed: filter.most[i].clone(),
                mistake: limits[i].mistake.clone(),
            })
            .collect(),
    }
}

/// The most of a figure.
struct Limit {
    measure: Measure,
    most: Option<f64>,
    mistake: String,
}

impl Limit {
    fn read(measure: Measure, typed: &str, system: System) -> Self {
        let (most, mistake) = match (typed, figure(measure, typed, system)) {
            ("", _) => (None, String::new()),
            (_, Ok(most)) => (Some(most), String::new()),
            (_, Err(mistake)) => (None, mistake),
        };
        Self {
            measure,
            most,
            mistake,
        }
    }

    /// Whether a hull stays under it; one of which the figure is not known does
    /// not.
    fn passes(&self, survey: &Survey) -> bool {
        let value = match self.measure {
            Measure::FittedWeight => lifted(survey),
            other => survey.value(other),
        };
        self.most
            .is_none_or(|most| value.is_some_and(|v| v <= most))
    }
}

/// The weight told first: fitted, else bare, kg.
fn lifted(survey: &Survey) -> Option<f64> {
    let fitted = survey.value(Measure::FittedWeight);
    fitted.or_else(|| survey.value(Measure::BareWeight))
}

fn choices<T: Keyed>(chosen: Option<T>) -> Vec<(&'static str, &'static str, bool)> {
    let all = T::ALL.iter();
    all.map(|&v| {
        (
            v.key(),
            v.label(),
            chosen.is_some_and(|c| c.key() == v.key()),
        )
    })
    .collect()
}

fn wanted(s: &Standing<'_>, filter: &Filter, limits: &[Limit; 3]) -> bool {
    let survey = &s.survey;
    let text = format!("{} {} {}", survey.name(), survey.key, survey.notes).to_lowercase();
    let found = filter
        .find
        .to_lowercase()
        .split_whitespace()
        .all(|word| text.contains(word));
    found
        && filter.construction.is_none_or(|c| c == survey.construction)
        && filter.propulsion.is_none_or(|p| p == survey.propulsion)
        && filter.seats.is_none_or(|n| n == survey.seats.min(3))
        && limits.iter().all(|limit| limit.passes(survey))
        && (!filter.fits || s.place.is_some())
}

fn sort(standing: &mut [Standing<'_>], by: Sort) {
    // Those that lack the figure come last, whichever way it runs.
    let figure = |s: &Standing<'_>, m: Measure| s.survey.value(m);
    let weight = |s: &Standing<'_>| lifted(&s.survey);
    let rising = |a: Option<f64>, b: Option<f64>| match (a, b) {
        (Some(a), Some(b)) => a.total_cmp(&b),
        (Some(_), None) => Ordering::Less,
        (None, Some(_)) => Ordering::Greater,
        (None, None) => Ordering::Equal,
    };
    match by {
        Sort::Place => {}
        Sort::Name => standing.sort_by_key(|s| s.survey.name().to_lowercase()),
        Sort::Length => {
            standing.sort_by(|a, b| rising(figure(a, Measure::Length), figure(b, Measure::Length)));
        }
        Sort::Beam => standing.sort_by(|a, b| {
            let widest = |s: &Standing<'_>| figure(s, Measure::Beam).map(|v| -v);
            rising(widest(a), widest(b))
        }),
        Sort::Weight => standing.sort_by(|a, b| rising(weight(a), weight(b))),
        Sort::Price => {
            standing.sort_by(|a, b| rising(figure(a, Measure::Price), figure(b, Measure::Price)));
        }
        Sort::Doubts => standing.sort_by_key(|s| std::cmp::Reverse(s.survey.findings().len())),
    }
}

fn line(s: &Standing<'_>, headline: Quantity, system: System) -> Line {
    let at = |(x, y): (f64, f64)| (x * SCALE, (0.5 * WIDEST + y) * SCALE);
    let around = |line: &[(f64, f64)]| {
        if line.is_empty() {
            return String::new();
        }
        // A third of the points is enough at this size, the last among them.
        let last = line.len() - 1;
        let few = line
            .iter()
            .enumerate()
            .filter(|(i, _)| i % 3 == 0 || *i == last);
        let few: Vec<(f64, f64)> = few.map(|(_, &p)| p).collect();
        let far = few.iter().map(|&(x, y)| at((x, -y)));
        path(far.chain(few.iter().rev().map(|&p| at(p))), true)
    };
    let lines = s
        .assessment
        .map(|a| a.setup.posterior.form.lines(&a.middle));
    Line {
        key: s.survey.key.clone(),
        name: s.survey.name(),
        facts: facts(&s.survey, system),
        plan: lines.as_ref().map_or(String::new(), |l| around(&l.plan)),
        recess: lines.as_ref().map_or(String::new(), |l| around(&l.recess)),
        place: match s.place {
            Some(at) => format!("place {}", at + 1),
            None => s.reason.clone(),
        },
        out: s.place.is_none(),
        peril: s.peril.clone(),
        figures: s.assessment.map_or(Vec::new(), |a| {
            [Quantity::BindingMargin, headline]
                .map(|q| figure_of(a, q, system))
                .into()
        }),
        doubts: s.survey.findings().len(),
        price: s
            .survey
            .value(Measure::Price)
            .map_or(String::new(), |v| Measure::Price.text(system, v)),
    }
}

/// A foot, m.
const FOOT: f64 = 0.3048;

/// Ticks of the common scale: every metre, or every two feet.
fn scale(system: System) -> Vec<(String, String)> {
    let (step, unit, name) = match system {
        System::Metric => (1.0, 1.0, "m"),
        System::Imperial => (2.0, FOOT, "ft"),
    };
    let mut out = Vec::new();
    let mut at: f64 = step;
    while at * unit < LONGEST - 0.3 {
        out.push((
            format!("{:.1}", at * unit * SCALE),
            format!("{at:.0}\u{a0}{name}"),
        ));
        at += step;
    }
    out
}

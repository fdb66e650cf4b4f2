//! The ranking as the main page shows it.

use super::{Figure, figure_of};
use crate::draw::gauge::{self, Gauge};
use crate::draw::hull::{Section, section};
use galvet_core::brief::Brief;
use galvet_core::hull::{Measure, Survey};
use galvet_core::measure_next;
use galvet_core::portrait;
use galvet_core::quantity::Quantity;
use galvet_core::rank::{Firmness, Ranked, Ranking, RuledOut, explain, rank, score::Scales};
use galvet_core::sample::DEFAULT_SIZE;
use galvet_core::units::{Dimension, System};

/// One hull in the order.
pub(crate) struct Row {
    pub(crate) key: String,
    pub(crate) place: usize,
    pub(crate) name: String,
    pub(crate) facts: String,
    pub(crate) glyph: Section,
    pub(crate) gauge: Gauge,
    pub(crate) margin: Figure,
    pub(crate) stability: Figure,
    pub(crate) score: String,
    pub(crate) capacity_points: String,
    pub(crate) stability_points: String,
    pub(crate) why: String,
    pub(crate) firmness: String,
    pub(crate) firmness_class: &'static str,
    pub(crate) firmness_help: String,
    pub(crate) on_front: bool,
    pub(crate) findings: Vec<String>,
}

/// One hull below the line.
pub(crate) struct OutRow {
    pub(crate) key: String,
    pub(crate) name: String,
    pub(crate) facts: String,
    pub(crate) reasons: Vec<String>,
    pub(crate) findings: Vec<String>,
}

/// The answer.
pub(crate) struct RankingView {
    pub(crate) rows: Vec<Row>,
    pub(crate) out: Vec<OutRow>,
    pub(crate) next: Option<String>,
    pub(crate) stands: bool,
    pub(crate) scales: Vec<String>,
}

/// Units a metre in a row's glyph.
const GLYPH_SCALE: f64 = 120.0;

/// Length × beam, construction, drive, weight, price: what a person asks first.
pub(crate) fn facts(survey: &Survey, system: System) -> String {
    let text = |m: Measure, d, n| survey.value(m).map(|v| system.text(d, v, n));
    let size = match (
        text(Measure::Length, Dimension::Length, 2),
        text(Measure::Beam, Dimension::ShortLength, 0),
    ) {
        (Some(length), Some(beam)) => format!("{length} × {beam}"),
        (Some(length), None) => format!("{length}, beam not known"),
        (None, Some(beam)) => format!("length not known, {beam} wide"),
        (None, None) => "length and beam not known".to_owned(),
    };
    let weight = match (
        text(Measure::FittedWeight, Dimension::Mass, 0),
        text(Measure::BareWeight, Dimension::Mass, 0),
    ) {
        (Some(fitted), _) => format!("{fitted} fitted"),
        (None, Some(bare)) => format!("{bare} bare"),
        (None, None) => "weight not known".to_owned(),
    };
    let construction = survey.construction.label();
    let drive = survey.propulsion.label();
    format!("{size} · {construction} · {drive} · {weight}")
}

/// Ranks and puts into words.
pub(crate) fn ranking(brief: &Brief, hulls: &[Survey], system: System) -> RankingView {
    let scales = Scales::default();
    let ranking = rank(brief, hulls, DEFAULT_SIZE, &scales);
    let full = gauge::full_scale(&ranking.ranked);
    RankingView {
        rows: (0..ranking.ranked.len())
            .map(|i| row(&ranking, i, full, system))
            .collect(),
        out: ranking
            .ruled_out
            .iter()
            .map(|out| out_row(out, system))
            .collect(),
        next: measure_next(&ranking, &scales),
        stands: explain::headline_stability(brief) == Quantity::StandingSupport,
        scales: published(&scales, brief, system),
    }
}

/// The scales in words, as published on the page.
fn published(scales: &Scales, brief: &Brief, system: System) -> Vec<String> {
    let short = |m| system.text(Dimension::ShortLength, m, 0);
    let reserve = (brief.water.reserve_share * 100.0).round();
    vec![
        format!(
            "capacity: the tightest margin as a share of the load, {:.0} % earns nothing, {:.0} % a hundred points",
            scales.margin.nothing * 100.0,
            scales.margin.hundred * 100.0
        ),
        format!(
            "standing: support κ, {:.1} earns nothing, {:.1} a hundred",
            scales.support.nothing, scales.support.hundred
        ),
        format!(
            "seated: lean room, {} earns nothing, {} a hundred, and the reserve, none to {:.0} J; on this water the reserve counts {reserve:.0} %",
            short(scales.lean.nothing),
            short(scales.lean.hundred),
            scales.reserve.hundred
        ),
        "sits and stands: the lower of the two".to_owned(),
    ]
}

fn row(ranking: &Ranking<'_>, index: usize, full: f64, system: System) -> Row {
    let entry = &ranking.ranked[index];
    let a = &entry.assessment;
    let survey = a.setup.survey;
    let headline = explain::headline_stability(ranking.brief);
    let glyph = portrait::glyph(a);
    let (firmness, firmness_class, firmness_help) = firm(ranking, index);
    Row {
        key: survey.key.clone(),
        place: index + 1,
        name: survey.name(),
        facts: facts(survey, system),
        glyph: section(&glyph, GLYPH_SCALE, false, system),
        gauge: gauge::gauge(entry, full, system),
        margin: figure_of(a, Quantity::BindingMargin, system),
        stability: figure_of(a, headline, system),
        score: format!("{:.0}", entry.score.total),
        capacity_points: format!("{:.0}", entry.score.capacity),
        stability_points: format!("{:.0}", entry.score.stability),
        why: explain::why(ranking, index, system),
        firmness,
        firmness_class,
        firmness_help,
        on_front: entry.on_front,
        findings: doubts(survey, a.remarks()),
    }
}

/// What is missing or contradicts itself in a record, and what its figures say.
fn doubts(survey: &Survey, remarks: Vec<String>) -> Vec<String> {
    let findings = survey.findings().into_iter().map(|f| f.text);
    findings.chain(remarks).collect()
}

/// What to measure next, as a plain instruction.
fn measure_next(ranking: &Ranking<'_>, scales: &Scales) -> Option<String> {
    let settles = measure_next::for_shortlist(ranking, scales)?;
    let name = |i: usize| ranking.ranked[i].assessment.setup.survey.name();
    Some(format!(
        "Measure {} of the {}: it would settle place {} against {}, from {:.0}\u{a0}% sure to about {:.0}\u{a0}%.",
        settles.target.label(),
        name(settles.hull),
        settles.upper + 1,
        settles.upper + 2,
        settles.now * 100.0,
        settles.then * 100.0
    ))
}

/// How firm a place is: the word, its class, and what it means.
fn firm(ranking: &Ranking<'_>, index: usize) -> (String, &'static str, String) {
    let entry: &Ranked<'_> = &ranking.ranked[index];
    let Some(share) = entry.beats_next else {
        return (String::new(), "", String::new());
    };
    let firmness = Firmness::of(share);
    let class = match firmness {
        Firmness::Firm => "firm",
        Firmness::Likely => "likely",
        Firmness::TooClose => "close",
    };
    let next = ranking.ranked[index + 1].assessment.setup.survey.name();
    (
        firmness.label().to_owned(),
        class,
        format!(
            "ahead of the {next} in {:.0}\u{a0}% of their likely shapes, first of all in {:.0}\u{a0}%",
            share * 100.0,
            entry.first_share * 100.0
        ),
    )
}

fn out_row(out: &RuledOut<'_>, system: System) -> OutRow {
    OutRow {
        key: out.survey.key.clone(),
        name: out.survey.name(),
        facts: facts(out.survey, system),
        reasons: out.reasons.iter().map(|r| r.text(system)).collect(),
        findings: out.survey.findings().into_iter().map(|f| f.text).collect(),
    }
}

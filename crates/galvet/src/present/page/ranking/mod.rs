//! The ranking as the main page shows it.

pub mod beside;
pub mod flip;
pub mod moved;
mod offered;
pub mod said;
pub mod sentence;
pub mod sift;
pub mod so_far;

use crate::answer::Answered;
use crate::present::columns::{Cell, Deep, Worked, cells, in_front};
use crate::present::draw::gauge::{self, Gauge};
use crate::present::draw::map::{Map, map};
use crate::present::draw::section::{Section, section};
use crate::present::page::hulls::deck::{kit_doubts, kit_line};
use crate::present::page::hulls::figure::{Figure, figure_of, percent};
use crate::present::page::hulls::hull_head::{lift, price};
use galvet_core::advise::measure_next;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Measure, Survey};
use galvet_core::question::{Brief, DeckUse};
use galvet_core::rank::{
    Firmness, Ranked, Ranking, RuledOut, Scales, explain, minds, own_band, reach_told, steadiness,
    takes, told, unchecked,
};
use rayon::prelude::*;

/// One hull in the order.
pub struct Row {
    pub key: String,
    pub place: usize,
    pub name: String,
    pub facts: String,
    /// Steady or not, and how much more it takes, in words.
    pub steady: String,
    pub takes: String,
    /// What the water asks and the hull does not do.
    pub unmet: Vec<String>,
    /// What does not hold as somebody lands a fish, where that is to be told.
    pub mind: String,
    /// What has to be lifted, and what it costs; empty where not known.
    pub lift: String,
    pub price: String,
    /// What of the rig is aboard.
    pub kit: String,
    pub glyph: Option<Section>,
    pub gauge: Gauge,
    pub margin: Figure,
    pub stability: Figure,
    /// Figures beside the points.
    pub columns: Vec<Cell>,
    /// Which of them stand in the row itself, in their order.
    pub front: Vec<usize>,
    /// In how many cases it beats the next, 0-1.
    pub beats_next: Option<f64>,
    pub score: String,
    pub capacity_points: String,
    pub stability_points: String,
    /// Where the deck counts.
    pub deck_points: Option<String>,
    pub why: String,
    /// Against the hull one knows; empty where none is named.
    pub known: String,
    pub firmness: String,
    pub firmness_class: &'static str,
    pub firmness_help: String,
    pub on_front: bool,
    pub findings: Vec<String>,
    /// Said in red: what some of its plausible shapes do; empty where all rest.
    pub peril: String,
}

/// One hull below the line.
pub struct OutRow {
    pub key: String,
    pub name: String,
    pub facts: String,
    pub reasons: Vec<String>,
    pub findings: Vec<String>,
}

/// The answer.
pub struct RankingView {
    pub rows: Vec<Row>,
    pub out: Vec<OutRow>,
    /// Margin against stability.
    pub map: Option<Map>,
    pub next: Option<String>,
    pub stands: bool,
    pub scales: Vec<String>,
}

/// Units a metre in a row's glyph.
const GLYPH_SCALE: f64 = 120.0;

/// Length × beam, construction, drive, weight, price: what a person asks first.
pub fn facts(survey: &Survey, system: System) -> String {
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

/// Puts a ranking into words; `deep` with what a day that turns does to each hull, which
/// takes longer.
#[must_use]
pub fn ranking(answered: &Answered, system: System, deep: Deep) -> RankingView {
    let ranking = &answered.ranking;
    let full = gauge::full_scale(ranking.ranked.iter().map(|r| &*r.assessment));
    RankingView {
        // Speeds and drifts are reckoned here, hull by hull.
        rows: (0..ranking.ranked.len())
            .into_par_iter()
            .map(|i| row(answered, i, full, (system, deep)))
            .collect(),
        out: ranking
            .ruled_out
            .iter()
            .map(|out| out_row(out, &ranking.brief, system))
            .collect(),
        map: map(ranking, system),
        next: measure_next(ranking),
        stands: explain::headline_stability(&ranking.brief) == Quantity::StandingSupport,
        scales: published(&ranking.scales, &ranking.brief, system),
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
            "seated: lean room in a brief lean, {} earns nothing, {} a hundred, and the reserve, none to {:.0} J; on this water the reserve counts {reserve:.0} %",
            short(scales.lean.nothing),
            short(scales.lean.hundred),
            scales.reserve.hundred
        ),
        "sits and stands: the lower of the two".to_owned(),
        format!(
            "deck space, where it counts: half for clear standing floor, none to {:.2} m², half for tank well left, none to {:.2} m²; now {}",
            scales.floor.hundred,
            scales.well.hundred,
            brief.deck.label()
        ),
        "a figure not known earns nothing and is named; one that only part of a hull's possible shapes have counts by its share".to_owned(),
    ]
}

fn row(answered: &Answered, index: usize, full: f64, (system, deep): (System, Deep)) -> Row {
    let ranking = &answered.ranking;
    let entry = &ranking.ranked[index];
    let a = &entry.assessment;
    let survey = entry.survey();
    let headline = explain::headline_stability(&ranking.brief);
    let (firmness, firmness_class, firmness_help) = firm(ranking, index);
    let afloat = answered.afloat.get(&survey.key);
    let mut findings = doubts(survey, a.remarks());
    findings.extend(unchecked(a, &ranking.brief));
    findings.extend(minds(a, &ranking.brief, system));
    findings.extend(kit_doubts(&a.setup.loads.layout, system));
    let quick = afloat.map(|a| a.quick());
    let day = ranking.brief.day();
    let beyond = afloat.filter(|_| deep.day).map(|a| a.beyond(&day));
    let tried = afloat
        .filter(|_| deep.pond)
        .map(|a| a.tried_by(&ranking.brief));
    let columns = cells(
        Some(a),
        &Worked {
            quick,
            beyond: beyond.as_deref(),
            tried: tried.as_deref(),
        },
        survey,
        &ranking.brief,
        system,
    );
    Row {
        key: survey.key.clone(),
        place: index + 1,
        name: survey.name(),
        facts: facts(survey, system),
        steady: steadiness(a, &ranking.brief),
        takes: takes(a, system),
        unmet: unmet(entry, system),
        mind: reach_told(a).unwrap_or_default(),
        lift: lift(survey, system),
        price: price(survey, system),
        kit: kit_line(&a.setup.loads.layout, &a.setup.brief.rig, system),
        glyph: afloat.map(|a| section(a.glyph(), GLYPH_SCALE, false, system)),
        gauge: gauge::gauge(a, full, system),
        margin: figure_of(a, Quantity::BindingMargin, system),
        stability: own_figure(a, headline, &ranking.brief, system),
        front: in_front(&columns),
        columns,
        beats_next: entry.beats_next,
        score: format!("{:.0}", entry.score.total),
        capacity_points: format!("{:.0}", entry.score.capacity),
        stability_points: format!("{:.0}", entry.score.stability),
        deck_points: (ranking.brief.deck != DeckUse::Aside)
            .then(|| format!("{:.0}", entry.score.deck)),
        known: against_known(ranking, index),
        why: explain::why(ranking, index, system),
        firmness,
        firmness_class,
        firmness_help,
        on_front: entry.on_front,
        findings,
        peril: explain::peril(entry).unwrap_or_default(),
    }
}

/// What the water asks of a hull that it does not give, or of which nobody knows.
fn unmet(entry: &Ranked, system: System) -> Vec<String> {
    let unmet = entry.demands.iter().filter(|m| m.met != Some(true));
    unmet.map(|m| m.short(system)).collect()
}

/// A figure with the band of who knows a hull, where it is standing support and they
/// do.
pub(super) fn own_figure(a: &Assessment, q: Quantity, brief: &Brief, system: System) -> Figure {
    let mut figure = figure_of(a, q, system);
    let support = a.median(q).filter(|_| q == Quantity::StandingSupport);
    if let Some(band) = support.and_then(|s| own_band(s, brief, a.setup.guides())) {
        band.clone_into(&mut figure.band);
    }
    figure
}

/// "9 % more standing support than the one you know".
fn against_known(ranking: &Ranking, index: usize) -> String {
    let Some(known) = &ranking.brief.known else {
        return String::new();
    };
    let headline = explain::headline_stability(&ranking.brief);
    let hers = ranking.assessment(&known.hull);
    let mine = &ranking.ranked[index];
    if mine.survey().key == known.hull {
        return "The one you know.".to_owned();
    }
    let both = hers.and_then(|a| Some((mine.assessment.median(headline)?, a.median(headline)?)));
    let Some((x, y)) = both.filter(|(_, y)| *y > 0.0) else {
        return String::new();
    };
    let percent = (100.0 * (x / y - 1.0)).round();
    let what = headline.row().label;
    match percent {
        0.0 => format!("As much {what} as the one you know."),
        p if p > 0.0 => format!("{p:.0}\u{a0}% more {what} than the one you know."),
        p => format!("{:.0}\u{a0}% less {what} than the one you know.", -p),
    }
}

/// What is missing or contradicts itself in a record, and what its figures say.
fn doubts(survey: &Survey, remarks: &[String]) -> Vec<String> {
    let findings = survey.findings().into_iter().map(|f| f.text);
    findings.chain(remarks.iter().cloned()).collect()
}

/// What to measure next, as a plain instruction.
fn measure_next(ranking: &Ranking) -> Option<String> {
    let settles = measure_next::for_shortlist(ranking)?;
    let name = |i: usize| ranking.ranked[i].survey().name();
    Some(format!(
        "{}: {}: it would settle place {} against {} (from {:.0} to {:.0}\u{a0}% sure).",
        name(settles.hull),
        settles.target.instruction(),
        settles.upper + 1,
        settles.upper + 2,
        settles.now * 100.0,
        settles.then * 100.0
    ))
}

/// How firm a place is: the word, its class, and what it means.
fn firm(ranking: &Ranking, index: usize) -> (String, &'static str, String) {
    let entry = &ranking.ranked[index];
    let Some(share) = entry.beats_next else {
        return (String::new(), "", String::new());
    };
    let firmness = Firmness::of(share);
    let class = match firmness {
        Firmness::Firm => "firm",
        Firmness::Likely => "likely",
        Firmness::TooClose => "close",
    };
    let next = ranking.ranked[index + 1].survey().name();
    (
        firmness.label().to_owned(),
        class,
        format!(
            "ahead of the {next} in {} of their likely shapes, first of all in {}",
            percent(share),
            percent(entry.first_share)
        ),
    )
}

fn out_row(out: &RuledOut, brief: &Brief, system: System) -> OutRow {
    let mut findings: Vec<String> = out.survey.findings().into_iter().map(|f| f.text).collect();
    if let Some(a) = &out.assessment {
        findings.extend(told(a, brief, system));
        findings.extend(kit_doubts(&a.setup.loads.layout, system));
    }
    OutRow {
        key: out.survey.key.clone(),
        name: out.survey.name(),
        facts: facts(&out.survey, system),
        reasons: out.reasons.iter().map(|r| r.text(system)).collect(),
        findings,
    }
}

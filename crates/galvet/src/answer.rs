//! The answer to a brief as open data: what `galvet rank --json` prints.
//!
//! Numbers are SI except where a name says otherwise; ranges are
//! `[p5, p50, p95]`.

use galvet_core::assess::Assessment;
use galvet_core::brief::Brief;
use galvet_core::quantity::{Group, Quantity};
use galvet_core::rank::{Firmness, Ranking, explain};
use galvet_core::units::System;
use serde::Serialize;
use serde_json::{Map, Value, json};

/// The whole answer.
#[derive(Debug, Serialize)]
pub(crate) struct Answer {
    brief: Value,
    ranked: Vec<Place>,
    ruled_out: Vec<Out>,
}

#[derive(Debug, Serialize)]
struct Place {
    hull: String,
    name: String,
    place: usize,
    score: f64,
    capacity: Map<String, Value>,
    stability: Map<String, Value>,
    float: Map<String, Value>,
    ranges: Map<String, Value>,
    first_share: f64,
    beats_next: Option<f64>,
    firmness: Option<&'static str>,
    on_front: bool,
    findings: Vec<String>,
    /// The stowing engine is not built; loads lie where the rig puts them.
    stow: Option<()>,
    why: String,
}

#[derive(Debug, Serialize)]
struct Out {
    hull: String,
    name: String,
    reasons: Vec<Why>,
}

#[derive(Debug, Serialize)]
struct Why {
    code: &'static str,
    text: String,
    by: f64,
}

impl Answer {
    /// Puts a ranking into open form.
    pub(crate) fn of(ranking: &Ranking<'_>) -> Self {
        Self {
            brief: brief(ranking.brief),
            ranked: (0..ranking.ranked.len())
                .map(|i| place(ranking, i))
                .collect(),
            ruled_out: ranking
                .ruled_out
                .iter()
                .map(|out| Out {
                    hull: out.survey.key.clone(),
                    name: out.survey.name(),
                    reasons: out
                        .reasons
                        .iter()
                        .map(|reason| Why {
                            code: reason.code.key(),
                            text: reason.text(System::Metric),
                            by: reason.by,
                        })
                        .collect(),
                })
                .collect(),
        }
    }
}

fn place(ranking: &Ranking<'_>, index: usize) -> Place {
    let entry = &ranking.ranked[index];
    let a = &entry.assessment;
    let mut capacity = figures(a, Group::Capacity);
    let binding = entry.binding.map(|(binding, _)| binding.key());
    capacity.insert("binding".into(), json!(binding));
    for (name, margin) in [
        ("label_share", Quantity::LabelMargin),
        ("working_share", Quantity::WorkingMargin),
        ("waterline_share", Quantity::WaterlineMargin),
    ] {
        let load = a.setup.loads.counted_mass().max(1.0);
        let share = a.median(margin).map(|kg| kg / load);
        capacity.insert(name.into(), json!(share));
    }
    Place {
        hull: a.setup.survey.key.clone(),
        name: a.setup.survey.name(),
        place: index + 1,
        score: entry.score.total,
        capacity,
        stability: figures(a, Group::Stability),
        float: figures(a, Group::Floating),
        ranges: ranges(a),
        first_share: entry.first_share,
        beats_next: entry.beats_next,
        firmness: entry.beats_next.map(|share| Firmness::of(share).label()),
        on_front: entry.on_front,
        findings: a
            .setup
            .survey
            .findings()
            .into_iter()
            .map(|f| f.text)
            .collect(),
        stow: None,
        why: explain::why(ranking, index, System::Metric),
    }
}

/// Medians of a group; figures that do not apply are `null`.
fn figures(assessment: &Assessment<'_>, group: Group) -> Map<String, Value> {
    Quantity::ALL
        .iter()
        .filter(|q| q.row().group == group)
        .map(|&q| {
            let row = q.row();
            let value = assessment.median(q).map(|v| v * row.json_scale);
            (row.key.to_owned(), json!(value))
        })
        .collect()
}

fn ranges(assessment: &Assessment<'_>) -> Map<String, Value> {
    Quantity::ALL
        .iter()
        .filter_map(|&q| {
            let row = q.row();
            let r = assessment.range(q)?;
            let scaled = [r.p5, r.p50, r.p95].map(|v| v * row.json_scale);
            Some((row.key.to_owned(), json!(scaled)))
        })
        .collect()
}

fn brief(brief: &Brief) -> Value {
    json!({
        "crew": { "mass_kg": brief.crew.mass(), "stature_m": brief.crew.stature() },
        "posture": brief.posture.key(),
        "rig": { "key": brief.rig.key, "name": brief.rig.name, "loaded_kg": brief.rig.loaded() },
        "water": brief.water.key,
        "scuppers": brief.scuppers.key(),
        "seat": brief.seat.key(),
        "capacity_school": brief.capacity_school.key(),
        "stability_school": brief.stability_school.key(),
        "capacity_weight": brief.capacity_weight,
        "must": {
            "longest_m": brief.must.longest,
            "heaviest_lift_kg": brief.must.heaviest_lift,
            "budget": brief.must.budget,
        },
    })
}

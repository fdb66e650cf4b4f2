//! The answer to a brief as open data: what `galvet rank --json` prints.
//!
//! Numbers are SI except where a name says otherwise; ranges are
//! `[p5, p50, p95]`, with `share` where not all plausible shapes have the
//! figure.

use super::columns::{Filed, filed};
use crate::answer::{Afloat, Answered};
use crate::question;
use galvet_core::base::{Keyed, System};
use galvet_core::beyond::{Beyond, Extra, Part};
use galvet_core::figures::{Assessment, Group, Quantity, Range, Remedy, remedies};
use galvet_core::hull::Survey;
use galvet_core::load::Carriage;
use galvet_core::question::Brief;
use galvet_core::rank::{self, Binding, Firmness, Met, Reason, explain};
use rayon::prelude::*;
use serde::ser::SerializeStruct;
use serde::{Serialize, Serializer};
use serde_json::{Map, Value, json};
use std::sync::Arc;

/// The whole answer, written hull by hull: of a thousand hulls only the text of all stands
/// in memory.
pub struct Document<'a>(&'a Answered);

/// So many things, each made as it is written.
struct Each<F>(usize, F);

impl<T: Serialize, F: Fn(usize) -> T> Serialize for Each<F> {
    fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        to.collect_seq((0..self.0).map(&self.1))
    }
}

impl Serialize for Document<'_> {
    fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        let ranking = &self.0.ranking;
        let (ranked, out) = (ranking.ranked.len(), ranking.ruled_out.len());
        let mut all = to.serialize_struct("Document", 3)?;
        all.serialize_field("brief", &brief(&ranking.brief))?;
        all.serialize_field("ranked", &Each(ranked, |i| place(self.0, i)))?;
        all.serialize_field("ruled_out", &Each(out, |i| ruled_out(self.0, i)))?;
        all.end()
    }
}

#[derive(Debug, Serialize)]
struct Place {
    hull: String,
    name: String,
    place: usize,
    score: f64,
    /// Points of each axis.
    points: Value,
    /// Share of its plausible shapes that find no upright rest, and in words.
    peril: Option<Value>,
    #[serde(flatten)]
    figures: Figures,
    /// What the ranking tells beside the points.
    columns: Map<String, Value>,
    first_share: f64,
    beats_next: Option<f64>,
    firmness: Option<&'static str>,
    on_front: bool,
    /// What was needed for the points and is not known.
    missing: Vec<&'static str>,
    demands: Vec<Value>,
    findings: Vec<String>,
    why: String,
}

#[derive(Debug, Serialize)]
struct Out {
    hull: String,
    name: String,
    reasons: Vec<Why>,
    #[serde(flatten)]
    figures: Option<Figures>,
    columns: Map<String, Value>,
    demands: Vec<Value>,
    findings: Vec<String>,
}

/// What is known of a hull under the brief, ruled out or not.
#[derive(Debug, Serialize)]
struct Figures {
    capacity: Map<String, Value>,
    stability: Map<String, Value>,
    float: Map<String, Value>,
    ranges: Map<String, Value>,
    /// Shares of the plausible shapes by what becomes of them.
    fates: Map<String, Value>,
    /// What was floated, in the hull's frame, for anyone to check by another route:
    /// everything aboard at once, and the hours that were floated as well.
    load: Value,
    /// The hour at which a figure is worst, where that is not with everything aboard.
    worst_at: Map<String, Value>,
    /// Where the rig lies on it, and what is left of its deck.
    stow: Value,
    /// What it does when the day turns: medians, null where there is none.
    flooding: Map<String, Value>,
    wind: Map<String, Value>,
    lift: Map<String, Value>,
}

#[derive(Debug, Serialize)]
struct Why {
    code: &'static str,
    text: String,
    by: f64,
    /// Share of the plausible shapes, where it is not most of them.
    share: Option<f64>,
}

impl<'a> Document<'a> {
    /// Puts an answer into open form.
    #[must_use]
    pub fn of(answered: &'a Answered) -> Self {
        // Speeds and drifts are reckoned here, hull by hull.
        let all: Vec<&Arc<Afloat>> = answered.afloat.values().collect();
        all.par_iter().for_each(|afloat| {
            afloat.quick();
            afloat.beyond(&answered.ranking.brief.day());
        });
        Self(answered)
    }
}

fn ruled_out(answered: &Answered, index: usize) -> Out {
    let ranking = &answered.ranking;
    let out = &ranking.ruled_out[index];
    let known = out.assessment.as_deref();
    Out {
        hull: out.survey.key.clone(),
        name: out.survey.name(),
        reasons: out.reasons.iter().map(why).collect(),
        figures: known.map(|a| figures(a, answered)),
        columns: columns(answered, &out.survey),
        demands: known.map_or_else(Vec::new, |a| demands(&rank::demands(a, &ranking.brief))),
        findings: findings(&out.survey, known, &ranking.brief),
    }
}

fn why(reason: &Reason) -> Why {
    Why {
        code: reason.code.key(),
        text: reason.text(System::Metric),
        by: reason.by,
        share: reason.share,
    }
}

/// Gaps of the record, and what must be said of the hull under this question.
fn findings(survey: &Survey, assessment: Option<&Assessment>, brief: &Brief) -> Vec<String> {
    let gaps = survey.findings().into_iter().map(|f| f.text);
    let told = assessment.map_or_else(Vec::new, |a| rank::told(a, brief, System::Metric));
    gaps.chain(told).collect()
}

/// What the water and the launch ask: `by` in SI, where there is an amount.
fn demands(all: &[Met]) -> Vec<Value> {
    let one = |m: &Met| json!({ "key": m.demand.key(), "met": m.key(), "by": m.by });
    all.iter().map(one).collect()
}

/// Columns by their names in files; ranges as `[least, middle, most]`.
fn columns(answered: &Answered, survey: &Survey) -> Map<String, Value> {
    let value = |told| match told {
        Filed::Number(number) => json!(number),
        Filed::Range(all) => json!(all),
        Filed::Word(word) => json!(word),
    };
    filed(answered, survey)
        .map(|(name, told)| (name.to_owned(), told.map_or(Value::Null, value)))
        .collect()
}

fn place(answered: &Answered, index: usize) -> Place {
    let ranking = &answered.ranking;
    let entry = &ranking.ranked[index];
    Place {
        hull: entry.survey().key.clone(),
        name: entry.survey().name(),
        place: index + 1,
        score: entry.score.total,
        points: json!({
            "capacity": entry.score.capacity,
            "stability": entry.score.stability,
            "deck": entry.score.deck,
            "demands": -entry.score.demands,
        }),
        peril: entry.peril.map(|p| {
            json!({
                "code": p.code.key(),
                "share": p.share,
                "measure": p.measure.map(Keyed::key),
                "text": p.text(),
            })
        }),
        figures: figures(&entry.assessment, answered),
        columns: columns(answered, entry.survey()),
        first_share: entry.first_share,
        beats_next: entry.beats_next,
        firmness: entry.beats_next.map(|share| Firmness::of(share).label()),
        on_front: entry.on_front,
        missing: entry.score.missing.iter().map(|m| m.label()).collect(),
        demands: demands(&entry.demands),
        findings: findings(entry.survey(), Some(&entry.assessment), &ranking.brief),
        why: explain::why(ranking, index, System::Metric),
    }
}

fn figures(a: &Assessment, answered: &Answered) -> Figures {
    let mut capacity = medians(a, Group::Capacity);
    let binding = Binding::of(a).map(|(binding, _)| binding.key());
    capacity.insert("binding".into(), json!(binding));
    let load = a.median(Quantity::Counted).unwrap_or(0.0).max(1.0);
    for (name, margin) in [
        ("label_share", Quantity::LabelMargin),
        ("working_share", Quantity::WorkingMargin),
        ("waterline_share", Quantity::WaterlineMargin),
    ] {
        let share = a.median(margin).map(|kg| kg / load);
        capacity.insert(name.into(), json!(share));
    }
    let mut fates = Map::new();
    for fate in &a.fates {
        let key = fate.key();
        if !fates.contains_key(key) {
            fates.insert(key.to_owned(), json!(a.share(|f| f.key() == key)));
        }
    }
    let weight = |setup: &_, carriage| {
        let [mass_kg, x_m, y_m, z_m] = a.floated_as(setup, carriage);
        json!({ "mass_kg": mass_kg, "x_m": x_m, "y_m": y_m, "z_m": z_m })
    };
    let weights = |setup: &_| {
        let of = |carriage| weight(setup, carriage);
        json!({ "seated": of(Carriage::Seated), "at_the_feet": of(Carriage::AtTheFeet) })
    };
    let mut load = weights(&a.setup);
    for (hour, setup) in a.hours() {
        load[format!("at_{}", hour.key())] = weights(&setup);
    }
    let worst = Quantity::ALL.iter().filter_map(|&q| {
        let hour = a.worst_at(q)?;
        Some((q.row().key.to_owned(), json!(hour.key())))
    });
    let afloat = answered.afloat.get(&a.setup.posterior.survey.key);
    let day = answered.ranking.brief.day();
    let beyond = afloat.map(|afloat| afloat.beyond(&day));
    let part = |part: Part| {
        let own = Extra::ALL.iter().filter(|e| e.row().part == part);
        own.map(|&extra| {
            let row = extra.row();
            let median = beyond.as_ref().and_then(|b| b.median(extra));
            (row.key.to_owned(), json!(median.map(|v| v * row.scale)))
        })
        .collect()
    };
    Figures {
        capacity,
        stability: medians(a, Group::Stability),
        float: medians(a, Group::Floating),
        ranges: ranges(a, beyond.as_deref()),
        fates,
        load,
        worst_at: worst.collect(),
        stow: stow(a),
        flooding: part(Part::Flooding),
        wind: part(Part::Wind),
        lift: part(Part::Lift),
    }
}

/// Where the rig lies. Heights are those of the middle shape, in the hull's frame.
fn stow(a: &Assessment) -> Value {
    let layout = &a.setup.loads.layout;
    let floor = a.afloat(&[a.middle]).body.standing_height.0[0];
    let placed = layout.stowed.iter().map(|s| {
        let lies = s.lies.as_ref();
        let size = lies.map(|l| l.size);
        json!({
            "item": s.item,
            "zone": lies.map(|l| &l.zone),
            "within": lies.and_then(|l| l.within.as_ref()),
            "mass_kg": s.loaded_mass,
            "x_m": s.x,
            "y_m": s.y,
            "z_m": floor + s.above_floor,
            "base_m": lies.map(|l| floor + l.base),
            "length_m": size.map(|s| s[0]),
            "width_m": size.map(|s| s[1]),
            "height_m": size.map(|s| s[2]),
            "fixing": lies.map(|l| l.fixing.key()),
            "holes": lies.map(|l| l.holes),
            "reach": lies.map(|l| l.reach.key()),
            "pinned": lies.is_some_and(|l| l.pinned),
        })
    });
    let unplaced = layout.unplaced.iter().map(|u| {
        json!({
            "item": u.item,
            "code": u.why.code.key(),
            "text": u.text(System::Metric),
            "by_m": u.why.by(),
            "count": u.count,
            "must": u.must,
            "sure": u.sure,
            "remedies": remedies(&a.setup, u, 1).iter().map(remedy).collect::<Value>(),
        })
    });
    let doubts = layout
        .doubts
        .iter()
        .map(|(item, doubt)| json!({ "item": item, "text": doubt.text() }));
    let deck = layout.deck.as_ref().map(|d| {
        json!({
            "standing_floor_m2": d.standing_floor,
            "well_free_m2": d.well_free,
            "largest_free_m": d.largest_free,
            "track_left_mm": 1000.0 * d.track_left,
            "boxes": d.boxes,
            "rods_upright": d.rods_upright,
            "rods_flat": d.rods_flat,
            "holes": d.holes,
            "out_of_reach": d.out_of_reach,
            "projections": d.projections,
            "setup_minutes": d.setup_minutes,
        })
    });
    json!({
        "placed": placed.collect::<Value>(),
        "unplaced": unplaced.collect::<Value>(),
        "doubts": doubts.collect::<Value>(),
        "deck": deck,
    })
}

/// What would give a thing a place.
fn remedy(r: &Remedy) -> Value {
    json!({
        "key": r.key(),
        "text": r.text(System::Metric),
        "price": r.price,
        "holes": r.holes,
        "minutes": r.minutes,
        "zone": r.zone,
    })
}

/// Medians of a group; figures that do not apply, or that most plausible
/// shapes do not have, are `null`.
fn medians(assessment: &Assessment, group: Group) -> Map<String, Value> {
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

fn ranges(assessment: &Assessment, beyond: Option<&Beyond>) -> Map<String, Value> {
    let told = |key: &str, r: Range, scale: f64| {
        let scaled = [r.p5, r.p50, r.p95].map(|v| v * scale);
        // A figure all shapes have is a plain triple.
        let value = if r.share < 1.0 - 1e-9 {
            json!({ "range": scaled, "share": r.share })
        } else {
            json!(scaled)
        };
        (key.to_owned(), value)
    };
    let ranked = Quantity::ALL.iter().filter_map(|&q| {
        let row = q.row();
        Some(told(row.key, assessment.range(q)?, row.json_scale))
    });
    let extras = Extra::ALL.iter().filter_map(|&extra| {
        let row = extra.row();
        Some(told(row.key, beyond?.range(extra)?, row.scale))
    });
    ranked.chain(extras).collect()
}

fn brief(brief: &Brief) -> Value {
    let mut out = question::document(brief, true);
    out["rig"] = json!({
        "key": brief.rig.key,
        "name": brief.rig.name,
        "loaded_kg": brief.rig.loaded(),
    });
    out
}

//! The load gauge: the load stacked against the three limits.

use super::coordinate;
use galvet_core::load::LoadKind;
use galvet_core::quantity::Quantity;
use galvet_core::rank::{Binding, Ranked};
use galvet_core::units::{Dimension, System};

/// Width of the bar in view-box units.
const WIDTH: f64 = 320.0;

/// A stretch of the stack.
pub(crate) struct Segment {
    pub(crate) class: &'static str,
    pub(crate) label: String,
    pub(crate) x: String,
    pub(crate) width: String,
}

/// A limit's mark.
pub(crate) struct Mark {
    pub(crate) class: &'static str,
    pub(crate) label: String,
    pub(crate) x: String,
    pub(crate) binding: bool,
}

/// A gauge, ready to be drawn.
pub(crate) struct Gauge {
    pub(crate) segments: Vec<Segment>,
    pub(crate) marks: Vec<Mark>,
    /// The stretch in which the waterline limit lies, 5-95 %.
    pub(crate) feather: Option<(String, String)>,
    /// Whole gauge in words, for those who do not see it.
    pub(crate) words: String,
    /// The counted load.
    pub(crate) aboard: String,
    /// The binding limit in words, and where it lies.
    pub(crate) binding: String,
}

/// Largest mass that any gauge of a ranking must show, kg.
pub(crate) fn full_scale(entries: &[Ranked<'_>]) -> f64 {
    entries
        .iter()
        .map(|entry| {
            let a = &entry.assessment;
            let counted = a.setup.loads.counted_mass();
            let most = [Quantity::LabelMargin, Quantity::WaterlineMargin]
                .into_iter()
                .filter_map(|q| a.range(q))
                .map(|r| r.p95)
                .fold(0.0, f64::max);
            counted + most
        })
        .fold(50.0, f64::max)
        * 1.02
}

fn limit_name(binding: Binding, floor: bool) -> &'static str {
    match (binding, floor) {
        (Binding::Label, _) => "label",
        (Binding::WorkingShare, _) => "working share",
        (Binding::Waterline, true) => "wet floor",
        (Binding::Waterline, false) => "gunwale",
    }
}

/// Draws the gauge of a hull on a scale of `full` kg.
pub(crate) fn gauge(entry: &Ranked<'_>, full: f64, system: System) -> Gauge {
    let a = &entry.assessment;
    let at = |kg: f64| (kg / full * WIDTH).clamp(0.0, WIDTH);
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 0);
    let mut segments = Vec::new();
    let mut from = 0.0;
    for (kind, kg) in a.setup.loads.counted {
        if kg <= 0.0 {
            continue;
        }
        segments.push(Segment {
            class: class(kind),
            label: format!("{} {}", kind.label(), mass(kg)),
            x: coordinate(at(from)),
            width: coordinate(at(from + kg) - at(from)),
        });
        from += kg;
    }
    let counted = a.setup.loads.counted_mass();
    let floor = a.setup.limit == galvet_core::evaluate::WaterLimit::Floor;
    let limits = [
        (Binding::Label, Quantity::LabelMargin, "limit-label"),
        (
            Binding::WorkingShare,
            Quantity::WorkingMargin,
            "limit-share",
        ),
        (Binding::Waterline, Quantity::WaterlineMargin, "limit-water"),
    ];
    let binding = entry.binding.map(|b| b.0);
    let marks: Vec<Mark> = limits
        .into_iter()
        .filter_map(|(limit, quantity, class)| {
            let kg = counted + a.median(quantity)?;
            Some(Mark {
                class,
                label: format!("{} {}", limit_name(limit, floor), mass(kg)),
                x: coordinate(at(kg)),
                binding: binding == Some(limit),
            })
        })
        .collect();
    let feather = a.range(Quantity::WaterlineMargin).map(|r| {
        let (lo, hi) = (at(counted + r.p5), at(counted + r.p95));
        (coordinate(lo), coordinate(hi - lo))
    });
    let listed: Vec<String> = segments.iter().map(|s| s.label.clone()).collect();
    let limits: Vec<String> = marks.iter().map(|m| m.label.clone()).collect();
    Gauge {
        words: format!(
            "Load {}: {}. Limits: {}.",
            mass(counted),
            listed.join(", "),
            limits.join(", ")
        ),
        aboard: mass(counted),
        binding: entry
            .binding
            .map_or("no limit is known".to_owned(), |(b, margin)| {
                format!(
                    "{} binds at {}",
                    limit_name(b, floor),
                    mass(counted + margin)
                )
            }),
        segments,
        marks,
        feather,
    }
}

fn class(kind: LoadKind) -> &'static str {
    match kind {
        LoadKind::Crew => "load-crew",
        LoadKind::FixedKit => "load-fixed",
        LoadKind::LooseKit => "load-kit",
        LoadKind::WaterAndFish => "load-wet",
    }
}

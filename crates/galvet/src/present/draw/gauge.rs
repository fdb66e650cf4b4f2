//! The load gauge: the load stacked against the three limits.

use super::coordinate;
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity, WaterLimit};
use galvet_core::load::LoadKind;
use galvet_core::rank::Binding;

/// Width of the bar in view-box units.
const WIDTH: f64 = 320.0;

/// A stretch of the stack.
/// A stretch.
pub struct Segment {
    pub class: &'static str,
    pub label: String,
    pub x: String,
    pub width: String,
}

/// A limit's mark.
pub struct Mark {
    pub class: &'static str,
    pub label: String,
    pub x: String,
    pub binding: bool,
}

/// A gauge, ready to be drawn.
pub struct Gauge {
    pub segments: Vec<Segment>,
    pub marks: Vec<Mark>,
    /// The stretch in which the waterline limit lies, 5-95 %.
    pub feather: Option<(String, String)>,
    /// Whole gauge in words, for those who do not see it.
    pub words: String,
    /// The counted load.
    pub aboard: String,
    /// The binding limit in words, and where it lies.
    pub binding: String,
    /// Which limit is met first, in a few words.
    pub first: &'static str,
    /// Whether more is aboard than that.
    pub over: bool,
}

/// Largest mass that any gauge of a ranking must show, kg.
pub fn full_scale<'a>(entries: impl Iterator<Item = &'a Assessment>) -> f64 {
    entries
        .map(|a| {
            let counted = counted(a);
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

/// Everything counted against the label, kg: the stack's length.
fn counted(a: &Assessment) -> f64 {
    a.setup.loads.counted_mass(a.middle.kit_mass)
}

fn limit_name(binding: Binding, limit: WaterLimit) -> &'static str {
    match (binding, limit) {
        (Binding::Label, _) => "label",
        (Binding::WorkingShare, _) => "working limit",
        (Binding::Waterline, WaterLimit::Floor) => "wet floor",
        (Binding::Waterline, WaterLimit::Deck) => "wet deck",
        (Binding::Waterline, WaterLimit::Gunwale) => "gunwale",
    }
}

/// Draws the gauge of a hull on a scale of `full` kg.
pub fn gauge(a: &Assessment, full: f64, system: System) -> Gauge {
    let at = |kg: f64| (kg / full * WIDTH).clamp(0.0, WIDTH);
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 0);
    let mut segments = Vec::new();
    let mut from = 0.0;
    for (kind, kg) in a.setup.loads.counted(a.middle.kit_mass) {
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
    let counted = counted(a);
    let floor = a.setup.limit;
    let limits = [
        (Binding::Label, Quantity::LabelMargin, "limit-label"),
        (
            Binding::WorkingShare,
            Quantity::WorkingMargin,
            "limit-share",
        ),
        (Binding::Waterline, Quantity::WaterlineMargin, "limit-water"),
    ];
    let bound = Binding::of(a);
    let binding = bound.map(|b| b.0);
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
        first: bound.map_or("no limit is known", |(b, _)| match (b, floor) {
            (Binding::Label, _) => "label first",
            (Binding::WorkingShare, _) => "working limit first",
            (Binding::Waterline, WaterLimit::Floor) => "floor gets wet first",
            (Binding::Waterline, WaterLimit::Deck) => "deck gets wet first",
            (Binding::Waterline, WaterLimit::Gunwale) => "gunwale too low first",
        }),
        over: bound.is_some_and(|(_, margin)| margin < 0.0),
        binding: bound.map_or("no limit is known".to_owned(), |(b, margin)| {
            let at = mass(counted + margin);
            match (b, floor) {
                (Binding::Label, _) => format!("label says {at}"),
                (Binding::WorkingShare, _) => {
                    let share = 100.0 * a.setup.brief.water.working_share;
                    format!("working limit ({share:.0}\u{a0}% of the label) at {at}")
                }
                (Binding::Waterline, WaterLimit::Floor) => format!("floor gets wet at {at}"),
                (Binding::Waterline, WaterLimit::Deck) => format!("deck gets wet at {at}"),
                (Binding::Waterline, WaterLimit::Gunwale) => {
                    format!("gunwale too low at {at}")
                }
            }
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

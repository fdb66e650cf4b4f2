//! Steps of what is planned on a hull.

use super::{Step, fasten, gate, plain};
use crate::gear::Strain;
use crate::hull::{Fitting, FittingKind, Modification, ZoneKind};
use crate::papers::Facts;
use crate::papers::fastening::fastening;
use crate::papers::trade::Trade;
use crate::papers::word::Words;

/// Steps of a modification that is planned.
pub(super) fn of_a_modification(facts: &Facts<'_>, m: &Modification) -> Vec<Step> {
    let bow = facts.layout().bow;
    let why = format!("planned: {}", m.name);
    let beneath = |x: f64| {
        let zones = facts.zones();
        let at = zones.iter().find(|z| z.from <= x && x <= z.to);
        at.and_then(|z| z.underside_reachable)
    };
    let (mut steps, mut words) = (Vec::new(), Words::default());
    let kind = words.of("change", &m.name);
    for zone in &m.zones {
        let hatch = matches!(
            zone.kind,
            ZoneKind::BowHatch
                | ZoneKind::CentreHatch
                | ZoneKind::SternHatch
                | ZoneKind::Console
                | ZoneKind::UnderTheDeck
        );
        let trade = if hatch { Trade::Hatch } else { Trade::Bolted };
        steps.push(Step {
            at: Some([0.5 * (zone.from + zone.to) - bow, zone.offset, 0.0]),
            later: true,
            why: why.clone(),
            ..plain(&words.of(&kind, &zone.name), &zone.name, trade, &zone.name)
        });
    }
    let holes_said = m.holes;
    let mut counted = 0;
    for fitting in &m.fittings {
        let trade = trade_of_fitting(fitting);
        let holes = usual_holes(fitting, trade);
        counted += holes;
        let mut step = Step {
            at: Some([fitting.x - bow, fitting.y, fitting.z.unwrap_or(0.0)]),
            holes,
            later: holes > 0 || trade == Trade::FlushHolder,
            why: why.clone(),
            ..plain(
                &words.of(&kind, &fitting.name),
                &fitting.name,
                trade,
                "deck",
            )
        };
        if holes > 0 {
            let strain = strain_of(trade);
            let known = beneath(fitting.x);
            fasten(&mut step, strain, fastening(strain, false, known), known);
        }
        steps.push(step);
    }
    if steps.is_empty() && m.removes.is_empty() {
        steps.push(Step {
            at: Some([m.x - bow, 0.0, 0.0]),
            later: holes_said > 0,
            why,
            ..plain(&kind, &m.name, Trade::Bolted, "hull")
        });
    }
    // What its record says of holes is what is drilled.
    if holes_said > counted
        && let Some(last) = steps.iter_mut().rev().find(|s| s.later)
    {
        last.holes += holes_said - counted;
        if last.held.is_empty() {
            let known = beneath(last.at.map_or(m.x, |[x, ..]| x + bow));
            let strain = last.trade.map_or(Strain::Light, strain_of);
            fasten(last, strain, fastening(strain, false, known), known);
        }
    }
    for name in &m.removes {
        steps.push(Step {
            how: None,
            trade: None,
            later: true,
            waits: Vec::new(),
            minutes: 15.0,
            why: format!("planned: {}", m.name),
            ..gate(
                &words.of(&kind, &format!("off {name}")),
                &format!("take off: {name}; keep the parts, plug the holes"),
                "",
            )
        });
    }
    steps
}

const fn trade_of_fitting(fitting: &Fitting) -> Trade {
    match fitting.kind {
        FittingKind::Track { .. } => Trade::Track,
        FittingKind::RodHolder { flush: true, .. } => Trade::FlushHolder,
        FittingKind::RodHolder { .. } => Trade::Holder,
        FittingKind::PadEye
        | FittingKind::DRing
        | FittingKind::Bungee { .. }
        | FittingKind::Handle
        | FittingKind::AssistStrap => Trade::Eye,
        FittingKind::Outriggers { .. } => Trade::Outriggers,
        _ => Trade::Bolted,
    }
}

/// Holes a fitting usually takes, where its modification does not say. Guide values.
fn usual_holes(fitting: &Fitting, trade: Trade) -> u16 {
    /// One bolt every so many metres of track.
    const EVERY: f64 = 0.1;
    match (&fitting.kind, trade) {
        (FittingKind::Track { length, .. }, _) => (length / EVERY).round().clamp(2.0, 40.0) as u16,
        (FittingKind::Outriggers { .. }, _) => 8,
        (_, Trade::FlushHolder) => 4,
        (_, Trade::Eye) => 2,
        (FittingKind::Bulkhead | FittingKind::Insert | FittingKind::Scupper { .. }, _) => 0,
        (_, Trade::Holder) => 0,
        _ => 4,
    }
}

/// What a trade must bear.
const fn strain_of(trade: Trade) -> Strain {
    match trade {
        Trade::Track | Trade::Outriggers => Strain::Boom,
        Trade::FlushHolder | Trade::Holder => Strain::Strike,
        Trade::Eye | Trade::Trolley => Strain::Anchor,
        Trade::Motor | Trade::Battery => Strain::Heavy,
        _ => Strain::Light,
    }
}

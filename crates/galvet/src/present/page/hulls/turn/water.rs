//! Water aboard, in words: a wave over the deck, water inside, a cockpit full of it.

use super::{at_worst, told};
use galvet_core::aboard::{Shut, loosened, swamped};
use galvet_core::base::{Dimension, System};
use galvet_core::beyond::{Beyond, Extra};
use galvet_core::figures::Assessment;
use galvet_core::hull::Construction;

/// A wave over the deck, in words.
pub(super) fn over_the_deck(a: &Assessment, beyond: &Beyond, system: System) -> Vec<String> {
    let construction = a.setup.posterior.survey.construction;
    if construction == Construction::Board {
        return vec!["A board has no recess: a wave runs off over its edges.".to_owned()];
    }
    if construction == Construction::SitInside {
        return cockpit_full(a, system);
    }
    let median = |extra| beyond.median(extra).and_then(|_| beyond.range(extra));
    let mut says = Vec::new();
    match (median(Extra::Clear), median(Extra::Tender)) {
        (Some(clear), Some(tender)) => says.push(format!(
            "A deck full of water drains in about {}. For the first {} of it the boat is unsteady: sit low and still.",
            at_worst(Extra::Clear, clear, system),
            told(Extra::Tender, tender.p95, system)
        )),
        (Some(clear), None) => says.push(format!(
            "A deck full of water drains in about {}, and what stays keeps it unsteady: bail it.",
            at_worst(Extra::Clear, clear, system)
        )),
        (None, _) => says.push(
            "A deck full of water does not drain by itself: bail it, and keep off water that breaks."
                .to_owned(),
        ),
    }
    if let Some(stays) = beyond.range(Extra::Stays).filter(|r| r.p50 > 0.008) {
        says.push(format!(
            "{} of it stays.",
            at_worst(Extra::Stays, stays, system)
        ));
    }
    let rain = beyond.flooding.as_ref().and_then(|f| f.rain);
    if let Some(rain) = rain {
        says.push(format!(
            "An hour of rain of 10 mm puts {} on it.",
            system.text(Dimension::Volume, rain.p50, 0)
        ));
    }
    if let Some(fills) = median(Extra::Fills) {
        says.push(format!(
            "Held far over, water coming up its scuppers half fills it within {}.",
            told(Extra::Fills, fills.p5, system)
        ));
    }
    says
}

/// A cockpit full to its rim, of the middle shape, in words: what keeps it out, and whether
/// it stays up full.
fn cockpit_full(a: &Assessment, system: System) -> Vec<String> {
    let setup = &a.setup;
    let litres = |v: f64| system.text(Dimension::Volume, v, 0);
    let kept = if setup.sprayed() {
        "A spray deck keeps waves out; without it, or with it off:"
    } else {
        "No spray deck is on the rig: what comes into its cockpit stays until it is pumped or bailed."
    };
    let full = match swamped(setup, &a.middle) {
        Some(s) if s.gm > 0.0 && s.rim > 0.0 => format!(
            "Full to the rim, with {}, it stays up, its rim {} over the water: it can be bailed.",
            litres(s.volume),
            system.text(Dimension::ShortLength, s.rim, 0)
        ),
        Some(s) => format!(
            "Full to the rim, with {}, it rolls over: bags or bulkheads at both ends.",
            litres(s.volume)
        ),
        None => "Filling, it goes down by the rim or an end before it is full: bags or bulkheads at both ends."
            .to_owned(),
    };
    vec![kept.to_owned(), full, shut_out(a, system)]
}

/// What on record and rig keeps water out of the inside, in words.
fn shut_out(a: &Assessment, system: System) -> String {
    let shapes = [a.middle];
    let shut = Shut::of(&a.setup, &a.afloat(&shapes).body);
    let bags = shut.bagged();
    let walls = if shut.walled {
        "a bulkhead"
    } else {
        "no bulkhead"
    };
    if bags > 0.0 {
        let bags = system.text(Dimension::Volume, bags, 0);
        return format!("On record: {walls}, and {bags} of bags or foam.");
    }
    format!("On record: {walls}, and no bag or foam.")
}

/// What bags in both ends would change, of the middle shape, in words; empty where some
/// are aboard or they change nothing.
fn bags_would(a: &Assessment, system: System) -> String {
    /// A usual bag, m³ (guide value).
    const BAG: f64 = 0.025;
    let limits = |with: bool| {
        loosened(&a.setup, &a.middle, |shut| {
            if with { shut.with_bags(BAG) } else { shut }
        })
    };
    let (Some(now), Some(then)) = (limits(false), limits(true)) else {
        return String::new();
    };
    let litres = |v: f64| system.text(Dimension::Volume, v, 0);
    let bag = litres(BAG);
    match (now.founders, then.founders) {
        (Some(_), None) => format!("Bags of {bag} in both ends: no leak takes it down any more."),
        (Some(a), Some(b)) if b > a + 0.002 => {
            format!(
                "Bags of {bag} in both ends: it goes down at {}, not {}.",
                litres(b),
                litres(a)
            )
        }
        _ => String::new(),
    }
}

/// Water inside, in words.
pub(super) fn inside(a: &Assessment, beyond: &Beyond, system: System) -> Vec<String> {
    let mut says = Vec::new();
    if let Some(r) = beyond.range(Extra::GmZero) {
        says.push(format!(
            "With {} loose inside it no longer holds itself upright{}.",
            told(Extra::GmZero, r.p5, system),
            match beyond.range(Extra::Founders) {
                Some(f) => format!("; by {} it goes down", told(Extra::Founders, f.p5, system)),
                None => String::new(),
            }
        ));
    }
    let pumps = a.setup.pumps();
    let lost = beyond.range(Extra::GmZero).map(|r| r.p5);
    if let Some(lost) = lost.filter(|_| pumps > 0.0) {
        let minutes = (1000.0 * lost / pumps).ceil();
        says.push(format!(
            "The pump aboard gets that out in about {minutes:.0} min."
        ));
    } else if lost.is_some() {
        says.push("No pump is on the rig.".to_owned());
    }
    says.extend(Some(bags_would(a, system)).filter(|said| !said.is_empty()));
    // A round hatch of 20 cm a hand's breadth under a wave for a second.
    let area = std::f64::consts::PI * 0.01;
    let guides = galvet_core::guide::Guides::default();
    let wave = galvet_core::aboard::hatch_volume(area, 0.1, 1.0, &guides);
    says.push(format!(
        "A hatch of {} left open takes {} with every wave over it.",
        system.text(Dimension::ShortLength, 0.2, 0),
        system.text(Dimension::Volume, wave, 0)
    ));
    says
}

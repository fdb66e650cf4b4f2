//! What it costs to move, and how it lies to the wind.

use super::figure::{percent, signed_percent};
use crate::present::draw::curve::{EffortCurve, effort_curve};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::{Assessment, Range, outlook::Outlook};
use galvet_core::handling::windage;
use galvet_core::hull::Propulsion;
use galvet_core::question::Brief;

/// A figure of it.
pub struct Line {
    pub label: &'static str,
    pub value: String,
    pub range: String,
    pub meaning: &'static str,
    /// Word of the page that tells how it comes about.
    pub leads: &'static str,
}

/// Speed and effort.
pub struct Going {
    pub curve: EffortCurve,
    pub lines: Vec<Line>,
    pub basis: String,
}

/// Says it.
pub(super) fn going(
    outlook: &Outlook,
    assessment: &Assessment,
    brief: &Brief,
    system: System,
) -> Going {
    let line = |label, range: Range, scale: f64, dimension, decimals, unit: &str, meaning| {
        let text = |v: f64| system.text(dimension, v * scale, decimals);
        let lo = system.number(dimension, range.p5 * scale, decimals);
        let (middle, hi) = (text(range.p50), text(range.p95));
        // Efforts beyond the speeds computed are said, not left out.
        let share = if range.share < 1.0 {
            format!("in {} of the cases, then ", percent(range.share))
        } else {
            String::new()
        };
        Line {
            label,
            value: format!("{middle}{unit}"),
            range: format!("{share}{lo} to {hi}{unit}"),
            meaning,
            leads: "speed",
        }
    };
    let propulsion = assessment.setup.posterior.survey.propulsion;
    let mut lines = vec![line(
        "cruise",
        outlook.cruise,
        1.0,
        Dimension::Speed,
        1,
        "",
        "speed that can be kept up",
    )];
    if let Some(top) = outlook.top {
        let meaning = "speed at twice that effort, for minutes";
        lines.push(line("top", top, 1.0, Dimension::Speed, 1, "", meaning));
    }
    if let Some(energy) = outlook.energy_10_km {
        lines.push(line(
            "energy for 10\u{a0}km",
            energy,
            1.0 / 3600.0,
            Dimension::Ratio,
            0,
            "\u{a0}Wh",
            "work at hand, foot or battery at cruise",
        ));
    }
    if let Some(range) = outlook.battery {
        let meaning = "distance at cruise with a share of the battery kept back; in still water, without wind";
        lines.push(line(
            "range on the battery",
            range,
            1.0,
            Dimension::Distance,
            0,
            "",
            meaning,
        ));
    }
    lines.extend(way(outlook, brief, system));
    lines.extend(in_wind(assessment, system));
    let at = if propulsion == Propulsion::Motor {
        "electric input"
    } else {
        "at hand or foot"
    };
    Going {
        curve: effort_curve(outlook, system),
        lines,
        basis: format!(
            "Estimated: friction, waves and still air at the attitude it floats in, by {}, {:.0} to {:.0}\u{a0}W {at}. Wind, chop, weed and a foul bottom cost more.",
            propulsion.label(),
            outlook.effort[0],
            outlook.effort[2]
        ),
    }
}

/// Time and work of the day's distance, where one is asked for.
fn way(outlook: &Outlook, brief: &Brief, system: System) -> Vec<Line> {
    let Some(far) = brief.outing.distance else {
        return Vec::new();
    };
    let hours = |speed: f64| far / speed / 3600.0;
    let told = |speed: f64| system.number(Dimension::Ratio, hours(speed), 1);
    let cruise = outlook.cruise;
    let distance = system.text(Dimension::Distance, far, 0);
    let mut lines = vec![Line {
        label: "the day's way",
        value: format!("{}\u{a0}h for {distance}", told(cruise.p50)),
        range: format!("{} to {}\u{a0}h", told(cruise.p95), told(cruise.p5)),
        meaning: "time at cruise, in still water, without wind",
        leads: "speed",
    }];
    if let Some(energy) = outlook.energy_10_km {
        let work = |j: f64| system.number(Dimension::Ratio, j * far / 1e4 / 3600.0, 0);
        lines.push(Line {
            label: "work for it",
            value: format!("{}\u{a0}Wh", work(energy.p50)),
            range: format!("{} to {}\u{a0}Wh", work(energy.p5), work(energy.p95)),
            meaning: "at hand, foot or battery",
            leads: "speed",
        });
    }
    lines
}

/// Drift and helm in this water's typical wind.
fn in_wind(assessment: &Assessment, system: System) -> Vec<Line> {
    let water = &assessment.setup.brief.water;
    let found = water.wind().and_then(|wind| windage(assessment, wind));
    let Some(found) = found else {
        return Vec::new();
    };
    let speed = |v: f64| system.text(Dimension::Speed, v, 1);
    let helm = signed_percent;
    let both = |r: Range, text: &dyn Fn(f64) -> String| {
        (text(r.p50), format!("{} to {}", text(r.p5), text(r.p95)))
    };
    let line = |label, leads, (value, range): (String, String), meaning| Line {
        label,
        value,
        range,
        meaning,
        leads,
    };
    let area = |m2: f64| galvet_core::rank::explain::area(m2, system);
    let [hull, people, kit, below] = found.areas;
    let parts = format!(
        "hull {}, people {}, kit {}",
        area(hull),
        area(people),
        area(kit)
    );
    vec![
        line(
            "side in the wind",
            "drift",
            (area(hull + people + kit), parts),
            "what stands above the water, or above the gunwale, seen from the side; of the middle shape",
        ),
        line(
            "side in the water",
            "drift",
            (area(below), String::new()),
            "hull, drive let down, rudder or skeg; drift is where the wind on the one and the water on the other pull alike",
        ),
        line(
            "drift, beam on",
            "drift",
            both(found.drift, &speed),
            "in this water's typical wind, at rest; an estimate: waves and current come on top",
        ),
        line(
            "helm at rest",
            "helm",
            both(found.helm_at_rest, &helm),
            "how far the wind's centre lies behind the hull's, of the length: above zero it turns into the wind",
        ),
        line(
            "helm under way",
            "helm",
            both(found.helm_under_way, &helm),
            "the same going ahead",
        ),
    ]
}

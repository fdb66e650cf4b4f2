//! Sense checks as an expert reads a sheet: figures that are each possible and
//! together odd, each with the reason.
//!
//! The limits are guide values, wide enough that a sound hull of any kind in the
//! bounds of the record passes; what lies outside is most often a slip of a
//! digit, a unit, or a figure in the wrong column.

use super::finding::{About, Finding};
use super::fitting::FittingKind;
use super::kinds::Construction;
use super::measure::Measure;
use super::survey::Survey;
use super::zone::{Opening, Zone, ZoneKind};

/// Beam as a share of the length.
const SLENDER: (f64, f64) = (0.13, 0.40);
/// Mass of the bare or fitted hull for each m² of length × beam, kg/m².
const MASS_PER_AREA: (f64, f64) = (4.5, 24.0);
/// Rated capacity for each m² of length × beam, kg/m².
const CAPACITY_PER_AREA: (f64, f64) = (25.0, 110.0);
/// Zones may stick out by this much, m: a tape over a curved end.
const SLACK: f64 = 0.03;

/// What is odd about a record.
pub(super) fn odd(survey: &Survey) -> Vec<Finding> {
    let mut found = sizes(survey);
    found.extend(seats(survey));
    found.extend(
        survey
            .fitout
            .zones
            .iter()
            .flat_map(|zone| of_zone(survey, zone)),
    );
    found.extend(overlaps(&survey.fitout.zones));
    found.extend(tracks(survey));
    found
}

fn sizes(survey: &Survey) -> Vec<Finding> {
    let mut out = Vec::new();
    let value = |m| survey.value(m);
    let (Some(length), Some(beam)) = (value(Measure::Length), value(Measure::Beam)) else {
        return out;
    };
    let outside = |v: f64, (lo, hi): (f64, f64)| v < lo || v > hi;
    if outside(beam / length, SLENDER) {
        let share = 100.0 * beam / length;
        out.push(Finding::contradiction(About::Measure(Measure::Beam), format!(
            "the beam is {share:.0} % of the length, where kayaks lie between {:.0} and {:.0} %: is one of them mistyped, or in another unit?",
            100.0 * SLENDER.0,
            100.0 * SLENDER.1
        )));
    }
    let area = length * beam;
    for measure in [Measure::BareWeight, Measure::FittedWeight] {
        if let Some(mass) = value(measure).filter(|m| outside(m / area, MASS_PER_AREA)) {
            let word = if mass / area < MASS_PER_AREA.0 {
                "light"
            } else {
                "heavy"
            };
            out.push(Finding::contradiction(About::Measure(measure), format!(
                "{mass:.0} kg is odd for {length:.2} × {beam:.2} m: too {word} by far. Is the {} in another unit, or another hull's?",
                measure.row().label
            )));
        }
    }
    if let Some(rated) =
        value(Measure::RatedCapacity).filter(|r| outside(r / area, CAPACITY_PER_AREA))
    {
        let reason = if rated / area > CAPACITY_PER_AREA.1 {
            "no hull of that size carries it with a dry floor: is it the load that sinks it, or in another unit?"
        } else {
            "a hull of that size carries more: is it what is left after the crew, or in another unit?"
        };
        out.push(Finding::contradiction(
            About::Measure(Measure::RatedCapacity),
            format!(
                "a rated capacity of {rated:.0} kg is odd for {length:.2} × {beam:.2} m: {reason}"
            ),
        ));
    }
    if let Some(width) = value(Measure::FloorWidth).filter(|w| *w > beam) {
        out.push(Finding::contradiction(
            About::Measure(Measure::FloorWidth),
            format!(
                "the floor ({:.0} mm) is wider than the hull ({:.0} mm)",
                width * 1e3,
                beam * 1e3
            ),
        ));
    }
    out
}

/// A low seat that stands above the gunwale: measured from the bottom, most
/// often, where the floor was meant.
fn seats(survey: &Survey) -> Vec<Finding> {
    if survey.construction == Construction::Board {
        return Vec::new();
    }
    let value = |m| survey.value(m);
    let (Some(low), Some(floor), Some(depth)) = (
        value(Measure::SeatLow),
        value(Measure::FloorHeight),
        value(Measure::Depth),
    ) else {
        return Vec::new();
    };
    if low + floor <= depth {
        return Vec::new();
    }
    vec![Finding::contradiction(
        About::Measure(Measure::SeatLow),
        format!(
            "even at its lowest the seat stands {:.0} mm above the gunwale: was it measured from the bottom instead of the floor?",
            (low + floor - depth) * 1e3
        ),
    )]
}

fn of_zone(survey: &Survey, zone: &Zone) -> Vec<Finding> {
    let mut out = Vec::new();
    let mut say = |text: String| {
        let about = About::Zone(zone.name.clone());
        out.push(Finding::contradiction(
            about,
            format!("“{}” {text}", zone.name),
        ));
    };
    if let Some(length) = survey.value(Measure::Length)
        && (zone.from < -SLACK || zone.to > length + SLACK)
    {
        say(format!(
            "reaches from {:.2} to {:.2} m on a hull of {length:.2} m",
            zone.from, zone.to
        ));
    }
    if let Some(beam) = survey.value(Measure::Beam)
        && zone.offset.abs() + 0.5 * zone.width > 0.5 * beam + SLACK
    {
        say(format!(
            "sticks out over the side of a hull {:.0} mm wide",
            beam * 1e3
        ));
    }
    let (along, across) = (zone.to - zone.from, zone.width);
    let too_large = match zone.opening {
        Some(Opening::Round(d)) => d > along + SLACK || d > across + SLACK,
        Some(Opening::Rectangle(l, w)) => l > along + SLACK || w > across + SLACK,
        None => false,
    };
    if too_large {
        say("has an opening larger than itself".to_owned());
    }
    if let (Some(lid), Some(height)) = (zone.height_at_lid, zone.height)
        && lid > height + SLACK
    {
        say("is higher beneath its lid than anywhere".to_owned());
    }
    out
}

/// Zones on the open deck, of which no two can be at one place.
const OPEN: [ZoneKind; 4] = [
    ZoneKind::BowDeck,
    ZoneKind::CockpitFloor,
    ZoneKind::TankWell,
    ZoneKind::SternDeck,
];

fn overlaps(zones: &[Zone]) -> Vec<Finding> {
    let mut out = Vec::new();
    let open: Vec<&Zone> = zones.iter().filter(|z| OPEN.contains(&z.kind)).collect();
    for (at, a) in open.iter().enumerate() {
        for b in &open[at + 1..] {
            let along = a.to.min(b.to) - a.from.max(b.from);
            let across = 0.5 * (a.width + b.width) - (a.offset - b.offset).abs();
            if along > SLACK && across > SLACK {
                out.push(Finding::contradiction(
                    About::Zone(b.name.clone()),
                    format!(
                        "“{}” and “{}” lie over each other for {:.0} mm",
                        a.name,
                        b.name,
                        along * 1e3
                    ),
                ));
            }
        }
    }
    out
}

fn tracks(survey: &Survey) -> Vec<Finding> {
    let Some(hull) = survey.value(Measure::Length) else {
        return Vec::new();
    };
    let fittings = survey.fitout.fittings.iter();
    fittings
        .filter_map(|fitting| {
            let length = match fitting.kind {
                FittingKind::Track { length, .. } => length,
                _ => 0.0,
            };
            let (from, to) = (fitting.x - 0.5 * length, fitting.x + 0.5 * length);
            let out = from < -SLACK || to > hull + SLACK;
            out.then(|| {
                Finding::contradiction(
                    About::Fitting(fitting.name.clone()),
                    format!(
                        "“{}” reaches from {from:.2} to {to:.2} m on a hull of {hull:.2} m",
                        fitting.name
                    ),
                )
            })
        })
        .collect()
}

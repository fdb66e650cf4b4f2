//! What stands beside a question: cautions, and small changes worth a try.

use crate::question::{Kind, PartId};
use galvet_core::base::{Dimension, INCH, Keyed, POUND, System};
use galvet_core::crew::{Crew, Kin, Posture};
use galvet_core::gear::{Category, Electric, Gear};
use galvet_core::question::{
    BatteryPlace, Brief, Drive, Joints, Outing, Practice, StandingUse, Water,
};

/// What must be said beside this question.
pub(super) fn cautions(brief: &Brief) -> Vec<String> {
    let mut out = Vec::new();
    if brief.scuppers.holds_water() && !brief.water.plugs_allowed {
        out.push("Plugged scuppers do not drain: on this water keep them open.".to_owned());
    }
    if brief.posture != Posture::Sits && brief.water.standing == StandingUse::No {
        out.push(format!(
            "Standing is not done on this water ({}).",
            brief.water.name
        ));
    }
    let child = brief.others.iter().any(|c| c.kin() == Kin::Child);
    if child {
        out.push(
            "A child wears an aid of its own size and sits in a seat of its own; straps are no handholds."
                .to_owned(),
        );
        if brief.water.standing == StandingUse::No || brief.water.must_drain {
            out.push(format!(
                "{} is no water for a child in a kayak: choose quieter water.",
                brief.water.name
            ));
        }
    }
    if brief.others.iter().any(|c| c.kin() == Kin::Dog) {
        out.push(
            "A dog moves: what it may put to one side is taken off the lean room; give it an aid with a handle, and no lead tied to the boat."
                .to_owned(),
        );
    }
    out.extend(said_of_means(brief));
    if brief.raised > 0.0 {
        out.push(
            "Risers and cushions add up: check that they are fastened, and lean gently before you trust them."
                .to_owned(),
        );
    }
    out.extend(brief.water.cautions.iter().cloned());
    out
}

/// What must be said of how it is driven, carried and stood in.
fn said_of_means(brief: &Brief) -> Vec<String> {
    let mut out = Vec::new();
    let mut say = |words: &str| out.push(words.to_owned());
    let mut things = brief.rig.lines.iter().filter_map(|l| l.thing.as_deref());
    let motor = |t: &Gear| {
        t.category == Category::Propulsion && matches!(t.electric, Electric::Draw { .. })
    };
    if brief.wishes.drive == Drive::Motor || things.any(motor) {
        say(
            "A powered boat may need registration, lights, an age or a licence: follow the local authority.",
        );
    }
    let must = &brief.must;
    let loaded = must.heaviest_lift.is_some() || must.roof.is_some() || must.bed.is_some();
    if loaded || brief.wishes.joints == Joints::Complain {
        say(
            "Lift with two above your own limit; roof, rack and road rules stand above any figure here.",
        );
    }
    if brief.posture != Posture::Sits && brief.wishes.practice == Practice::New {
        say("Stand for the first time in shallow, warm water, with somebody by.");
    }
    if brief.outing.distance.is_some() {
        say("The way home may be against the wind: turn back while it is easy.");
    }
    out
}

/// Small changes of a question that are worth a try.
pub(super) fn tries(
    brief: &Brief,
    waters: &[Water],
    system: System,
) -> Vec<(&'static str, String, String)> {
    let mut out = Vec::new();
    let step = match system {
        System::Metric => 5.0,
        System::Imperial => 10.0 * POUND,
    };
    for (by, word) in [(-step, "lighter"), (step, "heavier")] {
        let mass = brief.crew.mass() + by;
        if Crew::MASS.check(mass).is_ok() {
            let words = format!("{} {word}", system.text(Dimension::Mass, step, 0));
            let value = system.text(Dimension::Mass, mass, 1).replace('\u{a0}', " ");
            out.push((PartId::Mass.part().name, value, words));
        }
    }
    let stature = brief.crew.stature() + 0.10;
    if Crew::STATURE.check(stature).is_ok() {
        let words = format!("{} taller", system.text(Dimension::ShortLength, 0.10, 0));
        out.push((
            PartId::Stature.part().name,
            format!("{stature:.2} m"),
            words,
        ));
    }
    for (part, now) in [
        (PartId::Seat, brief.seat.key()),
        (PartId::Posture, brief.posture.key()),
        (PartId::Scuppers, brief.scuppers.key()),
    ] {
        let Kind::Words(offered) = part.part().kind else {
            continue;
        };
        let most = if part == PartId::Posture { 2 } else { 1 };
        for offer in offered().iter().filter(|o| o.key != now).take(most) {
            let words = match part {
                PartId::Seat => format!("seat {}", offer.label),
                PartId::Scuppers => format!("scuppers {}", offer.key),
                _ => offer.label.to_owned(),
            };
            out.push((part.part().name, offer.key.to_owned(), words));
        }
    }
    out.extend(kit_tries(brief, system));
    out.extend(rougher(brief, waters));
    out
}

/// The next rougher water: the one that asks for the next higher gunwale; on the
/// roughest, the next kinder one.
fn rougher(brief: &Brief, waters: &[Water]) -> Option<(&'static str, String, String)> {
    let now = brief.water.freeboard;
    let by = |a: &&Water, b: &&Water| a.freeboard.total_cmp(&b.freeboard);
    let above = waters.iter().filter(|w| w.freeboard > now).min_by(by);
    let below = waters.iter().filter(|w| w.freeboard < now).max_by(by);
    let water = above.or(below)?;
    let words = format!("on {}", water.name);
    Some((PartId::Water.part().name, water.key.clone(), words))
}

/// A knot, m/s.
const KNOT: f64 = 1852.0 / 3600.0;

/// Risers, wind, fish and the battery's place.
fn kit_tries(brief: &Brief, system: System) -> Vec<(&'static str, String, String)> {
    let typed = |text: String| text.replace('\u{a0}', " ");
    let mut out = Vec::new();
    let (step, fish) = match system {
        System::Metric => (0.05, 5.0),
        System::Imperial => (2.0 * INCH, 10.0 * POUND),
    };
    let raised = brief.raised + step;
    if Brief::RAISED.check(raised).is_ok() {
        let by = system.text(Dimension::ShortLength, step, 0);
        let value = typed(system.text(Dimension::ShortLength, raised, 1));
        out.push((
            PartId::Risers.part().name,
            value,
            format!("seat {by} higher"),
        ));
    }
    // Five knots more than what is usual or forecast.
    let wind = brief.outing.wind.or(brief.water.wind()).unwrap_or(0.0) + 5.0 * KNOT;
    if Outing::WIND.check(wind).is_ok() {
        let value = typed(format!("{:.0} kn", wind / KNOT));
        out.push((PartId::Wind.part().name, value, "5 kn more wind".to_owned()));
    }
    let kept = brief.outing.fish.unwrap_or(0.0) + fish;
    if Outing::FISH.check(kept).is_ok() {
        let words = format!("{} more fish", system.text(Dimension::Mass, fish, 0));
        let value = typed(system.text(Dimension::Mass, kept, 1));
        out.push((PartId::Fish.part().name, value, words));
    }
    let lone = |l: &galvet_core::rig::RigLine| {
        let thing = l.thing.as_ref();
        l.within.is_empty() && thing.is_some_and(|t| matches!(t.electric, Electric::Battery { .. }))
    };
    if brief.rig.lines.iter().any(lone) {
        for &place in BatteryPlace::ALL {
            if place != brief.wishes.battery {
                out.push((
                    PartId::Battery.part().name,
                    place.key().to_owned(),
                    place.label().to_owned(),
                ));
            }
        }
    }
    out
}

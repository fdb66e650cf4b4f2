//! Names and days of what comes in: names are lines one can see, days exist. Told with
//! the record and the place in it. What is kept already is not held to it.

use galvet_core::base::{Keyed, day, name, one_line};
use galvet_core::gear::Gear;
use galvet_core::hull::Survey;
use galvet_core::question::Water;
use galvet_core::rig::Rig;

type Sound = Result<(), String>;

/// A name that must be there, of `what`.
fn named(what: &str, text: &str) -> Sound {
    let told = |problem| format!("{what}: {problem}");
    name(text).map(|_| ()).map_err(told)
}

/// A day that may be left out, of `what`.
fn dated(what: &str, text: &str) -> Sound {
    if text.is_empty() {
        return Ok(());
    }
    let told = |problem| format!("{what}: {problem}");
    day(text).map(|_| ()).map_err(told)
}

/// A hull's own names and days, and those of its places and readings.
pub(super) fn hull(survey: &Survey) -> Sound {
    named("model", &survey.model)?;
    one_line(&survey.maker).map_err(|problem| format!("maker: {problem}"))?;
    survey.within_limits().map_err(|over| over.to_string())?;
    for (measure, readings) in &survey.readings {
        for reading in readings {
            dated(measure.label(), &reading.date)?;
        }
    }
    for evidence in &survey.evidence {
        dated("a test afloat", &evidence.date)?;
    }
    let made = survey.fitout.modifications.iter();
    for m in made.clone() {
        named("a change", &m.name)?;
    }
    let added = made.clone().flat_map(|m| &m.zones);
    for zone in survey.fitout.zones.iter().chain(added) {
        named("a place", &zone.name)?;
        dated(&zone.name, &zone.date)?;
    }
    let added = made.flat_map(|m| &m.fittings);
    for fitting in survey.fitout.fittings.iter().chain(added) {
        one_line(&fitting.name).map_err(|problem| format!("a fitting: {problem}"))?;
    }
    for version in &survey.fitout.configurations {
        named("a way of setting it up", &version.name)?;
    }
    for trial in &survey.looked.trials {
        dated("a trial", &trial.date)?;
    }
    Ok(())
}

pub(super) fn thing(gear: &Gear) -> Sound {
    named(&gear.key, &gear.name)
}

pub(super) fn rig(rig: &Rig) -> Sound {
    named(&rig.key, &rig.name)?;
    rig.lines
        .iter()
        .try_for_each(|line| named(&rig.key, &line.item))
}

pub(super) fn water(water: &Water) -> Sound {
    named(&water.key, &water.name)
}

pub(super) fn question(key: &str, name: &str, customer: &str) -> Sound {
    named(key, name)?;
    let told = |problem| format!("{key}, customer: {problem}");
    one_line(customer).map(|_| ()).map_err(told)
}

/// The name of a record that is one document.
pub(super) fn sheet(called: &str) -> Sound {
    named("name", called)
}

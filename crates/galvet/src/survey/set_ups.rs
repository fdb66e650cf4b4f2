//! Configurations: the ways a hull is set up, their form, and how they come onto the record.

use super::edit::{checked, put, same};
use crate::form::{Refusal, Sent, Table, choice, count, name, tick_in, whole};
use galvet_core::base::System;
use galvet_core::hull::{Configuration, SeatSetting, SeatUsed, Survey};
use galvet_store::files::hulls::HullRecord;

/// Most seats that can be in.
const SEATS: u16 = 4;

whole!(Configuration);

/// A configuration nobody has described yet: as it stands.
pub(crate) fn new_configuration(survey: &Survey) -> Configuration {
    Configuration {
        name: String::new(),
        seats: survey.seats,
        seat_used: SeatUsed::Only,
        seat: SeatSetting::Low,
        propulsion: survey.propulsion,
        modifications: survey.fitout.done().map(|m| m.name.clone()).collect(),
    }
}

/// The form of a configuration of a hull.
pub(crate) fn configuration_form(survey: &Survey) -> Table<Configuration> {
    type D = Configuration;
    let with = survey.fitout.modifications.iter().map(|m| {
        let (field, label) = (format!("with-{}", m.name), format!("with {}", m.name));
        tick_in(field, label, m.name.clone(), |d: &mut D| {
            &mut d.modifications
        })
    });
    let fields = vec![
        name("name", "called", |d: &mut D| &mut d.name),
        count("seats", "seats in", (0, SEATS, false), |d: &mut D| {
            &mut d.seats
        }),
        choice("propulsion", "driven by", |d: &mut D| &mut d.propulsion),
        choice("seat", "the seat stands", |d: &mut D| &mut d.seat),
        choice("seat-used", "the seat used", |d: &mut D| &mut d.seat_used),
    ];
    Table::plain(fields.into_iter().chain(with).collect())
}

/// Puts a configuration on the record as its form says: a new one, or what was typed over
/// the one called `was`.
///
/// # Errors
/// What was not understood, or somebody else changed meanwhile; where the record's space
/// would contradict itself.
pub fn keep_configuration(
    hull: &mut HullRecord,
    was: &str,
    form: &Sent,
    system: System,
) -> Result<(), Refusal> {
    let all = &hull.survey.fitout.configurations;
    let there = same(all, was, form, |c| &c.name)?;
    let usual = || new_configuration(&hull.survey);
    let table = configuration_form(&hull.survey);
    let made = table.typed_over(there, usual, form, system)?;
    put(
        &mut hull.survey.fitout.configurations,
        Some(was),
        made,
        |c| &c.name,
    );
    Ok(checked(hull)?)
}

/// Takes a configuration off the record, where nobody changed it since its form was shown.
///
/// # Errors
/// In words, what is different now.
pub fn forget_configuration(
    hull: &mut HullRecord,
    name: &str,
    form: &Sent,
    system: System,
) -> Result<(), Refusal> {
    let mut all = hull.survey.fitout.configurations.iter();
    if let Some(there) = all.find(|c| c.name == name) {
        configuration_form(&hull.survey).unchanged(there, form, system)?;
    }
    let configurations = &mut hull.survey.fitout.configurations;
    configurations.retain(|c| c.name != name);
    Ok(())
}

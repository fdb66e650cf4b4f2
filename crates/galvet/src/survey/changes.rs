//! Modifications and configurations as they are typed.

use super::typed::{Mistakes, Typed};
use galvet_core::base::{Bounds, Dimension, Keyed, System};
use galvet_core::hull::{
    Configuration, Dryness, Fitting, Modification, Opening, Progress, Propulsion, SeatSetting,
    SeatUsed, Source, Zone, ZoneKind,
};
use galvet_store::files::hulls::HullRecord;
use std::collections::HashMap;

const HOLES: Bounds = Bounds::new("holes", Dimension::Ratio, 0.0, 200.0);

/// Longest text taken.
const LONGEST: usize = 500;

fn short(typed: &Typed<'_>, name: &str, longest: usize) -> String {
    typed.text(name).chars().take(longest).collect()
}

/// Names ticked in a form: fields `PREFIX` + name.
fn ticked(form: &HashMap<String, String>, prefix: &str) -> Vec<String> {
    let mut names: Vec<String> = form
        .keys()
        .filter_map(|key| key.strip_prefix(prefix).map(str::to_owned))
        .collect();
    names.sort();
    names
}

/// A zone a modification makes, where its beginning is given.
fn new_zone(typed: &mut Typed<'_>, name: String) -> Option<Zone> {
    if typed.text("zone-from").is_empty() && typed.text("zone-to").is_empty() {
        return None;
    }
    let from = typed.number("zone-from", Zone::PLACE);
    let to = typed.number("zone-to", Zone::PLACE);
    let width = typed.number("zone-width", Zone::WIDTH);
    let height = typed.maybe("zone-height", Zone::HEIGHT);
    let opening = typed.maybe("zone-opening", Zone::OPENING);
    Some(Zone {
        name,
        kind: ZoneKind::from_key(typed.text("zone-kind")).unwrap_or(ZoneKind::SternHatch),
        from: from?,
        to: to?,
        width: width?,
        offset: 0.0,
        height,
        height_at_lid: None,
        floor: None,
        opening: opening.map(Opening::Round),
        dryness: Dryness::from_key(typed.text("zone-dryness")),
        reach: None,
        underside_reachable: None,
        non_slip: None,
        padded: None,
        // Planned, not measured.
        source: Source::Guess,
        date: String::new(),
    })
}

/// Reads a modification; `was` is the one on the record it takes the place of,
/// whose fittings it keeps.
///
/// # Errors
/// What was not understood, field by field.
pub fn modification(
    was: Option<&Modification>,
    form: &HashMap<String, String>,
    system: System,
) -> Result<Modification, Mistakes> {
    let mut typed = Typed::of(form, system);
    let name = typed.name("name");
    let mass = typed.maybe("mass", Modification::MASS).unwrap_or(0.0);
    let x = typed.number("x", Fitting::X);
    let z = typed.maybe("z", Fitting::Z).unwrap_or(0.3);
    let holes = typed.maybe("holes", HOLES).unwrap_or(0.0);
    let price = typed.maybe("price", Modification::PRICE);
    // A place that is there keeps its own name, whatever the change is called.
    let was_made = was.and_then(|w| w.zones.first());
    let made = was_made.map_or_else(|| format!("{name}: new place"), |zone| zone.name.clone());
    let zone = new_zone(&mut typed, made);
    let (Some(x), true) = (x, typed.mistakes.is_empty()) else {
        return Err(typed.mistakes);
    };
    let mut dryness: Vec<(String, Dryness)> = form
        .iter()
        .filter_map(|(field, grade)| {
            let zone = field.strip_prefix("seals-")?;
            Some((zone.to_owned(), Dryness::from_key(grade)?))
        })
        .collect();
    dryness.sort();
    Ok(Modification {
        progress: if typed.text("done").is_empty() {
            Progress::Planned
        } else {
            Progress::Done
        },
        removes: ticked(form, "removes-"),
        zones: zone.into_iter().collect(),
        // Put on by the drawing, one by one.
        fittings: was.map_or(Vec::new(), |w| w.fittings.clone()),
        dryness,
        mass,
        x,
        z,
        holes: holes.round() as u16,
        price,
        can_be_undone: !typed.text("undoable").is_empty(),
        note: short(&typed, "note", LONGEST),
        name,
    })
}

/// Reads a configuration.
///
/// # Errors
/// What was not understood, field by field.
pub fn configuration(
    form: &HashMap<String, String>,
    system: System,
) -> Result<Configuration, Mistakes> {
    let mut typed = Typed::of(form, system);
    let name = typed.name("name");
    let seats = Bounds::new("seats", Dimension::Ratio, 0.0, 4.0);
    let seats = typed.maybe("seats", seats).unwrap_or(1.0);
    if !typed.mistakes.is_empty() {
        return Err(typed.mistakes);
    }
    Ok(Configuration {
        name,
        seats: seats.round() as u8,
        seat_used: SeatUsed::from_key(typed.text("seat-used")).unwrap_or(SeatUsed::Only),
        seat: SeatSetting::from_key(typed.text("seat")).unwrap_or(SeatSetting::Low),
        propulsion: Propulsion::from_key(typed.text("propulsion")).unwrap_or(Propulsion::Paddle),
        modifications: ticked(form, "with-"),
    })
}

/// Puts something on a list in the place of the one named `was`, or at its end.
fn put<T>(list: &mut Vec<T>, was: Option<&str>, item: T, name: impl Fn(&T) -> &str) {
    let there = was.and_then(|was| list.iter().position(|other| name(other) == was));
    match there {
        Some(at) => list[at] = item,
        None => list.push(item),
    }
}

fn checked(hull: &mut HullRecord) -> Result<(), String> {
    let fitout = hull.survey.fitout.clone().check();
    fitout.map(|_| ()).map_err(|e| e.to_string())
}

/// Puts a modification on the record; configurations that named it follow a new
/// name.
///
/// # Errors
/// In words, where the record's space would contradict itself.
pub fn put_modification(
    hull: &mut HullRecord,
    was: Option<&str>,
    made: Modification,
) -> Result<(), String> {
    let fitout = &mut hull.survey.fitout;
    for configuration in &mut fitout.configurations {
        for name in &mut configuration.modifications {
            if was == Some(name.as_str()) {
                name.clone_from(&made.name);
            }
        }
    }
    put(&mut fitout.modifications, was, made, |m| &m.name);
    checked(hull)
}

/// Puts a configuration on the record.
///
/// # Errors
/// In words, where the record's space would contradict itself.
pub fn put_configuration(
    hull: &mut HullRecord,
    was: Option<&str>,
    made: Configuration,
) -> Result<(), String> {
    put(&mut hull.survey.fitout.configurations, was, made, |c| {
        &c.name
    });
    checked(hull)
}

/// Takes a modification off the record, out of configurations too.
pub fn forget_modification(hull: &mut HullRecord, name: &str) {
    let fitout = &mut hull.survey.fitout;
    fitout.modifications.retain(|m| m.name != name);
    for configuration in &mut fitout.configurations {
        configuration.modifications.retain(|m| m != name);
    }
}

/// Takes a configuration off the record.
pub fn forget_configuration(hull: &mut HullRecord, name: &str) {
    let configurations = &mut hull.survey.fitout.configurations;
    configurations.retain(|c| c.name != name);
}

/// Marks a modification as made, or as planned again.
///
/// # Errors
/// In words, when it is not there (any more), or what was done cannot be undone.
pub fn set_progress(hull: &mut HullRecord, name: &str, progress: Progress) -> Result<(), String> {
    let modifications = hull.survey.fitout.modifications.iter_mut();
    let mut named = modifications.filter(|m| m.name == name);
    let made = named
        .next()
        .ok_or("that change is not on the record any more")?;
    made.progress = progress;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn form(pairs: &[(&str, &str)]) -> HashMap<String, String> {
        let pairs = pairs.iter();
        pairs.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    fn hull() -> HullRecord {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        hulls.find(|h| h.survey.key == "quarnel-sprannet").unwrap()
    }

    #[test]
    fn a_change_is_read_put_on_renamed_and_taken_off() {
        let mut hull = hull();
        let typed = form(&[
            ("name", "battery hatch"),
            ("mass", "1,2 kg"),
            ("x", "2.2"),
            ("holes", "8"),
            ("price", "64"),
            ("removes-stern hatch", "yes"),
            ("zone-from", "2.1"),
            ("zone-to", "2.4"),
            ("zone-width", "26"),
            ("zone-opening", "20"),
            ("zone-dryness", "wave"),
            ("seals-bow hatch", "held-under"),
            ("seals-tank well", ""),
        ]);
        let made = modification(None, &typed, System::Metric).unwrap();
        assert_eq!((made.mass, made.x, made.holes), (1.2, 2.2, 8));
        assert_eq!(made.removes, ["stern hatch"]);
        assert_eq!(made.zones[0].opening, Some(Opening::Round(0.20)));
        let sealed = [("bow hatch".to_owned(), Dryness::HeldUnder)];
        assert_eq!(made.dryness, sealed);
        assert_eq!(made.progress, Progress::Planned);
        let before = hull.survey.fitout.modifications.len();
        put_modification(&mut hull, None, made.clone()).unwrap();
        let set = form(&[
            ("name", "with hatch"),
            ("seat", "high"),
            ("with-battery hatch", "yes"),
        ]);
        let so = configuration(&set, System::Metric).unwrap();
        put_configuration(&mut hull, None, so).unwrap();
        let renamed = Modification {
            name: "rear hatch".into(),
            ..made
        };
        put_modification(&mut hull, Some("battery hatch"), renamed).unwrap();
        assert_eq!(hull.survey.fitout.modifications.len(), before + 1);
        assert_eq!(
            hull.survey.fitout.configurations[0].modifications,
            ["rear hatch"]
        );
        set_progress(&mut hull, "rear hatch", Progress::Done).unwrap();
        assert!(hull.survey.fitout.done().any(|m| m.name == "rear hatch"));
        forget_modification(&mut hull, "rear hatch");
        assert!(
            hull.survey.fitout.configurations[0]
                .modifications
                .is_empty()
        );
        forget_configuration(&mut hull, "with hatch");
        assert!(hull.survey.fitout.configurations.is_empty());
        assert!(set_progress(&mut hull, "rear hatch", Progress::Done).is_err());
    }

    #[test]
    fn what_is_missing_or_impossible_is_named() {
        let told =
            |pairs: &[(&str, &str)]| modification(None, &form(pairs), System::Metric).unwrap_err();
        let two = told(&[("mass", "200 kg")]);
        assert_eq!(two.keys().collect::<Vec<_>>(), ["mass", "name", "x"]);
        assert!(told(&[("name", "a"), ("x", "1"), ("zone-from", "1")]).contains_key("zone-to"));
        let nothing = form(&[("name", "a"), ("x", "1"), ("removes-gold bar", "yes")]);
        let made = modification(None, &nothing, System::Metric).unwrap();
        let refused = put_modification(&mut hull(), None, made).unwrap_err();
        assert!(refused.contains("gold bar"), "{refused}");
    }
}

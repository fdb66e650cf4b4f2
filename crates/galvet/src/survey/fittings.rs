//! Fittings as they are put on the drawing: read, named, changed, taken off.

use super::fitting_kinds::{key_of, kind_of};
use super::typed::{Mistakes, Typed};
use super::walk::{shown_across, shown_along};
use galvet_core::base::{Keyed, System};
use galvet_core::hull::{Facing, Fitting, FittingKind, Recess, ScupperState, Source};
use galvet_store::files::hulls::HullRecord;
use std::collections::HashMap;

/// Reads the sizes of a kind; `None` where something was not understood.
fn sizes(key: &str, typed: &mut Typed<'_>) -> Option<FittingKind> {
    let tick = |typed: &Typed<'_>, name: &str| !typed.text(name).is_empty();
    Some(match key {
        "track" => {
            let length = typed.number("length", Fitting::SIZE);
            let slot = typed.maybe("slot", Fitting::SIZE);
            FittingKind::Track {
                length: length?,
                slot,
            }
        }
        "rod-holder" => FittingKind::RodHolder {
            flush: tick(typed, "flush"),
            angle: typed.maybe("angle", Fitting::ANGLE),
            facing: Facing::from_key(typed.text("facing")).unwrap_or(Facing::Aft),
            reversible: tick(typed, "reversible"),
        },
        "tube" => {
            let length = typed.number("length", Fitting::SIZE);
            let diameter = typed.number("diameter", Fitting::SIZE);
            FittingKind::Tube {
                length: length?,
                diameter: diameter?,
            }
        }
        "cup-holder" => FittingKind::CupHolder {
            depth: typed.number("depth", Fitting::SIZE)?,
            drains: tick(typed, "drains"),
        },
        "insert" => FittingKind::Insert,
        "plate" => FittingKind::Plate,
        "transducer-recess" => {
            let length = typed.number("length", Fitting::SIZE);
            let width = typed.number("width", Fitting::SIZE);
            FittingKind::TransducerRecess {
                length: length?,
                width: width?,
            }
        }
        "scupper" => FittingKind::Scupper {
            recess: Recess::from_key(typed.text("recess")).unwrap_or(Recess::Cockpit),
            diameter: typed.number("diameter", Fitting::SIZE)?,
            // What nobody said stands open: the careful reading.
            state: ScupperState::from_key(typed.text("state")).unwrap_or(ScupperState::Open),
            plug: tick(typed, "plug"),
        },
        "pad-eye" => FittingKind::PadEye,
        "d-ring" => FittingKind::DRing,
        "bungee" => {
            let length = typed.number("length", Fitting::SIZE);
            let hooks = typed.number("hooks", Fitting::HOOKS);
            FittingKind::Bungee {
                length: length?,
                hooks_per_metre: hooks?,
            }
        }
        "handle" => FittingKind::Handle,
        "seat" => FittingKind::Seat {
            slide: typed.maybe("slide", Fitting::SLIDE).unwrap_or(0.0),
            low: typed.maybe("low", Fitting::SEAT),
            high: typed.maybe("high", Fitting::SEAT),
        },
        "foot-braces" => FittingKind::FootBraces {
            slide: typed.maybe("slide", Fitting::SLIDE).unwrap_or(0.0),
        },
        "assist-strap" => FittingKind::AssistStrap,
        "drain-plug" => FittingKind::DrainPlug,
        _ => return None,
    })
}

/// A fitting as it was typed.
#[derive(Debug, Clone, PartialEq)]
pub struct Placed {
    /// The fitting; its name may still be empty.
    pub fitting: Fitting,
    /// Whether its like stands on the other side too.
    pub both_sides: bool,
}

/// Reads a fitting of a kind from a form; `was` is what stands on the record.
///
/// # Errors
/// What was not understood, field by field.
pub fn fitting(
    key: &str,
    was: Option<&Fitting>,
    form: &HashMap<String, String>,
    system: System,
) -> Result<Placed, Mistakes> {
    let mut typed = Typed::of(form, system);
    let kind = sizes(key, &mut typed);
    let x = typed.number("x", Fitting::X);
    let y = typed.maybe("y", Fitting::Y).unwrap_or(0.0);
    let z = typed.maybe("z", Fitting::Z);
    let name = typed.line("name");
    let (Some(kind), Some(x), true) = (kind, x, typed.mistakes.is_empty()) else {
        if typed.mistakes.is_empty() {
            return Err([(String::new(), "there is no such fitting".to_owned())].into());
        }
        return Err(typed.mistakes);
    };
    // A field left as it stood keeps its last digit.
    let kept = |name: &str, shown: Option<String>, was: Option<f64>, now: f64| match (shown, was) {
        (Some(shown), Some(was)) if shown == typed.text(name) => was,
        _ => now,
    };
    let along = was.map(|w| shown_along(system, w.x));
    let across = was.map(|w| shown_across(system, w.y));
    let fitting = Fitting {
        name,
        x: kept("x", along, was.map(|w| w.x), x),
        y: kept("y", across, was.map(|w| w.y), y),
        z,
        mount: typed.text("mount").chars().take(80).collect(),
        source: Source::Tape,
        kind,
    };
    Ok(Placed {
        both_sides: !typed.text("both").is_empty() && fitting.y != 0.0,
        fitting,
    })
}

/// A name nothing on the hull has yet: "port track", "port track 2".
fn free_name(hull: &HullRecord, wanted: &str) -> String {
    let fitout = &hull.survey.fitout;
    let changes = fitout.modifications.iter();
    let fittings: Vec<&Fitting> = fitout
        .fittings
        .iter()
        .chain(changes.flat_map(|m| &m.fittings))
        .collect();
    let taken = |name: &str| {
        fittings.iter().any(|f| f.name == name) || fitout.zones.iter().any(|z| z.name == name)
    };
    if !taken(wanted) {
        return wanted.to_owned();
    }
    let numbered = (2..).map(|n| format!("{wanted} {n}"));
    numbered
        .take(fittings.len() + fitout.zones.len() + 2)
        .find(|name| !taken(name))
        .unwrap_or_else(|| wanted.to_owned())
}

/// What a fitting without a name is called.
fn usual_name(fitting: &Fitting) -> String {
    let label = kind_of(key_of(&fitting.kind)).map_or("fitting", |kind| kind.label);
    match fitting.y {
        y if y > 0.0 => format!("starboard {label}"),
        y if y < 0.0 => format!("port {label}"),
        _ => label.to_owned(),
    }
}

/// The fittings of delivery, or those a change adds.
///
/// # Errors
/// In words, where there is no such change (any more).
pub fn fittings_of<'a>(
    hull: &'a mut HullRecord,
    change: Option<&str>,
) -> Result<&'a mut Vec<Fitting>, String> {
    let fitout = &mut hull.survey.fitout;
    let Some(name) = change else {
        return Ok(&mut fitout.fittings);
    };
    let mut named = fitout.modifications.iter_mut().filter(|m| m.name == name);
    match named.next() {
        Some(made) => Ok(&mut made.fittings),
        None => Err("that change is not on the record any more".to_owned()),
    }
}

/// Puts a fitting on the record (of delivery, or of a change): in the place of the
/// one named `was`, or as a new one, with its like on the other side where that
/// was asked for. Returns its name.
///
/// # Errors
/// In words, where the record's space would contradict itself.
pub fn put_fitting(
    hull: &mut HullRecord,
    change: Option<&str>,
    was: Option<&str>,
    placed: &Placed,
) -> Result<String, String> {
    let mut fitting = placed.fitting.clone();
    let on = fittings_of(hull, change)?;
    let there = was.and_then(|name| on.iter().position(|f| f.name == name));
    match there {
        Some(at) => {
            if fitting.name.is_empty() {
                fitting.name.clone_from(&on[at].name);
            }
            on[at] = fitting.clone();
        }
        None if was.is_some() => return Err("that fitting is not on the record any more".into()),
        None => {
            if fitting.name.is_empty() {
                fitting.name = free_name(hull, &usual_name(&fitting));
            }
            fittings_of(hull, change)?.push(fitting.clone());
        }
    }
    if placed.both_sides {
        let mut other = fitting.clone();
        other.y = -fitting.y;
        other.name = free_name(hull, &usual_name(&other));
        fittings_of(hull, change)?.push(other);
    }
    fittings_of(hull, change)?.sort_by(|a, b| a.x.total_cmp(&b.x));
    let fitout = &hull.survey.fitout;
    fitout.clone().check().map_err(|e| e.to_string())?;
    Ok(fitting.name)
}

/// Takes a fitting off the record; the history keeps it.
///
/// # Errors
/// In words, where something else on the record names it.
pub fn forget_fitting(
    hull: &mut HullRecord,
    change: Option<&str>,
    name: &str,
) -> Result<(), String> {
    fittings_of(hull, change)?.retain(|f| f.name != name);
    let checked = hull.survey.fitout.clone().check();
    checked.map(|_| ()).map_err(|e| e.to_string())
}

#[cfg(test)]
mod tests {
    use super::super::fitting_kinds::KINDS;
    use super::super::shown::Shown;
    use super::*;

    fn form(pairs: &[(&str, &str)]) -> HashMap<String, String> {
        let pairs = pairs.iter();
        pairs.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    fn hull() -> HullRecord {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        hulls.find(|h| h.survey.key == "pellune-rusko").unwrap()
    }

    #[test]
    fn every_kind_comes_back_as_it_was_shown() {
        let usual = [
            ("slide", "18"),
            ("low", "9"),
            ("high", "24"),
            ("recess", "tank-well"),
            ("diameter", "3.2"),
            ("state", "plugged"),
            ("plug", "yes"),
            ("length", "40"),
            ("slot", "2.5"),
            ("flush", "yes"),
            ("angle", "35"),
            ("facing", "outward"),
            ("hooks", "8"),
            ("depth", "9"),
            ("width", "8"),
            ("x", "1.85"),
            ("y", "30"),
        ];
        for kind in &KINDS {
            let read = fitting(kind.key, None, &form(&usual), System::Metric).unwrap();
            assert_eq!(key_of(&read.fitting.kind), kind.key);
            for system in [System::Metric, System::Imperial] {
                let shown = Shown::of_fitting(&read.fitting, system);
                let said = shown.sent_along();
                let again: HashMap<String, String> = serde_json::from_str(&said).unwrap();
                let back = fitting(kind.key, None, &again, system).unwrap();
                assert_eq!(Shown::of_fitting(&back.fitting, system), shown);
                // Every field it shows is one it asks.
                for name in again.keys().filter(|n| !["x", "y"].contains(&n.as_str())) {
                    assert!(kind.fields.iter().any(|f| f.name == *name), "{name}");
                }
            }
        }
        let seat = fitting("seat", None, &form(&usual), System::Metric).unwrap();
        let wanted = FittingKind::Seat {
            slide: 0.18,
            low: Some(0.09),
            high: Some(0.24),
        };
        assert_eq!(seat.fitting.kind, wanted);
        assert_eq!((seat.fitting.x, seat.fitting.y), (1.85, 0.30));
    }

    #[test]
    fn mistakes_are_named_where_they_were_made() {
        let told = |pairs: &[(&str, &str)]| {
            fitting("track", None, &form(pairs), System::Metric).unwrap_err()
        };
        let told_two = told(&[("x", "bow"), ("length", "")]);
        assert_eq!(told_two.keys().collect::<Vec<_>>(), ["length", "x"]);
        assert!(told(&[("x", "1"), ("length", "9 m")])["length"].contains("5 m"));
        assert!(fitting("anvil", None, &form(&[("x", "1")]), System::Metric).is_err());
    }

    #[test]
    fn a_pair_is_put_on_in_one_step_and_changed_one_by_one() {
        let mut hull = hull();
        let typed = form(&[
            ("x", "1.5"),
            ("y", "-38"),
            ("length", "40"),
            ("both", "yes"),
        ]);
        let placed = fitting("track", None, &typed, System::Metric).unwrap();
        let name = put_fitting(&mut hull, None, None, &placed).unwrap();
        assert_eq!(name, "port track");
        let names = |hull: &HullRecord| -> Vec<String> {
            let fittings = hull.survey.fitout.fittings.iter();
            fittings.map(|f| f.name.clone()).collect()
        };
        assert_eq!(names(&hull), ["port track", "starboard track"]);
        put_fitting(&mut hull, None, None, &placed).unwrap();
        assert_eq!(names(&hull).len(), 4);
        assert!(names(&hull).contains(&"port track 2".to_owned()));
        let mut moved = placed.clone();
        moved.both_sides = false;
        moved.fitting.x = 1.9;
        put_fitting(&mut hull, None, Some("port track"), &moved).unwrap();
        assert_eq!(names(&hull).last().unwrap(), "port track");
        forget_fitting(&mut hull, None, "port track").unwrap();
        assert_eq!(names(&hull).len(), 3);
        assert!(put_fitting(&mut hull, None, Some("port track"), &moved).is_err());
        // On the middle there is no other side.
        let middle = form(&[("x", "1.5"), ("length", "40"), ("both", "yes")]);
        assert!(
            !fitting("track", None, &middle, System::Metric)
                .unwrap()
                .both_sides
        );
    }

    #[test]
    fn a_change_adds_its_own() {
        let mut hull = {
            let hulls = crate::demo_data::catalogue().unwrap().hulls;
            let mut hulls = hulls.into_iter();
            hulls.find(|h| h.survey.key == "quarnel-sprannet").unwrap()
        };
        let delivered = hull.survey.fitout.fittings.clone();
        let typed = form(&[
            ("x", "1.2"),
            ("y", "-30"),
            ("length", "30"),
            ("both", "yes"),
        ]);
        let placed = fitting("track", None, &typed, System::Metric).unwrap();
        let change = Some("larger stern hatch");
        let name = put_fitting(&mut hull, change, None, &placed).unwrap();
        assert_eq!(hull.survey.fitout.fittings, delivered);
        let added = |hull: &HullRecord| {
            let mut changes = hull.survey.fitout.modifications.iter();
            changes
                .find(|m| change == Some(m.name.as_str()))
                .unwrap()
                .fittings
                .len()
        };
        assert_eq!(added(&hull), 2);
        forget_fitting(&mut hull, change, &name).unwrap();
        assert_eq!(added(&hull), 1);
        assert!(put_fitting(&mut hull, Some("nothing"), None, &placed).is_err());
    }
}

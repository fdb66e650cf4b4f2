//! Fittings as they are put on the drawing: their form, named, changed, taken off.

use super::edit::{checked, same};
use super::fitting_draft::FittingDraft;
use super::fitting_kinds::{Kind, key_of, kind_of};
use crate::form::{Refusal, Sent, Table, line, number};
use galvet_core::base::System;
use galvet_core::hull::{Fitting, Measure, Source, Survey};
use galvet_store::files::hulls::HullRecord;

/// The form of a fitting of a kind.
pub(crate) fn fitting_form(kind: &Kind) -> Table<FittingDraft> {
    type D = FittingDraft;
    let place = vec![
        number("x", "from the bow", Fitting::X, |d: &mut D| {
            &mut d.fitting.x
        }),
        number("y", "off the middle", Fitting::Y, |d: &mut D| {
            &mut d.fitting.y
        })
        .hint("starboard +, port −"),
        number("z", "above the bottom", Fitting::Z, |d: &mut D| {
            &mut d.fitting.z
        }),
    ];
    let words = vec![
        line("mount", "what it takes", |d: &mut D| &mut d.fitting.mount)
            .hint("slot, thread or hole pattern"),
        line("name", "called", |d: &mut D| &mut d.fitting.name)
            .hint("named after its side when left empty"),
    ];
    let all = place.into_iter().chain((kind.asks)()).chain(words);
    Table::plain(all.collect())
}

/// A fitting of a kind nobody has described yet: amidships, to be moved.
pub(crate) fn new_fitting(kind: &Kind, survey: &Survey) -> Fitting {
    let length = survey.value(Measure::Length);
    Fitting {
        name: String::new(),
        kind: (kind.blank)(),
        x: length.map_or(1.5, |l| 0.5 * l),
        y: 0.0,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    }
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

/// A fitting a form is about: of delivery or of a change, on the record or being put on.
#[derive(Debug, Clone, Copy)]
pub struct OfFitting<'a> {
    /// The change that adds it; `None` for one of delivery.
    pub change: Option<&'a str>,
    /// What it is called on the record; empty for a new one.
    pub was: &'a str,
    /// The kind of a new one.
    pub kind: &'a str,
}

/// Puts a fitting on the record as its form says: what was typed over the one it is about,
/// or a new one, with its like on the other side where that was asked for. Returns its name.
///
/// # Errors
/// What was not understood, or somebody else changed meanwhile; where the record's space
/// would contradict itself.
pub fn keep_fitting(
    hull: &mut HullRecord,
    of: OfFitting<'_>,
    form: &Sent,
    system: System,
) -> Result<String, Refusal> {
    let on = fittings_of(hull, of.change)?;
    let there = same(on, of.was, form, |f| &f.name)?.cloned();
    let Some(mut fitting) = there else {
        let kind = kind_of(of.kind).ok_or("there is no such fitting")?;
        let usual = new_fitting(kind, &hull.survey);
        let mut fitting = fitting_form(kind).make(&usual, form, system)?;
        if fitting.name.is_empty() {
            fitting.name = free_name(hull, &usual_name(&fitting));
        }
        fittings_of(hull, of.change)?.push(fitting.clone());
        let both = form.get("both").is_some_and(|t| !t.trim().is_empty());
        // On the middle there is no other side.
        if both && fitting.y != 0.0 {
            let mut other = fitting.clone();
            other.y = -fitting.y;
            other.name = free_name(hull, &usual_name(&other));
            fittings_of(hull, of.change)?.push(other);
        }
        checked(hull)?;
        return Ok(fitting.name);
    };
    let was = fitting.clone();
    if let Some(kind) = kind_of(key_of(&fitting.kind)) {
        fitting_form(kind).put(&mut fitting, form, system)?;
    }
    if fitting.name.is_empty() {
        fitting.name.clone_from(&was.name);
    }
    let figures = |f: &Fitting| (f.x, f.y, f.z, f.kind.clone());
    if figures(&fitting) != figures(&was) {
        fitting.source = Source::Tape;
    }
    let name = fitting.name.clone();
    let on = fittings_of(hull, of.change)?;
    if let Some(there) = on.iter_mut().find(|f| f.name == was.name) {
        *there = fitting;
    }
    checked(hull)?;
    Ok(name)
}

/// Takes a fitting off the record, where nobody changed it since its form was shown; the
/// history keeps it.
///
/// # Errors
/// In words, what is different now, or where something else on the record names it.
pub fn forget_fitting(
    hull: &mut HullRecord,
    of: OfFitting<'_>,
    form: &Sent,
    system: System,
) -> Result<(), Refusal> {
    let on = fittings_of(hull, of.change)?;
    let there = same(on, of.was, form, |f| &f.name)?.cloned();
    if let Some(there) = there {
        if let Some(kind) = kind_of(key_of(&there.kind)) {
            fitting_form(kind).unchanged(&there, form, system)?;
        }
        fittings_of(hull, of.change)?.retain(|f| f.name != there.name);
    }
    Ok(checked(hull)?)
}

#[cfg(test)]
mod tests {
    use super::super::fitting_kinds::KINDS;
    use super::*;
    use crate::form::Draft;
    use galvet_core::hull::FittingKind;

    const METRIC: System = System::Metric;

    fn form(pairs: &[(&str, &str)]) -> Sent {
        let pairs = pairs.iter();
        pairs.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    fn hull(key: &str) -> HullRecord {
        let mut hulls = crate::demo_data::catalogue().unwrap().hulls.into_iter();
        hulls.find(|h| h.survey.key == key).unwrap()
    }

    fn new<'a>(change: Option<&'a str>, kind: &'a str) -> OfFitting<'a> {
        let was = "";
        OfFitting { change, was, kind }
    }

    fn at(was: &str) -> OfFitting<'_> {
        let (change, kind) = (None, "");
        OfFitting { change, was, kind }
    }

    #[test]
    fn every_kind_comes_back_as_it_was_shown() {
        let usual = form(&[
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
            ("reach", "75"),
            ("clear", "3"),
            ("depth", "9"),
            ("width", "8"),
            ("x", "1.85"),
            ("y", "30"),
        ]);
        for kind in &KINDS {
            let table = fitting_form(kind);
            let blank = new_fitting(kind, &hull("pellune-rusko").survey);
            // Of no size yet, it asks for what it must have.
            let shown = table.shown(&FittingDraft::of(&blank), METRIC);
            let asked: Sent = usual
                .iter()
                .filter(|(name, _)| table.0[0].fields.iter().any(|f| f.name == **name))
                .map(|(name, text)| (name.clone(), text.clone()))
                .collect();
            assert!(asked.len() >= 2, "{shown:?}");
            let read = table.make(&blank, &asked, METRIC).unwrap();
            assert_eq!(key_of(&read.kind), kind.key);
            for system in [System::Metric, System::Imperial] {
                let shown = table.shown(&FittingDraft::of(&read), system);
                let back = table.make(&blank, &shown.fields(), system).unwrap();
                assert_eq!(table.shown(&FittingDraft::of(&back), system), shown);
                for name in asked.keys() {
                    assert!(!shown.text(name).is_empty(), "{} {name}", kind.key);
                }
            }
            if kind.key == "seat" {
                let wanted = FittingKind::Seat {
                    slide: 0.18,
                    low: Some(0.09),
                    high: Some(0.24),
                };
                assert_eq!(read.kind, wanted);
                assert_eq!((read.x, read.y), (1.85, 0.30));
            }
        }
    }

    #[test]
    fn mistakes_are_named_where_they_were_made() {
        let told = |kind, pairs: &[(&str, &str)]| {
            let mut hull = hull("pellune-rusko");
            let refused = keep_fitting(&mut hull, new(None, kind), &form(pairs), METRIC);
            refused.unwrap_err().0
        };
        let told_two = told("track", &[("x", "bow"), ("length", "")]);
        assert_eq!(told_two.keys().collect::<Vec<_>>(), ["length", "x"]);
        let long = told("track", &[("x", "1"), ("length", "9 m")]);
        assert!(long["length"].contains("5 m"));
        assert!(told("anvil", &[("x", "1")]).contains_key(""));
    }

    #[test]
    fn a_pair_is_put_on_in_one_step_and_changed_one_by_one() {
        let mut hull = hull("pellune-rusko");
        let typed = form(&[
            ("x", "1.5"),
            ("y", "-38"),
            ("length", "40"),
            ("both", "yes"),
        ]);
        let track = new(None, "track");
        let name = keep_fitting(&mut hull, track, &typed, METRIC).unwrap();
        assert_eq!(name, "port track");
        let names = |hull: &HullRecord| -> Vec<String> {
            let fittings = hull.survey.fitout.fittings.iter();
            fittings.map(|f| f.name.clone()).collect()
        };
        assert_eq!(names(&hull), ["port track", "starboard track"]);
        keep_fitting(&mut hull, track, &typed, METRIC).unwrap();
        assert_eq!(names(&hull).len(), 4);
        assert!(names(&hull).contains(&"port track 2".to_owned()));
        let moved = form(&[("x", "1.9")]);
        let order = names(&hull);
        keep_fitting(&mut hull, at("port track"), &moved, METRIC).unwrap();
        assert_eq!(names(&hull), order);
        assert_eq!(hull.survey.fitout.fittings[0].x, 1.9);
        forget_fitting(&mut hull, at("port track"), &Sent::new(), METRIC).unwrap();
        assert_eq!(names(&hull).len(), 3);
        let shown = form(&[("shown", "{}")]);
        assert!(keep_fitting(&mut hull, at("port track"), &shown, METRIC).is_err());
        // On the middle there is no other side.
        let middle = form(&[("x", "1.5"), ("length", "40"), ("both", "yes")]);
        keep_fitting(&mut hull, track, &middle, METRIC).unwrap();
        assert_eq!(names(&hull).len(), 4);
    }

    #[test]
    fn a_change_adds_its_own() {
        let mut hull = hull("quarnel-sprannet");
        let delivered = hull.survey.fitout.fittings.clone();
        let typed = form(&[
            ("x", "1.2"),
            ("y", "-30"),
            ("length", "30"),
            ("both", "yes"),
        ]);
        let change = Some("larger stern hatch");
        let name = keep_fitting(&mut hull, new(change, "track"), &typed, METRIC).unwrap();
        assert_eq!(hull.survey.fitout.fittings, delivered);
        let added = |hull: &HullRecord| {
            let mut changes = hull.survey.fitout.modifications.iter();
            let change = changes.find(|m| change == Some(m.name.as_str()));
            change.unwrap().fittings.len()
        };
        assert_eq!(added(&hull), 2);
        let there = OfFitting {
            change,
            was: &name,
            kind: "",
        };
        forget_fitting(&mut hull, there, &Sent::new(), METRIC).unwrap();
        assert_eq!(added(&hull), 1);
        let nowhere = new(Some("nothing"), "track");
        assert!(keep_fitting(&mut hull, nowhere, &typed, METRIC).is_err());
    }
}

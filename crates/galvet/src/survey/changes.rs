//! Modifications: their form, and how they come onto the record.

use super::edit::{checked, put, same};
use crate::form::{
    Draft, Group, Mistakes, Refusal, Sent, Table, count, grade_of, maybe_choice, name, note,
    number, tick, tick_in, typed_number,
};
use galvet_core::base::{Bounds, System};
use galvet_core::hull::{
    Dryness, Fitting, Modification, Opening, Progress, Survey, Zone, ZoneKind,
};
use galvet_store::files::hulls::HullRecord;

/// Longest note taken.
const LONGEST: usize = 10_000;
/// Most holes that can be noted.
const HOLES: u16 = 200;

/// A modification as its form takes it apart.
#[derive(Clone)]
pub(crate) struct ModificationDraft {
    modification: Modification,
    done: bool,
    /// The place it makes, or the first of them.
    from: Option<f64>,
    to: Option<f64>,
    width: Option<f64>,
    height: Option<f64>,
    opening: Option<f64>,
    kind: Option<ZoneKind>,
    dryness: Option<Dryness>,
}

/// Across a round opening.
fn round(zone: &Zone) -> Option<f64> {
    match zone.opening {
        Some(Opening::Round(across)) => Some(across),
        _ => None,
    }
}

impl Draft for ModificationDraft {
    type Record = Modification;

    fn of(record: &Modification) -> Self {
        let place = record.zones.first();
        Self {
            done: record.progress == Progress::Done,
            from: place.map(|zone| zone.from),
            to: place.map(|zone| zone.to),
            width: place.map(|zone| zone.width),
            height: place.and_then(|zone| zone.height),
            opening: place.and_then(round),
            kind: place.map(|zone| zone.kind),
            dryness: place.and_then(|zone| zone.dryness),
            modification: record.clone(),
        }
    }

    fn made(mut self) -> Result<Modification, Mistakes> {
        self.place()?;
        let mut made = self.modification;
        made.progress = if self.done {
            Progress::Done
        } else {
            Progress::Planned
        };
        Ok(made)
    }
}

impl ModificationDraft {
    /// Puts the place it makes in order: none any more where it neither begins nor ends.
    fn place(&mut self) -> Result<(), Mistakes> {
        let zones = &mut self.modification.zones;
        if self.from.is_none() && self.to.is_none() {
            if !zones.is_empty() {
                zones.remove(0);
                return Ok(());
            }
            let sizes = [self.width, self.height, self.opening];
            let said = self.kind.is_some() || self.dryness.is_some();
            if !said && sizes.iter().all(Option::is_none) {
                return Ok(());
            }
        }
        let mut mistakes = Mistakes::new();
        let mut needed = |field: &str, figure: Option<f64>, bounds: Bounds| {
            let asked = || typed_number("", bounds, System::Metric);
            figure.or_else(|| {
                let problem = asked().err().unwrap_or_default();
                mistakes.insert(field.to_owned(), problem);
                None
            })
        };
        let ends = (
            needed("zone-from", self.from, Zone::PLACE),
            needed("zone-to", self.to, Zone::PLACE),
            needed("zone-width", self.width, Zone::WIDTH),
        );
        if self.kind.is_none() {
            let which = "say what kind of place it is".to_owned();
            mistakes.insert("zone-kind".to_owned(), which);
        }
        let ((Some(from), Some(to), Some(width)), Some(kind)) = (ends, self.kind) else {
            return Err(mistakes);
        };
        if zones.is_empty() {
            zones.push(planned(&self.modification.name));
        }
        let zone = &mut zones[0];
        (zone.from, zone.to, zone.width) = (from, to, width);
        (zone.height, zone.kind, zone.dryness) = (self.height, kind, self.dryness);
        // One of another shape stays where no round one was typed.
        if round(zone) != self.opening {
            zone.opening = self.opening.map(Opening::Round);
        }
        Ok(())
    }
}

/// A place a change will make: planned, not measured. It keeps its name whatever the
/// change is called later.
pub(super) fn planned(change: &str) -> Zone {
    let name = format!("{change}: new place");
    Zone::plain(&name, ZoneKind::SternHatch, [0.0; 3])
}

/// A modification nobody has described yet; where it stands must be typed.
pub(crate) fn new_modification() -> Modification {
    Modification {
        name: String::new(),
        progress: Progress::Planned,
        removes: Vec::new(),
        zones: Vec::new(),
        fittings: Vec::new(),
        dryness: Vec::new(),
        mass: 0.0,
        x: f64::NAN,
        z: 0.3,
        holes: 0,
        price: None,
        can_be_undone: true,
        note: String::new(),
    }
}

/// The form of a modification of a hull.
pub(crate) fn modification_form(survey: &Survey) -> Table<ModificationDraft> {
    type D = ModificationDraft;
    let group = |title, folded, fields| Group {
        title,
        hint: "",
        folded,
        fields,
    };
    let stock = survey.fitout.zones.iter().map(|zone| &zone.name);
    let stock = stock.chain(survey.fitout.fittings.iter().map(|f| &f.name));
    let removes = stock.map(|on| {
        let field = format!("removes-{on}");
        tick_in(field, on.clone(), on.clone(), |d: &mut D| {
            &mut d.modification.removes
        })
    });
    let seals = survey.fitout.zones.iter().map(|zone| {
        let (field, label) = (
            format!("seals-{}", zone.name),
            format!("{}: how dry then", zone.name),
        );
        grade_of(field, label, "as it is", zone.name.clone(), |d: &mut D| {
            &mut d.modification.dryness
        })
    });
    Table(vec![
        group(
            "",
            false,
            vec![
                name("name", "called", |d: &mut D| &mut d.modification.name),
                number("mass", "weighs", Modification::MASS, |d: &mut D| {
                    &mut d.modification.mass
                })
                .hint("below zero where it takes weight off"),
                number("x", "its place, from the bow", Fitting::X, |d: &mut D| {
                    &mut d.modification.x
                }),
                number("z", "above the bottom", Fitting::Z, |d: &mut D| {
                    &mut d.modification.z
                }),
                count("holes", "holes drilled", (0, HOLES, false), |d: &mut D| {
                    &mut d.modification.holes
                })
                .hint("none near or below the waterline"),
                number("price", "costs", Modification::PRICE, |d: &mut D| {
                    &mut d.modification.price
                }),
                note("note", "note", LONGEST, |d: &mut D| {
                    &mut d.modification.note
                }),
                tick("done", "it is done", |d: &mut D| &mut d.done),
                tick("undoable", "it can be undone", |d: &mut D| {
                    &mut d.modification.can_be_undone
                }),
            ],
        ),
        group(
            "a place it makes",
            false,
            vec![
                number(
                    "zone-from",
                    "new place begins, from the bow",
                    Zone::PLACE,
                    |d: &mut D| &mut d.from,
                )
                .hint("leave empty for none"),
                number("zone-to", "ends, from the bow", Zone::PLACE, |d: &mut D| {
                    &mut d.to
                }),
                number("zone-width", "wide", Zone::WIDTH, |d: &mut D| &mut d.width),
                number("zone-height", "high", Zone::HEIGHT, |d: &mut D| {
                    &mut d.height
                }),
                number(
                    "zone-opening",
                    "round opening, across",
                    Zone::OPENING,
                    |d: &mut D| &mut d.opening,
                ),
                maybe_choice("zone-kind", "it is a", "not said", |d: &mut D| &mut d.kind),
                maybe_choice("zone-dryness", "how dry", "not said", |d: &mut D| {
                    &mut d.dryness
                }),
            ],
        ),
        group("what it takes off", true, removes.collect()),
        group("what it seals", true, seals.collect()),
    ])
}

/// Puts a modification on the record as its form says: a new one, or what was typed over
/// the one called `was`.
///
/// # Errors
/// What was not understood, or somebody else changed meanwhile; where the record's space
/// would contradict itself.
pub fn keep_modification(
    hull: &mut HullRecord,
    was: &str,
    form: &Sent,
    system: System,
) -> Result<(), Refusal> {
    let all = &hull.survey.fitout.modifications;
    let there = same(all, was, form, |m| &m.name)?;
    let table = modification_form(&hull.survey);
    let made = table.typed_over(there, new_modification, form, system)?;
    Ok(put_modification(hull, Some(was), made)?)
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

/// Takes a modification off the record, out of configurations too, where nobody changed it
/// since its form was shown.
///
/// # Errors
/// In words, what is different now.
pub fn forget_modification(
    hull: &mut HullRecord,
    name: &str,
    form: &Sent,
    system: System,
) -> Result<(), Refusal> {
    let mut all = hull.survey.fitout.modifications.iter();
    if let Some(there) = all.find(|m| m.name == name) {
        modification_form(&hull.survey).unchanged(there, form, system)?;
    }
    let fitout = &mut hull.survey.fitout;
    fitout.modifications.retain(|m| m.name != name);
    for configuration in &mut fitout.configurations {
        configuration.modifications.retain(|m| m != name);
    }
    Ok(())
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
    use super::super::set_ups::{forget_configuration, keep_configuration};
    use super::*;

    fn form(pairs: &[(&str, &str)]) -> Sent {
        let pairs = pairs.iter();
        pairs.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    fn hull() -> HullRecord {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        hulls.find(|h| h.survey.key == "quarnel-sprannet").unwrap()
    }

    const METRIC: System = System::Metric;

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
            ("zone-kind", "stern-hatch"),
            ("zone-from", "2.1"),
            ("zone-to", "2.4"),
            ("zone-width", "26"),
            ("zone-opening", "20"),
            ("zone-dryness", "wave"),
            ("seals-bow hatch", "held-under"),
            ("seals-tank well", ""),
        ]);
        let before = hull.survey.fitout.modifications.len();
        keep_modification(&mut hull, "", &typed, METRIC).unwrap();
        let made = hull.survey.fitout.modifications[before].clone();
        assert_eq!((made.mass, made.x, made.holes), (1.2, 2.2, 8));
        assert_eq!(made.removes, ["stern hatch"]);
        assert_eq!(made.zones[0].opening, Some(Opening::Round(0.20)));
        let sealed = [("bow hatch".to_owned(), Dryness::HeldUnder)];
        assert_eq!(made.dryness, sealed);
        assert_eq!(made.progress, Progress::Planned);
        let set = form(&[
            ("name", "with hatch"),
            ("seat", "high"),
            ("with-battery hatch", "yes"),
        ]);
        keep_configuration(&mut hull, "", &set, METRIC).unwrap();
        // Renamed by a form that says nothing else.
        let renamed = form(&[("name", "rear hatch"), ("undoable", "yes")]);
        let mut renamed = renamed;
        renamed.extend(form(&[("removes-stern hatch", "yes")]));
        keep_modification(&mut hull, "battery hatch", &renamed, METRIC).unwrap();
        let fitout = &hull.survey.fitout;
        assert_eq!(fitout.modifications.len(), before + 1);
        let wanted = Modification {
            name: "rear hatch".into(),
            can_be_undone: true,
            ..made
        };
        assert_eq!(fitout.modifications[before], wanted);
        assert_eq!(fitout.configurations[0].modifications, ["rear hatch"]);
        set_progress(&mut hull, "rear hatch", Progress::Done).unwrap();
        assert!(hull.survey.fitout.done().any(|m| m.name == "rear hatch"));
        forget_modification(&mut hull, "rear hatch", &Sent::new(), METRIC).unwrap();
        let set_up = &hull.survey.fitout.configurations[0];
        assert!(set_up.modifications.is_empty());
        forget_configuration(&mut hull, "with hatch", &Sent::new(), METRIC).unwrap();
        assert!(hull.survey.fitout.configurations.is_empty());
        assert!(set_progress(&mut hull, "rear hatch", Progress::Done).is_err());
    }

    #[test]
    fn what_is_missing_or_impossible_is_named() {
        let told = |pairs: &[(&str, &str)]| {
            keep_modification(&mut hull(), "", &form(pairs), METRIC)
                .unwrap_err()
                .0
        };
        let two = told(&[("mass", "200 kg")]);
        assert_eq!(two.keys().collect::<Vec<_>>(), ["mass", "name", "x"]);
        assert!(told(&[("name", "a"), ("x", "1"), ("zone-from", "1")]).contains_key("zone-to"));
        // What it takes off must be there; so must a field.
        let gold = told(&[("name", "a"), ("x", "1"), ("removes-gold bar", "yes")]);
        assert!(gold[""].contains("gold bar"), "{gold:?}");
        let gone = form(&[("name", "a"), ("shown", "{}")]);
        let gone = keep_modification(&mut hull(), "a", &gone, METRIC).unwrap_err();
        assert!(gone.to_string().contains("meanwhile"), "{gone}");
    }
}

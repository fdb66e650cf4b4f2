//! The walk along a hull: zone after zone as it is measured.

use super::typed::{Mistakes, Typed};
use galvet_core::base::{Bounds, Dimension, Keyed, System};
use galvet_core::hull::{Fitout, Fitting, Opening, Progress, Source, Zone};
use galvet_store::files::hulls::HullRecord;
use std::collections::HashMap;

impl Typed<'_> {
    fn opening(&mut self) -> Option<Opening> {
        match self.text("opening") {
            "round" => self.number("across", Zone::OPENING).map(Opening::Round),
            "rectangle" => {
                let along = self.number("along", Zone::OPENING);
                let across = self.number("across", Zone::OPENING);
                Some(Opening::Rectangle(along?, across?))
            }
            _ => None,
        }
    }

    fn yes(&self, name: &str) -> Option<bool> {
        match self.text(name) {
            "yes" => Some(true),
            "no" => Some(false),
            _ => None,
        }
    }
}

/// A place on the plan as it was typed: along from the bow and across, m.
///
/// # Errors
/// What was not understood, field by field.
pub fn place_typed(form: &HashMap<String, String>, system: System) -> Result<(f64, f64), Mistakes> {
    let mut typed = Typed::of(form, system);
    let x = typed.number("x", Fitting::X);
    let y = typed.maybe("y", Fitting::Y).unwrap_or(0.0);
    match x {
        Some(x) if typed.mistakes.is_empty() => Ok((x, y)),
        _ => Err(typed.mistakes),
    }
}

/// How a length along the hull stands in its field.
#[must_use]
pub fn shown_along(system: System, m: f64) -> String {
    system.text(Dimension::Length, m, 2)
}

/// How any other length stands in its field.
#[must_use]
pub fn shown_across(system: System, m: f64) -> String {
    system.text(Dimension::ShortLength, m, 1)
}

/// A length that was typed, or the one before to the last digit where its field
/// was left as it stood: what is shown is rounded.
fn untouched(typed: &str, shown: &str, read: Option<f64>, was: f64) -> f64 {
    if typed == shown {
        was
    } else {
        read.unwrap_or(was)
    }
}

/// Reads a zone as it was measured; `was` is what stood there before (a guess, or
/// an older measurement), of which it keeps name and kind.
///
/// # Errors
/// What was not understood, field by field.
pub fn zone(
    was: &Zone,
    form: &HashMap<String, String>,
    system: System,
    date: &str,
) -> Result<Zone, Mistakes> {
    /// A width across is written in centimetres, like every width.
    const OFFSET: Bounds = Bounds::new("a zone's offset", Dimension::ShortLength, -0.8, 0.8);
    let mut typed = Typed::of(form, system);
    let from = typed.number("from", Zone::PLACE);
    let to = typed.number("to", Zone::PLACE);
    let width = typed.number("width", Zone::WIDTH);
    let offset = if typed.text("offset").is_empty() {
        Some(0.0)
    } else {
        typed.number("offset", OFFSET)
    };
    let height = typed.maybe("height", Zone::HEIGHT);
    let height_at_lid = typed.maybe("height-at-lid", Zone::HEIGHT);
    let floor = typed.maybe("floor", Zone::FLOOR);
    let opening = typed.opening();
    let along = |m: f64| shown_along(system, m);
    let across = |m: f64| shown_across(system, m);
    let same = |name: &str, was: Option<f64>, read: Option<f64>| match (was, read) {
        (Some(was), Some(read)) => Some(untouched(typed.text(name), &across(was), Some(read), was)),
        (_, read) => read,
    };
    let measured = Zone {
        name: was.name.clone(),
        kind: was.kind,
        from: untouched(typed.text("from"), &along(was.from), from, was.from),
        to: untouched(typed.text("to"), &along(was.to), to, was.to),
        width: untouched(typed.text("width"), &across(was.width), width, was.width),
        offset: untouched(
            typed.text("offset"),
            &across(was.offset),
            offset,
            was.offset,
        ),
        height: same("height", was.height, height),
        height_at_lid: same("height-at-lid", was.height_at_lid, height_at_lid),
        floor: same("floor", was.floor, floor),
        opening,
        dryness: Keyed::from_key(typed.text("dryness")),
        reach: Keyed::from_key(typed.text("reach")),
        underside_reachable: typed.yes("underside"),
        non_slip: typed.yes("non-slip"),
        padded: typed.yes("padded"),
        source: Source::Tape,
        date: date.to_owned(),
    };
    if !typed.mistakes.is_empty() {
        return Err(typed.mistakes);
    }
    if measured.to <= measured.from {
        let order = "it must end behind where it begins: both are taken from the bow";
        return Err([("to".to_owned(), order.to_owned())].into());
    }
    let refused =
        |error: galvet_core::base::OutOfRange| [(String::new(), error.to_string())].into();
    measured.check().map_err(refused)
}

/// The place a change that is done has made, by its name.
fn made_zone<'a>(fitout: &'a mut Fitout, name: &str) -> Option<&'a mut Zone> {
    let done = fitout.modifications.iter_mut();
    done.filter(|m| m.progress == Progress::Done)
        .flat_map(|m| &mut m.zones)
        .find(|z| z.name == name)
}

/// Puts a zone on the record, in the place of the one of its name.
///
/// # Errors
/// In words, where the record's space would contradict itself.
pub fn put_zone(hull: &mut HullRecord, zone: Zone) -> Result<(), String> {
    let fitout = &mut hull.survey.fitout;
    if let Some(made) = made_zone(fitout, &zone.name) {
        *made = zone;
        return fitout
            .clone()
            .check()
            .map(|_| ())
            .map_err(|e| e.to_string());
    }
    match fitout.zones.iter_mut().find(|z| z.name == zone.name) {
        Some(there) => *there = zone,
        None => fitout.zones.push(zone),
    }
    fitout.zones.sort_by(|a, b| a.from.total_cmp(&b.from));
    fitout
        .clone()
        .check()
        .map(|_| ())
        .map_err(|e| e.to_string())
}

/// Takes a zone off the record: it is a guess again.
///
/// # Errors
/// In words, where something else on the record names it.
pub fn forget_zone(hull: &mut HullRecord, name: &str) -> Result<(), String> {
    let fitout = &mut hull.survey.fitout;
    if let Some(made) = made_zone(fitout, name) {
        // Still there, but nobody's measurement.
        made.source = Source::Guess;
        made.date.clear();
        return Ok(());
    }
    fitout.zones.retain(|z| z.name != name);
    fitout
        .clone()
        .check()
        .map(|_| ())
        .map_err(|e| e.to_string())
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::hull::{Dryness, Reach, zones};

    fn well() -> Zone {
        let hull = crate::demo_data::catalogue().unwrap().hulls.into_iter();
        let hull = hull
            .into_iter()
            .find(|h| h.survey.key == "pellune-rusko")
            .unwrap();
        zones(&hull.survey)
            .into_iter()
            .find(|z| z.name == "tank well")
            .unwrap()
    }

    fn form(pairs: &[(&str, &str)]) -> HashMap<String, String> {
        pairs
            .iter()
            .map(|&(n, v)| (n.to_owned(), v.to_owned()))
            .collect()
    }

    #[test]
    fn a_zone_is_read_as_the_tape_is_called_out() {
        let typed = form(&[
            ("from", "2,35"),
            ("to", "10' 6\""),
            ("width", "47"),
            ("height", "13 cm"),
            ("opening", "rectangle"),
            ("along", "40"),
            ("across", "0.26"),
            ("dryness", "open"),
            ("reach", "turning"),
            ("non-slip", "yes"),
        ]);
        let zone = zone(&well(), &typed, System::Metric, "2026-11-25").unwrap();
        assert_eq!(
            (zone.from, zone.width, zone.height),
            (2.35, 0.47, Some(0.13))
        );
        assert!((zone.to - 3.2004).abs() < 1e-9);
        assert_eq!(zone.opening, Some(Opening::Rectangle(0.4, 0.26)));
        assert_eq!(
            (zone.dryness, zone.reach),
            (Some(Dryness::Open), Some(Reach::Turning))
        );
        assert_eq!((zone.non_slip, zone.padded), (Some(true), None));
        assert_eq!(
            (zone.source, zone.date.as_str()),
            (Source::Tape, "2026-11-25")
        );
    }

    #[test]
    fn a_field_left_as_it_stood_keeps_its_last_digit() {
        let was = Zone {
            from: 2.3314,
            width: 0.41399,
            height: Some(0.1296),
            ..well()
        };
        for system in [System::Metric, System::Imperial] {
            let (from, to) = (shown_along(system, was.from), shown_along(system, was.to));
            let (width, height) = (
                shown_across(system, was.width),
                shown_across(system, 0.1296),
            );
            let mut typed = form(&[
                ("from", &from),
                ("to", &to),
                ("width", &width),
                ("height", &height),
            ]);
            let read = zone(&was, &typed, system, "").unwrap();
            assert_eq!((read.from, read.to), (was.from, was.to));
            assert_eq!((read.width, read.height), (was.width, was.height));
            typed.insert("width".to_owned(), "50 cm".to_owned());
            assert_eq!(zone(&was, &typed, system, "").unwrap().width, 0.5);
        }
    }

    #[test]
    fn mistakes_are_named_where_they_were_made() {
        let usual = [("from", "2.3"), ("to", "3.2"), ("width", "47")];
        let told = |name: &str, value: &str| {
            let mut typed = form(&usual);
            typed.insert(name.to_owned(), value.to_owned());
            zone(&well(), &typed, System::Metric, "").unwrap_err()
        };
        assert!(told("from", "bow")["from"].contains("3.76 m"));
        assert!(told("to", "2.2")["to"].contains("end behind where it begins"));
        assert!(told("width", "4 m")["width"].contains("between 0.02 and 1.5 m, not 4"));
        assert!(told("opening", "round").contains_key("across"));
    }

    #[test]
    fn a_measured_zone_takes_the_place_of_the_guess_and_gives_it_back() {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hull = hulls
            .into_iter()
            .find(|h| h.survey.key == "pellune-rusko")
            .unwrap();
        let before = zones(&hull.survey);
        let mut measured = well();
        measured.width = 0.5;
        put_zone(&mut hull, measured.clone()).unwrap();
        measured.width = 0.48;
        put_zone(&mut hull, measured).unwrap();
        let now = zones(&hull.survey);
        assert_eq!(now.len(), before.len());
        assert_eq!(
            now.iter().find(|z| z.name == "tank well").unwrap().width,
            0.48
        );
        forget_zone(&mut hull, "tank well").unwrap();
        assert_eq!(zones(&hull.survey), before);
    }

    #[test]
    fn a_place_a_change_has_made_is_measured_where_it_is() {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        let mut hull = hulls.find(|h| h.survey.key == "fennick-dunmarrow").unwrap();
        for made in &mut hull.survey.fitout.modifications {
            made.progress = Progress::Done;
        }
        let all = zones(&hull.survey);
        let mut hatch = all.iter().find(|z| z.name == "rear hatch").unwrap().clone();
        hatch.width = 0.27;
        hatch.source = Source::Tape;
        put_zone(&mut hull, hatch).unwrap();
        let now = zones(&hull.survey);
        assert_eq!(now.len(), all.len());
        let hatch = now.iter().find(|z| z.name == "rear hatch").unwrap();
        assert_eq!((hatch.width, hatch.source), (0.27, Source::Tape));
        forget_zone(&mut hull, "rear hatch").unwrap();
        let hatch = zones(&hull.survey)
            .into_iter()
            .find(|z| z.name == "rear hatch");
        assert_eq!(hatch.unwrap().source, Source::Guess);
    }
}

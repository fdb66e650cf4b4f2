//! The walk along a hull: zone after zone as it is measured.

use super::edit::{checked, set_absent};
use crate::form::{
    Draft, Field, Group, Mistakes, Refusal, Sent, Table, Typed, maybe_choice, number, typed_number,
    yes_no,
};
use galvet_core::base::{Bounds, Dimension, System};
use galvet_core::hull::{Fitout, Fitting, Opening, Progress, Source, Survey, Zone, zones};
use galvet_store::files::hulls::HullRecord;
use strum::{EnumMessage, IntoStaticStr, VariantArray};

/// A place on the plan as it was typed: along from the bow and across, m.
///
/// # Errors
/// What was not understood, field by field.
pub fn place_typed(form: &Sent, system: System) -> Result<(f64, f64), Mistakes> {
    let mut typed = Typed::of(form, system);
    let x = typed.number("x", Fitting::X);
    let y = typed.maybe("y", Fitting::Y).unwrap_or(0.0);
    match x {
        Some(x) if typed.mistakes.is_empty() => Ok((x, y)),
        _ => Err(typed.mistakes),
    }
}

/// The shape of an opening.
#[derive(Debug, Clone, Copy, PartialEq, Eq, VariantArray, EnumMessage, IntoStaticStr)]
#[strum(serialize_all = "kebab-case")]
enum Shape {
    /// Round.
    #[strum(message = "round")]
    Round,
    /// Rectangular.
    #[strum(message = "a rectangle")]
    Rectangle,
}

/// A zone as its form takes it apart: what passes, by its sides.
#[derive(Clone)]
pub(crate) struct ZoneDraft {
    zone: Zone,
    shape: Option<Shape>,
    along: Option<f64>,
    across: Option<f64>,
}

impl Draft for ZoneDraft {
    type Record = Zone;

    fn of(record: &Zone) -> Self {
        let (shape, along, across) = match record.opening {
            None => (None, None, None),
            Some(Opening::Round(across)) => (Some(Shape::Round), None, Some(across)),
            Some(Opening::Rectangle(along, across)) => {
                (Some(Shape::Rectangle), Some(along), Some(across))
            }
        };
        Self {
            zone: record.clone(),
            shape,
            along,
            across,
        }
    }

    fn made(self) -> Result<Zone, Mistakes> {
        let mut mistakes = Mistakes::new();
        let mut needed = |field: &str, figure: Option<f64>| {
            figure.unwrap_or_else(|| {
                let asked = typed_number("", Zone::OPENING, System::Metric);
                mistakes.insert(field.to_owned(), asked.err().unwrap_or_default());
                f64::NAN
            })
        };
        let opening = self.shape.map(|shape| match shape {
            Shape::Round => Opening::Round(needed("across", self.across)),
            Shape::Rectangle => {
                Opening::Rectangle(needed("along", self.along), needed("across", self.across))
            }
        });
        // Sides of an opening nobody has given a shape yet.
        let sides = self.along.is_some() || self.across.is_some();
        if opening.is_none() && self.zone.opening.is_none() && sides {
            let which = "say whether it is round or a rectangle".to_owned();
            mistakes.insert("opening".to_owned(), which);
        }
        let zone = Zone {
            opening,
            ..self.zone
        };
        if zone.to <= zone.from {
            let order = "it must end behind where it begins: both are taken from the bow";
            mistakes.insert("to".to_owned(), order.to_owned());
        }
        if !mistakes.is_empty() {
            return Err(mistakes);
        }
        let refused = |error: galvet_core::base::OutOfRange| error.to_string();
        zone.check()
            .map_err(|error| [(String::new(), refused(error))].into())
    }
}

/// The form of a zone.
pub(crate) fn zone_form() -> Table<ZoneDraft> {
    type D = ZoneDraft;
    /// A width across is written in centimetres, like every width.
    const OFFSET: Bounds = Bounds::new("a zone's offset", Dimension::ShortLength, -0.8, 0.8);
    fn high(name: &str, label: &str, at: fn(&mut D) -> &mut Option<f64>) -> Field<D> {
        number(name, label, Zone::HEIGHT, at)
    }
    Table(vec![Group {
        title: "",
        hint: "",
        folded: false,
        fields: vec![
            number("from", "begins, from the bow", Zone::PLACE, |d: &mut D| {
                &mut d.zone.from
            }),
            number("to", "ends, from the bow", Zone::PLACE, |d: &mut D| {
                &mut d.zone.to
            }),
            number("width", "wide", Zone::WIDTH, |d: &mut D| &mut d.zone.width),
            number(
                "offset",
                "its middle off the centreline",
                OFFSET,
                |d: &mut D| &mut d.zone.offset,
            )
            .hint("starboard +, port −"),
            high("height", "high", |d| &mut d.zone.height).hint("what is usable"),
            high("height-at-lid", "high beneath the lid", |d| {
                &mut d.zone.height_at_lid
            }),
            number(
                "floor",
                "its floor above the bottom",
                Zone::FLOOR,
                |d: &mut D| &mut d.zone.floor,
            ),
            maybe_choice("opening", "opening", "none, or stands open", |d: &mut D| {
                &mut d.shape
            }),
            number("along", "opening, along", Zone::OPENING, |d: &mut D| {
                &mut d.along
            }),
            number("across", "opening, across", Zone::OPENING, |d: &mut D| {
                &mut d.across
            }),
            maybe_choice("dryness", "how dry", "nobody looked", |d: &mut D| {
                &mut d.zone.dryness
            }),
            maybe_choice("reach", "reached", "nobody looked", |d: &mut D| {
                &mut d.zone.reach
            }),
            yes_no("non-slip", "foot hold on its floor", |d: &mut D| {
                &mut d.zone.non_slip
            }),
            yes_no("padded", "padded", |d: &mut D| &mut d.zone.padded),
            yes_no(
                "underside",
                "a nut can be put on from beneath",
                |d: &mut D| &mut d.zone.underside_reachable,
            ),
        ],
    }])
}

/// The zone of a name, as it stands or is guessed.
#[must_use]
pub fn zone_of(survey: &Survey, name: &str) -> Option<Zone> {
    let zones = zones(survey);
    zones.into_iter().find(|z| z.name == name)
}

/// What a zone's form asks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ZoneStep {
    /// A tape was put to it.
    Keep,
    /// It is on its way; `true` where it was a guess when the form was shown.
    Begin(bool),
    /// Its measurement is taken off: a guess again.
    Forget,
    /// It has none.
    Absent,
}

/// Said of a place somebody else says is not there.
const ABSENT: &str = "somebody said meanwhile that it has none; keeping this says it has";

/// Does to the record as it stands what a form asks of a zone.
///
/// # Errors
/// What was not understood, or somebody else changed meanwhile; where the record's space
/// would contradict itself.
pub fn keep_zone(
    hull: &mut HullRecord,
    (name, step): (&str, ZoneStep),
    form: &Sent,
    (system, today): (System, &str),
) -> Result<(), Refusal> {
    if form.contains_key("anew") {
        set_absent(hull, name, false);
    }
    let Some(now) = zone_of(&hull.survey, name) else {
        // What was on its way as begun is overtaken by “it has none”.
        return match step {
            ZoneStep::Begin(_) => Ok(()),
            _ => Err(ABSENT.into()),
        };
    };
    let table = zone_form();
    let guess = now.source == Source::Guess;
    match step {
        ZoneStep::Forget | ZoneStep::Absent => {
            table.unchanged(&now, form, system)?;
            forget_zone(hull, name)?;
            if step == ZoneStep::Absent {
                set_absent(hull, name, true);
            }
            return Ok(());
        }
        // What was on its way as begun is overtaken by what was measured meanwhile.
        ZoneStep::Begin(true) if !guess => return Ok(()),
        ZoneStep::Begin(_) | ZoneStep::Keep => {}
    }
    let mut typed = now.clone();
    table.put(&mut typed, form, system)?;
    // A guess that is kept is measured by that; a measured one that is kept as it stood is
    // what it was, and one that is typed in is measured now.
    let begun = guess && step != ZoneStep::Keep;
    if !begun && (guess || typed != now) {
        typed.source = Source::Tape;
        today.clone_into(&mut typed.date);
    }
    if typed == now {
        return Ok(());
    }
    Ok(put_zone(hull, typed)?)
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
fn put_zone(hull: &mut HullRecord, zone: Zone) -> Result<(), String> {
    let fitout = &mut hull.survey.fitout;
    if let Some(made) = made_zone(fitout, &zone.name) {
        *made = zone;
        return checked(hull);
    }
    // Where one stands on the list stays: they are put in order where they are looked at.
    match fitout.zones.iter_mut().find(|z| z.name == zone.name) {
        Some(there) => *there = zone,
        None => {
            let at = fitout.zones.partition_point(|z| z.from <= zone.from);
            fitout.zones.insert(at, zone);
        }
    }
    checked(hull)
}

/// Takes a zone off the record: it is a guess again.
///
/// # Errors
/// In words, where something else on the record names it.
fn forget_zone(hull: &mut HullRecord, name: &str) -> Result<(), String> {
    let fitout = &mut hull.survey.fitout;
    if let Some(made) = made_zone(fitout, name) {
        // Still there, but nobody's measurement.
        made.source = Source::Guess;
        made.date.clear();
        return Ok(());
    }
    fitout.zones.retain(|z| z.name != name);
    checked(hull)
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::hull::{Dryness, Reach};

    const METRIC: System = System::Metric;
    const DAY: &str = "2026-11-25";

    fn hull(key: &str) -> HullRecord {
        let mut hulls = crate::demo_data::catalogue().unwrap().hulls.into_iter();
        hulls.find(|h| h.survey.key == key).unwrap()
    }

    fn well() -> Zone {
        zone_of(&hull("pellune-rusko").survey, "tank well").unwrap()
    }

    fn form(pairs: &[(&str, &str)]) -> Sent {
        pairs
            .iter()
            .map(|&(n, v)| (n.to_owned(), v.to_owned()))
            .collect()
    }

    fn keep(hull: &mut HullRecord, typed: &Sent) -> Result<Zone, Refusal> {
        keep_zone(hull, ("tank well", ZoneStep::Keep), typed, (METRIC, DAY))?;
        Ok(zone_of(&hull.survey, "tank well").unwrap())
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
        let zone = keep(&mut hull("pellune-rusko"), &typed).unwrap();
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
        assert_eq!((zone.non_slip, zone.padded), (Some(true), well().padded));
        assert_eq!((zone.source, zone.date.as_str()), (Source::Tape, DAY));
    }

    #[test]
    fn a_field_left_as_it_stood_keeps_its_last_digit() {
        let was = Zone {
            from: 2.3314,
            width: 0.41399,
            height: Some(0.1296),
            ..well()
        };
        let table = zone_form();
        for system in [System::Metric, System::Imperial] {
            let mut typed = table.shown(&ZoneDraft::of(&was), system).fields();
            let mut zone = was.clone();
            table.put(&mut zone, &typed, system).unwrap();
            assert_eq!(zone, was);
            typed.insert("width".to_owned(), "50 cm".to_owned());
            table.put(&mut zone, &typed, system).unwrap();
            assert_eq!(
                zone,
                Zone {
                    width: 0.5,
                    ..was.clone()
                }
            );
        }
    }

    #[test]
    fn mistakes_are_named_where_they_were_made() {
        let usual = [("from", "2.3"), ("to", "3.2"), ("width", "47")];
        let told = |name: &str, value: &str| {
            let mut typed = form(&usual);
            typed.insert(name.to_owned(), value.to_owned());
            keep(&mut hull("pellune-rusko"), &typed).unwrap_err().0
        };
        assert!(told("from", "bow")["from"].contains("3.76 m"));
        assert!(told("to", "2.2")["to"].contains("end behind where it begins"));
        assert!(told("width", "4 m")["width"].contains("between 0.02 and 1.5 m, not 4"));
        assert!(told("opening", "round").contains_key("across"));
        assert!(told("across", "20").contains_key("opening"));
    }

    #[test]
    fn a_measured_zone_takes_the_place_of_the_guess_and_gives_it_back() {
        let mut hull = hull("pellune-rusko");
        let before = zones(&hull.survey);
        keep(&mut hull, &form(&[("width", "50")])).unwrap();
        let kept = keep(&mut hull, &form(&[("width", "48")])).unwrap();
        assert_eq!(zones(&hull.survey).len(), before.len());
        assert_eq!(kept.width, 0.48);
        forget_zone(&mut hull, "tank well").unwrap();
        assert_eq!(zones(&hull.survey), before);
    }

    #[test]
    fn what_was_on_its_way_never_undoes_what_was_kept() {
        let mut hull = hull("pellune-rusko");
        let typed = form(&[("width", "44 cm")]);
        let mut sent = |step: ZoneStep| {
            let on = (METRIC, DAY);
            keep_zone(&mut hull, ("tank well", step), &typed, on).unwrap();
            zone_of(&hull.survey, "tank well")
        };
        let begun = sent(ZoneStep::Begin(true)).unwrap();
        assert_eq!((begun.width, begun.source), (0.44, Source::Guess));
        assert_eq!(sent(ZoneStep::Keep).unwrap().source, Source::Tape);
        assert_eq!(sent(ZoneStep::Begin(true)).unwrap().source, Source::Tape);
        assert_eq!(sent(ZoneStep::Absent), None);
        assert_eq!(sent(ZoneStep::Begin(true)), None);
    }

    #[test]
    fn a_place_a_change_has_made_is_measured_where_it_is() {
        let mut hull = hull("fennick-dunmarrow");
        for made in &mut hull.survey.fitout.modifications {
            made.progress = Progress::Done;
        }
        let all = zones(&hull.survey);
        let typed = form(&[("width", "27")]);
        let step = ("rear hatch", ZoneStep::Keep);
        keep_zone(&mut hull, step, &typed, (METRIC, DAY)).unwrap();
        assert_eq!(zones(&hull.survey).len(), all.len());
        let hatch = zone_of(&hull.survey, "rear hatch").unwrap();
        assert_eq!((hatch.width, hatch.source), (0.27, Source::Tape));
        forget_zone(&mut hull, "rear hatch").unwrap();
        let hatch = zone_of(&hull.survey, "rear hatch").unwrap();
        assert_eq!(hatch.source, Source::Guess);
    }
}

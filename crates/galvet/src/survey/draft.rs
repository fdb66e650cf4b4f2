//! A hull as it is typed from a leaflet or a tape: a few fields, in any unit,
//! enough to float it.

use super::typed::number;
use crate::question::Offer;
use galvet_core::base::{Keyed, System};
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Fitout, Measure, Origin, Propulsion, Reading, Source,
    Survey,
};
use galvet_store::files::echo;
use std::collections::BTreeMap;

/// What kind of answer a field takes.
#[derive(Debug, Clone, Copy)]
pub enum FieldKind {
    /// Free text.
    Text,
    /// A figure of the record.
    Figure(Measure),
    /// A weight, bare or fitted as another field says.
    Weight,
    /// One of several words.
    Words(fn() -> Vec<Offer>),
}

/// A field of the quick start.
#[derive(Debug, Clone, Copy)]
pub struct Field {
    /// Its name in forms and addresses.
    pub name: &'static str,
    /// What it asks.
    pub title: &'static str,
    /// What to look at.
    pub hint: &'static str,
    /// What it takes.
    pub kind: FieldKind,
    /// What stands there before anybody chooses; empty for nothing.
    pub usual: &'static str,
}

const fn field(
    name: &'static str,
    title: &'static str,
    hint: &'static str,
    kind: FieldKind,
    usual: &'static str,
) -> Field {
    Field {
        name,
        title,
        hint,
        kind,
        usual,
    }
}

/// Every field, in the order they are asked.
pub const FIELDS: [Field; 16] = [
    field(
        "hull-maker",
        "maker",
        "leave empty for one without",
        FieldKind::Text,
        "",
    ),
    field(
        "hull-model",
        "name or model",
        "needed to keep her",
        FieldKind::Text,
        "",
    ),
    field(
        "hull-length",
        "length",
        "over all, bow to stern",
        FieldKind::Figure(Measure::Length),
        "",
    ),
    field(
        "hull-beam",
        "beam",
        "at the widest place",
        FieldKind::Figure(Measure::Beam),
        "",
    ),
    field(
        "hull-weight",
        "weight",
        "on a scale, if you can",
        FieldKind::Weight,
        "",
    ),
    field(
        "hull-weighed",
        "that weight is",
        "",
        FieldKind::Words(weights),
        "not-said",
    ),
    field(
        "hull-capacity",
        "rated capacity",
        "from the plate or the leaflet",
        FieldKind::Figure(Measure::RatedCapacity),
        "",
    ),
    field(
        "hull-basis",
        "the capacity counts",
        "",
        FieldKind::Words(bases),
        "unknown",
    ),
    field(
        "hull-construction",
        "construction",
        "",
        FieldKind::Words(constructions),
        "sit-on-top",
    ),
    field("hull-bottom", "bottom", "", FieldKind::Words(bottoms), ""),
    field(
        "hull-propulsion",
        "driven by",
        "",
        FieldKind::Words(drives),
        "paddle",
    ),
    field(
        "hull-seat",
        "seat above the floor",
        "its surface, sat upon, at the lowest place",
        FieldKind::Figure(Measure::SeatLow),
        "",
    ),
    field(
        "hull-floor",
        "floor above the bottom",
        "tape through a scupper, or beside the hull on level ground",
        FieldKind::Figure(Measure::FloorHeight),
        "",
    ),
    field(
        "hull-price",
        "price",
        "",
        FieldKind::Figure(Measure::Price),
        "",
    ),
    field(
        "hull-source",
        "these figures come from",
        "",
        FieldKind::Words(sources),
        "brochure",
    ),
    field(
        "hull-origin",
        "made by",
        "",
        FieldKind::Words(origins),
        "maker",
    ),
];

fn constructions() -> Vec<Offer> {
    Offer::all(|c| match c {
        Construction::SitOnTop => "a deck with scuppers: water that comes in runs out",
        Construction::SitInside => "an open cockpit without scuppers",
        Construction::Board => "no cockpit: one sits and stands on a shallow body",
    })
}

fn bottoms() -> Vec<Offer> {
    Offer::all(|b| match b {
        BottomShape::Flat => "steady at once, lets go suddenly",
        BottomShape::ShallowArch => "rounded across; the commonest",
        BottomShape::ShallowVee => "a keel line and soft chines; runs straight",
        BottomShape::Tunnel => "two runners; steady, drags a little",
        BottomShape::TriLobe => "a keel and two sponsons",
        BottomShape::Board => "flat and shallow, edge drawn in at the deck",
    })
}

fn drives() -> Vec<Offer> {
    Offer::all(|p| match p {
        Propulsion::Paddle => "a paddle only",
        Propulsion::RotaryPedal => "pedals and a propeller",
        Propulsion::FinPedal => "pedals and fins",
        Propulsion::Motor => "an electric motor",
    })
}

fn bases() -> Vec<Offer> {
    Offer::all(|b| match b {
        CapacityBasis::GearAndCrew => "seat and drive come free",
        CapacityBasis::EverythingAboveBareHull => "seat and drive count as load too",
        CapacityBasis::Unknown => "the careful reading is taken: seat and drive count",
    })
}

fn origins() -> Vec<Offer> {
    Offer::all(|o| match o {
        Origin::Maker => "somebody who sells it: that it is sold counts a little",
        Origin::HomeMade => "somebody at home, or changed beyond what was sold",
    })
}

/// Sources a quick start can have; what is read afloat comes later.
fn sources() -> Vec<Offer> {
    let all: Vec<Offer> = Offer::all(|s| match s {
        Source::Guess => "nobody stands for them",
        Source::Hearsay => "somebody said so",
        Source::Seller => "a seller's or a sponsored word",
        Source::Brochure => "leaflet or web page",
        Source::Label => "the plate on the hull",
        Source::Tape => "measured ashore",
        Source::Scale => "",
        Source::Afloat => "",
    });
    let left_out = [Source::Scale.key(), Source::Afloat.key()];
    all.into_iter()
        .filter(|offer| !left_out.contains(&offer.key))
        .collect()
}

/// Whether seat and drive are in a weight: nobody knows, as often as not.
const FITTED: &str = "fitted";

fn weights() -> Vec<Offer> {
    let offer = |key, label, note| Offer { key, label, note };
    vec![
        offer(FITTED, "with seat and drive", "ready to launch"),
        offer("bare", "the hull alone", "seat and drive come on top"),
        offer(
            "not-said",
            "not said",
            "taken as the hull alone, the careful reading",
        ),
    ]
}

/// What has been typed, field by field.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Draft {
    typed: BTreeMap<&'static str, String>,
}

/// A draft read.
#[derive(Debug, Clone, PartialEq)]
pub struct Drafted {
    /// What was understood; figures that were not are left out.
    pub survey: Survey,
    /// What is wrong, by field.
    pub mistakes: BTreeMap<&'static str, String>,
    /// What was understood, by field, in both systems of units.
    pub echoes: BTreeMap<&'static str, String>,
}

/// Longest text taken.
const LONGEST: usize = 80;

impl Draft {
    /// Takes the fields out of a form or an address; other names are not its
    /// affair.
    pub fn of<'a>(pairs: impl Iterator<Item = (&'a str, String)>) -> Self {
        let mut out = Self::default();
        for (name, value) in pairs {
            if let Some(field) = FIELDS.iter().find(|f| f.name == name) {
                let short = value.trim().chars().take(LONGEST).collect();
                out.typed.insert(field.name, short);
            }
        }
        out
    }

    /// Whether nothing has been typed or chosen.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.typed.is_empty()
    }

    /// What stands in a field.
    #[must_use]
    pub fn shown(&self, field: &Field) -> &str {
        self.typed
            .get(field.name)
            .map_or(field.usual, String::as_str)
    }

    fn value(&self, name: &str) -> &str {
        let field = FIELDS.iter().find(|f| f.name == name);
        field.map_or("", |field| self.shown(field))
    }

    fn word<T: Keyed>(&self, name: &str) -> Option<T> {
        T::from_key(self.value(name))
    }

    /// Reads it; a number without a unit is in the units people of `system` use
    /// for it. `date` is that of the figures, ISO 8601.
    #[must_use]
    pub fn read(&self, system: System, date: &str) -> Drafted {
        let mut reader = Reader {
            draft: self,
            system,
            date,
            source: self.word("hull-source").unwrap_or(Source::Brochure),
            readings: BTreeMap::new(),
            mistakes: BTreeMap::new(),
            echoes: BTreeMap::new(),
        };
        for field in &FIELDS {
            reader.field(field);
        }
        let model = self.value("hull-model");
        if model.is_empty() {
            let needed = "a name is needed to keep her".to_owned();
            reader.mistakes.insert("hull-model", needed);
        }
        let construction = self.word("hull-construction");
        Drafted {
            survey: Survey {
                key: String::new(),
                maker: self.value("hull-maker").to_owned(),
                model: model.to_owned(),
                year: None,
                construction: construction.unwrap_or(Construction::SitOnTop),
                bottom: self.word("hull-bottom"),
                propulsion: self.word("hull-propulsion").unwrap_or(Propulsion::Paddle),
                drive_lifts: false,
                tracks_straight: false,
                seats: 1,
                fitted_includes: String::new(),
                capacity_basis: self.word("hull-basis").unwrap_or(CapacityBasis::Unknown),
                notes: String::new(),
                origin: self.word("hull-origin").unwrap_or_default(),
                readings: reader.readings,
                evidence: Vec::new(),
                offsets: Vec::new(),
                fitout: Fitout::default(),
            },
            mistakes: reader.mistakes,
            echoes: reader.echoes,
        }
    }
}

/// A typed figure of the record, in SI.
///
/// # Errors
/// What would be accepted.
pub fn figure(measure: Measure, typed: &str, system: System) -> Result<f64, String> {
    number(typed, measure.bounds(), system)
}

/// What was understood, in both systems of units.
#[must_use]
pub fn understood(measure: Measure, value: f64) -> String {
    let metric = measure.text(System::Metric, value);
    let imperial = measure.text(System::Imperial, value);
    if metric == imperial {
        metric
    } else {
        format!("{metric} = {imperial}")
    }
}

struct Reader<'a> {
    draft: &'a Draft,
    system: System,
    date: &'a str,
    source: Source,
    readings: BTreeMap<Measure, Vec<Reading>>,
    mistakes: BTreeMap<&'static str, String>,
    echoes: BTreeMap<&'static str, String>,
}

impl Reader<'_> {
    fn field(&mut self, field: &Field) {
        let typed = self.draft.shown(field);
        match field.kind {
            FieldKind::Text => {}
            FieldKind::Words(offered) => {
                let known = offered().iter().any(|offer| offer.key == typed);
                if !known && !typed.is_empty() {
                    let problem = format!("“{}” is not one of the answers", echo(typed));
                    self.mistakes.insert(field.name, problem);
                }
            }
            FieldKind::Figure(measure) => self.figure(field, measure, typed, ""),
            FieldKind::Weight => {
                let (measure, note) = match self.draft.value("hull-weighed") {
                    FITTED => (Measure::FittedWeight, ""),
                    "bare" => (Measure::BareWeight, ""),
                    _ => (
                        Measure::BareWeight,
                        "not said whether seat and drive are in it; taken as the hull alone",
                    ),
                };
                self.figure(field, measure, typed, note);
            }
        }
    }

    fn figure(&mut self, field: &Field, measure: Measure, typed: &str, note: &str) {
        if typed.is_empty() {
            return;
        }
        match figure(measure, typed, self.system) {
            Ok(value) => {
                self.echoes.insert(field.name, understood(measure, value));
                let reading = Reading {
                    value,
                    source: self.source,
                    date: self.date.to_owned(),
                    who: String::new(),
                    note: note.to_owned(),
                };
                self.readings.insert(measure, vec![reading]);
            }
            Err(problem) => {
                self.mistakes.insert(field.name, problem);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn draft(pairs: &[(&'static str, &str)]) -> Draft {
        Draft::of(pairs.iter().map(|&(name, value)| (name, value.to_owned())))
    }

    #[test]
    fn figures_are_read_as_people_write_them() {
        let typed = draft(&[
            ("hull-model", "Tarn 12"),
            ("hull-length", "12' 4\""),
            ("hull-beam", "86"),
            ("hull-weight", "64 lb"),
            ("hull-weighed", "fitted"),
            ("hull-capacity", "180"),
            ("hull-floor", "0.135"),
            ("mass", "300"),
        ]);
        let read = typed.read(System::Metric, "2026-11-25");
        assert!(read.mistakes.is_empty(), "{:?}", read.mistakes);
        let value = |m| read.survey.value(m).unwrap();
        assert!((value(Measure::Length) - 3.7592).abs() < 1e-9);
        assert_eq!(value(Measure::Beam), 0.86);
        assert!((value(Measure::FittedWeight) - 29.029_91).abs() < 1e-4);
        assert_eq!(value(Measure::FloorHeight), 0.135);
        assert_eq!(read.survey.best(Measure::Beam).unwrap().date, "2026-11-25");
        assert_eq!(read.echoes["hull-beam"], "86.0\u{a0}cm = 33.86\u{a0}in");
        let imperial = draft(&[("hull-beam", "34"), ("hull-weight", "64")]);
        let read = imperial.read(System::Imperial, "");
        assert!((read.survey.value(Measure::Beam).unwrap() - 0.8636).abs() < 1e-9);
        assert!((read.survey.value(Measure::BareWeight).unwrap() - 29.029_91).abs() < 1e-4);
    }

    #[test]
    fn a_weight_of_unknown_basis_is_read_carefully() {
        let read = draft(&[("hull-weight", "30")]).read(System::Metric, "");
        assert!(read.survey.value(Measure::FittedWeight).is_none());
        let bare = read.survey.best(Measure::BareWeight).unwrap();
        assert_eq!(bare.value, 30.0);
        assert!(bare.note.contains("not said"), "{}", bare.note);
    }

    #[test]
    fn what_is_not_understood_is_named_where_it_was_typed() {
        let typed = draft(&[
            ("hull-length", "long"),
            ("hull-beam", "9 m"),
            ("hull-construction", "<raft>"),
        ]);
        let read = typed.read(System::Metric, "");
        let said = |name| read.mistakes[name].as_str();
        assert!(said("hull-length").contains("3.76 m"));
        assert!(said("hull-beam").contains("between 0.4 and 1.5 m, not 9"));
        assert!(said("hull-construction").contains("“<raft>”"));
        assert!(said("hull-model").contains("needed"));
        assert!(read.survey.readings.is_empty());
    }

    #[test]
    fn every_field_has_its_own_name_and_offers_what_it_starts_with() {
        for (at, field) in FIELDS.iter().enumerate() {
            assert!(FIELDS[..at].iter().all(|other| other.name != field.name));
            if let FieldKind::Words(offered) = field.kind {
                let keys: Vec<&str> = offered().iter().map(|o| o.key).collect();
                assert!(field.usual.is_empty() || keys.contains(&field.usual));
            }
        }
    }
}

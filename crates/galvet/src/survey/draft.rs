//! A hull as it is typed from a leaflet or a tape: a few fields, in any unit,
//! enough to float it.

use super::fields::{FIELDS, FITTED, Field, FieldKind};
use crate::form::{typed_number as number, with_unit};
use galvet_core::base::{Bare, Keyed, System, one_line, typed_name};
use galvet_core::hull::{
    CapacityBasis, Construction, Fitout, Looked, Measure, Propulsion, Reading, Source, Survey,
};
use galvet_store::files::echo;
use std::collections::BTreeMap;

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
    /// affair. Bare numbers are given the unit they were typed in; SI where nobody says.
    pub fn of<'a>(
        pairs: impl Iterator<Item = (&'a str, String)>,
        typed_in: Option<System>,
    ) -> Self {
        let mut out = Self::default();
        for (name, value) in pairs {
            if let Some(field) = FIELDS.iter().find(|f| f.name == name) {
                let short: String = value.trim().chars().take(LONGEST).collect();
                let measure = match field.kind {
                    FieldKind::Figure(measure) => Some(measure),
                    FieldKind::Weight => Some(Measure::BareWeight),
                    FieldKind::Text | FieldKind::Words(_) => None,
                };
                let short = match measure {
                    Some(measure) => with_unit(&short, measure.bounds(), typed_in),
                    None => short,
                };
                out.typed.insert(field.name, short);
            }
        }
        out
    }

    /// What has been typed or chosen, by the fields' names.
    pub fn pairs(&self) -> Vec<(&'static str, String)> {
        let typed = self.typed.iter().filter(|(_, value)| !value.is_empty());
        typed.map(|(name, value)| (*name, value.clone())).collect()
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
    pub fn read(&self, date: &str) -> Drafted {
        let mut reader = Reader {
            draft: self,
            date,
            source: self.word("hull-source").unwrap_or(Source::Brochure),
            readings: BTreeMap::new(),
            mistakes: BTreeMap::new(),
            echoes: BTreeMap::new(),
        };
        for field in &FIELDS {
            reader.field(field);
        }
        for (name, read) in [
            ("hull-model", typed_name(self.value("hull-model"))),
            ("hull-maker", one_line(self.value("hull-maker"))),
        ] {
            if let Err(problem) = read {
                reader.mistakes.insert(name, problem.to_string());
            }
        }
        let model = self.value("hull-model");
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
                looked: Looked::default(),
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
        let read = measure.bounds().parse(typed, Bare::SI);
        match read.map_err(|e| e.to_string()) {
            Ok(value) => {
                self.echoes.insert(field.name, understood(measure, value));
                let reading = Reading {
                    value,
                    source: self.source,
                    date: self.date.to_owned(),
                    who: String::new(),
                    note: note.to_owned(),
                    error: None,
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
        typed_in(pairs, System::Metric)
    }

    fn typed_in(pairs: &[(&'static str, &str)], system: System) -> Draft {
        let pairs = pairs.iter().map(|&(name, value)| (name, value.to_owned()));
        Draft::of(pairs, Some(system))
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
        let read = typed.read("2026-11-25");
        assert!(read.mistakes.is_empty(), "{:?}", read.mistakes);
        let value = |m| read.survey.value(m).unwrap();
        assert!((value(Measure::Length) - 3.7592).abs() < 1e-9);
        assert_eq!(value(Measure::Beam), 0.86);
        assert!((value(Measure::FittedWeight) - 29.029_91).abs() < 1e-4);
        assert_eq!(value(Measure::FloorHeight), 0.135);
        assert_eq!(read.survey.best(Measure::Beam).unwrap().date, "2026-11-25");
        assert_eq!(read.echoes["hull-beam"], "86.0\u{a0}cm = 33.86\u{a0}in");
        let imperial = typed_in(
            &[("hull-beam", "34"), ("hull-weight", "64")],
            System::Imperial,
        );
        let read = imperial.read("");
        assert!((read.survey.value(Measure::Beam).unwrap() - 0.8636).abs() < 1e-9);
        assert!((read.survey.value(Measure::BareWeight).unwrap() - 29.029_91).abs() < 1e-4);
    }

    #[test]
    fn a_weight_of_unknown_basis_is_read_carefully() {
        let read = draft(&[("hull-weight", "30")]).read("");
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
        let read = typed.read("");
        let said = |name| read.mistakes[name].as_str();
        assert!(said("hull-length").contains("3.76 m"));
        assert!(said("hull-beam").contains("between 0.4 and 1.5 m, not 9"));
        assert!(said("hull-construction").contains("“<raft>”"));
        assert!(said("hull-model").contains("give it a name"));
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

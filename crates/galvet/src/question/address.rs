//! The question as an address: `/?mass=88+kg&posture=stands&…`.
//!
//! Every state of the page is such an address. What is left out comes from the
//! saved question it starts from; what is not understood is reported at its
//! part of the sentence, and that part keeps the last good value meanwhile.
//!
//! An address carries its units: a bare number is SI whoever reads it, unless the
//! address says in which units it was typed (`units=imperial`): then it is given its
//! unit as it is read.

use super::answers::{Answer, Answers, NOTHING, NothingToAsk};
use super::file;
use super::part::{Kind, Part, PartId};
use super::parts::PARTS;
use galvet_core::base::{Bare, Bounds, Dimension, System};
use galvet_core::question::Brief;
use galvet_store::files::event::EventEntry;
use galvet_store::{Catalogue, SavedBrief};
use std::collections::BTreeMap;
use std::sync::Arc;

/// Name of the saved question an address starts from.
const START: &str = "brief";

/// Name of the units in which bare numbers were typed.
pub const UNITS: &str = "units";

/// The word for units in addresses and cookies.
#[must_use]
pub const fn units_key(system: System) -> &'static str {
    match system {
        System::Metric => "metric",
        System::Imperial => "imperial",
    }
}

/// The units a word names.
#[must_use]
pub fn units_from_key(key: &str) -> Option<System> {
    [System::Metric, System::Imperial]
        .into_iter()
        .find(|&s| units_key(s) == key)
}

/// The units in which an address was typed, where it says so.
pub fn units_said<'a>(query: impl Iterator<Item = (&'a str, String)>) -> Option<System> {
    query
        .filter(|(name, _)| *name == UNITS)
        .find_map(|(_, value)| units_from_key(&value))
}

/// The parts as typed; what the address does not say is not here.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Ask {
    /// Slug of the saved question it starts from.
    pub start: Option<String>,
    /// The units what is made of this address is shown in, and forms on it are filled in
    /// in; they travel along. `None` for an address of our own making.
    pub shown_in: Option<System>,
    typed: BTreeMap<&'static str, String>,
}

/// A question understood, with what was not.
#[derive(Debug, Clone)]
pub struct Asked {
    /// The question answered.
    pub brief: Brief,
    /// What was typed where it was not understood, and why.
    pub errors: BTreeMap<&'static str, Mistake>,
    /// Whether the weight was set rather than the water's own.
    pub own_weight: bool,
    /// Slug of the saved question it starts from.
    pub start: Option<String>,
}

/// Something typed that was not understood.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Mistake {
    /// As typed.
    pub typed: String,
    /// What would be accepted.
    pub problem: String,
}

impl Ask {
    /// A question that starts from a saved one.
    #[must_use]
    pub fn start_from(slug: String) -> Self {
        Self {
            start: Some(slug),
            ..Self::default()
        }
    }

    /// Reads the parts out of an address' names and values; other names are
    /// not its affair.
    pub fn of<'a>(query: impl Iterator<Item = (&'a str, String)>) -> Self {
        let query: Vec<(&str, String)> = query.collect();
        let units = units_said(query.iter().cloned());
        let mut out = Self::default();
        for (name, value) in query {
            if name == START {
                out.start = Some(value);
            } else if let Some(part) = PARTS.iter().find(|p| p.name == name) {
                out.typed.insert(part.name, with_unit(part, value, units));
            }
        }
        out
    }

    /// The same, shown in these units.
    #[must_use]
    pub fn shown_in(self, system: System) -> Self {
        Self {
            shown_in: Some(system),
            ..self
        }
    }

    /// The saved question it starts from, without what was changed since; `None`
    /// where nothing was.
    #[must_use]
    pub fn unchanged(&self) -> Option<Self> {
        (!self.typed.is_empty()).then(|| Self {
            start: self.start.clone(),
            shown_in: self.shown_in,
            typed: BTreeMap::new(),
        })
    }

    /// The same with another rig.
    #[must_use]
    pub fn with_rig(&self, key: &str) -> Self {
        let mut other = self.clone();
        other.typed.insert(PartId::Rig.part().name, key.to_owned());
        other
    }

    /// Names and values, as they stand in an address.
    pub fn pairs(&self) -> impl Iterator<Item = (&'static str, &str)> {
        let start = self.start.as_deref().map(|s| (START, s));
        let typed = PARTS
            .iter()
            .filter_map(|p| Some((p.name, self.typed.get(p.name)?.as_str())));
        let units = self.shown_in.map(|system| (UNITS, units_key(system)));
        start.into_iter().chain(typed).chain(units)
    }

    /// Makes a brief of it.
    ///
    /// # Errors
    /// [`NothingToAsk`] without any water.
    pub fn resolve(&self, catalogue: &Catalogue) -> Result<Asked, NothingToAsk> {
        let mut reader = Reader {
            catalogue,
            errors: BTreeMap::new(),
        };
        let mut answers = self.base(&mut reader);
        for part in &PARTS {
            if let Some(typed) = self.typed.get(part.name) {
                reader.take(part, typed, &mut answers);
            }
        }
        let mut brief = answers.brief(&catalogue.rigs, &catalogue.waters)?;
        if let Some(event) = &brief.event {
            let events = catalogue.sheets_of::<EventEntry>();
            let known = events
                .cloned()
                .map(EventEntry::rules)
                .find(|e| e.key == event.key);
            brief.event = known.map(Arc::new).or(brief.event);
        }
        Ok(Asked {
            own_weight: answers.get(PartId::Weight).is_some(),
            brief: brief.bringing(&catalogue.gear),
            errors: reader.errors,
            start: self.start.clone(),
        })
    }

    /// The answers of the saved question it starts from; without any, the usual.
    fn base(&self, reader: &mut Reader<'_>) -> Answers {
        let briefs = &reader.catalogue.briefs;
        // What a customer asked is nobody else's start.
        let own = |brief: &&SavedBrief| brief.customer.is_empty();
        let saved = match &self.start {
            Some(key) => {
                let found = briefs.iter().find(|b| &b.key == key);
                if found.is_none() {
                    let shown: String = key.chars().take(40).collect();
                    let problem = format!("there is no saved question “{shown}”");
                    reader.wrong(PartId::Rig.part(), key, problem);
                }
                found.or_else(|| briefs.iter().find(own))
            }
            None => briefs.iter().find(own),
        };
        saved
            .and_then(|saved| file::answers(&saved.question).ok())
            .unwrap_or_else(Answers::usual)
    }
}

/// What was typed for a part, with the unit it was meant in.
fn with_unit(part: &Part, typed: String, system: Option<System>) -> String {
    match part.kind {
        Kind::Quantity(bounds, _) | Kind::Limit(bounds, ..) => bounds.with_unit(&typed, system),
        Kind::Said(said) => {
            let mass = match system {
                Some(System::Imperial) => Bare::POUNDS,
                Some(System::Metric) | None => Bare::SI,
            };
            // What is not understood is told as it was typed, but for the unit it was
            // typed in: read in another it might be understood, as something else.
            (said.0)(&typed, mass).unwrap_or_else(|_| weighed(&typed, system))
        }
        Kind::Share(_) | Kind::Hull | Kind::Event | Kind::Words(_) | Kind::Named => typed,
    }
}

/// Words with the unit of a weight behind each bare number.
fn weighed(typed: &str, system: Option<System>) -> String {
    let unit = match system {
        Some(System::Imperial) => "lb",
        Some(System::Metric) | None => "kg",
    };
    let number = |word: &str| {
        let digits = word.trim_end_matches([',', ';']);
        !digits.is_empty()
            && digits.contains(|c: char| c.is_ascii_digit())
            && digits
                .chars()
                .all(|c| c.is_ascii_digit() || ".,'+-".contains(c))
    };
    let words: Vec<&str> = typed.split(' ').collect();
    let mut out: Vec<String> = Vec::with_capacity(words.len());
    for (i, word) in words.iter().enumerate() {
        let next = words[i + 1..].iter().find(|w| !w.is_empty());
        let bare = number(word) && next.is_none_or(|w| number(w) || w.len() > 3);
        let digits = word.trim_end_matches([',', ';']);
        out.push(if bare {
            format!("{digits} {unit}{}", &word[digits.len()..])
        } else {
            (*word).to_owned()
        });
    }
    out.join(" ")
}

struct Reader<'a> {
    catalogue: &'a Catalogue,
    errors: BTreeMap<&'static str, Mistake>,
}

impl Reader<'_> {
    fn wrong(&mut self, part: &Part, typed: &str, problem: String) {
        self.errors.insert(
            part.name,
            Mistake {
                typed: typed.chars().take(80).collect(),
                problem,
            },
        );
    }

    /// Takes what was typed for a part, or notes why not.
    fn take(&mut self, part: &Part, typed: &str, answers: &mut Answers) {
        let optional = matches!(
            part.kind,
            Kind::Limit(..) | Kind::Share(_) | Kind::Said(_) | Kind::Hull | Kind::Event
        );
        if optional && typed.trim().is_empty() {
            answers.set(part.id, None);
            return;
        }
        match self.answer(part, typed) {
            Ok(answer) => answers.set(part.id, Some(answer)),
            Err(problem) => self.wrong(part, typed, problem),
        }
    }

    fn answer(&self, part: &Part, typed: &str) -> Result<Answer, String> {
        let word = || Answer::Word(typed.to_owned());
        match part.kind {
            Kind::Quantity(bounds, _) | Kind::Limit(bounds, ..) => bounds
                .parse(typed, Bare::SI)
                .map(Answer::Number)
                .map_err(|e| e.to_string()),
            Kind::Share(_) => {
                /// The share as it is typed.
                const PERCENT: Bounds =
                    Bounds::new("the weight of capacity", Dimension::Ratio, 0.0, 100.0);
                let plain = typed.trim().trim_end_matches('%');
                PERCENT
                    .parse(plain, Bare::SI)
                    .map(|p| Answer::Number(p / 100.0))
                    .map_err(|e| e.to_string())
            }
            Kind::Event => {
                let mut events = self.catalogue.sheets_of::<EventEntry>();
                let shown: String = typed.chars().take(40).collect();
                events
                    .any(|e| e.key == typed)
                    .then(word)
                    .ok_or_else(|| format!("there is no event “{shown}”"))
            }
            Kind::Hull => {
                let mut hulls = self.catalogue.hulls.iter();
                let shown: String = typed.chars().take(40).collect();
                hulls
                    .any(|h| h.survey.key == typed)
                    .then(word)
                    .ok_or_else(|| format!("there is no hull “{shown}”"))
            }
            Kind::Said(said) => (said.0)(typed, Bare::SI).map(Answer::Word),
            Kind::Words(offered) => offered()
                .iter()
                .any(|o| o.key == typed)
                .then(word)
                .ok_or_else(|| "choose one of the answers offered".to_owned()),
            Kind::Named => {
                let there = match part.id {
                    PartId::Rig => {
                        let mut rigs = self.catalogue.rigs.iter();
                        typed == NOTHING || rigs.any(|r| r.key == typed)
                    }
                    _ => self.catalogue.waters.iter().any(|w| w.key == typed),
                };
                let shown: String = typed.chars().take(40).collect();
                there
                    .then(word)
                    .ok_or_else(|| format!("there is no {} “{shown}”", part.name))
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::demo_data;
    use galvet_core::crew::Posture;

    fn ask(pairs: &[(&'static str, &str)]) -> Ask {
        Ask::of(pairs.iter().map(|&(n, v)| (n, v.to_owned())))
    }

    fn asked(pairs: &[(&'static str, &str)]) -> Asked {
        ask(pairs)
            .resolve(&demo_data::catalogue().unwrap())
            .unwrap()
    }

    #[test]
    fn an_empty_address_asks_the_first_saved_question() {
        let asked = asked(&[]);
        assert_eq!(asked.brief.crew.mass(), 88.0);
        assert_eq!(asked.brief.water.key, "marsh");
        assert!(asked.errors.is_empty());
        assert!(!asked.own_weight);
    }

    #[test]
    fn parts_change_one_by_one_in_any_unit() {
        let parts = [
            ("mass", "200 lb"),
            ("stature", "6' 1\""),
            ("posture", "sits"),
            ("water", "coast"),
            ("weight", "70"),
            ("lift", "40"),
        ];
        let asked = asked(&parts);
        assert!(asked.errors.is_empty(), "{:?}", asked.errors);
        assert!((asked.brief.crew.mass() - 90.72).abs() < 0.01);
        assert!((asked.brief.crew.stature() - 1.854).abs() < 0.001);
        assert_eq!(asked.brief.posture, Posture::Sits);
        assert_eq!(asked.brief.capacity_weight, 0.7);
        assert_eq!(asked.brief.must.heaviest_lift, Some(40.0));
    }

    #[test]
    fn a_saved_weight_is_used_until_another_is_typed() {
        let mut demo = demo_data::catalogue().unwrap();
        demo.briefs[0].question["capacity_weight"] = 0.9.into();
        let by = |pairs: &[(&'static str, &str)]| {
            let asked = ask(pairs).resolve(&demo).unwrap();
            (asked.brief.capacity_weight, asked.own_weight)
        };
        assert_eq!(by(&[]), (0.9, true));
        assert_eq!(by(&[("weight", "30%")]), (0.3, true));
        // Emptied, it is the water's own again.
        let (weight, own) = by(&[("weight", "")]);
        assert!(!own && (weight - 0.4).abs() < 1e-9, "{weight}");
    }

    #[test]
    fn an_address_carries_its_units_whoever_reads_it() {
        let brief = |pairs: &[(&'static str, &str)]| asked(pairs).brief;
        // Bare numbers are SI, and stay it on links of a page in other units.
        let plain = ask(&[("mass", "90"), ("stature", "1.8")]).shown_in(System::Imperial);
        let link = Ask::of(plain.pairs().map(|(n, v)| (n, v.to_owned())));
        for ask in [plain, link] {
            let plain = ask.resolve(&demo_data::catalogue().unwrap()).unwrap().brief;
            assert_eq!((plain.crew.mass(), plain.crew.stature()), (90.0, 1.8));
        }
        // Or in the units the form was filled in in.
        let parts = [
            ("mass", "200"),
            ("stature", "6' 1\""),
            ("with", "dog 44"),
            ("risers", "2"),
            ("distance", "5"),
            ("units", "imperial"),
        ];
        let typed = brief(&parts);
        assert!((typed.crew.mass() - 90.718_474).abs() < 1e-6);
        assert!((typed.crew.stature() - 1.8542).abs() < 1e-9);
        assert!((typed.raised - 0.0508).abs() < 1e-9);
        assert!((typed.outing.distance.unwrap() - 8046.72).abs() < 1e-6);
        // Shown to a metric reader it is the same question.
        let link = ask(&parts).shown_in(System::Metric);
        let again = Ask::of(link.pairs().map(|(n, v)| (n, v.to_owned())));
        let again = again.resolve(&demo_data::catalogue().unwrap()).unwrap();
        assert_eq!(again.brief, typed);
    }

    #[test]
    fn what_is_not_understood_is_kept_and_named() {
        let parts = [
            ("mass", "a lot"),
            ("water", "moon"),
            ("posture", "flies"),
            ("weight", "140"),
        ];
        let asked = asked(&parts);
        assert_eq!(asked.errors.len(), 4);
        assert_eq!(asked.errors["mass"].typed, "a lot");
        assert!(asked.errors["water"].problem.contains("moon"));
        // The last good question stands meanwhile.
        assert_eq!(asked.brief.crew.mass(), 88.0);
    }

    #[test]
    fn an_address_survives_the_round_trip() {
        let first = ask(&[("mass", "88 kg"), ("water", "coast"), ("longest", "")]);
        let again = Ask::of(first.pairs().map(|(n, v)| (n, v.to_owned())));
        assert_eq!(again, first);
        assert_eq!(ask(&[("brief", "x"), ("other", "y")]).pairs().count(), 1);
    }
}

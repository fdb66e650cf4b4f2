//! A brief as an address: `/?mass=88+kg&posture=stands&…`.
//!
//! Every state of the page is such an address. What is left out comes from the
//! saved brief it starts from; what is not understood is reported at its part
//! of the sentence, and that part keeps the last good value meanwhile.

use galvet_core::brief::{Brief, Crew, MustHaves, Posture, Rig, Scuppers, SeatHeight};
use galvet_core::rank::schools::{CapacitySchool, StabilitySchool};
use galvet_core::units::{Bare, Bounds, Dimension, System};
use galvet_store::Catalogue;
use galvet_store::files::briefs;
use rocket::FromForm;
use rocket::http::uri::fmt::{Formatter, Query, UriDisplay};
use std::collections::BTreeMap;

/// The parts of a brief as typed; `None` where the address says nothing.
#[derive(Debug, Clone, Default, PartialEq, Eq, FromForm)]
pub(crate) struct Ask {
    pub(crate) brief: Option<String>,
    pub(crate) mass: Option<String>,
    pub(crate) stature: Option<String>,
    pub(crate) posture: Option<String>,
    pub(crate) rig: Option<String>,
    pub(crate) water: Option<String>,
    pub(crate) scuppers: Option<String>,
    pub(crate) seat: Option<String>,
    pub(crate) capacity: Option<String>,
    pub(crate) stability: Option<String>,
    pub(crate) weight: Option<String>,
    pub(crate) longest: Option<String>,
    pub(crate) lift: Option<String>,
    pub(crate) budget: Option<String>,
}

/// Part names, as in the address.
pub(crate) const MASS: &str = "mass";
pub(crate) const STATURE: &str = "stature";
pub(crate) const POSTURE: &str = "posture";
pub(crate) const RIG: &str = "rig";
pub(crate) const WATER: &str = "water";
pub(crate) const SCUPPERS: &str = "scuppers";
pub(crate) const SEAT: &str = "seat";
pub(crate) const CAPACITY: &str = "capacity";
pub(crate) const STABILITY: &str = "stability";
pub(crate) const WEIGHT: &str = "weight";
pub(crate) const LONGEST: &str = "longest";
pub(crate) const LIFT: &str = "lift";
pub(crate) const BUDGET: &str = "budget";

/// A brief understood, with what was not.
#[derive(Debug, Clone)]
pub(crate) struct Asked {
    /// The question answered.
    pub(crate) brief: Brief,
    /// What was typed where it was not understood, and why.
    pub(crate) errors: BTreeMap<&'static str, Mistake>,
    /// Whether the weight was set rather than the water's own.
    pub(crate) own_weight: bool,
}

/// Something typed that was not understood.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Mistake {
    /// As typed.
    pub(crate) typed: String,
    /// What would be accepted.
    pub(crate) problem: String,
}

/// Nothing to ask about: no waters or no rigs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct NothingToAsk;

/// Bounds of the weight in per cent.
const PERCENT: Bounds = Bounds::new("the weight of capacity", Dimension::Ratio, 0.0, 100.0);

impl Ask {
    /// Makes a brief of it.
    pub(crate) fn resolve(
        &self,
        catalogue: &Catalogue,
        system: System,
    ) -> Result<Asked, NothingToAsk> {
        let mut reader = Reader {
            system,
            errors: BTreeMap::new(),
        };
        let base = self.base(catalogue, &mut reader)?;
        let key = |k: &Option<String>| k.clone();
        let water = reader.named(
            WATER,
            key(&self.water),
            &catalogue.waters,
            |w| &w.key,
            &base.water,
        );
        let rig = reader.named(RIG, key(&self.rig), &catalogue.rigs, |r| &r.key, &base.rig);
        let posture = reader.choice(POSTURE, &self.posture, base.posture, Posture::from_key);
        let scuppers = reader.choice(SCUPPERS, &self.scuppers, base.scuppers, Scuppers::from_key);
        let seat = reader.choice(SEAT, &self.seat, base.seat, SeatHeight::from_key);
        let capacity_school = reader.choice(
            CAPACITY,
            &self.capacity,
            base.capacity_school,
            CapacitySchool::from_key,
        );
        let stability_school = reader.choice(
            STABILITY,
            &self.stability,
            base.stability_school,
            StabilitySchool::from_key,
        );
        let mass = reader.number(MASS, &self.mass, Crew::MASS, base.crew.mass());
        let stature = reader.number(STATURE, &self.stature, Crew::STATURE, base.crew.stature());
        let percent = reader.limit(WEIGHT, &self.weight, PERCENT, None);
        let must = MustHaves {
            longest: reader.limit(
                LONGEST,
                &self.longest,
                MustHaves::LONGEST,
                base.must.longest,
            ),
            heaviest_lift: reader.limit(LIFT, &self.lift, MustHaves::LIFT, base.must.heaviest_lift),
            budget: reader.limit(BUDGET, &self.budget, MustHaves::BUDGET, base.must.budget),
        };
        Ok(Asked {
            brief: Brief {
                // Both numbers have passed the same bounds already.
                crew: Crew::new(mass, stature).unwrap_or(base.crew),
                posture,
                rig,
                scuppers,
                seat,
                capacity_school,
                stability_school,
                capacity_weight: percent.map_or(water.capacity_weight, |p| p / 100.0),
                must,
                water,
            },
            errors: reader.errors,
            own_weight: percent.is_some(),
        })
    }

    /// The saved brief this one starts from; without any, a plain one.
    fn base(&self, catalogue: &Catalogue, reader: &mut Reader) -> Result<Brief, NothingToAsk> {
        let saved = match &self.brief {
            Some(key) => {
                let found = catalogue.briefs.iter().find(|b| &b.key == key);
                if found.is_none() {
                    reader.wrong(RIG, key, format!("there is no saved brief “{key}”"));
                }
                found.or(catalogue.briefs.first())
            }
            None => catalogue.briefs.first(),
        };
        let resolved = saved.and_then(|brief| {
            briefs::resolve(&brief.key, brief, &catalogue.rigs, &catalogue.waters).ok()
        });
        if let Some(brief) = resolved {
            return Ok(brief);
        }
        let water = catalogue.waters.first().ok_or(NothingToAsk)?.clone();
        Ok(Brief {
            crew: Crew::new(80.0, 1.78).map_err(|_| NothingToAsk)?,
            posture: Posture::Sits,
            rig: catalogue.rigs.first().cloned().unwrap_or(Rig {
                key: "none".to_owned(),
                name: "nothing".to_owned(),
                lines: Vec::new(),
            }),
            scuppers: Scuppers::Open,
            seat: SeatHeight::Low,
            capacity_weight: water.capacity_weight,
            capacity_school: CapacitySchool::default(),
            stability_school: StabilitySchool::default(),
            must: MustHaves::default(),
            water,
        })
    }
}

impl UriDisplay<Query> for Ask {
    fn fmt(&self, f: &mut Formatter<'_, Query>) -> std::fmt::Result {
        let parts = [
            ("brief", &self.brief),
            (MASS, &self.mass),
            (STATURE, &self.stature),
            (POSTURE, &self.posture),
            (RIG, &self.rig),
            (WATER, &self.water),
            (SCUPPERS, &self.scuppers),
            (SEAT, &self.seat),
            (CAPACITY, &self.capacity),
            (STABILITY, &self.stability),
            (WEIGHT, &self.weight),
            (LONGEST, &self.longest),
            (LIFT, &self.lift),
            (BUDGET, &self.budget),
        ];
        for (name, value) in parts {
            if let Some(value) = value {
                f.write_named_value(name, value.as_str())?;
            }
        }
        Ok(())
    }
}

struct Reader {
    system: System,
    errors: BTreeMap<&'static str, Mistake>,
}

impl Reader {
    fn wrong(&mut self, part: &'static str, typed: &str, problem: String) {
        self.errors.insert(
            part,
            Mistake {
                typed: typed.chars().take(80).collect(),
                problem,
            },
        );
    }

    fn named<T: Clone>(
        &mut self,
        part: &'static str,
        key: Option<String>,
        all: &[T],
        key_of: impl Fn(&T) -> &String,
        base: &T,
    ) -> T {
        let Some(key) = key else {
            return base.clone();
        };
        match all.iter().find(|t| *key_of(t) == key) {
            Some(found) => found.clone(),
            None => {
                let problem = format!(
                    "there is no {part} “{}”",
                    key.chars().take(40).collect::<String>()
                );
                self.wrong(part, &key, problem);
                base.clone()
            }
        }
    }

    fn choice<T>(
        &mut self,
        part: &'static str,
        typed: &Option<String>,
        base: T,
        from_key: impl Fn(&str) -> Option<T>,
    ) -> T {
        let Some(typed) = typed else { return base };
        match from_key(typed) {
            Some(value) => value,
            None => {
                let problem = "choose one of the answers offered".to_owned();
                self.wrong(part, typed, problem);
                base
            }
        }
    }

    fn number(
        &mut self,
        part: &'static str,
        typed: &Option<String>,
        bounds: Bounds,
        base: f64,
    ) -> f64 {
        let Some(typed) = typed else { return base };
        match bounds.parse(typed, self.bare(bounds.dimension)) {
            Ok(value) => value,
            Err(error) => {
                self.wrong(part, typed, error.to_string());
                base
            }
        }
    }

    /// A limit: an empty field means none.
    fn limit(
        &mut self,
        part: &'static str,
        typed: &Option<String>,
        bounds: Bounds,
        base: Option<f64>,
    ) -> Option<f64> {
        match typed.as_deref().map(str::trim) {
            None => base,
            Some("") => None,
            Some(text) => match bounds.parse(text, self.bare(bounds.dimension)) {
                Ok(value) => Some(value),
                Err(error) => {
                    self.wrong(part, text, error.to_string());
                    base
                }
            },
        }
    }

    /// What a number without a unit means to this reader.
    fn bare(&self, dimension: Dimension) -> Bare {
        match (self.system, dimension) {
            (System::Imperial, Dimension::Mass) => Bare::POUNDS,
            (System::Imperial, Dimension::Length) => Bare::FEET,
            _ => Bare::SI,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::demo_data;

    fn from_query(query: &str) -> Ask {
        use rocket::form::{FromForm, Options, ValueField};
        let address = format!("/?{query}");
        let origin = rocket::http::uri::Origin::parse(&address).unwrap();
        let mut context = Ask::init(Options::Lenient);
        for field in origin.query().unwrap().segments() {
            Ask::push_value(&mut context, ValueField::from(field));
        }
        Ask::finalize(context).unwrap()
    }

    fn asked(query: &str, system: System) -> Asked {
        from_query(query)
            .resolve(&demo_data::catalogue().unwrap(), system)
            .unwrap()
    }

    #[test]
    fn an_empty_address_asks_the_first_saved_brief() {
        let asked = asked("", System::Metric);
        assert_eq!(asked.brief.crew.mass(), 88.0);
        assert_eq!(asked.brief.water.key, "marsh");
        assert!(asked.errors.is_empty());
        assert!(!asked.own_weight);
    }

    #[test]
    fn parts_change_one_by_one_in_any_unit() {
        let asked = asked(
            "mass=200+lb&stature=6%27+1%22&posture=sits&water=coast&weight=70&lift=40",
            System::Metric,
        );
        assert!(asked.errors.is_empty(), "{:?}", asked.errors);
        assert!((asked.brief.crew.mass() - 90.72).abs() < 0.01);
        assert!((asked.brief.crew.stature() - 1.854).abs() < 0.001);
        assert_eq!(asked.brief.posture, Posture::Sits);
        assert_eq!(asked.brief.capacity_weight, 0.7);
        assert_eq!(asked.brief.must.heaviest_lift, Some(40.0));
    }

    #[test]
    fn a_bare_number_is_in_the_readers_units() {
        assert!((asked("mass=200", System::Imperial).brief.crew.mass() - 90.72).abs() < 0.01);
        assert_eq!(asked("mass=200", System::Metric).brief.crew.mass(), 200.0);
    }

    #[test]
    fn what_is_not_understood_is_kept_and_named() {
        let asked = asked(
            "mass=a+lot&water=moon&posture=flies&weight=140",
            System::Metric,
        );
        assert_eq!(asked.errors.len(), 4);
        assert_eq!(asked.errors[MASS].typed, "a lot");
        assert!(asked.errors[WATER].problem.contains("moon"));
        // The last good question stands meanwhile.
        assert_eq!(asked.brief.crew.mass(), 88.0);
    }

    #[test]
    fn an_address_survives_the_round_trip() {
        let ask = from_query("mass=88%20kg&water=coast&longest=");
        let shown = format!("{}", &ask as &dyn UriDisplay<Query>);
        assert_eq!(from_query(&shown), ask);
    }
}

//! A thing on the shelf, and its form.

mod on_water;

use super::Kept;
use crate::form::{
    Draft, Field, Group, Mistakes, Table, choice, count, line, maybe_choice, name, note, number,
    percent, tick, typed_number, words,
};
use galvet_core::base::{Bounds, Dimension, System};
use galvet_core::gear::{Category, Chemistry, Electric, Fixing, Gear};
use galvet_store::{Kind, Record};

/// Longest note.
const NOTE: usize = 10_000;
/// Most holes, tubes and leashes of a thing.
const MOST: u16 = 50;
/// Three lengths that stand together.
type Sides = [Option<f64>; 3];

/// A thing as its form takes it apart: what stands together in it, or not at all.
#[derive(Clone)]
pub(crate) struct ThingDraft {
    gear: Gear,
    /// `None` where it is the same as packed.
    loaded: Option<f64>,
    size: Sides,
    inside: Sides,
    adapts: (String, String),
    floats: Floats,
    watts: Option<f64>,
    duty: Option<f64>,
    at_volts: Option<f64>,
    volts: Option<f64>,
    amp_hours: Option<f64>,
    chemistry: Option<Chemistry>,
}

impl Draft for ThingDraft {
    type Record = Gear;

    fn of(gear: &Gear) -> Self {
        let sides = |sides: Option<[f64; 3]>| sides.map_or([None; 3], |s| s.map(Some));
        let mut draft = Self {
            loaded: (!gear.loaded_mass.total_cmp(&gear.dry_mass).is_eq())
                .then_some(gear.loaded_mass),
            size: sides(gear.size),
            inside: sides(gear.brings.inside),
            adapts: gear.brings.adapts.clone().unwrap_or_default(),
            floats: on_water::apart(&gear.on_water),
            gear: gear.clone(),
            watts: None,
            duty: None,
            at_volts: None,
            volts: None,
            amp_hours: None,
            chemistry: None,
        };
        match gear.electric {
            Electric::None => {}
            Electric::Draw { watts, duty, volts } => {
                draft.watts = Some(watts);
                draft.duty = Some(duty);
                draft.at_volts = volts;
            }
            Electric::Battery {
                volts,
                amp_hours,
                chemistry,
            } => {
                draft.volts = Some(volts);
                draft.amp_hours = Some(amp_hours);
                draft.chemistry = Some(chemistry);
            }
        }
        draft
    }

    fn made(self) -> Result<Gear, Mistakes> {
        let mut mistakes = Mistakes::new();
        let mut gear = self.gear.clone();
        // What weighs the same with water in it goes on doing so.
        gear.loaded_mass = self.loaded.unwrap_or(gear.dry_mass);
        gear.size = together(self.size, ["length", "width", "height"], &mut mistakes);
        let inside = ["inside-length", "inside-width", "inside-height"];
        gear.brings.inside = together(self.inside, inside, &mut mistakes);
        gear.electric = self.electric(&mut mistakes);
        gear.on_water.outriggers = on_water::outriggers(self.floats, &mut mistakes);
        let (on, offers) = self.adapts;
        if on.is_empty() != offers.is_empty() {
            let field = if on.is_empty() {
                "adapts-on"
            } else {
                "adapts-to"
            };
            let both = "an adapter has both: what it sits on, and what it offers";
            mistakes.insert(field.to_owned(), both.to_owned());
        }
        gear.brings.adapts = (!on.is_empty()).then_some((on, offers));
        if !mistakes.is_empty() {
            return Err(mistakes);
        }
        let refused = |error: galvet_core::base::OutOfRange| error.to_string();
        gear.check()
            .map_err(|error| [(String::new(), refused(error))].into())
    }
}

/// A figure that others ask for.
fn needed(
    figure: Option<f64>,
    field: &str,
    bounds: Bounds,
    mistakes: &mut Mistakes,
) -> Option<f64> {
    if figure.is_none() {
        let asked = typed_number("", bounds, System::Metric);
        mistakes.insert(field.to_owned(), asked.err().unwrap_or_default());
    }
    figure
}

/// Three lengths: all or none.
fn together(sides: Sides, fields: [&str; 3], mistakes: &mut Mistakes) -> Option<[f64; 3]> {
    if sides.iter().all(Option::is_none) {
        return None;
    }
    let mut side = |n: usize| needed(sides[n], fields[n], Gear::SIZE, mistakes);
    let [long, wide, high] = [side(0), side(1), side(2)];
    Some([long?, wide?, high?])
}

impl ThingDraft {
    fn electric(&self, mistakes: &mut Mistakes) -> Electric {
        // What goes with a figure that was emptied goes with it; typed without it, it is
        // asked for.
        let drew = matches!(self.gear.electric, Electric::Draw { .. });
        let gave = matches!(self.gear.electric, Electric::Battery { .. });
        let battery =
            self.volts.is_some() || self.amp_hours.is_some() || self.chemistry.is_some() && !gave;
        let draws =
            self.watts.is_some() || (self.duty.is_some() || self.at_volts.is_some()) && !drew;
        if draws && !battery {
            needed(self.watts, "watts", Gear::WATTS, mistakes);
        }
        if let Some(watts) = self.watts {
            if battery {
                let both = "a thing draws or is a battery, not both".to_owned();
                mistakes.insert("watts".to_owned(), both);
            }
            return Electric::Draw {
                watts,
                duty: self.duty.unwrap_or(1.0),
                volts: self.at_volts,
            };
        }
        if !battery {
            return Electric::None;
        }
        let volts = needed(self.volts, "volts", Gear::VOLTS, mistakes);
        let amp_hours = needed(self.amp_hours, "amp-hours", Gear::AMP_HOURS, mistakes);
        let (Some(volts), Some(amp_hours)) = (volts, amp_hours) else {
            return Electric::None;
        };
        Electric::Battery {
            volts,
            amp_hours,
            // What nobody said is not taken for the best.
            chemistry: self.chemistry.unwrap_or(Chemistry::Other),
        }
    }
}

impl Kept for ThingDraft {
    const KIND: Kind = Kind::Gear;
    const WORD: &'static str = "thing";

    fn usual() -> Gear {
        // What it weighs must be typed; what nobody said of it sinks.
        Gear {
            fixings: vec![Fixing::Strap, Fixing::Loose],
            ..Gear::plain("", "", Category::Other, f64::NAN, None)
        }
    }

    fn form() -> Table<Self> {
        Table(vec![
            what_it_is(),
            more_of_it(),
            how_it_lies(),
            what_it_brings(),
            on_water::group(),
            electricity(),
        ])
    }

    fn of_record(record: &Record) -> Option<Gear> {
        match record {
            Record::Gear(gear) => Some(gear.as_ref().clone()),
            _ => None,
        }
    }

    fn record(gear: Gear) -> Record {
        Record::Gear(Box::new(gear))
    }

    fn called(gear: &mut Gear) -> (&mut String, &str) {
        (&mut gear.key, &gear.name)
    }
}

type D = ThingDraft;
/// Length, diameter, reach and height over the water of a pair of floats.
type Floats = [Option<f64>; 4];

fn length(name: &str, label: &str, at: fn(&mut D) -> &mut Option<f64>) -> Field<D> {
    number(name, label, Gear::SIZE, at)
}

fn what_it_is() -> Group<D> {
    Group {
        title: "What it is",
        hint: "",
        folded: false,
        fields: vec![
            name("name", "called", |d: &mut D| &mut d.gear.name).hint("a generic name"),
            number("dry", "weighs, packed at home", Gear::MASS, |d: &mut D| {
                &mut d.gear.dry_mass
            }),
            length("length", "long", |d| &mut d.size[0]),
            length("width", "wide", |d| &mut d.size[1]),
            length("height", "high", |d| &mut d.size[2]),
            choice("category", "it is for", |d: &mut D| &mut d.gear.category),
        ],
    }
}

fn more_of_it() -> Group<D> {
    Group {
        title: "Load, price, and when it comes off",
        hint: "",
        folded: true,
        fields: vec![
            number(
                "loaded",
                "with ice, water or fish",
                Gear::MASS,
                |d: &mut D| &mut d.loaded,
            )
            .hint("empty: the same"),
            length("centre", "its centre above its foot", |d| {
                &mut d.gear.centre_height
            })
            .hint("empty: half its height"),
            number("price", "costs", Gear::PRICE, |d: &mut D| &mut d.gear.price),
            number(
                "minutes",
                "minutes to set up",
                Gear::MINUTES,
                |d: &mut D| &mut d.gear.setup_minutes,
            ),
            note("note", "note", NOTE, |d: &mut D| &mut d.gear.note),
            tick("owned", "owned, not only wanted", |d: &mut D| {
                &mut d.gear.owned
            }),
            tick("comes-off", "comes off for the road", |d: &mut D| {
                &mut d.gear.comes_off
            }),
            tick("strip", "comes off for the surf", |d: &mut D| {
                &mut d.gear.strip_for_surf
            }),
        ],
    }
}

fn how_it_lies() -> Group<D> {
    Group {
        title: "How it lies and is held",
        hint: "",
        folded: true,
        fields: vec![
            words("fixings", "held by, best first", |d: &mut D| {
                &mut d.gear.fixings
            })
            .hint("worn, holder, insert, track, plate, strap, glue, drill, loose"),
            words("serves", "serves as", |d: &mut D| &mut d.gear.serves)
                .hint("where lists and event rules ask: whistle, knife, foam-aid, rod, radio …"),
            line("mount", "mount it needs", |d: &mut D| &mut d.gear.mount)
                .hint("slot, thread or hole pattern; empty: any"),
            count(
                "holes",
                "holes where it is bolted",
                (0, MOST, false),
                |d: &mut D| &mut d.gear.holes,
            ),
            words("zones", "likes to lie in, best first", |d: &mut D| {
                &mut d.gear.zones
            })
            .hint("tank-well, bow-hatch, side-pocket …"),
            choice("strain", "puts on its fixing", |d: &mut D| {
                &mut d.gear.strain
            }),
            maybe_choice("reach", "must be reached", "need not be", |d: &mut D| {
                &mut d.gear.needs.reach
            }),
            maybe_choice("dryness", "must lie", "wet or dry", |d: &mut D| {
                &mut d.gear.needs.dry
            }),
            choice("tether", "when it goes over it", |d: &mut D| {
                &mut d.gear.tether
            }),
            tick("soft", "soft: gives where it is pressed", |d: &mut D| {
                &mut d.gear.soft
            }),
            tick("upright", "must stand upright", |d: &mut D| {
                &mut d.gear.needs.upright
            }),
            tick("clear-above", "nothing over it", |d: &mut D| {
                &mut d.gear.needs.clear_above
            }),
            tick("view-ahead", "must see ahead", |d: &mut D| {
                &mut d.gear.needs.view_ahead
            }),
            tick("in-the-water", "hangs in the water", |d: &mut D| {
                &mut d.gear.needs.in_the_water
            }),
        ],
    }
}

fn what_it_brings() -> Group<D> {
    Group {
        title: "What it brings for others",
        hint: "a container's inside; tubes that take a rod, net or pole each; an adapter's two mounts",
        folded: true,
        fields: vec![
            length("inside-length", "inside, long", |d| &mut d.inside[0]),
            length("inside-width", "inside, wide", |d| &mut d.inside[1]),
            length("inside-height", "inside, high", |d| &mut d.inside[2]),
            count("tubes", "tubes", (0, MOST, false), |d: &mut D| {
                &mut d.gear.brings.tubes
            }),
            length("fish", "longest fish it takes", |d| &mut d.gear.brings.fish),
            count(
                "tethers",
                "a leash: ties so many things",
                (0, MOST, false),
                |d: &mut D| &mut d.gear.brings.tethers,
            ),
            line("adapts-on", "adapter: sits on", |d: &mut D| &mut d.adapts.0),
            line("adapts-to", "adapter: offers", |d: &mut D| &mut d.adapts.1),
            maybe_choice("keeps", "keeps what is in it", "not dry", |d: &mut D| {
                &mut d.gear.brings.keeps
            }),
            tick("lid", "others may sit on its lid", |d: &mut D| {
                &mut d.gear.brings.lid
            }),
            tick("helps-up", "one pulls oneself up by it", |d: &mut D| {
                &mut d.gear.brings.helps_up
            }),
        ],
    }
}

fn electricity() -> Group<D> {
    /// Shares as they are typed.
    const DUTY: Bounds = Bounds::new("share of the time, %", Dimension::Ratio, 0.0, 1.0);
    Group {
        title: "Electricity",
        hint: "what it draws, or what it gives; not both",
        folded: true,
        fields: vec![
            number("watts", "draws, W", Gear::WATTS, |d: &mut D| &mut d.watts),
            percent("duty", "share of the time, %", DUTY, |d: &mut D| {
                &mut d.duty
            }),
            number(
                "at-volts",
                "must be fed with, V",
                Gear::VOLTS,
                |d: &mut D| &mut d.at_volts,
            ),
            number("volts", "battery, V", Gear::VOLTS, |d: &mut D| &mut d.volts).hint("as printed"),
            number("amp-hours", "battery, Ah", Gear::AMP_HOURS, |d: &mut D| {
                &mut d.amp_hours
            })
            .hint("as printed"),
            maybe_choice("chemistry", "what is in it", "not said", |d: &mut D| {
                &mut d.chemistry
            }),
        ],
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::{Sent, Takes};

    #[test]
    fn every_thing_of_the_demo_is_taken_apart_and_put_together_again() {
        for gear in crate::demo_data::catalogue().unwrap().gear {
            let apart = ThingDraft::of(&gear);
            assert_eq!(apart.made().unwrap(), gear);
            for system in [System::Metric, System::Imperial] {
                // Typed anew as a new one it shows the same.
                let table = ThingDraft::form();
                let shown = table.shown(&ThingDraft::of(&gear), system);
                let usual = ThingDraft::usual();
                let mut fields = shown.fields();
                for field in table.0.iter().flat_map(|group| &group.fields) {
                    let emptied = field.takes != Takes::Tick;
                    if emptied && shown.text(&field.name).is_empty() {
                        fields.insert(field.name.clone(), String::new());
                    }
                }
                let back = table.make(&usual, &fields, system).unwrap();
                assert_eq!(table.shown(&ThingDraft::of(&back), system), shown);
                assert_eq!(
                    (back.category, &back.fixings, &back.zones, &back.needs),
                    (gear.category, &gear.fixings, &gear.zones, &gear.needs)
                );
            }
        }
    }

    #[test]
    fn what_is_wrong_is_named_at_its_field() {
        let told = |pairs: &[(&str, &str)]| {
            let form: Sent = pairs
                .iter()
                .map(|&(n, v)| (n.to_owned(), v.to_owned()))
                .collect();
            let made = ThingDraft::form().make(&ThingDraft::usual(), &form, System::Metric);
            made.unwrap_err().0
        };
        let all = told(&[
            ("dry", "a lot"),
            ("length", "40"),
            ("fixings", "strap, magnet"),
        ]);
        let names: Vec<&str> = all.keys().map(String::as_str).collect();
        assert_eq!(names, ["dry", "fixings", "height", "name", "width"]);
        assert!(all["fixings"].contains("“magnet” is none of them; accepted: worn, holder"));
        let half = told(&[("name", "a"), ("dry", "1"), ("length", "40")]);
        let names: Vec<&str> = half.keys().map(String::as_str).collect();
        assert_eq!(names, ["height", "width"]);
        let both = told(&[
            ("name", "a"),
            ("dry", "1"),
            ("watts", "10"),
            ("volts", "12"),
        ]);
        assert!(both["watts"].contains("not both"));
        // Nothing that was typed is dropped without a word.
        let part = told(&[("name", "a"), ("dry", "1"), ("duty", "50")]);
        assert!(part.contains_key("watts"), "{part:?}");
        let part = told(&[("name", "a"), ("dry", "1"), ("chemistry", "lead")]);
        assert_eq!(part.keys().collect::<Vec<_>>(), ["amp-hours", "volts"]);
        let mut gear = ThingDraft::usual();
        gear.dry_mass = 1.0;
        gear.loaded_mass = 1.0;
        gear.electric = Electric::Draw {
            watts: 9.0,
            duty: 0.5,
            volts: Some(12.0),
        };
        let off: Sent = [("watts".to_owned(), String::new())].into();
        let done = ThingDraft::form().put(&mut gear, &off, System::Metric);
        assert_eq!((done, gear.electric), (Ok(()), Electric::None));
        let part = told(&[("name", "a"), ("dry", "1"), ("adapts-on", "T-slot")]);
        assert!(part.contains_key("adapts-to"), "{part:?}");
        let light = told(&[("name", "a"), ("dry", "3"), ("loaded", "2")]);
        assert!(light[""].contains("loaded mass"), "{light:?}");
    }
}

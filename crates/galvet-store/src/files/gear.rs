//! The shelf as JSON: things that can be carried.

use super::{FileError, check_key, keyed, read_json, refused, sound};
use galvet_core::gear::{
    Brings, Category, Chemistry, Electric, Fixing, Gear, Needs, OnWater, Outriggers, Serves,
    Strain, Tether,
};
use galvet_core::hull::{Dryness, Reach, ZoneKind};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct GearFile {
    gear: Vec<GearEntry>,
}

/// One thing on the shelf.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct GearEntry {
    /// Stable key.
    pub key: String,
    name: String,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Category>")]
    category: Category,
    dry_mass_kg: f64,
    /// The dry mass when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    loaded_mass_kg: Option<f64>,
    /// Length, width, height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    size_m: Option<[f64; 3]>,
    /// Whether it gives where it is pressed.
    #[serde(default, skip_serializing_if = "is_not")]
    soft: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    centre_height_m: Option<f64>,
    #[serde(with = "keyed::list", default)]
    #[schemars(with = "Vec<keyed::Word<Fixing>>")]
    fixings: Vec<Fixing>,
    #[serde(default)]
    holes: u16,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    mount: String,
    #[serde(with = "keyed::list", default)]
    #[schemars(with = "Vec<keyed::Word<ZoneKind>>")]
    zones: Vec<ZoneKind>,
    #[serde(default)]
    needs: NeedsEntry,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Tether>")]
    tether: Tether,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    draws: Option<Draw>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    battery: Option<Battery>,
    /// What it puts on its fixing; its own weight when left out.
    #[serde(with = "keyed::one", default = "light")]
    #[schemars(with = "keyed::Word<Strain>")]
    strain: Strain,
    #[serde(default, skip_serializing_if = "BringsEntry::is_nothing")]
    brings: BringsEntry,
    #[serde(default, skip_serializing_if = "OnWaterEntry::is_nothing")]
    on_water: OnWaterEntry,
    /// What it serves as, where lists and rules ask.
    #[serde(with = "keyed::list", default, skip_serializing_if = "Vec::is_empty")]
    #[schemars(with = "Vec<keyed::Word<Serves>>")]
    serves: Vec<Serves>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    setup_minutes: Option<f64>,
    #[serde(default)]
    comes_off: bool,
    #[serde(default)]
    strip_for_surf: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    price: Option<f64>,
    #[serde(default = "yes")]
    owned: bool,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    note: String,
}

#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
struct NeedsEntry {
    #[serde(with = "keyed::maybe", skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<keyed::Word<Reach>>")]
    reach: Option<Reach>,
    #[serde(with = "keyed::maybe", skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<keyed::Word<Dryness>>")]
    dry: Option<Dryness>,
    upright: bool,
    clear_above: bool,
    view_ahead: bool,
    in_the_water: bool,
}

/// What it brings for others.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
struct BringsEntry {
    /// Length, width, height of a container's inside.
    #[serde(skip_serializing_if = "Option::is_none")]
    inside_m: Option<[f64; 3]>,
    /// Tubes that each take one rod, net or pole upright.
    #[serde(skip_serializing_if = "is_nought")]
    tubes: u16,
    /// Whether others may sit on its lid.
    #[serde(skip_serializing_if = "is_not")]
    lid: bool,
    /// How dry it keeps what is in it.
    #[serde(with = "keyed::maybe", skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<keyed::Word<Dryness>>")]
    keeps_dry: Option<Dryness>,
    /// The mount an adapter sits on, and the one it offers.
    #[serde(skip_serializing_if = "Option::is_none")]
    adapts: Option<[String; 2]>,
    /// Length of the longest fish it takes.
    #[serde(skip_serializing_if = "Option::is_none")]
    fish_m: Option<f64>,
    /// A leash: how many things it ties to it.
    #[serde(skip_serializing_if = "is_nought")]
    tethers: u16,
    /// Whether one pulls oneself up by it.
    #[serde(skip_serializing_if = "is_not")]
    helps_up: bool,
}

impl BringsEntry {
    fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    fn of(brings: &Brings) -> Self {
        let adapts = brings.adapts.clone();
        Self {
            inside_m: brings.inside,
            tubes: brings.tubes,
            lid: brings.lid,
            keeps_dry: brings.keeps,
            adapts: adapts.map(|(on, offers)| [on, offers]),
            fish_m: brings.fish,
            tethers: brings.tethers,
            helps_up: brings.helps_up,
        }
    }

    fn brings(self) -> Brings {
        Brings {
            inside: self.inside_m,
            tubes: self.tubes,
            lid: self.lid,
            keeps: self.keeps_dry,
            adapts: self.adapts.map(|[on, offers]| (on, offers)),
            fish: self.fish_m,
            tethers: self.tethers,
            helps_up: self.helps_up,
        }
    }
}

/// A pair of floats on arms.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct OutriggersEntry {
    length_m: f64,
    diameter_m: f64,
    /// From the boat's middle to the axis of one.
    reach_m: f64,
    /// Height of the underside over the water, the boat loaded and at rest.
    clear_m: f64,
}

/// What it does on the water.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
struct OnWaterEntry {
    #[serde(skip_serializing_if = "Option::is_none")]
    outriggers: Option<OutriggersEntry>,
    /// Air it keeps inside the hull: a bag, foam.
    #[serde(skip_serializing_if = "Option::is_none")]
    buoyancy_m3: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    pumps_litres_per_minute: Option<f64>,
    /// Drag area of what is towed alongside.
    #[serde(skip_serializing_if = "Option::is_none")]
    towed_drag_m2: Option<f64>,
    /// Drag area of a sock let out to drift slower.
    #[serde(skip_serializing_if = "Option::is_none")]
    sock_drag_m2: Option<f64>,
    #[serde(skip_serializing_if = "is_not")]
    spray_deck: bool,
}

impl OnWaterEntry {
    fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    fn of(does: &OnWater) -> Self {
        Self {
            outriggers: does.outriggers.map(|o| OutriggersEntry {
                length_m: o.length,
                diameter_m: o.diameter,
                reach_m: o.reach,
                clear_m: o.clear,
            }),
            buoyancy_m3: does.buoyancy,
            pumps_litres_per_minute: does.pumps,
            towed_drag_m2: does.towed,
            sock_drag_m2: does.sock,
            spray_deck: does.spray_deck,
        }
    }

    fn on_water(self) -> OnWater {
        OnWater {
            outriggers: self.outriggers.map(|o| Outriggers {
                length: o.length_m,
                diameter: o.diameter_m,
                reach: o.reach_m,
                clear: o.clear_m,
            }),
            buoyancy: self.buoyancy_m3,
            pumps: self.pumps_litres_per_minute,
            towed: self.towed_drag_m2,
            sock: self.sock_drag_m2,
            spray_deck: self.spray_deck,
        }
    }
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde asks so")]
const fn is_nought(n: &u16) -> bool {
    *n == 0
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde asks so")]
const fn is_not(is: &bool) -> bool {
    !*is
}

const fn light() -> Strain {
    Strain::Light
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct Draw {
    watts: f64,
    /// Share of the day it is on; all of it when left out.
    #[serde(default = "always")]
    duty: f64,
    /// What it must be fed with; not known when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    volts: Option<f64>,
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct Battery {
    volts: f64,
    amp_hours: f64,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Chemistry>")]
    chemistry: Chemistry,
}

const fn yes() -> bool {
    true
}

const fn always() -> f64 {
    1.0
}

impl GearEntry {
    /// The entry of a thing.
    #[must_use]
    pub fn of(g: &Gear) -> Self {
        let (draws, battery) = match g.electric {
            Electric::None => (None, None),
            Electric::Draw { watts, duty, volts } => (Some(Draw { watts, duty, volts }), None),
            Electric::Battery {
                volts,
                amp_hours,
                chemistry,
            } => {
                let battery = Battery {
                    volts,
                    amp_hours,
                    chemistry,
                };
                (None, Some(battery))
            }
        };
        Self {
            key: g.key.clone(),
            name: g.name.clone(),
            category: g.category,
            dry_mass_kg: g.dry_mass,
            loaded_mass_kg: Some(g.loaded_mass),
            size_m: g.size,
            soft: g.soft,
            centre_height_m: g.centre_height,
            fixings: g.fixings.clone(),
            holes: g.holes,
            mount: g.mount.clone(),
            zones: g.zones.clone(),
            needs: NeedsEntry {
                reach: g.needs.reach,
                dry: g.needs.dry,
                upright: g.needs.upright,
                clear_above: g.needs.clear_above,
                view_ahead: g.needs.view_ahead,
                in_the_water: g.needs.in_the_water,
            },
            tether: g.tether,
            draws,
            battery,
            strain: g.strain,
            brings: BringsEntry::of(&g.brings),
            on_water: OnWaterEntry::of(&g.on_water),
            serves: g.serves.clone(),
            setup_minutes: g.setup_minutes,
            comes_off: g.comes_off,
            strip_for_surf: g.strip_for_surf,
            price: g.price,
            owned: g.owned,
            note: g.note.clone(),
        }
    }

    /// The checked thing of an entry.
    ///
    /// # Errors
    /// [`FileError`] naming the thing and what would be accepted.
    pub fn gear(self, file: &str) -> Result<Gear, FileError> {
        let whole = |problem: String| FileError::whole(file, problem);
        check_key(&self.key).map_err(whole)?;
        let key = self.key.clone();
        let electric = match (self.draws, self.battery) {
            (Some(_), Some(_)) => {
                return Err(whole(format!(
                    "{key}: a thing draws or is a battery, not both"
                )));
            }
            (Some(Draw { watts, duty, volts }), None) => Electric::Draw { watts, duty, volts },
            (None, Some(b)) => Electric::Battery {
                volts: b.volts,
                amp_hours: b.amp_hours,
                chemistry: b.chemistry,
            },
            (None, None) => Electric::None,
        };
        Gear {
            key: self.key,
            name: self.name,
            category: self.category,
            dry_mass: self.dry_mass_kg,
            loaded_mass: self.loaded_mass_kg.unwrap_or(self.dry_mass_kg),
            size: self.size_m,
            soft: self.soft,
            centre_height: self.centre_height_m,
            fixings: self.fixings,
            holes: self.holes,
            mount: self.mount,
            zones: self.zones,
            needs: Needs {
                reach: self.needs.reach,
                dry: self.needs.dry,
                upright: self.needs.upright,
                clear_above: self.needs.clear_above,
                view_ahead: self.needs.view_ahead,
                in_the_water: self.needs.in_the_water,
            },
            tether: self.tether,
            electric,
            strain: self.strain,
            brings: self.brings.brings(),
            on_water: self.on_water.on_water(),
            serves: self.serves,
            setup_minutes: self.setup_minutes,
            comes_off: self.comes_off,
            strip_for_surf: self.strip_for_surf,
            price: self.price,
            owned: self.owned,
            note: self.note,
        }
        .check()
        .map_err(|error| refused(file, &key, error))
    }
}

/// Reads the shelf.
///
/// # Errors
/// [`FileError`] naming the thing and what would be accepted.
pub fn read(file: &str, text: &str) -> Result<Vec<Gear>, FileError> {
    let parsed: GearFile = read_json(file, text)?;
    parsed
        .gear
        .into_iter()
        .map(|entry| {
            let gear = entry.gear(file)?;
            sound::thing(&gear).map_err(|problem| FileError::whole(file, problem))?;
            Ok(gear)
        })
        .collect()
}

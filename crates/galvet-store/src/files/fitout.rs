//! A hull's space as JSON: zones, fittings, modifications, configurations.
//!
//! The shapes mirror the core's types, which know nothing of files; a field
//! added there does not compile here until it has its name.

use super::keyed;
use galvet_core::hull::{
    Configuration, Dryness, Facing, Fitout, Fitting, FittingKind, Modification, Opening, Progress,
    Propulsion, Reach, Recess, ScupperState, SeatSetting, SeatUsed, Source, Zone, ZoneKind,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A hull's space.
#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct FitoutDoc {
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(crate) zones: Vec<ZoneDoc>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(crate) fittings: Vec<FittingDoc>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(crate) modifications: Vec<ModificationDoc>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(crate) configurations: Vec<ConfigurationDoc>,
}

/// A zone as JSON.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(transparent)]
pub(crate) struct ZoneDoc(
    #[serde(with = "ZoneShape")]
    #[schemars(with = "ZoneShape")]
    pub(crate) Zone,
);

/// A fitting as JSON.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(transparent)]
pub(crate) struct FittingDoc(
    #[serde(with = "FittingShape")]
    #[schemars(with = "FittingShape")]
    pub(crate) Fitting,
);

/// A configuration as JSON.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(transparent)]
pub(crate) struct ConfigurationDoc(
    #[serde(with = "ConfigurationShape")]
    #[schemars(with = "ConfigurationShape")]
    pub(crate) Configuration,
);

#[derive(Serialize, Deserialize, JsonSchema)]
#[serde(remote = "Opening", rename_all = "snake_case")]
enum OpeningShape {
    #[serde(rename = "round_m")]
    Round(f64),
    #[serde(rename = "rectangle_m")]
    Rectangle(f64, f64),
}

#[derive(Serialize, Deserialize, JsonSchema)]
struct OpeningDoc(
    #[serde(with = "OpeningShape")]
    #[schemars(with = "OpeningShape")]
    Opening,
);

mod opening {
    use super::{Opening, OpeningDoc};
    use serde::{Deserialize, Deserializer, Serialize, Serializer};

    #[expect(clippy::ref_option, reason = "serde asks for this shape")]
    pub(super) fn serialize<S: Serializer>(
        value: &Option<Opening>,
        serializer: S,
    ) -> Result<S::Ok, S::Error> {
        value.map(OpeningDoc).serialize(serializer)
    }

    pub(super) fn deserialize<'de, D: Deserializer<'de>>(
        deserializer: D,
    ) -> Result<Option<Opening>, D::Error> {
        Ok(Option::<OpeningDoc>::deserialize(deserializer)?.map(|doc| doc.0))
    }
}

#[derive(Serialize, Deserialize, JsonSchema)]
#[serde(remote = "Zone", deny_unknown_fields)]
struct ZoneShape {
    name: String,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<ZoneKind>")]
    kind: ZoneKind,
    #[serde(rename = "from_m")]
    from: f64,
    #[serde(rename = "to_m")]
    to: f64,
    #[serde(rename = "width_m")]
    width: f64,
    #[serde(rename = "offset_m", default)]
    offset: f64,
    #[serde(rename = "height_m", default, skip_serializing_if = "Option::is_none")]
    height: Option<f64>,
    #[serde(
        rename = "height_at_lid_m",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    height_at_lid: Option<f64>,
    #[serde(rename = "floor_m", default, skip_serializing_if = "Option::is_none")]
    floor: Option<f64>,
    #[serde(with = "opening", default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<OpeningShape>")]
    opening: Option<Opening>,
    #[serde(
        with = "keyed::maybe",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    #[schemars(with = "Option<keyed::Word<Dryness>>")]
    dryness: Option<Dryness>,
    #[serde(
        with = "keyed::maybe",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    #[schemars(with = "Option<keyed::Word<Reach>>")]
    reach: Option<Reach>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    underside_reachable: Option<bool>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    non_slip: Option<bool>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    padded: Option<bool>,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Source>")]
    source: Source,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    date: String,
}

#[derive(Serialize, Deserialize, JsonSchema)]
#[serde(remote = "FittingKind", rename_all = "kebab-case", deny_unknown_fields)]
enum FittingKindShape {
    Track {
        #[serde(rename = "length_m")]
        length: f64,
        #[serde(rename = "slot_m", default, skip_serializing_if = "Option::is_none")]
        slot: Option<f64>,
    },
    RodHolder {
        #[serde(default)]
        flush: bool,
        #[serde(rename = "angle_deg", default, skip_serializing_if = "Option::is_none")]
        angle: Option<f64>,
        #[serde(with = "keyed::one")]
        #[schemars(with = "keyed::Word<Facing>")]
        facing: Facing,
        #[serde(default)]
        reversible: bool,
    },
    Tube {
        #[serde(rename = "length_m")]
        length: f64,
        #[serde(rename = "diameter_m")]
        diameter: f64,
    },
    CupHolder {
        #[serde(rename = "depth_m")]
        depth: f64,
        #[serde(default)]
        drains: bool,
    },
    Insert,
    Plate,
    TransducerRecess {
        #[serde(rename = "length_m")]
        length: f64,
        #[serde(rename = "width_m")]
        width: f64,
    },
    Scupper {
        #[serde(with = "keyed::one")]
        #[schemars(with = "keyed::Word<Recess>")]
        recess: Recess,
        #[serde(rename = "diameter_m")]
        diameter: f64,
        #[serde(with = "keyed::one")]
        #[schemars(with = "keyed::Word<ScupperState>")]
        state: ScupperState,
        #[serde(default)]
        plug: bool,
    },
    PadEye,
    DRing,
    Bungee {
        #[serde(rename = "length_m")]
        length: f64,
        hooks_per_metre: f64,
    },
    Handle,
    Seat {
        #[serde(rename = "slide_m", default)]
        slide: f64,
        #[serde(rename = "low_m", default, skip_serializing_if = "Option::is_none")]
        low: Option<f64>,
        #[serde(rename = "high_m", default, skip_serializing_if = "Option::is_none")]
        high: Option<f64>,
    },
    FootBraces {
        #[serde(rename = "slide_m", default)]
        slide: f64,
    },
    AssistStrap,
    DrainPlug,
    Bulkhead,
    Outriggers {
        #[serde(rename = "length_m")]
        length: f64,
        #[serde(rename = "diameter_m")]
        diameter: f64,
        #[serde(rename = "reach_m")]
        reach: f64,
        #[serde(rename = "clear_m")]
        clear: f64,
    },
}

#[derive(Serialize, Deserialize, JsonSchema)]
#[serde(remote = "Fitting", deny_unknown_fields)]
struct FittingShape {
    name: String,
    #[serde(rename = "is", with = "FittingKindShape")]
    #[schemars(with = "FittingKindShape")]
    kind: FittingKind,
    #[serde(rename = "x_m")]
    x: f64,
    #[serde(rename = "y_m", default)]
    y: f64,
    #[serde(rename = "z_m", default, skip_serializing_if = "Option::is_none")]
    z: Option<f64>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    mount: String,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Source>")]
    source: Source,
}

#[derive(Serialize, Deserialize, JsonSchema)]
#[serde(remote = "Configuration", deny_unknown_fields)]
struct ConfigurationShape {
    name: String,
    seats: u8,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<SeatUsed>")]
    seat_used: SeatUsed,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<SeatSetting>")]
    seat: SeatSetting,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Propulsion>")]
    propulsion: Propulsion,
    #[serde(default)]
    modifications: Vec<String>,
}

/// A modification as JSON.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct ModificationDoc {
    name: String,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Progress>")]
    progress: Progress,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    removes: Vec<String>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    zones: Vec<ZoneDoc>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    fittings: Vec<FittingDoc>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    dryness: Vec<DrynessDoc>,
    mass_kg: f64,
    x_m: f64,
    z_m: f64,
    holes: u16,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    price: Option<f64>,
    can_be_undone: bool,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    note: String,
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct DrynessDoc {
    zone: String,
    #[serde(with = "keyed::one")]
    #[schemars(with = "keyed::Word<Dryness>")]
    dryness: Dryness,
}

impl ModificationDoc {
    fn of(m: &Modification) -> Self {
        Self {
            name: m.name.clone(),
            progress: m.progress,
            removes: m.removes.clone(),
            zones: m.zones.iter().cloned().map(ZoneDoc).collect(),
            fittings: m.fittings.iter().cloned().map(FittingDoc).collect(),
            dryness: m
                .dryness
                .iter()
                .map(|(zone, dryness)| DrynessDoc {
                    zone: zone.clone(),
                    dryness: *dryness,
                })
                .collect(),
            mass_kg: m.mass,
            x_m: m.x,
            z_m: m.z,
            holes: m.holes,
            price: m.price,
            can_be_undone: m.can_be_undone,
            note: m.note.clone(),
        }
    }

    fn modification(self) -> Modification {
        Modification {
            name: self.name,
            progress: self.progress,
            removes: self.removes,
            zones: self.zones.into_iter().map(|doc| doc.0).collect(),
            fittings: self.fittings.into_iter().map(|doc| doc.0).collect(),
            dryness: self
                .dryness
                .into_iter()
                .map(|doc| (doc.zone, doc.dryness))
                .collect(),
            mass: self.mass_kg,
            x: self.x_m,
            z: self.z_m,
            holes: self.holes,
            price: self.price,
            can_be_undone: self.can_be_undone,
            note: self.note,
        }
    }
}

impl FitoutDoc {
    /// The document of a fit-out.
    pub(crate) fn of(fitout: &Fitout) -> Self {
        let Fitout {
            zones,
            fittings,
            modifications,
            configurations,
        } = fitout;
        Self {
            zones: zones.iter().cloned().map(ZoneDoc).collect(),
            fittings: fittings.iter().cloned().map(FittingDoc).collect(),
            modifications: modifications.iter().map(ModificationDoc::of).collect(),
            configurations: configurations
                .iter()
                .cloned()
                .map(ConfigurationDoc)
                .collect(),
        }
    }

    /// Whether it says nothing.
    pub(crate) fn is_empty(&self) -> bool {
        self.zones.is_empty()
            && self.fittings.is_empty()
            && self.modifications.is_empty()
            && self.configurations.is_empty()
    }

    /// The checked fit-out of a document.
    ///
    /// # Errors
    /// What is wrong.
    pub(crate) fn fitout(self) -> Result<Fitout, String> {
        Fitout {
            zones: self.zones.into_iter().map(|doc| doc.0).collect(),
            fittings: self.fittings.into_iter().map(|doc| doc.0).collect(),
            modifications: self
                .modifications
                .into_iter()
                .map(ModificationDoc::modification)
                .collect(),
            configurations: self.configurations.into_iter().map(|doc| doc.0).collect(),
        }
        .check()
        .map_err(|e| e.to_string())
    }
}

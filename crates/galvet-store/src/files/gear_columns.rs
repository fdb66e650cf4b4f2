//! Columns of the shelf as a table: one for every field of the JSON form.

use super::echo;
use super::guard::{guarded, unguarded};
use galvet_core::base::{Bare, Bounds, Dimension};
use serde_json::{Value, json};

/// What stands in a column.
#[derive(Clone, Copy)]
pub(super) enum Kind {
    /// Words.
    Text,
    /// Words with commas between.
    List,
    /// Yes or no.
    Yes,
    /// A mass; its header may end in `_kg` or `_lb`.
    Mass,
    /// A length; its header may end in `_m`, `_cm`, `_mm`, `_in` or `_ft`.
    Length,
    /// A height that may lie below what it counts from; headers as of a length.
    Level,
    /// A number without a unit of its own.
    Number,
}

/// A column: its header without the unit, where it stands in the JSON form.
pub(super) struct Column {
    pub(super) name: &'static str,
    pub(super) path: &'static [&'static str],
    pub(super) kind: Kind,
}

const fn column(name: &'static str, path: &'static [&'static str], kind: Kind) -> Column {
    Column { name, path, kind }
}

pub(super) static COLUMNS: [Column; 55] = {
    use Kind::{Length, Level, List, Mass, Number, Text, Yes};
    [
        column("key", &["key"], Text),
        column("name", &["name"], Text),
        column("category", &["category"], Text),
        column("dry_weight", &["dry_mass_kg"], Mass),
        column("loaded_weight", &["loaded_mass_kg"], Mass),
        column("length", &["size_m", "0"], Length),
        column("width", &["size_m", "1"], Length),
        column("height", &["size_m", "2"], Length),
        column("soft", &["soft"], Yes),
        column("centre_height", &["centre_height_m"], Length),
        column("fixings", &["fixings"], List),
        column("holes", &["holes"], Number),
        column("mount", &["mount"], Text),
        column("zones", &["zones"], List),
        column("needs_reach", &["needs", "reach"], Text),
        column("needs_dry", &["needs", "dry"], Text),
        column("upright", &["needs", "upright"], Yes),
        column("clear_above", &["needs", "clear_above"], Yes),
        column("view_ahead", &["needs", "view_ahead"], Yes),
        column("in_the_water", &["needs", "in_the_water"], Yes),
        column("tether", &["tether"], Text),
        column("draws_w", &["draws", "watts"], Number),
        column("draws_share", &["draws", "duty"], Number),
        column("draws_at_v", &["draws", "volts"], Number),
        column("battery_v", &["battery", "volts"], Number),
        column("battery_ah", &["battery", "amp_hours"], Number),
        column("battery_chemistry", &["battery", "chemistry"], Text),
        column("strain", &["strain"], Text),
        column("inside_length", &["brings", "inside_m", "0"], Length),
        column("inside_width", &["brings", "inside_m", "1"], Length),
        column("inside_height", &["brings", "inside_m", "2"], Length),
        column("tubes", &["brings", "tubes"], Number),
        column("lid", &["brings", "lid"], Yes),
        column("keeps_dry", &["brings", "keeps_dry"], Text),
        column("adapts_on", &["brings", "adapts", "0"], Text),
        column("adapts_to", &["brings", "adapts", "1"], Text),
        column("fish", &["brings", "fish_m"], Length),
        column("tethers", &["brings", "tethers"], Number),
        column("helps_up", &["brings", "helps_up"], Yes),
        column(
            "float_length",
            &["on_water", "outriggers", "length_m"],
            Length,
        ),
        column(
            "float_across",
            &["on_water", "outriggers", "diameter_m"],
            Length,
        ),
        column(
            "float_reach",
            &["on_water", "outriggers", "reach_m"],
            Length,
        ),
        column("float_clear", &["on_water", "outriggers", "clear_m"], Level),
        column("buoyancy_m3", &["on_water", "buoyancy_m3"], Number),
        column(
            "pumps_l_min",
            &["on_water", "pumps_litres_per_minute"],
            Number,
        ),
        column("towed_drag_m2", &["on_water", "towed_drag_m2"], Number),
        column("sock_drag_m2", &["on_water", "sock_drag_m2"], Number),
        column("spray_deck", &["on_water", "spray_deck"], Yes),
        column("serves_as", &["serves"], List),
        column("setup_minutes", &["setup_minutes"], Number),
        column("comes_off", &["comes_off"], Yes),
        column("strip_for_surf", &["strip_for_surf"], Yes),
        column("price", &["price"], Number),
        column("owned", &["owned"], Yes),
        column("note", &["note"], Text),
    ]
};

/// Whether a column of a name is of masses or of lengths.
pub(super) fn dimension_of(name: &str) -> Option<Dimension> {
    let column = COLUMNS.iter().find(|c| c.name == name)?;
    match column.kind {
        Kind::Mass => Some(Dimension::Mass),
        Kind::Length | Kind::Level => Some(Dimension::Length),
        _ => None,
    }
}

impl Column {
    /// Its header with the unit it is written in.
    pub(super) fn header(&self) -> String {
        match self.kind {
            Kind::Mass => format!("{}_kg", self.name),
            Kind::Length | Kind::Level => format!("{}_m", self.name),
            _ => self.name.to_owned(),
        }
    }

    /// What a bare number means under a header, where the header is this column's.
    pub(super) fn bare(&self, header: &str) -> Option<Bare> {
        let rest = header.strip_prefix(self.name)?;
        Some(match (self.kind, rest.strip_prefix('_').unwrap_or(rest)) {
            (_, "") if rest.is_empty() => Bare::SI,
            (Kind::Mass, "kg") | (Kind::Length | Kind::Level, "m") => Bare::SI,
            (Kind::Mass, "lb") => Bare::POUNDS,
            (Kind::Length | Kind::Level, "cm") => Bare::CENTIMETRES,
            (Kind::Length | Kind::Level, "mm") => Bare::MILLIMETRES,
            (Kind::Length | Kind::Level, "in") => Bare::INCHES,
            (Kind::Length | Kind::Level, "ft") => Bare::FEET,
            _ => return None,
        })
    }

    /// The value of a cell in the JSON form.
    pub(super) fn value(&self, cell: &str, bare: Bare) -> Result<Value, String> {
        let number = |dimension: Dimension, least: f64, most: f64| {
            let bounds = Bounds::new("it", dimension, least, most);
            bounds.parse(cell, bare).map_err(|e| e.to_string())
        };
        Ok(match self.kind {
            Kind::Text => json!(unguarded(cell)),
            Kind::List => {
                let words = cell.split([',', ';', '|']).map(str::trim);
                Value::from_iter(words.filter(|w| !w.is_empty()))
            }
            Kind::Yes => match cell {
                "yes" | "true" | "1" => json!(true),
                "no" | "false" | "0" => json!(false),
                _ => return Err(format!("“{}” is neither yes nor no", echo(cell))),
            },
            Kind::Mass => json!(number(Dimension::Mass, 0.0, 120.0)?),
            Kind::Length => json!(number(Dimension::Length, 0.001, 5.0)?),
            Kind::Level => json!(number(Dimension::Length, -5.0, 5.0)?),
            Kind::Number => {
                let value = number(Dimension::Ratio, 0.0, 100_000.0)?;
                // What counts things is whole in the JSON form.
                let counts = matches!(self.name, "holes" | "tubes" | "tethers");
                if counts && value.fract() == 0.0 && value <= 50.0 {
                    json!(value as u16)
                } else if counts {
                    return Err("a whole number up to 50".to_owned());
                } else {
                    json!(value)
                }
            }
        })
    }

    /// What stands in its cell for a thing.
    pub(super) fn cell(&self, thing: &Value) -> String {
        let step = |value: Option<&Value>, name: &&str| -> Option<Value> {
            let value = value?;
            match name.parse::<usize>() {
                Ok(at) => value.get(at).cloned(),
                Err(_) => value.get(*name).cloned(),
            }
        };
        let mut at = Some(thing.clone());
        for name in self.path {
            at = step(at.as_ref(), name);
        }
        match at {
            None | Some(Value::Null) => String::new(),
            Some(Value::Bool(is)) => if is { "yes" } else { "no" }.to_owned(),
            Some(Value::String(text)) => guarded(&text),
            Some(Value::Array(words)) => {
                let words = words.iter().filter_map(Value::as_str);
                words.collect::<Vec<_>>().join("; ")
            }
            Some(other) => other.to_string(),
        }
    }
}

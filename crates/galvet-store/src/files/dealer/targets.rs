//! What a column of somebody's table can stand for, with the names people give it.

use galvet_core::base::Dimension;

/// What the rows of a table are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "lowercase")]
pub enum Of {
    /// Hulls.
    Hulls,
    /// Things for the shelf.
    Gear,
}

/// What a column can stand for.
#[derive(Debug, Clone, Copy)]
pub struct Target {
    /// Its word in a matching.
    pub key: &'static str,
    /// What people call it.
    pub label: &'static str,
    /// What its numbers measure; `None` for words.
    pub dimension: Option<Dimension>,
    /// Names people give it, in small letters, with commas between.
    pub(super) names: &'static str,
}

const fn target(
    key: &'static str,
    label: &'static str,
    dimension: Option<Dimension>,
    names: &'static str,
) -> Target {
    Target {
        key,
        label,
        dimension,
        names,
    }
}

/// Keeps what stands in a column as it is, without understanding it.
pub const KEEP: &str = "keep";
/// Leaves a column out.
pub const SKIP: &str = "skip";
/// Maker and model in one.
pub const NAME: &str = "name";
/// A weight of which nobody says what is in it.
pub const WEIGHT: &str = "weight";
/// Length and beam, or a thing's sides, in one.
pub const SIZE: &str = "size";

/// What a column of hulls can stand for.
pub static HULLS: [Target; 24] = {
    use Dimension::{Length, Mass, Money, Ratio, ShortLength};
    [
        target(
            NAME,
            "maker and model in one",
            None,
            "name, kayak, kayak name, boat, hull, product, item, description, title, \
             article, make model, make and model, brand model, maker model, model name",
        ),
        target(
            "maker",
            "maker",
            None,
            "maker, make, brand, manufacturer, builder, company, vendor, label",
        ),
        target(
            "model",
            "model",
            None,
            "model, type designation, version, variant",
        ),
        target("year", "year", None, "year, model year, my"),
        target(
            "construction",
            "construction",
            None,
            "construction, style, sot or sit in, sot sik, sot sis, deck, deck style, \
             hull type, kayak type, boat type, type, category, class, body, seating type, \
             sit",
        ),
        target(
            "bottom",
            "bottom",
            None,
            "bottom, bottom shape, hull shape, hull form, hull design",
        ),
        target(
            "propulsion",
            "driven by",
            None,
            "propulsion, drive, drive type, drive system, driven by, power, powered by, \
             propelled by, propulsion type, pedal or paddle, paddle or pedal",
        ),
        target(
            "seats",
            "seats",
            None,
            "seats, number of seats, no of seats, persons, people, paddlers, seating, \
             crew, places, solo or tandem, seating capacity",
        ),
        target(
            SIZE,
            "length × beam in one",
            Some(Length),
            "l x w, lxw, l w, length x width, length x beam, size, dimensions, dims, \
             dimension, length width, measurements",
        ),
        target(
            "length",
            "length",
            Some(Length),
            "length, len, lgth, lg, loa, overall length, length overall, length over all, \
             hull length, kayak length, boat length, total length, l",
        ),
        target(
            "beam",
            "beam",
            Some(ShortLength),
            "beam, width, wid, hull width, overall width, max width, maximum width, \
             max beam, maximum beam, breadth, w",
        ),
        target(
            "depth",
            "depth",
            Some(ShortLength),
            "depth, hull depth, depth amidships, hull height",
        ),
        target(
            "floor_height",
            "floor height",
            Some(ShortLength),
            "floor height, floor, deck floor, cockpit floor height",
        ),
        target(
            "floor_width",
            "floor width",
            Some(ShortLength),
            "floor width, standing width, cockpit floor width",
        ),
        target(
            WEIGHT,
            "weight, not said with what",
            Some(Mass),
            "weight, wt, wgt, mass, kayak weight, boat weight, unit weight, weighs, \
             total weight, overall weight",
        ),
        target(
            "bare_weight",
            "weight of the hull alone",
            Some(Mass),
            "bare weight, bare hull, bare hull weight, hull weight, hull wt, hull only, \
             weight hull only, hull only weight, weight bare, weight without seat, \
             weight w o seat, naked weight, empty hull weight, weight without drive, \
             weight hull, stripped weight",
        ),
        target(
            "fitted_weight",
            "weight with seat and drive",
            Some(Mass),
            "fitted weight, rigged weight, weight rigged, fully rigged weight, \
             weight fully rigged, fully rigged, assembled weight, weight assembled, \
             weight with seat, weight w seat, weight incl seat, all up weight, \
             outfitted weight, weight with drive, weight with pedals, ready weight, \
             weight fitted, weight complete, complete weight",
        ),
        target(
            "rated_capacity",
            "rated capacity",
            Some(Mass),
            "rated capacity, capacity, cap, max capacity, maximum capacity, \
             weight capacity, wt capacity, load capacity, max load, maximum load, payload, \
             max payload, weight limit, max weight, maximum weight, max wt, load limit, \
             carrying capacity, carries, load, rated load, load rating, max load capacity, \
             weight cap, total capacity",
        ),
        target(
            "seat_low",
            "seat, low",
            Some(ShortLength),
            "seat height, seat low, seat height low, low seat",
        ),
        target(
            "seat_high",
            "seat, high",
            Some(ShortLength),
            "seat high, seat height high, high seat",
        ),
        target(
            "drive_depth",
            "drive below the bottom",
            Some(ShortLength),
            "drive depth, pedal depth, depth of drive",
        ),
        target(
            "price",
            "price",
            Some(Money),
            "price, cost, rrp, msrp, retail, retail price, our price, list price, \
             sale price, price each, unit price, shop price, price incl vat, \
             price incl tax",
        ),
        target(
            "capacity_basis",
            "what the capacity counts",
            None,
            "capacity basis, capacity counts, capacity includes",
        ),
        target(
            "notes",
            "notes",
            Some(Ratio),
            "notes, note, remarks, comments, comment, remark",
        ),
    ]
};

/// What a column of things can stand for.
pub static GEAR: [Target; 13] = {
    use Dimension::{Length, Mass, Money};
    [
        target(
            NAME,
            "name",
            None,
            "name, item, product, description, thing, article, title, model, gear",
        ),
        target(
            "category",
            "kind",
            None,
            "category, kind, type, group, class, department",
        ),
        target(
            "dry_weight",
            "weight",
            Some(Mass),
            "weight, wt, wgt, mass, dry weight, empty weight, unit weight, weighs, \
             net weight, weight each",
        ),
        target(
            "loaded_weight",
            "weight loaded",
            Some(Mass),
            "loaded weight, full weight, weight loaded, weight full, packed weight",
        ),
        target(
            SIZE,
            "length × width × height in one",
            Some(Length),
            "size, dimensions, dims, l x w x h, lxwxh, l w h, dimension, measurements, \
             outside, external dimensions",
        ),
        target("length", "length", Some(Length), "length, len, l, long"),
        target(
            "width",
            "width",
            Some(Length),
            "width, wid, w, depth, wide, diameter",
        ),
        target("height", "height", Some(Length), "height, h, ht, high"),
        target("battery_v", "battery, volts", None, "volts, voltage, v"),
        target(
            "battery_ah",
            "battery, amp-hours",
            None,
            "ah, amp hours, capacity ah",
        ),
        target(
            "draws_w",
            "draws, watts",
            None,
            "watts, power, draw, consumption",
        ),
        target(
            "price",
            "price",
            Some(Money),
            "price, cost, rrp, msrp, retail, retail price, our price, list price, \
             unit price, price each",
        ),
        target(
            "note",
            "note",
            None,
            "note, notes, remarks, comments, comment",
        ),
    ]
};

impl Of {
    /// What a column can stand for.
    #[must_use]
    pub fn targets(self) -> &'static [Target] {
        match self {
            Self::Hulls => &HULLS,
            Self::Gear => &GEAR,
        }
    }

    /// The target of a word.
    #[must_use]
    pub fn target(self, key: &str) -> Option<&'static Target> {
        self.targets().iter().find(|t| t.key == key)
    }
}

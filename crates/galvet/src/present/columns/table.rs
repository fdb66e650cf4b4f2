//! The table of columns.

use super::{Column, Holds, Which};
use galvet_core::base::Dimension;
use galvet_core::hull::Judgement;

const fn column(
    which: Which,
    label: &'static str,
    less: bool,
    holds: Holds,
    file: &'static str,
) -> Column {
    Column {
        which,
        label,
        less,
        holds,
        file,
    }
}

/// Every column.
pub const COLUMNS: [Column; 39] = {
    use Dimension as D;
    use Holds::{Area, Count, Judged, Number};
    [
        column(Which::Draft, "draft", true, Number(D::FineLength, 0), ""),
        column(Which::Air, "air draft", true, Number(D::Length, 2), ""),
        column(
            Which::Speed,
            "speed kept up",
            false,
            Number(D::Speed, 1),
            "speed_m_per_s",
        ),
        column(
            Which::Drift,
            "drift, beam on",
            true,
            Number(D::Speed, 1),
            "drift_m_per_s",
        ),
        column(
            Which::Helm,
            "helm, off balance",
            true,
            Count("%"),
            "helm_under_way_percent",
        ),
        column(
            Which::Turning,
            "turning",
            false,
            Judged(Judgement::Turning),
            "turning",
        ),
        column(
            Which::Holding,
            "holds a place",
            false,
            Judged(Judgement::Holding),
            "holding",
        ),
        column(
            Which::Steering,
            "steering gear",
            false,
            Judged(Judgement::Steering),
            "steering",
        ),
        column(
            Which::Reverse,
            "goes backwards",
            false,
            Judged(Judgement::Reverse),
            "reverse",
        ),
        column(
            Which::Demands,
            "not met of what the water asks",
            true,
            Count(""),
            "demands_not_met",
        ),
        column(Which::GettingUp, "getting up", false, Count(""), ""),
        column(
            Which::Comfort,
            "comfort",
            false,
            Count("of 5"),
            "comfort_of_5",
        ),
        column(
            Which::Floor,
            "floor clear",
            false,
            Area,
            "standing_floor_m2",
        ),
        column(Which::Well, "well left", false, Area, "well_free_m2"),
        column(
            Which::Reach,
            "out of reach",
            true,
            Count(""),
            "out_of_reach",
        ),
        column(
            Which::Minutes,
            "minutes to set up",
            true,
            Count(""),
            "setup_minutes",
        ),
        column(
            Which::Home,
            "minutes home to fishing",
            true,
            Count(""),
            "home_to_fishing_minutes",
        ),
        column(
            Which::Whole,
            "price with what the rig lacks",
            true,
            Number(D::Money, 0),
            "whole_price",
        ),
        column(
            Which::Lift,
            "to lift, fitted",
            true,
            Number(D::Mass, 0),
            "fitted_weight_kg",
        ),
        column(
            Which::Length,
            "length",
            true,
            Number(D::Length, 2),
            "length_m",
        ),
        column(
            Which::Beam,
            "beam",
            true,
            Number(D::ShortLength, 0),
            "beam_m",
        ),
        column(Which::Price, "price", true, Number(D::Money, 0), "price"),
        column(
            Which::Trip,
            "price by the trip",
            true,
            Number(D::Money, 0),
            "price_per_trip",
        ),
        extra(Which::Clears, "clears a full deck in", true),
        extra(Which::Unsteady, "unsteady while it drains", true),
        extra(Which::Leak, "water inside it bears", false),
        extra(Which::HomeWind, "headwind that stops it", false),
        extra(Which::Back, "back against the wind", true),
        extra(Which::TurnBy, "turn back by", false),
        extra(Which::BackUp, "back by paddle, drive up", true),
        extra(Which::Battery, "battery left after both ways", false),
        extra(Which::Anchor, "pull on the anchor", true),
        extra(Which::Hold, "effort to stay without an anchor", true),
        extra(Which::Towed, "speed lost to what is towed", true),
        extra(Which::Bow, "bow freeboard", false),
        column(
            Which::Upright,
            "pond: tries that end upright",
            false,
            Number(D::Share, 0),
            "",
        ),
        column(
            Which::PondHeel,
            "pond: greatest heel",
            true,
            Number(D::Angle, 0),
            "",
        ),
        column(
            Which::PondRoom,
            "pond: heel left until water comes in",
            false,
            Number(D::Angle, 0),
            "",
        ),
        column(
            Which::PondWater,
            "pond: water taken",
            true,
            Number(D::Volume, 0),
            "",
        ),
    ]
};

/// A column of a figure for when the day turns; files tell it under its own name.
const fn extra(which: Which, label: &'static str, less: bool) -> Column {
    let (dimension, decimals) = match which.extra() {
        Some(extra) => (extra.row().dimension, extra.row().decimals),
        None => (Dimension::Ratio, 0),
    };
    column(which, label, less, Holds::Number(dimension, decimals), "")
}

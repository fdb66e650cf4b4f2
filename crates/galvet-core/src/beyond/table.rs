//! The table of figures beyond those that rank: each once, with its name in files, its
//! label, its meaning and which way it is better.

use super::lifting::lifting;
use crate::aboard::Flooding;
use crate::base::{Dimension, words};
use crate::figures::{Absent, Assessment, Better, Range, Shown};
use crate::guide::Guide;
use crate::handling::{Bow, WayHome, bow, drift_socked, tow, way_home, windage};
use crate::question::Day;
use std::sync::Arc;

/// Which part of the day a figure belongs to; its name in files.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Part {
    /// Water aboard.
    Flooding,
    /// Wind and stream.
    Wind,
    /// Ashore.
    Lift,
}

/// One row of the table.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ExtraRow {
    /// Where it stands in files.
    pub part: Part,
    /// Its name there, with the unit of [`ExtraRow::scale`].
    pub key: &'static str,
    /// Short label.
    pub label: &'static str,
    /// What it means.
    pub meaning: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Decimals in metric units.
    pub decimals: usize,
    /// From SI to the unit in the name.
    pub scale: f64,
    /// Which way is better.
    pub better: Better,
    /// What is said where it has none.
    pub absent: &'static str,
}

macro_rules! extras {
    ($($(#[$doc:meta])* $name:ident = $part:ident, $key:literal, $label:literal, $dim:ident, $decimals:literal, $scale:expr, $better:ident, $absent:literal, $meaning:literal;)*) => {
        words! {
            /// A figure beyond those that rank. Values are SI.
            pub enum Extra {
                $($(#[$doc])* #[strum(serialize = $key, message = $label)] $name,)*
            }
        }

        impl Extra {
            /// Its row in the table.
            #[must_use]
            pub const fn row(self) -> ExtraRow {
                match self {
                    $(Self::$name => ExtraRow {
                        part: Part::$part,
                        key: $key,
                        label: $label,
                        meaning: $meaning,
                        dimension: Dimension::$dim,
                        decimals: $decimals,
                        scale: $scale,
                        better: Better::$better,
                        absent: $absent,
                    },)*
                }
            }
        }
    };
}

extras! {
    /// Seconds until a brim-full deck is clear.
    Clear = Flooding, "clear_s", "full deck clear after", Time, 0, 1.0, Lower, "never clears",
        "how long a deck filled to the brim by a wave takes to drain, but for what stays";
    /// Seconds until it is steady for good.
    Tender = Flooding, "tender_s", "unsteady while it drains", Time, 0, 1.0, Lower, "unsteady until bailed",
        "how long it stays unsteady while a full deck drains: the water runs to the low side";
    /// Depth that stays.
    Stays = Flooding, "stays_mm", "water that stays", FineLength, 0, 1000.0, Lower, "no recess",
        "the deepest puddle left when nothing runs out any more";
    /// Seconds until a lasting lean has half filled it.
    Fills = Flooding, "fills_s", "a held lean half fills it in", Time, 0, 1.0, Higher, "scuppers stay dry",
        "held at the lean where it pushes back hardest, how soon water coming up the scuppers has half filled it";
    /// Loose water to a wet floor.
    WetFloor = Flooding, "litres_wet_floor", "water inside: floor wets", Volume, 0, 1000.0, Higher, "does not wet",
        "water loose inside the hull until the lowest floor meets the water outside";
    /// Loose water to no initial stability.
    GmZero = Flooding, "litres_gm_zero", "water inside: no longer steady", Volume, 0, 1000.0, Higher, "founders first",
        "water loose inside the hull until it no longer pushes back against a small lean";
    /// Loose water to foundering.
    Founders = Flooding, "litres_founder", "water inside: goes down", Volume, 0, 1000.0, Higher, "not by 400 l",
        "water loose inside the hull until rim or an end of the deck goes under, held upright";
    /// Volume of the bow over the water.
    BowVolume = Wind, "bow_litres", "bow over the water", Volume, 0, 1000.0, Higher, "not known",
        "volume of the foremost sixth between water and gunwale: what lifts it over a wave";
    /// Height of the bow over the water.
    BowFreeboard = Wind, "bow_freeboard_mm", "bow freeboard", FineLength, 0, 1000.0, Higher, "not known",
        "height of the bow's gunwale over the water: waves higher than that come over it as it dips";
    /// Drift beam-on.
    Drift = Wind, "drift_mps", "drift, beam on", Speed, 1, 1.0, Lower, "no wind named",
        "how fast it drifts through the water, beam on to this water's typical wind";
    /// Helm at rest.
    HelmRest = Wind, "helm_rest", "helm at rest, % of length", Ratio, 0, 1.0, Neither, "no wind named",
        "how far the wind's centre lies behind the water's: above zero it turns into the wind";
    /// Helm under way.
    HelmUnderWay = Wind, "helm_under_way", "helm under way, % of length", Ratio, 0, 1.0, Neither, "no wind named",
        "the same going ahead";
    /// Headwind at which no headway is left.
    HomeWind = Wind, "home_wind_mps", "headwind that stops it", Speed, 0, 1.0, Higher, "stream too strong",
        "wind at the boat, against stream and chop, at which an effort kept up for hours makes no headway";
    /// Time out.
    Out = Wind, "out_min", "out, wind behind", Time, 0, 1.0 / 60.0, Lower, "no headway",
        "half the day's distance with wind and stream behind";
    /// Time back.
    Back = Wind, "back_min", "back, wind ahead", Time, 0, 1.0 / 60.0, Lower, "does not get back",
        "the same distance against wind and stream";
    /// Force on the anchor.
    Hold = Wind, "hold_n", "pull on the anchor", Force, 0, 1.0, Lower, "no wind named",
        "what an anchor, pole or drift sock has to hold, bow or stern to wind and stream; gear for twice that";
    /// Effort to stay in place.
    HoldWatts = Wind, "hold_w", "effort to stay without an anchor", Power, 0, 1.0, Lower, "no wind named",
        "at hand, foot or battery, bow into wind and stream";
    /// Time back with the drive up.
    BackUp = Wind, "back_drive_up_min", "back by paddle, drive up", Time, 0, 1.0 / 60.0, Lower, "paddled anyway, or does not get back",
        "the way back where it is too shallow for the drive, or the drive has failed";
    /// Battery left.
    Battery = Wind, "battery_left", "battery left after both ways", Share, 0, 1.0, Higher, "no motor, or does not get back",
        "share of what the battery gives that is left after the way out and back at a usual draw";
    /// Latest hour to turn.
    TurnBy = Wind, "turn_by_h", "turn back by", Clock, 0, 1.0, Higher, "nobody said when it is dark, or does not get back",
        "dark, less one and a quarter times the way back";
    /// Drift with the sock out.
    Socked = Wind, "drift_sock_mps", "drift with the sock out", Speed, 1, 1.0, Lower, "no drift sock",
        "beam on in the same wind with the drift sock aboard let out";
    /// Pull of what is towed.
    Towed = Wind, "towed_n", "pull of what is towed", Force, 0, 1.0, Lower, "nothing towed",
        "at the speed kept up, on the side it hangs";
    /// Speed lost to what is towed.
    TowedSlows = Wind, "towed_slows_mps", "speed lost to what is towed", Speed, 1, 1.0, Lower, "nothing towed",
        "at an effort kept up for hours";
    /// Anchor line.
    HoldLine = Wind, "hold_line_m", "anchor line", Length, 0, 1.0, Lower, "no depth named",
        "line for the depth, in wind or stream";
    /// Heaviest single thing.
    Heaviest = Lift, "heaviest_kg", "heaviest single thing", Mass, 0, 1.0, Lower, "not known",
        "with everything taken off that comes off";
    /// One end of the bare hull.
    OneEnd = Lift, "one_end_n", "to lift one end", Force, 0, 1.0, Lower, "not known",
        "force at the handle to lift the heavier end, stripped";
    /// On a cart.
    Cart = Lift, "cart_n", "at the bow handle, on a cart", Force, 0, 1.0, Lower, "carried, not rolled",
        "hull and kit on a cart, pulled up from this launch";
    /// Dragged.
    Drag = Lift, "drag_n", "to drag it", Force, 0, 1.0, Lower, "carried, not dragged",
        "the fitted hull, dragged up from this launch";
}

/// The figures beyond of one hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Beyond {
    values: Vec<Option<Range>>,
    /// Water aboard; `None` where no shape rests.
    pub flooding: Option<Arc<Flooding>>,
    /// The way home; `None` where its water names no wind.
    pub way: Option<WayHome>,
}

impl Beyond {
    /// The range of a figure; `None` where none of the shapes has it. Shapes without it
    /// count as the worst there can be for what is to be short or strong, as the best for
    /// what is never to happen.
    #[must_use]
    pub fn range(&self, extra: Extra) -> Option<Range> {
        self.values[extra as usize]
    }

    /// Its middle; `None` where half of the shapes or more have none.
    #[must_use]
    pub fn median(&self, extra: Extra) -> Option<f64> {
        let range = self.range(extra)?;
        (range.share > 0.5).then_some(range.p50)
    }
}

/// The range of a sample in which some have no value.
pub(crate) fn with_absent(sample: &[Option<f64>], absent: Absent) -> Option<Range> {
    let shown: Vec<Shown> = sample
        .iter()
        .map(|value| Shown {
            value: value.unwrap_or(f64::NAN),
            weight: 1.0,
            absent,
        })
        .collect();
    Range::over_all(&shown)
}

/// Of so many shapes one bow is looked at.
const BOWS: usize = 16;

/// Works them out for a day that goes so; what water aboard does, which no day changes,
/// comes ready.
#[must_use]
pub fn beyond(assessment: &Assessment, day: &Day, flooding: Option<Arc<Flooding>>) -> Beyond {
    let outing = &day.outing;
    let way = way_home(assessment, outing);
    let wind = way.as_ref().map(|w| w.bound.weather.wind);
    let tow = tow(assessment);
    let sock = assessment.setup.sock();
    let socked = wind.filter(|_| sock > 0.0);
    let socked = socked.and_then(|wind| drift_socked(assessment, wind, sock));
    let in_hand = assessment.setup.guides()[Guide::BackInHand];
    // A way back that is longer than worst leaves all the earlier.
    let turn_by = |w: &WayHome| {
        let back = w.back?;
        let dark = outing.dark?;
        let by = |seconds: f64| dark - in_hand * seconds / 3600.0;
        Some(Range {
            p5: by(back.p95),
            p50: by(back.p50),
            p95: by(back.p5),
            share: back.share,
        })
    };
    let windage = wind.and_then(|wind| windage(assessment, wind));
    let shapes = &assessment.setup.posterior.shapes;
    let lifts = assessment
        .evenly()
        .into_iter()
        .map(|i| lifting(assessment, &shapes[i], day.launch));
    let lifts: Vec<_> = lifts.collect();
    let lift = |f: &dyn Fn(&super::Lifting) -> Option<f64>| {
        let all: Vec<Option<f64>> = lifts.iter().map(f).collect();
        with_absent(&all, Absent::Out)
    };
    let bows = assessment.evenly().into_iter().step_by(BOWS);
    let bows: Vec<_> = bows
        .filter_map(|i| bow(&assessment.setup, shapes[i]))
        .collect();
    let of_bows = |f: &dyn Fn(&Bow) -> f64| {
        let all: Vec<Option<f64>> = bows.iter().map(|b| Some(f(b))).collect();
        with_absent(&all, Absent::Out)
    };
    let water = |f: fn(&Flooding) -> Option<Range>| flooding.as_deref().and_then(f);
    let home = |f: fn(&WayHome) -> Option<Range>| way.as_ref().and_then(f);
    let certain = |v: f64| Range {
        p5: v,
        p50: v,
        p95: v,
        share: 1.0,
    };
    use crate::base::Keyed;
    let value = |extra: &Extra| match extra {
        Extra::Clear => water(|f| f.clear),
        Extra::Tender => water(|f| f.tender),
        Extra::Stays => water(|f| f.stays),
        Extra::Fills => water(|f| f.fills),
        Extra::WetFloor => water(|f| f.wet_floor),
        Extra::GmZero => water(|f| f.gm_zero),
        Extra::Founders => water(|f| f.founders),
        Extra::BowVolume => of_bows(&|b| b.volume),
        Extra::BowFreeboard => of_bows(&|b| b.freeboard),
        Extra::Drift => windage.map(|w| w.drift),
        Extra::HelmRest => windage.map(|w| w.helm_at_rest),
        Extra::HelmUnderWay => windage.map(|w| w.helm_under_way),
        Extra::HomeWind => home(|w| w.home_wind),
        Extra::Out => home(|w| w.out),
        Extra::Back => home(|w| w.back),
        Extra::Hold => home(|w| Some(w.hold)),
        Extra::HoldWatts => home(|w| w.hold_watts),
        Extra::BackUp => home(|w| w.back_up),
        Extra::Battery => home(|w| w.battery),
        Extra::TurnBy => way.as_ref().and_then(turn_by),
        Extra::Socked => socked.map(certain),
        Extra::Towed => tow.map(|t| certain(t.pull)),
        Extra::TowedSlows => tow.map(|t| certain(t.speed[0] - t.speed[1])),
        Extra::HoldLine => way.as_ref().map(|w| certain(w.line)),
        Extra::Heaviest => lift(&|l| Some(l.heaviest)),
        Extra::OneEnd => lift(&|l| Some(l.one_end)),
        Extra::Cart => lift(&|l| l.cart),
        Extra::Drag => lift(&|l| l.drag),
    };
    Beyond {
        values: Extra::ALL.iter().map(value).collect(),
        flooding,
        way,
    }
}

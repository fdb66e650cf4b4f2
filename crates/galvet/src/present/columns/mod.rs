//! Figures beside the points: shown in each row, what rows can be put in order by,
//! sifted by, what breaks a tie, and what a file tells of them.

mod table;
mod told;

pub use table::COLUMNS;

use crate::answer::{Answered, Quick};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::beyond::{Beyond, Extra};
use galvet_core::figures::Assessment;
use galvet_core::hull::{Judgement, Survey};
use galvet_core::pond::Numbers;
use galvet_core::question::{Brief, Fishing, Joints, Launch};
use std::collections::{BTreeMap, BTreeSet};
use strum::{EnumMessage, IntoStaticStr, VariantArray};
use told::Of;

/// What stands in a column.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Holds {
    /// A quantity, with the decimals it is shown with.
    Number(Dimension, usize),
    /// An area, m².
    Area,
    /// A bare number, with its unit.
    Count(&'static str),
    /// A judgement: its answers from the worst to the best.
    Judged(Judgement),
}

/// Which column: its word in the address is its key.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, VariantArray, EnumMessage, IntoStaticStr,
)]
#[strum(serialize_all = "kebab-case")]
pub enum Which {
    Draft,
    Air,
    Speed,
    Drift,
    Helm,
    Turning,
    Holding,
    Steering,
    Reverse,
    Demands,
    GettingUp,
    Comfort,
    Floor,
    Well,
    Reach,
    Minutes,
    /// Minutes from the parked car to afloat.
    Home,
    /// The hull with what its rig lacks.
    Whole,
    Lift,
    Length,
    Beam,
    Price,
    Trip,
    Clears,
    Unsteady,
    Leak,
    HomeWind,
    Back,
    TurnBy,
    BackUp,
    Battery,
    Anchor,
    Hold,
    Towed,
    Bow,
    /// Tries on the pond that end upright.
    Upright,
    /// Greatest heel of those, heel left until water comes in, water taken.
    PondHeel,
    PondRoom,
    PondWater,
}

/// What is worked out only where somebody asks.
#[derive(Default)]
pub struct Worked<'a> {
    /// Speed and wind at a glance.
    pub quick: Option<Quick>,
    /// A day that turns.
    pub beyond: Option<&'a Beyond>,
    /// Tries on the pond.
    pub tried: Option<&'a Numbers>,
}

/// Which of it an order or a limit needs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub struct Deep {
    /// A day that turns.
    pub day: bool,
    /// Tries on the pond.
    pub pond: bool,
}

impl Which {
    /// Whether it tells what tries on the pond came to.
    #[must_use]
    pub const fn of_the_pond(self) -> bool {
        matches!(
            self,
            Self::Upright | Self::PondHeel | Self::PondRoom | Self::PondWater
        )
    }

    /// The figure for when the day turns it tells: worked out only where it is asked for.
    #[must_use]
    pub const fn extra(self) -> Option<Extra> {
        match self {
            Self::Clears => Some(Extra::Clear),
            Self::Unsteady => Some(Extra::Tender),
            Self::Leak => Some(Extra::GmZero),
            Self::HomeWind => Some(Extra::HomeWind),
            Self::Back => Some(Extra::Back),
            Self::TurnBy => Some(Extra::TurnBy),
            Self::BackUp => Some(Extra::BackUp),
            Self::Battery => Some(Extra::Battery),
            Self::Anchor => Some(Extra::Hold),
            Self::Hold => Some(Extra::HoldWatts),
            Self::Towed => Some(Extra::TowedSlows),
            Self::Bow => Some(Extra::BowFreeboard),
            _ => None,
        }
    }
}

/// A column: which, its label, whether less is better.
#[derive(Debug, Clone, Copy)]
pub struct Column {
    pub which: Which,
    pub label: &'static str,
    pub less: bool,
    pub holds: Holds,
    /// Its name in files, with the unit; empty where a figure or the record says the
    /// same there.
    pub file: &'static str,
}

impl Column {
    /// Its word in the address.
    #[must_use]
    pub fn key(&self) -> &'static str {
        self.which.key()
    }

    /// Where it is told how it comes about, behind a hull's own address.
    #[must_use]
    pub const fn leads(&self) -> &'static str {
        use Which as W;
        match self.which {
            W::Draft => "/figures/draft_m",
            W::Air => "/figures/air_draft_m",
            W::GettingUp => "/figures/getting_up",
            W::Speed => "/figures/speed",
            W::Drift => "/figures/drift",
            W::Helm => "/figures/helm",
            W::Comfort => "/figures/comfort",
            W::Trip => "/figures/trip",
            W::Turning | W::Holding | W::Steering | W::Reverse => "/comfort",
            W::Floor | W::Well | W::Reach | W::Minutes => "/stow",
            W::Home => "/papers/strip",
            W::Whole => "/papers/shopping",
            W::Demands => "",
            W::Clears => "/figures/clear_s",
            W::Unsteady => "/figures/tender_s",
            W::Leak => "/figures/litres_gm_zero",
            W::HomeWind => "/figures/home_wind_mps",
            W::Back => "/figures/back_min",
            W::TurnBy => "/figures/turn_by_h",
            W::BackUp => "/figures/back_drive_up_min",
            W::Battery => "/figures/battery_left",
            W::Anchor => "/figures/hold_n",
            W::Hold => "/figures/hold_w",
            W::Towed => "/figures/towed_slows_mps",
            W::Bow => "/figures/bow_freeboard_mm",
            W::Lift | W::Length | W::Beam | W::Price => "/record",
            W::Upright | W::PondHeel | W::PondRoom | W::PondWater => "/pond",
        }
    }
}

/// The column of a word.
#[must_use]
pub fn column_named(key: &str) -> Option<(usize, &'static Column)> {
    COLUMNS.iter().enumerate().find(|(_, c)| c.key() == key)
}

/// What stands in one of them for a hull.
pub struct Cell {
    pub key: &'static str,
    pub label: &'static str,
    /// Where it is told how it comes about, behind the hull's own address.
    pub leads: &'static str,
    pub text: String,
    /// Its range in words; empty where there is none.
    pub range: String,
    /// What it is put in order by; `None` where it is not known.
    pub value: Option<f64>,
    /// As a file tells it; `None` where it is not known.
    pub filed: Option<Filed>,
    /// Where it stands among those that what was asked shows first; `None` for the
    /// others.
    pub first: Option<usize>,
    /// Whether it has not been worked out, since nobody asked for it.
    pub later: bool,
}

/// The columns a file tells of a hull, in the order of [`COLUMNS`]: their names, with
/// what is known.
pub fn filed(
    answered: &Answered,
    survey: &Survey,
) -> impl Iterator<Item = (&'static str, Option<Filed>)> {
    let afloat = answered.afloat.get(&survey.key);
    let told = cells(
        afloat.map(|a| &*a.assessment),
        &Worked {
            quick: afloat.map(|a| a.quick()),
            ..Worked::default()
        },
        survey,
        &answered.ranking.brief,
        System::Metric,
    );
    let both = COLUMNS.iter().zip(told);
    both.filter(|(column, _)| !column.file.is_empty())
        .map(|(column, cell)| (column.file, cell.filed))
}

/// What a file tells of a column, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Filed {
    /// One number.
    Number(f64),
    /// The middle, with the range it lies in: least, middle, most.
    Range([f64; 3]),
    /// The answer of a judgement.
    Word(&'static str),
}

/// The cells of a hull, in the order of [`COLUMNS`]; of one that cannot be floated only
/// what its record says.
#[must_use]
pub fn cells(
    a: Option<&Assessment>,
    worked: &Worked<'_>,
    survey: &Survey,
    brief: &Brief,
    system: System,
) -> Vec<Cell> {
    let of = Of {
        a,
        quick: worked.quick.unwrap_or_default(),
        beyond: worked.beyond,
        tried: worked.tried,
        survey,
        brief,
        system,
    };
    let first = first(brief);
    let cell = |c: &Column| {
        let told = of.told(c);
        Cell {
            key: c.key(),
            label: c.label,
            leads: c.leads(),
            text: if told.value.is_some() {
                told.text
            } else {
                "not known".to_owned()
            },
            range: told.range,
            value: told.value,
            filed: told.filed,
            first: first.iter().position(|which| *which == c.which),
            later: (c.which.extra().is_some() && worked.beyond.is_none())
                || (c.which.of_the_pond() && worked.tried.is_none()),
        }
    };
    COLUMNS.iter().map(cell).collect()
}

/// Columns that stand in the row itself.
const SHOWN_FIRST: usize = 4;

/// Which columns a question makes matter, those first that it asks about.
fn first(brief: &Brief) -> Vec<Which> {
    let (wishes, outing) = (&brief.wishes, &brief.outing);
    let mut out = Vec::new();
    if wishes.joints == Joints::Complain {
        out.extend([Which::GettingUp, Which::Comfort]);
    }
    if outing.trips.is_some() {
        out.push(Which::Trip);
    }
    if outing.distance.is_some() || matches!(wishes.fishing, Fishing::Covering | Fishing::Trolling)
    {
        out.extend([Which::Speed, Which::Drift]);
    }
    if wishes.fishing == Fishing::Bottom {
        out.extend([Which::Holding, Which::Drift]);
    }
    if matches!(wishes.launch, Launch::Bank | Launch::Steps) {
        out.extend([Which::Lift, Which::Length]);
    }
    if brief.posture.stands() || wishes.fishing == Fishing::Fly {
        out.push(Which::Floor);
    }
    out.extend([Which::Lift, Which::Price, Which::Draft, Which::Well]);
    let mut seen = BTreeSet::new();
    out.retain(|which| seen.insert(*which));
    out.truncate(SHOWN_FIRST);
    out
}

/// Cells in the order in which a row shows them: those that what was asked shows first.
#[must_use]
pub fn in_front(cells: &[Cell]) -> Vec<usize> {
    let first = cells
        .iter()
        .enumerate()
        .filter_map(|(n, c)| Some((c.first?, n)));
    let first: BTreeMap<usize, usize> = first.collect();
    first.into_values().collect()
}

//! Papers: what leaves the shop and hangs in the garage. One shape for all of them: a
//! sentence read first, then sections of lines, tables and words, so that page, print and
//! file show the same.

mod ashore;
mod event;
mod job;
mod lists;
mod shop;

pub use ashore::ashore_asked;

use crate::answer::Afloat;
use crate::present::draw::plan::HullPlan;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::papers::{Ashore, Facts, List, RuleSet};
use galvet_core::question::Brief;
use strum::{EnumMessage, IntoStaticStr, VariantArray};

/// Which paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, VariantArray, IntoStaticStr, EnumMessage)]
#[strum(serialize_all = "kebab-case")]
pub enum PaperKind {
    /// What to look at before a hull is bought, and a test paddle.
    #[strum(message = "Before you buy")]
    Buying,
    /// What to buy.
    #[strum(message = "Shopping list")]
    Shopping,
    /// What the shop offers.
    #[strum(message = "Quote")]
    Quote,
    /// How it is rigged.
    #[strum(message = "Rigging job sheet")]
    Rigging,
    /// How it goes back to stock.
    #[strum(message = "Back to stock")]
    Stock,
    /// How it is moved and kept.
    #[strum(message = "Moving and keeping it")]
    Transport,
    /// Onto the road.
    #[strum(message = "Load up")]
    Loading,
    /// From home to fishing and back.
    #[strum(message = "Home to fishing")]
    Strip,
    /// At the water's edge.
    #[strum(message = "Launch")]
    Launch,
    /// Through surf.
    #[strum(message = "Through surf")]
    Surf,
    /// Back ashore.
    #[strum(message = "Return and rinse")]
    Return,
    /// What is looked after when.
    #[strum(message = "Service")]
    Service,
    /// Against an event's rules.
    #[strum(message = "Event rules")]
    Event,
}

impl PaperKind {
    /// What it is for, in a line.
    #[must_use]
    pub const fn hint(self) -> &'static str {
        match self {
            Self::Buying => "what to look at on this hull, from what nobody has measured",
            Self::Shopping => "hull, what the rig lacks, what holds it; the whole price",
            Self::Quote => "for the customer: prices, options, tax, until when",
            Self::Rigging => "step by step, with places, holes and fasteners",
            Self::Stock => "what was changed, taken off again",
            Self::Transport => "lifts, roof, bed, cart, steps, storage",
            Self::Loading => "what is checked before the road",
            Self::Strip => "what comes off for the road, and on again",
            Self::Launch => "hard lines first; what this water asks of the rig",
            Self::Surf => "what is stripped outside the break",
            Self::Return => "rinse, drain, write down",
            Self::Service => "by hours and months, with tools and spares",
            Self::Event => "kept, broken or not known, line by line",
        }
    }

    /// Whether its lines are ticked.
    #[must_use]
    pub const fn is_ticked(self) -> bool {
        !matches!(
            self,
            Self::Shopping | Self::Quote | Self::Transport | Self::Event | Self::Service
        )
    }

    /// Whether its ticks die with the day: what was shut yesterday is not shut today. Work
    /// in the garage takes as long as it takes.
    #[must_use]
    pub const fn is_of_the_day(self) -> bool {
        matches!(
            self,
            Self::Loading | Self::Strip | Self::Launch | Self::Surf | Self::Return
        )
    }

    /// What they are sorted under.
    #[must_use]
    pub const fn shelf(self) -> &'static str {
        match self {
            Self::Buying | Self::Shopping | Self::Quote => "Buy",
            Self::Rigging | Self::Stock | Self::Service => "Work on it",
            Self::Transport | Self::Loading | Self::Strip => "Move it",
            Self::Launch | Self::Surf | Self::Return | Self::Event => "Go out",
        }
    }
}

/// A line to read or to tick.
#[derive(Default)]
pub struct LineView {
    /// Its word on this paper.
    pub id: String,
    pub text: String,
    pub why: String,
    /// What is known of it.
    pub known: String,
    /// Facts behind it, each with its name.
    pub facts: Vec<(&'static str, String)>,
    pub warns: String,
    pub hard: bool,
    pub red: bool,
    /// Its number in the drawing; empty for none.
    pub number: String,
}

/// A table.
pub struct TableView {
    pub heads: Vec<&'static str>,
    /// Cells; the first is the row's name.
    pub rows: Vec<Vec<String>>,
    /// The last row, set apart.
    pub sum: Vec<String>,
}

/// What stands in a section.
#[derive(Default)]
pub struct Section {
    pub title: String,
    pub words: Vec<String>,
    pub lines: Vec<LineView>,
    pub table: Option<TableView>,
    /// Whether each paper shows a note to be filled in by hand beneath.
    pub notes: bool,
}

/// A mark on the drawing: place, number.
pub struct Mark {
    pub x: String,
    pub y: String,
    pub number: String,
}

/// A hull from above with numbers, and how far each is from the bow.
pub struct Drawn {
    pub plan: HullPlan,
    pub marks: Vec<Mark>,
    /// A tape along it from the bow: place, word at every metre.
    pub tape: Vec<(String, String)>,
    /// Where the tape lies.
    pub tape_y: String,
    pub words: String,
}

/// A whole paper.
pub struct Paper {
    pub kind: PaperKind,
    pub title: String,
    /// Read first.
    pub lead: String,
    /// Beside it, in one line: what is red before anything is ticked.
    pub red: String,
    pub drawn: Option<Drawn>,
    pub sections: Vec<Section>,
    pub caution: &'static str,
}

/// What a paper is asked with beside the hull and the question.
#[derive(Default)]
pub struct Asked<'a> {
    /// What carries it and where it goes.
    pub ashore: Ashore,
    /// Rules it is held against; none where nobody chose.
    pub events: Vec<&'a RuleSet>,
    /// The shop's tax, share of the price, and days a quote holds.
    pub quote: shop::Terms,
}

pub use shop::Terms;

/// Draws a paper up.
#[must_use]
pub fn paper(
    kind: PaperKind,
    afloat: &Afloat,
    brief: &Brief,
    asked: &Asked<'_>,
    system: System,
) -> Paper {
    let facts = Facts::of(&afloat.assessment, brief, system);
    match kind {
        PaperKind::Buying => lists::buying(&facts),
        PaperKind::Launch => lists::launch(&facts),
        PaperKind::Loading => lists::listed(&facts, kind, List::Loading),
        PaperKind::Surf => lists::listed(&facts, kind, List::Surf),
        PaperKind::Return => lists::listed(&facts, kind, List::Return),
        PaperKind::Service => lists::service_plan(&facts),
        PaperKind::Rigging => job::rigging(&facts, afloat),
        PaperKind::Stock => job::stock(&facts),
        PaperKind::Shopping => shop::list(&facts),
        PaperKind::Quote => shop::quote(&facts, &asked.quote),
        PaperKind::Transport => ashore::moving(&facts, &asked.ashore),
        PaperKind::Strip => ashore::home_to_fishing(&facts),
        PaperKind::Event => event::checked(&facts, &asked.events),
    }
}

/// A paper of a kind with nothing on it yet.
fn blank(kind: PaperKind, lead: String, caution: &'static str) -> Paper {
    Paper {
        kind,
        title: kind.label().to_owned(),
        lead,
        red: String::new(),
        drawn: None,
        sections: Vec::new(),
        caution,
    }
}

/// Minutes as people say them.
fn minutes(minutes: f64) -> String {
    let whole = (minutes / 5.0).round() * 5.0;
    if minutes < 60.0 {
        return format!(
            "{:.0}\u{a0}min",
            if minutes < 20.0 {
                minutes.round()
            } else {
                whole
            }
        );
    }
    let hours = (whole / 60.0).floor();
    format!("{hours:.0}\u{a0}h\u{a0}{:02.0}", whole - 60.0 * hours)
}

/// One or several of a thing: "1 hole", "3 holes".
fn some(n: usize, one: &str, many: &str) -> String {
    format!("{n} {}", if n == 1 { one } else { many })
}

/// kg, in the reader's units.
fn mass(system: System, kg: f64) -> String {
    system.text(Dimension::Mass, kg, 0)
}

/// m, in the reader's units.
fn length(system: System, m: f64) -> String {
    system.text(Dimension::Length, m, 2)
}

//! A reason against a hull: its kind, its size, its words.

use crate::base::{Dimension, System, words};
use crate::figures::Remedy;
use crate::plausible::Target;
use crate::stow::Unplaced;

words! {
/// Kinds of reasons, gravest first.
pub enum Code {
    /// No body to float: a dimension is missing, or sections make none.
    CannotFloat,
    /// No stable heel before water runs in.
    Capsizes,
    /// Unstable upright, lies at an angle.
    Lolls,
    /// Goes down by an end.
    Founders,
    /// Its rim lies under water at rest.
    Swamps,
    /// The load is more than the hull floats.
    Sinks,
    /// Hardly any lean is answered.
    TooTender,
    /// Counted load above the rated capacity.
    OverLabel,
    /// Floor nearer the water than this water allows.
    TooWet,
    /// Gunwale nearer the water than this water allows.
    TooLow,
    /// Not steady enough to stand in.
    StaySeated,
    /// A deck that does not drain on water that demands it.
    DoesNotDrain,
    /// Too deep for the water, and the drive does not lift.
    TooDeep,
    /// Does not do what the water asks, where only what does is wanted.
    WaterAsks,
    /// Longer than the storage.
    TooLong,
    /// Heavier than can be lifted.
    TooHeavy,
    /// With bars and straps more than the car's roof bears.
    OverRoof,
    /// Stands out too far behind the truck's bed.
    OverBed,
    /// Dearer than the budget.
    OverBudget,
    /// With what its rig lacks dearer than the whole may be.
    WholeOverBudget,
    /// Breaks a rule of the event that disqualifies.
    EventRules,
    /// Fewer seats than asked for.
    FewSeats,
    /// Less track than asked for.
    ShortTrack,
    /// Not driven as asked.
    NotDriven,
    /// Holes are needed where none may be drilled.
    NeedsHoles,
    /// More people than seats.
    NoSeat,
    /// Something that must come finds no place.
    DoesNotFit,
}
}

/// A reason with its size.
#[derive(Debug, Clone, PartialEq)]
pub struct Reason {
    /// What kind.
    pub code: Code,
    /// By how much, SI (angles in degrees); 0 where there is no amount.
    pub by: f64,
    /// What `by` measures.
    pub dimension: Dimension,
    /// A second amount in mass, kg, where shedding load would help.
    pub shed: Option<f64>,
    /// Share of the plausible shapes it is so in, where it is not most of them.
    pub share: Option<f64>,
    /// What to measure to know.
    pub measure: Option<Target>,
    /// Whether `by` is how far the load lies to one side, not GM that is missing.
    pub aside: bool,
    /// Sampling error of `share`, where it lies that near the line at which it rules
    /// out.
    pub near: Option<f64>,
    /// What is missing or wrong, where there is no amount.
    pub detail: String,
    /// The weight the reason goes by, kg, and how it is known.
    pub weight: Option<(f64, &'static str)>,
    /// What finds no place.
    pub unplaced: Vec<Unplaced>,
    /// What would give each of those its place, cheapest: as long as `unplaced`.
    pub remedies: Vec<Option<Remedy>>,
}

impl Reason {
    /// A reason with an amount.
    #[must_use]
    pub const fn by(code: Code, by: f64, dimension: Dimension) -> Self {
        Self {
            code,
            by,
            dimension,
            shed: None,
            share: None,
            measure: None,
            aside: false,
            near: None,
            weight: None,
            detail: String::new(),
            unplaced: Vec::new(),
            remedies: Vec::new(),
        }
    }

    /// A reason without an amount.
    #[must_use]
    pub fn plain(code: Code, detail: impl Into<String>) -> Self {
        Self {
            detail: detail.into(),
            ..Self::by(code, 0.0, Dimension::Ratio)
        }
    }

    /// Plain words in the reader's units, by how much first.
    #[must_use]
    pub fn text(&self, system: System) -> String {
        if let Some(share) = self.share {
            return may(self.code, share, self.measure, self.near);
        }
        let decimals = match self.dimension {
            Dimension::Length | Dimension::Ratio => 2,
            Dimension::ShortLength => 1,
            _ => 0,
        };
        // "0 mm too wet" would puzzle: show at least one unit of the last digit.
        let by = system.text(self.dimension, self.by.max(self.least()), decimals);
        let weight = self.weight.map_or(String::new(), |(kg, how)| {
            format!("{} {how}: ", system.text(Dimension::Mass, kg, 0))
        });
        let shed = self.shed.map_or(String::new(), |kg| {
            format!(
                ": needs {} less",
                system.text(Dimension::Mass, kg.max(1.0), 0)
            )
        });
        match self.code {
            Code::CannotFloat => format!("cannot be floated: {}", self.detail),
            Code::Capsizes if self.aside => {
                format!("capsizes: what lies aboard is {by} too far to one side to be answered")
            }
            Code::Capsizes => format!("capsizes: GM is {by} short of staying upright"),
            Code::Lolls => format!("lolls: does not stay upright, lies over at {by}"),
            Code::Founders if self.by > 0.0 => {
                format!("founders: an end goes under, {by} too much aboard")
            }
            Code::Founders => "founders: an end goes under".to_owned(),
            Code::Swamps => format!("swamps: its rim lies {by} under the water at rest"),
            Code::Sinks => format!("sinks: {by} more than the whole hull floats"),
            Code::TooTender => format!(
                "too tender to use: a brief lean of {} tips it",
                system.text(self.dimension, self.by, 1)
            ),
            Code::OverLabel => format!("over the label: needs {by} less"),
            // At the middle load it just clears it, and the margin is short all the same.
            Code::TooWet if self.by == 0.0 => format!("too wet at the floor{shed}"),
            Code::TooLow if self.by == 0.0 => format!("gunwale too near the water{shed}"),
            Code::TooWet => format!("{by} too wet at the floor{shed}"),
            Code::TooLow => format!("gunwale {by} too near the water{shed}"),
            Code::StaySeated => {
                format!("stay seated: standing support {by} short{}", self.detail)
            }
            Code::DoesNotDrain | Code::NotDriven | Code::EventRules => self.detail.clone(),
            Code::WaterAsks if self.by > 0.0 => {
                format!(
                    "this water asks \u{201c}{}\u{201d}: {by} too much",
                    self.detail
                )
            }
            Code::WaterAsks => format!("this water asks \u{201c}{}\u{201d}", self.detail),
            Code::NeedsHoles if self.by < 1.5 => "needs one hole drilled".to_owned(),
            Code::NeedsHoles => format!("needs {:.0} holes drilled", self.by),
            Code::TooDeep => format!("{by} too deep for this water, and the drive does not lift"),
            Code::TooLong => format!("{by} too long for the store"),
            Code::TooHeavy => format!("{weight}{by} too heavy to lift"),
            Code::OverRoof => {
                format!("{weight}{by} more than the roof bears, bars and straps counted")
            }
            Code::OverBed => format!("{by} too long for the truck's bed and what may stand out"),
            Code::OverBudget => format!("{by} over the budget"),
            Code::WholeOverBudget => {
                format!("with what its rig lacks {by} over what the whole may cost")
            }
            Code::FewSeats if self.by < 1.5 => "one seat too few".to_owned(),
            Code::FewSeats => format!("{:.0} seats too few", self.by),
            Code::ShortTrack => format!("{by} of track short"),
            Code::NoSeat if self.by < 1.5 => "one seat too few for who comes along".to_owned(),
            Code::NoSeat => format!("{:.0} seats too few for who comes along", self.by),
            Code::DoesNotFit => {
                let all = self.unplaced.iter().enumerate().map(|(i, u)| {
                    let remedy = match self.remedies.get(i) {
                        Some(Some(remedy)) => format!("; {}", remedy.text(system)),
                        Some(None) => "; no single change gives it a place".to_owned(),
                        None => String::new(),
                    };
                    u.text(system) + &remedy
                });
                let all: Vec<String> = all.collect();
                format!("does not fit: {}", all.join("; "))
            }
        }
    }

    fn least(&self) -> f64 {
        match self.dimension {
            Dimension::FineLength | Dimension::ShortLength => 0.001,
            Dimension::Mass | Dimension::Money | Dimension::Angle => 1.0,
            Dimension::Ratio | Dimension::Length => 0.01,
            _ => 0.0,
        }
    }
}

/// "may capsize: in 34 % of its plausible shapes; measure … to know"; with the sampling
/// error where the line at which it rules out lies within it.
#[must_use]
pub fn may(code: Code, share: f64, measure: Option<Target>, near: Option<f64>) -> String {
    let what = match code {
        Code::Capsizes => "capsize",
        Code::Lolls => "loll, lying over instead of upright",
        Code::Founders => "founder, an end going under",
        Code::Swamps => "swamp, the rim under water",
        _ => "sink",
    };
    // Never "in 0 %" of a danger.
    let percent = (share * 100.0).ceil().max(1.0);
    let know = measure.map_or(String::new(), |t| format!("; {} to know", t.instruction()));
    let error = near.map_or(String::new(), |e| {
        format!(" (± {:.0}: near the line)", (100.0 * e).ceil())
    });
    format!("may {what}: in {percent:.0}\u{a0}% of its possible shapes{error}{know}")
}

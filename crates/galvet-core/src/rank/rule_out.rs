//! Why a hull is out of the question, and by how much.

use crate::assess::Assessment;
use crate::brief::Posture;
use crate::evaluate::WaterLimit;
use crate::hull::scupper::drains;
use crate::hull::{Construction, Measure, Recess};
use crate::quantity::Quantity;
use crate::units::{Dimension, System};

/// Standing support below which an angler who stands is told to stay seated.
/// Guide band: handbook, chapter 2.
pub const STAY_SEATED: f64 = 0.6;

/// Kinds of reasons.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Code {
    /// A dimension is missing: no body to float.
    NotKnown,
    /// The load is more than the hull floats.
    Sinks,
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
    /// Longer than the storage.
    TooLong,
    /// Heavier than can be lifted.
    TooHeavy,
    /// Dearer than the budget.
    OverBudget,
}

impl Code {
    /// The word used in JSON.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::NotKnown => "not-known",
            Self::Sinks => "sinks",
            Self::OverLabel => "over-label",
            Self::TooWet => "too-wet",
            Self::TooLow => "too-low",
            Self::StaySeated => "stay-seated",
            Self::DoesNotDrain => "does-not-drain",
            Self::TooDeep => "too-deep",
            Self::TooLong => "too-long",
            Self::TooHeavy => "too-heavy",
            Self::OverBudget => "over-budget",
        }
    }
}

/// A reason with its size.
#[derive(Debug, Clone, PartialEq)]
pub struct Reason {
    /// What kind.
    pub code: Code,
    /// By how much, SI; 0 where there is no amount.
    pub by: f64,
    /// What `by` measures.
    pub dimension: Dimension,
    /// A second amount in mass, kg, where shedding load would help.
    pub shed: Option<f64>,
    /// What is missing or wrong, where there is no amount.
    pub detail: &'static str,
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
            detail: "",
        }
    }

    /// A reason without an amount.
    #[must_use]
    pub const fn plain(code: Code, detail: &'static str) -> Self {
        Self {
            code,
            by: 0.0,
            dimension: Dimension::Ratio,
            shed: None,
            detail,
        }
    }

    /// Plain words in the reader's units, by how much first.
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let decimals = match self.dimension {
            Dimension::Length | Dimension::Ratio => 2,
            _ => 0,
        };
        // "0 mm too wet" would puzzle: show at least one unit of the last digit.
        let by = system.text(self.dimension, self.by.max(self.least()), decimals);
        let shed = self.shed.map_or(String::new(), |kg| {
            format!(
                ": needs {} less",
                system.text(Dimension::Mass, kg.max(1.0), 0)
            )
        });
        match self.code {
            Code::NotKnown => format!("cannot be floated: the {} is not known", self.detail),
            Code::Sinks => format!("sinks: {by} more than the hull floats"),
            Code::OverLabel => format!("over the label: needs {by} less"),
            Code::TooWet => format!("{by} too wet at the floor{shed}"),
            Code::TooLow => format!("gunwale {by} too near the water{shed}"),
            Code::StaySeated => {
                format!("stay seated: standing support {by} short of {STAY_SEATED}")
            }
            Code::DoesNotDrain => self.detail.to_owned(),
            Code::TooDeep => format!("{by} too deep for this water, and the drive does not lift"),
            Code::TooLong => format!("{by} too long for the store"),
            Code::TooHeavy => format!("{by} too heavy to lift"),
            Code::OverBudget => format!("{by} over the budget"),
        }
    }

    fn least(&self) -> f64 {
        match self.dimension {
            Dimension::FineLength => 0.001,
            Dimension::Mass | Dimension::Money => 1.0,
            Dimension::Ratio | Dimension::Length => 0.01,
            _ => 0.0,
        }
    }
}

/// Everything that rules a hull out, gravest first.
#[must_use]
pub fn reasons(assessment: &Assessment<'_>) -> Vec<Reason> {
    let mut found = afloat(assessment);
    found.extend(suitable(assessment));
    found.extend(must_haves(assessment));
    found
}

fn afloat(assessment: &Assessment<'_>) -> Vec<Reason> {
    let mut found = Vec::new();
    let setup = &assessment.setup;
    let median = |q| assessment.median(q);
    if let Some(margin) = median(Quantity::LabelMargin)
        && margin < 0.0
    {
        found.push(Reason::by(Code::OverLabel, -margin, Dimension::Mass));
    }
    if let Some(margin) = median(Quantity::WaterlineMargin)
        && margin < 0.0
    {
        let want = setup.least_clearance();
        let (code, have) = match setup.limit {
            WaterLimit::Floor => (Code::TooWet, median(Quantity::FloorAboveWater)),
            WaterLimit::Gunwale => (Code::TooLow, median(Quantity::Freeboard)),
        };
        let short = have.map_or(0.0, |have| want - have).max(0.0);
        let mut reason = Reason::by(code, short, Dimension::FineLength);
        reason.shed = Some(-margin);
        found.push(reason);
    }
    found
}

fn suitable(assessment: &Assessment<'_>) -> Vec<Reason> {
    let mut found = Vec::new();
    let setup = &assessment.setup;
    let (survey, brief) = (setup.survey, setup.brief);
    if brief.posture == Posture::Stands
        && let Some(support) = assessment.median(Quantity::StandingSupport)
        && support < STAY_SEATED
    {
        let short = STAY_SEATED - support;
        found.push(Reason::by(Code::StaySeated, short, Dimension::Ratio));
    }
    if brief.water.must_drain {
        found.extend(undrained(assessment));
    }
    let draft = assessment.median(Quantity::Draft).unwrap_or(0.0);
    let deepest = if survey.drive_lifts {
        draft
    } else {
        assessment.median(Quantity::DraftWithDrive).unwrap_or(draft)
    };
    if deepest > brief.water.least_depth {
        let by = deepest - brief.water.least_depth;
        found.push(Reason::by(Code::TooDeep, by, Dimension::FineLength));
    }
    found
}

/// Why water in the cockpit would stay there, where it would.
fn undrained(assessment: &Assessment<'_>) -> Option<Reason> {
    let setup = &assessment.setup;
    let scuppers = setup.brief.scuppers;
    let above = assessment.median(Quantity::FloorAboveWater).unwrap_or(0.0);
    let detail = match setup.survey.construction {
        Construction::Board => return None,
        Construction::SitInside => "no scuppers: a swamped cockpit cannot drain on this water",
        Construction::SitOnTop if scuppers.holds_water() => {
            "plugged scuppers cannot drain: this water asks for open ones"
        }
        // With open scuppers a floor under water is said to be too wet already.
        Construction::SitOnTop if setup.limit == WaterLimit::Floor => return None,
        Construction::SitOnTop if drains(&scuppers.fitted(), Recess::Cockpit, above) => {
            return None;
        }
        Construction::SitOnTop => {
            "valves cannot drain it: the floor lies under the water at this load"
        }
    };
    Some(Reason::plain(Code::DoesNotDrain, detail))
}

fn must_haves(assessment: &Assessment<'_>) -> Vec<Reason> {
    let survey = assessment.setup.survey;
    let must = assessment.setup.brief.must;
    let lift = survey
        .value(Measure::BareWeight)
        .or(survey.value(Measure::FittedWeight));
    [
        (
            Code::TooLong,
            survey.value(Measure::Length),
            must.longest,
            Dimension::Length,
        ),
        (Code::TooHeavy, lift, must.heaviest_lift, Dimension::Mass),
        (
            Code::OverBudget,
            survey.value(Measure::Price),
            must.budget,
            Dimension::Money,
        ),
    ]
    .into_iter()
    .filter_map(|(code, have, most, dimension)| {
        let over = have? - most?;
        (over > 0.0).then(|| Reason::by(code, over, dimension))
    })
    .collect()
}

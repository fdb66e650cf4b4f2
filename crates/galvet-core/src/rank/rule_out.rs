//! Why a hull is out of the question, and by how much.

use super::peril::{self, Peril};
use crate::base::{Dimension, Keyed, System, words};
use crate::crew::Posture;
use crate::figures::{Assessment, Quantity, Range, WaterLimit};
use crate::guide::Guide;
use crate::hull::{Construction, Measure, Recess, drains};
use crate::plausible::Target;
use crate::question::Brief;

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
    /// Longer than the storage.
    TooLong,
    /// Heavier than can be lifted.
    TooHeavy,
    /// Dearer than the budget.
    OverBudget,
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
    /// What is missing or wrong, where there is no amount.
    pub detail: String,
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
            detail: String::new(),
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
            return may(self.code, share, self.measure);
        }
        let decimals = match self.dimension {
            Dimension::Length | Dimension::Ratio => 2,
            Dimension::ShortLength => 1,
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
            Code::CannotFloat => format!("cannot be floated: {}", self.detail),
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
            Code::TooWet => format!("{by} too wet at the floor{shed}"),
            Code::TooLow => format!("gunwale {by} too near the water{shed}"),
            Code::StaySeated => format!("stay seated: standing support {by} short"),
            Code::DoesNotDrain => self.detail.clone(),
            Code::TooDeep => format!("{by} too deep for this water, and the drive does not lift"),
            Code::TooLong => format!("{by} too long for the store"),
            Code::TooHeavy => format!("{by} too heavy to lift"),
            Code::OverBudget => format!("{by} over the budget"),
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

/// "may capsize: in 34 % of her plausible shapes; measure … to know".
#[must_use]
pub fn may(code: Code, share: f64, measure: Option<Target>) -> String {
    let what = match code {
        Code::Capsizes => "capsize",
        Code::Lolls => "loll, lying over instead of upright",
        Code::Founders => "founder, an end going under",
        Code::Swamps => "swamp, the rim under water",
        _ => "sink",
    };
    // Never "in 0 %" of a danger.
    let percent = (share * 100.0).ceil().max(1.0);
    let know = measure.map_or(String::new(), |t| {
        format!("; measure {} to know", t.label())
    });
    format!("may {what}: in {percent:.0}\u{a0}% of her plausible shapes{know}")
}

/// Everything that rules a hull out, gravest first.
#[must_use]
pub fn reasons(assessment: &Assessment, brief: &Brief, peril: Option<&Peril>) -> Vec<Reason> {
    let mut found: Vec<Reason> = peril
        .and_then(|p| peril::reason(assessment, p))
        .into_iter()
        .collect();
    if found.is_empty() {
        found.extend(tender(assessment));
    }
    found.extend(laden(assessment));
    found.extend(suitable(assessment, brief));
    found.extend(must_haves(assessment, brief));
    found.sort_by_key(|r| r.code);
    found
}

/// A hull that answers hardly any lean: shapes that answer none count as none.
fn tender(assessment: &Assessment) -> Option<Reason> {
    let weights = &assessment.setup.posterior.weights;
    let rooms = assessment
        .sample
        .iter()
        .map(|v| v.get(Quantity::LeanRoom).unwrap_or(0.0));
    let room = Range::of(rooms.zip(weights.iter().copied()))?.p50;
    let least = assessment.setup.guides()[Guide::TooTender];
    (room < least).then(|| Reason::by(Code::TooTender, room, Dimension::ShortLength))
}

fn laden(assessment: &Assessment) -> Vec<Reason> {
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
            WaterLimit::Floor | WaterLimit::Deck => (Code::TooWet, Quantity::FloorAboveWater),
            WaterLimit::Gunwale => (Code::TooLow, Quantity::Freeboard),
        };
        let short = median(have).map_or(0.0, |have| want - have).max(0.0);
        let mut reason = Reason::by(code, short, Dimension::FineLength);
        reason.shed = Some(-margin);
        found.push(reason);
    }
    found
}

fn suitable(assessment: &Assessment, brief: &Brief) -> Vec<Reason> {
    let mut found = Vec::new();
    let setup = &assessment.setup;
    let stay_seated = setup.guides()[Guide::StaySeated];
    if brief.posture == Posture::Stands
        && let Some(support) = assessment.median(Quantity::StandingSupport)
        && support < stay_seated
    {
        let short = stay_seated - support;
        found.push(Reason::by(Code::StaySeated, short, Dimension::Ratio));
    }
    if brief.water.must_drain {
        found.extend(undrained(assessment, brief));
    }
    let drive = if setup.posterior.survey.drive_lifts {
        None
    } else {
        assessment.median(Quantity::DraftWithDrive)
    };
    // A hull that finds no rest has no draft; that is said already.
    if let Some(deepest) = drive.or(assessment.median(Quantity::Deepest))
        && deepest > brief.water.least_depth
    {
        let by = deepest - brief.water.least_depth;
        found.push(Reason::by(Code::TooDeep, by, Dimension::FineLength));
    }
    found
}

/// Why water in the cockpit would stay there, where it would.
fn undrained(assessment: &Assessment, brief: &Brief) -> Option<Reason> {
    let setup = &assessment.setup;
    let scuppers = brief.scuppers;
    let detail = match setup.posterior.survey.construction {
        Construction::Board => return None,
        Construction::SitInside => "no scuppers: a swamped cockpit cannot drain on this water",
        Construction::SitOnTop if scuppers.holds_water() => {
            "plugged scuppers cannot drain: this water asks for open ones"
        }
        // With open scuppers a floor under water is said to be too wet already.
        Construction::SitOnTop if setup.limit == WaterLimit::Floor => return None,
        Construction::SitOnTop => {
            let above = assessment.median(Quantity::FloorAboveWater)?;
            if drains(&scuppers.fitted(), Recess::Cockpit, above) {
                return None;
            }
            "valves cannot drain it: the floor lies under the water at this load"
        }
    };
    Some(Reason::plain(Code::DoesNotDrain, detail))
}

/// What a limit is held against, where it is known.
fn limited(
    assessment: &Assessment,
    brief: &Brief,
) -> [(Code, Option<f64>, Option<f64>, Dimension); 3] {
    let survey = &assessment.setup.posterior.survey;
    let must = brief.must;
    let stripped = survey
        .value(Measure::BareWeight)
        .or(survey.value(Measure::FittedWeight));
    [
        (
            Code::TooLong,
            Some(assessment.setup.posterior.form.length()),
            must.longest,
            Dimension::Length,
        ),
        (
            Code::TooHeavy,
            stripped,
            must.heaviest_lift,
            Dimension::Mass,
        ),
        (
            Code::OverBudget,
            survey.value(Measure::Price),
            must.budget,
            Dimension::Money,
        ),
    ]
}

fn must_haves(assessment: &Assessment, brief: &Brief) -> Vec<Reason> {
    limited(assessment, brief)
        .into_iter()
        .filter_map(|(code, have, most, dimension)| {
            let over = have? - most?;
            (over > 0.0).then(|| Reason::by(code, over, dimension))
        })
        .collect()
}

/// Limits asked for that the record does not let anybody check.
#[must_use]
pub fn unchecked(assessment: &Assessment, brief: &Brief) -> Vec<String> {
    limited(assessment, brief)
        .into_iter()
        .filter(|(_, have, most, _)| have.is_none() && most.is_some())
        .map(|(code, ..)| {
            let what = match code {
                Code::OverBudget => "no price is known: it may be over the budget",
                _ => "no weight is known: it may be too heavy to lift",
            };
            what.to_owned()
        })
        .collect()
}

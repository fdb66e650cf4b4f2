//! An event's kit rules, as data. What they say of a rig on a hull is found in the papers.

use crate::base::words;
use crate::gear::{Fixing, Serves};

words! {
/// What a rule is about.
#[derive(Default)]
pub enum RuleKind {
    /// How many of something are aboard.
    #[default]
    Count,
    /// Length of the hull, m.
    #[strum(message = "length of the hull")]
    HullLength,
    /// Beam of the hull, m.
    #[strum(message = "beam of the hull")]
    HullBeam,
    /// Mass of the hull with seat, drive and rudder, kg.
    #[strum(message = "weight of the hull, fitted")]
    FittedMass,
    /// Mass of the kit, kg.
    #[strum(message = "weight of the kit")]
    KitMass,
    /// Power of all motors, W.
    #[strum(message = "power of the motors")]
    MotorPower,
    /// Something must be aboard.
    #[strum(message = "must be aboard")]
    Require,
    /// Something must be worn.
    #[strum(message = "must be worn")]
    Worn,
    /// Something must not be aboard.
    #[strum(message = "must not be aboard")]
    Bar,
    /// At most one of several stands on the track ahead.
    #[strum(message = "one of these on the track ahead")]
    OneOf,
    /// Length of something, m.
    #[strum(message = "length of a thing")]
    Length,
    /// Height of something, all of it together, m.
    #[strum(message = "height of a thing")]
    Height,
    /// What a thing holds inside, m³.
    #[strum(message = "inside of a thing")]
    Inside,
    /// Something must be fixed.
    #[strum(message = "must be fixed")]
    Fixed,
    /// Something must be on a line.
    #[strum(message = "must be tethered")]
    Tethered,
    /// Printed for those who run it; nobody can read it off a rig.
    #[strum(message = "printed, not checked")]
    Conduct,
}

/// Which way a limit holds.
#[derive(Default)]
pub enum Op {
    /// So much and no more.
    #[default]
    #[strum(message = "at most")]
    AtMost,
    /// So much or more.
    #[strum(message = "at least")]
    AtLeast,
}

/// What breaking it does.
#[derive(Default)]
pub enum Effect {
    /// Out.
    #[default]
    #[strum(message = "disqualifies")]
    Disqualify,
    /// Costs points.
    #[strum(message = "costs points")]
    Penalty,
    /// Is told.
    #[strum(message = "is noted")]
    Note,
}

/// How it is proved at the event.
#[derive(Default)]
pub enum Proof {
    /// By the record.
    #[default]
    #[strum(message = "by the record")]
    Record,
    /// By a photo.
    #[strum(message = "by a photo")]
    Photo,
    /// By a steward.
    #[strum(message = "by a steward")]
    Steward,
}
}

/// One rule.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Rule {
    /// Its own word in its set.
    pub id: String,
    /// As it is printed.
    pub text: String,
    /// What it is about.
    pub kind: RuleKind,
    /// Things it is about: any of them counts.
    pub of: Vec<Serves>,
    /// Only those held so; empty for all.
    pub held: Vec<Fixing>,
    /// Only those at least so long, m.
    pub from_length: Option<f64>,
    /// Only those shorter than this, m.
    pub to_length: Option<f64>,
    /// Which way the limit holds.
    pub op: Op,
    /// The limit, SI; a number for counts.
    pub value: Option<f64>,
    /// When, in words; printed.
    pub when: String,
    /// What breaking it does.
    pub effect: Effect,
    /// How it is proved.
    pub proof: Proof,
}

/// Rules of one event.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct RuleSet {
    /// Stable key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// The rules.
    pub rules: Vec<Rule>,
    /// Anything else.
    pub note: String,
}

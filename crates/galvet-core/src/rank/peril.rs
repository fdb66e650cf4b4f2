//! What does not float upright: how sure that is, and what to measure to know.

use super::reason::{Code, Reason};
use crate::base::{Dimension, Keyed};
use crate::figures::{Assessment, Range};
use crate::float::Fate;
use crate::guide::Guide;
use crate::plausible::Target;

/// A fate other than rest that some of a hull's plausible shapes meet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Peril {
    /// Which.
    pub code: Code,
    /// Share of the plausible shapes that find no upright rest, by whichever
    /// fate, 0-1.
    pub share: f64,
    /// What to measure to know.
    pub measure: Option<Target>,
    /// The share's sampling error, where the line at which it rules out lies within it.
    pub near: Option<f64>,
}

impl Peril {
    /// Its words: see [`may`](super::may).
    #[must_use]
    pub fn text(&self) -> String {
        super::may(self.code, self.share, self.measure, self.near)
    }
}

fn code(fate: &Fate) -> Option<Code> {
    match fate {
        Fate::Rests { .. } => None,
        Fate::Lolls { .. } => Some(Code::Lolls),
        Fate::Capsizes { .. } => Some(Code::Capsizes),
        Fate::Swamps { .. } => Some(Code::Swamps),
        Fate::Founders { .. } => Some(Code::Founders),
        Fate::Sinks { .. } => Some(Code::Sinks),
    }
}

/// The peril that is said beside a place: `None` where fewer shapes meet it than the
/// guide's line.
pub(super) fn beside(assessment: &Assessment, peril: Option<Peril>) -> Option<Peril> {
    let line = assessment.setup.guides()[Guide::SaidInRed];
    peril.filter(|p| is_said(p.share, line))
}

/// Whether a share is at the line in whole percent, in which both are read: one shape of
/// 128 is 0.8 %, and at a line of 1 % is said.
fn is_said(share: f64, line: f64) -> bool {
    share >= line || (100.0 * share).round() >= 100.0 * line
}

/// The peril most of the unresting shapes meet; `None` where all rest.
pub(super) fn peril(assessment: &Assessment) -> Option<Peril> {
    let share_of = |wanted: Code| assessment.share(|f| code(f) == Some(wanted));
    let most = |weigh: &dyn Fn(Code) -> f64| {
        [
            Code::Capsizes,
            Code::Lolls,
            Code::Founders,
            Code::Swamps,
            Code::Sinks,
        ]
        .into_iter()
        .filter(|&c| weigh(c) > 0.0)
        .max_by(|&a, &b| weigh(a).total_cmp(&weigh(b)))
    };
    let all = assessment.share(|f| !f.is_rest());
    let unsold = assessment.share_unsold(|f| !f.is_rest());
    // That a hull is sold may sharpen the picture; where more than half of its
    // shapes would go over without it, it does not lift the hull.
    let alone = unsold > 0.5 && unsold > all;
    let share = if alone { unsold } else { all };
    let code = if alone {
        most(&|c| assessment.share_unsold(|f| code(f) == Some(c)))
    } else {
        most(&share_of)
    }?;
    Some(Peril {
        code,
        share,
        measure: what_would_tell(assessment),
        near: nearly(assessment, share),
    })
}

/// The measurement along which resting and unresting shapes differ most.
fn what_would_tell(assessment: &Assessment) -> Option<Target> {
    let posterior = &assessment.setup.posterior;
    let (weights, seat) = (&posterior.unsold, assessment.setup.brief.seat);
    let down: Vec<f64> = assessment
        .fates
        .iter()
        .map(|f| if f.is_rest() { 0.0 } else { 1.0 })
        .collect();
    let mean = |values: &dyn Fn(usize) -> f64| -> f64 {
        weights.iter().enumerate().map(|(i, w)| w * values(i)).sum()
    };
    let share = mean(&|i| down[i]);
    let apart = |target: Target| {
        let j = target.coordinate(seat);
        let middle = mean(&|i| posterior.normals[i][j]);
        let spread = mean(&|i| (posterior.normals[i][j] - middle).powi(2)).sqrt();
        let joint = mean(&|i| (posterior.normals[i][j] - middle) * (down[i] - share));
        joint.abs() / spread.max(1e-9)
    };
    Target::ALL
        .iter()
        .copied()
        .filter(|t| !t.is_known(posterior, seat))
        .max_by(|&a, &b| apart(a).total_cmp(&apart(b)))
}

/// The reason a peril rules a hull out for; `None` where it is rare enough.
pub(super) fn reason(assessment: &Assessment, peril: &Peril) -> Option<Reason> {
    let guides = assessment.setup.guides();
    if peril.share <= guides[Guide::MayNotRest] {
        return None;
    }
    let (by, dimension) = amount(assessment, peril.code);
    let aside = (peril.code == Code::Capsizes && by <= 0.0).then(|| sideways(assessment));
    Some(Reason {
        by: aside.unwrap_or(by),
        aside: aside.is_some(),
        near: peril.near,
        share: (peril.share < 0.5).then_some(peril.share),
        measure: peril.measure,
        ..Reason::by(peril.code, by, dimension)
    })
}

/// How far what lies aboard is off the middle, beyond what the longest righting arm
/// answers, m, in the middle of the shapes that capsize for it.
fn sideways(assessment: &Assessment) -> f64 {
    let unsold = &assessment.setup.posterior.unsold;
    let met = assessment.fates.iter().zip(unsold);
    let outside = met.filter_map(|(fate, &w)| match fate {
        Fate::Capsizes { outside, .. } => Some((*outside, w.max(1e-12))),
        _ => None,
    });
    Range::of(outside).map_or(0.0, |r| r.p50)
}

/// The sampling error of a share of shapes, where the line at which it rules out lies
/// within it: another sample might have it on the other side.
fn nearly(assessment: &Assessment, share: f64) -> Option<f64> {
    let line = assessment.setup.guides()[Guide::MayNotRest];
    let size = assessment.effective_size().max(1.0);
    // A low-discrepancy sample errs less than this; it is an upper bound.
    let error = (share * (1.0 - share) / size).sqrt();
    ((share - line).abs() < error).then_some(error)
}

/// How much is wrong: the median over the shapes that meet this fate.
fn amount(assessment: &Assessment, wanted: Code) -> (f64, Dimension) {
    let unsold = &assessment.setup.posterior.unsold;
    let met = assessment.fates.iter().zip(unsold);
    let middle = |f: &dyn Fn(&Fate) -> f64| {
        let sample = met
            .clone()
            .filter(|(fate, _)| code(fate) == Some(wanted))
            .map(|(fate, &w)| (f(fate), w.max(1e-12)));
        Range::of(sample).map_or(0.0, |r| r.p50)
    };
    match wanted {
        Code::Lolls => (
            middle(&|f| match f {
                Fate::Lolls { angle, .. } => angle.to_degrees(),
                _ => f64::NAN,
            }),
            Dimension::Angle,
        ),
        Code::Sinks => (
            middle(&|f| match f {
                Fate::Sinks { by } => *by,
                _ => f64::NAN,
            }),
            Dimension::Mass,
        ),
        Code::Swamps => (
            middle(&|f| match f {
                Fate::Swamps { by } => *by,
                _ => f64::NAN,
            }),
            Dimension::FineLength,
        ),
        Code::Founders => (assessment.too_much().unwrap_or(0.0), Dimension::Mass),
        // Missing GM is told as GM; where none is missing, it is the room to the side
        // that is short: see [`sideways`].
        _ => (
            middle(&|f| match f {
                Fate::Capsizes { missing, .. } => *missing,
                _ => f64::NAN,
            }),
            Dimension::ShortLength,
        ),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_reads_as_one_percent_is_said_from_one_percent() {
        // Share, line, whether it is said.
        for (share, line, said) in [
            (1.0 / 128.0, 0.01, true),
            (0.01, 0.01, true),
            (0.004_9, 0.01, false),
            (1e-9, 0.01, false),
            (0.002, 0.001, true),
            (0.000_9, 0.001, false),
            (0.044, 0.05, false),
            (0.046, 0.05, true),
        ] {
            assert_eq!(is_said(share, line), said, "{share} at {line}");
        }
    }
}

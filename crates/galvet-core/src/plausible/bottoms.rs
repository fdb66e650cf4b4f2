//! The bottoms a hull may have when nobody looked.

use crate::guide::{Guide, Guides};
use crate::hull::{BottomShape, Construction, Survey};
use statrs::distribution::{ContinuousCDF, Normal};

/// Bottoms in the order in which they support a boat at the water, least first, each
/// with the standard-normal place up to which a shape has it. In this order a bottom is
/// a coordinate of the sample like any other: evidence that speaks for much support
/// moves it to one side.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Bottoms(Vec<(BottomShape, f64)>);

impl Bottoms {
    /// The bottom on record; where nobody looked, what construction and beam (m) leave
    /// possible, by their guide weights.
    pub(super) fn of(survey: &Survey, beam: f64, guides: &Guides) -> Self {
        use BottomShape::{Flat, ShallowArch, ShallowVee, TriLobe, Tunnel};
        let known = match survey.construction {
            Construction::Board => Some(BottomShape::Board),
            _ => survey.bottom,
        };
        if let Some(bottom) = known {
            return Self(vec![(bottom, f64::INFINITY)]);
        }
        let weights: &[(BottomShape, Guide)] = match survey.construction {
            Construction::SitInside => &[
                (ShallowVee, Guide::InsideVee),
                (ShallowArch, Guide::InsideArch),
            ],
            _ if beam >= guides[Guide::WideBeam] => &[
                (ShallowVee, Guide::WideVee),
                (ShallowArch, Guide::WideArch),
                (TriLobe, Guide::WideTriLobe),
                (Flat, Guide::WideFlat),
                (Tunnel, Guide::WideTunnel),
            ],
            _ if beam >= guides[Guide::SlimBeam] => &[
                (ShallowVee, Guide::MiddleVee),
                (ShallowArch, Guide::MiddleArch),
                (TriLobe, Guide::MiddleTriLobe),
                (Flat, Guide::MiddleFlat),
                (Tunnel, Guide::MiddleTunnel),
            ],
            _ => &[
                (ShallowVee, Guide::SlimVee),
                (ShallowArch, Guide::SlimArch),
                (TriLobe, Guide::SlimTriLobe),
            ],
        };
        let all: f64 = weights.iter().map(|&(_, w)| guides[w]).sum();
        let normal = Normal::standard();
        let mut reached = 0.0;
        let mut out: Vec<(BottomShape, f64)> = weights
            .iter()
            .map(|&(bottom, w)| {
                reached += guides[w];
                let share: f64 = (reached / all.max(1e-9)).clamp(1e-9, 1.0 - 1e-9);
                (bottom, normal.inverse_cdf(share))
            })
            .collect();
        if let Some(last) = out.last_mut() {
            last.1 = f64::INFINITY;
        }
        Self(out)
    }

    /// The bottom at a standard-normal place.
    pub(super) fn at(&self, normal: f64) -> BottomShape {
        let found = self.0.iter().find(|(_, upto)| normal <= *upto);
        found.map_or(BottomShape::ShallowArch, |f| f.0)
    }

    /// Whether it is not known which of several it is.
    pub(super) const fn is_open(&self) -> bool {
        self.0.len() > 1
    }
}

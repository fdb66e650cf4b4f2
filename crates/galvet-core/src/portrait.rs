//! What the drawings show: outlines, water and centres of a hull under a brief.
//!
//! Geometry only, in metres and in the hull's frame; how it is drawn is the
//! application's affair.

use crate::assess::Assessment;
use crate::evaluate::Afloat;
use crate::float::{Accuracy, Attitude};
use crate::hull::estimate::{self, Lines};
use crate::load::Carriage;
use crate::stability::HEELS_DEG;

/// A section with the water across it.
#[derive(Debug, Clone, PartialEq)]
pub struct SectionView {
    /// Closed outline, starboard side round to port, (y, z).
    pub outline: Vec<(f64, f64)>,
    /// Heel, degrees, starboard down.
    pub heel_deg: f64,
    /// Height of the water above the baseline along the heeled vertical, m.
    pub water: f64,
    /// Centre of mass of everything afloat (y, z).
    pub mass_centre: (f64, f64),
    /// Centre of buoyancy (y, z).
    pub buoyancy: (f64, f64),
    /// Righting arm at this heel, m.
    pub gz: f64,
    /// Height the feet stand on, m.
    pub floor: f64,
}

/// A hull seen from starboard and from above, at rest.
#[derive(Debug, Clone, PartialEq)]
pub struct SideView {
    /// Length, m.
    pub length: f64,
    /// Greatest beam, m.
    pub beam: f64,
    /// Lines along the hull.
    pub lines: Lines,
    /// Height of the water at bow and stern, m.
    pub water: (f64, f64),
    /// Trim, degrees, bow up positive.
    pub trim_deg: f64,
    /// Centre of mass (x, z).
    pub mass_centre: (f64, f64),
    /// Centre of buoyancy (x, z).
    pub buoyancy: (f64, f64),
    /// Angler's place along the hull, m, and the surface sat or stood on.
    pub crew: (f64, f64),
}

/// One place on the righting curve shown.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CurvePoint {
    /// Heel, degrees.
    pub heel_deg: f64,
    /// Righting arm, m.
    pub gz: f64,
    /// Whether the recess has filled over the rim.
    pub swamped: bool,
}

/// Everything drawn of a hull: the median shape under the brief.
#[derive(Debug, Clone, PartialEq)]
pub struct Portrait {
    /// From the side and above.
    pub side: SideView,
    /// Sections at the angler's place: upright, then heeled.
    pub sections: Vec<SectionView>,
    /// Righting arms, 0 to 90 degrees, seated.
    pub curve: Vec<CurvePoint>,
}

/// Heel of the second section drawn, degrees.
const SHOWN_HEEL_DEG: f64 = 10.0;

/// The section at the angler's place, upright: the glyph of a row.
#[must_use]
pub fn glyph(assessment: &Assessment<'_>) -> SectionView {
    Painter::of(assessment).section(0.0)
}

/// The whole portrait, for a hull's own page.
#[must_use]
pub fn portrait(assessment: &Assessment<'_>) -> Portrait {
    let painter = Painter::of(assessment);
    let shapes = [assessment.median_shape];
    let afloat = Afloat::new(&assessment.setup, &shapes, Accuracy::FINE);
    let case = afloat.case(Carriage::Seated);
    let degrees: Vec<f64> = (0..=18).map(|i| 5.0 * f64::from(i)).collect();
    let heels: Vec<f64> = degrees.iter().map(|d| d.to_radians()).collect();
    let curve = afloat.arms(&case, &heels);
    Portrait {
        side: painter.side(),
        sections: vec![painter.section(0.0), painter.section(SHOWN_HEEL_DEG)],
        curve: degrees
            .iter()
            .zip(&curve)
            .map(|(&heel_deg, arm)| CurvePoint {
                heel_deg,
                gz: arm.gz.0[0],
                swamped: arm.swamped.0[0] > 0.0,
            })
            .collect(),
    }
}

struct Painter<'a, 'b> {
    assessment: &'b Assessment<'a>,
}

impl<'a, 'b> Painter<'a, 'b> {
    const fn of(assessment: &'b Assessment<'a>) -> Self {
        Self { assessment }
    }

    fn crew_share(&self) -> f64 {
        let setup = &self.assessment.setup;
        setup.loads.crew_place(setup.carriage()) / setup.frame.length
    }

    fn section(&self, heel_deg: f64) -> SectionView {
        debug_assert!(heel_deg <= HEELS_DEG[HEELS_DEG.len() - 1]);
        let setup = &self.assessment.setup;
        let shapes = [self.assessment.median_shape];
        let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
        let case = afloat.case(setup.carriage());
        let heel = heel_deg.to_radians();
        let settled = afloat.settle(&case, heel);
        let share = self.crew_share();
        let x = share * setup.frame.length;
        let im = &settled.immersion;
        let (sin, cos) = heel.sin_cos();
        let (eta, zeta) = (
            im.eta_moment.0[0] / im.volume.0[0],
            im.zeta_moment.0[0] / im.volume.0[0],
        );
        SectionView {
            outline: estimate::section_at(&setup.frame, &shapes[0], share),
            heel_deg,
            water: level(&settled.attitude, x, afloat.body.middle()),
            mass_centre: (case.weight.y.0[0], case.weight.z.0[0]),
            // Back from the water's frame into the hull's.
            buoyancy: (eta * cos - zeta * sin, eta * sin + zeta * cos),
            gz: crate::stability::righting::arm(&settled, &case.weight).0[0],
            floor: shapes[0].floor,
        }
    }

    fn side(&self) -> SideView {
        let setup = &self.assessment.setup;
        let shapes = [self.assessment.median_shape];
        let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
        let case = afloat.case(setup.carriage());
        let middle = afloat.body.middle();
        let at = case.upright.attitude;
        let im = &case.upright.immersion;
        let volume = im.volume.0[0];
        let length = setup.frame.length;
        SideView {
            length,
            beam: setup.frame.beam,
            lines: estimate::lines(&setup.frame, &shapes[0]),
            water: (level(&at, 0.0, middle), level(&at, length, middle)),
            trim_deg: at.slope.0[0].atan().to_degrees(),
            mass_centre: (case.weight.x.0[0], case.weight.z.0[0]),
            buoyancy: (
                middle + im.x_moment.0[0] / volume,
                im.zeta_moment.0[0] / volume,
            ),
            crew: (
                setup.loads.crew_place(setup.carriage()),
                shapes[0].floor + setup.loads.crew_surface(setup.carriage()),
            ),
        }
    }
}

fn level(at: &Attitude<1>, x: f64, middle: f64) -> f64 {
    at.water_at(x, middle).0[0]
}

//! What the drawings show: outlines, people, kit, water and centres of a hull
//! under a brief.
//!
//! Geometry only, in metres and in the hull's frame; how it is drawn is the
//! application's affair. Glyph, card and full size come from here alike.

mod person;

pub use person::{Limb, Person, Point, Stick, from_above, from_ahead, seated, standing};

use crate::base::Lanes;
use crate::body::{AddedFloats, Lines, Shape};
use crate::figures::{Afloat, Assessment, Case, Quantity, Setup};
use crate::float::{Accuracy, Attitude, Settled, Weight, arm, rim_angle};
use crate::gear::Fixing;
use crate::guide::Guide;
use crate::hull::{
    FittingKind, Flooded, Measure, Opening, Propulsion, Source, Survey, ZoneKind, fittings, zones,
};
use crate::load::Carriage;
use crate::stability::Arm;
use crate::stow::Stowed;

/// A section with the water across it.
#[derive(Debug, Clone, PartialEq)]
pub struct SectionView {
    /// Closed outline, starboard side round to port, (y, z).
    pub outline: Vec<Point>,
    /// Heel, degrees, starboard down.
    pub heel_deg: f64,
    /// Height of the water above the baseline along the heeled vertical, m;
    /// `None` where it does not float so.
    pub water: Option<f64>,
    /// Centre of mass of everything afloat (y, z).
    pub mass_centre: Point,
    /// Centre of buoyancy (y, z), where it floats.
    pub buoyancy: Option<Point>,
    /// Righting arm at this heel, m, where it floats.
    pub gz: Option<f64>,
    /// Height the feet stand on, m.
    pub floor: f64,
    /// Whoever is in it, seen from ahead.
    pub person: Person,
    /// Height of the seat's surface, m; `None` for one who stands: the lever is
    /// then that of the weight taken at the feet.
    pub seat: Option<f64>,
}

/// One thing of the rig at its place.
#[derive(Debug, Clone, PartialEq)]
pub struct Thing {
    /// What it is.
    pub item: String,
    /// Centre from the bow, m.
    pub x: f64,
    /// Centre to starboard, m.
    pub y: f64,
    /// Centre above the baseline, m.
    pub z: f64,
    /// Length along, width and height as it lies, m; of what nobody measured, a
    /// cube of its mass.
    pub size: [f64; 3],
    /// What it stands on, above the baseline, m.
    pub base: f64,
    /// A rod, a net: leaning aft in a holder, not a box.
    pub slender: bool,
    /// Whether its size is known.
    pub known: bool,
}

impl Thing {
    fn of(stowed: &Stowed, bow: f64, floor: f64) -> Self {
        let z = floor + stowed.above_floor;
        let cube = (stowed.loaded_mass / KIT_DENSITY).cbrt();
        let lies = stowed.lies.as_ref();
        Self {
            item: stowed.item.clone(),
            x: stowed.x - bow,
            y: stowed.y,
            z,
            size: lies.map_or([cube; 3], |l| l.size),
            base: lies.map_or(z - 0.5 * cube, |l| floor + l.base),
            slender: lies.is_some_and(|l| l.fixing == Fixing::Holder),
            known: lies.is_some(),
        }
    }
}

/// Both floats of a pair, and the arm across.
fn floats(pair: &AddedFloats<1>, bow: f64) -> [Thing; 3] {
    /// Length along and height of an arm, m.
    const ARM: [f64; 2] = [0.05, 0.03];
    let [from, to] = pair.along;
    let (z, radius) = (pair.z.0[0], pair.radius);
    let thing = |y: f64, size: [f64; 3], base: f64| Thing {
        item: "float on an arm".to_owned(),
        x: 0.5 * (from + to) - bow,
        y,
        z: base + 0.5 * size[2],
        size,
        base,
        slender: false,
        known: true,
    };
    let float = |y| thing(y, [to - from, 2.0 * radius, 2.0 * radius], z - radius);
    let arm = thing(0.0, [ARM[0], 2.0 * pair.y, ARM[1]], z + radius);
    [arm, float(-pair.y), float(pair.y)]
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
    /// Whether they were measured.
    pub measured: bool,
    /// Height of the water at bow and stern, m, where it floats.
    pub water: Option<(f64, f64)>,
    /// Trim, degrees, bow up positive.
    pub trim_deg: f64,
    /// Centre of mass (x, z).
    pub mass_centre: Point,
    /// Centre of buoyancy (x, z), where it floats.
    pub buoyancy: Option<Point>,
    /// Whoever is in it, from the side and from above.
    pub person: Person,
    /// The same from above (x, y).
    pub above: Person,
    /// Place of the seat (x, height of its surface).
    pub seat: Point,
    /// Height of the floor, m.
    pub floor: f64,
    /// The rig.
    pub things: Vec<Thing>,
    /// Drive or motor below the hull.
    pub drive: Option<Hung>,
    /// Whether a rudder or skeg is fitted.
    pub rudder: bool,
    /// Lids of hatches.
    pub lids: Vec<Lid>,
    /// Scuppers: place along and to starboard, and half the width of the hole, m.
    pub scuppers: Vec<[f64; 3]>,
}

/// What hangs below the hull and drives it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hung {
    /// Place from the bow, m.
    pub x: f64,
    /// How far it reaches below the baseline, m.
    pub depth: f64,
    /// What it is.
    pub kind: Propulsion,
}

/// The lid of a hatch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lid {
    /// Its ends from the bow, m.
    pub ends: (f64, f64),
    /// Its middle to starboard, and its width, m.
    pub across: (f64, f64),
    /// Whether it is round.
    pub round: bool,
    /// Whether nobody measured it.
    pub guessed: bool,
}

/// The lids of a hull's hatches, as recorded or guessed.
fn lids(survey: &Survey) -> Vec<Lid> {
    let hatch = |kind| {
        matches!(
            kind,
            ZoneKind::BowHatch | ZoneKind::CentreHatch | ZoneKind::SternHatch
        )
    };
    let all = zones(survey).into_iter().filter(|z| hatch(z.kind));
    all.map(|zone| {
        let middle = 0.5 * (zone.from + zone.to);
        let (length, width, round) = match zone.opening {
            Some(Opening::Round(across)) => (across, across, true),
            Some(Opening::Rectangle(length, width)) => (length, width, false),
            None => (zone.to - zone.from, zone.width, false),
        };
        Lid {
            ends: (middle - 0.5 * length, middle + 0.5 * length),
            across: (zone.offset, width),
            round,
            guessed: zone.source == Source::Guess,
        }
    })
    .collect()
}

/// Righting arms against heel in degrees, seated. Each curve stops where what
/// it is about stops.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Curves {
    /// On the body as its scuppers leave it open, up to water running in.
    pub lasting: Vec<Point>,
    /// On the sealed body, where that differs, up to water running in.
    pub brief: Vec<Point>,
    /// Full of water, from there on.
    pub full: Vec<Point>,
    /// Heel at which water runs in, degrees.
    pub fills_at: Option<f64>,
}

/// Everything drawn of a hull: the middle shape under the brief.
#[derive(Debug, Clone, PartialEq)]
pub struct Portrait {
    /// From the side and above.
    pub side: SideView,
    /// Sections at the angler's place: upright, then heeled.
    pub sections: Vec<SectionView>,
    /// Righting arms.
    pub curves: Curves,
}

/// Heel of the second section drawn, degrees.
const SHOWN_HEEL_DEG: f64 = 10.0;
/// Density kit is drawn with, kg/m³: that of a packed crate.
const KIT_DENSITY: f64 = 250.0;
/// Where a drive hangs, shares of the length. Guide values.
const PEDAL_PLACE: f64 = 0.40;
const MOTOR_PLACE: f64 = 0.97;

/// The section at the angler's place, upright: the glyph of a row.
#[must_use]
pub fn glyph(assessment: &Assessment) -> SectionView {
    let shapes = [assessment.middle];
    Painter::of(assessment, &shapes).section(0.0)
}

/// The whole portrait, for a hull's own page.
#[must_use]
pub fn portrait(assessment: &Assessment) -> Portrait {
    let shapes = [assessment.middle];
    let painter = Painter::of(assessment, &shapes);
    Portrait {
        side: painter.side(),
        sections: vec![painter.section(0.0), painter.section(SHOWN_HEEL_DEG)],
        curves: painter.curves(),
    }
}

/// The section as somebody seated leans out to land a fish, a brief lean: at the heel
/// that the figure [`Quantity::ReachHeel`] tells, at the hour at which that is worst.
/// `None` where most plausible shapes do not hold it.
#[must_use]
pub fn landing(assessment: &Assessment) -> Option<SectionView> {
    let heel_deg = assessment.median(Quantity::ReachHeel)?;
    let setup = assessment.setup_at(Quantity::ReachHeel);
    let shapes = [assessment.middle];
    let painter = Painter::so(&setup, assessment.middle, &shapes, Carriage::Seated);
    let heel = heel_deg.to_radians();
    let settled = painter.afloat.settle_briefly(&painter.case, heel);
    let mut view = painter.seen(heel_deg, &settled);
    let hip = person::seated_hip(painter.surface(), setup.loads.crew().stature());
    let lean = setup.guides()[Guide::ReachLean].to_radians();
    view.person = view.person.leaned((0.0, hip), lean);
    // All that is aboard, with what leans out: over the middle of the water pushed aside.
    view.mass_centre.0 += setup.landing_moment() / painter.case.weight.mass.0[0];
    Some(view)
}

struct Painter<'a> {
    setup: &'a Setup,
    shape: Shape,
    /// How the crew is carried.
    carriage: Carriage,
    afloat: Afloat<'a, 1>,
    case: Case<1>,
}

impl<'a> Painter<'a> {
    fn of(assessment: &'a Assessment, shapes: &'a [Shape; 1]) -> Self {
        let setup = &assessment.setup;
        Self::so(setup, assessment.middle, shapes, setup.carriage())
    }

    /// A shape as it is set up, the crew carried so.
    fn so(setup: &'a Setup, shape: Shape, shapes: &'a [Shape; 1], carriage: Carriage) -> Self {
        let afloat = Afloat::new(setup, shapes, Accuracy::FINE);
        Self {
            setup,
            shape,
            carriage,
            case: afloat.case(carriage),
            afloat,
        }
    }

    fn stands(&self) -> bool {
        self.carriage == Carriage::AtTheFeet
    }

    /// Height of the centre of the whole weight, m, with a standing body where it
    /// is rather than at its feet.
    fn mass_height(&self, weight: &Weight<1>) -> f64 {
        let loads = &self.setup.loads;
        let lifted = if self.stands() {
            loads.crew_mass() * loads.standing_centre() / weight.mass.0[0]
        } else {
            0.0
        };
        weight.z.0[0] + lifted
    }

    /// Height of what is sat or stood on.
    fn surface(&self) -> f64 {
        let floor = self.floor();
        if self.stands() {
            floor
        } else {
            floor + self.setup.loads.seat_height(&self.shape)
        }
    }

    fn floor(&self) -> f64 {
        self.afloat.body.standing_height.0[0]
    }

    /// Place of the angler along the hull, m.
    fn place(&self) -> f64 {
        self.setup.loads.crew_place(self.carriage)
    }

    fn section(&self, heel_deg: f64) -> SectionView {
        let settled = self.afloat.settle(&self.case, heel_deg.to_radians());
        self.seen(heel_deg, &settled)
    }

    /// The section of the body settled at a heel.
    fn seen(&self, heel_deg: f64, settled: &Settled<1>) -> SectionView {
        let heel = heel_deg.to_radians();
        let form = &self.setup.posterior.form;
        let share = ((self.place() - form.bow()) / form.length()).clamp(0.0, 1.0);
        let middle = self.afloat.body.middle();
        let stature = self.setup.loads.crew().stature();
        let weight = &self.case.weight;
        let floats = |f: &dyn Fn(&Settled<1>) -> f64| settled.rests(0).then(|| f(settled));
        let (sin, cos) = heel.sin_cos();
        SectionView {
            outline: form.half_section(&self.shape, share).closed(),
            heel_deg,
            water: floats(&|s| level(&s.attitude, self.place(), middle)),
            mass_centre: (weight.y.0[0], self.mass_height(weight)),
            // Back from the water's frame into the hull's.
            buoyancy: settled.rests(0).then(|| {
                let im = &settled.immersion;
                let (eta, zeta) = (
                    im.eta_moment.0[0] / im.volume.0[0],
                    im.zeta_moment.0[0] / im.volume.0[0],
                );
                (eta * cos - zeta * sin, eta * sin + zeta * cos)
            }),
            gz: floats(&|s| arm(&s.attitude, &s.immersion, weight).0[0]),
            floor: self.floor(),
            person: person::from_ahead(self.surface(), stature, self.stands()),
            seat: (!self.stands()).then(|| self.surface()),
        }
    }

    fn side(&self) -> SideView {
        let form = &self.setup.posterior.form;
        let survey = &self.setup.posterior.survey;
        let (bow, length, middle) = (form.bow(), form.length(), self.afloat.body.middle());
        let upright = &self.case.upright;
        let rests = upright.rests(0);
        let weight = self.afloat.weight(self.carriage);
        let loads = &self.setup.loads;
        let floor = self.floor();
        let stature = loads.crew().stature();
        let seat = (
            loads.crew_place(Carriage::Seated) - bow,
            floor + loads.seat_height(&self.shape),
        );
        let (person, above) = if self.stands() {
            let x = self.place() - bow;
            // Legs beneath the body take less room.
            (
                person::standing((x, floor), stature),
                from_above((x, 0.0), 0.8 * stature),
            )
        } else {
            (
                person::seated(seat, floor, stature),
                from_above((seat.0, 0.0), stature),
            )
        };
        let drive = survey
            .value(Measure::DriveDepth)
            .filter(|_| survey.propulsion.has_drive())
            .map(|depth| {
                let place = match survey.propulsion {
                    Propulsion::Motor => MOTOR_PLACE,
                    _ => PEDAL_PLACE,
                };
                Hung {
                    x: place * length,
                    depth,
                    kind: survey.propulsion,
                }
            });
        let size = [length, form.beam()];
        let (fittings, _) = fittings(survey, size);
        let scuppers = fittings.iter().filter_map(|f| match f.kind {
            FittingKind::Scupper { diameter, .. } => Some([f.x, f.y, 0.5 * diameter]),
            _ => None,
        });
        let im = &upright.immersion;
        SideView {
            length,
            beam: form.beam(),
            lines: form.lines(&self.shape),
            measured: form.is_measured(),
            water: rests.then(|| {
                let at = &upright.attitude;
                (level(at, bow, middle), level(at, bow + length, middle))
            }),
            trim_deg: upright.attitude.slope.0[0].atan().to_degrees(),
            mass_centre: (weight.x.0[0] - bow, self.mass_height(&weight)),
            buoyancy: rests.then(|| {
                let volume = im.volume.0[0];
                (
                    middle - bow + im.x_moment.0[0] / volume,
                    im.zeta_moment.0[0] / volume,
                )
            }),
            person,
            above,
            seat,
            floor,
            // What is packed is inside its container, what is worn on the person.
            things: loads
                .layout
                .stowed
                .iter()
                .filter(|s| {
                    let lies = s.lies.as_ref();
                    lies.is_none_or(|l| l.within.is_none() && l.fixing != Fixing::Worn)
                })
                .map(|s| Thing::of(s, bow, floor))
                .chain(self.afloat.body.floats.iter().flat_map(|f| floats(f, bow)))
                .collect(),
            drive,
            rudder: survey.tracks_straight,
            lids: lids(survey),
            scuppers: scuppers.collect(),
        }
    }

    fn curves(&self) -> Curves {
        const STEP: f64 = 5.0;
        let case = self.afloat.case(Carriage::Seated);
        if !case.upright.rests(0) {
            return Curves::default();
        }
        let body = &self.afloat.body;
        let density = self.setup.brief.water.density;
        let rim = |open: Flooded| rim_angle(body, &body.outline(open), &case.weight, density);
        let fills = self.setup.fills.then(|| rim(self.setup.open)).flatten();
        let brief_fills = rim(Flooded::NONE);
        // The steps, and the very heels at which curves end.
        let mut heels: Vec<f64> = (0..=18)
            .map(|i| (STEP * f64::from(i)).to_radians())
            .collect();
        heels.extend(fills.iter().chain(&brief_fills));
        heels.sort_by(f64::total_cmp);
        heels.dedup_by(|a, b| (*a - *b).abs() < 1e-9);
        let arms = self.afloat.seated_arms(&case, &heels);
        let points = |arms: &[Arm<1>], from: f64, to: f64| -> Vec<Point> {
            arms.iter()
                .filter(|a| a.heel >= from - 1e-9 && a.heel <= to + 1e-9)
                .map(|a| (a.heel.to_degrees(), a.gz.0[0]))
                .filter(|p| p.1.is_finite())
                .collect()
        };
        let end = fills.unwrap_or(f64::INFINITY);
        Curves {
            lasting: points(&arms.lasting, 0.0, end),
            brief: arms.brief.map_or(Vec::new(), |sealed| {
                points(&sealed, 0.0, brief_fills.unwrap_or(f64::INFINITY))
            }),
            full: match (&arms.full, fills) {
                (Some(full), Some(from)) => points(full, from, f64::INFINITY),
                _ => Vec::new(),
            },
            fills_at: fills.map(f64::to_degrees),
        }
    }
}

fn level(at: &Attitude<1>, x: f64, middle: f64) -> f64 {
    let Lanes([level]) = at.water_at(x, middle);
    level
}

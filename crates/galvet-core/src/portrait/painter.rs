//! Works the views of one shape out.

use super::{
    Curves, Hung, MOTOR_PLACE, PEDAL_PLACE, Point, SectionView, SideView, Thing, floats,
    from_above, lids, person,
};
use crate::base::Lanes;
use crate::body::Shape;
use crate::figures::{Afloat, Assessment, Case, Setup};
use crate::float::{Accuracy, Attitude, Settled, Weight, arm, rim_angle};
use crate::gear::Fixing;
use crate::hull::{FittingKind, Flooded, Measure, Propulsion, fittings};
use crate::load::Carriage;
use crate::stability::Arm;

pub(super) struct Painter<'a> {
    setup: &'a Setup,
    shape: Shape,
    /// How the crew is carried.
    carriage: Carriage,
    pub(super) afloat: Afloat<'a, 1>,
    pub(super) case: Case<1>,
}

impl<'a> Painter<'a> {
    pub(super) fn of(assessment: &'a Assessment, shapes: &'a [Shape; 1]) -> Self {
        let setup = &assessment.setup;
        Self::so(setup, assessment.middle, shapes, setup.carriage())
    }

    /// A shape as it is set up, the crew carried so.
    pub(super) fn so(
        setup: &'a Setup,
        shape: Shape,
        shapes: &'a [Shape; 1],
        carriage: Carriage,
    ) -> Self {
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
    pub(super) fn surface(&self) -> f64 {
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

    pub(super) fn section(&self, heel_deg: f64) -> SectionView {
        let settled = self.afloat.settle(&self.case, heel_deg.to_radians());
        self.seen(heel_deg, &settled)
    }

    /// The section of the body settled at a heel.
    pub(super) fn seen(&self, heel_deg: f64, settled: &Settled<1>) -> SectionView {
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

    pub(super) fn side(&self) -> SideView {
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

    pub(super) fn curves(&self) -> Curves {
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

//! True hulls to be guessed at, drawn from wider families than the estimator's own.

use super::{asked, survey};
use galvet_core::base::Lanes;
use galvet_core::body::Shape;
use galvet_core::crew::Posture;
use galvet_core::figures::{Afloat, Quantity as Q, Setup, Values};
use galvet_core::float::{Accuracy, Fate, Start, Weight, settle};
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{
    Aboard, BottomShape, Construction, Datum, Evidence, FloatReading, Measure, Propulsion, Reading,
    Source, Survey,
};
use galvet_core::plausible::tilt::{Shift, reduce};
use galvet_core::question::Brief;
use std::collections::BTreeMap;
use std::sync::Arc;

/// How many cases a test runs: `quick`, or as many as `GALVET_CASES` says.
pub fn cases(quick: usize) -> usize {
    let wanted = std::env::var("GALVET_CASES").ok();
    wanted.and_then(|n| n.parse().ok()).unwrap_or(quick)
}

/// A generator with a seed of its own (Knuth's MMIX constants).
pub struct Dice(u64);

impl Dice {
    pub fn new(seed: u64) -> Self {
        let mut dice = Self(seed.wrapping_mul(0x9e37_79b9_7f4a_7c15) ^ 20_261_129);
        for _ in 0..8 {
            dice.share();
        }
        dice
    }

    /// Between 0 and 1.
    pub fn share(&mut self) -> f64 {
        self.0 = self
            .0
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 11) as f64 + 0.5) / (1u64 << 53) as f64
    }

    /// Evenly between two values.
    pub fn between(&mut self, lo: f64, hi: f64) -> f64 {
        lo + (hi - lo) * self.share()
    }

    /// Standard normal (Box and Muller).
    pub fn normal(&mut self) -> f64 {
        let (u, v) = (self.share(), self.share());
        (-2.0 * u.ln()).sqrt() * (std::f64::consts::TAU * v).cos()
    }

    /// One of several.
    pub fn pick<T: Copy>(&mut self, of: &[T]) -> T {
        of[(self.share() * of.len() as f64) as usize]
    }
}

/// A hull as it truly is, and what its leaflet says.
pub struct Truth {
    /// The leaflet: length, beam, weight, capacity; nothing else.
    leaflet: Survey,
    /// The hull itself, over the leaflet's length and beam.
    pub shape: Shape,
    dice: u64,
}

impl Truth {
    /// Sit-on-tops of all classes, somebody seated or standing in them.
    pub fn drawn(count: usize, seed: u64) -> Vec<Self> {
        (0..count as u64)
            .map(|i| Self::one(&mut Dice::new(1000 * seed + i), None))
            .collect()
    }

    /// Hulls whose sides lean out: 4-10 % of the beam lost at the water.
    pub fn flared(count: usize, seed: u64) -> Vec<Self> {
        let one = |i| Self::one(&mut Dice::new(1000 * seed + i), Some((0.04, 0.10)));
        (0..count as u64).map(one).collect()
    }

    fn one(dice: &mut Dice, flare: Option<(f64, f64)>) -> Self {
        let (length, beam) = (dice.between(2.9, 4.3), dice.between(0.72, 0.95));
        let bottoms: &[BottomShape] = match beam {
            b if b < 0.76 => &[
                BottomShape::ShallowArch,
                BottomShape::ShallowVee,
                BottomShape::TriLobe,
            ],
            _ => &[
                BottomShape::Flat,
                BottomShape::ShallowArch,
                BottomShape::ShallowVee,
                BottomShape::Tunnel,
                BottomShape::TriLobe,
            ],
        };
        let bottom = dice.pick(bottoms);
        let pedals = beam > 0.82 && dice.share() < 0.5;
        let bare = length * beam * dice.between(8.5, 13.5);
        let kit = dice.between(1.5, 3.5) + if pedals { dice.between(8.0, 15.0) } else { 0.0 };
        let moulded = !pedals && (beam < 0.80 || bare < 30.0);
        let seat = if moulded {
            dice.between(0.0, 0.06)
        } else {
            dice.between(0.07, 0.20)
        };
        let (lo, hi) = flare.unwrap_or((-0.02, 0.07));
        let arch = bottom == BottomShape::ShallowArch;
        let keeps = if arch {
            Guides::default()[Guide::ArchKeeps]
        } else {
            0.0
        };
        let shape = Shape {
            bottom,
            bow_exponent: dice.between(2.0, 3.3),
            stern_exponent: dice.between(2.2, 3.6),
            stern_end: dice.between(0.0, 0.30),
            depth: dice.between(0.31, 0.42),
            bow_rise: dice.between(0.04, 0.14),
            stern_rise: dice.between(0.02, 0.11),
            floor: dice.between(0.095, 0.175),
            fullness: dice.between(-0.10, 0.10),
            // Lost over what an arch usually keeps.
            flare: dice.between(lo, hi) - keeps,
            recess_breadth: dice.between(0.66, 0.86),
            recess_from: dice.between(0.13, 0.23),
            recess_to: dice.between(0.86, 0.97),
            breadth_scale: dice.between(0.985, 1.015),
            height_scale: 1.0,
            hull_mass: bare + kit,
            kit_mass: kit,
            seats: [seat; 2],
            guess: [0.0; 3],
        };
        let mut leaflet = survey(Construction::SitOnTop, bottom, &[]);
        leaflet.bottom = None;
        leaflet.key = format!("truth-{length:.3}-{beam:.3}");
        leaflet.propulsion = if pedals {
            Propulsion::RotaryPedal
        } else {
            Propulsion::Paddle
        };
        leaflet.readings = BTreeMap::from(
            [
                (Measure::Length, length),
                (Measure::Beam, beam),
                (Measure::BareWeight, bare * dice.between(0.97, 1.02)),
            ]
            .map(|(m, v)| (m, vec![Reading::new(m, v, Source::Brochure).unwrap()])),
        );
        let seed = (dice.share() * 1e12) as u64;
        let mut truth = Self {
            leaflet,
            shape,
            dice: seed,
        };
        // Makers choose floors so that the label load lies near the wet floor.
        let label = truth.wet_floor_load() * (0.2 * dice.normal()).exp();
        truth.note(
            Measure::RatedCapacity,
            label.clamp(60.0, 450.0),
            Source::Brochure,
        );
        truth
    }

    fn note(&mut self, measure: Measure, value: f64, source: Source) {
        let reading = Reading::new(measure, value, source).unwrap();
        self.leaflet.readings.insert(measure, vec![reading]);
    }

    /// The question asked of it: a weight a hull of its label takes, and on wide hulls
    /// somebody who stands.
    pub fn brief(&self) -> Brief {
        let label = self.leaflet.value(Measure::RatedCapacity).unwrap();
        let mass = (0.72 * label - 25.0).clamp(58.0, 95.0);
        let beam = self.leaflet.value(Measure::Beam).unwrap();
        asked(
            mass,
            if beam > 0.85 {
                Posture::Stands
            } else {
                Posture::Sits
            },
        )
    }

    fn setup(&self, brief: &Brief) -> Setup {
        Setup::new(super::posterior(&self.leaflet, 1), Arc::new(brief.clone()))
    }

    /// What the hull itself comes to.
    pub fn figures(&self, brief: &Brief) -> (Values, Fate) {
        let setup = self.setup(brief);
        Afloat::new(&setup, &[self.shape], Accuracy::FINE).figures()[0].clone()
    }

    fn wet_floor_load(&self) -> f64 {
        let setup = self.setup(&asked(60.0, Posture::Sits));
        let shapes = [self.shape];
        let afloat = Afloat::new(&setup, &shapes, Accuracy::FINE);
        let case = afloat.case(setup.carriage());
        let further = afloat.further(&case, Some(0.0)).map_or(0.0, |f| f.0[0]);
        let counted = afloat.figures()[0].0.get(Q::Counted).unwrap();
        if further.is_finite() {
            counted + further
        } else {
            counted
        }
    }

    /// The leaflet alone.
    pub fn leaflet(&self) -> Survey {
        self.leaflet.clone()
    }

    /// The leaflet and a look at the bottom.
    pub fn bottom_known(&self) -> Survey {
        Survey {
            bottom: Some(self.shape.bottom),
            ..self.leaflet()
        }
    }

    fn with(&self, readings: &[(Measure, f64)], mut survey: Survey) -> Survey {
        for &(m, v) in readings {
            survey
                .readings
                .insert(m, vec![Reading::new(m, v, Source::Tape).unwrap()]);
        }
        survey
    }

    fn beam(&self) -> f64 {
        self.leaflet.value(Measure::Beam).unwrap() * self.shape.breadth_scale
    }

    /// The leaflet and a tape ashore: beam, depth, floor, seat.
    pub fn taped(&self) -> Survey {
        let mut dice = Dice::new(self.dice);
        let mut off = |v: f64| v + 0.003 * dice.normal();
        let readings = [
            (Measure::Beam, off(self.beam())),
            (Measure::Depth, off(self.shape.depth)),
            (Measure::FloorHeight, off(self.shape.floor)),
            (Measure::SeatLow, off(self.shape.seats[0]).max(0.0)),
        ];
        self.with(&readings, self.leaflet())
    }

    /// Everything measured but the bottom.
    pub fn all_but_bottom(&self) -> Survey {
        let weight = [(Measure::FittedWeight, self.shape.hull_mass)];
        self.with(&weight, self.taped())
    }

    const ABOARD: Aboard = Aboard {
        mass: 95.0,
        place: 0.53,
        height: 0.28,
    };

    /// Floats the hull with the load of the tests: water over the baseline at a share of
    /// the length, the draft amidships, and arms at heels (°) on the sealed body.
    fn tested(&self, places: &[f64], heels: &[f64]) -> (Vec<f64>, f64, Vec<f64>) {
        let setup = self.setup(&asked(60.0, Posture::Sits));
        let form = &setup.posterior.form;
        let body = form.draw(&[self.shape]);
        let load = Weight {
            mass: Lanes::splat(Self::ABOARD.mass),
            x: Lanes::splat(Self::ABOARD.place * form.length()),
            y: Lanes::ZERO,
            z: body.standing_height + Self::ABOARD.height,
        };
        let weight = setup
            .loads
            .hull_with(Lanes::splat(self.shape.hull_mass), load);
        let at = |outline, heel: f64| {
            settle(
                &body,
                outline,
                &weight,
                1000.0,
                heel,
                Start::LEVEL,
                Accuracy::FINE,
            )
        };
        let upright = at(&body.solid, 0.0);
        let middle = body.middle();
        let water = |p: &f64| upright.attitude.water_at(p * form.length(), middle).0[0];
        let arms = heels.iter().map(|h| {
            let heeled = at(&body.sealed, h.to_radians());
            super::gz(&heeled, &weight) * weight.mass.0[0]
        });
        (
            places.iter().map(water).collect(),
            upright.attitude.draft.0[0],
            arms.collect(),
        )
    }

    /// The leaflet and a float test: floor over the water at three places.
    pub fn float_tested(&self) -> Survey {
        let mut dice = Dice::new(self.dice + 1);
        let places = [0.33, 0.45, 0.57];
        let (water, ..) = self.tested(&places, &[]);
        let heights = places.iter().zip(water);
        let heights = heights.map(|(&p, w)| (p, self.shape.floor - w + 0.005 * dice.normal()));
        let reading = FloatReading::Heights {
            datum: Datum::Floor,
            heights: heights.collect(),
        };
        let mut survey = self.leaflet();
        survey.evidence.push(Evidence::fresh(Self::ABOARD, reading));
        survey
    }

    /// The leaflet and a waterline test.
    pub fn waterline_tested(&self) -> Survey {
        let mut dice = Dice::new(self.dice + 2);
        let (_, draft, _) = self.tested(&[], &[]);
        let setup = self.setup(&asked(60.0, Posture::Sits));
        let form = &setup.posterior.form;
        let beam = form.half_section(&self.shape, 0.5).breadth_at(draft);
        // The length at the water: where the keel leaves it.
        let reach = |rise: f64| 0.5 * form.length() * (draft / rise).cbrt().min(1.0);
        let length = reach(self.shape.bow_rise) + reach(self.shape.stern_rise);
        let reading = FloatReading::Waterline {
            length: length + 0.04 * dice.normal(),
            beam: beam + 0.008 * dice.normal(),
        };
        let mut survey = self.leaflet();
        survey.evidence.push(Evidence::fresh(Self::ABOARD, reading));
        survey
    }

    /// The leaflet and a tilt test: a weight moved both ways, heels read on the arms of the
    /// hull itself. Where it heels too far for one, the leaflet alone.
    pub fn tilt_tested(&self) -> Survey {
        let mut dice = Dice::new(self.dice + 3);
        let heels = [2.0, 3.0, 4.0];
        let (.., moments) = self.tested(&[], &heels);
        let mut survey = self.leaflet();
        if !moments.is_sorted() || moments[0] <= 0.0 {
            return survey;
        }
        // Moments over g whose heels are those, each to both sides.
        let both = heels
            .iter()
            .zip(&moments)
            .flat_map(|(&h, &m)| [(h, m), (-h, -m)]);
        let shifts: Vec<Shift> = both
            .map(|(heel, moment)| {
                let heel_deg = heel + 0.1 * dice.normal();
                let distance = moment / (15.0 * heel.to_radians().cos());
                Shift {
                    mass: 15.0,
                    distance,
                    heel_deg,
                }
            })
            .collect();
        let Ok(tilt) = reduce(&shifts, self.shape.hull_mass + Self::ABOARD.mass) else {
            return survey;
        };
        let reading = FloatReading::Tilt {
            gm: tilt.gm,
            error: tilt.error,
            shifts: tilt.readings,
        };
        survey.evidence.push(Evidence::fresh(Self::ABOARD, reading));
        survey
    }

    /// Everything measured.
    pub fn all_known(&self) -> Survey {
        let mut survey = self.all_but_bottom();
        survey.bottom = Some(self.shape.bottom);
        for other in [
            self.float_tested(),
            self.waterline_tested(),
            self.tilt_tested(),
        ] {
            survey.evidence.extend(other.evidence);
        }
        survey
    }
}

/// Guide values with one changed.
pub fn guides_with(guide: Guide, value: f64) -> Guides {
    let mut guides = Guides::default();
    guides.set(guide, value).unwrap();
    guides
}

//! What every plausible shape predicts for a measurement.

use super::sampled::{LANES, Sampled};
use super::underway;
use crate::base::Lanes;
use crate::body::{Body, Form, Outline, Shape};
use crate::crew::{Company, Crew, SeatHeight};
use crate::float::{
    Accuracy, Limit, Settled, Start, Weight, clearance, further_load, metacentric_height, settle,
};
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Datum, Evidence, FloatReading, Flooded, Measure, Survey, floods};
use crate::load::{Carriage, LoadPlan, Stance};
use crate::stability::righting;
use crate::stow::Layout;
use rayon::prelude::*;

/// Least error believed of a tilt test, m.
const TILT_SD: f64 = 0.005;
/// Least error believed of a heel read, °.
const TILT_HEEL_SD: f64 = 0.3;
/// Heels at which a shape's arms are worked out for a tilt test, °.
const TILT_HEELS: [f64; 6] = [0.0, 2.0, 4.0, 7.0, 11.0, 16.0];
/// Where in [`TILT_HEELS`] a test is taken to have been made of which only GM is noted.
const NOTED: usize = 2;
/// Misfit of a shape that does not float at all where something was read: it
/// is as good as impossible, but the sum of weights stays a number.
const IMPOSSIBLE: f64 = 400.0;

/// What a prediction is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Kind {
    /// Something measured afloat, by its index.
    Afloat(usize),
    /// The rated capacity.
    Label,
    /// That the hull is sold at all.
    Sold,
}

/// A number read, its error, and what every shape of a sample predicts.
pub(super) struct Predicted {
    pub(super) kind: Kind,
    pub(super) value: f64,
    pub(super) sd: f64,
    pub(super) predicted: Vec<f64>,
}

impl Predicted {
    fn new(kind: Kind, (value, sd): (f64, f64), size: usize) -> Self {
        Self {
            kind,
            value,
            sd,
            predicted: Vec::with_capacity(size),
        }
    }

    /// How far the reading lies from what `weights` expect, in sd of both.
    pub(super) fn distance(&self, weights: &[f64]) -> f64 {
        let (mean, sd) = moments(&self.predicted, weights);
        (self.value - mean).abs() / self.sd.hypot(sd)
    }

    /// Squared misfit of a shape, in sd; being sold says only "at least".
    pub(super) fn misfit(&self, shape: usize) -> f64 {
        let off = (self.predicted[shape] - self.value) / self.sd;
        if !off.is_finite() {
            return IMPOSSIBLE;
        }
        if self.kind == Kind::Sold && off > 0.0 {
            return 0.0;
        }
        (off * off).min(IMPOSSIBLE)
    }
}

/// Mean and standard deviation under normalised weights; values that are no
/// numbers are left out.
pub(super) fn moments(values: &[f64], weights: &[f64]) -> (f64, f64) {
    let known = || values.iter().zip(weights).filter(|(v, _)| v.is_finite());
    let sum: f64 = known().map(|(_, w)| w).sum();
    if sum <= 0.0 {
        return (0.0, 0.0);
    }
    let mean = known().map(|(v, w)| v * w).sum::<f64>() / sum;
    let square = known().map(|(v, w)| w * (v - mean).powi(2)).sum::<f64>() / sum;
    (mean, square.max(0.0).sqrt())
}

/// Every reading with what each shape predicts, the label's and the sale's last.
pub(super) fn predict_all(sampled: Sampled<'_>) -> Vec<Predicted> {
    let (survey, guides) = (sampled.survey, sampled.guides);
    let size = sampled.shapes.len();
    let mut out: Vec<Predicted> = survey
        .evidence
        .iter()
        .enumerate()
        .flat_map(|(i, e)| {
            let rows = readings(survey, e, guides).into_iter();
            rows.map(move |row| Predicted::new(Kind::Afloat(i), row, size))
        })
        .collect();
    let label = label(survey);
    out.extend(label.map(|rated| {
        let row = (rated.ln(), guides[Guide::LabelLogSd]);
        Predicted::new(Kind::Label, row, size)
    }));
    let sold = (guides[Guide::SoldGm], guides[Guide::SoldSd]);
    out.push(Predicted::new(Kind::Sold, sold, size));
    let tank = Tank::of(sampled);
    let groups: Vec<Vec<[f64; LANES]>> = sampled
        .shapes
        .par_chunks(LANES)
        .map(|group| {
            let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
            let body = sampled.form.draw(&lanes);
            let mut rows = Vec::with_capacity(out.len());
            for e in &survey.evidence {
                rows.extend(tank.predict(&lanes, &body, e));
            }
            if label.is_some() {
                rows.push(tank.label_load(&lanes, &body).map(f64::ln));
            }
            rows.push(tank.sold_gm(&lanes, &body));
            rows
        })
        .collect();
    for (rows, group) in groups.into_iter().zip(sampled.shapes.chunks(LANES)) {
        for (p, row) in out.iter_mut().zip(rows) {
            p.predicted.extend(&row[..group.len()]);
        }
    }
    out
}

/// Values and errors of a measurement, in the order they are predicted.
pub(super) fn readings(survey: &Survey, e: &Evidence, guides: &Guides) -> Vec<(f64, f64)> {
    match &e.reading {
        FloatReading::Heights { heights, .. } => heights
            .iter()
            .map(|&(_, h)| (h, guides[Guide::FloatSd]))
            .collect(),
        FloatReading::Drift { .. } | FloatReading::Speed { .. } | FloatReading::Drain { .. } => {
            underway::readings(survey, e, guides)
        }
        FloatReading::Waterline { length, beam } => vec![
            (*length, guides[Guide::WaterlineLengthSd]),
            (*beam, guides[Guide::WaterlineBeamSd]),
        ],
        FloatReading::Tilt { gm, error, shifts } => {
            let share = guides[Guide::TiltShare].max(error / gm.abs().max(1e-3));
            if shifts.is_empty() {
                return vec![(*gm, (share * gm.abs()).max(TILT_SD))];
            }
            // The readings of one test err together: all of them count as one.
            let together = (shifts.len() as f64).sqrt();
            let sd = |heel: f64| together * (share * heel.abs()).max(TILT_HEEL_SD);
            shifts.iter().map(|&(_, heel)| (heel, sd(heel))).collect()
        }
    }
}

/// The rated capacity, where it says something about a floor.
fn label(survey: &Survey) -> Option<f64> {
    let scuppered = survey.construction == Construction::SitOnTop;
    survey.value(Measure::RatedCapacity).filter(|_| scuppered)
}

/// The tank the tests are done in: hull, loads and guide values.
pub(super) struct Tank<'a> {
    form: &'a Form,
    survey: &'a Survey,
    guides: &'a Guides,
    /// The person any hull for sale carries, seated low.
    loads: Option<LoadPlan>,
}

impl<'a> Tank<'a> {
    pub(super) fn of(sampled: Sampled<'a>) -> Self {
        let (survey, form, guides) = (sampled.survey, sampled.form, sampled.guides);
        // Dressed, that person weighs what the guide value says.
        let mass = guides[Guide::SoldMass] - guides[Guide::DressedExtra];
        let crew = Crew::new(mass, guides[Guide::SoldStature]).ok();
        let size = [form.bow(), form.length(), form.beam()];
        // As it was delivered: its shape is the same whatever was changed since.
        let delivered = survey.with_made(|_| false);
        Self {
            form,
            survey,
            guides,
            loads: crew.map(|crew| {
                LoadPlan::lay(
                    &delivered,
                    (crew, Company::default()),
                    SeatHeight::Low,
                    Layout::default(),
                    size,
                    guides,
                )
            }),
        }
    }

    /// What floats of a sit-on-top with its scuppers so; of any other hull the
    /// sealed body.
    fn flooded(&self, open: Flooded) -> Flooded {
        match self.survey.construction {
            Construction::SitOnTop => open,
            _ => Flooded::NONE,
        }
    }

    fn settle(
        &self,
        body: &Body<LANES>,
        weight: &Weight<LANES>,
        open: Flooded,
        density: f64,
    ) -> Settled<LANES> {
        let outline = body.outline(self.flooded(open));
        settle(
            body,
            &outline,
            weight,
            density,
            0.0,
            Start::LEVEL,
            Accuracy::SAMPLE,
        )
    }

    pub(super) fn predict(
        &self,
        shapes: &[Shape; LANES],
        body: &Body<LANES>,
        e: &Evidence,
    ) -> Vec<[f64; LANES]> {
        let rows = readings_of(e);
        let Some(loads) = &self.loads else {
            return vec![[f64::NAN; LANES]; rows];
        };
        let (bow, length) = (self.form.bow(), self.form.length());
        let weight = loads.hull_with(
            Lanes::from_fn(|i| shapes[i].hull_mass),
            Weight {
                mass: Lanes::splat(e.aboard.mass),
                x: Lanes::splat(bow + e.aboard.place * length),
                y: Lanes::ZERO,
                z: body.standing_height + e.aboard.height,
            },
        );
        let settled = self.settle(
            body,
            &weight,
            floods(&self.survey.scuppers(e.scuppers)),
            e.density,
        );
        let (at, middle) = (&settled.attitude, body.middle());
        match &e.reading {
            FloatReading::Drift { .. }
            | FloatReading::Speed { .. }
            | FloatReading::Drain { .. } => {
                let hull = Sampled {
                    survey: self.survey,
                    guides: self.guides,
                    form: self.form,
                    shapes,
                };
                vec![underway::predict(hull, (at, &weight), e)]
            }
            FloatReading::Heights { datum, heights } => heights
                .iter()
                .map(|&(place, _)| {
                    let water = at.water_at(bow + place * length, middle);
                    let line = match datum {
                        Datum::Floor => body.standing_height,
                        Datum::Gunwale => {
                            Lanes::from_fn(|i| self.form.half_section(&shapes[i], place).gunwale())
                        }
                    };
                    (line - water).0
                })
                .collect(),
            FloatReading::Waterline { .. } => {
                let beam = std::array::from_fn(|i| {
                    let half = self.form.half_section(&shapes[i], 0.5);
                    half.breadth_at(at.draft.0[i])
                });
                vec![wet_length(self.form, shapes, body, at), beam]
            }
            FloatReading::Tilt { shifts, .. } => {
                let dry = clearance(&body.sill, middle, at).0.iter().all(|&c| c > 0.0);
                // A few seconds each: water has no time to come up, but what stands in
                // the cockpit already runs to the low side.
                let open = if dry {
                    Flooded::NONE
                } else {
                    self.flooded(floods(&self.survey.scuppers(e.scuppers)))
                };
                tilted(
                    body,
                    &body.outline(open),
                    &weight,
                    e.density,
                    &settled,
                    shifts,
                )
            }
        }
    }

    /// What the label would count with the floor level with the water, kg: the
    /// load at the seat, and seat and drive where the label's basis counts them.
    fn label_load(&self, shapes: &[Shape; LANES], body: &Body<LANES>) -> [f64; LANES] {
        /// Centre of a full load above the floor, m. Guide value.
        const LOAD_HEIGHT: f64 = 0.25;
        let Some(loads) = &self.loads else {
            return [f64::NAN; LANES];
        };
        let load = Weight {
            mass: Lanes::ZERO,
            x: Lanes::splat(loads.crew_place(Carriage::Seated)),
            y: Lanes::ZERO,
            z: body.standing_height + LOAD_HEIGHT,
        };
        let hull = loads.hull_with(Lanes::from_fn(|i| shapes[i].hull_mass), load);
        let counts = self.survey.capacity_basis.counts_kit();
        let density = Evidence::FRESH;
        let found = further_load(
            body,
            &body.solid,
            Limit {
                line: &body.floor,
                clear: 0.0,
            },
            &hull,
            &load,
            density,
            Accuracy::SAMPLE,
        );
        let found = found.unwrap_or(Lanes::splat(f64::NAN));
        std::array::from_fn(|i| {
            let kit = if counts { shapes[i].kit_mass } else { 0.0 };
            (found.0[i] + kit).max(1.0)
        })
    }

    /// GM with the person aboard that any hull for sale carries, m.
    fn sold_gm(&self, shapes: &[Shape; LANES], body: &Body<LANES>) -> [f64; LANES] {
        let Some(loads) = &self.loads else {
            return [f64::NAN; LANES];
        };
        let mass = Lanes::from_fn(|i| shapes[i].hull_mass);
        let weight = loads.total(
            Carriage::Seated,
            &Stance::of(shapes, body.standing_height),
            mass,
        );
        let settled = self.settle(body, &weight, Flooded::ALL, Evidence::FRESH);
        metacentric_height(&settled.immersion, &weight).0
    }
}

/// What shapes predict for a tilt test: the heel, °, of each shift on their own righting
/// arms; of a test of which only GM is noted that GM, to the heel such tests are made at.
fn tilted(
    body: &Body<LANES>,
    outline: &Outline<LANES>,
    weight: &Weight<LANES>,
    density: f64,
    upright: &Settled<LANES>,
    shifts: &[(f64, f64)],
) -> Vec<[f64; LANES]> {
    let heels = TILT_HEELS.map(f64::to_radians);
    let accuracy = Accuracy::SAMPLE;
    let arms = righting(body, outline, weight, density, upright, &heels, accuracy);
    if shifts.is_empty() {
        let arm = &arms[NOTED];
        return vec![arm.gz.0.map(|gz| gz / arm.heel.sin())];
    }
    // What answers a heel, over g: Δ GZ / cos φ.
    let answer = |k: usize, i: usize| weight.mass.0[i] * arms[k].gz.0[i] / heels[k].cos();
    let heel = |moment: f64, i: usize| {
        let wanted = moment.abs();
        let past = (1..heels.len()).find(|&k| answer(k, i) >= wanted)?;
        let (low, high) = (answer(past - 1, i), answer(past, i));
        let share = (wanted - low) / (high - low).max(1e-9);
        let between = TILT_HEELS[past] - TILT_HEELS[past - 1];
        Some((TILT_HEELS[past - 1] + share * between) * moment.signum())
    };
    let row = |&(moment, _): &(f64, f64)| {
        std::array::from_fn(|i| match moment {
            0.0 => 0.0,
            _ => heel(moment, i).unwrap_or(f64::NAN),
        })
    };
    shifts.iter().map(row).collect()
}

/// How many numbers a reading has.
fn readings_of(e: &Evidence) -> usize {
    match &e.reading {
        FloatReading::Heights { heights, .. } => heights.len(),
        FloatReading::Waterline { .. } => 2,
        FloatReading::Tilt { shifts, .. } => shifts.len().max(1),
        FloatReading::Drift { .. } | FloatReading::Speed { .. } | FloatReading::Drain { .. } => 1,
    }
}

/// Length in the water, m.
fn wet_length(
    form: &Form,
    shapes: &[Shape; LANES],
    body: &Body<LANES>,
    at: &crate::float::Attitude<LANES>,
) -> [f64; LANES] {
    let middle = body.middle();
    if let Form::Estimated(frame) = form {
        let (bow, stern) = (at.water_at(0.0, middle), at.water_at(frame.length, middle));
        return std::array::from_fn(|i| {
            let reach = |depth: f64, rise: f64| {
                // Keel rises as r|u|³: the water leaves it where r|u|³ = depth.
                let share = (depth.max(0.0) / rise.max(1e-3)).cbrt().min(1.0);
                0.5 * frame.length * share
            };
            reach(bow.0[i], shapes[i].bow_rise) + reach(stern.0[i], shapes[i].stern_rise)
        });
    }
    std::array::from_fn(|i| {
        let depth: Vec<(f64, f64)> = body
            .keel
            .iter()
            .map(|p| (p.x.0[i], at.water_over(p.x, middle).0[i] - p.z.0[i]))
            .collect();
        depth
            .windows(2)
            .map(|pair| {
                let [(x0, d0), (x1, d1)] = [pair[0], pair[1]];
                let wet = match (d0 > 0.0, d1 > 0.0) {
                    (true, true) => 1.0,
                    (false, false) => 0.0,
                    (true, false) => d0 / (d0 - d1),
                    (false, true) => d1 / (d1 - d0),
                };
                wet * (x1 - x0)
            })
            .sum()
    })
}

//! The way home: what wind and stream make of a day's distance, and what an anchor has to
//! hold, over possible shapes and over efforts one can keep up.

use super::drive::{Boat, Drive, Weather, chop};
use super::windage::{Drag, side_areas, side_areas_with};
use crate::body::Shape;
use crate::effort::{PowerCurve, Resistance};
use crate::figures::{Absent, Assessment, Range, Setup, Shown, outlook};
use crate::guide::Guide::{MotorCruise, PaddleLasting, PedalLasting};
use crate::guide::{Guide, Guides};
use crate::hull::Propulsion;
use crate::load::Carriage;
use rayon::prelude::*;

/// Waves from which a water is rough for an anchor, m.
const ROUGH: f64 = 0.4;
/// Shapes it is taken over.
const SHAPES: usize = 8;
/// Least, usual and most of an effort kept up for hours, shares of the usual.
const EFFORTS: [f64; 3] = [0.75, 1.0, 1.25];

/// What a day asks of wind and water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bound {
    /// Wind at the boat and stream, m/s.
    pub weather: Weather,
    /// Half the day's distance, m.
    pub distance: f64,
    /// Depth one anchors in, m.
    pub depth: f64,
    /// Height of the chop in the typical wind, m, and that wind, m/s.
    pub chop: (f64, f64),
}

impl Bound {
    /// What a question asks, in its water's typical wind; `None` where the water names no
    /// wind. Where it says no stream or depth, and the day no distance, guide values stand
    /// in.
    #[must_use]
    pub fn of(setup: &Setup) -> Option<Self> {
        /// Waves from here on are swell, m: the chop on them is less.
        const SWELL: f64 = 0.5;
        let (water, guides) = (&setup.brief.water, setup.guides());
        let wind = water.wind()?;
        let wave = water.wave().unwrap_or(guides[Guide::SwellHeight]);
        let height = if wave > SWELL {
            guides[Guide::SwellHeight]
        } else {
            wave
        };
        Some(Self {
            weather: Weather {
                wind,
                stream: water.stream.unwrap_or(guides[Guide::StreamUnknown]),
            },
            distance: 0.5 * setup.brief.outing.distance.unwrap_or(6_000.0),
            depth: water.anchor_depth.unwrap_or(guides[Guide::DepthUnknown]),
            chop: (height, wind),
        })
    }
}

/// The way home of a hull, and what holds it: each a share where not in all cases.
#[derive(Debug, Clone, PartialEq)]
pub struct WayHome {
    /// What was asked.
    pub bound: Bound,
    /// Wind and stream behind, out, s.
    pub out: Option<Range>,
    /// The same against, back, s.
    pub back: Option<Range>,
    /// Headwind at which no headway is left, m/s.
    pub home_wind: Option<Range>,
    /// Force on the anchor, bow or stern on, N.
    pub hold: Range,
    /// The same beam-on, N.
    pub hold_beam_on: Range,
    /// Length of anchor line, m.
    pub line: f64,
    /// Efforts it is taken over, W: least, usual, most.
    pub effort: [f64; 3],
}

/// Effort kept up for hours, W.
fn lasting(propulsion: Propulsion, guides: &Guides) -> f64 {
    guides[match propulsion {
        Propulsion::Paddle => PaddleLasting,
        Propulsion::RotaryPedal | Propulsion::FinPedal => PedalLasting,
        Propulsion::Motor => MotorCruise,
    }]
}

/// One shape ready to go: its drag and its resistance by speed.
struct Going {
    drag: Drag,
    at_anchor: Drag,
    resistance: Resistance,
    /// What hangs below adds to it, share.
    hangs: f64,
}

impl Going {
    fn of(setup: &Setup, shape: Shape) -> Option<Self> {
        let guides = setup.guides();
        let survey = &setup.posterior.survey;
        let drag = side_areas_with(setup, shape, Carriage::Seated)?.drag(guides);
        // At anchor one fishes as asked; home one goes seated.
        let at_anchor = side_areas(setup, shape)?.drag(guides);
        let resistance = outlook::resistance(setup, shape)?;
        // A rudder hangs in the lee of a drive let down: the larger counts.
        let drive = if survey.propulsion.has_drive() {
            guides[Guide::DriveDrag]
        } else {
            0.0
        };
        let rudder = if survey.tracks_straight {
            guides[Guide::RudderDrag]
        } else {
            0.0
        };
        Some(Self {
            drag,
            at_anchor,
            resistance,
            hangs: drive.max(rudder),
        })
    }

    /// Does something with the boat it makes.
    fn boat<T>(&self, setup: &Setup, bound: &Bound, act: impl FnOnce(&Boat<'_>) -> T) -> T {
        let guides = setup.guides();
        let form = &setup.posterior.form;
        let density = setup.brief.water.density;
        let hangs = 1.0 + self.hangs;
        let curve = PowerCurve::in_water(&self.resistance);
        let water = |speed: f64| hangs * curve.force_at(speed);
        let boat = Boat {
            water: &water,
            ahead: self.drag.ahead,
            side: (self.drag.air, self.drag.water),
            chop: chop(
                bound.chop.0,
                (form.beam(), form.length()),
                density,
                guides[Guide::ChopShare],
            ),
            typical: bound.chop.1,
            density: (density, guides[Guide::AirDensity]),
        };
        act(&boat)
    }
}

/// What one shape does at each of three efforts.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OneWay {
    /// Out, s.
    pub out: [Option<f64>; 3],
    /// Back, s.
    pub back: [Option<f64>; 3],
    /// Headwind that leaves no headway, m/s.
    pub home: [Option<f64>; 3],
    /// Force on the anchor, bow or stern on, N.
    pub hold: f64,
    /// The same beam-on, N.
    pub beam_on: f64,
}

/// The way of one shape, driven so with these efforts, W; `None` where it does not rest.
#[must_use]
pub fn one_way(
    setup: &Setup,
    shape: Shape,
    bound: &Bound,
    (propulsion, efforts): (Propulsion, [f64; 3]),
) -> Option<OneWay> {
    let drive = Drive::of(propulsion, setup.brief.water.density, setup.guides());
    let going = Going::of(setup, shape)?;
    Some(going.boat(setup, bound, |boat| {
        let against = |sign: f64, watts: f64| {
            let weather = Weather {
                wind: sign * bound.weather.wind,
                stream: sign * bound.weather.stream,
            };
            let over = boat.over_ground((&drive, watts), weather, [0.0; 2])?;
            Some(bound.distance / over)
        };
        OneWay {
            out: efforts.map(|watts| against(-1.0, watts)),
            back: efforts.map(|watts| against(1.0, watts)),
            home: efforts.map(|watts| boat.home_wind(&drive, watts, bound.weather.stream)),
            hold: boat.hold(bound.weather, going.at_anchor.ahead),
            beam_on: boat.hold_beam_on(bound.weather, going.at_anchor.air),
        }
    }))
}

/// The way home of an assessed hull; `None` where the water names no wind, or no shape
/// rests. Seated, as one goes home.
#[must_use]
pub fn way_home(assessment: &Assessment) -> Option<WayHome> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup)?;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let usual = lasting(propulsion, guides);
    let efforts = EFFORTS.map(|share| share * usual);
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let chosen: Vec<usize> = order.into_iter().step_by(stride).take(SHAPES).collect();
    // One that does not rest goes nowhere.
    let all: Vec<Option<OneWay>> = chosen
        .par_iter()
        .map(|&i| {
            let shape = setup.posterior.shapes[i];
            one_way(setup, shape, &bound, (propulsion, efforts))
        })
        .collect();
    let came: Vec<&OneWay> = all.iter().flatten().collect();
    // One that does not get there counts as the slowest, one whom the stream alone stops
    // as stopped by the least wind.
    let each = |absent: Absent, f: &dyn Fn(&OneWay) -> [Option<f64>; 3]| {
        let each = all.iter().flat_map(|c| c.as_ref().map_or([None; 3], f));
        let all = each.map(|v| Shown {
            value: v.unwrap_or(f64::NAN),
            weight: 1.0,
            absent,
        });
        Range::over_all(&all.collect::<Vec<_>>())
    };
    let scope = guides[if setup.brief.water.wave().is_some_and(|m| m >= ROUGH) {
        Guide::ScopeRough
    } else if bound.weather.wind > 0.0 || bound.weather.stream > 0.0 {
        Guide::Scope
    } else {
        Guide::ScopeCalm
    }];
    Some(WayHome {
        bound,
        out: each(Absent::Highest, &|c| c.out),
        back: each(Absent::Highest, &|c| c.back),
        home_wind: each(Absent::Lowest, &|c| c.home),
        hold: Range::of(came.iter().map(|c| (c.hold, 1.0)))?,
        hold_beam_on: Range::of(came.iter().map(|c| (c.beam_on, 1.0)))?,
        line: scope * (bound.depth + 0.3),
        effort: efforts,
    })
}

/// Minutes back of the middle shape with the wind from all sides, in steps of 360°/`steps`
/// from dead ahead, clockwise; the stream against. `None` where it makes no headway.
#[must_use]
pub fn rose(assessment: &Assessment, steps: u32) -> Option<Vec<Option<f64>>> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup)?;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let drive = Drive::of(propulsion, setup.brief.water.density, guides);
    let watts = lasting(propulsion, guides);
    let going = Going::of(setup, assessment.middle)?;
    let minutes = going.boat(setup, &bound, |boat| {
        (0..steps)
            .map(|k| {
                let from = std::f64::consts::TAU * f64::from(k) / f64::from(steps);
                let over = boat.over_ground((&drive, watts), bound.weather, [from, 0.0])?;
                Some(bound.distance / over / 60.0)
            })
            .collect()
    });
    Some(minutes)
}

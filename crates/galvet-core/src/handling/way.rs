//! The way home: what wind and stream make of a day's distance, and what an anchor has to
//! hold, over possible shapes and over efforts one can keep up.

use super::drive::{Boat, Drive, Weather, chop};
use super::windage::{Drag, side_areas, side_areas_with};
use crate::body::Shape;
use crate::circuit::Circuits;
use crate::effort::{PowerCurve, Resistance, efficiency, lasting};
use crate::figures::{Absent, Assessment, Range, Setup, Shown, outlook};
use crate::guide::Guide;
use crate::hull::Propulsion;
use crate::load::Carriage;
use crate::question::Outing;
use rayon::prelude::*;

/// Waves from which a water is rough for an anchor, m.
const ROUGH: f64 = 0.4;
/// Shapes it is taken over.
const SHAPES: usize = 3;
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
    /// What a day asks, in a forecast's wind or else the water's typical one; `None` where
    /// neither names one. Where the water says no stream or depth, and the day no distance,
    /// guide values stand in.
    #[must_use]
    pub fn of(setup: &Setup, outing: &Outing) -> Option<Self> {
        /// Waves from here on are swell, m: the chop on them is less.
        const SWELL: f64 = 0.5;
        let (water, guides) = (&setup.brief.water, setup.guides());
        // A forecast is for ten metres up, where it blows harder.
        let forecast = outing.wind.map(|w| guides[Guide::WindAtBoat] * w);
        let wind = forecast.or(water.wind())?;
        let typical = water.wind().unwrap_or(wind);
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
            distance: 0.5 * outing.distance.unwrap_or(6_000.0),
            depth: water.anchor_depth.unwrap_or(guides[Guide::DepthUnknown]),
            chop: (height, typical),
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
    /// What it takes at hand, foot or battery to stay in place without an anchor, W.
    pub hold_watts: Option<Range>,
    /// Share of the battery left after both ways; `None` without a motor and one.
    pub battery: Option<Range>,
    /// Back by paddle, the drive up, s; `None` where it is paddled anyway.
    pub back_up: Option<Range>,
    /// Efforts it is taken over, W: least, usual, most.
    pub effort: [f64; 3],
}

/// One shape ready to go: its drag and its resistance by speed.
pub(super) struct Going {
    drag: Drag,
    at_anchor: Drag,
    /// Of the hull alone, in the water.
    curve: PowerCurve,
}

impl Going {
    pub(super) fn of(setup: &Setup, shape: Shape) -> Option<Self> {
        let guides = setup.guides();
        Some(Self {
            drag: side_areas_with(setup, shape, Carriage::Seated)?.drag(guides),
            // At anchor one fishes as asked; home one goes seated.
            at_anchor: side_areas(setup, shape)?.drag(guides),
            curve: PowerCurve::in_water(&outlook::resistance(setup, shape)?),
        })
    }

    /// Does something with the boat it makes, driven so.
    pub(super) fn boat<T>(
        &self,
        (setup, propulsion): (&Setup, Propulsion),
        bound: &Bound,
        act: impl FnOnce(&Boat<'_>) -> T,
    ) -> T {
        let guides = setup.guides();
        let form = &setup.posterior.form;
        let density = setup.brief.water.density;
        // A rudder hangs in the lee of a drive let down: the larger counts.
        let drive = if propulsion.has_drive() {
            guides[Guide::DriveDrag]
        } else {
            0.0
        };
        let rudder = if setup.posterior.survey.tracks_straight {
            guides[Guide::RudderDrag]
        } else {
            0.0
        };
        let hangs = 1.0 + drive.max(rudder);
        let water = |speed: f64| hangs * self.curve.force_at(speed);
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
    /// To stay in place without an anchor, W.
    pub hold_watts: f64,
}

/// The way of one shape, driven so with these efforts, W; `None` where it does not rest.
#[must_use]
pub fn one_way(
    setup: &Setup,
    shape: Shape,
    bound: &Bound,
    by: (Propulsion, [f64; 3]),
) -> Option<OneWay> {
    Some(go(setup, &Going::of(setup, shape)?, bound, by))
}

/// The same of a shape that is ready to go.
fn go(
    setup: &Setup,
    going: &Going,
    bound: &Bound,
    (propulsion, efforts): (Propulsion, [f64; 3]),
) -> OneWay {
    let drive = Drive::of(propulsion, setup.brief.water.density, setup.guides());
    going.boat((setup, propulsion), bound, |boat| {
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
            // Its own thrust against the same force, the stream passing.
            hold_watts: {
                let force = boat.hold(bound.weather, going.drag.ahead);
                drive.power(force, bound.weather.stream)
            },
            beam_on: boat.hold_beam_on(bound.weather, going.at_anchor.air),
        }
    })
}

/// The way home of an assessed hull; `None` where neither forecast nor water names a wind,
/// or no shape rests. Seated, as one goes home.
#[must_use]
pub fn way_home(assessment: &Assessment, outing: &Outing) -> Option<WayHome> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup, outing)?;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let driven = |propulsion: Propulsion| {
        let usual = lasting(propulsion, guides);
        (propulsion, EFFORTS.map(|share| share * usual))
    };
    let by = driven(propulsion);
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let chosen: Vec<usize> = order.into_iter().step_by(stride).take(SHAPES).collect();
    // One that does not rest goes nowhere.
    let ready: Vec<Option<Going>> = chosen
        .par_iter()
        .map(|&i| Going::of(setup, setup.posterior.shapes[i]))
        .collect();
    let all = |by: (Propulsion, [f64; 3])| -> Vec<Option<OneWay>> {
        let one = |going: &Option<Going>| Some(go(setup, going.as_ref()?, &bound, by));
        ready.iter().map(one).collect()
    };
    let up = propulsion
        .has_drive()
        .then(|| {
            each(&all(driven(Propulsion::Paddle)), Absent::Highest, |c| {
                c.back
            })
        })
        .flatten();
    let all = all(by);
    let came: Vec<&OneWay> = all.iter().flatten().collect();
    let scope = guides[if setup.brief.water.wave().is_some_and(|m| m >= ROUGH) {
        Guide::ScopeRough
    } else if bound.weather.wind > 0.0 || bound.weather.stream > 0.0 {
        Guide::Scope
    } else {
        Guide::ScopeCalm
    }];
    let joules = (propulsion == Propulsion::Motor).then(|| {
        let hours = outing.hours.unwrap_or(Circuits::usual_day(guides));
        Circuits::of(&setup.brief.rig, guides).for_driving(hours)
    });
    let battery = joules.filter(|j| *j > 0.0).and_then(|joules| {
        each(&all, Absent::Lowest, |c| {
            std::array::from_fn(|k| {
                let seconds = c.out[k]? + c.back[k]?;
                Some(1.0 - by.1[k] * seconds / joules)
            })
        })
    });
    Some(WayHome {
        bound,
        // One that does not get there counts as the slowest, one whom the stream alone
        // stops as stopped by the least wind.
        out: each(&all, Absent::Highest, |c| c.out),
        back: each(&all, Absent::Highest, |c| c.back),
        home_wind: each(&all, Absent::Lowest, |c| c.home),
        hold: Range::of(came.iter().map(|c| (c.hold, 1.0)))?,
        hold_beam_on: Range::of(came.iter().map(|c| (c.beam_on, 1.0)))?,
        line: scope * (bound.depth + 0.3),
        hold_watts: Range::of(came.iter().map(|c| (c.hold_watts, 1.0))),
        battery,
        back_up: up,
        effort: by.1,
    })
}

/// A figure over shapes and efforts; what lacks it counts as `absent` says.
fn each(
    all: &[Option<OneWay>],
    absent: Absent,
    of: impl Fn(&OneWay) -> [Option<f64>; 3],
) -> Option<Range> {
    let each = all.iter().flat_map(|c| c.as_ref().map_or([None; 3], &of));
    let all = each.map(|v| Shown {
        value: v.unwrap_or(f64::NAN),
        weight: 1.0,
        absent,
    });
    Range::over_all(&all.collect::<Vec<_>>())
}

/// What the way back is made of, of the middle shape at the usual effort.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Account {
    /// Effort, W.
    pub effort: f64,
    /// Thrust, N.
    pub thrust: f64,
    /// What the hull, the air and the chop hold back with, N.
    pub water: f64,
    /// The same of the air.
    pub air: f64,
    /// The same of the chop.
    pub chop: f64,
    /// Drag area in the wind from ahead, m².
    pub ahead: f64,
    /// Speed through the water, m/s.
    pub through: f64,
    /// Speed over the ground, m/s.
    pub over: f64,
}

/// How the way back comes about; `None` where the middle shape makes no headway.
#[must_use]
pub fn account(assessment: &Assessment, outing: &Outing) -> Option<Account> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup, outing)?;
    let propulsion = assessment.driven();
    let drive = Drive::of(propulsion, setup.brief.water.density, setup.guides());
    let effort = lasting(propulsion, setup.guides());
    let going = Going::of(setup, assessment.middle)?;
    let ahead = going.drag.ahead;
    going.boat((setup, propulsion), &bound, |boat| {
        let over = boat.over_ground((&drive, effort), bound.weather, [0.0; 2])?;
        let through = over + bound.weather.stream;
        let [water, air, chop] = boat.parts(through, over, bound.weather.wind);
        Some(Account {
            effort,
            thrust: drive.thrust(effort, through),
            water,
            air,
            chop,
            ahead,
            through,
            over,
        })
    })
}

/// Speed kept up in still water without and with the floats beside it, m/s, of the middle
/// shape; `None` where there are none, or nothing moves.
#[must_use]
pub fn braked(assessment: &Assessment) -> Option<[f64; 2]> {
    let setup = &assessment.setup;
    if setup.outriggers().is_empty() {
        return None;
    }
    let (guides, propulsion) = (setup.guides(), assessment.driven());
    let watts = efficiency(propulsion, guides) * lasting(propulsion, guides);
    let speed = |setup: &Setup| {
        let resistance = outlook::resistance(setup, assessment.middle)?;
        PowerCurve::of(&resistance, 1.05 * watts).speed_at(watts)
    };
    Some([speed(&setup.clone().without_outriggers())?, speed(setup)?])
}

/// What is towed alongside does at the speed kept up, of the middle shape.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tow {
    /// Its pull, N, on the side it hangs.
    pub pull: f64,
    /// Speed without and with it, m/s.
    pub speed: [f64; 2],
}

/// What is towed costs; `None` where nothing is, or nothing moves.
#[must_use]
pub fn tow(assessment: &Assessment) -> Option<Tow> {
    let setup = &assessment.setup;
    let towed = setup.towed();
    if towed <= 0.0 {
        return None;
    }
    let (guides, propulsion) = (setup.guides(), assessment.driven());
    let resistance = outlook::resistance(setup, assessment.middle)?;
    let watts = efficiency(propulsion, guides) * lasting(propulsion, guides);
    let speed = |r: &Resistance| PowerCurve::of(r, 1.05 * watts).speed_at(watts);
    let slow = speed(&resistance)?;
    Some(Tow {
        pull: resistance.pull(towed, slow),
        speed: [speed(&resistance.clone().towing(-towed))?, slow],
    })
}

/// Minutes back of the middle shape with the wind from all sides, in steps of 360°/`steps`
/// from dead ahead, clockwise; the stream against. `None` where it makes no headway.
#[must_use]
pub fn rose(assessment: &Assessment, outing: &Outing, steps: u32) -> Option<Vec<Option<f64>>> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup, outing)?;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let drive = Drive::of(propulsion, setup.brief.water.density, guides);
    let watts = lasting(propulsion, guides);
    let going = Going::of(setup, assessment.middle)?;
    let minutes = going.boat((setup, propulsion), &bound, |boat| {
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

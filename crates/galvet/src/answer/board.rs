//! One hull with a rig on her, looked at closely: what the stow board shows.

use super::desk::{Desk, Hull};
use galvet_core::body::{Lines, Shape};
use galvet_core::figures::{Afloat, Quantity, Setup, Values};
use galvet_core::float::{Accuracy, Fate};
use galvet_core::gear::{Electric, Fixing};
use galvet_core::guide::Guides;
use galvet_core::hull::{FittingKind, Pin};
use galvet_core::plausible::CannotFloat;
use galvet_core::power::{Bank, BankError, Cell, Wiring};
use galvet_core::question::Brief;
use galvet_core::stow::{Audit, Hour, LegRoom, Mode, Space, audit, leg_room, paddle_length};
use std::sync::Arc;

/// How she lies at a point of the day.
#[derive(Debug, Clone)]
pub struct Point {
    /// When.
    pub hour: Hour,
    /// Crew and kit, kg.
    pub load: f64,
    /// Figures of the middle shape.
    pub figures: Values,
}

/// A cable from one thing to another.
#[derive(Debug, Clone, PartialEq)]
pub struct Cable {
    /// From.
    pub from: String,
    /// To.
    pub to: String,
    /// To be ordered, m: along, across and up, and slack.
    pub length: f64,
}

/// What the batteries aboard give.
#[derive(Debug, Clone)]
pub struct Power {
    /// All of them side by side.
    pub bank: Result<Bank, BankError>,
    /// The same one after the other, where there are several.
    pub series: Option<Result<Bank, BankError>>,
    /// What draws: name, watts, share of the time, and whether it is a motor.
    pub draws: Vec<(String, f64, f64, bool)>,
    /// Hours all that is no motor runs, a share kept back.
    pub hours: Option<f64>,
    /// Cables to order.
    pub cables: Vec<Cable>,
}

/// Her seat moved for her trim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeatMove {
    /// Aft, m (forward below zero).
    pub by: f64,
    /// Trim then, °.
    pub trim: f64,
}

/// A hull with a rig on her.
#[derive(Debug)]
pub struct Board {
    /// Hull, question and loads.
    pub setup: Setup,
    /// What she offers.
    pub space: Space,
    /// The shape that is drawn.
    pub shape: Shape,
    /// Its lines.
    pub lines: Lines,
    /// Its figures.
    pub figures: Values,
    /// What becomes of it.
    pub fate: Fate,
    /// Height of the floor above the baseline, m.
    pub floor: f64,
    /// Height of the water at bow and stern, m above the baseline; `None` where
    /// she does not rest.
    pub water: Option<(f64, f64)>,
    /// What is being done.
    pub mode: Mode,
    /// Whether the angler can be set up in her.
    pub fit: LegRoom,
    /// A paddle for this beam, seat and angler, m.
    pub paddle: f64,
    /// What is lost when she goes over.
    pub audit: Audit,
    /// Through the day.
    pub day: Vec<Point>,
    /// A layout that trims her better, and her trim with it, °.
    pub better: Option<(Vec<Pin>, f64)>,
    /// Her seat moved to trim her better.
    pub seat: Option<SeatMove>,
    /// Batteries and what draws; `None` where there is neither.
    pub power: Option<Power>,
}

/// Slack left on a cable, m.
const SLACK: f64 = 0.4;
/// Trim worth mending, °.
const WORTH: f64 = 0.15;

impl Board {
    /// Lays a question's rig on a hull with things put by hand, and looks at it in
    /// a mode.
    ///
    /// # Errors
    /// [`CannotFloat`].
    pub fn of(
        desk: &Desk,
        hull: &Hull,
        brief: &Brief,
        pins: &[Pin],
        mode: Mode,
    ) -> Result<Self, CannotFloat> {
        let shapes = desk.shapes(hull)?;
        let brief = Arc::new(brief.floating_part());
        let laid = Setup::pinned(shapes.clone(), brief.clone(), pins);
        let shape = shapes.middle();
        let fit = leg_room(&shapes.survey, brief.crew, desk.guides());
        let paddle = {
            let seat = laid.loads.seat_height();
            let [_, beam] = laid.space().size;
            paddle_length(beam, seat, brief.crew.stature(), desk.guides())
        };
        let audit = audit(&laid.loads.layout, &brief.rig);
        let day = day(&laid, &shape);
        let power = power(&laid, &brief, desk.guides());
        let setup = laid.in_mode(mode);
        let (figures, fate) = figures_of(&setup, &shape);
        let (floor, water) = {
            let drawn = [shape];
            let afloat = Afloat::new(&setup, &drawn, Accuracy::FINE);
            let case = afloat.case(setup.carriage());
            let at = &case.upright.attitude;
            let (bow, length) = (shapes.form.bow(), shapes.form.length());
            let middle = afloat.body.middle();
            let level = |x: f64| at.water_at(x, middle).0[0];
            let water = case.upright.rests(0);
            let water = water.then(|| (level(bow), level(bow + length)));
            (afloat.body.standing_height.0[0], water)
        };
        let trim = figures.get(Quantity::Trim);
        let going = mode == Mode::UnderWay;
        let better = trim.filter(|_| going);
        let better = better.and_then(|trim| better_trim(&setup, &shape, pins, trim));
        Ok(Self {
            space: setup.space(),
            lines: shapes.form.lines(&shape),
            audit,
            day,
            mode,
            fit,
            paddle,
            seat: trim.and_then(|trim| seat_move(&setup, trim)),
            power,
            better,
            setup,
            shape,
            figures,
            fate,
            floor,
            water,
        })
    }
}

fn figures_of(setup: &Setup, shape: &Shape) -> (Values, Fate) {
    let drawn = [*shape];
    let [figures] = Afloat::new(setup, &drawn, Accuracy::FINE).figures();
    figures
}

fn day(setup: &Setup, shape: &Shape) -> Vec<Point> {
    let hours = [Hour::Launch, Hour::Midday, Hour::Return];
    let point = |hour| {
        let then = setup.at(hour);
        Point {
            hour,
            load: then.loads.crew_mass() + then.loads.layout.loaded(),
            figures: figures_of(&then, shape).0,
        }
    };
    hours.map(point).to_vec()
}

/// A layout nearer to level than the one there is, as pins of what moves.
fn better_trim(setup: &Setup, shape: &Shape, pins: &[Pin], trim: f64) -> Option<(Vec<Pin>, f64)> {
    let (posterior, brief) = (setup.posterior.clone(), setup.brief.clone());
    let other = Setup::levelled(posterior, brief, pins, (-0.1, 0.4));
    let then = figures_of(&other, shape).0.get(Quantity::Trim)?;
    let off = |trim: f64| (trim - 0.15).abs();
    (off(then) < off(trim) - WORTH).then(|| (moved(setup, &other), then))
}

/// Pins of what lies elsewhere in another layout.
fn moved(setup: &Setup, other: &Setup) -> Vec<Pin> {
    let mut pins = all_pins(other);
    let before = all_pins(setup);
    pins.retain(|pin| !before.contains(pin));
    pins
}

/// Where everything lies, as pins.
#[must_use]
pub fn all_pins(setup: &Setup) -> Vec<Pin> {
    let bow = setup.posterior.form.bow();
    let layout = &setup.loads.layout;
    let mut pins: Vec<Pin> = Vec::new();
    for stowed in &layout.stowed {
        let thing = setup
            .brief
            .rig
            .lines
            .get(stowed.line)
            .and_then(|l| l.thing.as_ref());
        let (Some(lies), Some(thing)) = (&stowed.lies, thing) else {
            continue;
        };
        if lies.within.is_some() {
            continue;
        }
        let nth = pins.iter().filter(|p| p.thing == thing.key).count() as u32;
        let turned = thing
            .size
            .is_some_and(|s| (lies.size[0] - s[0]).abs() > 1e-3);
        pins.push(Pin {
            thing: thing.key.clone(),
            nth,
            place: lies.zone.clone(),
            x: stowed.x - bow,
            y: stowed.y,
            turned: turned && lies.fixing != Fixing::Holder,
        });
    }
    pins
}

/// The seat moved within its slide so that she lies level.
fn seat_move(setup: &Setup, trim: f64) -> Option<SeatMove> {
    let survey = &setup.posterior.survey;
    let slide = survey
        .fitout
        .fittings_now()
        .iter()
        .find_map(|f| match f.kind {
            FittingKind::Seat { slide, .. } if slide > 0.0 => Some(slide),
            _ => None,
        })?;
    let balance = setup.balance()?;
    let per_metre = setup.loads.crew_mass() / balance.per_degree;
    // A hair bow up is best; no further than half the slide either way.
    let by = ((0.15 - trim) / per_metre).clamp(-0.5 * slide, 0.5 * slide);
    let by = (by * 100.0).round() / 100.0;
    let trim_then = trim + by * per_metre;
    ((trim_then - trim).abs() >= WORTH).then_some(SeatMove {
        by,
        trim: trim_then,
    })
}

fn power(setup: &Setup, brief: &Brief, guides: &Guides) -> Option<Power> {
    let mut cells = Vec::new();
    let mut draws = Vec::new();
    for line in &brief.rig.lines {
        let Some(thing) = &line.thing else { continue };
        for _ in 0..line.count {
            match thing.electric {
                Electric::Battery {
                    volts,
                    amp_hours,
                    chemistry,
                } => cells.push(Cell {
                    name: thing.name.clone(),
                    volts,
                    amp_hours,
                    chemistry,
                }),
                Electric::Draw { watts, duty } => {
                    let motor = thing.category == galvet_core::gear::Category::Propulsion;
                    draws.push((thing.name.clone(), watts, duty, motor));
                }
                Electric::None => {}
            }
        }
    }
    if cells.is_empty() && draws.is_empty() {
        return None;
    }
    let bank = Bank::wire(&cells, Wiring::Parallel, guides);
    let small: Vec<(f64, f64)> = draws.iter().filter(|d| !d.3).map(|d| (d.1, d.2)).collect();
    let hours = bank.as_ref().ok().and_then(|b| b.hours(&small, guides));
    Some(Power {
        series: (cells.len() > 1).then(|| Bank::wire(&cells, Wiring::Series, guides)),
        cables: cables(setup, &draws),
        hours,
        bank,
        draws,
    })
}

/// From the heaviest battery aboard to each thing that draws.
fn cables(setup: &Setup, draws: &[(String, f64, f64, bool)]) -> Vec<Cable> {
    let layout = &setup.loads.layout;
    let is_battery = |line: usize| {
        let thing = setup
            .brief
            .rig
            .lines
            .get(line)
            .and_then(|l| l.thing.as_ref());
        thing.is_some_and(|t| matches!(t.electric, Electric::Battery { .. }))
    };
    let batteries = layout.stowed.iter().filter(|s| is_battery(s.line));
    let Some(battery) = batteries.max_by(|a, b| a.loaded_mass.total_cmp(&b.loaded_mass)) else {
        return Vec::new();
    };
    let mut names: Vec<&str> = draws.iter().map(|d| d.0.as_str()).collect();
    names.dedup();
    let drawn = layout
        .stowed
        .iter()
        .filter(|s| names.contains(&s.item.as_str()));
    drawn
        .filter(|s| s.lies.is_some())
        .map(|s| {
            let along = (s.x - battery.x).abs();
            let across = (s.y - battery.y).abs();
            let up = (s.above_floor - battery.above_floor).abs();
            Cable {
                from: battery.item.clone(),
                to: s.item.clone(),
                length: along + across + up + SLACK,
            }
        })
        .collect()
}

//! One hull with a rig on it, looked at closely: what the stow board shows.

use super::desk::{Desk, Hull};
use galvet_core::advise::power::{Power, power};
use galvet_core::advise::trim::{SeatMove, better_trim, seat_move, without_holes};
use galvet_core::body::{Lines, Shape};
use galvet_core::figures::{Afloat, Quantity, Remedy, Setup, Values, remedies};
use galvet_core::float::{Accuracy, Fate};
use galvet_core::hull::Pin;
use galvet_core::plausible::CannotFloat;
use galvet_core::question::Brief;
use galvet_core::stow::{
    Audit, Clash, Hour, Layout, LegRoom, Mode, Sited, Space, Work, audit, clashes, leg_room,
    paddle_length, sited, work,
};
use std::sync::Arc;

/// How it lies at a point of the day.
#[derive(Debug, Clone)]
pub struct Point {
    /// When; `None`: everything aboard at once.
    pub hour: Option<Hour>,
    /// Crew and kit, kg.
    pub load: f64,
    /// Figures of the middle shape.
    pub figures: Values,
}

/// A hull with a rig on it.
#[derive(Debug)]
pub struct Closeup {
    /// Hull, question and loads.
    pub setup: Setup,
    /// What it offers.
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
    /// it does not rest.
    pub water: Option<(f64, f64)>,
    /// What is being done.
    pub mode: Mode,
    /// Whether the angler can be set up in it.
    pub fit: LegRoom,
    /// A paddle for this beam, seat and angler, m.
    pub paddle: f64,
    /// What is lost when it goes over.
    pub audit: Audit,
    /// Through the day.
    pub day: Vec<Point>,
    /// A layout that trims it better, and its trim with it, °.
    pub better: Option<(Vec<Pin>, f64)>,
    /// Its seat moved to trim it better.
    pub seat: Option<SeatMove>,
    /// What holding it all takes.
    pub work: Work,
    /// The layout without a hole, where this one has some.
    pub whole: Option<(Vec<Pin>, Arc<Layout>)>,
    /// Where the transducers are.
    pub sited: Vec<Sited>,
    /// What was put by hand and is in the way.
    pub clashes: Vec<Clash>,
    /// What would give each thing without a place one, as many as the layout tells
    /// without, each cheapest first.
    pub remedies: Vec<Vec<Remedy>>,
    /// Batteries and what draws; `None` where there is neither.
    pub power: Option<Power>,
}

/// Remedies told of one thing at most.
const REMEDIES: usize = 3;

impl Closeup {
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
        let asked = brief;
        let brief = Arc::new(asked.floating_part(desk.guides()));
        let laid = Setup::pinned(shapes.clone(), brief.clone(), pins);
        let shape = shapes.middle();
        let fit = leg_room(&shapes.survey, brief.crew, desk.guides());
        let paddle = {
            let seat = laid.loads.seat_height(&shape);
            let [_, beam] = laid.space().size;
            paddle_length(beam, seat, brief.crew.stature(), desk.guides())
        };
        let audit = audit(&laid.loads.layout, &brief.rig);
        let day = day(&laid, &shape);
        let power = power(&laid, asked, &shape);
        let space = laid.space();
        let layout = &laid.loads.layout;
        let work = work(layout, &space);
        let sited = sited(layout, &brief.rig, &space);
        let clashes = clashes(layout, &space);
        let left = layout.unplaced.iter();
        let remedies = left.map(|u| remedies(&laid, u, REMEDIES)).collect();
        let whole = (work.sealed > 0).then(|| without_holes(&laid, pins));
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
        let better = better.and_then(|_| better_trim(&setup, &shape, pins));
        Ok(Self {
            space,
            work,
            whole,
            sited,
            clashes,
            lines: shapes.form.lines(&shape),
            audit,
            day,
            mode,
            fit,
            paddle,
            seat: trim.and_then(|trim| seat_move(&setup, trim)),
            power,
            remedies,
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

/// Launch, midday, return, and everything aboard at once: it is ranked by the worst
/// of them, figure by figure.
fn day(setup: &Setup, shape: &Shape) -> Vec<Point> {
    let point = |hour: Option<Hour>| {
        let then = hour.map(|hour| setup.at(hour));
        let then = then.as_ref().unwrap_or(setup);
        Point {
            hour,
            load: then.loads.counted_mass(0.0),
            figures: figures_of(then, shape).0,
        }
    };
    let hours = [Hour::Launch, Hour::Midday, Hour::Return].map(Some);
    hours.into_iter().chain([None]).map(point).collect()
}

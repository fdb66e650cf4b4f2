//! Drift beam-on and helm, from side areas above and below the water.
//!
//! Drift: the push of the wind felt from the drifting boat equals the water's on the side
//! below, `½ ρ_a (C A)_a (U − v)² = ½ ρ_w (C A)_w v²` (handbook, chapter 10, after the usual
//! drag law). Hull and kit count by what they show, people by drag areas measured on people.
//! Helm: how far the centre of drag in the wind lies behind that in the water.

use super::drive::leeway;
use crate::body::Shape;
use crate::figures::{Afloat, Assessment, Range, Setup};
use crate::float::Accuracy;
use crate::gear::Fixing;
use crate::guide::{Guide, Guides};
use crate::hull::Measure;
use crate::load::{Carriage, LoadPlan};
use crate::portrait::{Person, Stick, seated, standing};
use crate::stow::{Lies, Stowed};

/// Shapes the figures are taken over.
const SHAPES: usize = 8;
/// Width of a rod or net as the wind sees it, m.
const SLENDER: f64 = 0.02;

/// An area seen from the side, and its moment about the bow.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Area {
    /// Size, m².
    pub size: f64,
    /// First moment about the bow's datum, m³.
    moment: f64,
}

impl Area {
    fn add(&mut self, size: f64, x: f64) {
        self.size += size;
        self.moment += size * x;
    }

    /// Place of its centre along the hull, m from the bow's datum.
    #[must_use]
    pub fn centre(&self) -> f64 {
        self.moment / self.size
    }
}

/// What wind and water meet from the side.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct SideAreas {
    /// Hull above the water.
    pub hull: Area,
    /// People above the gunwale.
    pub people: Area,
    /// Kit above the gunwale.
    pub kit: Area,
    /// Hull, and what is let down, below the water.
    pub below: Area,
    /// Drag areas of everybody aboard, m²: from ahead and from the side.
    pub people_drag: [f64; 2],
    /// Drag area of hull and kit from ahead, m².
    pub ahead: f64,
}

/// Drag areas C·A in wind and water, m², and where they act, m from the bow's datum.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Drag {
    /// In the wind, beam-on.
    pub air: f64,
    /// Where that acts.
    pub air_at: f64,
    /// In the water, beam-on.
    pub water: f64,
    /// Where that acts.
    pub water_at: f64,
    /// In the wind from ahead.
    pub ahead: f64,
}

impl SideAreas {
    /// What holds and pushes it.
    #[must_use]
    pub fn drag(&self, guides: &Guides) -> Drag {
        let shows = guides[Guide::AirDrag];
        // Where nothing of a person shows, nothing of it is pushed either.
        let people = if self.people.size > 0.0 {
            self.people_drag[1]
        } else {
            0.0
        };
        let of_people = if people > 0.0 {
            self.people.centre()
        } else {
            0.0
        };
        let air = shows * (self.hull.size + self.kit.size) + people;
        let moment = shows * (self.hull.moment + self.kit.moment) + people * of_people;
        Drag {
            air,
            air_at: moment / air,
            water: guides[Guide::SideDrag] * self.below.size,
            water_at: self.below.centre(),
            ahead: self.ahead + self.people_drag[0],
        }
    }
}

/// How it lies to the wind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Windage {
    /// Drift beam-on, m/s.
    pub drift: Range,
    /// Helm at rest, % of the length: above zero it turns into the wind.
    pub helm_at_rest: Range,
    /// Helm under way, % of the length.
    pub helm_under_way: Range,
    /// Side areas of the middle shape, m²: hull, people and kit above the water, all
    /// below it.
    pub areas: [f64; 4],
}

/// Drift beam-on through the water, m/s, in a wind of `wind` m/s, in water of `density`
/// kg/m³.
#[must_use]
pub fn drift(wind: f64, areas: &SideAreas, density: f64, guides: &Guides) -> f64 {
    let drag = areas.drag(guides);
    wind * leeway(drag.air, drag.water, (density, guides[Guide::AirDensity]))
}

/// Drift beam-on of the middle shape with a sock of drag area `sock` m² out, m/s.
#[must_use]
pub fn drift_socked(assessment: &Assessment, wind: f64, sock: f64) -> Option<f64> {
    let setup = &assessment.setup;
    let guides = setup.guides();
    let drag = side_areas(setup, assessment.middle)?.drag(guides);
    let densities = (setup.brief.water.density, guides[Guide::AirDensity]);
    Some(wind * leeway(drag.air, drag.water + sock, densities))
}

/// How far the wind's centre lies behind the water's, % of `length`: at rest, and
/// under way, where the water's centre moves forward by a tenth of the length.
#[must_use]
pub fn helm(areas: &SideAreas, length: f64, guides: &Guides) -> (f64, f64) {
    let drag = areas.drag(guides);
    let behind = drag.air_at - drag.water_at;
    let forward = guides[Guide::CentreForward] * length;
    let share = |lever: f64| 100.0 * lever / length;
    (share(behind), share(behind + forward))
}

/// Side areas of one shape under its load, the angler as asked; `None` where it does not
/// rest.
#[must_use]
pub fn side_areas(setup: &Setup, shape: Shape) -> Option<SideAreas> {
    side_areas_with(setup, shape, setup.carriage())
}

/// The same with the angler carried so.
#[must_use]
pub fn side_areas_with(setup: &Setup, shape: Shape, carriage: Carriage) -> Option<SideAreas> {
    let shapes = [shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let case = afloat.case(carriage);
    if !case.upright.rests(0) {
        return None;
    }
    let form = &setup.posterior.form;
    let (bow, middle) = (form.bow(), afloat.body.middle());
    let lines = form.lines(&shape);
    let at = &case.upright.attitude;
    let water = |x: f64| at.water_at(bow + x, middle).0[0];
    let mut areas = SideAreas::default();
    let rows: Vec<[f64; 3]> = lines
        .sheer
        .iter()
        .zip(&lines.keel)
        .map(|(&(x, sheer), &(_, keel))| {
            let water = water(x);
            let dry = (sheer - water.max(keel)).max(0.0);
            let wet = (water.min(sheer) - keel).max(0.0);
            [x, dry, wet]
        })
        .collect();
    for pair in rows.windows(2) {
        let (step, x) = (pair[1][0] - pair[0][0], 0.5 * (pair[0][0] + pair[1][0]));
        areas
            .hull
            .add(0.5 * step * (pair[0][1] + pair[1][1]), bow + x);
        areas
            .below
            .add(0.5 * step * (pair[0][2] + pair[1][2]), bow + x);
    }
    let floor = afloat.body.standing_height.0[0];
    let rim = |x: f64| level(&lines.sheer, x - bow);
    for person in people(setup, &shape, (floor, carriage)) {
        stand_in(&mut areas.people, &person, &rim);
    }
    areas.people_drag = people_drag(setup, carriage);
    let stowed = &setup.loads.layout.stowed;
    kit(&mut areas.kit, stowed, floor, &rim);
    let freeboard = (rim(middle) - water(middle - bow)).max(0.0);
    let guides = setup.guides();
    for floats in &afloat.body.floats {
        let middle = 0.5 * (floats.along[0] + floats.along[1]);
        let side = 2.0 * floats.radius * (floats.along[1] - floats.along[0]);
        // The lee one lies behind the hull.
        areas.kit.add(side, middle);
    }
    let behind = setup.loads.crew_place(carriage);
    areas.ahead = guides[Guide::HullAhead] * form.beam() * freeboard
        + guides[Guide::KitAhead] * kit_ahead(stowed, floor, (&rim, behind));
    let survey = &setup.posterior.survey;
    if survey.value(Measure::DriveDepth).is_some() {
        // Let down where the drive well is: under the knees.
        let x = setup.loads.crew_place(Carriage::Seated) - 0.3 * setup.brief.crew.stature();
        areas.below.add(setup.guides()[Guide::DriveArea], x);
    }
    if survey.tracks_straight {
        let stern = bow + form.length();
        areas.below.add(setup.guides()[Guide::RudderArea], stern);
    }
    Some(areas)
}

/// Height of a line at `x`, held at its ends.
fn level(line: &[(f64, f64)], x: f64) -> f64 {
    let after = line.iter().position(|&(at, _)| at >= x);
    match after {
        Some(0) => line[0].1,
        Some(i) => {
            let ((a, za), (b, zb)) = (line[i - 1], line[i]);
            za + (zb - za) * (x - a) / (b - a).max(1e-9)
        }
        None => line.last().map_or(0.0, |p| p.1),
    }
}

/// Everybody aboard as a plain figure: the angler as asked, others in their seats.
fn people(setup: &Setup, shape: &Shape, (floor, carriage): (f64, Carriage)) -> Vec<Person> {
    let loads = &setup.loads;
    let place = loads.crew_place(carriage);
    let stature = loads.crew().stature();
    let angler = match carriage {
        Carriage::Seated => seated((place, floor + loads.seat_height(shape)), floor, stature),
        Carriage::AtTheFeet => standing((place, floor), stature),
    };
    let bow = setup.posterior.form.bow();
    let others = loads.company.sat.iter().map(|sat| {
        let seat = (bow + sat.x, floor + LoadPlan::low_seat(shape));
        seated(seat, floor, sat.who.stature())
    });
    std::iter::once(angler).chain(others).collect()
}

/// Drag areas of everybody aboard, m²: from ahead and from the side; by posture and
/// stature (handbook, chapter 10).
fn people_drag(setup: &Setup, carriage: Carriage) -> [f64; 2] {
    let (loads, guides) = (&setup.loads, setup.guides());
    let tall = |stature: f64| (stature / 1.75).powi(2);
    let [ahead, side] = match carriage {
        Carriage::Seated => [Guide::DragSits, Guide::DragSitsSide],
        Carriage::AtTheFeet => [Guide::DragStands, Guide::DragStandsSide],
    };
    let crew = tall(loads.crew().stature());
    let others: f64 = loads
        .company
        .sat
        .iter()
        .map(|sat| tall(sat.who.stature()))
        .sum();
    // From ahead one sits in another's lee: half counts.
    [
        guides[ahead] * crew + 0.5 * guides[Guide::DragSits] * others,
        guides[side] * crew + guides[Guide::DragSitsSide] * others,
    ]
}

/// Area of kit above the rim seen from ahead, m²: things behind one another hide each
/// other, and what lies in somebody's lee counts half.
fn kit_ahead(stowed: &[Stowed], floor: f64, (rim, person): (&dyn Fn(f64) -> f64, f64)) -> f64 {
    /// Strips the outline is cut into, m.
    const STRIP: f64 = 0.02;
    /// Half the breadth somebody shelters, m.
    const LEE: f64 = 0.25;
    let boxes = stowed.iter().filter_map(|s| {
        let lies = s.lies.as_ref()?;
        let own = lies.within.is_none() && lies.fixing != Fixing::Worn;
        own.then_some((s, lies))
    });
    let boxes: Vec<(&Stowed, &Lies)> = boxes.collect();
    (-60..60)
        .map(|strip| {
            let y = (f64::from(strip) + 0.5) * STRIP;
            let over = boxes.iter().filter_map(|(s, lies)| {
                let slender = lies.fixing == Fixing::Holder;
                let width = if slender { SLENDER } else { lies.size[1] };
                let here = (y - s.y).abs() < 0.5 * width.max(STRIP);
                let top = floor + lies.base + lies.size[2] - rim(s.x);
                let sheltered = s.x > person && y.abs() < LEE;
                here.then_some(top.max(0.0) * if sheltered { 0.5 } else { 1.0 })
            });
            over.fold(0.0, f64::max) * STRIP
        })
        .sum()
}

/// What of a person stands above the rim.
fn stand_in(area: &mut Area, person: &Person, rim: &dyn Fn(f64) -> f64) {
    const STEPS: u32 = 8;
    for Stick { joints, width } in &person.in_wind {
        for pair in joints.windows(2) {
            let ((x0, z0), (x1, z1)) = (pair[0], pair[1]);
            let piece = (x1 - x0).hypot(z1 - z0) * width / f64::from(STEPS);
            for step in 0..STEPS {
                let t = (f64::from(step) + 0.5) / f64::from(STEPS);
                let (x, z) = (x0 + t * (x1 - x0), z0 + t * (z1 - z0));
                if z > rim(x) {
                    area.add(piece, x);
                }
            }
        }
    }
    let (x, z) = person.head;
    if z > rim(x) {
        area.add(std::f64::consts::PI * person.head_radius.powi(2), x);
    }
}

/// What of the kit stands above the rim: things behind one another hide each other.
fn kit(area: &mut Area, stowed: &[Stowed], floor: f64, rim: &dyn Fn(f64) -> f64) {
    /// Strips the silhouette is cut into, m.
    const STRIP: f64 = 0.02;
    let lying = stowed.iter().filter_map(|s| {
        // What is worn is on the body, which stands in the wind already.
        let own = |l: &&Lies| l.within.is_none() && l.fixing != Fixing::Worn;
        Some((s, s.lies.as_ref().filter(own)?))
    });
    let (slender, boxes): (Vec<_>, Vec<_>) =
        lying.partition(|(_, lies)| lies.fixing == Fixing::Holder);
    for (s, lies) in slender {
        area.add(SLENDER * lies.size[0].max(lies.size[2]), s.x);
    }
    let ends = |(s, l): &(&Stowed, &Lies)| (s.x - 0.5 * l.size[0], s.x + 0.5 * l.size[0]);
    let from = boxes
        .iter()
        .map(|b| ends(b).0)
        .fold(f64::INFINITY, f64::min);
    let to = boxes
        .iter()
        .map(|b| ends(b).1)
        .fold(f64::NEG_INFINITY, f64::max);
    let strips = ((to - from) / STRIP).clamp(0.0, 1_000.0).ceil() as u32;
    for strip in 0..strips {
        let x = from + (f64::from(strip) + 0.5) * STRIP;
        let here = boxes.iter().filter(|b| {
            let (fore, aft) = ends(b);
            (fore..aft).contains(&x)
        });
        let top = here.map(|(_, l)| floor + l.base + l.size[2]);
        let over = top.fold(0.0, f64::max) - rim(x);
        if over > 0.0 {
            area.add(over * STRIP, x);
        }
    }
}

/// Drift and helm in a wind of `wind` m/s over plausible shapes; `None` where none
/// rests.
#[must_use]
pub fn windage(assessment: &Assessment, wind: f64) -> Option<Windage> {
    let setup = &assessment.setup;
    let (guides, length) = (setup.guides(), setup.posterior.form.length());
    let density = setup.brief.water.density;
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let areas: Vec<SideAreas> = order
        .into_iter()
        .step_by(stride)
        .filter_map(|i| side_areas(setup, setup.posterior.shapes[i]))
        .collect();
    let range = |f: &dyn Fn(&SideAreas) -> f64| Range::of(areas.iter().map(|a| (f(a), 1.0)));
    let middle = side_areas(setup, assessment.middle).or(areas.first().copied())?;
    Some(Windage {
        areas: [
            middle.hull.size,
            middle.people.size,
            middle.kit.size,
            middle.below.size,
        ],
        drift: range(&|a| drift(wind, a, density, guides))?,
        helm_at_rest: range(&|a| helm(a, length, guides).0)?,
        helm_under_way: range(&|a| helm(a, length, guides).1)?,
    })
}

//! `galvet float`: hydrostatics and righting arms of measured offsets.

use super::{Outcome, Problem, read_text};
use galvet_core::base::{Bounds, Dimension, Lanes};
use galvet_core::body::Body;
use galvet_core::float::{
    Accuracy, Fate, Rest, Settled, Start, Weight, clearance, metacentric_height, rest, rim_angle,
    settle, wetted_area,
};
use galvet_core::hull::Flooded;
use galvet_core::stability::Arm;
use galvet_store::files::offsets;
use serde::Serialize;
use std::io::Write;
use std::path::PathBuf;

/// Float a body measured by offsets: draft, trim, list, righting arms
///
/// Loads are KG,X,Y,Z in the offsets' frame: X from the bow, Y to starboard,
/// Z above the baseline, metres. A recess is taken as scuppered.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet float --offsets hull.csv --load 50,1.9,0,0.18 88,1.96,0,0.45\n  galvet float --offsets hull.csv --load 140,1.9,0.02,0.4 --scuppers plugged --density 1025 --json\n\nExit codes: 0 it floats upright, 1 it does not (capsizes, lolls, founders, sinks, swamps), 2 could not."
)]
pub struct Args {
    /// Offsets, CSV: station_m,half_breadth_m,height_m
    #[arg(long, value_name = "FILE")]
    offsets: PathBuf,
    /// Masses and their places: one for the hull and one for each load
    #[arg(long, value_name = "KG,X,Y,Z", required = true, num_args = 1.., value_parser = load)]
    load: Vec<Load>,
    /// Density of the water, kg/m³
    #[arg(long, default_value_t = 1000.0, value_parser = density)]
    density: f64,
    /// Heel angles of the righting curve, degrees
    #[arg(long, value_name = "DEG,…", value_delimiter = ',', value_parser = heel,
          default_value = "0,5,10,15,20,25,30,40,50,60,70,80,90")]
    heels: Vec<f64>,
    /// What is done with the scuppers of a recess
    #[arg(long, value_enum, default_value = "open")]
    scuppers: Scuppers,
    /// Print JSON instead of a table
    #[arg(long)]
    json: bool,
}

impl Args {
    pub(super) const fn json(&self) -> bool {
        self.json
    }
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, clap::ValueEnum)]
enum Scuppers {
    Open,
    Plugged,
}

/// Mass, kg, and place, m.
#[derive(Debug, Clone, Copy)]
struct Load([f64; 4]);

fn number(text: &str, bounds: &Bounds) -> Result<f64, String> {
    let value: f64 = text
        .trim()
        .parse()
        .map_err(|_| format!("“{text}” is not a number"))?;
    bounds.check(value).map_err(|error| error.to_string())
}

fn load(text: &str) -> Result<Load, String> {
    let parts: Vec<&str> = text.split(',').collect();
    let [mass, x, y, z] = parts.as_slice() else {
        return Err("four numbers are needed: KG,X,Y,Z".to_owned());
    };
    Ok(Load([
        number(mass, &Bounds::new("a load", Dimension::Mass, 0.001, 5000.0))?,
        number(x, &Bounds::new("X", Dimension::Length, -20.0, 20.0))?,
        number(y, &Bounds::new("Y", Dimension::Length, -5.0, 5.0))?,
        number(z, &Bounds::new("Z", Dimension::Length, -5.0, 5.0))?,
    ]))
}

fn density(text: &str) -> Result<f64, String> {
    number(
        text,
        &Bounds::new("the density", Dimension::Ratio, 900.0, 1100.0),
    )
}

fn heel(text: &str) -> Result<f64, String> {
    number(
        text,
        &Bounds::new("a heel angle", Dimension::Angle, 0.0, 90.0),
    )
}

/// What is printed, SI; angles in degrees. Keys as published.
#[derive(Debug, Serialize)]
struct Report {
    displacement_kg: f64,
    outcome: Becomes,
    /// What it is like held upright, and at rest; not for what founders or sinks.
    #[serde(flatten)]
    afloat: Option<Afloat>,
    righting: Vec<ArmLine>,
}

/// What becomes of it, and by how much.
#[derive(Debug, Serialize)]
struct Becomes {
    code: &'static str,
    text: String,
}

#[derive(Debug, Serialize)]
struct Afloat {
    volume_m3: f64,
    draft_m: f64,
    draft_bow_m: f64,
    draft_stern_m: f64,
    trim_deg: f64,
    list_deg: f64,
    waterplane_area_m2: f64,
    wetted_area_m2: f64,
    lcb_m: f64,
    kb_m: f64,
    bm_m: f64,
    kg_m: f64,
    gm_m: f64,
    floor_above_water_m: Option<f64>,
    freeboard_m: f64,
}

#[derive(Debug, Serialize)]
struct ArmLine {
    heel_deg: f64,
    gz_m: f64,
    draft_m: f64,
    trim_deg: f64,
    flooded: bool,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let (file, text) = read_text(&args.offsets)?;
    let body = offsets::read(&file, &text)?;
    aboard(&args.load, &body)?;
    let tank = Tank::new(args, &body);
    let report = tank.report(args);
    let mut out = std::io::stdout().lock();
    if args.json {
        let text = serde_json::to_string_pretty(&report).map_err(std::io::Error::other)?;
        writeln!(out, "{text}")?;
    } else {
        table(&mut out, &report)?;
    }
    Ok(if tank.found.fate.is_rest() {
        Outcome::Done
    } else {
        Outcome::Findings
    })
}

/// Refuses loads that lie ahead of the bow or behind the stern: a mistake in the
/// frame, not a load.
fn aboard(loads: &[Load], body: &Body<1>) -> Result<(), Problem> {
    let (bow, stern) = (body.bow, body.bow + body.length);
    let outside = |load: &Load| !(bow..=stern).contains(&load.0[1]);
    match loads.iter().position(outside) {
        None => Ok(()),
        Some(i) => Err(Problem::Missing(format!(
            "load {} at X = {} m lies outside the hull, which reaches from {bow} to {stern} m",
            i + 1,
            loads[i].0[1]
        ))),
    }
}

fn weight(loads: &[Load]) -> Weight<1> {
    let mass: f64 = loads.iter().map(|l| l.0[0]).sum();
    let centre = |axis: usize| loads.iter().map(|l| l.0[0] * l.0[axis]).sum::<f64>() / mass;
    Weight {
        mass: Lanes::splat(mass),
        x: Lanes::splat(centre(1)),
        y: Lanes::splat(centre(2)),
        z: Lanes::splat(centre(3)),
    }
}

fn words(fate: &Fate) -> String {
    match *fate {
        Fate::Rests { list: 0.0 } => "floats upright".to_owned(),
        Fate::Rests { list } => format!("floats with a list of {:.2}°", list.to_degrees()),
        Fate::Lolls { angle, missing } => format!(
            "lolls: GM is {missing:.3} m below zero, it lies at {:.1}°",
            angle.to_degrees()
        ),
        Fate::Capsizes { missing, outside } if missing > 0.0 || outside <= 0.0 => {
            format!("capsizes: GM is {missing:.3} m below zero and no heel is stable")
        }
        Fate::Capsizes { outside, .. } => {
            format!("capsizes: the load lies {outside:.3} m too far to one side")
        }
        Fate::Swamps { by } => format!("swamps: its rim lies {by:.3} m under the water at rest"),
        Fate::Founders { by_the_stern } => {
            let end = if by_the_stern { "stern" } else { "bow" };
            format!("founders: it goes down by the {end}")
        }
        Fate::Sinks { by } => {
            format!("sinks: {by:.1} kg more than the whole body displaces")
        }
    }
}

/// A body with its load in the water, and what becomes of it.
struct Tank<'a> {
    body: &'a Body<1>,
    weight: Weight<1>,
    density: f64,
    open: Flooded,
    found: Rest,
}

impl<'a> Tank<'a> {
    fn new(args: &Args, body: &'a Body<1>) -> Self {
        let weight = weight(&args.load);
        let scuppered = args.scuppers == Scuppers::Open;
        let open = if scuppered {
            Flooded::ALL
        } else {
            Flooded::NONE
        };
        let outline = body.outline(open);
        Self {
            found: rest(body, &outline, &weight, args.density, !scuppered),
            body,
            weight,
            density: args.density,
            open,
        }
    }

    fn report(&self, args: &Args) -> Report {
        Report {
            displacement_kg: self.weight.mass.0[0],
            outcome: Becomes {
                code: self.found.fate.key(),
                text: words(&self.found.fate),
            },
            afloat: self.found.upright.as_ref().map(|u| self.afloat(u)),
            righting: self
                .found
                .upright
                .as_ref()
                .map_or(Vec::new(), |u| self.arms(&args.heels, u)),
        }
    }

    /// Hydrostatics at rest; of what does not rest, held upright.
    fn afloat(&self, upright: &Settled<1>) -> Afloat {
        let (body, weight) = (self.body, &self.weight);
        let settled = self.found.settled.as_ref().unwrap_or(upright);
        let heel = if self.found.settled.is_some() {
            self.found.heel
        } else {
            0.0
        };
        let (at, im) = (&settled.attitude, &settled.immersion);
        let middle = body.middle();
        // Along the centreline the heeled vertical is 1/cos longer.
        let along = 1.0 / heel.cos();
        let water = |x: f64| at.water_at(x, middle).0[0] * along;
        let volume = im.volume.0[0];
        let kb = upright.immersion.zeta_moment.0[0] / upright.immersion.volume.0[0];
        let floor = clearance(&body.floor, middle, at).0[0];
        Afloat {
            volume_m3: volume,
            draft_m: water(middle),
            draft_bow_m: water(body.bow),
            draft_stern_m: water(body.bow + body.length),
            trim_deg: at.slope.0[0].atan().to_degrees(),
            list_deg: heel.to_degrees(),
            waterplane_area_m2: im.area.0[0],
            wetted_area_m2: wetted_area(body, &body.outline(self.open), at).0[0],
            lcb_m: middle + im.x_moment.0[0] / volume,
            kb_m: kb,
            bm_m: upright.immersion.metacentric_radius().0[0],
            kg_m: weight.z.0[0],
            gm_m: metacentric_height(&upright.immersion, weight).0[0],
            floor_above_water_m: (body.has_recess() && floor.is_finite()).then_some(floor),
            freeboard_m: clearance(&body.gunwale, middle, at).0[0],
        }
    }

    /// Righting arms; from the heel at which the rim meets the water on, those
    /// of the body that has filled.
    fn arms(&self, heels: &[f64], upright: &Settled<1>) -> Vec<ArmLine> {
        let body = self.body;
        let fills = if self.open == Flooded::NONE {
            rim_angle(body, &body.sealed, &self.weight, self.density)
        } else {
            None
        };
        let mut start = upright.as_start();
        heels
            .iter()
            .map(|&heel_deg| {
                let heel = heel_deg.to_radians();
                let full = fills.is_some_and(|angle| heel >= angle);
                let open = if full { Flooded::ALL } else { self.open };
                let settle_from = |from: Start<1>| {
                    settle(
                        body,
                        &body.outline(open),
                        &self.weight,
                        self.density,
                        heel,
                        from,
                        Accuracy::FINE,
                    )
                };
                let mut settled = settle_from(start);
                if !settled.rests(0) {
                    settled = settle_from(Start::LEVEL);
                }
                if settled.rests(0) {
                    start = settled.as_start();
                }
                let arm = Arm::of(body, &self.weight, &settled);
                let wet = self.open == Flooded::ALL && body.has_recess() && arm.sill.0[0] < 0.0;
                ArmLine {
                    heel_deg,
                    gz_m: arm.gz.0[0],
                    draft_m: arm.attitude.draft.0[0],
                    trim_deg: arm.attitude.slope.0[0].atan().to_degrees(),
                    flooded: full || wet,
                }
            })
            .collect()
    }
}

fn table(out: &mut impl Write, r: &Report) -> std::io::Result<()> {
    writeln!(out, "{}\n", r.outcome.text)?;
    writeln!(out, "displacement  {:9.1} kg", r.displacement_kg)?;
    if let Some(a) = &r.afloat {
        hydrostatics(out, a)?;
    }
    if !r.righting.is_empty() {
        writeln!(out, "\n heel °     GZ m   draft m   trim °")?;
    }
    for arm in &r.righting {
        let note = if arm.flooded { "   water inside" } else { "" };
        writeln!(
            out,
            "{:7.1} {:8.4} {:9.4} {:8.2}{note}",
            arm.heel_deg, arm.gz_m, arm.draft_m, arm.trim_deg
        )?;
    }
    writeln!(
        out,
        "\nCalculated for a still body in flat water: guidance, not a guarantee."
    )
}

fn hydrostatics(out: &mut impl Write, a: &Afloat) -> std::io::Result<()> {
    let mut line = |name: &str, value: f64, digits: usize, rest: String| {
        writeln!(out, "{name:<13} {value:9.digits$} {rest}")
    };
    line("volume", a.volume_m3, 4, "m³".to_owned())?;
    let ends = format!(
        "m    bow {:.3} m, stern {:.3} m",
        a.draft_bow_m, a.draft_stern_m
    );
    line("draft", a.draft_m, 3, ends)?;
    line("trim", a.trim_deg, 2, "°    bow up positive".to_owned())?;
    line(
        "list",
        a.list_deg,
        2,
        "°    to starboard positive".to_owned(),
    )?;
    let wetted = format!("m²   wetted {:.3} m²", a.wetted_area_m2);
    line("waterplane", a.waterplane_area_m2, 3, wetted)?;
    line("LCB", a.lcb_m, 3, "m    from the bow's datum".to_owned())?;
    let parts = format!(
        "m    KB {:.3} + BM {:.3} - KG {:.3}",
        a.kb_m, a.bm_m, a.kg_m
    );
    line("GM", a.gm_m, 3, parts)?;
    if let Some(floor) = a.floor_above_water_m {
        line("floor", floor, 3, "m    above the water".to_owned())?;
    }
    line(
        "freeboard",
        a.freeboard_m,
        3,
        "m    least, at the gunwale".to_owned(),
    )
}

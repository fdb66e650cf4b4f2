//! `galvet float`: hydrostatics and righting arms of measured offsets.

use super::{Outcome, Problem, read_text};
use galvet_core::float::{self, Accuracy, Weight, clearance, rest, wetted_area};
use galvet_core::hull::{Body, Flooded};
use galvet_core::lanes::Lanes;
use galvet_core::stability::{Flooding, righting};
use galvet_core::units::{Bounds, Dimension};
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
    after_help = "Examples:\n  galvet float --offsets hull.csv --load 50,1.9,0,0.18 88,1.96,0,0.45\n  galvet float --offsets hull.csv --load 140,1.9,0.02,0.4 --scuppers plugged --density 1025 --json"
)]
pub(crate) struct Args {
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
    righting: Vec<Arm>,
}

#[derive(Debug, Serialize)]
struct Arm {
    heel_deg: f64,
    gz_m: f64,
    draft_m: f64,
    trim_deg: f64,
    flooded: bool,
}

pub(crate) fn run(args: &Args) -> Result<Outcome, Problem> {
    let (file, text) = read_text(&args.offsets)?;
    let body = offsets::read(&file, &text)?;
    let report = report(args, &body).map_err(|source| Problem::Float { file, source })?;
    let mut out = std::io::stdout().lock();
    if args.json {
        let text = serde_json::to_string_pretty(&report).map_err(std::io::Error::other)?;
        writeln!(out, "{text}")?;
    } else {
        table(&mut out, &report)?;
    }
    Ok(Outcome::Done)
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

fn report(args: &Args, body: &Body<1>) -> Result<Report, float::FloatError> {
    let weight = weight(&args.load);
    let open = args.scuppers == Scuppers::Open;
    let flooded = if open { Flooded::ALL } else { Flooded::NONE };
    let outline = body.outline(flooded);
    let found = rest(body, &outline, &weight, args.density)?;
    let (at, im) = (&found.settled.attitude, &found.settled.immersion);
    let upright = &found.upright.immersion;
    let middle = body.middle();
    // Along the centreline the heeled vertical is 1/cos longer.
    let along = 1.0 / found.heel.cos();
    let water = |x: f64| at.water_at(x, middle).0[0] * along;
    let volume = im.volume.0[0];
    let kb = upright.zeta_moment.0[0] / upright.volume.0[0];
    let bm = upright.metacentric_radius().0[0];
    let kg = weight.z.0[0];
    let degrees = |slope: f64| slope.atan().to_degrees();
    let heels: Vec<f64> = args.heels.iter().map(|d| d.to_radians()).collect();
    let flooding = Flooding {
        open: flooded,
        over_the_rim: !open,
    };
    let arms = righting(
        body,
        &weight,
        args.density,
        flooding,
        &found.upright,
        &heels,
        Accuracy::FINE,
    );
    let floor = clearance(&body.floor, middle, at).0[0];
    Ok(Report {
        displacement_kg: weight.mass.0[0],
        volume_m3: volume,
        draft_m: water(middle),
        draft_bow_m: water(body.bow),
        draft_stern_m: water(body.bow + body.length),
        trim_deg: degrees(at.slope.0[0]),
        list_deg: found.heel.to_degrees(),
        waterplane_area_m2: im.area.0[0],
        wetted_area_m2: wetted_area(body, &outline, at).0[0],
        lcb_m: middle + im.x_moment.0[0] / volume,
        kb_m: kb,
        bm_m: bm,
        kg_m: kg,
        gm_m: kb + bm - kg,
        floor_above_water_m: floor.is_finite().then_some(floor),
        freeboard_m: clearance(&body.gunwale, middle, at).0[0],
        righting: arms
            .iter()
            .zip(&args.heels)
            .map(|(arm, &heel_deg)| Arm {
                heel_deg,
                gz_m: arm.gz.0[0],
                draft_m: arm.attitude.draft.0[0],
                trim_deg: degrees(arm.attitude.slope.0[0]),
                flooded: arm.swamped.0[0] > 0.0
                    || (open && body.has_recess() && arm.floor.0[0] < 0.0),
            })
            .collect(),
    })
}

fn table(out: &mut impl Write, r: &Report) -> std::io::Result<()> {
    writeln!(
        out,
        "displacement  {:9.1} kg   volume {:.4} m³",
        r.displacement_kg, r.volume_m3
    )?;
    writeln!(
        out,
        "draft         {:9.3} m    bow {:.3} m, stern {:.3} m",
        r.draft_m, r.draft_bow_m, r.draft_stern_m
    )?;
    writeln!(out, "trim          {:9.2} °    bow up positive", r.trim_deg)?;
    writeln!(
        out,
        "list          {:9.2} °    to starboard positive",
        r.list_deg
    )?;
    writeln!(
        out,
        "waterplane    {:9.3} m²   wetted {:.3} m²",
        r.waterplane_area_m2, r.wetted_area_m2
    )?;
    writeln!(
        out,
        "LCB           {:9.3} m    from the bow's datum",
        r.lcb_m
    )?;
    writeln!(
        out,
        "GM            {:9.3} m    KB {:.3} + BM {:.3} - KG {:.3}",
        r.gm_m, r.kb_m, r.bm_m, r.kg_m
    )?;
    if let Some(floor) = r.floor_above_water_m {
        writeln!(out, "floor         {floor:9.3} m    above the water")?;
    }
    writeln!(
        out,
        "freeboard     {:9.3} m    least, at the gunwale",
        r.freeboard_m
    )?;
    writeln!(out, "\n heel °     GZ m   draft m   trim °")?;
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

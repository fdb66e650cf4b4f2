//! `galvet export`: lines go out as well as in.

use super::{Outcome, Problem, guides, read_text};
use crate::answer::{Desk, Hull};
use crate::demo_data;
use galvet_core::plausible::DEFAULT_SIZE;
use galvet_store::files::{hulls, offsets};
use std::io::Write;
use std::path::PathBuf;
use std::sync::Arc;

/// Write a hull's lines as measured offsets
///
/// The estimated shape (or the measured one, where sections were taken), section
/// by section, for `galvet float` or any other program to float again under the
/// `load` that `galvet rank --json` gives.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet export --what offsets --hull tindrel-vaskar > vaskar.csv\n  galvet export --what offsets --hull my-hull --hulls shop.csv --shape 17\n\nExit codes: 0 done, 2 could not."
)]
pub struct Args {
    /// What to write
    #[arg(long, value_enum, default_value = "offsets")]
    what: What,
    /// Key of the hull
    #[arg(long, value_name = "KEY")]
    hull: String,
    /// Hulls, CSV; the demo's where left out
    #[arg(long, value_name = "FILE")]
    hulls: Option<PathBuf>,
    /// Which of its plausible shapes: middle, or a number from 0
    #[arg(long, default_value = "middle", value_parser = shape)]
    shape: Shape,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, clap::ValueEnum)]
enum What {
    /// station_m,half_breadth_m,height_m
    Offsets,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Shape {
    Middle,
    Number(usize),
}

fn shape(text: &str) -> Result<Shape, String> {
    if text == "middle" {
        return Ok(Shape::Middle);
    }
    text.parse()
        .ok()
        .filter(|&n| n < DEFAULT_SIZE)
        .map(Shape::Number)
        .ok_or_else(|| {
            format!(
                "“{text}” is neither middle nor a number from 0 to {}",
                DEFAULT_SIZE - 1
            )
        })
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let What::Offsets = args.what;
    let records = match &args.hulls {
        None => demo_data::catalogue().map_err(Problem::Files)?.hulls,
        Some(path) => {
            let (file, text) = read_text(path)?;
            hulls::read(&file, &text).map_err(Problem::Files)?.hulls
        }
    };
    let record = records.into_iter().find(|r| r.survey.key == args.hull);
    let survey = record
        .map(|r| Arc::new(r.survey))
        .ok_or_else(|| Problem::Missing(format!("there is no hull “{}”", args.hull)))?;
    let hull = Hull {
        known: None,
        survey,
    };
    let shapes = Desk::new(guides(None)?)
        .shapes(&hull)
        .map_err(|e| Problem::Missing(format!("{} cannot be drawn: {e}", args.hull)))?;
    let shape = match args.shape {
        Shape::Middle => shapes.middle(),
        Shape::Number(n) => *shapes.shapes.get(n).ok_or_else(|| {
            let most = shapes.shapes.len() - 1;
            Problem::Missing(format!("this hull has shapes 0 to {most}"))
        })?,
    };
    let stations = shapes.form.stations(&shape, &hull.survey.offsets);
    write!(std::io::stdout().lock(), "{}", offsets::write(&stations))?;
    Ok(Outcome::Done)
}

//! `galvet export`: records and lines go out as well as in.

use super::{Outcome, Problem, guides, read_text};
use crate::answer::{Desk, Hull};
use crate::demo_data;
use crate::log;
use galvet_core::log::Outing;
use galvet_core::plausible::DEFAULT_SIZE;
use galvet_store::files::log::table;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::{exchange, gear_table, hull_table, hulls, offsets};
use galvet_store::{Catalogue, Store};
use std::io::Write;
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// Write records as files, or a hull's lines as measured offsets
///
/// Hulls, gear and the log as CSV or JSON, or all there is as one exchange file (JSON), out of a
/// data directory, also while it is served. Offsets: the estimated shape (or the
/// measured one, where sections were taken), section by section, for `galvet
/// float` or any other program to float again under the `load` that `galvet rank
/// --json` gives.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet export --what all > everything.json\n  galvet export --what hulls --format csv --data /srv/galvet > hulls.csv\n  galvet export --what gear --format csv > shelf.csv\n  galvet export --what log --format csv > log.csv\n  galvet export --what offsets --hull tindrel-vaskar > vaskar.csv\n  galvet export --what offsets --hull my-hull --hulls shop.csv --shape 17\n\nExit codes: 0 done, 2 could not."
)]
pub struct Args {
    /// What to write
    #[arg(long, value_enum, default_value = "offsets")]
    what: What,
    /// As what: CSV carries hulls without zones, evidence and sections, and gear whole
    #[arg(long, value_enum, default_value = "json")]
    format: Format,
    /// With what is private: customers, what they asked, and the tracks of outings stay out
    /// unless they are asked for
    #[arg(long)]
    tracks: bool,
    /// Where the data is kept, for hulls, gear, rigs, log or all
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
    /// Key of the hull whose offsets are wanted
    #[arg(long, value_name = "KEY", required_if_eq("what", "offsets"))]
    hull: Option<String>,
    /// Hulls, CSV; the demo's where left out
    #[arg(long, value_name = "FILE")]
    hulls: Option<PathBuf>,
    /// Which of its possible shapes: middle, or a number from 0
    #[arg(long, default_value = "middle", value_parser = shape)]
    shape: Shape,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, clap::ValueEnum)]
enum What {
    /// Hulls
    Hulls,
    /// The shelf
    Gear,
    /// Rigs, and the things on the shelf they name
    Rigs,
    /// Outings, services and places
    Log,
    /// Everything
    All,
    /// station_m,half_breadth_m,height_m
    Offsets,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, clap::ValueEnum)]
enum Format {
    /// A table
    Csv,
    /// An exchange file
    Json,
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

/// The records of a data directory.
fn kept(directory: &Path) -> Result<Catalogue, Problem> {
    if !directory.join("galvet.db").is_file() {
        let missing = format!("there is no Galvet data in {}", directory.display());
        return Err(Problem::Missing(missing));
    }
    // Of a copy: nothing is changed in a directory that is served, cannot be written, or
    // was written by an earlier Galvet.
    let aside = tempfile::tempdir()?;
    galvet_store::backup(directory, &aside.path().join("galvet.db"))?;
    Ok(Store::open(aside.path())?.catalogue()?)
}

/// Writes records.
fn records(args: &Args) -> Result<Outcome, Problem> {
    let all = kept(&args.data)?;
    // Of the whole of it: what is a customer's is told by who the customers are.
    let all = if args.tracks {
        all
    } else {
        exchange::handed_on(&all)
    };
    let wanted = match args.what {
        What::Hulls => Catalogue {
            hulls: all.hulls,
            ..Catalogue::default()
        },
        What::Gear => Catalogue {
            gear: all.gear,
            ..Catalogue::default()
        },
        What::Rigs => Catalogue {
            gear: all.gear,
            rigs: all.rigs,
            ..Catalogue::default()
        },
        What::Log => Catalogue {
            sheets: log::documents(&all),
            ..Catalogue::default()
        },
        What::All | What::Offsets => all,
    };
    let text = match (args.format, args.what) {
        (Format::Json, _) => exchange::write(&wanted).map_err(std::io::Error::other)?,
        (Format::Csv, What::Log) => {
            let outings = wanted.sheets_of::<OutingEntry>();
            let outings: Vec<Outing> = outings.cloned().map(OutingEntry::outing).collect();
            table::write(&outings).map_err(std::io::Error::other)?
        }
        (Format::Csv, What::Hulls) => {
            hull_table::write(&wanted.hulls).map_err(std::io::Error::other)?
        }
        (Format::Csv, What::Gear) => {
            gear_table::write(&wanted.gear).map_err(std::io::Error::other)?
        }
        (Format::Csv, _) => {
            let said =
                "only hulls, gear and the log go out as CSV; write --format json, or --what gear";
            return Err(Problem::Missing(said.to_owned()));
        }
    };
    write!(std::io::stdout().lock(), "{text}")?;
    Ok(Outcome::Done)
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let (What::Offsets, Some(key)) = (args.what, &args.hull) else {
        return records(args);
    };
    let records = match &args.hulls {
        None => demo_data::catalogue().map_err(Problem::Files)?.hulls,
        Some(path) => {
            let (file, text) = read_text(path)?;
            hulls::read(&file, &text).map_err(Problem::Files)?.hulls
        }
    };
    let record = records.into_iter().find(|r| &r.survey.key == key);
    let survey = record
        .map(|r| Arc::new(r.survey))
        .ok_or_else(|| Problem::Missing(format!("there is no hull “{key}”")))?;
    let hull = Hull {
        known: None,
        survey,
    };
    let shapes = Desk::new(guides(None)?)
        .shapes(&hull)
        .map_err(|e| Problem::Missing(format!("{key} cannot be drawn: {e}")))?;
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

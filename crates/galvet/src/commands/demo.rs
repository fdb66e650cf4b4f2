//! `galvet demo`: the application with its demo data.

use super::{Outcome, Problem, guides};
use crate::answer::BUDGET;
use crate::demo_data;
use crate::web::{self, Access, Settings};
use galvet_core::base::System;
use galvet_store::{SETTING_UP, Store};
use std::net::{IpAddr, Ipv4Addr, SocketAddr, TcpListener};
use std::path::{Path, PathBuf};
use tempfile::TempDir;

/// Start Galvet with demo data (an invented shop on an invented coast)
///
/// The data lives in a temporary directory and is gone when you stop it,
/// unless you name a directory to keep it in.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet demo\n  galvet demo --port 8080 --keep ~/galvet-demo\n\nExit codes: 0 stopped, 2 could not start."
)]
pub struct Args {
    /// Port to serve on; 0 for any free one [default: 7340, or a free one]
    #[arg(long)]
    port: Option<u16>,
    /// Keep the demo's data in this directory
    #[arg(long, value_name = "DIR")]
    keep: Option<PathBuf>,
}

const USUAL_PORT: u16 = 7340;

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let temporary;
    let directory = match &args.keep {
        Some(directory) => directory.clone(),
        None => {
            sweep(&std::env::temp_dir());
            temporary = throw_away().map_err(|source| Problem::Read {
                file: "temporary directory".to_owned(),
                source,
            })?;
            temporary.path().to_owned()
        }
    };
    let store = Store::open(&directory)?;
    if store.is_empty()? {
        for picture in demo_data::pictures().map_err(|e| Problem::Files(vec![e]))? {
            store.keep_picture(&picture)?;
        }
        store.fill(SETTING_UP, &demo_data::catalogue().map_err(Problem::Files)?)?;
    }
    let port = args.port.unwrap_or_else(usual_or_free_port);
    web::serve(Settings {
        listen: SocketAddr::new(IpAddr::V4(Ipv4Addr::LOCALHOST), port),
        hosts: Vec::new(),
        units: System::default(),
        guides: guides(None)?,
        memory: BUDGET,
        access: Access::Here,
        store,
        throw_away: args.keep.is_none(),
    })?;
    Ok(Outcome::Done)
}

/// How the directories of demos begin that are thrown away.
const PREFIX: &str = "galvet-demo-";
/// Marks one: nobody's kept data is ever swept.
const MARK: &str = "throw-away";

/// A directory that goes when the demo does.
fn throw_away() -> std::io::Result<TempDir> {
    let directory = tempfile::Builder::new().prefix(PREFIX).tempdir()?;
    std::fs::write(directory.path().join(MARK), "")?;
    Ok(directory)
}

/// Removes what demos left behind that were killed: marked as thrown away, with
/// a database nobody holds. What cannot be removed stays; it harms nobody.
fn sweep(place: &Path) {
    let Ok(entries) = std::fs::read_dir(place) else {
        return;
    };
    for entry in entries.flatten() {
        // Not through links.
        let real = entry.file_type().is_ok_and(|kind| kind.is_dir());
        let named = entry.file_name().to_string_lossy().starts_with(PREFIX);
        let path = entry.path();
        if real && named && path.join(MARK).exists() && galvet_store::is_left(&path) {
            let _ = std::fs::remove_dir_all(&path);
        }
    }
}

/// The usual port when nobody has it, else any free one.
fn usual_or_free_port() -> u16 {
    match TcpListener::bind((Ipv4Addr::LOCALHOST, USUAL_PORT)) {
        Ok(_) => USUAL_PORT,
        Err(_) => 0,
    }
}

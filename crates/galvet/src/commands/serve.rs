//! `galvet serve`: the real thing.

use super::{Outcome, Problem};
use crate::demo_data;
use crate::web::reader::{units_from_key, units_key};
use crate::web::server::{self, Settings};
use galvet_core::units::System;
use galvet_store::{Catalogue, Store, StoreError};
use std::net::SocketAddr;
use std::path::PathBuf;

/// Serve your own data
///
/// The data directory is made on the first run, with the water types as
/// shipped. An older database is copied aside before it is brought up to date.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet serve\n  galvet serve --data /srv/galvet --listen 127.0.0.1:8080\n  galvet serve --listen 0.0.0.0:8080 --host kayaks.example"
)]
pub(crate) struct Args {
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
    /// Address and port; loopback unless you say otherwise
    #[arg(long, value_name = "ADDR:PORT", default_value = "127.0.0.1:7341")]
    listen: SocketAddr,
    /// A host name browsers may use for this server, besides localhost and the
    /// address itself; may be given more than once
    #[arg(long, value_name = "NAME")]
    host: Vec<String>,
    /// Units for readers who have not chosen; remembered with the data
    #[arg(long, value_enum)]
    units: Option<Units>,
}

#[derive(Debug, Clone, Copy, clap::ValueEnum)]
enum Units {
    Metric,
    Imperial,
}

/// Key of the setting in which the units are remembered.
const UNITS: &str = "units";

/// The units given now, else the ones remembered, else metric.
fn units(store: &Store, given: Option<Units>) -> Result<System, StoreError> {
    let given = given.map(|units| match units {
        Units::Metric => System::Metric,
        Units::Imperial => System::Imperial,
    });
    if let Some(system) = given {
        store.set_setting(UNITS, units_key(system))?;
        return Ok(system);
    }
    let remembered = store.setting(UNITS)?;
    Ok(remembered
        .and_then(|key| units_from_key(&key))
        .unwrap_or_default())
}

pub(crate) fn run(args: &Args) -> Result<Outcome, Problem> {
    let store = Store::open(&args.data)?;
    if store.is_empty()? {
        let shipped = demo_data::catalogue().map_err(Problem::Files)?;
        store.fill(&Catalogue {
            waters: shipped.waters,
            ..Catalogue::default()
        })?;
    }
    server::serve(Settings {
        listen: args.listen,
        hosts: args.host.clone(),
        units: units(&store, args.units)?,
        store,
    })?;
    Ok(Outcome::Done)
}

//! `galvet serve`: the real thing.

use super::{Outcome, Problem};
use crate::demo_data;
use crate::web::server::{self, Settings};
use galvet_store::{Catalogue, Store};
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
        store,
    })?;
    Ok(Outcome::Done)
}

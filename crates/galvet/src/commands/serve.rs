//! `galvet serve`: the real thing.

use super::{Outcome, Problem, guides, open_data, user};
use crate::answer::BUDGET;
use crate::question::{units_from_key, units_key};
use crate::terminal;
use crate::web::{self, Access, Settings};
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{SETTING_UP, Store, StoreError};
use std::io::IsTerminal;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// Serve your own data
///
/// The data directory is made on the first run, with the water types as
/// shipped. An older database is copied aside before it is brought up to date.
/// Guide values of your own go into guides.json there; the page "Methods" names
/// them all.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet serve\n  galvet serve --data /srv/galvet --listen 127.0.0.1:8080\n  galvet serve --listen 0.0.0.0:8080\n  galvet serve --host kayaks.example --https\n\nExit codes: 0 stopped, 2 could not start."
)]
pub struct Args {
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
    /// Address and port; loopback unless you say otherwise
    #[arg(long, value_name = "ADDR:PORT", default_value = "127.0.0.1:7341")]
    listen: SocketAddr,
    /// Serve beyond this machine without accounts: everybody who reaches it may change and
    /// delete everything
    #[arg(long)]
    open: bool,
    /// A proxy before it ends TLS: cookies go over https only, and the proxy's
    /// X-Forwarded-For is believed
    #[arg(long, conflicts_with = "open")]
    https: bool,
    /// A host name browsers may use for this server, besides localhost and the
    /// address itself; may be given more than once, and asks for accounts
    #[arg(long, value_name = "NAME")]
    host: Vec<String>,
    /// Megabytes used, about, to remember what was worked out
    #[arg(long, value_name = "MB", default_value_t = BUDGET / 1024 / 1024, value_parser = megabytes)]
    memory: usize,
    /// Units for readers who have not chosen; remembered with the data
    #[arg(long, value_enum)]
    units: Option<Units>,
}

#[derive(Debug, Clone, Copy, clap::ValueEnum)]
enum Units {
    Metric,
    Imperial,
}

/// A budget that makes sense.
fn megabytes(text: &str) -> Result<usize, String> {
    let read = text.parse().ok();
    read.filter(|n| (16..=65_536).contains(n))
        .ok_or_else(|| "write megabytes between 16 and 65536".to_owned())
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
        store.set_setting(SETTING_UP, UNITS, units_key(system))?;
        return Ok(system);
    }
    let remembered = store.setting(UNITS)?;
    Ok(remembered
        .and_then(|key| units_from_key(&key))
        .unwrap_or_default())
}

/// File of one's own guide values in the data directory.
const GUIDES: &str = "guides.json";

/// The shipped guide values, with those of the data directory in their place.
fn own_guides(data: &Path) -> Result<Arc<Guides>, Problem> {
    let path = data.join(GUIDES);
    guides(path.exists().then_some(path.as_path()))
}

/// Whether it is reached from elsewhere: by its address, by a name, through a proxy.
fn beyond(args: &Args) -> bool {
    !args.listen.ip().is_loopback() || !args.host.is_empty() || args.https
}

/// Nobody may come in, and nobody is asked.
fn nobody(args: &Args) -> Problem {
    Problem::Usage(format!(
        "{} is reached from other machines, and there are no accounts yet: everybody there could change and delete everything. Make an owner first: galvet user add NAME --data {}. Or add --open if everybody may",
        args.listen,
        args.data.display()
    ))
}

/// Who may come in. Beyond this machine only who has an account, unless it is asked for
/// that everybody may.
fn access(args: &Args, store: &Store) -> Result<Access, Problem> {
    let somebody = store.has_people()?;
    if args.open && somebody {
        return Err(Problem::Usage(
            "there are accounts here, and --open would let everybody past them: leave it out"
                .to_owned(),
        ));
    }
    if !beyond(args) {
        return Ok(Access::Here);
    }
    if args.open {
        return Ok(Access::Open);
    }
    if !somebody && !std::io::stdin().is_terminal() {
        return Err(nobody(args));
    }
    if !somebody {
        user::ask_owner(store)?;
    }
    if !args.https {
        terminal::warn(
            "passwords cross the network unencrypted: put a proxy that ends TLS before it, and add --https (docs/proxy.md)",
        );
    }
    Ok(Access::Accounts { tls: args.https })
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    // Nothing is begun where nobody could come in.
    let asks = std::io::stdin().is_terminal() || args.open;
    if beyond(args) && !asks && !args.data.exists() {
        return Err(nobody(args));
    }
    let store = open_data(&args.data)?;
    let access = access(args, &store)?;
    if access == Access::Open {
        terminal::warn(web::OPEN);
        web::open_to_everybody();
    }
    web::serve(Settings {
        listen: args.listen,
        hosts: args.host.clone(),
        units: units(&store, args.units)?,
        guides: own_guides(&args.data)?,
        memory: args.memory * 1024 * 1024,
        access,
        store,
        throw_away: false,
    })?;
    Ok(Outcome::Done)
}

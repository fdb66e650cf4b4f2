//! Building and running the server.

use super::admit::behind;
use super::caller::Connected;
use super::guard::Gate;
use super::pack::Pack;
use super::shared::Shared;
use super::veil::Veil;
use super::visitor::{Access, Door};
use super::{
    account, afloat, alone, assets, backups, card, changes, comfort, compare, customers, dealer,
    derivation, drawing, errors, fittings, flip, forget, hull, hulls, import, kinds, kit, lately,
    leaving, lines, log, moving, new_hull, papers, people, photos, pond, questions, ranking,
    reader, reckons, record, remedy, rigs, set_aside, shop, shortlist, sign_in, stow, summary,
    talk, ticks, tour, trash, trials, undo, walk, weigh, workbench,
};
use crate::account::{AccountError, Accounts, now};
use crate::customer::retain;
use crate::terminal;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::Store;
use rocket::config::{Ident, LogLevel, Shutdown};
use rocket::data::{Limits, ToByteUnit};
use rocket::error::ErrorKind;
use rocket::fairing::AdHoc;
use rocket::tokio::select;
#[cfg(unix)]
use rocket::tokio::signal::unix::{SignalKind, signal};
use rocket::tokio::time::sleep;
use rocket::{Build, Rocket, Route, routes};
use std::collections::HashSet;
use std::net::SocketAddr;
use std::sync::Arc;
use std::time::Duration;
use thiserror::Error;

/// Time for what is still being worked out when the server ends.
const LAST_WORDS: Duration = Duration::from_millis(200);
/// Time for answers under way once it is told to end.
const PATIENCE: Duration = Duration::from_millis(1_200);

/// Every file of pages: its routes.
const PAGES: [fn() -> Vec<Route>; 53] = [
    sign_in::routes,
    account::routes,
    people::routes,
    backups::routes,
    lately::routes,
    customers::routes,
    forget::routes,
    shop::routes,
    ranking::routes,
    hull::routes,
    afloat::routes,
    hulls::routes,
    import::routes,
    leaving::routes,
    dealer::routes,
    new_hull::routes,
    record::routes,
    walk::routes,
    fittings::routes,
    stow::routes,
    remedy::routes,
    kit::routes,
    rigs::routes,
    comfort::routes,
    changes::routes,
    lines::routes,
    card::routes,
    weigh::routes,
    compare::routes,
    flip::routes,
    derivation::routes,
    drawing::routes,
    talk::routes,
    tour::routes,
    papers::routes,
    log::routes,
    moving::routes,
    pond::routes,
    ticks::routes,
    alone::routes,
    photos::routes,
    trials::routes,
    summary::routes,
    kinds::routes,
    reckons::routes,
    set_aside::routes,
    shortlist::routes,
    questions::routes,
    undo::routes,
    trash::routes,
    reader::routes,
    workbench::routes,
    errors::routes,
];

/// What a server is started with.
pub struct Settings {
    /// Address and port; port 0 takes any free one.
    pub listen: SocketAddr,
    /// Host names answered to besides localhost and the address.
    pub hosts: Vec<String>,
    /// Units for readers who have not chosen.
    pub units: System,
    /// The guide values in force.
    pub guides: Arc<Guides>,
    /// Bytes used, about, to remember what was worked out.
    pub memory: usize,
    /// Who may come in without signing in.
    pub access: Access,
    /// The data.
    pub store: Store,
    /// Whether the data is thrown away afterwards: then a closed terminal and a
    /// quit end the server in order as well, so that it can be.
    pub throw_away: bool,
}

/// Why the server did not run.
#[derive(Debug, Error)]
pub enum ServeError {
    /// The port is taken or not allowed.
    #[error("cannot listen on {listen}: {reason}")]
    Listen {
        /// Where.
        listen: SocketAddr,
        /// Why not.
        reason: String,
    },
    /// Nobody could come in.
    #[error(transparent)]
    Account(#[from] AccountError),
    /// No runtime.
    #[error("the server cannot start: {0}")]
    Runtime(#[from] std::io::Error),
}

/// Puts the server together without starting it.
///
/// # Errors
/// [`ServeError::Account`] where this machine gives no random numbers.
pub fn build(settings: Settings) -> Result<Rocket<Build>, ServeError> {
    let limits = Limits::new()
        .limit("form", 64.kibibytes())
        // A file sent to be taken in, twice: as it came, and as it is put right.
        .limit("data-form", 160.mebibytes())
        .limit("file", 128.mebibytes())
        .limit("string", 32.mebibytes())
        .limit("bytes", 16.kibibytes())
        .limit("json", 256.kibibytes());
    let config = rocket::Config {
        address: settings.listen.ip(),
        port: settings.listen.port(),
        limits,
        log_level: LogLevel::Off,
        shutdown: shutdown(),
        // Does not tell what it runs on, nor takes the sender's word for who sends.
        ident: Ident::none(),
        ip_header: None,
        ..rocket::Config::release_default()
    };
    let server = rocket::custom(config);
    let server = PAGES.iter().fold(server, |server, routes| {
        server.mount("/", routes().into_iter().map(behind).collect::<Vec<_>>())
    });
    let accounts = Accounts::new(settings.store.clone())?;
    Ok(server
        .manage(shop::Screens::default())
        .manage(Door::new(accounts, settings.access, settings.store.clone()))
        .manage(Shared::new(
            settings.store,
            settings.units,
            (settings.guides, settings.memory),
            // A demo: nobody's own data is mixed with made-up readings.
            settings.throw_away,
        ))
        .attach(Gate::new(settings.listen, &settings.hosts, settings.access))
        .attach(alone::Alone)
        .attach(Veil)
        .attach(Pack::default())
        .mount("/", routes![assets::asset])
        .register("/", errors::catchers()))
}

/// How the server ends when told to: whoever is being answered has a second.
fn shutdown() -> Shutdown {
    Shutdown {
        grace: 1,
        mercy: 0,
        // Listened for by ourselves, from before the address is told.
        ctrlc: cfg!(not(unix)),
        #[cfg(unix)]
        signals: HashSet::new(),
        ..Shutdown::default()
    }
}

/// Ready to be told to end; the future comes back when that has happened.
#[cfg(unix)]
fn told_to_end(throw_away: bool) -> std::io::Result<impl Future<Output = ()>> {
    let mut interrupt = signal(SignalKind::interrupt())?;
    let mut terminate = signal(SignalKind::terminate())?;
    // A hangup may have been asked to be ignored, and nothing has to be cleaned
    // up after it: only a demo listens for it.
    let rest = throw_away.then(|| {
        let hangup = signal(SignalKind::hangup())?;
        Ok::<_, std::io::Error>((hangup, signal(SignalKind::quit())?))
    });
    let mut rest = rest.transpose()?;
    Ok(async move {
        let others = async {
            match &mut rest {
                Some((hangup, quit)) => select! {
                    _ = hangup.recv() => {}
                    _ = quit.recv() => {}
                },
                None => std::future::pending().await,
            }
        };
        select! {
            _ = interrupt.recv() => {}
            _ = terminate.recv() => {}
            () = others => {}
        }
    })
}

#[cfg(not(unix))]
fn told_to_end(_: bool) -> std::io::Result<impl Future<Output = ()>> {
    Ok(std::future::pending())
}

/// Runs the server until it is told to end, and not much longer, whatever is
/// open.
async fn run(server: Rocket<Build>, throw_away: bool) -> Result<(), LaunchError> {
    let told = told_to_end(throw_away).map_err(LaunchError::Signals)?;
    let server = server.ignite().await.map_err(LaunchError::from)?;
    let end = server.shutdown();
    let launched = server.launch();
    let ending = async {
        told.await;
        end.notify();
        sleep(PATIENCE).await;
    };
    select! {
        launched = launched => launched.map(|_| ()).map_err(LaunchError::from),
        () = ending => Ok(()),
    }
}

/// Why it did not run, before it is put into words.
enum LaunchError {
    Signals(std::io::Error),
    Launch(String),
    /// Somebody did not let go in time; it has ended as asked.
    Late,
}

impl From<rocket::Error> for LaunchError {
    fn from(error: rocket::Error) -> Self {
        let late = matches!(error.kind(), ErrorKind::Shutdown(..));
        let reason = error.kind().to_string();
        // Rocket panics on drop of an error nobody has looked at.
        drop(error);
        if late {
            Self::Late
        } else {
            Self::Launch(reason)
        }
    }
}

/// Time between two looks at what is over.
const DAY: Duration = Duration::from_secs(24 * 60 * 60);

/// Lets go of what was to be kept for a time only, now and once a day.
async fn let_go_daily(store: Store) {
    loop {
        let day = store.clone();
        let done = rocket::tokio::task::spawn_blocking(move || retain(&day, now()));
        if let Ok(Err(error)) = done.await {
            terminal::warn(format_args!("what is over was not let go: {error}"));
        }
        sleep(DAY).await;
    }
}

/// Serves until stopped; prints the address once it answers.
///
/// # Errors
/// [`ServeError`] when the port is taken or no runtime is to be had.
pub fn serve(settings: Settings) -> Result<(), ServeError> {
    let (listen, throw_away) = (settings.listen, settings.throw_away);
    let runtime = rocket::tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()?;
    let server =
        build(settings)?
            .manage(Connected)
            .attach(AdHoc::on_liftoff("address", |rocket| {
                Box::pin(async move {
                    let (address, port) = (rocket.config().address, rocket.config().port);
                    let at = SocketAddr::new(address, port);
                    terminal::say(format_args!("Galvet is ready at http://{at}"));
                    terminal::say("Figures are guidance; stop it with Ctrl+C.");
                })
            }));
    let server = server.attach(AdHoc::on_liftoff("retention", |rocket| {
        Box::pin(async move {
            if let Some(shared) = rocket.state::<Shared>() {
                rocket::tokio::spawn(let_go_daily(shared.store.clone()));
            }
        })
    }));
    // Every reader holds a file; the usual limit is for programs that serve nobody.
    if let Err(error) = rlimit::increase_nofile_limit(u64::MAX) {
        terminal::warn(format_args!(
            "the limit of open connections stays as it is: {error}"
        ));
    }
    let ran = runtime.block_on(run(server, throw_away));
    // What is being worked out has nobody to go to.
    runtime.shutdown_timeout(LAST_WORDS);
    match ran {
        Ok(()) | Err(LaunchError::Late) => Ok(()),
        Err(LaunchError::Signals(error)) => Err(error.into()),
        Err(LaunchError::Launch(reason)) => Err(ServeError::Listen { listen, reason }),
    }
}

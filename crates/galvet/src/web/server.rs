//! Building and running the server.

use super::guard::Gate;
use super::pack::Pack;
use super::shared::Shared;
use super::{assets, errors, hull, questions, ranking, reader, reckons, set_aside};
use crate::terminal;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::Store;
use rocket::config::{Ident, LogLevel};
use rocket::data::{Limits, ToByteUnit};
use rocket::fairing::AdHoc;
use rocket::{Build, Rocket, routes};
use std::net::SocketAddr;
use std::sync::Arc;
use thiserror::Error;

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
    /// The data.
    pub store: Store,
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
    /// No runtime.
    #[error("the server cannot start: {0}")]
    Runtime(#[from] std::io::Error),
}

/// Puts the server together without starting it.
#[must_use]
pub fn build(settings: Settings) -> Rocket<Build> {
    let limits = Limits::new()
        .limit("form", 64.kibibytes())
        .limit("data-form", 64.kibibytes())
        .limit("string", 16.kibibytes())
        .limit("bytes", 16.kibibytes())
        .limit("json", 256.kibibytes());
    let config = rocket::Config {
        address: settings.listen.ip(),
        port: settings.listen.port(),
        limits,
        log_level: LogLevel::Off,
        // Does not tell what it runs on.
        ident: Ident::none(),
        ..rocket::Config::release_default()
    };
    rocket::custom(config)
        .manage(Shared::new(settings.store, settings.units, settings.guides))
        .attach(Gate::new(settings.listen, &settings.hosts))
        .attach(Pack::default())
        .mount("/", ranking::routes())
        .mount("/", hull::routes())
        .mount("/", reckons::routes())
        .mount("/", set_aside::routes())
        .mount("/", questions::routes())
        .mount("/", reader::routes())
        .mount("/", errors::routes())
        .mount("/", routes![assets::asset])
        .register("/", errors::catchers())
}

/// Serves until stopped; prints the address once it answers.
///
/// # Errors
/// [`ServeError`] when the port is taken or no runtime is to be had.
pub fn serve(settings: Settings) -> Result<(), ServeError> {
    let listen = settings.listen;
    let runtime = rocket::tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()?;
    let server = build(settings).attach(AdHoc::on_liftoff("address", |rocket| {
        Box::pin(async move {
            let (address, port) = (rocket.config().address, rocket.config().port);
            let at = SocketAddr::new(address, port);
            terminal::say(format_args!("Galvet is ready at http://{at}"));
            terminal::say("Figures are guidance; stop it with Ctrl+C.");
        })
    }));
    match runtime.block_on(server.launch()) {
        Ok(_) => Ok(()),
        Err(error) => {
            let reason = error.kind().to_string();
            // Rocket panics on drop of an error nobody has looked at.
            drop(error);
            Err(ServeError::Listen { listen, reason })
        }
    }
}

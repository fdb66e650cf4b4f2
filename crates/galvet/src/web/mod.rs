//! The server: routes, what guards them, and what is served besides pages.

mod assets;
mod errors;
mod gate;
mod pages;
pub(crate) mod reader;
pub(crate) mod server;
mod state;

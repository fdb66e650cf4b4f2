//! Galvet: choose and rig a fishing kayak.
//!
//! One binary: the server with its pages ([`web`], [`view`], [`draw`]) and the
//! commands ([`commands`]). The physics is in `galvet-core`, the records are in
//! `galvet-store`; this crate asks, shows and answers.

mod answer;
mod ask;
mod commands;
mod demo_data;
mod draw;
mod terminal;
mod view;
mod web;

use clap::Parser;
use std::io::ErrorKind;
use std::process::ExitCode;

fn main() -> ExitCode {
    let line = commands::Line::parse();
    match commands::run(line) {
        Ok(outcome) => outcome.exit_code(),
        // Whoever read our answer has read enough: `galvet rank … | head`.
        Err(commands::Problem::Write(error)) if error.kind() == ErrorKind::BrokenPipe => {
            ExitCode::SUCCESS
        }
        Err(problem) => {
            terminal::warn(problem);
            ExitCode::from(2)
        }
    }
}

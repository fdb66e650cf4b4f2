//! The `galvet` program.

use clap::Parser;
use galvet::commands;
use mimalloc::MiMalloc;
use std::io::ErrorKind;
use std::process::ExitCode;

#[global_allocator]
static ALLOCATOR: MiMalloc = MiMalloc;

fn main() -> ExitCode {
    let line = commands::Line::parse();
    let json = line.wants_json();
    match commands::run(line) {
        Ok(outcome) => outcome.exit_code(),
        // Whoever read our answer has read enough: `galvet rank … | head`.
        Err(commands::Problem::Write(error)) if error.kind() == ErrorKind::BrokenPipe => {
            ExitCode::SUCCESS
        }
        Err(problem) if json => {
            galvet::say(problem.json());
            ExitCode::from(2)
        }
        Err(problem) => {
            galvet::warn(problem);
            ExitCode::from(2)
        }
    }
}

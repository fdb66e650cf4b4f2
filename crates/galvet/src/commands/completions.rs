//! `galvet completions`: what a shell completes.

use super::{Line, Outcome, Problem};
use clap::CommandFactory;

/// Print completions for a shell
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet completions bash > ~/.local/share/bash-completion/completions/galvet\n  galvet completions fish > ~/.config/fish/completions/galvet.fish\n\nExit codes: 0 done, 2 could not."
)]
pub struct Args {
    /// The shell
    #[arg(value_enum)]
    shell: clap_complete::Shell,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let mut text = Vec::new();
    clap_complete::generate(args.shell, &mut Line::command(), "galvet", &mut text);
    std::io::Write::write_all(&mut std::io::stdout().lock(), &text)?;
    Ok(Outcome::Done)
}

//! `galvet man`: the manual page.

use super::{Line, Outcome, Problem};
use clap::CommandFactory;

/// Print the manual page, of Galvet or of one command
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet man > galvet.1\n  galvet man rank > galvet-rank.1\n\nExit codes: 0 done, 2 could not."
)]
pub struct Args {
    /// The command whose page it is; without one, that of Galvet
    command: Option<String>,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let mut whole = Line::command();
    whole.build();
    let page = match &args.command {
        None => clap_mangen::Man::new(whole),
        Some(name) => {
            let known: Vec<&str> = whole
                .get_subcommands()
                .map(clap::Command::get_name)
                .collect();
            let missing = || {
                let known = known.join(", ");
                Problem::Missing(format!("there is no command “{name}”; there are: {known}"))
            };
            let found = whole.find_subcommand(name).cloned();
            clap_mangen::Man::new(found.ok_or_else(missing)?)
        }
    };
    page.render(&mut std::io::stdout().lock())?;
    Ok(Outcome::Done)
}

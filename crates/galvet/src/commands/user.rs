//! `galvet user`: who may come in.

use super::{Outcome, Problem};
use crate::account::{self, AccountError, LONGEST, SHORTEST};
use crate::present::page::survey::record::when;
use crate::terminal;
use galvet_store::{Person, Role, Store};
use std::io::{BufRead, IsTerminal, Write};
use std::path::PathBuf;

/// Say who may come in, also while it is served
///
/// As soon as somebody has an account, everybody has to sign in. The first one is an
/// owner. A password is asked for unseen, or read from the first line of the standard
/// input where that is no terminal. How people are called is never used again for what
/// they changed: that is kept under a number of their own.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet user add \"Runa Vey\" --role owner\n  galvet user add Mads --data /srv/galvet\n  galvet user password Mads\n  galvet user list\n\nExit codes: 0 done, 2 could not, nothing changed."
)]
pub struct Args {
    #[command(subcommand)]
    what: What,
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data", global = true)]
    data: PathBuf,
}

#[derive(Debug, clap::Subcommand)]
enum What {
    /// Let somebody in
    Add {
        /// What they are called
        name: String,
        /// What they may do; the first is an owner
        #[arg(long, value_enum)]
        role: Option<Word>,
        /// They type the password themselves: no other has to be chosen at first
        #[arg(long)]
        own: bool,
    },
    /// Give somebody another role
    Role {
        /// What they are called
        name: String,
        /// What they may do from now on
        #[arg(value_enum)]
        role: Word,
    },
    /// Give somebody a new password; they are signed out everywhere
    Password {
        /// What they are called
        name: String,
    },
    /// Shut somebody out; what they changed stays
    Out {
        /// What they are called
        name: String,
    },
    /// Let somebody in again who was shut out
    Back {
        /// What they are called
        name: String,
    },
    /// Everybody, and what they may do
    List,
}

/// A role as it is typed.
#[derive(Debug, Clone, Copy, clap::ValueEnum)]
enum Word {
    /// Reads, asks, keeps a shortlist
    Looker,
    /// Everything but people and backups
    Staff,
    /// People and backups as well
    Owner,
}

impl Word {
    const fn role(self) -> Role {
        match self {
            Self::Looker => Role::Looker,
            Self::Staff => Role::Staff,
            Self::Owner => Role::Owner,
        }
    }
}

/// Under what name the command line changes accounts.
const BY: &str = "command line";

impl From<AccountError> for Problem {
    fn from(error: AccountError) -> Self {
        match error {
            AccountError::Store(error) => error.into(),
            other => Self::Usage(other.to_string()),
        }
    }
}

/// A line typed unseen, twice; the first line of what is piped in.
fn password() -> Result<String, Problem> {
    if !std::io::stdin().is_terminal() {
        let mut line = String::new();
        std::io::stdin().lock().read_line(&mut line)?;
        return Ok(line.trim_end_matches(['\r', '\n']).to_owned());
    }
    let asked = format!("password, {SHORTEST} to {LONGEST} characters: ");
    let first = rpassword::prompt_password(asked)?;
    let again = rpassword::prompt_password("the same again: ")?;
    if first == again {
        Ok(first)
    } else {
        let why = "the two are not the same; nothing was changed".to_owned();
        Err(Problem::Usage(why))
    }
}

/// Asks for an owner on the terminal, where one sits there.
///
/// # Errors
/// [`Problem`] where nobody does, or what was typed will not do three times.
pub(super) fn ask_owner(store: &Store) -> Result<(), Problem> {
    terminal::say("Who owns this installation? Beyond this machine everybody signs in.");
    for _ in 0..3 {
        print!("name: ");
        std::io::stdout().flush()?;
        let mut name = String::new();
        if std::io::stdin().lock().read_line(&mut name)? == 0 {
            break;
        }
        let typed = password()?;
        match account::let_in(store, BY, (&name, Role::Owner), (&typed, false)) {
            Ok(person) => {
                terminal::say(terminal::harmless(&format!("{} is the owner", person.name)));
                return Ok(());
            }
            Err(AccountError::Refused(why)) => terminal::warn(why),
            Err(error) => return Err(error.into()),
        }
    }
    Err(Problem::Usage("nobody owns it yet".to_owned()))
}

/// Somebody of a name, in or out.
fn named(store: &Store, name: &str, out: bool) -> Result<Person, Problem> {
    let sought = name.trim().to_lowercase();
    let mut people = store.people()?.into_iter();
    let found = people.find(|p| p.name.to_lowercase() == sought && p.left_at.is_some() == out);
    let which = if out { "who was shut out " } else { "" };
    found.ok_or_else(|| Problem::Missing(format!("there is nobody {which}called “{name}”")))
}

fn list(store: &Store) -> Result<(), Problem> {
    let people = store.people()?;
    for person in &people {
        let out = person.left_at.map(|at| format!(", shut out {}", when(at)));
        let lent = match account::lent_words(person, account::now()) {
            "" => String::new(),
            words => format!(", {words}"),
        };
        terminal::say(terminal::harmless(&format!(
            "{}: {}, since {}{lent}{}",
            person.name,
            person.role.key(),
            when(person.since),
            out.unwrap_or_default()
        )));
    }
    if people.is_empty() {
        terminal::say("nobody: whoever sits at this machine may do everything");
    }
    Ok(())
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let store = Store::open_beside(&args.data)?;
    match &args.what {
        What::Add { name, role, own } => {
            let first = !store.has_people()?;
            let usual = if first { Role::Owner } else { Role::Staff };
            let role = role.map_or(usual, Word::role);
            // An owner of one's own: whoever types it keeps it.
            let lent = !first && !own;
            let person = account::let_in(&store, BY, (name, role), (&password()?, lent))?;
            let said = format!("{}: {}", person.name, person.role.label());
            terminal::say(terminal::harmless(&said));
        }
        What::Role { name, role } => {
            store.set_role(BY, named(&store, name, false)?.id, role.role())?;
        }
        What::Password { name } => {
            let person = named(&store, name, false)?;
            account::lend_password(&store, BY, &person, &password()?)?;
        }
        What::Out { name } => store.shut_out(BY, named(&store, name, false)?.id)?,
        What::Back { name } => store.let_back(BY, named(&store, name, true)?.id)?,
        What::List => list(&store)?,
    }
    Ok(Outcome::Done)
}

//! Who comes in: passwords, sessions, and how often somebody may try.
//!
//! Knows no page and no terminal: both let people in through here.

mod password;
mod patience;
mod random;

pub use password::{LONGEST, SHORTEST, judge, strength};

use crate::answer::held;
use galvet_core::base::name as plain_name;
use galvet_store::{NewPerson, Opened, Person, Role, Standing, Store, StoreError};
use governor::clock::MonotonicClock;
use password::{fits, hash};
use patience::Patience;
use random::{hex, keyed};
use std::net::IpAddr;
use std::sync::Mutex;
use std::time::{Duration, SystemTime, UNIX_EPOCH};
use thiserror::Error;

/// Longest name of a person, characters.
const LONGEST_PERSON: usize = 60;
/// Names that stand in the journal for something else.
const NOBODYS: [&str; 5] = ["galvet", "page", "person", "command line", "you"];
/// How long a password given again is good for what is sensitive, milliseconds.
const PROOF_MS: i64 = 10 * 60 * 1_000;
/// How long a password that somebody else chose is good for, milliseconds.
const LENT_MS: i64 = 7 * 24 * 60 * 60 * 1_000;
/// Longest name of a browser that is kept.
const LONGEST_BROWSER: usize = 160;

/// Why somebody does not come in, or is not let in.
#[derive(Debug, Error)]
pub enum AccountError {
    /// A name or a password that will not do, and why.
    #[error("{0}")]
    Refused(String),
    /// Not this name with this password. Which of the two is wrong is not told.
    #[error("that name and password do not go together")]
    Wrong,
    /// The password, which somebody else chose, was not changed in time.
    #[error("the password you were given is over: ask for another one")]
    Over,
    /// Tried too often; so long it has to wait.
    #[error("tried too often: wait {} s", .0.as_secs() + 1)]
    Wait(Duration),
    /// The store.
    #[error(transparent)]
    Store(#[from] StoreError),
}

/// Now, milliseconds since 1970.
#[must_use]
pub fn now() -> i64 {
    let since = SystemTime::now().duration_since(UNIX_EPOCH);
    since.map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}

/// Whether a password was given lately enough for what is sensitive.
#[must_use]
pub fn is_fresh(standing: &Standing, now: i64) -> bool {
    now - standing.proved_at <= PROOF_MS
}

/// Whether somebody has let the days pass in which to change a password they were given.
#[must_use]
pub fn is_over(person: &Person, now: i64) -> bool {
    person.lent_at.is_some_and(|at| now - at > LENT_MS)
}

/// What is to be done about a password somebody else chose; empty for one's own.
#[must_use]
pub fn lent_words(person: &Person, now: i64) -> &'static str {
    match person.is_lent() {
        false => "",
        true if is_over(person, now) => {
            "the password they were given is over, and they need another one"
        }
        true => "has to choose a password within a week of being given one",
    }
}

/// Who knocks: from where, with which browser.
#[derive(Debug, Clone)]
pub struct Knock {
    /// The address.
    pub from: IpAddr,
    /// What the browser calls itself.
    pub browser: String,
}

/// The door of an installation.
pub struct Accounts {
    store: Store,
    patience: Patience<MonotonicClock>,
    /// A hash nobody's password fits: looking at it takes as long as at somebody's.
    nobodys: String,
    /// Passwords are looked at one at a time: each takes 19 MB.
    turn: Mutex<()>,
}

impl Accounts {
    /// The door of a store.
    ///
    /// # Errors
    /// [`AccountError::Refused`] where this machine gives no random numbers.
    pub fn new(store: Store) -> Result<Self, AccountError> {
        Ok(Self {
            store,
            patience: Patience::new(MonotonicClock),
            nobodys: hash(&hex::<32>()?)?,
            turn: Mutex::new(()),
        })
    }

    /// Opens a session for whoever gives a name and its password; returns what their
    /// browser keeps.
    ///
    /// # Errors
    /// [`AccountError::Wrong`], [`AccountError::Wait`], and the store's.
    pub fn sign_in(
        &self,
        name: &str,
        password: &str,
        knock: &Knock,
    ) -> Result<String, AccountError> {
        let person = self.look(name, password, knock.from)?;
        let token = hex::<32>()?;
        let browser: String = knock.browser.chars().take(LONGEST_BROWSER).collect();
        let new = Opened {
            hash: &keyed(&token),
            person: person.id,
            browser: &browser,
        };
        self.store.open_session(&new, now())?;
        Ok(token)
    }

    /// Looks at a name and a password.
    fn look(&self, name: &str, password: &str, from: IpAddr) -> Result<Person, AccountError> {
        self.patience
            .may_try(name, from)
            .map_err(AccountError::Wait)?;
        let found = self.store.person_named(name)?;
        let kept = found.as_ref().map_or(&self.nobodys, |(_, hash)| hash);
        let right = {
            let _turn = held(&self.turn);
            fits(kept, password)
        };
        match found {
            Some((person, _)) if right => {
                // Told to nobody who does not know it.
                if is_over(&person, now()) {
                    return Err(AccountError::Over);
                }
                self.patience.came_in(name, from);
                Ok(person)
            }
            _ => Err(AccountError::Wrong),
        }
    }

    /// Who somebody is by what their browser keeps.
    ///
    /// # Errors
    /// [`StoreError`].
    pub fn standing(&self, token: &str) -> Result<Option<Standing>, StoreError> {
        self.store.standing(&keyed(token), now())
    }

    /// Ends the session of what a browser keeps.
    ///
    /// # Errors
    /// [`StoreError`].
    pub fn sign_out(&self, token: &str) -> Result<(), StoreError> {
        self.store.end_session(&keyed(token))
    }

    /// The password given again, before something sensitive.
    ///
    /// # Errors
    /// As [`Accounts::sign_in`].
    pub fn prove(&self, who: &Standing, password: &str, from: IpAddr) -> Result<(), AccountError> {
        self.look(&who.person.name, password, from)?;
        Ok(self.store.proved(who.session, now())?)
    }

    /// One's own password changed, by who knows the old one; one's other sessions end.
    ///
    /// # Errors
    /// As [`Accounts::sign_in`]; [`AccountError::Refused`] for a new one that will not do.
    pub fn change_own(
        &self,
        who: &Standing,
        (old, new): (&str, &str),
        (from, token): (IpAddr, &str),
    ) -> Result<(), AccountError> {
        let person = &who.person;
        judge(new, &[&person.name]).map_err(AccountError::Refused)?;
        if old == new {
            let same = "that is the password you have".to_owned();
            return Err(AccountError::Refused(same));
        }
        self.look(&person.name, old, from)?;
        let by = format!("person {}", person.handle);
        let kept = keyed(token);
        let set = (hash(new)?, false);
        self.store
            .set_password(&by, person.id, (&set.0, set.1), Some(&kept))?;
        Ok(())
    }
}

/// Lets somebody in; with a password somebody else chose it has to be changed first.
///
/// # Errors
/// [`AccountError::Refused`] with what is wrong with name or password.
pub fn let_in(
    store: &Store,
    by: &str,
    (name, role): (&str, Role),
    (password, lent): (&str, bool),
) -> Result<Person, AccountError> {
    let name = person_name(name)?;
    judge(password, &[&name]).map_err(AccountError::Refused)?;
    if !store.has_people()? && role != Role::Owner {
        let first = "the first account is an owner's: nobody could let others in".to_owned();
        return Err(AccountError::Refused(first));
    }
    let new = NewPerson {
        handle: &hex::<7>()?,
        name: &name,
        role,
        password: &hash(password)?,
        lent,
    };
    store.let_in(by, &new).map_err(|error| match error {
        StoreError::Somebody(_) => AccountError::Refused(error.to_string()),
        error => error.into(),
    })
}

/// Gives somebody a password to come in with once, which they change then.
///
/// # Errors
/// [`AccountError::Refused`] with what is wrong with it.
pub fn lend_password(
    store: &Store,
    by: &str,
    person: &Person,
    password: &str,
) -> Result<(), AccountError> {
    judge(password, &[&person.name]).map_err(AccountError::Refused)?;
    store.set_password(by, person.id, (&hash(password)?, true), None)?;
    Ok(())
}

/// What a person is called: one line, nobody else's word.
fn person_name(typed: &str) -> Result<String, AccountError> {
    let refused = |why: String| AccountError::Refused(why);
    let name = plain_name(typed).map_err(|problem| refused(format!("the name: {problem}")))?;
    if name.chars().count() > LONGEST_PERSON {
        return Err(refused(format!(
            "a person's name has at most {LONGEST_PERSON} characters"
        )));
    }
    if NOBODYS.contains(&name.to_lowercase().as_str()) {
        return Err(refused(format!(
            "“{name}” means something else here: choose another name"
        )));
    }
    Ok(name)
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::net::Ipv4Addr;
    use std::time::Instant;

    const GOOD: &str = "seventeen wet herons";
    const HERE: IpAddr = IpAddr::V4(Ipv4Addr::LOCALHOST);

    fn knock() -> Knock {
        Knock {
            from: HERE,
            browser: "a browser".to_owned(),
        }
    }

    fn shop() -> (tempfile::TempDir, Store, Accounts) {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let accounts = Accounts::new(store.clone()).unwrap();
        (directory, store, accounts)
    }

    #[test]
    fn somebody_comes_in_by_name_and_password_and_is_known_by_what_the_browser_keeps() {
        let (_directory, store, accounts) = shop();
        let runa = ("Runa", Role::Owner);
        let_in(&store, "test", runa, (GOOD, false)).unwrap();
        let token = accounts.sign_in("runa", GOOD, &knock()).unwrap();
        assert_eq!(token.len(), 64);
        let standing = accounts.standing(&token).unwrap().unwrap();
        assert_eq!(standing.person.name, "Runa");
        assert!(is_fresh(&standing, now()) && !is_fresh(&standing, now() + PROOF_MS + 1_000));
        // What is kept is not what opens: the hash of a token is nobody's.
        assert_eq!(accounts.standing(&keyed(&token)).unwrap(), None);
        assert_eq!(accounts.standing("").unwrap(), None);
        accounts.sign_out(&token).unwrap();
        assert_eq!(accounts.standing(&token).unwrap(), None);
    }

    #[test]
    fn wrong_names_and_wrong_passwords_are_told_alike_and_take_alike() {
        let (_directory, store, accounts) = shop();
        let_in(&store, "test", ("Runa", Role::Owner), (GOOD, false)).unwrap();
        let took = |name: &str, last: u8| {
            let from = IpAddr::from([10, 0, 0, last]);
            let begun = Instant::now();
            let knock = Knock { from, ..knock() };
            let answer = accounts.sign_in(name, "some other words", &knock);
            (begun.elapsed(), answer.unwrap_err().to_string())
        };
        let mut times: [Vec<Duration>; 2] = Default::default();
        for n in 0..5 {
            for (at, name) in ["Runa", "Nobody At All"].into_iter().enumerate() {
                let (time, told) = took(name, n * 2 + u8::try_from(at).unwrap());
                assert_eq!(told, "that name and password do not go together");
                times[at].push(time);
            }
        }
        // Both look at a hash, which takes nearly all of it; without it the second would
        // take a hundredth.
        let least = |at: usize| times[at].iter().min().copied().unwrap();
        assert!(least(1) * 3 > least(0), "{times:?}");
    }

    #[test]
    fn what_will_not_do_is_refused_with_the_reason() {
        let (_directory, store, _) = shop();
        let add = |name: &str, role, password: &str| {
            let done = let_in(&store, "test", (name, role), (password, false));
            done.map_err(|error| error.to_string())
        };
        let said = add("Runa", Role::Staff, GOOD).unwrap_err();
        assert!(said.contains("the first account is an owner's"), "{said}");
        for (name, password, why) in [
            ("", GOOD, "give it a name"),
            ("Galvet", GOOD, "means something else"),
            ("R\nuna", GOOD, "one line"),
            (&"x".repeat(61), GOOD, "at most 60"),
            ("Runa", "short", "at least 12"),
            ("Runa", "passwordpassword", "guessed"),
            ("Runa Quillback", "runa quillback", "guessed"),
        ] {
            let said = add(name, Role::Owner, password).unwrap_err();
            assert!(said.contains(why), "{name}/{password}: {said}");
        }
        assert!(!store.has_people().unwrap());
        add("Runa", Role::Owner, GOOD).unwrap();
        let said = add("RUNA", Role::Staff, GOOD).unwrap_err();
        assert!(said.contains("somebody already"), "{said}");
    }

    #[test]
    fn a_lent_password_is_changed_by_who_knows_it_and_ends_what_was_open() {
        let (_directory, store, accounts) = shop();
        let_in(&store, "test", ("Runa", Role::Owner), (GOOD, true)).unwrap();
        let there = accounts.sign_in("Runa", GOOD, &knock()).unwrap();
        let token = accounts.sign_in("Runa", GOOD, &knock()).unwrap();
        let who = accounts.standing(&token).unwrap().unwrap();
        assert!(who.person.is_lent());
        let other = "eleven dry cormorants";
        let change = |old: &str, new: &str| {
            let done = accounts.change_own(&who, (old, new), (HERE, &token));
            done.map_err(|error| error.to_string())
        };
        assert!(change("not that one at all", other).is_err());
        assert!(change(GOOD, GOOD).unwrap_err().contains("you have"));
        change(GOOD, other).unwrap();
        assert!(accounts.standing(&there).unwrap().is_none());
        let who = accounts.standing(&token).unwrap().unwrap();
        assert!(!who.person.is_lent());
        let again = accounts.sign_in("Runa", GOOD, &knock());
        assert!(matches!(again, Err(AccountError::Wrong)));
    }

    #[test]
    fn a_lent_password_is_good_for_a_week() {
        let (_directory, store, _) = shop();
        let_in(&store, "test", ("Runa", Role::Owner), (GOOD, false)).unwrap();
        let mads = let_in(&store, "test", ("Mads", Role::Staff), (GOOD, true)).unwrap();
        let (runa, _) = store.person_named("Runa").unwrap().unwrap();
        let at = mads.lent_at.unwrap();
        const DAY: i64 = 86_400_000;
        assert!(!is_over(&mads, at + 7 * DAY) && is_over(&mads, at + 7 * DAY + 1));
        // One's own is good for as long as it is kept.
        assert!(!is_over(&runa, at + 4_000 * DAY));
        // Another one that is given begins anew.
        lend_password(&store, "test", &mads, "eleven dry cormorants").unwrap();
        let (again, _) = store.person_named("Mads").unwrap().unwrap();
        assert!(again.lent_at.unwrap() >= at);
    }
}

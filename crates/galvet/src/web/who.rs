//! Under what name something is changed from a page: a person's where somebody signed in,
//! else a browser's.
//!
//! Without accounts each browser is given a hand of its own, kept in a cookie and written
//! with each change, so that undo is one's own. It guards nothing: whoever reaches an
//! installation without accounts may change everything.

use super::asked::is_shared;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visitor::Visitor;
use galvet_store::{SETTING_UP, Store, StoreError};
use rocket::Request;
use rocket::http::{Cookie, SameSite};
use rocket::time::Duration;
use rocket::tokio::task::spawn_blocking;
use std::collections::BTreeMap;
use std::hash::{BuildHasher, Hasher, RandomState};

const COOKIE: &str = "galvet-hand";
/// What stands before a browser's hand in the journal.
const PAGE: &str = "page ";
/// What stands before a person's.
const PERSON: &str = "person ";
/// Letters of a browser's hand.
const LETTERS: usize = 16;
/// Bytes of a name in the journal.
const LONG: usize = PAGE.len() + LETTERS;

/// Under what name somebody changes something.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Hand([u8; LONG]);

impl Hand {
    /// Whoever signed in; else the hand a browser keeps, a new one for one that has none,
    /// which it is asked to keep.
    pub(super) fn of(request: &Request<'_>) -> Self {
        *request.local_cache(|| {
            if is_shared(request) {
                return Self::NOBODY;
            }
            if let Ok(Visitor::Signed(standing)) = Visitor::known(request) {
                return Self::person(&standing.person.handle);
            }
            Self::of_browser(request)
        })
    }

    fn of_browser(request: &Request<'_>) -> Self {
        let kept = request.cookies().get(COOKIE).map(|c| c.value().to_owned());
        if let Some(hand) = kept.as_deref().and_then(Self::read) {
            return hand;
        }
        // Random enough to tell browsers apart.
        let letters = format!("{:016x}", RandomState::new().build_hasher().finish());
        let kept = Cookie::build((COOKIE, letters.clone()))
            .path("/")
            .same_site(SameSite::Lax)
            .http_only(true)
            .max_age(Duration::days(365));
        request.cookies().add(kept);
        Self::read(&letters).unwrap_or(Self::NOBODY)
    }

    const NOBODY: Self = Self(*b"page                 ");

    /// A person's, by their handle.
    fn person(handle: &str) -> Self {
        let whole = [PERSON, handle].concat();
        let whole = <[u8; LONG]>::try_from(whole.as_bytes());
        whole.map_or(Self::NOBODY, Self)
    }

    fn read(letters: &str) -> Option<Self> {
        let hex = letters.len() == LETTERS && letters.bytes().all(|b| b.is_ascii_hexdigit());
        let whole = [PAGE, letters].concat();
        <[u8; LONG]>::try_from(whole.as_bytes())
            .ok()
            .filter(|_| hex)
            .map(Self)
    }

    /// The name changes are written under.
    pub(super) fn who(&self) -> &str {
        std::str::from_utf8(&self.0).unwrap_or("page")
    }
}

/// What a page calls whoever made a change.
pub(super) struct Names {
    hand: Hand,
    people: BTreeMap<String, String>,
}

impl Names {
    /// As somebody hears them.
    pub(super) async fn of(shared: &Shared, hand: Hand) -> Result<Self, Trouble> {
        let store = shared.store.clone();
        Ok(spawn_blocking(move || Self::read(&store, hand)).await??)
    }

    /// The same, off the request's thread already.
    pub(super) fn read(store: &Store, hand: Hand) -> Result<Self, StoreError> {
        let people = store.people()?.into_iter();
        Ok(Self {
            hand,
            people: people
                .map(|p| ([PERSON, &p.handle].concat(), p.name))
                .collect(),
        })
    }

    /// The name behind one in the journal.
    pub(super) fn call<'a>(&'a self, who: &'a str) -> &'a str {
        match who {
            who if who == self.hand.who() => "you",
            who if who.starts_with(PERSON) => {
                let known = self.people.get(who);
                known.map_or("somebody of another installation", String::as_str)
            }
            who if who.starts_with(PAGE.trim_end()) => "somebody at another browser",
            "command line" => "somebody at the command line",
            SETTING_UP => "Galvet",
            who => who,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_hand_is_read_as_it_was_kept_and_nothing_else() {
        let hand = Hand::read("00c0ffee00c0ffee").unwrap();
        assert_eq!(hand.who(), "page 00c0ffee00c0ffee");
        for odd in [
            "",
            "00c0ffee",
            "00c0ffee00c0ffeg",
            "00c0ffee00c0ffee0",
            "ø0c0ffee00c0ffe",
        ] {
            assert_eq!(Hand::read(odd), None, "{odd}");
        }
        assert_eq!(
            Hand::person("00c0ffee00c0ff").who(),
            "person 00c0ffee00c0ff"
        );
        // No cookie makes a browser a person.
        assert_eq!(Hand::read("person 00c0ffee0"), None);
    }

    #[test]
    fn changes_are_called_by_who_made_them() {
        let people = [("person 00c0ffee00c0ff".to_owned(), "Runa".to_owned())];
        let names = Names {
            hand: Hand::read("00c0ffee00c0ffee").unwrap(),
            people: people.into(),
        };
        for (who, called) in [
            ("page 00c0ffee00c0ffee", "you"),
            ("page 1", "somebody at another browser"),
            ("person 00c0ffee00c0ff", "Runa"),
            ("person 99c0ffee00c0ff", "somebody of another installation"),
            ("command line", "somebody at the command line"),
            ("galvet", "Galvet"),
            ("Ben", "Ben"),
        ] {
            assert_eq!(names.call(who), called);
        }
    }
}

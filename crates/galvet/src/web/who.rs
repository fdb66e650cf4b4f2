//! Who changes something from a page: which browser, while there are no accounts.
//!
//! Each browser is given a hand of its own, kept in a cookie and written with each
//! change, so that undo is one's own. It guards nothing: whoever reaches an installation
//! without accounts may change everything.

use rocket::Request;
use rocket::http::{Cookie, SameSite};
use rocket::time::Duration;
use std::hash::{BuildHasher, Hasher, RandomState};

const COOKIE: &str = "galvet-hand";
/// What stands before a hand in the journal.
const PAGE: &str = "page ";
/// Letters of a hand.
const LETTERS: usize = 16;

/// The hand of a browser.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Hand([u8; PAGE.len() + LETTERS]);

impl Hand {
    /// The one a browser keeps; a new one, which it is asked to keep, for one that has
    /// none.
    pub(super) fn of(request: &Request<'_>) -> Self {
        *request.local_cache(|| {
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
        })
    }

    const NOBODY: Self = Self(*b"page                 ");

    fn read(letters: &str) -> Option<Self> {
        let hex = letters.len() == LETTERS && letters.bytes().all(|b| b.is_ascii_hexdigit());
        let whole = [PAGE, letters].concat();
        <[u8; PAGE.len() + LETTERS]>::try_from(whole.as_bytes())
            .ok()
            .filter(|_| hex)
            .map(Self)
    }

    /// The name changes are written under.
    pub(super) fn who(&self) -> &str {
        std::str::from_utf8(&self.0).unwrap_or("page")
    }

    /// What a page calls whoever made a change.
    pub(super) fn calls(self, who: &str) -> &str {
        match who {
            who if who == self.who() => "you",
            who if who.starts_with(PAGE.trim_end()) => "somebody at another browser",
            "command line" => "somebody at the command line",
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
        assert_eq!(hand.calls("page 00c0ffee00c0ffee"), "you");
        assert_eq!(hand.calls("page 1"), "somebody at another browser");
        assert_eq!(hand.calls("Ben"), "Ben");
        for odd in [
            "",
            "00c0ffee",
            "00c0ffee00c0ffeg",
            "00c0ffee00c0ffee0",
            "ø0c0ffee00c0ffe",
        ] {
            assert_eq!(Hand::read(odd), None, "{odd}");
        }
    }
}

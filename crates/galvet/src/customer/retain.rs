//! For how long what is under a customer's name is kept. Off unless somebody says so.

use super::name::{KIND, customers};
use super::person::Person;
use super::theirs::Theirs;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::stock::BookingEntry;
use galvet_store::{Catalogue, Forget, Kind, SETTING_UP, Share, Store, StoreError};
use serde_json::Value;

/// A kind of data kept for a time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Retained {
    /// Customers nobody has dealt with, and all that is theirs.
    Customers,
    /// Questions of customers.
    Questions,
    /// Outings of customers.
    Outings,
    /// Bookings that are over.
    Bookings,
}

impl Retained {
    /// All of them.
    pub(crate) const ALL: [Self; 4] = [
        Self::Customers,
        Self::Questions,
        Self::Outings,
        Self::Bookings,
    ];

    /// Its word.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Customers => "customers",
            Self::Questions => "questions",
            Self::Outings => "outings",
            Self::Bookings => "bookings",
        }
    }

    /// In plain words.
    pub(crate) const fn label(self) -> &'static str {
        match self {
            Self::Customers => "customers nobody dealt with, and all under their name",
            Self::Questions => "customers' questions",
            Self::Outings => "customers' outings",
            Self::Bookings => "bookings",
        }
    }

    fn setting(self) -> String {
        format!("retain-{}", self.key())
    }

    const fn kind(self) -> Kind {
        match self {
            Self::Customers => KIND,
            Self::Questions => Kind::Brief,
            Self::Outings => Kind::of::<OutingEntry>(),
            Self::Bookings => Kind::of::<BookingEntry>(),
        }
    }
}

/// Most months something is kept.
pub(crate) const LONGEST: u32 = 240;
/// A month, milliseconds: a twelfth of 365.25 days.
const MONTH_MS: i64 = 2_629_800_000;

/// For how many months something is kept; `None`: until somebody deletes it.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn months(store: &Store, what: Retained) -> Result<Option<u32>, StoreError> {
    let kept = store.setting(&what.setting())?;
    Ok(kept
        .and_then(|text| text.parse().ok())
        .filter(|n| (1..=LONGEST).contains(n)))
}

/// Says for how many months something is kept; none: until somebody deletes it.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn keep_months(
    store: &Store,
    who: &str,
    what: Retained,
    months: Option<u32>,
) -> Result<(), StoreError> {
    let text = months.map_or_else(|| "0".to_owned(), |n| n.to_string());
    store.set_setting(who, &what.setting(), &text)
}

/// Records whose time is over.
struct Old {
    /// Their kinds and keys.
    over: Vec<(Kind, String)>,
}

impl Forget for Old {
    fn share(&self, kind: Kind, document: &Value) -> Share {
        let key = document.get("key").and_then(Value::as_str);
        let over = self
            .over
            .iter()
            .any(|(k, slug)| *k == kind && Some(slug.as_str()) == key);
        if over { Share::All } else { Share::None }
    }

    fn without(&self, _: &str) -> Option<String> {
        None
    }
}

/// What of one kind was last changed before a moment and is a customer's.
fn untouched(
    store: &Store,
    catalogue: &Catalogue,
    (what, before): (Retained, i64),
) -> Result<Vec<String>, StoreError> {
    let slugs = store.untouched_since(what.kind(), before)?;
    let is_a_customers = |slug: &String| match what {
        Retained::Customers => true,
        Retained::Questions => {
            let mut all = catalogue.briefs.iter();
            all.any(|b| b.key == *slug && !b.customer.trim().is_empty())
        }
        Retained::Outings => {
            let mut all = catalogue.sheets_of::<OutingEntry>();
            all.any(|o| o.key == *slug && !o.who.trim().is_empty())
        }
        Retained::Bookings => true,
    };
    Ok(slugs.into_iter().filter(is_a_customers).collect())
}

/// A customer's newest trace: they, and everything under their name.
fn lately(
    store: &Store,
    customer: &CustomerEntry,
    catalogue: &Catalogue,
    before: i64,
) -> Result<bool, StoreError> {
    let theirs = Theirs::of(customer, catalogue);
    let named = theirs
        .questions
        .iter()
        .map(|q| (Kind::Brief, q.key.clone()));
    let outings = theirs
        .outings
        .iter()
        .map(|o| (Kind::of::<OutingEntry>(), o.key.clone()));
    let bookings = theirs
        .bookings
        .iter()
        .map(|b| (Kind::of::<BookingEntry>(), b.key.clone()));
    for (kind, key) in named.chain(outings).chain(bookings) {
        if !store.untouched_since(kind, before)?.contains(&key) {
            return Ok(true);
        }
    }
    Ok(false)
}

/// What would be over at a moment: customers, and records of the other kinds by key.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn over_now(
    store: &Store,
    catalogue: &Catalogue,
    now: i64,
) -> Result<Vec<(Retained, Vec<String>)>, StoreError> {
    let mut out = Vec::new();
    for what in Retained::ALL {
        let Some(months) = months(store, what)? else {
            continue;
        };
        let before = now - i64::from(months) * MONTH_MS;
        let mut keys = untouched(store, catalogue, (what, before))?;
        if what == Retained::Customers {
            let known = customers(catalogue);
            let mut quiet = Vec::new();
            for key in keys {
                let one = known.iter().find(|c| c.key == key);
                if let Some(one) = one
                    && !lately(store, one, catalogue, before)?
                {
                    quiet.push(key);
                }
            }
            keys = quiet;
        }
        if !keys.is_empty() {
            out.push((what, keys));
        }
    }
    Ok(out)
}

/// Lets go of what is over: customers as somebody forgotten is, the rest record by record.
/// How many records are gone.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn retain(store: &Store, now: i64) -> Result<usize, StoreError> {
    let mut gone = 0;
    for (what, keys) in over_now(store, &store.catalogue()?, now)? {
        if what == Retained::Customers {
            for key in keys {
                let catalogue = store.catalogue()?;
                let Some(one) = customers(&catalogue).into_iter().find(|c| c.key == key) else {
                    continue;
                };
                let person = Person::of(&one, &catalogue, true);
                gone += store
                    .forget(SETTING_UP, &person)?
                    .gone
                    .values()
                    .sum::<usize>();
            }
            continue;
        }
        let over = keys.into_iter().map(|key| (what.kind(), key)).collect();
        gone += store
            .forget(SETTING_UP, &Old { over })?
            .gone
            .values()
            .sum::<usize>();
    }
    if gone > 0 {
        store.sweep_file()?;
        store.note_account(
            SETTING_UP,
            "",
            &format!("{gone} records let go: their time was over"),
        )?;
    }
    Ok(gone)
}

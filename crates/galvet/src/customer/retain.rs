//! For how long what is under a customer's name is kept. Off unless somebody says so.

use super::name::{KIND, customers};
use super::person::Person;
use super::theirs::Theirs;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::Photo;
use galvet_store::files::stock::BookingEntry;
use galvet_store::{
    Catalogue, Forget, Forgotten, Kind, Record, SETTING_UP, Share, Store, StoreError, Untouched,
};
use serde_json::Value;
use std::collections::BTreeSet;
use time::{OffsetDateTime, PrimitiveDateTime};

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

/// A moment before which what nobody touched is over.
struct Before {
    at: i64,
    /// The same as a day, ISO 8601, and on the clock.
    day: String,
    clock: PrimitiveDateTime,
}

impl Before {
    fn of(at: i64) -> Result<Self, StoreError> {
        let moment = OffsetDateTime::from_unix_timestamp(at.div_euclid(1_000));
        let moment = moment.map_err(|_| StoreError::Nothing("no such moment"))?;
        let (year, month, day) = (moment.year(), u8::from(moment.month()), moment.day());
        Ok(Self {
            at,
            day: format!("{year:04}-{month:02}-{day:02}"),
            clock: PrimitiveDateTime::new(moment.date(), moment.time()),
        })
    }

    /// Whether the time of something nobody touched is over as well: what is still to come
    /// is not, whenever it was written down.
    fn is_over(&self, record: &Record) -> bool {
        match record {
            Record::Brief(brief) => !brief.customer.trim().is_empty(),
            Record::Sheet(sheet) => {
                if let Some(outing) = sheet.sheet::<OutingEntry>() {
                    !outing.who.trim().is_empty() && outing.day < self.day
                } else if let Some(booking) = sheet.sheet::<BookingEntry>() {
                    booking.span().is_none_or(|(_, until)| until < self.clock)
                } else {
                    true
                }
            }
            _ => true,
        }
    }

    /// What of a kind is over.
    fn over(&self, store: &Store, kind: Kind) -> Result<Vec<Untouched>, StoreError> {
        let mut all = store.untouched_since(kind, self.at)?;
        all.retain(|one| self.is_over(&one.record));
        Ok(all)
    }
}

/// What is over of each kind that can be under a customer's name, by key.
struct Quiet<'a> {
    before: &'a Before,
    over: Vec<(Kind, BTreeSet<String>)>,
}

impl<'a> Quiet<'a> {
    fn of(store: &Store, before: &'a Before) -> Result<Self, StoreError> {
        let kinds = [
            Kind::Brief,
            Kind::Rig,
            Kind::of::<OutingEntry>(),
            Kind::of::<BookingEntry>(),
        ];
        let keys = |kind| {
            let over = before.over(store, kind)?.into_iter();
            let living = over.filter(|one| one.lives);
            Ok((
                kind,
                living.map(|one| one.record.slug().to_owned()).collect(),
            ))
        };
        let over = kinds
            .into_iter()
            .map(keys)
            .collect::<Result<_, StoreError>>()?;
        Ok(Self { before, over })
    }

    /// Whether nothing under a customer's name is newer.
    fn is(&self, customer: &CustomerEntry, catalogue: &Catalogue) -> bool {
        let theirs = Theirs::of(customer, catalogue);
        let is_over = |kind: Kind, key: &str| {
            let mut kinds = self.over.iter();
            kinds.any(|(of, keys)| *of == kind && keys.contains(key))
        };
        let (outing, booking) = (Kind::of::<OutingEntry>(), Kind::of::<BookingEntry>());
        theirs
            .questions
            .iter()
            .all(|q| is_over(Kind::Brief, &q.key))
            && theirs.rigs.iter().all(|(key, _)| is_over(Kind::Rig, key))
            && theirs.outings.iter().all(|o| is_over(outing, &o.key))
            && theirs.bookings.iter().all(|b| is_over(booking, &b.key))
            && theirs.trials.iter().all(|(.., t)| t.date < self.before.day)
    }
}

/// Records whose time is over.
struct Old {
    /// By kind and number.
    records: BTreeSet<(&'static str, i64)>,
    /// Keys of outings among them, whose photos go with them.
    outings: BTreeSet<String>,
}

impl Old {
    fn of<'a>(what: Retained, over: impl Iterator<Item = &'a Untouched>) -> Self {
        let kind = what.kind();
        let over: Vec<_> = over.collect();
        let keys = over.iter().map(|one| one.record.slug().to_owned());
        let keys = keys.filter(|_| what == Retained::Outings);
        Self {
            records: over.iter().map(|one| (kind.key(), one.id)).collect(),
            outings: keys.collect(),
        }
    }
}

impl Forget for Old {
    fn share(&self, (kind, id): (Kind, i64), document: &Value) -> Share {
        let outing = document.get("outing").and_then(Value::as_str);
        let taken = outing.is_some_and(|key| self.outings.contains(key));
        let is_photo = kind == Kind::of::<Photo>();
        if self.records.contains(&(kind.key(), id)) || is_photo && taken {
            Share::All
        } else {
            Share::None
        }
    }

    fn without(&self, _: &str) -> Option<String> {
        None
    }
}

/// What would be over at a moment.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn over_now(
    store: &Store,
    catalogue: &Catalogue,
    now: i64,
) -> Result<Vec<(Retained, Vec<Untouched>)>, StoreError> {
    let mut out = Vec::new();
    for what in Retained::ALL {
        let Some(months) = months(store, what)? else {
            continue;
        };
        let before = Before::of(now - i64::from(months) * MONTH_MS)?;
        let mut over = before.over(store, what.kind())?;
        if what == Retained::Customers {
            let (quiet, known) = (Quiet::of(store, &before)?, customers(catalogue));
            over.retain(|one| {
                let mut known = known.iter();
                let known = known.find(|c| one.lives && c.key == one.record.slug());
                // One thrown away is dealt with by nobody.
                known.map_or(!one.lives, |known| quiet.is(known, catalogue))
            });
        }
        if !over.is_empty() {
            out.push((what, over));
        }
    }
    Ok(out)
}

/// Lets go of what is over: customers as somebody forgotten is, the rest record by record,
/// out of the trash as well. How many records are gone.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub(crate) fn retain(store: &Store, now: i64) -> Result<usize, StoreError> {
    let mut gone = 0;
    for (what, over) in over_now(store, &store.catalogue()?, now)? {
        let is_somebody = |one: &&Untouched| what == Retained::Customers && one.lives;
        for one in over.iter().filter(is_somebody) {
            let catalogue = store.catalogue()?;
            let mut known = customers(&catalogue).into_iter();
            if let Some(one) = known.find(|c| c.key == one.record.slug()) {
                let person = Person::of(store, (&one, &catalogue), true)?;
                gone += count(&store.forget(SETTING_UP, &person)?);
            }
        }
        let old = Old::of(what, over.iter().filter(|one| !is_somebody(one)));
        if !old.records.is_empty() {
            gone += count(&store.forget(SETTING_UP, &old)?);
        }
    }
    if gone > 0 {
        store.sweep_file()?;
        let act = format!("{gone} records let go: their time was over");
        store.note_account(SETTING_UP, "", &act)?;
    }
    Ok(gone)
}

/// How many records were forgotten.
fn count(forgotten: &Forgotten) -> usize {
    forgotten.gone.values().sum()
}

#[cfg(test)]
mod tests {
    use super::*;
    use diesel::{Connection, RunQueryDsl, SqliteConnection};
    use galvet_core::hull::{Felt, Trial};
    use galvet_store::files::sheet::{Document, Sheet};

    /// 2027-06-15, noon.
    const NOW: i64 = 1_813_060_800_000;

    fn put<S: Sheet>(store: &Store, one: &S) {
        let put =
            |door: &mut galvet_store::Door<'_>| door.put(&Record::Sheet(Document::of(one)), None);
        store.write("page", "put in", put).unwrap();
    }

    fn customer(key: &str) -> CustomerEntry {
        CustomerEntry {
            key: key.to_owned(),
            name: format!("Customer {key}"),
            since: "2026-01-01".to_owned(),
            ..CustomerEntry::default()
        }
    }

    fn booking(key: &str, who: &str, from: &str) -> BookingEntry {
        BookingEntry {
            key: key.to_owned(),
            name: key.to_owned(),
            hull: "quarnel-pipkin".to_owned(),
            who: who.to_owned(),
            from: from.to_owned(),
            hours: 2,
            note: String::new(),
        }
    }

    /// As if everything there is had been written down at a moment.
    fn age(store: &Store, at: i64) {
        #[derive(diesel::QueryableByName)]
        struct Table {
            #[diesel(sql_type = diesel::sql_types::Text)]
            name: String,
        }
        let file = store.directory().join("galvet.db");
        let mut raw = SqliteConnection::establish(file.to_str().unwrap()).unwrap();
        let dated =
            "SELECT name FROM sqlite_master WHERE type = 'table' AND sql LIKE '%updated_at%'";
        let tables: Vec<Table> = diesel::sql_query(dated).load(&mut raw).unwrap();
        assert!(tables.len() > 5);
        for Table { name } in tables {
            let aged = format!("UPDATE {name} SET updated_at = {at}");
            diesel::sql_query(aged).execute(&mut raw).unwrap();
        }
    }

    /// A shop in which everything was written down so many days before now, and what is in
    /// it then.
    fn shop(days: i64) -> (tempfile::TempDir, Store) {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store
            .fill("page", &crate::demo_data::catalogue().unwrap())
            .unwrap();
        let mut outing = store.sheets::<OutingEntry>().unwrap().remove(0);
        for (key, day) in [("past", "2027-01-10"), ("planned", "2027-07-10")] {
            (outing.key, outing.day) = (key.to_owned(), day.to_owned());
            outing.who = "Customer outing".to_owned();
            put(&store, &outing);
        }
        put(&store, &booking("was", "Customer was", "2027-01-10T10:00"));
        put(
            &store,
            &booking("comes", "Customer comes", "2027-07-10T10:00"),
        );
        for key in ["quiet", "was", "comes", "outing", "tried", "thrown"] {
            put(&store, &customer(key));
        }
        let tried = Trial {
            who: "Customer tried".to_owned(),
            date: "2027-06-01".to_owned(),
            stood: true,
            felt: Felt::Steady,
            note: String::new(),
        };
        let hull = (Kind::Hull, "quarnel-pipkin");
        let log = |record: &mut Record| {
            if let Record::Hull(hull) = record {
                hull.survey.looked.trials.push(tried.clone());
            }
            Ok::<_, StoreError>(())
        };
        store.edit("page", "tried", hull, log).unwrap();
        store.throw_away("page", (KIND, "thrown"), None).unwrap();
        age(&store, NOW - days * 24 * 60 * 60 * 1_000);
        (directory, store)
    }

    fn left(store: &Store) -> (Vec<String>, Vec<String>, Vec<String>) {
        let all = store.catalogue().unwrap();
        let mine = |name: &&CustomerEntry| name.name.starts_with("Customer");
        let customers = all.sheets_of::<CustomerEntry>().filter(mine);
        let outings = all.sheets_of::<OutingEntry>();
        let outings = outings.filter(|o| o.who.starts_with("Customer"));
        let bookings = all.sheets_of::<BookingEntry>();
        let bookings = bookings.filter(|b| b.who.starts_with("Customer"));
        let sorted = |mut keys: Vec<String>| {
            keys.sort();
            keys
        };
        (
            sorted(customers.map(|c| c.key.clone()).collect()),
            sorted(outings.map(|o| o.key.clone()).collect()),
            sorted(bookings.map(|b| b.key.clone()).collect()),
        )
    }

    #[test]
    fn what_is_still_to_come_is_not_over_however_long_ago_it_was_written_down() {
        let (_directory, store) = shop(100);
        let mine = store
            .catalogue()
            .unwrap()
            .sheets_of::<OutingEntry>()
            .count();
        for what in [Retained::Outings, Retained::Bookings] {
            keep_months(&store, "page", what, Some(3)).unwrap();
        }
        retain(&store, NOW).unwrap();
        let (customers, outings, bookings) = left(&store);
        assert_eq!(
            (outings, bookings),
            (vec!["planned".to_owned()], vec!["comes".to_owned()])
        );
        assert_eq!(customers.len(), 5, "they were not asked for");
        // One's own outings, which are under nobody's name, stay.
        let after = store
            .catalogue()
            .unwrap()
            .sheets_of::<OutingEntry>()
            .count();
        assert!(mine - after < mine / 2, "{mine} {after}");
    }

    #[test]
    fn a_customer_somebody_deals_with_stays() {
        let (_directory, store) = shop(100);
        keep_months(&store, "page", Retained::Customers, Some(3)).unwrap();
        let trashed = |store: &Store| store.trash().unwrap().len();
        assert_eq!(trashed(&store), 1);
        retain(&store, NOW).unwrap();
        let (customers, outings, bookings) = left(&store);
        assert_eq!(customers, ["comes", "outing", "tried"]);
        assert_eq!((outings.len(), bookings), (2, vec!["comes".to_owned()]));
        assert_eq!(trashed(&store), 0, "out of the trash as well");
        // A month later nothing has changed: what is to come is still to come.
        assert_eq!(retain(&store, NOW).unwrap(), 0);
    }

    #[test]
    fn what_was_touched_in_time_stays() {
        let (_directory, store) = shop(80);
        for what in Retained::ALL {
            keep_months(&store, "page", what, Some(3)).unwrap();
        }
        let before = left(&store);
        assert_eq!(retain(&store, NOW).unwrap(), 0);
        assert_eq!(left(&store), before);
    }
}

//! Who may come in, and by which session.

use galvet_store::{NewPerson, Opened, Role, Store, StoreError, backup, restore};
use std::fs;

const HOUR: i64 = 3_600_000;
const NOW: i64 = 1_800_000_000_000;

struct Shop {
    store: Store,
    directory: tempfile::TempDir,
}

impl Shop {
    fn new() -> Self {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        Self { store, directory }
    }

    fn add(&self, name: &str, role: Role) -> Result<i64, StoreError> {
        let number = self.store.people()?.len();
        let handle = format!("{number:014x}");
        let new = NewPerson {
            handle: &handle,
            name,
            role,
            password: "$hash",
            lent: false,
        };
        Ok(self.store.let_in("test", &new)?.id)
    }

    fn session(&self, hash: char, person: i64, at: i64) -> String {
        let hash = hash.to_string().repeat(64);
        let new = Opened {
            hash: &hash,
            person,
            browser: "a browser",
        };
        self.store.open_session(&new, at).unwrap();
        hash
    }

    fn is_in(&self, hash: &str, at: i64) -> bool {
        self.store.standing(hash, at).unwrap().is_some()
    }
}

#[test]
fn one_name_is_one_person_whatever_its_capitals() {
    let shop = Shop::new();
    assert!(!shop.store.has_people().unwrap());
    let runa = shop.add("Runa Ö.", Role::Owner).unwrap();
    assert!(shop.store.has_people().unwrap());
    assert!(matches!(
        shop.add(" runa ö. ", Role::Staff),
        Err(StoreError::Somebody(name)) if name == "runa ö."
    ));
    let (found, hash) = shop.store.person_named("RUNA Ö.").unwrap().unwrap();
    assert_eq!((found.id, hash.as_str()), (runa, "$hash"));
    // Who was shut out is found no more, and their name is free.
    let other = shop.add("Mads", Role::Owner).unwrap();
    shop.store.shut_out("test", runa).unwrap();
    assert!(shop.store.person_named("Runa Ö.").unwrap().is_none());
    shop.add("Runa Ö.", Role::Looker).unwrap();
    assert!(matches!(
        shop.store.let_back("test", runa),
        Err(StoreError::Somebody(_))
    ));
    let log = shop.store.account_log(10).unwrap();
    let acts: Vec<&str> = log.iter().map(|noted| noted.act.as_str()).collect();
    assert_eq!(
        acts,
        [
            "let in as looker",
            "shut out",
            "let in as owner",
            "let in as owner"
        ]
    );
    assert_eq!(
        other,
        shop.store.person_named("mads").unwrap().unwrap().0.id
    );
}

#[test]
fn an_owner_always_stays() {
    let shop = Shop::new();
    let only = shop.add("Runa", Role::Owner).unwrap();
    shop.add("Mads", Role::Staff).unwrap();
    assert!(shop.store.shut_out("test", only).is_err());
    assert!(shop.store.set_role("test", only, Role::Staff).is_err());
    // Nothing of it was done.
    let (person, _) = shop.store.person_named("Runa").unwrap().unwrap();
    assert_eq!(person.role, Role::Owner);
    assert_eq!(shop.store.account_log(10).unwrap().len(), 2);
    let second = shop.add("Ida", Role::Owner).unwrap();
    shop.store.set_role("test", only, Role::Looker).unwrap();
    assert!(shop.store.shut_out("test", second).is_err());
}

#[test]
fn a_session_ends_unused_by_age_and_when_somebody_ends_it() {
    let shop = Shop::new();
    let runa = shop.add("Runa", Role::Owner).unwrap();
    let hash = shop.session('a', runa, NOW);
    assert!(shop.is_in(&hash, NOW + 12 * HOUR));
    // Used then: half a day more, though not for ever.
    assert!(shop.is_in(&hash, NOW + 24 * HOUR));
    assert!(!shop.is_in(&hash, NOW + 24 * HOUR + 12 * HOUR + 1));
    let idle = shop.session('b', runa, NOW);
    assert!(!shop.is_in(&idle, NOW + 12 * HOUR + 1));
    let old = shop.session('c', runa, NOW);
    for day in 0..60 {
        let at = NOW + day * 12 * HOUR;
        assert!(shop.is_in(&old, at), "half day {day}");
    }
    assert!(!shop.is_in(&old, NOW + 30 * 24 * HOUR + 1));
    let late = NOW + 40 * 24 * HOUR;
    let ended = shop.session('d', runa, late);
    shop.store.end_session(&ended).unwrap();
    assert!(!shop.is_in(&ended, late));
    // What is over was cleared away by those that came after.
    assert_eq!(shop.store.sessions(None, late).unwrap(), []);
    // Nobody ends another's by its number.
    let mads = shop.add("Mads", Role::Staff).unwrap();
    let kept = shop.session('e', runa, late);
    let number = shop.store.sessions(Some(runa), late).unwrap()[0].id;
    assert!(!shop.store.end_listed(number, Some(mads)).unwrap());
    assert!(shop.is_in(&kept, late));
    assert!(shop.store.end_listed(number, None).unwrap());
    assert!(!shop.is_in(&kept, late));
}

#[test]
fn a_new_password_ends_the_others_and_shutting_out_ends_all() {
    let shop = Shop::new();
    shop.add("Runa", Role::Owner).unwrap();
    let mads = shop.add("Mads", Role::Staff).unwrap();
    let (here, there) = (shop.session('a', mads, NOW), shop.session('b', mads, NOW));
    shop.store
        .set_password("Mads", mads, ("$new", false), Some(&here))
        .unwrap();
    assert!(shop.is_in(&here, NOW) && !shop.is_in(&there, NOW));
    assert_eq!(shop.store.person_named("Mads").unwrap().unwrap().1, "$new");
    shop.store.shut_out("Runa", mads).unwrap();
    assert!(!shop.is_in(&here, NOW));
    shop.store.let_back("Runa", mads).unwrap();
    assert!(!shop.is_in(&here, NOW), "let in again is not in again");
}

#[test]
fn twenty_sessions_of_one_person_and_no_more() {
    let shop = Shop::new();
    let runa = shop.add("Runa", Role::Owner).unwrap();
    for n in 0..25 {
        let hash = format!("{n:064x}");
        let new = Opened {
            hash: &hash,
            person: runa,
            browser: "",
        };
        shop.store.open_session(&new, NOW + n).unwrap();
    }
    let left = shop.store.sessions(Some(runa), NOW + 30).unwrap();
    assert_eq!(left.len(), 20);
    assert!(left.iter().all(|session| session.made_at >= NOW + 5));
}

#[test]
fn a_restore_leaves_accounts_as_they_are() {
    let shop = Shop::new();
    let runa = shop.add("Runa", Role::Owner).unwrap();
    let mads = shop.add("Mads", Role::Staff).unwrap();
    let path = shop.directory.path();
    let kept = path.join("kept.db");
    backup(path, &kept).unwrap();
    shop.store.shut_out("Runa", mads).unwrap();
    let here = shop.session('a', runa, NOW);
    restore(path, &kept).unwrap();
    assert!(
        shop.store.person_named("Mads").unwrap().is_none(),
        "shut out"
    );
    assert!(shop.is_in(&here, NOW));
    // An installation without people takes those of the backup, and nobody is in.
    shop.session('b', runa, NOW);
    let whole = path.join("whole.db");
    backup(path, &whole).unwrap();
    let fresh = tempfile::tempdir().unwrap();
    restore(fresh.path(), &whole).unwrap();
    let store = Store::open(fresh.path()).unwrap();
    assert!(store.person_named("Runa").unwrap().is_some());
    assert_eq!(store.sessions(None, NOW).unwrap(), []);
}

#[test]
fn people_are_no_records() {
    let shop = Shop::new();
    let before = shop.store.state().unwrap();
    shop.add("Runa Quillback", Role::Owner).unwrap();
    assert_eq!(
        shop.store.state().unwrap(),
        before,
        "no line in the journal"
    );
    let files = shop.store.catalogue().unwrap();
    assert!(!format!("{files:?}").contains("Quillback"));
}

#[test]
fn an_account_is_made_beside_a_running_galvet() {
    let shop = Shop::new();
    assert!(matches!(
        Store::open(shop.directory.path()),
        Err(StoreError::InUse { .. })
    ));
    let beside = Store::open_beside(shop.directory.path()).unwrap();
    let new = NewPerson {
        handle: "00000000000000",
        name: "Runa",
        role: Role::Owner,
        password: "$hash",
        lent: false,
    };
    beside.let_in("command line", &new).unwrap();
    assert!(shop.store.has_people().unwrap());
    assert!(fs::read_dir(shop.directory.path()).unwrap().count() > 0);
}

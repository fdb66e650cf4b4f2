//! Killed at any moment: what was acknowledged is kept, nothing is half there.
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;

use common::Server;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Text};
use galvet_store::{Kind, Record, Store};
use std::collections::BTreeSet;
use std::path::Path;
use std::sync::Mutex;
use std::thread;
use std::time::{Duration, Instant};

/// Kills in all, and how many one database takes before a fresh one is made:
/// reading it back slows with every question in it.
const KILLS: u64 = 200;
const PER_DATABASE: u64 = 20;
/// Longest wait for one write.
const PATIENCE: Duration = Duration::from_secs(60);
/// Seed of the moments.
const SEED: u64 = 0x6761_6c76_6574;

/// A number that looks random, from a counter (SplitMix64, Steele et al. 2014).
fn scrambled(counter: u64) -> u64 {
    let mut z = SEED.wrapping_add(counter.wrapping_mul(0x9e37_79b9_7f4a_7c15));
    z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    z ^ (z >> 31)
}

/// Saves questions until the server is gone; keeps the names of those it
/// acknowledged.
fn save_until_gone(port: u16, writer: &str, acknowledged: &Mutex<BTreeSet<String>>) {
    for number in 0.. {
        let name = format!("{writer} {number}");
        if !common::save_question(port, &name) {
            return;
        }
        acknowledged.lock().unwrap().insert(name);
    }
}

#[derive(QueryableByName)]
struct Said {
    #[diesel(sql_type = Text)]
    said: String,
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    n: i64,
}

/// The file itself is whole.
fn is_whole(directory: &Path) {
    let path = directory.join("galvet.db");
    let mut raw = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    raw.batch_execute("PRAGMA busy_timeout = 5000").unwrap();
    let said: Vec<Said> =
        diesel::sql_query("SELECT integrity_check AS said FROM pragma_integrity_check")
            .load(&mut raw)
            .unwrap();
    assert!(said.len() == 1 && said[0].said == "ok", "{}", said[0].said);
    let broken: Count = diesel::sql_query("SELECT count(*) AS n FROM pragma_foreign_key_check")
        .get_result(&mut raw)
        .unwrap();
    assert_eq!(broken.n, 0, "references");
    // One line in the journal for every revision of every record, no more.
    let odd: Count = diesel::sql_query(
        "SELECT (SELECT count(*) FROM journal WHERE kind = 'brief') \
         - (SELECT coalesce(sum(revision), 0) FROM briefs) AS n",
    )
    .get_result(&mut raw)
    .unwrap();
    assert_eq!(odd.n, 0, "lines without a record or records without a line");
}

/// Every acknowledged question is there, and every record is what its journal
/// says it is.
fn nothing_lost(directory: &Path, acknowledged: &BTreeSet<String>) {
    let store = Store::open(directory).unwrap();
    let catalogue = store.catalogue().unwrap();
    assert!(catalogue.set_aside.is_empty(), "{:?}", catalogue.set_aside);
    let kept: BTreeSet<&str> = catalogue.briefs.iter().map(|b| b.name.as_str()).collect();
    for name in acknowledged {
        assert!(
            kept.contains(name.as_str()),
            "“{name}” was acknowledged and is gone"
        );
    }
    for brief in &catalogue.briefs {
        let (known, record) = store.record(Kind::Brief, &brief.key).unwrap().unwrap();
        let history = store.history(Kind::Brief, known.id, (99, None)).unwrap();
        let last = &history[0];
        assert_eq!(last.known, known, "{}", brief.key);
        assert_eq!(
            last.after,
            Some(record.document().unwrap()),
            "{}",
            brief.key
        );
        assert_eq!(record, Record::Brief(brief.clone()));
        assert!(brief.question["crew"].is_object(), "{}", brief.key);
    }
}

#[test]
fn two_hundred_kills_during_writes_lose_nothing_acknowledged() {
    let mut saved = 0;
    for base in (0..KILLS).step_by(usize::try_from(PER_DATABASE).unwrap()) {
        let directory = tempfile::tempdir().unwrap();
        let path = directory.path().to_str().unwrap();
        let acknowledged = Mutex::new(BTreeSet::new());
        for kill in base..base + PER_DATABASE {
            let mut server = Server::start(&["demo", "--port", "0", "--keep", path]);
            thread::scope(|scope| {
                for writer in ["port", "starboard"] {
                    let (port, acknowledged) = (server.port, &acknowledged);
                    let name = format!("{writer} {kill}");
                    scope.spawn(move || save_until_gone(port, &name, acknowledged));
                }
                // From before the first write is through to some way into them.
                let before = acknowledged.lock().unwrap().len();
                let wanted = before + scrambled(kill) as usize % 4;
                let began = Instant::now();
                while acknowledged.lock().unwrap().len() < wanted {
                    assert!(began.elapsed() < PATIENCE, "the server saves nothing");
                    thread::yield_now();
                }
                thread::sleep(Duration::from_micros(scrambled(kill + KILLS) % 20_000));
                server.kill();
            });
            is_whole(directory.path());
            nothing_lost(directory.path(), &acknowledged.lock().unwrap());
        }
        saved += acknowledged.lock().unwrap().len();
    }
    assert!(saved > 200, "only {saved} writes: nothing was tried");
}

//! A rough life: full disks, idle callers, signals, backups while others write.
#![cfg(unix)]
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;

use common::{Server, run, save_question};
use std::collections::BTreeSet;
use std::fs;
use std::io::Write;
use std::net::TcpStream;
use std::path::Path;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

fn serve(directory: &Path) -> [&str; 5] {
    let path = directory.to_str().unwrap();
    ["serve", "--data", path, "--listen", "127.0.0.1:0"]
}

/// Names of the questions kept.
fn kept(directory: &Path) -> BTreeSet<String> {
    let store = galvet_store::Store::open(directory).unwrap();
    let briefs = store.catalogue().unwrap().briefs;
    briefs.into_iter().map(|brief| brief.name).collect()
}

fn nothing_wrong(directory: &Path) {
    let output = run(&["check", directory.to_str().unwrap()]);
    let said = String::from_utf8_lossy(&output.stdout).into_owned();
    assert!(said.contains("nothing wrong"), "{said}");
}

fn galvet(args: &[&str]) -> (Option<i32>, String) {
    let output = run(args);
    let all = [output.stdout, output.stderr].concat();
    (
        output.status.code(),
        String::from_utf8_lossy(&all).into_owned(),
    )
}

#[test]
fn three_hundred_idle_and_half_open_connections_stop_nobody() {
    // Fewer files than connections, until the server asks for more.
    let server = Server::start_after("ulimit -S -n 128", &["demo", "--port", "0"]);
    let idle: Vec<TcpStream> = (0..300)
        .map(|n| {
            let mut caller = TcpStream::connect(("127.0.0.1", server.port)).unwrap();
            if n % 2 == 0 {
                caller.write_all(b"GET / HTTP/1.1\r\nHost: loc").unwrap();
            }
            caller
        })
        .collect();
    assert!(server.get("/").starts_with("HTTP/1.1 200"));
    drop(idle);
}

#[test]
fn a_server_ends_within_two_seconds_whatever_is_open() {
    let directory = tempfile::tempdir().unwrap();
    let mut server = Server::start(&serve(directory.path()));
    let mut half = TcpStream::connect(("127.0.0.1", server.port)).unwrap();
    half.write_all(b"POST /questions HTTP/1.1\r\nContent-Length: 9")
        .unwrap();
    let _idle = TcpStream::connect(("127.0.0.1", server.port)).unwrap();
    // Kept alive after an answer.
    let mut kept = TcpStream::connect(("127.0.0.1", server.port)).unwrap();
    let ask = format!(
        "GET /reckons HTTP/1.1\r\nHost: localhost:{}\r\n\r\n",
        server.port
    );
    kept.write_all(ask.as_bytes()).unwrap();
    let took = server.end_by("TERM");
    assert!(took < Duration::from_secs(2), "{took:?}");
}

/// Throw-away directories of demos in a directory for temporary files.
fn demos(place: &Path) -> usize {
    let entries = fs::read_dir(place).unwrap().flatten();
    let named = |e: &fs::DirEntry| e.file_name().to_string_lossy().starts_with("galvet-demo-");
    entries.filter(named).count()
}

#[test]
fn a_demo_leaves_nothing_behind_and_sweeps_what_a_killed_one_left() {
    let place = tempfile::tempdir().unwrap();
    let setting = format!("export TMPDIR='{}'", place.path().display());
    let start = || Server::start_after(&setting, &["demo", "--port", "0"]);
    for signal in ["TERM", "HUP", "QUIT", "INT"] {
        let mut demo = start();
        assert_eq!(demos(place.path()), 1);
        demo.end_by(signal);
        assert_eq!(demos(place.path()), 0, "{signal}");
    }
    start().kill();
    assert_eq!(demos(place.path()), 1, "a kill leaves it");
    // Somebody's own, kept under a name like ours, with or without a database.
    let own = place.path().join("galvet-demo-mine");
    let path = own.to_str().unwrap();
    Server::start(&["demo", "--port", "0", "--keep", path]).kill();
    let running = start();
    assert_eq!(demos(place.path()), 2, "the killed one's is gone");
    // One that runs is left alone.
    let second = start();
    assert!(running.get("/").starts_with("HTTP/1.1 200"));
    assert_eq!(demos(place.path()), 3);
    drop(second);
}

#[test]
fn two_servers_never_share_a_directory_whatever_is_taken_away() {
    let directory = tempfile::tempdir().unwrap();
    let server = Server::start(&serve(directory.path()));
    for entry in fs::read_dir(directory.path()).unwrap().flatten() {
        let name = entry.file_name().to_string_lossy().into_owned();
        if !name.starts_with("galvet.db") {
            fs::remove_file(entry.path()).unwrap();
        }
    }
    let (code, said) = galvet(&serve(directory.path()));
    assert_eq!(code, Some(2), "{said}");
    assert!(said.contains("in use by another Galvet"), "{said}");
    assert!(save_question(server.port, "still mine"));
}

#[test]
fn a_full_disk_loses_nothing_acknowledged() {
    let directory = tempfile::tempdir().unwrap();
    drop(Server::start(&serve(directory.path())));
    // As full as can be had without a disk of one's own: no file may grow past
    // this many blocks of 512 bytes. The limit tells the program, not kills it.
    let setting = "trap '' XFSZ; ulimit -f 1000";
    let mut acknowledged = BTreeSet::new();
    let mut refused = 0;
    {
        let server = Server::start_after(setting, &serve(directory.path()));
        for n in 0..2_000 {
            let name = format!("question {n}");
            if save_question(server.port, &name) {
                acknowledged.insert(name);
            } else {
                refused += 1;
            }
            if refused >= 5 {
                break;
            }
        }
        assert!(refused >= 5, "the disk never was full");
        // Reading goes on.
        assert!(server.get("/reckons").starts_with("HTTP/1.1 200"));
    }
    assert!(acknowledged.len() > 10, "{}", acknowledged.len());
    nothing_wrong(directory.path());
    let kept = kept(directory.path());
    assert!(acknowledged.is_subset(&kept));
    // With room again everything goes on.
    let server = Server::start(&serve(directory.path()));
    assert!(save_question(server.port, "room again"));
}

#[test]
fn a_backup_taken_while_writing_is_whole_and_restores_under_a_server() {
    let directory = tempfile::tempdir().unwrap();
    let files = tempfile::tempdir().unwrap();
    let data = directory.path().to_str().unwrap();
    let server = Server::start(&serve(directory.path()));
    let file = |n: usize| files.path().join(format!("{n}.db"));
    let (mut before, done) = (Vec::new(), AtomicBool::new(false));
    let written: BTreeSet<String> = thread::scope(|scope| {
        let writer = scope.spawn(|| {
            let names = (0..).map(|n| format!("question {n}"));
            names
                .take_while(|_| !done.load(Ordering::Relaxed))
                .filter(|name| save_question(server.port, name))
                .collect()
        });
        for n in 0..4 {
            let early = format!("before backup {n}");
            assert!(save_question(server.port, &early));
            before.push(early);
            let (code, said) = galvet(&["backup", "--data", data, file(n).to_str().unwrap()]);
            assert_eq!(code, Some(0), "{said}");
        }
        done.store(true, Ordering::Relaxed);
        writer.join().unwrap()
    });
    assert!(written.len() > 3, "nobody wrote meanwhile");
    // Each holds what was acknowledged before it was begun, and only whole records.
    for n in 0..4 {
        let place = tempfile::tempdir().unwrap();
        let path = place.path().to_str().unwrap();
        let (code, said) = galvet(&["restore", "--data", path, file(n).to_str().unwrap()]);
        assert_eq!(code, Some(0), "{said}");
        nothing_wrong(place.path());
        let kept = kept(place.path());
        assert!(before[..=n].iter().all(|name| kept.contains(name)));
        assert!(n == 3 || !kept.contains(&before[n + 1]));
    }
    // Restored under the running server, which goes on with it.
    let (code, said) = galvet(&["restore", "--data", data, file(0).to_str().unwrap()]);
    assert_eq!(code, Some(0), "{said}");
    assert!(said.contains("galvet.before-restore-1.db"), "{said}");
    assert!(save_question(server.port, "after the restore"));
    drop(server);
    nothing_wrong(directory.path());
    let now = kept(directory.path());
    assert!(now.contains("before backup 0") && now.contains("after the restore"));
    assert!(!now.contains("before backup 1"));
    // And what was there before comes back as it was.
    let copy = directory.path().join("galvet.before-restore-1.db");
    let (code, said) = galvet(&["restore", "--data", data, copy.to_str().unwrap()]);
    assert_eq!(code, Some(0), "{said}");
    let back = kept(directory.path());
    assert!(
        before
            .iter()
            .chain(&written)
            .all(|name| back.contains(name))
    );
    // What is no backup changes nothing; one that is there is not overwritten.
    let nonsense = files.path().join("nonsense.db");
    fs::write(
        &nonsense,
        "not a database at all, but long enough to look at",
    )
    .unwrap();
    let (code, said) = galvet(&["restore", "--data", data, nonsense.to_str().unwrap()]);
    assert_eq!(code, Some(2), "{said}");
    assert!(said.contains("nonsense.db"), "{said}");
    let (code, said) = galvet(&["backup", "--data", data, file(0).to_str().unwrap()]);
    assert_eq!(code, Some(2), "{said}");
    assert_eq!(kept(directory.path()), back);
}

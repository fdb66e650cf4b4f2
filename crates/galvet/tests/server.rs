//! The real server: what it answers, what it refuses, how it fails to start.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "tests")]

mod common;

use common::{Server, run};

fn status(answer: &str) -> &str {
    answer.split(' ').nth(1).unwrap_or("none")
}

#[test]
fn it_answers_at_once_with_its_headers() {
    let server = Server::start(&["demo", "--port", "0"]);
    let page = server.get("/");
    assert_eq!(status(&page), "200");
    assert!(page.contains("Reed-edge day"));
    let head = page.split("\r\n\r\n").next().unwrap().to_lowercase();
    for header in [
        "content-security-policy: default-src 'none'; script-src 'self'",
        "x-content-type-options: nosniff",
        "x-frame-options: deny",
        "referrer-policy: same-origin",
        "cross-origin-opener-policy: same-origin",
    ] {
        assert!(head.contains(header), "{header} in {head}");
    }
    assert!(!head.contains("\r\nserver:"), "{head}");
    assert!(
        !page.contains("<script>") && !page.contains(" style="),
        "nothing inline"
    );
}

#[test]
fn other_names_and_other_sites_are_refused() {
    let server = Server::start(&["demo", "--port", "0"]);
    let ask = |method: &str, path: &str, headers: &str, body: &str| {
        let answer = server.raw(&format!(
            "{method} {path} HTTP/1.1\r\n{headers}Content-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{body}",
            body.len()
        ));
        (status(&answer).to_owned(), answer)
    };
    let host = format!("Host: localhost:{}\r\n", server.port);
    let form = "units=imperial&back=/";
    for bad in [
        "Host: evil.example\r\n",
        "Host: localhost.evil.example\r\n",
        "",
    ] {
        let (code, answer) = ask("GET", "/", bad, "");
        assert!(code == "421" || code == "400", "{bad:?}: {answer}");
    }
    let post = |headers: &str| ask("POST", "/settings/units", &format!("{host}{headers}"), form);
    assert_eq!(post("").0, "403", "nobody says who asks");
    assert_eq!(post("Origin: http://evil.example\r\n").0, "403");
    assert_eq!(post("Origin: null\r\n").0, "403");
    assert_eq!(post("Sec-Fetch-Site: cross-site\r\n").0, "403");
    assert_eq!(post("Sec-Fetch-Site: same-site\r\n").0, "403");
    let (code, answer) = post("Sec-Fetch-Site: same-origin\r\n");
    assert_eq!(code, "303", "{answer}");
    assert!(answer.contains("galvet-units=imperial"));
    let own = format!("Origin: http://localhost:{}\r\n", server.port);
    assert_eq!(post(&own).0, "303");
}

#[test]
fn errors_are_pages_without_the_inside() {
    let server = Server::start(&["demo", "--port", "0"]);
    for (path, code) in [
        ("/nowhere", "404"),
        ("/hulls/no-such-hull", "404"),
        ("/hulls/..%2f..%2fetc%2fpasswd", "404"),
        ("/assets/x/../../Cargo.toml", "404"),
        ("/assets/x/%2e%2e/%2e%2e/Cargo.toml", "404"),
        ("/?mass=plenty", "422"),
        ("/?mass=-1", "422"),
        ("/?water=%3Cscript%3E", "422"),
        ("/?weight=NaN", "422"),
        ("/hulls/tindrel-vaskar?stature=9", "422"),
    ] {
        let page = server.get(path);
        assert_eq!(status(&page), code, "{path}: {page}");
        assert!(page.contains("</html>"), "{path} is a page");
        for inside in ["<script>", "panicked", "src/", "rocket", "Rocket"] {
            assert!(!page.contains(inside), "{path} shows {inside}");
        }
    }
    let large = "x".repeat(200_000);
    let answer = server.raw(&format!(
        "POST /settings/units HTTP/1.1\r\nHost: localhost\r\nSec-Fetch-Site: same-origin\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\nunits={large}",
        large.len() + 6
    ));
    assert!(["413", "422"].contains(&status(&answer)), "{answer}");
}

#[test]
fn a_broken_record_is_set_aside_and_trouble_is_a_page_that_tells_nothing() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().to_str().unwrap();
    drop(Server::start(&["demo", "--port", "0", "--keep", path]));
    let database = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(database.to_str().unwrap()).unwrap();
    other
        .batch_execute(
            "UPDATE readings SET value = 1e300 WHERE measure = 'length' AND hull_id = \
             (SELECT id FROM hulls WHERE slug = 'tindrel-vaskar')",
        )
        .unwrap();
    let server = Server::start(&["demo", "--port", "0", "--keep", path]);
    assert_eq!(status(&server.get("/")), "200");
    assert_eq!(status(&server.get("/hulls/tindrel-vaskar")), "404");
    assert_eq!(status(&server.get("/hulls/hobrin-cassel")), "200");
    // It is listed with what is wrong, and can be put back.
    assert!(server.get("/").contains("1 record is set aside"));
    let listed = server.get("/set-aside");
    assert!(listed.contains("tindrel-vaskar") && listed.contains("length must lie between"));
    let id = listed.split("name=\"id\" value=\"").nth(1).unwrap();
    let form = format!("kind=hull&id={}", id.split('"').next().unwrap());
    let post = |body: &str| {
        server.raw(&format!(
            "POST /set-aside HTTP/1.1\r\nHost: localhost\r\nSec-Fetch-Site: same-origin\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{body}",
            body.len()
        ))
    };
    assert_eq!(status(&post("kind=hull&id=99999")), "404");
    assert_eq!(status(&post(&form)), "303");
    assert_eq!(status(&server.get("/hulls/tindrel-vaskar")), "200");
    assert!(
        server
            .get("/set-aside")
            .contains("Every record can be used")
    );
    // The table gone from under a running server: its own trouble, as a page.
    let slug = "other-question";
    other
        .batch_execute("PRAGMA foreign_keys = OFF; ALTER TABLE briefs RENAME TO gone")
        .unwrap();
    let body = format!("name={slug}");
    let page = server.raw(&format!(
        "POST /questions HTTP/1.1\r\nHost: localhost\r\nSec-Fetch-Site: same-origin\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{body}",
        body.len()
    ));
    assert_eq!(status(&page), "500", "{page}");
    assert!(page.contains("Galvet could not do that"), "{page}");
    for inside in ["briefs", "gone", "galvet.db", "panicked"] {
        assert!(!page.contains(inside), "{inside}");
    }
}

#[test]
fn a_redirect_after_the_units_stays_here() {
    let server = Server::start(&["demo", "--port", "0"]);
    for back in [
        "//evil.example/",
        "http://evil.example/",
        "/%0d%0aSet-Cookie:x=1",
        "\\\\evil",
    ] {
        let body = format!("units=metric&back={back}");
        let answer = server.raw(&format!(
            "POST /settings/units HTTP/1.1\r\nHost: localhost\r\nSec-Fetch-Site: same-origin\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{body}",
            body.len()
        ));
        let lower = answer.to_lowercase();
        let location = lower
            .lines()
            .find(|l| l.starts_with("location:"))
            .unwrap_or("");
        assert!(!location.contains("evil"), "{back}: {location}");
        assert!(!lower.contains("set-cookie: x=1"), "{back}");
    }
}

#[test]
fn assets_are_kept_under_names_that_change_with_their_content() {
    let server = Server::start(&["demo", "--port", "0"]);
    let page = server.get("/");
    let style = page
        .split('"')
        .find(|s| s.ends_with("/app.css"))
        .expect("a stylesheet");
    let sheet = server.get(style);
    assert_eq!(status(&sheet), "200");
    assert!(sheet.contains("max-age=31536000, immutable"));
    // A page from before an update still gets a file, but does not keep it.
    let stale = server.get("/assets/0000000000/app.css");
    assert!(stale.contains("no-store"), "{}", &stale[..300]);
}

#[test]
fn data_directories_with_odd_names_work_and_are_held_by_one() {
    let parent = tempfile::tempdir().unwrap();
    for name in [
        "plain",
        "two words",
        "file:x?mode=memory#y",
        "100% ümlaut 'quoted'",
    ] {
        let directory = parent.path().join(name);
        let path = directory.to_str().unwrap();
        let server = Server::start(&["demo", "--port", "0", "--keep", path]);
        assert_eq!(status(&server.get("/")), "200", "{name}");
        assert!(directory.join("galvet.db").is_file(), "{name}");
        let second = run(&["demo", "--port", "0", "--keep", path]);
        let said = String::from_utf8_lossy(&second.stderr).into_owned();
        assert_eq!(second.status.code(), Some(2), "{said}");
        assert_eq!(said.lines().count(), 1, "{said}");
        assert!(said.contains("in use by another Galvet"), "{said}");
    }
}

#[test]
fn a_directory_that_cannot_be_written_is_one_clear_line() {
    let directory = tempfile::tempdir().unwrap();
    let file = directory.path().join("a file");
    std::fs::write(&file, "in the way").unwrap();
    let inside = file.join("data");
    let output = run(&[
        "serve",
        "--data",
        inside.to_str().unwrap(),
        "--listen",
        "127.0.0.1:0",
    ]);
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert_eq!(output.status.code(), Some(2), "{said}");
    assert_eq!(said.lines().count(), 1, "{said}");
    assert!(said.contains("cannot be written"), "{said}");
}

#[test]
fn a_taken_port_is_one_clear_line() {
    let taken = std::net::TcpListener::bind("127.0.0.1:0").unwrap();
    let port = taken.local_addr().unwrap().port().to_string();
    let output = run(&["demo", "--port", &port]);
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert_eq!(output.status.code(), Some(2), "{said}");
    assert_eq!(said.lines().count(), 1, "{said}");
    assert!(said.contains("cannot listen on 127.0.0.1"), "{said}");
}

#[test]
fn an_empty_installation_says_what_to_do() {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("data");
    let server = Server::start(&[
        "serve",
        "--listen",
        "127.0.0.1:0",
        "--data",
        path.to_str().unwrap(),
    ]);
    let page = server.get("/");
    assert_eq!(status(&page), "200");
    assert!(page.contains("Nothing to rank yet"), "{page}");
}

#[test]
fn nobody_is_let_in_from_elsewhere_by_accident() {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("data");
    let data = path.to_str().unwrap();
    let wide = ["serve", "--data", data, "--listen", "0.0.0.0:0"];
    let output = run(&wide);
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert_eq!(output.status.code(), Some(2), "{said}");
    assert!(
        said.contains("no accounts") && said.contains("--open"),
        "{said}"
    );
    // Nothing was begun.
    assert!(!path.exists());
    let server = Server::start(&[&wide[..], &["--open"]].concat());
    for page in ["/", "/hulls", "/kit", "/no-such-page"] {
        let page = server.get(page);
        assert!(page.contains("may change and delete everything"), "{page}");
    }
    drop(server);
    let here = Server::start(&["serve", "--data", data, "--listen", "127.0.0.1:0"]);
    assert!(!here.get("/").contains("may change and delete everything"));
}

/// Runs a command with what is typed into it.
fn typed(args: &[&str], line: &str) -> (Option<i32>, String) {
    use std::io::Write;
    use std::process::Stdio;
    let mut child = common::galvet()
        .args(args)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let mut stdin = child.stdin.take().unwrap();
    // Who refuses early does not read.
    let _ = stdin.write_all(line.as_bytes());
    drop(stdin);
    let output = child.wait_with_output().unwrap();
    let said = [output.stdout, output.stderr].concat();
    (output.status.code(), String::from_utf8(said).unwrap())
}

#[test]
fn an_owner_made_on_the_command_line_opens_the_shop_to_who_signs_in() {
    let directory = tempfile::tempdir().unwrap();
    let data = directory.path().join("data");
    let data = data.to_str().unwrap();
    let user =
        |args: &[&str], line: &str| typed(&[&["user"], args, &["--data", data]].concat(), line);
    let (code, said) = user(
        &["add", "Runa", "--role", "staff"],
        "seventeen wet herons\n",
    );
    assert!(code == Some(2) && said.contains("an owner's"), "{said}");
    let (code, said) = user(&["add", "Runa"], "short\n");
    assert!(code == Some(2) && said.contains("at least 12"), "{said}");
    let (code, said) = user(&["add", "Runa"], "seventeen wet herons\n");
    assert!(code == Some(0) && said.contains("owner"), "{said}");
    // With an account nobody is let past it.
    let wide = ["serve", "--data", data, "--listen", "0.0.0.0:0"];
    let (code, said) = typed(&[&wide[..], &["--open"]].concat(), "");
    assert!(
        code == Some(2) && said.contains("let everybody past"),
        "{said}"
    );
    let server = Server::start(&wide);
    let page = server.get("/hulls");
    assert_eq!(status(&page), "303");
    assert!(page.contains("/sign-in?back=%2Fhulls"), "{page}");
    // While it is served: others come and go.
    let (code, said) = user(&["add", "Mads"], "eleven dry cormorants\n");
    assert!(code == Some(0) && said.contains("staff"), "{said}");
    let sign_in = |body: &str| {
        server.raw(&format!(
            "POST /sign-in HTTP/1.1\r\nHost: localhost:{}\r\nSec-Fetch-Site: same-origin\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{body}",
            server.port,
            body.len()
        ))
    };
    let body = "name=mads&password=eleven+dry+cormorants";
    assert_eq!(status(&sign_in(body)), "303");
    assert_eq!(user(&["out", "Mads"], "").0, Some(0));
    assert_eq!(status(&sign_in(body)), "422");
    assert_eq!(user(&["out", "Runa"], "").0, Some(2), "the only owner");
    assert_eq!(user(&["back", "Mads"], "").0, Some(0));
    assert_eq!(user(&["role", "Mads", "looker"], "").0, Some(0));
    let (_, said) = user(&["list"], "");
    assert!(
        said.contains("Mads: looker") && said.contains("Runa: owner"),
        "{said}"
    );
    assert!(!said.contains("argon2"));
    let (code, said) = user(&["password", "Nobody"], "eleven dry cormorants\n");
    assert!(code == Some(2) && said.contains("nobody called"), "{said}");
}

#[test]
fn a_name_or_a_proxy_before_this_machine_asks_for_accounts_too() {
    let directory = tempfile::tempdir().unwrap();
    let data = directory.path().join("data");
    let data = data.to_str().unwrap();
    let here = ["serve", "--data", data, "--listen", "127.0.0.1:0"];
    for more in [&["--host", "kayaks.example"][..], &["--https"]] {
        let output = run(&[&here[..], more].concat());
        let said = String::from_utf8_lossy(&output.stderr).into_owned();
        assert_eq!(output.status.code(), Some(2), "{said}");
        assert!(said.contains("galvet user add"), "{said}");
    }
    let output = run(&[&here[..], &["--https", "--open"]].concat());
    assert_eq!(output.status.code(), Some(2));
}

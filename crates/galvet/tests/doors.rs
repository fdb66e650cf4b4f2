//! Who comes to which page: every route, as nobody, looker, staff and owner.

use crate::counter::{PASSWORD, PEOPLE, SAME, Shop, session};
use crate::desk::text_of;
use galvet::account::let_in;
use galvet::demo_data;
use galvet::web::{Access, RULES, Rule, Settings, build, rule_at};
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{Kind, Role, SETTING_UP, Store};
use rocket::http::{ContentType, Header, Method, Status};
use rocket::local::blocking::Client;
use scraper::{Html, Selector};
use std::sync::Arc;

/// A path of a route: what stands in brackets is something that is there, or nearly.
fn path_of(route: &str) -> String {
    let parts = route.split('/').map(|part| match part {
        "<slug>" if route.starts_with("/rigs") => "reed-edge-day",
        "<slug>" if route.starts_with("/kit/") => "paddle",
        "<slug>" if route.starts_with("/questions/") => "none-such",
        "<slug>" => "quarnel-pipkin",
        "<kind>" => "launch",
        "<figure>" => "gm",
        "<file>" => "profile.svg",
        "<id>" | "<session>" => "999999",
        part if part.starts_with('<') => "x",
        part => part,
    });
    parts.collect::<Vec<_>>().join("/")
}

#[test]
fn every_route_has_a_rule_and_every_rule_a_route() {
    let shop = Shop::with_accounts();
    let (mut seen, mut missing) = (Vec::new(), Vec::new());
    for route in shop.client.rocket().routes() {
        let path = route.uri.path();
        // What is handed out is put in the place of the page it stands for.
        let ruled = RULES
            .iter()
            .any(|(_, method, routes)| *method == route.method && routes.contains(&path));
        if !ruled {
            missing.push(format!("{} {path}", route.method));
        }
        seen.push((route.method, path.to_owned()));
    }
    assert_eq!(missing, Vec::<String>::new(), "routes without a rule");
    assert!(seen.len() > 130, "{}", seen.len());
    for (_, method, routes) in RULES {
        for route in *routes {
            let there = seen.iter().any(|(m, path)| m == method && path == route);
            assert!(there, "a rule for nothing: {method} {route}");
        }
    }
}

#[test]
fn every_route_is_walked_as_nobody_looker_staff_and_owner() {
    let shop = Shop::with_accounts();
    let kept = PEOPLE.map(|(name, role)| (Some(role), shop.sign_in(name)));
    let all = [(None, String::new())].into_iter().chain(kept.clone());
    let before = shop.store.state().unwrap();
    let mut walked = 0;
    for (role, cookie) in all {
        for (rule, method, routes) in RULES {
            for route in *routes {
                // What ends sessions, changes people or takes long is tried by itself.
                let own = matches!(*rule, Rule::Self_ | Rule::Anyone) && *method == Method::Post;
                if own || *route == "/flip" || route.starts_with("/refused/") {
                    continue;
                }
                let path = path_of(route);
                let may = rule.least().is_none_or(|least| role >= Some(least));
                // Staff's and the owner's changes are let through, to a form that says
                // nothing: that they are not refused is what is asked.
                let answer = shop.ask(*method, &path, &cookie, "");
                let status = answer.status();
                let to_door = answer
                    .headers()
                    .get_one("Location")
                    .is_some_and(|to| to.starts_with("/sign-in"));
                let refused = to_door || matches!(status.code, 401 | 403);
                assert_eq!(!refused, may, "{role:?}: {method} {path}: {status}");
                walked += 1;
            }
        }
        if role < Some(Role::Staff) {
            assert_eq!(
                shop.store.state().unwrap(),
                before,
                "{role:?} changed something"
            );
        }
    }
    assert!(walked > 500, "{walked}");
}

#[test]
fn nobody_is_led_to_the_door_and_back_to_where_they_were_going() {
    let shop = Shop::with_accounts();
    let answer = shop.get("/hulls/quarnel-pipkin?mass=88+kg", "");
    let door = answer.headers().get_one("Location").unwrap().to_owned();
    assert_eq!(
        door,
        "/sign-in?back=%2Fhulls%2Fquarnel-pipkin%3Fmass%3D88%2Bkg"
    );
    let page = shop.get(&door, "").into_string().unwrap();
    assert!(
        page.contains("value=\"/hulls/quarnel-pipkin?mass=88&#43;kg\"")
            || page.contains("mass=88+kg\""),
        "{page}"
    );
    assert!(
        text_of(&page, "nav.places, .units").trim().is_empty() || !page.contains("href=\"/hulls\"")
    );
    let body = format!(
        "name=Runa&password={}&back=%2Fhulls%3Fmass%3D88",
        PASSWORD.replace(' ', "+")
    );
    let answer = shop.post("/sign-in", "", &body);
    assert_eq!(answer.headers().get_one("Location"), Some("/hulls?mass=88"));
    // Nowhere but here.
    for elsewhere in [
        "https://evil.example/",
        "//evil.example",
        "/\\evil.example",
        "javascript:x",
    ] {
        let back: String = form_urlencoded::byte_serialize(elsewhere.as_bytes()).collect();
        let body = format!(
            "name=Runa&password={}&back={back}",
            PASSWORD.replace(' ', "+")
        );
        let answer = shop.post("/sign-in", "", &body);
        let to = answer.headers().get_one("Location").unwrap_or("/");
        assert!(
            to.starts_with('/') && !to.starts_with("//") && !to.starts_with("/\\"),
            "{elsewhere}: {to}"
        );
    }
}

#[test]
fn a_session_is_new_at_every_sign_in_and_ends_at_signing_out() {
    let shop = Shop::with_accounts();
    // A key somebody else put into the browser is not taken over.
    let set = "galvet-session=0123456789abcdef";
    let body = format!("name=Mads&password={}", PASSWORD.replace(' ', "+"));
    let first = session(&shop.post("/sign-in", set, &body)).unwrap();
    assert_ne!(first, set);
    let second = session(&shop.post("/sign-in", &first, &body)).unwrap();
    assert_ne!(first, second);
    assert_eq!(
        shop.get("/hulls", &first).status(),
        Status::SeeOther,
        "ended"
    );
    assert_eq!(shop.get("/hulls", &second).status(), Status::Ok);
    let out = shop.post("/sign-out", &second, "");
    assert_eq!(out.headers().get_one("Location"), Some("/sign-in"));
    assert_eq!(out.headers().get_one("Clear-Site-Data"), Some("\"cache\""));
    assert_eq!(shop.get("/hulls", &second).status(), Status::SeeOther);
    // Not to be read by a script, not sent along by other sites.
    let answer = shop.post("/sign-in", "", &body);
    let cookie = answer
        .headers()
        .get("Set-Cookie")
        .find(|c| c.contains("session="))
        .unwrap()
        .to_owned();
    for said in ["HttpOnly", "SameSite=Lax", "Path=/"] {
        assert!(cookie.contains(said), "{cookie}");
    }
    assert!(!cookie.contains("Secure"));
}

#[test]
fn behind_tls_every_cookie_goes_that_way_only() {
    let shop = Shop::open(Access::Accounts { tls: true });
    let body = format!("name=Mads&password={}", PASSWORD.replace(' ', "+"));
    let answer = shop.post("/sign-in", "", &body);
    let kept = session(&answer).unwrap();
    assert!(kept.starts_with("__Host-galvet-session="), "{kept}");
    let mut cookies: Vec<String> = answer
        .headers()
        .get("Set-Cookie")
        .map(str::to_owned)
        .collect();
    let units = shop.post("/settings/units", &kept, "units=imperial&back=/");
    assert_eq!(units.status(), Status::SeeOther);
    cookies.extend(units.headers().get("Set-Cookie").map(str::to_owned));
    assert!(cookies.len() >= 2, "{cookies:?}");
    for cookie in cookies {
        assert_eq!(cookie.matches("Secure").count(), 1, "{cookie}");
    }
    // Who sends is what the proxy says last, whatever the sender says before it.
    let tries = |last: u8| {
        let said = format!("10.0.0.{last}, 192.0.2.7");
        let answer = shop
            .client
            .post("/sign-in")
            .header(Header::new("Host", "kayaks.example"))
            .header(Header::new("Sec-Fetch-Site", SAME))
            .header(Header::new("X-Forwarded-For", said))
            .header(ContentType::Form)
            .body("name=Mads&password=x")
            .dispatch();
        answer.status().code
    };
    let codes: Vec<u16> = (0..7).map(tries).collect();
    assert_eq!(codes, [422, 422, 422, 422, 422, 429, 429]);
}

#[test]
fn wrong_is_told_alike_and_too_often_has_to_wait() {
    let shop = Shop::with_accounts();
    let told = |name: &str| {
        let answer = shop.post(
            "/sign-in",
            "",
            &format!("name={name}&password=none+of+these"),
        );
        assert!(session(&answer).is_none());
        let (status, wait) = (
            answer.status(),
            answer.headers().get_one("Retry-After").is_some(),
        );
        (
            status.code,
            wait,
            text_of(&answer.into_string().unwrap(), "[role=alert]"),
        )
    };
    let (mads, nobody) = (told("Mads"), told("Nobody"));
    assert_eq!(mads, nobody);
    assert_eq!((mads.0, mads.1), (422, false));
    assert!(mads.2.contains("do not go together"), "{}", mads.2);
    let codes: Vec<u16> = (0..8).map(|_| told("Mads").0).collect();
    assert_eq!(codes, [422, 422, 422, 422, 429, 429, 429, 429]);
    let (code, wait, said) = told("Mads");
    assert!(code == 429 && wait && said.contains("wait"), "{said}");
    // Somebody else at the same address still comes in.
    shop.sign_in("Runa");
}

#[test]
fn a_looker_sees_nothing_that_would_be_refused() {
    let shop = Shop::with_accounts();
    let cookie = shop.sign_in("Lill");
    let (forms, links) = (
        Selector::parse("form").unwrap(),
        Selector::parse("a[href]").unwrap(),
    );
    let mut seen = 0;
    for (rule, method, routes) in RULES {
        for route in *routes {
            if *method != Method::Get
                || rule.least() != Some(Role::Looker)
                || route.contains("<file>")
                || *route == "/flip"
            {
                continue;
            }
            let path = path_of(route);
            let answer = shop.get(&path, &cookie);
            if answer.content_type() != Some(ContentType::HTML) || answer.status() != Status::Ok {
                continue;
            }
            let page = Html::parse_document(&answer.into_string().unwrap());
            let may = |method, address: &str| {
                let rule = rule_at(method, address);
                rule.is_none_or(|rule| rule.least() <= Some(Role::Looker))
            };
            for form in page.select(&forms) {
                let posts = form.value().attr("method") == Some("post");
                let action = form
                    .value()
                    .attr("action")
                    .filter(|a| !a.is_empty())
                    .unwrap_or(&path);
                let method = if posts { Method::Post } else { Method::Get };
                assert!(may(method, action), "{path}: form to {action}");
                seen += 1;
            }
            for link in page.select(&links) {
                let href = link.value().attr("href").unwrap();
                assert!(
                    !href.starts_with('/') || may(Method::Get, href),
                    "{path}: {href}"
                );
                seen += 1;
            }
        }
    }
    assert!(seen > 300, "{seen}");
}

#[test]
fn the_journal_names_who_and_undo_is_ones_own() {
    let shop = Shop::with_accounts();
    let (mads, runa) = (shop.sign_in("Mads"), shop.sign_in("Runa"));
    let path = "/hulls/quarnel-pipkin/readings";
    let done = shop.post(path, &mads, "measure=length&value=3.76+m");
    assert_eq!(done.status(), Status::SeeOther, "{:?}", done.into_string());
    let (known, _) = shop
        .store
        .record(Kind::Hull, "quarnel-pipkin")
        .unwrap()
        .unwrap();
    let change = &shop.store.history(Kind::Hull, known.id, (1, None)).unwrap()[0];
    assert!(change.who.starts_with("person "), "{}", change.who);
    let lately = |cookie: &str| {
        text_of(
            &shop.get("/lately", cookie).into_string().unwrap(),
            ".lately li",
        )
    };
    assert!(lately(&mads).contains("you"), "{}", lately(&mads));
    assert!(lately(&runa).contains("Mads"), "{}", lately(&runa));
    let record = shop
        .get("/hulls/quarnel-pipkin/record", &runa)
        .into_string()
        .unwrap();
    assert!(text_of(&record, ".history").contains("Mads"));
    // The owner may do everything but take back what is somebody else's.
    let form = format!("act={}&back=/", change.group);
    assert_eq!(shop.post("/undo", &runa, &form).status(), Status::Conflict);
    assert_eq!(shop.post("/undo", &mads, &form).status(), Status::SeeOther);
    // Somebody who looks on is not told who changed what.
    let lill = shop.sign_in("Lill");
    let record = shop
        .get("/hulls/quarnel-pipkin/record", &lill)
        .into_string()
        .unwrap();
    assert!(!record.contains("Mads") && text_of(&record, ".history").is_empty());
}

#[test]
fn a_backup_goes_out_and_comes_back_by_the_owner() {
    let shop = Shop::with_accounts();
    let runa = shop.sign_in("Runa");
    let file = shop.get("/backups/galvet.db", &runa).into_bytes().unwrap();
    assert!(file.starts_with(b"SQLite format 3\0"));
    let (known, _) = shop
        .store
        .record(Kind::Hull, "quarnel-pipkin")
        .unwrap()
        .unwrap();
    shop.store
        .throw_away("test", (Kind::Hull, "quarnel-pipkin"), None)
        .unwrap();
    let send = |bytes: &[u8]| {
        const MARK: &str = "gunwale";
        let mut body = format!("--{MARK}\r\nContent-Disposition: form-data; name=\"file\"; filename=\"b.db\"\r\nContent-Type: application/octet-stream\r\n\r\n").into_bytes();
        body.extend(bytes);
        body.extend(format!("\r\n--{MARK}--\r\n").bytes());
        let answer = shop
            .client
            .post("/backups/restore")
            .header(Header::new("Host", "localhost"))
            .header(Header::new("Sec-Fetch-Site", SAME))
            .cookie(
                runa.split_once('=')
                    .map(|(n, v)| (n.to_owned(), v.to_owned()))
                    .unwrap(),
            )
            .header(ContentType::new("multipart", "form-data").with_params(("boundary", MARK)))
            .body(body)
            .dispatch();
        (answer.status(), answer.into_string().unwrap())
    };
    let (status, page) = send(b"no backup at all");
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("nothing was changed"));
    assert!(
        shop.store
            .record(Kind::Hull, "quarnel-pipkin")
            .unwrap()
            .is_none()
    );
    let (status, page) = send(&file);
    assert_eq!(status, Status::Ok, "{page}");
    assert!(page.contains("Accounts stayed"), "{page}");
    let (back, _) = shop
        .store
        .record(Kind::Hull, "quarnel-pipkin")
        .unwrap()
        .unwrap();
    assert_eq!(back, known);
    assert_eq!(shop.get("/people", &runa).status(), Status::Ok, "still in");
    // What was handed out or sent in leaves nothing lying.
    let left: Vec<String> = std::fs::read_dir(shop.store.directory())
        .unwrap()
        .map(|entry| entry.unwrap().file_name().to_string_lossy().into_owned())
        .filter(|name| {
            name.starts_with("handed-") || name.starts_with("sent-") || name.starts_with("restore-")
        })
        .collect();
    assert_eq!(left, Vec::<String>::new());
}

#[test]
fn on_this_machine_nobody_signs_in_until_somebody_has_an_account() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store
        .fill(SETTING_UP, &demo_data::catalogue().unwrap())
        .unwrap();
    let rocket = build(Settings {
        listen: ([127, 0, 0, 1], 0).into(),
        hosts: Vec::new(),
        units: System::Metric,
        memory: galvet::answer::BUDGET,
        guides: Arc::new(Guides::default()),
        access: Access::Here,
        store: store.clone(),
        throw_away: false,
    });
    let client = Client::untracked(rocket.unwrap()).unwrap();
    let ask = |path: &str, more: Option<(&'static str, &'static str)>| {
        let mut asked = client
            .get(path.to_owned())
            .header(Header::new("Host", "localhost"));
        if let Some((name, value)) = more {
            asked.add_header(Header::new(name, value));
        }
        asked.dispatch().status()
    };
    assert_eq!(ask("/hulls", None), Status::Ok);
    assert_eq!(ask("/people", None), Status::Ok);
    // What a proxy passes on comes from elsewhere.
    for said in [
        ("X-Forwarded-For", "192.0.2.7"),
        ("Forwarded", "for=192.0.2.7"),
        ("X-Real-IP", "192.0.2.7"),
    ] {
        assert_eq!(
            ask("/hulls", Some(said)),
            Status::MisdirectedRequest,
            "{said:?}"
        );
    }
    let_in(&store, "test", ("Runa", Role::Owner), (PASSWORD, false)).unwrap();
    assert_eq!(ask("/hulls", None), Status::SeeOther);
}

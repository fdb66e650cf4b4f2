//! Pages asked in process, without a socket; and one answer in its three
//! presentations.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet::{demo_data, question};
use galvet_core::base::System;
use galvet_core::figures::{Group, Quantity};
use galvet_store::Catalogue;
use rocket::http::{Header, Status};
use rocket::local::blocking::LocalResponse;
use serde_json::Value;
use std::collections::BTreeMap;

/// Text of the element that begins at `from`, without tags and with the
/// characters that HTML spells out.
fn text_at(page: &str, from: usize) -> String {
    let open = from + page[from..].find('>').unwrap() + 1;
    let close = open + page[open..].find('<').unwrap();
    page[open..close]
        .replace("&#38;", "&")
        .replace("&#60;", "<")
        .replace("&#62;", ">")
        .replace("&#39;", "'")
        .trim()
        .to_owned()
}

/// What a hull's page says of each figure.
fn figures_on(page: &str) -> BTreeMap<String, String> {
    let mut out = BTreeMap::new();
    for part in page.split("<tr data-figure=\"").skip(1) {
        let (key, row) = part.split_once('"').unwrap();
        let value = row
            .find("class=\"figure-value\"")
            .or_else(|| row.find("class=\"absent\""))
            .unwrap();
        out.insert(key.to_owned(), text_at(row, value));
    }
    out
}

/// A hull's figures of one line of the CSV, by key.
fn csv_lines(text: &str) -> BTreeMap<String, BTreeMap<String, String>> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let head = reader.headers().unwrap().clone();
    reader
        .records()
        .map(|record| {
            let record = record.unwrap();
            let cells = head.iter().zip(record.iter());
            let line: BTreeMap<String, String> =
                cells.map(|(k, v)| (k.to_owned(), v.to_owned())).collect();
            (line["hull"].clone(), line)
        })
        .collect()
}

const fn group(quantity: Quantity) -> &'static str {
    match quantity.row().group {
        Group::Capacity => "capacity",
        Group::Stability => "stability",
        Group::Floating => "float",
    }
}

#[test]
fn page_json_and_csv_give_the_same_figure_for_every_hull_of_the_demo() {
    let desk = Desk::demo();
    let hulls = demo_data::catalogue().unwrap().hulls.len();
    for question in [
        "",
        "?brief=outer-sound",
        "?brief=heavy-stander",
        "?mass=68&posture=sits&water=pond&scuppers=plugged",
    ] {
        let json: Value =
            serde_json::from_str(&desk.page(&format!("/ranking.json{question}"))).unwrap();
        let csv = csv_lines(&desk.page(&format!("/ranking.csv{question}")));
        let list = |name: &str| json[name].as_array().unwrap().clone();
        let all = [list("ranked"), list("ruled_out")].concat();
        assert_eq!((all.len(), csv.len()), (hulls, hulls), "{question}");
        let mut compared = 0;
        for hull in all {
            let key = hull["hull"].as_str().unwrap();
            let page = figures_on(&desk.page(&format!("/hulls/{key}{question}")));
            for &quantity in Quantity::ALL {
                let row = quantity.row();
                let value = &hull[group(quantity)][row.key];
                let at = format!("{key}{question}, {}", row.key);
                let (cell, said) = (&csv[key][row.key], page.get(row.key));
                match value.as_f64() {
                    Some(number) => {
                        assert_eq!(cell.parse::<f64>().unwrap(), number, "{at}");
                        let text = row.text(System::Metric, number / row.json_scale);
                        assert_eq!(said, Some(&text), "{at}");
                        compared += 1;
                    }
                    None => {
                        assert!(cell.is_empty(), "{at}: {cell}");
                        assert!(
                            said.is_none_or(|s| s == quantity.absent()),
                            "{at}: {said:?}"
                        );
                    }
                }
            }
        }
        assert!(compared > 15 * hulls, "{compared} figures compared");
    }
}

#[test]
fn the_ranking_page_shows_the_order_and_figures_of_its_json() {
    let desk = Desk::demo();
    let page = desk.page("/");
    let json: Value = serde_json::from_str(&desk.page("/ranking.json")).unwrap();
    let rows: Vec<&str> = page
        .split("<li class=\"row\" data-hull=\"")
        .skip(1)
        .collect();
    let ranked = json["ranked"].as_array().unwrap();
    assert_eq!(rows.len(), ranked.len());
    for (row, hull) in rows.iter().zip(ranked) {
        let key = hull["hull"].as_str().unwrap();
        assert!(row.starts_with(key), "{key} at its place");
        for part in row.split("class=\"figure\" data-figure=\"").skip(1) {
            let (figure, rest) = part.split_once('"').unwrap();
            let quantity = Quantity::ALL
                .iter()
                .find(|q| q.row().key == figure)
                .unwrap();
            let number = hull[group(*quantity)][figure].as_f64().unwrap();
            let text = quantity
                .row()
                .text(System::Metric, number / quantity.row().json_scale);
            assert_eq!(text_at(rest, 0), text, "{key}, {figure}");
        }
    }
}

#[test]
fn a_question_is_saved_taken_up_again_and_undone() {
    let desk = Desk::demo();
    let before = desk.store.catalogue().unwrap().briefs.len();
    let saved = desk.post("/questions?mass=101&water=pond", "name=Pond+with+Ana");
    assert_eq!(saved, Status::SeeOther);
    let kept = desk.store.catalogue().unwrap().briefs;
    assert_eq!(kept.len(), before + 1);
    assert_eq!(kept.last().unwrap().question["crew"]["mass_kg"], 101.0);
    let page = desk.page("/?brief=pond-with-ana");
    assert!(page.contains("Pond with Ana"), "among those to start from");
    assert!(page.contains("101"), "the weight it was saved with");
    // The saved question is the same question.
    let answer = |query: &str| -> Value {
        let mut json: Value =
            serde_json::from_str(&desk.page(&format!("/ranking.json?{query}"))).unwrap();
        json["brief"] = Value::Null;
        json
    };
    assert_eq!(answer("brief=pond-with-ana"), answer("mass=101&water=pond"));
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(desk.store.catalogue().unwrap().briefs.len(), before);
    // A name of nothing, a question that is none, a page elsewhere.
    assert_eq!(
        desk.post("/questions", "name=+"),
        Status::UnprocessableEntity
    );
    assert_eq!(
        desk.post("/questions?mass=9999", "name=x"),
        Status::UnprocessableEntity
    );
    assert_eq!(desk.store.catalogue().unwrap().briefs.len(), before);
}

#[test]
fn what_cannot_be_asked_is_answered_at_the_part_with_what_can() {
    let desk = Desk::demo();
    for (query, says) in [
        ("?mass=9999", "weight must lie between"),
        ("?mass=heavy", "heavy"),
        ("?water=styx", "styx"),
        ("?weight=200", "200"),
    ] {
        let answer = desk.ask(&format!("/{query}"));
        assert_eq!(answer.status(), Status::UnprocessableEntity, "{query}");
        let page = answer.into_string().unwrap();
        assert!(page.contains(says), "{query}: no “{says}” on the page");
        assert!(
            page.contains("data-hull="),
            "{query}: the last ranking stays"
        );
        let json = desk.ask(&format!("/ranking.json{query}"));
        assert_eq!(json.status(), Status::UnprocessableEntity, "{query}");
    }
    for path in [
        "/hulls/no-such-hull",
        "/hulls/no-such-hull/offsets.csv",
        "/nowhere",
    ] {
        assert_eq!(desk.ask(path).status(), Status::NotFound, "{path}");
    }
    // What a person typed comes back escaped.
    let page = desk
        .ask("/?mass=%3Cscript%3Ealert(1)%3C/script%3E")
        .into_string()
        .unwrap();
    assert!(!page.contains("<script>alert"), "typed text is not markup");
}

#[test]
fn a_part_is_the_inside_of_its_page() {
    let desk = Desk::demo();
    for (page, part) in [
        ("/", "/part/ranking"),
        ("/hulls/hobrin-cassel", "/part/hulls/hobrin-cassel"),
    ] {
        let (page, part) = (desk.page(page), desk.page(part));
        assert!(!part.contains("<html"), "only the answer");
        assert!(page.contains(part.trim()), "the same answer, word for word");
    }
}

#[test]
fn an_empty_shelf_leads_somewhere() {
    let shipped = demo_data::catalogue().unwrap();
    let desk = Desk::with(&Catalogue {
        waters: shipped.waters,
        ..Catalogue::default()
    });
    let page = desk.page("/");
    assert!(page.contains("<h1"), "{page}");
    let json: Value = serde_json::from_str(&desk.page("/ranking.json")).unwrap();
    assert_eq!(json["ranked"], Value::Array(Vec::new()));
    assert_eq!(desk.page("/reckons").matches("<h1").count(), 1);
}

#[test]
fn saved_questions_survive_their_own_document() {
    // Every demo brief, saved from its page, reads back as the same brief.
    let demo = demo_data::catalogue().unwrap();
    for brief in &demo.briefs {
        let one = question::resolve("saved", brief, &demo.rigs, &demo.waters).unwrap();
        let again = galvet_store::SavedBrief {
            question: question::document(&one, true),
            ..brief.clone()
        };
        let two = question::resolve("again", &again, &demo.rigs, &demo.waters).unwrap();
        assert_eq!(one, two, "{}", brief.key);
    }
}

/// The bytes of an answer with these headers.
fn with<'c>(desk: &'c Desk, path: &str, headers: &[(&'static str, &str)]) -> LocalResponse<'c> {
    let host = Header::new("Host", "localhost");
    let mut request = desk.client.get(path.to_owned()).header(host);
    for (name, value) in headers {
        request = request.header(Header::new(*name, (*value).to_owned()));
    }
    request.dispatch()
}

fn unpacked(bytes: &[u8]) -> Vec<u8> {
    let mut out = Vec::new();
    std::io::Read::read_to_end(&mut flate2::read::GzDecoder::new(bytes), &mut out).unwrap();
    out
}

#[test]
fn answers_are_packed_named_and_not_sent_twice() {
    let desk = Desk::demo();
    let style = {
        let page = desk.page("/");
        let mut parts = page.split('"');
        parts
            .find(|part| part.ends_with(".css"))
            .unwrap()
            .to_owned()
    };
    for path in ["/", "/ranking.json", "/hulls/hobrin-cassel", &style] {
        let plain = with(&desk, path, &[]);
        assert!(plain.headers().get_one("Content-Encoding").is_none());
        let tag = plain.headers().get_one("ETag").unwrap().to_owned();
        let plain = plain.into_bytes().unwrap();
        let packed = with(&desk, path, &[("Accept-Encoding", "br, gzip;q=0.8")]);
        assert_eq!(
            packed.headers().get_one("Content-Encoding"),
            Some("gzip"),
            "{path}"
        );
        assert_eq!(
            packed.headers().get_one("ETag"),
            Some(tag.as_str()),
            "{path}"
        );
        let packed = packed.into_bytes().unwrap();
        assert!(
            packed.len() < plain.len() / 2,
            "{path}: {} of {}",
            packed.len(),
            plain.len()
        );
        assert_eq!(unpacked(&packed), plain, "{path}");
        let refused = with(&desk, path, &[("Accept-Encoding", "gzip;q=0")]);
        assert!(refused.headers().get_one("Content-Encoding").is_none());
        let again = with(&desk, path, &[("If-None-Match", &tag)]);
        assert_eq!(again.status(), Status::NotModified, "{path}");
        assert!(again.into_bytes().unwrap_or_default().is_empty());
    }
    // Another question is another content.
    let tag = |path: &str| {
        with(&desk, path, &[])
            .headers()
            .get_one("ETag")
            .unwrap()
            .to_owned()
    };
    assert_ne!(tag("/"), tag("/?mass=101"));
}

#[test]
fn the_first_page_on_a_phone_is_small() {
    let desk = Desk::demo();
    let gzip = [("Accept-Encoding", "gzip")];
    let page = desk.page("/");
    let mut size = with(&desk, "/", &gzip).into_bytes().unwrap().len();
    let mut addresses: Vec<String> = page
        .split('"')
        .filter(|part| part.starts_with("/assets/"))
        .map(str::to_owned)
        .collect();
    // The modules that the first one asks for.
    let scripts = addresses
        .iter()
        .find(|a| a.ends_with("/js/main.js"))
        .unwrap();
    let folder = scripts.trim_end_matches("main.js").to_owned();
    for module in ["answer", "parts", "rows", "swap"] {
        addresses.push(format!("{folder}{module}.js"));
    }
    addresses.sort();
    addresses.dedup();
    for address in addresses.iter().filter(|a| !a.ends_with(".woff2")) {
        let answer = with(&desk, address, &gzip);
        assert_eq!(answer.status(), Status::Ok, "{address}");
        size += answer.into_bytes().unwrap().len();
    }
    assert!(size < 60_000, "{size} bytes");
}

#[test]
fn what_another_site_builds_in_is_not_computed() {
    let desk = Desk::demo();
    for dest in ["iframe", "image", "script", "empty", "embed"] {
        let headers = [("Sec-Fetch-Site", "cross-site"), ("Sec-Fetch-Dest", dest)];
        assert_eq!(
            with(&desk, "/", &headers).status(),
            Status::Forbidden,
            "{dest}"
        );
    }
    for headers in [
        [
            ("Sec-Fetch-Site", "cross-site"),
            ("Sec-Fetch-Dest", "document"),
        ],
        [
            ("Sec-Fetch-Site", "same-origin"),
            ("Sec-Fetch-Dest", "empty"),
        ],
        [("Sec-Fetch-Site", "none"), ("Sec-Fetch-Dest", "document")],
    ] {
        assert_eq!(
            with(&desk, "/", &headers).status(),
            Status::Ok,
            "{headers:?}"
        );
    }
}

#[test]
fn wrong_methods_and_endless_addresses_are_pages_of_their_own() {
    let desk = Desk::demo();
    let allow = |path: &str, method| {
        let request = desk.client.req(method, path.to_owned());
        let answer = request
            .header(Header::new("Host", "localhost"))
            .header(Header::new("Sec-Fetch-Site", "same-origin"))
            .dispatch();
        (
            answer.status(),
            answer.headers().get_one("Allow").map(str::to_owned),
        )
    };
    use rocket::http::Method;
    let refused = |allow: &str| (Status::MethodNotAllowed, Some(allow.to_owned()));
    assert_eq!(allow("/", Method::Delete), refused("GET"));
    assert_eq!(allow("/hulls/hobrin-cassel", Method::Put), refused("GET"));
    assert_eq!(allow("/undo", Method::Get), refused("POST"));
    assert_eq!(allow("/questions", Method::Put), refused("GET, POST"));
    assert_eq!(allow("/nowhere", Method::Delete).0, Status::NotFound);
    assert_eq!(allow("/", Method::Head).0, Status::Ok);
    let long = format!("/?water={}", "x".repeat(9_000));
    let answer = desk.ask(&long);
    assert_eq!(answer.status(), Status::UriTooLong);
    assert!(
        answer
            .into_string()
            .unwrap()
            .contains("That address is too long")
    );
}

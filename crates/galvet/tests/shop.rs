//! The shop's pages: stock, demo boats, the counter and the screen that follows it.

use crate::desk::{Desk, css, text_of};
use galvet_store::Kind;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::stock::{BookingEntry, Stock, StockEntry};
use rocket::http::Status;
use scraper::{ElementRef, Html};

fn stock(desk: &Desk, key: &str) -> Option<StockEntry> {
    let all = desk.store.sheets::<StockEntry>().unwrap();
    all.into_iter().find(|entry| entry.key == key)
}

/// All a part of a page says, each space one space.
fn said_by(part: ElementRef<'_>) -> String {
    let text: String = part.text().collect();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

fn bookings(desk: &Desk) -> Vec<BookingEntry> {
    desk.store.sheets::<BookingEntry>().unwrap()
}

#[test]
fn what_there_is_stands_beside_each_hull_and_the_ranking_can_be_kept_to_it() {
    let desk = Desk::demo();
    let rows = |query: &str| {
        let page = desk.page(&format!("/?{query}"));
        let names = text_of(&page, "#ranked h3 a");
        let shelves = text_of(&page, "#ranked .shelf");
        (names, shelves)
    };
    let (all, shelves) = rows("");
    assert!(all.contains("Osprith Kelda Two"), "{all}");
    assert!(
        shelves.contains("to order, 10 weeks") && shelves.contains("demo boat here"),
        "{shelves}"
    );
    let (here, shelves) = rows("have=here");
    assert!(
        !here.contains("Kelda") && here.contains("Drumlee Orvane"),
        "{here}"
    );
    assert!(
        shelves.lines().all(|line| line.contains("here")),
        "{shelves}"
    );
    // Price and package, on a question's sheet as well, which counts those that are here.
    let sheet = desk.page("/summary?have=here");
    assert!(
        sheet.contains("of those that are here")
            && sheet.contains("package 4150: paddle, drive and two rod holders")
    );
    assert!(!text_of(&sheet, ".summary-hulls ol").contains("Kelda"));
    // Set, changed and taken back.
    let path = "/stock/osprith-kelda-two";
    let refused = desk.post(path, "state=here&count=0");
    assert_eq!(refused, Status::UnprocessableEntity, "here, and none of it");
    assert_eq!(
        desk.post(path, "state=moon&count=1"),
        Status::UnprocessableEntity
    );
    assert_eq!(stock(&desk, "osprith-kelda-two").unwrap().weeks, Some(10));
    assert_eq!(
        desk.post(path, "state=here&count=3&weeks=&package=4,400&with=cart"),
        Status::UnprocessableEntity,
        "which of the two is it?"
    );
    assert_eq!(
        desk.post(path, "state=here&count=3&weeks=&package=4400&with=cart"),
        Status::SeeOther
    );
    let kept = stock(&desk, "osprith-kelda-two").unwrap();
    assert_eq!(
        (kept.state, kept.count, kept.weeks, kept.package),
        (Stock::Here, 3, None, Some(4400.0))
    );
    assert!(rows("have=here").0.contains("Kelda"));
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(stock(&desk, "osprith-kelda-two").unwrap().weeks, Some(10));
    // One nobody had said anything of.
    assert_eq!(
        desk.post(
            "/stock/hobrin-wendle",
            "state=here&count=1&weeks=&package=&with="
        ),
        Status::SeeOther
    );
    assert_eq!(stock(&desk, "hobrin-wendle").unwrap().count, 1);
    assert_eq!(
        desk.post("/stock/no-such-hull", "state=here&count=1"),
        Status::NotFound
    );
}

#[test]
fn a_demo_boat_is_out_with_one_at_a_time() {
    let desk = Desk::demo();
    let book = |from: &str, hours: &str, who: &str| {
        let form =
            format!("hull=drumlee-orvane&day=2027-03-01&hour={from}&hours={hours}&who={who}&note=");
        desk.post("/bookings", &form)
    };
    let before = bookings(&desk).len();
    assert_eq!(book("10", "2", "Mereth+Oskwin"), Status::SeeOther);
    for (from, hours) in [("11:30", "1"), ("9", "2"), ("8", "24"), ("10", "1")] {
        assert_eq!(
            book(from, hours, "Dovin+Harrask"),
            Status::UnprocessableEntity,
            "{from} {hours}"
        );
    }
    // One goes out as the other comes back; somebody new is on record by it.
    assert_eq!(book("12:00", "1", "Tove+Lind"), Status::SeeOther);
    assert_eq!(bookings(&desk).len(), before + 2);
    let customers = desk.store.sheets::<CustomerEntry>().unwrap();
    assert!(customers.iter().any(|one| one.name == "Tove Lind"));
    for (form, why) in [
        (
            "hull=drumlee-orvane&day=2027-03-02&hour=25&hours=1&who=A",
            "no hour",
        ),
        (
            "hull=drumlee-orvane&day=soon&hour=10&hours=1&who=A",
            "2026-",
        ),
        (
            "hull=drumlee-orvane&day=2027-03-02&hour=10&hours=0&who=A",
            "whole number",
        ),
        (
            "hull=drumlee-orvane&day=2027-03-02&hour=10&hours=1&who=",
            "for whom",
        ),
        (
            "hull=quarnel-pipkin&day=2027-03-02&hour=10&hours=1&who=A",
            "one of those there are",
        ),
    ] {
        let answer = desk.send("/bookings", rocket::http::ContentType::Form, form);
        assert_eq!(answer.status(), Status::UnprocessableEntity, "{form}");
        let page = answer.into_string().unwrap();
        assert!(
            text_of(&page, ".mistake").contains(why),
            "{form}: {}",
            text_of(&page, ".mistake")
        );
    }
    // As a calendar, by the hour, on the shop's clock.
    let ics = desk.page("/bookings.ics");
    assert!(
        ics.contains("DTSTART:20270301T100000\r\n") && ics.contains("DTEND:20270301T120000\r\n"),
        "{ics}"
    );
    assert!(ics.contains("Drumlee Orvane for Tove Lind"));
    let page = desk.page("/bookings");
    assert!(text_of(&page, "main").contains("2027-03-01"));
    let key = bookings(&desk)
        .into_iter()
        .find(|b| b.who == "Tove Lind")
        .unwrap()
        .key;
    assert_eq!(
        desk.post(&format!("/bookings/{key}/off"), ""),
        Status::SeeOther
    );
    assert_eq!(book("12:30", "1", "Dovin+Harrask"), Status::SeeOther);
    // Put back out of the trash they are two at once, and both say so.
    let clash = "More are booked at once than there are.";
    assert!(!desk.page("/bookings").contains(clash));
    assert!(
        desk.store
            .record(Kind::of::<BookingEntry>(), &key)
            .unwrap()
            .is_none()
    );
    let trash = desk.store.trash().unwrap();
    let thrown = trash.iter().find(|t| t.kind == Kind::of::<BookingEntry>());
    let form = format!("kind=booking&id={}&back=/trash", thrown.unwrap().known.id);
    assert_eq!(desk.post("/trash", &form), Status::SeeOther);
    assert_eq!(desk.page("/bookings").matches(clash).count(), 2);
    // Of two boats both go out; of none nobody does.
    let stock = |typed: &str| desk.post("/stock/drumlee-orvane", typed);
    assert_eq!(stock("state=demo&count=2"), Status::SeeOther);
    assert!(!desk.page("/bookings").contains(clash));
    assert_eq!(book("10", "1", "Dovin+Harrask"), Status::SeeOther);
    assert_eq!(
        book("10:30", "3", "Ilvar+Brandt"),
        Status::UnprocessableEntity
    );
    assert_eq!(stock("state=sold&count=0"), Status::SeeOther);
    let gone = "It is no demo boat any more.";
    assert!(desk.page("/bookings").matches(gone).count() >= 3);
    // An hour that is over is no booking.
    assert_eq!(stock("state=demo&count=1"), Status::SeeOther);
    let yesterday = "hull=drumlee-orvane&day=2024-03-01&hour=10&hours=1&who=A&note=";
    let answer = desk.send("/bookings", rocket::http::ContentType::Form, yesterday);
    assert!(answer.into_string().unwrap().contains("that is over"));
}

#[test]
fn the_customers_screen_follows_the_counter_and_leads_nowhere() {
    let desk = Desk::demo();
    let answer = desk.send(
        "/counter/screen?mass=88+kg",
        rocket::http::ContentType::Form,
        "",
    );
    let to = answer.headers().get_one("Location").unwrap().to_owned();
    let word = to
        .split("screen=")
        .nth(1)
        .unwrap()
        .split('&')
        .next()
        .unwrap()
        .to_owned();
    assert_eq!(word.len(), 32);
    let counter = desk.page(&to);
    assert!(
        counter.contains(&format!("http://localhost/screen/{word}")),
        "{to}"
    );
    let screen = || desk.page(&format!("/screen/{word}"));
    let version = || desk.page(&format!("/screen/{word}/now"));
    let (first, before) = (screen(), version());
    assert!(first.contains("Osprith Kelda Two") && text_of(&first, ".lead").contains("88"));
    for gone in ["<form", "<a href", " href=\"/\"", "/people", "Mereth"] {
        let body = first.split("<body").nth(1).unwrap();
        assert!(!body.contains(gone), "{gone}");
    }
    // In the counter's units, whatever those of who looks on.
    let feet = "/settings/units";
    assert_eq!(desk.post(feet, "units=imperial&back=/"), Status::SeeOther);
    assert!(
        text_of(&screen(), ".three").contains("kg"),
        "as the counter has it"
    );
    desk.page(&format!("/counter?mass=88+kg&screen={word}"));
    let then = text_of(&screen(), ".three");
    assert!(then.contains("lb") && !then.contains("kg"), "{then}");
    desk.post(feet, "units=metric&back=/");
    desk.page(&format!("/counter?mass=88+kg&screen={word}"));
    // What is here changes as well.
    let (before_sale, package) = (version(), "state=sold&count=0&package=1234");
    let stock = desk.post("/stock/osprith-kelda-two", package);
    assert_eq!(stock, Status::SeeOther);
    assert_ne!(version(), before_sale);
    assert!(text_of(&screen(), ".three").contains("1234"));
    // Something else is asked: with what is here only, of a heavier angler.
    desk.page(&format!("/counter?mass=95+kg&have=here&screen={word}"));
    assert_ne!(version(), before);
    let then = screen();
    assert!(
        text_of(&then, ".lead").contains("95") && !then.contains("Kelda"),
        "{}",
        text_of(&then, "main")
    );
    // A word nobody gave shows nothing, and makes none.
    let made_up = "0".repeat(32);
    desk.page(&format!("/counter?screen={made_up}"));
    assert_eq!(
        desk.ask(&format!("/screen/{made_up}")).status(),
        Status::NotFound
    );
    assert_eq!(
        desk.post(&format!("/counter/screen/{word}/close"), ""),
        Status::SeeOther
    );
    assert_eq!(
        desk.ask(&format!("/screen/{word}")).status(),
        Status::NotFound
    );
    assert_eq!(
        desk.ask(&format!("/screen/{word}/now")).status(),
        Status::NotFound
    );
}

#[test]
fn what_a_row_says_is_said_at_the_counter_on_its_screen_and_on_paper() {
    let desk = Desk::demo();
    let mut minded = 0;
    for question in [
        "",
        "mass=120+kg&posture=sits",
        "mass=105+kg&posture=sits-and-stands&water=estuary",
        "mass=70+kg&water=coast&posture=sits",
        "mass=95+kg&water=pond&practice=new",
    ] {
        let ranking = Html::parse_document(&desk.page(&format!("/?{question}")));
        let first = css("#ranked > [data-hull]");
        let rows = ranking.select(&first).take(3);
        let said = rows.flat_map(|row| {
            let parts = css(".row-verdict, .peril, .unmet");
            let parts: Vec<String> = row.select(&parts).map(said_by).collect();
            parts
        });
        let said: Vec<String> = said.collect();
        let opened = desk.send(
            &format!("/counter/screen?{question}"),
            rocket::http::ContentType::Form,
            "",
        );
        let counter = opened.headers().get_one("Location").unwrap().to_owned();
        let word = counter.split("screen=").nth(1).unwrap();
        let word = word.split('&').next().unwrap().to_owned();
        for at in [
            format!("/counter?{question}"),
            format!("/screen/{word}"),
            format!("/summary?{question}"),
        ] {
            let page = Html::parse_document(&desk.page(&at));
            let page = said_by(page.root_element());
            for line in &said {
                assert!(page.contains(line), "{line} on {at}: {page}");
            }
            let key = page.contains("water at floor or gunwale");
            assert!(key || said.is_empty(), "the gauge's key on {at}");
        }
        minded += said.len();
    }
    assert!(minded > 20, "{minded}");
}

#[test]
fn a_code_on_the_survey_sheet_opens_the_hull() {
    let desk = Desk::demo();
    let card = desk.page("/hulls/quarnel-pipkin/card");
    assert!(card.contains("Code that opens http://localhost/hulls/quarnel-pipkin"));
    // Read back square by square: what is drawn is what the crate makes of the address.
    let path = card
        .split("code-dark\" d=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap();
    let drawn = path.matches("h1v1h-1z").count();
    let code = qrcode::QrCode::with_error_correction_level(
        "http://localhost/hulls/quarnel-pipkin",
        qrcode::EcLevel::Q,
    )
    .unwrap();
    let dark = code
        .to_colors()
        .into_iter()
        .filter(|c| *c == qrcode::Color::Dark)
        .count();
    assert_eq!(drawn, dark);
}

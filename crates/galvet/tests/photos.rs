//! Photos of a hull, in process: added, measured in, deleted and taken back, out and in again.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_core::hull::{Measure, Source};
use galvet_store::files::photo::Photo;
use galvet_store::{Catalogue, Kind};
use rocket::http::Status;

const HULL: &str = "/hulls/drumlee-orvane";
const WELL: &str = "/hulls/drumlee-orvane/photos/drumlee-orvane-tank-well";

fn photos(desk: &Desk) -> Vec<Photo> {
    desk.store.sheets::<Photo>().unwrap()
}

/// The pixels of the demo's photo.
fn pixels(desk: &Desk) -> Vec<u8> {
    let name = photos(desk)[0].picture.clone();
    desk.store.picture(&name).unwrap().unwrap()
}

#[test]
fn a_picture_is_added_with_what_it_shows_and_seen_again() {
    let desk = Desk::demo();
    let jpeg = pixels(&desk);
    let at = format!("{HULL}/photos");
    let fields = [
        ("shows", "figure:beam"),
        ("name", ""),
        ("date", "2026-10-01"),
    ];
    let file = Some(("picture", "../../etc/x.svg", jpeg.as_slice()));
    let (status, _) = desk.send_parts(&at, &fields, file);
    assert_eq!(status, Status::SeeOther);
    let added = photos(&desk)
        .into_iter()
        .find(|p| p.name == "beam")
        .unwrap();
    assert_eq!((added.width, added.height), (1_400, 1_000));
    let page = desk.page(&at);
    assert!(page.contains(&format!("/pictures/{}.jpg", added.picture)));
    let picture = desk.ask(&format!("/pictures/{}.jpg", added.picture));
    let kind = picture
        .headers()
        .get_one("content-type")
        .unwrap()
        .to_owned();
    assert_eq!(
        (picture.status(), kind.as_str()),
        (Status::Ok, "image/jpeg")
    );
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(photos(&desk).len(), 1);
}

#[test]
fn what_is_no_picture_is_told_and_nothing_is_kept() {
    let desk = Desk::demo();
    let at = format!("{HULL}/photos");
    let svg = b"<svg xmlns='http://www.w3.org/2000/svg'/>".as_slice();
    let name = "<img src=x>.jpg";
    let (status, page) = desk.send_parts(&at, &[], Some(("picture", name, svg)));
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("it is no JPEG, PNG or WebP picture"));
    assert!(!page.contains("<img src=x>"));
    let (status, page) = desk.send_parts(&at, &[("date", "yesterday")], None);
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("choose a picture first") && page.contains("day:"));
    assert_eq!(photos(&desk).len(), 1);
    for odd in [
        "/pictures/galvet.db",
        "/pictures/..%2fgalvet.db.jpg",
        "/pictures/x.jpg",
    ] {
        assert_eq!(desk.ask(odd).status(), Status::NotFound, "{odd}");
    }
}

#[test]
fn a_length_read_off_the_tape_becomes_a_reading_with_its_error() {
    let desk = Desk::demo();
    // Drawn two pixels to the millimetre, the tape two degrees askew.
    let tape =
        "x1=180&y1=578&x2=1180&y2=543&m1=0+cm&m2=50+cm&lines=1+mm&x3=285&y3=700&x4=1132&y4=700";
    let read = desk.send(
        WELL,
        rocket::http::ContentType::Form,
        &format!("{tape}&action=read"),
    );
    assert_eq!(read.status(), Status::Ok);
    // 847 px over 1000.6 px for 50 cm.
    assert!(
        read.into_string()
            .unwrap()
            .contains("42.3\u{a0}cm ± 0.9\u{a0}cm")
    );
    let keep = format!("{tape}&action=length&figure=floor_width");
    assert_eq!(desk.post(WELL, &keep), Status::SeeOther);
    let hulls = desk.store.catalogue().unwrap().hulls;
    let hull = hulls
        .iter()
        .find(|h| h.survey.key == "drumlee-orvane")
        .unwrap();
    let readings = &hull.survey.readings[&Measure::FloorWidth];
    let off = readings.iter().find(|r| r.source == Source::Photo).unwrap();
    assert!((off.value - 0.423_2).abs() < 2e-4, "{}", off.value);
    // Shares: clicks 0.00283 and 0.00334, figures 0.00082, slant 0.02: 2.05 % of it.
    assert!(
        (off.error.unwrap() - 0.008_7).abs() < 1e-4,
        "{:?}",
        off.error
    );
    assert!(
        desk.page(&format!("{HULL}/record"))
            .contains("read off a photo, ± 0.9\u{a0}cm")
    );
    // A figure it cannot be, or none chosen, is told; what was read stays.
    for figure in ["", "price", "length"] {
        let sent = format!("{tape}&action=length&figure={figure}");
        let said = desk.send(WELL, rocket::http::ContentType::Form, &sent);
        assert_eq!(said.status(), Status::UnprocessableEntity, "{figure}");
        assert!(said.into_string().unwrap().contains("Reads"), "{figure}");
    }
    let half = tape.replace("&x4=1132&y4=700", "");
    let said = desk.send(
        WELL,
        rocket::http::ContentType::Form,
        &format!("{half}&action=read"),
    );
    assert!(
        said.into_string()
            .unwrap()
            .contains("set both ends, or none")
    );
}

#[test]
fn photos_go_with_their_hull_and_come_back_with_it() {
    let desk = Desk::demo();
    let gone = desk
        .store
        .throw_away("me", (Kind::Hull, "drumlee-orvane"), None);
    assert!(gone.unwrap().is_some());
    assert!(photos(&desk).is_empty());
    let act = desk.store.steps("me", None).unwrap().undo.unwrap();
    desk.store.reverse("me", act.group).unwrap();
    assert_eq!(photos(&desk).len(), 1);
}

#[test]
fn an_archive_brings_photos_and_a_bare_exchange_file_says_what_it_lacks() {
    let desk = Desk::demo();
    let archive = desk.ask("/everything.zip").into_bytes().unwrap();
    let there = pixels(&desk);
    let other = Desk::with(&Catalogue::default());
    let sent = Some(("file", "all.zip", archive.as_slice()));
    let (status, _) = other.send_parts("/import", &[("action", "keep")], sent);
    assert_eq!(status, Status::SeeOther);
    assert_eq!(photos(&other), photos(&desk));
    assert_eq!(pixels(&other), there);
    let bare = Desk::with(&Catalogue::default());
    let json = desk.ask("/everything.json").into_bytes().unwrap();
    let sent = Some(("file", "all.json", json.as_slice()));
    let answer = bare.send_parts("/import", &[("action", "keep")], sent);
    assert_eq!(answer.0, Status::SeeOther);
    assert!(photos(&bare).is_empty());
    assert!(
        bare.page("/import?unpictured=1")
            .contains("1 photo is left out")
    );
    assert_eq!(bare.store.catalogue().unwrap().hulls.len(), 22);
}

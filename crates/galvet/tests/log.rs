//! The log over HTTP: what an outing says of its hull, what is kept once, what is handed on,
//! what is hostile.

use crate::desk::{Desk, text_of};

use galvet_core::hull::Evidence;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::Photo;
use galvet_store::files::served::ServedEntry;
use rocket::http::Status;
use scraper::{Html, Selector};

const BRANDEL: &str = "2026-05-02-skelmar-brandel";
const TRACKED: &str = "2026-06-27-tindrel-vaskar-fin";

fn evidence(desk: &Desk, hull: &str) -> Vec<Evidence> {
    let all = desk.store.catalogue().unwrap();
    let hull = all.hulls.into_iter().find(|h| h.survey.key == hull);
    hull.unwrap().survey.evidence
}

fn outings(desk: &Desk) -> Vec<OutingEntry> {
    desk.store.sheets().unwrap()
}

#[test]
fn evidence_of_an_outing_is_what_is_typed_on_the_page_of_float_tests() {
    let over = Desk::demo();
    let path = format!("/log/outings/{BRANDEL}/evidence");
    assert_eq!(over.post(&path, "read=draft"), Status::SeeOther);
    assert_eq!(over.post(&path, "read=drift"), Status::SeeOther);
    let typed = Desk::demo();
    let entry = outings(&typed)
        .into_iter()
        .find(|o| o.key == BRANDEL)
        .unwrap();
    let o = entry.outing();
    let aboard = o.aboard.unwrap();
    let lay = format!(
        "units=metric&action=keep&aboard={}+kg&aboard-place={}&aboard-height={}+m&water-kind=fresh&scuppers-state=open&date={}",
        aboard.mass,
        100.0 * aboard.place,
        aboard.height,
        o.day
    );
    let marks: Vec<String> = (1..)
        .zip(&o.tape.heights)
        .map(|(n, (p, h))| format!("place-{n}={}&height-{n}={h}+m", 100.0 * p))
        .collect();
    let form = format!("test=heights&{lay}&datum=gunwale&{}", marks.join("&"));
    assert_eq!(
        typed.post("/hulls/skelmar-brandel/afloat", &form),
        Status::SeeOther
    );
    let form = format!(
        "test=drift&{lay}&speed={}+m/s&met-wind={}+m/s&shows=0.35",
        o.drift.unwrap(),
        o.wind.unwrap()
    );
    assert_eq!(
        typed.post("/hulls/skelmar-brandel/afloat", &form),
        Status::SeeOther
    );
    let (a, b) = (
        evidence(&over, "skelmar-brandel"),
        evidence(&typed, "skelmar-brandel"),
    );
    assert_eq!(a.len(), 2);
    for (a, b) in a.iter().zip(&b) {
        // To the digits typed: shares in per cent and back.
        assert_eq!(
            (a.density, a.scuppers, &a.date),
            (b.density, b.scuppers, &b.date)
        );
        assert!((a.aboard.place - b.aboard.place).abs() < 1e-12);
        assert_eq!(
            (a.aboard.mass, a.aboard.height),
            (b.aboard.mass, b.aboard.height)
        );
        assert_eq!(format!("{:.9?}", a.reading), format!("{:.9?}", b.reading));
    }
    // Taken over twice it stands there once, and does not foretell itself.
    assert_eq!(over.post(&path, "read=draft"), Status::SeeOther);
    assert_eq!(evidence(&over, "skelmar-brandel").len(), 2);
    let foretold = |desk: &Desk| {
        let page = desk.page(&format!("/log/outings/{BRANDEL}"));
        text_of(&page, ".log-told .facts")
    };
    let fresh = Desk::demo();
    assert_eq!(over.post(&path, "read=draft"), Status::SeeOther);
    let lines = |desk: &Desk| {
        let told = foretold(desk);
        let own: Vec<String> = told
            .lines()
            .filter(|l| l.contains("mm, foretold"))
            .map(str::to_owned)
            .collect();
        own
    };
    // The drift that was taken over as well hardly moves it.
    assert_eq!(lines(&fresh).len(), 3);
    assert_eq!(over.undo(), Status::SeeOther);
}

#[test]
fn a_reading_there_is_not_and_an_outing_that_is_gone_are_told() {
    let desk = Desk::demo();
    for (path, form) in [
        (format!("/log/outings/{BRANDEL}/evidence"), "read=speed"),
        (format!("/log/outings/{BRANDEL}/evidence"), "read=colour"),
        ("/log/outings/none/evidence".to_owned(), "read=draft"),
        ("/log/outings/none".to_owned(), "units=metric&place=x"),
    ] {
        assert_eq!(desk.post(&path, form), Status::NotFound, "{path} {form}");
    }
    for path in [
        "/log/outings/none",
        "/log/outings/none/track.gpx",
        "/log/new?hull=none",
    ] {
        assert_eq!(desk.ask(path).status(), Status::NotFound, "{path}");
    }
    // One without a track has none to give.
    let none = format!("/log/outings/{BRANDEL}/track.gpx");
    assert_eq!(desk.ask(&none).status(), Status::NotFound);
}

#[test]
fn what_a_phone_sends_twice_is_kept_once_and_what_it_carried_is_not_refused() {
    let desk = Desk::demo();
    let before = outings(&desk).len();
    // The rig has changed since the page was opened: what it carried then is kept.
    let form = "units=metric&once=abc123&day=2026-11-30&place=Far+slip&wind=12+kn&thing-old-bucket=used&thing-landing-net=unused";
    let to = "/log/new?hull=fennick-dunmarrow&rig=reed-edge-day";
    assert_eq!(desk.post(to, form), Status::SeeOther);
    assert_eq!(desk.post(to, form), Status::SeeOther);
    let all = outings(&desk);
    assert_eq!(all.len(), before + 1);
    let one = all.iter().find(|o| o.once == "abc123").unwrap();
    let o = one.clone().outing();
    assert!((o.wind.unwrap() - 12.0 * 1852.0 / 3600.0).abs() < 1e-9);
    let fate = |item: &str| o.carried.iter().find(|c| c.item == item).unwrap().fate;
    assert_eq!(
        fate("old-bucket").map(|f| format!("{f:?}")),
        Some("Used".into())
    );
    assert_eq!(one.name, "Far slip, 2026-11-30");
    assert!(!o.done && o.question.contains("rig=reed-edge-day"));
    // It is taken back as any act.
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(outings(&desk).len(), before);
    // What is not understood is told at its field, and what was typed is still there.
    let answer = desk.send(
        to,
        rocket::http::ContentType::Form,
        "units=metric&place=Far+slip&wind=fresh",
    );
    assert_eq!(answer.status(), Status::UnprocessableEntity);
    let page = answer.into_string().unwrap();
    assert!(page.contains("Far slip") && page.contains("12 kn"));
    assert_eq!(outings(&desk).len(), before);
}

#[test]
fn a_change_of_an_outing_changes_what_was_typed_and_nothing_else() {
    let desk = Desk::demo();
    let before = outings(&desk)
        .into_iter()
        .find(|o| o.key == TRACKED)
        .unwrap();
    let path = format!("/log/outings/{TRACKED}");
    let page = desk.page(&path);
    let shown = Html::parse_document(&page);
    let shown = shown
        .select(&Selector::parse(".log-form [name=shown]").unwrap())
        .next();
    let shown = shown.unwrap().value().attr("value").unwrap().to_owned();
    let form = format!(
        "units=metric&action=keep&hours=6&turned-back=&done=yes&shown={}",
        rocket::http::RawStr::new(&shown).percent_encode()
    );
    assert_eq!(desk.post(&path, &form), Status::SeeOther);
    let after = outings(&desk)
        .into_iter()
        .find(|o| o.key == TRACKED)
        .unwrap();
    let mut wanted = before.outing();
    wanted.hours = Some(6.0);
    assert_eq!(after.outing(), wanted);
}

#[test]
fn where_anybody_went_is_in_nothing_that_is_handed_on() {
    let desk = Desk::demo();
    // A place of the demo's track.
    let o = outings(&desk).into_iter().find(|o| o.key == TRACKED);
    let place = o.unwrap().outing().track[1].north.to_string();
    assert!(desk.page("/log.json?tracks=yes").contains(&place));
    let page = format!("/log/outings/{TRACKED}");
    for path in [
        "/log.csv".to_owned(),
        "/log.json".to_owned(),
        "/log.ics".to_owned(),
        "/log".to_owned(),
        "/log?as=file".to_owned(),
    ] {
        let text = desk.page(&path);
        assert!(
            !text.contains(&place) && !text.contains("\"track\""),
            "{path}"
        );
    }
    let everything = desk.page("/everything.json");
    // A fitting that is a track is none of those.
    assert!(!everything.contains("\"track\": ["));
    assert!(
        desk.page("/everything.json?tracks=yes")
            .contains("\"track\": [")
    );
    assert!(desk.page("/log.json?tracks=yes").contains("\"track\""));
    assert!(desk.page(&page).contains("The track"));
    let alone = desk.page(&format!("{page}?as=file"));
    assert!(!alone.contains("The track") && alone.contains("Dravel sound"));
    // By an address handed out as well.
    let sent = format!("page={page}");
    assert_eq!(desk.post("/shared", &sent), Status::SeeOther);
    let all = desk.store.catalogue().unwrap();
    let handed: Vec<galvet_store::files::handed::Handed> = all.sheets_of().cloned().collect();
    let shared = desk.page(&format!("/shared/{}", handed[0].key));
    assert!(!shared.contains("The track") && !shared.contains(&place));
}

#[test]
fn a_track_comes_in_tells_what_nobody_typed_and_is_refused_in_words() {
    let desk = Desk::demo();
    let path = "/log/outings/2025-09-20-fennick-dunmarrow";
    let send = |content: &str| {
        let file = ("track", "a.gpx", content.as_bytes());
        desk.send_parts(&format!("{path}/track"), &[], Some(file))
    };
    let track = |day: &str| {
        format!(
            "<?xml version=\"1.0\"?><gpx version=\"1.1\" creator=\"x\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><trkseg><trkpt lat=\"51.00\" lon=\"-36\"><time>{day}T08:00:00Z</time></trkpt><trkpt lat=\"51.02\" lon=\"-36\"><time>{day}T10:30:00Z</time></trkpt></trkseg></trk></gpx>"
        )
    };
    let (status, page) = send(&track("2025-09-21"));
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("that track is of 2025-09-21"), "{page}");
    for bad in [
        "",
        "hello",
        "<!DOCTYPE gpx [<!ENTITY a 'b'>]><gpx>&a;</gpx>",
    ] {
        assert_eq!(send(bad).0, Status::UnprocessableEntity, "{bad}");
    }
    assert_eq!(send(&track("2025-09-20")).0, Status::SeeOther);
    let o = outings(&desk)
        .into_iter()
        .find(|o| path.ends_with(&o.key))
        .unwrap()
        .outing();
    // 0.02° of latitude; two hours and a half; nobody had noted either.
    assert!((o.distance.unwrap() - 2_223.9).abs() < 1.0);
    assert_eq!((o.hours, o.track.len()), (Some(2.5), 2));
    let gpx = desk.page(&format!("{path}/track.gpx"));
    assert!(gpx.contains("2025-09-20T10:30:00"), "{gpx}");
    assert_eq!(desk.undo(), Status::SeeOther);
    let o = outings(&desk)
        .into_iter()
        .find(|o| path.ends_with(&o.key))
        .unwrap()
        .outing();
    assert!(o.track.is_empty() && o.distance.is_none());
}

#[test]
fn a_photo_of_an_outing_stands_on_its_page() {
    let desk = Desk::demo();
    let picture = galvet::demo_data::pictures().unwrap().remove(0);
    let jpeg = picture.jpeg;
    let fields = [
        ("outing", TRACKED),
        ("name", "the bar"),
        ("shows", "hull"),
        ("date", ""),
    ];
    let file = ("picture", "a.jpg", jpeg.as_slice());
    let (status, _) = desk.send_parts("/hulls/tindrel-vaskar-fin/photos", &fields, Some(file));
    assert_eq!(status, Status::SeeOther);
    let photos: Vec<Photo> = desk.store.sheets().unwrap();
    assert!(
        photos
            .iter()
            .any(|p| p.outing == TRACKED && p.name == "the bar")
    );
    assert!(
        desk.page(&format!("/log/outings/{TRACKED}"))
            .contains("alt=\"the bar\"")
    );
}

#[test]
fn a_service_is_noted_once_it_is_done() {
    let desk = Desk::demo();
    let count = || desk.store.sheets::<ServedEntry>().unwrap().len();
    let before = count();
    let form = "hull=fennick-dunmarrow&care=rotary&day=2026-11-30&note=pin+worn";
    assert_eq!(desk.post("/log/service", form), Status::SeeOther);
    assert_eq!(count(), before + 1);
    for bad in [
        "hull=fennick-dunmarrow&care=rotary&day=soon",
        "hull=fennick-dunmarrow&care=rotary&day=2099-01-01",
        "hull=fennick-dunmarrow&care=gearbox&day=2026-11-30",
    ] {
        assert_eq!(
            desk.post("/log/service", bad),
            Status::UnprocessableEntity,
            "{bad}"
        );
    }
    assert_eq!(
        desk.post("/log/service", "hull=none&care=rotary"),
        Status::NotFound
    );
    assert_eq!(count(), before + 1);
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(count(), before);
}

#[test]
fn a_move_is_one_act_and_is_taken_back_as_one() {
    let desk = Desk::demo();
    let rigs = || desk.store.catalogue().unwrap().rigs.len();
    let plans = || {
        let all = desk.store.catalogue().unwrap();
        let hull = all
            .hulls
            .into_iter()
            .find(|h| h.survey.key == "hobrin-cassel");
        hull.unwrap().survey.fitout.modifications.len()
    };
    let (before, planned) = (rigs(), plans());
    let to = "/moving?rig=reed-edge-day&water=marsh";
    let form = "old=fennick-dunmarrow&new=hobrin-cassel";
    assert_eq!(desk.post(to, form), Status::SeeOther);
    assert_eq!((rigs(), plans()), (before + 1, planned + 1));
    // The rig of the old hull stays as it was.
    let all = desk.store.catalogue().unwrap();
    assert!(all.rigs.iter().any(|r| r.key == "reed-edge-day"));
    let made = all
        .rigs
        .iter()
        .find(|r| r.name.ends_with("for the Hobrin Cassel"))
        .unwrap();
    assert!(made.lines.len() > 10);
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!((rigs(), plans()), (before, planned));
    // From a hull that is gone, or onto itself, nothing is moved.
    assert_eq!(
        desk.post(to, "old=none&new=hobrin-cassel"),
        Status::NotFound
    );
    let page = desk.page("/moving?old=hobrin-cassel&new=hobrin-cassel&new=none");
    assert!(!page.contains("moving-one"));
}

#[test]
fn the_next_outing_is_told_for_any_address() {
    let desk = Desk::demo();
    for query in [
        "",
        "?place=none",
        "?day=soon",
        "?day=2026-02-30&hull=none",
        "?place=ommery-reeds&day=2026-06-21&limit=9+m/s",
        "?limit=a+lot",
        "?day=1950-01-01",
        "?day=9999-12-31",
    ] {
        desk.page(&format!("/log/ahead{query}"));
    }
    assert!(
        desk.page("/log/ahead?day=soon")
            .contains("write the day as")
    );
    assert!(desk.page("/log/ahead?limit=a+lot").contains("6 km/h"));
}

#[test]
fn the_log_as_json_comes_back_by_import() {
    let desk = Desk::demo();
    let text = desk.page("/log.json?tracks=yes");
    let empty = Desk::with(&galvet_store::Catalogue {
        sheets: Vec::new(),
        ..galvet::demo_data::catalogue().unwrap()
    });
    let fields = [
        ("text", text.as_str()),
        ("name", "log.json"),
        ("action", "keep"),
    ];
    let (status, page) = empty.send_parts("/import", &fields, None);
    assert_eq!(status, Status::SeeOther, "{page}");
    let (mut a, mut b) = (outings(&desk), outings(&empty));
    a.sort_by(|x, y| x.key.cmp(&y.key));
    b.sort_by(|x, y| x.key.cmp(&y.key));
    assert_eq!((a.len(), &a), (24, &b));
}

#[test]
fn an_outing_whose_rig_is_gone_is_laden_with_no_other() {
    let mut all = galvet::demo_data::catalogue().unwrap();
    let chart = "Load of each outing";
    assert!(Desk::with(&all).page("/log").contains(chart));
    all.rigs.retain(|rig| rig.key == "night-zander");
    all.briefs.clear();
    assert!(!Desk::with(&all).page("/log").contains(chart));
}

#[test]
fn an_empty_log_says_what_will_stand_there() {
    let empty = Desk::with(&galvet_store::Catalogue {
        sheets: Vec::new(),
        ..galvet::demo_data::catalogue().unwrap()
    });
    for path in [
        "/log",
        "/log/new",
        "/log/ahead",
        "/log/service",
        "/log/kit",
        "/log/trust",
        "/moving",
    ] {
        let page = empty.page(path);
        assert!(!page.contains("NaN") && !page.contains("inf "), "{path}");
    }
    assert!(empty.page("/log").contains("No outing is noted yet"));
    assert!(empty.page("/log.ics").contains("BEGIN:VCALENDAR"));
}

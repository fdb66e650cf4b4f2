//! Hulls put in, worked on, walked along, measured afloat, thrown away: the pages
//! in process.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_core::hull::{Construction, Measure, Source, Zone};
use galvet_store::files::hulls::HullRecord;
use rocket::http::{ContentType, Status};
use std::collections::BTreeMap;

fn zones(desk: &Desk, key: &str) -> Vec<Zone> {
    hull(desk, key).unwrap().survey.fitout.zones
}

fn hull(desk: &Desk, key: &str) -> Option<HullRecord> {
    let hulls = desk.store.catalogue().unwrap().hulls;
    hulls.into_iter().find(|h| h.survey.key == key)
}

#[test]
fn a_leaflet_is_floated_as_it_is_typed_and_kept() {
    let desk = Desk::demo();
    let page = desk.page("/new-hull");
    assert!(page.contains("Type the length"), "nothing to float yet");
    assert!(
        !page.contains("a name is needed"),
        "no reproach before a word"
    );
    let typed =
        "hull-model=Tarn+12&hull-length=12'+4%22&hull-beam=86&hull-weight=34&hull-capacity=180";
    let part = desk.page(&format!("/part/new-hull?mass=80&units=metric&{typed}"));
    assert!(part.contains("3.76\u{a0}m = 12"), "what was understood");
    assert!(part.contains("it would come") || part.contains("ruled out for this brief"));
    assert!(part.contains("class=\"profile\""));
    assert!(
        hull(&desk, "tarn-12").is_none(),
        "nothing is kept by looking"
    );
    // A mistake comes back as typed, with everything else.
    let kind = ContentType::Form;
    let wrong = desk.send("/new-hull", kind.clone(), &typed.replace("=86", "=wide"));
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let wrong = wrong.into_string().unwrap();
    assert!(wrong.contains("value=\"wide\"") && wrong.contains("value=\"Tarn 12\""));
    assert_eq!(desk.post("/new-hull", ""), Status::UnprocessableEntity);
    // Kept, under its name; twice, under two.
    let kept = desk.send("/new-hull?mass=80", kind, typed);
    assert_eq!(kept.status(), Status::SeeOther);
    assert_eq!(
        kept.headers().get_one("Location"),
        Some("/hulls/tarn-12?mass=80+kg&units=metric")
    );
    let mine = hull(&desk, "tarn-12").unwrap().survey;
    assert!((mine.value(Measure::Length).unwrap() - 3.7592).abs() < 1e-9);
    assert_eq!(mine.best(Measure::Beam).unwrap().source, Source::Brochure);
    assert_eq!(mine.best(Measure::Beam).unwrap().date.len(), 10);
    assert_eq!(desk.post("/new-hull", typed), Status::SeeOther);
    assert!(hull(&desk, "tarn-12-2").is_some());
    assert!(desk.page("/").contains("/hulls/tarn-12"));
    assert_eq!(desk.undo(), Status::SeeOther);
    assert!(hull(&desk, "tarn-12-2").is_none());
}

#[test]
fn readings_stand_beside_each_other_and_come_off_into_the_history() {
    let desk = Desk::demo();
    let record = "/hulls/tindrel-vaskar/record";
    assert!(desk.page(record).contains("72.5\u{a0}cm"));
    let add = |form: &str| desk.post("/hulls/tindrel-vaskar/readings", form);
    assert_eq!(
        add("measure=beam&value=73.2&source=tape&date=2026-04-12&who=Ana&note=over+the+rail"),
        Status::SeeOther
    );
    let readings =
        |desk: &Desk| hull(desk, "tindrel-vaskar").unwrap().survey.readings[&Measure::Beam].clone();
    let both = readings(&desk);
    assert_eq!(both.len(), 2, "the older one stays");
    assert_eq!((both[1].value, both[1].source), (0.732, Source::Tape));
    assert_eq!(
        (both[1].who.as_str(), both[1].note.as_str()),
        ("Ana", "over the rail")
    );
    let page = desk.page(record);
    assert!(page.contains("tape, 2026-04-12, Ana") && page.contains("beam noted"));
    // Wrong ones come back as typed.
    for (form, said) in [
        ("measure=beam&value=9+m&source=tape", "must lie between"),
        ("measure=beam&value=70&source=rumour", "rumour"),
        (
            "measure=beam&value=70&source=tape&date=12.4.2026",
            "is no day",
        ),
    ] {
        let answer = desk.send("/hulls/tindrel-vaskar/readings", ContentType::Form, form);
        assert_eq!(answer.status(), Status::UnprocessableEntity, "{form}");
        assert!(answer.into_string().unwrap().contains(said), "{form}");
    }
    assert_eq!(add("measure=girth&value=1&source=tape"), Status::NotFound);
    // One comes off by all it says; the other stays; undo brings it back.
    let name = format!(
        "{:?}",
        (
            0.732,
            "tape",
            "2026-04-12",
            "Ana",
            "over the rail",
            None::<f64>
        )
    );
    let form = [("measure", "beam"), ("reading", &name)];
    let body = form
        .map(|(n, v)| format!("{n}={}", rocket::http::RawStr::new(v).percent_encode()))
        .join("&");
    assert_eq!(
        desk.post("/hulls/tindrel-vaskar/readings/off", &body),
        Status::SeeOther
    );
    assert_eq!(readings(&desk).len(), 1);
    assert_eq!(
        desk.post("/hulls/tindrel-vaskar/readings/off", &body),
        Status::UnprocessableEntity
    );
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(readings(&desk), both);
    // Back to how it was put in.
    assert_eq!(
        desk.post("/hulls/tindrel-vaskar/back", "revision=1"),
        Status::SeeOther
    );
    assert_eq!(readings(&desk).len(), 1);
    assert_eq!(
        desk.post("/hulls/tindrel-vaskar/back", "revision=99"),
        Status::UnprocessableEntity
    );
    assert_eq!(
        desk.post("/hulls/none/back", "revision=1"),
        Status::NotFound
    );
}

/// The words of a record as its form would send them, some changed.
fn words(page: &str, changed: &[(&str, &str)]) -> String {
    let form = page.split("class=\"words-form\"").nth(1).unwrap();
    let shown = form.split("name=\"shown\" value=\"").nth(1).unwrap();
    let shown = shown.split('"').next().unwrap().replace("&#34;", "\"");
    let mut out: BTreeMap<String, String> = serde_json::from_str(&shown).unwrap();
    out.insert("shown".to_owned(), shown);
    for (name, value) in changed {
        out.insert((*name).to_owned(), (*value).to_owned());
    }
    let encode = |text: &str| rocket::http::RawStr::new(text).percent_encode().to_string();
    let pairs = out.iter().map(|(n, v)| format!("{n}={}", encode(v)));
    pairs.collect::<Vec<_>>().join("&")
}

#[test]
fn two_people_who_change_different_words_both_keep_theirs() {
    let desk = Desk::demo();
    let record = "/hulls/tindrel-vaskar/record";
    let before = hull(&desk, "tindrel-vaskar").unwrap().survey;
    let page = desk.page(record);
    let (mine, theirs) = (
        words(&page, &[("notes", "keel guard fitted"), ("seats", "2")]),
        words(&page, &[("model", "Vaskar II")]),
    );
    let post = |form: &str| desk.post("/hulls/tindrel-vaskar/words", form);
    assert_eq!(post(&theirs), Status::SeeOther);
    assert_eq!(post(&mine), Status::SeeOther);
    let now = hull(&desk, "tindrel-vaskar").unwrap().survey;
    assert_eq!((now.model.as_str(), now.seats), ("Vaskar II", 2));
    assert_eq!(now.notes, "keel guard fitted");
    assert_eq!(now.construction, before.construction);
    // The same word changed twice is told, and mine is not lost.
    let clash = words(&page, &[("model", "Vaskar Sport"), ("notes", "blue")]);
    let answer = desk.send("/hulls/tindrel-vaskar/words", ContentType::Form, &clash);
    assert_eq!(answer.status(), Status::UnprocessableEntity);
    let said = answer.into_string().unwrap();
    assert!(said.contains("somebody else changed") && said.contains("Vaskar II"));
    assert!(said.contains("value=\"Vaskar Sport\"") && said.contains("blue</textarea>"));
    // A form sent without a change leaves no line in the history.
    let changes = desk.store.state().unwrap();
    let same = words(&desk.page(record), &[]);
    assert_eq!(post(&same), Status::SeeOther);
    assert_eq!(desk.store.state().unwrap(), changes);
    // What makes no sense changes nothing.
    for (name, value) in [
        ("seats", "9"),
        ("year", "soon"),
        ("construction", "raft"),
        ("model", " "),
    ] {
        let form = words(&desk.page(record), &[(name, value), ("notes", "not kept")]);
        assert_eq!(post(&form), Status::UnprocessableEntity, "{name}");
    }
    assert_eq!(hull(&desk, "tindrel-vaskar").unwrap().survey, now);
}

#[test]
fn what_is_thrown_away_comes_out_of_the_trash() {
    let desk = Desk::demo();
    assert!(desk.page("/trash").contains("Nothing lies in the trash"));
    let before = hull(&desk, "quarnel-pipkin").unwrap();
    assert_eq!(
        desk.post("/hulls/quarnel-pipkin/throw-away", ""),
        Status::SeeOther
    );
    assert!(hull(&desk, "quarnel-pipkin").is_none());
    assert_eq!(
        desk.ask("/hulls/quarnel-pipkin/record").status(),
        Status::NotFound
    );
    assert!(desk.page("/hulls").contains("1 in the trash"));
    let page = desk.page("/trash");
    assert!(page.contains(&before.survey.name()));
    let id = page
        .split("name=\"id\" value=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap();
    let form = format!("kind=hull&id={id}&back=/trash");
    assert_eq!(desk.post("/trash", &form), Status::SeeOther);
    assert_eq!(hull(&desk, "quarnel-pipkin").unwrap(), before);
    // Again, or something that never was there, changes nothing.
    assert_eq!(desk.post("/trash", &form), Status::SeeOther);
}

#[test]
fn hulls_are_found_sifted_and_sorted() {
    let desk = Desk::demo();
    let keys = |query: &str| -> Vec<String> {
        let page = desk.page(&format!("/hulls?{query}"));
        let lines = page.split("data-hull=\"").skip(1);
        lines
            .map(|l| l.split('"').next().unwrap().to_owned())
            .collect()
    };
    let all = desk.store.catalogue().unwrap().hulls;
    assert_eq!(keys("").len(), all.len());
    assert_eq!(
        keys("find=VASKAR&sort=name"),
        ["tindrel-vaskar", "tindrel-vaskar-fin"]
    );
    assert!(keys("find=no+such+hull").is_empty());
    let boards = all
        .iter()
        .filter(|h| h.survey.construction == Construction::Board);
    assert_eq!(keys("build=board").len(), boards.count());
    // In the order of the ranking, those ruled out below.
    let json: serde_json::Value = serde_json::from_str(&desk.page("/ranking.json")).unwrap();
    let ranked = |list: &str| -> Vec<String> {
        let all = json[list].as_array().unwrap().iter();
        all.map(|e| e["hull"].as_str().unwrap().to_owned())
            .collect()
    };
    assert_eq!(keys(""), [ranked("ranked"), ranked("ruled_out")].concat());
    assert_eq!(keys("fits=yes"), ranked("ranked"));
    let length = |key: &String| {
        let hull = all.iter().find(|h| &h.survey.key == key).unwrap();
        hull.survey.value(Measure::Length)
    };
    let lengths: Vec<Option<f64>> = keys("sort=length").iter().map(length).collect();
    let known: Vec<f64> = lengths.iter().flatten().copied().collect();
    assert!(known.is_sorted());
    assert!(
        lengths[known.len()..].iter().all(Option::is_none),
        "unknown ones last"
    );
    assert_eq!(keys("sort=nonsense"), keys(""));
}

#[test]
fn a_tilt_test_narrows_the_range_and_is_taken_back() {
    let desk = Desk::demo();
    let address = "/hulls/fennick-dunmarrow/afloat";
    assert!(desk.page(address).contains("Tilt test"));
    let typed = |heel: &str| {
        let shift =
            |n: u8, way: i32, heel: &str| format!("&moved-{n}=15&way-{n}={way}&heel-{n}={heel}");
        format!(
            "test=tilt&aboard=80&aboard-place=54&aboard-height=35&hull-mass=50&water-kind=fresh&scuppers-state=open{}{}{}",
            shift(1, 30, heel),
            shift(2, -30, &format!("-{heel}")),
            shift(3, 20, &format!("{}", heel.parse::<f64>().unwrap() / 2.0)),
        )
    };
    let gm = |desk: &Desk| -> Vec<f64> {
        let json: serde_json::Value =
            serde_json::from_str(&desk.page("/ranking.json?posture=sits")).unwrap();
        let all = json["ranked"]
            .as_array()
            .unwrap()
            .iter()
            .chain(json["ruled_out"].as_array().unwrap());
        let mine = all
            .into_iter()
            .find(|e| e["hull"] == "fennick-dunmarrow")
            .unwrap();
        let range = &mine["ranges"]["gm_m"];
        let range = range.get("range").unwrap_or(range);
        range
            .as_array()
            .unwrap()
            .iter()
            .filter_map(serde_json::Value::as_f64)
            .collect()
    };
    let before = gm(&desk);
    // Looked at: the page says what it would change, and nothing is kept.
    let look = desk.send(
        address,
        ContentType::Form,
        &format!("{}&action=look", typed("6")),
    );
    assert_eq!(look.status(), Status::Ok);
    let page = look.into_string().unwrap();
    assert!(page.contains("What this measurement would change") && page.contains("narrower"));
    assert!(page.contains("value=\"80\""), "as typed");
    assert_eq!(gm(&desk), before);
    let look = desk.send(address, ContentType::Form, &typed("14"));
    assert!(
        look.into_string().unwrap().contains("the angles are large"),
        "a bad test is told"
    );
    // Kept: the range of GM is two thirds of what it was at most.
    assert_eq!(
        desk.post(address, &format!("{}&action=keep", typed("6"))),
        Status::SeeOther
    );
    let after = gm(&desk);
    assert!(
        after[2] - after[0] < 0.65 * (before[2] - before[0]),
        "{before:?} {after:?}"
    );
    let page = desk.page(address);
    assert!(page.contains("What was measured afloat changes"));
    // Taken back, it is as before; a second time it is not there.
    let text = page
        .split("name=\"text\" value=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap();
    let form = format!(
        "at=0&text={}",
        rocket::http::RawStr::new(text).percent_encode()
    );
    assert_eq!(
        desk.post(&format!("{address}/back"), &form),
        Status::SeeOther
    );
    assert_eq!(gm(&desk), before);
    assert_eq!(
        desk.post(&format!("{address}/back"), &form),
        Status::UnprocessableEntity
    );
    // What is not understood comes back.
    let wrong = desk.send(address, ContentType::Form, &typed("40"));
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let wrong = wrong.into_string().unwrap();
    assert!(
        wrong.contains("between -25 and 25°, not 40") && wrong.contains("value=\"40\""),
        "{wrong}"
    );
    assert_eq!(desk.post(address, "test=juggling"), Status::NotFound);
}

#[test]
fn the_walk_goes_from_zone_to_zone_and_resumes_where_it_stopped() {
    let desk = Desk::demo();
    let page = desk.page("/hulls/pellune-rusko/walk");
    assert!(page.contains("0 of ") && page.contains("guessed from its length and beam"));
    let at = |page: &str| {
        let after = page.split("id=\"here-title\">").nth(1).unwrap();
        after.split('<').next().unwrap().to_owned()
    };
    let first = at(&page);
    let encoded = rocket::http::RawStr::new(&first)
        .percent_encode()
        .to_string();
    let next = page
        .split("name=\"next\" value=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap();
    let form = |from: &str| {
        format!(
            "from={from}&to=0.44&width=22&height=&opening=&dryness=open&reach=ashore-only&non-slip=no&next={}",
            next.replace(' ', "+")
        )
    };
    let address = format!("/hulls/pellune-rusko/walk?zone={encoded}");
    // A mistake comes back as typed, at its field.
    let wrong = desk.send(&address, ContentType::Form, &form("near"));
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let wrong = wrong.into_string().unwrap();
    assert!(wrong.contains("value=\"near\"") && wrong.contains("id=\"z-from-said\""));
    assert!(zones(&desk, "pellune-rusko").is_empty());
    // Kept, and on to the next; come back, the walk resumes there.
    let kept = desk.send(&address, ContentType::Form, &form("0.1"));
    assert_eq!(kept.status(), Status::SeeOther);
    assert!(
        kept.headers()
            .get_one("Location")
            .unwrap()
            .contains("zone=")
    );
    let kept = zones(&desk, "pellune-rusko");
    assert_eq!(kept.len(), 1);
    assert_eq!(
        (kept[0].name.as_str(), kept[0].from, kept[0].width),
        (first.as_str(), 0.1, 0.22)
    );
    assert_eq!(
        (kept[0].source, kept[0].non_slip),
        (Source::Tape, Some(false))
    );
    assert_eq!(at(&desk.page("/hulls/pellune-rusko/walk")), next);
    // From the stern it begins at the other end.
    let stern = at(&desk.page("/hulls/pellune-rusko/walk?end=stern"));
    assert!(stern != first && stern != next, "{stern}");
    // Off again: a guess as before. And undone.
    assert_eq!(desk.post(&address, "action=forget"), Status::SeeOther);
    assert!(zones(&desk, "pellune-rusko").is_empty());
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(zones(&desk, "pellune-rusko"), kept);
    // Nothing to walk along without length or beam; nobody there, no page.
    assert!(
        desk.page("/hulls/hobrin-wendle/walk")
            .contains("length and beam")
    );
    assert_eq!(desk.ask("/hulls/none/walk").status(), Status::NotFound);
    assert_eq!(
        desk.post("/hulls/pellune-rusko/walk?zone=attic", "from=1"),
        Status::NotFound
    );
}

#[test]
fn a_long_history_is_told_in_pages() {
    let desk = Desk::demo();
    let at = "/hulls/tindrel-vaskar/record";
    for n in 0..45 {
        let form = format!("measure=price&value={}&source=seller", 900 + n);
        let done = desk.post("/hulls/tindrel-vaskar/readings", &form);
        assert_eq!(done, Status::SeeOther);
    }
    let changes = |page: &str| page.matches("name=\"revision\"").count();
    let first = desk.page(at);
    // The first one shown is how it stands: nothing to go back to.
    assert_eq!(changes(&first), 39);
    let mut links = first.split("href=\"").filter_map(|l| l.split('"').next());
    let link = links.find(|l| l.contains(";older=")).unwrap();
    let link = link.replace("&#38;", "&");
    let rest = desk.page(link.split('#').next().unwrap());
    // Six more: forty-five readings, and how it was put in.
    assert_eq!(changes(&rest), 6);
    assert!(!rest.contains("older=4"));
}

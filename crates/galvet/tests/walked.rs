//! A hull walked along: fittings, judgements, changes, lines, the card; ways and
//! hulls side by side.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet::web::{Access, Settings, build};
use galvet_core::base::System;
use galvet_core::hull::{BottomShape, FittingKind, Judgement, Progress, Source, Survey};
use rocket::http::{ContentType, Header, Status};
use rocket::local::blocking::Client;
use std::sync::Arc;

fn survey(desk: &Desk, key: &str) -> Survey {
    let hulls = desk.store.catalogue().unwrap().hulls;
    let mut hulls = hulls.into_iter().map(|h| h.survey);
    hulls.find(|s| s.key == key).unwrap()
}

/// Takes back the last change.
fn undo(desk: &Desk) {
    assert_eq!(desk.undo(), Status::SeeOther);
}

#[test]
fn fittings_go_on_in_pairs_are_changed_and_undone() {
    let desk = Desk::demo();
    let at = "/hulls/pellune-rusko/fittings";
    assert!(desk.page(at).contains("0 on the record"));
    let form = desk.page(&format!("{at}?add=track"));
    assert!(form.contains("the same on the other side") && form.contains("usable length"));
    // A mistake comes back as typed, at its field.
    let wrong = desk.send(
        &format!("{at}?add=track"),
        ContentType::Form,
        "x=1.5&y=-38&length=long&both=yes",
    );
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let wrong = wrong.into_string().unwrap();
    assert!(wrong.contains("value=\"long\"") && wrong.contains("id=\"f-length-said\""));
    assert!(survey(&desk, "pellune-rusko").fitout.is_empty());
    let put = desk.post(&format!("{at}?add=track"), "x=1.5&y=-38&length=40&both=yes");
    assert_eq!(put, Status::SeeOther);
    let on = survey(&desk, "pellune-rusko").fitout.fittings;
    let sides: Vec<(&str, f64)> = on.iter().map(|f| (f.name.as_str(), f.y)).collect();
    assert_eq!(sides, [("port track", -0.38), ("starboard track", 0.38)]);
    let page = desk.page(&format!("{at}?at=port%20track"));
    assert!(
        page.contains("fitting-here") && page.contains("value=\"−38.0\u{a0}cm\""),
        "{page}"
    );
    let moved = desk.post(&format!("{at}?at=port%20track"), "x=1.62&y=-38&length=40");
    assert_eq!(moved, Status::SeeOther);
    let track = |desk: &Desk| {
        let on = survey(desk, "pellune-rusko").fitout.fittings;
        on.into_iter().find(|f| f.name == "port track").unwrap().x
    };
    assert_eq!(track(&desk), 1.62);
    undo(&desk);
    assert_eq!(track(&desk), 1.5);
    let off = desk.post(&format!("{at}?at=port%20track"), "action=forget");
    assert_eq!(off, Status::SeeOther);
    assert_eq!(survey(&desk, "pellune-rusko").fitout.fittings.len(), 1);
    // A scupper put on shut is shut for the question that goes by them.
    let scupper = "x=1.4&y=15&recess=cockpit&diameter=3.2&state=plugged";
    assert_eq!(
        desk.post(&format!("{at}?add=scupper"), scupper),
        Status::SeeOther
    );
    let on = survey(&desk, "pellune-rusko").fitout.fittings;
    assert!(
        on.iter()
            .any(|f| matches!(f.kind, FittingKind::Scupper { .. }))
    );
    assert_eq!(
        desk.post(&format!("{at}?add=anvil"), "x=1"),
        Status::UnprocessableEntity
    );
    assert_eq!(
        desk.post("/hulls/nobody/fittings?add=track", "x=1"),
        Status::NotFound
    );
}

#[test]
fn judgements_are_kept_and_taken_back() {
    let desk = Desk::demo();
    let at = "/hulls/pellune-rusko/comfort";
    assert!(desk.page(at).contains("0 of 13 judged"));
    assert_eq!(
        desk.post(at, "backrest=high&snag=few&action=draft"),
        Status::SeeOther
    );
    let judged = survey(&desk, "pellune-rusko").looked.judged;
    assert_eq!(judged[&Judgement::Backrest], "high");
    assert_eq!(judged.len(), 2);
    // What is not sent stays; an empty answer takes it off.
    assert_eq!(desk.post(at, "backrest="), Status::SeeOther);
    assert_eq!(survey(&desk, "pellune-rusko").looked.judged.len(), 1);
    assert_eq!(
        desk.post(at, "backrest=golden"),
        Status::UnprocessableEntity
    );
    undo(&desk);
    assert_eq!(survey(&desk, "pellune-rusko").looked.judged.len(), 2);
}

#[test]
fn what_she_has_not_is_asked_no_more() {
    let desk = Desk::demo();
    let at = "/hulls/pellune-rusko/walk";
    let absent = desk.post(&format!("{at}?zone=centre%20console"), "action=absent");
    assert_eq!(absent, Status::SeeOther);
    let page = desk.page(at);
    assert!(page.contains("centre console: it has one after all"));
    assert!(!page.contains("zone=centre+console\">centre console</a>"));
    let back = desk.post(&format!("{at}/there?zone=centre%20console"), "");
    assert_eq!(back, Status::SeeOther);
    assert!(survey(&desk, "pellune-rusko").looked.absent.is_empty());
    // What is typed on the way is kept as begun, not as measured.
    let begun = "action=draft&from=2.2&to=2.9&width=41&height=&dryness=open&reach=turning";
    let kept = desk.post(&format!("{at}?zone=tank%20well"), begun);
    assert_eq!(kept, Status::SeeOther);
    let zones = survey(&desk, "pellune-rusko").fitout.zones;
    assert_eq!((zones[0].to, zones[0].source), (2.9, Source::Guess));
    assert!(desk.page(at).contains("0 of 9 places measured"));
    let kept = desk.post(
        &format!("{at}?zone=tank%20well"),
        &begun.replace("draft", "keep"),
    );
    assert_eq!(kept, Status::SeeOther);
    assert_eq!(
        survey(&desk, "pellune-rusko").fitout.zones[0].source,
        Source::Tape
    );
}

#[test]
fn a_change_is_planned_compared_done_and_undone() {
    let desk = Desk::demo();
    let at = "/hulls/quarnel-sprannet/changes";
    let page = desk.page(at);
    assert!(page.contains("as delivered") && page.contains("with larger stern hatch"));
    let form = "name=battery+shelf&mass=1.5+kg&x=2.4&z=20&holes=4&price=22&undoable=yes";
    assert_eq!(desk.post(&format!("{at}?change="), form), Status::SeeOther);
    let page = desk.page(at);
    assert!(page.contains("with battery shelf") && page.contains("1.5\u{a0}kg, 4 holes, 22"));
    // A track it adds hangs on it, not on it as delivered.
    let adds = "/hulls/quarnel-sprannet/fittings?add=track&change=battery%20shelf";
    assert_eq!(desk.post(adds, "x=2.3&y=-20&length=20"), Status::SeeOther);
    let fitout = survey(&desk, "quarnel-sprannet").fitout;
    let named = |m: &&galvet_core::hull::Modification| m.name == "battery shelf";
    assert_eq!(
        fitout
            .modifications
            .iter()
            .find(named)
            .unwrap()
            .fittings
            .len(),
        1
    );
    let page = desk.page("/hulls/quarnel-sprannet/fittings?change=battery%20shelf");
    assert!(page.contains("“battery shelf” adds") && page.contains("1 on the record"));
    let done = desk.post(&format!("{at}?change=battery%20shelf"), "action=done");
    assert_eq!(done, Status::SeeOther);
    let state = |desk: &Desk| {
        let all = survey(desk, "quarnel-sprannet").fitout.modifications;
        all.into_iter()
            .find(|m| m.name == "battery shelf")
            .unwrap()
            .progress
    };
    assert_eq!(state(&desk), Progress::Done);
    let page = desk.page(at);
    assert!(page.contains("as it stands") && page.contains("Back to stock: undo battery shelf"));
    // Its weight is in the figures of the page itself: 1.5 kg less in hand.
    let margin = |page: &str| -> Vec<f64> {
        let row = page.split("label margin").nth(1).unwrap();
        let row = row.split("</tr>").next().unwrap();
        let cells = row.split("figure-value\">").skip(1);
        cells
            .map(|cell| cell.split('\u{a0}').next().unwrap().parse().unwrap())
            .collect()
    };
    let told = margin(&page);
    assert!((1.0..=2.0).contains(&(told[0] - told[1])), "{told:?}");
    undo(&desk);
    assert_eq!(state(&desk), Progress::Planned);
    // Mistakes, and what it has not.
    let nameless = desk.post(&format!("{at}?change="), "name=&x=1");
    assert_eq!(nameless, Status::UnprocessableEntity);
    let gold = desk.post(&format!("{at}?change="), "name=a&x=1&removes-gold+bar=yes");
    assert_eq!(gold, Status::UnprocessableEntity);
    let set_up =
        "name=paddled&seats=1&propulsion=paddle&seat=low&seat-used=only&with-battery+shelf=yes";
    assert_eq!(
        desk.post(&format!("{at}?set_up="), set_up),
        Status::SeeOther
    );
    assert_eq!(
        survey(&desk, "quarnel-sprannet")
            .fitout
            .configurations
            .len(),
        1
    );
    // A configuration that names it lets it go with it.
    let off = desk.post(&format!("{at}?change=battery%20shelf"), "action=forget");
    assert_eq!(off, Status::SeeOther);
    let fitout = survey(&desk, "quarnel-sprannet").fitout;
    assert!(fitout.configurations[0].modifications.is_empty());
}

#[test]
fn measured_sections_are_put_on_looked_at_and_taken_off() {
    let desk = Desk::demo();
    let at = "/hulls/pellune-rusko/lines";
    assert!(desk.page(at).contains("Estimated from its record"));
    let send = |action: &str, text: &str| {
        let part = |name: &str, value: &str| {
            format!("--x\r\nContent-Disposition: form-data; name=\"{name}\"\r\n\r\n{value}\r\n")
        };
        let body = format!("{}{}--x--\r\n", part("text", text), part("action", action));
        let kind = ContentType::new("multipart", "form-data").with_params(("boundary", "x"));
        let answer = desk.send(at, kind, &body);
        (answer.status(), answer.into_string().unwrap_or_default())
    };
    let (status, page) = send(
        "keep",
        "station_m,half_breadth_m,height_m\n0,0,0\n0,wide,0.1\n0,0,0.3\n",
    );
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(
        page.contains("line 3") && page.contains("0,wide,0.1"),
        "{page}"
    );
    let csv = desk.page("/hulls/velmoor-oskarin-wide/offsets.csv");
    assert_eq!(send("keep", &csv).0, Status::SeeOther);
    let stations = survey(&desk, "pellune-rusko").offsets.len();
    assert_eq!(
        stations,
        survey(&desk, "velmoor-oskarin-wide").offsets.len()
    );
    let page = desk.page(at);
    assert!(
        page.contains(&format!("{stations} sections, 3.30\u{a0}m long")),
        "{page}"
    );
    // Ranked from them: the hull page says so.
    assert!(
        desk.page("/hulls/pellune-rusko")
            .contains("Drawn from its measured sections")
    );
    assert_eq!(send("forget", "").0, Status::SeeOther);
    assert!(survey(&desk, "pellune-rusko").offsets.is_empty());
    undo(&desk);
    assert_eq!(survey(&desk, "pellune-rusko").offsets.len(), stations);
}

#[test]
fn an_odd_figure_kept_anyway_is_not_asked_about_again() {
    let desk = Desk::demo();
    let at = "/hulls/hobrin-cassel/record";
    let odd = survey(&desk, "hobrin-cassel").findings();
    let odd = odd.into_iter().find(|f| f.contradiction).unwrap().text;
    let encoded = rocket::http::RawStr::new(&odd).percent_encode().to_string();
    let keep = format!("finding={encoded}&who=Ana&why=weighed+twice");
    assert_eq!(
        desk.post("/hulls/hobrin-cassel/stand-by", &keep),
        Status::SeeOther
    );
    let now = survey(&desk, "hobrin-cassel");
    assert!(!now.findings().iter().any(|f| f.text == odd));
    assert_eq!(now.stood_by().len(), 1);
    assert!(desk.page(at).contains("kept by Ana"));
    // Twice is not found odd any more; doubted again it is.
    assert_eq!(
        desk.post("/hulls/hobrin-cassel/stand-by", &keep),
        Status::UnprocessableEntity
    );
    let doubt = format!("finding={encoded}");
    assert_eq!(
        desk.post("/hulls/hobrin-cassel/doubt", &doubt),
        Status::SeeOther
    );
    assert!(
        survey(&desk, "hobrin-cassel")
            .findings()
            .iter()
            .any(|f| f.text == odd)
    );
}

#[test]
fn hulls_are_found_by_size_and_stand_side_by_side() {
    let desk = Desk::demo();
    let count = |query: &str| {
        desk.page(&format!("/hulls?{query}"))
            .matches("data-hull=")
            .count()
    };
    let all = count("");
    let fit = |pass: &dyn Fn(&Survey) -> bool| {
        let hulls = desk.store.catalogue().unwrap().hulls;
        hulls.iter().filter(|h| pass(&h.survey)).count()
    };
    use galvet_core::hull::Measure as M;
    let short = fit(&|s| s.value(M::Length).is_some_and(|l| l <= 3.2));
    assert!(short > 0 && short < all);
    assert_eq!(count("longest=3.2+m"), short);
    assert_eq!(
        count("longest=126+in"),
        fit(&|s| s.value(M::Length).is_some_and(|l| l <= 3.2004))
    );
    assert_eq!(count("seats=2"), fit(&|s| s.seats == 2));
    let cheap = fit(&|s| s.value(M::Price).is_some_and(|p| p <= 900.0));
    assert_eq!(count("dearest=900"), cheap);
    let wrong = desk.page("/hulls?heaviest=a+lot");
    assert!(wrong.contains("id=\"heaviest-said\""));
    assert_eq!(wrong.matches("data-hull=").count(), all);
    let page =
        desk.page("/compare?hull=fennick-dunmarrow&hull=quarnel-pipkin&hull=nobody&mass=95+kg&posture=sits&water=pond");
    assert!(page.contains("Fennick Dunmarrow") && page.contains("Quarnel Pipkin"));
    assert!(page.contains("95\u{a0}kg") && page.contains("beside-mark\">best"));
    // A hull that cannot be floated keeps its column, and what is ruled out is
    // not praised.
    let page = desk.page("/compare?hull=hobrin-wendle&hull=fennick-dunmarrow&hull=quarnel-pipkin");
    let figures = page.split("<tr>").skip(8);
    for row in figures.clone() {
        assert_eq!(row.matches("<td").count(), 3, "{row}");
    }
    // Its price and weight are known all the same.
    assert!(
        figures
            .clone()
            .skip(15)
            .any(|row| !row.contains("not known"))
    );
    for row in figures.take(15) {
        assert!(row.contains("absent\">not known</td>"), "{row}");
    }
    assert!(page.matches("beside-out").count() == 2, "{page}");
    let praised = |column: usize| {
        let rows = page.split("<tr>").skip(4);
        rows.filter_map(|row| row.split("<td").nth(column + 1))
            .any(|cell| cell.contains("beside-mark"))
    };
    assert!(praised(1) && !praised(0) && !praised(2));
    assert!(
        desk.page("/compare")
            .contains("Put two to four hulls beside each other")
    );
    let keys = ["a", "b", "c", "d", "e"]
        .iter()
        .zip(desk.store.catalogue().unwrap().hulls);
    let five: Vec<String> = keys
        .map(|(_, h)| format!("hull={}", h.survey.key))
        .collect();
    assert!(
        desk.page(&format!("/compare?{}", five.join("&")))
            .contains("1 more were ticked")
    );
}

#[test]
fn every_hull_has_a_card_and_all_her_pages() {
    let desk = Desk::demo();
    for hull in desk.store.catalogue().unwrap().hulls {
        for page in [
            "card", "walk", "fittings", "comfort", "changes", "lines", "record",
        ] {
            let text = desk.page(&format!("/hulls/{}/{page}", hull.survey.key));
            assert!(
                !text.contains("NaN") && !text.contains("inf\u{a0}"),
                "{page}"
            );
        }
    }
    let card = desk.page("/hulls/pellune-rusko/card");
    assert!(card.contains("guessed ") && card.contains("card-open"));
    assert_eq!(desk.ask("/hulls/nobody/card").status(), Status::NotFound);
}

#[test]
fn in_bright_sun_the_look_is_remembered() {
    let desk = Desk::demo();
    assert!(!desk.page("/hulls").contains("data-look"));
    assert_eq!(
        desk.post("/settings/sunlight", "sunlight=on&back=/hulls"),
        Status::SeeOther
    );
    assert!(desk.page("/").contains("data-look=\"sunlight\""));
    assert_eq!(
        desk.post("/settings/sunlight", "sunlight=off&back=/"),
        Status::SeeOther
    );
    assert!(!desk.page("/").contains("data-look"));
}

#[test]
fn simulated_devices_stand_in_only_in_a_demo() {
    let real = Desk::demo();
    let weigh = "/hulls/fennick-dunmarrow/weigh";
    assert_eq!(real.post(weigh, "measure=fitted_weight"), Status::NotFound);
    assert!(
        !real
            .page("/hulls/fennick-dunmarrow/record")
            .contains("simulated")
    );
    assert!(
        !real
            .page("/hulls/fennick-dunmarrow/afloat")
            .contains("simulated")
    );
    let rocket = build(Settings {
        listen: ([127, 0, 0, 1], 0).into(),
        hosts: Vec::new(),
        units: System::Metric,
        memory: galvet::answer::BUDGET,
        guides: Arc::default(),
        access: Access::Here,
        store: real.store.clone(),
        throw_away: true,
    })
    .unwrap();
    let demo = Client::tracked(rocket).unwrap();
    let send = |path: &str, body: &str| {
        demo.post(path.to_owned())
            .header(Header::new("Host", "localhost"))
            .header(Header::new("Sec-Fetch-Site", "same-origin"))
            .header(ContentType::Form)
            .body(body)
            .dispatch()
            .into_string()
            .unwrap_or_default()
    };
    send(weigh, "measure=fitted_weight");
    let readings = &survey(&real, "fennick-dunmarrow").readings;
    let all = &readings[&galvet_core::hull::Measure::FittedWeight];
    let shown = all
        .iter()
        .find(|r| r.note.starts_with("simulated scale"))
        .unwrap();
    // It weighs 50 kg on the record.
    assert!((shown.value - 50.0).abs() < 1.5, "{shown:?}");
    let page = send(
        "/hulls/fennick-dunmarrow/afloat",
        "test=tilt&action=meter&moved-1=10&way-1=0.3+m&hull-mass=50",
    );
    assert!(page.contains("simulated tilt meter") && page.contains("made up"));
    let heel = page.split("name=\"heel-1\" value=\"").nth(1).unwrap();
    let heel: f64 = heel.split('"').next().unwrap().parse().unwrap();
    // 10 kg moved by 0.3 m on some 170 kg with a GM of 0.2 to 0.4 m.
    assert!((2.0..=6.0).contains(&heel), "{heel}");
}

#[test]
fn a_bottom_pointed_at_is_kept_and_one_stays_where_one_was() {
    let desk = Desk::demo();
    let path = "/hulls/pellune-anneth/walk";
    let page = desk.page(path);
    assert!(page.contains("which of these?"), "no bottoms to point at");
    let hull = |desk: &Desk| {
        let all = desk.store.catalogue().unwrap().hulls;
        let mut all = all.into_iter();
        all.find(|h| h.survey.key == "pellune-anneth").unwrap()
    };
    let before = hull(&desk);
    let body = format!("shown=%7B%7D&bottom=tunnel&back={path}");
    let answer = desk.send("/hulls/pellune-anneth/words", ContentType::Form, &body);
    assert_eq!(answer.headers().get_one("Location"), Some(path));
    // Nothing else was typed, nothing else is changed.
    let mut after = hull(&desk);
    assert_eq!(after.survey.bottom, Some(BottomShape::Tunnel));
    after.survey.bottom = before.survey.bottom;
    assert_eq!(after, before);
    assert!(!desk.page(path).contains("which of these?"));
    // Nobody is led to another site.
    let away = "shown=%7B%22bottom%22:%22tunnel%22%7D&bottom=flat&back=//elsewhere.example/";
    let answer = desk.send("/hulls/pellune-anneth/words", ContentType::Form, away);
    assert_eq!(answer.headers().get_one("Location"), Some("/"));
}

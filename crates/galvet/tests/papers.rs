//! Papers: each of every demo hull and rig, what is ticked, what is handed out.

use crate::desk::Desk;

use galvet::answer::{Desk as Answers, Hull};
use galvet::demo_data;
use galvet::question::Ask;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_core::papers::{Facts, Leg, job_sheet, shopping, strip};
use rocket::http::{ContentType, Status};
use scraper::{Html, Selector};
use std::collections::BTreeSet;
use std::sync::Arc;

const KINDS: [&str; 13] = [
    "loading",
    "buying",
    "shopping",
    "quote",
    "rigging",
    "stock",
    "transport",
    "strip",
    "launch",
    "surf",
    "return",
    "service",
    "event",
];

/// Does something with every hull that floats, under every rig of the demo.
fn each(mut act: impl FnMut(&str, &Facts<'_>)) {
    let catalogue = demo_data::catalogue().unwrap();
    let desk = Answers::remembering(Arc::new(Guides::default()), 1 << 26);
    let mut seen = 0;
    for rig in &catalogue.rigs {
        for water in ["marsh", "surf"] {
            let ask = Ask::of([("rig", rig.key.clone()), ("water", water.to_owned())].into_iter());
            let asked = ask.resolve(&catalogue).map_err(|_| "no question").unwrap();
            for record in &catalogue.hulls {
                let hull = Hull {
                    known: None,
                    survey: Arc::new(record.survey.clone()),
                };
                let Ok(afloat) = desk.afloat(&hull, &asked.brief) else {
                    continue;
                };
                let name = format!("{} with {} on {water}", record.survey.key, rig.key);
                act(
                    &name,
                    &Facts::of(&afloat.assessment, &asked.brief, System::Metric),
                );
                seen += 1;
            }
        }
    }
    assert!(seen > 150, "{seen}");
}

#[test]
fn lists_stand_in_an_order_that_works_on_every_hull_with_every_rig() {
    each(|name, facts| {
        // What comes off: each thing once, and never from under what still lies there.
        for leg in [Leg::Road, Leg::Surf] {
            let off = strip(facts, leg).steps;
            let mut gone = BTreeSet::new();
            for step in &off {
                for over in &step.after {
                    assert!(gone.contains(over), "{name}: {} under {over}", step.item);
                }
                gone.insert(step.item.clone());
            }
            let numbers: Vec<usize> = off.iter().filter_map(|s| s.number).collect();
            let once: BTreeSet<usize> = numbers.iter().copied().collect();
            assert_eq!(once.len(), numbers.len(), "{name}");
            assert!(
                off.iter().all(|s| s.minutes > 0.0 && s.minutes < 60.0),
                "{name}"
            );
        }
        // A job: each step once, nothing before what it waits for.
        let sheet = job_sheet(facts);
        let ids: Vec<&str> = sheet.steps.iter().map(|s| s.id.as_str()).collect();
        let once: BTreeSet<&str> = ids.iter().copied().collect();
        assert_eq!(once.len(), ids.len(), "{name}");
        for (n, step) in sheet.steps.iter().enumerate() {
            for wait in &step.waits {
                let at = ids.iter().position(|id| id == wait);
                assert!(
                    at.is_none_or(|at| at < n),
                    "{name}: {} before {wait}",
                    step.id
                );
            }
            // Nothing is drilled without a fastening, and where none holds it is said.
            if step.holes > 0 && step.trade.is_some() {
                assert!(!step.held.is_empty(), "{name}: {}", step.what);
            }
        }
        // Every thing of the rig that is bought or owned stands on the list once.
        let bought = shopping(facts);
        let mut names: Vec<&String> = bought.wanted.iter().map(|w| &w.item).collect();
        names.extend(bought.owned.iter().map(|(name, _)| name));
        for line in facts.rig().lines.iter().filter(|l| !l.is_company()) {
            let Some(thing) = &line.thing else { continue };
            assert!(
                names.contains(&&thing.name),
                "{name}: {} is on no list",
                thing.name
            );
        }
    });
}

/// The paper of a hull.
fn paper(desk: &Desk, hull: &str, kind: &str, query: &str) -> Html {
    let at = format!("/hulls/{hull}/papers/{kind}{query}");
    assert_eq!(desk.ask(&at).status(), Status::Ok, "{at}");
    Html::parse_document(&desk.page(&at))
}

fn states(page: &Html) -> Vec<(String, String)> {
    let lines = Selector::parse("[data-line]").unwrap();
    let lines = page.select(&lines).map(|l| {
        let of = |name: &str| l.attr(name).unwrap_or_default().to_owned();
        (of("data-line"), of("data-state"))
    });
    lines.collect()
}

#[test]
fn every_paper_of_every_hull_answers_first_and_names_each_line_once() {
    let desk = Desk::demo();
    let catalogue = desk.store.catalogue().unwrap();
    let lead = Selector::parse(".paper-lead").unwrap();
    // Every second one: all of them are laid out in the test above.
    for hull in catalogue.hulls.iter().step_by(2) {
        let key = &hull.survey.key;
        for kind in KINDS {
            let page = paper(&desk, key, kind, "?rig=creek-by-motor&water=coast");
            let floats = page.select(&lead).next();
            let Some(first) = floats else { continue };
            assert!(first.text().collect::<String>().len() > 10, "{key} {kind}");
            let lines = states(&page);
            let once: BTreeSet<&String> = lines.iter().map(|(id, _)| id).collect();
            // An event's rules are told set by set: ids are theirs.
            assert!(kind == "event" || once.len() == lines.len(), "{key} {kind}");
            assert!(lines.iter().all(|(_, s)| s == "open"), "{key} {kind}");
        }
    }
    assert_eq!(
        desk.ask("/hulls/fennick-dunmarrow/papers/spell").status(),
        Status::NotFound
    );
    // Set up is stripped backwards, then checked.
    let page = paper(&desk, "fennick-dunmarrow", "strip", "");
    let item = Selector::parse(".paper-line .paper-what strong").unwrap();
    let section = Selector::parse(".paper-section").unwrap();
    let items: Vec<Vec<String>> = page
        .select(&section)
        .map(|s| s.select(&item).map(|i| i.text().collect()).collect())
        .collect();
    let back: Vec<&String> = items[0].iter().rev().collect();
    let on: Vec<&String> = items[1].iter().take(back.len()).collect();
    assert_eq!(back, on);
    assert_eq!(items[1].len(), back.len() + 4);
}

const LAUNCH: &str = "/hulls/fennick-dunmarrow/papers/launch";
const TICKS: &str = "/hulls/fennick-dunmarrow/ticks";

fn state(desk: &Desk, line: &str) -> String {
    let page = Html::parse_document(&desk.page(LAUNCH));
    let found = states(&page).into_iter().find(|(id, _)| id == line);
    found.unwrap().1
}

#[test]
fn a_tick_is_kept_for_its_outing_and_dies_with_it() {
    let desk = Desk::demo();
    let tick = |answer: &str| {
        let form: String = form_urlencoded::Serializer::new(String::new())
            .append_pair("answer", answer)
            .finish();
        desk.post(TICKS, &form)
    };
    assert_eq!(tick("launch/drain-shut|done|1000|"), Status::SeeOther);
    assert_eq!(state(&desk, "drain-shut"), "done");
    assert_eq!(state(&desk, "aid-on"), "open");
    // Sent late, said earlier: the later one holds.
    assert_eq!(tick("launch/drain-shut|open|500|"), Status::SeeOther);
    assert_eq!(state(&desk, "drain-shut"), "done");
    assert_eq!(tick("launch/drain-shut|open|2000|"), Status::SeeOther);
    assert_eq!(state(&desk, "drain-shut"), "open");
    // What does not apply says why; what nobody knows is refused.
    let refused = Status::UnprocessableEntity;
    assert_eq!(tick("launch/tide|no|3000|"), refused);
    assert_eq!(tick("launch/tide|no|3000|no tide here"), Status::SeeOther);
    for wrong in [
        "",
        "launch|done|1|",
        "spell/drain-shut|done|1|",
        "launch/x|perhaps|1|",
        "quote/x|done|1|",
    ] {
        assert_eq!(tick(wrong), refused, "{wrong}");
    }
    let long = format!("launch/{}|done|1|", "x".repeat(300));
    assert_eq!(tick(&long), refused);
    // Nobody's clock runs ahead of ours: what was said "tomorrow" does not hold for good.
    assert_eq!(
        tick("launch/forecast|done|99999999999999|"),
        Status::SeeOther
    );
    assert_eq!(tick("launch/forecast|open|0|"), Status::SeeOther);
    assert_eq!(state(&desk, "forecast"), "open");
    // One outing, one record; the ticks of another hull are its own.
    assert_eq!(tick("return/return-drain|done|4000|"), Status::SeeOther);
    let kept = |desk: &Desk| {
        desk.store
            .sheets::<galvet_store::files::ticked::Ticked>()
            .unwrap()
    };
    assert_eq!(kept(&desk).len(), 1);
    // Undone like anything else.
    assert_eq!(desk.undo(), Status::SeeOther);
    assert!(!kept(&desk)[0].answers.contains_key("return/return-drain"));
    assert_eq!(desk.post(&format!("{TICKS}/end"), ""), Status::SeeOther);
    assert!(kept(&desk).is_empty());
    assert_eq!(state(&desk, "tide"), "open");
    assert_eq!(
        desk.post("/hulls/nobody/ticks", "answer=launch/aid-on|done|1|"),
        Status::NotFound
    );
}

#[test]
fn yesterdays_ticks_are_dead_and_work_in_the_garage_goes_on() {
    use galvet_store::files::sheet::Document;
    use galvet_store::files::ticked::{Answer, State, Ticked};
    let desk = Desk::demo();
    let old = |key: &str, line: &str| {
        let answer = Answer {
            state: State::Done,
            why: String::new(),
            at: 5,
        };
        let ticked = Ticked {
            key: key.into(),
            name: key.into(),
            hull: "fennick-dunmarrow".into(),
            question: String::new(),
            begun: "2020-06-01".into(),
            answers: [(line.to_owned(), answer)].into(),
        };
        let record = galvet_store::Record::Sheet(Document::of(&ticked));
        desk.store
            .write("test", "old", |door| door.put(&record, None))
            .unwrap();
    };
    old("fennick-dunmarrow-2020-06-01", "launch/drain-shut");
    old("fennick-dunmarrow-work", "rigging/dry-fit");
    // A drain shut that day is not shut today; a dry-fit done then is done.
    assert_eq!(state(&desk, "drain-shut"), "open");
    let rigging = |desk: &Desk| states(&paper(desk, "fennick-dunmarrow", "rigging", ""));
    assert!(rigging(&desk).contains(&("dry-fit".into(), "done".into())));
    assert!(desk.page(LAUNCH).contains("died with that day"));
    // The first tick of today begins anew, and the old outing is gone.
    assert_eq!(
        desk.post(TICKS, "answer=launch%2Faid-on%7Cdone%7C1%7C"),
        Status::SeeOther
    );
    assert_eq!(state(&desk, "aid-on"), "done");
    assert_eq!(state(&desk, "drain-shut"), "open");
    let kept: Vec<Ticked> = desk.store.sheets().unwrap();
    assert_eq!(kept.len(), 2);
    assert!(rigging(&desk).contains(&("dry-fit".into(), "done".into())));
}

/// Nothing on a page leads away from it or runs.
fn stands_alone(text: &str, what: &str) {
    let page = Html::parse_document(text);
    for wrong in [
        "script",
        "form",
        "link",
        "iframe",
        "input",
        "select",
        "textarea",
        "nav",
        "[onclick]",
        "[style]",
        "[action]",
    ] {
        let found = Selector::parse(wrong).unwrap();
        assert_eq!(page.select(&found).count(), 0, "{what}: {wrong}");
    }
    for (of, name) in [("[href]", "href"), ("[src]", "src")] {
        let found = Selector::parse(of).unwrap();
        for one in page.select(&found) {
            let at = one.attr(name).unwrap_or_default();
            assert!(
                at.starts_with('#') || at.starts_with("data:"),
                "{what}: {at}"
            );
        }
    }
    assert!(
        text.contains("@font-face") && text.contains("data:font/woff2"),
        "{what}"
    );
}

#[test]
fn any_page_is_given_as_one_file_that_stands_alone() {
    let desk = Desk::demo();
    let hull = "/hulls/fennick-dunmarrow";
    let mut pages = vec![
        "/".to_owned(),
        "/compare?hulls=fennick-dunmarrow&hulls=drumlee-orvane".into(),
    ];
    pages.extend(
        ["", "/stow", "/record", "/changes", "/card", "/papers"].map(|at| format!("{hull}{at}")),
    );
    pages.extend(KINDS.map(|kind| format!("{hull}/papers/{kind}")));
    for at in pages {
        let file = format!("{at}{}as=file", if at.contains('?') { '&' } else { '?' });
        let response = desk.ask(&file);
        assert_eq!(response.status(), Status::Ok, "{file}");
        let saved = response
            .headers()
            .get_one("Content-Disposition")
            .unwrap_or_default()
            .to_owned();
        assert!(
            saved.starts_with("attachment; filename=\"galvet-"),
            "{file}: {saved}"
        );
        let policy = response
            .headers()
            .get_one("Content-Security-Policy")
            .unwrap_or_default();
        assert!(policy.starts_with("default-src 'none'"), "{policy}");
        let text = response.into_string().unwrap();
        stands_alone(&text, &at);
        assert!(text.len() < 2_000_000, "{file}: {}", text.len());
    }
    // What is no page stays what it is.
    let json = desk.ask("/ranking.json?as=file");
    assert_eq!(json.content_type(), Some(ContentType::JSON));
}

#[test]
fn an_address_handed_out_shows_its_page_until_withdrawn_and_nothing_else() {
    let desk = Desk::demo();
    let give = |page: &str| {
        let form: String = form_urlencoded::Serializer::new(String::new())
            .append_pair("page", page)
            .finish();
        desk.post("/shared", &form)
    };
    let out = |desk: &Desk| {
        desk.store
            .sheets::<galvet_store::files::handed::Handed>()
            .unwrap()
    };
    assert_eq!(
        give("/hulls/fennick-dunmarrow/papers/launch?water=coast"),
        Status::SeeOther
    );
    let paper = out(&desk).remove(0);
    assert_eq!(paper.name, "Launch: Fennick Dunmarrow");
    assert_eq!(paper.key.len(), 32);
    let address = format!("/shared/{}", paper.key);
    let shown = desk.ask(&address);
    assert_eq!(shown.status(), Status::Ok);
    assert!(shown.headers().get_one("Content-Disposition").is_none());
    let text = shown.into_string().unwrap();
    stands_alone(&text, &address);
    assert!(text.contains("open coast") && text.contains("handed out to be read"));
    // It cannot be made to show anything else, nor be written to.
    let other = desk
        .ask(&format!("{address}?water=pond"))
        .into_string()
        .unwrap();
    assert!(other.contains("open coast"));
    assert_eq!(
        desk.post(&address, "answer=launch/aid-on|done|1|"),
        Status::NotFound
    );
    for wrong in [
        "https://example.org/",
        "//example.org/x",
        "hulls",
        "/shared/abc",
        "/everything.json",
        "/a b",
        "/\u{e9}",
    ] {
        assert_eq!(give(wrong), Status::UnprocessableEntity, "{wrong}");
    }
    // Data is not handed out as a page.
    assert_eq!(give("/ranking.json"), Status::SeeOther);
    let data = out(&desk)
        .into_iter()
        .find(|h| h.page.contains("ranking"))
        .unwrap();
    let got = desk.ask(&format!("/shared/{}", data.key));
    assert_eq!(got.status(), Status::NotFound);
    assert!(got.into_string().unwrap_or_default().is_empty());
    assert_eq!(
        desk.post(&format!("{address}/withdraw"), ""),
        Status::SeeOther
    );
    assert_eq!(desk.ask(&address).status(), Status::NotFound);
    assert_eq!(
        desk.ask("/shared/0123456789abcdef0123456789abcdef")
            .status(),
        Status::NotFound
    );
}

#[test]
fn an_event_is_put_in_as_lines_and_a_rig_is_held_against_it() {
    let desk = Desk::demo();
    let form: String = form_urlencoded::Serializer::new(String::new())
        .append_pair("units", "metric")
        .append_pair("name", "Two rods only")
        .append_pair(
            "rules",
            "rods: count rod at-most 2; no more than two rods\naid: worn foam-aid",
        )
        .finish();
    assert_eq!(desk.post("/new-event", &form), Status::SeeOther);
    let at = "/hulls/fennick-dunmarrow/papers/event?rules=two-rods-only";
    let text = desk.page(at);
    assert!(
        text.contains("Two rods only: fails in 1 line.")
            || text.contains("Two rods only: 1 line not known"),
        "{text}"
    );
    let wrong: String = form_urlencoded::Serializer::new(String::new())
        .append_pair("units", "metric")
        .append_pair("name", "Wrong")
        .append_pair("rules", "rods: counting rod at-most 2")
        .finish();
    let refused = desk.send("/new-event", ContentType::Form, &wrong);
    assert_eq!(refused.status(), Status::UnprocessableEntity);
    let told = refused.into_string().unwrap();
    // Told at its line, and what was typed is still there.
    assert!(told.contains("line 1") && told.contains("counting rod at-most 2"));
}

#[test]
fn a_paper_reads_what_is_typed_beside_the_question_and_tells_what_is_wrong_with_it() {
    let desk = Desk::demo();
    let text = desk.page(
        "/hulls/fennick-dunmarrow/papers/transport?limit=40+kg&truck=1.8+m&corner=2+m&edge=many",
    );
    // 39 kg for one who lifts 40.
    assert!(
        text.contains("39 kg (the hull, bare), one person")
            || text.contains("39\u{a0}kg (the hull, bare), one person"),
        "lead"
    );
    assert!(
        text.contains("aria-invalid"),
        "what makes no sense is told at its field"
    );
    let quote = desk.page("/hulls/fennick-dunmarrow/papers/quote?tax=19&holds=14");
    assert!(quote.contains("of it tax, 19"), "tax");
    assert!(quote.contains("holds until "), "until");
    // The shop's notes are not on the customer's copy unless asked for.
    let notes = "two gear tracks each side";
    assert!(!quote.contains("not for the customer") && !quote.contains(notes));
    assert!(
        desk.page("/hulls/fennick-dunmarrow/papers/quote?notes=ours")
            .contains(notes)
    );
    // A bare number in an address is SI; a form says its units, and where it leads from
    // there its figures have theirs.
    let at = "/hulls/fennick-dunmarrow/papers/transport";
    let pounds = desk.page(&format!("{at}?limit=40&units=imperial"));
    assert!(pounds.contains("value=\"40 lb\"") && pounds.contains("is taken to lift 18"));
    assert!(
        desk.page(&format!("{at}?limit=40"))
            .contains("is taken to lift 40")
    );
    assert!(pounds.contains("limit=40+lb") || pounds.contains("limit=40%20lb"));
    // Looking at an event's rules asks nothing of the ranking.
    let looked = desk.page("/hulls/fennick-dunmarrow/papers/event?rules=ommery-lagoon-round");
    assert!(looked.contains("Ommery Lagoon Round: ") && !looked.contains("href=\"/?event="));
}

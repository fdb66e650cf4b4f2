//! The decision: steps of the conversation, waters, derivations, flips, in the
//! browser's place.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use rocket::http::Status;
use serde_json::Value;

#[test]
fn every_figure_of_every_hull_says_how_it_comes_about() {
    let desk = Desk::demo();
    let answer: Value = serde_json::from_str(&desk.page("/ranking.json?posture=sits")).unwrap();
    let hulls = ["ranked", "ruled_out"];
    let hulls = hulls
        .into_iter()
        .flat_map(|l| answer[l].as_array().unwrap().clone());
    let mut seen = 0;
    for hull in hulls {
        let key = hull["hull"].as_str().unwrap();
        for figure in [
            "counted_kg",
            "binding_margin_kg",
            "label_margin_kg",
            "lean_room_cm",
            "standing_support",
            "gm_m",
            "getting_up",
            "draft_m",
        ] {
            let page = desk.page(&format!("/hulls/{key}/figures/{figure}?posture=sits"));
            assert!(page.contains("How it comes about") || page.contains("cannot be floated"));
            seen += 1;
        }
    }
    assert!(seen > 100);
    assert_eq!(
        desk.ask("/hulls/fennick-dunmarrow/figures/beauty").status(),
        Status::NotFound
    );
    assert_eq!(
        desk.ask("/hulls/nobody/figures/gm_m").status(),
        Status::NotFound
    );
}

/// What stands behind the first heading that leads to a hull, up to the next item.
fn item<'a>(page: &'a str, key: &str) -> &'a str {
    let at = ["?", "\""].map(|end| page.find(&format!("<h3><a href=\"/hulls/{key}{end}")));
    let at = at.into_iter().flatten().min().unwrap();
    let behind = &page[at..];
    &behind[..behind.find("</li>").unwrap_or(behind.len())]
}

#[test]
fn what_a_hull_may_do_is_said_wherever_it_has_a_place_and_nowhere_else() {
    let desk = Desk::demo();
    let may = "may (capsize|loll|founder|swamp|sink)";
    let may = regex::Regex::new(may).unwrap();
    let (mut perils, mut rare, mut safe) = (0, 0, 0);
    for question in [
        "posture=sits",
        "posture=stands",
        "mass=105&posture=sits",
        "mass=112&stature=1.95&posture=sits&seat=high",
        "mass=96&posture=sits-and-stands",
    ] {
        let answer: Value =
            serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap();
        let ranking = desk.page(&format!("/?{question}"));
        let list = desk.page(&format!("/hulls?{question}"));
        for hull in answer["ranked"].as_array().unwrap() {
            let key = hull["hull"].as_str().unwrap();
            let peril = &hull["peril"];
            let mut parts = vec![item(&ranking, key), item(&list, key)];
            // Pages of its own: of those in peril, and some that are not.
            let (mut page, mut beside) = (String::new(), String::new());
            if peril.is_object() || safe % 8 == 0 {
                page = desk.page(&format!("/hulls/{key}?{question}"));
                beside = desk.page(&format!("/compare?hull={key}&{question}"));
            }
            if !page.is_empty() {
                parts.extend([page.split("<dl").next().unwrap(), &beside]);
            }
            for (at, part) in parts.iter().enumerate() {
                match peril["text"].as_str() {
                    Some(text) => assert!(part.contains(text), "{key} {question} {at}: {text}"),
                    None => assert!(!may.is_match(part), "{key} {question} {at}"),
                }
            }
            match peril["share"].as_f64() {
                Some(share) if share < 0.01 => rare += 1,
                Some(_) => perils += 1,
                None => safe += 1,
            }
        }
    }
    assert!(
        perils > 3 && rare > 0 && safe > 20,
        "{perils} {rare} {safe}"
    );
}

#[test]
fn the_numbers_of_a_derivation_are_those_of_the_load() {
    let desk = Desk::demo();
    let page = desk.page("/hulls/fennick-dunmarrow/figures/counted_kg");
    // 88 kg in clothes that count wet with 9 kg.
    assert!(page.contains("everybody aboard, in wet clothes 97.0\u{a0}kg"));
    let label = desk.page("/hulls/fennick-dunmarrow/figures/label_margin_kg");
    let answer: Value = serde_json::from_str(&desk.page("/ranking.json")).unwrap();
    let mut all = answer["ranked"].as_array().unwrap().iter();
    let hull = all.find(|h| h["hull"] == "fennick-dunmarrow").unwrap();
    let margin = hull["capacity"]["label_margin_kg"].as_f64().unwrap();
    assert!(
        label.contains(&format!("leaves {margin:.0}\u{a0}kg")),
        "{margin}"
    );
}

#[test]
fn a_water_of_ones_own_is_put_in_changed_asked_about_and_not_lost() {
    let desk = Desk::demo();
    let sent = "name=Reed+gut&conditions=still&density=1005&freeboard=100+mm&floor=5+mm&share=85\
        &depth=0.2+m&weight=40&reserve=10&standing=essential&plugs=yes&cautions=Mud%0D%0AWires";
    assert_eq!(desk.post("/new-water", sent), Status::SeeOther);
    let waters = desk.store.catalogue().unwrap().waters;
    let mine = waters.iter().find(|w| w.key == "reed-gut").unwrap();
    assert_eq!(
        (mine.freeboard, mine.floor_clearance, mine.working_share),
        (0.1, 0.005, 0.85)
    );
    assert_eq!(mine.cautions, ["Mud", "Wires"]);
    assert!(mine.plugs_allowed && !mine.must_drain);
    let page = desk.page("/?water=reed-gut");
    assert!(page.contains("Reed gut") && page.contains("Wires"));
    // Out of range: told at its field, nothing kept.
    let wrong = sent.replace("share=85", "share=10");
    let answer = desk.send("/waters/reed-gut", rocket::http::ContentType::Form, &wrong);
    assert_eq!(answer.status(), Status::UnprocessableEntity);
    assert!(answer.into_string().unwrap().contains("t-share-said"));
    // A question that asks about it keeps it.
    desk.post("/questions?water=reed-gut", "name=By+the+gut");
    assert_eq!(
        desk.post("/waters/reed-gut", "action=forget"),
        Status::UnprocessableEntity
    );
    assert_eq!(desk.post("/waters/pond", "action=forget"), Status::SeeOther);
    assert_eq!(desk.ask("/waters/pond").status(), Status::NotFound);
    desk.undo();
    assert_eq!(desk.ask("/waters/pond").status(), Status::Ok);
}

/// What is told line by line, once it is whole; every line stays when more follow.
fn whole_page(desk: &Desk, address: &str) -> String {
    let lines = |page: &str| page.matches("<li>").count();
    let mut known = 0;
    loop {
        let page = desk.page(address);
        assert!(lines(&page) >= known, "{page}");
        known = lines(&page);
        if !page.contains("data-again") {
            return page;
        }
        assert!(page.contains("Still looking"));
    }
}

#[test]
fn a_flip_told_is_a_flip_when_it_is_asked() {
    let desk = Desk::demo();
    let first = |question: &str| {
        let answer: Value =
            serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap();
        answer["ranked"][0]["hull"].as_str().map(str::to_owned)
    };
    let mut told = 0;
    for question in [
        "practice=skilled",
        "posture=sits&demands=aside",
        "posture=sits&water=lake",
        "mass=70+kg&practice=skilled&demands=aside",
        "posture=sits&water=quick-creek",
    ] {
        let now = first(question);
        let page = whole_page(&desk, &format!("/flip?{question}"));
        for asked in page.split("<a href=\"/?").skip(1) {
            let Some((address, rest)) = asked.split_once("\">") else {
                continue;
            };
            if !rest.starts_with("Ask it so") {
                continue;
            }
            let address = address.replace("&#38;", "&").replace("&amp;", "&");
            assert_ne!(first(&address), now, "{address}");
            told += 1;
        }
    }
    assert!(told > 0, "no flip in any of the questions");
}

#[test]
fn a_hull_one_sat_down_in_rules_the_same_hulls_out_on_every_page() {
    let desk = Desk::demo();
    let question = "posture=stands&known=fennick-dunmarrow&felt=sat-down";
    let answer: Value =
        serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap();
    let mut seen = 0;
    for out in answer["ruled_out"].as_array().unwrap() {
        let reasons = out["reasons"].as_array().unwrap();
        let seated = reasons.iter().find(|r| r["code"] == "stay-seated");
        let Some(text) = seated.and_then(|r| r["text"].as_str()) else {
            continue;
        };
        let key = out["hull"].as_str().unwrap();
        assert!(text.contains("sat down again"), "{text}");
        let page = desk.page(&format!("/hulls/{key}?{question}"));
        assert!(page.contains(text), "{key}: {text}");
        let beside = desk.page(&format!(
            "/compare?hull={key}&hull=osprith-kelda-two&{question}"
        ));
        assert!(beside.contains("ruled out"), "{key}");
        seen += 1;
    }
    // Herself among them.
    assert!(seen > 3, "{seen}");
}

#[test]
fn what_moved_is_told_wherever_the_question_is_changed() {
    let desk = Desk::demo();
    let told = "<summary>What the changes moved:";
    let back = "Back to the question as it was";
    // The catalogue: what was looked for stays, with the script and without it.
    let hulls = desk.page("/hulls?find=fennick&mass=108+kg");
    assert!(hulls.contains(told), "catalogue");
    assert!(hulls.contains(&format!(
        "href=\"/hulls?units=metric&#38;find=fennick\">{back}"
    )));
    let kept = "<noscript><input type=\"hidden\" name=\"find\" value=\"fennick\"></noscript>";
    assert!(hulls.contains(kept));
    // The conversation stays at its step.
    let talk = desk.page("/ask?step=angler&mass=108+kg");
    assert!(talk.contains(told), "conversation");
    assert!(talk.contains(&format!(
        "href=\"/ask?units=metric&#38;step=angler\">{back}"
    )));
    assert!(talk.contains("<input type=\"hidden\" name=\"step\" value=\"angler\">"));
    // Side by side the hulls stay.
    let beside = desk.page("/compare?hull=fennick-dunmarrow&hull=osprith-kelda-two&mass=108+kg");
    assert!(beside.contains(told), "side by side");
    let hulls = "hull=fennick-dunmarrow&#38;hull=osprith-kelda-two";
    assert!(beside.contains(&format!(
        "href=\"/compare?units=metric&#38;{hulls}\">{back}"
    )));
    // A hull being typed keeps what was typed.
    let typed = "hull-beam=90+cm&hull-length=3.7+m";
    let new = desk.page(&format!("/new-hull?{typed}&mass=108+kg"));
    assert!(new.contains(told), "new hull");
    let back_to = "/new-hull?units=metric&#38;hull-beam=90+cm&#38;hull-length=3.7+m";
    assert!(new.contains(&format!("href=\"{back_to}\">{back}")), "{new}");
    assert!(!desk.page(&format!("/new-hull?{typed}")).contains(back));
    let flip = desk.page("/flip?mass=93+kg");
    assert!(flip.contains(told), "flip");
    assert!(flip.contains(&format!("href=\"/flip?units=metric\">{back}")));
    // Its places are those of the two rankings.
    let place = |question: &str| {
        let answer: Value =
            serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap();
        let ranked = answer["ranked"].as_array().unwrap();
        let names = ranked
            .iter()
            .map(|h| h["name"].as_str().unwrap().to_owned());
        names.collect::<Vec<_>>()
    };
    let (was, now) = (place(""), place("mass=108+kg"));
    let words = talk.split_once(told).unwrap().1;
    let words = words.split_once("</ul>").unwrap().0;
    let nth = |place: usize| match place {
        0..5 => ["first", "second", "third", "fourth", "fifth"][place].to_owned(),
        _ => format!("{}th", place + 1),
    };
    let mut moves = 0;
    for (at, name) in was.iter().enumerate() {
        let line = match now.iter().position(|n| n == name) {
            Some(place) if place == at => continue,
            Some(place) => format!("{name}: {} → {}", nth(at), nth(place)),
            None => format!("{name}: {} → ruled out", nth(at)),
        };
        assert!(words.contains(&line), "{line}: {words}");
        moves += 1;
    }
    assert!(moves > 1);
    // Nothing changed: nothing is told.
    assert!(!desk.page("/ask?step=angler").contains(back));
}

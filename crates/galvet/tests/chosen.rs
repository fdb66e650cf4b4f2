//! Choosing: columns, limits and the shortlist; hulls and their ways side by side;
//! what a day out asks; trials, saved questions, the first steps.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet::demo_data;
use rocket::http::{ContentType, Status};
use serde_json::Value;

fn answer(desk: &Desk, question: &str) -> Value {
    serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap()
}

fn hull<'a>(answer: &'a Value, key: &str) -> &'a Value {
    let all = ["ranked", "ruled_out"].into_iter();
    let mut all = all.flat_map(|list| answer[list].as_array().unwrap());
    all.find(|h| h["hull"] == key).unwrap()
}

/// Hulls in the order of the page's rows.
fn rows(page: &str) -> Vec<String> {
    let list = page.split("data-rows>").nth(1).unwrap_or_default();
    let list = list.split("</ol>").next().unwrap_or_default();
    let rows = list.split("<li class=\"row\" data-hull=\"").skip(1);
    rows.map(|r| r.split('"').next().unwrap().to_owned())
        .collect()
}

#[test]
fn limits_and_orders_of_columns_are_those_of_the_records() {
    let desk = Desk::demo();
    let all = rows(&desk.page("/?posture=sits"));
    let catalogue = demo_data::catalogue().unwrap();
    let length = |key: &str| {
        let mut hulls = catalogue.hulls.iter();
        let hull = hulls.find(|h| h.survey.key == key).unwrap();
        hull.survey.value(galvet_core::hull::Measure::Length)
    };
    let short = rows(&desk.page("/?posture=sits&only-length=3.7+m"));
    let wanted: Vec<String> = all
        .iter()
        .filter(|key| length(key).is_some_and(|m| m <= 3.7))
        .cloned()
        .collect();
    assert!(!wanted.is_empty() && wanted.len() < all.len());
    assert_eq!(short, wanted);
    let page = desk.page("/?posture=sits&only-length=3.7+m");
    let told = format!("{} of {} shown", wanted.len(), all.len());
    assert!(page.contains(&told), "{told}");
    // What is not understood hides nothing and is told where it was typed.
    let odd = desk.page("/?posture=sits&only-length=short");
    assert_eq!(rows(&odd), all);
    assert!(odd.contains("“short” is not understood here"));
    let by = rows(&desk.page("/?posture=sits&by=length"));
    let lengths: Vec<f64> = by.iter().filter_map(|k| length(k)).collect();
    assert!(lengths.is_sorted(), "{lengths:?}");
}

#[test]
fn the_shortlist_stays_whatever_is_asked() {
    let desk = Desk::demo();
    let first = rows(&desk.page("/"));
    let put = |key: &str| {
        let form = format!("on={key}&back=/?rows=close%23h-{key}");
        desk.send("/shortlist", ContentType::Form, &form)
            .headers()
            .get_one("Location")
            .map(str::to_owned)
    };
    let back = put(&first[1]);
    assert_eq!(back, Some(format!("/?rows=close#h-{}", first[1])));
    put(&first[2]);
    // Nobody is led to another host.
    let away = desk.send(
        "/shortlist",
        ContentType::Form,
        "on=x&back=//elsewhere.test/",
    );
    assert_eq!(away.headers().get_one("Location"), Some("/"));
    let other = desk.page("/?mass=60+kg&list=mine");
    let shown = rows(&other);
    assert!(shown.contains(&first[1]) && shown.contains(&first[2]));
    assert_eq!(shown.len(), 2);
    assert!(other.contains("class=\"list-on\""));
    let off = format!("off={}&back=/", first[1]);
    assert_eq!(desk.post("/shortlist", &off), Status::SeeOther);
    assert_eq!(rows(&desk.page("/?list=mine")), [first[2].clone()]);
    desk.post("/shortlist", "clear=true&back=/");
    assert!(!desk.page("/").contains("class=\"list-on\""));
}

#[test]
fn a_hull_stands_beside_herself_as_she_is_planned() {
    let desk = Desk::demo();
    let page = desk.page("/compare?hull=fennick-dunmarrow&hull=fennick-dunmarrow~2");
    assert!(page.contains("Fennick Dunmarrow, with rear hatch for the battery"));
    // Its gauge, its kit from above, and what stands beside the figures.
    assert_eq!(page.matches("class=\"gauge-bed\"").count(), 2);
    assert_eq!(page.matches("<svg class=\"plan\"").count(), 2);
    for row in ["speed kept up", "floor clear", "price", "to lift, fitted"] {
        assert!(page.contains(&format!("<summary>{row}</summary>")), "{row}");
    }
    // A way it has not, and a hull that is not there, are left out.
    let odd = desk.page("/compare?hull=fennick-dunmarrow~99&hull=nobody~x&hull=osprith-kelda-two");
    assert_eq!(odd.matches("class=\"gauge-bed\"").count(), 1);
    let moved = desk.page("/compare?hull=osprith-kelda-two&mass=108+kg");
    assert!(moved.contains("What the changes moved: 1"));
}

#[test]
fn fish_risers_and_the_batterys_place_are_floated() {
    let desk = Desk::demo();
    let of = |question: &str| answer(&desk, &format!("posture=sits&{question}"));
    let key = "fennick-dunmarrow";
    let figure =
        |answer: &Value, group: &str, name: &str| hull(answer, key)[group][name].as_f64().unwrap();
    let plain = of("");
    // Eight kilograms of fish more in the load.
    let fish = of("fish=8+kg");
    let more = figure(&fish, "capacity", "counted_kg") - figure(&plain, "capacity", "counted_kg");
    assert!((more - 8.0).abs() < 1e-9, "{more}");
    // A seat 6 cm higher raises the angler's 97 kg by as much: GM falls by the share of
    // the whole that the angler is.
    let raised = of("risers=6+cm");
    let whole = hull(&plain, key)["load"]["seated"]["mass_kg"]
        .as_f64()
        .unwrap();
    let fall = figure(&plain, "stability", "gm_m") - figure(&raised, "stability", "gm_m");
    let angler = plain["brief"]["crew"]["mass_kg"].as_f64().unwrap() + 9.0;
    assert!((fall - 0.06 * angler / whole).abs() < 0.002, "{fall}");
    assert!(
        figure(&raised, "stability", "lean_room_cm") < figure(&plain, "stability", "lean_room_cm")
    );
    // The battery aft trims it by the stern against the battery forward.
    let (aft, fore) = (of("battery=stern"), of("battery=bow"));
    let at = |answer: &Value| {
        let placed = hull(answer, key)["stow"]["placed"].as_array().unwrap();
        let battery = placed
            .iter()
            .find(|p| p["item"].as_str().is_some_and(|i| i.contains("battery")));
        battery.unwrap()["x_m"].as_f64().unwrap()
    };
    assert!(at(&aft) > at(&fore) + 1.0, "{} {}", at(&aft), at(&fore));
    let place = |answer: &Value| hull(answer, key)["load"]["seated"]["x_m"].as_f64().unwrap();
    assert!(place(&aft) > place(&fore));
    let refused = desk.ask("/?risers=2+m");
    assert_eq!(refused.status(), Status::UnprocessableEntity);
}

#[test]
fn a_day_out_is_told_of_each_hull() {
    let desk = Desk::demo();
    let page = desk.page("/hulls/osprith-kelda-two?distance=12+km");
    assert!(page.contains("h for 12\u{a0}km"), "the day's way");
    assert!(page.contains("drift, beam on") && page.contains("helm under way"));
    assert!(
        !desk
            .page("/hulls/osprith-kelda-two")
            .contains("the day's way")
    );
    // Price over the trips of five years: 3990 / (20 × 5).
    let page = desk.page("/?trips=20");
    assert!(page.contains("price by the trip") && page.contains("over 5 years"));
    let row = page.split("data-hull=\"osprith-kelda-two\"").nth(2);
    let row = row.or_else(|| page.split("data-hull=\"osprith-kelda-two\"").nth(1));
    let cell = row
        .unwrap()
        .split("price by the trip</a></dt><dd>")
        .nth(1)
        .unwrap();
    assert!(cell.starts_with("40 "), "{}", &cell[..40]);
    // Hours afloat are what the batteries must last.
    let board = |hours: &str| {
        desk.page(&format!(
            "/hulls/osprith-kelda-two/stow?rig=reed-edge-day&hours={hours}"
        ))
    };
    assert!(board("3").contains("after 3 hours"));
    assert!(board("9").contains("after 9 hours"));
}

#[test]
fn drawings_are_files_with_their_own_colours() {
    let desk = Desk::demo();
    for what in ["profile", "plan", "section", "leaned", "righting"] {
        let path = format!("/hulls/fennick-dunmarrow/drawings/{what}.svg");
        let got = desk.ask(&path);
        assert_eq!(got.content_type(), Some(ContentType::SVG), "{what}");
        let text = got.into_string().unwrap();
        assert!(text.starts_with("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 "));
        assert!(text.contains("#efdcae") && !text.contains("var("), "{what}");
        assert_eq!(text.matches("<svg").count(), text.matches("</svg>").count());
    }
    for not in [
        "/hulls/nobody/drawings/plan.svg",
        "/hulls/fennick-dunmarrow/drawings/plan.png",
    ] {
        assert_eq!(desk.ask(not).status(), Status::NotFound, "{not}");
    }
}

#[test]
fn a_trial_paddle_is_logged_undone_and_a_yardstick() {
    let desk = Desk::demo();
    let path = "/hulls/hobrin-cassel/trials";
    assert_eq!(desk.post(path, "who=Mirel"), Status::UnprocessableEntity);
    // Too long a note is refused with what was typed, never cut.
    let long = format!("who=Mirel&felt=steady&note={}", "so ".repeat(500));
    let refused = desk.send(path, rocket::http::ContentType::Form, &long);
    assert_eq!(refused.status(), Status::UnprocessableEntity);
    let refused = refused.into_string().unwrap();
    assert!(refused.contains("longer than 1000") && refused.contains("so so so"));
    let form = "who=Mirel&felt=steady&stood=true&note=calm+water";
    assert_eq!(desk.post(path, form), Status::SeeOther);
    let page = desk.page(path);
    assert!(page.contains("Mirel") && page.contains("stood in it. calm water"));
    assert!(
        page.contains("known=hobrin-cassel&amp;felt=steady")
            || page.contains("known=hobrin-cassel&#38;felt=steady")
    );
    // Whoever found it steady finds steady what has as much support.
    let ranked = desk.page("/?known=hobrin-cassel&felt=steady");
    assert!(ranked.contains("steady for you"));
    desk.undo();
    assert!(desk.page(path).contains("Nobody has been in it yet"));
}

#[test]
fn questions_are_kept_by_customer_copied_and_thrown_away() {
    let desk = Desk::demo();
    let saved = desk.post(
        "/questions?mass=70+kg",
        "name=Lake+days&customer=Torv+Essen",
    );
    assert_eq!(saved, Status::SeeOther);
    let page = desk.page("/questions");
    assert!(page.contains("<h2>Torv Essen</h2>") && page.contains("A 70\u{a0}kg angler"));
    let copied = desk.post(
        "/questions?brief=torv-essen-lake-days",
        "name=Standing&customer=Torv+Essen",
    );
    assert_eq!(copied, Status::SeeOther);
    assert_eq!(
        answer(&desk, "brief=torv-essen-standing")["brief"]["crew"]["mass_kg"],
        70.0
    );
    desk.post("/questions/torv-essen-standing/throw-away", "");
    assert!(!desk.page("/questions").contains("Standing</a>"));
    desk.undo();
    assert!(desk.page("/questions").contains("Standing</a>"));
    // Who comes back finds their names, and brings theirs up to date.
    let back = "brief=torv-essen-standing";
    let page = desk.page(&format!("/?{back}&mass=74+kg"));
    assert!(
        page.contains("value=\"Torv Essen\"") && page.contains("Update “Torv Essen: Standing”")
    );
    let updated = desk.post(
        &format!("/questions?{back}&mass=74+kg"),
        "name=Standing&customer=Torv+Essen&update=torv-essen-standing",
    );
    assert_eq!(updated, Status::SeeOther);
    assert_eq!(answer(&desk, back)["brief"]["crew"]["mass_kg"], 74.0);
    let gone = desk.post("/questions?mass=74+kg", "name=X&update=nobody");
    assert_eq!(gone, Status::UnprocessableEntity);
    // A colon in a name makes nobody a customer.
    let own = desk.post("/questions?mass=71+kg", "name=Sound%3A+outer+edge");
    assert_eq!(own, Status::SeeOther);
    let page = desk.page("/questions");
    assert!(page.contains("Sound: outer edge</a>") && !page.contains("<h2>Sound</h2>"));
}

#[test]
fn the_summary_says_what_the_ranking_says() {
    let desk = Desk::demo();
    let summary = desk.page("/summary?brief=ilvar-reeds");
    let title = desk::text_of(&summary, "h1");
    assert_eq!(title, "Ilvar Quessen: Along the reeds with the son");
    let summary = desk.page("/summary?brief=reed-edge");
    assert!(summary.contains("<h1>Standing along the reeds</h1>"));
    let first = &answer(&desk, "brief=reed-edge")["ranked"][0];
    assert!(summary.contains(first["name"].as_str().unwrap()));
    assert!(summary.contains(first["why"].as_str().unwrap()));
    let margin = first["capacity"]["binding_margin_kg"].as_f64().unwrap();
    assert!(summary.contains(&format!("<strong>{margin:.0}\u{a0}kg</strong>")));
    assert!(summary.contains("Know the tide"));
    let odd = desk.ask("/summary?mass=heavy");
    assert_eq!(odd.status(), Status::UnprocessableEntity);
}

#[test]
fn an_empty_installation_leads_to_a_first_ranking() {
    let mut catalogue = demo_data::catalogue().unwrap();
    catalogue.hulls.clear();
    catalogue.briefs.clear();
    let desk = Desk::with(&catalogue);
    assert!(desk.page("/").contains("Three steps to a first ranking"));
    assert!(desk.page("/ask").contains("No hull is on the list yet"));
    let asked = desk.page("/?mass=84+kg");
    assert!(asked.contains("Go through it again"));
    let put = |model: &str, beam: &str| {
        let form = format!(
            "hull-maker=Own&hull-model={model}&hull-length=3.6+m&hull-beam={beam}&hull-weight=34&hull-capacity=190"
        );
        let to = desk.send("/new-hull?mass=84+kg", ContentType::Form, &form);
        assert_eq!(to.status(), Status::SeeOther, "{model}");
        to.headers().get_one("Location").unwrap().to_owned()
    };
    // The first two lead back to the list, which says how many are still wanted.
    assert_eq!(put("One", "84+cm"), "/?mass=84+kg&units=metric");
    let page = desk.page("/?mass=84+kg");
    assert!(page.contains("1 of 3 hulls are in.") && page.contains("Two more"));
    put("Two", "90+cm");
    assert!(desk.page("/").contains("2 of 3 hulls are in."));
    assert_eq!(put("Three", "78+cm"), "/?mass=84+kg&units=metric");
    assert!(put("Four", "80+cm").starts_with("/hulls/own-four"));
    let page = desk.page("/?mass=84+kg");
    assert!(!page.contains("hulls are in."));
    assert!(rows(&page).len() + page.matches("class=\"reasons\"").count() >= 3);
}

#[test]
fn the_tour_has_four_steps_that_lead_to_places() {
    let desk = Desk::throw_away();
    assert!(desk.page("/").contains("href=\"/tour?"));
    let tour = desk.page("/tour");
    assert_eq!(tour.matches("<li data-look=").count(), 4);
    for link in tour.split("<h2><a href=\"").skip(1) {
        let link = link.split('"').next().unwrap();
        desk.page(&link.replace("&#38;", "&"));
    }
    // Nobody's own boats are led through.
    assert!(!Desk::demo().page("/").contains("href=\"/tour"));
}

#[test]
fn one_brief_is_answered_alike_by_the_command_and_every_page() {
    let desk = Desk::demo();
    let root = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");
    let told = std::process::Command::new(env!("CARGO_BIN_EXE_galvet"))
        .args(["rank", "--brief", "demo/briefs/1-reed-edge.json", "--json"])
        .current_dir(root)
        .output()
        .unwrap();
    let command: Value = serde_json::from_slice(&told.stdout).unwrap();
    let page = answer(&desk, "brief=reed-edge");
    assert_eq!(command["ranked"], page["ranked"]);
    assert_eq!(command["ruled_out"], page["ruled_out"]);
    let ranked = page["ranked"].as_array().unwrap();
    let board = desk.page("/?brief=reed-edge");
    for entry in ranked.iter().take(3) {
        let key = entry["hull"].as_str().unwrap();
        let margin = entry["capacity"]["binding_margin_kg"].as_f64().unwrap();
        let support = entry["stability"]["standing_support"].as_f64().unwrap();
        let row = board.split(&format!("id=\"h-{key}\"")).nth(1).unwrap();
        let row = row.split("</li>\n").next().unwrap();
        let own = desk.page(&format!("/hulls/{key}?brief=reed-edge"));
        let beside = desk.page(&format!("/compare?brief=reed-edge&hull={key}"));
        let summary = desk.page("/summary?brief=reed-edge");
        let figure = format!("/hulls/{key}/figures/binding_margin_kg?brief=reed-edge");
        let derived = desk.page(&figure);
        for (where_, text) in [
            ("row", row),
            ("hull", &own),
            ("compare", &beside),
            ("summary", &summary),
        ] {
            assert!(
                text.contains(&format!(">{margin:.0}\u{a0}kg<")),
                "{where_} of {key}"
            );
            assert!(
                text.contains(&format!(">{support:.2}<")),
                "{where_} of {key}"
            );
        }
        assert!(
            derived.contains(&format!("<strong>{margin:.0}\u{a0}kg</strong>")),
            "{key}"
        );
    }
}

#[test]
fn each_leans_out_for_the_fish_as_her_own_figure_says() {
    let desk = Desk::demo();
    let keys = ["fennick-dunmarrow", "osprith-kelda-two", "quarnel-pipkin"];
    let page = desk.page(&format!("/compare?hull={}", keys.join("&hull=")));
    let row = page.split_once("leaned out to land a fish").unwrap().1;
    let row = row.split_once("</tr>").unwrap().0;
    let all = answer(&desk, "");
    let told = row.split("<p class=\"facts\">").skip(1);
    let told: Vec<&str> = told.map(|t| t.split('<').next().unwrap()).collect();
    assert_eq!(told.len(), keys.len());
    for (key, told) in keys.iter().zip(&told) {
        let heel = hull(&all, key)["stability"]["reach_heel_deg"].as_f64();
        let says = heel.map_or("does not hold it".to_owned(), |deg| {
            format!("heels {deg:.1}°")
        });
        assert_eq!(*told, says, "{key}");
    }
    // Of different hulls different ones.
    assert_ne!(told[0], told[1]);
}

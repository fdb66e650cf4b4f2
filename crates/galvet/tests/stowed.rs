//! Kit on every hull of the demo, checked by another route; the board, the shelf
//! and the rig builder in the browser's place.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet::answer::Closeup;
use galvet_core::advise::trim::all_pins;
use galvet_core::figures::Quantity;
use galvet_core::hull::{Pin, zones};
use galvet_core::rig::Importance;
use galvet_core::stow::Mode;
use rocket::http::{ContentType, Status};
use serde_json::Value;
use std::collections::BTreeMap;

/// The ranking of a rig's question as JSON.
fn answer(desk: &Desk, rig: &str) -> Value {
    let text = desk.page(&format!("/ranking.json?rig={rig}"));
    serde_json::from_str(&text).unwrap()
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap()
}

/// Every hull of an answer with what is known of it.
fn hulls(answer: &Value) -> Vec<&Value> {
    let all = ["ranked", "ruled_out"].into_iter();
    let all = all.flat_map(|list| answer[list].as_array().unwrap());
    all.filter(|hull| hull["stow"].is_object()).collect()
}

#[test]
fn what_was_floated_is_what_was_stowed_on_every_hull_with_every_rig() {
    let desk = Desk::demo();
    let catalogue = desk.store.catalogue().unwrap();
    let mut seen = 0;
    for rig in &catalogue.rigs {
        let answer = answer(&desk, &rig.key);
        let crew = 88.0 + 9.0;
        for hull in hulls(&answer) {
            let name = format!("{} on {}", rig.key, hull["hull"]);
            let placed = hull["stow"]["placed"].as_array().unwrap();
            let load = &hull["load"]["seated"];
            // Mass and moments: what is listed and the angler are what was floated.
            let sum = |of: &dyn Fn(&Value) -> f64| -> f64 { placed.iter().map(of).sum() };
            let kit = sum(&|p| number(&p["mass_kg"]));
            let hull_mass = number(&load["mass_kg"]) - crew - kit;
            assert!((10.0..80.0).contains(&hull_mass), "{name}: {hull_mass}");
            let across = sum(&|p| number(&p["mass_kg"]) * number(&p["y_m"]));
            let floated = number(&load["mass_kg"]) * number(&load["y_m"]);
            assert!(
                (across - floated).abs() < 1e-6,
                "{name}: {across} {floated}"
            );
            // The same angler and hull under another rig: moments differ by the kit's.
            seen += placed.len();
            inside_and_apart(&catalogue.hulls, hull, &name);
            let wants = rig
                .lines
                .iter()
                .filter(|l| l.importance == Importance::Want);
            let ashore: f64 = hull["stow"]["unplaced"]
                .as_array()
                .unwrap()
                .iter()
                .filter(|u| u["must"] == false)
                .map(|u| {
                    let line = wants
                        .clone()
                        .find(|l| u["item"] == l.item.as_str())
                        .unwrap();
                    line.loaded_mass * number(&u["count"])
                })
                .sum();
            // A worn flotation aid is part of the angler as dressed.
            let aid = 0.9;
            assert!(
                (kit + ashore + aid - rig.loaded()).abs() < 1e-6,
                "{name}: {kit}"
            );
        }
    }
    assert!(seen > 1_000, "{seen}");
}

/// What lies in a zone of the record lies inside it and low enough, and clear of
/// whatever else lies there.
fn inside_and_apart(records: &[galvet_store::files::hulls::HullRecord], hull: &Value, name: &str) {
    let record = records
        .iter()
        .find(|h| hull["hull"] == h.survey.key.as_str())
        .unwrap();
    let zones = zones(&record.survey);
    let mut boxes: Vec<(String, [f64; 6])> = Vec::new();
    for p in hull["stow"]["placed"].as_array().unwrap() {
        if p["zone"].is_null() || !p["within"].is_null() {
            continue;
        }
        let fixing = p["fixing"].as_str().unwrap();
        if ["holder", "worn"].contains(&fixing) {
            continue;
        }
        let [x, y, base] = ["x_m", "y_m", "base_m"].map(|k| number(&p[k]));
        let [l, w, h] = ["length_m", "width_m", "height_m"].map(|k| number(&p[k]));
        let b = [
            x - l / 2.0,
            x + l / 2.0,
            y - w / 2.0,
            y + w / 2.0,
            base,
            base + h,
        ];
        if let Some(zone) = zones.iter().find(|z| p["zone"] == z.name.as_str()) {
            let guess = zone.source == galvet_core::hull::Source::Guess;
            let slack = if guess { 0.15 } else { 0.0 };
            let (long, wide) = ((zone.to - zone.from) * slack, zone.width * slack);
            let hair = 2e-3;
            let inside = b[0] >= zone.from - long - hair
                && b[1] <= zone.to + long + hair
                && b[2] >= zone.offset - zone.width / 2.0 - hair
                && b[3] <= zone.offset + zone.width / 2.0 + wide + hair;
            assert!(
                inside,
                "{name}: {} in {}: {b:?} {zone:?}",
                p["item"], zone.name
            );
            let high = zone
                .height
                .is_none_or(|most| h <= most * (1.0 + slack) + 1e-6);
            assert!(high, "{name}: {} too high", p["item"]);
        }
        boxes.push((p["item"].to_string(), b));
    }
    for (i, (a_name, a)) in boxes.iter().enumerate() {
        for (b_name, b) in &boxes[i + 1..] {
            let apart = (0..3)
                .any(|k| a[2 * k + 1] <= b[2 * k] + 1.2e-3 || b[2 * k + 1] <= a[2 * k] + 1.2e-3);
            assert!(apart, "{name}: {a_name} {a:?} and {b_name} {b:?}");
        }
    }
}

/// A board of a demo hull under a demo rig.
fn board(desk: &Desk, hull: &str, rig: &str, pins: &[Pin]) -> Closeup {
    let catalogue = desk.store.catalogue().unwrap();
    let survey = catalogue
        .hulls
        .iter()
        .find(|h| h.survey.key == hull)
        .unwrap()
        .survey
        .clone();
    let guides = std::sync::Arc::new(galvet_core::guide::Guides::default());
    let answers = galvet::answer::Desk::new(guides);
    let hull = galvet::answer::Hull {
        known: None,
        survey: std::sync::Arc::new(survey),
    };
    let asked = galvet::question::Ask::of([("rig", rig.to_owned())].into_iter());
    let asked = asked.resolve(&catalogue);
    let asked = asked.map_err(|_| "no such rig").unwrap();
    Closeup::of(&answers, &hull, &asked.brief, pins, Mode::UnderWay).unwrap()
}

#[test]
fn a_battery_moved_from_stern_to_bow_trims_her_by_its_moment() {
    let desk = Desk::demo();
    let pin = |place: &str, x: f64| Pin {
        thing: "battery-12v-20ah".into(),
        nth: 0,
        place: place.into(),
        x,
        y: 0.0,
        turned: false,
    };
    let with = |pins: &[Pin]| board(&desk, "fennick-dunmarrow", "sound-trolling", pins);
    let aft = with(&[pin("tank well", 3.0)]);
    // Everything else stays where it is, the battery goes to the bow.
    let mut pins = all_pins(&aft.setup);
    pins.retain(|p| p.thing != "battery-12v-20ah");
    pins.push(pin("bow hatch", 0.5));
    let fore = with(&pins);
    let place = |b: &Closeup, item: &str| {
        let all = &b.setup.loads.layout.stowed;
        let found = all.iter().find(|s| s.item.starts_with(item)).unwrap();
        (found.x, found.loaded_mass)
    };
    assert_eq!(place(&aft, "battery"), (3.0, 2.5));
    assert_eq!(place(&fore, "battery"), (0.5, 2.5));
    // By hand: the moment over what a degree takes (ρ I_L π/180 of its waterplane).
    // Mass further aft trims it bow up.
    let per_degree = |b: &Closeup| b.setup.balance().unwrap().per_degree;
    let moment = |b: &Closeup| -> f64 {
        let all = &b.setup.loads.layout.stowed;
        all.iter().map(|s| s.x * s.loaded_mass).sum()
    };
    // The rods, which cannot be held, may take other tubes: their moment counts too.
    let shifted = moment(&aft) - moment(&fore);
    assert!((shifted - 2.5 * 2.5).abs() < 1.0, "{shifted}");
    let by_hand = shifted / (0.5 * (per_degree(&aft) + per_degree(&fore)));
    let trim = |b: &Closeup| b.figures.get(Quantity::Trim).unwrap();
    let by = trim(&aft) - trim(&fore);
    assert!(by_hand > 0.1, "{by_hand}");
    assert!((by - by_hand).abs() < 0.03 * by_hand, "{by} {by_hand}");
}

#[test]
fn what_is_lost_and_what_comes_and_goes_is_counted() {
    let desk = Desk::demo();
    let b = board(&desk, "fennick-dunmarrow", "reed-edge-day", &[]);
    let audit = &b.audit;
    assert!(audit.aids_worn == 1 && audit.aids_stowed.is_empty());
    // Sum over what goes or is spoilt, by its prices.
    let gone = audit
        .things
        .iter()
        .filter(|t| t.loss != galvet_core::stow::Loss::Stays || t.wets);
    let sum: f64 = gone.filter_map(|t| t.price).sum();
    assert!(sum > 0.0 && (audit.lost - sum).abs() < 1e-9);
    // Launch: all the ice, no fish. Midday: six tenths of 3 kg ice, half of 3 kg
    // fish, clothes 1.5 kg wetter. Return: three tenths, all the fish, 3 kg.
    let loads: Vec<f64> = b.day.iter().map(|p| p.load).collect();
    let dry = loads[0] - 3.0;
    assert!(
        (loads[1] - (dry + 1.8 + 1.5 + 1.5)).abs() < 1e-9,
        "{loads:?}"
    );
    assert!(
        (loads[2] - (dry + 0.9 + 3.0 + 3.0)).abs() < 1e-9,
        "{loads:?}"
    );
    // Power: 128 Wh, nine tenths of it usable, seven of that given to 6 W.
    let power = b.power.unwrap();
    assert!((power.circuits[0].hours.unwrap() - 128.0 * 0.9 * 0.7 / 6.0).abs() < 1e-9);
    let cable = &power.cables[0];
    let at = |item: &str| {
        let all = &b.setup.loads.layout.stowed;
        all.iter().find(|s| s.item == item).unwrap()
    };
    let (from, to) = (at(&cable.from), at(&cable.to));
    let run =
        (from.x - to.x).abs() + (from.y - to.y).abs() + (from.above_floor - to.above_floor).abs();
    assert!((cable.length - run - 0.4).abs() < 1e-9);
}

#[test]
fn the_board_keeps_what_is_put_and_works_around_it() {
    let desk = Desk::demo();
    let at = "/hulls/fennick-dunmarrow/stow";
    let page = desk.page(at);
    assert!(page.contains("28 of 28") && page.contains("data-thing=\"open-crate\""));
    assert!(page.contains("Through the day") && page.contains("If it goes over"));
    // Tried: nothing is kept.
    let pins = "[{\"thing\":\"open-crate\",\"nth\":0,\"place\":\"\",\"x\":2.95,\"y\":0.0,\"turned\":false}]";
    let body = format!(
        "pins={}&at=open-crate&n=0",
        rocket::http::RawStr::new(pins).percent_encode()
    );
    let tried = desk.send(&format!("/part{at}"), ContentType::Form, &body);
    assert_eq!(tried.status(), Status::Ok);
    let tried = tried.into_string().unwrap();
    assert!(
        tried.contains("put by hand") && tried.contains("2.95\u{a0}m"),
        "{tried}"
    );
    assert!(!desk.page(at).contains("<strong>put by hand"));
    // Kept, by the form; nonsense is refused and nothing is lost.
    let put = |form: &str| desk.send(at, ContentType::Form, form);
    let wrong = put("action=pin&thing=open-crate&nth=0&place=tank+well&x=a+lot&y=0");
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let wrong = put(&format!(
        "action=pin&thing=open-crate&nth=0&{}",
        body.replace("2.95", "1e300")
    ));
    assert_eq!(wrong.status(), Status::UnprocessableEntity);
    let form = "action=pin&thing=open-crate&nth=0&place=tank+well&x=295+cm&y=0";
    assert_eq!(put(form).status(), Status::SeeOther);
    let page = desk.page(at);
    assert!(page.contains("put by hand") && page.contains("lets go of 1 put by hand"));
    let laid = |desk: &Desk| {
        let hulls = desk.store.catalogue().unwrap().hulls;
        let mut hulls = hulls.into_iter();
        hulls
            .find(|h| h.survey.key == "fennick-dunmarrow")
            .unwrap()
            .survey
            .looked
            .laid
    };
    assert_eq!(laid(&desk)["reed-edge-day"][0].x, 2.95);
    // Undone, put again, let go.
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(laid(&desk), BTreeMap::new());
    assert_eq!(put(form).status(), Status::SeeOther);
    assert_eq!(put("action=free-all").status(), Status::SeeOther);
    assert_eq!(laid(&desk), BTreeMap::new());
}

#[test]
fn a_rig_from_nothing_and_a_thing_that_no_longer_fits() {
    let desk = Desk::demo();
    assert_eq!(desk.post("/rigs", "name="), Status::UnprocessableEntity);
    assert_eq!(desk.post("/rigs", "name=Two+boxes"), Status::SeeOther);
    let at = "/rigs/two-boxes";
    assert!(desk.page(at).contains("Nothing on it yet"));
    let put = |form: &str| desk.send(at, ContentType::Form, form);
    for gear in ["open-crate", "tackle-box-36", "flotation-aid-foam"] {
        assert_eq!(
            put(&format!("action=add&gear={gear}")).status(),
            Status::SeeOther
        );
    }
    let boxes = "line=1&item=tackle+box%2C+nominal+36+%C3%97+22+%C3%97+5+cm";
    assert_eq!(
        put(&format!("action=more&{boxes}")).status(),
        Status::SeeOther
    );
    assert_eq!(
        put(&format!("action=into&into=open-crate&{boxes}")).status(),
        Status::SeeOther
    );
    let page = desk.page(at);
    assert!(
        page.contains("packed in the open crate") && page.contains("5.3\u{a0}kg"),
        "{page}"
    );
    assert!(page.contains("There is no spare paddle") && !page.contains("no flotation aid"));
    // Somebody took the line off meanwhile: said, nothing else is changed.
    let stale = put("action=off&line=0&item=a+kettle");
    assert_eq!(stale.status(), Status::UnprocessableEntity);
    assert!(
        stale
            .into_string()
            .unwrap()
            .contains("somebody changed this rig meanwhile")
    );
    // A crate made longer than any well rules hulls out by name and amount.
    let fits = |desk: &Desk| {
        let text = desk.page("/ranking.json?rig=two-boxes");
        let answer: Value = serde_json::from_str(&text).unwrap();
        let out = answer["ruled_out"]
            .as_array()
            .unwrap()
            .iter()
            .flat_map(|o| {
                o["reasons"]
                    .as_array()
                    .unwrap()
                    .iter()
                    .filter(|r| r["code"] == "does-not-fit")
            });
        out.map(|r| r["text"].as_str().unwrap().to_owned())
            .collect::<Vec<_>>()
    };
    let before = fits(&desk).len();
    let form = desk.page("/kit/open-crate");
    assert!(form.contains("On Reed-edge day, Two boxes"));
    let typed = "name=open+crate&category=crates&dry=2.6&length=140+cm&width=80+cm&height=28+cm&fixings=strap&zones=tank-well&tether=floats&strain=light&owned=yes&inside-length=37&inside-width=30&inside-height=25";
    assert_eq!(desk.post("/kit/open-crate", typed), Status::SeeOther);
    let after = fits(&desk);
    assert!(after.len() > before, "{after:?}");
    assert!(
        after
            .iter()
            .any(|t| t.contains("open crate: 1400\u{a0}mm long")),
        "{after:?}"
    );
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(fits(&desk).len(), before);
    // A thing in use is not thrown away; one that is not, is, and comes back.
    let used = desk.send("/kit/open-crate", ContentType::Form, "action=forget");
    assert_eq!(used.status(), Status::UnprocessableEntity);
    assert!(used.into_string().unwrap().contains("still use it"));
    // Variants branch and show what differs.
    assert_eq!(
        put("action=branch&name=Three+boxes").status(),
        Status::SeeOther
    );
    let more = desk.post("/rigs/three-boxes", &format!("action=more&{boxes}"));
    assert_eq!(more, Status::SeeOther);
    let page = desk.page("/rigs/three-boxes?against=two-boxes");
    assert!(page.contains("+ 1 × tackle box") && page.contains("0.9\u{a0}kg heavier"));
}

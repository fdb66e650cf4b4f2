//! Every form of every record: opened and saved it changes nothing, with one field typed
//! it changes that field and nothing else. The forms are found by walking the pages, so
//! that one added later is among them.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::{Desk, all_of, css};
use galvet::demo_data;
use galvet_core::hull::{Modification, Opening, Source, Zone};
use galvet_core::rig::RigLine;
use galvet_store::files::photo::Photo;
use galvet_store::files::sheet::Document;
use galvet_store::{Catalogue, Record};
use rocket::http::{ContentType, Status};
use scraper::{ElementRef, Html};
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet, VecDeque};

/// Hulls whose forms are walked: one with zones, fittings, changes and sections.
const HULLS: [&str; 2] = ["fennick-dunmarrow", "quarnel-sprannet"];

/// The demo with figures that no form shows to their last digit.
fn awkward() -> Catalogue {
    let mut all = demo_data::catalogue().unwrap();
    // A few of each kind are as good as all, and everything kept is looked at often.
    all.briefs = Vec::new();
    all.rigs.truncate(1);
    for rig in &mut all.rigs {
        rig.lines.truncate(2);
        rig.lines.push(RigLine {
            loaded_mass: 4.5678,
            place: 0.712_34,
            height: 0.112_34,
            offset: -0.1237,
            ..RigLine::plain("a bucket of bait", 1.2345)
        });
    }
    all.hulls.retain(|h| HULLS.contains(&h.survey.key.as_str()));
    let lines = all.rigs.iter().flat_map(|rig| &rig.lines);
    let used: BTreeSet<String> = lines.filter_map(|line| line.gear.clone()).collect();
    let some = all.gear.into_iter().enumerate();
    let some = some.filter(|(n, gear)| n % 15 == 0 || used.contains(&gear.key));
    all.gear = some.map(|(_, gear)| gear).collect();
    all.waters.truncate(4);
    for gear in &mut all.gear {
        gear.price = Some(19.95);
        gear.dry_mass += 0.001_37;
        gear.loaded_mass += 0.001_37;
        for side in gear.size.iter_mut().flatten() {
            *side += 0.000_44;
        }
    }
    // An outing and a place have many fields each, and are all alike.
    for few in ["outing", "service", "place"] {
        let mut seen = 0;
        all.sheets.retain(|sheet| {
            seen += usize::from(sheet.kind.key == few);
            sheet.kind.key != few || seen <= 1
        });
    }
    for sheet in &mut all.sheets {
        if let Some(photo) = sheet.sheet::<Photo>() {
            let hull = HULLS[0].to_owned();
            *sheet = Document::of(&Photo {
                hull,
                ..photo.clone()
            });
        }
    }
    for water in &mut all.waters {
        water.freeboard += 0.001_23;
        water.least_depth += 0.001_23;
        water.working_share -= 0.001_23;
    }
    for hull in &mut all.hulls {
        for zone in &mut hull.survey.fitout.zones {
            zone.from += 0.001_37;
            zone.to += 0.001_37;
            zone.date = "2025-04-01".into();
            zone.source = Source::Tape;
            zone.reach.get_or_insert(galvet_core::hull::Reach::Seated);
        }
        for fitting in &mut hull.survey.fitout.fittings {
            fitting.x += 0.001_23;
            fitting.y += 0.000_12;
        }
        let places = hull.survey.fitout.zones.first().cloned();
        let (Some(place), Some(made)) = (places, hull.survey.fitout.modifications.first_mut())
        else {
            continue;
        };
        *made = Modification {
            price: Some(63.95),
            mass: 1.2345,
            x: 2.218_37,
            zones: ["first", "second"]
                .map(|name| Zone {
                    name: format!("{} {name}", made.name),
                    opening: Some(Opening::Round(0.201_37)),
                    floor: Some(0.123_45),
                    ..place.clone()
                })
                .into(),
            ..made.clone()
        };
    }
    all
}

/// A form that says what it showed.
struct Form {
    action: String,
    fields: BTreeMap<String, String>,
    /// What is sent beside them.
    along: Vec<(String, String)>,
    /// What its choices offer, and what its ticks send.
    choices: BTreeMap<String, Vec<String>>,
    /// Whether it takes a file: without one there is nothing to save.
    uploads: bool,
}

fn forms(page: &str) -> Vec<Form> {
    let page = Html::parse_document(page);
    let all: Vec<ElementRef<'_>> = page.select(&css("form")).collect();
    let read = |form: ElementRef<'_>| {
        let first = |selector: &str| all_of(form, selector, "value").into_iter().next();
        let shown = first("[name=shown]")?;
        let fields = serde_json::from_str(&shown).ok()?;
        let mut along = vec![("shown".to_owned(), shown)];
        let keep = first("[name=action]");
        along.extend(keep.map(|word| ("action".to_owned(), word)));
        for which in ["kind", "line", "item"] {
            let said = first(&format!("[name={which}]"));
            along.extend(said.map(|word| (which.to_owned(), word)));
        }
        Some(Form {
            action: form.value().attr("action")?.to_owned(),
            fields,
            along,
            choices: choices(form),
            uploads: form.select(&css("[type=file]")).next().is_some(),
        })
    };
    all.into_iter().filter_map(read).collect()
}

/// What each choice of a form offers, and each tick: sent or not.
fn choices(form: ElementRef<'_>) -> BTreeMap<String, Vec<String>> {
    let mut out = BTreeMap::new();
    let named = |e: ElementRef<'_>| e.value().attr("name").map(str::to_owned);
    for select in form.select(&css("select")) {
        out.extend(named(select).map(|name| (name, all_of(select, "option", "value"))));
    }
    for tick in form.select(&css("[type=checkbox]")) {
        let sent = tick.value().attr("value").unwrap_or("on").to_owned();
        out.extend(named(tick).map(|name| (name, vec![sent, String::new()])));
    }
    out
}

fn encoded(pairs: impl Iterator<Item = (String, String)>) -> String {
    let encoded = |text: &str| rocket::http::RawStr::new(text).percent_encode().to_string();
    let pairs: Vec<String> = pairs
        .map(|(n, v)| format!("{}={}", encoded(&n), encoded(&v)))
        .collect();
    pairs.join("&")
}

impl Form {
    /// Sends it, with one field typed anew or none.
    fn send(&self, desk: &Desk, typed: Option<(&str, &str)>) -> Status {
        let fields = self.fields.iter().map(|(name, text)| {
            let now = typed
                .filter(|(n, _)| n == name)
                .map_or(text.as_str(), |t| t.1);
            (name.clone(), now.to_owned())
        });
        let body = encoded(fields.chain(self.along.iter().cloned()));
        desk.send(&self.action, ContentType::Form, &body).status()
    }
}

/// Every figure and word kept, by its path.
fn kept(desk: &Desk) -> BTreeMap<String, Value> {
    fn leaves(path: String, value: &Value, out: &mut BTreeMap<String, Value>) {
        match value {
            Value::Object(all) => {
                for (name, value) in all {
                    leaves(format!("{path}.{name}"), value, out);
                }
            }
            Value::Array(all) => {
                for (at, value) in all.iter().enumerate() {
                    leaves(format!("{path}.{at}"), value, out);
                }
            }
            leaf => {
                out.insert(path, leaf.clone());
            }
        }
    }
    let all = desk.store.catalogue().unwrap();
    let hulls = all.hulls.into_iter().map(|h| Record::Hull(Box::new(h)));
    let gear = all.gear.into_iter().map(|g| Record::Gear(Box::new(g)));
    let waters = all.waters.into_iter().map(Record::Water);
    let rigs = all.rigs.into_iter().map(Record::Rig);
    let mut out = BTreeMap::new();
    let sheets = all.sheets.into_iter().map(Record::Sheet);
    for record in hulls.chain(gear).chain(waters).chain(rigs).chain(sheets) {
        let path = format!("{:?}.{}", record.kind(), record.slug());
        leaves(path, &record.document().unwrap(), &mut out);
    }
    out
}

/// Paths of what differs.
fn changed(before: &BTreeMap<String, Value>, after: &BTreeMap<String, Value>) -> Vec<String> {
    let names: BTreeSet<&String> = before.keys().chain(after.keys()).collect();
    let differs = names
        .into_iter()
        .filter(|n| before.get(*n) != after.get(*n));
    differs.cloned().collect()
}

/// Whether something a line of a rig tells is its thing's on the shelf.
fn of_the_shelf(path: &str, all: &BTreeMap<String, Value>) -> bool {
    const ITS_OWN: [&str; 6] = [
        "count",
        "importance",
        "within",
        "place",
        "height_m",
        "offset_m",
    ];
    let Some((line, field)) = path.rsplit_once('.') else {
        return false;
    };
    let shelved = all
        .get(&format!("{line}.gear"))
        .is_some_and(Value::is_string);
    path.starts_with("Rig.") && shelved && !ITS_OWN.contains(&field)
}

/// Pages with forms of records, found by their links.
fn pages(desk: &Desk) -> Vec<String> {
    let mut found = BTreeSet::new();
    let mut next: VecDeque<String> = ["/kit", "/waters", "/events"].map(str::to_owned).into();
    for hull in HULLS {
        let all = [
            "walk", "fittings", "changes", "comfort", "lines", "record", "photos",
        ];
        next.extend(all.map(|at| format!("/hulls/{hull}/{at}")));
    }
    while let Some(at) = next.pop_front() {
        if !found.insert(at.clone()) || desk.ask(&at).status() != Status::Ok {
            continue;
        }
        let page = Html::parse_document(&desk.page(&at));
        let links = all_of(page.root_element(), "[href]", "href").into_iter();
        let ours = |link: &String| {
            let hull = HULLS
                .iter()
                .any(|h| link.starts_with(&format!("/hulls/{h}/")));
            let asks = ["zone=", "at=", "change=", "set_up=", "/photos/"];
            let asks = asks.iter().any(|a| link.contains(a))
                && !link.contains("end=stern")
                && !link.contains("/photos?");
            let shelf = ["/kit/", "/waters/", "/rigs/", "/events/"];
            let shelf = shelf.iter().any(|at| link.starts_with(at));
            shelf && !link.contains('.') || hull && asks
        };
        let bare = |link: String| link.split('#').next().unwrap_or_default().to_owned();
        next.extend(links.filter(ours).map(bare));
    }
    found.into_iter().collect()
}

/// Another figure in a field, if it is one.
fn another(text: &str) -> Option<String> {
    let digits = text.find(|c: char| c.is_ascii_digit())?;
    if digits > 1 {
        return None;
    }
    // Its last digit one up, or down from nine.
    let end = text[digits..].find(|c: char| !c.is_ascii_digit() && c != '.');
    let end = end.map_or(text.len(), |n| digits + n);
    let last = text[..end].chars().last()?.to_digit(10)?;
    let other = if last == 9 { last - 1 } else { last + 1 };
    Some(format!("{}{other}{}", &text[..end - 1], &text[end..]))
}

#[test]
fn a_form_changes_what_was_typed_and_nothing_else() {
    let (opened, typed) = walk("metric", "imperial");
    assert!(opened > 80 && typed > 400, "{opened} opened, {typed} typed");
}

#[test]
fn a_form_in_the_other_units_changes_what_was_typed_and_nothing_else() {
    let (opened, typed) = walk("imperial", "metric");
    assert!(opened > 50 && typed > 80, "{opened} opened, {typed} typed");
}

/// Opens and saves every form, and types into its fields, in `units`, while another tab
/// switches to the `other`: how many forms, how many fields.
fn walk(units: &str, other: &str) -> (usize, usize) {
    let desk = Desk::with(&awkward());
    let (mut opened, mut typed) = (0, 0);
    let mut kinds: BTreeSet<String> = BTreeSet::new();
    let mut often: BTreeMap<String, usize> = BTreeMap::new();
    let switch = |to: &str| desk.post("/settings/units", &format!("units={to}&back=/"));
    switch(units);
    let all = pages(&desk);
    for at in all {
        switch(units);
        let page = desk.page(&at);
        // In another tab the units are switched meanwhile: what was shown is read in
        // those it was shown in.
        switch(other);
        // What a guess is kept for is to say that it was measured.
        let guess = page.contains("guessed from its length");
        for form in forms(&page) {
            // In the other system what reads a form is the same code with other units:
            // some of each kind.
            let kind: Vec<&String> = form.fields.keys().collect();
            let kind = format!("{units}{}{kind:?}", at.split('/').nth(1).unwrap());
            let seen: &mut usize = often.entry(kind).or_default();
            *seen += 1;
            if units != "metric" && *seen > 2 {
                continue;
            }
            let before = (desk.store.state().unwrap(), kept(&desk));
            if !guess {
                let status = form.send(&desk, None);
                let fine = status == Status::SeeOther || form.uploads;
                assert!(fine, "{units} {at}: {status}");
                let after = kept(&desk);
                assert_eq!(
                    changed(&before.1, &after),
                    [""; 0],
                    "{units} {at}: untouched"
                );
                assert_eq!(
                    desk.store.state().unwrap(),
                    before.0,
                    "{units} {at}: a line"
                );
                opened += 1;
            }
            // Every figure in one system; in the other what a form reads is the same
            // code with other units, so two of each form.
            let most = if units == "metric" { usize::MAX } else { 2 };
            let figures = form.fields.iter();
            let figures = figures.filter_map(|(n, text)| Some((n, text, another(text)?)));
            // Words, choices and ticks: once for each kind of form.
            let kind: Vec<&String> = form.fields.keys().collect();
            let new = kinds.insert(format!("{}{kind:?}", at.split('/').nth(1).unwrap()));
            let words = form.fields.iter().filter(|_| new && most > 2);
            let words = words.filter(|(_, text)| another(text).is_none());
            let words = words.filter_map(|(n, text)| {
                let other = match form.choices.get(n) {
                    Some(offered) => offered.iter().find(|o| *o != text)?.clone(),
                    None => format!("{text} x").trim_start().to_owned(),
                };
                Some((n, text, other))
            });
            for (name, text, other) in figures.take(most).chain(words) {
                if guess || form.send(&desk, Some((name, &other))) != Status::SeeOther {
                    continue;
                }
                let after = kept(&desk);
                let said = |path: &String| {
                    (path.ends_with(".date") && name != "date") || path.ends_with(".source")
                };
                let mut moved = changed(&before.1, &after);
                moved.retain(|path| !said(path));
                // A line of a rig tells what the shelf says of its thing.
                moved.retain(|path| !of_the_shelf(path, &after));
                // What names a renamed thing names it by its new name; what stands in
                // a list of words moves up in it.
                let refers = |path: &String| {
                    name == "name"
                        && !path.ends_with(".name")
                        && after.get(path) == Some(&Value::from(other.as_str()))
                };
                moved.retain(|path| !refers(path));
                let list = |path: &String| path.rsplit_once('.').map(|p| p.0.to_owned());
                let of_words = |path: &String| path.ends_with(|c: char| c.is_ascii_digit());
                if moved.iter().all(of_words) {
                    moved.dedup_by_key(|path| list(path));
                }
                // What weighs the same with water in it is one figure on the form.
                let one = moved.len() == 1
                    || moved.len() == 2 && after.get(&moved[0]) == after.get(&moved[1]);
                assert!(one, "{units} {at}: {name} {text} -> {other}: {moved:?}");
                typed += 1;
                desk.undo();
                assert_eq!(
                    changed(&before.1, &kept(&desk)),
                    [""; 0],
                    "{units} {at}: undone"
                );
            }
        }
    }
    println!("{units}: {opened} forms opened and saved, {typed} fields typed");
    (opened, typed)
}

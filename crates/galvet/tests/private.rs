//! What is nobody's but a customer's and the staff's, and what is handed out.

use crate::counter::Shop;
use crate::desk::text_of;
use galvet::web::{Rule, rule_of};
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::handed::Handed;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Kind, Record};
use rocket::http::{Method, Status};

#[test]
fn a_paper_handed_out_is_read_by_anybody_and_leads_nowhere() {
    let shop = Shop::with_accounts();
    let mads = shop.sign_in("Mads");
    for (page, there) in [
        ("/hulls/quarnel-pipkin", true),
        ("/questions", false),
        ("/people", false),
        ("/everything.json", false),
    ] {
        let body = format!("page={page}");
        shop.post("/shared", &mads, &body);
        let all = shop
            .store
            .sheets::<galvet_store::files::handed::Handed>()
            .unwrap();
        let token = all.iter().find(|h| h.page == page).map(|h| h.key.clone());
        let Some(token) = token else {
            assert!(!there, "{page} is not handed out");
            continue;
        };
        let answer = shop.get(&format!("/shared/{token}"), "");
        assert_eq!(answer.status() == Status::Ok, there, "{page}");
        assert_eq!(answer.headers().get("Set-Cookie").count(), 0);
        assert!(!answer.into_string().unwrap().contains("Mads"));
    }
    assert_eq!(rule_of(Method::Get, "/questions"), Rule::Works);
    // It is out for a month; over is over, and more days are given by who works here.
    let handed = |shop: &Shop| {
        let all = shop.store.catalogue().unwrap();
        all.sheets_of::<Handed>().next().unwrap().clone()
    };
    let (out, today) = (handed(&shop), written_today());
    assert!(
        out.until.as_deref() > Some(today.as_str()),
        "{:?}",
        out.until
    );
    let read = |shop: &Shop| shop.get(&format!("/shared/{}", out.key), "").status();
    let set = |day: &str, who: &str| {
        let path = format!("/shared/{}/until", out.key);
        shop.post(&path, who, &format!("until={day}")).status()
    };
    assert_eq!(set("2026-01-31", &mads), Status::SeeOther);
    assert_eq!(read(&shop), Status::NotFound);
    assert!(
        shop.get("/papers", &mads)
            .into_string()
            .unwrap()
            .contains("its time is over")
    );
    assert_eq!(set("no day", &mads), Status::UnprocessableEntity);
    assert_eq!(set("2099-01-31", ""), Status::Unauthorized);
    assert_eq!(read(&shop), Status::NotFound);
    assert_eq!(set("2099-01-31", &mads), Status::SeeOther);
    assert_eq!(read(&shop), Status::Ok);
    let gone = shop.post(&format!("/shared/{}/withdraw", out.key), &mads, "");
    assert_eq!(gone.status(), Status::SeeOther);
    assert_eq!(read(&shop), Status::NotFound);
}

/// Today, as a page would write it.
fn written_today() -> String {
    let now = rocket::time::OffsetDateTime::now_utc().date();
    format!(
        "{:04}-{:02}-{:02}",
        now.year(),
        u8::from(now.month()),
        now.day()
    )
}

#[test]
fn a_customers_question_is_the_staffs() {
    let shop = Shop::with_accounts();
    let (lill, mads) = (shop.sign_in("Lill"), shop.sign_in("Mads"));
    for path in [
        "/",
        "/summary",
        "/ranking.json",
        "/hulls/quarnel-pipkin",
        "/part/ranking",
        "/pond",
    ] {
        let theirs = format!("{path}?brief=ilvar-reeds");
        assert_eq!(
            shop.get(&theirs, &lill).status(),
            Status::NotFound,
            "{path}"
        );
        assert_eq!(shop.get(&theirs, &mads).status(), Status::Ok, "{path}");
        let own = format!("{path}?brief=reed-edge");
        assert_eq!(shop.get(&own, &lill).status(), Status::Ok, "{path}");
    }
    // Nor is their name on any page somebody who looks on reads.
    for path in [
        "/",
        "/hulls",
        "/summary",
        "/ask",
        "/hulls/drumlee-orvane",
        "/kit",
    ] {
        let page = shop.get(path, &lill).into_string().unwrap();
        for name in ["Ilvar", "Mereth", "Dovin"] {
            assert!(!page.contains(name), "{path}: {name}");
        }
    }
    // It is handed out only where they want it, and then without how they are reached.
    let give = |more: &str| {
        let body = format!("page=/summary%3Fbrief%3Dilvar-reeds{more}");
        shop.post("/shared", &mads, &body)
    };
    let asked = give("");
    assert_eq!(asked.status(), Status::UnprocessableEntity);
    assert!(text_of(&asked.into_string().unwrap(), "main").contains("they want it"));
    assert_eq!(give("&of_customer=true").status(), Status::SeeOther);
    let out = shop.store.sheets::<Handed>().unwrap().remove(0);
    let paper = shop.get(&format!("/shared/{}", out.key), "");
    assert_eq!(paper.status(), Status::Ok);
    let paper = paper.into_string().unwrap();
    assert!(text_of(&paper, ".summary-hulls").contains("pass"));
    for gone in ["0100 220", "Ilvar", "Quessen"] {
        assert!(!paper.contains(gone), "{gone}: {}", text_of(&paper, "h1"));
    }
    // Any other page that is out shows nobody's name.
    shop.post("/shared", &mads, "page=/%3Fmass%3D88");
    let all = shop.store.sheets::<Handed>().unwrap();
    let other = all.iter().find(|h| !h.of_customer).unwrap();
    let paper = shop
        .get(&format!("/shared/{}", other.key), "")
        .into_string()
        .unwrap();
    assert!(!paper.contains("Ilvar") && !paper.contains("Mereth"));
    // Nor does a hull somebody wrote a name on, however long the note is.
    let note = format!(
        "{} Mereth Oskwin's words. {}",
        "Aye. ".repeat(205),
        "No. ".repeat(90)
    );
    let written = note.clone();
    let change = move |record: &mut Record| {
        if let Record::Hull(hull) = record {
            hull.survey.notes.clone_from(&written);
        }
        Ok::<_, galvet_store::StoreError>(())
    };
    let hull = (Kind::Hull, "quarnel-pipkin");
    shop.store.edit("test", "noted", hull, change).unwrap();
    let path = "/hulls/quarnel-pipkin";
    let read = shop.get(path, &mads).into_string().unwrap();
    assert!(text_of(&read, "main").contains("Mereth Oskwin's words."));
    let out = shop.post("/shared", &mads, &format!("page={path}"));
    assert_eq!(out.status(), Status::SeeOther);
    let all = shop.store.sheets::<Handed>().unwrap();
    let out = all.iter().find(|h| h.page == path).unwrap();
    let paper = shop.get(&format!("/shared/{}", out.key), "");
    let paper = paper.into_string().unwrap();
    assert!(!paper.contains("Mereth"));
    assert!(text_of(&paper, "main").contains("somebody's words. No. No."));
}

/// Puts a rig of the demo's under a customer's name.
fn give_rig(shop: &Shop, customer: &str, rig: &str) {
    let kind = Kind::of::<CustomerEntry>();
    let change = |record: &mut Record| {
        let Record::Sheet(sheet) = record else {
            unreachable!("a customer is a sheet")
        };
        let mut one = sheet.sheet::<CustomerEntry>().unwrap().clone();
        one.rigs.push(rig.to_owned());
        one.check().unwrap();
        *sheet = Document::of(&one);
        Ok::<_, galvet_store::StoreError>(())
    };
    let done = shop
        .store
        .edit("test", "a rig given", (kind, customer), change);
    assert!(done.unwrap().is_some());
}

#[test]
fn a_customers_rig_is_the_staffs() {
    let shop = Shop::with_accounts();
    let (lill, mads) = (shop.sign_in("Lill"), shop.sign_in("Mads"));
    let (key, name) = ("sound-trolling", "Sound, trolling");
    let rig = shop.store.record(Kind::Rig, key).unwrap().unwrap().1;
    assert_eq!(rig.name(), name);
    let read = |path: &str, who: &str| {
        let answer = shop.get(path, who);
        assert_eq!(answer.status(), Status::Ok, "{path}");
        answer.into_string().unwrap()
    };
    // One of a question of the house's stays the house's, whoever has it too.
    give_rig(&shop, "ilvar-quessen", "reed-edge-day");
    assert!(read("/kit", &lill).contains("Reed-edge day"));
    assert!(read("/kit", &lill).contains(name), "nobody's yet");
    give_rig(&shop, "mereth-oskwin", key);
    let asked = [
        format!("/rigs/{key}"),
        format!("/rigs/{}", key.replace('-', "%2D")),
        format!("/?rig={key}"),
        format!("/hulls/quarnel-pipkin?mass=80&rig={key}"),
        format!("/ranking.json?rig={key}"),
        format!("/ranking.json?rig={}", key.replace('-', "%2d")),
        format!("/hulls/quarnel-pipkin/stow?rig={key}"),
    ];
    for path in &asked {
        assert_eq!(shop.get(path, &lill).status(), Status::NotFound, "{path}");
        assert_eq!(shop.get(path, &mads).status(), Status::Ok, "{path}");
    }
    // Nor does its name stand anywhere somebody who looks on reads; who works here reads it.
    let thing = match &rig {
        Record::Rig(rig) => rig.lines.iter().find_map(|line| line.gear.clone()),
        _ => None,
    };
    let thing = format!("/kit/{}", thing.unwrap());
    for path in ["/", "/ask", "/kit", "/hulls", "/compare", thing.as_str()] {
        assert!(!read(path, &lill).contains(name), "{path}");
    }
    assert!(read("/kit", &mads).contains(name) && read("/", &mads).contains(name));
    // It is not handed out unasked, and no page that is out tells of it.
    let give = |page: &str| shop.post("/shared", &mads, &format!("page={page}"));
    let theirs = give(&format!("/%3Frig%3D{key}"));
    assert_eq!(theirs.status(), Status::UnprocessableEntity);
    assert_eq!(give("/%3Fmass%3D88").status(), Status::SeeOther);
    let out = shop.store.sheets::<Handed>().unwrap().remove(0);
    let paper = read(&format!("/shared/{}", out.key), "");
    assert!(!paper.contains(name));
}

//! A shop in which one customer has left traces everywhere they can.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::Desk;
use galvet_core::hull::{Felt, Trial};
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::{Photo, Picture};
use galvet_store::files::sheet::Document;
use galvet_store::files::stock::BookingEntry;
use galvet_store::{Kind, Record, Store};
use rocket::http::Status;
use std::io::Read;

/// A name no other word has in it, with a letter that keys and addresses write otherwise.
pub const NAME: &str = "Øyra Quillback";
pub const SPELLINGS: [&str; 5] = [
    "Øyra Quillback",
    "øyra quillback",
    "oyra-quillback",
    "oyra quillback",
    "%C3%98yra+Quillback",
];

/// Of a photo taken on her outing.
pub const PIXELS: &[u8] = b"pixels of a made-up picture 7311";

fn hull(store: &Store, change: impl FnOnce(&mut galvet_store::files::hulls::HullRecord)) {
    store
        .edit::<galvet_store::StoreError>("page", "changed", (Kind::Hull, "quarnel-pipkin"), |r| {
            if let Record::Hull(hull) = r {
                change(hull);
            }
            Ok(())
        })
        .unwrap();
}

fn sheet<S: galvet_store::files::sheet::Sheet>(store: &Store, one: &S) {
    store
        .write("page", &format!("{} put in", one.name()), |door| {
            door.put(&Record::Sheet(Document::of(one)), None)
        })
        .unwrap();
}

/// A shop in which one customer has left traces everywhere they can.
pub fn traced() -> Desk {
    let desk = Desk::demo();
    let store = &desk.store;
    // A question, by the page; the customer is on record by it.
    let saved = "name=In+the+reeds&customer=%C3%98yra+Quillback";
    assert_eq!(desk.post("/questions?mass=71+kg", saved), Status::SeeOther);
    assert_eq!(
        desk.post(
            "/questions?mass=72+kg",
            "name=Thrown&customer=%C3%B8yra+quillback"
        ),
        Status::SeeOther
    );
    let all = store.catalogue().unwrap();
    let keys: Vec<String> = all
        .briefs
        .iter()
        .filter(|b| b.customer.to_lowercase() == NAME.to_lowercase())
        .map(|b| b.key.clone())
        .collect();
    assert_eq!(keys.len(), 2);
    desk.post(&format!("/questions/{}/throw-away", keys[1]), "");
    // A test paddle with a note, and a note of somebody else that names them.
    hull(store, |hull| {
        hull.survey.looked.trials.push(Trial {
            who: NAME.to_owned(),
            date: "2026-05-01".to_owned(),
            stood: true,
            felt: Felt::Steady,
            note: "sore left knee".to_owned(),
        });
    });
    hull(store, |hull| {
        hull.survey.notes = "Øyra Quillback says it slaps".to_owned()
    });
    // An outing, a booking, a rig, a page handed out, a kept page.
    let mut outing = store.sheets::<OutingEntry>().unwrap().remove(0);
    outing.key = "hers".to_owned();
    outing.who = NAME.to_owned();
    sheet(store, &outing);
    // A photo taken on it, and one of another day she took.
    let mut photo = store.sheets::<Photo>().unwrap().remove(0);
    photo.who = NAME.to_owned();
    photo.key = "by-her".to_owned();
    sheet(store, &photo);
    let pixels = Picture {
        jpeg: PIXELS.to_vec(),
        width: 4,
        height: 3,
    };
    photo.picture = store.keep_picture(&pixels).unwrap();
    photo.key = "of-her".to_owned();
    photo.outing = "hers".to_owned();
    sheet(store, &photo);
    sheet(
        store,
        &BookingEntry {
            key: "booked".to_owned(),
            name: "Drumlee Orvane, 2026-12-07 10:00".to_owned(),
            hull: "drumlee-orvane".to_owned(),
            who: NAME.to_owned(),
            from: "2026-12-07T10:00".to_owned(),
            hours: 2,
            note: String::new(),
        },
    );
    let rigs = desk.post(
        "/rigs",
        "name=%C3%98yra+Quillback+light&from=light-and-quick",
    );
    assert_eq!(rigs, Status::SeeOther);
    let shared = format!("page=/summary%3Fbrief%3D{}&of_customer=true", keys[0]);
    assert_eq!(desk.post("/shared", &shared), Status::SeeOther);
    let rig = store
        .catalogue()
        .unwrap()
        .rigs
        .iter()
        .find(|r| r.name.contains("Quillback"))
        .unwrap()
        .key
        .clone();
    let path = "/customers/oyra-quillback";
    assert_eq!(
        desk.post(path, &format!("action=rig&rig={rig}")),
        Status::SeeOther
    );
    let page = format!(
        "action=page&called=Quote&page=/hulls/quarnel-pipkin/papers/quote%3Fbrief%3D{}",
        keys[0]
    );
    assert_eq!(desk.post(path, &page), Status::SeeOther);
    desk
}

/// Whether a name in any of its spellings stands in the database's files: looked for here,
/// byte by byte.
pub fn stands(store: &Store) -> Vec<&'static str> {
    let mut bytes = Vec::new();
    for file in ["galvet.db", "galvet.db-wal"] {
        let path = store.directory().join(file);
        if path.exists() {
            std::fs::File::open(path)
                .unwrap()
                .read_to_end(&mut bytes)
                .unwrap();
        }
    }
    let low = bytes.to_ascii_lowercase();
    let there = |name: &&str| {
        let name = name.to_ascii_lowercase();
        low.windows(name.len()).any(|w| w == name.as_bytes())
    };
    SPELLINGS.into_iter().filter(there).collect()
}

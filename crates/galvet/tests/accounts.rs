//! Accounts as pages: let in, shut out, a password of one's own, asked for again.

use crate::counter::{PASSWORD, Shop, session};
use crate::desk::text_of;
use rocket::http::Status;

#[test]
fn what_is_sensitive_asks_for_the_password_again() {
    let shop = Shop::with_accounts();
    let runa = shop.sign_in("Runa");
    assert_eq!(
        shop.get("/people", &runa).status(),
        Status::Ok,
        "given a moment ago"
    );
    // What is about people is in no cache.
    for path in ["/people", "/customers", "/account", "/bookings.ics"] {
        let kept = shop.get(path, &runa);
        assert_eq!(
            kept.headers().get_one("Cache-Control"),
            Some("no-store"),
            "{path}"
        );
    }
    // Eleven minutes on.
    let session = shop.store.sessions(None, galvet::account::now()).unwrap()[0].id;
    shop.store
        .proved(session, galvet::account::now() - 11 * 60_000)
        .unwrap();
    let answer = shop.get("/people", &runa);
    let to = answer.headers().get_one("Location").unwrap().to_owned();
    assert_eq!(to, "/account/prove?back=%2Fpeople");
    for path in ["/people", "/people/1/out", "/backups/restore"] {
        let answer = shop.post(
            path,
            &runa,
            "name=Ida&role=owner&password=eleven+dry+cormorants",
        );
        assert_eq!(answer.status(), Status::Unauthorized, "{path}");
    }
    assert_eq!(shop.store.people().unwrap().len(), 3);
    let wrong = shop.post(
        "/account/prove",
        &runa,
        "password=none+of+these&back=/people",
    );
    assert_eq!(wrong.status().code, 422);
    let right = format!("password={}&back=/people", PASSWORD.replace(' ', "+"));
    let right = shop.post("/account/prove", &runa, &right);
    assert_eq!(right.headers().get_one("Location"), Some("/people"));
    assert_eq!(shop.get("/people", &runa).status(), Status::Ok);
}

#[test]
fn the_owner_lets_people_in_who_choose_their_own_password_first() {
    let shop = Shop::with_accounts();
    let runa = shop.sign_in("Runa");
    let new = "name=Ida+Sund&role=staff&password=eleven+dry+cormorants";
    assert_eq!(shop.post("/people", &runa, new).status(), Status::SeeOther);
    let again = shop.post("/people", &runa, new);
    assert_eq!(again.status(), Status::UnprocessableEntity);
    assert!(text_of(&again.into_string().unwrap(), "[role=alert]").contains("somebody already"));
    // No field makes more of it than the page has.
    let sly = "name=Odd&role=owner%00&password=eleven+dry+cormorants";
    assert_eq!(
        shop.post("/people", &runa, sly).status(),
        Status::UnprocessableEntity
    );
    let answer = shop.post(
        "/sign-in",
        "",
        "name=ida+sund&password=eleven+dry+cormorants",
    );
    let ida = session(&answer).unwrap();
    for path in ["/", "/hulls", "/lately"] {
        let answer = shop.get(path, &ida);
        assert_eq!(
            answer.headers().get_one("Location"),
            Some("/account"),
            "{path}"
        );
    }
    let form = "old=eleven+dry+cormorants&new=nineteen+tin+lanterns&again=nineteen+tin+lanterns&role=owner";
    let done = shop.post("/account/password", &ida, form);
    assert_eq!(done.status(), Status::SeeOther, "{:?}", done.into_string());
    assert_eq!(shop.get("/lately", &ida).status(), Status::Ok);
    assert_eq!(shop.get("/people", &ida).status(), Status::Forbidden);
    // Nobody ends a session that is not theirs.
    let people = shop.store.people().unwrap();
    let owner = people.iter().find(|p| p.name == "Runa").unwrap().id;
    let session = shop
        .store
        .sessions(Some(owner), galvet::account::now())
        .unwrap()[0]
        .id;
    shop.post(&format!("/account/sessions/{session}/end"), &ida, "");
    assert_eq!(shop.get("/", &runa).status(), Status::Ok);
    // Shut out is out at once.
    let ida_is = people.iter().find(|p| p.name == "Ida Sund").unwrap().id;
    shop.post(&format!("/people/{ida_is}/out"), &runa, "");
    assert_eq!(shop.get("/lately", &ida).status(), Status::SeeOther);
    assert_eq!(
        shop.get("/lately", &ida).headers().get_one("Location"),
        Some("/sign-in?back=%2Flately")
    );
    let page = shop.get("/people", &runa).into_string().unwrap();
    assert!(page.contains("Let Ida Sund in again") && page.contains("shut out"));
    assert!(!page.contains("argon2"), "no hash on a page");
}

#[test]
fn the_meter_says_what_the_door_will_say() {
    let shop = Shop::with_accounts();
    let lill = shop.sign_in("Lill");
    let meter = |who: &str, body: &str| {
        let answer = shop.post("/account/strength", who, body);
        (answer.status(), answer.into_string().unwrap_or_default())
    };
    let (status, said) = meter(&lill, "name=Lill&password=seventeen+wet+herons");
    assert_eq!(status, Status::Ok);
    let said: serde_json::Value = serde_json::from_str(&said).unwrap();
    assert!(said["score"].as_u64().unwrap() >= 3, "{said}");
    let (_, said) = meter(&lill, "name=Lill&password=123456789012");
    let said: serde_json::Value = serde_json::from_str(&said).unwrap();
    assert!(said["score"].as_u64().unwrap() < 3, "{said}");
    // Nobody else guesses with it.
    assert_ne!(meter("", "password=seventeen+wet+herons").0, Status::Ok);
}

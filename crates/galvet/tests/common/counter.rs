//! A shop that opens its door only to people with an account.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet::account::let_in;
use galvet::demo_data;
use galvet::web::{Access, Settings, build};
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{Role, SETTING_UP, Store};
use rocket::http::{ContentType, Header, Method, Status};
use rocket::local::blocking::{Client, LocalResponse};
use std::sync::Arc;

/// Everybody's password.
pub const PASSWORD: &str = "seventeen wet herons";
/// What a browser says of a form of this site's.
pub const SAME: &str = "same-origin";

/// Its server, and what it keeps.
pub struct Shop {
    pub client: Client,
    pub store: Store,
    _directory: tempfile::TempDir,
}

/// Everybody there is, by role.
pub const PEOPLE: [(&str, Role); 3] = [
    ("Lill", Role::Looker),
    ("Mads", Role::Staff),
    ("Runa", Role::Owner),
];

impl Shop {
    pub fn open(access: Access) -> Self {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store
            .fill(SETTING_UP, &demo_data::catalogue().unwrap())
            .unwrap();
        for (name, role) in PEOPLE.into_iter().rev() {
            let_in(&store, "test", (name, role), (PASSWORD, false)).unwrap();
        }
        let rocket = build(Settings {
            listen: ([127, 0, 0, 1], 0).into(),
            hosts: vec!["kayaks.example".to_owned()],
            units: System::Metric,
            memory: galvet::answer::BUDGET,
            guides: Arc::new(Guides::default()),
            access,
            store: store.clone(),
            throw_away: true,
        });
        Self {
            client: Client::untracked(rocket.unwrap()).unwrap(),
            store,
            _directory: directory,
        }
    }

    pub fn with_accounts() -> Self {
        Self::open(Access::Accounts { tls: false })
    }

    /// Asks as whoever keeps a cookie.
    pub fn ask(&self, method: Method, path: &str, cookie: &str, body: &str) -> LocalResponse<'_> {
        let asked = self
            .client
            .req(method, path.to_owned())
            .header(Header::new("Host", "localhost"))
            .header(Header::new("Sec-Fetch-Site", SAME))
            .header(ContentType::Form)
            .body(body);
        match cookie.split_once('=') {
            Some((name, value)) => asked.cookie((name.to_owned(), value.to_owned())),
            None => asked,
        }
        .dispatch()
    }

    pub fn get(&self, path: &str, cookie: &str) -> LocalResponse<'_> {
        self.ask(Method::Get, path, cookie, "")
    }

    pub fn post(&self, path: &str, cookie: &str, body: &str) -> LocalResponse<'_> {
        self.ask(Method::Post, path, cookie, body)
    }

    /// Signs somebody in; what their browser keeps.
    pub fn sign_in(&self, name: &str) -> String {
        let body = format!("name={name}&password={}", PASSWORD.replace(' ', "+"));
        let answer = self.post("/sign-in", "", &body);
        assert_eq!(answer.status(), Status::SeeOther, "{name}");
        session(&answer).unwrap()
    }
}

/// What an answer asks the browser to keep of a session.
pub fn session(answer: &LocalResponse<'_>) -> Option<String> {
    let set = answer.headers().get("Set-Cookie");
    let kept = set.filter_map(|cookie| cookie.split(';').next());
    let mut kept = kept.filter(|cookie| cookie.contains("session="));
    kept.next().map(str::to_owned)
}

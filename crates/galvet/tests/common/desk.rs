//! A server in process, without a socket.
#![allow(dead_code, reason = "each test file uses its own part")]
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet::demo_data;
use galvet::web::{Access, Settings, build};
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::files::photo::Photo;
use galvet_store::{Catalogue, SETTING_UP, Store};
use rocket::http::{ContentType, Header, Status};
use rocket::local::blocking::{Client, LocalResponse};
use scraper::{ElementRef, Html, Selector};
use std::sync::Arc;

/// What a page says where a selector finds it.
pub fn text_of(page: &str, selector: &str) -> String {
    let page = Html::parse_document(page);
    let selector = Selector::parse(selector).unwrap();
    let all = page.select(&selector);
    let words: Vec<String> = all.map(|e| e.text().collect()).collect();
    words.join("\n")
}

/// A selector.
pub fn css(selector: &str) -> Selector {
    Selector::parse(selector).unwrap()
}

/// The attributes of a name of what a selector finds.
pub fn all_of(part: ElementRef<'_>, selector: &str, name: &str) -> Vec<String> {
    let found = part.select(&css(selector)).collect::<Vec<_>>().into_iter();
    found
        .filter_map(|e| e.value().attr(name).map(str::to_owned))
        .collect()
}

/// A server in process, over a data directory that goes with it.
pub struct Desk {
    pub client: Client,
    pub store: Store,
    _directory: tempfile::TempDir,
}

impl Desk {
    pub fn with(catalogue: &Catalogue) -> Self {
        Self::set_up(catalogue, false)
    }

    /// A demo that is thrown away, with its simulated devices.
    pub fn throw_away() -> Self {
        Self::set_up(&demo_data::catalogue().unwrap(), true)
    }

    fn set_up(catalogue: &Catalogue, throw_away: bool) -> Self {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        for picture in demo_data::pictures().unwrap() {
            let mut shown = catalogue.sheets_of::<Photo>();
            if shown.any(|photo| photo.picture == picture.name()) {
                store.keep_picture(&picture).unwrap();
            }
        }
        store.fill(SETTING_UP, catalogue).unwrap();
        let rocket = build(Settings {
            listen: ([127, 0, 0, 1], 0).into(),
            hosts: Vec::new(),
            units: System::Metric,
            memory: galvet::answer::BUDGET,
            guides: Arc::new(Guides::default()),
            access: Access::Here,
            store: store.clone(),
            throw_away,
        })
        .unwrap();
        Self {
            client: Client::tracked(rocket).unwrap(),
            store,
            _directory: directory,
        }
    }

    pub fn demo() -> Self {
        Self::with(&demo_data::catalogue().unwrap())
    }

    pub fn ask(&self, path: &str) -> LocalResponse<'_> {
        let host = Header::new("Host", "localhost");
        self.client.get(path.to_owned()).header(host).dispatch()
    }

    pub fn page(&self, path: &str) -> String {
        let answer = self.ask(path);
        assert_eq!(answer.status(), Status::Ok, "{path}");
        answer.into_string().unwrap()
    }

    /// Takes back what pages offer this browser to take back.
    pub fn undo(&self) -> Status {
        let hand = self.client.cookies().get("galvet-hand").cloned();
        let who = hand.map_or_else(String::new, |hand| format!("page {}", hand.value()));
        let act = self.store.steps(&who, None).unwrap().undo;
        let act = act.map_or(0, |act| act.group);
        self.post("/undo", &format!("act={act}&back=/"))
    }

    pub fn post(&self, path: &str, form: &str) -> Status {
        self.send(path, ContentType::Form, form).status()
    }

    /// Sends a form with several parts, one of them a file: its field, name and content.
    pub fn send_parts(
        &self,
        path: &str,
        fields: &[(&str, &str)],
        file: Option<(&str, &str, &[u8])>,
    ) -> (Status, String) {
        const MARK: &str = "gunwale";
        let mut body = Vec::new();
        for (name, value) in fields {
            let part = format!(
                "--{MARK}\r\nContent-Disposition: form-data; name=\"{name}\"\r\n\r\n{value}\r\n"
            );
            body.extend(part.bytes());
        }
        if let Some((field, name, content)) = file {
            let head = format!(
                "--{MARK}\r\nContent-Disposition: form-data; name=\"{field}\"; filename=\"{name}\"\r\nContent-Type: application/octet-stream\r\n\r\n"
            );
            body.extend(head.bytes());
            body.extend(content);
            body.extend(b"\r\n");
        }
        body.extend(format!("--{MARK}--\r\n").bytes());
        let kind = ContentType::new("multipart", "form-data").with_params(("boundary", MARK));
        let answer = self.send(path, kind, &body);
        (answer.status(), answer.into_string().unwrap_or_default())
    }

    /// Posts something as a page of ours would.
    pub fn send(
        &self,
        path: &str,
        kind: ContentType,
        body: &(impl AsRef<[u8]> + ?Sized),
    ) -> LocalResponse<'_> {
        self.client
            .post(path.to_owned())
            .header(Header::new("Host", "localhost"))
            .header(Header::new("Sec-Fetch-Site", "same-origin"))
            .header(kind)
            .body(body.as_ref())
            .dispatch()
    }
}

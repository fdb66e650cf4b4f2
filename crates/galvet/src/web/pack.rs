//! Answers packed for the way: named by their content, so that a reader who has
//! them already is told so, and compressed for those who take that.

use crate::answer::{Memory, held};
use flate2::Compression;
use flate2::write::GzEncoder;
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::{Header, Method, Status};
use rocket::{Request, Response};
use std::io::{Cursor, Write};
use std::sync::{Arc, Mutex};

/// Bodies shorter than this are sent as they are, bytes.
const SMALL: usize = 860;

/// Packed bodies remembered, bytes: all assets, and some pages.
const KEPT: usize = 8 * 1024 * 1024;

/// Hexadecimal digits of a body's name.
const NAME: usize = 32;

/// Packs answers.
#[derive(Debug)]
pub(super) struct Pack {
    /// Bodies compressed, by the name of their content: assets are so once, and
    /// a page that many ask for at once.
    packed: Mutex<Memory<String, Arc<[u8]>>>,
}

impl Default for Pack {
    fn default() -> Self {
        Self {
            packed: Mutex::new(Memory::new(KEPT)),
        }
    }
}

/// Whether a list of a header's values has this one.
fn lists(request: &Request<'_>, header: &str, wanted: &str) -> bool {
    let values = request.headers().get(header);
    values.flat_map(|v| v.split(',')).any(|v| {
        let mut parts = v.split(';').map(str::trim);
        let named = parts
            .next()
            .is_some_and(|name| name == wanted || name == "*");
        named && !parts.any(|q| matches!(q, "q=0" | "q=0.0" | "q=0.00" | "q=0.000"))
    })
}

/// Text grows small; fonts and pictures are compressed already.
fn shrinks(response: &Response<'_>) -> bool {
    response.content_type().is_some_and(|kind| {
        kind.top() == "text" || kind.is_json() || kind.is_javascript() || kind.is_svg()
    })
}

fn squeezed(bytes: &[u8]) -> Option<Vec<u8>> {
    let mut encoder = GzEncoder::new(Vec::with_capacity(bytes.len() / 3), Compression::new(6));
    encoder.write_all(bytes).ok()?;
    encoder.finish().ok()
}

impl Pack {
    fn compressed(&self, name: &str, bytes: &[u8]) -> Option<Vec<u8>> {
        if let Some(ready) = held(&self.packed).get(&name.to_owned()) {
            return Some(ready.to_vec());
        }
        let made = squeezed(bytes)?;
        // What is larger than all the rest is not worth forgetting the rest for.
        if made.len() < KEPT / 4 {
            held(&self.packed).put(name.to_owned(), made.as_slice().into(), made.len());
        }
        Some(made)
    }
}

#[rocket::async_trait]
impl Fairing for Pack {
    fn info(&self) -> Info {
        Info {
            name: "pack",
            kind: Kind::Response,
        }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        let asked = matches!(request.method(), Method::Get | Method::Head);
        if !asked || response.status() != Status::Ok {
            return;
        }
        let Ok(bytes) = response.body_mut().to_bytes().await else {
            return;
        };
        let hash = blake3::hash(&bytes);
        let name: String = hash.to_hex().chars().take(NAME).collect();
        // Weak: the same content, packed or not.
        let tag = format!("W/\"{name}\"");
        response.set_header(Header::new("Vary", "Accept-Encoding, Cookie"));
        if lists(request, "If-None-Match", &tag) {
            response.set_header(Header::new("ETag", tag));
            response.set_status(Status::NotModified);
            return;
        }
        response.set_header(Header::new("ETag", tag));
        let wanted = bytes.len() > SMALL && shrinks(response);
        let packed = (wanted && lists(request, "Accept-Encoding", "gzip"))
            .then(|| self.compressed(&name, &bytes))
            .flatten();
        let body = match packed {
            Some(packed) => {
                response.set_header(Header::new("Content-Encoding", "gzip"));
                packed
            }
            None => bytes,
        };
        response.set_sized_body(body.len(), Cursor::new(body));
    }
}

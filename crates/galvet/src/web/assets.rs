//! Front-end files, embedded, under a name that changes with their content.
//!
//! All files share one hash in their path, so that modules, styles and fonts
//! find each other by relative names, and everything may be kept for a year.

use rocket::http::{ContentType, Header, Status};
use rocket::response::Responder;
use rocket::{Request, Response, get};
use rust_embed::RustEmbed;
use sha2::{Digest, Sha256};
use std::path::PathBuf;
use std::sync::LazyLock;

#[derive(RustEmbed)]
#[folder = "../../web/static/"]
struct Files;

/// First ten digits of the hash over all files' names and contents.
static VERSION: LazyLock<String> = LazyLock::new(|| {
    let mut names: Vec<_> = Files::iter().collect();
    names.sort();
    let mut hash = Sha256::new();
    for name in names {
        hash.update(name.as_bytes());
        if let Some(file) = Files::get(&name) {
            hash.update(&file.data);
        }
    }
    hash.finalize()
        .iter()
        .take(5)
        .map(|b| format!("{b:02x}"))
        .collect()
});

/// The address of an asset.
pub(crate) fn url(name: &str) -> String {
    format!("/assets/{}/{name}", *VERSION)
}

/// What is in a file.
pub(super) fn file(name: &str) -> Option<Vec<u8>> {
    Files::get(name).map(|file| file.data.into_owned())
}

/// One embedded file.
pub(crate) struct Asset {
    data: std::borrow::Cow<'static, [u8]>,
    kind: ContentType,
    current: bool,
}

impl<'r> Responder<'r, 'static> for Asset {
    fn respond_to(self, _: &'r Request<'_>) -> rocket::response::Result<'static> {
        let data = self.data.into_owned();
        let keep = if self.current {
            "public, max-age=31536000, immutable"
        } else {
            "no-store"
        };
        Response::build()
            .header(self.kind)
            .header(Header::new("Cache-Control", keep))
            .sized_body(data.len(), std::io::Cursor::new(data))
            .ok()
    }
}

#[get("/assets/<version>/<path..>")]
pub(super) fn asset(version: &str, path: PathBuf) -> Result<Asset, Status> {
    let name = path.to_str().ok_or(Status::NotFound)?;
    let file = Files::get(name).ok_or(Status::NotFound)?;
    let kind = mime_guess::from_path(name).first_or_octet_stream();
    Ok(Asset {
        data: file.data,
        kind: ContentType::parse_flexible(kind.as_ref()).unwrap_or(ContentType::Binary),
        current: version == *VERSION,
    })
}

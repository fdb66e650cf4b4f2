//! Files taken in, looked over before anything is kept; and files out.

use super::dealer;
use super::incoming::{ImportPage, Looked, chosen_of};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::present::page::survey::import::{self, ImportView};
use crate::survey::{is_own, read_file, take_in};
use galvet_store::files::{bundle, exchange, hull_table, input, mend, packed_text, spreadsheet};
use galvet_store::{FileError, Store, StoreError};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, State, get, post, routes};
use std::collections::{BTreeMap, HashMap};

#[get("/import?<taken>&<unpictured>")]
async fn page(
    taken: Option<usize>,
    unpictured: Option<usize>,
    visit: Visit<'_>,
) -> Result<ImportPage, Trouble> {
    let mut page = ImportPage::of(ImportView::default(), &visit);
    page.taken = taken.unwrap_or_default();
    page.unpictured = unpictured.unwrap_or_default();
    page.frame = visit
        .frame_of("hulls", visit.to("/import", &[]), None)
        .await?;
    page.waiting = dealer::waiting(&visit.shared.records().await?.catalogue);
    Ok(page)
}

/// A cell put right.
#[derive(FromForm)]
struct Fix {
    line: u64,
    column: String,
    value: String,
}

#[derive(FromForm)]
struct Sent<'r> {
    file: Option<TempFile<'r>>,
    #[field(default = String::new())]
    name: String,
    #[field(default = String::new())]
    text: String,
    #[field(name = "fix")]
    fixes: Vec<Fix>,
    #[field(name = "double")]
    doubles: HashMap<usize, String>,
    #[field(default = "look")]
    action: &'r str,
}

/// What the file is called when nobody says.
const PASTED: &str = "pasted table";

/// Name and text of what was sent: of a file chosen now, else of what was looked
/// over before.
async fn sent_text(sent: &Sent<'_>, store: &Store) -> Result<input::Input, FileError> {
    let file = sent.file.as_ref().filter(|file| file.len() > 0);
    let Some(file) = file else {
        let name = if sent.name.is_empty() {
            PASTED
        } else {
            &sent.name
        };
        return Ok(input::Input {
            file: name.chars().take(80).collect(),
            // A form sends every end of a line as two signs.
            text: sent.text.replace("\r\n", "\n"),
            read_as: None,
        });
    };
    let raw = file.raw_name().map_or(PASTED.to_owned(), |name| {
        name.dangerous_unsafe_unsanitized_raw().as_str().to_owned()
    });
    let name = galvet_store::files::echo(&raw);
    let mut bytes = Vec::new();
    let unread = |e: std::io::Error| FileError::whole(&name, e.to_string());
    let mut open = file.open().await.map_err(unread)?;
    open.read_to_end(&mut bytes).await.map_err(unread)?;
    if !spreadsheet::is_one(&bytes) {
        return input::decode(&name, &bytes);
    }
    let said = name.clone();
    let store = store.clone();
    let text = spawn_blocking(move || {
        let text = packed_text(&said, &bytes)?;
        // What nobody takes in is swept out when the data is opened next.
        bundle::pictures(&bytes, |picture| store.keep_picture(picture).map(|_| ()))
            .map_err(|e| FileError::whole(&said, e.to_string()))?;
        Ok(text)
    })
    .await;
    let text = text.map_err(|e| FileError::whole(&name, e.to_string()))??;
    Ok(input::Input {
        file: name,
        text,
        read_as: None,
    })
}

/// Looks a file over, or takes it in.
#[post("/import", data = "<form>")]
async fn import_page(
    form: Form<Sent<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, Looked)>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let sent = form.into_inner();
    let refused = |view| {
        let page = ImportPage::of(view, &visit);
        (Status::UnprocessableEntity, Looked::from(page))
    };
    let mut read = match sent_text(&sent, &shared.store).await {
        Ok(read) => read,
        Err(error) => return Ok(Err(refused(ImportView::unread(error)))),
    };
    if !sent.fixes.is_empty() {
        let fixes = sent
            .fixes
            .into_iter()
            .map(|fix| ((fix.line, fix.column), fix.value));
        let fixes: BTreeMap<mend::Cell, String> = fixes.collect();
        if let Ok(mended) = mend::mended(&read.text, &fixes) {
            read.text = mended;
        }
    }
    if !is_own(&read.text) {
        return Ok(Err(
            dealer::looked_over(&visit, &read.file, read.text).await?
        ));
    }
    let records = shared.records().await?;
    let units = reader.units;
    let looked = spawn_blocking(move || {
        let found = read_file(&read.file, &read.text);
        let view = import::import(&read, &found, &records.catalogue.hulls, units);
        (read.file, found, view)
    });
    let (file, found, view) = looked.await?;
    let Ok(incoming) = found else {
        return Ok(Err(refused(view)));
    };
    if sent.action != "keep" {
        return Ok(Err((Status::Ok, ImportPage::of(view, &visit).into())));
    }
    let store = shared.store.clone();
    let choose = chosen_of(sent.doubles);
    let taken =
        spawn_blocking(move || take_in(&store, reader.hand.who(), &file, &incoming, choose));
    match taken.await? {
        Ok(done) if done.unpictured > 0 => {
            let left = done.unpictured.to_string();
            Ok(Ok(visit.go("/import", &[("unpictured", &left)])))
        }
        Ok(_) => Ok(Ok(visit.go("/hulls", &[]))),
        // Somebody put the same in meanwhile: looked over anew, it shows.
        Err(StoreError::Conflict { .. } | StoreError::Taken { .. }) => {
            Ok(Err((Status::Conflict, ImportPage::of(view, &visit).into())))
        }
        Err(StoreError::Reference(problem)) => {
            let error = FileError::whole("file", problem);
            Ok(Err(refused(ImportView::unread(error))))
        }
        Err(error) => Err(error.into()),
    }
}

#[get("/hulls.csv")]
async fn hulls_csv(
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = shared.records().await?;
    let text = spawn_blocking(move || hull_table::write(&records.catalogue.hulls)).await?;
    Ok(text
        .map(|t| (ContentType::CSV, t))
        .map_err(|_| Status::InternalServerError))
}

/// Everything as one document; where anybody went only if it is asked for.
#[get("/everything.json?<tracks>")]
async fn everything(
    tracks: Option<&str>,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = shared.records().await?;
    let with_tracks = tracks == Some("yes");
    let text = spawn_blocking(move || {
        if with_tracks {
            return exchange::write(&records.catalogue);
        }
        exchange::write(&exchange::handed_on(&records.catalogue))
    });
    let text = text.await?;
    Ok(text
        .map(|t| (ContentType::JSON, t))
        .map_err(|_| Status::InternalServerError))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, import_page, hulls_csv, everything]
}

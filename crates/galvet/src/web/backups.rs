//! The owner's backups: the whole database out as one file, and back in.

use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{Restored, Store, StoreError, backup, restore};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::{ContentType, Header, Status};
use rocket::tokio::fs::File;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Responder, Route, get, post, routes};
use std::path::{Path, PathBuf};

/// A copy that lies beside the database.
struct Copy {
    name: String,
    size: String,
    why: &'static str,
}

/// The backups.
#[derive(Template, WebTemplate)]
#[template(path = "backups.html")]
struct BackupsPage {
    frame: Frame,
    directory: String,
    copies: Vec<Copy>,
    trouble: String,
    done: String,
}

/// Copies Galvet itself made in a data directory.
fn copies(directory: &Path) -> Vec<Copy> {
    let Ok(entries) = std::fs::read_dir(directory) else {
        return Vec::new();
    };
    let mut all: Vec<Copy> = entries
        .flatten()
        .filter_map(|entry| {
            let name = entry.file_name().to_string_lossy().into_owned();
            let why = match name.strip_prefix("galvet.before-")? {
                rest if rest.starts_with("restore-") => "as it was before a backup was put back",
                _ => "as it was before a new edition of Galvet",
            };
            let bytes = entry.metadata().ok()?.len();
            Some(Copy {
                size: format!("{:.1} MB", bytes as f64 / 1e6),
                name,
                why,
            })
        })
        .collect();
    all.sort_by(|a, b| a.name.cmp(&b.name));
    all
}

async fn backups_page(
    visit: &Visit<'_>,
    (done, trouble): (String, String),
) -> Result<BackupsPage, Trouble> {
    let directory = visit.shared.store.directory().to_owned();
    let shown = directory.display().to_string();
    Ok(BackupsPage {
        frame: visit.frame("backups", visit.to("/backups", &[])),
        directory: shown,
        copies: spawn_blocking(move || copies(&directory)).await?,
        trouble,
        done,
    })
}

/// Names of the copies in a data directory.
pub(super) fn names(directory: &Path) -> Vec<String> {
    copies(directory)
        .into_iter()
        .map(|copy| copy.name)
        .collect()
}

#[get("/backups")]
async fn page(visit: Visit<'_>) -> Result<BackupsPage, Trouble> {
    backups_page(&visit, (String::new(), String::new())).await
}

/// A file to be saved.
#[derive(Responder)]
struct Saved(File, ContentType, Header<'static>);

/// The database as it stands, in a file that is gone from here once it is open.
fn whole(store: &Store) -> Result<std::fs::File, StoreError> {
    let directory = store.directory();
    let unwritable = |source| StoreError::Unwritable {
        path: directory.to_owned(),
        source,
    };
    let aside = tempfile::Builder::new()
        .prefix("handed-")
        .tempdir_in(directory)
        .map_err(unwritable)?;
    let file = aside.path().join("galvet.db");
    backup(directory, &file)?;
    std::fs::File::open(&file).map_err(unwritable)
}

#[get("/backups/galvet.db")]
async fn download(visit: Visit<'_>) -> Result<Saved, Trouble> {
    let store = visit.shared.store.clone();
    let file = spawn_blocking(move || whole(&store)).await??;
    let day = super::reader::today();
    let name = format!("attachment; filename=\"galvet-{day}.db\"");
    Ok(Saved(
        File::from_std(file),
        ContentType::Binary,
        Header::new("Content-Disposition", name),
    ))
}

#[derive(FromForm)]
struct PutBack<'r> {
    file: TempFile<'r>,
}

/// What a restore did, in words.
fn told(restored: &Restored) -> String {
    let before = restored.before.as_deref().and_then(Path::file_name);
    let kept = before.map(|name| {
        format!(
            " What was there before lies beside it as {}.",
            name.to_string_lossy()
        )
    });
    let odd = match restored.checked.problems.len() {
        0 => String::new(),
        n => format!(" {n} of them cannot be used as they are; they are listed under Set aside."),
    };
    format!(
        "Put back: {} records.{odd}{} Accounts stayed as they are.",
        restored.checked.records,
        kept.unwrap_or_default()
    )
}

/// Puts a backup back, in one step; what was there is copied aside first.
#[post("/backups/restore", data = "<form>")]
async fn put_back(
    form: Form<PutBack<'_>>,
    visit: Visit<'_>,
) -> Result<(Status, BackupsPage), Trouble> {
    let directory = visit.shared.store.directory().to_owned();
    let mut file = form.into_inner().file;
    let refused = |why: String| (String::new(), why);
    let aside = spawn_blocking({
        let directory = directory.clone();
        move || {
            tempfile::Builder::new()
                .prefix("sent-")
                .tempdir_in(directory)
        }
    });
    let Ok(aside) = aside.await? else {
        let why = refused("Not done: the data directory cannot be written.".to_owned());
        let page = backups_page(&visit, why).await?;
        return Ok((Status::InternalServerError, page));
    };
    let path: PathBuf = aside.path().join("sent.db");
    let sent = if file.len() == 0 {
        Err("Not done: choose a backup first.".to_owned())
    } else {
        let copied = file.copy_to(&path).await;
        copied.map_err(|error| format!("Not done: the file did not come through: {error}."))
    };
    if let Err(why) = sent {
        let page = backups_page(&visit, refused(why)).await?;
        return Ok((Status::UnprocessableEntity, page));
    }
    let done = spawn_blocking(move || {
        let done = restore(&directory, &path);
        drop(aside);
        done
    });
    match done.await? {
        Ok(restored) => {
            let page = backups_page(&visit, (told(&restored), String::new())).await?;
            Ok((Status::Ok, page))
        }
        Err(StoreError::Open { reason, .. }) => {
            let why = format!(
                "Not done, nothing was changed: that is no backup of Galvet's that can be used ({reason})."
            );
            Ok((
                Status::UnprocessableEntity,
                backups_page(&visit, refused(why)).await?,
            ))
        }
        Err(StoreError::Newer { .. }) => {
            let why = "Not done, nothing was changed: a newer Galvet wrote that backup.".to_owned();
            Ok((
                Status::UnprocessableEntity,
                backups_page(&visit, refused(why)).await?,
            ))
        }
        Err(error) => Err(error.into()),
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, download, put_back]
}

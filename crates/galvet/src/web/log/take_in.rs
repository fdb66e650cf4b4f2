//! A plain spreadsheet log taken in: looked over first, good rows in, bad ones told.

use super::{at, sent_file};
use crate::log::put_all;
use crate::web::records::Records;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::FileError;
use galvet_store::files::log::table::{self, LogRead};
use galvet_store::files::{input, packed_text, spreadsheet};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "log-import.html")]
struct TakeInPage {
    frame: Frame,
    file: String,
    text: String,
    read: Option<LogRead>,
    trouble: Vec<String>,
    /// How many went in and how many stood there already.
    done: Option<(usize, usize)>,
}

impl TakeInPage {
    fn blank(visit: &Visit<'_>) -> Self {
        Self {
            frame: visit.frame("log", at(visit, "/log/import")),
            file: String::new(),
            text: String::new(),
            read: None,
            trouble: Vec::new(),
            done: None,
        }
    }
}

#[get("/log/import?<added>&<there>")]
async fn page(
    added: Option<usize>,
    there: Option<usize>,
    visit: Visit<'_>,
) -> Result<TakeInPage, Trouble> {
    Ok(TakeInPage {
        done: added.map(|added| (added, there.unwrap_or(0))),
        frame: visit
            .frame_of("log", at(&visit, "/log/import"), None)
            .await?,
        ..TakeInPage::blank(&visit)
    })
}

#[derive(FromForm)]
struct Sent<'r> {
    file: Option<TempFile<'r>>,
    #[field(default = String::new())]
    name: String,
    #[field(default = String::new())]
    text: String,
    #[field(default = "look")]
    action: &'r str,
}

/// Name and text of what was sent.
async fn text_of(sent: &Sent<'_>) -> Result<(String, String), FileError> {
    let file = sent_file(sent.file.as_ref(), table::LARGEST).await;
    let file = file.map_err(|why| FileError::whole("the file", why))?;
    let Some((name, bytes)) = file else {
        let name = match sent.name.as_str() {
            "" => "pasted table".to_owned(),
            name => name.chars().take(80).collect(),
        };
        return Ok((name, sent.text.replace("\r\n", "\n")));
    };
    if spreadsheet::is_one(&bytes) {
        let said = name.clone();
        let unpacked = spawn_blocking(move || packed_text(&said, &bytes)).await;
        let text = unpacked.map_err(|e| FileError::whole(&name, e.to_string()))??;
        return Ok((name, text));
    }
    let read = input::decode(&name, &bytes)?;
    Ok((name, read.text))
}

fn looked_over(records: &Records, file: &str, text: &str) -> Result<LogRead, Vec<String>> {
    if !table::is_one(text) {
        return Err(vec![format!(
            "{file}: a log says at least on which day and in which hull; no such columns are in it"
        )]);
    }
    let waters = records.catalogue.waters.iter();
    let waters: Vec<_> = waters
        .map(|w| (w.key.clone(), w.name.clone(), w.density))
        .collect();
    let told = |errors: Vec<FileError>| errors.iter().map(ToString::to_string).collect();
    table::read(file, text, &records.named(), &waters).map_err(told)
}

type Answer = Result<Result<Redirect, (Status, TakeInPage)>, Trouble>;

/// Looks a log over, or takes its good rows in.
#[post("/log/import", data = "<form>")]
async fn take_in(form: Form<Sent<'_>>, visit: Visit<'_>) -> Answer {
    let sent = form.into_inner();
    let refused = |trouble: Vec<String>, (file, text): (String, String)| {
        let page = TakeInPage {
            trouble,
            file,
            text,
            ..TakeInPage::blank(&visit)
        };
        Ok(Err((Status::UnprocessableEntity, page)))
    };
    let (file, text) = match text_of(&sent).await {
        Ok(read) => read,
        Err(error) => return refused(vec![error.to_string()], Default::default()),
    };
    let records = visit.shared.records().await?;
    let read = match looked_over(&records, &file, &text) {
        Ok(read) => read,
        Err(trouble) => return refused(trouble, (file, text)),
    };
    if sent.action != "keep" || read.good.is_empty() {
        let page = TakeInPage {
            read: Some(read),
            file,
            text,
            ..TakeInPage::blank(&visit)
        };
        return Ok(Err((Status::Ok, page)));
    }
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let all: Vec<_> = read.good.into_iter().map(|(_, entry)| entry).collect();
    let done = spawn_blocking(move || put_all(&store, hand.who(), &file, &all));
    let (added, there) = done.await??;
    let (added, there) = (added.to_string(), there.to_string());
    let told = [("added", added.as_str()), ("there", there.as_str())];
    Ok(Ok(visit.go("/log/import", &told)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, take_in]
}

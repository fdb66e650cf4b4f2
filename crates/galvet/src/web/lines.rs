//! A hull's lines: looked at, and measured sections put on the record.

use super::edit;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::survey::lines::{self, LinesView};
use crate::survey::sections_shown;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Kind;
use galvet_store::files::{input, offsets};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "lines.html")]
struct LinesPage {
    frame: Frame,
    lines: LinesView,
}

async fn lines_page(
    slug: &str,
    visit: &Visit<'_>,
    sent: (String, String),
) -> Result<LinesPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let hull = records.hull(slug)?.clone();
    let desk = shared.desk.clone();
    let made = spawn_blocking(move || {
        let drawn = desk.shapes(&hull).ok().map(|shapes| {
            let middle = shapes.middle();
            let stations = shapes.form.stations(&middle, &hull.survey.offsets);
            (shapes.form.lines(&middle), stations)
        });
        lines::lines(&hull.survey, drawn.as_ref(), sent, reader.units)
    });
    Ok(LinesPage {
        frame: visit
            .frame_of(
                "hull",
                visit.to(&format!("/hulls/{slug}/lines"), &[]),
                Some((Kind::Hull, slug)),
            )
            .await?,
        lines: made.await?,
    })
}

#[get("/hulls/<slug>/lines")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<LinesPage, Trouble> {
    let nothing = (String::new(), String::new());
    lines_page(slug, &visit, nothing).await
}

#[derive(FromForm)]
struct Sent<'r> {
    file: Option<TempFile<'r>>,
    #[field(default = String::new())]
    text: String,
    #[field(default = "keep")]
    action: &'r str,
    /// Which sections the form showed.
    #[field(default = "")]
    shown: &'r str,
}

/// Said where others measured meanwhile.
const OTHERS: &str = "somebody else put other sections on, or took them off, meanwhile: they are \
    drawn above. Once more, and yours take their place";

/// What the sections are called in messages when they were typed.
const TYPED: &str = "sections";

/// Name and text of the sections sent.
async fn text_of(sent: &Sent<'_>) -> Result<(String, String), String> {
    let Some(file) = sent.file.as_ref().filter(|f| f.len() > 0) else {
        return Ok((TYPED.to_owned(), sent.text.replace("\r\n", "\n")));
    };
    let name = file.name().unwrap_or(TYPED).to_owned();
    let mut bytes = Vec::new();
    let mut reader = file.open().await.map_err(|e| e.to_string())?;
    reader
        .read_to_end(&mut bytes)
        .await
        .map_err(|e| e.to_string())?;
    let read = input::decode(&name, &bytes).map_err(|e| e.to_string())?;
    Ok((name, read.text))
}

/// Puts measured sections on the record, or takes them off.
#[post("/hulls/<slug>/lines", data = "<form>")]
async fn put(
    slug: &str,
    form: Form<Sent<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, LinesPage)>, Trouble> {
    let (read, text) = if form.action == "forget" {
        (Ok(Vec::new()), String::new())
    } else {
        match text_of(&form).await {
            Ok((name, text)) => {
                let read = offsets::read_stations(&name, &text);
                (
                    read.map(|(stations, _)| stations)
                        .map_err(|e| e.to_string()),
                    text,
                )
            }
            Err(problem) => (Err(problem), String::new()),
        }
    };
    let problem = match read {
        Err(problem) => problem,
        Ok(stations) => {
            let label = match stations.len() {
                0 => "measured sections taken off".to_owned(),
                n => format!("{n} measured sections put on"),
            };
            let shown = form.shown.to_owned();
            let done = edit::edit(&visit, slug, label, move |hull| {
                let now = sections_shown(&hull.survey.offsets).sent_along();
                if !shown.is_empty() && shown != now {
                    return Err(OTHERS);
                }
                hull.survey.offsets.clone_from(&stations);
                Ok(())
            });
            match done.await? {
                Ok(()) => {
                    return Ok(Ok(visit.go(&format!("/hulls/{slug}/lines"), &[])));
                }
                Err(problem) => problem.to_string(),
            }
        }
    };
    let page = lines_page(slug, &visit, (text, problem)).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, put]
}

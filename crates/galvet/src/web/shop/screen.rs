//! The customer's screen: it shows what the counter asks, to be read, until it is closed.

use super::follow::Screens;
use super::three::{Three, ask_of};
use crate::account::now;
use crate::present::page::ranking::sentence;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use rocket::http::{ContentType, Status};
use rocket::{Route, State, get, routes};

/// The customer's screen.
#[derive(Template, WebTemplate)]
#[template(path = "screen.html")]
struct ScreenPage {
    frame: Frame,
    word: String,
    version: u64,
    said: String,
    cautions: Vec<String>,
    three: Three,
}

#[get("/screen/<word>")]
async fn page(
    word: &str,
    visit: Visit<'_>,
    screens: &State<Screens>,
) -> Result<Result<ScreenPage, Status>, Trouble> {
    let Some(shown) = screens.of(word, now()) else {
        return Ok(Err(Status::NotFound));
    };
    let records = visit.shared.records().await?;
    let asked = ask_of(&shown.query).resolve(&records.catalogue)?;
    let three = Three::of(&visit, &asked, (&records, shown.have)).await?;
    let sentence = sentence::sentence(
        &asked,
        &records.catalogue,
        "/counter".to_owned(),
        visit.reader.units,
    );
    Ok(Ok(ScreenPage {
        frame: visit.frame("screen", format!("/screen/{word}")),
        word: word.to_owned(),
        version: shown.version,
        said: sentence.said(),
        cautions: sentence.cautions,
        three,
    }))
}

/// Which of its states a screen shows; 404 once it is closed.
#[get("/screen/<word>/now")]
fn state(word: &str, screens: &State<Screens>) -> Result<(ContentType, String), Status> {
    let shown = screens.of(word, now()).ok_or(Status::NotFound)?;
    let state = format!("{{\"version\":{}}}", shown.version);
    Ok((ContentType::JSON, state))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, state]
}

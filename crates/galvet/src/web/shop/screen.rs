//! The customer's screen: it shows what the counter asks, to be read, until it is closed.

use super::follow::{Screens, Shown};
use super::three::{Three, ask_of};
use crate::account::now;
use crate::present::page::ranking::sentence;
use crate::web::records::Records;
use crate::web::shared::Shared;
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
    version: String,
    said: String,
    cautions: Vec<String>,
    three: Three,
}

/// What a screen shows, told from all it showed before: by what is asked, and by what is
/// known of the hulls it is asked of.
fn version(shown: &Shown, records: &Records) -> String {
    let known = records.state;
    format!("{}-{}-{}", shown.version, known.epoch, known.change)
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
    let counter = &shown.counter;
    let asked = ask_of(&counter.query).resolve(&records.catalogue)?;
    let three = Three::of(&visit, &asked, (&records, counter)).await?;
    let sentence = sentence::sentence(
        &asked,
        &records.catalogue,
        "/counter".to_owned(),
        counter.units,
    );
    Ok(Ok(ScreenPage {
        frame: visit.frame("screen", format!("/screen/{word}")),
        word: word.to_owned(),
        version: version(&shown, &records),
        said: sentence.said(),
        cautions: sentence.cautions,
        three,
    }))
}

/// Which of its states a screen shows; 404 once it is closed.
#[get("/screen/<word>/now")]
async fn state(
    word: &str,
    shared: &State<Shared>,
    screens: &State<Screens>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let Some(shown) = screens.of(word, now()) else {
        return Ok(Err(Status::NotFound));
    };
    let records = shared.records().await?;
    let state = format!("{{\"version\":\"{}\"}}", version(&shown, &records));
    Ok(Ok((ContentType::JSON, state)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, state]
}

//! Comfort and manners of a hull, judged in short choices.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, address};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use crate::present::page::comfort::{self, ComfortView};
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "comfort.html")]
struct ComfortPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    undo: Option<String>,
    comfort: ComfortView,
}

impl ComfortPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/hulls/<slug>/comfort")]
async fn page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ComfortPage, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(Err(Status::NotFound));
    };
    let query = query_of(&ask);
    Ok(Ok(ComfortPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&format!("/hulls/{slug}/comfort"), &query, &[]),
        place: "hull",
        undo: shared.store.undoable()?,
        query,
        comfort: comfort::comfort(&hull.survey),
    }))
}

/// Keeps what was judged.
#[post("/hulls/<slug>/comfort", data = "<form>")]
async fn judge(
    slug: &str,
    form: Form<HashMap<String, String>>,
    ask: Ask,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let answers = form.into_inner();
    let label = "comfort and manners judged".to_owned();
    let done = edit::edit(shared, slug, label, move |hull| {
        survey::judge(hull, &answers)
    });
    Ok(match done.await? {
        Edited::Kept => {
            let to = address(&format!("/hulls/{slug}/comfort"), &query_of(&ask), &[]);
            Ok(Redirect::to(back_to(&to)))
        }
        Edited::Gone => Err(Status::NotFound),
        Edited::Refused(_) => Err(Status::UnprocessableEntity),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, judge]
}

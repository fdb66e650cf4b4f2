//! Comfort and manners of a hull, judged in short choices.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, Typed, address};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::form::NotTaken;
use crate::present::page::comfort::{self, ComfortView};
use crate::question::Ask;
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::{Kind, Steps};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "comfort.html")]
struct ComfortPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    comfort: ComfortView,
}

impl ComfortPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    not_taken: &NotTaken,
) -> Result<Option<ComfortPage>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(None);
    };
    let query = query_of(ask);
    Ok(Some(ComfortPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&format!("/hulls/{slug}/comfort"), &query, &[]),
        place: "hull",
        steps: steps(shared, reader, Some((Kind::Hull, slug))).await?,
        query,
        comfort: comfort::comfort(&hull.survey, not_taken),
    }))
}

#[get("/hulls/<slug>/comfort")]
async fn page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ComfortPage, Status>, Trouble> {
    let page = look(slug, &ask, reader, shared, &NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Keeps what was judged.
#[post("/hulls/<slug>/comfort", data = "<form>")]
async fn judge(
    slug: &str,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<ComfortPage>)>, Trouble> {
    let typed = form.into_inner();
    let label = "comfort and manners judged".to_owned();
    let sent = typed.clone();
    let done = edit::edit((shared, reader), slug, label, move |hull| {
        survey::judged_form().put(&mut hull.survey, &sent, reader.units)
    });
    let mistakes = match done.await? {
        Edited::Kept => {
            let to = address(&format!("/hulls/{slug}/comfort"), &query_of(&ask), &[]);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Edited::Gone => return Ok(Err((Status::NotFound, None))),
        Edited::Refused(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(slug, &ask, reader, shared, &not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, judge]
}

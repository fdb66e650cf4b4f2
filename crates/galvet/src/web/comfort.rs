//! Comfort and manners of a hull, judged in short choices.

use super::edit;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::NotTaken;
use crate::form::Sent;
use crate::present::page::survey::comfort::{self, ComfortView};
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Kind;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "comfort.html")]
struct ComfortPage {
    frame: Frame,
    comfort: ComfortView,
}

async fn comfort_page(
    slug: &str,
    visit: &Visit<'_>,
    not_taken: &NotTaken,
) -> Result<ComfortPage, Trouble> {
    let shared = visit.shared;
    let records = shared.records().await?;
    let hull = records.hull(slug)?;
    Ok(ComfortPage {
        frame: visit
            .frame_of(
                "hull",
                visit.to(&format!("/hulls/{slug}/comfort"), &[]),
                Some((Kind::Hull, slug)),
            )
            .await?,
        comfort: comfort::comfort(&hull.survey, not_taken),
    })
}

#[get("/hulls/<slug>/comfort")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<ComfortPage, Trouble> {
    comfort_page(slug, &visit, &NotTaken::default()).await
}

/// Keeps what was judged.
#[post("/hulls/<slug>/comfort", data = "<form>")]
async fn judge(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, ComfortPage)>, Trouble> {
    let reader = visit.reader;
    let typed = form.into_inner();
    let label = "comfort and handling judged".to_owned();
    let sent = typed.clone();
    let done = edit::edit(&visit, slug, label, move |hull| {
        survey::judged_form().put(&mut hull.survey, &sent, reader.units)
    });
    let mistakes = match done.await? {
        Ok(()) => {
            return Ok(Ok(visit.go(&format!("/hulls/{slug}/comfort"), &[])));
        }
        Err(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = comfort_page(slug, &visit, &not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, judge]
}

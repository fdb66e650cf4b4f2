//! Test paddles: who was in a hull, and how it felt.

use super::edit;
use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::{FormView, NotTaken, Refusal, Sent};
use crate::survey::{trial_form, usual_trial};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::hull::Trial;
use galvet_store::Kind;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, get, post, routes};

/// Most test paddles kept of one hull.
const MOST: usize = 500;

/// One trial in words.
struct TrialLine {
    who: String,
    date: String,
    felt: &'static str,
    stood: bool,
    note: String,
    /// The question with this hull as the yardstick.
    yardstick: String,
}

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "trials.html")]
struct TrialsPage {
    frame: Frame,
    key: String,
    name: String,
    trials: Vec<TrialLine>,
    form: FormView,
}

async fn trials_page(
    slug: &str,
    visit: &Visit<'_>,
    not_taken: &NotTaken,
) -> Result<TrialsPage, Trouble> {
    let shared = visit.shared;
    let records = shared.records().await?;
    let hull = records.hull(slug)?;
    let line = |t: &Trial| TrialLine {
        who: t.who.clone(),
        date: t.date.clone(),
        felt: t.felt.label(),
        stood: t.stood,
        note: t.note.clone(),
        yardstick: visit.to("/", &[("known", slug), ("felt", t.felt.key())]),
    };
    let path = format!("/hulls/{slug}/trials");
    Ok(TrialsPage {
        frame: visit
            .frame_of("hull", visit.to(&path, &[]), Some((Kind::Hull, slug)))
            .await?,
        key: slug.to_owned(),
        name: hull.survey.name(),
        trials: hull.survey.looked.trials.iter().rev().map(line).collect(),
        form: trial_form().form(&usual_trial(today()), true, not_taken, visit.reader.units),
    })
}

#[get("/hulls/<slug>/trials")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<TrialsPage, Trouble> {
    trials_page(slug, &visit, &NotTaken::default()).await
}

/// Logs a test paddle.
#[post("/hulls/<slug>/trials", data = "<form>")]
async fn log(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, TrialsPage)>, Trouble> {
    let (typed, units) = (form.into_inner(), visit.reader.units);
    let sent = typed.clone();
    let label = "test paddle logged".to_owned();
    let done = edit::edit(&visit, slug, label, move |hull| -> Result<(), Refusal> {
        let trial = trial_form().make(&usual_trial(today()), &sent, units)?;
        let trials = &mut hull.survey.looked.trials;
        if trials.len() >= MOST {
            let full = format!("{MOST} test paddles are kept of a hull; undo or export some");
            return Err(full.into());
        }
        trials.push(trial);
        Ok(())
    });
    let Err(refusal) = done.await? else {
        return Ok(Ok(visit.go(&format!("/hulls/{slug}/trials"), &[])));
    };
    let not_taken = NotTaken {
        typed,
        mistakes: refusal.0,
    };
    let page = trials_page(slug, &visit, &not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, log]
}

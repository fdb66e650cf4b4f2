//! Trial paddles: who was in a hull, and how it felt.

use super::edit;
use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::Refusal;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::hull::{Felt, Trial};
use galvet_store::Kind;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, get, post, routes};

/// Longest text of a trial.
const LONGEST: usize = 200;
/// Most trials kept of one hull.
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
    felt: Vec<(&'static str, &'static str)>,
    /// Why what was typed was not kept, and what it was.
    trouble: String,
    who: String,
    note: String,
}

async fn trials_page(slug: &str, visit: &Visit<'_>) -> Result<TrialsPage, Trouble> {
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
        felt: Felt::ALL.iter().map(|f| (f.key(), f.label())).collect(),
        trouble: String::new(),
        who: String::new(),
        note: String::new(),
    })
}

#[get("/hulls/<slug>/trials")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<TrialsPage, Trouble> {
    trials_page(slug, &visit).await
}

#[derive(FromForm)]
struct Typed<'r> {
    #[field(default = "")]
    who: &'r str,
    #[field(default = "")]
    felt: &'r str,
    #[field(default = false)]
    stood: bool,
    #[field(default = "")]
    note: &'r str,
}

/// Logs a trial paddle.
#[post("/hulls/<slug>/trials", data = "<form>")]
async fn log(
    slug: &str,
    form: Form<Typed<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, TrialsPage)>, Trouble> {
    let short = |text: &str| text.trim().chars().take(LONGEST).collect::<String>();
    let felt = Felt::from_key(form.felt);
    let (who, note, stood) = (short(form.who), short(form.note), form.stood);
    let trial = felt.map(|felt| Trial {
        who: who.clone(),
        date: today(),
        stood,
        felt,
        note: note.clone(),
    });
    let Some(trial) = trial else {
        let page = trials_page(slug, &visit).await?;
        let page = TrialsPage {
            trouble: "say how it felt".to_owned(),
            who,
            note,
            ..page
        };
        return Ok(Err((Status::UnprocessableEntity, page)));
    };
    let label = "trial paddle logged".to_owned();
    let done = edit::edit(&visit, slug, label, move |hull| -> Result<(), Refusal> {
        let trials = &mut hull.survey.looked.trials;
        if trials.len() >= MOST {
            return Err(format!("{MOST} trials are kept of a hull; undo or export some").into());
        }
        trials.push(trial.clone());
        Ok(())
    });
    match done.await? {
        Ok(()) => Ok(Ok(visit.go(&format!("/hulls/{slug}/trials"), &[]))),
        Err(refusal) => {
            let trouble = refusal.0.into_values().next().unwrap_or_default();
            let page = trials_page(slug, &visit).await?;
            let page = TrialsPage {
                trouble,
                who,
                note,
                ..page
            };
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, log]
}

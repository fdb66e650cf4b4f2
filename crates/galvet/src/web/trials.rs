//! Trial paddles: who was in a hull, and how she felt.

use super::ask::query_of;
use super::assets;
use super::edit::{self, Edited, address};
use super::reader::{Reader, back_to, today};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::form::Refusal;
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{Keyed, System};
use galvet_core::hull::{Felt, Trial};
use galvet_store::{Kind, Steps};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, get, post, routes};

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
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    key: String,
    name: String,
    trials: Vec<TrialLine>,
    felt: Vec<(&'static str, &'static str)>,
    /// Why what was typed was not kept, and what it was.
    trouble: String,
    who: String,
    note: String,
}

impl TrialsPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<TrialsPage>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug) else {
        return Ok(None);
    };
    let query = query_of(ask);
    let line = |t: &Trial| TrialLine {
        who: t.who.clone(),
        date: t.date.clone(),
        felt: t.felt.label(),
        stood: t.stood,
        note: t.note.clone(),
        yardstick: address("/", &query, &[("known", slug), ("felt", t.felt.key())]),
    };
    let path = format!("/hulls/{slug}/trials");
    Ok(Some(TrialsPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&path, &query, &[]),
        place: "hull",
        steps: steps(shared, reader, Some((Kind::Hull, slug))).await?,
        key: slug.to_owned(),
        name: hull.survey.name(),
        trials: hull.survey.looked.trials.iter().rev().map(line).collect(),
        felt: Felt::ALL.iter().map(|f| (f.key(), f.label())).collect(),
        query,
        trouble: String::new(),
        who: String::new(),
        note: String::new(),
    }))
}

#[get("/hulls/<slug>/trials")]
async fn page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<TrialsPage, Status>, Trouble> {
    let page = look(slug, &ask, reader, shared).await?;
    Ok(page.ok_or(Status::NotFound))
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
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<TrialsPage>)>, Trouble> {
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
        let page = look(slug, &ask, reader, shared).await?;
        let page = page.map(|page| TrialsPage {
            trouble: "say how she felt".to_owned(),
            who,
            note,
            ..page
        });
        return Ok(Err((Status::UnprocessableEntity, page)));
    };
    let label = "trial paddle logged".to_owned();
    let done = edit::edit(
        (shared, reader),
        slug,
        label,
        move |hull| -> Result<(), Refusal> {
            let trials = &mut hull.survey.looked.trials;
            if trials.len() >= MOST {
                return Err(
                    format!("{MOST} trials are kept of a hull; undo or export some").into(),
                );
            }
            trials.push(trial.clone());
            Ok(())
        },
    );
    match done.await? {
        Edited::Kept => {
            let to = address(&format!("/hulls/{slug}/trials"), &query_of(&ask), &[]);
            Ok(Ok(Redirect::to(back_to(&to))))
        }
        Edited::Gone => Ok(Err((Status::NotFound, None))),
        Edited::Refused(refusal) => {
            let trouble = refusal.0.into_values().next().unwrap_or_default();
            let page = look(slug, &ask, reader, shared).await?;
            let page = page.map(|page| TrialsPage {
                trouble,
                who,
                note,
                ..page
            });
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, log]
}

//! Measuring a hull afloat: looking at what a reading changes, keeping it,
//! taking it back.

use super::edit;
use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::Hull;
use crate::form::{self, NotTaken};
use crate::present::page::survey::afloat::{self, AfloatView, Sent};
use crate::survey::{self, Simulated, Test, TiltMeter, measured};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::figures::Assessment;
use galvet_core::hull::{Evidence, Survey};
use galvet_core::load::Carriage;
use galvet_core::stability::Arm;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, get, post, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "afloat.html")]
struct AfloatPage {
    frame: Frame,
    /// Whether there is a simulated tilt meter.
    simulates: bool,
    /// What a device did.
    said: &'static str,
    afloat: AfloatView,
}

/// The page of a hull; `more` is a measurement only looked at.
async fn afloat_page(
    slug: &str,
    visit: &Visit<'_>,
    sent: Sent,
    more: Option<Evidence>,
) -> Result<AfloatPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let made = shared.work(reader.caller, move || {
        let other = |evidence: Vec<Evidence>| Hull {
            known: None,
            survey: Arc::new(Survey {
                evidence,
                ..(*hull.survey).clone()
            }),
        };
        let now = desk.afloat(&hull, &brief);
        let (before, after) = match more {
            Some(more) => {
                let mut all = hull.survey.evidence.clone();
                all.push(more);
                (now, desk.afloat(&other(all), &brief))
            }
            None if hull.survey.evidence.is_empty() => (now.clone(), now),
            None => (desk.afloat(&other(Vec::new()), &brief), now),
        };
        let shown = (today(), reader.units);
        let shown = (shown.0.as_str(), shown.1);
        afloat::afloat(&hull.survey, &before, &after, sent, shown)
    });
    Ok(AfloatPage {
        frame: visit.frame("hull", visit.to(&format!("/hulls/{slug}/afloat"), &[])),
        simulates: shared.simulates,
        said: "",
        afloat: made.await?,
    })
}

#[get("/hulls/<slug>/afloat")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<AfloatPage, Trouble> {
    afloat_page(slug, &visit, Sent::default(), None).await
}

type Answer = Result<Result<Redirect, (Status, AfloatPage)>, Trouble>;

/// Changes the record; what is refused is told on the page.
async fn change(
    slug: &str,
    visit: &Visit<'_>,
    label: String,
    edit: impl Fn(&mut Vec<Evidence>) -> Result<(), String> + Send + 'static,
) -> Answer {
    let done = edit::edit(visit, slug, label, move |hull| {
        edit(&mut hull.survey.evidence)
    });
    match done.await? {
        Ok(()) => Ok(Ok(visit.go(&format!("/hulls/{slug}/afloat"), &[]))),
        Err(refusal) => {
            let not_taken = NotTaken {
                mistakes: refusal.0,
                ..NotTaken::default()
            };
            let sent = Sent {
                not_taken,
                ..Sent::default()
            };
            let page = afloat_page(slug, visit, sent, None).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

/// Fills in the heels a simulated tilt meter shows on this hull under the question.
async fn read_the_meter(
    slug: &str,
    visit: &Visit<'_>,
    mut typed: form::Sent,
) -> Result<AfloatPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let hull = records.hull(slug)?.clone();
    let asked = ask.resolve(&records.catalogue)?;
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let answers = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&hull, &brief).ok()?;
        Some(answered(&afloat.assessment))
    });
    let read = match answers.await? {
        Some(answers) => survey::read_heels(&mut typed, reader.units, |moment| {
            let heel = heel_under(&answers, moment.abs())? * moment.signum();
            let mut meter = Simulated::tilt_meter(heel);
            survey::steady(|| meter.degrees(), 0.2).map(|rest| rest.value)
        }),
        None => 0,
    };
    let said = if read == 0 {
        "write the weight moved and its way first: the simulated meter reads the heel that makes"
    } else {
        "read from the simulated tilt meter, once it had come to rest: made up, for trying this out"
    };
    let sent = Sent {
        test: Some(Test::Tilt),
        not_taken: NotTaken {
            typed,
            ..NotTaken::default()
        },
        ..Sent::default()
    };
    let page = afloat_page(slug, visit, sent, None).await?;
    Ok(AfloatPage { said, ..page })
}

/// The moments over g, kg·m, that the middle shape answers at heels, °, as a simulated
/// meter goes by.
fn answered(assessment: &Assessment) -> Vec<(f64, f64)> {
    const HEELS: [f64; 6] = [0.0, 2.0, 4.0, 7.0, 11.0, 16.0];
    let shapes = [assessment.middle];
    let afloat = assessment.afloat(&shapes);
    let case = afloat.case(Carriage::Seated);
    let arms = afloat.arms(&case, &HEELS.map(f64::to_radians));
    let mass = case.weight.mass.0[0];
    let moment = |(arm, deg): (&Arm<1>, f64)| (deg, mass * arm.gz.0[0] / arm.heel.cos());
    arms.iter().zip(HEELS).map(moment).collect()
}

/// The heel at which a moment is answered; `None` where it is not.
fn heel_under(answers: &[(f64, f64)], moment: f64) -> Option<f64> {
    let pair = answers.windows(2).find(|pair| pair[1].1 >= moment)?;
    let ((low, from), (high, to)) = (pair[0], pair[1]);
    let share = ((moment - from) / (to - from).max(1e-9)).clamp(0.0, 1.0);
    Some(low + (high - low) * share)
}

/// Looks at a measurement, or keeps it.
#[post("/hulls/<slug>/afloat", data = "<form>")]
async fn measure(slug: &str, form: Form<form::Sent>, visit: Visit<'_>) -> Answer {
    let (reader, shared) = (visit.reader, visit.shared);
    let mut typed = form.into_inner();
    let test = typed.remove("test");
    let Some(test) = test.and_then(|key| Test::from_key(&key)) else {
        return Err(Trouble::Gone);
    };
    let action = typed.get("action").map_or("look", String::as_str);
    if action == "meter" && shared.simulates {
        let page = read_the_meter(slug, &visit, typed).await?;
        return Ok(Err((Status::Ok, page)));
    }
    let keep = action == "keep";
    let records = shared.records().await?;
    let survey = records.hull(slug)?.survey.clone();
    match measured(test, &typed, (&survey, &today()), reader.units) {
        Err(mistakes) => {
            let sent = Sent {
                test: Some(test),
                not_taken: NotTaken { typed, mistakes },
                ..Sent::default()
            };
            let page = afloat_page(slug, &visit, sent, None).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
        Ok(found) if keep => {
            let label = format!("{} noted", found.evidence.name());
            change(slug, &visit, label, move |all| {
                all.push(found.evidence.clone());
                Ok(())
            })
            .await
        }
        Ok(found) => {
            let sent = Sent {
                test: Some(test),
                not_taken: NotTaken {
                    typed,
                    ..NotTaken::default()
                },
                tilt: found.tilt,
                only_looked: true,
            };
            let page = afloat_page(slug, &visit, sent, Some(found.evidence)).await?;
            Ok(Err((Status::Ok, page)))
        }
    }
}

#[derive(FromForm)]
struct BackForm<'r> {
    at: usize,
    text: &'r str,
}

/// Takes a measurement back; the history keeps it.
#[post("/hulls/<slug>/afloat/back", data = "<form>")]
async fn take_back(slug: &str, form: Form<BackForm<'_>>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let (at, text, units) = (form.at, form.text.to_owned(), reader.units);
    let label = "a measurement afloat taken back".to_owned();
    change(slug, &visit, label, move |all| {
        // Told by its place and its words: somebody may have taken one back.
        let same = |e: &Evidence| crate::present::page::hulls::hull::evidence(e, units) == text;
        if !all.get(at).is_some_and(same) {
            return Err("that measurement is not on the record any more".to_owned());
        }
        all.remove(at);
        Ok(())
    })
    .await
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, measure, take_back]
}

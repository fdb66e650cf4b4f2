//! Weighing a hull on a hanging scale: the simulated one, in a demo.

use super::ask::query_of;
use super::edit::{self, Edited, address};
use super::reader::{back_to, today};
use super::shared::{Shared, Trouble};
use crate::question::Ask;
use crate::survey::{self, HangingScale, Refusal, Simulated};
use galvet_core::base::Keyed;
use galvet_core::hull::{Measure, Reading, Source};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, State, post, routes};

#[derive(FromForm)]
struct WeighForm<'r> {
    measure: &'r str,
}

/// Hangs her on the scale, waits until it is steady, and notes what it shows.
#[post("/hulls/<slug>/weigh", data = "<form>")]
async fn weigh(
    slug: &str,
    form: Form<WeighForm<'_>>,
    ask: Ask,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let measure = Measure::from_key(form.measure);
    let weight = |m: &Measure| matches!(m, Measure::BareWeight | Measure::FittedWeight);
    let Some(measure) = measure.filter(weight).filter(|_| shared.simulates) else {
        return Ok(Err(Status::NotFound));
    };
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(Err(Status::NotFound));
    };
    let desk = shared.desk.clone();
    let shown = spawn_blocking(move || {
        let shape = desk.shapes(&hull).ok()?.middle();
        let mass = match measure {
            Measure::BareWeight => shape.hull_mass - shape.kit_mass,
            _ => shape.hull_mass,
        };
        let mut scale = Simulated::scale(mass);
        survey::steady(|| scale.kilograms(), 0.1)
    });
    let Some(rest) = shown.await? else {
        return Ok(Err(Status::UnprocessableEntity));
    };
    let label = format!("{} read off the simulated scale", measure.label());
    let done = edit::edit(shared, slug, label, move |hull| -> Result<(), Refusal> {
        let read = Reading::new(measure, rest.value, Source::Scale).map_err(|e| e.to_string())?;
        let reading = Reading {
            date: today(),
            note: format!("simulated scale, steady after {} readings", rest.readings),
            ..read
        };
        survey::add_reading(hull, measure, reading);
        Ok(())
    });
    Ok(match done.await? {
        Edited::Kept => {
            let to = address(&format!("/hulls/{slug}/record"), &query_of(&ask), &[]);
            Ok(Redirect::to(back_to(&to)))
        }
        Edited::Gone => Err(Status::NotFound),
        Edited::Refused(_) => Err(Status::UnprocessableEntity),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![weigh]
}

//! Weighing a hull or a thing on a hanging scale: the simulated one, in a demo.

use super::edit;
use super::reader::{back_to, today};
use super::trouble::Trouble;
use super::visit::Visit;
use crate::form::Refusal;
use crate::kit;
use crate::survey::{self, EditError, HangingScale, Simulated};
use galvet_core::base::Keyed;
use galvet_core::hull::{Measure, Reading, Source};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, post, routes};

#[derive(FromForm)]
struct WeighForm<'r> {
    measure: &'r str,
}

/// Hangs it on the scale, waits until it is steady, and notes what it shows.
#[post("/hulls/<slug>/weigh", data = "<form>")]
async fn weigh(
    slug: &str,
    form: Form<WeighForm<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let shared = visit.shared;
    let measure = Measure::from_key(form.measure);
    let weight = |m: &Measure| matches!(m, Measure::BareWeight | Measure::FittedWeight);
    let Some(measure) = measure.filter(weight).filter(|_| shared.simulates) else {
        return Err(Trouble::Gone);
    };
    let records = shared.records().await?;
    let hull = records.hull(slug)?.clone();
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
    let done = edit::edit(&visit, slug, label, move |hull| -> Result<(), Refusal> {
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
        Ok(()) => {
            let to = visit.to(&format!("/hulls/{slug}/record"), &[]);
            Ok(Redirect::to(back_to(&to)))
        }
        Err(_) => Err(Status::UnprocessableEntity),
    })
}

#[derive(FromForm)]
struct WeighThing<'r> {
    /// `dry` as packed, `loaded` as it is on the water.
    what: &'r str,
}

/// Hangs a thing of the shelf on the scale, and notes what it shows.
#[post("/kit/<slug>/weigh", data = "<form>")]
async fn weigh_thing(
    slug: &str,
    form: Form<WeighThing<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let thing = records.catalogue.gear.iter().find(|g| g.key == slug);
    let Some(thing) = thing.filter(|_| shared.simulates).cloned() else {
        return Err(Trouble::Gone);
    };
    let loaded = form.what == "loaded";
    let (store, slug) = (shared.store.clone(), slug.to_owned());
    let key = slug.clone();
    let done = spawn_blocking(move || {
        let mass = if loaded {
            thing.loaded_mass
        } else {
            thing.dry_mass
        };
        let mut scale = Simulated::scale(mass);
        let rest = survey::steady(|| scale.kilograms(), 0.1);
        let swings = || EditError::Refused(Refusal::from("the scale does not come to rest"));
        let rest = rest.ok_or_else(swings)?;
        let what = if loaded { "on the water" } else { "packed" };
        let note = format!(
            "{what} by the simulated scale, steady after {} readings, {}",
            rest.readings,
            today()
        );
        kit::weigh_thing(&store, reader.hand.who(), &key, loaded, (rest.value, &note))
    });
    Ok(match done.await? {
        Ok(()) => {
            let to = visit.to(&format!("/kit/{slug}"), &[]);
            Ok(Redirect::to(back_to(&to)))
        }
        Err(EditError::Gone) => Err(Status::NotFound),
        Err(EditError::Refused(_)) => Err(Status::UnprocessableEntity),
        Err(EditError::Store(error)) => return Err(error.into()),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![weigh, weigh_thing]
}

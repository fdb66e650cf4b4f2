//! The walk along a hull, zone after zone.

use super::ask::query_of;
use super::assets;
use super::reader::{Reader, back_to, today};
use super::shared::{Shared, Trouble};
use super::who::WHO;
use crate::present::page::walk::{self, NotTaken, WalkView};
use crate::question::Ask;
use crate::survey::{self, EditError};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::hull::zones;
use rocket::form::Form;
use rocket::http::{RawStr, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, State, get, post, routes};
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "walk.html")]
struct WalkPage {
    units: System,
    here: String,
    place: &'static str,
    query: String,
    undo: Option<String>,
    walk: WalkView,
}

impl WalkPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    /// The walk's address at a zone.
    fn at(&self, zone: &str) -> String {
        address(
            &self.walk.key,
            &self.query,
            Some(zone),
            self.walk.from_stern,
        )
    }
}

/// Address of the walk, at a zone where one is named.
fn address(slug: &str, query: &str, zone: Option<&str>, from_stern: bool) -> String {
    let mut pairs: Vec<String> = Vec::new();
    if let Some(own) = query.strip_prefix('?') {
        pairs.push(own.to_owned());
    }
    if let Some(zone) = zone {
        pairs.push(format!("zone={}", RawStr::new(zone).percent_encode()));
    }
    if from_stern {
        pairs.push("end=stern".to_owned());
    }
    if pairs.is_empty() {
        format!("/hulls/{slug}/walk")
    } else {
        format!("/hulls/{slug}/walk?{}", pairs.join("&"))
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    (zone, from_stern): (Option<String>, bool),
    not_taken: NotTaken,
) -> Result<Option<WalkPage>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(None);
    };
    let desk = shared.desk.clone();
    let made = spawn_blocking(move || {
        let shapes = desk.shapes(&hull).ok();
        let lines = shapes.map(|s| s.form.lines(&s.middle()));
        let all = zones(&hull.survey);
        let zone = zone.as_deref();
        walk::walk(
            &hull.survey,
            all,
            lines.as_ref(),
            zone,
            from_stern,
            &not_taken,
            reader.units,
        )
    });
    let (query, walk) = (query_of(ask), made.await?);
    Ok(Some(WalkPage {
        units: reader.units,
        here: address(slug, &query, None, from_stern),
        place: "hull",
        undo: shared.store.undoable()?,
        query,
        walk,
    }))
}

#[get("/hulls/<slug>/walk?<zone>&<end>")]
async fn page(
    slug: &str,
    zone: Option<String>,
    end: Option<&str>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<WalkPage, Status>, Trouble> {
    let at = (zone, end == Some("stern"));
    let page = look(slug, &ask, reader, shared, at, NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Keeps a zone as it was measured and goes on to the next, or takes it off.
#[post("/hulls/<slug>/walk?<zone>&<end>", data = "<form>")]
async fn measure(
    slug: &str,
    zone: String,
    end: Option<&str>,
    form: Form<HashMap<String, String>>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, (Status, Option<WalkPage>)>, Trouble> {
    let typed = form.into_inner();
    let from_stern = end == Some("stern");
    let shelf = shared.shelf().await?;
    let hull = shelf.hulls.iter().find(|h| h.survey.key == slug);
    let was = hull.and_then(|h| zones(&h.survey).into_iter().find(|z| z.name == zone));
    let Some(was) = was else {
        return Ok(Err((Status::NotFound, None)));
    };
    let forget = typed.get("action").is_some_and(|a| a == "forget");
    let read = if forget {
        Ok(was.clone())
    } else {
        survey::zone(&was, &typed, reader.units, &today())
    };
    let mistakes = match read {
        Err(mistakes) => mistakes,
        Ok(measured) => {
            let (store, key) = (shared.store.clone(), slug.to_owned());
            let name = measured.name.clone();
            let label = if forget {
                format!("{name} taken off")
            } else {
                format!("{name} measured")
            };
            let done = spawn_blocking(move || {
                survey::edit_hull(&store, WHO, &key, &label, |hull| {
                    if forget {
                        survey::forget_zone(hull, &name)
                    } else {
                        survey::put_zone(hull, measured.clone())
                    }
                })
            });
            match done.await? {
                Ok(_) => {
                    let next = typed.get("next").filter(|n| !forget && !n.is_empty());
                    let to = next.map_or(zone.as_str(), String::as_str);
                    let there = address(slug, &query_of(&ask), Some(to), from_stern);
                    return Ok(Ok(Redirect::to(back_to(&there))));
                }
                Err(EditError::Gone) => return Ok(Err((Status::NotFound, None))),
                Err(EditError::Store(error)) => return Err(error.into()),
                Err(EditError::Refused(problem)) => [(String::new(), problem)].into(),
            }
        }
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(
        slug,
        &ask,
        reader,
        shared,
        (Some(zone), from_stern),
        not_taken,
    )
    .await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, measure]
}

//! The shelf, and a thing on it.

use super::kept::{self, About, OnPage, Words};
use super::kinds;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::kit::{self, LineChange, ThingDraft, change_line};
use crate::present::page::kit::{self as pages, KitView, used_by};
use crate::survey::EditError;
use crate::{demo_data, terminal};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::gear::Gear;
use galvet_store::files::gear_table;
use galvet_store::{Catalogue, Kind, Record, Store};
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, State, get, post, routes};

/// The shelf's page.
#[derive(Template, WebTemplate)]
#[template(path = "kit.html")]
struct KitPage {
    frame: Frame,
    kit: KitView,
    /// What else is kept: where it is listed, what the list is called.
    lists: Vec<(&'static str, &'static str)>,
}

#[get("/kit?<find>")]
async fn page(find: Option<String>, visit: Visit<'_>) -> Result<KitPage, Trouble> {
    let on = visit.shared.records().await?;
    let (find, units) = (find.unwrap_or_default(), visit.reader.units);
    Ok(KitPage {
        frame: visit.frame_of("kit", visit.to("/kit", &[]), None).await?,
        lists: kinds::lists(),
        kit: pages::kit(&on.catalogue, &find, units),
    })
}

/// The shelf as a table.
#[get("/kit.csv")]
async fn kit_csv(shared: &State<Shared>) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let on = shared.records().await?;
    let text = spawn_blocking(move || gear_table::write(&on.catalogue.gear)).await?;
    Ok(text
        .map(|t| (ContentType::CSV, t))
        .map_err(|_| Status::InternalServerError))
}

impl OnPage for ThingDraft {
    const LIST: &'static str = "/kit";
    const NEW: &'static str = "/new-thing";
    const PLACE: &'static str = "kit";
    const WORDS: Words = Words {
        list: ["Kit", "the shelf"],
        hint: "",
        new: "A new thing",
        acts: ["Add to the shelf", "Delete"],
    };

    fn about(gear: Option<&Gear>, on: &Catalogue, shared: &Shared) -> About {
        let used = gear.map_or(Vec::new(), |gear| used_by(gear, on));
        About {
            words: match used.as_slice() {
                [] => "On no rig yet.".to_owned(),
                used => format!(
                    "On {}: what is changed here changes there.",
                    used.join(", ")
                ),
            },
            weighs: gear.is_some() && shared.simulates,
            ..About::default()
        }
    }

    /// A thing made for a rig lands on it.
    fn put_onto(
        store: &Store,
        who: &str,
        made: &str,
        onto: &str,
    ) -> Result<Option<String>, EditError> {
        let Some((_, Record::Gear(gear))) = store.record(Kind::Gear, made)? else {
            return Ok(None);
        };
        let label = format!("{} put on the rig", gear.name);
        let add = LineChange::Add(gear);
        kit::edit_rig(store, who, onto, &label, |rig| {
            Ok(change_line(rig, (0, ""), &add)?)
        })?;
        Ok(Some(format!("/rigs/{onto}")))
    }
}

/// Puts the usual things on an empty shelf, those that are not there yet.
#[post("/kit/starter")]
async fn starter(visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let put = spawn_blocking(move || {
        let things = demo_data::starter().map_err(|e| {
            terminal::warn(e);
            Trouble::Ours
        })?;
        let label = "the usual things put on the shelf";
        let done = store.write(hand.who(), label, |door| {
            for gear in things {
                if door.find(Kind::Gear, &gear.key)?.is_none() {
                    door.put(&Record::Gear(Box::new(gear)), None)?;
                }
            }
            Ok(())
        });
        done.map_err(Trouble::from)
    });
    put.await??;
    Ok(visit.go("/kit", &[]))
}

pub(super) fn routes() -> Vec<Route> {
    let own = routes![page, kit_csv, starter];
    own.into_iter()
        .chain(kept::routes::<ThingDraft>())
        .collect()
}

//! Moving house: what of one hull's kit goes onto others, two or three side by side; at a tap
//! the new hull's rig and planned modification, and its job sheet.

use super::address::address;
use super::ask::query_of;
use super::records::Records;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{Afloat, Desk, Hull};
use crate::form::{free_slug, slug_of};
use crate::log;
use crate::present::page::log::moving::{self as page_of, Candidate};
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::log::carried;
use galvet_core::papers::{Facts, Move, into_rig, modification, moving};
use galvet_core::question::Brief;
use galvet_core::rig::Rig;
use galvet_store::{Kind, Record, StoreError};
use rocket::form::{Form, FromForm};
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "moving.html")]
struct MovingPage {
    frame: Frame,
    sentence: Sentence,
    /// Hulls: key, name.
    hulls: Vec<(String, String)>,
    old: String,
    old_name: String,
    /// Three, as chosen; empty where none is.
    slots: [String; MOST],
    candidates: Vec<Candidate>,
    trouble: String,
    /// Whether the question's rig is one that is kept: only of such a one another is made.
    kept: bool,
}

/// Most candidates side by side.
const MOST: usize = 3;

/// What an address asks.
#[derive(FromForm, Default)]
struct Wanted {
    old: Option<String>,
    new: Vec<String>,
}

/// How often a thing was carried and not used once.
fn idle(records: &Records) -> impl Fn(&str) -> Option<usize> {
    let outings = log::as_outings(&log::outings(&records.catalogue));
    let shelf = |key: &str| records.catalogue.gear.iter().find(|g| g.key == key);
    let all = carried(&outings, &shelf).into_iter();
    let never = all.filter(|k| k.used == 0 && k.unsaid == 0 && k.unused > 0);
    let never: Vec<(String, usize)> = never
        .filter_map(|k| Some((k.gear?.key.clone(), k.unused)))
        .collect();
    move |key: &str| never.iter().find(|(k, _)| k == key).map(|(_, n)| *n)
}

/// Both hulls with the rig on them; `None` where one cannot be floated.
fn both(desk: &Desk, (old, new): (&Hull, &Hull), brief: &Brief) -> Option<[Arc<Afloat>; 2]> {
    Some([desk.afloat(old, brief).ok()?, desk.afloat(new, brief).ok()?])
}

fn moves(
    pair: &[Arc<Afloat>; 2],
    brief: &Brief,
    system: System,
    idle: &dyn Fn(&str) -> Option<usize>,
) -> Vec<Move> {
    let old = Facts::of(&pair[0].assessment, brief, system);
    let new = Facts::of(&pair[1].assessment, brief, system);
    moving(&old, &new, idle)
}

#[get("/moving?<wanted..>")]
async fn page(wanted: Wanted, visit: Visit<'_>) -> Result<MovingPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let hulls = records.named();
    let old = wanted.old.unwrap_or_default();
    let find = |key: &str| records.hulls.iter().find(|h| h.survey.key == key).cloned();
    let mut chosen: Vec<String> = Vec::new();
    for key in wanted.new {
        let fresh = !key.is_empty() && key != old && !chosen.contains(&key);
        if fresh && chosen.len() < MOST && find(&key).is_some() {
            chosen.push(key);
        }
    }
    let old_hull = find(&old);
    let trouble = match &old_hull {
        None if !old.is_empty() => "There is no such hull.".to_owned(),
        _ => String::new(),
    };
    let kept = records.catalogue.rigs.iter();
    let kept = kept.clone().any(|r| r.key == asked.brief.rig.key);
    let sentence = sentence::sentence(
        &asked,
        &records.catalogue,
        "/moving".to_owned(),
        visit.reader.units,
    );
    let old_name = old_hull.as_ref().map_or(String::new(), |h| h.survey.name());
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let new: Vec<Hull> = chosen.iter().filter_map(|key| find(key)).collect();
    let (all, brief) = (records.clone(), asked.brief.clone());
    let made = visit.shared.work(visit.reader.caller, move || {
        let Some(old) = old_hull else {
            return Vec::new();
        };
        let idle = idle(&all);
        let one = |hull: &Hull| {
            let pair = both(&desk, (&old, hull), &brief)?;
            let moves = moves(&pair, &brief, system, &idle);
            let named = hull.survey.name();
            Some(page_of::candidate(
                (&hull.survey.key, &named),
                &moves,
                system,
            ))
        };
        new.iter().filter_map(one).collect()
    });
    let pairs: Vec<(&str, &str)> = std::iter::once(("old", old.as_str()))
        .chain(chosen.iter().map(|key| ("new", key.as_str())))
        .collect();
    Ok(MovingPage {
        frame: visit
            .frame_of("log", visit.to("/moving", &pairs), None)
            .await?,
        sentence,
        hulls,
        old_name,
        candidates: made.await?,
        old,
        slots: std::array::from_fn(|n| chosen.get(n).cloned().unwrap_or_default()),
        trouble,
        kept,
    })
}

#[derive(FromForm)]
struct Take<'r> {
    old: &'r str,
    new: &'r str,
    /// Whether what was never used stays behind.
    #[field(default = String::new())]
    leave: String,
}

/// What a move ends as on the new hull.
struct Ends {
    rig: Rig,
    plan: Option<galvet_core::hull::Modification>,
}

/// Keeps the rig and plans the modification, in one step; goes on to the job sheet.
#[post("/moving", data = "<form>")]
async fn take(form: Form<Take<'_>>, visit: Visit<'_>) -> Result<Result<Redirect, Status>, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let (old, new) = (
        records.hull(form.old)?.clone(),
        records.hull(form.new)?.clone(),
    );
    let kept = records
        .catalogue
        .rigs
        .iter()
        .find(|r| r.key == asked.brief.rig.key);
    let Some(kept) = kept.cloned() else {
        return Ok(Err(Status::UnprocessableEntity));
    };
    let (desk, system, leave) = (
        visit.shared.desk.clone(),
        visit.reader.units,
        !form.leave.is_empty(),
    );
    let (records, brief) = (records.clone(), asked.brief.clone());
    let (old_of, new_of) = (old.clone(), new.clone());
    let made = visit.shared.work(visit.reader.caller, move || {
        let idle = idle(&records);
        let pair = both(&desk, (&old_of, &new_of), &brief)?;
        let moves = moves(&pair, &brief, system, &idle);
        let left: Vec<String> = moves
            .iter()
            .filter(|m| leave && m.idle.is_some())
            .filter_map(|m| m.gear.clone())
            .collect();
        let facts = [0, 1].map(|i| Facts::of(&pair[i].assessment, &brief, system));
        let mut rig = into_rig(&brief.rig, &moves, &left);
        // Who comes along and what is caught belong to the question, not to the rig.
        let own = |gear: &Option<String>| {
            kept.lines.iter().any(|l| l.gear == *gear)
                || brief.at_hand.iter().any(|g| Some(&g.key) == gear.as_ref())
        };
        rig.lines.retain(|l| l.gear.is_none() || own(&l.gear));
        rig.name = format!("{} for the {}", kept.name, new_of.survey.name())
            .chars()
            .take(80)
            .collect();
        Some(Ends {
            rig,
            plan: modification(&facts[0], &facts[1], &moves),
        })
    });
    let Some(ends) = made.await? else {
        return Ok(Err(Status::UnprocessableEntity));
    };
    let (store, hand, slug) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        form.new.to_owned(),
    );
    let record = store.record(Kind::Hull, &slug)?;
    let label = format!(
        "kit of the {} moved onto the {}",
        old.survey.name(),
        new.survey.name()
    );
    let put = spawn_blocking(move || {
        store.write(hand.who(), &label, |door| {
            let mut rig = ends.rig;
            rig.key = free_slug(door, Kind::Rig, &slug_of(&rig.name, "rig"))?;
            let key = rig.key.clone();
            door.put(&Record::Rig(rig), None)?;
            if let (Some(plan), Some((known, Record::Hull(mut hull)))) = (ends.plan, record) {
                let there = hull
                    .survey
                    .fitout
                    .modifications
                    .iter()
                    .any(|m| m.name == plan.name);
                if !there && survey::put_modification(&mut hull, None, plan).is_ok() {
                    door.put(&Record::Hull(hull), Some(known))?;
                }
            }
            Ok(key)
        })
    });
    let key = match put.await? {
        Err(StoreError::Conflict { .. }) => return Ok(Err(Status::Conflict)),
        put => put?,
    };
    let query = query_of(&visit.ask.with_rig(&key));
    let to = address(&format!("/hulls/{}/papers/rigging", form.new), &query, &[]);
    Ok(Ok(Redirect::to(super::reader::back_to(&to))))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, take]
}

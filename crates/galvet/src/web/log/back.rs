//! What the log gives back: service, kit that stays ashore, how well it predicts.

use super::{Upkeep, at};
use crate::answer::{Desk, Hull};
use crate::form::Refusal;
use crate::log::{self, asked_on, judged, serve, unserve};
use crate::present::page::log::kit::{self, Gain, KitView};
use crate::present::page::log::service::{self, ServiceView};
use crate::present::page::log::trust::{self, TrustView};
use crate::web::edit::came_of;
use crate::web::reader::today;
use crate::web::records::Records;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::figures::Quantity;
use galvet_core::log::{CarriedKit, Outing, carried};
use galvet_store::files::served::ServedEntry;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};

/// How well it predicts.
#[derive(Template, WebTemplate)]
#[template(path = "log-trust.html")]
struct TrustPage {
    frame: Frame,
    trust: TrustView,
}

#[get("/log/trust")]
async fn trust_page(visit: Visit<'_>) -> Result<TrustPage, Trouble> {
    let records = visit.shared.records().await?;
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let made = visit.shared.work(visit.reader.caller, move || {
        let outings = log::as_outings(&log::outings(&records.catalogue));
        let all = judged(&desk, &records.hulls, &outings);
        let named = records.named();
        let name = |key: &str| {
            let own = named.iter().find(|(k, _)| k == key);
            own.map_or_else(|| key.to_owned(), |(_, name)| name.clone())
        };
        trust::view(&all, &name, system)
    });
    Ok(TrustPage {
        trust: made.await?,
        frame: visit.frame("log", at(&visit, "/log/trust")),
    })
}

/// Kit that stays ashore.
#[derive(Template, WebTemplate)]
#[template(path = "log-kit.html")]
struct KitPage {
    frame: Frame,
    kit: KitView,
}

/// Most things of which it is worked out what leaving them ashore gains.
const GAINS: usize = 8;

#[get("/log/kit")]
async fn kit_page(visit: Visit<'_>) -> Result<KitPage, Trouble> {
    let records = visit.shared.records().await?;
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let made = visit.shared.work(visit.reader.caller, move || {
        let outings = log::as_outings(&log::outings(&records.catalogue));
        let shelf = |key: &str| records.catalogue.gear.iter().find(|g| g.key == key);
        let all = carried(&outings, &shelf);
        let stay = all.iter().filter(|k| k.stays_ashore()).take(GAINS);
        let gains: Vec<Gain> = stay
            .filter_map(|k| gain(&desk, &records, &outings, k))
            .collect();
        kit::view(&all, &gains, system)
    });
    Ok(KitPage {
        kit: made.await?,
        frame: visit.frame("log", at(&visit, "/log/kit")),
    })
}

/// What leaving a thing ashore gains in margin, on the last outing it was carried on.
fn gain(desk: &Desk, records: &Records, outings: &[Outing], kit: &CarriedKit<'_>) -> Option<Gain> {
    let key = &kit.gear?.key;
    let on = |o: &&Outing| o.aboard_things().any(|c| c.gear.as_ref() == Some(key));
    let last = outings.iter().filter(on).max_by(|a, b| a.day.cmp(&b.day))?;
    let hull: &Hull = records.hulls.iter().find(|h| h.survey.key == last.hull)?;
    let asked = asked_on(&records.catalogue, last)?;
    let with = desk.afloat(hull, &asked.brief).ok()?;
    let mut brief = asked.brief.clone();
    for line in &mut brief.rig.lines {
        if line.gear.as_ref() == Some(key) {
            line.count = 0;
        }
    }
    brief.rig.lines.retain(|l| l.count > 0);
    let without = desk.afloat(hull, &brief).ok()?;
    let margin = |a: &crate::answer::Afloat| a.assessment.median(Quantity::BindingMargin);
    let layout = &with.assessment.setup.loads.layout;
    let line = asked
        .brief
        .rig
        .lines
        .iter()
        .position(|l| l.gear.as_ref() == Some(key));
    let lies = layout.stowed.iter().find(|s| Some(s.line) == line);
    let zone = lies.and_then(|s| s.lies.as_ref());
    Some(Gain {
        key: key.clone(),
        hull: hull.survey.name(),
        zone: zone.map_or_else(|| "its place is not known".to_owned(), |l| l.zone.clone()),
        margin: margin(&without)? - margin(&with)?,
    })
}

/// Service.
#[derive(Template, WebTemplate)]
#[template(path = "log-service.html")]
struct ServicePage {
    frame: Frame,
    service: ServiceView,
    today: String,
    trouble: String,
}

async fn service_at(visit: &Visit<'_>, trouble: String) -> Result<ServicePage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let desk = visit.shared.desk.clone();
    let made = visit.shared.work(visit.reader.caller, move || {
        let outings = log::as_outings(&log::outings(&records.catalogue));
        let served = log::services(&records.catalogue);
        let upkeep = Upkeep {
            desk: &desk,
            records: &records,
            outings: &outings,
            served: &served,
            brief: &asked.brief,
            today: today(),
        };
        let done: Vec<ServedEntry> = records.catalogue.sheets_of().cloned().collect();
        service::view(&upkeep.dues(), &done)
    });
    Ok(ServicePage {
        service: made.await?,
        today: today(),
        trouble,
        frame: visit
            .frame_of("log", at(visit, "/log/service"), None)
            .await?,
    })
}

#[get("/log/service")]
async fn service_page(visit: Visit<'_>) -> Result<ServicePage, Trouble> {
    service_at(&visit, String::new()).await
}

#[derive(FromForm)]
struct Did {
    #[field(default = String::new())]
    hull: String,
    #[field(default = String::new())]
    care: String,
    #[field(default = String::new())]
    day: String,
    #[field(default = String::new())]
    note: String,
    /// The one taken back.
    back: Option<String>,
}

/// Notes a service, or takes one back.
#[post("/log/service", data = "<form>")]
async fn did(
    form: Form<Did>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, ServicePage)>, Trouble> {
    let sent = form.into_inner();
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let done = if let Some(back) = sent.back {
        spawn_blocking(move || unserve(&store, hand.who(), &back)).await?
    } else {
        let records = visit.shared.records().await?;
        let name = records.hull(&sent.hull)?.survey.name();
        let day = match sent.day.trim() {
            "" => today(),
            typed => typed.to_owned(),
        };
        if day > today() {
            let why = format!("{day} is yet to come: a service is noted once it is done");
            let page = service_at(&visit, why).await?;
            return Ok(Err((Status::UnprocessableEntity, page)));
        }
        let keep = move || {
            let what = (sent.care.as_str(), day.as_str(), sent.note.as_str());
            serve(&store, hand.who(), (&sent.hull, &name), what)
        };
        spawn_blocking(keep).await?
    };
    match came_of(done)? {
        Ok(()) => Ok(Ok(visit.go("/log/service", &[]))),
        Err(Refusal(mistakes)) => {
            let told: Vec<String> = mistakes.into_values().collect();
            let page = service_at(&visit, told.join("; ")).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![trust_page, kit_page, service_page, did]
}

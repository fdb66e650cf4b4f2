//! The log's first page.

use super::{Upkeep, at};
use crate::answer::{digest, held};
use crate::log::{self, laden};
use crate::present::page::log::start::{self, StartView, Sums};
use crate::web::reader::today;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::gear::Gear;
use galvet_core::hull::Measure;
use galvet_core::log::{Due, Outing, carried, cost_per_outing, decide, faults, hours, met, months};
use rocket::{Route, get, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "log.html")]
struct StartPage {
    frame: Frame,
    log: Arc<StartView>,
    /// Where the outings before and after those shown are.
    beside: [Option<String>; 2],
}

#[get("/log?<from>")]
async fn page(from: Option<usize>, visit: Visit<'_>) -> Result<StartPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let key = (
        records.state,
        digest(&asked.brief),
        system == System::Imperial,
        today(),
        from.unwrap_or_default(),
    );
    let known = held(&visit.shared.logs).get(&key).cloned();
    if let Some(log) = known {
        return started(&visit, log).await;
    }
    let made = visit.shared.work(visit.reader.caller, move || {
        let entries = log::outings(&records.catalogue);
        let outings = log::as_outings(&entries);
        let served = log::services(&records.catalogue);
        let named = records.named();
        let upkeep = Upkeep {
            desk: &desk,
            records: &records,
            outings: &outings,
            served: &served,
            brief: &asked.brief,
            today: today(),
        };
        let dues: Vec<(String, Vec<Due>)> = upkeep
            .dues()
            .into_iter()
            .map(|(key, _, dues)| (key, dues))
            .collect();
        let all_dues: Vec<Due> = dues.iter().flat_map(|(_, d)| d.clone()).collect();
        let shelf = |key: &str| records.catalogue.gear.iter().find(|g| g.key == key);
        let kit = carried(&outings, &shelf);
        let of_hulls = hours(&outings);
        let costs = of_hulls.iter().filter_map(|h| {
            let own: Vec<&Outing> = outings.iter().filter(|o| o.hull == h.hull).collect();
            let hull = records.hulls.iter().find(|r| r.survey.key == h.hull);
            let price = hull.and_then(|r| r.survey.value(Measure::Price));
            let (noted, whole) = cost_per_outing(&own, with_kit(price, &own, &shelf))?;
            Some((h.hull.clone(), noted, whole))
        });
        let costs = costs.collect();
        let sums = Sums {
            outings: &outings,
            names: &named,
            hours: of_hulls,
            months: months(&outings),
            dues: &dues,
            decided: decide(&outings, &all_dues, &kit),
            faults: faults(&outings, None),
            laden: laden(&desk, &records.hulls, &records.catalogue, &outings),
            costs,
            met: met(&outings, &|o| {
                let waters = &records.catalogue.waters;
                waters.iter().find(|w| w.key == o.water)?.wind()
            }),
        };
        start::start(&sums, from.unwrap_or_default(), system)
    });
    let log = Arc::new(made.await?);
    held(&visit.shared.logs).put(key, log.clone(), 1);
    started(&visit, log).await
}

/// The page of what the log says.
async fn started(visit: &Visit<'_>, log: Arc<StartView>) -> Result<StartPage, Trouble> {
    let beside = |from: Option<usize>| {
        let to = visit.to("/log", &[("from", &from?.to_string())]);
        Some(format!("{to}#outings"))
    };
    Ok(StartPage {
        beside: log.page.beside().map(beside),
        log,
        frame: visit.frame_of("log", at(visit, "/log"), None).await?,
    })
}

/// A hull's price with that of the kit that was ever carried in it; `None` where the hull's
/// or any thing's is not known.
fn with_kit<'a>(
    price: Option<f64>,
    outings: &[&Outing],
    shelf: &dyn Fn(&str) -> Option<&'a Gear>,
) -> Option<f64> {
    let mut keys: Vec<&str> = outings
        .iter()
        .flat_map(|o| o.aboard_things())
        .filter_map(|c| c.gear.as_deref())
        .collect();
    keys.sort_unstable();
    keys.dedup();
    let mut sum = price?;
    for key in keys {
        sum += shelf(key)?.price?;
    }
    Some(sum)
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

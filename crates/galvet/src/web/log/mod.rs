//! Pages of the log: what the boats say back, outings, service, kit, trust, the next outing,
//! files.

mod ahead;
mod back;
mod entry;
mod files;
mod outing;
mod start;
mod take_in;

use super::records::Records;
use super::visit::Visit;
use crate::answer::{Desk, Hull};
use crate::log::asked_on;
use galvet_core::base::System;
use galvet_core::log::{Due, Outing, Served, upkeep};
use galvet_core::papers::{Facts, service};
use galvet_core::question::Brief;
use rocket::Route;
use rocket::fs::TempFile;
use rocket::tokio::io::AsyncReadExt;

/// Key and name of every kind of water, none first.
fn waters(records: &Records) -> Vec<(String, String)> {
    let none = (String::new(), "not said".to_owned());
    let waters = records.catalogue.waters.iter();
    let all = waters.map(|w| (w.key.clone(), w.name.clone()));
    [none].into_iter().chain(all).collect()
}

/// What services are worked out from.
struct Upkeep<'a> {
    desk: &'a Desk,
    records: &'a Records,
    outings: &'a [Outing],
    served: &'a [Served],
    /// The question in force, for a hull whose outings tell none.
    brief: &'a Brief,
    today: String,
}

impl Upkeep<'_> {
    /// Every hull that was ever out, with what it asks for.
    fn dues(&self) -> Vec<(String, String, Vec<Due>)> {
        let out = |h: &&Hull| self.outings.iter().any(|o| o.hull == h.survey.key);
        let hulls = self.records.hulls.iter().filter(out);
        hulls
            .map(|hull| {
                let key = hull.survey.key.clone();
                let dues = upkeep(
                    (&key, hull.survey.propulsion),
                    &self.cares(hull),
                    self.outings,
                    self.served,
                    &self.today,
                );
                (key, hull.survey.name(), dues)
            })
            .collect()
    }

    /// The services a hull with the rig it was last out with asks for.
    fn cares(&self, hull: &Hull) -> Vec<&'static str> {
        let own = self.outings.iter().filter(|o| o.hull == hull.survey.key);
        let asked = own
            .max_by(|a, b| a.day.cmp(&b.day))
            .and_then(|o| asked_on(&self.records.catalogue, o));
        let brief = asked.map_or_else(|| self.brief.clone(), |a| a.brief);
        let Ok(afloat) = self.desk.afloat(hull, &brief) else {
            // What cannot be floated is looked after all the same.
            return vec!["paddle", "hull", "seat", "safety"];
        };
        let facts = Facts::of(&afloat.assessment, &brief, System::Metric);
        service(&facts).into_iter().map(|care| care.id).collect()
    }
}

/// Name and bytes of a file of at most so many bytes that was sent; `None` where none was.
async fn sent_file(
    file: Option<&TempFile<'_>>,
    most: usize,
) -> Result<Option<(String, Vec<u8>)>, String> {
    let Some(file) = file.filter(|f| f.len() > 0) else {
        return Ok(None);
    };
    let name = file.raw_name().map_or("the file".to_owned(), |name| {
        galvet_store::files::echo(name.dangerous_unsafe_unsanitized_raw().as_str())
    });
    if file.len() > most as u64 {
        return Err(format!("{name}: larger than {} MB", most / (1024 * 1024)));
    }
    let mut bytes = Vec::new();
    let read = async {
        let mut open = file.open().await?;
        open.read_to_end(&mut bytes).await
    };
    read.await.map_err(|e| e.to_string())?;
    Ok(Some((name, bytes)))
}

/// Where one of the log's pages is, the question kept.
fn at(visit: &Visit<'_>, path: &str) -> String {
    visit.to(path, &[])
}

pub(super) fn routes() -> Vec<Route> {
    [
        start::routes(),
        entry::routes(),
        outing::routes(),
        back::routes(),
        ahead::routes(),
        files::routes(),
        take_in::routes(),
    ]
    .concat()
}

//! The catalogue, and what lies in the trash.

use super::answered::Part;
use super::moved::{keep_along, moved};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::hulls::catalogue::{self, CatalogueView, Filter};
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use rocket::{FromForm, Route, get, routes};

/// The catalogue.
#[derive(Template, WebTemplate)]
#[template(path = "hulls.html", blocks = ["answer"])]
struct HullsPage {
    frame: Frame,
    trashed: usize,
    sentence: Sentence,
    catalogue: CatalogueView,
    /// Where the hulls before and after those shown are.
    beside: [Option<String>; 2],
}

/// The filter as it comes in the address.
#[derive(FromForm)]
struct Chosen<'r> {
    #[field(name = "find", default = "")]
    find: &'r str,
    #[field(name = "build", default = "")]
    construction: &'r str,
    #[field(name = "drive", default = "")]
    propulsion: &'r str,
    #[field(name = "seats", default = "")]
    seats: &'r str,
    #[field(name = "longest", default = "")]
    longest: &'r str,
    #[field(name = "heaviest", default = "")]
    heaviest: &'r str,
    #[field(name = "dearest", default = "")]
    dearest: &'r str,
    #[field(name = "fits", default = "")]
    fits: &'r str,
    #[field(name = "sort", default = "")]
    sort: &'r str,
    /// How many come before: not kept when something else is asked for.
    #[field(name = "from", default = "")]
    from: &'r str,
}

impl Chosen<'_> {
    /// As it stands in the address.
    fn pairs(&self) -> Vec<(&'static str, String)> {
        let all = [
            ("find", self.find),
            ("build", self.construction),
            ("drive", self.propulsion),
            ("seats", self.seats),
            ("longest", self.longest),
            ("heaviest", self.heaviest),
            ("dearest", self.dearest),
            ("fits", self.fits),
            ("sort", self.sort),
        ];
        let chosen = all.into_iter().filter(|(_, value)| !value.is_empty());
        chosen
            .map(|(name, value)| (name, value.to_owned()))
            .collect()
    }

    /// What is not known there counts as not chosen.
    fn filter(&self) -> Filter {
        Filter {
            find: self.find.trim().chars().take(80).collect(),
            construction: Keyed::from_key(self.construction),
            propulsion: Keyed::from_key(self.propulsion),
            seats: self.seats.parse().ok().filter(|n| (1..=3).contains(n)),
            most: [self.longest, self.heaviest, self.dearest]
                .map(|typed| typed.trim().chars().take(40).collect()),
            fits: !self.fits.is_empty(),
            sort: Keyed::from_key(self.sort).unwrap_or_default(),
            from: self.from.parse().unwrap_or_default(),
        }
    }
}

async fn hulls_page(chosen: Chosen<'_>, visit: &Visit<'_>) -> Result<HullsPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let action = "/hulls".to_owned();
    let mut sentence = sentence::sentence(&asked, &records.catalogue, action, reader.units);
    sentence.moved = moved(visit, &answer, &records, &[]).await?;
    keep_along(&mut sentence, &chosen.pairs(), true);
    let filter = chosen.filter();
    let made = rocket::tokio::task::spawn_blocking(move || {
        catalogue::catalogue(&answer, &filter, reader.units)
    });
    let catalogue = made.await?;
    let beside = |from: Option<usize>| {
        let (chosen, from) = (chosen.pairs(), from?.to_string());
        let chosen = chosen.iter().map(|(name, value)| (*name, value.as_str()));
        let pairs: Vec<_> = chosen.chain([("from", from.as_str())]).collect();
        Some(visit.to("/hulls", &pairs))
    };
    let beside = catalogue.page.beside().map(beside);
    Ok(HullsPage {
        beside,
        frame: visit
            .frame_of("hulls", visit.to("/hulls", &[]), None)
            .await?,
        trashed: in_trash(shared).await?,
        sentence,
        catalogue,
    })
}

#[get("/hulls?<chosen..>")]
async fn page(chosen: Chosen<'_>, visit: Visit<'_>) -> Result<HullsPage, Trouble> {
    hulls_page(chosen, &visit).await
}

#[get("/part/hulls?<chosen..>")]
async fn part(chosen: Chosen<'_>, visit: Visit<'_>) -> Result<Part, Trouble> {
    Part::of(&hulls_page(chosen, &visit).await?.as_answer())
}

/// How many records lie in the trash.
async fn in_trash(shared: &Shared) -> Result<usize, Trouble> {
    let store = shared.store.clone();
    Ok(rocket::tokio::task::spawn_blocking(move || store.trashed()).await??)
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part]
}

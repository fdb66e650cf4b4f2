//! How one figure of one hull comes about.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::edit::address;
use super::moved::moved_on;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::present::page::derivation::{Derivation, derivation, figure_named};
use crate::present::page::reckoned::{Reckoned, reckoned};
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::figures::Quantity;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "derivation.html")]
struct DerivationPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    key: String,
    name: String,
    /// `None` where she cannot be floated yet.
    derived: Option<Derivation>,
}

impl DerivationPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// What a word in an address asks for.
#[derive(Clone, Copy)]
enum Wanted {
    Figure(Quantity),
    Column(Reckoned),
}

impl Wanted {
    fn named(word: &str) -> Option<Self> {
        let figure = figure_named(word).map(Self::Figure);
        figure.or_else(|| Reckoned::named(word).map(Self::Column))
    }
}

#[get("/hulls/<slug>/figures/<figure>")]
async fn page(
    slug: &str,
    figure: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<DerivationPage>, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let path = format!("/hulls/{slug}/figures/{figure}");
    let hull = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned();
    let (Some(hull), Some(figure)) = (hull, Wanted::named(figure)) else {
        return Ok(Err(Status::NotFound));
    };
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, path.clone(), reader.units);
    sentence.moved = moved_on(&hull, &ask, &asked, &shelf, reader, shared).await?;
    let (key, name) = (slug.to_owned(), hull.survey.name());
    let (desk, brief) = (shared.desk.clone(), asked.brief.clone());
    let derived = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&hull, &brief).ok()?;
        Some(match figure {
            Wanted::Figure(quantity) => derivation(&afloat, quantity, &brief, reader.units),
            Wanted::Column(column) => reckoned(&afloat, column, &brief, reader.units),
        })
    });
    let query = query_of(&ask);
    let page = DerivationPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&path, &query, &[]),
        place: "hull",
        query,
        sentence,
        key,
        name,
        derived: derived.await?,
    };
    Ok(Ok(answered(&asked, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

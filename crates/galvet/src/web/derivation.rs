//! How one figure of one hull comes about.

use super::answered::{Answered, answered};
use super::moved::moved_on;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::hulls::derivation::{Derivation, derivation, figure_named};
use crate::present::page::hulls::reckoned::{Reckoned, reckoned};
use crate::present::page::hulls::turned::{extra_named, turned};
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::beyond::Extra;
use galvet_core::figures::Quantity;
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "derivation.html")]
struct DerivationPage {
    frame: Frame,
    sentence: Sentence,
    key: String,
    name: String,
    /// `None` where it cannot be floated yet.
    derived: Option<Derivation>,
}

/// What a word in an address asks for.
#[derive(Clone, Copy)]
enum Wanted {
    Figure(Quantity),
    Column(Reckoned),
    Turned(Extra),
}

impl Wanted {
    fn named(word: &str) -> Option<Self> {
        let figure = figure_named(word).map(Self::Figure);
        figure
            .or_else(|| Reckoned::named(word).map(Self::Column))
            .or_else(|| extra_named(word).map(Self::Turned))
    }
}

#[get("/hulls/<slug>/figures/<figure>")]
async fn page(
    slug: &str,
    figure: &str,
    visit: Visit<'_>,
) -> Result<Answered<DerivationPage>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let path = format!("/hulls/{slug}/figures/{figure}");
    let hull = records.hulls.iter().find(|h| h.survey.key == slug).cloned();
    let (Some(hull), Some(figure)) = (hull, Wanted::named(figure)) else {
        return Err(Trouble::Gone);
    };
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path.clone(), reader.units);
    sentence.moved = moved_on(&visit, &hull, &asked, &records).await?;
    let (key, name) = (slug.to_owned(), hull.survey.name());
    let (desk, brief) = (shared.desk.clone(), asked.brief.clone());
    let derived = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&hull, &brief).ok()?;
        Some(match figure {
            Wanted::Figure(quantity) => derivation(&afloat, quantity, &brief, reader.units),
            Wanted::Column(column) => reckoned(&afloat, column, &brief, reader.units),
            Wanted::Turned(extra) => turned(&afloat, extra, &brief.day(), reader.units),
        })
    });
    let page = DerivationPage {
        frame: visit.frame("hull", visit.to(&path, &[])),
        sentence,
        key,
        name,
        derived: derived.await?,
    };
    Ok(answered(&asked, page))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

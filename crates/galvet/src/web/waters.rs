//! The waters, and one of them.

use super::kept::{self, About, OnPage};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::waters::{self, WaterLine, demand};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::question::Water;
use galvet_store::Catalogue;
use rocket::{Route, get, routes};

/// The list.
#[derive(Template, WebTemplate)]
#[template(path = "waters.html")]
struct WatersPage {
    frame: Frame,
    waters: Vec<WaterLine>,
}

#[get("/waters")]
async fn list(visit: Visit<'_>) -> Result<WatersPage, Trouble> {
    let on = visit.shared.records().await?;
    let here = visit.to("/waters", &[]);
    Ok(WatersPage {
        frame: visit.frame_of("waters", here, None).await?,
        waters: waters::waters(&on.catalogue.waters, visit.reader.units),
    })
}

impl OnPage for Water {
    const LIST: &'static str = "/waters";
    const NEW: &'static str = "/new-water";
    const PLACE: &'static str = "waters";
    const WORDS: [&'static str; 4] = [
        "the waters",
        "A new water",
        "Put it among the waters",
        "Delete",
    ];

    fn all(catalogue: &Catalogue) -> &[Self] {
        &catalogue.waters
    }

    fn about(water: Option<&Self>, _: &Catalogue, _: &Shared) -> About {
        About {
            demand: water.map(demand),
            ..About::default()
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    let own = routes![list];
    own.into_iter().chain(kept::routes::<Water>()).collect()
}

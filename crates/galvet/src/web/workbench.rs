//! The parts pages are made of, each in every state, for whoever builds: served by a demo.

use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::draw::person::{Figure, figure};
use crate::present::draw::symbol;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::portrait::{Person, from_above, from_ahead, seated, standing};
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "workbench.html")]
struct WorkbenchPage {
    frame: Frame,
    symbols: Vec<&'static str>,
    /// The angler in each view, with what it is called.
    people: Vec<(&'static str, Figure)>,
}

/// A stature and a scale to draw people with, m and units a metre.
const STATURE: f64 = 1.8;
const SCALE: f64 = 100.0;

fn people() -> Vec<(&'static str, Figure)> {
    let drawn = |person: &Person| {
        figure(
            person,
            |(x, z)| (100.0 + x * SCALE, 195.0 - z * SCALE),
            SCALE,
        )
    };
    vec![
        ("seated low", drawn(&seated((0.2, 0.12), 0.0, STATURE))),
        ("seated high", drawn(&seated((0.2, 0.45), 0.0, STATURE))),
        ("standing", drawn(&standing((0.0, 0.0), STATURE))),
        (
            "seated, from ahead",
            drawn(&from_ahead(0.3, STATURE, false)),
        ),
        (
            "standing, from ahead",
            drawn(&from_ahead(0.0, STATURE, true)),
        ),
        ("from above", drawn(&from_above((0.4, 1.0), STATURE))),
    ]
}

#[get("/parts")]
fn page(visit: Visit<'_>) -> Result<WorkbenchPage, Trouble> {
    if !visit.shared.simulates {
        return Err(Trouble::Gone);
    }
    Ok(WorkbenchPage {
        frame: visit.frame("", visit.to("/parts", &[])),
        symbols: symbol::all(),
        people: people(),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

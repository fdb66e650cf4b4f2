//! A hull's drawings as files of their own.

use super::trouble::Trouble;
use super::visit::Visit;
use crate::answer::{Desk, Hull};
use crate::present::draw::curve::{Curve, curve};
use crate::present::draw::hull::{Side, side};
use crate::present::draw::paper::STYLE;
use crate::present::draw::section::{Section, section};
use askama::Template;
use galvet_core::base::System;
use galvet_core::question::Brief;
use rocket::http::{ContentType, Status};
use rocket::{Route, get, routes};

/// What is drawn.
enum Drawing {
    Profile(Side),
    Plan(Side),
    Section(Section),
    Righting(Curve),
}

#[derive(Template)]
#[template(path = "drawing.svg", escape = "html")]
struct File {
    title: String,
    view_box: String,
    style: &'static str,
    drawing: Drawing,
}

/// Units a metre in a section's file.
const SCALE: f64 = 300.0;

/// `profile`, `plan`, `section`, `leaned` or `righting` of a hull under a question.
#[get("/hulls/<slug>/drawings/<file>")]
async fn drawing(
    slug: &str,
    file: &str,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let hull = records.hulls.iter().find(|h| h.survey.key == slug).cloned();
    let (Some(hull), Some(what)) = (hull, file.strip_suffix(".svg")) else {
        return Err(Trouble::Gone);
    };
    let (desk, what) = (shared.desk.clone(), what.to_owned());
    let drawn = shared.work(reader.caller, move || {
        drawn(&desk, &hull, &asked.brief, (&what, reader.units))
    });
    let text = drawn.await?.ok_or(Status::NotFound);
    Ok(text.map(|text| (ContentType::SVG, text)))
}

/// A drawing of a hull under a question, in somebody's units; `None` where there is none.
pub(super) fn drawn(
    desk: &Desk,
    hull: &Hull,
    brief: &Brief,
    (what, units): (&str, System),
) -> Option<String> {
    let afloat = desk.afloat(hull, brief).ok()?;
    let portrait = afloat.portrait();
    let (view_box, drawing) = match what {
        "profile" => {
            let side = side(&portrait.side, units);
            (side.profile_box.clone(), Drawing::Profile(side))
        }
        "plan" => {
            let side = side(&portrait.side, units);
            (side.plan_box.clone(), Drawing::Plan(side))
        }
        "section" | "leaned" => {
            let view = if what == "leaned" {
                portrait.sections.last()
            } else {
                portrait.sections.first()
            };
            let drawn = section(view?, SCALE, true, units);
            (drawn.view_box.clone(), Drawing::Section(drawn))
        }
        "righting" => {
            let curve = curve(&portrait.curves, units);
            ("0 0 496 214".to_owned(), Drawing::Righting(curve))
        }
        _ => return None,
    };
    let file = File {
        title: format!("{}: {what}", hull.survey.name()),
        view_box,
        style: &STYLE,
        drawing,
    };
    file.render().ok()
}

pub(super) fn routes() -> Vec<Route> {
    routes![drawing]
}

//! What the shop has of each hull.

use crate::form::{FormView, NotTaken, Sent};
use crate::present::page::hulls::hull_head::price;
use crate::shop::{self, Shelf, keep_stock, stock_form};
use crate::web::edit::came_of;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Kind;
use galvet_store::files::stock::StockEntry;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};

/// A hull in the list.
struct Line {
    key: String,
    name: String,
    price: String,
    shelf: Option<Shelf>,
}

/// What there is.
#[derive(Template, WebTemplate)]
#[template(path = "stock.html")]
struct StockPage {
    frame: Frame,
    /// Those somebody said something of, and the others.
    lines: [Vec<Line>; 2],
}

#[get("/stock")]
async fn list(visit: Visit<'_>) -> Result<StockPage, Trouble> {
    let records = visit.shared.records().await?;
    let (stock, units) = (shop::stock(&records.catalogue), visit.reader.units);
    let line = |hull: &crate::answer::Hull| Line {
        key: hull.survey.key.clone(),
        name: hull.survey.name(),
        price: price(&hull.survey, units),
        shelf: stock.get(&hull.survey.key).map(|s| Shelf::of(s, units)),
    };
    let all = records.hulls.iter().map(line);
    let (said, other) = all.partition(|line: &Line| line.shelf.is_some());
    Ok(StockPage {
        frame: visit
            .frame_of("hulls", visit.to("/stock", &[]), None)
            .await?,
        lines: [said, other],
    })
}

/// What there is of one hull.
#[derive(Template, WebTemplate)]
#[template(path = "stock-hull.html")]
struct HullPage {
    frame: Frame,
    key: String,
    name: String,
    price: String,
    form: FormView,
}

async fn hull_page(
    slug: &str,
    visit: &Visit<'_>,
    not_taken: &NotTaken,
) -> Result<HullPage, Trouble> {
    let records = visit.shared.records().await?;
    let hull = records.hull(slug)?;
    let (stock, units) = (shop::stock(&records.catalogue), visit.reader.units);
    let (name, here) = (hull.survey.name(), visit.to(&format!("/stock/{slug}"), &[]));
    let about = Some((Kind::of::<StockEntry>(), slug));
    Ok(HullPage {
        frame: visit.frame_of("hulls", here, about).await?,
        form: stock_form(stock.get(slug), (slug, &name), (not_taken, units)),
        price: price(&hull.survey, units),
        key: slug.to_owned(),
        name,
    })
}

#[get("/stock/<slug>")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<HullPage, Trouble> {
    hull_page(slug, &visit, &NotTaken::default()).await
}

#[post("/stock/<slug>", data = "<form>")]
async fn keep(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, HullPage)>, Trouble> {
    let records = visit.shared.records().await?;
    let name = records.hull(slug)?.survey.name();
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let (key, typed, units) = (slug.to_owned(), form.into_inner(), visit.reader.units);
    let sent = typed.clone();
    let done =
        spawn_blocking(move || keep_stock(&store, hand.who(), (&key, &name), (&sent, units)));
    match came_of(done.await?)? {
        Ok(()) => Ok(Ok(visit.go("/stock", &[]))),
        Err(refusal) => {
            let not_taken = NotTaken {
                typed,
                mistakes: refusal.0,
            };
            let page = hull_page(slug, &visit, &not_taken).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![list, page, keep]
}

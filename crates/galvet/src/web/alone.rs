//! Any page as one file that stands alone, and any page by an address that is handed out.
//!
//! `as=file` behind a page's address gives it to be saved; `/shared/…` shows the page it
//! was handed out for. Either way it is what the page prints, laid out for paper in print
//! and for the screen it is read on: style and fonts inside it, no script, no form, and no
//! way to anything else.

use super::asked::Asked;
use super::asks::asked_by;
use super::called::called;
use super::edit::came_of;
use super::errors::{Told, asking, told};
use super::reader::today;
use super::rules::{Rule, rule_at};
use super::shared::Shared;
use super::standing::{stands_alone, unnamed};
use super::trouble::Trouble;
use super::visit::Visit;
use crate::papers::{day_after, hand_out, handed, is_over, keep_until};
use galvet_store::Kind;
use galvet_store::files::handed::Handed;
use rocket::fairing::{Fairing, Info, Kind as When};
use rocket::form::{Form, FromForm};
use rocket::http::uri::Origin;
use rocket::http::{ContentType, Header, Method, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Data, Request, Response, Route, post, routes};
use std::io::Cursor;

/// Where addresses handed out begin.
const SHARED: &str = "/shared/";
/// What behind an address asks for a file.
const AS_FILE: &str = "as=file";
/// Nothing but what is in it.
const POLICY: &str = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; font-src data:; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/// Turns pages into ones that stand alone.
#[derive(Debug)]
pub(super) struct Alone;

/// The page an address handed out stands for; `None` for one withdrawn, or none of ours.
async fn page_of(request: &Request<'_>, token: &str) -> Option<(String, Asked)> {
    let shared = request.rocket().state::<Shared>()?;
    let (store, token) = (shared.store.clone(), token.to_owned());
    let found = spawn_blocking(move || store.record(Kind::of::<Handed>(), &token))
        .await
        .ok()?;
    let (_, record) = found.ok()??;
    match record {
        galvet_store::Record::Sheet(sheet) => {
            let handed = sheet.sheet::<Handed>()?;
            let asked = if handed.of_customer {
                Asked::SharedOfCustomer
            } else {
                Asked::Shared
            };
            (!is_over(handed, &today())).then(|| (handed.page.clone(), asked))
        }
        _ => None,
    }
}

#[rocket::async_trait]
impl Fairing for Alone {
    fn info(&self) -> Info {
        Info {
            name: "pages that stand alone",
            kind: When::Request | When::Response,
        }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        let reads = matches!(request.method(), Method::Get | Method::Head);
        let path = request.uri().path().as_str().to_owned();
        if let Some(token) = path.strip_prefix(SHARED).filter(|_| reads) {
            let page = page_of(request, token).await;
            let page = page.and_then(|(p, asked)| Some((Origin::parse_owned(p).ok()?, asked)));
            if let Some((page, asked)) = page {
                request.set_uri(page);
                asked.note(request);
            }
            return;
        }
        let asks = request
            .uri()
            .query()
            .is_some_and(|q| q.split('&').any(|p| p == AS_FILE));
        if asks && reads {
            Asked::File.note(request);
        }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        let asked = Asked::of(request);
        if asked == Asked::Page || response.status() != Status::Ok {
            return;
        }
        if response.content_type() != Some(ContentType::HTML) {
            // A page only is handed out: a file of data is not to be read that way.
            if asked.is_shared() {
                response.set_status(Status::NotFound);
                response.set_sized_body(0, Cursor::new(Vec::new()));
            }
            return;
        }
        let body = response.body_mut().to_string().await.unwrap_or_default();
        let mut alone = stands_alone(&body, asked.is_shared());
        if asked.is_shared() {
            let shared = request.rocket().state::<Shared>();
            let records = match shared {
                Some(shared) => shared.records().await.ok(),
                None => None,
            };
            // What cannot be gone through is not handed out.
            alone = records.map_or(String::new(), |records| unnamed(alone, &records.catalogue));
        }
        response.set_sized_body(alone.len(), Cursor::new(alone.into_bytes()));
        response.set_header(Header::new("Content-Security-Policy", POLICY));
        response.set_header(Header::new("X-Robots-Tag", "noindex"));
        response.set_header(Header::new("Referrer-Policy", "no-referrer"));
        if asked == Asked::File {
            let name = file_name(request.uri().path().as_str());
            let saved = format!("attachment; filename=\"{name}.html\"");
            response.set_header(Header::new("Content-Disposition", saved));
        }
    }
}

/// What a file of a page is called.
fn file_name(path: &str) -> String {
    let plain: String = path
        .chars()
        .map(|c| if c.is_ascii_alphanumeric() { c } else { '-' })
        .collect();
    let plain = plain.trim_matches('-');
    format!(
        "galvet-{}",
        if plain.is_empty() { "ranking" } else { plain }
    )
}

/// What is handed out.
#[derive(FromForm)]
struct Out {
    page: String,
    /// Whether a customer wants what they asked to be on it.
    #[field(default = false)]
    of_customer: bool,
}

/// Most addresses that are out at once.
const MOST: usize = 500;

/// Days for which an address is good, unless another day is said.
const DAYS: f64 = 30.0;

/// Why an address is not handed out; nothing has changed.
fn not_given(why: String, back: &str) -> Told {
    let title = "That was not handed out";
    told(Status::UnprocessableEntity, title, why, back)
}

/// Says that a page shows what a customer asked, and how it is handed out all the same.
fn of_a_customer(name: &str, page: &str) -> Told {
    let why = format!(
        "It answers what {name} asked: their weight, how they stand, what they carry. If they want it handed out, say so; their name, where it is more than one word, and how they are reached stay off it."
    );
    let asked = not_given(why, page);
    asking(
        asked,
        "/shared",
        (
            "Hand it out: they want it",
            &[("page", page), ("of_customer", "true")],
        ),
    )
}

/// Hands a page of ours out, for a month.
#[post("/shared", data = "<form>")]
async fn give(form: Form<Out>, visit: Visit<'_>) -> Result<Result<Redirect, Told>, Trouble> {
    let out = form.into_inner();
    let page = out.page.trim().to_owned();
    let records = visit.shared.records().await?;
    if handed(&records.catalogue).len() >= MOST {
        let why = format!("{MOST} addresses are out already: withdraw some first.");
        return Ok(Err(not_given(why, "/papers")));
    }
    // What only staff may see, and what is handed out already, is not.
    if !rule_at(Method::Get, &page).is_some_and(Rule::is_handed_out) {
        let why = "It says who came, bought or changed something, or only leads to a change: such a page stays in the house. Hulls, rankings, comparisons and papers can be handed out.";
        return Ok(Err(not_given(why.to_owned(), &page)));
    }
    if !out.of_customer
        && let Some(name) = asked_by(&records.catalogue, &page)
    {
        return Ok(Err(of_a_customer(&name, &page)));
    }
    let (store, reader) = (visit.shared.store.clone(), visit.reader);
    let name = called(&records, &page);
    let of_customer = out.of_customer;
    let done = spawn_blocking(move || {
        let today = today();
        let last = day_after(&today, DAYS).unwrap_or_default();
        let paper = (name.as_str(), page.as_str(), of_customer);
        hand_out(&store, reader.hand.who(), paper, (&today, &last))
    });
    match came_of(done.await?)? {
        Ok(_) => Ok(Ok(visit.go("/papers", &[]))),
        Err(refusal) => Ok(Err(not_given(refusal.to_string(), "/papers"))),
    }
}

/// Until when an address is good.
#[derive(FromForm)]
struct Until<'r> {
    until: &'r str,
}

/// Sets the last day of an address.
#[post("/shared/<token>/until", data = "<form>")]
async fn set_until(
    token: &str,
    form: Form<Until<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let (store, reader, token) = (visit.shared.store.clone(), visit.reader, token.to_owned());
    let last = form.until.to_owned();
    let done = spawn_blocking(move || keep_until(&store, reader.hand.who(), &token, &last));
    match came_of(done.await?)? {
        Ok(()) => Ok(Ok(visit.go("/papers", &[]))),
        Err(refusal) => Ok(Err(not_given(refusal.to_string(), "/papers"))),
    }
}

/// Withdraws what was handed out.
#[post("/shared/<token>/withdraw")]
async fn withdraw(token: &str, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let (store, reader, token) = (visit.shared.store.clone(), visit.reader, token.to_owned());
    let kind = Kind::of::<Handed>();
    let done = spawn_blocking(move || store.throw_away(reader.hand.who(), (kind, &token), None));
    done.await??;
    Ok(visit.go("/papers", &[]))
}

pub(super) fn routes() -> Vec<Route> {
    routes![give, set_until, withdraw]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_file_is_called_what_its_page_is() {
        assert_eq!(
            file_name("/hulls/a-b/papers/launch"),
            "galvet-hulls-a-b-papers-launch"
        );
        assert_eq!(file_name("/"), "galvet-ranking");
    }
}

//! Any page as one file that stands alone, and any page by an address that is handed out.
//!
//! `as=file` behind a page's address gives it to be saved; `/shared/…` shows the page it
//! was handed out for. Either way it is what the page prints, laid out for paper in print
//! and for the screen it is read on: style and fonts inside it, no script, no form, and no
//! way to anything else.

use super::asked::Asked;
use super::asks::asked_by;
use super::assets;
use super::called::called;
use super::edit::came_of;
use super::errors::{Told, asking, told};
use super::reader::today;
use super::rules::{Rule, rule_at};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::customer::Written;
use crate::papers::{day_after, hand_out, handed, is_over, keep_until};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use galvet_store::files::handed::Handed;
use galvet_store::{Catalogue, Kind};
use lol_html::html_content::ContentType as Html;
use lol_html::{RewriteStrSettings, element, rewrite_str, text};
use rocket::fairing::{Fairing, Info, Kind as When};
use rocket::form::{Form, FromForm};
use rocket::http::uri::Origin;
use rocket::http::{ContentType, Header, Method, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Data, Request, Response, Route, post, routes};
use std::io::Cursor;
use std::sync::LazyLock;

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

/// The condition under which stands what paper leaves out and what it opens: so does a page
/// that stands alone, on a screen as well, laid out as the screen wants it.
const ON_PAPER: &str = "@media print and (min-width:1px)";

/// The style, with its fonts inside.
static STYLE: LazyLock<String> = LazyLock::new(|| {
    let text = |name: &str| assets::file(name).unwrap_or_default();
    let mut style = String::from_utf8(text("app.css")).unwrap_or_default();
    for font in ["archivo", "newsreader"] {
        let name = format!("fonts/{font}.woff2");
        let inside = format!(
            "url(data:font/woff2;base64,{})",
            STANDARD.encode(text(&name))
        );
        style = style.replace(&format!("url({name})"), &inside);
    }
    style.replace(ON_PAPER, "@media all")
});

/// A page without script, form or way out, its style inside. One that cannot be read as
/// HTML is not handed out as it is.
fn stands_alone(page: &str, by_address: bool) -> String {
    let style = format!("<style>{}</style>", *STYLE);
    let told = if by_address {
        "<p class=\"caution\">A paper handed out to be read. Guidance; the maker's instructions, local rules and qualified people stand above it.</p>"
    } else {
        ""
    };
    let settings = RewriteStrSettings {
        element_content_handlers: vec![
            element!("head", |e| {
                e.append(&style, Html::Html);
                Ok(())
            }),
            element!("main", |e| {
                e.append(told, Html::Html);
                Ok(())
            }),
            element!(
                "script, link, noscript, template, iframe, object, embed, base, dialog, nav, .skip, .trouble, input, select, textarea, datalist, [data-tick-state], [data-private], .masthead form, .masthead-me",
                |e| {
                    e.remove();
                    Ok(())
                }
            ),
            element!("button.tick-box", |e| {
                e.set_tag_name("span")?;
                e.set_attribute("class", "tick-box")?;
                Ok(())
            }),
            element!("button:not(.tick-box)", |e| {
                e.remove();
                Ok(())
            }),
            element!("form", |e| {
                e.set_tag_name("div")?;
                e.remove_attribute("action");
                e.remove_attribute("method");
                if e.has_attribute("aria-label") {
                    e.set_attribute("role", "group")?;
                }
                Ok(())
            }),
            // Words stay where a link was; a place on the page stays a link.
            element!("a[href]", |e| {
                if !e.get_attribute("href").is_some_and(|h| h.starts_with('#')) {
                    e.remove_attribute("href");
                }
                Ok(())
            }),
            element!("img", |e| {
                match e.get_attribute("src").and_then(|src| inside(&src)) {
                    Some(data) => e.set_attribute("src", &data)?,
                    None => e.remove(),
                }
                e.remove_attribute("srcset");
                Ok(())
            }),
            element!("*", |e| {
                let names: Vec<String> = e
                    .attributes()
                    .iter()
                    .map(lol_html::html_content::Attribute::name)
                    .collect();
                for name in names.iter().filter(|n| {
                    n.starts_with("on") || n.as_str() == "style" || n.as_str() == "srcdoc"
                }) {
                    e.remove_attribute(name);
                }
                Ok(())
            }),
        ],
        ..RewriteStrSettings::new()
    };
    rewrite_str(page, settings).unwrap_or_default()
}

/// A page without the name of any customer in what is read of it, be it a note of somebody:
/// of names of more than a word, which mean nobody else.
fn unnamed(page: String, catalogue: &Catalogue) -> String {
    /// What of an element is read.
    const READ: [&str; 3] = ["aria-label", "title", "alt"];
    let Some(names) = Written::in_text(catalogue, &page) else {
        return page;
    };
    let mut told = String::new();
    let settings = RewriteStrSettings {
        element_content_handlers: vec![
            text!("*:not(style)", |part| {
                // Text may come in parts, and a name on the joint of two.
                told.push_str(part.as_str());
                if !part.last_in_text_node() {
                    part.remove();
                    return Ok(());
                }
                let whole = std::mem::take(&mut told);
                part.replace(&names.without(&whole).unwrap_or(whole), Html::Html);
                Ok(())
            }),
            element!("*", |e| {
                let attributes = e.attributes().iter();
                let read = attributes.map(|a| (a.name(), a.value()));
                let read = read
                    .filter(|(name, _)| READ.contains(&name.as_str()) || name.starts_with("data-"));
                for (name, value) in read.collect::<Vec<_>>() {
                    if let Some(without) = names.without(&value) {
                        e.set_attribute(&name, &without)?;
                    }
                }
                Ok(())
            }),
        ],
        ..RewriteStrSettings::new()
    };
    rewrite_str(&page, settings).unwrap_or_default()
}

/// A picture of ours as data.
fn inside(src: &str) -> Option<String> {
    let name = src.strip_prefix("/assets/")?.split_once('/')?.1;
    let data = assets::file(name)?;
    let kind = mime_guess::from_path(name).first_or_octet_stream();
    Some(format!("data:{kind};base64,{}", STANDARD.encode(data)))
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
    fn nothing_of_a_page_leads_anywhere_or_runs() {
        let page = r##"<html><head><link rel="stylesheet" href="/x.css"><script src="/a.js"></script></head>
            <body onload="x()"><header class="masthead"><a class="masthead-me">Runa</a><form class="units"></form></header><nav><a href="/hulls">hulls</a></nav><main><a href="/hulls/k?mass=88">words</a> <a href="#part">here</a>
            <form method="post" action="/x"><input name="a" value="secret"><button class="tick-box"><span></span></button><button>Save</button></form>
            <img src="/photos/1.jpg"><p style="color:red" onclick="y()">text</p><svg><use href="#pat"/></svg></main></body></html>"##;
        let alone = stands_alone(page, true);
        for gone in [
            "<script",
            "<link",
            "<nav",
            "<form",
            "<input",
            "secret",
            "Save",
            "onload",
            "onclick",
            "/hulls",
            "/photos",
            "action=",
            "color:red",
            "Runa",
            "<div class=\"units\"",
        ] {
            assert!(!alone.contains(gone), "{gone}");
        }
        for stays in [
            "words",
            "href=\"#part\"",
            "<span class=\"tick-box\"",
            "text",
            "<style>",
            "handed out to be read",
            "<use href=\"#pat\"",
        ] {
            assert!(alone.contains(stays), "{stays}");
        }
        assert!(alone.contains("data:font/woff2;base64,"));
        let style = assets::file("app.css").unwrap();
        let style = String::from_utf8(style).unwrap();
        assert!(style.matches(ON_PAPER).count() > 5 && !alone.contains(ON_PAPER));
        // Nothing is left out on paper by another condition.
        for layout in style.split("@media print{").skip(1) {
            let until = layout.find("}}").unwrap();
            assert!(
                !layout[..until].contains("display:none"),
                "{}",
                &layout[..until]
            );
        }
        // Every address in the style is inside it.
        assert!(!STYLE.contains("url(fonts"));
        assert_eq!(
            file_name("/hulls/a-b/papers/launch"),
            "galvet-hulls-a-b-papers-launch"
        );
        assert_eq!(file_name("/"), "galvet-ranking");
    }
}

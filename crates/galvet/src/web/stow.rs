//! The stow board of a hull: the rig of the question laid out on it, things put by
//! hand, tried before they are kept.

use super::address::address;
use super::answered::Part;
use super::edit::{self, action};
use super::moved::{moved_on, moved_since};
use super::reader::back_to;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::Closeup;
use crate::form::Refusal;
use crate::form::Sent;
use crate::present::page::kit::stow::{self, StowView};
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::survey;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{Keyed, System};
use galvet_core::hull::Pin;
use galvet_core::stow::{Mode, Space};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, get, post, routes};
use serde::Deserialize;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "stow.html", blocks = ["answer"])]
struct StowPage {
    frame: Frame,
    sentence: Sentence,
    key: String,
    name: String,
    stow: Result<StowView, String>,
}

impl StowPage {
    fn at(&self, thing: &str, nth: &u32) -> String {
        at(&self.key, &self.frame.query, thing, *nth)
    }

    fn mode(&self, word: &str) -> String {
        let path = format!("/hulls/{}/stow", self.key);
        address(&path, &self.frame.query, &[("mode", word)])
    }
}

/// The board's address with a thing at hand.
fn at(slug: &str, query: &str, thing: &str, nth: u32) -> String {
    let (path, nth) = (format!("/hulls/{slug}/stow"), nth.to_string());
    if thing.is_empty() {
        return address(&path, query, &[]);
    }
    address(&path, query, &[("at", thing), ("n", &nth)])
}

/// What is at hand, what is tried, and what was refused.
struct Shown {
    mode: Mode,
    hand: Option<(String, u32)>,
    /// Put so for a try; what is on the record where `None`.
    pins: Option<Vec<Pin>>,
    trouble: String,
    /// The rig it was before, where a remedy changed it.
    since: Option<String>,
}

impl Default for Shown {
    fn default() -> Self {
        Self {
            mode: Mode::UnderWay,
            hand: None,
            pins: None,
            trouble: String::new(),
            since: None,
        }
    }
}

async fn stow_page(slug: &str, visit: &Visit<'_>, shown: Shown) -> Result<StowPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let path = format!("/hulls/{slug}/stow");
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path.clone(), reader.units);
    sentence.moved = match &shown.since {
        Some(rig) => moved_since(visit, (&hull, rig), &asked, &records).await?,
        None => moved_on(visit, &hull, &asked, &records).await?,
    };
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let (key, name) = (slug.to_owned(), hull.survey.name());
    let made = shared.work(reader.caller, move || {
        let laid = hull.survey.looked.laid.get(&brief.rig.key).cloned();
        let pins = shown.pins.or(laid).unwrap_or_default();
        let board =
            Closeup::of(&desk, &hull, &brief, &pins, shown.mode).map_err(|e| e.to_string())?;
        let hand = shown.hand.as_ref().map(|(thing, n)| (thing.as_str(), *n));
        Ok(stow::stow(&board, &pins, hand, shown.trouble, reader.units))
    });
    Ok(StowPage {
        frame: visit.frame_of("hull", visit.to(&path, &[]), None).await?,
        sentence,
        key,
        name,
        stow: made.await?,
    })
}

/// What of the board an address asks to see.
#[derive(FromForm)]
struct Looked {
    at: Option<String>,
    n: Option<u32>,
    mode: Option<String>,
    since: Option<String>,
}

impl Looked {
    fn shown(self) -> Shown {
        let mode = self.mode.as_deref().and_then(Keyed::from_key);
        Shown {
            mode: mode.unwrap_or(Mode::UnderWay),
            since: self.since,
            ..hand(self.at, self.n)
        }
    }
}

fn hand(at: Option<String>, n: Option<u32>) -> Shown {
    Shown {
        hand: at.map(|thing| (thing, n.unwrap_or(0))),
        ..Shown::default()
    }
}

#[get("/hulls/<slug>/stow?<looked..>")]
async fn page(slug: &str, looked: Looked, visit: Visit<'_>) -> Result<StowPage, Trouble> {
    stow_page(slug, &visit, looked.shown()).await
}

#[get("/part/hulls/<slug>/stow?<looked..>")]
async fn part(slug: &str, looked: Looked, visit: Visit<'_>) -> Result<Part, Trouble> {
    Part::of(&stow_page(slug, &visit, looked.shown()).await?.as_answer())
}

/// A pin as a script or a form sends it.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct SentPin {
    thing: String,
    nth: u32,
    /// Empty where the place is to be told from where it is put.
    place: String,
    x: f64,
    y: f64,
    turned: bool,
}

/// Most things put by hand at once.
const MOST: usize = 400;

/// The pins of a text.
fn read(text: &str) -> Result<Vec<SentPin>, String> {
    let sent: Vec<SentPin> =
        serde_json::from_str(text).map_err(|e| format!("the layout is not understood: {e}"))?;
    if sent.len() > MOST {
        return Err(format!("more than {MOST} things put by hand"));
    }
    Ok(sent)
}

impl SentPin {
    /// The pin, its place told from the space where it was not named.
    fn pin(self, space: &Space) -> Result<Pin, String> {
        let place = if self.place.is_empty() {
            space.place_at(self.x, self.y).to_owned()
        } else {
            self.place
        };
        if place.is_empty() {
            return Err("there is nothing on it to put it".to_owned());
        }
        let pin = Pin {
            thing: self.thing,
            nth: self.nth,
            place,
            x: self.x,
            y: self.y,
            turned: self.turned,
        };
        pin.check().map_err(|e| e.to_string())
    }
}

/// The space of a hull under a question, and the key of its rig.
async fn space_of(slug: &str, visit: &Visit<'_>) -> Result<Option<(Space, String)>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let desk = shared.desk.clone();
    let space = shared.work(reader.caller, move || {
        let shapes = desk.shapes(&hull).ok()?;
        let (brief, rig) = (asked.brief.clone(), asked.brief.rig.key.clone());
        let setup = galvet_core::figures::Setup::pinned(shapes, brief.into(), &[]);
        Some((setup.space(), rig))
    });
    space.await
}

/// Tries a layout without keeping it.
#[post("/part/hulls/<slug>/stow", data = "<form>")]
async fn try_out(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Part, Status>, Trouble> {
    let typed = form.into_inner();
    let Some((space, _)) = space_of(slug, &visit).await? else {
        return Err(Trouble::Gone);
    };
    let sent = read(typed.get("pins").map_or("[]", String::as_str));
    let pins = sent.and_then(|all| all.into_iter().map(|p| p.pin(&space)).collect());
    let Ok(pins) = pins else {
        return Ok(Err(Status::UnprocessableEntity));
    };
    let nth = typed.get("n").and_then(|n| n.parse().ok());
    let shown = Shown {
        pins: Some(pins),
        ..hand(typed.get("at").filter(|t| !t.is_empty()).cloned(), nth)
    };
    let page = stow_page(slug, &visit, shown).await?;
    Part::of(&page.as_answer()).map(Ok)
}

/// What a form asks to be put by hand.
fn asked(typed: &Sent, space: &Space, units: System) -> Result<Vec<Pin>, Refusal> {
    if let Some(text) = typed.get("pins") {
        let pins = read(text)?.into_iter().map(|p| p.pin(space));
        return Ok(pins.collect::<Result<_, String>>()?);
    }
    let (x, y) = survey::place_typed(typed, units)?;
    let text = |name: &str| typed.get(name).map_or("", |t| t.trim());
    let sent = SentPin {
        thing: text("thing").to_owned(),
        nth: text("nth").parse().unwrap_or(0),
        place: text("place").to_owned(),
        x,
        y,
        turned: typed.contains_key("turned"),
    };
    Ok(vec![sent.pin(space)?])
}

/// Keeps things put by hand, lets one go, or all.
#[post("/hulls/<slug>/stow", data = "<form>")]
async fn put(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, StowPage)>, Trouble> {
    let reader = visit.reader;
    let typed = form.into_inner();
    let Some((space, rig)) = space_of(slug, &visit).await? else {
        return Err(Trouble::Gone);
    };
    let thing = typed.get("thing").cloned().unwrap_or_default();
    let nth: u32 = typed.get("nth").and_then(|n| n.parse().ok()).unwrap_or(0);
    let named = thing.replace('-', " ");
    let label = match action(&typed) {
        "free" => format!("{named} let go"),
        "free-all" => "laid out again".to_owned(),
        "better" => "trimmed better".to_owned(),
        "whole" => "laid out without drilling".to_owned(),
        _ => format!("{named} put by hand"),
    };
    let (sent, units, freed) = (typed.clone(), reader.units, thing.clone());
    let done = edit::edit(&visit, slug, label, move |hull| -> Result<(), Refusal> {
        let pins = match action(&sent) {
            "free" | "free-all" => Vec::new(),
            _ => asked(&sent, &space, units)?,
        };
        let all = &mut hull.survey.looked.laid;
        let laid = all.entry(rig.clone()).or_default();
        match action(&sent) {
            "free-all" => laid.clear(),
            "free" => laid.retain(|p| !(p.thing == freed && p.nth == nth)),
            _ => {
                for pin in pins {
                    laid.retain(|p| !(p.thing == pin.thing && p.nth == pin.nth));
                    laid.push(pin);
                }
            }
        }
        if laid.is_empty() {
            all.remove(&rig);
        }
        Ok(())
    });
    let at_hand = if action(&typed) == "free-all" {
        ""
    } else {
        &thing
    };
    let trouble = match done.await? {
        Ok(()) => {
            let to = at(slug, &visit.query, at_hand, nth);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Err(refusal) => refusal.to_string(),
    };
    let shown = Shown {
        trouble,
        ..hand(Some(thing).filter(|t| !t.is_empty()), Some(nth))
    };
    let page = stow_page(slug, &visit, shown).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, try_out, put]
}

//! Changes of a hull, made or planned, and ways of setting it up, compared.

use super::address::address;
use super::answered::Part;
use super::edit::{self, Change, action};
use super::moved::moved_on;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{outcome, ways};
use crate::form::{Mistakes, NotTaken, Refusal, Sent};
use crate::present::page::compare::costs::effects;
use crate::present::page::compare::variants::side_by_side;
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::present::page::survey::changes::{self, AtChange, ChangesView};
use crate::survey::{self, Card};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_core::hull::Progress;
use galvet_store::Kind;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{Route, get, post, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "changes.html", blocks = ["answer"])]
struct ChangesPage {
    frame: Frame,
    sentence: Sentence,
    changes: ChangesView,
}

impl ChangesPage {
    /// The page's address with something at hand.
    fn with(&self, name: &str, value: &str) -> String {
        let path = format!("/hulls/{}/changes", self.changes.key);
        address(&path, &self.frame.query, &[(name, value)])
    }

    /// What people do to a hull, as cards: where each leads, what it is called, what for.
    fn cards(&self) -> Vec<(String, &'static str, &'static str)> {
        let card = |card: Card| {
            let [called, what] = card.words();
            (self.with("card", card.word()), called, what)
        };
        let seat = "lower, higher or another place to sit: a set-up of it";
        let more = [
            (self.with("set_up", ""), "The seat", seat),
            (
                self.with("change", ""),
                "Something else",
                "whatever weighs, makes a place or takes one off",
            ),
        ];
        Card::ALL.into_iter().map(card).chain(more).collect()
    }

    /// Address of the fittings a change adds.
    fn adds(&self, change: &str) -> String {
        let path = format!("/hulls/{}/fittings", self.changes.key);
        address(&path, &self.frame.query, &[("change", change)])
    }
}

async fn changes_page(
    slug: &str,
    visit: &Visit<'_>,
    at: AtChange,
    not_taken: NotTaken,
) -> Result<ChangesPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let lines = edit::drawn(shared, slug).await?.1;
    let answered = shared.ranking(&asked, &records, reader.caller).await?;
    let path = format!("/hulls/{slug}/changes");
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path.clone(), reader.units);
    sentence.moved = moved_on(visit, &hull, &asked, &records).await?;
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let made = shared.work(reader.caller, move || {
        let all = ways(&hull).into_iter();
        let all: Vec<_> = all
            .map(|way| outcome(&desk, way, &brief, &answered))
            .collect();
        // Against how it stands; as delivered where nothing was done yet.
        let stands = all.iter().position(|o| o.way.hull.known.is_some());
        let base = stands.unwrap_or(0);
        changes::changes(
            &hull.survey,
            lines.as_ref(),
            (
                side_by_side(&all, (&brief, false), reader.units),
                all.get(base).map_or(String::new(), |o| o.way.name.clone()),
                effects(&all, base, reader.units),
            ),
            &at,
            &not_taken,
            (desk.guides(), reader.units),
        )
    });
    let here = visit.to(&path, &[]);
    let about = Some((Kind::Hull, slug));
    Ok(ChangesPage {
        frame: visit.frame_of("hull", here, about).await?,
        sentence,
        changes: made.await?,
    })
}

#[get("/hulls/<slug>/changes?<change>&<set_up>&<card>")]
async fn page(
    slug: &str,
    change: Option<String>,
    set_up: Option<String>,
    card: Option<&str>,
    visit: Visit<'_>,
) -> Result<ChangesPage, Trouble> {
    let at = AtChange {
        change,
        set_up,
        card: card.and_then(Card::of_word),
    };
    changes_page(slug, &visit, at, NotTaken::default()).await
}

#[get("/part/hulls/<slug>/changes")]
async fn part(slug: &str, visit: Visit<'_>) -> Result<Part, Trouble> {
    let page = changes_page(slug, &visit, AtChange::default(), NotTaken::default()).await?;
    Part::of(&page.as_answer())
}

/// What a form asks to be done to a change, with the words for the history.
fn of_change(was: String, typed: Sent, units: System) -> (String, Change) {
    let label = match action(&typed) {
        "forget" => format!("change “{was}” taken off"),
        "done" => format!("“{was}” done"),
        "planned" => format!("“{was}” undone again"),
        _ => format!("change “{}” noted", named(&typed, &was)),
    };
    let change = move |hull: &mut HullRecord| match action(&typed) {
        "forget" => survey::forget_modification(hull, &was, &typed, units),
        "done" => Ok(survey::set_progress(hull, &was, Progress::Done)?),
        "planned" => Ok(survey::set_progress(hull, &was, Progress::Planned)?),
        _ => survey::keep_modification(hull, &was, &typed, units),
    };
    (label, Box::new(change))
}

/// What a card asks: a new change.
fn of_card(card: Card, typed: Sent, guides: Arc<Guides>, units: System) -> (String, Change) {
    let label = format!("change “{}” noted", named(&typed, card.words()[0]));
    let change = move |hull: &mut HullRecord| {
        let blank = survey::blank_card(card, &hull.survey, &guides);
        let made = survey::card_form(card).make(&blank, &typed, units)?;
        let made = survey::change_of(made);
        let mut there = hull.survey.fitout.modifications.iter();
        if there.any(|m| m.name == made.name) {
            let taken = format!("there is a change called “{}” already", made.name);
            return Err(Refusal(Mistakes::from([("name".to_owned(), taken)])));
        }
        Ok(survey::put_modification(hull, None, made)?)
    };
    (label, Box::new(change))
}

/// What it is called now.
fn named<'a>(typed: &'a Sent, was: &'a str) -> &'a str {
    typed.get("name").map_or(was, |name| name.trim())
}

/// What a form asks to be done to a configuration, with the words for the history.
fn of_set_up(was: String, typed: Sent, units: System) -> (String, Change) {
    let label = match action(&typed) {
        "forget" => format!("set-up “{was}” taken off"),
        _ => format!("set-up “{}” noted", named(&typed, &was)),
    };
    let change = move |hull: &mut HullRecord| match action(&typed) {
        "forget" => survey::forget_configuration(hull, &was, &typed, units),
        _ => survey::keep_configuration(hull, &was, &typed, units),
    };
    (label, Box::new(change))
}

/// Keeps a change or a configuration, marks it done, or takes it off.
#[post("/hulls/<slug>/changes?<change>&<set_up>&<card>", data = "<form>")]
async fn put(
    slug: &str,
    change: Option<String>,
    set_up: Option<String>,
    card: Option<&str>,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, ChangesPage)>, Trouble> {
    let reader = visit.reader;
    let typed = form.into_inner();
    let card = card.and_then(Card::of_word);
    let (label, make) = match (&change, &set_up, card) {
        (Some(was), ..) => of_change(was.clone(), typed.clone(), reader.units),
        (None, Some(was), _) => of_set_up(was.clone(), typed.clone(), reader.units),
        (None, None, Some(card)) => {
            let guides = visit.shared.desk.guides().clone();
            of_card(card, typed.clone(), guides, reader.units)
        }
        (None, None, None) => return Err(Trouble::Gone),
    };
    let mistakes = match edit::edit(&visit, slug, label, make).await? {
        Ok(()) => {
            // What a new one moves stands on its own page.
            let of_card = card.filter(|_| change.is_none());
            let made = of_card.and_then(|_| typed.get("name").map(|name| name.trim()));
            let pairs: Vec<(&str, &str)> = made.map(|name| ("change", name)).into_iter().collect();
            return Ok(Ok(visit.go(&format!("/hulls/{slug}/changes"), &pairs)));
        }
        Err(refusal) => refusal.0,
    };
    let not_taken = NotTaken { typed, mistakes };
    let at = AtChange {
        change,
        set_up,
        card,
    };
    let page = changes_page(slug, &visit, at, not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, put]
}

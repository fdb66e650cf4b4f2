//! The conversation: the question asked step by step.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::moved::{keep_along, moved};
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::present::page::sentence::{self, Sentence};
use crate::present::page::talk::{self, Talk};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "talk.html")]
struct TalkPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    talk: Talk,
    /// Hulls that pass as far as it was answered, and all of them.
    left: (usize, usize),
}

impl TalkPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }

    /// What travels along: every answer but those of this step.
    fn carried(&self) -> Vec<(String, String)> {
        let mut all = super::ask::carried(&self.query);
        let asked =
            |name: &str| name == self.talk.name || self.talk.fields.iter().any(|f| f.name == name);
        all.retain(|(name, _)| !asked(name));
        all
    }

    /// The address of a step with the answers so far.
    fn step(&self, word: &str) -> String {
        super::edit::address("/ask", &self.query, &[("step", word)])
    }
}

#[get("/ask?<step>")]
async fn page(
    step: Option<&str>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<TalkPage>, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let written = || sentence::sentence(&asked, &shelf.catalogue, "/ask".to_owned(), reader.units);
    let talk = talk::talk(step.unwrap_or_default(), &mut written(), &asked.brief);
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let mut sentence = written();
    sentence.moved = moved(&ask, &answer, &shelf, reader, shared, &[]).await?;
    keep_along(&mut sentence, &[("step", talk.word.to_owned())], false);
    let ranking = &answer.ranking;
    let query = query_of(&ask);
    let page = TalkPage {
        units: reader.units,
        sun: reader.sun,
        here: super::edit::address("/ask", &query, &[("step", talk.word)]),
        place: "ask",
        sentence,
        talk,
        left: (
            ranking.ranked.len(),
            ranking.ranked.len() + ranking.ruled_out.len(),
        ),
        query,
    };
    Ok(Ok(answered(&asked, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

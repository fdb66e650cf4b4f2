//! The conversation: the question asked step by step.

use super::answered::{Answered, answered};
use super::moved::{keep_along, moved};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::ask::talk::{self, Preset, Question, StepState, Talk};
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "talk.html")]
struct TalkPage {
    frame: Frame,
    sentence: Sentence,
    talk: Talk,
    /// Hulls that pass as far as it was answered, and all of them.
    left: (usize, usize),
}

impl TalkPage {
    /// What travels along: every answer but those of this step.
    fn carried(&self) -> Vec<(String, String)> {
        let mut all = super::address::carried(&self.frame.query);
        let asked = |name: &str| self.talk.questions.iter().any(|q| q.name() == name);
        all.retain(|(name, _)| !asked(name));
        all
    }

    /// The address of this step with what an answer stands for.
    fn set(&self, preset: &Preset) -> String {
        let mut pairs: Vec<(&str, &str)> = vec![("step", self.talk.word)];
        pairs.extend(preset.sets.iter().map(|(n, v)| (*n, v.as_str())));
        super::address::address("/ask", &self.frame.query, &pairs)
    }

    /// The address of a step with the answers so far.
    fn step(&self, word: &str) -> String {
        super::address::address("/ask", &self.frame.query, &[("step", word)])
    }
}

#[get("/ask?<step>")]
async fn page(step: Option<&str>, visit: Visit<'_>) -> Result<Answered<TalkPage>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let written =
        || sentence::sentence(&asked, &records.catalogue, "/ask".to_owned(), reader.units);
    let said = super::address::carried(&visit.query).into_iter();
    let said: Vec<String> = said.map(|(name, _)| name).collect();
    let how = (shared.desk.guides().as_ref(), reader.units);
    let word = step.unwrap_or_default();
    let talk = talk::talk(word, &mut written(), &asked.brief, &said, how);
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let mut sentence = written();
    sentence.moved = moved(&visit, &answer, &records, &[]).await?;
    keep_along(&mut sentence, &[("step", talk.word.to_owned())], false);
    let ranking = &answer.ranking;
    let page = TalkPage {
        frame: visit.frame("ask", visit.to("/ask", &[("step", talk.word)])),
        sentence,
        talk,
        left: (
            ranking.ranked.len(),
            ranking.ranked.len() + ranking.ruled_out.len(),
        ),
    };
    Ok(answered(&asked, page))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

//! Lists ticked at the water's edge and in the garage.

use super::edit::came_of;
use super::reader::{back_to, today};
use super::records::Records;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::papers::{self, Ticks, Whose, begun};
use crate::present::page::papers::PaperKind;
use galvet_core::base::Keyed;
use galvet_store::files::ticked::{Answer, State, Ticked};
use rocket::form::{Form, FromForm};
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::time::OffsetDateTime;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, post, routes};
use std::collections::BTreeMap;

type Answers = (
    BTreeMap<String, &'static str>,
    BTreeMap<String, String>,
    Option<Ticked>,
);

/// What is answered on a paper of a hull for the outing under way.
pub(super) fn answers(records: &Records, slug: &str, kind: PaperKind) -> Answers {
    let outing = begun(&records.catalogue, slug, which(kind));
    let head = format!("{}/", kind.key());
    let (mut states, mut why) = (BTreeMap::new(), BTreeMap::new());
    // What was ticked on another day is not ticked.
    let lives = |o: &&Ticked| !kind.is_of_the_day() || o.begun == today();
    for (line, answer) in outing.iter().filter(lives).flat_map(|o| &o.answers) {
        let Some(id) = line.strip_prefix(&head) else {
            continue;
        };
        let state = match answer.state {
            State::Done => "done",
            State::Open => "open",
            State::No => "no",
        };
        states.insert(id.to_owned(), state);
        if !answer.why.is_empty() {
            why.insert(id.to_owned(), answer.why.clone());
        }
    }
    (states, why, outing)
}

/// Which ticks a paper's are.
const fn which(kind: PaperKind) -> Ticks {
    if kind.is_of_the_day() {
        Ticks::Outing
    } else {
        Ticks::Work
    }
}

/// Answers as they are sent: `line|state|milliseconds|why`, as many as there are.
#[derive(FromForm)]
struct Sent {
    #[field(name = "answer")]
    answers: Vec<String>,
    /// Where to go back to; none for a script.
    back: Option<String>,
}

/// An answer as it was sent, and the paper it stands on. A clock that runs ahead, or that
/// nobody sent, is taken for ours: no answer is later than now.
fn answer_of(text: &str, now: i64) -> Option<(PaperKind, (String, Answer))> {
    let mut parts = text.splitn(4, '|');
    let line = parts.next()?.to_owned();
    let state = match parts.next()? {
        "done" => State::Done,
        "open" => State::Open,
        "no" => State::No,
        _ => return None,
    };
    // The list's word, a slash, the line's.
    let (list, id) = line.split_once('/')?;
    let kind = PaperKind::from_key(list).filter(|k| k.is_ticked() && !id.is_empty())?;
    let at = match parts.next().unwrap_or("").parse().unwrap_or(0) {
        at if (1..now).contains(&at) => at,
        _ => now,
    };
    let why = parts.next().unwrap_or("").trim().to_owned();
    Some((kind, (line, Answer { state, why, at })))
}

/// Ticks.
#[post("/hulls/<slug>/ticks", data = "<form>")]
async fn tick(
    slug: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, String)>, Trouble> {
    let sent = form.into_inner();
    let records = visit.shared.records().await?;
    let name = records.hull(slug)?.survey.name();
    let now = i64::try_from(OffsetDateTime::now_utc().unix_timestamp_nanos() / 1_000_000);
    let now = now.unwrap_or(i64::MAX);
    let answers: Option<Vec<_>> = sent.answers.iter().map(|a| answer_of(a, now)).collect();
    let Some(answers) = answers.filter(|a| !a.is_empty()) else {
        let accepted =
            "no answers that were understood: line, done, open or no, when, why".to_owned();
        return Ok(Err((Status::UnprocessableEntity, accepted)));
    };
    let (store, reader, question) = (
        visit.shared.store.clone(),
        visit.reader,
        visit.query.clone(),
    );
    let hull = slug.to_owned();
    let done = spawn_blocking(move || {
        let whose = Whose {
            hull: &hull,
            name: &name,
            question: &question,
        };
        for ticks in [Ticks::Outing, Ticks::Work] {
            let ours = answers.iter().filter(|(kind, _)| which(*kind) == ticks);
            let ours: Vec<_> = ours.map(|(_, answer)| answer.clone()).collect();
            if !ours.is_empty() {
                papers::tick(&store, reader.hand.who(), whose, (ticks, &today()), &ours)?;
            }
        }
        Ok(())
    });
    match came_of(done.await?)? {
        Ok(()) => {
            let back = sent
                .back
                .unwrap_or_else(|| format!("/hulls/{slug}/papers/launch"));
            Ok(Ok(Redirect::to(back_to(&back))))
        }
        Err(refusal) => Ok(Err((Status::UnprocessableEntity, refusal.to_string()))),
    }
}

/// Ends the outing or the work a paper belongs to: its ticks go.
#[post("/hulls/<slug>/ticks/end?<list>")]
async fn over(slug: &str, list: Option<&str>, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let records = visit.shared.records().await?;
    let kind = list
        .and_then(PaperKind::from_key)
        .unwrap_or(PaperKind::Launch);
    if let Some(outing) = begun(&records.catalogue, slug, which(kind)) {
        let (store, reader) = (visit.shared.store.clone(), visit.reader);
        let done = spawn_blocking(move || papers::end(&store, reader.hand.who(), &outing.key));
        let _ = came_of(done.await?)?;
    }
    Ok(visit.go(&format!("/hulls/{slug}/papers"), &[]))
}

pub(super) fn routes() -> Vec<Route> {
    routes![tick, over]
}

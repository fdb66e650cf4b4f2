//! A customer forgotten, and for how long customers' data are kept.

use super::customers::one;
use super::edit::action;
use super::reader::back_to;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::account::now;
use crate::customer::{self, Person, Retained, Theirs, keep_months, months, over_now, says_much};
use crate::form::Sent;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::{Forgotten, SETTING_UP, Store, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};

/// What goes and what stays when a customer is forgotten.
#[derive(Template, WebTemplate)]
#[template(path = "forget.html")]
struct ForgetPage {
    frame: Frame,
    key: String,
    name: String,
    /// What they were called once.
    formerly: Vec<String>,
    /// What goes or went: how many of what.
    gone: Vec<String>,
    /// What stays without them.
    changed: Vec<String>,
    /// What stays since others use it.
    needed: Vec<String>,
    lines: (usize, usize),
    trials: usize,
    /// Copies that lie beside the database.
    copies: Vec<String>,
    /// Whether notes are gone through: not from the start for a name of one word.
    notes: bool,
    /// Whether it is done, and whether the name still stands in the file.
    done: Option<bool>,
}

fn told(all: &[(&'static str, String)]) -> Vec<String> {
    all.iter()
        .map(|(kind, name)| format!("{kind} “{name}”"))
        .collect()
}

/// So many of a kind.
fn counted(kind: &str, n: usize) -> String {
    let word = match kind {
        "brief" => "question",
        "paper handed out" => "address handed out",
        kind => kind,
    };
    let word = match (n, word) {
        (1, word) => word.to_owned(),
        (_, "address handed out") => "addresses handed out".to_owned(),
        (_, word) => format!("{word}s"),
    };
    format!("{n} {word}")
}

impl ForgetPage {
    fn of(
        visit: &Visit<'_>,
        (one, formerly): (&CustomerEntry, &[String]),
        (found, trials): (&Forgotten, usize),
        (notes, done): (bool, Option<bool>),
    ) -> Self {
        let copies = super::backups::names(visit.shared.store.directory());
        Self {
            frame: visit.frame("customers", visit.to("/customers", &[])),
            key: one.key.clone(),
            name: one.name.clone(),
            formerly: formerly.to_vec(),
            gone: found
                .gone
                .iter()
                .map(|(kind, n)| counted(kind, *n))
                .collect(),
            changed: told(&found.changed),
            needed: told(&found.needed),
            lines: found.lines,
            trials,
            copies,
            notes,
            done,
        }
    }
}

#[get("/customers/<slug>/forget?<notes>")]
async fn ask_to_forget(
    slug: &str,
    notes: Option<bool>,
    visit: Visit<'_>,
) -> Result<ForgetPage, Trouble> {
    let records = visit.shared.records().await?;
    let one = one(&records.catalogue, slug)?;
    let notes = notes.unwrap_or_else(|| says_much(&one.name));
    let trials = Theirs::of(&one, &records.catalogue).trials.len();
    let (store, customer) = (visit.shared.store.clone(), one.clone());
    let look = move || -> Result<_, StoreError> {
        let person = Person::of(&store, (&customer, &records.catalogue), notes)?;
        let found = store.would_forget(SETTING_UP, &person)?;
        Ok((person, found))
    };
    let (person, found) = spawn_blocking(look).await??;
    Ok(ForgetPage::of(
        &visit,
        (&one, person.formerly()),
        (&found, trials),
        (notes, None),
    ))
}

/// Forgets a customer; tells what stays, and whether the name is in the file still.
fn forgotten(store: &Store, who: &str, person: &Person) -> Result<(Forgotten, bool), StoreError> {
    let found = store.forget(SETTING_UP, person)?;
    store.sweep_file()?;
    store.note_account(who, "", "a customer forgotten, as they asked")?;
    Ok((found, store.stands_in_file(&person.spellings())?))
}

#[derive(rocket::FromForm)]
struct ForgetForm {
    #[field(default = false)]
    notes: bool,
}

#[post("/customers/<slug>/forget", data = "<form>")]
async fn forget(
    slug: &str,
    form: Form<ForgetForm>,
    visit: Visit<'_>,
) -> Result<ForgetPage, Trouble> {
    let records = visit.shared.records().await?;
    let one = one(&records.catalogue, slug)?;
    let trials = Theirs::of(&one, &records.catalogue).trials.len();
    let notes = form.notes;
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let customer = one.clone();
    let done = move || -> Result<_, StoreError> {
        let person = Person::of(&store, (&customer, &records.catalogue), notes)?;
        let (found, stands) = forgotten(&store, hand.who(), &person)?;
        Ok((person, found, stands))
    };
    let (person, found, stands) = spawn_blocking(done).await??;
    Ok(ForgetPage::of(
        &visit,
        (&one, person.formerly()),
        (&found, trials),
        (notes, Some(stands)),
    ))
}

/// A kind of data, and for how long it is kept.
struct Kept {
    key: &'static str,
    label: &'static str,
    months: String,
    /// How many would go now.
    over: usize,
}

/// For how long customers' data are kept.
#[derive(Template, WebTemplate)]
#[template(path = "retention.html")]
struct RetentionPage {
    frame: Frame,
    kept: Vec<Kept>,
    trouble: String,
}

async fn retention_page(visit: &Visit<'_>, trouble: String) -> Result<RetentionPage, Trouble> {
    let records = visit.shared.records().await?;
    let store = visit.shared.store.clone();
    let look = move || -> Result<Vec<Kept>, StoreError> {
        let over = over_now(&store, &records.catalogue, now())?;
        let kept = |what: Retained| {
            let gone = over.iter().find(|(kind, _)| *kind == what);
            Ok(Kept {
                key: what.key(),
                label: what.label(),
                months: months(&store, what)?.map_or(String::new(), |n| n.to_string()),
                over: gone.map_or(0, |(_, records)| records.len()),
            })
        };
        Retained::ALL.into_iter().map(kept).collect()
    };
    Ok(RetentionPage {
        frame: visit.frame("customers", visit.to("/retention", &[])),
        kept: spawn_blocking(look).await??,
        trouble,
    })
}

#[get("/retention")]
async fn retention(visit: Visit<'_>) -> Result<RetentionPage, Trouble> {
    retention_page(&visit, String::new()).await
}

/// The months of a field: none where it is empty.
fn read_months(text: &str) -> Result<Option<u32>, String> {
    if text.trim().is_empty() {
        return Ok(None);
    }
    let read = text.trim().parse::<u32>().ok();
    let read = read.filter(|n| (1..=customer::LONGEST).contains(n));
    read.map(Some).ok_or_else(|| {
        format!(
            "“{}”: months between 1 and {}, or nothing",
            galvet_store::files::echo(text),
            customer::LONGEST
        )
    })
}

#[post("/retention", data = "<form>")]
async fn set_retention(
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, RetentionPage)>, Trouble> {
    let sent = form.into_inner();
    let mut set = Vec::new();
    // What a form did not ask stays as it is.
    let asked = Retained::ALL.map(|what| (what, sent.get(what.key())));
    for (what, typed) in asked.into_iter().filter_map(|(w, t)| Some((w, t?))) {
        match read_months(typed) {
            Ok(months) => set.push((what, months)),
            Err(why) => {
                let page = retention_page(&visit, format!("Not saved: {why}.")).await?;
                return Ok(Err((Status::UnprocessableEntity, page)));
            }
        }
    }
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let goes = action(&sent) == "go";
    let keep = move || -> Result<(), StoreError> {
        for (what, kept) in set {
            if months(&store, what)? != kept {
                keep_months(&store, hand.who(), what, kept)?;
            }
        }
        if goes {
            customer::retain(&store, now())?;
        }
        Ok(())
    };
    spawn_blocking(keep).await??;
    Ok(Ok(Redirect::to(back_to("/retention"))))
}

pub(super) fn routes() -> Vec<Route> {
    routes![ask_to_forget, forget, retention, set_retention]
}

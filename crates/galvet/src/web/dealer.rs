//! A dealer's table matched to what Galvet knows, before anything of it is kept; and empty
//! tables to be filled.

use super::incoming::{DealerPage, Looked, chosen_of, unread};
use super::trouble::Trouble;
use super::visit::Visit;
use crate::survey::{Chosen, Dealt, Incoming, deal, deal_grid, take_in, waiting_grid};
use galvet_core::base::Keyed;
use galvet_core::hull::Source;
use galvet_store::files::dealer::{Grid, Matching, Of};
use galvet_store::files::spreadsheet;
use galvet_store::{Catalogue, FileError, StoreError};
use rocket::form::Form;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Responder, Route, get, post, routes};
use std::collections::HashMap;

/// A column as chosen.
#[derive(FromForm)]
struct Col {
    #[field(name = "as")]
    target: String,
    #[field(default = String::new())]
    unit: String,
    #[field(default = String::new())]
    comma: String,
}

/// What a word means.
#[derive(FromForm)]
struct Word {
    target: String,
    theirs: String,
    ours: String,
}

/// A cell put right.
#[derive(FromForm)]
struct Fix {
    at: usize,
    column: String,
    value: String,
}

#[derive(FromForm)]
struct Sent {
    #[field(default = String::new())]
    name: String,
    #[field(default = String::new())]
    text: String,
    /// The remembered table whose rows these are.
    #[field(default = String::new())]
    table: String,
    #[field(default = String::new())]
    of: String,
    #[field(default = String::new())]
    source: String,
    /// By their places: those that are shown elsewhere on the page come in any order.
    #[field(name = "col")]
    columns: HashMap<usize, Col>,
    all: HashMap<String, String>,
    #[field(name = "word")]
    words: HashMap<usize, Word>,
    #[field(name = "fix")]
    fixes: HashMap<String, Fix>,
    #[field(name = "double")]
    doubles: HashMap<usize, String>,
    #[field(default = String::new())]
    action: String,
}

impl Sent {
    fn chosen(&self) -> Chosen {
        let column = |k: usize| {
            let col = self.columns.get(&k)?;
            let comma = match col.comma.as_str() {
                "yes" => Some(true),
                "no" => Some(false),
                _ => None,
            };
            let unit = (!col.unit.is_empty()).then(|| col.unit.clone());
            Some((col.target.clone(), unit, comma))
        };
        let words = self.words.values();
        let fixes = self.fixes.values();
        Chosen {
            of: match self.of.as_str() {
                "hulls" => Some(Of::Hulls),
                "gear" => Some(Of::Gear),
                _ => None,
            },
            source: Source::from_key(&self.source),
            columns: (0..self.columns.len()).map_while(column).collect(),
            all: self.all.clone().into_iter().collect(),
            words: words
                .map(|w| (w.target.clone(), w.theirs.clone(), w.ours.clone()))
                .collect(),
            fixes: fixes
                .map(|f| (f.at, f.column.clone(), f.value.clone()))
                .collect(),
        }
    }
}

/// How the columns of tables taken in before were read.
fn remembered(catalogue: &Catalogue) -> Vec<Matching> {
    catalogue.sheets_of().cloned().collect()
}

/// The tables of which rows wait, with how many.
pub(super) fn waiting(catalogue: &Catalogue) -> Vec<(String, String)> {
    let all = catalogue.sheets_of::<Matching>();
    let some = all.filter(|m| m.waiting.len() > 1);
    let words = |m: &Matching| {
        let count = m.waiting.len() - 1;
        let rows = if count == 1 { "row waits" } else { "rows wait" };
        let words = format!("{count} {rows} of {} to be put right.", m.name);
        (m.key.clone(), words)
    };
    some.map(words).collect()
}

/// A table as it is looked over first: as remembered of its shape, or as guessed.
pub(super) async fn looked_over(
    visit: &Visit<'_>,
    file: &str,
    text: String,
) -> Result<(Status, Looked), Trouble> {
    let records = visit.shared.records().await?;
    let remembered = remembered(&records.catalogue);
    let name = file.to_owned();
    let looked = spawn_blocking(move || {
        let dealt = deal(&name, &text, None, &remembered);
        (dealt, text)
    });
    Ok(match looked.await? {
        (Ok(dealt), text) => {
            let page = DealerPage::of(visit, &dealt, (text, ""), &records.catalogue);
            (Status::Ok, Looked::Theirs(Box::new(page)))
        }
        (Err(error), _) => unread(error, visit),
    })
}

/// The rows of a remembered table that wait.
#[get("/import/table?<table>")]
async fn page(table: &str, visit: Visit<'_>) -> Result<(Status, Looked), Trouble> {
    let records = visit.shared.records().await?;
    let remembered = remembered(&records.catalogue);
    let known = remembered.iter().find(|m| m.key == table);
    let known = known.ok_or(Trouble::Gone)?;
    let dealt =
        waiting_grid(known).and_then(|grid| deal_grid(grid, &known.name, None, &remembered));
    Ok(match dealt {
        Ok(dealt) => {
            let page = DealerPage::of(&visit, &dealt, (String::new(), table), &records.catalogue);
            (Status::Ok, Looked::Theirs(Box::new(page)))
        }
        Err(error) => unread(error, &visit),
    })
}

/// What comes of a table that was sent.
#[derive(Responder)]
enum Answer {
    Gone(Redirect),
    Page((Status, Looked)),
    Matching((ContentType, String)),
}

/// Reads a table again as chosen, takes its good rows in, or gives its matching out.
#[post("/import/table", data = "<form>")]
async fn send(form: Form<Sent>, visit: Visit<'_>) -> Result<Answer, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let mut sent = form.into_inner();
    let records = shared.records().await?;
    let remembered = remembered(&records.catalogue);
    let known = remembered.iter().find(|m| m.key == sent.table).cloned();
    let text = std::mem::take(&mut sent.text).replace("\r\n", "\n");
    let (chosen, name) = (sent.chosen(), galvet_store::files::echo(&sent.name));
    let of_rows = known.clone().filter(|_| text.is_empty());
    let looked = spawn_blocking(move || {
        let grid = match &of_rows {
            Some(known) => waiting_grid(known),
            None => Grid::of(&name, &text),
        };
        grid.and_then(|grid| deal_grid(grid, &name, Some(&chosen), &remembered))
    });
    let dealt = match looked.await? {
        Ok(dealt) => dealt,
        Err(error) => return Ok(Answer::Page(unread(error, &visit))),
    };
    // Cells put right stand in it from now on.
    let text = dealt.grid.text().unwrap_or_default();
    let kept = known.as_ref().filter(|m| m.waiting.len() > 1);
    let again = |dealt: &Dealt, status| {
        let page = DealerPage::of(
            &visit,
            dealt,
            (text.clone(), &sent.table),
            &records.catalogue,
        );
        Answer::Page((status, Looked::Theirs(Box::new(page))))
    };
    let incoming = match sent.action.as_str() {
        "matching" => {
            let file = serde_json::to_string_pretty(&dealt.matching).unwrap_or_default();
            return Ok(Answer::Matching((ContentType::JSON, file)));
        }
        "discard" if kept.is_some() => {
            let mut matching = known.clone().unwrap_or_else(|| dealt.matching.clone());
            matching.waiting.clear();
            Incoming {
                matching: Some(matching),
                ..Incoming::default()
            }
        }
        "keep" if dealt.ready() > 0 => {
            // Rows of an earlier file of this shape wait on.
            let of_shape = records.catalogue.sheets_of::<Matching>();
            let mut earlier = of_shape.filter(|_| sent.table.is_empty());
            let earlier = earlier.find(|m| m.key == dealt.matching.key);
            dealt.incoming(earlier.map_or(&[][..], |m| &m.waiting))
        }
        _ => return Ok(again(&dealt, Status::Ok)),
    };
    let store = shared.store.clone();
    let file = dealt.matching.name.clone();
    let choose = chosen_of(sent.doubles);
    let ready = dealt.ready().to_string();
    let gear = dealt.matching.of == Of::Gear;
    let waits = incoming
        .matching
        .as_ref()
        .is_some_and(|m| m.waiting.len() > 1);
    let taken =
        spawn_blocking(move || take_in(&store, reader.hand.who(), &file, &incoming, choose));
    match taken.await? {
        Ok(_) => {
            let to = match (waits, gear) {
                (true, _) => visit.to("/import", &[("taken", &ready)]),
                (false, true) => visit.to("/kit", &[]),
                (false, false) => visit.to("/hulls", &[]),
            };
            Ok(Answer::Gone(Redirect::to(to)))
        }
        Err(StoreError::Conflict { .. } | StoreError::Taken { .. }) => {
            Ok(again(&dealt, Status::Conflict))
        }
        Err(StoreError::Reference(problem)) => {
            let error = FileError::whole("table", problem);
            Ok(Answer::Page(unread(error, &visit)))
        }
        Err(error) => Err(error.into()),
    }
}

/// A file to be saved under a name.
#[derive(Responder)]
struct Download {
    body: Vec<u8>,
    kind: ContentType,
}

#[get("/import/template.csv")]
fn template(visit: Visit<'_>) -> Result<(ContentType, String), Status> {
    let text = spreadsheet::template_csv(Of::Hulls, visit.reader.units);
    text.map(|t| (ContentType::CSV, t))
        .map_err(|_| Status::InternalServerError)
}

#[get("/import/gear-template.csv")]
fn gear_template(visit: Visit<'_>) -> Result<(ContentType, String), Status> {
    let text = spreadsheet::template_csv(Of::Gear, visit.reader.units);
    text.map(|t| (ContentType::CSV, t))
        .map_err(|_| Status::InternalServerError)
}

#[get("/import/template.xlsx")]
fn template_xlsx(visit: Visit<'_>) -> Result<Download, Status> {
    let bytes = spreadsheet::template_xlsx(Of::Hulls, visit.reader.units);
    bytes
        .map(|body| Download {
            body,
            kind: ContentType::new(
                "application",
                "vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            ),
        })
        .map_err(|_| Status::InternalServerError)
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, send, template, gear_template, template_xlsx]
}

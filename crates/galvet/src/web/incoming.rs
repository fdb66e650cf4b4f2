//! Files on their way in: the pages on which they are looked over, one of ours or somebody's
//! table.

use super::visit::{Frame, Visit};
use crate::present::page::survey::dealer::{self, DealerView};
use crate::present::page::survey::import::ImportView;
use crate::survey::{Dealt, OnDouble};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{Catalogue, FileError};
use rocket::Responder;
use rocket::http::Status;
use std::collections::HashMap;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "import.html")]
pub(super) struct ImportPage {
    pub(super) frame: Frame,
    import: ImportView,
    /// Tables of which rows wait, by their keys, with how many.
    pub(super) waiting: Vec<(String, String)>,
    /// How many have just been taken in while others wait.
    pub(super) taken: usize,
    /// How many photos were left out since their pictures did not come with them.
    pub(super) unpictured: usize,
}

impl ImportPage {
    pub(super) fn of(import: ImportView, visit: &Visit<'_>) -> Self {
        Self {
            frame: visit.frame("hulls", visit.to("/import", &[])),
            import,
            waiting: Vec::new(),
            taken: 0,
            unpictured: 0,
        }
    }
}

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "dealer.html")]
pub(super) struct DealerPage {
    frame: Frame,
    dealer: DealerView,
}

impl DealerPage {
    /// The page of a table as it was looked over; `text` is what was sent, and the cells
    /// that were put right are in it.
    pub(super) fn of(
        visit: &Visit<'_>,
        dealt: &Dealt,
        (text, table): (String, &str),
        there: &Catalogue,
    ) -> Self {
        let view = dealer::dealer(dealt, text, table, &there.hulls, visit.reader.units);
        Self {
            frame: visit.frame("hulls", visit.to("/import", &[])),
            dealer: view,
        }
    }
}

/// A file looked over: one of ours, or a dealer's table.
#[derive(Responder)]
pub(super) enum Looked {
    Ours(Box<ImportPage>),
    Theirs(Box<DealerPage>),
}

impl From<ImportPage> for Looked {
    fn from(page: ImportPage) -> Self {
        Self::Ours(Box::new(page))
    }
}

/// What becomes of each hull that is there already.
pub(super) fn chosen_of(doubles: HashMap<usize, String>) -> impl Fn(usize) -> OnDouble {
    move |at| match doubles.get(&at).map(String::as_str) {
        Some("update") => OnDouble::Update,
        Some("both") => OnDouble::KeepBoth,
        _ => OnDouble::Skip,
    }
}

/// A file that could not be read at all.
pub(super) fn unread(error: FileError, visit: &Visit<'_>) -> (Status, Looked) {
    let page = ImportPage::of(ImportView::unread(error), visit);
    (Status::UnprocessableEntity, page.into())
}

//! Three hulls somebody is walked to: at the counter, and on the customer's screen.

use super::follow::Counter;
use crate::present::columns::Deep;
use crate::present::page::ranking::{RankingView, Row};
use crate::question::{Ask, Asked};
use crate::shop::{Shelf, shelves};
use crate::web::records::Records;
use crate::web::trouble::Trouble;
use crate::web::visit::Visit;
use std::collections::BTreeMap;
use std::sync::Arc;

/// Hulls somebody is walked to.
const WALKED_TO: usize = 3;

/// The three hulls of a question: those the shop has where only they are asked for.
pub(super) struct Three {
    ranking: Arc<RankingView>,
    /// Rows of the ranking.
    rows: Vec<usize>,
    shelves: BTreeMap<String, Shelf>,
    /// How many pass; of them, how many are here.
    pub(super) passing: usize,
    pub(super) here: usize,
    /// Whether only what is here is shown.
    pub(super) have: bool,
}

impl Three {
    /// The three of a question, as the counter reads them.
    pub(super) async fn of(
        visit: &Visit<'_>,
        asked: &Asked,
        (records, counter): (&Arc<Records>, &Counter),
    ) -> Result<Self, Trouble> {
        let (shared, have, units) = (visit.shared, counter.have, counter.units);
        let answer = shared.ranking(asked, records, visit.reader.caller).await?;
        let ranking = shared.view(answer, (units, Deep::default())).await?;
        let shelves = shelves(&records.catalogue, units);
        let here = |row: &&Row| shelves.get(&row.key).is_some_and(|shelf| shelf.here);
        let count = ranking.rows.iter().filter(here).count();
        let rows = (0..ranking.rows.len()).filter(|i| !have || here(&&ranking.rows[*i]));
        Ok(Self {
            rows: rows.take(WALKED_TO).collect(),
            passing: ranking.rows.len(),
            here: count,
            have,
            shelves,
            ranking,
        })
    }

    /// The rows.
    pub(super) fn rows(&self) -> impl Iterator<Item = &Row> {
        self.rows.iter().map(|i| &self.ranking.rows[*i])
    }

    /// What there is of a hull.
    pub(super) fn shelf(&self, key: &str) -> Option<&Shelf> {
        self.shelves.get(key)
    }
}

/// The question of an address' query.
pub(super) fn ask_of(query: &str) -> Ask {
    let pairs: Vec<(String, String)> =
        form_urlencoded::parse(query.trim_start_matches('?').as_bytes())
            .into_owned()
            .collect();
    Ask::of(
        pairs
            .iter()
            .map(|(name, value)| (name.as_str(), value.clone())),
    )
}

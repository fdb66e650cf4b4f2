//! What the shop has of a hull: its form, and what it says beside the hull.

use crate::form::{Draft, FormView, Mistakes, NotTaken, Sent, Table, count, line, number, pick};
use crate::survey::EditError;
use galvet_core::base::{Bounds, Dimension, System};
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::stock::{Stock, StockEntry};
use galvet_store::{Catalogue, Kind, Record, Store, StoreError};
use std::collections::BTreeMap;

/// What there is of a hull, as its form takes it apart.
#[derive(Clone)]
pub(crate) struct StockDraft {
    entry: StockEntry,
    state: String,
}

impl Draft for StockDraft {
    type Record = StockEntry;

    fn of(entry: &StockEntry) -> Self {
        Self {
            state: entry.state.key().to_owned(),
            entry: entry.clone(),
        }
    }

    fn made(self) -> Result<StockEntry, Mistakes> {
        let mut entry = self.entry;
        let of = |field: &str, why: String| Mistakes::from([(field.to_owned(), why)]);
        entry.state = Stock::from_key(&self.state)
            .ok_or_else(|| of("state", "choose one of those there are".to_owned()))?;
        if entry.state.is_here() && entry.count == 0 {
            return Err(of("count", "how many are here? At least one".to_owned()));
        }
        entry.check().map_err(|why| of("", why))?;
        Ok(entry)
    }
}

/// The form of what there is of a hull.
pub(crate) fn table() -> Table<StockDraft> {
    const PRICE: Bounds = Bounds::new("a price", Dimension::Money, 0.0, 1e6);
    type D = StockDraft;
    let states = Stock::ALL.map(|s| (s.key().to_owned(), s.label().to_owned()));
    Table::plain(vec![
        pick("state", "there is", states.to_vec(), |d: &mut D| {
            &mut d.state
        }),
        count(
            "count",
            "how many are here",
            (0, 999, false),
            |d: &mut D| &mut d.entry.count,
        ),
        count(
            "weeks",
            "weeks until one comes",
            (0, 999, true),
            |d: &mut D| &mut d.entry.weeks,
        ),
        number("package", "price of the package", PRICE, |d: &mut D| {
            &mut d.entry.package
        })
        .hint("the hull alone has its price among its figures"),
        line("with", "what is in the package", |d: &mut D| {
            &mut d.entry.with
        }),
    ])
}

/// Of a hull nobody said anything of.
fn usual(hull: (&str, &str)) -> StockEntry {
    StockEntry {
        key: hull.0.to_owned(),
        name: hull.1.to_owned(),
        state: Stock::ToOrder,
        count: 0,
        weeks: None,
        package: None,
        with: String::new(),
    }
}

/// What there is of each hull, by its key.
pub(crate) fn stock(catalogue: &Catalogue) -> BTreeMap<String, StockEntry> {
    let all = catalogue.sheets_of::<StockEntry>();
    all.map(|entry| (entry.key.clone(), entry.clone()))
        .collect()
}

/// What is said beside each hull, by its key.
pub(crate) fn shelves(catalogue: &Catalogue, system: System) -> BTreeMap<String, Shelf> {
    let all = catalogue.sheets_of::<StockEntry>();
    all.map(|entry| (entry.key.clone(), Shelf::of(entry, system)))
        .collect()
}

/// The form of what there is of a hull.
pub(crate) fn stock_form(
    known: Option<&StockEntry>,
    hull: (&str, &str),
    (not_taken, system): (&NotTaken, System),
) -> FormView {
    table().form_or_new(known, || usual(hull), not_taken, system)
}

/// Keeps what was typed of what there is of a hull.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn keep_stock(
    store: &Store,
    who: &str,
    hull: (&str, &str),
    (sent, system): (&Sent, System),
) -> Result<(), EditError> {
    let kind = Kind::of::<StockEntry>();
    let label = format!("stock of {} changed", hull.1);
    let mut refused = None;
    store
        .write::<()>(who, &label, |door| {
            let known = door.read(kind, hull.0)?;
            let was = match &known {
                Some((_, Record::Sheet(sheet))) => sheet.sheet::<StockEntry>().cloned(),
                _ => None,
            };
            let made = match &was {
                Some(was) => {
                    let mut entry = was.clone();
                    table().put(&mut entry, sent, system).map(|()| entry)
                }
                None => table().make(&usual(hull), sent, system),
            };
            match made {
                Ok(entry) if Some(&entry) == was.as_ref() => Ok(()),
                Ok(entry) => {
                    let known = known.map(|(known, _)| known);
                    door.put(&Record::Sheet(Document::of(&entry)), known)?;
                    Ok(())
                }
                Err(why) => {
                    refused = Some(why);
                    // Nothing is written, and no line.
                    Err(StoreError::Nothing("refused"))
                }
            }
        })
        .or_else(|error| {
            if refused.is_some() {
                Ok(())
            } else {
                Err(error)
            }
        })?;
    refused.map_or(Ok(()), |why| Err(EditError::Refused(why)))
}

/// What is said beside a hull.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Shelf {
    /// Whether somebody can be walked to one.
    pub(crate) here: bool,
    /// "2 here", "to order, 6 weeks".
    pub(crate) words: String,
    /// "package 3 240: paddle, drive and seat"; empty for none.
    pub(crate) package: String,
}

impl Shelf {
    /// What is said of an entry.
    pub(crate) fn of(entry: &StockEntry, system: System) -> Self {
        let weeks = entry.weeks.map_or(String::new(), |n| match n {
            1 => ", a week".to_owned(),
            n => format!(", {n} weeks"),
        });
        let words = match entry.state {
            Stock::Here => format!("{} here", entry.count),
            Stock::Demo if entry.count > 1 => format!("{} demo boats here", entry.count),
            Stock::Demo => "demo boat here".to_owned(),
            Stock::ToOrder => format!("to order{weeks}"),
            Stock::Sold => format!("sold{weeks}"),
        };
        let with = if entry.with.is_empty() {
            String::new()
        } else {
            format!(": {}", entry.with)
        };
        let package = entry.package.map_or(String::new(), |price| {
            format!("package {}{with}", system.text(Dimension::Money, price, 0))
        });
        Self {
            here: entry.state.is_here(),
            words,
            package,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_there_is_is_said_in_a_few_words() {
        let entry = |state, count, weeks| StockEntry {
            state,
            count,
            weeks,
            package: Some(3240.0),
            with: "paddle".to_owned(),
            ..usual(("k", "K"))
        };
        let said = |entry| Shelf::of(&entry, System::Metric);
        let here = said(entry(Stock::Here, 2, None));
        assert_eq!((here.words.as_str(), here.here), ("2 here", true));
        assert_eq!(here.package, "package 3240: paddle");
        assert_eq!(said(entry(Stock::Demo, 1, None)).words, "demo boat here");
        let order = said(entry(Stock::ToOrder, 0, Some(6)));
        assert_eq!(
            (order.words.as_str(), order.here),
            ("to order, 6 weeks", false)
        );
        assert_eq!(said(entry(Stock::Sold, 0, Some(1))).words, "sold, a week");
    }
}

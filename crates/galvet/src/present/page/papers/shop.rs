//! Shopping list and quote.

use super::{Paper, PaperKind, Section, TableView, blank, some};
use galvet_core::base::{Bounds, Dimension};
use galvet_core::papers::{Facts, Shopping, Wanted, shopping};

/// A shop's terms.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Terms {
    /// Tax in the prices, share of the price without it; `None` where nobody said.
    pub tax: Option<f64>,
    /// Days a quote holds.
    pub days: Option<f64>,
    /// The day it is made, ISO 8601.
    pub today: String,
    /// The last day it holds, ISO 8601; empty where nobody said.
    pub until: String,
    /// Whether the shop's own notes are on it: never on the customer's copy.
    pub inside: bool,
}

impl Terms {
    /// Accepted taxes, %.
    pub const TAX: Bounds = Bounds::new("the tax, %", Dimension::Ratio, 0.0, 100.0);
    /// Accepted days.
    pub const DAYS: Bounds = Bounds::new("days it holds", Dimension::Ratio, 1.0, 365.0);
}

const PRICES: &str = "Prices are those on record; what has none is left out of the sum, and said.";

fn money(facts: &Facts<'_>, price: f64) -> String {
    facts.system.text(Dimension::Money, price, 0)
}

fn price(facts: &Facts<'_>, price: Option<f64>) -> String {
    price.map_or("not known".to_owned(), |p| money(facts, p))
}

fn row(facts: &Facts<'_>, w: &Wanted) -> Vec<String> {
    let count = if w.count > 1 {
        format!("{} × ", w.count)
    } else {
        String::new()
    };
    let all = w.price.map(|p| f64::from(w.count) * p);
    vec![
        format!("{count}{}", w.item),
        w.shelf.to_owned(),
        w.why.clone(),
        price(facts, all),
    ]
}

/// The sum in words, and what is left of the budget.
fn sum_words(facts: &Facts<'_>, all: &Shopping) -> String {
    let (sum, unknown) = all.sum();
    let known = match unknown {
        0 => money(facts, sum),
        n => format!(
            "{} and {} whose price nobody knows",
            money(facts, sum),
            some(n as usize, "thing", "things")
        ),
    };
    match facts.brief.must.budget {
        Some(budget) if sum > budget => {
            format!("{known}: {} over the budget.", money(facts, sum - budget))
        }
        Some(budget) => format!(
            "{known}: {} of the budget left.",
            money(facts, budget - sum)
        ),
        None => format!("{known}."),
    }
}

fn hull_row(facts: &Facts<'_>, all: &Shopping) -> Vec<String> {
    vec![
        facts.hull().name(),
        "hulls".to_owned(),
        "the hull".to_owned(),
        price(facts, all.hull),
    ]
}

/// What to buy.
pub(super) fn list(facts: &Facts<'_>) -> Paper {
    let all = shopping(facts);
    let lead = format!("Hull and rig together: {}", sum_words(facts, &all));
    let over = facts.brief.must.budget.is_some_and(|b| all.sum().0 > b);
    let mut paper = blank(PaperKind::Shopping, lead, PRICES);
    if over {
        paper.red = "The whole is over the budget, whatever the hull alone costs.".to_owned();
    }
    let (options, musts): (Vec<&Wanted>, Vec<&Wanted>) = all.wanted.iter().partition(|w| w.option);
    let rows = |some: &[&Wanted]| some.iter().map(|w| row(facts, w)).collect::<Vec<_>>();
    let heads = || vec!["what", "shelf", "why", "price"];
    let (sum, _) = all.sum();
    let mut must_rows = vec![hull_row(facts, &all)];
    must_rows.extend(rows(&musts));
    paper.sections = vec![Section {
        title: "To buy".to_owned(),
        table: Some(TableView {
            heads: heads(),
            rows: must_rows,
            sum: vec![
                "as far as prices are known".to_owned(),
                String::new(),
                String::new(),
                money(facts, sum),
            ],
        }),
        ..Section::default()
    }];
    if !options.is_empty() {
        paper.sections.push(Section {
            title: "If there is room".to_owned(),
            table: Some(TableView {
                heads: heads(),
                rows: rows(&options),
                sum: Vec::new(),
            }),
            ..Section::default()
        });
    }
    if !all.owned.is_empty() {
        let names = all.owned.iter().map(|(name, n)| {
            if *n > 1 {
                format!("{n} × {name}")
            } else {
                name.clone()
            }
        });
        paper.sections.push(Section {
            title: "Owned already".to_owned(),
            words: vec![names.collect::<Vec<_>>().join(" · ")],
            ..Section::default()
        });
    }
    paper
}

/// What the shop offers.
pub(super) fn quote(facts: &Facts<'_>, terms: &Terms) -> Paper {
    let all = shopping(facts);
    let (sum, unknown) = all.sum();
    let holds = if terms.until.is_empty() {
        String::new()
    } else {
        format!(", holds until {}", terms.until)
    };
    let lead = format!(
        "{}{}: {}{holds}.",
        facts.hull().name(),
        if all.wanted.is_empty() {
            ""
        } else {
            " with what its rig lacks"
        },
        money(facts, sum)
    );
    let mut paper = blank(
        PaperKind::Quote,
        lead,
        "An offer, not an invoice. The maker's rated capacity and instructions stand above any figure here.",
    );
    let mut rows = vec![vec![facts.hull().name(), price(facts, all.hull)]];
    let offered = |w: &&Wanted| !w.option && w.price.is_some();
    let line = |w: &Wanted| {
        let r = row(facts, w);
        vec![r[0].clone(), r[3].clone()]
    };
    rows.extend(all.wanted.iter().filter(offered).map(line));
    if let Some(tax) = terms.tax {
        let net = sum / (1.0 + tax);
        rows.push(vec![
            format!("of it tax, {}", facts.system.text(Dimension::Share, tax, 0)),
            money(facts, sum - net),
        ]);
    }
    paper.sections = vec![Section {
        title: format!("Offered on {}", terms.today),
        table: Some(TableView {
            heads: vec!["what", "price"],
            rows,
            sum: vec!["together".to_owned(), money(facts, sum)],
        }),
        ..Section::default()
    }];
    let options: Vec<Vec<String>> = all.wanted.iter().filter(|w| w.option).map(line).collect();
    if !options.is_empty() {
        paper.sections.push(Section {
            title: "Options".to_owned(),
            table: Some(TableView {
                heads: vec!["what", "price"],
                rows: options,
                sum: vec!["all of them".to_owned(), money(facts, all.options())],
            }),
            ..Section::default()
        });
    }
    if unknown > 0 {
        let names = all
            .wanted
            .iter()
            .filter(|w| !w.option && w.price.is_none())
            .map(|w| w.item.clone());
        let mut names: Vec<String> = names.collect();
        if all.hull.is_none() {
            names.insert(0, facts.hull().name());
        }
        paper.sections.push(Section {
            title: "Priced later".to_owned(),
            words: vec![names.join(" · ")],
            ..Section::default()
        });
    }
    if terms.inside {
        let notes = [facts.hull().notes.clone()];
        let things = facts
            .things()
            .filter(|(g, _)| !g.note.is_empty())
            .map(|(g, _)| format!("{}: {}", g.name, g.note));
        paper.sections.push(Section {
            title: "The shop's own notes: not for the customer".to_owned(),
            words: notes
                .into_iter()
                .filter(|n| !n.is_empty())
                .chain(things)
                .collect(),
            ..Section::default()
        });
    }
    paper
}

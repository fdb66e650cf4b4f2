//! What a changed question moved, against the one it started from.

use crate::present::page::survey::draft::ordinal;
use galvet_core::base::System;
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::question::Brief;
use galvet_core::rank::{Ranking, explain};
use std::collections::BTreeMap;

/// In words, and the question without the change.
#[derive(Default)]
pub struct Moved {
    pub lines: Vec<String>,
    /// The query of the question as it was; "?" where that is the usual one, empty
    /// where nothing was changed.
    pub reset: String,
}

impl Moved {
    /// Lines, and the query of the question as it was.
    #[must_use]
    pub fn against(lines: Vec<String>, query: String) -> Self {
        Self {
            lines,
            // An address without a query leads to the page as it stands.
            reset: if query.is_empty() {
                "?".to_owned()
            } else {
                query
            },
        }
    }
}

/// Most hulls told of.
const MOST: usize = 6;

/// Where each hull stands: its place, or `None` for ruled out.
fn places(ranking: &Ranking) -> BTreeMap<&str, (String, Option<usize>)> {
    let ranked = ranking.ranked.iter().enumerate();
    let ranked = ranked.map(|(n, r)| (r.survey().key.as_str(), (r.survey().name(), Some(n + 1))));
    let out = ranking.ruled_out.iter();
    let out = out.map(|o| (o.survey.key.as_str(), (o.survey.name(), None)));
    ranked.chain(out).collect()
}

/// What moved, in words: places, then the figures of who is first now; empty where
/// nothing did.
#[must_use]
pub fn moved(was: &Ranking, now: &Ranking, system: System) -> Vec<String> {
    let (before, after) = (places(was), places(now));
    let told = |place: Option<usize>| place.map_or("ruled out".to_owned(), ordinal);
    let mut changed: Vec<(usize, String)> = Vec::new();
    for (key, (name, place)) in &after {
        let Some((_, old)) = before.get(key) else {
            continue;
        };
        if old != place {
            let weight = place.or(*old).unwrap_or(usize::MAX);
            changed.push((weight, format!("{name}: {} → {}", told(*old), told(*place))));
        }
    }
    changed.sort();
    let more = changed.len().saturating_sub(MOST);
    let mut out: Vec<String> = changed.into_iter().take(MOST).map(|c| c.1).collect();
    if more > 0 {
        out.push(format!("and {more} more"));
    }
    out.extend(figures(was, now, system));
    out
}

/// How the figures of who is first now moved.
fn figures(was: &Ranking, now: &Ranking, system: System) -> Option<String> {
    let first = now.ranked.first()?.survey();
    let words = of_hull(was, now, &first.key, system);
    (!words.is_empty()).then(|| format!("{}: {}", first.name(), words.join(", ")))
}

/// How the figures of a hull moved.
fn of_hull(was: &Ranking, now: &Ranking, key: &str, system: System) -> Vec<String> {
    let both = was.assessment(key).zip(now.assessment(key));
    both.map_or(Vec::new(), |(before, after)| {
        of_figures(before, after, &now.brief, system)
    })
}

/// How the figures that a question is about moved.
#[must_use]
pub fn of_figures(
    before: &Assessment,
    after: &Assessment,
    brief: &Brief,
    system: System,
) -> Vec<String> {
    let told = |q: Quantity| {
        let (x, y) = (before.median(q)?, after.median(q)?);
        let row = q.row();
        let (x, y) = (row.text(system, x), row.text(system, y));
        (x != y).then(|| format!("{} {x} → {y}", row.label))
    };
    let headline = explain::headline_stability(brief);
    let mut quantities = vec![Quantity::BindingMargin, headline];
    for q in [Quantity::LeanRoom, Quantity::Trim, Quantity::Draft] {
        if !quantities.contains(&q) {
            quantities.push(q);
        }
    }
    quantities.into_iter().filter_map(told).collect()
}

/// What moved of some hulls: the place and the figures of each.
#[must_use]
pub fn about(was: &Ranking, now: &Ranking, keys: &[String], system: System) -> Vec<String> {
    let (before, after) = (places(was), places(now));
    let told = |place: Option<usize>| place.map_or("ruled out".to_owned(), ordinal);
    let line = |key: &String| {
        let (name, place) = after.get(key.as_str())?;
        let old = before.get(key.as_str())?.1;
        let mut words = Vec::new();
        if old != *place {
            words.push(format!("{} → {}", told(old), told(*place)));
        }
        words.extend(of_hull(was, now, key, system));
        (!words.is_empty()).then(|| format!("{name}: {}", words.join(", ")))
    };
    keys.iter().filter_map(line).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::{Desk, Hull, Patient};
    use crate::question::Ask;
    use galvet_core::guide::Guides;
    use std::sync::Arc;

    #[test]
    fn what_moved_is_told_by_places_and_figures() {
        let demo = crate::demo_data::catalogue().unwrap();
        let desk = Desk::new(Arc::new(Guides::default()));
        let hulls = demo.hulls.iter().map(|h| Hull {
            known: None,
            survey: Arc::new(h.survey.clone()),
        });
        let hulls: Vec<Hull> = hulls.collect();
        let answer = |pairs: &[(&str, &str)]| {
            let ask = Ask::of(pairs.iter().map(|&(n, v)| (n, v.to_owned())));
            let asked = ask.resolve(&demo);
            let brief = asked.map_err(|_| "nothing to ask").unwrap().brief;
            let answered = desk.ranking(&Arc::new(brief), &hulls, &Patient);
            answered.map_err(|_| "given up").unwrap()
        };
        let (was, now) = (answer(&[]), answer(&[("mass", "118 kg")]));
        assert!(moved(&was.ranking, &was.ranking, System::Metric).is_empty());
        let told = moved(&was.ranking, &now.ranking, System::Metric);
        let last = told.last().unwrap();
        let first = &now.ranking.ranked[0];
        let margin = |of: &Ranking| {
            let mut all = of.ranked.iter();
            let me = all.find(|r| r.survey().key == first.survey().key).unwrap();
            me.assessment.median(Quantity::BindingMargin).unwrap()
        };
        let row = Quantity::BindingMargin.row();
        let (x, y) = (margin(&was.ranking), margin(&now.ranking));
        let words = format!(
            "{} → {}",
            row.text(System::Metric, x),
            row.text(System::Metric, y)
        );
        assert!(last.contains(&words), "{last}: {words}");
        // Thirty kilograms more on the same boat.
        assert!(x - y > 20.0, "{x} {y}");
        assert!(told.iter().any(|t| t.contains("→ ruled out")), "{told:?}");
        // Of one hull: its own figures, from the same two rankings.
        let keys = [first.survey().key.clone()];
        let hers = about(&was.ranking, &now.ranking, &keys, System::Metric);
        assert_eq!(hers.len(), 1);
        assert!(hers[0].contains(&words), "{hers:?}");
        assert!(about(&was.ranking, &was.ranking, &keys, System::Metric).is_empty());
    }
}

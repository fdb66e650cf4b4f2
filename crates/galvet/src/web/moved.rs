//! What a changed question moved, against the one it started from.

use super::address::address;
use super::ask::query_of;
use super::records::Records;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::answer::{Answered, Hull};
use crate::present::page::ranking::moved::{self, Moved};
use crate::present::page::ranking::sentence::Sentence;
use crate::question::{Ask, Asked};
use galvet_core::question::Brief;
use std::sync::Arc;

/// The question it started from, where it asks something else; its query and brief.
fn start_of(ask: &Ask, now: &Brief, records: &Records) -> Option<(Asked, String)> {
    let start = ask.unchanged()?;
    let asked = start.resolve(&records.catalogue).ok()?;
    (asked.brief != *now).then(|| (asked, query_of(&start)))
}

/// Tells it of the hulls `about`; of the whole ranking where none is named.
pub(super) async fn moved(
    visit: &Visit<'_>,
    now: &Answered,
    records: &Arc<Records>,
    about: &[String],
) -> Result<Moved, Trouble> {
    // What judging filled in was not asked.
    let mut answered = (*now.ranking.brief).clone();
    if let Some(known) = &mut answered.known {
        known.support = None;
    }
    let Some((asked, query)) = start_of(&visit.ask, &answered, records) else {
        return Ok(Moved::default());
    };
    let (caller, units) = (visit.reader.caller, visit.reader.units);
    // What was asked now is there: it does not wait for long for what was asked before.
    if visit.shared.takes_long(&asked, records) && caller.hurries() {
        let said = "what moved is not told: the question it started from was not ranked yet";
        return Ok(Moved::against(vec![said.to_owned()], query));
    }
    let was = visit.shared.ranking(&asked, records, caller).await?;
    let lines = if about.is_empty() {
        moved::moved(&was.ranking, &now.ranking, units)
    } else {
        moved::about(&was.ranking, &now.ranking, about, units)
    };
    Ok(Moved::against(lines, query))
}

/// What else stands in the address, for a page whose `scripted` form takes it along or
/// not: it stays when the question changes, and when it goes back to what it was.
pub(super) fn keep_along(
    sentence: &mut Sentence,
    pairs: &[(&'static str, String)],
    scripted: bool,
) {
    sentence.along = pairs.to_vec();
    sentence.scripted = scripted;
    let reset = &mut sentence.moved.reset;
    if !reset.is_empty() && !pairs.is_empty() {
        let pairs: Vec<(&str, &str)> = pairs.iter().map(|(n, v)| (*n, v.as_str())).collect();
        *reset = address("", reset.trim_end_matches('?'), &pairs);
    }
}

/// Tells it of one hull, without ranking the others.
pub(super) async fn moved_on(
    visit: &Visit<'_>,
    hull: &Hull,
    asked: &Asked,
    records: &Arc<Records>,
) -> Result<Moved, Trouble> {
    match start_of(&visit.ask, &asked.brief, records) {
        Some(start) => against(visit, hull, start, asked).await,
        None => Ok(Moved::default()),
    }
}

/// Tells it of one hull against the same question with another rig.
pub(super) async fn moved_since(
    visit: &Visit<'_>,
    (hull, rig): (&Hull, &str),
    asked: &Asked,
    records: &Arc<Records>,
) -> Result<Moved, Trouble> {
    let start = visit.ask.with_rig(rig);
    match start.resolve(&records.catalogue) {
        Ok(first) if first.brief != asked.brief => {
            let start = (first, query_of(&start));
            against(visit, hull, start, asked).await
        }
        _ => Ok(Moved::default()),
    }
}

async fn against(
    visit: &Visit<'_>,
    hull: &Hull,
    (first, query): (Asked, String),
    asked: &Asked,
) -> Result<Moved, Trouble> {
    let (desk, units) = (visit.shared.desk.clone(), visit.reader.units);
    let (hull, brief) = (hull.clone(), asked.brief.clone());
    let lines = visit.shared.work(visit.reader.caller, move || {
        let was = desk.afloat(&hull, &first.brief).ok()?;
        let now = desk.afloat(&hull, &brief).ok()?;
        let (was, now) = (&was.assessment, &now.assessment);
        Some(moved::of_figures(was, now, &brief, units))
    });
    Ok(Moved::against(lines.await?.unwrap_or_default(), query))
}

//! What a changed question moved, against the one it started from.

use super::ask::query_of;
use super::edit::address;
use super::reader::Reader;
use super::shared::{Shared, Shelf, Trouble};
use crate::answer::{Answered, Hull};
use crate::present::page::moved::{self, Moved};
use crate::present::page::sentence::Sentence;
use crate::question::{Ask, Asked};
use galvet_core::question::Brief;
use std::sync::Arc;

/// The question it started from, where it asks something else; its query and brief.
fn start_of(ask: &Ask, now: &Brief, shelf: &Shelf) -> Option<(Asked, String)> {
    let start = ask.unchanged()?;
    let asked = start.resolve(&shelf.catalogue).ok()?;
    (asked.brief != *now).then(|| (asked, query_of(&start)))
}

/// Tells it of the hulls `about`; of the whole ranking where none is named.
pub(super) async fn moved(
    ask: &Ask,
    now: &Answered,
    shelf: &Arc<Shelf>,
    reader: Reader,
    shared: &Shared,
    about: &[String],
) -> Result<Moved, Trouble> {
    // What judging filled in was not asked.
    let mut answered = (*now.ranking.brief).clone();
    if let Some(known) = &mut answered.known {
        known.support = None;
    }
    let Some((asked, query)) = start_of(ask, &answered, shelf) else {
        return Ok(Moved::default());
    };
    let was = shared.ranking(&asked, shelf, reader.caller).await?;
    let lines = if about.is_empty() {
        moved::moved(&was.ranking, &now.ranking, reader.units)
    } else {
        moved::about(&was.ranking, &now.ranking, about, reader.units)
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
    hull: &Hull,
    ask: &Ask,
    asked: &Asked,
    shelf: &Arc<Shelf>,
    reader: Reader,
    shared: &Shared,
) -> Result<Moved, Trouble> {
    match start_of(ask, &asked.brief, shelf) {
        Some(start) => against(hull, start, asked, reader, shared).await,
        None => Ok(Moved::default()),
    }
}

/// Tells it of one hull against the same question with another rig.
pub(super) async fn moved_since(
    hull: &Hull,
    (ask, rig): (&Ask, &str),
    asked: &Asked,
    shelf: &Arc<Shelf>,
    reader: Reader,
    shared: &Shared,
) -> Result<Moved, Trouble> {
    let start = ask.with_rig(rig);
    match start.resolve(&shelf.catalogue) {
        Ok(first) if first.brief != asked.brief => {
            let start = (first, query_of(&start));
            against(hull, start, asked, reader, shared).await
        }
        _ => Ok(Moved::default()),
    }
}

async fn against(
    hull: &Hull,
    (first, query): (Asked, String),
    asked: &Asked,
    reader: Reader,
    shared: &Shared,
) -> Result<Moved, Trouble> {
    let (desk, hull, brief) = (shared.desk.clone(), hull.clone(), asked.brief.clone());
    let lines = shared.work(reader.caller, move || {
        let was = desk.afloat(&hull, &first.brief).ok()?;
        let now = desk.afloat(&hull, &brief).ok()?;
        let (was, now) = (&was.assessment, &now.assessment);
        Some(moved::of_figures(was, now, &brief, reader.units))
    });
    Ok(Moved::against(lines.await?.unwrap_or_default(), query))
}

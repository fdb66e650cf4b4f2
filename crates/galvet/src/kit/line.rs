//! A line of a rig as it is typed: how many, whether it must come; of what has no size
//! where it lies, and of what is not on the shelf what it is and weighs.

use super::rig::edit_rig;
use crate::form::{
    Draft, FormView, Mistakes, NotTaken, Sent, Table, choice, count, name, number, percent,
};
use crate::survey::EditError;
use galvet_core::base::System;
use galvet_core::rig::{Rig, RigLine};
use galvet_store::Store;

/// A line of a rig as its form takes it apart.
#[derive(Debug, Clone)]
pub(crate) struct LineDraft {
    line: RigLine,
    /// `None` where it is the same as packed.
    loaded: Option<f64>,
}

impl Draft for LineDraft {
    type Record = RigLine;

    fn of(line: &RigLine) -> Self {
        let same = line.loaded_mass.total_cmp(&line.dry_mass).is_eq();
        Self {
            line: line.clone(),
            loaded: (!same).then_some(line.loaded_mass),
        }
    }

    fn made(self) -> Result<RigLine, Mistakes> {
        let line = RigLine {
            loaded_mass: self.loaded.unwrap_or(self.line.dry_mass),
            ..self.line
        };
        let wrong = |error: galvet_core::base::OutOfRange| [(String::new(), error.to_string())];
        line.check().map_err(|error| wrong(error).into())
    }
}

/// The form of a line as it is now.
fn line_form(line: &RigLine) -> Table<LineDraft> {
    type D = LineDraft;
    let most = RigLine::COUNT.hi as u16;
    let mut fields = vec![
        count("count", "how many", (1, most, false), |d: &mut D| {
            &mut d.line.count
        }),
        choice("importance", "on the way", |d: &mut D| {
            &mut d.line.importance
        }),
    ];
    let sized = line.thing.as_ref().is_some_and(|t| t.size.is_some());
    if !sized {
        fields.extend([
            percent(
                "place",
                "lies from the bow, % of the length",
                RigLine::PLACE,
                |d: &mut D| &mut d.line.place,
            ),
            number(
                "height",
                "its middle above the floor",
                RigLine::HEIGHT,
                |d: &mut D| &mut d.line.height,
            ),
            number(
                "offset",
                "to starboard of the middle",
                RigLine::OFFSET,
                |d: &mut D| &mut d.line.offset,
            ),
        ]);
    }
    if line.gear.is_none() {
        fields.extend([
            name("called", "called", |d: &mut D| &mut d.line.item),
            number("weighs", "one weighs packed", RigLine::MASS, |d: &mut D| {
                &mut d.line.dry_mass
            }),
            number(
                "loaded",
                "with its water or fish",
                RigLine::MASS,
                |d: &mut D| &mut d.loaded,
            )
            .hint("left empty: the same"),
        ]);
    }
    Table::plain(fields)
}

/// The form of a line of a rig; `None` where it has no such line.
pub(crate) fn form_of_line(
    rig: &Rig,
    number: usize,
    not_taken: &NotTaken,
    system: System,
) -> Option<FormView> {
    let line = rig.lines.get(number)?;
    Some(line_form(line).form(line, false, not_taken, system))
}

/// Keeps what was typed of a line, named by its number and what it was when it was shown.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn keep_line(
    store: &Store,
    who: &str,
    (slug, number, item): (&str, usize, &str),
    sent: &Sent,
    system: System,
) -> Result<(), EditError> {
    let label = format!("{item} on the rig changed");
    edit_rig(store, who, slug, &label, |rig| {
        let line = rig.lines.get_mut(number).filter(|line| line.item == item);
        let line = line.ok_or("somebody changed this rig meanwhile; look at it anew")?;
        line_form(&line.clone()).put(line, sent, system)
    })
}

//! Rows of the shelf and of rigs, which may refer to it.

use crate::db::kind::Kind;
use crate::db::schema;
use crate::error::StoreError;
use crate::files::gear::GearEntry;
use diesel::prelude::*;
use galvet_core::base::Keyed;
use galvet_core::gear::Gear;
use galvet_core::rig::{Importance, Rig, RigLine};

/// A thing's document.
pub(in crate::db) fn gear_document(gear: &Gear) -> Result<String, StoreError> {
    serde_json::to_string(&GearEntry::of(gear))
        .map_err(|e| StoreError::bad(Kind::Gear, &gear.key, e))
}

/// The thing of a document; its slug is the column's.
pub(in crate::db) fn gear(slug: String, document: &str) -> Result<Gear, StoreError> {
    let bad = |problem: String| StoreError::bad(Kind::Gear, &slug, problem);
    let entry: GearEntry = serde_json::from_str(document).map_err(|e| bad(e.to_string()))?;
    let gear = entry.gear("").map_err(|e| bad(e.problem))?;
    Ok(Gear { key: slug, ..gear })
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::rig_lines)]
pub(in crate::db) struct LineRow {
    pub(in crate::db) rig_id: i64,
    item: String,
    count: i32,
    dry_mass: f64,
    loaded_mass: f64,
    place: f64,
    height: f64,
    offset_y: f64,
    energy_wh: f64,
    pub(in crate::db) gear_id: Option<i64>,
    importance: String,
    within: String,
}

impl LineRow {
    /// Rows of the rig `id`; `shelf` has the ids of what its lines refer to.
    pub(in crate::db) fn of(rig: &Rig, id: i64, shelf: &[Option<i64>]) -> Vec<Self> {
        rig.lines
            .iter()
            .zip(shelf)
            .map(|(line, &gear_id)| Self {
                gear_id,
                rig_id: id,
                item: line.item.clone(),
                count: i32::try_from(line.count).unwrap_or(i32::MAX),
                dry_mass: line.dry_mass,
                loaded_mass: line.loaded_mass,
                place: line.place,
                height: line.height,
                offset_y: line.offset,
                energy_wh: line.energy,
                importance: line.importance.key().to_owned(),
                within: line.within.clone(),
            })
            .collect()
    }

    /// The line; `on_shelf` is what it refers to, whose masses count as they
    /// are now.
    pub(in crate::db) fn line(
        self,
        rig: &str,
        on_shelf: Option<&Gear>,
    ) -> Result<RigLine, StoreError> {
        let name = format!("{rig}, {}", self.item);
        let own = RigLine {
            item: self.item,
            gear: None,
            thing: None,
            importance: Importance::from_key(&self.importance).unwrap_or(Importance::Must),
            within: self.within,
            count: u32::try_from(self.count).unwrap_or(0),
            dry_mass: self.dry_mass,
            loaded_mass: self.loaded_mass,
            place: self.place,
            height: self.height,
            offset: self.offset_y,
            energy: self.energy_wh,
            chemistry: None,
            // A guess is part of a question, never of a rig.
            rough: false,
        };
        let line = match on_shelf {
            Some(gear) => own.is(gear),
            None => own,
        };
        line.check()
            .map_err(|error| StoreError::bad(Kind::Rig, &name, error))
    }
}

/// A rig's lines as they count today.
pub(in crate::db) fn lines(
    connection: &mut SqliteConnection,
    id: i64,
    rig: &str,
) -> Result<Vec<RigLine>, StoreError> {
    use schema::{gear as shelf, rig_lines};
    let rows: Vec<(LineRow, Option<(String, String)>)> = rig_lines::table
        .left_join(shelf::table)
        .filter(rig_lines::rig_id.eq(id))
        .order(rig_lines::id)
        .select((
            LineRow::as_select(),
            (shelf::slug, shelf::document).nullable(),
        ))
        .load(connection)?;
    rows.into_iter()
        .map(|(row, on_shelf)| {
            let on_shelf = on_shelf
                .map(|(slug, document)| gear(slug, &document))
                .transpose()
                .map_err(|error| StoreError::bad(Kind::Rig, rig, error))?;
            row.line(rig, on_shelf.as_ref())
        })
        .collect()
}

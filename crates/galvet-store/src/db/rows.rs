//! Rows of the tables and their way to documents and back.
//!
//! What comes out of the database passes the same checks as what comes out of
//! a file: a database is a file too.

use super::kind::Kind;
use super::record::{Record, SavedBrief};
use super::schema;
use crate::error::StoreError;
use crate::files::evidence::Entry;
use crate::files::hulls::HullRecord;
use crate::files::{waters, word};
use diesel::prelude::*;
use galvet_core::base::Keyed;
use galvet_core::body::offsets;
use galvet_core::hull::{Aboard, Measure, Reading, Station, Survey};
use galvet_core::question::Water;
use galvet_core::rig::{Rig, RigLine};
use std::collections::BTreeMap;

/// The columns of a hull that describe it.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::hulls, treat_none_as_null = true)]
pub(super) struct HullRow {
    pub(super) slug: String,
    maker: String,
    model: String,
    year: Option<i32>,
    construction: String,
    bottom: Option<String>,
    propulsion: String,
    drive_lifts: bool,
    tracks_straight: bool,
    seats: i32,
    fitted_includes: String,
    capacity_basis: String,
    origin: String,
    notes: String,
    extra: String,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::readings)]
pub(super) struct ReadingRow {
    pub(super) hull_id: i64,
    measure: String,
    value: f64,
    source: String,
    taken: String,
    who: String,
    note: String,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::evidence)]
pub(super) struct EvidenceRow {
    pub(super) hull_id: i64,
    aboard_mass: f64,
    aboard_place: f64,
    aboard_height: f64,
    density: f64,
    scuppers: String,
    taken: String,
    kind: String,
    reading: String,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::stations)]
pub(super) struct StationRow {
    pub(super) hull_id: i64,
    x: f64,
    points: String,
}

/// What hangs on a hull.
#[derive(Debug, Default)]
pub(super) struct HullParts {
    pub(super) readings: Vec<ReadingRow>,
    pub(super) evidence: Vec<EvidenceRow>,
    pub(super) stations: Vec<StationRow>,
}

impl HullRow {
    /// The rows of a record whose hull has the id `id`.
    pub(super) fn of(record: &HullRecord, id: i64) -> Result<(Self, HullParts), StoreError> {
        let s = &record.survey;
        let bad = |e: serde_json::Error| StoreError::bad(Kind::Hull, &s.key, e);
        let row = Self {
            slug: s.key.clone(),
            maker: s.maker.clone(),
            model: s.model.clone(),
            year: s.year.map(i32::from),
            construction: s.construction.key().to_owned(),
            bottom: s.bottom.map(|b| b.key().to_owned()),
            propulsion: s.propulsion.key().to_owned(),
            drive_lifts: s.drive_lifts,
            tracks_straight: s.tracks_straight,
            seats: i32::from(s.seats),
            fitted_includes: s.fitted_includes.clone(),
            capacity_basis: s.capacity_basis.key().to_owned(),
            origin: s.origin.key().to_owned(),
            notes: s.notes.clone(),
            extra: serde_json::to_string(&record.extra).map_err(bad)?,
        };
        let readings = s.readings.iter().flat_map(|(measure, all)| {
            all.iter().map(move |r| ReadingRow {
                hull_id: id,
                measure: measure.key().to_owned(),
                value: r.value,
                source: r.source.key().to_owned(),
                taken: r.date.clone(),
                who: r.who.clone(),
                note: r.note.clone(),
            })
        });
        let evidence = s.evidence.iter().map(|e| {
            let (kind, reading) = Entry::of(e).parts().map_err(bad)?;
            Ok(EvidenceRow {
                hull_id: id,
                aboard_mass: e.aboard.mass,
                aboard_place: e.aboard.place,
                aboard_height: e.aboard.height,
                density: e.density,
                scuppers: e.scuppers.key().to_owned(),
                taken: e.date.clone(),
                kind,
                reading,
            })
        });
        let stations = s.offsets.iter().map(|station| {
            Ok(StationRow {
                hull_id: id,
                x: station.x,
                points: serde_json::to_string(&station.points).map_err(bad)?,
            })
        });
        let parts = HullParts {
            readings: readings.collect(),
            evidence: evidence.collect::<Result<_, StoreError>>()?,
            stations: stations.collect::<Result<_, StoreError>>()?,
        };
        Ok((row, parts))
    }

    pub(super) fn record(self, parts: HullParts) -> Result<HullRecord, StoreError> {
        let key = self.slug.clone();
        self.checked(parts)
            .map_err(|problem| StoreError::bad(Kind::Hull, &key, problem))
    }

    fn checked(self, parts: HullParts) -> Result<HullRecord, String> {
        let mut readings: BTreeMap<Measure, Vec<Reading>> = BTreeMap::new();
        for row in parts.readings {
            let measure: Measure = word("measure", &row.measure)?;
            let reading = Reading::new(measure, row.value, word("source", &row.source)?)
                .map_err(|e| e.to_string())?;
            readings.entry(measure).or_default().push(Reading {
                date: row.taken,
                who: row.who,
                note: row.note,
                ..reading
            });
        }
        let evidence = parts.evidence.into_iter().map(|row| {
            let aboard = Aboard {
                mass: row.aboard_mass,
                place: row.aboard_place,
                height: row.aboard_height,
            };
            let read = (row.kind.as_str(), row.reading.as_str());
            Entry::from_parts(aboard, row.density, row.scuppers, row.taken, read)
                .map_err(|e| e.to_string())?
                .evidence()
        });
        let stations: Vec<Station> = parts
            .stations
            .into_iter()
            .map(|row| {
                let points = serde_json::from_str(&row.points).map_err(|e| e.to_string())?;
                Ok(Station { x: row.x, points })
            })
            .collect::<Result<_, String>>()?;
        if !stations.is_empty() {
            offsets::body(&stations).map_err(|e| format!("station {}: {e}", e.station + 1))?;
        }
        let narrow = |what: &str, value: i32| {
            u16::try_from(value).map_err(|_| format!("{what} {value} is out of range"))
        };
        Ok(HullRecord {
            extra: serde_json::from_str(&self.extra).map_err(|e| e.to_string())?,
            survey: Survey {
                maker: self.maker,
                model: self.model,
                year: self.year.map(|y| narrow("year", y)).transpose()?,
                construction: word("construction", &self.construction)?,
                bottom: self.bottom.map(|b| word("bottom", &b)).transpose()?,
                propulsion: word("propulsion", &self.propulsion)?,
                drive_lifts: self.drive_lifts,
                tracks_straight: self.tracks_straight,
                seats: narrow("seats", self.seats)?.min(u16::from(u8::MAX)) as u8,
                fitted_includes: self.fitted_includes,
                capacity_basis: word("capacity basis", &self.capacity_basis)?,
                origin: word("origin", &self.origin)?,
                notes: self.notes,
                readings,
                evidence: evidence.collect::<Result<_, _>>()?,
                offsets: stations,
                key: self.slug,
            },
        })
    }
}

/// The columns of a water that describe it.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::waters)]
pub(super) struct WaterRow {
    slug: String,
    name: String,
    density: f64,
    freeboard: f64,
    floor_clearance: f64,
    working_share: f64,
    least_depth: f64,
    conditions: String,
    standing: String,
    capacity_weight: f64,
    reserve_share: f64,
    must_drain: bool,
    plugs_allowed: bool,
    cautions: String,
}

impl WaterRow {
    pub(super) fn of(w: &Water) -> Result<Self, StoreError> {
        Ok(Self {
            slug: w.key.clone(),
            name: w.name.clone(),
            density: w.density,
            freeboard: w.freeboard,
            floor_clearance: w.floor_clearance,
            working_share: w.working_share,
            least_depth: w.least_depth,
            conditions: w.conditions.clone(),
            standing: w.standing.key().to_owned(),
            capacity_weight: w.capacity_weight,
            reserve_share: w.reserve_share,
            must_drain: w.must_drain,
            plugs_allowed: w.plugs_allowed,
            cautions: serde_json::to_string(&w.cautions)
                .map_err(|e| StoreError::bad(Kind::Water, &w.key, e))?,
        })
    }

    pub(super) fn water(self) -> Result<Water, StoreError> {
        let key = self.slug.clone();
        let bad = |problem: String| StoreError::bad(Kind::Water, &key, problem);
        let water = Water {
            key: self.slug,
            name: self.name,
            density: self.density,
            freeboard: self.freeboard,
            floor_clearance: self.floor_clearance,
            working_share: self.working_share,
            least_depth: self.least_depth,
            conditions: self.conditions,
            standing: word("way of standing", &self.standing).map_err(bad)?,
            capacity_weight: self.capacity_weight,
            reserve_share: self.reserve_share,
            must_drain: self.must_drain,
            plugs_allowed: self.plugs_allowed,
            cautions: serde_json::from_str(&self.cautions).map_err(|e| bad(e.to_string()))?,
        };
        waters::check(water).map_err(|(_, error)| bad(error.to_string()))
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::rig_lines)]
pub(super) struct LineRow {
    pub(super) rig_id: i64,
    item: String,
    count: i32,
    dry_mass: f64,
    loaded_mass: f64,
    place: f64,
    height: f64,
    offset_y: f64,
    energy_wh: f64,
}

impl LineRow {
    pub(super) fn of(rig: &Rig, id: i64) -> Vec<Self> {
        rig.lines
            .iter()
            .map(|line| Self {
                rig_id: id,
                item: line.item.clone(),
                count: i32::try_from(line.count).unwrap_or(i32::MAX),
                dry_mass: line.dry_mass,
                loaded_mass: line.loaded_mass,
                place: line.place,
                height: line.height,
                offset_y: line.offset,
                energy_wh: line.energy,
            })
            .collect()
    }

    pub(super) fn line(self, rig: &str) -> Result<RigLine, StoreError> {
        let name = format!("{rig}, {}", self.item);
        RigLine {
            item: self.item,
            count: u32::try_from(self.count).unwrap_or(0),
            dry_mass: self.dry_mass,
            loaded_mass: self.loaded_mass,
            place: self.place,
            height: self.height,
            offset: self.offset_y,
            energy: self.energy_wh,
        }
        .check()
        .map_err(|error| StoreError::bad(Kind::Rig, &name, error))
    }
}

/// The columns of a saved question.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::briefs, treat_none_as_null = true)]
pub(super) struct BriefRow {
    slug: String,
    name: String,
    pub(super) rig_id: Option<i64>,
    pub(super) water_id: Option<i64>,
    question: String,
}

impl BriefRow {
    pub(super) fn of(brief: &SavedBrief, rig_id: Option<i64>, water_id: Option<i64>) -> Self {
        Self {
            slug: brief.key.clone(),
            name: brief.name.clone(),
            rig_id,
            water_id,
            question: brief.question.to_string(),
        }
    }

    pub(super) fn brief(self) -> Result<SavedBrief, StoreError> {
        let question = serde_json::from_str(&self.question)
            .map_err(|e| StoreError::bad(Kind::Brief, &self.slug, e))?;
        Ok(SavedBrief {
            key: self.slug,
            name: self.name,
            question,
        })
    }
}

/// A record as the rows of its id hold it; `None` where there is no such row.
pub(super) fn load(
    connection: &mut SqliteConnection,
    kind: Kind,
    id: i64,
) -> Result<Option<Record>, StoreError> {
    use schema::{briefs, evidence, hulls, readings, rig_lines, rigs, settings, stations, waters};
    Ok(match kind {
        Kind::Hull => {
            let row = hulls::table
                .find(id)
                .select(HullRow::as_select())
                .first(connection)
                .optional()?;
            let Some(row) = row else { return Ok(None) };
            let parts = HullParts {
                readings: readings::table
                    .filter(readings::hull_id.eq(id))
                    .order(readings::id)
                    .select(ReadingRow::as_select())
                    .load(connection)?,
                evidence: evidence::table
                    .filter(evidence::hull_id.eq(id))
                    .order(evidence::id)
                    .select(EvidenceRow::as_select())
                    .load(connection)?,
                stations: stations::table
                    .filter(stations::hull_id.eq(id))
                    .order(stations::id)
                    .select(StationRow::as_select())
                    .load(connection)?,
            };
            Some(Record::Hull(Box::new(row.record(parts)?)))
        }
        Kind::Water => waters::table
            .find(id)
            .select(WaterRow::as_select())
            .first(connection)
            .optional()?
            .map(WaterRow::water)
            .transpose()?
            .map(Record::Water),
        Kind::Rig => {
            let row: Option<(String, String)> = rigs::table
                .find(id)
                .select((rigs::slug, rigs::name))
                .first(connection)
                .optional()?;
            let Some((key, name)) = row else {
                return Ok(None);
            };
            let lines = rig_lines::table
                .filter(rig_lines::rig_id.eq(id))
                .order(rig_lines::id)
                .select(LineRow::as_select())
                .load(connection)?
                .into_iter()
                .map(|line: LineRow| line.line(&key))
                .collect::<Result<_, _>>()?;
            Some(Record::Rig(Rig { key, name, lines }))
        }
        Kind::Brief => briefs::table
            .find(id)
            .select(BriefRow::as_select())
            .first(connection)
            .optional()?
            .map(BriefRow::brief)
            .transpose()?
            .map(Record::Brief),
        Kind::Setting => settings::table
            .find(id)
            .select((settings::slug, settings::value))
            .first(connection)
            .optional()?
            .map(|(key, value)| Record::Setting(key, value)),
    })
}

//! Rows of the tables and their way to the core's types and back.
//!
//! What comes out of the database passes the same checks as what comes out of
//! a file: a database is a file too.

use crate::error::StoreError;
use crate::files::evidence::Entry;
use crate::files::hulls::HullRecord;
use crate::files::{waters, word};
use crate::schema;
use diesel::prelude::*;
use galvet_core::brief::{Posture, Rig, RigLine, Scuppers, SeatHeight};
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Measure, Propulsion, Reading, Source, Survey,
};
use galvet_core::water::{Standing, Water};
use std::collections::BTreeMap;

fn bad(table: &'static str, key: &str, problem: impl ToString) -> StoreError {
    StoreError::BadRecord {
        table,
        key: key.to_owned(),
        problem: problem.to_string(),
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::hulls)]
pub(crate) struct HullRow {
    pub(crate) key: String,
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
    notes: String,
    extra: String,
}

#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = schema::readings)]
pub(crate) struct ReadingRow {
    pub(crate) hull_key: String,
    measure: String,
    value: f64,
    source: String,
}

#[derive(Debug, Clone, Insertable)]
#[diesel(table_name = schema::readings)]
pub(crate) struct NewReading {
    hull_key: String,
    measure: &'static str,
    value: f64,
    source: &'static str,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::evidence)]
pub(crate) struct EvidenceRow {
    pub(crate) hull_key: String,
    pub(crate) entry: String,
}

impl EvidenceRow {
    pub(crate) fn of(survey: &Survey) -> Result<Vec<Self>, StoreError> {
        survey
            .evidence
            .iter()
            .map(|evidence| {
                Ok(Self {
                    hull_key: survey.key.clone(),
                    entry: serde_json::to_string(&Entry::of(evidence))
                        .map_err(|error| bad("evidence", &survey.key, error))?,
                })
            })
            .collect()
    }
}

impl HullRow {
    pub(crate) fn of(record: &HullRecord) -> Result<(Self, Vec<NewReading>), StoreError> {
        let s = &record.survey;
        let extra =
            serde_json::to_string(&record.extra).map_err(|error| bad("hulls", &s.key, error))?;
        let readings = s
            .readings
            .iter()
            .flat_map(|(measure, readings)| {
                readings.iter().map(|reading| NewReading {
                    hull_key: s.key.clone(),
                    measure: measure.key(),
                    value: reading.value,
                    source: reading.source.key(),
                })
            })
            .collect();
        Ok((
            Self {
                key: s.key.clone(),
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
                notes: s.notes.clone(),
                extra,
            },
            readings,
        ))
    }

    pub(crate) fn record(
        self,
        rows: &[ReadingRow],
        evidence: &[String],
    ) -> Result<HullRecord, StoreError> {
        let key = self.key.clone();
        let wrong = |problem: String| bad("hulls", &key, problem);
        let mut readings: BTreeMap<Measure, Vec<Reading>> = BTreeMap::new();
        for row in rows {
            let measure =
                word("measure", &row.measure, Measure::ALL, Measure::key).map_err(wrong)?;
            let source = word("source", &row.source, Source::ALL, Source::key).map_err(wrong)?;
            let reading =
                Reading::new(measure, row.value, source).map_err(|e| bad("readings", &key, e))?;
            readings.entry(measure).or_default().push(reading);
        }
        let evidence = evidence
            .iter()
            .map(|text| {
                let entry: Entry =
                    serde_json::from_str(text).map_err(|e| bad("evidence", &key, e))?;
                entry.evidence().map_err(|e| bad("evidence", &key, e))
            })
            .collect::<Result<_, _>>()?;
        let narrow = |what: &'static str, value: i32| {
            u16::try_from(value).map_err(|e| bad("hulls", &key, format!("{what}: {e}")))
        };
        let bottom = self
            .bottom
            .map(|b| word("bottom", &b, &BottomShape::ALL, BottomShape::key).map_err(wrong))
            .transpose()?;
        Ok(HullRecord {
            extra: serde_json::from_str(&self.extra).map_err(|e| bad("hulls", &key, e))?,
            survey: Survey {
                maker: self.maker,
                model: self.model,
                year: self.year.map(|y| narrow("year", y)).transpose()?,
                construction: word(
                    "construction",
                    &self.construction,
                    Construction::ALL,
                    Construction::key,
                )
                .map_err(wrong)?,
                bottom,
                propulsion: word(
                    "propulsion",
                    &self.propulsion,
                    Propulsion::ALL,
                    Propulsion::key,
                )
                .map_err(wrong)?,
                drive_lifts: self.drive_lifts,
                tracks_straight: self.tracks_straight,
                seats: narrow("seats", self.seats)?.min(u16::from(u8::MAX)) as u8,
                fitted_includes: self.fitted_includes,
                capacity_basis: word(
                    "capacity basis",
                    &self.capacity_basis,
                    CapacityBasis::ALL,
                    CapacityBasis::key,
                )
                .map_err(wrong)?,
                notes: self.notes,
                readings,
                evidence,
                key: self.key,
            },
        })
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::waters)]
pub(crate) struct WaterRow {
    key: String,
    position: i32,
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
    pub(crate) fn of(position: i32, w: &Water) -> Result<Self, StoreError> {
        Ok(Self {
            key: w.key.clone(),
            position,
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
            cautions: serde_json::to_string(&w.cautions).map_err(|e| bad("waters", &w.key, e))?,
        })
    }

    pub(crate) fn water(self) -> Result<Water, StoreError> {
        let key = self.key.clone();
        let standing = word("standing", &self.standing, Standing::ALL, Standing::key)
            .map_err(|e| bad("waters", &key, e))?;
        waters::check(Water {
            key: self.key,
            name: self.name,
            density: self.density,
            freeboard: self.freeboard,
            floor_clearance: self.floor_clearance,
            working_share: self.working_share,
            least_depth: self.least_depth,
            conditions: self.conditions,
            standing,
            capacity_weight: self.capacity_weight,
            reserve_share: self.reserve_share,
            must_drain: self.must_drain,
            plugs_allowed: self.plugs_allowed,
            cautions: serde_json::from_str(&self.cautions).map_err(|e| bad("waters", &key, e))?,
        })
        .map_err(|(key, error)| bad("waters", &key, error))
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::rigs)]
pub(crate) struct RigRow {
    pub(crate) key: String,
    pub(crate) position: i32,
    pub(crate) name: String,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::rig_lines)]
pub(crate) struct LineRow {
    pub(crate) rig_key: String,
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
    pub(crate) fn of(rig: &Rig) -> impl Iterator<Item = Self> + '_ {
        rig.lines.iter().map(|line| Self {
            rig_key: rig.key.clone(),
            item: line.item.clone(),
            count: i32::try_from(line.count).unwrap_or(i32::MAX),
            dry_mass: line.dry_mass,
            loaded_mass: line.loaded_mass,
            place: line.place,
            height: line.height,
            offset_y: line.offset,
            energy_wh: line.energy,
        })
    }

    pub(crate) fn line(self) -> Result<RigLine, StoreError> {
        let key = format!("{}, {}", self.rig_key, self.item);
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
        .map_err(|error| bad("rig_lines", &key, error))
    }
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::briefs)]
pub(crate) struct BriefRow {
    pub(crate) key: String,
    pub(crate) position: i32,
    pub(crate) name: String,
    pub(crate) crew_mass: f64,
    pub(crate) crew_stature: f64,
    pub(crate) posture: String,
    pub(crate) rig_key: String,
    pub(crate) water_key: String,
    pub(crate) scuppers: String,
    pub(crate) seat: String,
    pub(crate) capacity_weight: Option<f64>,
    pub(crate) longest: Option<f64>,
    pub(crate) heaviest_lift: Option<f64>,
    pub(crate) budget: Option<f64>,
    pub(crate) capacity_school: String,
    pub(crate) stability_school: String,
}

impl BriefRow {
    /// The words of the row are words of the core.
    pub(crate) fn check(&self) -> Result<(), StoreError> {
        let wrong = |problem: String| bad("briefs", &self.key, problem);
        word("posture", &self.posture, Posture::ALL, Posture::key).map_err(wrong)?;
        word("scuppers", &self.scuppers, Scuppers::ALL, Scuppers::key).map_err(wrong)?;
        word("seat", &self.seat, SeatHeight::ALL, SeatHeight::key).map_err(wrong)?;
        Ok(())
    }
}

//! Rows of a hull and of what hangs on it.

use crate::db::kind::Kind;
use crate::db::schema;
use crate::error::StoreError;
use crate::files::evidence::Entry;
use crate::files::fitout::FitoutDoc;
use crate::files::hulls::HullRecord;
use crate::files::looked::LookedDoc;
use crate::files::word;
use diesel::prelude::*;
use galvet_core::base::Keyed;
use galvet_core::body::offsets;
use galvet_core::hull::{Aboard, Measure, Reading, Station, Survey};
use serde::Serialize;
use serde::de::DeserializeOwned;
use std::collections::BTreeMap;

/// The columns of a hull that describe it.
#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = schema::hulls, treat_none_as_null = true)]
pub(in crate::db) struct HullRow {
    pub(in crate::db) slug: String,
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
    looked: String,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::readings)]
pub(in crate::db) struct ReadingRow {
    pub(in crate::db) hull_id: i64,
    measure: String,
    value: f64,
    source: String,
    taken: String,
    who: String,
    note: String,
    error: Option<f64>,
}

#[derive(Debug, Clone, Queryable, Selectable, Insertable)]
#[diesel(table_name = schema::evidence)]
pub(in crate::db) struct EvidenceRow {
    pub(in crate::db) hull_id: i64,
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
pub(in crate::db) struct StationRow {
    pub(in crate::db) hull_id: i64,
    x: f64,
    points: String,
}

/// What hangs on a hull.
#[derive(Debug, Default)]
pub(in crate::db) struct HullParts {
    pub(in crate::db) readings: Vec<ReadingRow>,
    pub(in crate::db) evidence: Vec<EvidenceRow>,
    pub(in crate::db) stations: Vec<StationRow>,
    pub(in crate::db) fitout: FitoutRows,
}

/// Documents of a hull's space, table by table.
#[derive(Debug, Default)]
pub(in crate::db) struct FitoutRows {
    zones: Vec<String>,
    fittings: Vec<String>,
    modifications: Vec<String>,
    configurations: Vec<String>,
}

impl FitoutRows {
    fn of(doc: &FitoutDoc) -> Result<Self, serde_json::Error> {
        fn texts<T: Serialize>(all: &[T]) -> Result<Vec<String>, serde_json::Error> {
            all.iter().map(serde_json::to_string).collect()
        }
        Ok(Self {
            zones: texts(&doc.zones)?,
            fittings: texts(&doc.fittings)?,
            modifications: texts(&doc.modifications)?,
            configurations: texts(&doc.configurations)?,
        })
    }

    fn doc(&self) -> Result<FitoutDoc, serde_json::Error> {
        fn docs<T: DeserializeOwned>(all: &[String]) -> Result<Vec<T>, serde_json::Error> {
            all.iter().map(|text| serde_json::from_str(text)).collect()
        }
        Ok(FitoutDoc {
            zones: docs(&self.zones)?,
            fittings: docs(&self.fittings)?,
            modifications: docs(&self.modifications)?,
            configurations: docs(&self.configurations)?,
        })
    }
}

/// What hangs on a hull, one table after the other: read, thrown out, put in.
macro_rules! hangs_on {
    ($do:ident) => {
        $do!(zones, fittings, modifications, configurations);
    };
}

impl HullParts {
    /// Everything that hangs on a hull.
    pub(in crate::db) fn load(
        connection: &mut SqliteConnection,
        id: i64,
    ) -> Result<Self, StoreError> {
        use schema::{evidence, readings, stations};
        let mut fitout = FitoutRows::default();
        macro_rules! documents {
            ($($table:ident),*) => {$(
                fitout.$table = schema::$table::table
                    .filter(schema::$table::hull_id.eq(id))
                    .order(schema::$table::id)
                    .select(schema::$table::document)
                    .load(connection)?;
            )*};
        }
        hangs_on!(documents);
        Ok(Self {
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
            fitout,
        })
    }

    /// Puts this in place of everything that hangs on a hull.
    pub(in crate::db) fn replace(
        &self,
        connection: &mut SqliteConnection,
        id: i64,
    ) -> Result<(), StoreError> {
        use schema::{evidence, readings, stations};
        macro_rules! rows {
            ($($table:ident),*) => {$(
                diesel::delete($table::table.filter($table::hull_id.eq(id)))
                    .execute(connection)?;
                diesel::insert_into($table::table)
                    .values(&self.$table)
                    .execute(connection)?;
            )*};
        }
        rows!(readings, evidence, stations);
        macro_rules! documents {
            ($($table:ident),*) => {$(
                diesel::delete(schema::$table::table.filter(schema::$table::hull_id.eq(id)))
                    .execute(connection)?;
                let rows: Vec<_> = self.fitout.$table.iter().map(|text| (
                    schema::$table::hull_id.eq(id),
                    schema::$table::document.eq(text),
                )).collect();
                diesel::insert_into(schema::$table::table)
                    .values(rows)
                    .execute(connection)?;
            )*};
        }
        hangs_on!(documents);
        Ok(())
    }
}

impl HullRow {
    /// The rows of a record whose hull has the id `id`.
    pub(in crate::db) fn of(record: &HullRecord, id: i64) -> Result<(Self, HullParts), StoreError> {
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
            looked: serde_json::to_string(&LookedDoc::of(&s.looked)).map_err(bad)?,
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
                error: r.error,
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
            fitout: FitoutRows::of(&FitoutDoc::of(&s.fitout)).map_err(bad)?,
        };
        Ok((row, parts))
    }

    pub(in crate::db) fn record(self, parts: HullParts) -> Result<HullRecord, StoreError> {
        let key = self.slug.clone();
        self.checked(parts)
            .map_err(|problem| StoreError::bad(Kind::Hull, &key, problem))
    }

    fn checked(self, parts: HullParts) -> Result<HullRecord, String> {
        let fitout = parts.fitout.doc().map_err(|e| e.to_string())?.fitout()?;
        let looked: LookedDoc = serde_json::from_str(&self.looked).map_err(|e| e.to_string())?;
        let mut readings: BTreeMap<Measure, Vec<Reading>> = BTreeMap::new();
        for row in parts.readings {
            let measure: Measure = word("measure", &row.measure)?;
            let reading = Reading::new(measure, row.value, word("source", &row.source)?)
                .and_then(|r| r.with_error(measure, row.error))
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
                fitout,
                looked: looked.looked()?,
                key: self.slug,
            },
        })
    }
}

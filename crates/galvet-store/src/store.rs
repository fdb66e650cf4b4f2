//! The database: opened, migrated, read and filled.

use crate::error::StoreError;
use crate::files::briefs::{BriefFile, CrewEntry, MustEntry, RigRef};
use crate::files::hulls::HullRecord;
use crate::rows::{BriefRow, EvidenceRow, HullRow, LineRow, ReadingRow, RigRow, WaterRow};
use crate::schema;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool, PooledConnection};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use galvet_core::brief::Rig;
use galvet_core::water::Water;
use std::collections::BTreeMap;
use std::fs::{self, File};
use std::path::{Path, PathBuf};
use std::time::Duration;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");
const DATABASE: &str = "galvet.db";
const LOCK: &str = "galvet.lock";
/// Connections kept: SQLite has one writer, and pages read briefly.
const CONNECTIONS: u32 = 4;

/// Everything a brief can name.
#[derive(Debug, Clone, Default)]
pub struct Catalogue {
    /// Hulls in alphabetical order of their keys.
    pub hulls: Vec<HullRecord>,
    /// Waters in the order of the file.
    pub waters: Vec<Water>,
    /// Rigs in the order of the file.
    pub rigs: Vec<Rig>,
    /// Saved briefs in order.
    pub briefs: Vec<BriefFile>,
}

/// An open data directory.
#[derive(Debug, Clone)]
pub struct Store {
    pool: Pool<ConnectionManager<SqliteConnection>>,
    /// Held as long as the store lives, so that no second Galvet opens it.
    _lock: std::sync::Arc<File>,
}

#[derive(Debug)]
struct Pragmas;

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Pragmas {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        connection
            .batch_execute(
                "PRAGMA busy_timeout = 5000; PRAGMA journal_mode = WAL; \
                 PRAGMA synchronous = NORMAL; PRAGMA foreign_keys = ON;",
            )
            .map_err(diesel::r2d2::Error::QueryError)
    }
}

/// The database's path in a form that SQLite takes as a plain file name: an
/// absolute one, so that a directory called `file:x` is not read as a URI.
fn database_path(directory: &Path) -> Result<String, StoreError> {
    let unwritable = |source| StoreError::Unwritable {
        path: directory.to_owned(),
        source,
    };
    let path = fs::canonicalize(directory)
        .map_err(unwritable)?
        .join(DATABASE);
    path.to_str()
        .map(str::to_owned)
        .ok_or(StoreError::OddPath { path })
}

fn lock(directory: &Path) -> Result<File, StoreError> {
    let unwritable = |source| StoreError::Unwritable {
        path: directory.to_owned(),
        source,
    };
    fs::create_dir_all(directory).map_err(unwritable)?;
    let file = File::options()
        .create(true)
        .truncate(false)
        .write(true)
        .open(directory.join(LOCK))
        .map_err(unwritable)?;
    match file.try_lock() {
        Ok(()) => Ok(file),
        Err(fs::TryLockError::WouldBlock) => Err(StoreError::InUse {
            path: directory.to_owned(),
        }),
        Err(fs::TryLockError::Error(source)) => Err(unwritable(source)),
    }
}

impl Store {
    /// Opens the data directory, making it where it does not exist, and brings
    /// its database up to date; an older database is copied aside first.
    ///
    /// # Errors
    /// [`StoreError`] in one line fit for a terminal.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        let lock = lock(directory)?;
        let path = database_path(directory)?;
        let open = |reason: String| StoreError::Open {
            path: PathBuf::from(&path),
            reason,
        };
        // A first connection by hand: the pool would retry for half a minute.
        let mut first = SqliteConnection::establish(&path).map_err(|e| open(e.to_string()))?;
        Pragmas
            .on_acquire(&mut first)
            .map_err(|e| open(e.to_string()))?;
        migrate(&mut first, Path::new(&path))?;
        drop(first);
        let pool = Pool::builder()
            .max_size(CONNECTIONS)
            .min_idle(Some(1))
            .connection_timeout(Duration::from_secs(5))
            .connection_customizer(Box::new(Pragmas))
            .build(ConnectionManager::new(&path))?;
        Ok(Self {
            pool,
            _lock: std::sync::Arc::new(lock),
        })
    }

    fn connection(
        &self,
    ) -> Result<PooledConnection<ConnectionManager<SqliteConnection>>, StoreError> {
        Ok(self.pool.get()?)
    }

    /// Whether nothing has been put in yet.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn is_empty(&self) -> Result<bool, StoreError> {
        let hulls: i64 = schema::hulls::table
            .count()
            .get_result(&mut self.connection()?)?;
        let waters: i64 = schema::waters::table
            .count()
            .get_result(&mut self.connection()?)?;
        Ok(hulls == 0 && waters == 0)
    }

    /// Puts a whole catalogue in, all of it or nothing.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn fill(&self, catalogue: &Catalogue) -> Result<(), StoreError> {
        self.connection()?
            .immediate_transaction(|connection| fill(connection, catalogue))
    }

    /// Reads a setting of this installation.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn setting(&self, key: &str) -> Result<Option<String>, StoreError> {
        Ok(schema::settings::table
            .find(key)
            .select(schema::settings::value)
            .first(&mut self.connection()?)
            .optional()?)
    }

    /// Sets a setting of this installation.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn set_setting(&self, key: &str, value: &str) -> Result<(), StoreError> {
        use schema::settings::dsl;
        diesel::replace_into(dsl::settings)
            .values((dsl::key.eq(key), dsl::value.eq(value)))
            .execute(&mut self.connection()?)?;
        Ok(())
    }

    /// Reads everything a brief can name.
    ///
    /// # Errors
    /// [`StoreError`], also for a record that does not pass the core's checks.
    pub fn catalogue(&self) -> Result<Catalogue, StoreError> {
        self.connection()?
            .transaction(|connection| read(connection))
    }
}

fn migrate(connection: &mut SqliteConnection, path: &Path) -> Result<(), StoreError> {
    let failed = |e: Box<dyn std::error::Error + Send + Sync>| StoreError::Migrate(e.to_string());
    let applied = connection.applied_migrations().map_err(failed)?;
    let pending = connection
        .has_pending_migration(MIGRATIONS)
        .map_err(failed)?;
    if pending && !applied.is_empty() {
        // Path of a plain file beside the database; quotes doubled for SQL.
        let copy = path.with_extension(format!("before-{}.db", applied.len() + 1));
        if !copy.exists() {
            let target = copy.to_string_lossy().replace('\'', "''");
            connection
                .batch_execute(&format!("VACUUM INTO '{target}'"))
                .map_err(|e| StoreError::Migrate(format!("no backup copy: {e}")))?;
        }
    }
    connection
        .run_pending_migrations(MIGRATIONS)
        .map_err(failed)?;
    Ok(())
}

fn fill(connection: &mut SqliteConnection, catalogue: &Catalogue) -> Result<(), StoreError> {
    for record in &catalogue.hulls {
        let (hull, readings) = HullRow::of(record)?;
        diesel::insert_into(schema::hulls::table)
            .values(hull)
            .execute(connection)?;
        diesel::insert_into(schema::readings::table)
            .values(readings)
            .execute(connection)?;
        diesel::insert_into(schema::evidence::table)
            .values(EvidenceRow::of(&record.survey)?)
            .execute(connection)?;
    }
    for (position, water) in (0..).zip(&catalogue.waters) {
        diesel::insert_into(schema::waters::table)
            .values(WaterRow::of(position, water)?)
            .execute(connection)?;
    }
    for (position, rig) in (0..).zip(&catalogue.rigs) {
        diesel::insert_into(schema::rigs::table)
            .values(RigRow {
                key: rig.key.clone(),
                position,
                name: rig.name.clone(),
            })
            .execute(connection)?;
        let lines: Vec<LineRow> = LineRow::of(rig).collect();
        diesel::insert_into(schema::rig_lines::table)
            .values(lines)
            .execute(connection)?;
    }
    for (position, brief) in (0..).zip(&catalogue.briefs) {
        let row = brief_row(position, brief)?;
        row.check()?;
        diesel::insert_into(schema::briefs::table)
            .values(row)
            .execute(connection)?;
    }
    Ok(())
}

fn brief_row(position: i32, brief: &BriefFile) -> Result<BriefRow, StoreError> {
    let RigRef::Key(rig_key) = &brief.rig else {
        return Err(StoreError::BadRecord {
            table: "briefs",
            key: brief.key.clone(),
            problem: "a saved brief names a rig by its key".to_owned(),
        });
    };
    Ok(BriefRow {
        key: brief.key.clone(),
        position,
        name: brief.name.clone(),
        crew_mass: brief.crew.mass_kg,
        crew_stature: brief.crew.stature_m,
        posture: brief.posture.clone(),
        rig_key: rig_key.clone(),
        water_key: brief.water.clone(),
        scuppers: brief.scuppers.clone(),
        seat: brief.seat.clone(),
        capacity_weight: brief.capacity_weight,
        longest: brief.must.longest_m,
        heaviest_lift: brief.must.heaviest_lift_kg,
        budget: brief.must.budget,
        capacity_school: brief.capacity_school.clone(),
        stability_school: brief.stability_school.clone(),
    })
}

fn read(connection: &mut SqliteConnection) -> Result<Catalogue, StoreError> {
    let mut readings: BTreeMap<String, Vec<ReadingRow>> = BTreeMap::new();
    for row in schema::readings::table
        .order(schema::readings::id)
        .select(ReadingRow::as_select())
        .load(connection)?
    {
        readings.entry(row.hull_key.clone()).or_default().push(row);
    }
    let mut evidence: BTreeMap<String, Vec<String>> = BTreeMap::new();
    for row in schema::evidence::table
        .order(schema::evidence::id)
        .select(EvidenceRow::as_select())
        .load(connection)?
    {
        evidence.entry(row.hull_key).or_default().push(row.entry);
    }
    let hulls = schema::hulls::table
        .order(schema::hulls::key)
        .select(HullRow::as_select())
        .load(connection)?
        .into_iter()
        .map(|row| {
            let own = readings.remove(&row.key).unwrap_or_default();
            let afloat = evidence.remove(&row.key).unwrap_or_default();
            row.record(&own, &afloat)
        })
        .collect::<Result<_, _>>()?;
    let waters = schema::waters::table
        .order(schema::waters::position)
        .select(WaterRow::as_select())
        .load(connection)?
        .into_iter()
        .map(WaterRow::water)
        .collect::<Result<_, _>>()?;
    let mut lines: BTreeMap<String, Vec<_>> = BTreeMap::new();
    for row in schema::rig_lines::table
        .order(schema::rig_lines::id)
        .select(LineRow::as_select())
        .load(connection)?
    {
        lines
            .entry(row.rig_key.clone())
            .or_default()
            .push(row.line()?);
    }
    let rigs = schema::rigs::table
        .order(schema::rigs::position)
        .select(RigRow::as_select())
        .load(connection)?
        .into_iter()
        .map(|row| Rig {
            lines: lines.remove(&row.key).unwrap_or_default(),
            key: row.key,
            name: row.name,
        })
        .collect();
    let briefs = schema::briefs::table
        .order(schema::briefs::position)
        .select(BriefRow::as_select())
        .load(connection)?
        .into_iter()
        .map(brief_file)
        .collect();
    Ok(Catalogue {
        hulls,
        waters,
        rigs,
        briefs,
    })
}

fn brief_file(row: BriefRow) -> BriefFile {
    BriefFile {
        key: row.key,
        name: row.name,
        crew: CrewEntry {
            mass_kg: row.crew_mass,
            stature_m: row.crew_stature,
        },
        posture: row.posture,
        rig: RigRef::Key(row.rig_key),
        water: row.water_key,
        scuppers: row.scuppers,
        seat: row.seat,
        capacity_weight: row.capacity_weight,
        must: MustEntry {
            longest_m: row.longest,
            heaviest_lift_kg: row.heaviest_lift,
            budget: row.budget,
        },
        capacity_school: row.capacity_school,
        stability_school: row.stability_school,
    }
}

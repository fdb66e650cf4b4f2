//! The data directory: locked, opened, copied aside and brought up to date.

use super::journal::{self, State};
use super::{rows, schema};
use crate::error::StoreError;
use diesel::connection::SimpleConnection;
use diesel::migration::MigrationSource;
use diesel::prelude::*;
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool, PooledConnection};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use std::fs::{self, File};
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Duration;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");
pub(super) const DATABASE: &str = "galvet.db";
/// Connections kept: SQLite has one writer, and pages read briefly.
const CONNECTIONS: u32 = 4;

/// An open data directory.
#[derive(Debug, Clone)]
pub struct Store {
    directory: PathBuf,
    pool: Pool<ConnectionManager<SqliteConnection>>,
    /// Held as long as the store lives, so that no second Galvet opens it; `None` beside
    /// one that has it open.
    _lock: Option<Arc<File>>,
}

#[derive(Debug)]
struct Pragmas;

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Pragmas {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        connection
            .batch_execute(
                "PRAGMA busy_timeout = 5000; PRAGMA journal_mode = WAL; \
                 PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;",
            )
            .map_err(diesel::r2d2::Error::QueryError)
    }
}

/// A connection outside the pool, set up like those in it.
pub(super) fn customized(path: &str) -> Result<SqliteConnection, StoreError> {
    let broken = |reason: String| StoreError::Open {
        path: PathBuf::from(path),
        reason,
    };
    let mut connection = SqliteConnection::establish(path).map_err(|e| broken(e.to_string()))?;
    Pragmas
        .on_acquire(&mut connection)
        .map_err(|e| broken(e.to_string()))?;
    Ok(connection)
}

/// A connection that changes nothing, not even beside the file: also in a directory that
/// cannot be written, and while another Galvet writes there.
pub(super) fn read_only(path: &str) -> Result<SqliteConnection, StoreError> {
    // A path in a URI: what would end or escape it is written out.
    let escaped: String = path
        .chars()
        .map(|c| match c {
            '%' => "%25".to_owned(),
            '?' => "%3f".to_owned(),
            '#' => "%23".to_owned(),
            c => c.to_string(),
        })
        .collect();
    let open = |how: &str| {
        let mut connection = SqliteConnection::establish(&format!("file:{escaped}?{how}"))
            .map_err(|e| e.to_string())?;
        connection
            .batch_execute("PRAGMA busy_timeout = 5000; SELECT count(*) FROM sqlite_schema")
            .map_err(|e| e.to_string())?;
        Ok(connection)
    };
    // Without a log nobody has it open, and nothing is put beside it; where a log's index
    // cannot be put beside it nobody writes it either.
    let logged = Path::new(&format!("{path}-wal")).exists();
    let [first, second] = if logged {
        ["mode=ro", "mode=ro&immutable=1"]
    } else {
        ["mode=ro&immutable=1", "mode=ro"]
    };
    open(first)
        .or_else(|_| open(second))
        .map_err(|reason| StoreError::Open {
            path: path.into(),
            reason,
        })
}

/// The database's path in a form that SQLite takes as a plain file name: an
/// absolute one, so that a directory called `file:x` is not read as a URI.
pub(super) fn database_path(directory: &Path) -> Result<String, StoreError> {
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

/// What is locked: the directory itself, which nobody can take away and put
/// another one in its place while its files stay.
#[cfg(unix)]
fn lockable(directory: &Path) -> std::io::Result<File> {
    File::open(directory)
}

/// What is locked: a file, which this system keeps while it is open.
#[cfg(not(unix))]
fn lockable(directory: &Path) -> std::io::Result<File> {
    let mut options = File::options();
    options.create(true).truncate(false).write(true);
    options.open(directory.join("galvet.lock"))
}

/// Whether a directory has a database that no Galvet holds.
#[must_use]
pub fn is_left(directory: &Path) -> bool {
    directory.join(DATABASE).exists()
        && lockable(directory).is_ok_and(|file| file.try_lock().is_ok())
}

fn lock(directory: &Path) -> Result<File, StoreError> {
    let unwritable = |source| StoreError::Unwritable {
        path: directory.to_owned(),
        source,
    };
    fs::create_dir_all(directory).map_err(unwritable)?;
    let file = lockable(directory).map_err(unwritable)?;
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
        // A first connection by hand: the pool would retry for half a minute.
        let mut first = customized(&path)?;
        migrate(&mut first, Path::new(&path))?;
        rows::make_sheets(&mut first)?;
        if journal::names_unknown(&mut first)? {
            return Err(StoreError::Newer { path: path.into() });
        }
        first.immediate_transaction(journal::adopt)?;
        super::pictures::sweep(&mut first)?;
        drop(first);
        Self::pooled(&path, Some(Arc::new(lock)))
    }

    /// The same, also while another Galvet serves it: then nothing is brought up to date,
    /// and what is written here that one finds in its database.
    ///
    /// # Errors
    /// [`StoreError`]; [`StoreError::InUse`] where the other one is of an earlier edition.
    pub fn open_beside(directory: &Path) -> Result<Self, StoreError> {
        let in_use = match Self::open(directory) {
            Err(error @ StoreError::InUse { .. }) => error,
            opened => return opened,
        };
        let path = database_path(directory)?;
        if is_behind(&mut customized(&path)?, Path::new(&path))? {
            return Err(in_use);
        }
        Self::pooled(&path, None)
    }

    fn pooled(path: &str, lock: Option<Arc<File>>) -> Result<Self, StoreError> {
        let pool = Pool::builder()
            .max_size(CONNECTIONS)
            .min_idle(Some(1))
            .connection_timeout(Duration::from_secs(5))
            .connection_customizer(Box::new(Pragmas))
            .build(ConnectionManager::new(path))?;
        let directory = Path::new(path).parent().unwrap_or(Path::new("."));
        Ok(Self {
            directory: directory.to_owned(),
            pool,
            _lock: lock,
        })
    }

    /// Where it is kept.
    #[must_use]
    pub fn directory(&self) -> &Path {
        &self.directory
    }

    pub(super) fn connection(
        &self,
    ) -> Result<PooledConnection<ConnectionManager<SqliteConnection>>, StoreError> {
        Ok(self.pool.get()?)
    }

    /// The state of the records: equal states, equal records. Asked of the
    /// database, since another program may have restored it.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn state(&self) -> Result<State, StoreError> {
        let mut connection = self.connection()?;
        connection.transaction(|connection| journal::state(connection))
    }

    /// Whether nothing has been put in yet.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn is_empty(&self) -> Result<bool, StoreError> {
        let mut connection = self.connection()?;
        let hulls: i64 = schema::hulls::table.count().get_result(&mut connection)?;
        let waters: i64 = schema::waters::table.count().get_result(&mut connection)?;
        Ok(hulls == 0 && waters == 0)
    }
}

fn failed(error: Box<dyn std::error::Error + Send + Sync>) -> StoreError {
    StoreError::Migrate(error.to_string())
}

/// Whether a database was written by an earlier Galvet.
///
/// # Errors
/// [`StoreError::Newer`] for one written by a later one.
pub(super) fn is_behind(
    connection: &mut SqliteConnection,
    path: &Path,
) -> Result<bool, StoreError> {
    from_the_past(connection, path)?;
    connection.has_pending_migration(MIGRATIONS).map_err(failed)
}

/// Editions applied so far; refuses one that is not known here.
fn from_the_past(connection: &mut SqliteConnection, path: &Path) -> Result<usize, StoreError> {
    let applied = connection.applied_migrations().map_err(failed)?;
    let known: Vec<String> = MigrationSource::<diesel::sqlite::Sqlite>::migrations(&MIGRATIONS)
        .map_err(failed)?
        .iter()
        .map(|m| m.name().version().to_string())
        .collect();
    if applied.iter().any(|a| !known.contains(&a.to_string())) {
        return Err(StoreError::Newer {
            path: path.to_owned(),
        });
    }
    Ok(applied.len())
}

fn migrate(connection: &mut SqliteConnection, path: &Path) -> Result<(), StoreError> {
    let applied = from_the_past(connection, path)?;
    let pending = connection
        .has_pending_migration(MIGRATIONS)
        .map_err(failed)?;
    if pending && applied > 0 {
        // Path of a plain file beside the database; quotes doubled for SQL.
        let copy = path.with_extension(format!("before-{}.db", applied + 1));
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

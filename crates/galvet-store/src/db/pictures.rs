//! The pixels of photos: kept once under a name made of themselves, never changed, so that
//! records, journal and undo need only name them.

use super::schema::pictures;
use crate::error::StoreError;
use crate::files::photo::Picture;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::Text;

/// Most pictures kept in one installation.
const MOST: i64 = 4_000;

/// Whether there is a picture of a name.
pub(super) fn is_there(connection: &mut SqliteConnection, name: &str) -> Result<bool, StoreError> {
    let row = pictures::table.find(name).select(pictures::name);
    Ok(row.first::<String>(connection).optional()?.is_some())
}

/// Keeps a picture; its name.
pub(super) fn keep(
    connection: &mut SqliteConnection,
    picture: &Picture,
) -> Result<String, StoreError> {
    let name = picture.name();
    if is_there(connection, &name)? {
        return Ok(name);
    }
    let kept: i64 = pictures::table.count().get_result(connection)?;
    if kept >= MOST {
        let full = format!("{MOST} pictures are kept already");
        return Err(StoreError::Reference(full));
    }
    let row = (
        pictures::name.eq(&name),
        pictures::jpeg.eq(picture.jpeg.as_slice()),
    );
    diesel::insert_into(pictures::table)
        .values(row)
        .execute(connection)?;
    Ok(name)
}

/// The JPEG of a name.
pub(super) fn jpeg(
    connection: &mut SqliteConnection,
    name: &str,
) -> Result<Option<Vec<u8>>, StoreError> {
    let row = pictures::table.find(name).select(pictures::jpeg);
    Ok(row.first(connection).optional()?)
}

/// What no photo and no line of the journal names.
const UNNAMED: &str = "name NOT IN (SELECT json_extract(document, '$.picture') FROM photos) \
     AND name NOT IN (SELECT json_extract(after, '$.picture') FROM journal \
       WHERE kind = 'photo' AND after IS NOT NULL)";

/// Takes out the pixels no photo and no line of the journal names: those of files that were
/// looked over and not taken in.
pub(super) fn sweep(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    connection.batch_execute(&format!("DELETE FROM pictures WHERE {UNNAMED}"))?;
    Ok(())
}

/// Takes out the pixels of photos that are gone, where nothing else names them.
pub(super) fn let_go(
    connection: &mut SqliteConnection,
    names: &[String],
) -> Result<(), StoreError> {
    for name in names {
        sql_query(format!("DELETE FROM pictures WHERE name = ? AND {UNNAMED}"))
            .bind::<Text, _>(name)
            .execute(connection)?;
    }
    Ok(())
}

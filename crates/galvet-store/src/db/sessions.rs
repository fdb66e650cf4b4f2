//! Who is in at the moment: sessions, known by a hash of what the browser keeps.

use super::Store;
use super::people::{COLUMNS, Person, person};
use super::schema::{people, sessions};
use crate::error::StoreError;
use diesel::prelude::*;

/// A session unused for so long is over: half a day, a shop's longest.
const IDLE_MS: i64 = 12 * 60 * 60 * 1_000;
/// A session is over after this, however much it is used.
const LONGEST_MS: i64 = 30 * 24 * 60 * 60 * 1_000;
/// It is written down that one is used no oftener than this.
const SEEN_MS: i64 = 5 * 60 * 1_000;
/// Most sessions of one person; the one unused for longest goes.
const MOST: i64 = 20;

/// A session to be opened.
#[derive(Debug, Clone)]
pub struct Opened<'a> {
    /// SHA-256 of what the browser keeps, hexadecimal.
    pub hash: &'a str,
    /// Whose it is.
    pub person: i64,
    /// What the browser calls itself.
    pub browser: &'a str,
}

/// A session as a list shows it.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct Session {
    /// Its number.
    pub id: i64,
    /// Whose it is.
    pub person: i64,
    /// What the browser calls itself.
    pub browser: String,
    /// When it began, milliseconds since 1970.
    pub made_at: i64,
    /// When it was last used, to five minutes.
    pub seen_at: i64,
}

/// Who somebody is by their session.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Standing {
    /// Who.
    pub person: Person,
    /// The session's number.
    pub session: i64,
    /// When the password was last given, milliseconds since 1970.
    pub proved_at: i64,
}

impl Store {
    /// Opens a session at a moment (milliseconds since 1970); what is over goes.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn open_session(&self, new: &Opened<'_>, at: i64) -> Result<(), StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            diesel::delete(
                sessions::table.filter(
                    sessions::seen_at
                        .lt(at - IDLE_MS)
                        .or(sessions::made_at.lt(at - LONGEST_MS)),
                ),
            )
            .execute(connection)?;
            let too_many: Vec<i64> = sessions::table
                .filter(sessions::person.eq(new.person))
                .order(sessions::seen_at.desc())
                .offset(MOST - 1)
                .limit(i64::MAX)
                .select(sessions::id)
                .load(connection)?;
            diesel::delete(sessions::table.filter(sessions::id.eq_any(too_many)))
                .execute(connection)?;
            diesel::insert_into(sessions::table)
                .values((
                    sessions::hash.eq(new.hash),
                    sessions::person.eq(new.person),
                    sessions::browser.eq(new.browser),
                    sessions::made_at.eq(at),
                    sessions::seen_at.eq(at),
                    sessions::proved_at.eq(at),
                ))
                .execute(connection)?;
            Ok(())
        })
    }

    /// Who somebody is by their session, at a moment; `None` where it is over, or theirs no
    /// more.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn standing(&self, hash: &str, at: i64) -> Result<Option<Standing>, StoreError> {
        let mut connection = self.connection()?;
        let found = sessions::table
            .inner_join(people::table)
            .filter(sessions::hash.eq(hash))
            .filter(people::left_at.is_null())
            .filter(sessions::seen_at.ge(at - IDLE_MS))
            .filter(sessions::made_at.ge(at - LONGEST_MS))
            .select((
                COLUMNS,
                (sessions::id, sessions::seen_at, sessions::proved_at),
            ))
            .first(&mut connection)
            .optional()?;
        let Some((row, (session, seen_at, proved_at))) = found else {
            return Ok(None);
        };
        let seen_at: i64 = seen_at;
        if at - seen_at > SEEN_MS {
            diesel::update(sessions::table.find(session))
                .set(sessions::seen_at.eq(at))
                .execute(&mut connection)?;
        }
        Ok(Some(Standing {
            person: person(row),
            session,
            proved_at,
        }))
    }

    /// The password was given again.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn proved(&self, session: i64, at: i64) -> Result<(), StoreError> {
        diesel::update(sessions::table.find(session))
            .set(sessions::proved_at.eq(at))
            .execute(&mut self.connection()?)?;
        Ok(())
    }

    /// Sessions that are not over at a moment, last used first: somebody's, or all.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn sessions(&self, person: Option<i64>, at: i64) -> Result<Vec<Session>, StoreError> {
        let mut asked = sessions::table
            .filter(sessions::seen_at.ge(at - IDLE_MS))
            .filter(sessions::made_at.ge(at - LONGEST_MS))
            .order(sessions::seen_at.desc())
            .select((
                sessions::id,
                sessions::person,
                sessions::browser,
                sessions::made_at,
                sessions::seen_at,
            ))
            .into_boxed();
        if let Some(person) = person {
            asked = asked.filter(sessions::person.eq(person));
        }
        Ok(asked.load(&mut self.connection()?)?)
    }

    /// Ends the session of a hash.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn end_session(&self, hash: &str) -> Result<(), StoreError> {
        diesel::delete(sessions::table.filter(sessions::hash.eq(hash)))
            .execute(&mut self.connection()?)?;
        Ok(())
    }

    /// Ends a session of the list: one's own, or anybody's where nobody is named. Whether
    /// there was one.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn end_listed(&self, session: i64, of: Option<i64>) -> Result<bool, StoreError> {
        let mut connection = self.connection()?;
        let listed = sessions::table.filter(sessions::id.eq(session));
        let gone = match of {
            Some(person) => diesel::delete(listed.filter(sessions::person.eq(person)))
                .execute(&mut connection)?,
            None => diesel::delete(listed).execute(&mut connection)?,
        };
        Ok(gone > 0)
    }
}

//! Who may come in, and what was done to accounts.
//!
//! People are no records: they stand in no exchange file and no journal, so that no import
//! makes an owner. What is done to them has a log of its own.

use super::Store;
use super::door::now;
use super::schema::{account_log, people, sessions};
use crate::error::StoreError;
use diesel::prelude::*;

/// What somebody may do; each may do what the ones before it may.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Role {
    /// Reads, asks, keeps a shortlist.
    Looker,
    /// Everything but what is the owner's.
    Staff,
    /// People, backups, guide values.
    Owner,
}

impl Role {
    /// All of them, the least first.
    pub const ALL: [Self; 3] = [Self::Looker, Self::Staff, Self::Owner];

    /// Its word.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Looker => "looker",
            Self::Staff => "staff",
            Self::Owner => "owner",
        }
    }

    /// What it means.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Looker => "looks on: reads, asks, keeps a shortlist",
            Self::Staff => "staff: everything but people and backups",
            Self::Owner => "owner: people and backups as well",
        }
    }

    /// The role of a word.
    #[must_use]
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|role| role.key() == key)
    }
}

/// Somebody who may come in, or could.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Person {
    /// Their number.
    pub id: i64,
    /// What the journal calls them, behind the word *person*: 14 hexadecimal digits.
    pub handle: String,
    /// What people call them.
    pub name: String,
    /// What they may do.
    pub role: Role,
    /// Since when they have a password that somebody else chose, milliseconds since 1970;
    /// `None` for who chose their own.
    pub lent_at: Option<i64>,
    /// Since when, milliseconds since 1970.
    pub since: i64,
    /// When they were shut out; `None` for who may come in.
    pub left_at: Option<i64>,
}

impl Person {
    /// Whether somebody else chose their password.
    #[must_use]
    pub const fn is_lent(&self) -> bool {
        self.lent_at.is_some()
    }
}

/// Somebody to be let in.
#[derive(Debug, Clone)]
pub struct NewPerson<'a> {
    /// 14 hexadecimal digits, random.
    pub handle: &'a str,
    /// Their name, checked.
    pub name: &'a str,
    /// What they may do.
    pub role: Role,
    /// The hash of their password.
    pub password: &'a str,
    /// Whether they have to choose one of their own first.
    pub lent: bool,
}

/// What was done to an account.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct Noted {
    /// When, milliseconds since 1970.
    pub at: i64,
    /// By whom, as the journal calls them.
    pub who: String,
    /// To whom: a handle.
    pub about: String,
    /// What.
    pub act: String,
}

/// A row of people, without the password.
type Row = (i64, String, String, String, Option<i64>, i64, Option<i64>);

pub(super) type Columns = (
    people::id,
    people::handle,
    people::name,
    people::role,
    people::lent_at,
    people::since,
    people::left_at,
);
pub(super) const COLUMNS: Columns = (
    people::id,
    people::handle,
    people::name,
    people::role,
    people::lent_at,
    people::since,
    people::left_at,
);

/// The person of a row. A role nobody knows is the least there is.
pub(super) fn person((id, handle, name, role, lent_at, since, left_at): Row) -> Person {
    Person {
        id,
        handle,
        name,
        role: Role::from_key(&role).unwrap_or(Role::Looker),
        lent_at,
        since,
        left_at,
    }
}

/// A name as it is compared.
fn folded(name: &str) -> String {
    name.trim().to_lowercase()
}

fn note(
    connection: &mut SqliteConnection,
    (who, about): (&str, &str),
    act: &str,
) -> Result<(), StoreError> {
    diesel::insert_into(account_log::table)
        .values((
            account_log::at.eq(now()),
            account_log::who.eq(who),
            account_log::about.eq(about),
            account_log::act.eq(act),
        ))
        .execute(connection)?;
    Ok(())
}

/// Somebody by their number, in or out.
fn one(connection: &mut SqliteConnection, id: i64) -> Result<Person, StoreError> {
    let row: Option<Row> = people::table
        .find(id)
        .select(COLUMNS)
        .first(connection)
        .optional()?;
    row.map(person)
        .ok_or(StoreError::Nothing("there is nobody of that number"))
}

/// Refuses to leave nobody who may let others in.
fn an_owner_stays(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    let owners: i64 = people::table
        .filter(people::left_at.is_null())
        .filter(people::role.eq(Role::Owner.key()))
        .count()
        .get_result(connection)?;
    if owners == 0 {
        return Err(StoreError::Nothing(
            "that is the only owner; make somebody else one first",
        ));
    }
    Ok(())
}

impl Store {
    /// Everybody, those who may come in first, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn people(&self) -> Result<Vec<Person>, StoreError> {
        let rows: Vec<Row> = people::table
            .order((people::left_at.is_not_null(), people::folded, people::id))
            .select(COLUMNS)
            .load(&mut self.connection()?)?;
        Ok(rows.into_iter().map(person).collect())
    }

    /// Whether anybody has an account.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn has_people(&self) -> Result<bool, StoreError> {
        let some: Option<i64> = people::table
            .filter(people::left_at.is_null())
            .select(people::id)
            .first(&mut self.connection()?)
            .optional()?;
        Ok(some.is_some())
    }

    /// Whoever may come in under a name, with the hash of their password.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn person_named(&self, name: &str) -> Result<Option<(Person, String)>, StoreError> {
        let row: Option<(Row, String)> = people::table
            .filter(people::folded.eq(folded(name)))
            .filter(people::left_at.is_null())
            .select((COLUMNS, people::password))
            .first(&mut self.connection()?)
            .optional()?;
        Ok(row.map(|(row, hash)| (person(row), hash)))
    }

    /// Lets somebody in.
    ///
    /// # Errors
    /// [`StoreError::Somebody`] for a name somebody has.
    pub fn let_in(&self, by: &str, new: &NewPerson<'_>) -> Result<Person, StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            let name = new.name.trim();
            let row = (
                people::handle.eq(new.handle),
                people::name.eq(name),
                people::folded.eq(folded(name)),
                people::role.eq(new.role.key()),
                people::password.eq(new.password),
                people::lent_at.eq(new.lent.then(now)),
                people::since.eq(now()),
            );
            let added = diesel::insert_into(people::table)
                .values(row)
                .returning(people::id)
                .get_result(connection);
            let id: i64 = added.map_err(|error| taken(error, name))?;
            let act = format!("let in as {}", new.role.key());
            note(connection, (by, new.handle), &act)?;
            one(connection, id)
        })
    }

    /// Gives somebody another role; what they have open goes on with it.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] for nobody, and for the only owner.
    pub fn set_role(&self, by: &str, id: i64, role: Role) -> Result<(), StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            let who = one(connection, id)?;
            diesel::update(people::table.find(id))
                .set(people::role.eq(role.key()))
                .execute(connection)?;
            an_owner_stays(connection)?;
            let act = format!("made {}, was {}", role.key(), who.role.key());
            note(connection, (by, &who.handle), &act)
        })
    }

    /// Sets somebody's password; every session of theirs ends, but for one that is kept.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] for nobody.
    pub fn set_password(
        &self,
        by: &str,
        id: i64,
        (hash, lent): (&str, bool),
        keep: Option<&str>,
    ) -> Result<(), StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            let who = one(connection, id)?;
            diesel::update(people::table.find(id))
                .set((
                    people::password.eq(hash),
                    people::lent_at.eq(lent.then(now)),
                ))
                .execute(connection)?;
            diesel::delete(
                sessions::table
                    .filter(sessions::person.eq(id))
                    .filter(sessions::hash.ne(keep.unwrap_or_default())),
            )
            .execute(connection)?;
            note(connection, (by, &who.handle), "password changed")
        })
    }

    /// Shuts somebody out: their sessions end, their changes stay under their name.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] for nobody, and for the only owner.
    pub fn shut_out(&self, by: &str, id: i64) -> Result<(), StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            let who = one(connection, id)?;
            diesel::update(people::table.find(id))
                .set(people::left_at.eq(now()))
                .execute(connection)?;
            an_owner_stays(connection)?;
            diesel::delete(sessions::table.filter(sessions::person.eq(id))).execute(connection)?;
            note(connection, (by, &who.handle), "shut out")
        })
    }

    /// Lets somebody in again who was shut out.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] for nobody, [`StoreError::Somebody`] where somebody else has
    /// the name by now.
    pub fn let_back(&self, by: &str, id: i64) -> Result<(), StoreError> {
        self.connection()?.immediate_transaction(|connection| {
            let who = one(connection, id)?;
            diesel::update(people::table.find(id))
                .set(people::left_at.eq(None::<i64>))
                .execute(connection)
                .map_err(|error| taken(error, &who.name))?;
            note(connection, (by, &who.handle), "let in again")
        })
    }

    /// Notes something that was done to whoever `about` stands for.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn note_account(&self, by: &str, about: &str, act: &str) -> Result<(), StoreError> {
        note(&mut *self.connection()?, (by, about), act)
    }

    /// What was done to accounts, newest first: at most so many.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn account_log(&self, most: u32) -> Result<Vec<Noted>, StoreError> {
        Ok(account_log::table
            .order(account_log::id.desc())
            .limit(most.into())
            .select((
                account_log::at,
                account_log::who,
                account_log::about,
                account_log::act,
            ))
            .load(&mut self.connection()?)?)
    }
}

/// A name that is somebody's already.
fn taken(error: diesel::result::Error, name: &str) -> StoreError {
    use diesel::result::DatabaseErrorKind::UniqueViolation;
    match error {
        diesel::result::Error::DatabaseError(UniqueViolation, _) => {
            StoreError::Somebody(name.to_owned())
        }
        error => error.into(),
    }
}

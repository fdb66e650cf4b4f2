//! Which record: its kind, its number, its revision.

use crate::files::SHEETS;
use crate::files::sheet::{Sheet, SheetKind};
use diesel::prelude::*;
use diesel::sql_types::BigInt;

/// Kinds of records.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Kind {
    /// A hull with its readings, evidence and sections.
    Hull,
    /// A water type.
    Water,
    /// A thing on the shelf.
    Gear,
    /// A rig with its lines.
    Rig,
    /// A saved question.
    Brief,
    /// A record that is one document.
    Sheet(SheetKind),
}

impl Kind {
    /// The kind of a type of record that is one document.
    #[must_use]
    pub const fn of<S: Sheet>() -> Self {
        Self::Sheet(SheetKind::of::<S>())
    }

    /// All kinds, in an order in which what is referred to comes first.
    pub fn all() -> impl Iterator<Item = Self> {
        let own = [Self::Hull, Self::Water, Self::Gear, Self::Rig, Self::Brief];
        let sheets = SHEETS.iter().map(|shape| Self::Sheet(shape.kind));
        own.into_iter().chain(sheets)
    }

    /// The word in the journal.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Hull => "hull",
            Self::Water => "water",
            Self::Gear => "gear",
            Self::Rig => "rig",
            Self::Brief => "brief",
            Self::Sheet(kind) => kind.key,
        }
    }

    /// Its table.
    pub(crate) const fn table(self) -> &'static str {
        match self {
            Self::Hull => "hulls",
            Self::Water => "waters",
            Self::Gear => "gear",
            Self::Rig => "rigs",
            Self::Brief => "briefs",
            Self::Sheet(kind) => kind.plural,
        }
    }

    pub(crate) fn from_key(key: &str) -> Option<Self> {
        Self::all().find(|k| k.key() == key)
    }
}

/// A record as somebody knows it: by id, at a revision.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, QueryableByName)]
pub struct Known {
    /// Its id, for good.
    #[diesel(sql_type = BigInt)]
    pub id: i64,
    /// The revision known.
    #[diesel(sql_type = BigInt)]
    pub revision: i64,
}

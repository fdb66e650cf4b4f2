//! Which record: its kind, its number, its revision.

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
    /// A setting of this installation.
    Setting,
}

impl Kind {
    /// All kinds, in an order in which what is referred to comes first.
    pub const ALL: [Self; 6] = [
        Self::Hull,
        Self::Water,
        Self::Gear,
        Self::Rig,
        Self::Brief,
        Self::Setting,
    ];

    /// The word in the journal.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Hull => "hull",
            Self::Water => "water",
            Self::Gear => "gear",
            Self::Rig => "rig",
            Self::Brief => "brief",
            Self::Setting => "setting",
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
            Self::Setting => "settings",
        }
    }

    pub(crate) fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|k| k.key() == key)
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

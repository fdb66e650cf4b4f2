//! What the database keeps: one kind of record each with its JSON document.

use super::kind::Kind;
use super::merge::over;
use crate::error::StoreError;
use crate::files::gear::GearEntry;
use crate::files::hull_doc::HullDoc;
use crate::files::hulls::HullRecord;
use crate::files::rigs::{self, RigEntry};
use crate::files::sheet::{self, Document};
use crate::files::waters::{self, WaterEntry};
use galvet_core::gear::Gear;
use galvet_core::question::Water;
use galvet_core::rig::Rig;
use serde::{Deserialize, Serialize};
use serde_json::Value;

/// A saved question: its parts as a JSON object, which only the question's own
/// table understands. The rig and the water it names are known here, so that
/// neither is destroyed under it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SavedBrief {
    /// Slug.
    pub key: String,
    /// Name.
    pub name: String,
    /// For whom it is kept; empty for oneself.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub customer: String,
    /// The parts.
    pub question: Value,
}

impl SavedBrief {
    /// Its name, with whom it is for before it.
    #[must_use]
    pub fn titled(&self) -> String {
        if self.customer.is_empty() {
            self.name.clone()
        } else {
            format!("{}: {}", self.customer, self.name)
        }
    }

    /// Slug of something the question names.
    #[must_use]
    pub fn names(&self, part: &str) -> Option<&str> {
        // No rig is none of the records.
        self.question
            .get(part)?
            .as_str()
            .filter(|slug| *slug != NOTHING)
    }
}

/// How a question says that no rig is carried.
pub const NOTHING: &str = "none";

/// One record.
#[derive(Debug, Clone, PartialEq)]
pub enum Record {
    /// A hull.
    Hull(Box<HullRecord>),
    /// A water type.
    Water(Water),
    /// A thing on the shelf.
    Gear(Box<Gear>),
    /// A rig.
    Rig(Rig),
    /// A saved question.
    Brief(SavedBrief),
    /// A record that is one document.
    Sheet(Document),
}

impl Record {
    /// Its kind.
    #[must_use]
    pub const fn kind(&self) -> Kind {
        match self {
            Self::Hull(_) => Kind::Hull,
            Self::Water(_) => Kind::Water,
            Self::Gear(_) => Kind::Gear,
            Self::Rig(_) => Kind::Rig,
            Self::Brief(_) => Kind::Brief,
            Self::Sheet(sheet) => Kind::Sheet(sheet.kind),
        }
    }

    /// Its slug.
    #[must_use]
    pub fn slug(&self) -> &str {
        match self {
            Self::Hull(hull) => &hull.survey.key,
            Self::Water(water) => &water.key,
            Self::Gear(gear) => &gear.key,
            Self::Rig(rig) => &rig.key,
            Self::Brief(brief) => &brief.key,
            Self::Sheet(sheet) => &sheet.slug,
        }
    }

    /// What people call it.
    #[must_use]
    pub fn name(&self) -> String {
        match self {
            Self::Hull(hull) => hull.survey.name(),
            Self::Water(water) => water.name.clone(),
            Self::Gear(gear) => gear.name.clone(),
            Self::Rig(rig) => rig.name.clone(),
            Self::Brief(brief) => brief.titled(),
            Self::Sheet(sheet) => sheet.name.clone(),
        }
    }

    /// Its document.
    ///
    /// # Errors
    /// [`StoreError::BadRecord`] for a number JSON cannot hold.
    pub fn document(&self) -> Result<Value, StoreError> {
        let value = match self {
            Self::Hull(hull) => serde_json::to_value(HullDoc::of(hull)),
            Self::Water(water) => serde_json::to_value(WaterEntry::of(water)),
            Self::Gear(gear) => serde_json::to_value(GearEntry::of(gear)),
            Self::Rig(rig) => serde_json::to_value(RigEntry::of(rig)),
            Self::Brief(brief) => serde_json::to_value(brief),
            Self::Sheet(sheet) => sheet.value(),
        };
        value.map_err(|e| StoreError::bad(self.kind(), self.slug(), e))
    }

    /// What a row of a table says put over this record.
    ///
    /// # Errors
    /// [`StoreError::BadRecord`] where both together make no record.
    pub fn told_over(&self, told: &Value) -> Result<Self, StoreError> {
        Self::of_document(self.kind(), over(&self.document()?, told))
    }

    /// The checked record of a document.
    ///
    /// # Errors
    /// [`StoreError::BadRecord`] with what is wrong.
    pub fn of_document(kind: Kind, document: Value) -> Result<Self, StoreError> {
        let name = document
            .get("key")
            .and_then(Value::as_str)
            .unwrap_or("?")
            .to_owned();
        let bad = |problem: String| StoreError::bad(kind, &name, problem);
        fn parsed<T: serde::de::DeserializeOwned>(value: Value) -> Result<T, String> {
            serde_json::from_value(value).map_err(|e| e.to_string())
        }
        Ok(match kind {
            Kind::Hull => {
                let doc: HullDoc = parsed(document).map_err(bad)?;
                Self::Hull(Box::new(doc.record().map_err(bad)?))
            }
            Kind::Water => {
                let entry: WaterEntry = parsed(document).map_err(bad)?;
                Self::Water(waters::water("", entry).map_err(|e| bad(e.problem))?)
            }
            Kind::Gear => {
                let entry: GearEntry = parsed(document).map_err(bad)?;
                Self::Gear(Box::new(entry.gear("").map_err(|e| bad(e.problem))?))
            }
            Kind::Rig => {
                let entry: RigEntry = parsed(document).map_err(bad)?;
                // Its lines carry what the shelf said when it was saved.
                Self::Rig(rigs::rig(entry, &[]).map_err(|e| bad(e.problem))?)
            }
            Kind::Brief => Self::Brief(parsed(document).map_err(bad)?),
            Kind::Sheet(kind) => Self::Sheet(sheet::read(kind, document).map_err(bad)?),
        })
    }
}

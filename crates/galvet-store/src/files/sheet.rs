//! Records that are one document: nothing else refers to their rows, so that a new kind
//! is a type with its checks here, and nothing in the database, the journal, the trash or
//! the exchange file has to know it.

use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

/// A kind of record that is one document. What is read of it has passed its check.
pub trait Sheet: Serialize + DeserializeOwned {
    /// The word in the journal.
    const KEY: &'static str;
    /// Its table, and its list in an exchange file.
    const PLURAL: &'static str;
    /// Fields that are their owner's: left out of what is handed on, unless asked for.
    const PRIVATE: &'static [&'static str] = &[];

    /// Whether one is somebody's own: then none is handed on, unless asked for.
    const PERSONAL: bool = false;

    /// Its slug.
    fn slug(&self) -> &str;

    /// What people call it.
    fn name(&self) -> &str;

    /// Checks what its type does not.
    ///
    /// # Errors
    /// What is wrong in it.
    fn check(&self) -> Result<(), String>;
}

/// Which kind of sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct SheetKind {
    /// The word in the journal.
    pub key: &'static str,
    /// Its table, and its list in an exchange file.
    pub plural: &'static str,
}

impl SheetKind {
    /// The kind of a type.
    #[must_use]
    pub const fn of<S: Sheet>() -> Self {
        Self {
            key: S::KEY,
            plural: S::PLURAL,
        }
    }
}

/// A kind, and how a document of it is read.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Shape {
    pub(crate) kind: SheetKind,
    /// Fields that are their owner's.
    pub(crate) private: &'static [&'static str],
    /// Whether one is somebody's own.
    pub(crate) personal: bool,
    pub(crate) read: fn(Value) -> Result<Document, String>,
}

impl Shape {
    pub(crate) const fn of<S: Sheet>() -> Self {
        Self {
            kind: SheetKind::of::<S>(),
            private: S::PRIVATE,
            personal: S::PERSONAL,
            read: Document::read::<S>,
        }
    }
}

/// A sheet of any kind.
#[derive(Debug, Clone, PartialEq)]
pub struct Document {
    /// Its kind.
    pub kind: SheetKind,
    /// Its slug.
    pub slug: String,
    /// What people call it.
    pub name: String,
    /// What it says.
    pub value: Value,
}

impl Document {
    /// A sheet as a document. One with a number JSON does not hold says nothing, and is
    /// refused by the door.
    #[must_use]
    pub fn of<S: Sheet>(sheet: &S) -> Self {
        Self {
            kind: SheetKind::of::<S>(),
            slug: sheet.slug().to_owned(),
            name: sheet.name().to_owned(),
            value: serde_json::to_value(sheet).unwrap_or_default(),
        }
    }

    /// The sheet a document is; `None` for one of another kind.
    #[must_use]
    pub fn sheet<S: Sheet>(&self) -> Option<S> {
        let ours = self.kind == SheetKind::of::<S>();
        ours.then(|| serde_json::from_value(self.value.clone()).ok())?
    }

    /// A checked document of a kind.
    fn read<S: Sheet>(value: Value) -> Result<Self, String> {
        let sheet: S = serde_json::from_value(value).map_err(|e| super::json_problem(&e))?;
        super::check_key(sheet.slug())?;
        sheet.check()?;
        Ok(Self::of(&sheet))
    }
}

/// The checked document of a kind.
pub(crate) fn read(kind: SheetKind, value: Value) -> Result<Document, String> {
    let shape = super::SHEETS.iter().find(|shape| shape.kind == kind);
    let shape = shape.ok_or_else(|| format!("“{}” is no kind of record", kind.key))?;
    (shape.read)(value)
}

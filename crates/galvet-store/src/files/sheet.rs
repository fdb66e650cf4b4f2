//! Records that are one document: nothing else refers to their rows, so that a new kind
//! is a type with its checks here, and nothing in the database, the journal, the trash or
//! the exchange file has to know it.

use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::{Map, Value};
use std::any::Any;
use std::fmt;
use std::sync::Arc;

/// A kind of record that is one document. What is read of it has passed its check.
pub trait Sheet: Serialize + DeserializeOwned + Clone + Send + Sync + 'static {
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

/// A sheet as a document holds it: of its own type, which only whoever asks for it names.
trait Held: Any + Send + Sync {
    fn value(&self) -> serde_json::Result<Value>;
}

impl<S: Sheet> Held for S {
    fn value(&self) -> serde_json::Result<Value> {
        serde_json::to_value(self)
    }
}

/// A sheet of any kind. It is read once, however often it is asked for: copies share it.
#[derive(Clone)]
pub struct Document {
    /// Its kind.
    pub kind: SheetKind,
    /// Its slug.
    pub slug: String,
    /// What people call it.
    pub name: String,
    /// What it says.
    held: Arc<dyn Held>,
}

impl fmt::Debug for Document {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let mut out = f.debug_struct("Document");
        out.field("kind", &self.kind.key)
            .field("value", &self.held.value())
            .finish()
    }
}

impl PartialEq for Document {
    fn eq(&self, other: &Self) -> bool {
        let same = || matches!((self.value(), other.value()), (Ok(a), Ok(b)) if a == b);
        self.kind == other.kind && (Arc::ptr_eq(&self.held, &other.held) || same())
    }
}

impl Document {
    /// A sheet as a document.
    #[must_use]
    pub fn of<S: Sheet>(sheet: &S) -> Self {
        Self {
            kind: SheetKind::of::<S>(),
            slug: sheet.slug().to_owned(),
            name: sheet.name().to_owned(),
            held: Arc::new(sheet.clone()),
        }
    }

    /// The sheet a document is; `None` for one of another kind.
    #[must_use]
    pub fn sheet<S: Sheet>(&self) -> Option<&S> {
        let held: &dyn Any = &*self.held;
        held.downcast_ref()
    }

    /// What it says, as it stands in a file.
    ///
    /// # Errors
    /// For a sheet JSON does not hold.
    pub fn value(&self) -> serde_json::Result<Value> {
        self.held.value()
    }

    /// The same with its fields changed, checked as what comes in is.
    ///
    /// # Errors
    /// What is wrong in it then.
    pub fn with(&self, change: impl FnOnce(&mut Map<String, Value>)) -> Result<Self, String> {
        let mut value = self.value().map_err(|e| super::json_problem(&e))?;
        if let Some(fields) = value.as_object_mut() {
            change(fields);
        }
        read(self.kind, value)
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

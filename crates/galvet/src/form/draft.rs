//! A record as a form takes it apart and puts it together again.

use super::refusal::Mistakes;

/// A record as a form takes it apart: what stands together in it, each in its own place.
/// What comes of a draft that nothing was typed in is the record, bit for bit.
pub trait Draft: Clone {
    /// The record.
    type Record;

    /// Takes a record apart.
    fn of(record: &Self::Record) -> Self;

    /// Puts it together again.
    ///
    /// # Errors
    /// What is missing or makes no sense together, field by field.
    fn made(self) -> Result<Self::Record, Mistakes>;
}

/// A record that its form shows as it is: nothing in it stands together.
macro_rules! whole {
    ($record:ty) => {
        impl crate::form::Draft for $record {
            type Record = Self;

            fn of(record: &Self) -> Self {
                record.clone()
            }

            fn made(self) -> Result<Self, crate::form::Mistakes> {
                Ok(self)
            }
        }
    };
}
pub(crate) use whole;

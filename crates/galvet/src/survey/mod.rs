//! Getting hulls in: what people type about them, read into records, and
//! records changed without losing what stood there.

mod afloat;
mod draft;
mod edit;
mod fields;
mod import;
mod slug;
mod typed;
mod walk;

pub use afloat::{Measured, PLACES, SHIFTS, Test, measured};
pub use draft::{Draft, Drafted, figure, understood};
pub use edit::{EditError, add_reading, edit_hull, forget_reading, put_hull, set_words, words_of};
pub use fields::{FIELDS, Field, FieldKind};
pub use import::{Imported, Incoming, OnDouble, double, read as read_file, take_in};
pub use slug::{free_slug, slug_of};
pub use typed::Mistakes;
pub use walk::{forget_zone, put_zone, shown_across, shown_along, zone};

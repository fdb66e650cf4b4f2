//! Getting hulls in: what people type about them, read into records, and
//! records changed without losing what stood there.

mod afloat;
mod changes;
mod devices;
mod draft;
mod edit;
mod fields;
mod fitting_kinds;
mod fittings;
mod import;
mod shown;
mod slug;
mod typed;
mod walk;

pub use afloat::{Measured, PLACES, SHIFTS, Test, measured, read_heels};
pub use changes::{
    configuration, forget_configuration, forget_modification, modification, put_configuration,
    put_modification, set_progress,
};
pub use devices::{HangingScale, Simulated, Steady, TiltMeter, steady};
pub use draft::{Draft, Drafted, figure, understood};
pub use edit::{
    EditError, add_reading, doubt_again, edit_hull, forget_reading, judge, put_hull, put_over,
    set_absent, set_words, stand_by, words_of,
};
pub use fields::{FIELDS, Field, FieldKind, bottom_note};
pub use fitting_kinds::{Ask, KINDS, Kind, SizeField, key_of, kind_of};
pub use fittings::{Placed, fitting, fittings_of, forget_fitting, put_fitting};
pub use import::{Imported, Incoming, OnDouble, double, is_shelf, read as read_file, take_in};
pub use shown::{Shown, judgements};
pub use slug::{free_slug, slug_of};
pub(crate) use typed::Typed;
pub use typed::{Mistakes, Refusal};
pub use walk::{forget_zone, place_typed, put_zone, shown_across, shown_along, zone};

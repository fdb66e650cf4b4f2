//! Getting hulls in: what people type about them, read into records, and
//! records changed without losing what stood there.

mod afloat;
mod cards;
mod changes;
mod dealer;
mod devices;
mod draft;
mod edit;
mod fields;
mod fitting_draft;
mod fitting_kinds;
mod fittings;
mod import;
mod leaflet;
mod noted;
mod photos;
mod sections;
mod set_ups;
mod walk;
mod words;

pub(crate) use afloat::{FloatsIn, form_of_test};
pub use afloat::{Measured, Test, measured, read_heels};
pub use cards::Card;
pub(crate) use cards::{blank as blank_card, card_form, change as change_of};
pub use changes::{forget_modification, keep_modification, put_modification, set_progress};
pub(crate) use changes::{modification_form, new_modification};
pub use dealer::{Chosen, Dealt, deal, deal_grid, deal_with, is_own, waiting_grid};
pub use devices::{HangingScale, Simulated, Steady, TiltMeter, steady};
pub use draft::{Draft, Drafted, figure, understood};
pub use edit::{
    EditError, add_reading, doubt_again, edit_hull, forget_reading, put_hull, set_absent, stand_by,
};
pub use fields::{FIELDS, Field, FieldKind, bottom_note};
pub use fitting_kinds::{KINDS, Kind, key_of, kind_of};
pub use fittings::{OfFitting, fittings_of, forget_fitting, keep_fitting};
pub(crate) use fittings::{fitting_form, new_fitting};
pub use import::{Imported, Incoming, OnDouble, double, is_shelf, read as read_file, take_in};
pub use leaflet::{Leaflet, leaflets};
pub(crate) use noted::{reading_form, stand_by_form, trial_form, usual_reading, usual_trial};
pub(crate) use photos::{
    NewPhoto, add_photos, edit_photo, keep_length, kept_as, not_kept, photo_form, shown_of,
    shows_in_words, tape_form, usual_tape,
};
pub use sections::sections_shown;
pub(crate) use set_ups::{configuration_form, new_configuration};
pub use set_ups::{forget_configuration, keep_configuration};
pub(crate) use walk::zone_form;
pub use walk::{ZoneStep, keep_zone, place_typed, zone_of};
pub(crate) use words::{judged_form, words_form};

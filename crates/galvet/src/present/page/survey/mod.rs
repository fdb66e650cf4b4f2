//! What is known of one hull, and how it is put in: specs, the walk, float tests.

pub mod afloat;
pub mod card;
pub mod changes;
pub mod comfort;
pub mod dealer;
pub mod draft;
pub mod fittings;
pub mod import;
pub mod lines;
pub mod record;
pub mod walk;

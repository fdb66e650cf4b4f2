//! What people type into forms: shown, sent back, read, put on the record as it stands.
//!
//! One table of fields for each kind of record ([`Table`]); how it is shown, what is read,
//! what others changed meanwhile and what is refused follow from it. A field that comes
//! back as it was shown is not touched: what is kept stays so to the last digit. This room
//! knows no hull.

mod choices;
mod draft;
mod field;
mod numbers;
mod refusal;
mod scan;
mod shown;
mod slug;
mod table;
mod typed;
mod view;

pub(crate) use choices::{
    answer, choice, grade_of, maybe_choice, pick, tick, tick_in, words, yes_no,
};
pub(crate) use draft::{Draft, whole};
#[cfg(test)]
pub(crate) use field::Takes;
pub(crate) use field::{Field, day, line, lines, name, note};
pub(crate) use numbers::{count, number, percent};
pub use refusal::{Mistakes, Refusal};
pub(crate) use scan::{between, figure_at};
pub use shown::Shown;
pub use slug::{free_slug, slug_of};
pub(crate) use table::{Group, Table};
pub(crate) use typed::Typed;
pub use typed::{number as typed_number, shown_across, shown_along, with_unit};
pub use view::{FormView, NotTaken};

/// A form as it was sent: what stands in each field, by its name.
pub type Sent = std::collections::HashMap<String, String>;

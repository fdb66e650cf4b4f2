//! One answer, presented: as a page, as JSON, as CSV, as lines for a terminal.

pub mod columns;
pub mod csv;
pub mod draw;
pub mod json;
pub mod page;
pub mod text;

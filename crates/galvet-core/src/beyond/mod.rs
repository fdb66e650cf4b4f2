//! What a hull does when the day turns: water aboard, wind and stream, lifting. Figures
//! beside those that rank, worked out only where somebody looks.

mod lifting;
mod table;

pub use lifting::{Lifting, lifting};
pub use table::{Beyond, Extra, ExtraRow, Part, beyond};

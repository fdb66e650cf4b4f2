//! Ways of one hull, or several hulls, side by side.

pub mod costs;
pub mod variants;

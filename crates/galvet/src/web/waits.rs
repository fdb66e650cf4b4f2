//! A question somebody waits for.

use super::records::Records;
use crate::present::page::ranking::so_far::SoFar;
use crate::question::Asked;
use std::fmt;
use std::sync::Arc;

/// A question that is being worked out.
pub(crate) struct Waits {
    pub(super) so_far: SoFar,
    pub(super) asked: Asked,
    pub(super) records: Arc<Records>,
}

impl fmt::Debug for Waits {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("Waits")
            .field("so_far", &self.so_far)
            .finish_non_exhaustive()
    }
}

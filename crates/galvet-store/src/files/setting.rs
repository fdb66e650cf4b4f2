//! A setting of this installation.

use super::sheet::Sheet;
use serde::{Deserialize, Serialize};

/// A setting: name and value.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Setting {
    /// Its name.
    pub key: String,
    /// What it is set to.
    pub value: String,
}

impl Sheet for Setting {
    const KEY: &'static str = "setting";
    const PLURAL: &'static str = "settings";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.key
    }

    fn check(&self) -> Result<(), String> {
        Ok(())
    }
}

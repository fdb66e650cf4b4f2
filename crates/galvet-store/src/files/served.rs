//! Service done on a hull, as a document.

use super::check_key;
use super::sheet::Sheet;
use galvet_core::base::day;
use galvet_core::log::Served;
use galvet_core::papers::CARE;
use serde::{Deserialize, Serialize};

/// A service that was done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ServedEntry {
    /// Its key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// The hull's key.
    pub hull: String,
    /// Which service.
    pub care: String,
    /// ISO 8601.
    pub day: String,
    /// What was found, what was changed.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

impl ServedEntry {
    /// As the log takes it.
    #[must_use]
    pub fn served(&self) -> Served {
        Served {
            hull: self.hull.clone(),
            care: self.care.clone(),
            day: self.day.clone(),
        }
    }
}

impl Sheet for ServedEntry {
    const KEY: &'static str = "service";
    const PLURAL: &'static str = "services";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        check_key(&self.hull)?;
        day(&self.day).map_err(|odd| odd.to_string())?;
        if !CARE.iter().any(|care| care.id == self.care) {
            let known: Vec<&str> = CARE.iter().map(|care| care.id).collect();
            return Err(format!(
                "“{}” is no service; accepted: {}",
                super::echo(&self.care),
                known.join(", ")
            ));
        }
        if self.note.chars().count() > 2_000 {
            return Err("a note longer than 2,000 characters".to_owned());
        }
        Ok(())
    }
}

//! A customer of the shop: who they are, how they are reached, what is theirs.
//!
//! Their questions, outings and test paddles name them; what has no place for a name is
//! listed here.

use super::sheet::Sheet;
use galvet_core::base::{LONGEST_NAME, day, name, one_line};
use serde::{Deserialize, Serialize};

/// A customer.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CustomerEntry {
    /// Stable key.
    pub key: String,
    /// What they are called; of two of one name one says more.
    pub name: String,
    /// How they are reached, as they said it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub reach: String,
    /// The day they first came, ISO 8601.
    pub since: String,
    /// Keys of the hulls they look at.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hulls: Vec<String>,
    /// Keys of rigs that are theirs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rigs: Vec<String>,
    /// Pages kept for them: quotes, comparisons.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pages: Vec<KeptPage>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A page kept for a customer.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct KeptPage {
    /// The day it was kept, ISO 8601.
    pub day: String,
    /// What it is called.
    pub name: String,
    /// Its address here.
    pub page: String,
}

impl CustomerEntry {
    /// Most hulls, rigs or pages of one.
    pub const MOST: usize = 200;
    /// Longest note, characters.
    pub const NOTE: usize = 4_000;
}

impl Sheet for CustomerEntry {
    const KEY: &'static str = "customer";
    const PLURAL: &'static str = "customers";
    const PERSONAL: bool = true;

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        name(&self.name).map_err(|problem| format!("the name: {problem}"))?;
        if self.name.chars().count() > LONGEST_NAME {
            return Err(format!("a name longer than {LONGEST_NAME} characters"));
        }
        let reach = one_line(&self.reach);
        reach.map_err(|problem| format!("how they are reached: {problem}"))?;
        day(&self.since).map_err(|odd| odd.to_string())?;
        let lists = [self.hulls.len(), self.rigs.len(), self.pages.len()];
        if lists.into_iter().any(|n| n > Self::MOST) {
            return Err(format!("at most {} hulls, rigs and pages", Self::MOST));
        }
        for kept in &self.pages {
            day(&kept.day).map_err(|odd| odd.to_string())?;
            super::handed::page_of_ours(&kept.page)?;
        }
        if self.reach.chars().count() > 200 || self.note.chars().count() > Self::NOTE {
            return Err(format!("a note longer than {} characters", Self::NOTE));
        }
        Ok(())
    }
}

//! Papers handed out by address: read-only, until withdrawn.

use super::sheet::Sheet;
use galvet_core::base::day as parsed_day;
use serde::{Deserialize, Serialize};

/// An address handed out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Handed {
    /// The unguessable part of the address.
    pub key: String,
    /// What the paper is called.
    pub name: String,
    /// The page it shows, with its query.
    pub page: String,
    /// The day it was handed out, ISO 8601.
    pub made: String,
    /// The last day on which it is read, ISO 8601; none: until it is withdrawn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub until: Option<String>,
    /// Whether it may show what a customer asked: they wanted it handed out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub of_customer: bool,
}

/// Checks that an address is one of a page here.
pub(super) fn page_of_ours(page: &str) -> Result<(), String> {
    let ours = page.starts_with('/') && !page.starts_with("//");
    let plain = page.bytes().all(|b| (0x21..0x7f).contains(&b));
    if !ours || !plain || page.len() > 4_000 {
        return Err("no page of this installation".to_owned());
    }
    Ok(())
}

impl Sheet for Handed {
    const KEY: &'static str = "paper handed out";
    const PLURAL: &'static str = "handed_out";
    const PERSONAL: bool = true;

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        page_of_ours(&self.page)?;
        if self.key.len() < 32 {
            return Err("an address that can be guessed".to_owned());
        }
        if self
            .until
            .as_deref()
            .is_some_and(|day| parsed_day(day).is_err())
        {
            return Err("the last day is written 2026-05-31".to_owned());
        }
        Ok(())
    }
}

//! Photos: pictures of a hull or of something on it, with what is shown. The pixels lie
//! beside the records, under a name made of themselves; a record only names them.

mod picture;

pub use picture::{LARGEST_FILE, LONGEST_SIDE, MOST_MEGAPIXELS, NoPicture, Picture, is_name};

use super::sheet::Sheet;
use galvet_core::base::day;
use serde::{Deserialize, Serialize};

/// What a photo shows.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Shows {
    /// The hull.
    #[default]
    Hull,
    /// A place on it, by its name.
    Place(String),
    /// A fitting, by its name.
    Fitting(String),
    /// A figure being measured, by its word.
    Figure(String),
}

impl Shows {
    /// As it stands in a form: the kind, and the name.
    #[must_use]
    pub fn word(&self) -> String {
        match self {
            Self::Hull => "hull".to_owned(),
            Self::Place(name) => format!("place:{name}"),
            Self::Fitting(name) => format!("fitting:{name}"),
            Self::Figure(name) => format!("figure:{name}"),
        }
    }

    /// Back out of a form.
    #[must_use]
    pub fn from_word(word: &str) -> Option<Self> {
        let (kind, name) = word.split_once(':').unwrap_or((word, ""));
        let name = name.to_owned();
        match kind {
            "hull" if name.is_empty() => Some(Self::Hull),
            "place" => Some(Self::Place(name)),
            "fitting" => Some(Self::Fitting(name)),
            "figure" => Some(Self::Figure(name)),
            _ => None,
        }
    }

    /// The name in it; empty for the hull.
    #[must_use]
    pub fn name(&self) -> &str {
        match self {
            Self::Hull => "",
            Self::Place(name) | Self::Fitting(name) | Self::Figure(name) => name,
        }
    }
}

/// A photo.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Photo {
    /// Its slug.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// The hull it was taken of, by its slug.
    pub hull: String,
    /// What of it is shown.
    #[serde(default)]
    pub shows: Shows,
    /// The day it was taken; empty where nobody says.
    #[serde(default)]
    pub date: String,
    /// Who took it; empty where nobody says.
    #[serde(default)]
    pub who: String,
    /// Anything else.
    #[serde(default)]
    pub note: String,
    /// The outing it was taken on, by its slug; empty for none.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub outing: String,
    /// The name its pixels are kept under.
    pub picture: String,
    /// Width, px.
    pub width: u32,
    /// Height, px.
    pub height: u32,
}

impl Photo {
    /// Most photos kept of one hull.
    pub const MOST: usize = 60;
}

impl Sheet for Photo {
    const KEY: &'static str = "photo";
    const PLURAL: &'static str = "photos";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        super::check_key(&self.hull)?;
        if !self.outing.is_empty() {
            super::check_key(&self.outing)?;
        }
        if !is_name(&self.picture) {
            return Err("a photo names its picture by 64 hexadecimal digits".to_owned());
        }
        let side = 1..=LONGEST_SIDE;
        if !side.contains(&self.width) || !side.contains(&self.height) {
            return Err(format!("a picture's sides are 1 to {LONGEST_SIDE} pixels"));
        }
        if !self.date.is_empty() {
            day(&self.date).map_err(|problem| problem.to_string())?;
        }
        let texts = [&self.name, &self.who, &self.note];
        if texts.iter().any(|t| t.chars().count() > 2_000) || self.shows.name().len() > 400 {
            return Err("a note longer than 2000 characters".to_owned());
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_shown_comes_back_out_of_its_word() {
        let all = [
            Shows::Hull,
            Shows::Place("tank well: aft".to_owned()),
            Shows::Fitting("eye".to_owned()),
            Shows::Figure("beam".to_owned()),
        ];
        for shows in all {
            assert_eq!(Shows::from_word(&shows.word()), Some(shows));
        }
        assert_eq!(Shows::from_word("hull:x"), None);
        assert_eq!(Shows::from_word("garden"), None);
    }
}

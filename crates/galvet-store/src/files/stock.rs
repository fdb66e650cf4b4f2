//! What the shop has of a hull, and when it is out on the water with somebody.

use super::place::clock;
use super::sheet::Sheet;
use galvet_core::base::one_line;
use serde::{Deserialize, Serialize};
use time::{Duration, PrimitiveDateTime};

/// What there is of a hull. The record's key is the hull's.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StockEntry {
    /// The hull's key.
    pub key: String,
    /// What it is called in a list: the hull's name.
    pub name: String,
    /// Whether there is one.
    pub state: Stock,
    /// How many are here.
    #[serde(default)]
    pub count: u16,
    /// Weeks until one comes, where it has to be ordered and somebody knows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weeks: Option<u16>,
    /// Price of the package, in the shop's currency; `None` where none is offered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub package: Option<f64>,
    /// What is in the package.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub with: String,
}

/// Whether the shop has one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Stock {
    /// It stands here.
    Here,
    /// It stands here to be tried.
    Demo,
    /// It can be ordered.
    ToOrder,
    /// The last one is sold.
    Sold,
}

impl Stock {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::Here, Self::Demo, Self::ToOrder, Self::Sold];

    /// Its word.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Here => "here",
            Self::Demo => "demo",
            Self::ToOrder => "to-order",
            Self::Sold => "sold",
        }
    }

    /// In plain words.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Here => "here",
            Self::Demo => "demo boat",
            Self::ToOrder => "to order",
            Self::Sold => "sold",
        }
    }

    /// The state of a word.
    #[must_use]
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|state| state.key() == key)
    }

    /// Whether somebody can be walked to one.
    #[must_use]
    pub const fn is_here(self) -> bool {
        matches!(self, Self::Here | Self::Demo)
    }
}

/// Most of one hull, and most weeks.
const MANY: u16 = 999;
/// Highest price.
const DEAR: f64 = 1e6;

impl Sheet for StockEntry {
    const KEY: &'static str = "stock";
    const PLURAL: &'static str = "stock";
    // A shop's own: another one that takes its catalogue over has its own.
    const PERSONAL: bool = true;

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        if self.count > MANY || self.weeks.is_some_and(|weeks| weeks > MANY) {
            return Err(format!("at most {MANY} hulls and weeks"));
        }
        let package = self.package.unwrap_or(0.0);
        if !(0.0..=DEAR).contains(&package) {
            return Err(format!("a price is between 0 and {DEAR}"));
        }
        let with = one_line(&self.with).map_err(|problem| problem.to_string())?;
        if with.chars().count() > 300 {
            return Err("what is in it: at most 300 characters".to_owned());
        }
        Ok(())
    }
}

/// A demo boat out with somebody.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BookingEntry {
    /// Stable key.
    pub key: String,
    /// What it is called: hull and hour.
    pub name: String,
    /// The hull's key.
    pub hull: String,
    /// For whom: a customer's name.
    pub who: String,
    /// From when, `2026-12-05T10:00`, on the shop's own clock.
    pub from: String,
    /// For how many hours.
    pub hours: u16,
    /// Anything else.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

impl BookingEntry {
    /// Longest booking, hours: two weeks.
    pub const LONGEST: u16 = 14 * 24;

    /// From when and until when; `None` for what was refused.
    #[must_use]
    pub fn span(&self) -> Option<(PrimitiveDateTime, PrimitiveDateTime)> {
        let from = clock(&self.from).ok()?;
        Some((from, from + Duration::hours(self.hours.into())))
    }

    /// Whether two want the same hull at the same time. One that ends as the other begins
    /// does not.
    #[must_use]
    pub fn collides(&self, other: &Self) -> bool {
        let (Some(a), Some(b)) = (self.span(), other.span()) else {
            return false;
        };
        self.hull == other.hull && a.0 < b.1 && b.0 < a.1
    }

    /// Most boats of its hull that are out at one moment of it, with others.
    #[must_use]
    pub fn most_out<'a>(&self, others: impl Iterator<Item = &'a Self>) -> usize {
        let out: Vec<&Self> = others.filter(|other| other.collides(self)).collect();
        let Some((from, _)) = self.span() else {
            return 0;
        };
        // The most are out as one of them leaves.
        let spans = || out.iter().filter_map(|other| other.span());
        let leaves = spans().map(|span| span.0.max(from)).chain([from]);
        let at = |moment| spans().filter(|s| s.0 <= moment && moment < s.1).count();
        leaves.map(at).max().unwrap_or(0)
    }
}

impl Sheet for BookingEntry {
    const KEY: &'static str = "booking";
    const PLURAL: &'static str = "bookings";
    const PERSONAL: bool = true;

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        clock(&self.from)?;
        if !(1..=Self::LONGEST).contains(&self.hours) {
            return Err(format!("for 1 to {} hours", Self::LONGEST));
        }
        for (text, most) in [(&self.who, 120), (&self.note, 300)] {
            let line = one_line(text).map_err(|problem| problem.to_string())?;
            if line.chars().count() > most {
                return Err(format!("at most {most} characters"));
            }
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn booking(hull: &str, from: &str, hours: u16) -> BookingEntry {
        BookingEntry {
            key: "b".to_owned(),
            name: "b".to_owned(),
            hull: hull.to_owned(),
            who: String::new(),
            from: from.to_owned(),
            hours,
            note: String::new(),
        }
    }

    #[test]
    fn two_want_one_hull_at_one_time_or_not() {
        let ten = booking("a", "2026-12-05T10:00", 2);
        for (other, collides) in [
            (booking("a", "2026-12-05T11:00", 2), true),
            (booking("a", "2026-12-05T09:00", 4), true),
            (booking("a", "2026-12-05T12:00", 1), false),
            (booking("a", "2026-12-05T08:00", 2), false),
            (booking("a", "2026-12-04T12:00", 24), true),
            (booking("b", "2026-12-05T10:00", 2), false),
        ] {
            assert_eq!(ten.collides(&other), collides, "{other:?}");
            assert_eq!(other.collides(&ten), collides, "{other:?}");
        }
    }

    #[test]
    fn one_after_the_other_takes_one_boat_and_at_once_takes_two() {
        let out = [
            booking("a", "2026-12-05T10:00", 2),
            booking("a", "2026-12-05T12:00", 2),
            booking("b", "2026-12-05T11:00", 2),
        ];
        for (from, hours, most) in [(11, 2, 1), (12, 1, 1), (14, 1, 0), (8, 2, 0), (8, 8, 1)] {
            let wanted = booking("a", &format!("2026-12-05T{from:02}:00"), hours);
            assert_eq!(wanted.most_out(out.iter()), most, "{from}");
        }
        let third = booking("a", "2026-12-05T11:30", 1);
        let all = || out.iter().chain([&third]);
        let wanted = |from: &str| booking("a", from, 1).most_out(all());
        assert_eq!(wanted("2026-12-05T11:00"), 2);
        assert_eq!(wanted("2026-12-05T10:00"), 1);
        assert_eq!(wanted("2026-12-05T13:00"), 1);
    }

    #[test]
    fn what_is_no_time_is_refused() {
        assert!(booking("a", "2026-12-05T10:00", 1).check().is_ok());
        for (from, hours) in [
            ("tomorrow", 1),
            ("2026-12-05T10:00", 0),
            ("2026-12-05T10:00", 337),
        ] {
            assert!(booking("a", from, hours).check().is_err(), "{from} {hours}");
        }
    }
}

//! Measured sections as a form shows them.

use crate::form::Shown;
use galvet_core::hull::Station;
use std::hash::{DefaultHasher, Hash, Hasher};

/// Measured sections: how many, and a mark that tells these from others.
#[must_use]
pub fn sections_shown(stations: &[Station]) -> Shown {
    if stations.is_empty() {
        return Shown::default();
    }
    let mut mark = DefaultHasher::new();
    format!("{stations:?}").hash(&mut mark);
    let count = stations.len();
    let sections = format!("{count} of them, {:08x}", mark.finish() as u32);
    Shown::of([("sections", sections)])
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn other_sections_have_another_mark() {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let measured = hulls.iter().find(|h| h.survey.offsets.len() > 3).unwrap();
        let all = &measured.survey.offsets;
        assert_eq!(sections_shown(all), sections_shown(&all.clone()));
        assert_ne!(sections_shown(all), sections_shown(&all[1..]));
        assert_eq!(sections_shown(&[]), Shown::default());
    }
}

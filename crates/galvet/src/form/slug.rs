//! Slugs: what a record is called in addresses and files.

use galvet_store::{Door, Kind, StoreError};

/// Longest slug made of a name; a number may come behind it.
const LONGEST: usize = 48;

/// A slug made of a name: its letters, of whatever script, and digits as they are written
/// in Latin ones, joined by dashes; `otherwise` where nothing of it is left.
#[must_use]
pub fn slug_of(name: &str, otherwise: &str) -> String {
    let mut slug = slug::slugify(name);
    slug.truncate(LONGEST);
    let slug = slug.trim_matches('-');
    if slug.is_empty() { otherwise } else { slug }.to_owned()
}

/// The slug, with a number behind it where it is taken.
///
/// # Errors
/// [`StoreError`] when the database does not answer.
pub fn free_slug(door: &mut Door<'_>, kind: Kind, wanted: &str) -> Result<String, StoreError> {
    let mut slug = wanted.to_owned();
    let mut number = 2;
    while door.find(kind, &slug)?.is_some() {
        slug = format!("{wanted}-{number}");
        number += 1;
    }
    Ok(slug)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn slugs_are_plain_and_never_empty() {
        let slug = |name| slug_of(name, "question");
        assert_eq!(slug("Ana's marsh — standing!"), "ana-s-marsh-standing");
        assert_eq!(slug("  "), "question");
        assert_eq!(slug("Über"), "uber");
        assert_eq!(slug("Каяк 12"), "kaiak-12");
        assert_eq!(slug("!?"), "question");
        assert!(slug(&"x".repeat(500)).len() <= LONGEST);
    }
}

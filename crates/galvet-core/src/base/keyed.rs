//! Enums whose values have a word in files and addresses and plain words on
//! the page, derived with `strum`: the word is the variant in kebab case, the
//! plain words are its `message`, or the word itself.

use strum::{EnumMessage, VariantArray};

/// A closed set of values, each with a key and a label.
pub trait Keyed: VariantArray + EnumMessage + Copy + Into<&'static str> + 'static {
    /// All values, in the order they are offered.
    const ALL: &'static [Self] = Self::VARIANTS;

    /// The word used in files and addresses.
    #[must_use]
    fn key(self) -> &'static str {
        self.into()
    }

    /// Plain words for it.
    #[must_use]
    fn label(self) -> &'static str {
        self.get_message().unwrap_or_else(|| self.key())
    }

    /// The value a file's or address's word names.
    #[must_use]
    fn from_key(key: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|v| v.key() == key)
    }
}

impl<T: VariantArray + EnumMessage + Copy + Into<&'static str> + 'static> Keyed for T {}

/// Declares keyed enums: the derives that [`Keyed`] asks for, once.
macro_rules! words {
    ($($(#[$meta:meta])* $vis:vis enum $name:ident { $($body:tt)* })*) => {$(
        $(#[$meta])*
        #[derive(
            Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord,
            ::strum::VariantArray, ::strum::IntoStaticStr, ::strum::EnumMessage,
        )]
        #[strum(serialize_all = "kebab-case")]
        $vis enum $name { $($body)* }
    )*};
}
pub(crate) use words;

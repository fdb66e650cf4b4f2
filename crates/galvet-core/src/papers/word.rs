//! Words of lines that stay the same whatever else is on the list: ticks hang on them.

use std::collections::HashMap;

/// Gives out words, each once.
#[derive(Debug, Default)]
pub struct Words(HashMap<String, usize>);

impl Words {
    /// A word for what is called so: its letters, and which of several it is.
    pub fn of(&mut self, kind: &str, name: &str) -> String {
        /// Letters of a name that stand in its word.
        const LETTERS: usize = 48;
        let mut plain = String::new();
        for c in name.chars().flat_map(char::to_lowercase).take(LETTERS) {
            match c {
                c if c.is_ascii_alphanumeric() => plain.push(c),
                _ if plain.ends_with('-') => {}
                _ => plain.push('-'),
            }
        }
        let word = format!("{kind}-{}", plain.trim_matches('-'));
        let nth = self.0.entry(word.clone()).or_default();
        *nth += 1;
        if *nth == 1 {
            word
        } else {
            format!("{word}--{nth}")
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_word_hangs_on_the_thing_and_not_on_its_place_in_the_list() {
        let mut words = Words::default();
        assert_eq!(
            words.of("thing", "Rod & reel, 2.1 m"),
            "thing-rod-reel-2-1-m"
        );
        assert_eq!(
            words.of("thing", "rod & reel, 2.1 m"),
            "thing-rod-reel-2-1-m--2"
        );
        assert_eq!(words.of("thing", "crate"), "thing-crate");
        // Another thing before it on the rig changes nothing.
        let mut other = Words::default();
        assert_eq!(other.of("thing", "a new box"), "thing-a-new-box");
        assert_eq!(other.of("thing", "crate"), "thing-crate");
        // Nothing but signs is a word too, and never twice.
        assert_ne!(words.of("off", "·"), words.of("off", "…"));
    }
}

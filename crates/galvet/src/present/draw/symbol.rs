//! Which symbol of `symbols.html` stands for a thing: by the words of its name, else by
//! its category.

use galvet_core::gear::Category;

/// Words of names, each with the symbol that stands for it; the first that is found.
const WORDS: [(&str, &str); 59] = [
    // What a thing is for comes before what it is made like.
    ("crate", "crate"),
    ("rod and reel", "rod"),
    ("cart", "cart"),
    ("wheel", "cart"),
    ("adapter", "holder"),
    ("holder", "holder"),
    ("rod tube", "holder"),
    ("trolley along", "line"),
    ("leash", "line"),
    ("strap", "line"),
    ("stringer", "line"),
    ("throw line", "line"),
    ("spool", "line"),
    ("pod", "crate"),
    ("fish bag", "fish-bag"),
    ("bag", "bag"),
    ("pouch", "radio"),
    ("cooler", "cooler"),
    ("livewell", "livewell"),
    ("bucket", "bucket"),
    ("fish kept", "fish"),
    ("bait tube", "fish"),
    ("battery box", "tackle"),
    ("battery", "battery"),
    ("sounder", "sounder"),
    ("transducer", "transducer"),
    ("camera", "camera"),
    ("radio", "radio"),
    ("telephone", "radio"),
    ("light", "light"),
    ("flare", "light"),
    ("paddle", "paddle"),
    ("pedal drive", "drive"),
    ("motor", "motor"),
    ("outrigger", "outriggers"),
    ("pole", "pole"),
    ("stake", "pole"),
    ("drift sock", "bag"),
    ("anchor", "anchor"),
    ("net", "net"),
    ("gaff", "gaff"),
    ("grip", "tools"),
    ("pliers", "tools"),
    ("tools", "tools"),
    ("pump", "pump"),
    ("measuring board", "board"),
    ("cushion", "cushion"),
    ("riser", "cushion"),
    ("mat", "cushion"),
    ("canopy", "cushion"),
    ("food", "bottle"),
    ("cup", "bottle"),
    ("clothes", "aid"),
    ("flotation aid", "aid"),
    ("first aid", "first-aid"),
    ("plug", "plugs"),
    ("wallet", "tackle"),
    ("tackle", "tackle"),
    ("rod", "rod"),
];

/// The symbol of a thing of a name; its category is asked where no word is known.
#[must_use]
pub fn symbol(name: &str, category: Option<Category>) -> &'static str {
    let name = name.to_lowercase();
    let stands = |word: &str| {
        name.match_indices(word).any(|(at, _)| {
            let before = name[..at].chars().next_back();
            !before.is_some_and(char::is_alphanumeric)
        })
    };
    if let Some((_, symbol)) = WORDS.iter().find(|(word, _)| stands(word)) {
        return symbol;
    }
    match category {
        Some(Category::Rods) => "rod",
        Some(Category::Tackle) => "tackle",
        Some(Category::Crates) => "crate",
        Some(Category::Fish) => "cooler",
        Some(Category::Electronics) => "sounder",
        Some(Category::Power) => "battery",
        Some(Category::Propulsion) => "paddle",
        Some(Category::Anchoring) => "anchor",
        Some(Category::Landing) => "net",
        Some(Category::Comfort) => "cushion",
        Some(Category::Safety) => "aid",
        Some(Category::Transport) => "cart",
        Some(Category::Company | Category::Other) | None => "thing",
    }
}

/// All there are, in the order of their page.
#[must_use]
pub fn all() -> Vec<&'static str> {
    let mut out: Vec<&str> = Vec::new();
    for symbol in WORDS.iter().map(|w| w.1).chain(["thing"]) {
        if !out.contains(&symbol) {
            out.push(symbol);
        }
    }
    out
}

/// A thing's name as short as it is told apart by: what stands before the first comma, and
/// before what it is with, on or for.
#[must_use]
pub fn short_name(name: &str) -> &str {
    let ends = [",", " (", " with ", " on ", " for ", " in "].iter();
    let end = ends.filter_map(|mark| name.find(mark)).min();
    name[..end.unwrap_or(name.len())].trim_end()
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    const PARTS: &str = include_str!("../../../../../web/templates/symbols.html");

    #[test]
    fn every_symbol_is_drawn_from_above_and_from_the_side() {
        for symbol in all() {
            for id in [format!("id=\"k-{symbol}\""), format!("id=\"k-{symbol}-s\"")] {
                assert!(PARTS.contains(&id), "{id}");
            }
        }
        let drawn = PARTS.matches("<symbol ").count();
        assert_eq!(
            drawn,
            2 * all().len(),
            "one is drawn that nothing stands for"
        );
    }

    #[test]
    fn the_demo_shelf_is_told_apart() {
        let shelf = crate::demo_data::catalogue().unwrap().gear;
        let of = |key: &str| {
            let thing = shelf.iter().find(|g| g.key == key).unwrap();
            symbol(&thing.name, Some(thing.category))
        };
        for (key, wanted) in [
            ("rod-and-reel", "rod"),
            ("rod-holder-track", "holder"),
            ("open-crate", "crate"),
            ("hard-cooler-20", "cooler"),
            ("battery-12v-20ah", "battery"),
            ("sounder-7", "sounder"),
            ("mushroom-anchor", "anchor"),
            ("stake-out-pole", "pole"),
            ("landing-net", "net"),
            ("spare-paddle", "paddle"),
            ("insulated-fish-bag", "fish-bag"),
            ("dry-bag-20", "bag"),
            ("flotation-aid-foam", "aid"),
            ("first-aid-kit", "first-aid"),
            ("cart-folding", "cart"),
        ] {
            assert_eq!(of(key), wanted, "{key}");
        }
        let used: BTreeSet<&str> = shelf
            .iter()
            .map(|g| symbol(&g.name, Some(g.category)))
            .collect();
        assert!(used.len() > 20 && !used.contains("thing"), "{used:?}");
        assert_eq!(short_name("battery, 12 V 10 Ah"), "battery");
        assert_eq!(short_name("open crate with three rod tubes"), "open crate");
    }
}

//! Essentials by water, held against the rig: handbook, chapter 8.4.

use super::facts::{Facts, Nine};
use crate::gear::{Fixing, Serves};

/// How much a water asks for a thing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Asks {
    /// Not asked.
    Not,
    /// Should be there.
    Should,
    /// Must be there.
    Must,
    /// Must not be there.
    Barred,
}

/// How a thing asked for stands.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Standing {
    /// On the rig: what it is.
    There(String),
    /// Something on the rig may be it, by its name; nobody said so on the shelf.
    Unsure(String),
    /// On the rig, and not where it helps: what it is, and why.
    Wrong(String, &'static str),
    /// Not on the rig.
    Missing,
}

impl Standing {
    /// Whether it is surely in order.
    #[must_use]
    pub const fn is_there(&self) -> bool {
        matches!(self, Self::There(_))
    }
}

/// One essential as it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Essential {
    /// Its own word.
    pub id: &'static str,
    /// What it is.
    pub text: &'static str,
    /// Why.
    pub why: &'static str,
    /// How much it is asked.
    pub asks: Asks,
    /// Whether it is one of the lines that are never hidden.
    pub hard: bool,
    /// How it stands.
    pub standing: Standing,
}

impl Essential {
    /// Whether it stands in red: a must that is not surely there, or what is barred and
    /// may be.
    #[must_use]
    pub fn is_red(&self) -> bool {
        match self.asks {
            Asks::Must => !self.standing.is_there(),
            Asks::Barred => self.standing != Standing::Missing,
            Asks::Should | Asks::Not => false,
        }
    }
}

/// A row of the table: word, what, which things do, how each of the nine waters asks for it
/// (M must, s should, - not, X barred), why.
struct Row(
    &'static str,
    &'static str,
    &'static [Serves],
    &'static str,
    &'static str,
);

/// In the order of chapter 8. Where several things are named all of them are asked for.
const TABLE: [Row; 21] = {
    use Serves as S;
    [
        Row(
            "aid",
            "flotation aid, worn",
            &[],
            "MMMMMMMMM",
            "nobody puts it on afloat",
        ),
        Row(
            "spare-paddle",
            "spare paddle",
            &[S::SparePaddle],
            "MMMMMMMMM",
            "drives fail",
        ),
        Row(
            "white-light",
            "white light, for dusk and fog",
            &[S::WhiteLight],
            "MMMMMMMMM",
            "be seen",
        ),
        Row(
            "suit",
            "immersion suit where the water is under 15 °C",
            &[S::ImmersionSuit],
            "MMMMMMMMM",
            "cold shock",
        ),
        Row(
            "foam",
            "foam aid, not an inflatable",
            &[S::FoamAid],
            "ssMsMssMM",
            "knocks, repeated swims",
        ),
        Row(
            "whistle-knife",
            "whistle and knife on the body",
            &[S::Whistle, S::Knife],
            "sMMMMMMMM",
            "be heard; cut a line",
        ),
        Row(
            "phone",
            "pouched phone on the body",
            &[S::Phone],
            "MMMMMMMss",
            "where there is signal",
        ),
        Row(
            "radio",
            "marine radio on the body",
            &[S::Radio],
            "--s--sMMM",
            "others nearby hear",
        ),
        Row(
            "flag",
            "flag, bright clothes",
            &[S::Flag],
            "-sMs-sMMs",
            "low among waves; down in surf",
        ),
        Row(
            "pump",
            "pump or bailer",
            &[S::Pump],
            "-sMsMssMs",
            "water inside rolls you",
        ),
        Row(
            "throw-line",
            "throw line",
            &[S::ThrowLine],
            "---sM--s-",
            "help from the bank",
        ),
        Row(
            "tow-line",
            "tow line, releasable",
            &[S::TowLine],
            "--s--ssMs",
            "bring a friend home",
        ),
        Row(
            "helmet",
            "helmet",
            &[S::Helmet],
            "----M---M",
            "rock, hull, sand",
        ),
        Row(
            "compass",
            "compass, position",
            &[S::Compass],
            "--s--MMMs",
            "fog; creeks look alike",
        ),
        Row(
            "tide-table",
            "tide table",
            &[S::TideTable],
            "-----MMMM",
            "stranded, swept out",
        ),
        Row(
            "beacon",
            "beacon or flares",
            &[S::Beacon],
            "------sMs",
            "no signal, adrift",
        ),
        Row(
            "first-aid",
            "first aid, pressure bandage",
            &[S::FirstAid],
            "sMMMMMMMM",
            "hooks, blades",
        ),
        Row(
            "water",
            "water 0.5 l an hour, sun, insects",
            &[S::DrinkingWater],
            "sMMMMMMMM",
            "heat dulls judgement",
        ),
        Row(
            "leash",
            "no line from hull to person",
            &[S::PersonLeash],
            "---XXXX-X",
            "it drowns in current; on still water only a leash with a quick release",
        ),
        Row(
            "anchor",
            "anchor, bow or stern, releasable",
            &[S::Anchor],
            "ssssXsssX",
            "beam on it pulls the boat under",
        ),
        Row(
            "child-aid",
            "an aid of its own for a child, of foam",
            &[],
            "MMMMMMMMM",
            "one of an adult slips off",
        ),
    ]
};

/// What a column of the table says.
fn asks(columns: &str, water: Nine) -> Asks {
    match columns.as_bytes().get(water as usize) {
        Some(b'M') => Asks::Must,
        Some(b's') => Asks::Should,
        Some(b'X') => Asks::Barred,
        _ => Asks::Not,
    }
}

/// Essentials of a question, those not asked for left out: the worse of its waters.
#[must_use]
pub fn essentials(facts: &Facts<'_>) -> Vec<Essential> {
    let rows = TABLE.iter().filter_map(|row| essential(facts, row));
    rows.collect()
}

fn essential(facts: &Facts<'_>, row: &Row) -> Option<Essential> {
    let &Row(id, text, serves, columns, why) = row;
    let waters = facts.waters();
    let asked = waters.iter().map(|&w| asks(columns, w)).max()?;
    let sits_inside = facts.hull().construction == crate::hull::Construction::SitInside;
    let children = facts
        .brief
        .others
        .iter()
        .filter(|o| o.kin() == crate::crew::Kin::Child)
        .count();
    let asked = match id {
        // A cockpit one sits in is emptied by nothing else.
        "pump" if sits_inside => Asks::Must,
        // A paddle is all a paddled hull has, and the second is asked of it too where
        // nobody is near.
        "spare-paddle" if facts.drive().is_none() && !facts.motor() => Asks::Should,
        "child-aid" if children == 0 => Asks::Not,
        "foam" if children > 0 => Asks::Must,
        _ => asked,
    };
    if asked == Asks::Not {
        return None;
    }
    let standing = match id {
        "aid" => aid(facts),
        "child-aid" => child_aid(facts, children),
        _ => serving(facts, serves),
    };
    // What is barred stands as a line to see to even where nobody brings one.
    Some(Essential {
        id,
        text,
        why,
        asks: asked,
        hard: matches!(id, "aid" | "leash" | "child-aid") || asked == Asks::Barred,
        standing,
    })
}

/// How all of several things stand: as the worst of them.
fn serving(facts: &Facts<'_>, all: &[Serves]) -> Standing {
    let mut names: Vec<&str> = Vec::new();
    let mut sure = true;
    for &what in all {
        let Some((thing, surely)) = facts.serving(what) else {
            return Standing::Missing;
        };
        sure &= surely;
        if !names.contains(&thing.name.as_str()) {
            names.push(&thing.name);
        }
    }
    let names = names.join(", ");
    if sure {
        Standing::There(names)
    } else {
        Standing::Unsure(names)
    }
}

/// An aid for each grown person, and all of them worn: one in a hatch helps nobody.
fn aid(facts: &Facts<'_>) -> Standing {
    let aids = [Serves::FoamAid, Serves::InflatableAid];
    let is = |g: &crate::gear::Gear| g.is_flotation_aid() && !g.serves.contains(&Serves::ChildAid);
    let grown = 1 + facts
        .brief
        .others
        .iter()
        .filter(|o| o.kin() == crate::crew::Kin::Adult)
        .count();
    let (mut count, mut names, mut stowed) = (0usize, Vec::new(), false);
    for (thing, n) in facts.things().filter(|(g, _)| is(g)) {
        count += n as usize;
        names.push(thing.name.clone());
        // What may only be worn is worn; what may also lie somewhere is not known to be.
        stowed |= thing.fixings.iter().any(|f| *f != Fixing::Worn) || thing.fixings.is_empty();
    }
    let names = names.join(", ");
    if count == 0 {
        return aids
            .iter()
            .find_map(|&a| facts.serving(a))
            .map_or(Standing::Missing, |(thing, _)| {
                Standing::Unsure(thing.name.clone())
            });
    }
    if count < grown {
        return Standing::Wrong(names, "one for each person aboard");
    }
    if stowed {
        return Standing::Wrong(
            names,
            "its place is on the person; the shelf lets it lie elsewhere",
        );
    }
    Standing::There(names)
}

fn child_aid(facts: &Facts<'_>, children: usize) -> Standing {
    let all = facts
        .things()
        .filter(|(g, _)| g.serves.contains(&Serves::ChildAid));
    let (mut count, mut name) = (0, String::new());
    for (thing, n) in all {
        count += n as usize;
        name.clone_from(&thing.name);
    }
    match count {
        0 => Standing::Missing,
        n if n < children => Standing::Wrong(name, "one for each child"),
        _ => Standing::There(name),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::base::Keyed;

    #[test]
    fn every_row_has_a_word_for_each_of_the_nine_waters() {
        for Row(id, _, _, columns, _) in &TABLE {
            assert_eq!(columns.len(), Nine::ALL.len(), "{id}");
            assert!(columns.bytes().all(|c| b"Ms-X".contains(&c)), "{id}");
        }
        let said = |id: &str, water| {
            let row = TABLE.iter().find(|r| r.0 == id);
            row.map(|r| asks(r.3, water))
        };
        // Read off chapter 8 by hand, columns P L O R Q M E C F.
        assert_eq!(said("helmet", Nine::QuickCreek), Some(Asks::Must));
        assert_eq!(said("helmet", Nine::Coast), Some(Asks::Not));
        assert_eq!(said("radio", Nine::Estuary), Some(Asks::Must));
        assert_eq!(said("radio", Nine::OpenLake), Some(Asks::Should));
        assert_eq!(said("leash", Nine::Coast), Some(Asks::Not));
        assert_eq!(said("leash", Nine::Surf), Some(Asks::Barred));
        assert_eq!(said("anchor", Nine::QuickCreek), Some(Asks::Barred));
        assert_eq!(said("tide-table", Nine::Marsh), Some(Asks::Must));
        assert_eq!(said("aid", Nine::Pond), Some(Asks::Must));
    }
}

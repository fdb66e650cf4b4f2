//! Known faults of a hull, with what can be done about them afloat.

use super::outing::{Fault, Outing};
use crate::papers::{CARE, Care};

/// A fault that was noted and not put right.
#[derive(Debug, Clone, PartialEq)]
pub struct Known<'a> {
    /// The outing it happened on.
    pub outing: &'a Outing,
    /// The fault.
    pub fault: &'a Fault,
    /// What is known of the part: spares, what mends it afloat.
    pub care: Option<&'static Care>,
    /// How often that part failed on that hull by now.
    pub times: usize,
}

/// What is known of a part by its name: its spares, what mends it afloat.
#[must_use]
pub fn mend(part: &str) -> Option<&'static Care> {
    /// Words of a part, and the service it falls under.
    const WORDS: [(&str, &str); 24] = [
        ("seal", "rotary-seals"),
        ("propeller", "rotary"),
        ("pin", "rotary"),
        ("shaft", "rotary"),
        ("pedal", "rotary"),
        ("drive", "rotary"),
        ("fin", "fin"),
        ("mast", "fin"),
        ("rudder", "rudder"),
        ("skeg", "rudder"),
        ("steering", "rudder"),
        ("motor", "bow-motor"),
        ("battery", "battery"),
        ("fuse", "electronics"),
        ("sounder", "electronics"),
        ("transducer", "electronics"),
        ("plug", "electronics"),
        ("hatch", "hull"),
        ("scupper", "hull"),
        ("hull", "hull"),
        ("eye", "hull"),
        ("seat", "seat"),
        ("strap", "seat"),
        ("paddle", "paddle"),
    ];
    let part = part.to_lowercase();
    let id = match CARE.iter().find(|c| c.id == part || c.what == part) {
        Some(care) => care.id,
        None => {
            let words = || part.split(|c: char| !c.is_alphanumeric());
            let named = |w: &&(&str, &str)| {
                let stem = |word: &str| word == w.0 || word.strip_suffix('s') == Some(w.0);
                words().any(stem)
            };
            WORDS.iter().find(named)?.1
        }
    };
    CARE.iter().find(|c| c.id == id)
}

/// Faults not put right, of one hull or of all, the newest first.
#[must_use]
pub fn faults<'a>(outings: &'a [Outing], hull: Option<&str>) -> Vec<Known<'a>> {
    let own = || outings.iter().filter(|o| hull.is_none_or(|h| o.hull == h));
    let times = |of: &str, part: &str| {
        let here = outings.iter().filter(|o| o.hull == of);
        let all = here.flat_map(|o| &o.faults);
        all.filter(|f| f.part.eq_ignore_ascii_case(part)).count()
    };
    let mut all: Vec<Known<'a>> = own()
        .flat_map(|outing| outing.faults.iter().map(move |fault| (outing, fault)))
        .filter(|(_, fault)| fault.mended.is_empty())
        .map(|(outing, fault)| Known {
            outing,
            fault,
            care: mend(&fault.part),
            times: times(&outing.hull, &fault.part),
        })
        .collect();
    all.sort_by(|a, b| b.outing.day.cmp(&a.outing.day));
    all
}

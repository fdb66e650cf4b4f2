//! What is lost when it goes over.

use super::layout::{Layout, Stowed};
use crate::base::words;
use crate::gear::{Category, Fixing, Tether};
use crate::rig::Rig;

words! {
/// What becomes of a thing.
pub enum Loss {
    /// It stays with it, or on the person.
    Stays,
    /// It floats, and drifts off.
    #[strum(message = "drifts off")]
    Drifts,
    /// It sinks.
    Sinks,
}
}

/// One thing's end.
#[derive(Debug, Clone, PartialEq)]
pub struct Audited {
    /// What it is.
    pub item: String,
    /// What becomes of it.
    pub loss: Loss,
    /// Whether it gets wet though it must lie dry.
    pub wets: bool,
    /// What it costs, where that is known.
    pub price: Option<f64>,
}

/// What is lost of a layout when it goes over.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Audit {
    /// Each thing's end, in the layout's order.
    pub things: Vec<Audited>,
    /// What is lost costs this much, as far as prices are known.
    pub lost: f64,
    /// Things lost or spoilt whose price is not known.
    pub unpriced: u32,
    /// Lines a swimmer could hang in: tethers and leashes.
    pub lines: u32,
    /// Leashes clipped to the person: dangerous near current or an anchor line.
    pub leashed: Vec<String>,
    /// Flotation aids that are worn: each person aboard needs one.
    pub aids_worn: u32,
    /// Flotation aids stowed anywhere but on the person.
    pub aids_stowed: Vec<String>,
}

/// Audits a layout of a rig.
#[must_use]
pub fn audit(layout: &Layout, rig: &Rig) -> Audit {
    let mut audit = Audit::default();
    for stowed in &layout.stowed {
        let gear = rig.lines.get(stowed.line).and_then(|l| l.thing.as_deref());
        if gear.is_some_and(|g| g.category == Category::Company) {
            continue;
        }
        let loss = loss(stowed, layout);
        let tether = stowed.lies.as_ref().map(|l| l.tether);
        let wets = gear.is_some_and(|g| g.needs.dry.is_some()) && !dry_enough(stowed, layout, rig);
        let price = gear.and_then(|g| g.price);
        let gone = loss != Loss::Stays || wets;
        match (gone, price) {
            (true, Some(price)) => audit.lost += price,
            (true, None) => audit.unpriced += 1,
            _ => {}
        }
        match tether {
            Some(Tether::Tethered) => audit.lines += 1,
            Some(Tether::ClippedToPerson) => {
                audit.lines += 1;
                audit.leashed.push(stowed.item.clone());
            }
            _ => {}
        }
        if gear.is_some_and(crate::gear::Gear::is_flotation_aid) {
            let worn = stowed
                .lies
                .as_ref()
                .is_some_and(|l| l.fixing == Fixing::Worn);
            audit.aids_worn += u32::from(worn);
            if !worn {
                audit.aids_stowed.push(stowed.item.clone());
            }
        }
        audit.things.push(Audited {
            item: stowed.item.clone(),
            loss,
            wets,
            price,
        });
    }
    audit
}

/// What becomes of a thing by how it is held: bolted, tracked, plugged in or
/// strapped it stays; what is loose goes the way its tether says. What is shut in a
/// hatch stays with the hull. What is packed goes with its container.
fn loss(stowed: &Stowed, layout: &Layout) -> Loss {
    let Some(lies) = &stowed.lies else {
        // Nobody knows how it is held.
        return Loss::Sinks;
    };
    if let Some(container) = &lies.within {
        let holds = layout.stowed.iter().find(|s| s.item == *container);
        return holds.map_or(Loss::Sinks, |s| loss(s, layout));
    }
    let held = matches!(
        lies.fixing,
        Fixing::Worn
            | Fixing::Insert
            | Fixing::Track
            | Fixing::Plate
            | Fixing::Strap
            | Fixing::Glue
            | Fixing::Drill
    );
    match lies.tether {
        _ if held => Loss::Stays,
        Tether::Tethered | Tether::Fixed | Tether::ClippedToPerson => Loss::Stays,
        // A rod slides out of a holder; a hatch is shut.
        _ if lies.shut_in => Loss::Stays,
        Tether::Floats => Loss::Drifts,
        Tether::Sinks => Loss::Sinks,
    }
}

/// Whether what must lie dry does so though it lies on its side: its place must be
/// dry when held under.
fn dry_enough(stowed: &Stowed, layout: &Layout, rig: &Rig) -> bool {
    let Some(lies) = &stowed.lies else {
        return false;
    };
    let under = crate::hull::Dryness::HeldUnder;
    if let Some(container) = &lies.within {
        let holds = layout.stowed.iter().find(|s| s.item == *container);
        let gear = holds.and_then(|s| rig.lines.get(s.line)?.thing.as_deref());
        if gear
            .and_then(|g| g.brings.keeps)
            .is_some_and(|k| k >= under)
        {
            return true;
        }
        return holds.is_some_and(|s| dry_enough(s, layout, rig));
    }
    lies.dryness.is_some_and(|d| d >= under)
}

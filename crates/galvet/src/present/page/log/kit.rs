//! Kit over the log: used, not used, nobody says; what stays ashore and what that gains.

use super::some;
use crate::present::draw::log::{Share, share};
use galvet_core::base::{Dimension, System};
use galvet_core::log::CarriedKit;

/// A thing.
pub struct KitLine {
    pub key: Option<String>,
    pub item: String,
    pub facts: String,
    pub share: Share,
    pub words: String,
    /// What leaving it ashore would gain.
    pub gain: String,
}

/// The page.
pub struct KitView {
    pub lead: String,
    pub ashore: Vec<KitLine>,
    pub others: Vec<KitLine>,
}

/// What leaving a thing ashore gains: its key, on which hull, where it lies, kg of margin.
pub struct Gain {
    pub key: String,
    pub hull: String,
    pub zone: String,
    pub margin: f64,
}

/// Makes the page.
#[must_use]
pub fn view(kit: &[CarriedKit<'_>], gains: &[Gain], system: System) -> KitView {
    let most = kit.iter().map(|k| k.carried).max().unwrap_or(1);
    let (ashore, others): (Vec<_>, Vec<_>) = kit.iter().partition(|k| k.stays_ashore());
    let mass: f64 = ashore
        .iter()
        .filter_map(|k| k.gear)
        .map(|g| g.loaded_mass)
        .sum();
    let money: f64 = ashore.iter().filter_map(|k| k.a_year).sum();
    let lead = match ashore.len() {
        _ if kit.is_empty() => "Nothing is noted yet of what came along.".to_owned(),
        0 => "Everything that came along eight times was used, or nobody said.".to_owned(),
        n => format!(
            "{}, {} altogether, {} a year: carried and never used",
            some(n, "thing", "things"),
            system.text(Dimension::Mass, mass, 1),
            system.text(Dimension::Money, money, 0)
        ),
    };
    let line = |k: &CarriedKit<'_>| line(k, most, gains, system);
    KitView {
        lead,
        ashore: ashore.into_iter().map(line).collect(),
        others: others.into_iter().map(line).collect(),
    }
}

fn line(k: &CarriedKit<'_>, most: usize, gains: &[Gain], system: System) -> KitLine {
    let mut facts = vec![format!("carried {} times", k.carried)];
    if let Some(gear) = k.gear {
        facts.push(system.text(Dimension::Mass, gear.loaded_mass, 1));
    } else {
        facts.push("not on the shelf: its weight is not known".to_owned());
    }
    if let Some(money) = k.a_year {
        facts.push(format!(
            "{} a year",
            system.text(Dimension::Money, money, 0)
        ));
    }
    if k.harmed > 0 {
        facts.push(format!("lost, broken or wet {} times", k.harmed));
    }
    if k.ashore > 0 {
        facts.push(format!("left ashore {} times", k.ashore));
    }
    if k.safety {
        facts.push("it keeps somebody alive: never told to stay ashore".to_owned());
    }
    let key = k.gear.map(|g| g.key.clone());
    let gain = gains.iter().find(|g| Some(&g.key) == key.as_ref());
    KitLine {
        item: k.item.clone(),
        facts: facts.join(" · "),
        share: share(k.used, k.unused, k.unsaid, most),
        words: format!(
            "{}: used {}, not used {}, nobody says {}",
            k.item, k.used, k.unused, k.unsaid
        ),
        gain: gain.map_or(String::new(), |g| {
            let more = system.text(Dimension::Mass, g.margin.max(0.0), 1);
            format!("{}, {}: left ashore, {more} more margin", g.hull, g.zone)
        }),
        key,
    }
}

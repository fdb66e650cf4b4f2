//! What a person put somewhere: the engine works around it.

use super::bulk::Bulk;
use super::choose::Place;
use super::demand::Item;
use super::space::{SocketKind, Space};
use crate::hull::Pin;

/// A pin that was found to be of this rig and this hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Pinned {
    /// Where.
    pub place: Place,
    /// Its middle along, m.
    pub x: f64,
    /// Its middle across, m.
    pub y: f64,
    /// What it stands on, over the cockpit floor, m.
    pub z: f64,
    /// Its size as it lies, m.
    pub size: [f64; 3],
}

impl Pinned {
    /// The room it takes.
    #[must_use]
    pub fn bulk(&self) -> Bulk {
        let about = |middle: f64, size: f64| (middle - 0.5 * size, middle + 0.5 * size);
        Bulk([
            about(self.x, self.size[0]),
            about(self.y, self.size[1]),
            (self.z, self.z + self.size[2]),
        ])
    }
}

/// For each item, its pin where it has one; a pin of another rig, or at a place
/// the hull has not, is left out.
pub(super) fn pinned(pins: &[Pin], items: &[Item<'_>], space: &Space) -> Vec<Option<Pinned>> {
    let mut found: Vec<Option<Pinned>> = vec![None; items.len()];
    for pin in pins {
        let alike = |i: &usize| {
            let key = items[*i].gear.map(|g| g.key.as_str());
            key == Some(pin.thing.as_str()) && items[*i].inside.is_none()
        };
        let mut alike = (0..items.len()).filter(alike);
        let Some(i) = alike.nth(pin.nth as usize) else {
            continue;
        };
        let Some([length, width, height]) = items[i].size() else {
            continue;
        };
        let size = if pin.turned {
            [width, length, height]
        } else {
            [length, width, height]
        };
        let area = space.areas.iter().position(|a| a.name == pin.place);
        let rail = space.rails.iter().position(|r| r.name == pin.place);
        let socket = space.sockets.iter().position(|s| s.name == pin.place);
        let (place, x, y, z) = match (area, rail, socket) {
            (Some(a), ..) => (Place::Area(a), pin.x, pin.y, space.areas[a].floor),
            (None, Some(r), _) => {
                let rail = &space.rails[r];
                (Place::Rail(r), pin.x, rail.y, rail.z)
            }
            (None, None, Some(s)) => {
                let socket = &space.sockets[s];
                (Place::Socket(s), socket.x, socket.y, socket.z)
            }
            (None, None, None) => continue,
        };
        found[i] = Some(Pinned {
            place,
            x,
            y,
            z,
            size,
        });
    }
    found
}

/// Whether a pin takes room on the hull: what leans in a holder or hangs beneath
/// takes none.
pub(super) fn takes_room(pinned: &Pinned, space: &Space) -> bool {
    match pinned.place {
        Place::Person | Place::Drive => false,
        Place::Socket(s) => matches!(
            space.sockets[s].kind,
            SocketKind::Insert | SocketKind::Plate
        ),
        Place::Tube(_) | Place::Lid(_) | Place::Rail(_) | Place::Area(_) => true,
    }
}

//! Every way to stow a single thing on a hull: on the person, in sockets, on rails
//! and lids (floors are in [`super::floors`]).

use super::choose::{Choice, Doubt, Place, Refusal, RefusedBy, bears};
use super::demand::Item;
use super::reach::Arms;
use super::space::{Rail, Socket, SocketKind, Space};
use crate::base::Keyed;
use crate::gear::{Fixing, Gear};
use crate::guide::{Guide, Guides};
use crate::hull::{Dryness, Propulsion, Reach, ZoneKind};

/// Whether a mount takes what an item needs.
enum Mounts {
    Fits,
    With(usize),
    NotKnown,
    No,
}

/// Finds choices for items.
pub struct Chooser<'a> {
    pub(super) space: &'a Space,
    pub(super) guides: &'a Guides,
    pub(super) items: &'a [Item<'a>],
    pub(super) arms: Arms,
}

impl Chooser<'_> {
    /// Every way to stow an item, best first; with it the best reason against
    /// each place it likes.
    #[must_use]
    pub fn choices(&self, index: usize) -> (Vec<Choice>, Vec<Refusal>) {
        let mut found = Vec::new();
        let mut refused = Vec::new();
        let item = &self.items[index];
        let (Some(gear), Some(size)) = (item.gear, item.size()) else {
            return (found, refused);
        };
        let ladder: &[Fixing] = if gear.fixings.is_empty() {
            &[Fixing::Strap, Fixing::Loose]
        } else {
            &gear.fixings
        };
        for (rung, &fixing) in ladder.iter().enumerate() {
            if !bears(fixing, gear.strain) {
                continue;
            }
            let asked = Asked {
                index,
                gear,
                size,
                fixing,
                rung: rung as u32,
            };
            match fixing {
                Fixing::Worn => found.push(self.plain(&asked, Place::Person, Reach::OneHanded, 0)),
                Fixing::Holder | Fixing::Insert | Fixing::Plate => {
                    self.sockets(&asked, &mut found, &mut refused);
                }
                Fixing::Track => self.rails(&asked, true, &mut found, &mut refused),
                Fixing::Strap => {
                    self.rails(&asked, false, &mut found, &mut refused);
                    self.lids(&asked, &mut found);
                    self.areas(&asked, &mut found, &mut refused);
                }
                Fixing::Glue | Fixing::Drill | Fixing::Loose => {
                    self.areas(&asked, &mut found, &mut refused);
                }
            }
            let driven = self.space.propulsion != Propulsion::Paddle;
            if driven && gear.zones.contains(&ZoneKind::OnTheDrive) {
                found.push(self.plain(&asked, Place::Drive, Reach::Seated, 0));
            }
        }
        refused.extend(self.not_there(gear));
        found.sort_by(|a, b| {
            let by_side = a.crowds.cmp(&b.crowds).then(a.place.cmp(&b.place));
            a.cost.cmp(&b.cost).then(by_side)
        });
        found.dedup_by(|a, b| a.place == b.place && a.cost == b.cost);
        (found, refused)
    }

    /// Where a thing is meant to go, in words, where none of that is on this hull.
    fn not_there(&self, gear: &Gear) -> Option<Refusal> {
        let floors = |kind: &ZoneKind| self.space.areas.iter().any(|a| a.kind == *kind);
        let meant = gear
            .zones
            .first()
            .filter(|_| !gear.zones.iter().any(floors))?;
        // What can be strapped or laid anywhere is told why it does not go there.
        let bolted = |f: &Fixing| matches!(f, Fixing::Plate | Fixing::Insert | Fixing::Drill);
        if !gear.fixings.iter().any(bolted) {
            return None;
        }
        let mount = match gear.mount.as_str() {
            "" => String::new(),
            mount => format!("a {mount} or "),
        };
        Some(Refusal {
            code: RefusedBy::NotThere,
            place: format!("{mount}the {}", meant.label()),
            needs: 0.0,
            gives: 0.0,
        })
    }

    /// Whether a fitting at `x` is at the end of it where a thing is meant to go: a
    /// motor for the stern on no plate of the bow.
    pub(super) fn at_its_end(&self, gear: &Gear, x: f64) -> bool {
        let fore = |k: &ZoneKind| matches!(k, ZoneKind::BowDeck | ZoneKind::BowHatch);
        let aft = |k: &ZoneKind| {
            matches!(
                k,
                ZoneKind::SternDeck | ZoneKind::SternHatch | ZoneKind::TankWell
            )
        };
        match gear.zones.as_slice() {
            [] => true,
            zones if zones.iter().all(fore) => x < self.space.seat,
            zones if zones.iter().all(aft) => x > self.space.seat,
            _ => true,
        }
    }

    /// A choice without more ado; `rank` says how little the place is liked.
    pub(super) fn plain(&self, asked: &Asked<'_>, place: Place, reach: Reach, rank: u32) -> Choice {
        Choice {
            place,
            fixing: asked.fixing,
            holes: 0,
            cost: [
                self.reach_short(asked.index, reach),
                0,
                0,
                asked.dislike(rank),
            ],
            within: f64::INFINITY,
            crowds: false,
            adapter: None,
            stretched: false,
            doubt: None,
        }
    }

    /// Whether a thing would stand up where a side is better left clear.
    fn crowds(&self, (x, y): (f64, f64), z: f64, asked: &Asked<'_>) -> bool {
        let up = if asked.fixing == Fixing::Holder {
            asked.size[0]
        } else {
            asked.size[2]
        };
        self.space.in_the_way(x, y, z + up).is_some()
    }

    /// What must be within reach: of the item, or of anything packed in it.
    pub(super) fn reach_needed(&self, index: usize) -> Option<Reach> {
        let own = self.items[index].gear.and_then(|g| g.needs.reach);
        let packed = self.packed(index).filter_map(|g| g.needs.reach);
        own.into_iter().chain(packed).min()
    }

    /// How dry it must lie: the item, or what is packed in it and not kept dry by
    /// it.
    pub(super) fn dryness_needed(&self, index: usize) -> Option<Dryness> {
        let gear = self.items[index].gear;
        let own = gear.and_then(|g| g.needs.dry);
        let keeps = gear.and_then(|g| g.brings.keeps);
        let packed = self.packed(index).filter_map(|g| g.needs.dry);
        let packed = packed.filter(|need| keeps.is_none_or(|k| k < *need));
        own.into_iter().chain(packed).max()
    }

    fn packed(&self, index: usize) -> impl Iterator<Item = &Gear> {
        let inside = move |item: &&Item<'_>| item.inside == Some(index);
        self.items
            .iter()
            .filter(inside)
            .filter_map(|item| item.gear)
    }

    pub(super) fn reach_short(&self, index: usize, reach: Reach) -> u32 {
        let need = self.reach_needed(index);
        need.map_or(0, |need| (reach as u32).saturating_sub(need as u32))
    }

    fn mounts(&self, gear: &Gear, mount: &str, guessed: bool) -> Mounts {
        if gear.mount.is_empty() || gear.mount == mount {
            return Mounts::Fits;
        }
        let adapter = self.items.iter().position(|item| {
            let adapts = item.gear.and_then(|g| g.brings.adapts.as_ref());
            adapts.is_some_and(|(on, offers)| on == mount && *offers == gear.mount)
        });
        match adapter {
            Some(adapter) => Mounts::With(adapter),
            None if mount.is_empty() || guessed => Mounts::NotKnown,
            None => Mounts::No,
        }
    }

    /// A choice at a mount, with its adapter or doubt; `None` where it does not
    /// take the item.
    fn mounted(
        &self,
        asked: &Asked<'_>,
        place: Place,
        (x, mount, name, guessed): (f64, &str, &str, bool),
        crowds: bool,
        refused: &mut Vec<Refusal>,
    ) -> Option<Choice> {
        let choice = Choice {
            crowds,
            ..self.plain(asked, place, self.arms.to(x), 0)
        };
        Some(match self.mounts(asked.gear, mount, guessed) {
            Mounts::Fits => choice,
            Mounts::With(adapter) => Choice {
                adapter: Some(adapter),
                ..choice
            },
            Mounts::NotKnown => Choice {
                doubt: Some(Doubt::Mount(name.to_owned())),
                ..choice
            },
            Mounts::No => {
                refused.push(Refusal {
                    code: RefusedBy::NothingHolds,
                    place: name.to_owned(),
                    needs: 0.0,
                    gives: 0.0,
                });
                return None;
            }
        })
    }

    fn sockets(&self, asked: &Asked<'_>, found: &mut Vec<Choice>, refused: &mut Vec<Refusal>) {
        let [length, width, height] = asked.size;
        let thin = length >= 0.6;
        let small = length.max(width) <= 0.10 && height <= 0.30;
        for (s, socket) in self.space.sockets.iter().enumerate() {
            let takes = match (asked.fixing, socket.kind) {
                (Fixing::Holder, SocketKind::Holder { .. }) => thin,
                (Fixing::Holder, SocketKind::Cup) => small,
                (Fixing::Holder | Fixing::Insert | Fixing::Plate, SocketKind::Recess(l, w)) => {
                    asked.gear.needs.in_the_water && length <= l && width <= w
                }
                (Fixing::Insert, SocketKind::Insert) | (Fixing::Plate, SocketKind::Plate) => {
                    self.at_its_end(asked.gear, socket.x)
                }
                _ => false,
            };
            if !takes || self.in_the_stroke(socket.x, asked, &socket.name, refused) {
                continue;
            }
            let Socket { x, mount, name, .. } = socket;
            let at = (*x, mount.as_str(), name.as_str(), socket.guessed);
            let crowds = self.crowds((*x, socket.y), socket.z, asked);
            found.extend(self.mounted(asked, Place::Socket(s), at, crowds, refused));
        }
        if asked.fixing == Fixing::Holder && thin {
            let tubes = |c: &usize| {
                let item = &self.items[*c];
                item.inside.is_none() && item.gear.is_some_and(|g| g.brings.tubes > 0)
            };
            let containers = (0..self.items.len()).filter(tubes);
            found
                .extend(containers.map(|c| self.plain(asked, Place::Tube(c), Reach::OneHanded, 1)));
        }
    }

    fn lids(&self, asked: &Asked<'_>, found: &mut Vec<Choice>) {
        let lid = |c: &usize| {
            let item = &self.items[*c];
            let fits = item.size().is_some_and(|[l, w, _]| {
                let [length, width, _] = asked.size;
                length <= l && width <= w || width <= l && length <= w
            });
            *c != asked.index
                && item.inside.is_none()
                && fits
                && item.gear.is_some_and(|g| g.brings.lid)
        };
        let containers = (0..self.items.len()).filter(lid);
        found.extend(containers.map(|c| self.plain(asked, Place::Lid(c), Reach::OneHanded, 6)));
    }

    /// Rails: tracks for what mounts on one, the sides for what is long and thin.
    fn rails(
        &self,
        asked: &Asked<'_>,
        tracks: bool,
        found: &mut Vec<Choice>,
        refused: &mut Vec<Refusal>,
    ) {
        let [length, width, height] = asked.size;
        // A pole, a paddle, a pump: long for its width, and flat against the side.
        let thin = length >= 0.45 && length >= 5.0 * width && width.min(height) <= 0.12;
        for (r, rail) in self.space.rails.iter().enumerate() {
            if rail.track != tracks || !tracks && !thin {
                continue;
            }
            let Rail {
                name,
                from,
                to,
                mount,
                ..
            } = rail;
            let along = if tracks { length.min(width) } else { length };
            if along > to - from {
                refused.push(Refusal {
                    code: RefusedBy::TooLong,
                    place: name.clone(),
                    needs: along,
                    gives: to - from,
                });
                continue;
            }
            let near = self.space.seat.clamp(from + 0.5 * along, to - 0.5 * along);
            if tracks && self.in_the_stroke(near, asked, name, refused) {
                continue;
            }
            if tracks {
                let at = (near, mount.as_str(), name.as_str(), rail.guessed);
                let crowds = self.crowds((near, rail.y), rail.z, asked);
                found.extend(self.mounted(asked, Place::Rail(r), at, crowds, refused));
            } else {
                let rank = asked.rank(ZoneKind::SidePocket);
                found.push(self.plain(asked, Place::Rail(r), self.arms.to(near), rank));
            }
        }
    }

    /// Whether something that stands at `x` would be in a paddle's way.
    fn in_the_stroke(
        &self,
        x: f64,
        asked: &Asked<'_>,
        name: &str,
        refused: &mut Vec<Refusal>,
    ) -> bool {
        let (seat, most) = (self.space.seat, self.guides[Guide::StrokeHeight]);
        let sweeps = seat - self.guides[Guide::StrokeAhead]..=seat + 0.1;
        let height = if asked.fixing == Fixing::Holder {
            asked.size[0]
        } else {
            asked.size[2]
        };
        let paddled = self.space.propulsion == Propulsion::Paddle;
        let is = paddled && sweeps.contains(&x) && height > most;
        if is {
            refused.push(Refusal {
                code: RefusedBy::InTheStroke,
                place: name.to_owned(),
                needs: height,
                gives: most,
            });
        }
        is
    }
}

/// An item on one rung of its ladder.
pub(super) struct Asked<'a> {
    pub(super) index: usize,
    pub(super) gear: &'a Gear,
    pub(super) size: [f64; 3],
    pub(super) fixing: Fixing,
    pub(super) rung: u32,
}

impl Asked<'_> {
    /// How little a way to stow it is liked: the ladder before the place.
    pub(super) fn dislike(&self, rank: u32) -> u32 {
        32 * self.rung + rank.min(31)
    }

    /// How little a kind of zone is liked: its place on the item's list.
    pub(super) fn rank(&self, kind: ZoneKind) -> u32 {
        let liked = self.gear.zones.iter().position(|&z| z == kind);
        let last = match kind {
            ZoneKind::CockpitFloor => 12,
            _ => 8,
        };
        liked.map_or(last, |at| at as u32)
    }
}

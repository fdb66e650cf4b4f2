//! A search's hand: puts a thing in a socket, on a rail, on a floor, where there is
//! room, and takes it away again.

use super::bulk::{Bulk, down, local, over_stretched};
use super::choose::Place;
use super::pack::{Packed, Piece, Rect, Room, pack};
use super::search::{Search, is_aft};
use super::space::{Area, SocketKind};
use crate::guide::Guide;

impl Search<'_> {
    /// Puts an item at a choice; `false` where there is no room (any more).
    pub(super) fn put(&mut self, i: usize, c: usize) -> bool {
        self.chosen[i] = Some(c);
        let placed = match self.choices[i][c].place {
            Place::Person | Place::Drive => true,
            Place::Socket(s) => self.put_in_socket(s, i),
            Place::Tube(c) => self.put_in_tube(c),
            Place::Lid(c) => self.put_on_lid(c, i),
            Place::Rail(r) => self.put_on_rail(r, i),
            Place::Area(a) => self.put_in_area(a, i),
        };
        if !placed {
            self.chosen[i] = None;
        }
        placed
    }

    /// Whether something sits in its tubes or on its lid.
    pub(super) fn carries(&self, i: usize) -> bool {
        let tubes = self.tubes.get(&i).is_some_and(|&n| n > 0);
        tubes || self.lids.get(&i).is_some_and(|on| !on.is_empty())
    }

    /// Takes an item away again.
    pub(super) fn take(&mut self, i: usize, c: usize) {
        match self.choices[i][c].place {
            Place::Person | Place::Drive => {}
            Place::Socket(s) => {
                self.sockets[s] = false;
                self.bulks.retain(|(other, ..)| *other != i);
            }
            Place::Tube(c) => {
                if let Some(used) = self.tubes.get_mut(&c) {
                    *used -= 1;
                }
            }
            Place::Lid(c) => {
                if let Some(on) = self.lids.get_mut(&c) {
                    on.retain(|&other| other != i);
                }
            }
            Place::Rail(r) => {
                self.rails[r].retain(|(other, ..)| *other != i);
                self.bulks.retain(|(other, ..)| *other != i);
            }
            Place::Area(a) => self.areas[a].retain(|&other| other != i),
        }
        self.chosen[i] = None;
    }

    fn aboard(&self, container: usize) -> bool {
        self.chosen[container].is_some() || self.pinned[container].is_some()
    }

    fn put_in_socket(&mut self, s: usize, i: usize) -> bool {
        if self.sockets[s] {
            return false;
        }
        let socket = &self.chooser.space.sockets[s];
        // What stands on inserts or a plate takes room about it; what leans in a
        // holder, or hangs under the hull, takes none of a floor.
        if matches!(socket.kind, SocketKind::Insert | SocketKind::Plate) {
            let [length, width, height] = self.chooser.items[i].size().unwrap_or_default();
            let about = |middle: f64, size: f64| (middle - 0.5 * size, middle + 0.5 * size);
            let bulk = Bulk([
                about(socket.x, length),
                about(socket.y, width),
                (socket.z, socket.z + height),
            ]);
            if !self.put_bulk(i, bulk) {
                return false;
            }
        }
        self.sockets[s] = true;
        true
    }

    /// Stands a box on the hull, clear of the others, and of what lies beneath.
    fn put_bulk(&mut self, i: usize, bulk: Bulk) -> bool {
        if self.bulks.iter().any(|(_, other, _)| other.meets(&bulk)) {
            return false;
        }
        let takes = self.taken_of_floors(&bulk);
        let touched: Vec<usize> = takes.iter().map(|t| t.0).collect();
        self.bulks.push((i, bulk, takes));
        let still = touched
            .into_iter()
            .filter(|&a| !self.areas[a].is_empty())
            .all(|a| self.pack_area(a).is_some());
        if !still {
            self.bulks.pop();
        }
        still
    }

    /// What a box takes of the floors it stands over, in their own millimetres.
    pub(super) fn taken_of_floors(&self, bulk: &Bulk) -> Vec<(usize, Rect)> {
        let space = self.chooser.space;
        let areas = space.areas.iter().enumerate();
        let under = areas.filter(|(_, area)| over_stretched(area, bulk));
        let [(from, to), (port, starboard), _] = bulk.0;
        let at = [from, to, port, starboard];
        under
            .map(|(a, area)| (a, local(area, is_aft(space, area), at)))
            .collect()
    }

    fn put_in_tube(&mut self, container: usize) -> bool {
        let tubes = self.chooser.items[container]
            .gear
            .map_or(0, |g| g.brings.tubes);
        let used = self.tubes.get(&container).copied().unwrap_or(0);
        if !self.aboard(container) || used >= tubes {
            return false;
        }
        self.tubes.insert(container, used + 1);
        true
    }

    fn put_on_lid(&mut self, container: usize, i: usize) -> bool {
        // One thing to a lid; where its box stands must be open above it.
        let taken = self.lids.get(&container).is_some_and(|on| !on.is_empty());
        let chosen = self.chosen[container].map(|c| self.choices[container][c].place);
        let open = match chosen {
            Some(Place::Area(a)) => {
                let area = &self.chooser.space.areas[a];
                let high = |i: usize| self.chooser.items[i].size().map_or(0.0, |s| s[2]);
                let top = high(container) + high(i);
                !area.enclosed && area.height.is_none_or(|h| top <= h)
            }
            _ => false,
        };
        if taken || !open {
            return false;
        }
        self.lids.entry(container).or_default().push(i);
        true
    }

    fn put_on_rail(&mut self, r: usize, i: usize) -> bool {
        let rail = &self.chooser.space.rails[r];
        let [length, width, height] = self.chooser.items[i].size().unwrap_or_default();
        let (along, across) = if rail.track {
            (length.min(width), length.max(width))
        } else {
            (length, width)
        };
        let gap = self.chooser.guides[Guide::TrackGap];
        let (z, track) = (rail.z, rail.track);
        let middle = rail.middle(across, self.chooser.space.size[1]);
        let bulk = |from: f64| {
            let y = if track {
                (middle - 0.5 * across, middle + 0.5 * across)
            } else {
                // Hung outboard, edge up, clear of what stands on the deck.
                let thick = across.min(height);
                (
                    middle - if middle < 0.0 { thick } else { 0.0 },
                    middle + if middle < 0.0 { 0.0 } else { thick },
                )
            };
            Bulk([(from, from + along), y, (z, z + height)])
        };
        // As near the seat as it goes.
        let seat = self.chooser.space.seat - 0.5 * along;
        let ends = self.rails[r]
            .iter()
            .flat_map(|&(_, from, to)| [to + gap, from - gap - along]);
        let mut starts: Vec<f64> = ends
            .chain([seat.clamp(rail.from, (rail.to - along).max(rail.from))])
            .filter(|&from| from >= rail.from - 1e-9 && from + along <= rail.to + 1e-9)
            .collect();
        starts.sort_by(|a, b| {
            (a - seat)
                .abs()
                .total_cmp(&(b - seat).abs())
                .then(a.total_cmp(b))
        });
        let clear = |from: f64| {
            let apart = |&(_, f, t): &(usize, f64, f64)| {
                from >= t + gap - 1e-9 || from + along <= f - gap + 1e-9
            };
            self.rails[r].iter().all(apart)
        };
        starts.retain(|&from| clear(from));
        let found = starts
            .into_iter()
            .find(|&from| self.put_bulk(i, bulk(from)));
        if let Some(from) = found {
            self.rails[r].push((i, from, from + along));
        }
        found.is_some()
    }

    fn put_in_area(&mut self, a: usize, i: usize) -> bool {
        self.areas[a].push(i);
        let fits = self.pack_area(a).is_some();
        if !fits {
            self.areas[a].pop();
        }
        fits
    }

    /// Packs what is in an area; `None` where it does not go in.
    pub(super) fn pack_area(&self, a: usize) -> Option<(Vec<Rect>, bool)> {
        let area = &self.chooser.space.areas[a];
        let mut kept = self.kept[a].clone();
        let takes = self.bulks.iter().flat_map(|(_, _, takes)| takes);
        kept.extend(takes.filter(|(of, _)| *of == a).map(|(_, rect)| *rect));
        let piece = |&i: &usize| {
            let [length, width] = self.sizes[i];
            let within = self.chosen[i].map(|c| self.within[i][c]);
            Piece {
                length,
                width,
                turns: true,
                within: within.unwrap_or(i32::MAX),
            }
        };
        let pieces: Vec<Piece> = self.areas[a].iter().map(piece).collect();
        let asked = (a, pieces, kept);
        if let Some(known) = self.packed.borrow().get(&asked) {
            return known.clone();
        }
        let packed = self.pack_anew(area, &asked.1, &asked.2);
        self.packed.borrow_mut().insert(asked, packed.clone());
        packed
    }

    fn pack_anew(&self, area: &Area, pieces: &[Piece], kept: &[Rect]) -> Option<(Vec<Rect>, bool)> {
        let sizes = [[0.0; 2], area.slack];
        for (n, more) in sizes.into_iter().enumerate() {
            if n > 0 && !area.guessed {
                break;
            }
            let room = Room {
                length: down(area.length() + more[0]),
                width: down(area.width() + more[1]),
                kept,
            };
            if let Packed::At(rects) = pack(room, pieces, self.effort) {
                return Some((rects, n > 0));
            }
        }
        None
    }
}

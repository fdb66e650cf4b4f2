//! Where things come to lie: a search's outcome in the hull's frame.

use super::bulk::At;
use super::choose::Place;
use super::deck::metres;
use super::engine::Engine;
use super::search::{Found, PackedArea};
use super::space::SocketKind;

impl Engine<'_> {
    /// Where everything lies, what is packed in a container excepted.
    pub(super) fn places(&self, found: &Found) -> Vec<Option<At>> {
        let space = self.chooser.space;
        let mut at: Vec<Option<At>> = vec![None; self.chooser.items.len()];
        for (i, pin) in self.pinned.iter().enumerate() {
            at[i] = pin.as_ref().map(|p| At {
                x: p.x,
                y: p.y,
                z: p.z,
                size: p.size,
            });
        }
        for (a, packed) in found.areas.iter().enumerate() {
            for (i, [from, to, port, starboard]) in self.in_hull(a, packed) {
                let height = self.size(i)[2];
                at[i] = Some(At {
                    x: 0.5 * (from + to),
                    y: 0.5 * (port + starboard),
                    z: space.areas[a].floor,
                    size: [to - from, starboard - port, height],
                });
            }
        }
        for (r, on) in found.rails.iter().enumerate() {
            for &(i, from, to) in on.iter().filter(|(i, ..)| self.pinned[*i].is_none()) {
                let [length, width, height] = self.size(i);
                let rail = &space.rails[r];
                let across = if rail.track {
                    length.max(width)
                } else {
                    width.min(height)
                };
                let y = if rail.track {
                    rail.middle(across, space.size[1])
                } else {
                    rail.y + 0.5 * across * rail.y.signum()
                };
                at[i] = Some(At {
                    x: 0.5 * (from + to),
                    y,
                    z: rail.z,
                    size: [to - from, across, height],
                });
            }
        }
        for (i, at) in at.iter_mut().enumerate() {
            let Some(choice) = found.chosen[i].map(|c| &self.choices[i][c]) else {
                continue;
            };
            let size = self.size(i);
            *at = match choice.place {
                Place::Person => Some(At {
                    x: space.seat,
                    y: 0.0,
                    // At the chest.
                    z: 0.25 * space.aboard.stature,
                    size,
                }),
                Place::Drive => Some(At {
                    x: space.feet + 0.2,
                    y: 0.0,
                    z: 0.0,
                    size,
                }),
                Place::Socket(s) => {
                    let socket = &space.sockets[s];
                    Some(At {
                        x: socket.x,
                        y: socket.y,
                        z: socket.z,
                        size: match socket.kind {
                            SocketKind::Holder { angle, .. } => leaning(size, angle),
                            _ => size,
                        },
                    })
                }
                _ => *at,
            };
        }
        for i in 0..at.len() {
            let place = found.chosen[i].map(|c| self.choices[i][c].place);
            let (Some(Place::Tube(held) | Place::Lid(held)), size) = (place, self.size(i)) else {
                continue;
            };
            at[i] = at[held].map(|box_at| match place {
                Some(Place::Tube(_)) => At {
                    z: box_at.z,
                    size: leaning(size, 90.0),
                    ..box_at
                },
                // Turned where only so it does not stick out.
                _ => At {
                    z: box_at.z + box_at.size[2],
                    size: if size[0] <= box_at.size[0] && size[1] <= box_at.size[1] {
                        size
                    } else {
                        [size[1], size[0], size[2]]
                    },
                    ..box_at
                },
            });
        }
        at
    }

    pub(super) fn size(&self, i: usize) -> [f64; 3] {
        self.chooser.items[i].size().unwrap_or_default()
    }

    /// The rectangles of an area in the hull's frame: the whole pack in the middle
    /// across, where nothing is kept free there and nothing stands over it.
    fn in_hull(&self, a: usize, packed: &PackedArea) -> Vec<(usize, [f64; 4])> {
        let rects = &packed.items;
        let area = &self.chooser.space.areas[a];
        let search_aft = 0.5 * (area.from + area.to) > self.chooser.space.seat;
        let width = rects.iter().map(|(_, r)| r.side()).max().unwrap_or(0);
        let alone = !packed.stood_over
            && area.kept.is_empty()
            && self
                .pinned
                .iter()
                .flatten()
                .all(|p| p.place != Place::Area(a));
        let shift = if alone {
            (0.5 * (area.width() - f64::from(width) / 1000.0)).max(0.0)
        } else {
            0.0
        };
        rects
            .iter()
            .map(|&(i, rect)| {
                let [near, far, port, starboard] = metres(rect);
                let (from, to) = if search_aft {
                    (area.from + near, area.from + far)
                } else {
                    (area.to - far, area.to - near)
                };
                (
                    i,
                    [
                        from,
                        to,
                        area.port + shift + port,
                        area.port + shift + starboard,
                    ],
                )
            })
            .collect()
    }
}

/// What leans in a holder: its length in the air, its foot at the holder.
fn leaning([length, width, _]: [f64; 3], angle: f64) -> [f64; 3] {
    let (sin, cos) = angle.to_radians().sin_cos();
    [
        (length * cos.abs()).max(width),
        width,
        (length * sin).max(width),
    ]
}

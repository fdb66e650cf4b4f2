//! A layout put together from a search's outcome: what lies where, what is not
//! known, what was left and why.

use super::bulk::At;
use super::choose::{Doubt, Place, Refusal, RefusedBy};
use super::deck::{Deck, Standing, Taken, figures};
use super::demand::Item;
use super::engine::Engine;
use super::layout::{Layout, Lies, Stowed, Unplaced, whole_line};
use super::pose::Pose;
use super::search::Found;
use crate::gear::{Fixing, Gear, Tether};
use crate::guide::Guide;
use crate::hull::Reach;

impl Engine<'_> {
    /// Puts the outcome together.
    pub(super) fn layout(&self, found: &Found) -> Layout {
        let items = self.chooser.items;
        let at = self.places(found);
        let mut layout = Layout {
            bow: self.bow,
            ..Layout::default()
        };
        let mut things = Vec::new();
        // How each thing that found a place lies.
        let mut lie: Vec<Option<Lies>> = vec![None; items.len()];
        for (i, item) in items.iter().enumerate() {
            if item.inside.is_some() {
                continue;
            }
            let Some(_) = item.size() else {
                // Where the line says, each with what is packed in it: see `packed`.
                layout.stowed.push(self.one_where_it_says(item));
                let said = (item.name.to_owned(), Doubt::Size);
                if !layout.doubts.contains(&said) {
                    layout.doubts.push(said);
                }
                continue;
            };
            match at[i] {
                Some(at) => {
                    self.place(i, at, found, &mut layout, &mut things);
                    lie[i] = layout.stowed.last().and_then(|s| s.lies.clone());
                }
                None => self.leave(i, &mut layout),
            }
        }
        self.beyond(&mut layout);
        for (i, item) in items.iter().enumerate() {
            if let Some(c) = item.inside {
                let root = self.outermost(i);
                let lies = at[root].zip(lie[root].as_ref());
                self.packed(i, (c, root), lies, &mut layout);
            }
        }
        for unpacked in self.unpacked.iter().filter(|u| u.item < items.len()) {
            let name = items[unpacked.item].name.to_owned();
            let why = (name, unpacked.container.clone(), unpacked.words.clone());
            if !layout.unpacked.contains(&why) {
                layout.unpacked.push(why);
            }
        }
        layout.deck = Some(self.deck(found, &at, &things));
        let astray = layout.astray(self.rig);
        debug_assert!(
            astray.abs() < 1e-6 * self.rig.loaded().max(1.0),
            "{astray} kg astray"
        );
        layout
    }

    /// The thing a packed one is in, outermost; itself where it is in none.
    fn outermost(&self, i: usize) -> usize {
        let items = self.chooser.items;
        let mut root = i;
        while let Some(outer) = items[root].inside {
            root = outer;
        }
        root
    }

    fn where_it_says(&self, line: usize) -> Stowed {
        whole_line(self.rig, line, self.bow, self.chooser.space.size[0])
    }

    /// One thing of a line, where that says.
    fn one_where_it_says(&self, item: &Item<'_>) -> Stowed {
        Stowed {
            item: item.name.to_owned(),
            dry_mass: item.dry,
            loaded_mass: item.loaded,
            ..self.where_it_says(item.line)
        }
    }

    /// What a rig has beyond what is laid out lies where it says.
    fn beyond(&self, layout: &mut Layout) {
        let laid =
            |line: usize| self.chooser.items.iter().filter(|i| i.line == line).count() as u32;
        for (line, asked) in self.rig.lines.iter().enumerate() {
            let rest = asked.count.saturating_sub(laid(line));
            if rest == 0 {
                continue;
            }
            let share = f64::from(rest) / f64::from(asked.count.max(1));
            let whole = self.where_it_says(line);
            layout.stowed.push(Stowed {
                dry_mass: share * whole.dry_mass,
                loaded_mass: share * whole.loaded_mass,
                ..whole
            });
            layout.doubts.push((asked.item.clone(), Doubt::Size));
        }
    }

    fn place(
        &self,
        i: usize,
        at: At,
        found: &Found,
        layout: &mut Layout,
        things: &mut Vec<Standing>,
    ) {
        let (item, space) = (&self.chooser.items[i], self.chooser.space);
        let choice = match (found.chosen[i], &self.pinned[i]) {
            (Some(c), _) => Some(&self.choices[i][c]),
            // The best way to hold it where it was put.
            (None, Some(pin)) => self.choices[i].iter().find(|c| c.place == pin.place),
            (None, None) => None,
        };
        let place = choice
            .map(|c| c.place)
            .or(self.pinned[i].as_ref().map(|p| p.place));
        let Some(place) = place else { return };
        let area = match place {
            Place::Area(a) => Some(&space.areas[a]),
            _ => None,
        };
        let recorded = area.and_then(|a| a.reach).unwrap_or(Reach::OneHanded);
        let reach = match place {
            Place::Person => Reach::OneHanded,
            Place::Drive => Reach::Seated,
            _ => recorded.max(self.chooser.arms.to(at.x)),
        };
        let gear = item.gear;
        let tall = gear.and_then(|g| g.centre_height);
        let lies = Lies {
            zone: self.name_of(place),
            size: at.size,
            base: at.z,
            fixing: choice.map_or(Fixing::Loose, |c| c.fixing),
            holes: choice.map_or(0, |c| c.holes),
            reach,
            within: None,
            adapter: choice
                .and_then(|c| c.adapter)
                .map(|a| self.chooser.items[a].name.to_owned()),
            pinned: self.pinned[i].is_some(),
            tether: match gear {
                Some(_) if item.tied => Tether::Tethered,
                Some(gear) => gear.tether,
                None => Tether::Sinks,
            },
            shut_in: area.is_some_and(|a| a.enclosed),
            dryness: area.and_then(|a| a.dryness),
        };
        let stretched = match place {
            Place::Area(a) => found.areas[a].stretched,
            _ => false,
        };
        if stretched {
            let name = lies.zone.clone();
            layout
                .doubts
                .push((item.name.to_owned(), Doubt::MayNotFit(name)));
        } else if let Some(doubt) = choice.and_then(|c| c.doubt.clone()) {
            layout.doubts.push((item.name.to_owned(), doubt));
        }
        if item.pose != Pose::Flat {
            let laid = Doubt::Laid(item.pose);
            layout.doubts.push((item.name.to_owned(), laid));
        }
        let need = gear.and_then(|g| g.needs.reach);
        things.push(Standing {
            place,
            x: at.x,
            over_gunwale: at.z + at.size[2] - space.gunwale,
            holes: lies.holes,
            short_of_reach: need.is_some_and(|need| reach > need),
            minutes: gear.and_then(|g| g.setup_minutes).unwrap_or(0.0),
        });
        // One flotation aid for each person is worn, and part of them as dressed as far
        // as dressing is heavy; every other is cargo.
        let people = 1 + space.aboard.others.len();
        let aid = |other: &Item<'_>| other.gear.is_some_and(Gear::is_flotation_aid);
        let before = self.chooser.items[..i].iter().filter(|o| aid(o)).count();
        let dressed = place == Place::Person && aid(item) && before < people;
        let with_them = if dressed {
            self.chooser.guides[Guide::DressedExtra]
        } else {
            0.0
        };
        layout.worn += item.loaded.min(with_them);
        layout.stowed.push(Stowed {
            item: item.name.to_owned(),
            line: item.line,
            dry_mass: (item.dry - with_them).max(0.0),
            loaded_mass: (item.loaded - with_them).max(0.0),
            x: self.bow + at.x,
            y: at.y,
            // What leans or stands in a tube has its centre along it.
            above_floor: at.z + tall.unwrap_or(0.5 * at.size[2]),
            lies: Some(lies),
            rough: false,
        });
    }

    fn name_of(&self, place: Place) -> String {
        let space = self.chooser.space;
        match place {
            Place::Person => "on the person".to_owned(),
            Place::Drive => "on the drive".to_owned(),
            Place::Socket(s) => space.sockets[s].name.clone(),
            Place::Rail(r) => space.rails[r].name.clone(),
            Place::Area(a) => space.areas[a].name.clone(),
            Place::Tube(c) => format!("a tube of the {}", self.chooser.items[c].name),
            Place::Lid(c) => format!("on the {}", self.chooser.items[c].name),
        }
    }

    /// Says why an item found no place; a must is counted where the rig says.
    fn leave(&self, i: usize, layout: &mut Layout) {
        let item = &self.chooser.items[i];
        let gear = item.gear;
        let liked = |name: &str| {
            let kind = self.chooser.space.areas.iter().find(|a| a.name == name);
            let zones = gear.map_or(&[][..], |g| &g.zones);
            kind.and_then(|a| zones.iter().position(|&z| z == a.kind))
        };
        let rank = |name: &str| liked(name).unwrap_or(usize::MAX);
        // It went into an empty place, so what else is there leaves no room: where it was
        // meant to go, else what is made to hold, before a bare side.
        let crowded = self.choices[i].iter().filter_map(|c| {
            let last = match c.place {
                Place::Socket(_) => 0,
                Place::Area(_) => 1,
                Place::Rail(r) if self.chooser.space.rails[r].track => 2,
                Place::Rail(_) => 3,
                _ => return None,
            };
            Some((last, self.name_of(c.place)))
        });
        let crowded = crowded.min_by_key(|(last, name)| (rank(name), *last));
        let crowded = crowded.map(|(_, name)| name);
        let nearest = self.refused[i].iter().min_by_key(|r| match r.code {
            // The place that was meant, before any other there is.
            RefusedBy::NotThere => (0, r.code),
            code => (rank(&r.place), code),
        });
        let why = match (crowded, nearest) {
            // Too large for where it is meant to go, whatever room there is elsewhere.
            (Some(place), Some(refusal))
                if refusal.code != RefusedBy::NotThere && rank(&refusal.place) < rank(&place) =>
            {
                refusal.clone()
            }
            (Some(place), _) => Refusal {
                code: RefusedBy::NoRoom,
                place,
                needs: self.size(i)[0],
                gives: 0.0,
            },
            (None, Some(refusal)) => refusal.clone(),
            (None, None) => Refusal {
                code: RefusedBy::NothingHolds,
                place: String::new(),
                needs: 0.0,
                gives: 0.0,
            },
        };
        let space = self.chooser.space;
        let guessed = |name: &str| {
            let area = space.areas.iter().any(|a| a.name == name && a.guessed);
            let rail = space
                .rails
                .iter()
                .any(|r| r.name == name && r.track && r.guessed);
            area || rail || space.sockets.iter().any(|s| s.name == name && s.guessed)
        };
        let any_guess = guessed(&why.place)
            || self.choices[i]
                .iter()
                .any(|c| guessed(&self.name_of(c.place)))
            || self.refused[i].iter().any(|r| guessed(&r.place))
            || (why.place.is_empty() || why.code == RefusedBy::NotThere)
                && (space.unfitted || space.areas.iter().any(|a| a.guessed));
        let alike = layout.unplaced.iter_mut().find(|u| u.line == item.line);
        match alike {
            Some(alike) => alike.count += 1,
            None => layout.unplaced.push(Unplaced {
                item: item.name.to_owned(),
                line: item.line,
                count: 1,
                must: item.must,
                why,
                sure: !any_guess,
            }),
        }
        if item.must {
            layout.stowed.push(self.one_where_it_says(item));
        } else {
            layout.ashore += item.loaded;
        }
    }

    /// What is packed in a container travels with it, and with what that is packed in:
    /// in its middle, half way up its inside. Where the outermost is counted where the
    /// rig says so is its content; where that stays ashore it stays with it.
    fn packed(
        &self,
        i: usize,
        (c, root): (usize, usize),
        lies: Option<(At, &Lies)>,
        layout: &mut Layout,
    ) {
        let items = self.chooser.items;
        let item = &items[i];
        let Some((box_at, holds)) = lies else {
            if items[root].size().is_some() && !items[root].must {
                layout.ashore += item.loaded;
                return;
            }
            let says = self.where_it_says(items[root].line);
            layout.stowed.push(Stowed {
                item: item.name.to_owned(),
                line: item.line,
                dry_mass: item.dry,
                loaded_mass: item.loaded,
                ..says
            });
            return;
        };
        let inside = items[root].gear.and_then(|g| g.brings.inside);
        let height = inside.map_or(box_at.size[2], |s| s[2]);
        layout.stowed.push(Stowed {
            item: item.name.to_owned(),
            line: item.line,
            dry_mass: item.dry,
            loaded_mass: item.loaded,
            x: self.bow + box_at.x,
            y: box_at.y,
            above_floor: box_at.z + 0.5 * height,
            rough: false,
            lies: item.size().map(|size| Lies {
                zone: holds.zone.clone(),
                size,
                base: box_at.z,
                holes: 0,
                within: Some(items[c].name.to_owned()),
                adapter: None,
                pinned: false,
                tether: match item.gear {
                    // The line is counted with what it ties.
                    Some(_) if item.ties => Tether::Fixed,
                    Some(gear) => gear.tether,
                    None => Tether::Sinks,
                },
                ..holds.clone()
            }),
        });
    }

    fn deck(&self, found: &Found, at: &[Option<At>], things: &[Standing]) -> Deck {
        let space = self.chooser.space;
        let areas: Vec<Taken<'_>> = space
            .areas
            .iter()
            .enumerate()
            .map(|(a, area)| {
                let kept = area.kept.iter().map(|k| {
                    [
                        k.from - area.from,
                        k.to - area.from,
                        k.port - area.port,
                        k.starboard - area.port,
                    ]
                });
                let lies = (0..at.len()).filter_map(|i| {
                    let place = match (found.chosen[i], &self.pinned[i]) {
                        (Some(c), _) => self.choices[i][c].place,
                        (None, Some(pin)) => pin.place,
                        (None, None) => return None,
                    };
                    let at = at[i].filter(|_| place == Place::Area(a))?;
                    Some([
                        at.x - 0.5 * at.size[0] - area.from,
                        at.x + 0.5 * at.size[0] - area.from,
                        at.y - 0.5 * at.size[1] - area.port,
                        at.y + 0.5 * at.size[1] - area.port,
                    ])
                });
                Taken {
                    area,
                    rects: kept.chain(lies).collect(),
                }
            })
            .collect();
        let used: Vec<f64> = found
            .rails
            .iter()
            .map(|on| on.iter().map(|(_, from, to)| to - from).sum())
            .collect();
        let tubes = self
            .chooser
            .items
            .iter()
            .enumerate()
            .filter(|(i, _)| at[*i].is_some());
        let tubes = tubes
            .filter_map(|(_, item)| item.gear)
            .map(|g| u32::from(g.brings.tubes));
        figures(space, &areas, &used, tubes.sum(), things)
    }
}

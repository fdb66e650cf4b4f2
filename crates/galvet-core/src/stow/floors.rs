//! Every way to lay a single thing on a floor: a well, a deck, a hatch.

use super::choose::{Choice, Doubt, Place, Refusal, RefusedBy};
use super::chooser::{Asked, Chooser};
use super::space::Area;
use crate::gear::Fixing;
use crate::guide::Guide;
use crate::hull::{Opening, Reach};

impl Chooser<'_> {
    pub(super) fn areas(
        &self,
        asked: &Asked<'_>,
        found: &mut Vec<Choice>,
        refused: &mut Vec<Refusal>,
    ) {
        for (a, area) in self.space.areas.iter().enumerate() {
            let held = match asked.fixing {
                Fixing::Strap => area.straps != Some(false),
                Fixing::Glue => true,
                // What is bolted goes to the end it is meant for.
                Fixing::Drill => {
                    area.drills && self.at_its_end(asked.gear, 0.5 * (area.from + area.to))
                }
                Fixing::Loose => area.walled,
                _ => false,
            };
            let liked = asked.gear.zones.contains(&area.kind);
            if !held {
                if liked {
                    refused.push(Refusal {
                        code: RefusedBy::NothingHolds,
                        place: area.name.clone(),
                        needs: 0.0,
                        gives: 0.0,
                    });
                }
                continue;
            }
            if asked.gear.needs.in_the_water && asked.fixing != Fixing::Glue {
                continue;
            }
            match self.fits(asked, area) {
                Err(refusal) => refused.push(refusal),
                Ok(stretched) => self.in_area(asked, a, area, stretched, found),
            }
        }
    }

    /// Whether an item goes into an empty area; `true` where only if the guess is
    /// short.
    fn fits(&self, asked: &Asked<'_>, area: &Area) -> Result<bool, Refusal> {
        let slack = if area.guessed {
            1.0 + self.guides[Guide::GuessedSlack]
        } else {
            1.0
        };
        let [length, width, height] = asked.size;
        let refusal = |code, needs, gives| Refusal {
            code,
            place: area.name.clone(),
            needs,
            gives,
        };
        let mut stretched = false;
        if let Some(have) = area.height {
            if height > slack * have + 1e-9 {
                return Err(refusal(RefusedBy::TooHigh, height, have));
            }
            stretched |= height > have + 1e-9;
        }
        let (long, short) = (length.max(width), length.min(width));
        let (room_long, room_short) = (
            area.length().max(area.width()),
            area.length().min(area.width()),
        );
        let more = area.slack;
        if long > room_long + more[0].max(more[1]) + 1e-9 {
            return Err(refusal(RefusedBy::TooLong, long, room_long));
        }
        if short > room_short + more[0].max(more[1]) + 1e-9 {
            return Err(refusal(RefusedBy::TooLarge, short, room_short));
        }
        stretched |= long > room_long + 1e-9 || short > room_short + 1e-9;
        if let Some(opening) = area.opening.filter(|_| area.enclosed) {
            let (needs, gives) = passes(opening, asked.size);
            if needs > slack * gives + 1e-9 {
                return Err(refusal(RefusedBy::Opening, needs, gives));
            }
            stretched |= needs > gives + 1e-9;
        }
        Ok(stretched)
    }

    /// Choices in an area: within the reach that is needed where it can be, and
    /// anywhere in it.
    fn in_area(
        &self,
        asked: &Asked<'_>,
        a: usize,
        area: &Area,
        stretched: bool,
        found: &mut Vec<Choice>,
    ) {
        let behind = 0.5 * (area.from + area.to) > self.space.seat;
        let short = asked.size[0].min(asked.size[1]);
        let nearest = if behind {
            area.from + 0.5 * short
        } else {
            area.to - 0.5 * short
        };
        let recorded = area.reach.unwrap_or(Reach::OneHanded);
        let need = self.reach_needed(asked.index);
        let dry = self.dryness_needed(asked.index);
        let dry_short = match (dry, area.dryness) {
            (Some(need), Some(have)) => (need as u32).saturating_sub(have as u32),
            (Some(need), None) => need as u32,
            (None, _) => 0,
        };
        let doubt = if stretched {
            Some(Doubt::MayNotFit(area.name.clone()))
        } else if asked.fixing == Fixing::Strap && area.straps.is_none() {
            Some(Doubt::Straps(area.name.clone()))
        } else if asked.fixing == Fixing::Drill && area.underside != Some(true) {
            Some(Doubt::Underside(area.name.clone()))
        } else if area.enclosed && (area.opening.is_none() || area.height.is_none()) {
            Some(Doubt::Opening(area.name.clone()))
        } else if dry.is_some() && area.dryness.is_none() {
            Some(Doubt::Dryness(area.name.clone()))
        } else {
            None
        };
        let holes = if asked.fixing == Fixing::Drill {
            asked.gear.holes.max(1)
        } else {
            0
        };
        let any = Choice {
            holes,
            cost: [
                self.reach_short(asked.index, recorded.max(self.arms.to(nearest))),
                dry_short,
                u32::from(holes),
                asked.dislike(asked.rank(area.kind) + 3 * u32::from(stretched)),
            ],
            stretched,
            doubt,
            ..self.plain(asked, Place::Area(a), Reach::OneHanded, 0)
        };
        if let Some(need) = need.filter(|_| any.cost[0] == 0) {
            let (from, to) = self.arms.span(need);
            let within = 0.5 * short
                + if behind {
                    to - area.from
                } else {
                    area.to - from
                };
            found.push(Choice {
                within,
                ..any.clone()
            });
            if within < area.length() {
                // Further off it is out of reach.
                let mut far = any;
                far.cost[0] += 1;
                found.push(far);
            }
        } else {
            found.push(any);
        }
    }
}

/// What must pass an opening and what it lets pass, m: the two smaller sides,
/// across a round opening by their diagonal.
fn passes(opening: Opening, size: [f64; 3]) -> (f64, f64) {
    let mut sides = size;
    sides.sort_by(f64::total_cmp);
    let [a, b, _] = sides;
    match opening {
        Opening::Round(across) => (a.hypot(b), across),
        Opening::Rectangle(along, across) => {
            let (short, long) = (along.min(across), along.max(across));
            // Whichever side is short of more.
            if a - short > b - long {
                (a, short)
            } else {
                (b, long)
            }
        }
    }
}

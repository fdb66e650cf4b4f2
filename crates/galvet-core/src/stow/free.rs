//! What of a hull's space is kept free, how far a guess may be out, and what place
//! a point of its plan belongs to.

use super::space::{Area, KeepOut, Reserve, Space};
use crate::guide::{Guide, Guides};
use crate::hull::{Judgement, Survey, ZoneKind};

/// How far behind its place a seat's back stands, and how wide it is, m (guide).
const SEAT_BACK: f64 = 0.25;
const SEAT_WIDTH: f64 = 0.50;

impl Space {
    /// Marks what of its sides is better left clear: where one casts and lands a
    /// fish, and where the other hand steers.
    pub(super) fn reserve(&mut self, survey: &Survey, guides: &Guides) {
        let side = self.aboard.hand.side();
        let ahead = guides[Guide::CastingAhead];
        self.reserves.push(Reserve {
            from: self.seat - ahead,
            to: self.seat + 0.2,
            side,
            why: "the side one casts and lands on",
        });
        let steered = survey.looked.judged.get(&Judgement::SteeredBy);
        if steered == Some(&"hand") {
            self.reserves.push(Reserve {
                from: self.seat - 0.35,
                to: self.seat + 0.1,
                side: -side,
                why: "the hand that steers",
            });
        }
    }

    /// What a thing whose top stands over the gunwale would be in the way of at a
    /// point of its plan.
    #[must_use]
    pub fn in_the_way(&self, x: f64, y: f64, top: f64) -> Option<&'static str> {
        let stands_up = top > self.gunwale + 0.05;
        let found = self.reserves.iter().find(|r| stands_up && r.holds(x, y));
        found.map(|r| r.why)
    }

    /// The place at a point of its plan, by its name: a rail there, else the
    /// smallest area, else the area nearest; empty where it has none.
    #[must_use]
    pub fn place_at(&self, x: f64, y: f64) -> &str {
        let rail = self.rails.iter().find(|r| {
            let near = if r.track { 0.05 } else { 0.03 };
            (r.from..=r.to).contains(&x) && (r.y - y).abs() <= near
        });
        if let Some(rail) = rail {
            return &rail.name;
        }
        let off = |a: &Area| {
            let along = (a.from - x).max(x - a.to).max(0.0);
            let across = (a.port - y).max(y - a.starboard).max(0.0);
            along.hypot(across)
        };
        let nearest = self.areas.iter().min_by(|a, b| {
            let (off_a, off_b) = (off(a), off(b));
            off_a.total_cmp(&off_b).then(a.plan().total_cmp(&b.plan()))
        });
        nearest.map_or("", |a| &a.name)
    }

    /// How much larger guessed areas may turn out, of which `share` is usual.
    pub(super) fn allow(&mut self, share: f64) {
        let (all, seat) = (self.areas.clone(), self.seat);
        for (i, area) in self.areas.iter_mut().enumerate() {
            if !area.guessed {
                continue;
            }
            let aft = 0.5 * (area.from + area.to) > seat;
            let mut slack = [share * area.length(), share * area.width()];
            for other in all.iter().filter(|o| o.name != area.name) {
                let level = area.floor < other.top() && other.floor < area.top();
                // With a hand's breadth to spare: both may be stretched.
                let beside = area.port - 0.1 < other.starboard && other.port < area.starboard + 0.1;
                let along = area.from - 0.3 < other.to && other.from < area.to + 0.3;
                if level && beside {
                    let gap = if aft {
                        other.from - area.to
                    } else {
                        area.from - other.to
                    };
                    if gap > -1e-9 {
                        slack[0] = slack[0].min(0.5 * gap);
                    }
                }
                if level && along && other.port - area.starboard > -1e-9 {
                    slack[1] = slack[1].min(0.5 * (other.port - area.starboard));
                }
            }
            // Within a larger place it would grow into what lies there.
            let within = all.iter().enumerate();
            let mut within =
                within.filter(|(j, other)| i != *j && has_the_space(area, i, other, *j));
            if within.next().is_some() {
                slack = [0.0; 2];
            }
            area.slack = slack.map(|s| s.max(0.0));
        }
    }

    /// Marks what is kept free: where feet stand or legs lie, lids, and of two
    /// areas that share space the smaller.
    /// `leg` is the inside leg as a share of the stature.
    pub(super) fn keep_free(&mut self, leg: f64) {
        let all = self.areas.clone();
        let others = self.aboard.others.clone();
        let (stands, feet) = (self.aboard.posture.stands(), self.feet);
        for (i, area) in self.areas.iter_mut().enumerate() {
            if area.kind == ZoneKind::CockpitFloor {
                let (from, why) = if stands {
                    (area.from, "the floor one stands on")
                } else {
                    (feet - 0.15, "legs and pedals")
                };
                let (to, port, starboard) = (area.to, area.port, area.starboard);
                area.keep(KeepOut {
                    from: from.max(area.from),
                    to,
                    port,
                    starboard,
                    why,
                });
            }
            let sat_in = !area.enclosed && area.kind != ZoneKind::UnderSeatBay;
            for [x, stature] in others.iter().filter(|_| sat_in) {
                area.keep(KeepOut {
                    from: (x - leg * stature - 0.15).max(area.from),
                    to: (x + SEAT_BACK).min(area.to),
                    port: (-0.5 * SEAT_WIDTH).max(area.port),
                    starboard: (0.5 * SEAT_WIDTH).min(area.starboard),
                    why: "who comes along",
                });
            }
            for (j, other) in all.iter().enumerate() {
                let lid = other.enclosed && !area.enclosed && area.floor >= other.floor;
                // Of two that share space the smaller one has it.
                let shares = has_the_space(other, j, area, i);
                if i == j || !(lid || shares) {
                    continue;
                }
                area.keep(KeepOut {
                    from: other.from,
                    to: other.to,
                    port: other.port,
                    starboard: other.starboard,
                    why: if lid { "a lid" } else { "another place" },
                });
            }
        }
    }
}

/// Whether of two areas that share space, each with its number, the first has it: the
/// smaller.
fn has_the_space(area: &Area, i: usize, other: &Area, j: usize) -> bool {
    area.meets(other) && (area.plan(), i) < (other.plan(), j)
}

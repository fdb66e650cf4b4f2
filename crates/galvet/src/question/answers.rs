//! Answers to the parts, and the brief they make.

use super::part::{Kind, PartId};
use super::parts::{COUNT, PARTS};
use super::{company, rough};
use galvet_core::base::{Bare, Keyed};
use galvet_core::crew::{Companion, Crew};
use galvet_core::question::RuleSet;
use galvet_core::question::{
    BatteryPlace, Brief, Known, MustHaves, Outing, Water, Wishes, catch_line, with_batteries,
};
use galvet_core::rig::Rig;

/// The key of no rig.
pub use galvet_store::NOTHING;

/// Nothing to ask about: no waters.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct NothingToAsk;

/// An answer to one part.
#[derive(Debug, Clone, PartialEq)]
pub enum Answer {
    /// A number, SI.
    Number(f64),
    /// A word of the part's own, or a slug.
    Word(String),
}

/// Answers to all parts; `None` where a part is left out.
#[derive(Debug, Clone, PartialEq)]
pub struct Answers {
    pub(super) given: [Option<Answer>; COUNT],
    /// A rig that is not the catalogue's.
    pub own_rig: Option<Rig>,
}

impl Answers {
    /// The usual answers; rig and water are the catalogue's first.
    #[must_use]
    pub fn usual() -> Self {
        let given = std::array::from_fn(|i| {
            let part = &PARTS[i];
            if part.usual.is_empty() {
                return None;
            }
            Some(match part.kind {
                Kind::Words(_) | Kind::Named | Kind::Said(_) | Kind::Hull | Kind::Event => {
                    Answer::Word(part.usual.to_owned())
                }
                _ => Answer::Number(part.usual.parse().ok()?),
            })
        });
        Self {
            given,
            own_rig: None,
        }
    }

    /// The answer to a part.
    #[must_use]
    pub fn get(&self, part: PartId) -> Option<&Answer> {
        self.given[part as usize].as_ref()
    }

    /// Gives an answer, or takes it back.
    pub fn set(&mut self, part: PartId, answer: Option<Answer>) {
        self.given[part as usize] = answer;
        if part == PartId::Rig {
            self.own_rig = None;
        }
    }

    fn number(&self, part: PartId) -> Option<f64> {
        match self.get(part) {
            Some(Answer::Number(value)) => Some(*value),
            _ => None,
        }
    }

    fn slug(&self, part: PartId) -> Option<&str> {
        match self.get(part) {
            Some(Answer::Word(word)) => Some(word),
            _ => None,
        }
    }

    fn word<T: Keyed>(&self, part: PartId) -> Option<T> {
        T::from_key(self.slug(part)?)
    }

    /// The brief. Answers have passed the parts' bounds already; a rig or a
    /// water that is not there gives way to the first.
    ///
    /// # Errors
    /// [`NothingToAsk`] without any water.
    pub fn brief(&self, rigs: &[Rig], waters: &[Water]) -> Result<Brief, NothingToAsk> {
        use PartId as P;
        let slug = |part| self.slug(part);
        let water = waters
            .iter()
            .find(|w| Some(w.key.as_str()) == slug(P::Water))
            .or(waters.first())
            .ok_or(NothingToAsk)?
            .clone();
        let named = rigs.iter().find(|r| Some(r.key.as_str()) == slug(P::Rig));
        let first = rigs.first().filter(|_| slug(P::Rig) != Some(NOTHING));
        let mut rig = self
            .own_rig
            .as_ref()
            .or(named)
            .or(first)
            .cloned()
            .unwrap_or(Rig {
                key: NOTHING.to_owned(),
                name: "nothing".to_owned(),
                lines: Vec::new(),
            });
        let others = self
            .slug(P::Others)
            .map(|kept| company::read(kept, Bare::SI));
        let others = others.and_then(Result::ok).unwrap_or_default();
        // A dog needs room as a thing does.
        let dogs = others.iter().filter(|c| !c.sits()).map(Companion::line);
        rig.lines.extend(dogs);
        rig.lines.extend(self.number(P::Fish).map(catch_line));
        let roughly = self.slug(P::Roughly);
        let roughly = roughly.and_then(|kept| rough::read(kept, Bare::SI).ok());
        rig.lines.extend(roughly);
        let usual = Self::usual();
        let number = |part| self.number(part).or(usual.number(part)).ok_or(NothingToAsk);
        fn word<T: Keyed>(given: &Answers, usual: &Answers, part: P) -> Result<T, NothingToAsk> {
            given.word(part).or(usual.word(part)).ok_or(NothingToAsk)
        }
        let battery: BatteryPlace = word(self, &usual, P::Battery)?;
        Ok(Brief {
            crew: Crew::new(number(P::Mass)?, number(P::Stature)?).map_err(|_| NothingToAsk)?,
            others,
            hand: word(self, &usual, P::Hand)?,
            posture: word(self, &usual, P::Posture)?,
            rig: with_batteries(rig, battery),
            raised: self.number(P::Risers).unwrap_or(0.0),
            scuppers: word(self, &usual, P::Scuppers)?,
            seat: word(self, &usual, P::Seat)?,
            capacity_weight: self.number(P::Weight).unwrap_or(water.capacity_weight),
            capacity_school: word(self, &usual, P::Capacity)?,
            stability_school: word(self, &usual, P::Stability)?,
            deck: word(self, &usual, P::Deck)?,
            demands: word(self, &usual, P::Demands)?,
            must: MustHaves {
                longest: self.number(P::Longest),
                heaviest_lift: self.number(P::Lift),
                budget: self.number(P::Budget),
                whole: self.number(P::Whole),
                roof: self.number(P::Roof),
                bed: self.number(P::Bed),
                seats: self.number(P::Seats),
                track: self.number(P::Track),
            },
            outing: Outing {
                distance: self.number(P::Distance),
                wind: self.number(P::Wind),
                dark: self.number(P::Dark),
                hours: self.number(P::Hours),
                trips: self.number(P::Trips),
                fish: self.number(P::Fish),
            },
            known: match self.slug(P::Known) {
                Some(hull) => Some(Known {
                    hull: hull.to_owned(),
                    felt: word(self, &usual, P::Felt)?,
                    support: None,
                }),
                None => None,
            },
            // Its rules are the catalogue's: see `Ask::resolve`.
            event: self.slug(P::Event).map(|key| {
                std::sync::Arc::new(RuleSet {
                    key: key.to_owned(),
                    name: key.to_owned(),
                    ..RuleSet::default()
                })
            }),
            wishes: Wishes {
                practice: word(self, &usual, P::Practice)?,
                drive: word(self, &usual, P::Drive)?,
                drilling: word(self, &usual, P::Drilling)?,
                reverse: word(self, &usual, P::Reverse)?,
                battery,
                launch: word(self, &usual, P::Launch)?,
                fishing: word(self, &usual, P::Fishing)?,
                joints: word(self, &usual, P::Joints)?,
            },
            water,
            at_hand: std::sync::Arc::from([]),
        })
    }
}

/// The answer a brief gives to a part; `None` where the part is left out. The weight
/// is told whether or not it is the water's own.
#[must_use]
pub fn given(brief: &Brief, part: PartId) -> Option<Answer> {
    use PartId as P;
    let number = |value: Option<f64>| value.map(Answer::Number);
    let word = |key: &str| Some(Answer::Word(key.to_owned()));
    let (must, outing, wishes) = (&brief.must, &brief.outing, &brief.wishes);
    match part {
        P::Mass => number(Some(brief.crew.mass())),
        P::Stature => number(Some(brief.crew.stature())),
        P::Posture => word(brief.posture.key()),
        P::Rig => word(&brief.rig.key),
        P::Water => word(&brief.water.key),
        P::Scuppers => word(brief.scuppers.key()),
        P::Seat => word(brief.seat.key()),
        P::Capacity => word(brief.capacity_school.key()),
        P::Stability => word(brief.stability_school.key()),
        P::Weight => number(Some(brief.capacity_weight)),
        P::Longest => number(must.longest),
        P::Lift => number(must.heaviest_lift),
        P::Budget => number(must.budget),
        P::Whole => number(must.whole),
        P::Roof => number(must.roof),
        P::Bed => number(must.bed),
        P::Seats => number(must.seats),
        P::Track => number(must.track),
        P::Deck => word(brief.deck.key()),
        P::Demands => word(brief.demands.key()),
        P::Others if brief.others.is_empty() => None,
        P::Others => word(&company::written(&brief.others)),
        P::Roughly => {
            let line = brief.rig.lines.iter().find(|line| line.rough)?;
            word(&rough::written(line))
        }
        P::Hand => word(brief.hand.key()),
        P::Known => word(&brief.known.as_ref()?.hull),
        P::Event => word(&brief.event.as_ref()?.key),
        P::Felt => word(brief.known.as_ref()?.felt.key()),
        P::Launch => word(wishes.launch.key()),
        P::Fishing => word(wishes.fishing.key()),
        P::Practice => word(wishes.practice.key()),
        P::Joints => word(wishes.joints.key()),
        P::Drive => word(wishes.drive.key()),
        P::Drilling => word(wishes.drilling.key()),
        P::Reverse => word(wishes.reverse.key()),
        P::Wind => number(outing.wind),
        P::Dark => number(outing.dark),
        P::Battery => word(wishes.battery.key()),
        P::Distance => number(outing.distance),
        P::Hours => number(outing.hours),
        P::Trips => number(outing.trips),
        P::Fish => number(outing.fish),
        P::Risers => number((brief.raised > 0.0).then_some(brief.raised)),
    }
}

//! The eight exercises: what is done, on which water, and when it is done with.

use super::play::{Play, Setting};
use super::practice::Balance;
use super::script::{Act, Moves};
use super::swell::Sea;
use super::{Boat, Course};
use crate::base::words;
use crate::crew::{Companion, Kin, Posture};
use crate::guide::{Guide, Guides};
use crate::question::{Brief, Practice};

words! {
/// Something to try.
pub enum Exercise {
    /// Stands up and casts three times.
    #[strum(message = "stand up and cast three times")]
    Casts,
    /// Lands a fish at the side.
    #[strum(message = "land a fish at the side")]
    Landing,
    /// Reaches for the net behind.
    #[strum(message = "reach for the net behind")]
    Net,
    /// Turns round on the feet.
    #[strum(message = "stand up and turn round")]
    Turn,
    /// Sits sideways, legs over the side, and comes back.
    #[strum(message = "sit sideways and come back")]
    Sideways,
    /// Takes somebody's wake.
    #[strum(message = "cross a wake")]
    Wake,
    /// Stands in chop for a minute.
    #[strum(message = "stand through chop for a minute")]
    Chop,
    /// The dog jumps.
    #[strum(message = "the dog jumps")]
    Dog,
}
}

/// An exercise as it is done.
#[derive(Debug, Clone, PartialEq)]
pub struct Done {
    /// What is done, when, s.
    pub script: Vec<(f64, Act)>,
    /// The water.
    pub sea: Sea,
    /// When it is done with, s.
    pub until: f64,
    /// Whether it begins on the feet.
    pub up: bool,
    /// Whether who sits down has not done it.
    pub must_stand: bool,
}

impl Exercise {
    /// Whether it is done on the feet whoever does it.
    #[must_use]
    pub const fn on_the_feet(self) -> bool {
        matches!(self, Self::Casts | Self::Turn | Self::Chop)
    }

    /// Whether waves make it: then what is known is a range only.
    #[must_use]
    pub const fn in_waves(self) -> bool {
        matches!(self, Self::Wake | Self::Chop)
    }

    /// Whether something over the side is reached for.
    #[must_use]
    pub const fn reaches(self) -> bool {
        matches!(self, Self::Landing | Self::Net)
    }

    /// As somebody does it who stands, or sits.
    #[must_use]
    pub fn done(self, stands: bool, guides: &Guides) -> Done {
        use Act as A;
        let up = stands && !matches!(self, Self::Net | Self::Sideways);
        let chop = guides[Guide::PondChop];
        let (script, sea, until) = match self {
            Self::Casts => (
                vec![
                    (2.0, A::Stand),
                    (8.0, A::Cast(0.0)),
                    (13.0, A::Cast(0.0)),
                    (18.0, A::Cast(0.0)),
                ],
                Sea::Flat,
                24.0,
            ),
            Self::Landing => (
                vec![(2.0, A::Reach(1.0)), (4.0, A::Fish), (8.0, A::Reach(0.0))],
                Sea::Flat,
                14.0,
            ),
            Self::Net => (
                vec![(2.0, A::Reach(-1.0)), (6.0, A::Reach(0.0))],
                Sea::Flat,
                12.0,
            ),
            Self::Turn => (
                vec![(2.0, A::Stand), (8.0, A::Turn), (13.0, A::Turn)],
                Sea::Flat,
                18.0,
            ),
            Self::Sideways => (
                vec![(2.0, A::Sideways(1.0)), (10.0, A::Sideways(0.0))],
                Sea::Flat,
                18.0,
            ),
            Self::Wake => {
                let height = guides[Guide::PondWake];
                (Vec::new(), Sea::Wake { height, at: 0.0 }, 16.0)
            }
            Self::Chop => (Vec::new(), Sea::Chop(chop), 60.0),
            Self::Dog => (
                vec![(3.0, A::Dog(1.0)), (10.0, A::Dog(0.0))],
                Sea::Flat,
                16.0,
            ),
        };
        let on_the_feet = self.on_the_feet() || up;
        Done {
            script,
            sea,
            until,
            up: match self {
                Self::Casts | Self::Turn => false,
                _ => on_the_feet,
            },
            must_stand: on_the_feet,
        }
    }

    /// Which one somebody tries first.
    #[must_use]
    pub const fn first(posture: Posture) -> Self {
        match posture {
            Posture::Stands | Posture::SitsAndStands => Self::Casts,
            Posture::Sits => Self::Landing,
        }
    }
}

impl Setting {
    /// Of a question: who, with which practice, on which water.
    #[must_use]
    pub fn of(brief: &Brief, practice: Practice, sea: Sea, guides: &Guides) -> Self {
        let dog = brief.others.iter().find(|other| other.kin() == Kin::Dog);
        Self {
            balance: Balance::of(practice, guides),
            moves: Moves::of(guides, dog.map(Companion::mass)),
            stiff: false,
            sea,
            beam_on: 1.0,
            sways: false,
            chance: true,
            by: (1, 0),
        }
    }
}

impl Done {
    /// Once, with a frame every so many ticks.
    #[must_use]
    pub fn once(&self, boat: &Boat, setting: Setting, every: u32) -> Course {
        Play::new(boat, setting, &self.script, self.up).run(self.until, every, false)
    }
}

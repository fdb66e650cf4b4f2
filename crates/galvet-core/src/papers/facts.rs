//! What papers are made of: one hull with a rig laid out on it, under a question.

use crate::base::{Keyed, System, words};
use crate::figures::Assessment;
use crate::gear::{Electric, Gear, Is, Serves};
use crate::hull::{BottomShape, FittingKind, Measure, Propulsion, Source, Survey, Zone, zones};
use crate::question::{Brief, Launch, Water};
use crate::rig::Rig;
use crate::stow::{Layout, Stowed};

words! {
/// The waters essentials are asked by.
pub enum Nine {
    /// A pond.
    Pond,
    /// A lake.
    Lake,
    /// An open lake with chop.
    #[strum(message = "open lake")]
    OpenLake,
    /// A slow river.
    #[strum(message = "slow river")]
    SlowRiver,
    /// A quick river or creek.
    #[strum(message = "quick river or creek")]
    QuickCreek,
    /// Marsh, flats, tidal creek.
    #[strum(message = "marsh or tidal creek")]
    Marsh,
    /// Estuary, bay.
    #[strum(message = "estuary or bay")]
    Estuary,
    /// Open coast.
    #[strum(message = "open coast")]
    Coast,
    /// Out through surf.
    #[strum(message = "surf")]
    Surf,
}
}

impl Nine {
    /// The one a water is: by its key, and one of somebody's own by what it asks, so that
    /// none is asked less than a lake.
    #[must_use]
    pub fn of(water: &Water) -> Self {
        /// Waves and streams from which a water of somebody's own is no lake: m, m/s.
        const CHOP: f64 = 0.3;
        const QUICK: f64 = 0.8;
        if let Some(known) = Self::from_key(&water.key) {
            return known;
        }
        if water.must_drain {
            Self::Coast
        } else if water.density > 1005.0 {
            Self::Estuary
        } else if water.stream.is_some_and(|s| s >= QUICK) {
            Self::QuickCreek
        } else if water.wave().is_some_and(|w| w >= CHOP) {
            Self::OpenLake
        } else if water.stream.is_some_and(|s| s > 0.0) {
            Self::SlowRiver
        } else {
            Self::Lake
        }
    }

    /// Whether its water runs: nobody ties to the boat there.
    #[must_use]
    pub const fn runs(self) -> bool {
        !matches!(self, Self::Pond | Self::Lake | Self::OpenLake)
    }
}

/// One hull with a rig laid out on it.
#[derive(Debug, Clone, Copy)]
pub struct Facts<'a> {
    /// The hull under the question.
    pub assessment: &'a Assessment,
    /// The question whole: what floats forgets launch, day and wishes.
    pub brief: &'a Brief,
    /// In which units words are said.
    pub system: System,
}

impl<'a> Facts<'a> {
    /// Of a hull under a question.
    #[must_use]
    pub const fn of(assessment: &'a Assessment, brief: &'a Brief, system: System) -> Self {
        Self {
            assessment,
            brief,
            system,
        }
    }

    /// The record.
    #[must_use]
    pub fn hull(&self) -> &'a Survey {
        &self.assessment.setup.posterior.survey
    }

    /// The rig as it was laid out.
    #[must_use]
    pub fn rig(&self) -> &'a Rig {
        &self.assessment.setup.brief.rig
    }

    /// Where things lie.
    #[must_use]
    pub fn layout(&self) -> &'a Layout {
        &self.assessment.setup.loads.layout
    }

    /// Which of the nine waters.
    #[must_use]
    pub fn water(&self) -> Nine {
        Nine::of(&self.brief.water)
    }

    /// Which columns of the essentials count: the water's, and the surf's where one goes
    /// out through it.
    #[must_use]
    pub fn waters(&self) -> Vec<Nine> {
        let mut all = vec![self.water()];
        if self.brief.wishes.launch == Launch::Surf && all[0] != Nine::Surf {
            all.push(Nine::Surf);
        }
        all
    }

    /// Things of the rig, each with how many.
    pub fn things(&self) -> impl Iterator<Item = (&'a Gear, u32)> + use<'a> {
        let lines = self.rig().lines.iter();
        lines.filter_map(|l| Some((l.thing.as_deref()?, l.count)))
    }

    /// The thing of a stowed one.
    #[must_use]
    pub fn thing(&self, stowed: &Stowed) -> Option<&'a Gear> {
        self.rig().lines.get(stowed.line)?.thing.as_deref()
    }

    /// The surest thing of the rig that serves as something, and whether it surely does.
    #[must_use]
    pub fn serving(&self, what: Serves) -> Option<(&'a Gear, bool)> {
        let of = |is: Is| self.things().find(|(g, _)| g.serves_as(what) == is);
        of(Is::Yes)
            .map(|(g, _)| (g, true))
            .or_else(|| of(Is::Maybe).map(|(g, _)| (g, false)))
    }

    /// Whether anything of the rig surely serves as something.
    #[must_use]
    pub fn has(&self, what: Serves) -> bool {
        self.serving(what).is_some_and(|(_, sure)| sure)
    }

    /// The drive below it, whether or not it is let down on this water.
    #[must_use]
    pub fn drive(&self) -> Option<Propulsion> {
        let own = self.hull().propulsion;
        own.has_drive().then_some(own)
    }

    /// Whether a motor drives it, its own or the rig's.
    #[must_use]
    pub fn motor(&self) -> bool {
        self.drive() == Some(Propulsion::Motor) || self.has(Serves::Motor)
    }

    /// Whether anything aboard gives electricity.
    #[must_use]
    pub fn battery(&self) -> bool {
        self.has(Serves::Battery)
    }

    /// Whether anything aboard draws it that is no motor.
    #[must_use]
    pub fn electronics(&self) -> bool {
        let draws = |g: &Gear| matches!(g.electric, Electric::Draw { .. });
        self.things()
            .any(|(g, _)| draws(g) && g.serves_as(Serves::Motor) == Is::No)
    }

    /// Its places, of the record or the template.
    #[must_use]
    pub fn zones(&self) -> Vec<Zone> {
        zones(self.hull())
    }

    /// Whether its record has a fitting of a kind.
    #[must_use]
    pub fn fitted(&self, is: impl Fn(&FittingKind) -> bool) -> bool {
        self.hull()
            .fitout
            .fittings_now()
            .iter()
            .any(|f| is(&f.kind))
    }

    /// Length and beam, m.
    #[must_use]
    pub fn size(&self) -> (f64, f64) {
        let form = &self.assessment.setup.posterior.form;
        (form.length(), form.beam())
    }

    /// Whether a figure was read by somebody who measured, rather than quoted or guessed.
    #[must_use]
    pub fn measured(&self, measure: Measure) -> bool {
        let taken = [Source::Scale, Source::Tape, Source::Afloat];
        self.hull()
            .best(measure)
            .is_some_and(|r| taken.contains(&r.source))
    }

    /// Whether its bottom runs in a tunnel or three lobes, as far as anybody looked.
    #[must_use]
    pub fn grooved(&self) -> Option<bool> {
        let bottom = self.hull().bottom?;
        Some(matches!(bottom, BottomShape::Tunnel | BottomShape::TriLobe))
    }
}

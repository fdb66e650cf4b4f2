//! What an answer is made of: a hull's figures, and the ranking of all.

use galvet_core::beyond::{Beyond, beyond};
use galvet_core::figures::{Assessment, outlook::Outlook, outlook::cruise, outlook::outlook};
use galvet_core::handling::{Windage, windage};
use galvet_core::plausible::{CannotFloat, Posterior};
use galvet_core::portrait::{Portrait, SectionView, glyph, portrait};
use galvet_core::rank::Ranking;
use std::collections::BTreeMap;
use std::sync::{Arc, OnceLock};

/// A hull's figures under a question, with what is drawn and reckoned of it
/// only when somebody looks.
#[derive(Debug)]
pub struct Afloat {
    /// The figures.
    pub assessment: Arc<Assessment>,
    glyph: OnceLock<SectionView>,
    portrait: OnceLock<Portrait>,
    outlook: OnceLock<Option<Outlook>>,
    quick: OnceLock<Quick>,
    beyond: OnceLock<Box<Beyond>>,
}

/// What a row tells of speed and wind.
#[derive(Debug, Clone, Copy, Default)]
pub struct Quick {
    /// Speed kept up at the least, the usual and the most effort, m/s.
    pub cruise: Option<[f64; 3]>,
    /// Drift and helm in the water's typical wind.
    pub windage: Option<Windage>,
}

impl Afloat {
    pub(super) fn of(assessment: Assessment) -> Self {
        Self {
            assessment: Arc::new(assessment),
            glyph: OnceLock::new(),
            portrait: OnceLock::new(),
            outlook: OnceLock::new(),
            quick: OnceLock::new(),
            beyond: OnceLock::new(),
        }
    }

    /// The section in a row.
    pub fn glyph(&self) -> &SectionView {
        self.glyph.get_or_init(|| glyph(&self.assessment))
    }

    /// The whole portrait.
    pub fn portrait(&self) -> &Portrait {
        self.portrait.get_or_init(|| portrait(&self.assessment))
    }

    /// Speed and wind at a glance.
    pub fn quick(&self) -> Quick {
        *self.quick.get_or_init(|| {
            let a = &self.assessment;
            let wind = a.setup.brief.water.wind();
            Quick {
                cruise: cruise(a),
                windage: wind.and_then(|wind| windage(a, wind)),
            }
        })
    }

    /// What it does when the day turns.
    pub fn beyond(&self) -> &Beyond {
        self.beyond
            .get_or_init(|| Box::new(beyond(&self.assessment)))
    }

    /// What it costs to move.
    pub fn outlook(&self) -> Option<&Outlook> {
        self.outlook
            .get_or_init(|| outlook(&self.assessment))
            .as_ref()
    }
}

/// A ranking, and the hulls in it by their slugs.
#[derive(Debug)]
pub struct Answered {
    /// The ranking.
    pub ranking: Ranking,
    /// What floats.
    pub afloat: BTreeMap<String, Arc<Afloat>>,
}

pub(super) type Shapes = Result<Arc<Posterior>, CannotFloat>;
pub(super) type Figures = Result<Arc<Afloat>, CannotFloat>;

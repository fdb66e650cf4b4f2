//! What a water, or a launch, asks of a hull beside floating well.

use super::wishes::Launch;
use crate::base::words;

words! {
/// Something a water asks of a hull.
pub enum Demand {
    /// Open scuppers, or nothing that could fill.
    #[strum(message = "drains by itself")]
    Drains,
    /// A weight one person drags to the water.
    #[strum(message = "one person drags it")]
    OneDrags,
    /// A rudder or skeg against the wind.
    #[strum(message = "rudder or skeg")]
    HoldsCourse,
    /// A drive that lifts, or none.
    #[strum(message = "drive lifts")]
    DriveLifts,
    /// A deck that is clear of a wave before the next ones make it unsteady for good.
    #[strum(message = "clears a wave")]
    ClearsWave,
    /// Short, and turning.
    #[strum(message = "short and turning")]
    Turns,
}

/// What becomes of a hull that does not meet what the water asks.
#[derive(Default)]
pub enum DemandUse {
    /// It costs points.
    #[default]
    #[strum(message = "what the water asks counts")]
    Counts,
    /// It is told only.
    #[strum(message = "what the water asks set aside")]
    Aside,
    /// It is ruled out.
    #[strum(message = "only what meets what the water asks")]
    Only,
}
}

impl Launch {
    /// What a launch asks of a hull, beside what the water does.
    #[must_use]
    pub const fn demands(self) -> &'static [Demand] {
        match self {
            Self::Bank | Self::Steps => &[Demand::OneDrags],
            Self::Surf => &[Demand::Drains, Demand::ClearsWave],
            Self::Ramp | Self::Beach => &[],
        }
    }
}

//! What practice changes in somebody's balance: chapter 9's table, out of the guide table.

use crate::guide::{Guide, Guides};
use crate::question::Practice;

/// How somebody keeps their balance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Balance {
    /// Delay on the feet, s.
    pub delay: f64,
    /// Gain on the lean, of what holds a stiff body up.
    pub gain: f64,
    /// Gain on its rate, s.
    pub rate: f64,
    /// Stiffness of the ankles sideways, of what holds a stiff body up.
    pub ankle: f64,
    /// Their damping, s.
    pub damping: f64,
    /// Share of the deck's lean that is taken for level.
    pub deck: f64,
    /// Share of a cast that is braced for.
    pub braced: f64,
    /// Push misjudged when rising, m, 1 sd.
    pub push: f64,
    /// Share of what the ankles cannot give that the hips do.
    pub hips: f64,
    /// Sway that is nobody's doing, rad, 1 sd.
    pub noise: f64,
    /// Share of a wave's slope that is gone with.
    pub wave: f64,
    /// Between the feet, m: standing, turning round.
    pub stance: [f64; 2],
    /// Out of balance so far, moving with it, one sits down, rad.
    pub margin: f64,
    /// Heel at which one sits down, rad.
    pub too_far: f64,
    /// Time to stand up, s.
    pub rise: f64,
}

impl Balance {
    /// By practice.
    #[must_use]
    pub fn of(practice: Practice, guides: &Guides) -> Self {
        let by = |three: [Guide; 3]| {
            guides[three[match practice {
                Practice::New => 0,
                Practice::Some => 1,
                Practice::Skilled => 2,
            }]]
        };
        use Guide as G;
        Self {
            delay: by([G::PondDelayNew, G::PondDelaySome, G::PondDelaySkilled]),
            gain: by([G::PondGainNew, G::PondGainSome, G::PondGainSkilled]),
            rate: guides[G::PondRate],
            ankle: by([G::PondAnkleNew, G::PondAnkleSome, G::PondAnkleSkilled]),
            damping: guides[G::PondAnkleDamping],
            deck: by([G::PondDeckNew, G::PondDeckSome, G::PondDeckSkilled]),
            braced: by([G::PondBracedNew, G::PondBracedSome, G::PondBracedSkilled]),
            push: by([G::PondPushNew, G::PondPushSome, G::PondPushSkilled]),
            hips: by([G::PondHipsNew, G::PondHipsSome, G::PondHipsSkilled]),
            noise: guides[G::PondSway].to_radians()
                * by([G::PondNoiseNew, G::PondNoiseSome, G::PondNoiseSkilled]),
            wave: by([G::PondWaveNew, G::PondWaveSome, G::PondWaveSkilled]),
            stance: [guides[G::PondStance], guides[G::PondTurning]],
            margin: guides[G::PondMargin].to_radians(),
            too_far: guides[G::PondTooFar].to_radians(),
            rise: guides[G::PondRise],
        }
    }

    /// κ over which one stands without noise: `(k + w_d P)/(k + P − 1)`.
    #[must_use]
    pub fn threshold(&self) -> f64 {
        (self.ankle + self.deck * self.gain) / (self.ankle + self.gain - 1.0)
    }
}

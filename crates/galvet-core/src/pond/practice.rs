//! What practice changes in somebody's balance: chapter 9's table. Guide values from research
//! on people on moving platforms; each with its range in the handbook.

use crate::base::words;

words! {
/// How practised.
pub enum Skill {
    /// Never stood in one.
    New,
    /// Stands now and then.
    Some,
    /// Stands a lot.
    Skilled,
}
}

/// How somebody keeps their balance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Balance {
    /// Delay, s (Peterka, *Sensorimotor integration in human postural control*, 2002).
    pub delay: f64,
    /// Gain on the lean, of what holds a stiff body up (same).
    pub gain: f64,
    /// Gain on its rate, s (same).
    pub rate: f64,
    /// Stiffness of the ankles sideways, of what holds a stiff body up (Loram and Lakie,
    /// 2002; Casadio, 2005: fore and aft; ours less, guide value).
    pub ankle: f64,
    /// Their damping, s. Guide value.
    pub damping: f64,
    /// Share of the deck's lean that is taken for level (Peterka).
    pub deck: f64,
    /// Share of a cast that is braced for (Bouisset and Zattara, 1987; guide value).
    pub braced: f64,
    /// Push misjudged when rising, m. Guide value.
    pub push: f64,
    /// Share of what the ankles cannot give that the hips do. Guide value.
    pub hips: f64,
    /// Noise, times what a quiet stand on land shows. Guide value.
    pub noise: f64,
    /// Share of a wave's slope that is gone with. Guide value.
    pub wave: f64,
}

impl Balance {
    /// By practice.
    #[must_use]
    pub fn of(skill: Skill) -> Self {
        let row = |delay, gain, ankle, deck, [braced, push, hips, noise, wave]: [f64; 5]| Self {
            delay,
            gain,
            rate: 0.42,
            ankle,
            damping: 0.06,
            deck,
            braced,
            push,
            hips,
            noise,
            wave,
        };
        match skill {
            Skill::New => row(0.23, 1.32, 0.42, 0.18, [0.2, 0.030, 0.3, 2.5, 0.0]),
            Skill::Some => row(0.20, 1.40, 0.35, 0.12, [0.5, 0.017, 0.6, 2.0, 0.25]),
            Skill::Skilled => row(0.16, 1.50, 0.25, 0.05, [0.7, 0.010, 0.8, 1.5, 0.5]),
        }
    }

    /// κ over which one stands without noise: `(k + w_d P)/(k + P − 1)`.
    #[must_use]
    pub fn threshold(&self) -> f64 {
        (self.ankle + self.deck * self.gain) / (self.ankle + self.gain - 1.0)
    }
}

//! The sentence as plain words, for a list or a sheet of paper.

use super::sentence::Sentence;

impl Sentence {
    /// The sentence as plain words.
    #[must_use]
    pub fn said(&self) -> String {
        let spaced = [
            format!("A {} angler, {} tall,", self.mass.shown, self.stature.shown),
            format!(
                "{}, who {}, {},",
                self.hand.shown, self.posture.shown, self.others.shown
            ),
            format!(
                "with {} ({}, {} of it water and fish),",
                self.rig.shown, self.rig_mass, self.rig_wet
            ),
            format!(
                "on {}, scuppers {}, seat {};",
                self.water.shown, self.scuppers.shown, self.seat.shown
            ),
            format!(
                "weighing capacity {} : stability {};",
                self.weight, self.weight_rest
            ),
            format!("{}, {}.", self.limits_shown, self.more_shown),
        ];
        spaced.join(" ")
    }
}

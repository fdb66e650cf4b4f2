//! What a layout has to say, in words.

use super::choose::{Doubt, Refusal, RefusedBy};
use super::layout::Unplaced;
use super::pose::Pose;
use crate::base::{Dimension, System};

impl RefusedBy {
    /// The word used in JSON.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::TooHigh => "too-high",
            Self::TooLong => "too-long",
            Self::TooLarge => "too-large",
            Self::Opening => "opening",
            Self::InTheStroke => "in-the-stroke",
            Self::NoRoom => "no-room",
            Self::NothingHolds => "nothing-holds",
            Self::NotThere => "not-there",
        }
    }
}

impl Refusal {
    /// By how much it does not go there, m; nought where there is no amount.
    #[must_use]
    pub fn by(&self) -> f64 {
        match self.code {
            RefusedBy::NoRoom | RefusedBy::NothingHolds | RefusedBy::NotThere => 0.0,
            _ => (self.needs - self.gives).max(0.0),
        }
    }

    /// Why, with both figures: "400 mm high, tank well takes 330 mm".
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let mm = |m: f64| system.text(Dimension::FineLength, m, 0);
        let (needs, gives, place) = (mm(self.needs), mm(self.gives), &self.place);
        match self.code {
            RefusedBy::TooHigh => format!("{needs} high, {place} takes {gives}"),
            RefusedBy::TooLong => format!("{needs} long, {place} takes {gives}"),
            RefusedBy::TooLarge => format!("{needs} wide, {place} takes {gives}"),
            RefusedBy::Opening => format!("{needs} has to pass, the opening of {place} is {gives}"),
            RefusedBy::InTheStroke => {
                format!("{needs} high at {place}, in the paddle's way above {gives}")
            }
            RefusedBy::NoRoom if place.ends_with(" side") => {
                format!("what else is there leaves no room along {place}")
            }
            RefusedBy::NoRoom => format!("what else is there leaves no room in {place}"),
            RefusedBy::NothingHolds if place.is_empty() => "nothing on it holds it".to_owned(),
            RefusedBy::NothingHolds => format!("nothing at {place} holds it"),
            RefusedBy::NotThere => format!("meant for {place}, and there is none"),
        }
    }
}

impl Unplaced {
    /// The thing and why: "cooler: 400 mm high, tank well takes 330 mm".
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let why = self.why.text(system);
        let item = match self.count {
            1 => self.item.clone(),
            n => format!("{n} × {}", self.item),
        };
        if self.sure {
            format!("{item}: {why}")
        } else {
            format!("{item}: may not fit ({why}), measure it")
        }
    }
}

impl Doubt {
    /// What is to be measured or looked at.
    #[must_use]
    pub fn text(&self) -> String {
        match self {
            Self::MayNotFit(place) => format!("may not fit: measure the {place}"),
            Self::Mount(fitting) => format!("look what the {fitting} takes"),
            Self::Straps(place) => format!("look what there is to strap to at the {place}"),
            Self::Underside(place) => format!("look whether a nut goes on beneath the {place}"),
            Self::Dryness(place) => format!("look how dry the {place} stays"),
            Self::Opening(place) => format!("measure height and opening of the {place}"),
            Self::Laid(Pose::Pressed) => {
                "pressed in by a tenth to fit: try whether it gives so much".to_owned()
            }
            Self::Laid(Pose::OnEdge) => "lies on its edge there: look whether it may".to_owned(),
            Self::Laid(_) => "stands on its end there: look whether it may".to_owned(),
            Self::Size => "its size is not known: measure it".to_owned(),
        }
    }
}

//! The question asked: who fishes, how, with what, on which water.

use super::demand::DemandUse;
use super::rules::RuleSet;
use super::schools::{CapacitySchool, DeckUse, StabilitySchool};
use super::water::Water;
use super::wishes::{Known, Launch, Wishes};
use crate::base::{Bounds, Dimension};
use crate::crew::{Companion, Crew, Hand, Posture, SeatHeight};
use crate::gear::Gear;
use crate::guide::Guides;
use crate::hull::Scuppers;
use crate::rig::Rig;
use std::sync::Arc;

/// What a hull must meet besides floating well; `None` where it doesn't matter.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct MustHaves {
    /// Longest hull that can be stored, m.
    pub longest: Option<f64>,
    /// Heaviest single lift, kg (the hull as bare as it comes).
    pub heaviest_lift: Option<f64>,
    /// Most that may be spent.
    pub budget: Option<f64>,
    /// Most the whole may cost: the hull, what the rig lacks, what is planned on it.
    pub whole: Option<f64>,
    /// What a car's roof may bear, kg: the hull stripped, bars and straps.
    pub roof: Option<f64>,
    /// Length of a truck's bed with the flap down, m.
    pub bed: Option<f64>,
    /// Least seats.
    pub seats: Option<f64>,
    /// Least length of track, all of it together, m.
    pub track: Option<f64>,
}

impl MustHaves {
    /// Accepted storage lengths, m.
    pub const LONGEST: Bounds = Bounds::new("the longest storage", Dimension::Length, 1.8, 10.0);
    /// Accepted lifts, kg.
    pub const LIFT: Bounds = Bounds::new("the heaviest lift", Dimension::Mass, 5.0, 200.0);
    /// Accepted budgets.
    pub const BUDGET: Bounds = Bounds::new("the budget", Dimension::Money, 0.0, 100_000.0);
    /// Accepted budgets of the whole.
    pub const WHOLE: Bounds = Bounds::new("the whole price", Dimension::Money, 0.0, 100_000.0);
    /// Accepted loads of a roof, kg.
    pub const ROOF: Bounds = Bounds::new("the load of the roof", Dimension::Mass, 10.0, 300.0);
    /// Accepted beds, m.
    pub const BED: Bounds = Bounds::new("the truck's bed", Dimension::Length, 0.8, 6.0);
    /// Accepted numbers of seats.
    pub const SEATS: Bounds = Bounds::new("the seats", Dimension::Ratio, 1.0, 4.0);
    /// Accepted lengths of track, m.
    pub const TRACK: Bounds = Bounds::new("the track", Dimension::Length, 0.1, 8.0);
}

/// How a day on the water goes; `None` where it was not said.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Outing {
    /// Distance a day, m.
    pub distance: Option<f64>,
    /// Hours a trip.
    pub hours: Option<f64>,
    /// Trips a year.
    pub trips: Option<f64>,
    /// Fish kept beside the rig's own, kg; they stand in the rig as a line of their
    /// own: see [`catch_line`](super::catch_line).
    pub fish: Option<f64>,
    /// Mean wind of a forecast, 10 m up, m/s; the water's typical wind where nobody
    /// says.
    pub wind: Option<f64>,
    /// Hour of the day at which it is dark.
    pub dark: Option<f64>,
}

impl Outing {
    /// Accepted winds of a forecast, m/s.
    pub const WIND: Bounds = Bounds::new("the forecast's wind", Dimension::Speed, 0.1, 40.0);
    /// Accepted hours at which it is dark.
    pub const DARK: Bounds = Bounds::new("when it is dark", Dimension::Clock, 12.0, 24.0);
    /// Accepted distances, m.
    pub const DISTANCE: Bounds =
        Bounds::new("the day's distance", Dimension::Distance, 100.0, 100_000.0);
    /// Accepted catches, kg.
    pub const FISH: Bounds = Bounds::new("the fish kept", Dimension::Mass, 0.1, 60.0);
    /// Accepted hours a trip.
    pub const HOURS: Bounds = Bounds::new("hours a trip", Dimension::Ratio, 0.5, 24.0);
    /// Accepted trips a year.
    pub const TRIPS: Bounds = Bounds::new("trips a year", Dimension::Ratio, 1.0, 365.0);
}

/// What of a question figures for when the day turns hang on, beside what floats.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Day {
    /// How it goes.
    pub outing: Outing,
    /// From what it is launched.
    pub launch: Launch,
}

/// The whole question.
#[derive(Debug, Clone, PartialEq)]
pub struct Brief {
    /// Who.
    pub crew: Crew,
    /// Who comes along. A dog also stands in the rig, as a line of its own: see
    /// [`Companion::line`].
    pub others: Vec<Companion>,
    /// Which hand casts and lands.
    pub hand: Hand,
    /// How.
    pub posture: Posture,
    /// With what.
    pub rig: Rig,
    /// Where.
    pub water: Water,
    /// Scuppers open or plugged.
    pub scuppers: Scuppers,
    /// Which seat height.
    pub seat: SeatHeight,
    /// Risers and cushions under the seat, m.
    pub raised: f64,
    /// Share of capacity in the ranking, 0-1; stability has the rest.
    pub capacity_weight: f64,
    /// What capacity is judged by.
    pub capacity_school: CapacitySchool,
    /// What stability is judged by.
    pub stability_school: StabilitySchool,
    /// How much the deck left clear counts.
    pub deck: DeckUse,
    /// Whether what the water asks of a hull counts.
    pub demands: DemandUse,
    /// What a hull must meet.
    pub must: MustHaves,
    /// How a day goes.
    pub outing: Outing,
    /// How it is launched, fished from and driven, and by whom.
    pub wishes: Wishes,
    /// A hull the angler has stood in.
    pub known: Option<Known>,
    /// An event whose rules it must keep.
    pub event: Option<Arc<RuleSet>>,
    /// What there is on the shelf that holds others and might come along: see
    /// [`Brief::bringing`].
    pub at_hand: Arc<[Gear]>,
}

impl Brief {
    /// Accepted risers, m.
    pub const RAISED: Bounds = Bounds::new("the risers", Dimension::ShortLength, 0.0, 0.30);

    /// What one of the crew asks who says nothing else: to sit low with the scuppers open,
    /// capacity and stability counting alike.
    #[must_use]
    pub fn plain(crew: Crew, rig: Rig, water: Water) -> Self {
        Self {
            crew,
            others: Vec::new(),
            hand: Hand::Right,
            posture: Posture::Sits,
            rig,
            water,
            scuppers: Scuppers::Open,
            seat: SeatHeight::Low,
            raised: 0.0,
            capacity_weight: 0.5,
            capacity_school: CapacitySchool::default(),
            stability_school: StabilitySchool::default(),
            deck: DeckUse::default(),
            demands: DemandUse::default(),
            must: MustHaves::default(),
            outing: Outing::default(),
            wishes: Wishes::default(),
            known: None,
            event: None,
            at_hand: Arc::from([]),
        }
    }

    /// The same with what a shelf has that might come along so that a thing finds a
    /// place: adapters, holders, and what is for the same as something on the rig.
    #[must_use]
    pub fn bringing(self, shelf: &[Gear]) -> Self {
        let on_it = |g: &Gear| {
            let mut things = self.rig.lines.iter().filter_map(|l| l.thing.as_ref());
            things.any(|t| t.category == g.category)
        };
        let holds = |g: &&Gear| g.brings.adapts.is_some() || g.brings.tubes > 0 || on_it(g);
        Self {
            at_hand: shelf.iter().filter(holds).cloned().collect(),
            ..self.clone()
        }
    }

    /// How the day asked goes.
    #[must_use]
    pub const fn day(&self) -> Day {
        Day {
            outing: self.outing,
            launch: self.wishes.launch,
        }
    }

    /// The water's limits, or those of the launch where they are tighter.
    #[must_use]
    pub fn limits(&self, guides: &Guides) -> Water {
        self.water.clone().launched(self.wishes.launch, guides)
    }

    /// The same question as far as floating goes: what only judges (schools,
    /// weights, limits) is left out, and the launch's limits are put into the water's. Two briefs with equal floating parts have
    /// the same figures on every hull.
    #[must_use]
    pub fn floating_part(&self, guides: &Guides) -> Self {
        let silent = Self::plain(self.crew, self.rig.clone(), self.limits(guides));
        Self {
            water: silent.water,
            capacity_weight: silent.capacity_weight,
            capacity_school: silent.capacity_school,
            stability_school: silent.stability_school,
            deck: silent.deck,
            demands: silent.demands,
            must: silent.must,
            outing: silent.outing,
            wishes: silent.wishes,
            known: silent.known,
            event: silent.event,
            ..self.clone()
        }
    }
}

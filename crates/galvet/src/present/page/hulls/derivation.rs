//! A figure's derivation: the formula in words with its numbers, what went in and
//! from where, the guide values used, and what would narrow it.

use super::figure::{Figure, figure_of};
use super::formula::{Formula, Told};
use crate::answer::Afloat;
use crate::present::draw::section::{Section, section};
use galvet_core::advise::measure_next;
use galvet_core::base::{Dimension, GRAVITY, Keyed, System};
use galvet_core::figures::{Assessment, Group, Quantity, Setup, Values, WaterLimit};
use galvet_core::float::Accuracy;
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{Measure, Survey};
use galvet_core::load::Carriage;
use galvet_core::question::Brief;
use galvet_core::rank::{Scales, steadiness, takes};

/// Something that went in.
pub struct Input {
    pub label: &'static str,
    pub value: String,
    /// "on the tape, 2026-09-12" or "not known: guessed".
    pub source: String,
}

/// The page.
pub struct Derivation {
    pub figure: Figure,
    /// What it says of the hull, in words; empty for what has no verdict.
    pub verdict: String,
    /// The formula with its numbers, where it fits on a line.
    pub formula: Option<Formula>,
    /// What is meant: the hull leaned over at the angler's place; none for other figures.
    pub picture: Option<Section>,
    /// What its range is over.
    pub over: &'static str,
    /// Whose numbers the steps tell.
    pub basis: &'static str,
    /// The formula in words, with the numbers of the middle shape in it.
    pub steps: Vec<String>,
    pub inputs: Vec<Input>,
    /// Guide values: meaning, value, source.
    pub guides: Vec<(&'static str, String, &'static str)>,
    pub narrows: Vec<String>,
}

/// The figure a word in an address means.
#[must_use]
pub fn figure_named(key: &str) -> Option<Quantity> {
    Quantity::ALL.iter().copied().find(|q| q.row().key == key)
}

/// Units a metre of the picture.
const SCALE: f64 = 150.0;

/// Derives a figure of a hull.
#[must_use]
pub fn derivation(
    afloat: &Afloat,
    quantity: Quantity,
    brief: &Brief,
    system: System,
) -> Derivation {
    let a = &afloat.assessment;
    let shapes = [a.middle];
    let setup = &*a.setup_at(quantity);
    let [(values, _)] = galvet_core::figures::Afloat::new(setup, &shapes, Accuracy::FINE).figures();
    let of = Of {
        a,
        setup,
        brief,
        values: &values,
        system,
    };
    let floated = |carriage| a.floated_as(setup, carriage)[0];
    let told = Told {
        setup,
        brief,
        values: &values,
        system,
        afloat: [Carriage::Seated, Carriage::AtTheFeet].map(floated),
    };
    let leans = quantity.row().group == Group::Stability;
    Derivation {
        figure: figure_of(a, quantity, system),
        verdict: match quantity.row().group {
            Group::Capacity => takes(a, system),
            Group::Stability => steadiness(a, brief),
            Group::Floating => String::new(),
        },
        formula: told.formula(quantity),
        picture: leans
            .then(|| afloat.portrait().sections.last())
            .flatten()
            .map(|view| section(view, SCALE, true, system)),
        over: OVER_SHAPES,
        basis: OF_THE_MIDDLE,
        steps: of.steps(quantity),
        inputs: inputs(a, quantity, system),
        guides: guide_values(guides_of(quantity), a.setup.guides(), system),
        narrows: measure_next::for_hull(a, brief, &Scales::of(a.setup.guides()))
            .iter()
            .map(|s| {
                format!(
                    "knowing {} would take away about {:.0}\u{a0}% of the spread of its points",
                    s.target.label(),
                    100.0 * s.narrows
                )
            })
            .collect(),
    }
}

/// Guide values as a page tells them: meaning, value, source.
pub(super) fn guide_values(
    used: &[Guide],
    guides: &Guides,
    system: System,
) -> Vec<(&'static str, String, &'static str)> {
    let told = |&g: &Guide| {
        let row = g.row();
        let shown = system.text(row.dimension, guides[g], decimals(row.value));
        (row.meaning, shown, row.source)
    };
    used.iter().map(told).collect()
}

/// Nine in ten of them.
pub(super) const OVER_SHAPES: &str = "nine of ten of its possible shapes";
/// Steps of one shape, a figure of all.
pub(super) const OF_THE_MIDDLE: &str =
    "With the numbers of its middle shape; what is shown above is the middle of all of them.";

/// Decimals that show a guide value as it reckons.
fn decimals(value: f64) -> usize {
    match value.abs() {
        v if v >= 10.0 => 0,
        v if v >= 1.0 => 1,
        _ => 3,
    }
}

struct Of<'a> {
    a: &'a Assessment,
    /// The hull as it is when the figure is worst.
    setup: &'a Setup,
    brief: &'a Brief,
    values: &'a Values,
    system: System,
}

impl Of<'_> {
    fn told(&self, q: Quantity) -> String {
        let value = self.values.get(q);
        value.map_or("not known".to_owned(), |v| q.row().text(self.system, v))
    }

    fn mass(&self, kg: f64) -> String {
        self.system.text(Dimension::Mass, kg, 1)
    }

    /// What floats, kg, with the crew carried so.
    fn weight(&self, carriage: Carriage) -> f64 {
        self.a.floated_as(self.setup, carriage)[0]
    }

    /// The hour, where it is not everything aboard at once, and what leads to the
    /// figure then.
    fn steps(&self, q: Quantity) -> Vec<String> {
        let hour = self.a.worst_at(q).map(|hour| {
            format!(
                "it is worst {}, when {} are aboard: so it is ranked",
                hour.when(),
                self.mass(self.setup.loads.layout.loaded())
            )
        });
        hour.into_iter().chain(self.steps_then(q)).collect()
    }

    fn steps_then(&self, q: Quantity) -> Vec<String> {
        use Quantity as Q;
        match q {
            Q::Counted => vec![self.counted()],
            Q::LabelMargin | Q::WorkingMargin => self.margins(q),
            Q::BindingMargin => vec![format!(
                "the smallest of label {}, working share {} and waterline {}",
                self.told(Q::LabelMargin),
                self.told(Q::WorkingMargin),
                self.told(Q::WaterlineMargin)
            )],
            Q::WaterlineMargin => vec![self.afloat(), self.limit()],
            Q::StandingSupport | Q::StandingRoom | Q::RigidStandingGm => self.standing(),
            Q::GettingUp => vec![self.getting_up()],
            Q::Stiffness => vec![self.stiffness()],
            Q::LeanRoom | Q::LastingLean | Q::DryLean => self.leaning(q),
            Q::DraftWithDrive => vec![format!(
                "the deepest point {} and the drive below it come to {}",
                self.told(Q::Deepest),
                self.told(Q::DraftWithDrive)
            )],
            Q::Reserve => vec![
                self.stiffness(),
                "work: the righting moment Δ·g·GZ added up over the lean, until the gunwale goes under or to 40°".to_owned(),
            ],
            Q::RollPeriod => vec![format!(
                "2π·k over the root of g·GM, with GM {} and k from where the masses lie, a fifth of water added",
                self.told(Q::Gm)
            )],
            _ if q.row().group == Group::Floating => vec![self.afloat()],
            _ => vec![
                self.afloat(),
                format!("leaned step by step, free to trim; GM {} upright", self.told(Q::Gm)),
            ],
        }
    }

    /// "angler 97 kg + kit 21 kg + … = 130 kg".
    fn counted(&self) -> String {
        let counted = self.setup.loads.counted(self.a.middle.kit_mass);
        let parts = counted.iter().filter(|(_, kg)| *kg > 0.0);
        let parts: Vec<String> = parts
            .map(|(kind, kg)| format!("{} {}", kind.label(), self.mass(*kg)))
            .collect();
        format!(
            "{} come to {}",
            parts.join(" + "),
            self.told(Quantity::Counted)
        )
    }

    fn margins(&self, q: Quantity) -> Vec<String> {
        let rated = self.setup.posterior.survey.value(Measure::RatedCapacity);
        let Some(rated) = rated else {
            return vec![
                "no rated capacity is known: there is nothing to take the load from".to_owned(),
            ];
        };
        let (share, what) = if q == Quantity::WorkingMargin {
            let share = self.brief.water.working_share;
            (
                share,
                format!(
                    "{:.0}\u{a0}% of the rated {}",
                    100.0 * share,
                    self.mass(rated)
                ),
            )
        } else {
            (1.0, format!("the rated {}", self.mass(rated)))
        };
        vec![
            self.counted(),
            format!(
                "{what}{} less {} leaves {}",
                if share < 1.0 {
                    format!(", {},", self.mass(share * rated))
                } else {
                    String::new()
                },
                self.told(Quantity::Counted),
                self.told(q)
            ),
        ]
    }

    fn afloat(&self) -> String {
        let carriage = self.setup.carriage();
        format!(
            "it floats where the water pushed aside weighs what it and all aboard weigh, {}, and its middle lies under theirs: draft {}, trim {}",
            self.mass(self.weight(carriage)),
            self.told(Quantity::Draft),
            self.told(Quantity::Trim)
        )
    }

    fn limit(&self) -> String {
        let least = self.setup.least_clearance();
        let least = self.system.text(Dimension::FineLength, least, 0);
        let (what, now) = match self.setup.limit {
            WaterLimit::Gunwale => ("gunwale", Quantity::Freeboard),
            _ => ("floor", Quantity::FloorAboveWater),
        };
        format!(
            "now the {what} stands {} above the water; mass is added where the load lies until {least} are left: {}",
            self.told(now),
            self.told(Quantity::WaterlineMargin)
        )
    }

    fn stiffness(&self) -> String {
        let moment = self.weight(Carriage::Seated) * GRAVITY;
        format!(
            "Δ·g·GM for a degree: {} × g = {moment:.0} N, times GM {}, times π/180: {}",
            self.mass(self.weight(Carriage::Seated)),
            self.told(Quantity::Gm),
            self.told(Quantity::Stiffness)
        )
    }

    fn leaning(&self, q: Quantity) -> Vec<String> {
        let loads = &self.setup.loads;
        let taken = loads.live_moment() / loads.crew_mass();
        let short = |m: f64| self.system.text(Dimension::ShortLength, m, 1);
        // Before what others may take up; nothing is left where that is more.
        let answered = self.values.get(q).map(|left| left + taken);
        let mut steps = vec![
            self.stiffness(),
            format!(
                "the shift s = Δ·GZ / (m·cos φ) at the lean where it pushes back hardest, or where water runs in: Δ {}, the angler m {} as dressed: {}",
                self.mass(self.weight(Carriage::Seated)),
                self.mass(loads.crew_mass()),
                answered.map_or("not known".to_owned(), short)
            ),
        ];
        if taken > 0.0 {
            steps.push(format!(
                "less {} that who comes along may take up by moving: {}",
                short(taken),
                self.told(q)
            ));
        }
        steps
    }

    fn standing(&self) -> Vec<String> {
        let loads = &self.setup.loads;
        let height = loads.standing_centre();
        vec![
            format!(
                "the angler's {} taken at the feet, {} afloat in all: how much more moment answers 5° of lean",
                self.mass(loads.crew_mass()),
                self.mass(self.weight(Carriage::AtTheFeet))
            ),
            format!(
                "over what a stiff body of that weight, its middle {} above the floor, tips with: κ {}; room under the feet {}, GM with the body stiff {}",
                self.system.text(Dimension::Length, height, 2),
                self.told(Quantity::StandingSupport),
                self.told(Quantity::StandingRoom),
                self.told(Quantity::RigidStandingGm)
            ),
        ]
    }

    fn getting_up(&self) -> String {
        let knee = self.brief.crew.knee_height(self.setup.guides());
        let short = |m: f64| self.system.text(Dimension::ShortLength, m, 1);
        format!(
            "seat {} over the floor, over a knee height of {}{}: {}",
            short(self.setup.loads.seat_height(&self.a.middle)),
            short(knee),
            if self.setup.helped_up() {
                ", one step easier by something to pull oneself up by"
            } else {
                ""
            },
            self.told(Quantity::GettingUp)
        )
    }
}

/// Measures that go into a figure, with what is known of each.
fn inputs(a: &Assessment, q: Quantity, system: System) -> Vec<Input> {
    use Measure as M;
    let survey = &a.setup.posterior.survey;
    let measures: &[M] = match q {
        Quantity::Counted | Quantity::LabelMargin | Quantity::WorkingMargin => {
            &[M::RatedCapacity, M::BareWeight, M::FittedWeight]
        }
        Quantity::GettingUp => &[M::SeatLow, M::SeatHigh],
        _ => &[
            M::Length,
            M::Beam,
            M::Depth,
            M::FloorHeight,
            M::SeatLow,
            M::SeatHigh,
            M::SeatPlace,
            M::FittedWeight,
            M::BareWeight,
        ],
    };
    measures.iter().map(|&m| input(survey, m, system)).collect()
}

/// What is known of a measure, and from where.
pub(super) fn input(survey: &Survey, m: Measure, system: System) -> Input {
    let used = survey.best(m);
    let bounds = m.bounds();
    Input {
        label: m.label(),
        value: used.map_or("not known".to_owned(), |r| {
            let decimals = if bounds.dimension == Dimension::Length {
                2
            } else {
                1
            };
            system.text(bounds.dimension, r.value, decimals)
        }),
        source: used.map_or("guessed, with a width".to_owned(), |r| {
            let date = if r.date.is_empty() {
                String::new()
            } else {
                format!(", {}", r.date)
            };
            format!("{}{date}", r.source.label())
        }),
    }
}

/// Guide values a figure leans on.
fn guides_of(q: Quantity) -> &'static [Guide] {
    use Guide as G;
    use Quantity as Q;
    match q {
        Q::Counted | Q::LabelMargin | Q::WorkingMargin | Q::BindingMargin => {
            &[G::DressedExtra, G::WetExtra]
        }
        Q::GettingUp => &[G::KneeHeight],
        Q::StandingSupport | Q::StandingRoom | Q::RigidStandingGm => &[
            G::WetExtra,
            G::StandingCentre,
            G::StandsForward,
            G::SecantHeel,
            G::StandingLimit,
        ],
        Q::ReachHeel => &[
            G::UpperBodyShare,
            G::UpperBodyCentre,
            G::ReachLean,
            G::LandedFish,
        ],
        Q::SidewaysList | Q::SidewaysRoom => &[G::SidewaysPlace, G::SeatedCentre],
        Q::Reserve => &[G::ReserveLimit, G::SeatedCentre],
        Q::RollPeriod => &[G::AddedInertia, G::HullRadius, G::SeatedRadius],
        _ => &[
            G::WetExtra,
            G::SeatedCentre,
            G::SeatPlace,
            G::HullPlace,
            G::HullHeight,
        ],
    }
}

//! Figures beside the points: shown in each row, what rows can be put in order by,
//! sifted by, what breaks a tie, and what a file tells of them.

use super::page::figure::signed_percent;
use crate::answer::{Answered, Quick};
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity, Range};
use galvet_core::guide::Guide;
use galvet_core::hull::{Judgement, Measure, Survey};
use galvet_core::question::{Brief, Fishing, Joints, Launch};
use galvet_core::rank::explain::area;

/// What stands in a column.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Holds {
    /// A quantity, with the decimals it is shown with.
    Number(Dimension, usize),
    /// An area, m².
    Area,
    /// A bare number, with its unit.
    Count(&'static str),
    /// A judgement: its answers from the worst to the best.
    Judged(Judgement),
}

/// A column: its word in the address, its label, whether less is better.
#[derive(Debug, Clone, Copy)]
pub struct Column {
    pub key: &'static str,
    pub label: &'static str,
    pub less: bool,
    pub holds: Holds,
    /// Its name in files, with the unit; empty where a figure or the record says the
    /// same there.
    pub file: &'static str,
}

const fn column(
    key: &'static str,
    label: &'static str,
    less: bool,
    holds: Holds,
    file: &'static str,
) -> Column {
    Column {
        key,
        label,
        less,
        holds,
        file,
    }
}

/// Every column.
pub const COLUMNS: [Column; 18] = {
    use Dimension as D;
    use Holds::{Area, Count, Judged, Number};
    [
        column("draft", "draft", true, Number(D::FineLength, 0), ""),
        column("air", "air draft", true, Number(D::Length, 2), ""),
        column(
            "speed",
            "speed kept up",
            false,
            Number(D::Speed, 1),
            "speed_m_per_s",
        ),
        column(
            "drift",
            "drift, beam on",
            true,
            Number(D::Speed, 1),
            "drift_m_per_s",
        ),
        column(
            "helm",
            "helm, off balance",
            true,
            Count("%"),
            "helm_under_way_percent",
        ),
        column(
            "turning",
            "turning",
            false,
            Judged(Judgement::Turning),
            "turning",
        ),
        column(
            "holding",
            "holds a place",
            false,
            Judged(Judgement::Holding),
            "holding",
        ),
        column("getting-up", "getting up", false, Count(""), ""),
        column("comfort", "comfort", false, Count("of 5"), "comfort_of_5"),
        column("floor", "floor clear", false, Area, "standing_floor_m2"),
        column("well", "well left", false, Area, "well_free_m2"),
        column("reach", "out of reach", true, Count(""), "out_of_reach"),
        column(
            "minutes",
            "minutes to set up",
            true,
            Count(""),
            "setup_minutes",
        ),
        column(
            "lift",
            "to lift, fitted",
            true,
            Number(D::Mass, 0),
            "fitted_weight_kg",
        ),
        column("length", "length", true, Number(D::Length, 2), "length_m"),
        column("beam", "beam", true, Number(D::ShortLength, 0), "beam_m"),
        column("price", "price", true, Number(D::Money, 0), "price"),
        column(
            "trip",
            "price by the trip",
            true,
            Number(D::Money, 0),
            "price_per_trip",
        ),
    ]
};

impl Column {
    /// Where it is told how it comes about, behind a hull's own address.
    #[must_use]
    pub const fn leads(&self) -> &'static str {
        match self.key.as_bytes() {
            b"draft" => "/figures/draft_m",
            b"air" => "/figures/air_draft_m",
            b"getting-up" => "/figures/getting_up",
            b"speed" => "/figures/speed",
            b"drift" => "/figures/drift",
            b"helm" => "/figures/helm",
            b"comfort" => "/figures/comfort",
            b"trip" => "/figures/trip",
            b"turning" | b"holding" => "/comfort",
            b"floor" | b"well" | b"reach" | b"minutes" => "/stow",
            _ => "/record",
        }
    }
}

/// The column of a word.
#[must_use]
pub fn column_named(key: &str) -> Option<(usize, &'static Column)> {
    COLUMNS.iter().enumerate().find(|(_, c)| c.key == key)
}

/// What stands in one of them for a hull.
pub struct Cell {
    pub key: &'static str,
    pub label: &'static str,
    /// Where it is told how it comes about, behind the hull's own address.
    pub leads: &'static str,
    pub text: String,
    /// Its range in words; empty where there is none.
    pub range: String,
    /// What it is put in order by; `None` where it is not known.
    pub value: Option<f64>,
    /// As a file tells it; `None` where it is not known.
    pub filed: Option<Filed>,
    /// Whether what was asked makes it one of those shown first.
    pub first: bool,
}

/// The columns a file tells of a hull, in the order of [`COLUMNS`]: their names, with
/// what is known.
pub fn filed(
    answered: &Answered,
    survey: &Survey,
) -> impl Iterator<Item = (&'static str, Option<Filed>)> {
    let afloat = answered.afloat.get(&survey.key);
    let told = cells(
        afloat.map(|a| &*a.assessment),
        afloat.map(|a| a.quick()),
        survey,
        &answered.ranking.brief,
        System::Metric,
    );
    let both = COLUMNS.iter().zip(told);
    both.filter(|(column, _)| !column.file.is_empty())
        .map(|(column, cell)| (column.file, cell.filed))
}

/// What a file tells of a column, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Filed {
    /// One number.
    Number(f64),
    /// The middle, with the range it lies in: least, middle, most.
    Range([f64; 3]),
    /// The answer of a judgement.
    Word(&'static str),
}

/// What is known of a hull in a column.
#[derive(Default)]
struct Told {
    /// What it is put in order by.
    value: Option<f64>,
    text: String,
    range: String,
    filed: Option<Filed>,
}

impl Told {
    /// One number and its words.
    fn number(value: Option<f64>, text: impl FnOnce(f64) -> String) -> Self {
        Self {
            value,
            text: value.map(text).unwrap_or_default(),
            range: String::new(),
            filed: value.map(Filed::Number),
        }
    }
}

/// The cells of a hull, in the order of [`COLUMNS`]; of one that cannot be floated only
/// what her record says.
#[must_use]
pub fn cells(
    a: Option<&Assessment>,
    quick: Option<Quick>,
    survey: &Survey,
    brief: &Brief,
    system: System,
) -> Vec<Cell> {
    let of = Of {
        a,
        quick: quick.unwrap_or_default(),
        survey,
        brief,
        system,
    };
    let first = first(brief);
    let cell = |c: &Column| {
        let told = of.told(c);
        Cell {
            key: c.key,
            label: c.label,
            leads: c.leads(),
            text: if told.value.is_some() {
                told.text
            } else {
                "not known".to_owned()
            },
            range: told.range,
            value: told.value,
            filed: told.filed,
            first: first.contains(&c.key),
        }
    };
    COLUMNS.iter().map(cell).collect()
}

/// Which columns a question makes matter: they stand first.
fn first(brief: &Brief) -> Vec<&'static str> {
    let (wishes, outing) = (&brief.wishes, &brief.outing);
    let mut out = vec!["draft", "lift", "price"];
    if brief.posture.stands() || wishes.fishing == Fishing::Fly {
        out.push("floor");
    }
    if outing.distance.is_some() || matches!(wishes.fishing, Fishing::Covering | Fishing::Trolling)
    {
        out.extend(["speed", "drift"]);
    }
    if wishes.fishing == Fishing::Bottom {
        out.extend(["holding", "drift"]);
    }
    if wishes.joints == Joints::Complain {
        out.extend(["getting-up", "comfort"]);
    }
    if matches!(wishes.launch, Launch::Bank | Launch::Steps) {
        out.push("length");
    }
    if outing.trips.is_some() {
        out.push("trip");
    }
    if out.len() < 5 {
        out.extend(["getting-up", "well"]);
    }
    out
}

struct Of<'a> {
    a: Option<&'a Assessment>,
    quick: Quick,
    survey: &'a Survey,
    brief: &'a Brief,
    system: System,
}

impl Of<'_> {
    fn told(&self, c: &Column) -> Told {
        let deck = self.a.and_then(|a| a.setup.loads.layout.deck.as_ref());
        match c.key {
            "draft" => self.figure(Quantity::Draft),
            "air" => self.figure(Quantity::AirDraft),
            "getting-up" => self.figure(Quantity::GettingUp),
            "speed" => self.speed(),
            "drift" => self.drift(),
            "helm" => self.helm(),
            "turning" => self.judged(Judgement::Turning),
            "holding" => self.judged(Judgement::Holding),
            "comfort" => self.comfort(),
            "floor" => self.left(deck.map(|d| d.standing_floor.unwrap_or(0.0))),
            "well" => self.left(deck.map(|d| d.well_free)),
            "reach" => count(deck.map(|d| f64::from(d.out_of_reach))),
            "minutes" => count(deck.map(|d| d.setup_minutes)),
            "lift" => self.measure(Measure::FittedWeight, c),
            "length" => self.measure(Measure::Length, c),
            "beam" => self.measure(Measure::Beam, c),
            "trip" => self.by_the_trip(),
            _ => self.measure(Measure::Price, c),
        }
    }

    fn figure(&self, q: Quantity) -> Told {
        let value = self.a.and_then(|a| a.median(q));
        Told::number(value, |v| q.row().text(self.system, v))
    }

    fn measure(&self, m: Measure, c: &Column) -> Told {
        let Holds::Number(dimension, decimals) = c.holds else {
            return Told::default();
        };
        Told::number(self.survey.value(m), |v| {
            self.system.text(dimension, v, decimals)
        })
    }

    fn left(&self, value: Option<f64>) -> Told {
        Told::number(value, |v| area(v, self.system))
    }

    fn ranged(&self, all: [f64; 3], dimension: Dimension) -> Told {
        let [lo, middle, hi] = all;
        let number = |v| self.system.number(dimension, v, 1);
        let text = |v| self.system.text(dimension, v, 1);
        Told {
            value: Some(middle),
            text: text(middle),
            range: format!("{} to {}", number(lo), text(hi)),
            filed: Some(Filed::Range(all)),
        }
    }

    fn speed(&self) -> Told {
        let cruise = self.quick.cruise;
        cruise.map_or_else(Told::default, |all| self.ranged(all, Dimension::Speed))
    }

    fn drift(&self) -> Told {
        let wind = self.quick.windage;
        wind.map_or_else(Told::default, |w| {
            self.ranged(three(w.drift), Dimension::Speed)
        })
    }

    /// How far from balance under way: either way is work at the rudder.
    fn helm(&self) -> Told {
        self.quick.windage.map_or_else(Told::default, |w| {
            let helm = w.helm_under_way;
            let range = format!(
                "{} to {}",
                signed_percent(helm.p5),
                signed_percent(helm.p95)
            );
            Told {
                value: Some(helm.p50.abs()),
                text: signed_percent(helm.p50),
                range,
                filed: Some(Filed::Range(three(helm))),
            }
        })
    }

    /// The place of a judgement's answer among its answers, from the worst.
    fn judged(&self, judgement: Judgement) -> Told {
        let word = self.survey.looked.judged.get(&judgement);
        let answers = judgement.answers();
        let at = word.and_then(|w| answers.iter().position(|a| a.0 == *w));
        let Some(at) = at else { return Told::default() };
        let (word, text) = answers[at];
        Told {
            value: Some(at as f64),
            text: text.to_owned(),
            range: String::new(),
            filed: Some(Filed::Word(word)),
        }
    }

    fn comfort(&self) -> Told {
        let judged = comfort(self.survey);
        if judged.len() < 3 {
            return Told::default();
        }
        let share = comfort_of_five(&judged);
        Told {
            range: if judged.len() < SEAT.len() {
                format!("{} of 5 looked at", judged.len())
            } else {
                String::new()
            },
            ..Told::number(Some(share), |v| format!("{v:.1} of 5"))
        }
    }

    /// Price over the trips of some years.
    fn by_the_trip(&self) -> Told {
        let Some(a) = self.a else {
            return Told::default();
        };
        let years = a.setup.guides()[Guide::TripYears];
        let value = by_the_trip(self.survey, self.brief, years);
        Told {
            range: value.map_or(String::new(), |_| format!("over {years:.0} years")),
            ..Told::number(value, |v| self.system.text(Dimension::Money, v, 0))
        }
    }
}

/// Price of a hull over the trips of some `years`; `None` where either is not known.
#[must_use]
pub fn by_the_trip(survey: &Survey, brief: &Brief, years: f64) -> Option<f64> {
    let both = survey.value(Measure::Price).zip(brief.outing.trips);
    both.map(|(price, trips)| price / (trips * years))
}

/// What is judged of a seat, and the answer that is best.
const SEAT: [(Judgement, &str); 5] = [
    (Judgement::Backrest, "high"),
    (Judgement::Lumbar, "adjusts"),
    (Judgement::Recline, "free"),
    (Judgement::Padding, "mesh"),
    (Judgement::SeatBase, "above"),
];

/// What was judged of a hull's seat: the answer, and how far it stands from the worst
/// (0) towards the best (1).
#[must_use]
pub fn comfort(survey: &Survey) -> Vec<(Judgement, &'static str, f64)> {
    let looked = |&(j, best): &(Judgement, &str)| {
        let word = survey.looked.judged.get(&j)?;
        let answers = j.answers();
        let at = answers.iter().position(|a| a.0 == *word)?;
        let top = answers.iter().position(|a| a.0 == best)?;
        Some((j, answers[at].1, at as f64 / top.max(1) as f64))
    };
    SEAT.iter().filter_map(looked).collect()
}

/// How many of five things of the seat were judged good, as a share of those looked at;
/// the column tells it only where most of them were.
#[must_use]
pub fn comfort_of_five(judged: &[(Judgement, &'static str, f64)]) -> f64 {
    let sum: f64 = judged.iter().map(|j| j.2).sum();
    sum / judged.len().max(1) as f64 * SEAT.len() as f64
}

fn three(range: Range) -> [f64; 3] {
    [range.p5, range.p50, range.p95]
}

fn count(value: Option<f64>) -> Told {
    Told::number(value, |v| format!("{v:.0}"))
}

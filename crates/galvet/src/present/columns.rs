//! Figures beside the points: shown in each row, what rows can be put in order by,
//! sifted by, and what breaks a tie.

use super::figure::signed_percent;
use crate::answer::Quick;
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity};
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
}

const fn column(key: &'static str, label: &'static str, less: bool, holds: Holds) -> Column {
    Column {
        key,
        label,
        less,
        holds,
    }
}

/// Every column.
pub const COLUMNS: [Column; 18] = {
    use Dimension as D;
    use Holds::{Area, Count, Judged, Number};
    [
        column("draft", "draft", true, Number(D::FineLength, 0)),
        column("air", "air draft", true, Number(D::Length, 2)),
        column("speed", "speed kept up", false, Number(D::Speed, 1)),
        column("drift", "drift, beam on", true, Number(D::Speed, 1)),
        column("helm", "helm, off balance", true, Count("%")),
        column("turning", "turning", false, Judged(Judgement::Turning)),
        column(
            "holding",
            "holds a place",
            false,
            Judged(Judgement::Holding),
        ),
        column("getting-up", "getting up", false, Count("")),
        column("comfort", "comfort", false, Count("of 5")),
        column("floor", "floor clear", false, Area),
        column("well", "well left", false, Area),
        column("reach", "out of reach", true, Count("")),
        column("minutes", "minutes to set up", true, Count("")),
        column("lift", "to lift, fitted", true, Number(D::Mass, 0)),
        column("length", "length", true, Number(D::Length, 2)),
        column("beam", "beam", true, Number(D::ShortLength, 0)),
        column("price", "price", true, Number(D::Money, 0)),
        column("trip", "price by the trip", true, Number(D::Money, 0)),
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
            b"speed" | b"drift" | b"helm" => "#going",
            b"turning" | b"holding" | b"comfort" => "/comfort",
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
    /// Where it is told how it comes about, behind the hull's own address: a path, and
    /// a mark on the page.
    pub leads: (&'static str, &'static str),
    pub text: String,
    /// Its range in words; empty where there is none.
    pub range: String,
    /// What it is put in order by; `None` where it is not known.
    pub value: Option<f64>,
    /// Whether what was asked makes it one of those shown first.
    pub first: bool,
}

/// A value, its words, and its range.
type Told = (Option<f64>, String, String);

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
        let (value, text, range) = of.told(c);
        Cell {
            key: c.key,
            label: c.label,
            leads: match c.leads() {
                mark if mark.starts_with('#') => ("", mark),
                path => (path, ""),
            },
            text: if value.is_some() {
                text
            } else {
                "not known".to_owned()
            },
            range,
            value,
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
        let text = value.map(|v| q.row().text(self.system, v));
        (value, text.unwrap_or_default(), String::new())
    }

    fn measure(&self, m: Measure, c: &Column) -> Told {
        let value = self.survey.value(m);
        let Holds::Number(dimension, decimals) = c.holds else {
            return (value, String::new(), String::new());
        };
        let text = value.map(|v| self.system.text(dimension, v, decimals));
        (value, text.unwrap_or_default(), String::new())
    }

    fn left(&self, value: Option<f64>) -> Told {
        let text = value.map(|v| area(v, self.system));
        (value, text.unwrap_or_default(), String::new())
    }

    fn ranged(&self, [lo, middle, hi]: [f64; 3], dimension: Dimension) -> Told {
        let number = |v| self.system.number(dimension, v, 1);
        let text = |v| self.system.text(dimension, v, 1);
        (
            Some(middle),
            text(middle),
            format!("{} to {}", number(lo), text(hi)),
        )
    }

    fn speed(&self) -> Told {
        let cruise = self.quick.cruise;
        cruise.map_or_else(unknown, |all| self.ranged(all, Dimension::Speed))
    }

    fn drift(&self) -> Told {
        let wind = self.quick.windage;
        wind.map_or_else(unknown, |w| {
            let all = [w.drift.p5, w.drift.p50, w.drift.p95];
            self.ranged(all, Dimension::Speed)
        })
    }

    /// How far from balance under way: either way is work at the rudder.
    fn helm(&self) -> Told {
        self.quick.windage.map_or_else(unknown, |w| {
            let helm = w.helm_under_way;
            let range = format!(
                "{} to {}",
                signed_percent(helm.p5),
                signed_percent(helm.p95)
            );
            (Some(helm.p50.abs()), signed_percent(helm.p50), range)
        })
    }

    /// The place of a judgement's answer among its answers, from the worst.
    fn judged(&self, judgement: Judgement) -> Told {
        let word = self.survey.looked.judged.get(&judgement);
        let answers = judgement.answers();
        let at = word.and_then(|w| answers.iter().position(|a| a.0 == *w));
        let text = at.map(|at| answers[at].1.to_owned());
        (
            at.map(|at| at as f64),
            text.unwrap_or_default(),
            String::new(),
        )
    }

    /// How many of five things of the seat were judged good; not known unless most
    /// of them were looked at.
    fn comfort(&self) -> Told {
        let good = [
            (Judgement::Backrest, "high"),
            (Judgement::Lumbar, "adjusts"),
            (Judgement::Recline, "free"),
            (Judgement::Padding, "mesh"),
            (Judgement::SeatBase, "above"),
        ];
        let looked = |(j, best): &(Judgement, &str)| {
            let word = self.survey.looked.judged.get(j)?;
            let answers = j.answers();
            let at = answers.iter().position(|a| a.0 == *word)?;
            let top = answers.iter().position(|a| a.0 == *best)?;
            Some(at as f64 / top.max(1) as f64)
        };
        let judged: Vec<f64> = good.iter().filter_map(looked).collect();
        if judged.len() < 3 {
            return unknown();
        }
        let sum: f64 = judged.iter().sum();
        let (share, n) = (sum / judged.len() as f64 * 5.0, judged.len());
        let range = if n < good.len() {
            format!("{n} of 5 looked at")
        } else {
            String::new()
        };
        (Some(share), format!("{share:.0} of 5"), range)
    }

    /// Price over the trips of some years.
    fn by_the_trip(&self) -> Told {
        let Some(a) = self.a else { return unknown() };
        let years = a.setup.guides()[Guide::TripYears];
        let price = self.survey.value(Measure::Price);
        let both = price.zip(self.brief.outing.trips);
        let value = both.map(|(price, trips)| price / (trips * years));
        let text = value.map(|v| self.system.text(Dimension::Money, v, 0));
        let range = value.map(|_| format!("over {years:.0} years"));
        (value, text.unwrap_or_default(), range.unwrap_or_default())
    }
}

fn unknown() -> Told {
    (None, String::new(), String::new())
}

fn count(value: Option<f64>) -> Told {
    let text = value.map(|v| format!("{v:.0}"));
    (value, text.unwrap_or_default(), String::new())
}

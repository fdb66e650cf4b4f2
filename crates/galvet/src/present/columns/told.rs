//! What is known of a hull in each column, and how it is said.

use super::{Column, Filed, Holds, Which};
use crate::answer::Quick;
use crate::present::page::hulls::figure::signed_percent;
use crate::present::page::hulls::turn::told as extra_told;
use galvet_core::base::{Dimension, System};
use galvet_core::beyond::Beyond;
use galvet_core::figures::{Assessment, Quantity, Range};
use galvet_core::guide::Guide;
use galvet_core::hull::{Judgement, Measure, Survey};
use galvet_core::papers::{Facts, Leg, shopping, strip};
use galvet_core::pond::Numbers;
use galvet_core::question::Brief;
use galvet_core::rank::explain::area;
use galvet_core::rank::{LOOKED_AT, SEAT, by_the_trip, comfort, demands, seat};

/// What is known of a hull in a column.
#[derive(Default)]
pub(super) struct Told {
    /// What it is put in order by.
    pub(super) value: Option<f64>,
    pub(super) text: String,
    pub(super) range: String,
    pub(super) filed: Option<Filed>,
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

/// What a column is told of.
pub(super) struct Of<'a> {
    pub(super) a: Option<&'a Assessment>,
    pub(super) quick: Quick,
    pub(super) beyond: Option<&'a Beyond>,
    pub(super) tried: Option<&'a Numbers>,
    pub(super) survey: &'a Survey,
    pub(super) brief: &'a Brief,
    pub(super) system: System,
}

impl Of<'_> {
    /// What stands in a column.
    pub(super) fn told(&self, c: &Column) -> Told {
        let deck = self.a.and_then(|a| a.setup.loads.layout.deck.as_ref());
        use Which as W;
        match c.which {
            W::Draft => self.figure(Quantity::Draft),
            W::Air => self.figure(Quantity::AirDraft),
            W::Demands => self.demands(),
            W::GettingUp => self.figure(Quantity::GettingUp),
            W::Speed => self.speed(),
            W::Drift => self.drift(),
            W::Helm => self.helm(),
            W::Turning => self.judged(Judgement::Turning),
            W::Holding => self.judged(Judgement::Holding),
            W::Comfort => self.comfort(),
            W::Floor => self.left(deck.map(|d| d.standing_floor.unwrap_or(0.0))),
            W::Well => self.left(deck.map(|d| d.well_free)),
            W::Reach => count(deck.map(|d| f64::from(d.out_of_reach))),
            W::Minutes => count(deck.map(|d| d.setup_minutes)),
            W::Home => self.home(),
            W::Whole => self.whole(),
            W::Lift => self.measure(Measure::FittedWeight, c),
            W::Length => self.measure(Measure::Length, c),
            W::Beam => self.measure(Measure::Beam, c),
            W::Trip => self.by_the_trip(),
            W::Price => self.measure(Measure::Price, c),
            W::Steering => self.judged(Judgement::Steering),
            W::Reverse => self.judged(Judgement::Reverse),
            W::Clears | W::Unsteady | W::Leak | W::HomeWind | W::Back | W::TurnBy | W::BackUp => {
                self.extra(c.which)
            }
            W::Battery | W::Anchor | W::Hold | W::Towed | W::Bow => self.extra(c.which),
            W::Upright => self.upright(),
            W::PondHeel => self.tried(|n| n.heel, c),
            W::PondRoom => self.tried(|n| n.room, c),
            W::PondWater => self.tried(|n| n.taken, c),
        }
    }

    /// Tries on the pond that end upright, with the range.
    fn upright(&self) -> Told {
        let Some(share) = self.tried.map(|n| n.upright) else {
            return Told::default();
        };
        let text = |v| self.system.text(Dimension::Share, v, 0);
        Told {
            value: Some(share.found),
            text: text(share.found),
            range: format!("{} to {}", text(share.least), text(share.most)),
            filed: Some(Filed::Range([share.least, share.found, share.most])),
        }
    }

    /// A figure of those tries; none where nobody stayed upright.
    fn tried(&self, of: impl Fn(&Numbers) -> Option<[f64; 3]>, c: &Column) -> Told {
        let (Some(all), Holds::Number(dimension, _)) = (self.tried.and_then(of), c.holds) else {
            return Told::default();
        };
        // Angles are told in degrees.
        let [lo, middle, hi] = match dimension {
            Dimension::Angle => all.map(f64::to_degrees),
            _ => all,
        };
        let text = |v| self.system.text(dimension, v, 0);
        Told {
            value: Some(middle),
            text: text(middle),
            range: format!("{} to {}", text(lo), text(hi)),
            filed: Some(Filed::Range([lo, middle, hi])),
        }
    }

    /// What papers are made of.
    fn facts(&self) -> Option<Facts<'_>> {
        let a = self.a?;
        Some(Facts::of(a, self.brief, self.system))
    }

    /// Minutes to set it up at the ramp, all stripped for the road before.
    fn home(&self) -> Told {
        count(self.facts().map(|f| strip(&f, Leg::Road).back()))
    }

    /// Hull and what its rig lacks, as far as prices are known: at least that.
    fn whole(&self) -> Told {
        let priced = self.facts().and_then(|f| {
            let all = shopping(&f);
            all.hull.map(|hull| all.priced(hull))
        });
        let unknown = priced.is_some_and(|(_, n)| n > 0);
        Told::number(priced.map(|(sum, _)| sum), |v| {
            let sum = self.system.text(Dimension::Money, v, 0);
            if unknown {
                format!("{sum} or more")
            } else {
                sum
            }
        })
    }

    /// What the water and the launch ask and it does not: one whole each; what is not
    /// known counts as much less as it costs fewer points.
    fn demands(&self) -> Told {
        let Some(a) = self.a else {
            return Told::default();
        };
        let asked = demands(a, self.brief);
        let count = |met: Option<bool>| asked.iter().filter(|m| m.met == met).count();
        let (not, unknown) = (count(Some(false)), count(None));
        let guides = a.setup.guides();
        let unmet = guides[Guide::DemandUnmet];
        let share = if unmet > 0.0 {
            (guides[Guide::DemandUnknown] / unmet).min(1.0)
        } else {
            0.0
        };
        Told::number(Some(not as f64 + share * unknown as f64), |_| {
            match (asked.len(), not, unknown) {
                (0, ..) => "nothing asked".to_owned(),
                (all, not, 0) => format!("{not} of {all}"),
                (all, not, unknown) => format!("{not} of {all}, {unknown} not known"),
            }
        })
    }

    fn figure(&self, q: Quantity) -> Told {
        let value = self.a.and_then(|a| a.median(q));
        Told::number(value, |v| q.row().text(self.system, v))
    }

    /// A figure for when the day turns; nothing where half the shapes or more have none,
    /// so that nothing unknown stands first.
    fn extra(&self, which: Which) -> Told {
        let Some((extra, beyond)) = which.extra().zip(self.beyond) else {
            return Told::default();
        };
        let text = |v: f64| extra_told(extra, v, self.system);
        let Some(range) = beyond.range(extra).filter(|r| r.share > 0.5) else {
            return Told::default();
        };
        let all = three(range);
        Told {
            value: Some(range.p50),
            text: text(range.p50),
            range: format!("{} to {}", text(all[0]), text(all[2])),
            filed: Some(Filed::Range(all)),
        }
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
        let judged = seat(self.survey);
        Told {
            range: if (LOOKED_AT..SEAT.len()).contains(&judged.len()) {
                format!("{} of 5 looked at", judged.len())
            } else {
                String::new()
            },
            ..Told::number(comfort(&judged), |v| format!("{v:.1} of 5"))
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

fn three(range: Range) -> [f64; 3] {
    [range.p5, range.p50, range.p95]
}

fn count(value: Option<f64>) -> Told {
    Told::number(value, |v| format!("{v:.0}"))
}

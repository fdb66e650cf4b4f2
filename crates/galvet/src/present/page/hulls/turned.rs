//! How a figure for when the day turns comes about: water aboard, wind and the way home,
//! holding, towing, lifting, each with the numbers of the middle shape.

use super::derivation::{Derivation, Input, OF_THE_MIDDLE, OVER_SHAPES, guide_values, input};
use super::figure::Figure;
use super::turn::{range_words, told};
use crate::answer::Afloat;
use crate::present::columns::column_named;
use galvet_core::aboard::{leaking, scuppers_guessed};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::beyond::{Beyond, Extra, Part};
use galvet_core::guide::Guide;
use galvet_core::handling::{account, bow, side_areas, tow};
use galvet_core::hull::Measure;
use galvet_core::question::{Day, Outing};
use galvet_core::rank::explain::area;

/// The figure a word in an address means: its own name, or that of its column.
#[must_use]
pub fn extra_named(key: &str) -> Option<Extra> {
    let own = Extra::ALL.iter().copied().find(|e| e.row().key == key);
    own.or_else(|| column_named(key)?.1.which.extra())
}

/// What a figure has to do with: which steps tell of it.
#[derive(Clone, Copy, PartialEq, Eq)]
enum About {
    Deck,
    Inside,
    Bow,
    Adrift,
    Home,
    Held,
    Towed,
    Ashore,
}

const fn about(extra: Extra) -> About {
    use Extra as E;
    match extra {
        E::Clear | E::Tender | E::Stays | E::Fills => About::Deck,
        E::WetFloor | E::GmZero | E::Founders => About::Inside,
        E::BowVolume | E::BowFreeboard => About::Bow,
        E::Drift | E::HelmRest | E::HelmUnderWay | E::Socked => About::Adrift,
        E::HomeWind | E::Out | E::Back | E::BackUp | E::Battery | E::TurnBy => About::Home,
        E::Hold | E::HoldWatts | E::HoldLine => About::Held,
        E::Towed | E::TowedSlows => About::Towed,
        E::Heaviest | E::OneEnd | E::Cart | E::Drag => About::Ashore,
    }
}

impl About {
    fn guides(self) -> &'static [Guide] {
        use Guide as G;
        match self {
            Self::Deck => &[G::Discharge, G::TenderGm, G::ClearsIn],
            Self::Inside => &[G::Discharge],
            Self::Bow => &[],
            Self::Adrift => &[G::AirDensity, G::AirDrag, G::SideDrag, G::DragSitsSide],
            Self::Home => &[
                G::WindAtBoat,
                G::DragSits,
                G::HullAhead,
                G::KitAhead,
                G::ChopShare,
                G::PaddleLasting,
                G::PedalLasting,
                G::MotorCruise,
                G::BackInHand,
            ],
            Self::Held => &[G::Scope, G::ScopeRough, G::DragSits, G::HullAhead],
            Self::Towed => &[G::PaddleLasting, G::PedalLasting],
            Self::Ashore => &[],
        }
    }
}

/// Derives it.
#[must_use]
pub fn turned(afloat: &Afloat, extra: Extra, day: &Day, system: System) -> Derivation {
    use Measure as M;
    let a = &afloat.assessment;
    let beyond = afloat.beyond(day);
    let survey = &a.setup.posterior.survey;
    let row = extra.row();
    let range = beyond.range(extra);
    let known = beyond.median(extra).is_some();
    let measures: &[Measure] = match row.part {
        Part::Lift => &[M::BareWeight, M::FittedWeight, M::Length],
        _ => &[
            M::Length,
            M::Beam,
            M::Depth,
            M::FloorHeight,
            M::FittedWeight,
            M::BareWeight,
            M::SeatPlace,
        ],
    };
    let about = about(extra);
    let of = Of {
        afloat,
        beyond: &beyond,
        outing: &day.outing,
        system,
    };
    let mut inputs: Vec<Input> = measures.iter().map(|&m| input(survey, m, system)).collect();
    inputs.extend(of.weather(about));
    Derivation {
        figure: Figure {
            key: row.key,
            symbol: "",
            label: row.label,
            meaning: row.meaning,
            value: match range {
                Some(r) if known => told(extra, r.p50, system),
                _ => row.absent.to_owned(),
            },
            known,
            band: String::new(),
            range: range_words(extra, range, system),
            share: String::new(),
        },
        verdict: String::new(),
        formula: None,
        picture: None,
        over: match about {
            About::Home => {
                "nine of ten of its possible shapes, at efforts from three quarters to five quarters of the usual"
            }
            _ => OVER_SHAPES,
        },
        basis: OF_THE_MIDDLE,
        steps: of.steps(about),
        inputs,
        guides: guide_values(about.guides(), a.setup.guides(), system),
        narrows: Vec::new(),
    }
}

struct Of<'a> {
    afloat: &'a Afloat,
    beyond: &'a Beyond,
    outing: &'a Outing,
    system: System,
}

impl Of<'_> {
    fn text(&self, dimension: Dimension, v: f64, decimals: usize) -> String {
        self.system.text(dimension, v, decimals)
    }

    fn force(&self, v: f64) -> String {
        self.text(Dimension::Force, v, 1)
    }

    fn speed(&self, v: f64) -> String {
        self.text(Dimension::Speed, v, 1)
    }

    /// Wind, stream and depth that went in.
    fn weather(&self, about: About) -> Vec<Input> {
        let asked = matches!(about, About::Home | About::Held | About::Adrift);
        let Some(way) = self.beyond.way.as_ref().filter(|_| asked) else {
            return Vec::new();
        };
        let water = &self.afloat.assessment.setup.brief.water;
        let said = |known: bool| match known {
            true => format!("of {}", water.name),
            false => "nobody said: a guide value".to_owned(),
        };
        vec![
            Input {
                label: "wind at the boat",
                value: self.speed(way.bound.weather.wind),
                source: match self.outing.wind {
                    Some(wind) => format!("a forecast of {}", self.speed(wind)),
                    None => format!("usual on {}", water.name),
                },
            },
            Input {
                label: "stream",
                value: self.speed(way.bound.weather.stream),
                source: said(water.stream.is_some()),
            },
        ]
    }

    fn steps(&self, about: About) -> Vec<String> {
        match about {
            About::Deck => self.deck(),
            About::Inside => self.inside(),
            About::Bow => self.bow(),
            About::Adrift => self.adrift(),
            About::Home => self.home(),
            About::Held => self.held(),
            About::Towed => self.towed(),
            About::Ashore => self.ashore(),
        }
    }

    fn deck(&self) -> Vec<String> {
        let Some(flooding) = self.beyond.flooding.as_deref() else {
            return vec!["it does not rest".to_owned()];
        };
        let litres = |v: f64| self.text(Dimension::Volume, v, 0);
        let seconds = |v: f64| self.text(Dimension::Time, v, 0);
        let brim = flooding.brim.map_or(String::new(), |b| litres(b.p50));
        let survey = &self.afloat.assessment.setup.posterior.survey;
        let mut out = vec![
            format!("filled to the lowest place of its rim the deck holds {brim}"),
            format!(
                "each scupper lets out, by its area and by how high the water inside stands over that outside, as much as a free jet would, times the share below{}; as it empties the boat rises, and the heads grow less",
                if scuppers_guessed(survey) {
                    " (nobody noted its scuppers: two to four pairs of 25 to 40 mm are taken)"
                } else {
                    ""
                }
            ),
        ];
        let course = flooding.course.iter();
        let half = course
            .clone()
            .next()
            .and_then(|(_, full)| course.clone().find(|(_, v)| *v < 0.5 * full));
        out.extend(
            half.map(|(t, v)| format!("after {} there are {} left", seconds(*t), litres(*v))),
        );
        let [tender, clear] = flooding.marks;
        out.extend(tender.map(|t| {
            format!(
                "after {} its GM to 5° is over what counts as unsteady, for good",
                seconds(t)
            )
        }));
        out.extend(clear.map(|t| {
            format!(
                "after {} the water over every inlet is within 5 mm of what stays",
                seconds(t)
            )
        }));
        out
    }

    fn inside(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let cm = |v: f64| self.text(Dimension::ShortLength, v, 1);
        let mut out = vec![
            "water loose inside is one level plane over all the space it can reach; the boat is free in trim, and the plane goes along with it".to_owned(),
            "steadiness is judged by the push back at 5° over its sine: a thin layer has run to the low side within one or two".to_owned(),
        ];
        out.extend(leaking(&a.setup, &a.middle).iter().step_by(2).map(|l| {
            format!(
                "with {}: GM to 5° {}, least freeboard {}, trim {}",
                self.text(Dimension::Volume, l.water, 0),
                cm(l.gm),
                cm(l.freeboard),
                self.text(Dimension::Angle, l.trim.to_degrees(), 1)
            )
        }));
        out
    }

    fn bow(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let Some(bow) = bow(&a.setup, a.middle) else {
            return vec!["it does not rest".to_owned()];
        };
        vec![
            format!(
                "between water and gunwale its foremost sixth holds {}, and the gunwale at the bow's end stands {} over the water",
                self.text(Dimension::Volume, bow.volume, 0),
                self.text(Dimension::FineLength, bow.freeboard, 0)
            ),
            format!(
                "it pitches once in {}: its length's quarter as radius, the waterplane's second moment along over the volume as stiffness, four fifths more for the water that goes along",
                self.text(Dimension::Time, bow.pitch, 1)
            ),
        ]
    }

    fn adrift(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let guides = a.setup.guides();
        let Some(drag) = side_areas(&a.setup, a.middle).map(|s| s.drag(guides)) else {
            return vec!["it does not rest".to_owned()];
        };
        let sock = a.setup.sock();
        let mut out = vec![format!(
            "from the side the wind has {} of drag area to push on, the water {} to hold by",
            area(drag.air, self.system),
            area(drag.water, self.system)
        )];
        if sock > 0.0 {
            out.push(format!(
                "the drift sock adds {} to what holds",
                area(sock, self.system)
            ));
        }
        out.push("it goes as fast as makes both equal: k is the root of the air's density times its area over the water's, and it drifts at k / (1 + k) of the wind".to_owned());
        out
    }

    fn home(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        let Some(way) = account(a, self.outing) else {
            return vec!["its middle shape does not get back at the usual effort".to_owned()];
        };
        let far = self.beyond.way.as_ref().map_or(0.0, |w| w.bound.distance);
        let mut out = vec![
            format!(
                "an effort of {} kept up for hours pushes with {} at {} through the water: the drive as a disc that speeds water up",
                self.text(Dimension::Power, way.effort, 0),
                self.force(way.thrust),
                self.speed(way.through)
            ),
            format!(
                "that is what holds it back: the hull {}, the wind on {} from ahead {}, the chop {}",
                self.force(way.water),
                area(way.ahead, self.system),
                self.force(way.air),
                self.force(way.chop)
            ),
            format!(
                "less the stream it makes {} over the ground: {} in {:.0} min",
                self.speed(way.over),
                self.text(Dimension::Distance, far, 1),
                far / way.over / 60.0
            ),
            "the headwind that stops it is found where the same effort leaves 1 km/h over the ground".to_owned(),
        ];
        if let Some(dark) = self.outing.dark {
            let back = far / way.over / 3600.0;
            let in_hand = a.setup.guides()[Guide::BackInHand];
            out.push(format!(
                "dark at {}, less {in_hand} times the way back: turn by {}",
                self.text(Dimension::Clock, dark, 0),
                self.text(Dimension::Clock, dark - in_hand * back, 0)
            ));
        }
        out
    }

    fn held(&self) -> Vec<String> {
        let Some(way) = self.beyond.way.as_ref() else {
            return vec!["no wind is named".to_owned()];
        };
        let weather = way.bound.weather;
        vec![
            format!(
                "bow or stern on, the hull's drag at {} of stream and the wind's push at {}: {}",
                self.speed(weather.stream),
                self.speed(weather.wind),
                self.force(way.hold.p50)
            ),
            format!(
                "beam on the stream has its whole side: {}",
                self.force(way.hold_beam_on.p50)
            ),
            format!(
                "line: the scope times {} of depth and 30 cm of freeboard: {}",
                self.text(Dimension::Length, way.bound.depth, 1),
                self.text(Dimension::Length, way.line, 0)
            ),
            "by its own drive: the same force, with the stream going by, through the disc"
                .to_owned(),
        ]
    }

    fn towed(&self) -> Vec<String> {
        let Some(tow) = tow(&self.afloat.assessment) else {
            return vec!["nothing on the rig is towed".to_owned()];
        };
        vec![
            format!(
                "all that is towed has {} of drag area in the water: half the density times that times the speed squared",
                area(self.afloat.assessment.setup.towed(), self.system)
            ),
            format!(
                "the effort kept up goes {} without it and {} with it, where it pulls with {}",
                self.text(Dimension::Speed, tow.speed[0], 2),
                self.text(Dimension::Speed, tow.speed[1], 2),
                self.force(tow.pull)
            ),
        ]
    }

    fn ashore(&self) -> Vec<String> {
        let a = &self.afloat.assessment;
        vec![
            format!(
                "as launched it weighs {}; a bare hull's weight lies 0.51 of its length from the bow",
                self.text(Dimension::Mass, a.fitted_mass(), 0)
            ),
            "one end: levers about the other end, by the handles on record, or a handle 2 % of the length from each end".to_owned(),
            "cart: its axle 5 % of the length behind the centre of hull and kit, that centre a quarter of a metre over it; slope and rolling of this launch".to_owned(),
            "dragged: weight times grip and slope of this launch, each good to a third".to_owned(),
        ]
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::{Desk, Hull};
    use crate::question::Ask;
    use galvet_core::guide::Guides;
    use std::sync::Arc;

    #[test]
    fn every_figure_says_how_it_comes_about_and_every_column_of_one_leads_there() {
        let catalogue = crate::demo_data::catalogue().unwrap();
        let asked = Ask::of([("water", "lake".to_owned())].into_iter());
        let asked = asked
            .resolve(&catalogue)
            .map_err(|_| "nothing to ask")
            .unwrap();
        let desk = Desk::remembering(Arc::new(Guides::default()), 1 << 24);
        let record = crate::demo_data::hull("fennick-dunmarrow");
        let hull = Hull {
            known: None,
            survey: Arc::new(record.survey),
        };
        let afloat = desk.afloat(&hull, &asked.brief).unwrap();
        let day = Day {
            outing: Outing {
                dark: Some(20.5),
                distance: Some(8_000.0),
                ..Outing::default()
            },
            ..Day::default()
        };
        for &extra in Extra::ALL {
            let d = turned(&afloat, extra, &day, System::Metric);
            assert!(
                !d.steps.is_empty() && !d.figure.value.is_empty(),
                "{extra:?}"
            );
            assert_eq!(extra_named(extra.row().key), Some(extra));
        }
        for column in crate::present::columns::COLUMNS {
            if let Some(extra) = column.which.extra() {
                assert_eq!(extra_named(column.key()), Some(extra), "{}", column.key());
            }
        }
        // The way back told is the way back worked out: to the minute.
        let d = turned(&afloat, Extra::Back, &day, System::Metric);
        let told = d
            .steps
            .iter()
            .find(|s| s.contains("over the ground:"))
            .unwrap();
        let minutes: f64 = told
            .rsplit_once(" in ")
            .and_then(|(_, m)| m.trim_end_matches(" min").parse().ok())
            .unwrap();
        let range = afloat.beyond(&day).range(Extra::Back).unwrap();
        assert!((range.p5 / 60.0 - 1.0..=range.p95 / 60.0 + 1.0).contains(&minutes));
    }
}

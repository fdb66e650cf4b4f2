//! What people do to a hull, each as a card of a few fields: a hatch, a track, a rod holder,
//! outriggers. What a card does not ask is a guide value; the whole form of the change has
//! it afterwards. A seat is a set-up, and anything else is the whole form.

use super::changes::planned;
use crate::form::{Field, Table, maybe_choice, name, number, tick, whole};
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{
    Dryness, Facing, Fitting, FittingKind, Measure, Modification, Opening, Progress, Source,
    Survey, Zone, ZoneKind,
};

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Card {
    /// A round hatch is cut.
    Hatch,
    /// A track is screwed on.
    Track,
    /// A holder for a rod is let in.
    Holder,
    /// Floats on arms.
    Outriggers,
}

impl Card {
    /// All of them, in the order they are shown.
    pub const ALL: [Self; 4] = [Self::Hatch, Self::Track, Self::Holder, Self::Outriggers];

    /// Its word in the address.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Hatch => "hatch",
            Self::Track => "track",
            Self::Holder => "rod-holder",
            Self::Outriggers => "outriggers",
        }
    }

    /// What it is called, and what it is for.
    #[must_use]
    pub const fn words(self) -> [&'static str; 2] {
        match self {
            Self::Hatch => [
                "A hatch",
                "a round one: what lies below is reached from above",
            ],
            Self::Track => ["A track", "what clamps on finds a place, no further hole"],
            Self::Holder => ["A rod holder", "flush, for one rod"],
            Self::Outriggers => [
                "Outriggers",
                "a float each side: what they give in lean room",
            ],
        }
    }

    /// The card of a word.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|card| card.word() == word)
    }
}

/// A card as it is filled in.
#[derive(Clone)]
pub(crate) struct CardDraft {
    card: Card,
    name: String,
    x: f64,
    /// To starboard; what stands on the gunwale there.
    y: Option<f64>,
    /// Length of a track, across an opening, height beneath it, weight.
    length: Option<f64>,
    across: Option<f64>,
    beneath: Option<f64>,
    /// No number until it is typed: what nobody weighed is asked for.
    mass: f64,
    /// From the middle to a float, and its underside over the water.
    reach: f64,
    clear: f64,
    dryness: Option<Dryness>,
    price: Option<f64>,
    done: bool,
    beam: f64,
    /// Height of the deck over the bottom.
    deck: f64,
}

/// A card nobody has filled in, for a hull.
pub(crate) fn blank(card: Card, survey: &Survey, guides: &Guides) -> CardDraft {
    let price = match card {
        Card::Hatch => Some(guides[Guide::HatchPrice]),
        Card::Track => Some(guides[Guide::TrackPrice]),
        Card::Holder => Some(guides[Guide::HolderPrice]),
        Card::Outriggers => None,
    };
    CardDraft {
        card,
        name: card.words()[0].trim_start_matches("A ").to_lowercase(),
        x: f64::NAN,
        y: None,
        length: match card {
            Card::Track => Some(0.40),
            Card::Outriggers => Some(FLOAT[0]),
            _ => None,
        },
        across: match card {
            Card::Hatch => Some(0.20),
            Card::Outriggers => Some(FLOAT[1]),
            _ => None,
        },
        reach: FLOAT[2],
        clear: FLOAT[3],
        beneath: None,
        mass: match card {
            Card::Outriggers => f64::NAN,
            _ => BOLTED,
        },
        dryness: None,
        price,
        done: false,
        beam: survey.value(Measure::Beam).unwrap_or(0.80),
        deck: survey.value(Measure::Depth).unwrap_or(0.30),
    }
}

/// Share of the beam at which a track or holder stands on the gunwale, and what either
/// weighs with its bolts, kg; screws of a track this far apart, m (guide values).
const GUNWALE: f64 = 0.42;
const BOLTED: f64 = 0.3;
const SCREWS: f64 = 0.15;
/// Length and diameter of a usual float, its reach from the middle and its height over the
/// water, m (guide values).
const FLOAT: [f64; 4] = [0.75, 0.20, 0.75, 0.03];

impl CardDraft {
    fn fitting(&self, kind: FittingKind) -> Fitting {
        Fitting {
            name: self.name.clone(),
            kind,
            x: self.x,
            y: self.y.unwrap_or(GUNWALE * self.beam),
            z: Some(self.deck),
            mount: String::new(),
            source: Source::Guess,
        }
    }

    /// The place beneath a new hatch: as long and wide as it is across, as high as said.
    fn beneath(&self, across: f64) -> Zone {
        let kind = if self.x > 1.6 {
            ZoneKind::SternHatch
        } else {
            ZoneKind::BowHatch
        };
        Zone {
            kind,
            from: self.x - 0.5 * across,
            to: self.x + 0.5 * across,
            width: across,
            offset: self.y.unwrap_or(0.0),
            height: self.beneath,
            opening: Some(Opening::Round(across)),
            dryness: self.dryness,
            ..planned(&self.name)
        }
    }
}

whole!(CardDraft);

/// The change a card makes.
pub(crate) fn change(card: CardDraft) -> Modification {
    let (mut zones, mut fittings) = (Vec::new(), Vec::new());
    let holes = match card.card {
        Card::Hatch => {
            zones.extend(card.across.map(|across| card.beneath(across)));
            8
        }
        Card::Track => {
            let length = card.length.unwrap_or(0.40);
            fittings.push(card.fitting(FittingKind::Track { length, slot: None }));
            (length / SCREWS).ceil() as u16 + 1
        }
        Card::Holder => {
            fittings.push(card.fitting(FittingKind::RodHolder {
                flush: true,
                angle: None,
                facing: Facing::Aft,
                reversible: false,
            }));
            4
        }
        Card::Outriggers => {
            fittings.push(Fitting {
                y: 0.0,
                ..card.fitting(FittingKind::Outriggers {
                    length: card.length.unwrap_or(FLOAT[0]),
                    diameter: card.across.unwrap_or(FLOAT[1]),
                    reach: card.reach,
                    clear: card.clear,
                })
            });
            8
        }
    };
    Modification {
        progress: if card.done {
            Progress::Done
        } else {
            Progress::Planned
        },
        removes: Vec::new(),
        zones,
        fittings,
        dryness: Vec::new(),
        mass: card.mass,
        x: card.x,
        z: card.deck,
        holes,
        price: card.price,
        can_be_undone: card.card == Card::Outriggers,
        note: String::new(),
        name: card.name,
    }
}

/// The fields of a card.
pub(crate) fn card_form(card: Card) -> Table<CardDraft> {
    type C = CardDraft;
    let x = || {
        number("x", "its middle, from the bow", Fitting::X, |c: &mut C| {
            &mut c.x
        })
        .hint("or point at the drawing")
    };
    let side = |hint| number("y", "off the middle", Fitting::Y, |c: &mut C| &mut c.y).hint(hint);
    let gunwale = "starboard +, port −; empty for the starboard gunwale";
    let own: Vec<Field<C>> = match card {
        Card::Hatch => vec![
            x(),
            number("across", "across", Zone::OPENING, |c: &mut C| &mut c.across),
            number("beneath", "room beneath it", Zone::HEIGHT, |c: &mut C| {
                &mut c.beneath
            }),
            maybe_choice("dryness", "how dry", "not said", |c: &mut C| &mut c.dryness),
            side("starboard +, port −; empty for the middle"),
        ],
        Card::Track => vec![
            x(),
            number("length", "long", Zone::LENGTH, |c: &mut C| &mut c.length),
            side(gunwale),
        ],
        Card::Holder => vec![x(), side(gunwale)],
        Card::Outriggers => vec![
            x(),
            number("mass", "weigh together", Modification::MASS, |c: &mut C| {
                &mut c.mass
            }),
            number(
                "length",
                "a float's length",
                Fitting::FLOAT_LENGTH,
                |c: &mut C| &mut c.length,
            ),
            number("across", "across a float", Fitting::FLOAT, |c: &mut C| {
                &mut c.across
            }),
            number(
                "reach",
                "from the middle to a float",
                Fitting::FLOAT_REACH,
                |c: &mut C| &mut c.reach,
            ),
            number(
                "clear",
                "its underside over the water",
                Fitting::FLOAT_CLEAR,
                |c: &mut C| &mut c.clear,
            )
            .hint("loaded and at rest"),
        ],
    };
    let last = [
        name("name", "called", |c: &mut C| &mut c.name),
        number("price", "costs", Modification::PRICE, |c: &mut C| {
            &mut c.price
        }),
        tick("done", "it is done already", |c: &mut C| &mut c.done),
    ];
    Table::plain(own.into_iter().chain(last).collect())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Sent;
    use galvet_core::base::System;

    fn made(card: Card, form: &[(&str, &str)]) -> Modification {
        let survey = &crate::demo_data::hull("fennick-dunmarrow").survey;
        let sent: Sent = form
            .iter()
            .map(|(n, v)| ((*n).to_owned(), (*v).to_owned()))
            .collect();
        let blank = blank(card, survey, &Guides::default());
        change(card_form(card).make(&blank, &sent, System::Metric).unwrap())
    }

    #[test]
    fn a_card_makes_a_change_with_what_it_did_not_ask_from_the_guides() {
        let track = made(Card::Track, &[("x", "2.4 m"), ("length", "45 cm")]);
        assert_eq!((track.name.as_str(), track.holes), ("track", 4));
        assert_eq!((track.mass, track.price), (0.3, Some(30.0)));
        let FittingKind::Track { length, .. } = track.fittings[0].kind else {
            panic!("a track");
        };
        assert_eq!(length, 0.45);
        // On the starboard gunwale of a beam of 90 cm.
        assert!((track.fittings[0].y - 0.42 * 0.90).abs() < 1e-9);
        let hatch = made(Card::Hatch, &[("x", "3.1 m"), ("beneath", "22 cm")]);
        let zone = &hatch.zones[0];
        assert!((zone.from - 3.0).abs() < 1e-9 && (zone.to - 3.2).abs() < 1e-9);
        assert_eq!(zone.opening, Some(Opening::Round(0.20)));
        assert_eq!((zone.kind, zone.height), (ZoneKind::SternHatch, Some(0.22)));
        let floats = made(Card::Outriggers, &[("x", "2.2 m"), ("mass", "4 kg")]);
        assert_eq!(
            (floats.mass, floats.price, floats.can_be_undone),
            (4.0, None, true)
        );
        assert_eq!(floats.progress, Progress::Planned);
        let FittingKind::Outriggers { reach, clear, .. } = floats.fittings[0].kind else {
            panic!("outriggers");
        };
        assert_eq!((reach, clear, floats.fittings[0].y), (0.75, 0.03, 0.0));
    }

    #[test]
    fn where_it_stands_must_be_said() {
        let demo = crate::demo_data::catalogue().unwrap();
        let blank = blank(Card::Holder, &demo.hulls[0].survey, &Guides::default());
        let none = card_form(Card::Holder).make(&blank, &Sent::new(), System::Metric);
        assert!(none.err().unwrap().0.contains_key("x"));
        // Floats weigh: without it they would count as nothing.
        let blank = super::blank(Card::Outriggers, &demo.hulls[0].survey, &Guides::default());
        let form: Sent = [("x".to_owned(), "2 m".to_owned())].into();
        let none = card_form(Card::Outriggers).make(&blank, &form, System::Metric);
        assert!(none.err().unwrap().0.contains_key("mass"));
    }
}

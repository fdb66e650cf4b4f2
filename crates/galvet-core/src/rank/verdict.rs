//! What a hurried angler reads of a hull first: whether it is steady, and how much more
//! it takes. Two short sentences from one table each, with the worst that nine of ten of
//! its possible shapes come to.

use super::own_band;
use crate::base::System;
use crate::crew::Posture;
use crate::figures::{Assessment, Quantity, Range};
use crate::guide::{Guide, Guides};
use crate::question::Brief;

/// One row of a table: a figure under `below` is told so.
struct Told {
    below: f64,
    /// As the middle of the shapes is.
    words: &'static str,
    /// As the worst of them is.
    worst: &'static str,
}

const fn told(below: f64, words: &'static str, worst: &'static str) -> Told {
    Told {
        below,
        words,
        worst,
    }
}

/// Standing, by the platform's support of a standing body (handbook, chapter 2: guide
/// bands).
fn standing(guides: &Guides) -> [Told; 4] {
    [
        told(guides[Guide::StaySeated], "Stay seated", "no standing"),
        told(
            guides[Guide::StandPractised],
            "Short stands, if skilled",
            "short stands",
        ),
        told(
            guides[Guide::StandNew],
            "Stands with practice",
            "with practice",
        ),
        told(f64::INFINITY, "Steady to stand in", "steady"),
    ]
}

/// Seated, by the room to lean for a moment, m (guide bands between what is too tender to
/// use and what earns all points).
fn seated(guides: &Guides) -> [Told; 4] {
    [
        told(
            guides[Guide::SitsTender],
            "Tender: sit still in it",
            "tender",
        ),
        told(guides[Guide::SitsLively], "Lively, seated", "lively"),
        told(
            guides[Guide::SitsSteady],
            "Steady enough, seated",
            "steady enough",
        ),
        told(f64::INFINITY, "Steady, seated", "steady"),
    ]
}

/// A row's number in a table.
fn row(table: &[Told; 4], value: f64) -> usize {
    table.iter().position(|t| value < t.below).unwrap_or(3)
}

/// The middle's words, and the worst's where those are others.
fn by(table: &[Told; 4], range: Option<Range>) -> String {
    let Some(range) = range else {
        return "Steadiness not known".to_owned();
    };
    let (middle, worst) = (row(table, range.p50), row(table, range.p5));
    let words = table[middle].words;
    if range.share < 0.5 {
        return table[0].words.to_owned();
    }
    if worst < middle {
        format!("{words}, at worst {}", table[worst].worst)
    } else {
        words.to_owned()
    }
}

/// The scale by which a hull is called steady in the posture asked: the figure, where its
/// parts end, SI, and what they are called, from the worst.
#[must_use]
pub fn scale(brief: &Brief, guides: &Guides) -> (Quantity, [f64; 3], [&'static str; 4]) {
    let (quantity, table) = match brief.posture {
        Posture::Sits => (Quantity::LeanRoom, seated(guides)),
        _ => (Quantity::StandingSupport, standing(guides)),
    };
    let ends = [table[0].below, table[1].below, table[2].below];
    (quantity, ends, table.map(|t| t.worst))
}

/// Whether a hull is steady in the posture asked, in a few words; of who sits and stands
/// the lower of the two.
#[must_use]
pub fn steadiness(assessment: &Assessment, brief: &Brief) -> String {
    let guides = assessment.setup.guides();
    let sits = (seated(guides), assessment.range(Quantity::LeanRoom));
    let stands = (
        standing(guides),
        assessment.range(Quantity::StandingSupport),
    );
    let lower = match brief.posture {
        Posture::Sits => true,
        Posture::Stands => false,
        Posture::SitsAndStands => place(&sits) < place(&stands),
    };
    if lower {
        return by(&sits.0, sits.1);
    }
    let own = |support: f64| own_band(support, brief, guides);
    match stands.1.and_then(|r| Some((own(r.p50)?, own(r.p5)?))) {
        Some((middle, worst)) => by_own(middle, worst),
        None => by(&stands.0, stands.1),
    }
}

/// The row of a table that speaks for most shapes.
fn place((table, range): &([Told; 4], Option<Range>)) -> usize {
    let known = range.filter(|r| r.share >= 0.5);
    known.map_or(0, |r| row(table, r.p50))
}

/// The bands of who knows a hull, for the middle and the worst.
fn by_own(middle: &str, worst: &str) -> String {
    let mut letters = middle.chars();
    let first = letters.next().map(|c| c.to_ascii_uppercase());
    let words: String = first.into_iter().chain(letters).collect();
    if worst == middle {
        words
    } else {
        format!("{words}, at worst {worst}")
    }
}

/// How much more a hull takes, in a few words: by the middle, and at worst.
#[must_use]
pub fn takes(assessment: &Assessment, system: System) -> String {
    let told = by_margin(assessment.range(Quantity::BindingMargin), system);
    // What the maker allows is not more because nobody knows it.
    match assessment.range(Quantity::LabelMargin) {
        Some(_) => told,
        None => format!("{told}; its label is not known"),
    }
}

fn by_margin(range: Option<Range>, system: System) -> String {
    let row = Quantity::BindingMargin.row();
    let Some(range) = range else {
        return "How much more it takes is not known".to_owned();
    };
    let (mass, bare) = (
        |kg: f64| row.text(system, kg),
        |kg: f64| row.number(system, kg),
    );
    let (middle, worst) = (range.p50, range.p5);
    if middle < 0.0 {
        return format!("{} too much aboard", mass(-middle));
    }
    let takes = format!("Takes {} more", mass(middle));
    if !worst.is_finite() || bare(worst.abs()) == bare(middle) && worst >= 0.0 {
        takes
    } else if worst >= 0.0 {
        format!("{takes}, at worst\u{a0}{}", bare(worst))
    } else {
        format!("{takes}, at worst\u{a0}{}\u{a0}too much", bare(-worst))
    }
}

/// The verdict on a hull: both sentences.
#[must_use]
pub fn verdict(assessment: &Assessment, brief: &Brief, system: System) -> String {
    let (steady, takes) = (steadiness(assessment, brief), takes(assessment, system));
    format!("{steady}. {takes}.")
}

#[cfg(test)]
mod tests {
    use super::*;

    fn range(p5: f64, p50: f64, share: f64) -> Option<Range> {
        Some(Range {
            p5,
            p50,
            p95: p50 + 0.2,
            share,
        })
    }

    #[test]
    fn standing_is_told_by_its_band_and_by_the_worst() {
        let guides = Guides::default();
        let words = |p5, p50| by(&standing(&guides), range(p5, p50, 1.0));
        assert_eq!(words(1.02, 1.1), "Steady to stand in");
        assert_eq!(
            words(0.99, 1.0),
            "Steady to stand in, at worst with practice"
        );
        assert_eq!(
            words(0.79, 0.9),
            "Stands with practice, at worst short stands"
        );
        assert_eq!(
            words(0.59, 0.6),
            "Short stands, if skilled, at worst no standing"
        );
        assert_eq!(words(0.2, 0.59), "Stay seated");
        // What most of its shapes do not do is not praised for those that do.
        let few = by(&standing(&guides), range(1.1, 1.2, 0.4));
        assert_eq!(few, "Stay seated");
        assert_eq!(by(&standing(&guides), None), "Steadiness not known");
    }

    #[test]
    fn who_knows_a_hull_is_told_the_worst_too() {
        assert_eq!(by_own("steady for you", "steady for you"), "Steady for you");
        assert_eq!(
            by_own("steady for you", "short stands, for you"),
            "Steady for you, at worst short stands, for you"
        );
        // Of two postures the lower speaks; what is not known is the lowest.
        let guides = Guides::default();
        let stands = (standing(&guides), range(1.0, 1.1, 1.0));
        let sits = (seated(&guides), range(0.03, 0.05, 1.0));
        assert!(place(&sits) < place(&stands));
        assert_eq!(place(&(seated(&guides), None)), 0);
    }

    #[test]
    fn what_it_takes_is_told_with_the_worst() {
        let words = |p5, p50| {
            let told = by_margin(range(p5, p50, 1.0), System::Metric);
            told.replace('\u{a0}', " ")
        };
        assert_eq!(words(12.0, 58.0), "Takes 58 kg more, at worst 12");
        assert_eq!(words(-2.4, 52.0), "Takes 52 kg more, at worst 2 too much");
        assert_eq!(words(57.8, 58.2), "Takes 58 kg more");
        assert_eq!(words(-40.0, -13.4), "13 kg too much aboard");
        // What its worst shapes do not bear at all is told in red beside it.
        assert_eq!(words(f64::NEG_INFINITY, 20.0), "Takes 20 kg more");
        assert_eq!(
            by_margin(None, System::Metric),
            "How much more it takes is not known"
        );
        let pounds = by_margin(range(4.5, 45.4, 1.0), System::Imperial);
        assert_eq!(
            pounds.replace('\u{a0}', " "),
            "Takes 100 lb more, at worst 10"
        );
    }

    #[test]
    fn seated_is_told_by_the_room_to_lean() {
        let guides = Guides::default();
        let words = |p5, p50| by(&seated(&guides), range(p5, p50, 1.0));
        assert_eq!(words(0.11, 0.14), "Steady, seated");
        assert_eq!(words(0.05, 0.14), "Steady, seated, at worst lively");
        assert_eq!(words(0.06, 0.09), "Steady enough, seated");
        assert_eq!(words(0.01, 0.04), "Lively, seated, at worst tender");
        assert_eq!(words(0.01, 0.02), "Tender: sit still in it");
    }
}

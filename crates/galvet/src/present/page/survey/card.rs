//! The survey card: the walk on paper, in the same order, with what is known.

use super::fittings::{in_order, words as fitting_words};
use crate::form::{shown_across, shown_along};
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use galvet_core::base::{Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{Judgement, Measure, Opening, Source, Survey, Zone, zones};

/// A line with what is known of it; empty cells are to be filled in.
pub struct CardZone {
    pub name: String,
    /// From, to, wide, off the middle, high, opening, dry, reached: as measured;
    /// empty where guessed.
    pub cells: [String; 8],
    /// What the template guesses, small.
    pub guess: String,
}

/// The page.
pub struct CardView {
    pub key: String,
    pub name: String,
    pub plan: Option<HullPlan>,
    pub measures: Vec<(&'static str, String, String)>,
    pub zones: Vec<CardZone>,
    pub fittings: Vec<(String, String)>,
    /// Judgement, its answers with the chosen one ticked.
    pub judged: Vec<(&'static str, Vec<(&'static str, bool)>)>,
}

/// Makes the card.
#[must_use]
pub fn card(survey: &Survey, lines: Option<&Lines>, system: System) -> CardView {
    let all = zones(survey);
    let measures = Measure::ALL.iter().map(|&m| {
        let best = survey.best(m);
        let value = best.map_or(String::new(), |r| m.text(system, r.value));
        let from = best.map_or("", |r| r.source.label());
        (m.label(), value, from.to_owned())
    });
    CardView {
        key: survey.key.clone(),
        name: survey.name(),
        plan: lines.map(|lines| {
            hull_plan(
                lines,
                &all,
                &survey.fitout.fittings_now(),
                AtHand::default(),
            )
        }),
        measures: measures.collect(),
        zones: all.iter().map(|zone| card_zone(zone, system)).collect(),
        fittings: in_order(&survey.fitout.fittings)
            .into_iter()
            .map(|f| (f.name.clone(), fitting_words(f, system)))
            .collect(),
        judged: Judgement::ALL
            .iter()
            .map(|&j| {
                let chosen = survey.looked.judged.get(&j).copied();
                let answers = j.answers().iter();
                let answers = answers.map(|&(word, label)| (label, chosen == Some(word)));
                (j.label(), answers.collect())
            })
            .collect(),
    }
}

fn card_zone(zone: &Zone, system: System) -> CardZone {
    let (along, across) = (
        |m: f64| shown_along(system, m),
        |m: f64| shown_across(system, m),
    );
    let maybe = |m: Option<f64>| m.map_or(String::new(), across);
    let opening = match zone.opening {
        None => String::new(),
        Some(Opening::Round(d)) => format!("round {}", across(d)),
        Some(Opening::Rectangle(l, w)) => format!("{} × {}", across(l), across(w)),
    };
    let cells = [
        along(zone.from),
        along(zone.to),
        across(zone.width),
        across(zone.offset),
        maybe(zone.height),
        opening,
        zone.dryness.map_or(String::new(), |d| d.label().to_owned()),
        zone.reach.map_or(String::new(), |r| r.label().to_owned()),
    ];
    if zone.source == Source::Guess {
        let guess = format!("guessed {} to {}, {} wide", cells[0], cells[1], cells[2]);
        return CardZone {
            name: zone.name.clone(),
            cells: Default::default(),
            guess,
        };
    }
    CardZone {
        name: zone.name.clone(),
        cells,
        guess: String::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_measured_stands_on_it_and_what_is_not_is_left_open() {
        let demo = crate::demo_data::catalogue().unwrap();
        let named = |key: &str| demo.hulls.iter().find(|h| h.survey.key == key).unwrap();
        let walked = card(&named("fennick-dunmarrow").survey, None, System::Metric);
        let well = walked.zones.iter().find(|z| z.name == "tank well").unwrap();
        assert_eq!(well.cells[0], "2.35\u{a0}m");
        assert!(well.guess.is_empty());
        let bare = card(&named("pellune-rusko").survey, None, System::Imperial);
        assert!(
            bare.zones
                .iter()
                .all(|z| z.cells.iter().all(String::is_empty))
        );
        assert!(
            bare.zones[0].guess.contains("in wide"),
            "{}",
            bare.zones[0].guess
        );
    }
}

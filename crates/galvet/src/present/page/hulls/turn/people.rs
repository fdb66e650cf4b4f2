//! Who moves and what steadies, in words: raised and standing postures with their price,
//! company at its worst place, floats on arms.

use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Afloat, Assessment, Quantity, Setup, Values};
use galvet_core::float::Accuracy;
use galvet_core::handling::braked;
use galvet_core::hull::Construction;

/// How much higher one sits on a cooler than on the seat, m (guide value).
const COOLER: f64 = 0.15;

/// Figures of the middle shape set up so; `None` where it does not rest.
fn figures(setup: &Setup, a: &Assessment) -> Option<Values> {
    let shapes = [a.middle];
    let [(values, fate)] = Afloat::new(setup, &shapes, Accuracy::SAMPLE).figures();
    fate.is_rest().then_some(values)
}

/// What other postures cost, and what company may, in words.
pub(super) fn postures(a: &Assessment, system: System) -> Vec<String> {
    let cm = |m: f64| system.text(Dimension::ShortLength, m, 1);
    let Some(now) = figures(&a.setup, a) else {
        return vec!["It does not rest as it is laden: nobody moves on it.".to_owned()];
    };
    let mut says = Vec::new();
    let lean = |v: &Values| v.get(Quantity::LeanRoom).unwrap_or(0.0);
    let raised = figures(&a.setup.clone().moved(COOLER, false), a);
    says.push(format!(
        "Seated as asked there are {} of lean; on a cooler {} higher {}.",
        cm(lean(&now)),
        system.text(Dimension::ShortLength, COOLER, 0),
        raised.map_or("it does not hold".to_owned(), |v| cm(lean(&v)))
    ));
    if a.setup.posterior.survey.construction != Construction::SitInside {
        let on_it = figures(&a.setup.clone().moved(0.0, true), a);
        let support = |v: &Values| v.get(Quantity::StandingSupport).unwrap_or(0.0);
        let least = a.setup.guides()[galvet_core::guide::Guide::StandPractised];
        let steady = |of: Option<f64>| match of {
            Some(s) if s >= least => "holds with practice",
            _ => "does not hold: stay off",
        };
        says.push(format!(
            "Standing on the floor {}; on the seat it {}.",
            steady(Some(support(&now))),
            steady(on_it.as_ref().map(support))
        ));
    }
    let loads = &a.setup.loads;
    let taken = loads.live_moment() / loads.crew_mass();
    if taken > 0.0 {
        says.push(format!(
            "Who comes along, moving to one side, takes {} of lean away: counted in all of these.",
            cm(taken)
        ));
    }
    says
}

/// What floats on arms give and ask, in words; empty where there are none.
pub(super) fn outriggers(a: &Assessment, system: System) -> Vec<String> {
    let pairs = a.setup.outriggers();
    let density = a.setup.brief.water.density;
    let Some(force) = pairs.iter().map(|(_, o)| o.force(density)).reduce(f64::max) else {
        return Vec::new();
    };
    let cm = |m: f64| system.text(Dimension::ShortLength, m, 1);
    let with = figures(&a.setup, a);
    let without = figures(&a.setup.clone().without_outriggers(), a);
    let lean = |v: &Option<Values>| {
        let room = v.as_ref().and_then(|v| v.get(Quantity::LeanRoom));
        room.map_or("does not hold".to_owned(), cm)
    };
    let support = |v: &Option<Values>| {
        let held = v.as_ref().and_then(|v| v.get(Quantity::StandingSupport));
        held.map_or("does not hold".to_owned(), |s| format!("{s:.2}"))
    };
    let mut says = vec![
        format!(
            "Largest brief lean {} with them, {} without; standing support {}, without {}.",
            lean(&with),
            lean(&without),
            support(&with),
            support(&without)
        ),
        format!(
            "Each float pushes up with {} when it is under: that counts only as far as its arm and mount bear it.",
            system.text(Dimension::Force, force, 0)
        ),
    ];
    if let (Some(with), Some(without)) = (&with, &without) {
        let draft = |v: &Values| {
            let draft = v.get(Quantity::Draft).unwrap_or(f64::NAN);
            system.text(Dimension::FineLength, draft, 0)
        };
        let slower = braked(a).map_or(0.0, |[free, with]| free - with);
        let slower = if slower < 0.005 {
            "no speed in still water: they hang clear".to_owned()
        } else {
            format!("{} of speed", system.text(Dimension::Speed, slower, 1))
        };
        says.push(format!(
            "It draws {} with them, {} without; they cost {slower}.",
            draft(with),
            draft(without)
        ));
    }
    let wet = pairs.iter().any(|(_, o)| o.clear < 0.0);
    let small = |o: &galvet_core::gear::Outriggers| (0.02..=0.04).contains(&o.clear);
    if wet {
        says.push(
            "They are set into the water: they brake, and steady from the first degree.".to_owned(),
        );
    } else if !pairs.iter().all(|(_, o)| small(o)) {
        says.push(format!(
            "Usual is {} to {} over the water.",
            cm(0.02),
            cm(0.04)
        ));
    }
    says
}

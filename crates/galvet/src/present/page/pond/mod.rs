//! The pond's page: an exercise on a hull, how it goes, why, and what would help.

pub mod words;

use crate::answer::{Afloat, Pond};
use crate::present::draw::pond::{Strip, strip};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::guide::Guides;
use galvet_core::pond::{Course, Done, Exercise, Numbers, Play, Setting};
use galvet_core::question::Practice;

/// What is tried on a hull.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Trial {
    pub exercise: Exercise,
    /// Whether who does it stands, where it may be done either way.
    pub stands: bool,
    pub practice: Practice,
    /// Which of the tries is played.
    pub seed: u64,
}

impl Trial {
    /// The exercise as it is done.
    #[must_use]
    pub fn done(&self, guides: &Guides) -> Done {
        self.exercise.done(self.stands, guides)
    }

    /// The setting of the try that is played.
    #[must_use]
    pub fn setting(&self, afloat: &Afloat) -> Setting {
        let setup = &afloat.assessment.setup;
        let guides = setup.guides();
        let sea = self.done(guides).sea;
        Setting {
            by: (self.seed, 0),
            ..Setting::of(&setup.brief, self.practice, sea, guides)
        }
    }

    /// The try that is played, with a frame every so many ticks.
    #[must_use]
    pub fn course(&self, afloat: &Afloat, pond: &Pond, every: u32) -> Course {
        let done = self.done(afloat.assessment.setup.guides());
        let (boat, _) = &pond.middle;
        Play::new(boat, self.setting(afloat), &done.script, done.up).run(done.until, every, false)
    }
}

/// A figure with its range.
pub struct Figure {
    pub label: &'static str,
    pub value: String,
    pub range: String,
}

/// What the page says.
pub struct PondView {
    /// The verdict, and how wide it is.
    pub lead: String,
    pub range: String,
    /// Whose tries they are; empty where practice changes nothing.
    pub who: &'static str,
    /// The try that is shown, in sentences.
    pub story: Vec<String>,
    pub strip: Strip,
    pub figures: Vec<Figure>,
    pub count: u32,
}

/// What the pond says of a hull under a question.
#[must_use]
pub fn view(afloat: &Afloat, pond: &Pond, trial: &Trial, units: System) -> PondView {
    let guides = afloat.assessment.setup.guides();
    let done = trial.done(guides);
    let course = trial.course(afloat, pond, 5);
    let tried = afloat.tried((trial.exercise, trial.stands, trial.practice));
    let (lead, range) = words::verdict(&tried, trial.exercise, done.must_stand);
    let (boat, scene) = &pond.middle;
    let balance = trial.setting(afloat).balance;
    PondView {
        lead,
        range,
        who: if done.must_stand {
            words::who(trial.practice)
        } else {
            ""
        },
        story: words::story(
            &course,
            boat,
            &balance,
            (
                trial.practice,
                done.must_stand,
                trial.exercise.reaches(),
                trial.exercise.in_waves(),
            ),
            units,
        ),
        strip: strip(scene, boat, &course, &done.script),
        figures: figures(&tried, units),
        count: tried.count,
    }
}

/// The figures of many tries.
fn figures(n: &Numbers, units: System) -> Vec<Figure> {
    let percent = |share: f64| format!("{:.0} %", 100.0 * share);
    let share = |label, s: galvet_core::pond::Share| Figure {
        label,
        value: if n.in_waves {
            "not known".to_owned()
        } else {
            percent(s.found)
        },
        range: format!("{} to {}", percent(s.least), percent(s.most)),
    };
    let degrees = |rad: f64| format!("{:.0}°", rad.to_degrees());
    let spread = |label, three: Option<[f64; 3]>, text: &dyn Fn(f64) -> String| {
        let value = match three {
            None => "nobody stayed upright".to_owned(),
            Some(_) if n.in_waves => "not known".to_owned(),
            Some([_, middle, _]) => text(middle),
        };
        let range = three.map_or(String::new(), |t| {
            format!("{} to {}", text(t[0]), text(t[2]))
        });
        Figure {
            label,
            value,
            range,
        }
    };
    let mut out = vec![
        share("tries that end upright", n.upright),
        share("tries that end in the water", n.over),
    ];
    if let Some(reached) = n.reached {
        out.push(share("tries that reach that far", reached));
    }
    out.push(spread(
        "greatest heel of those that stay up",
        n.heel,
        &degrees,
    ));
    out.push(spread("heel left until water comes in", n.room, &degrees));
    let litres = |volume| units.text(Dimension::Volume, volume, 0);
    out.push(spread("most water on the deck", n.taken, &litres));
    out
}

/// The exercise of a word; the one somebody of that posture tries first where it is none.
#[must_use]
pub fn exercise(word: Option<&str>, first: Exercise) -> Exercise {
    word.and_then(Exercise::from_key).unwrap_or(first)
}

//! What the pond says in words: one table from shares to sentences, and the story of a course.

use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::pond::{
    Balance, Boat, Course, End, Exercise, Happened, Help, Helped, Numbers, Share,
};
use galvet_core::question::Practice;

/// Tries as people count them.
fn of_hundred(share: f64) -> u32 {
    (100.0 * share).round().clamp(0.0, 100.0) as u32
}

/// What a share of tries is called: on the feet, and for what is done in the seat. `#` stands
/// for how many of a hundred.
const BANDS: [(f64, &str, &str); 5] = [
    (
        0.95,
        "Stays on the feet in # of 100 tries",
        "Stays upright in # of 100 tries",
    ),
    (
        0.75,
        "Mostly stays on the feet: in # of 100 tries",
        "Mostly stays upright: in # of 100 tries",
    ),
    (
        0.40,
        "As often down as up: on the feet in # of 100 tries",
        "As often over as not: upright in # of 100 tries",
    ),
    (
        0.05,
        "Rarely stays on the feet: in # of 100 tries",
        "Rarely stays upright: in # of 100 tries",
    ),
    (
        0.0,
        "Not one to stand in: on the feet in # of 100 tries",
        "Goes over: upright in # of 100 tries",
    ),
];

fn named(share: f64, standing: bool) -> String {
    let band = BANDS.iter().find(|(from, ..)| share >= *from);
    let (_, up, seated) = band.unwrap_or(&BANDS[BANDS.len() - 1]);
    let words = if standing { up } else { seated };
    words.replace('#', &of_hundred(share).to_string())
}

/// The verdict of many tries, and how wide what is known of the hull leaves it.
#[must_use]
pub fn verdict(n: &Numbers, exercise: Exercise, standing: bool) -> (String, String) {
    let share = n.upright;
    let range = |s: Share, what: &str| {
        let (least, most) = (of_hundred(s.least), of_hundred(s.most));
        if most - least <= 4 {
            String::new()
        } else {
            format!("{least} to {most} of 100 {what}, as little as is known of it")
        }
    };
    if exercise.in_waves() {
        let (least, most) = (of_hundred(share.least), of_hundred(share.most));
        let lead = if share.most < 0.5 {
            "Worse than flat water, and not one to do this in"
        } else {
            "Worse than flat water; how much worse nobody can say"
        };
        return (
            lead.to_owned(),
            format!(
                "upright in {least} to {most} of 100 tries, by how the hull goes sideways in a wave"
            ),
        );
    }
    if let Some(reached) = n.reached.filter(|r| r.found < 0.9 && share.found >= 0.95) {
        let lead = if reached.found < 0.1 {
            "Stays upright, but does not reach that far".to_owned()
        } else {
            let there = of_hundred(reached.found);
            format!("Stays upright; reaches that far in {there} of 100 tries")
        };
        return (lead, range(reached, "reach it"));
    }
    let lead = named(share.found, standing);
    (lead, range(share, "stay"))
}

/// Whoever does it, by practice.
#[must_use]
pub const fn who(practice: Practice) -> &'static str {
    match practice {
        Practice::New => "somebody new to standing",
        Practice::Some => "somebody with some practice",
        Practice::Skilled => "somebody skilled",
    }
}

/// Degrees with as many decimals as they are worth.
fn degrees(rad: f64) -> String {
    let deg = rad.to_degrees();
    if deg.abs() < 9.95 {
        format!("{deg:.1}°")
    } else {
        format!("{deg:.0}°")
    }
}

/// What happened on a course, by the clock.
fn events(course: &Course, boat: &Boat) -> Vec<String> {
    let told = course.happened.iter().filter_map(|(at, what)| {
        let what = match what {
            Happened::Stood => "on the feet",
            Happened::SatDown => "out of balance: down into the seat",
            Happened::Reached => "reached as far as wanted",
            Happened::Wet | Happened::RanIn if !boat.recess => "its edge dips",
            Happened::Wet => "water comes in over the edge of the floor",
            Happened::RanIn => "water runs in over the rim",
            Happened::Over => return None,
        };
        Some(format!("{at:.1} s: {what}"))
    });
    told.collect()
}

/// How a course ended, in one sentence.
#[must_use]
pub fn ended(course: &Course, standing: bool) -> String {
    let over = course.happened.iter().find(|(_, w)| *w == Happened::Over);
    match course.end {
        End::Over => {
            let at = over.map_or(0.0, |(at, _)| *at);
            let how = if course.heel.to_degrees() > 45.0 {
                "it went over"
            } else {
                "fell out before it went over"
            };
            format!("In the water after {at:.1} s: {how}")
        }
        End::Seated => "Had to sit down: balance was lost before the boat was".to_owned(),
        End::Upright if standing => "On the feet to the end".to_owned(),
        End::Upright => "Upright to the end".to_owned(),
    }
}

/// What happened, why, with the figures.
#[must_use]
pub fn story(
    course: &Course,
    boat: &Boat,
    balance: &Balance,
    (practice, standing, reaches, waves): (Practice, bool, bool, bool),
    system: System,
) -> Vec<String> {
    let mut out = vec![format!("{}.", ended(course, standing))];
    let events = events(course, boat);
    if !events.is_empty() {
        out.push(format!("{}.", events.join("; ")));
    }
    let comes = if boat.recess {
        "water comes in"
    } else {
        "its edge dips"
    };
    let room = if course.room >= 0.0 {
        format!("{} short of where {comes}", degrees(course.room))
    } else {
        format!("{} past where {comes}", degrees(-course.room))
    };
    out.push(format!("Greatest heel {}, {room}.", degrees(course.heel)));
    if course.filled > 0.005 {
        let taken = system.text(Dimension::Volume, course.filled * boat.holds, 0);
        out.push(format!("At most {taken} of water stood on the deck."));
    }
    let reached = course.happened.iter().any(|(_, w)| *w == Happened::Reached);
    if reaches && !reached && course.end != End::Over {
        let share = (100.0 * course.reach).round();
        out.push(format!(
            "It reached {share:.0} % of the way: leaning further would have heeled it too far."
        ));
    }
    if waves {
        out.push(
            "Shown with the hull going sideways as the water does, the kinder end of what is not known; where it goes its own way, more go down."
                .to_owned(),
        );
    }
    if standing {
        out.push(format!(
            "Why: its hull pushes back {:.2} times what somebody of this size on their feet pulls over; {} needs more than {:.2} to stand at all, and a good part more to be forgiven a push or a cast.",
            boat.support(),
            who(practice),
            balance.threshold(),
        ));
    } else {
        out.push(
            "Why: in the seat the body sits low and bends at the hips, so that the hull need only carry what leans over the side."
                .to_owned(),
        );
    }
    out
}

/// Tries of a hundred from which a change is one.
const CHANGES: f64 = 0.05;

/// What would help, those that help first. In waves only what helps at both ends of what is
/// not known, and no number.
#[must_use]
pub fn helped(all: &[Helped], waves: bool, system: System) -> Vec<String> {
    let mut all: Vec<&Helped> = all.iter().collect();
    all.sort_by(|a, b| b.after[0].total_cmp(&a.after[0]));
    let line = |h: &&Helped| {
        let what = match h.help {
            Help::Practice(practice) => format!("more practice ({})", practice.label()),
            Help::LowerSeat(by) => {
                format!(
                    "a seat {} lower",
                    system.text(Dimension::ShortLength, by, 0)
                )
            }
            Help::Ballast(kg) => {
                format!(
                    "{} of water low on the floor",
                    system.text(Dimension::Mass, kg, 0)
                )
            }
            Help::Seated => "doing it in the seat".to_owned(),
        };
        let by = [0, 1].map(|end| h.after[end] - h.before[end]);
        let verdict = if by.iter().all(|d| *d >= CHANGES - 1e-9) {
            "helps"
        } else if by.iter().all(|d| *d <= 1e-9 - CHANGES) {
            "makes it worse"
        } else if by.iter().all(|d| d.abs() < CHANGES) {
            "changes little"
        } else {
            "may help or not"
        };
        if waves {
            return format!("{what} {verdict}, whichever way the hull goes sideways");
        }
        let (before, after) = (of_hundred(h.before[0]), of_hundred(h.after[0]));
        format!("{what} {verdict}: {after} of 100 instead of {before}")
    };
    all.iter().map(line).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn numbers(found: f64, least: f64, most: f64) -> Numbers {
        let share = Share { least, found, most };
        Numbers {
            count: 200,
            upright: share,
            over: share,
            reached: None,
            heel: None,
            room: None,
            taken: None,
            in_waves: false,
        }
    }

    #[test]
    fn every_band_has_its_words_and_a_range_is_told_where_there_is_one() {
        let say = |found, least, most| verdict(&numbers(found, least, most), Exercise::Casts, true);
        assert_eq!(
            say(0.99, 0.96, 1.0),
            (
                "Stays on the feet in 99 of 100 tries".to_owned(),
                String::new()
            )
        );
        let (lead, range) = say(0.80, 0.30, 0.99);
        assert_eq!(lead, "Mostly stays on the feet: in 80 of 100 tries");
        assert_eq!(range, "30 to 99 of 100 stay, as little as is known of it");
        assert!(say(0.5, 0.2, 0.8).0.starts_with("As often down as up"));
        assert!(say(0.2, 0.0, 0.5).0.starts_with("Rarely stays on the feet"));
        assert!(
            say(0.0, 0.0, 0.04)
                .0
                .starts_with("Not one to stand in: on the feet in 0 of 100")
        );
    }

    #[test]
    fn in_waves_nothing_better_than_worse_than_flat_is_said() {
        for (found, least, most) in [(1.0, 0.98, 1.0), (0.5, 0.0, 0.9), (0.0, 0.0, 0.1)] {
            for exercise in [Exercise::Wake, Exercise::Chop] {
                let (lead, range) = verdict(&numbers(found, least, most), exercise, true);
                assert!(lead.starts_with("Worse than flat water"), "{lead}");
                assert!(range.contains("of 100 tries"), "{range}");
            }
        }
    }

    #[test]
    fn what_is_not_reached_is_not_praised() {
        let none = Share {
            least: 0.0,
            found: 0.02,
            most: 0.1,
        };
        let told = Numbers {
            reached: Some(none),
            ..numbers(1.0, 0.97, 1.0)
        };
        let (lead, _) = verdict(&told, Exercise::Landing, false);
        assert_eq!(lead, "Stays upright, but does not reach that far");
    }

    #[test]
    fn what_helps_is_told_with_its_tries_and_in_waves_without() {
        let seated = |before, after| Helped {
            help: Help::Seated,
            before,
            after,
        };
        let say = |all: &[Helped], waves| helped(all, waves, System::Metric);
        let flat = [seated([0.5, 0.5], [1.0, 1.0])];
        assert_eq!(
            say(&flat, false),
            ["doing it in the seat helps: 100 of 100 instead of 50"]
        );
        let waves = say(&[seated([0.9, 0.2], [0.9, 1.0])], true);
        assert_eq!(
            waves,
            ["doing it in the seat may help or not, whichever way the hull goes sideways"]
        );
        let worse = say(&[seated([0.5, 0.5], [0.2, 0.2])], false);
        assert!(worse[0].contains("makes it worse"));
        let little = say(&[seated([0.5, 0.5], [0.52, 0.52])], false);
        assert!(little[0].contains("changes little"));
    }
}

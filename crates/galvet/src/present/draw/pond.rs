//! Moments of the pond as stills: a strip of them.

use super::path;
use super::person::{Figure, figure};
use galvet_core::pond::{Act, Boat, Course, End, Frame, Posed, Scene};

/// One moment.
pub struct Still {
    /// Where it stands in the strip.
    pub shift: String,
    /// The hull.
    pub hull: String,
    /// Water below its surface, and the surface.
    pub water: String,
    /// See [`Still::water`].
    pub waterline: String,
    /// Whoever is in it.
    pub person: Figure,
    /// When, and how far it heels.
    pub label: String,
    /// The same for who does not see it.
    pub words: String,
}

/// A strip of moments.
pub struct Strip {
    pub view_box: String,
    pub stills: Vec<Still>,
    /// Where its labels stand.
    pub label_y: String,
    pub label_x: String,
}

/// Units a metre.
const SCALE: f64 = 130.0;
/// Half a moment's width, and its height over and under the water, m.
const HALF: f64 = 0.86;
const OVER: f64 = 2.12;
const UNDER: f64 = 0.34;
/// Moments at most, and at least.
const MOST: usize = 6;
const LEAST: usize = 4;
/// How long after something is done it shows, s.
const SHOWS: f64 = 0.9;

/// Which frames of a course say most: what is done, the greatest heel, the end.
fn moments(course: &Course, script: &[(f64, Act)]) -> Vec<usize> {
    let frames = &course.frames;
    let Some(last) = frames.len().checked_sub(1) else {
        return Vec::new();
    };
    let at = |time: f64| frames.partition_point(|f| f.time < time).min(last);
    let heel = |i: &usize| frames[*i].at.heel.abs();
    let most = (0..=last).max_by(|a, b| heel(a).total_cmp(&heel(b)));
    let mut found = vec![0, last];
    found.extend(most);
    for (time, _) in script {
        found.push(at(time + SHOWS));
    }
    for k in 1..LEAST {
        if found.len() < LEAST + 1 {
            found.push(last * k / LEAST);
        }
    }
    found.sort_unstable();
    found.dedup();
    // Of too many those go that lie closest to the one before, never the greatest heel.
    while found.len() > MOST {
        let closest = (1..found.len() - 1)
            .filter(|&i| Some(found[i]) != most)
            .min_by_key(|&i| found[i] - found[i - 1]);
        match closest {
            Some(i) => found.remove(i),
            None => break,
        };
    }
    found
}

/// A course in stills.
#[must_use]
pub fn strip(scene: &Scene, boat: &Boat, course: &Course, script: &[(f64, Act)]) -> Strip {
    let chosen = moments(course, script);
    let width = 2.0 * HALF * SCALE;
    let height = (OVER + UNDER) * SCALE;
    let last = course.frames.len().saturating_sub(1);
    let stills = chosen.iter().enumerate().map(|(n, &i)| {
        let over = i == last && course.end == End::Over;
        still(scene, boat, &course.frames[i], (n, over))
    });
    Strip {
        view_box: format!(
            "0 0 {:.0} {:.0}",
            width * chosen.len().max(1) as f64,
            height + 30.0
        ),
        stills: stills.collect(),
        label_y: format!("{:.0}", height + 20.0),
        label_x: format!("{:.0}", 0.5 * width),
    }
}

fn still(scene: &Scene, boat: &Boat, frame: &Frame, (n, over): (usize, bool)) -> Still {
    let Posed {
        hull,
        water: (level, slope),
        person,
    } = scene.posed(boat, frame);
    let width = 2.0 * HALF * SCALE;
    let bottom = (OVER + UNDER) * SCALE;
    // The water stays where it is; the boat rises and falls.
    let at = |(y, z): (f64, f64)| ((HALF + y) * SCALE, (OVER - (z - level)) * SCALE);
    let surface = |y: f64| at((y, level - y * slope.tan())).1;
    let (left, right) = (surface(-HALF), surface(HALF));
    let heel = frame.at.heel.to_degrees();
    let side = if heel < 0.0 { "port" } else { "starboard" };
    let now = format!("{:.1} s", frame.time);
    let (label, words) = if over {
        (format!("{now} · over"), format!("{now}: over"))
    } else if heel.abs() < 0.5 {
        (format!("{now} · level"), format!("{now}: level"))
    } else {
        (
            format!("{now} · {:.0}°", heel.abs()),
            format!("{now}: heeled {:.0}° to {side}", heel.abs()),
        )
    };
    Still {
        shift: format!("translate({:.0} 0)", width * n as f64),
        hull: path(hull.into_iter().map(at), true),
        water: format!("M0 {left:.1}L{width:.0} {right:.1}V{bottom:.0}H0Z"),
        waterline: format!("M0 {left:.1}L{width:.0} {right:.1}"),
        person: figure(&person, at, SCALE),
        label,
        words,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::pond::At;

    fn course(heels: &[f64]) -> Course {
        let frame = |(k, heel): (usize, &f64)| Frame {
            time: k as f64,
            at: At {
                heel: *heel,
                ..At::default()
            },
            up: 0.0,
            beside: 0.0,
            aside: 0.0,
            reach: 0.0,
            force: 0.0,
            slope: 0.0,
        };
        Course {
            frames: heels.iter().enumerate().map(frame).collect(),
            happened: Vec::new(),
            end: End::Upright,
            heel: 0.0,
            room: 0.0,
            filled: 0.0,
            reach: 0.0,
        }
    }

    #[test]
    fn the_greatest_heel_the_first_and_the_last_are_among_the_moments() {
        let mut heels = vec![0.0; 40];
        heels[17] = -0.4;
        let script: Vec<(f64, Act)> = (1..12).map(|k| (3.0 * f64::from(k), Act::Turn)).collect();
        let found = moments(&course(&heels), &script);
        assert!(found.len() <= MOST && found.contains(&17), "{found:?}");
        assert_eq!((found[0], found[found.len() - 1]), (0, 39));
        assert!(moments(&course(&heels), &[]).len() >= LEAST);
        assert!(moments(&course(&[]), &script).is_empty());
        assert_eq!(moments(&course(&[0.1]), &script), [0]);
    }
}

//! What the pond says of a hull under a question, over its possible shapes and many tries:
//! shares with their ranges. Never the only ground of a rank.

use super::boat::Boat;
use super::exercise::Exercise;
use super::play::Setting;
use super::scene::{Scene, scene};
use super::tries::{Tries, spread, tries};
use crate::body::Shape;
use crate::figures::Setup;
use crate::question::Practice;
use rayon::prelude::*;

/// A share of tries: how wide it may be beside what was found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Share {
    /// The least it may be, 0-1.
    pub least: f64,
    /// What was found over all shapes, 0-1.
    pub found: f64,
    /// The most it may be, 0-1.
    pub most: f64,
}

/// What was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Numbers {
    /// How many tries.
    pub count: u32,
    /// Share that ended as it was meant to.
    pub upright: Share,
    /// Share that ended in the water.
    pub over: Share,
    /// Share that reached as far as wanted, where something is reached for.
    pub reached: Option<Share>,
    /// Greatest heel of those that stayed upright, rad: a tenth less, the middle one, a tenth
    /// more; `None` where none did.
    pub heel: Option<[f64; 3]>,
    /// Least left of the heel at which water comes in, the same.
    pub room: Option<[f64; 3]>,
    /// Most water that stood on the deck, m³, the same.
    pub taken: Option<[f64; 3]>,
    /// Whether waves make it: then nothing more than that it is worse than flat water is
    /// known.
    pub in_waves: bool,
}

/// Shapes tried, and tries with each.
const SHAPES: usize = 20;
const EACH: u32 = 10;

/// Boats of a question's possible shapes, the least stiff on the feet first; shapes that find
/// no rest are left out and counted.
#[must_use]
pub fn boats(setup: &Setup, count: usize) -> (Vec<(Boat, Shape)>, usize) {
    let few = setup.posterior.coarse(count);
    let boat = |shape: &Shape| Boat::of(setup, shape).map(|boat| (boat, *shape));
    let all: Vec<Option<(Boat, Shape)>> = few.shapes.par_iter().map(boat).collect();
    let none = all.iter().filter(|b| b.is_none()).count();
    let mut boats: Vec<(Boat, Shape)> = all.into_iter().flatten().collect();
    boats.sort_by(|(a, _), (b, _)| a.support().total_cmp(&b.support()));
    (boats, none)
}

/// The ends a share may have in truth of which `found` in `count` was found: Wilson's interval,
/// nine in ten (E. B. Wilson, *Probable inference*, 1927).
fn wilson(found: f64, count: f64) -> [f64; 2] {
    if count <= 0.0 {
        return [0.0, 1.0];
    }
    let z2 = 1.645_f64 * 1.645;
    let middle = (found + z2 / (2.0 * count)) / (1.0 + z2 / count);
    let half = 1.645 * (found * (1.0 - found) / count + z2 / (4.0 * count * count)).sqrt()
        / (1.0 + z2 / count);
    [(middle - half).max(0.0), (middle + half).min(1.0)]
}

impl Share {
    /// Of tries on boats in order of what they bear, and on so many shapes that do not rest,
    /// where all is lost: from the worst third's least to the best third's most.
    fn of(runs: &[Vec<&Tries>], none: usize, share: &dyn Fn(&Tries) -> f64, lost: f64) -> Self {
        let mut out = Self {
            least: 1.0,
            found: 0.0,
            most: 0.0,
        };
        for run in runs {
            let each: Vec<f64> = run.iter().map(|t| share(t)).collect();
            let all = each.len() + none;
            let mean = |part: &[f64], none: usize| {
                let sum: f64 = part.iter().sum::<f64>() + lost * none as f64;
                sum / (part.len() + none).max(1) as f64
            };
            let third = all.div_ceil(3).max(1);
            let of = |count: usize| count as f64 * f64::from(EACH);
            let low = &each[..third.saturating_sub(none).min(each.len())];
            let high = &each[each.len().saturating_sub(third)..];
            let bad = wilson(mean(low, none.min(third)), of(third));
            let good = wilson(mean(high, 0), of(third));
            out.least = out.least.min(bad[0]).min(good[0]);
            out.most = out.most.max(good[1]).max(bad[1]);
            out.found += mean(&each, none) / runs.len() as f64;
        }
        out
    }
}

/// Two hundred tries at an exercise over a question's possible shapes; in waves, with the hull
/// going with the water and going its own way: both ends of what is not known.
#[must_use]
pub fn numbers(setup: &Setup, exercise: Exercise, stands: bool, practice: Practice) -> Numbers {
    let (boats, none) = boats(setup, SHAPES);
    let boats: Vec<Boat> = boats.into_iter().map(|(boat, _)| boat).collect();
    of_boats(setup, (&boats, none), exercise, stands, practice)
}

/// The same of boats made already.
#[must_use]
pub fn of_boats(
    setup: &Setup,
    (boats, none): (&[Boat], usize),
    exercise: Exercise,
    stands: bool,
    practice: Practice,
) -> Numbers {
    let guides = setup.guides();
    let done = exercise.done(stands, guides);
    let setting = Setting::of(&setup.brief, practice, done.sea, guides);
    let ways: &[bool] = if exercise.in_waves() {
        &[false, true]
    } else {
        &[false]
    };
    let runs: Vec<Vec<Tries>> = ways
        .iter()
        .map(|&sways| {
            let setting = Setting { sways, ..setting };
            let each = boats.par_iter().enumerate().map(|(k, boat)| {
                let by = (setting.by.0.wrapping_add(k as u64), 0);
                tries(
                    std::slice::from_ref(boat),
                    &Setting { by, ..setting },
                    &done,
                    EACH,
                )
            });
            each.collect()
        })
        .collect();
    let runs_of: Vec<Vec<&Tries>> = runs.iter().map(|run| run.iter().collect()).collect();
    let all = Tries(
        runs.iter()
            .flatten()
            .flat_map(|t| t.0.iter().copied())
            .collect(),
    );
    let share = |of: &dyn Fn(&Tries) -> f64, lost| Share::of(&runs_of, none, of, lost);
    Numbers {
        count: EACH * (boats.len() + none) as u32,
        upright: share(&Tries::upright, 0.0),
        over: share(&Tries::over, 1.0),
        reached: exercise.reaches().then(|| share(&Tries::reached, 0.0)),
        heel: spread(&all.of_upright(|t| t.heel)),
        room: spread(&all.of_upright(|t| t.room)),
        taken: spread(&all.of_upright(|t| t.taken)),
        in_waves: exercise.in_waves(),
    }
}

/// Shapes of a hull told apart in a picture: one of the least stiff and one of the stiffest,
/// a tenth from either end.
#[must_use]
pub fn ends(setup: &Setup) -> Vec<(Boat, Scene)> {
    let (boats, _) = boats(setup, SHAPES);
    let last = boats.len().saturating_sub(1);
    let at = |share: f64| boats.get((share * last as f64).round() as usize);
    let seen = |(boat, shape): &(Boat, Shape)| (boat.clone(), scene(setup, shape));
    [0.1, 0.9]
        .into_iter()
        .filter_map(|share| at(share).map(seen))
        .collect()
}

#[cfg(test)]
mod tests {
    use super::wilson;

    #[test]
    fn a_share_of_few_tries_is_told_as_wide_as_it_is() {
        // Worked by hand: 0 of 10, z² = 2.706: upper end 0.2706 / 1.2706.
        let [least, most] = wilson(0.0, 10.0);
        assert!(
            least < 1e-9 && (most - 0.212_97).abs() < 1e-4,
            "{least} {most}"
        );
        // Half of 100: 0.5 ± 1.645 √(0.25/100 + 0.0067650/100) / 1.02706.
        let [least, most] = wilson(0.5, 100.0);
        assert!((least - 0.418_84).abs() < 2e-4 && (most - 0.581_16).abs() < 2e-4);
    }
}

//! Ranges with shares.

/// A figure with its width: 5 %, 50 % and 95 % points.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Range {
    /// One in twenty shapes lies below.
    pub p5: f64,
    /// The median, which ranks.
    pub p50: f64,
    /// One in twenty shapes lies above.
    pub p95: f64,
    /// Share of the plausible shapes that have the figure at all, 0-1: the
    /// quantiles are of those.
    pub share: f64,
}

/// A figure of one shape, with what it stands for where there is none.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shown {
    /// Its value; no number where the shape has none.
    pub value: f64,
    /// What the shape weighs.
    pub weight: f64,
    /// Which end of the range a shape without the figure counts as.
    pub absent: Absent,
}

/// Where a shape without a figure stands among those that have it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Absent {
    /// It is left out: there is no better or worse.
    Out,
    /// With the lowest.
    Lowest,
    /// With the highest.
    Highest,
}

impl Range {
    /// Range over all shapes: one without the figure counts as the worst or best of
    /// those with it, so that no median is that of the lucky ones. Its share is of the
    /// shapes that have it.
    #[must_use]
    pub fn over_all(sample: &[Shown]) -> Option<Self> {
        let known = sample.iter().filter(|s| s.value.is_finite());
        let (mut lowest, mut highest) = (f64::INFINITY, f64::NEG_INFINITY);
        let mut have = 0.0;
        for s in known {
            lowest = lowest.min(s.value);
            highest = highest.max(s.value);
            have += s.weight;
        }
        let whole: f64 = sample.iter().map(|s| s.weight).sum();
        let filled = sample.iter().map(|s| {
            let value = match s.absent {
                _ if s.value.is_finite() => s.value,
                Absent::Out => f64::NAN,
                Absent::Lowest => lowest,
                Absent::Highest => highest,
            };
            (value, s.weight)
        });
        let range = Self::of(filled).filter(|_| lowest.is_finite())?;
        Some(Self {
            share: if whole > 0.0 { have / whole } else { 1.0 },
            ..range
        })
    }

    /// The range of a weighted sample of (value, weight); shapes without the
    /// figure have a value that is no number. `None` when none has it.
    /// Quantiles are read between the middles of the weights, the outer two at
    /// Weibull's plotting position for the effective size, so that of bodies
    /// drawn afresh nine in ten lie between them.
    #[must_use]
    pub fn of(sample: impl IntoIterator<Item = (f64, f64)>) -> Option<Self> {
        let (mut whole, mut known) = (0.0, 0.0);
        let mut sample: Vec<(f64, f64)> = sample
            .into_iter()
            .filter(|&(value, weight)| {
                whole += weight;
                if value.is_finite() {
                    known += weight;
                }
                value.is_finite()
            })
            .collect();
        let share = if whole > 0.0 { known / whole } else { 1.0 };
        sample.sort_unstable_by(|a, b| a.0.total_cmp(&b.0));
        let (first, last) = (sample.first()?.1, sample.last()?.1);
        let sum: f64 = sample.iter().map(|s| s.1).sum();
        let span = sum - 0.5 * (first + last);
        if span <= 0.0 {
            let value = sample.iter().max_by(|a, b| a.1.total_cmp(&b.1))?.0;
            return Some(Self {
                p5: value,
                p50: value,
                p95: value,
                share,
            });
        }
        let at = |share: f64| {
            let wanted = 0.5 * first + share * span;
            let (mut before, mut low) = (0.0, (0.0, sample[0].0));
            for &(value, weight) in &sample {
                let middle = before + 0.5 * weight;
                if middle >= wanted {
                    let gap = middle - low.0;
                    let t = if gap > 0.0 {
                        (wanted - low.0) / gap
                    } else {
                        1.0
                    };
                    return low.1 + (value - low.1) * t;
                }
                low = (middle, value);
                before += weight;
            }
            low.1
        };
        // i/(n + 1) of the whole lies at the middle of weight i, (i - 1/2)/n.
        let size = sum * sum / sample.iter().map(|s| s.1 * s.1).sum::<f64>();
        let outer = ((0.05 * (size + 1.0) - 0.5) / size).max(0.0);
        let wanted = |place: f64| ((place * sum - 0.5 * first) / span).clamp(0.0, 1.0);
        Some(Self {
            p5: at(wanted(outer)),
            p50: at(0.50),
            p95: at(wanted(1.0 - outer)),
            share,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn ranges_interpolate() {
        let even = (0..=20).map(|i| (f64::from(i), 0.5)).rev();
        let r = Range::of(even).unwrap();
        // Of 21 the 5 % point is 1/10 past the first: 0.05 · 22 - 1.
        for (got, exact) in [(r.p5, 0.1), (r.p50, 10.0), (r.p95, 19.9)] {
            assert_relative_eq!(got, exact, epsilon = 1e-9);
        }
        assert_eq!(r.share, 1.0);
        assert_eq!(Range::of(vec![]), None);
        assert_eq!(Range::of(vec![(3.0, 1.0)]).unwrap().p95, 3.0);
        // Nearly all weight on one value.
        let r = Range::of(vec![(1.0, 1e-9), (2.0, 1.0), (3.0, 1e-9)]).unwrap();
        assert_relative_eq!(r.p50, 2.0, epsilon = 1e-6);
    }

    #[test]
    fn losing_shapes_never_raises_a_median() {
        let shown = |value: f64, absent| Shown {
            value,
            weight: 0.1,
            absent,
        };
        let values = [1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 7.0, 8.0, 9.0, 10.0];
        let all: Vec<Shown> = values.iter().map(|&v| shown(v, Absent::Lowest)).collect();
        let whole = Range::over_all(&all).unwrap();
        // The three worst are lost: the middle stays where it was.
        let mut lost = all.clone();
        for s in &mut lost[..3] {
            s.value = f64::NAN;
        }
        let then = Range::over_all(&lost).unwrap();
        assert_relative_eq!(whole.p50, 5.5, epsilon = 1e-9);
        assert_relative_eq!(then.p50, whole.p50, epsilon = 1e-9);
        assert_relative_eq!(then.share, 0.7, epsilon = 1e-9);
        assert_eq!(Range::over_all(&[shown(f64::NAN, Absent::Lowest)]), None);
    }

    #[test]
    fn shapes_without_the_figure_are_counted_not_left_out() {
        let r = Range::of(vec![(1.0, 0.3), (f64::NAN, 0.5), (2.0, 0.2)]).unwrap();
        assert_relative_eq!(r.share, 0.5, epsilon = 1e-12);
        assert!(r.p50 >= 1.0 && r.p50 <= 2.0);
        assert_eq!(Range::of(vec![(f64::NAN, 1.0)]), None);
    }
}

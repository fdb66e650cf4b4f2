//! Wind, gusts, waves and water temperature by the hour.

use time::{Duration, PrimitiveDateTime};

/// What is foretold for an hour; m/s, m, °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hour {
    /// Mean wind, 10 m up.
    pub wind: f64,
    /// Gusts.
    pub gust: f64,
    /// Waves.
    pub wave: f64,
    /// Temperature of the water.
    pub water: Option<f64>,
}

/// Where a forecast comes from.
pub trait Forecast {
    /// What is foretold for a moment of the place's own clock; `None` where nothing is.
    fn at(&self, moment: PrimitiveDateTime) -> Option<Hour>;
    /// Whether it is made up.
    fn is_simulated(&self) -> bool;
}

/// Longest a line of a forecast holds. Guide value.
const LONGEST: Duration = Duration::hours(6);

/// One line of a forecast.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Foretold {
    /// From when it holds, on the place's own clock.
    pub from: PrimitiveDateTime,
    /// What.
    pub hour: Hour,
}

/// A forecast out of a file: each line holds until the next, the last for as long as the one
/// before it did, and none longer than six hours: a gap is not known.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Sheet {
    /// Its lines, in order of time.
    pub lines: Vec<Foretold>,
    /// Whether it is made up: then it comes round again, so that there is one for any day.
    pub simulated: bool,
}

impl Sheet {
    /// How long the lines last altogether, and from when.
    fn span(&self) -> Option<(PrimitiveDateTime, Duration)> {
        let (first, last) = (self.lines.first()?, self.lines.last()?);
        let step = match self.lines.len() {
            0 | 1 => Duration::hours(3),
            n => last.from - self.lines[n - 2].from,
        };
        Some((first.from, last.from - first.from + step))
    }
}

impl Forecast for Sheet {
    fn at(&self, moment: PrimitiveDateTime) -> Option<Hour> {
        let (start, span) = self.span()?;
        let mut seconds = (moment - start).whole_seconds();
        let whole = span.whole_seconds();
        if self.simulated && whole > 0 {
            seconds = seconds.rem_euclid(whole);
        }
        if !(0..whole).contains(&seconds) {
            return None;
        }
        let then = start + Duration::seconds(seconds);
        let holds = self.lines.iter().rev().find(|l| l.from <= then)?;
        (then - holds.from < LONGEST).then_some(holds.hour)
    }

    fn is_simulated(&self) -> bool {
        self.simulated
    }
}

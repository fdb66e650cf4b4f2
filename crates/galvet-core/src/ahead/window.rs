//! When to launch: hour by hour, what speaks against being on the water, and the hours in
//! which nothing does.

use super::forecast::{Forecast, Hour};
use super::light::Light;
use super::tide::Tides;
use crate::base::words;
use time::{Date, Duration, PrimitiveDateTime, Time};

words! {
/// What speaks against an hour.
pub enum Wrong {
    /// No light.
    Dark,
    /// No forecast for it: not known is not calm.
    #[strum(message = "no forecast")]
    NoForecast,
    /// Gusts over the limit.
    Wind,
    /// Waves over the water's typical ones.
    Waves,
    /// The ramp stands dry.
    #[strum(message = "too shallow at the ramp")]
    Ramp,
    /// Too little water over the bar.
    #[strum(message = "too shallow over the bar")]
    Bar,
}
}

/// What is asked of the day.
pub struct Asked<'a> {
    /// The day.
    pub day: Date,
    /// Tide of the place; `None` where the water stands.
    pub tide: Option<&'a dyn Tides>,
    /// Forecast; `None` where there is none.
    pub forecast: Option<&'a dyn Forecast>,
    /// When it is light.
    pub light: Light,
    /// Depth at the foot of the ramp with the water at chart datum, m; below zero it dries.
    pub ramp: Option<f64>,
    /// Depth over the bar, likewise.
    pub bar: Option<f64>,
    /// Depth needed: the hull's draft with its drive, and something over.
    pub needs: f64,
    /// Strongest mean wind one goes out in, m/s; gusts may be a third more, which a forecast's
    /// mean at 10 m stands for (handbook, chapter 10).
    pub most_wind: f64,
    /// Waves the water was judged for, m.
    pub most_wave: Option<f64>,
}

/// One hour of the day.
#[derive(Debug, Clone, PartialEq)]
pub struct At {
    /// When it begins.
    pub from: PrimitiveDateTime,
    /// Height of the tide over datum in its middle, m.
    pub tide: Option<f64>,
    /// Depth at the ramp and over the bar, the least in it, m.
    pub ramp: Option<f64>,
    /// Over the bar.
    pub bar: Option<f64>,
    /// What is foretold.
    pub hour: Option<Hour>,
    /// What speaks against it; empty: nothing does.
    pub wrong: Vec<Wrong>,
}

/// Hours in a row in which nothing speaks against being out.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Window {
    /// From.
    pub from: PrimitiveDateTime,
    /// To.
    pub to: PrimitiveDateTime,
}

impl Window {
    /// How long, h.
    #[must_use]
    pub fn hours(&self) -> f64 {
        (self.to - self.from).as_seconds_f64() / 3600.0
    }
}

/// The day hour by hour, and its windows, the longest first.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    /// Every hour.
    pub hours: Vec<At>,
    /// Hours in a row without anything against them.
    pub windows: Vec<Window>,
}

/// Looks at a day.
#[must_use]
pub fn look(asked: &Asked<'_>) -> Look {
    let start = PrimitiveDateTime::new(asked.day, Time::MIDNIGHT);
    let hours: Vec<At> = (0..24)
        .map(|h| at(asked, start + Duration::hours(h)))
        .collect();
    let mut windows: Vec<Window> = Vec::new();
    for hour in hours.iter().filter(|h| h.wrong.is_empty()) {
        let to = hour.from + Duration::HOUR;
        match windows.last_mut() {
            Some(last) if last.to == hour.from => last.to = to,
            _ => windows.push(Window {
                from: hour.from,
                to,
            }),
        }
    }
    windows.sort_by_key(|w| (w.from - w.to, w.from));
    Look { hours, windows }
}

fn at(asked: &Asked<'_>, from: PrimitiveDateTime) -> At {
    let to = from + Duration::HOUR;
    let mut wrong = Vec::new();
    // The whole hour must be light.
    let dark = asked.light.dawn.is_none_or(|dawn| from < dawn)
        || asked.light.dusk.is_none_or(|dusk| to > dusk);
    if dark {
        wrong.push(Wrong::Dark);
    }
    // A forecast may turn within the hour: the worse of its ends counts.
    let ends = asked.forecast.and_then(|f| {
        let last = to - Duration::MINUTE;
        Some((f.at(from)?, f.at(last)?))
    });
    let hour = ends.map(|(a, b)| Hour {
        wind: a.wind.max(b.wind),
        gust: a.gust.max(b.gust),
        wave: a.wave.max(b.wave),
        water: match (a.water, b.water) {
            (Some(a), Some(b)) => Some(a.min(b)),
            (one, other) => one.or(other),
        },
    });
    match hour {
        None => wrong.push(Wrong::NoForecast),
        Some(h) => {
            if h.wind > asked.most_wind || h.gust > 1.35 * asked.most_wind {
                wrong.push(Wrong::Wind);
            }
            if asked.most_wave.is_some_and(|most| h.wave > most) {
                wrong.push(Wrong::Waves);
            }
        }
    }
    let lowest = asked.tide.map(|tide| {
        let quarter = |q: i32| tide.height(from + Duration::minutes(15) * q);
        (0..=4).map(quarter).fold(f64::INFINITY, f64::min)
    });
    // Where the water stands, what the place says is the depth.
    let over = |depth: Option<f64>| depth.map(|d| d + lowest.unwrap_or(0.0));
    let (ramp, bar) = (over(asked.ramp), over(asked.bar));
    if ramp.is_some_and(|d| d < asked.needs) {
        wrong.push(Wrong::Ramp);
    }
    if bar.is_some_and(|d| d < asked.needs) {
        wrong.push(Wrong::Bar);
    }
    At {
        from,
        tide: asked.tide.map(|t| t.height(from + Duration::minutes(30))),
        ramp,
        bar,
        hour,
        wrong,
    }
}

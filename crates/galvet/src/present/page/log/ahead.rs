//! The next outing: when to launch, and what speaks against the other hours.

use crate::present::draw::log::{DayCurve, DayOf, day};
use galvet_core::ahead::{At, Light, Look, Wrong};
use galvet_core::base::{Dimension, Keyed, System};
use time::{PrimitiveDateTime, Time};

/// An hour in the table.
pub struct HourLine {
    pub hour: String,
    pub tide: String,
    pub ramp: String,
    pub bar: String,
    pub wind: String,
    pub wave: String,
    pub water: String,
    pub wrong: String,
    pub good: bool,
}

/// The page.
pub struct AheadView {
    pub lead: String,
    pub red: String,
    pub light: String,
    pub turns: Vec<String>,
    /// When to turn for home at the latest.
    pub turn: String,
    pub cautions: Vec<String>,
    pub hours: Vec<HourLine>,
    pub depth: Option<DayCurve>,
    pub wind: Option<DayCurve>,
    pub simulated: bool,
}

/// The way home.
pub enum WayBack {
    /// No hull was chosen, or it cannot be floated.
    NotAsked,
    /// In minutes: the middle, and the worst.
    Takes(f64, f64),
    /// Not all of its possible shapes get back in that wind.
    NotSure,
}

/// What the page is made of.
pub struct Ahead<'a> {
    pub look: &'a Look,
    pub light: Light,
    /// High and low water.
    pub turns: Vec<(PrimitiveDateTime, f64, bool)>,
    /// What a hull needs under it, m.
    pub needs: f64,
    pub most_wind: f64,
    /// The way home against wind and stream, by the hull asked.
    pub back: WayBack,
    /// Whether what is needed is with its drive down.
    pub drive_down: bool,
    pub cautions: Vec<String>,
    pub simulated: bool,
    pub forecast: bool,
    pub tidal: bool,
}

fn clock(at: PrimitiveDateTime) -> String {
    format!("{:02}:{:02}", at.hour(), at.minute())
}

fn of_day(at: PrimitiveDateTime) -> f64 {
    let since = at.time() - Time::MIDNIGHT;
    since.as_seconds_f64() / 3600.0
}

/// Makes the page.
#[must_use]
pub fn view(of: &Ahead<'_>, system: System) -> AheadView {
    let best = of.look.windows.first();
    let (lead, red) = match best {
        Some(w) => (
            format!(
                "Launch from {}, be back by {}: {:.0}\u{a0}h with nothing against it",
                clock(w.from),
                if w.to.time() == Time::MIDNIGHT {
                    "24:00".to_owned()
                } else {
                    clock(w.to)
                },
                w.hours()
            ),
            String::new(),
        ),
        None if of.forecast => (
            "No hour of this day has nothing against it".to_owned(),
            why_not(of.look),
        ),
        None => (
            "No forecast for this day: not known is not calm".to_owned(),
            String::new(),
        ),
    };
    AheadView {
        lead,
        red,
        light: light(&of.light),
        turns: of
            .turns
            .iter()
            .map(|(at, height, high)| {
                let what = if *high { "High" } else { "Low" };
                format!(
                    "{what} water {} ({})",
                    clock(*at),
                    system.text(Dimension::Length, *height, 1)
                )
            })
            .collect(),
        turn: latest(of),
        cautions: of.cautions.clone(),
        hours: of.look.hours.iter().map(|h| hour(h, system)).collect(),
        depth: depth(of, system),
        wind: wind(of, system),
        simulated: of.simulated,
    }
}

/// What speaks against the lit hours, most often first.
fn why_not(look: &Look) -> String {
    let lit = || {
        look.hours
            .iter()
            .filter(|h| !h.wrong.contains(&Wrong::Dark))
    };
    let mut all: Vec<(usize, &str)> = Wrong::ALL
        .iter()
        .map(|w| (lit().filter(|h| h.wrong.contains(w)).count(), w.label()))
        .filter(|(n, _)| *n > 0)
        .collect();
    all.sort_by_key(|(n, _)| std::cmp::Reverse(*n));
    let told: Vec<String> = all
        .iter()
        .map(|(n, w)| format!("{w} in {n} of its lit hours"))
        .collect();
    told.join("; ")
}

fn light(l: &Light) -> String {
    match (l.dawn, l.rise, l.set, l.dusk) {
        (Some(dawn), Some(rise), Some(set), Some(dusk)) => format!(
            "Light from {} (sun {}) to {} (sun down {})",
            clock(dawn),
            clock(rise),
            clock(dusk),
            clock(set)
        ),
        _ => "The sun does not rise and set on this day".to_owned(),
    }
}

/// Latest turn: dark less 1.25 times the way home (handbook, chapter 10); of the window's end
/// where that comes first.
fn latest(of: &Ahead<'_>) -> String {
    let (middle, worst) = match of.back {
        WayBack::Takes(middle, worst) => (middle, worst),
        WayBack::NotAsked => {
            return "Choose a hull, and the way home tells when to turn".to_owned();
        }
        WayBack::NotSure => {
            return "In that wind not every one of its possible shapes gets back against it: \
                    stay where the wind takes you home"
                .to_owned();
        }
    };
    // Of a day without a good hour no time is told: it would read as leave to go.
    let Some(window) = of.look.windows.first() else {
        return String::new();
    };
    let end = of.light.dusk.map_or(window.to, |d| d.min(window.to));
    let margin = |minutes: f64| end - time::Duration::seconds_f64(1.25 * 60.0 * minutes);
    let kept = "against wind and stream, and a quarter more is kept in hand";
    if margin(worst) <= window.from {
        return format!(
            "Too short to go out that far: the way back takes {middle:.0}\u{a0}min \
             ({worst:.0} at worst) {kept}"
        );
    }
    format!(
        "Turn for home by {} at the latest ({} at worst): the way back takes \
         {middle:.0}\u{a0}min {kept}",
        clock(margin(middle)),
        clock(margin(worst))
    )
}

fn hour(h: &At, system: System) -> HourLine {
    let length =
        |v: Option<f64>| v.map_or("–".to_owned(), |v| system.text(Dimension::Length, v, 1));
    let speed = |v: f64| system.text(Dimension::Speed, v, 0);
    let wrong: Vec<&str> = h.wrong.iter().map(|w| w.label()).collect();
    HourLine {
        hour: clock(h.from),
        tide: length(h.tide),
        ramp: length(h.ramp),
        bar: length(h.bar),
        wind: h.hour.map_or("not known".to_owned(), |x| {
            format!("{}, gusts {}", speed(x.wind), speed(x.gust))
        }),
        wave: h.hour.map_or(String::new(), |x| {
            system.text(Dimension::ShortLength, x.wave, 0)
        }),
        water: h
            .hour
            .and_then(|x| x.water)
            .map_or(String::new(), |c| format!("{c:.0}\u{a0}°C")),
        wrong: wrong.join(", "),
        good: h.wrong.is_empty(),
    }
}

fn windows(of: &Ahead<'_>) -> Vec<(f64, f64)> {
    let ends = |w: &galvet_core::ahead::Window| (of_day(w.from), of_day(w.from) + w.hours());
    of.look.windows.iter().map(ends).collect()
}

fn points(of: &Ahead<'_>, value: impl Fn(&At) -> Option<f64>) -> Vec<(f64, f64)> {
    let all = of.look.hours.iter();
    all.filter_map(|h| Some((of_day(h.from) + 0.5, value(h)?)))
        .collect()
}

fn depth(of: &Ahead<'_>, system: System) -> Option<DayCurve> {
    let ramp = points(of, |h| h.ramp);
    let bar = points(of, |h| h.bar);
    let (line, other) = if ramp.is_empty() {
        (bar, Vec::new())
    } else {
        (ramp, bar)
    };
    if line.is_empty() || !of.tidal {
        return None;
    }
    let needed = system.text(Dimension::Length, of.needs, 1);
    let how = if of.drive_down {
        "drive down"
    } else {
        "drive up"
    };
    Some(day(&DayOf {
        line: &line,
        other: &other,
        limit: Some((of.needs, format!("{needed} needed, {how}"))),
        good: &windows(of),
        say: &|v| system.text(Dimension::Length, v, 1),
        words: format!("Depth at the ramp and over the bar by hour; {needed} is needed"),
    }))
}

fn wind(of: &Ahead<'_>, system: System) -> Option<DayCurve> {
    let line = points(of, |h| h.hour.map(|x| x.wind));
    let gusts = points(of, |h| h.hour.map(|x| x.gust));
    if line.is_empty() {
        return None;
    }
    let limit = system.text(Dimension::Speed, of.most_wind, 0);
    Some(day(&DayOf {
        line: &line,
        other: &gusts,
        limit: Some((of.most_wind, format!("limit {limit}"))),
        good: &windows(of),
        say: &|v| system.text(Dimension::Speed, v, 0),
        words: format!("Wind and gusts by hour; the limit is a mean of {limit}"),
    }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::ahead::Window;
    use time::macros::datetime;

    fn turn(windows: &[(PrimitiveDateTime, PrimitiveDateTime)], back: WayBack) -> String {
        let windows = windows.iter().map(|&(from, to)| Window { from, to });
        let look = Look {
            hours: Vec::new(),
            windows: windows.collect(),
        };
        latest(&Ahead {
            look: &look,
            light: Light {
                dawn: None,
                rise: None,
                set: None,
                dusk: Some(datetime!(2026-11-07 16:30)),
            },
            turns: Vec::new(),
            needs: 0.3,
            most_wind: 7.0,
            back,
            drive_down: false,
            cautions: Vec::new(),
            simulated: true,
            forecast: true,
            tidal: true,
        })
    }

    /// The way back and a quarter of it before the window's end, or before dusk where that is
    /// sooner; none where nothing is good, and none in a window too short for it.
    #[test]
    fn the_time_to_turn_leaves_the_way_back_and_a_quarter_more() {
        let eight = datetime!(2026-11-07 08:00);
        let eleven = datetime!(2026-11-07 11:00);
        let told = turn(&[(eight, eleven)], WayBack::Takes(40.0, 60.0));
        assert!(
            told.contains("by 10:10 at the latest (09:45 at worst)"),
            "{told}"
        );
        let late = datetime!(2026-11-07 18:00);
        let told = turn(&[(eight, late)], WayBack::Takes(40.0, 60.0));
        assert!(
            told.contains("by 15:40 at the latest (15:15 at worst)"),
            "{told}"
        );
        // At worst 08:00 is when it begins; a minute sooner than that is no time to turn.
        for (worst, short) in [(143.0, false), (144.0, true), (900.0, true)] {
            let told = turn(&[(eight, eleven)], WayBack::Takes(40.0, worst));
            assert_eq!(told.starts_with("Too short"), short, "{worst}: {told}");
            assert_eq!(told.contains("by 10:10"), !short, "{told}");
        }
        assert_eq!(turn(&[], WayBack::Takes(40.0, 60.0)), "");
    }
}

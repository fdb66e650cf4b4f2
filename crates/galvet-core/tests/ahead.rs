//! Tides against hand-worked harmonics, light, and when to launch.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::ahead::{
    Asked, Constituent, Forecast, Foretold, Harmonic, Hour, Sheet, Tides, Wrong, light, look, turns,
};
use time::macros::{date, datetime};
use time::{Duration, PrimitiveDateTime};

fn part(name: &str, speed: f64, amplitude: f64, lag: f64) -> Constituent {
    Constituent {
        name: name.into(),
        speed,
        amplitude,
        lag,
    }
}

fn at(tide: &Harmonic, hours: f64) -> f64 {
    tide.height(Harmonic::EPOCH + Duration::seconds_f64(hours * 3600.0))
}

#[test]
fn tides_are_their_harmonics() {
    // Twelve hours: from high to low in six.
    let solar = Harmonic {
        mean: 2.0,
        parts: vec![part("S2", 30.0, 1.5, 0.0)],
    };
    for (hours, height) in [
        (0.0, 3.5),
        (3.0, 2.0),
        (6.0, 0.5),
        (9.0, 2.0),
        (12.0, 3.5),
        (2.0, 2.75),
    ] {
        assert!((at(&solar, hours) - height).abs() < 1e-9, "{hours}");
    }
    // A lag of 60° is two hours of it.
    let later = Harmonic {
        mean: 0.0,
        parts: vec![part("S2", 30.0, 1.0, 60.0)],
    };
    assert!((at(&later, 2.0) - 1.0).abs() < 1e-9);
    assert!((at(&later, 0.0) - 0.5).abs() < 1e-9);
    // Spring and neap: 29° and 30° an hour stand together at the epoch and against each
    // other 180 hours later (29 × 180 = 14 × 360 + 180, 30 × 180 = 15 × 360).
    let both = Harmonic {
        mean: 0.0,
        parts: vec![part("M", 29.0, 1.6, 0.0), part("S", 30.0, 0.5, 0.0)],
    };
    assert!((at(&both, 0.0) - 2.1).abs() < 1e-9);
    assert!((at(&both, 180.0) + 1.1).abs() < 1e-9);
    // Before the epoch as after it, and never more than all parts together.
    assert!((at(&both, -7.3) - at(&both, 7.3)).abs() < 1e-9);
    for k in 0..2_000 {
        assert!(at(&both, 1.7 * f64::from(k)).abs() <= 2.1 + 1e-9);
    }
}

#[test]
fn high_and_low_water_are_found_to_the_minute() {
    let tide = Harmonic {
        mean: 2.0,
        parts: vec![part("S2", 30.0, 1.5, 100.0)],
    };
    // 100° are 3 h 20 min.
    let day = datetime!(2026-03-05 00:00);
    let found = turns(&tide, day, day + Duration::DAY);
    let wanted = [
        (datetime!(2026-03-05 03:20), 3.5, true),
        (datetime!(2026-03-05 09:20), 0.5, false),
        (datetime!(2026-03-05 15:20), 3.5, true),
        (datetime!(2026-03-05 21:20), 0.5, false),
    ];
    assert_eq!(found.len(), wanted.len(), "{found:?}");
    for ((when, height, high), (at, level, is_high)) in found.into_iter().zip(wanted) {
        assert!((when - at).abs() < Duration::seconds(30), "{when} {at}");
        assert!((height - level).abs() < 1e-3, "{height} {level}");
        assert_eq!(high, is_high);
    }
    // Water that stands neither rises nor falls.
    let still = Harmonic {
        mean: 1.0,
        parts: Vec::new(),
    };
    assert!(turns(&still, day, day + Duration::DAY).is_empty() && !still.is_tidal());
}

#[test]
fn light_is_where_the_sun_is() {
    let minutes = |a: PrimitiveDateTime, b: PrimitiveDateTime| (a - b).whole_minutes().abs();
    // At the equator on an equinox: six to six, the equation of time apart.
    let even = light((0.0, 0.0), date!(2026 - 03 - 20), 0.0).unwrap();
    assert!(
        minutes(even.rise.unwrap(), datetime!(2026-03-20 06:04)) <= 3,
        "{even:?}"
    );
    assert!(
        minutes(even.set.unwrap(), datetime!(2026-03-20 18:11)) <= 3,
        "{even:?}"
    );
    // 51.5° north at midsummer: 03:43 to 20:21, as almanacs print it.
    let long = light((51.5, -0.1), date!(2026 - 06 - 21), 0.0).unwrap();
    assert!(
        minutes(long.rise.unwrap(), datetime!(2026-06-21 03:43)) <= 3,
        "{long:?}"
    );
    assert!(
        minutes(long.set.unwrap(), datetime!(2026-06-21 20:21)) <= 3,
        "{long:?}"
    );
    assert!(long.dawn < long.rise && long.set < long.dusk);
    // The clock of the place, not of Greenwich.
    let there = light((51.5, -30.1), date!(2026 - 06 - 21), -2.0).unwrap();
    assert!(
        minutes(there.rise.unwrap(), datetime!(2026-06-21 03:43)) <= 4,
        "{there:?}"
    );
    // Neither where it does not set nor where it does not rise.
    for day in [date!(2026 - 06 - 21), date!(2026 - 12 - 21)] {
        let polar = light((80.0, 0.0), day, 0.0).unwrap();
        assert_eq!((polar.rise, polar.set), (None, None));
    }
    assert!(light((91.0, 0.0), date!(2026 - 06 - 21), 0.0).is_none());
}

fn hour(wind: f64, gust: f64) -> Hour {
    Hour {
        wind,
        gust,
        wave: 0.1,
        water: Some(12.0),
    }
}

fn sheet(lines: &[(PrimitiveDateTime, f64)], simulated: bool) -> Sheet {
    let lines = lines.iter().map(|(from, wind)| Foretold {
        from: *from,
        hour: hour(*wind, 1.3 * wind),
    });
    Sheet {
        lines: lines.collect(),
        simulated,
    }
}

#[test]
fn a_forecast_holds_for_its_hours_and_no_others() {
    let lines = [
        (datetime!(2026-06-21 06:00), 4.0),
        (datetime!(2026-06-21 09:00), 9.0),
    ];
    let real = sheet(&lines, false);
    let wind = |s: &Sheet, at| s.at(at).map(|h| h.wind);
    assert_eq!(wind(&real, datetime!(2026-06-21 05:59)), None);
    assert_eq!(wind(&real, datetime!(2026-06-21 06:00)), Some(4.0));
    assert_eq!(wind(&real, datetime!(2026-06-21 08:59)), Some(4.0));
    assert_eq!(wind(&real, datetime!(2026-06-21 11:59)), Some(9.0));
    // The last holds as long as the one before it did.
    assert_eq!(wind(&real, datetime!(2026-06-21 12:00)), None);
    // One that is made up comes round again.
    let made_up = sheet(&lines, true);
    assert_eq!(wind(&made_up, datetime!(2026-06-21 12:00)), Some(4.0));
    assert_eq!(wind(&made_up, datetime!(2026-06-21 03:30)), Some(9.0));
    // A gap of a night is not known, whatever stood before it.
    let gap = [
        (datetime!(2026-06-21 18:00), 4.0),
        (datetime!(2026-06-22 06:00), 5.0),
    ];
    let gap = sheet(&gap, false);
    assert_eq!(wind(&gap, datetime!(2026-06-21 23:59)), Some(4.0));
    assert_eq!(wind(&gap, datetime!(2026-06-22 00:00)), None);
    assert!(made_up.is_simulated() && !real.is_simulated());
    assert_eq!(Sheet::default().at(datetime!(2026-06-21 03:30)), None);
}

#[test]
fn a_window_has_nothing_against_it_and_an_hour_outside_says_what() {
    let day = date!(2026 - 06 - 21);
    let sun = light((51.5, -0.1), day, 0.0).unwrap();
    // High at 03:20 and 15:20: the ramp, dry at 0.5 m over datum, has 0.6 m over it from
    // where 2 + 1.5 cos reaches 1.1 m: ±126.9° about high water, 4 h 14 min.
    let tide = Harmonic {
        mean: 2.0,
        parts: vec![part("S2", 30.0, 1.5, 100.0)],
    };
    let wind: Vec<(PrimitiveDateTime, f64)> = (0..24)
        .map(|h| {
            let from = datetime!(2026-06-21 00:00) + Duration::hours(h);
            (from, if h >= 17 { 9.0 } else { 4.0 })
        })
        .collect();
    let forecast = sheet(&wind, false);
    let asked = Asked {
        day,
        tide: Some(&tide),
        forecast: Some(&forecast),
        light: sun,
        ramp: Some(-0.5),
        bar: None,
        needs: 0.6,
        most_wind: 6.0,
        most_wave: Some(0.3),
    };
    let found = look(&asked);
    assert_eq!(found.hours.len(), 24);
    // Light from 02:57: the first whole hour is 03; water until 07:34; again from 11:06.
    let windows: Vec<(u8, u8)> = found
        .windows
        .iter()
        .map(|w| (w.from.hour(), w.to.hour()))
        .collect();
    assert_eq!(windows, [(12, 17), (3, 7)]);
    assert_eq!(found.hours[0].wrong, [Wrong::Dark]);
    assert_eq!(found.hours[9].wrong, [Wrong::Ramp]);
    assert_eq!(found.hours[18].wrong, [Wrong::Wind]);
    let ramp = found.hours[15].ramp.unwrap();
    // Of the hour from three: the least at its end, forty minutes after high water.
    let least = 2.0 + 1.5 * (20.0_f64).to_radians().cos() - 0.5;
    assert!((ramp - least).abs() < 1e-9, "{ramp} {least}");
    // Gusts over a third more than the mean one goes out in are too strong as well.
    let gusty = Sheet {
        lines: (0..8)
            .map(|k| Foretold {
                from: datetime!(2026-06-21 00:00) + Duration::hours(3 * k),
                hour: hour(5.9, 8.2),
            })
            .collect(),
        simulated: true,
    };
    let gusts = look(&Asked {
        forecast: Some(&gusty),
        ..asked_again(&asked)
    });
    assert!(gusts.hours[12].wrong.contains(&Wrong::Wind));
    // Not known is not calm.
    let none = look(&Asked {
        forecast: None,
        ..asked_again(&asked)
    });
    assert!(none.windows.is_empty());
    assert!(
        none.hours
            .iter()
            .all(|h| h.wrong.contains(&Wrong::NoForecast))
    );
    // Where the water stands, what the place says is the depth; none said, none asked.
    let pond = look(&Asked {
        tide: None,
        ramp: Some(0.7),
        bar: Some(0.5),
        ..asked_again(&asked)
    });
    assert_eq!(pond.hours[12].wrong, [Wrong::Bar]);
    let open = look(&Asked {
        tide: None,
        ramp: None,
        ..asked_again(&asked)
    });
    assert_eq!(open.hours[12].wrong, []);
    // Waves the water was not judged for.
    let rough = look(&Asked {
        most_wave: Some(0.05),
        ..asked_again(&asked)
    });
    assert!(rough.hours[12].wrong.contains(&Wrong::Waves));
}

fn asked_again<'a>(of: &Asked<'a>) -> Asked<'a> {
    Asked { ..*of }
}

#[test]
fn a_hull_floats_in_its_deepest_and_what_it_cannot_lift() {
    use crate::common::{assess, brief, guides, rig, tunnel};
    use galvet_core::figures::Quantity;
    use galvet_core::guide::Guide;
    use galvet_core::hull::{Measure, Propulsion};
    let asked = brief(80.0, 1.8, rig(15.0, 0.58, 0.1));
    let needs = |more: &[(Measure, f64)], driven: bool, lifts: bool| {
        let mut hull = tunnel(more);
        hull.propulsion = if driven {
            Propulsion::RotaryPedal
        } else {
            Propulsion::Paddle
        };
        hull.drive_lifts = lifts;
        let a = assess(&hull, &asked, 16);
        let deepest = a.range(Quantity::Deepest).unwrap().p95;
        let (deep, down) = a.floats_in().unwrap();
        (deep - deepest, down)
    };
    assert_eq!(needs(&[], false, false), (0.0, false));
    assert_eq!(needs(&[], true, true), (0.0, false));
    // Nobody measured its drive: what such drives reach, never nothing.
    let (more, down) = needs(&[], true, false);
    assert!((more - guides()[Guide::DriveReach]).abs() < 1e-9 && down);
    let (more, down) = needs(&[(Measure::DriveDepth, 0.35)], true, false);
    assert!((more - 0.35).abs() < 0.02 && down, "{more}");
}

//! When it is light.

use sunrise::{Coordinates, DawnType, SolarDay, SolarEvent};
use time::{Date, Duration, OffsetDateTime, PrimitiveDateTime};

/// Light of a day, on the place's own clock.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Light {
    /// Civil dawn: what is ahead can be made out. `None` where it never is, or always.
    pub dawn: Option<PrimitiveDateTime>,
    /// Sunrise.
    pub rise: Option<PrimitiveDateTime>,
    /// Sunset.
    pub set: Option<PrimitiveDateTime>,
    /// Civil dusk.
    pub dusk: Option<PrimitiveDateTime>,
}

/// Light at a place on a day, its clock so many hours ahead of Greenwich. `None` for a place
/// that is none.
#[must_use]
pub fn light((north, east): (f64, f64), day: Date, ahead: f64) -> Option<Light> {
    let place = Coordinates::new(north, east)?;
    let named = chrono_day(day)?;
    let sun = SolarDay::new(place, named);
    let at = |event: SolarEvent| {
        let found = sun.event_time(event)?;
        let utc = OffsetDateTime::from_unix_timestamp(found.timestamp()).ok()?;
        let local = utc + Duration::seconds_f64(ahead * 3600.0);
        Some(PrimitiveDateTime::new(local.date(), local.time()))
    };
    Some(Light {
        dawn: at(SolarEvent::Dawn(DawnType::Civil)),
        rise: at(SolarEvent::Sunrise),
        set: at(SolarEvent::Sunset),
        dusk: at(SolarEvent::Dusk(DawnType::Civil)),
    })
}

/// The same day, as the sun's crate takes it.
fn chrono_day(day: Date) -> Option<chrono::NaiveDate> {
    let (month, number) = (u32::from(u8::from(day.month())), u32::from(day.day()));
    chrono::NaiveDate::from_ymd_opt(day.year(), month, number)
}

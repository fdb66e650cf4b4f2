//! The next outing: tide, light and wind of a place by the hour, when to launch, when to turn.

use super::at;
use crate::log;
use crate::present::page::log::ahead::{self, Ahead, AheadView, WayBack};
use crate::web::reader::today;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::ahead::{Asked, Forecast, Harmonic, Light, Tides, light, look, turns};
use galvet_core::base::{Bare, System};
use galvet_core::beyond::Extra;
use galvet_core::question::{Day, Outing as DayGoes};
use galvet_store::files::place::PlaceEntry;
use rocket::form::FromForm;
use rocket::{Route, get, routes};
use time::macros::format_description;
use time::{Date, Duration, PrimitiveDateTime, Time};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "log-ahead.html")]
struct AheadPage {
    frame: Frame,
    /// Places: key, name, chosen.
    places: Vec<(String, String, bool)>,
    /// Hulls: key, name, chosen.
    hulls: Vec<(String, String, bool)>,
    day: String,
    /// The page of the day before, and of the day after.
    beside: [String; 2],
    limit: String,
    wrong: String,
    note: String,
    place: String,
    ahead: Option<AheadView>,
}

/// What an address asks.
#[derive(FromForm, Default)]
struct Wanted {
    place: Option<String>,
    day: Option<String>,
    hull: Option<String>,
    /// The strongest wind one goes out in.
    limit: Option<String>,
    units: Option<String>,
}

/// Share of its possible shapes that must get back before a time is told. Guide value.
const SURE: f64 = 0.95;
/// Depth kept under the hull, m. Guide value.
const UNDER: f64 = 0.10;
/// Draft taken for a hull nobody chose, its drive down, m. Guide value.
const DEEP: f64 = 0.45;
/// Wind one goes out in where neither the log nor the water says: 12 kn, m/s. Guide value.
const USUAL: f64 = 6.17;

fn parsed(text: &str) -> Option<Date> {
    // Days within reason: calendars end somewhere.
    let text = &galvet_core::base::day(text).ok()?;
    Date::parse(text, format_description!("[year]-[month]-[day]")).ok()
}

#[get("/log/ahead?<wanted..>")]
async fn page(wanted: Wanted, visit: Visit<'_>) -> Result<AheadPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let entries = log::outings(&records.catalogue);
    let outings = log::as_outings(&entries);
    let mut places: Vec<PlaceEntry> = records.catalogue.sheets_of().cloned().collect();
    places.sort_by(|a, b| a.name.cmp(&b.name));
    let place = wanted.place.as_deref().filter(|p| !p.is_empty());
    let chosen = match place {
        Some(key) => places.iter().find(|p| p.key == key),
        None => places.first(),
    };
    let day = wanted.day.as_deref().and_then(parsed);
    let day = day
        .or_else(|| parsed(&today()))
        .unwrap_or(Harmonic::EPOCH.date());
    let mut wrong = match wanted.day.as_deref() {
        Some(typed) if !typed.trim().is_empty() && parsed(typed).is_none() => {
            "write the day as 2026-04-12".to_owned()
        }
        _ => String::new(),
    };
    let water = chosen.and_then(|p| records.catalogue.waters.iter().find(|w| w.key == p.water));
    let back = outings
        .iter()
        .filter(|o| o.turned_back)
        .filter_map(|o| o.wind);
    let own = back.fold(f64::INFINITY, f64::min);
    let usual = water.and_then(|w| w.wind()).unwrap_or(USUAL).min(own);
    let typed = wanted.limit.as_deref().unwrap_or("").trim().to_owned();
    let sent = wanted.units.as_deref().map(|u| match u {
        "imperial" => System::Imperial,
        _ => System::Metric,
    });
    let bounds = DayGoes::WIND;
    let limit = bounds.with_unit(&typed, sent);
    let most_wind = match limit.as_str() {
        "" => usual,
        text => match bounds.parse(text, Bare::SI) {
            Ok(wind) => wind,
            Err(odd) => {
                wrong = odd.to_string();
                usual
            }
        },
    };
    // The one out last, where nobody chose.
    let last = outings.first().map(|o| o.hull.clone());
    let key = wanted.hull.clone().filter(|h| !h.is_empty()).or(last);
    let hull = records
        .hulls
        .iter()
        .find(|h| Some(&h.survey.key) == key.as_ref());
    let named = records.named();
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let (hull, water, place) = (hull.cloned(), water.cloned(), chosen.cloned());
    let made = visit.shared.work(visit.reader.caller, move || {
        let place = place?;
        let (tide, forecast) = (place.harmonic(), place.foretold());
        let none = Light {
            dawn: None,
            rise: None,
            set: None,
            dusk: None,
        };
        let sun = light((place.north, place.east), day, place.clock_h).unwrap_or(none);
        let mut brief = asked.brief;
        if let Some(water) = water {
            brief.water = water;
        }
        let afloat = hull.as_ref().and_then(|h| desk.afloat(h, &brief).ok());
        let deep = afloat.as_ref().and_then(|a| a.assessment.floats_in());
        let needs = deep.map_or(DEEP, |(deep, _)| deep) + UNDER;
        let start = PrimitiveDateTime::new(day, Time::MIDNIGHT);
        let ahead = look(&Asked {
            day,
            tide: tide.is_tidal().then_some(&tide as &dyn Tides),
            forecast: (!forecast.lines.is_empty()).then_some(&forecast as &dyn Forecast),
            light: sun,
            ramp: place.ramp_m,
            bar: place.bar_m,
            needs,
            most_wind,
            most_wave: brief.water.wave(),
        });
        // The way home is reckoned in the strongest wind of the best hours, or the limit's.
        let best = ahead.windows.first();
        let within = ahead.hours.iter().filter(|h| {
            best.is_some_and(|w| h.from >= w.from && h.from < w.to)
        });
        let blows = within.filter_map(|h| Some(h.hour?.wind)).fold(0.0, f64::max);
        let wind = if blows > 0.0 { blows } else { most_wind };
        let goes = Day {
            outing: DayGoes {
                wind: Some(wind.max(0.1)),
                ..brief.outing
            },
            launch: brief.wishes.launch,
        };
        let home = afloat.as_ref().map(|a| a.beyond(&goes));
        let home = home.and_then(|b| b.range(Extra::Back));
        let scale = Extra::Back.row().scale;
        let back = match home {
            None if afloat.is_none() => WayBack::NotAsked,
            Some(r) if r.share >= SURE => WayBack::Takes(r.p50 * scale, r.p95 * scale),
            _ => WayBack::NotSure,
        };
        let mut cautions = brief.water.cautions.clone();
        if let Some(cold) = coldest(&ahead.hours).filter(|c| *c < 15.0) {
            let said = format!(
                "The water is at {cold:.0}\u{a0}°C: dress for it, not for the air; under 15\u{a0}°C a suit"
            );
            cautions.insert(0, said);
        }
        let of = Ahead {
            turns: if tide.is_tidal() {
                turns(&tide, start, start + Duration::DAY)
            } else {
                Vec::new()
            },
            tidal: tide.is_tidal(),
            look: &ahead,
            light: sun,
            needs,
            most_wind,
            back,
            drive_down: deep.is_some_and(|(_, down)| down),
            cautions,
            simulated: place.simulated,
            forecast: forecast.lines.iter().len() > 0 && ahead.hours.iter().any(|h| h.hour.is_some()),
        };
        Some(ahead::view(&of, system))
    });
    let of_day = |d: Date| format!("{:04}-{:02}-{:02}", d.year(), u8::from(d.month()), d.day());
    let here = chosen.map(|p| p.key.clone());
    let other = |days: i64| {
        let there = day.saturating_add(Duration::days(days));
        let pairs = [
            ("place", here.clone().unwrap_or_default()),
            ("day", of_day(there)),
            ("hull", key.clone().unwrap_or_default()),
            ("limit", limit.clone()),
        ];
        let pairs: Vec<(&str, &str)> = pairs.iter().map(|(n, v)| (*n, v.as_str())).collect();
        visit.to("/log/ahead", &pairs)
    };
    let beside = [other(-1), other(1)];
    Ok(AheadPage {
        places: places
            .iter()
            .map(|p| (p.key.clone(), p.name.clone(), Some(&p.key) == here.as_ref()))
            .collect(),
        hulls: named
            .into_iter()
            .map(|(k, n)| {
                let own = Some(&k) == key.as_ref();
                (k, n, own)
            })
            .collect(),
        day: of_day(day),
        beside,
        limit,
        wrong,
        note: chosen.map_or(String::new(), |p| p.note.clone()),
        place: here.unwrap_or_default(),
        ahead: made.await?,
        frame: visit.frame("log", at(&visit, "/log/ahead")),
    })
}

/// The coldest water of a day.
fn coldest(hours: &[galvet_core::ahead::At]) -> Option<f64> {
    let all = hours.iter().filter_map(|h| h.hour?.water);
    all.fold(None, |least: Option<f64>, v| {
        Some(least.map_or(v, |l| l.min(v)))
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

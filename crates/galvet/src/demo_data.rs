//! The demo's open files, shipped inside the binary.

use crate::question;
use galvet_core::gear::Gear;
use galvet_core::hull::Survey;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::event::EventEntry;
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::{NoPicture, Photo, Picture};
use galvet_store::files::place::PlaceEntry;
use galvet_store::files::served::ServedEntry;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::stock::{BookingEntry, StockEntry};
use galvet_store::files::{evidence, gear, hulls, offsets, read_json, rigs, space, waters};
use galvet_store::{Catalogue, FileError};
use rust_embed::RustEmbed;
use std::collections::BTreeMap;

#[derive(RustEmbed)]
#[folder = "../../demo/"]
struct Demo;

fn text(name: &str) -> Result<String, FileError> {
    let file = Demo::get(name).ok_or_else(|| FileError::whole(name, "is not in this binary"))?;
    String::from_utf8(file.data.into_owned())
        .map_err(|_| FileError::whole(name, "is not UTF-8 text"))
}

/// The usual things to begin a shelf with: generic ones, without prices.
///
/// # Errors
/// [`FileError`] where the binary's own file is broken.
pub(crate) fn starter() -> Result<Vec<Gear>, FileError> {
    let things = gear::read("demo/gear.json", &text("gear.json")?)?;
    let plain = things.into_iter().map(|thing| Gear {
        price: None,
        owned: true,
        ..thing
    });
    Ok(plain.collect())
}

/// The record of one of the demo's hulls.
#[cfg(test)]
pub(crate) fn hull(key: &str) -> HullRecord {
    let demo = catalogue().unwrap();
    let mut hulls = demo.hulls.into_iter();
    hulls.find(|h| h.survey.key == key).unwrap()
}

/// Names of the files in one of the demo's folders, in order.
fn files_in(folder: &str) -> Vec<String> {
    let names = Demo::iter().filter(|name| name.starts_with(folder));
    let mut names: Vec<String> = names.map(|name| name.into_owned()).collect();
    names.sort();
    names
}

/// Puts onto the hulls what was measured of them beyond a table: afloat, along
/// the deck, section by section.
fn walked(hulls: &mut [HullRecord]) -> Result<(), FileError> {
    let mut on = |file: &str, key: &str, put: &mut dyn FnMut(&mut Survey)| {
        let hull = hulls.iter_mut().find(|h| h.survey.key == key);
        let hull = hull.ok_or_else(|| FileError::whole(file, format!("no hull “{key}”")))?;
        put(&mut hull.survey);
        Ok::<(), FileError>(())
    };
    let file = "demo/evidence.json";
    for (key, item) in evidence::read(file, &text("evidence.json")?)? {
        on(file, &key, &mut |s| s.evidence.push(item.clone()))?;
    }
    let file = "demo/space.json";
    for (key, fitout, looked) in space::read(file, &text("space.json")?)? {
        on(file, &key, &mut |s| {
            s.fitout = fitout.clone();
            s.looked = looked.clone();
        })?;
    }
    for name in files_in("offsets/") {
        let file = format!("demo/{name}");
        let (stations, _) = offsets::read_stations(&file, &text(&name)?)?;
        let key = name.trim_start_matches("offsets/").trim_end_matches(".csv");
        on(&file, key, &mut |s| s.offsets.clone_from(&stations))?;
    }
    Ok(())
}

/// The demo's photos.
fn photos() -> Result<Vec<Document>, FileError> {
    let file = "demo/photos.json";
    let lists: BTreeMap<String, Vec<Photo>> = read_json(file, &text("photos.json")?)?;
    Ok(lists.values().flatten().map(Document::of).collect())
}

/// The demo's events and their rules.
fn events() -> Result<Vec<Document>, FileError> {
    let file = "demo/events.json";
    let lists: BTreeMap<String, Vec<EventEntry>> = read_json(file, &text("events.json")?)?;
    Ok(lists.values().flatten().map(Document::of).collect())
}

/// The demo's log and shop: outings, services done, places; customers, stock, bookings.
fn log() -> Result<Vec<Document>, FileError> {
    fn of<S: Sheet>(name: &str) -> Result<Vec<Document>, FileError> {
        let file = format!("demo/{name}");
        let lists: BTreeMap<String, Vec<S>> = read_json(&file, &text(name)?)?;
        Ok(lists.values().flatten().map(Document::of).collect())
    }
    let mut all = of::<OutingEntry>("outings.json")?;
    all.extend(of::<ServedEntry>("services.json")?);
    all.extend(of::<PlaceEntry>("places.json")?);
    all.extend(of::<CustomerEntry>("customers.json")?);
    all.extend(of::<StockEntry>("stock.json")?);
    all.extend(of::<BookingEntry>("bookings.json")?);
    Ok(all)
}

/// The pixels of the demo's photos.
///
/// # Errors
/// What is wrong with the shipped files; a test keeps this from happening.
pub fn pictures() -> Result<Vec<Picture>, FileError> {
    let read = |name: &String| {
        let file = Demo::get(name).map(|file| file.data).unwrap_or_default();
        let none = |none: NoPicture| FileError::whole(name, none.to_string());
        Picture::returned(&file).map_err(none)
    };
    files_in("photos/").iter().map(read).collect()
}

/// The whole demo catalogue, read as any import would be.
///
/// # Errors
/// What is wrong with the shipped files; a test keeps this from happening.
pub fn catalogue() -> Result<Catalogue, Vec<FileError>> {
    let one = |error| vec![error];
    let mut hulls = hulls::read("demo/hulls.csv", &text("hulls.csv").map_err(one)?)?.hulls;
    let waters =
        waters::read("demo/waters.json", &text("waters.json").map_err(one)?).map_err(one)?;
    let gear = gear::read("demo/gear.json", &text("gear.json").map_err(one)?).map_err(one)?;
    let rigs =
        rigs::read("demo/rigs.json", &text("rigs.json").map_err(one)?, &gear).map_err(one)?;
    walked(&mut hulls).map_err(one)?;
    let briefs = files_in("briefs/")
        .iter()
        .map(|name| {
            let file = format!("demo/{name}");
            let brief = question::read(&file, &text(name)?)?;
            question::resolve(&file, &brief, &rigs, &waters)?;
            Ok(brief)
        })
        .collect::<Result<_, FileError>>()
        .map_err(one)?;
    Ok(Catalogue {
        hulls,
        waters,
        gear,
        rigs,
        briefs,
        sheets: [
            photos().map_err(one)?,
            events().map_err(one)?,
            log().map_err(one)?,
        ]
        .concat(),
        ..Catalogue::default()
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::base::Keyed;
    use galvet_core::hull::{Judgement, zones};

    #[test]
    fn the_demo_is_whole() {
        let demo = catalogue().unwrap();
        assert!(demo.hulls.len() >= 18, "{} hulls", demo.hulls.len());
        assert!(demo.waters.len() >= 9, "{} waters", demo.waters.len());
        assert!(demo.rigs.len() >= 4 && demo.briefs.len() >= 3);
        let doubtful = |s: &Survey| s.findings().iter().any(|f| f.contradiction);
        let gappy = |s: &Survey| s.findings().iter().any(|f| !f.contradiction);
        let surveys = || demo.hulls.iter().map(|h| &h.survey);
        assert!(surveys().any(doubtful), "a contradiction to show");
        assert!(surveys().filter(|s| gappy(s)).count() >= 3, "gaps to show");
        // Walked along in full: every zone by tape, every question answered.
        let full = |s: &&Survey| {
            let tape = zones(s).iter().all(|z| z.source.is_measured());
            tape && s.looked.judged.len() == Judgement::ALL.len()
        };
        assert!(surveys().filter(full).count() >= 3, "walked along in full");
        let changed = |s: &&Survey| !s.fitout.modifications.is_empty();
        assert!(surveys().filter(changed).count() >= 2, "changed since");
        assert!(
            surveys().any(|s| !s.offsets.is_empty()),
            "measured sections"
        );
        let pixels = pictures().unwrap();
        let photos = demo.sheets_of::<Photo>();
        let there = |p: &Photo| {
            let size = (p.width, p.height);
            let same = |q: &&Picture| q.name() == p.picture && (q.width, q.height) == size;
            let hull = |h: &HullRecord| h.survey.key == p.hull;
            pixels.iter().any(|q| same(&q)) && demo.hulls.iter().any(hull)
        };
        let (shown, missing): (Vec<_>, Vec<_>) = photos.partition(|p| there(p));
        assert!(!shown.is_empty() && missing.is_empty(), "photos");
        let bare = |s: &&Survey| s.fitout.is_empty();
        let bare = surveys().filter(bare).count();
        assert!((3..=6).contains(&bare), "{bare} known by a leaflet only");
    }
}

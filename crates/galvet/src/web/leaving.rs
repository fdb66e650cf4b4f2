//! Everything as one archive: the exchange file, tables, and the hulls as drawn.

use super::drawing::drawn;
use super::trouble::Trouble;
use super::visit::Visit;
use crate::terminal;
use galvet_store::files::photo::Photo;
use galvet_store::files::{bundle, exchange, gear_table, hull_table};
use rocket::http::ContentType;
use rocket::{Route, get, routes};

/// Most hulls that are drawn into an archive.
const DRAWN: usize = 100;

/// What stands in the archive beside its files.
const READ_ME: &str = "This archive comes back into Galvet by Import, or by galvet import: \
                       everything.json with the pictures in photos/. \
                       hulls.csv and gear.csv are tables for spreadsheets; drawings are of the \
                       question that was open. Figures are guidance: the maker's rated capacity \
                       and instructions stand above anything computed.\n";

#[get("/everything.zip?<tracks>")]
async fn everything(
    tracks: Option<&str>,
    visit: Visit<'_>,
) -> Result<(ContentType, Vec<u8>), Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue).ok();
    let (desk, store) = (shared.desk.clone(), shared.store.clone());
    let with_tracks = tracks == Some("yes");
    let packed = shared.work(reader.caller, move || {
        let handed = (!with_tracks).then(|| exchange::handed_on(&records.catalogue));
        let catalogue = handed.as_ref().unwrap_or(&records.catalogue);
        let mut files = vec![("read-me.txt".to_owned(), READ_ME.as_bytes().to_vec())];
        let mut put = |name: String, text: Result<String, String>| -> Result<(), String> {
            files.push((name, text?.into_bytes()));
            Ok(())
        };
        let csv = |text: Result<String, csv::Error>| text.map_err(|e| e.to_string());
        let json = exchange::write(catalogue).map_err(|e| e.to_string());
        put(bundle::EVERYTHING.to_owned(), json)?;
        put(
            "hulls.csv".to_owned(),
            csv(hull_table::write(&catalogue.hulls)),
        )?;
        put(
            "gear.csv".to_owned(),
            csv(gear_table::write(&catalogue.gear)),
        )?;
        for hull in records.hulls.iter().take(DRAWN) {
            for what in ["profile", "plan"] {
                let brief = asked.as_ref().map(|asked| &asked.brief);
                let drawn = brief.and_then(|b| drawn(&desk, hull, b, (what, reader.units)));
                if let Some(drawn) = drawn {
                    put(
                        format!("drawings/{}-{what}.svg", hull.survey.key),
                        Ok(drawn),
                    )?;
                }
            }
        }
        for photo in catalogue.sheets_of::<Photo>() {
            let jpeg = store.picture(&photo.picture).map_err(|e| e.to_string())?;
            let path = bundle::picture_path(&photo.picture);
            // One picture may be shown twice.
            if let Some(jpeg) = jpeg
                && files.iter().all(|(there, _)| *there != path)
            {
                files.push((path, jpeg));
            }
        }
        bundle::pack(&files)
    });
    let packed = packed.await?.map_err(|problem| {
        terminal::warn(problem);
        Trouble::Ours
    })?;
    Ok((ContentType::ZIP, packed))
}

pub(super) fn routes() -> Vec<Route> {
    routes![everything]
}

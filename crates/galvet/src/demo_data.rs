//! The demo's open files, shipped inside the binary.

use crate::question;
use galvet_store::files::{evidence, gear, hulls, rigs, waters};
use galvet_store::{Catalogue, FileError};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../demo/"]
struct Demo;

fn text(name: &str) -> Result<String, FileError> {
    let file = Demo::get(name).ok_or_else(|| FileError::whole(name, "is not in this binary"))?;
    String::from_utf8(file.data.into_owned())
        .map_err(|_| FileError::whole(name, "is not UTF-8 text"))
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
    let file = "demo/evidence.json";
    for (key, item) in evidence::read(file, &text("evidence.json").map_err(one)?).map_err(one)? {
        let unknown = || vec![FileError::whole(file, format!("no hull “{key}”"))];
        let hull = hulls.iter_mut().find(|h| h.survey.key == key);
        hull.ok_or_else(unknown)?.survey.evidence.push(item);
    }
    let mut names: Vec<String> = Demo::iter()
        .filter(|name| name.starts_with("briefs/"))
        .map(|name| name.into_owned())
        .collect();
    names.sort();
    let briefs = names
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
        ..Catalogue::default()
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::hull::Survey;

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
    }
}

//! The exchange file: hulls, shelf, rigs, waters and saved questions in one JSON
//! document, versioned; everything Galvet knows of them.

use super::customer::CustomerEntry;
use super::gear::GearEntry;
use super::hull_doc::HullDoc;
use super::hulls::HullRecord;
use super::json::line_of;
use super::outing::OutingEntry;
use super::photo::Photo;
use super::rigs::{self, RigEntry};
use super::waters::{self, WaterEntry};
use super::{FileError, Mistakes, SHEETS, read_json, sheet, sound};
use crate::db::{Catalogue, SavedBrief};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};

/// Who tried a hull, where that is not handed on.
const NOBODY: &str = "somebody";

/// Version of the document.
const VERSION: u32 = 1;

/// The document's head and parts. Hulls are read one by one, so that one bad one
/// is named and the others too.
#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct Document {
    /// Version of the format.
    galvet: u32,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schemars(with = "Vec<HullDoc>")]
    hulls: Vec<Value>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    gear: Vec<GearEntry>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    rigs: Vec<RigEntry>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    waters: Vec<WaterEntry>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schemars(with = "Vec<Value>")]
    questions: Vec<SavedBrief>,
    /// Records that are one document, by what their kind is called.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    sheets: BTreeMap<String, Vec<Value>>,
}

/// The JSON Schema of an exchange file, made from the types that read it.
#[must_use]
pub fn schema() -> Value {
    schemars::schema_for!(Document).to_value()
}

/// Writes a catalogue as an exchange file.
///
/// # Errors
/// For a number JSON cannot hold, in the JSON writer's words.
pub fn write(catalogue: &Catalogue) -> Result<String, serde_json::Error> {
    let hulls = catalogue
        .hulls
        .iter()
        .map(|h| serde_json::to_value(HullDoc::of(h)));
    let mut sheets = BTreeMap::<_, Vec<_>>::new();
    for sheet in &catalogue.sheets {
        let list = sheets.entry(sheet.kind.plural.to_owned()).or_default();
        list.push(sheet.value()?);
    }
    let document = Document {
        galvet: VERSION,
        hulls: hulls.collect::<Result<_, _>>()?,
        gear: catalogue.gear.iter().map(GearEntry::of).collect(),
        rigs: catalogue.rigs.iter().map(RigEntry::of).collect(),
        waters: catalogue.waters.iter().map(WaterEntry::of).collect(),
        questions: catalogue.briefs.clone(),
        sheets,
    };
    serde_json::to_string_pretty(&document).map(|text| text + "\n")
}

/// A catalogue as it is handed on: without what is its owner's alone (where an outing
/// went), and without whom it is about (customers and what they asked, who tried a hull).
#[must_use]
pub fn handed_on(catalogue: &Catalogue) -> Catalogue {
    let mut all = catalogue.clone();
    all.briefs.retain(|brief| brief.customer.is_empty());
    let theirs = catalogue.rigs_of_customers();
    all.rigs
        .retain(|rig| !theirs.contains_key(rig.key.as_str()));
    for trial in all
        .hulls
        .iter_mut()
        .flat_map(|h| &mut h.survey.looked.trials)
    {
        trial.who = NOBODY.to_owned();
    }
    let photos = Photos::of(catalogue);
    all.sheets = all
        .sheets
        .iter()
        .filter_map(|s| photos.handed_on(s))
        .collect();
    let personal = |kind| SHEETS.iter().any(|s| s.kind == kind && s.personal);
    all.sheets.retain(|sheet| !personal(sheet.kind));
    // What cannot stand without its owner's fields is not handed on.
    let bare = all.sheets.iter().filter_map(without_private);
    all.sheets = bare.collect();
    all
}

/// Which photos are whose.
struct Photos {
    /// Names of customers, in small letters.
    customers: BTreeSet<String>,
    /// Keys of customers' outings.
    outings: BTreeSet<String>,
}

impl Photos {
    fn of(catalogue: &Catalogue) -> Self {
        let customers = catalogue.sheets_of::<CustomerEntry>();
        let outings = catalogue.sheets_of::<OutingEntry>();
        let theirs = outings.filter(|outing| !outing.who.trim().is_empty());
        Self {
            customers: customers.map(|c| c.name.trim().to_lowercase()).collect(),
            outings: theirs.map(|outing| outing.key.clone()).collect(),
        }
    }

    /// A sheet as it is handed on: no photo of a customer's outing, none that says that one
    /// took it.
    fn handed_on(&self, sheet: &sheet::Document) -> Option<sheet::Document> {
        let Some(photo) = sheet.sheet::<Photo>() else {
            return Some(sheet.clone());
        };
        if self.outings.contains(&photo.outing) {
            return None;
        }
        let mut photo = photo.clone();
        if self.customers.contains(&photo.who.trim().to_lowercase()) {
            photo.who.clear();
        }
        Some(sheet::Document::of(&photo))
    }
}

/// A sheet without what is its owner's alone.
fn without_private(sheet: &sheet::Document) -> Option<sheet::Document> {
    let shape = SHEETS.iter().find(|shape| shape.kind == sheet.kind)?;
    if shape.private.is_empty() {
        return Some(sheet.clone());
    }
    let bared = sheet.with(|fields| {
        fields.retain(|name, _| !shape.private.contains(&name.as_str()));
    });
    bared.ok()
}

/// Reads an exchange file, whole or not at all.
///
/// # Errors
/// Every mistake found, each with its line.
pub fn read(file: &str, text: &str) -> Result<Catalogue, Vec<FileError>> {
    let document: Document = read_json(file, text).map_err(|e| vec![e])?;
    if document.galvet > VERSION {
        let newer = "written by a newer Galvet: its version is not known here";
        return Err(vec![FileError::whole(file, newer)]);
    }
    let mut errors = Mistakes::default();
    let mut out = Catalogue::default();
    let at = |list: &str, at: usize, inside: &[String], problem: String| {
        let path = [list.to_owned(), at.to_string()].into_iter();
        let path: Vec<String> = path.chain(inside.iter().cloned()).collect();
        FileError {
            line: line_of(text, &path),
            ..FileError::whole(file, problem)
        }
    };
    for (n, value) in document.hulls.into_iter().enumerate() {
        let key = value
            .get("key")
            .and_then(Value::as_str)
            .unwrap_or("?")
            .to_owned();
        let given = value.clone();
        let doc = serde_json::from_value::<HullDoc>(value).map_err(|e| super::json_problem(&e));
        let doc = doc.and_then(|doc| super::json::no_list_for_object(&given, doc));
        let sound = |hull: HullRecord| sound::hull(&hull.survey).map(|()| hull);
        match doc.and_then(HullDoc::record).and_then(sound) {
            Ok(hull) if out.hulls.iter().any(|h| h.survey.key == hull.survey.key) => {
                errors.add(at("hulls", n, &[], format!("the key “{key}” stands twice")));
            }
            Ok(hull) => out.hulls.push(hull),
            Err(problem) => errors.add(at(
                "hulls",
                n,
                &[],
                format!("{}: {problem}", super::echo(&key)),
            )),
        }
    }
    for (n, entry) in document.gear.into_iter().enumerate() {
        match entry.gear(file) {
            Ok(gear) => match sound::thing(&gear) {
                Ok(()) => out.gear.push(gear),
                Err(problem) => errors.add(at("gear", n, &[], problem)),
            },
            Err(error) => errors.add(at("gear", n, &[], error.problem)),
        }
    }
    for (n, entry) in document.rigs.into_iter().enumerate() {
        match rigs::rig(entry, &out.gear) {
            Ok(rig) => match sound::rig(&rig) {
                Ok(()) => out.rigs.push(rig),
                Err(problem) => errors.add(at("rigs", n, &[], problem)),
            },
            Err(misfit) => errors.add(at("rigs", n, &misfit.path, misfit.problem)),
        }
    }
    for (n, entry) in document.waters.into_iter().enumerate() {
        match waters::water(file, entry) {
            Ok(water) => match sound::water(&water) {
                Ok(()) => out.waters.push(water),
                Err(problem) => errors.add(at("waters", n, &[], problem)),
            },
            Err(error) => errors.add(at("waters", n, &[], error.problem)),
        }
    }
    for (n, saved) in document.questions.iter().enumerate() {
        if let Err(problem) = sound::question(&saved.key, &saved.name, &saved.customer) {
            errors.add(at("questions", n, &[], problem));
        }
    }
    for (plural, list) in document.sheets {
        let Some(shape) = SHEETS.iter().find(|shape| shape.kind.plural == plural) else {
            let problem = format!("“{}” are no records known here", super::echo(&plural));
            errors.add(FileError::whole(file, problem));
            continue;
        };
        for (n, value) in list.into_iter().enumerate() {
            match (shape.read)(value).and_then(|d| sound::sheet(&d.name).map(|()| d)) {
                Ok(sheet) => out.sheets.push(sheet),
                Err(problem) => errors.add(at("sheets", n, &[], format!("{plural}: {problem}"))),
            }
        }
    }
    out.briefs = document.questions;
    if errors.is_empty() {
        Ok(out)
    } else {
        Err(errors.told(file))
    }
}

//! The question as a JSON document: a brief file, and what is kept of a saved
//! question.

use super::answers::{Answer, Answers, NOTHING, given};
use super::part::{Kind, Part, PartId};
use super::parts::PARTS;
use galvet_core::question::{Brief, Water};
use galvet_core::rig::Rig;
use galvet_store::files::rigs::{self, Misfit, RigEntry};
use galvet_store::files::{check_key, json_problem, line_of, read_json};
use galvet_store::{FileError, SavedBrief};
use serde_json::{Map, Value, json};

/// Version of the document.
const VERSION: u64 = 1;
/// Names beside the parts that a document may have.
const OTHERS: [&str; 4] = ["key", "name", "customer", "version"];

/// Reads a brief file without resolving what it names: its slug, its name and
/// its parts.
///
/// # Errors
/// [`FileError`] with line and column, or naming the part.
pub fn read(file: &str, text: &str) -> Result<SavedBrief, FileError> {
    let wrong = |problem: String| FileError::whole(file, problem);
    let at = |mistake: Misfit| FileError {
        line: line_of(text, &mistake.path),
        ..FileError::whole(file, mistake.problem)
    };
    let question: Value = read_json(file, text)?;
    let Some(object) = question.as_object() else {
        return Err(wrong(
            "a single value where a brief belongs: { \"key\": …, \"crew\": … }".to_owned(),
        ));
    };
    let text_of = |name: &str| object.get(name).and_then(Value::as_str).unwrap_or_default();
    let key = text_of("key").to_owned();
    check_key(&key).map_err(wrong)?;
    let saved = SavedBrief {
        name: text_of("name").to_owned(),
        customer: text_of("customer").to_owned(),
        key,
        question: question.clone(),
    };
    answers(&saved.question).map_err(at)?;
    Ok(saved)
}

/// Makes a brief of a saved question, with the catalogue's rigs and waters.
///
/// # Errors
/// [`FileError`] naming what is not known or out of range.
pub fn resolve(
    file: &str,
    saved: &SavedBrief,
    all_rigs: &[Rig],
    waters: &[Water],
) -> Result<Brief, FileError> {
    let wrong = |problem: String| FileError::whole(file, problem);
    let answers = answers(&saved.question).map_err(|mistake| wrong(mistake.problem))?;
    let known = |part: PartId, all: Vec<&str>| match answers.get(part) {
        Some(Answer::Word(key)) if !all.contains(&key.as_str()) => Err(wrong(format!(
            "no {} “{key}”; there are: {}",
            part.part().name,
            all.join(", ")
        ))),
        _ => Ok(()),
    };
    known(
        PartId::Water,
        waters.iter().map(|w| w.key.as_str()).collect(),
    )?;
    let rigs = all_rigs.iter().map(|r| r.key.as_str());
    known(PartId::Rig, rigs.chain([NOTHING]).collect())?;
    answers
        .brief(all_rigs, waters)
        .map_err(|_| wrong("there is no water to ask about".to_owned()))
}

/// Checks a question that came with other records.
///
/// # Errors
/// What is wrong with which part.
pub fn check(question: &Value) -> Result<(), String> {
    answers(question)
        .map(|_| ())
        .map_err(|misfit| misfit.problem)
}

/// Reads the parts out of a document.
///
/// # Errors
/// What is wrong with which part, and where it stands.
pub(super) fn answers(question: &Value) -> Result<Answers, Misfit> {
    let whole = |problem: &str| misfit(&[], problem.to_owned());
    let object = question.as_object();
    let object = object.ok_or_else(|| whole("a question is an object"))?;
    let version = object.get("version").map_or(Some(VERSION), Value::as_u64);
    if version.is_none_or(|v| v > VERSION) {
        return Err(whole(
            "written by a newer Galvet: its version is not known here",
        ));
    }
    unknown(object, &[])?;
    let mut out = Answers::usual();
    for part in &PARTS {
        let found = part.path.iter().try_fold(question, |v, name| v.get(name));
        match found.filter(|v| !v.is_null()) {
            None => {
                if matches!(part.kind, Kind::Named | Kind::Quantity(..)) {
                    let place = part.path.join(".");
                    let problem = format!("“{place}” is missing: {}", part.title);
                    return Err(misfit(part.path, problem));
                }
            }
            Some(value) if part.id == PartId::Rig && value.is_object() => {
                out.set(PartId::Rig, None);
                out.own_rig = Some(own_rig(part.path, value)?);
            }
            Some(value) => {
                let answer = answer(part, value).map_err(|p| misfit(part.path, p))?;
                out.set(part.id, Some(answer));
            }
        }
    }
    Ok(out)
}

fn misfit(path: &[&str], problem: String) -> Misfit {
    Misfit {
        path: path.iter().map(|&step| step.to_owned()).collect(),
        problem,
    }
}

/// A rig written out in the brief.
fn own_rig(path: &[&str], value: &Value) -> Result<Rig, Misfit> {
    let entry: RigEntry = serde_json::from_value(value.clone())
        .map_err(|e| misfit(path, format!("rig: {}", json_problem(&e))))?;
    rigs::rig(entry, &[]).map_err(|inside| {
        let mut out = misfit(path, format!("rig {}", inside.problem));
        out.path.extend(inside.path);
        out
    })
}

fn answer(part: &Part, value: &Value) -> Result<Answer, String> {
    let place = part.path.join(".");
    match part.kind {
        Kind::Quantity(bounds, _) | Kind::Limit(bounds, ..) | Kind::Share(bounds) => {
            let number = value
                .as_f64()
                .ok_or_else(|| format!("“{place}” must be a number"))?;
            bounds
                .check(number)
                .map(Answer::Number)
                .map_err(|e| format!("“{place}”: {e}"))
        }
        Kind::Words(offered) => {
            let word = value.as_str().unwrap_or_default();
            let keys: Vec<&str> = offered().iter().map(|o| o.key).collect();
            if keys.contains(&word) {
                return Ok(Answer::Word(word.to_owned()));
            }
            let shown: String = value.to_string().chars().take(40).collect();
            Err(format!(
                "“{place}” is {shown}; accepted: {}",
                keys.join(", ")
            ))
        }
        Kind::Said(said) => {
            let typed = value.as_str();
            let typed = typed.ok_or_else(|| format!("“{place}” must be words: {}", part.hint))?;
            (said.0)(typed, galvet_core::base::Bare::SI)
                .map(Answer::Word)
                .map_err(|e| format!("“{place}”: {e}"))
        }
        Kind::Named | Kind::Hull | Kind::Event => value
            .as_str()
            .map(|key| Answer::Word(key.to_owned()))
            .ok_or_else(|| format!("“{place}” must name a {}", part.name)),
    }
}

/// Names a document has and nobody knows: a typing mistake must not be silent.
fn unknown(object: &Map<String, Value>, path: &[&str]) -> Result<(), Misfit> {
    for (name, value) in object {
        let here: Vec<&str> = path.iter().copied().chain([name.as_str()]).collect();
        let part = PARTS.iter().find(|p| p.path == here);
        let inside = PARTS
            .iter()
            .any(|p| p.path.len() > here.len() && p.path.starts_with(&here));
        match (part, inside, value) {
            (Some(_), ..) => {}
            (None, true, Value::Object(inner)) => unknown(inner, &here)?,
            (None, true, Value::Null) => {}
            _ if path.is_empty() && OTHERS.contains(&name.as_str()) => {}
            _ => {
                let known: Vec<String> = PARTS.iter().map(|p| p.path.join(".")).collect();
                let shown: String = here.join(".").chars().take(40).collect();
                let known = known.join(", ");
                let problem = format!("“{shown}” is not a part of a brief; there are: {known}");
                return Err(misfit(&here, problem));
            }
        }
    }
    Ok(())
}

/// As [`document`], to be kept: a rig that is none of `rigs` is written out.
#[must_use]
pub fn kept(brief: &Brief, own_weight: bool, rigs: &[Rig]) -> Value {
    let mut out = document(brief, own_weight);
    if brief.rig.key != NOTHING && !rigs.iter().any(|rig| rig.key == brief.rig.key) {
        // Who comes along is kept with the crew.
        let mut own = brief.rig.clone();
        own.lines.retain(|line| !line.is_company() && !line.rough);
        out["rig"] = json!(RigEntry::of(&own));
    }
    out
}

/// The document of a brief. Its own weight is kept only where it is not the
/// water's.
#[must_use]
pub fn document(brief: &Brief, own_weight: bool) -> Value {
    let mut out = json!({ "version": VERSION });
    for part in &PARTS {
        if part.id == PartId::Weight && !own_weight {
            continue;
        }
        let value = match given(brief, part.id) {
            Some(Answer::Number(number)) => json!(number),
            Some(Answer::Word(word)) => json!(word),
            None => continue,
        };
        let mut place = &mut out;
        for name in part.path {
            place = &mut place[*name];
        }
        *place = value;
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::demo_data;

    const BRIEF: &str = r#"{ "key": "k", "name": "N", "crew": { "mass_kg": 88, "stature_m": 1.83 },
        "posture": "stands", "rig": "reed-edge-day", "water": "marsh", "capacity_weight": 0.7,
        "must": { "budget": 900 } }"#;

    #[test]
    fn every_part_survives_its_document() {
        let demo = demo_data::catalogue().unwrap();
        let mut looked = 0;
        for part in &PARTS {
            let answer = match part.kind {
                Kind::Quantity(bounds, _) | Kind::Limit(bounds, ..) => {
                    Answer::Number(0.5 * (bounds.lo + bounds.hi))
                }
                Kind::Share(_) => Answer::Number(0.35),
                Kind::Words(offered) => {
                    let other = offered().into_iter().find(|o| o.key != part.usual);
                    Answer::Word(other.unwrap().key.to_owned())
                }
                Kind::Hull => Answer::Word(demo.hulls[0].survey.key.clone()),
                Kind::Said(_) if part.id == PartId::Others => {
                    Answer::Word("child 28 kg 1.3 m".to_owned())
                }
                Kind::Said(_) => Answer::Word("12.5 kg in the bow, high".to_owned()),
                Kind::Event => Answer::Word("ommery-lagoon-round".to_owned()),
                Kind::Named => continue,
            };
            let mut answers = Answers::usual();
            // How a hull felt is asked of one that is known.
            if part.id == PartId::Felt {
                let known = demo.hulls[0].survey.key.clone();
                answers.set(PartId::Known, Some(Answer::Word(known)));
            }
            let plain = answers.brief(&demo.rigs, &demo.waters).unwrap();
            answers.set(part.id, Some(answer.clone()));
            let brief = answers.brief(&demo.rigs, &demo.waters).unwrap();
            assert_ne!(brief, plain, "{}", part.name);
            assert_eq!(given(&brief, part.id), Some(answer), "{}", part.name);
            let saved = SavedBrief {
                key: "k".to_owned(),
                name: String::new(),
                customer: String::new(),
                question: document(&brief, part.id == PartId::Weight),
            };
            let back = resolve("b.json", &saved, &demo.rigs, &demo.waters).unwrap();
            // Fish and batteries stand in the rig, which a file names by its key.
            assert_eq!(back, brief, "{}", part.name);
            looked += 1;
        }
        assert_eq!(looked, PARTS.len() - 2);
    }

    #[test]
    fn a_document_survives_the_round_trip() {
        let demo = demo_data::catalogue().unwrap();
        let saved = read("b.json", BRIEF).unwrap();
        let brief = resolve("b.json", &saved, &demo.rigs, &demo.waters).unwrap();
        assert_eq!(brief.capacity_weight, 0.7);
        let again = SavedBrief {
            question: document(&brief, true),
            ..saved
        };
        let back = resolve("b.json", &again, &demo.rigs, &demo.waters).unwrap();
        assert_eq!(back, brief);
        let without = document(&brief, false);
        assert!(without.get("capacity_weight").is_none());
    }

    #[test]
    fn mistakes_name_the_part_and_what_would_be_accepted() {
        let said = |from: &str, to: &str| {
            let text = BRIEF.replace(from, to);
            read("b.json", &text).unwrap_err().to_string()
        };
        assert!(said("\"stands\"", "\"flies\"").contains("accepted: stands"));
        assert!(said("88", "\"much\"").contains("“crew.mass_kg” must be a number"));
        assert!(said("88", "880").contains("must lie between 25 and 220 kg"));
        assert!(said("\"posture\"", "\"postrue\"").contains("“postrue” is not a part of a brief"));
        assert!(said("\"budget\"", "\"buget\"").contains("“must.buget” is not a part"));
        assert!(said("\"rig\": \"reed-edge-day\",", "").contains("“rig” is missing"));
        // And the line of the file: of a part, and of a rig's own line.
        assert!(said("\"budget\": 900", "\"budget\": -1").starts_with("b.json, line 3"));
        let own = "{ \"key\": \"own\", \"name\": \"Own\", \"lines\": [\n\n{ \"item\": \"crate\", \
            \"dry_mass_kg\": 5000, \"place\": 0.5, \"height_m\": 0 }] }";
        let said = said("\"reed-edge-day\"", own);
        assert!(said.starts_with("b.json, line 4"), "{said}");
        assert!(said.contains("line 1 (crate)"), "{said}");
        assert!(
            read("b.json", "[]")
                .unwrap_err()
                .to_string()
                .contains("a list [ … ] where an object")
        );
    }
}

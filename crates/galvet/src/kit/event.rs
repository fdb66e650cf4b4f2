//! An event's rules, and their form: a rule a line, as people write them down.

use super::Kept;
use super::rule_words::{read_rule, rule_words};
use crate::form::{Draft, Group, Mistakes, Table, lines, name, note};
use galvet_core::papers::RuleSet;
use galvet_store::files::event::{EventEntry, LONGEST_RULE, MOST_RULES};
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Kind, Record};

/// Longest note.
const NOTE: usize = 4_000;

/// An event as its form takes it apart.
#[derive(Clone)]
pub(crate) struct EventDraft {
    set: RuleSet,
    rules: Vec<String>,
}

impl Draft for EventDraft {
    type Record = RuleSet;

    fn of(set: &RuleSet) -> Self {
        Self {
            rules: set.rules.iter().map(rule_words).collect(),
            set: set.clone(),
        }
    }

    fn made(self) -> Result<RuleSet, Mistakes> {
        let refused = |why: String| Mistakes::from([("rules".to_owned(), why)]);
        let mut set = self.set;
        let mut rules = Vec::new();
        for (n, line) in self.rules.iter().enumerate() {
            let read = read_rule(line).map_err(|why| refused(format!("line {}: {why}", n + 1)))?;
            rules.push(read);
        }
        set.rules = rules;
        EventEntry::of(&set).check().map_err(refused)?;
        Ok(set)
    }
}

impl Kept for EventDraft {
    const KIND: Kind = Kind::of::<EventEntry>();
    const WORD: &'static str = "event";

    fn usual() -> RuleSet {
        RuleSet::default()
    }

    fn form() -> Table<Self> {
        Table(vec![Group {
            title: "",
            hint: "",
            folded: false,
            fields: vec![
                name("name", "called", |d: &mut Self| &mut d.set.name),
                lines(
                    "rules",
                    "rules, one a line",
                    (MOST_RULES, LONGEST_RULE),
                    |d: &mut Self| &mut d.rules,
                )
                .hint(
                    "rods: count rod at-most 8; penalty; no more than eight rods. First what is \
                     checked: count, hull-length, hull-beam, fitted-mass, kit-mass, motor-power, \
                     require, worn, bar, one-of, length, height, inside, fixed, tethered, or \
                     conduct for what is only printed. Then when …, penalty or note, photo or \
                     steward, and the words as they are printed.",
                ),
                note("note", "note", NOTE, |d: &mut Self| &mut d.set.note),
            ],
        }])
    }

    fn of_record(record: &Record) -> Option<RuleSet> {
        match record {
            Record::Sheet(sheet) => sheet
                .sheet::<EventEntry>()
                .map(|event| event.clone().rules()),
            _ => None,
        }
    }

    fn record(set: RuleSet) -> Record {
        Record::Sheet(Document::of(&EventEntry::of(&set)))
    }

    fn called(set: &mut RuleSet) -> (&mut String, &str) {
        (&mut set.key, &set.name)
    }
}

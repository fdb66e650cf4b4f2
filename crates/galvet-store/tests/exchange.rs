//! Records out and in again: CSV, JSON, and what a spreadsheet makes of a table.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::{catalogue, demo, rich};
use galvet_core::base::Keyed;
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Felt, Fitout, Judgement, Kept, Looked, Measure,
    Origin, Pin, Propulsion, Reading, Source, Survey, Trial,
};
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::{exchange, hull_table, hulls, input};
use galvet_store::{Catalogue, Record};
use proptest::prelude::*;
use proptest::sample::select;
use proptest::test_runner::RngSeed;
use std::collections::BTreeMap;

fn back(csv: &str) -> Vec<HullRecord> {
    match hulls::read("back.csv", csv) {
        Ok(file) => file.hulls,
        Err(errors) => panic!("{errors:?} in {csv}"),
    }
}

/// What a table carries of a record.
fn tabled(hull: &HullRecord) -> HullRecord {
    let mut out = hull.clone();
    for reading in out.survey.readings.values_mut().flatten() {
        reading.who.clear();
        reading.note.clear();
    }
    out.survey.evidence.clear();
    out.survey.offsets.clear();
    out.survey.fitout = Fitout::default();
    out.survey.looked = Looked::default();
    out.extra.retain(|_, value| !value.is_empty());
    out
}

/// As a spreadsheet of another country saves it: semicolons, decimal commas in
/// what it takes for numbers, a mark at the head, other line ends.
fn mangled(csv: &str) -> Vec<u8> {
    let mut reader = csv::ReaderBuilder::new()
        .has_headers(false)
        .from_reader(csv.as_bytes());
    let mut writer = csv::WriterBuilder::new()
        .delimiter(b';')
        .terminator(csv::Terminator::CRLF)
        .from_writer(vec![0xef, 0xbb, 0xbf]);
    for row in reader.records() {
        let row = row.unwrap();
        let cells = row.iter().map(|cell| {
            let first = cell.split([' ', '(']).next().unwrap();
            if first.parse::<f64>().is_ok() {
                cell.replacen('.', ",", 1)
            } else {
                cell.to_owned()
            }
        });
        writer.write_record(cells).unwrap();
    }
    writer.into_inner().unwrap()
}

fn round_trips(hulls: &[HullRecord]) {
    let wanted: Vec<HullRecord> = hulls.iter().map(tabled).collect();
    let table = hull_table::write(hulls).unwrap();
    assert_eq!(back(&table), wanted);
    let whole = Catalogue {
        hulls: hulls.to_vec(),
        ..Catalogue::default()
    };
    let json = exchange::write(&whole).unwrap();
    assert_eq!(exchange::read("x.json", &json).unwrap().hulls, hulls);
}

#[test]
fn the_demo_comes_back_from_csv_and_json() {
    let demo = catalogue();
    round_trips(&demo.hulls);
    let Record::Hull(rich) = rich() else {
        unreachable!()
    };
    round_trips(&[*rich]);
    // Everything else too.
    let json = exchange::write(&demo).unwrap();
    let again = exchange::read("x.json", &json).unwrap();
    assert_eq!(again.gear, demo.gear);
    assert_eq!(again.rigs, demo.rigs);
    assert_eq!(again.waters, demo.waters);
    assert_eq!(again.briefs, demo.briefs);
}

/// Hulls of so many words that their file is larger than a usual limit.
#[test]
fn what_goes_out_comes_back_in_however_much_it_is() {
    let demo = catalogue();
    let mut many = galvet_store::Catalogue::default();
    for n in 0..40 {
        many.hulls
            .extend(demo.hulls.iter().cloned().map(|mut hull| {
                hull.survey.key = format!("{}-{n}", hull.survey.key);
                hull.survey.notes = "a keel guard, and how it was put on. ".repeat(270);
                hull
            }));
    }
    let text = exchange::write(&many).unwrap();
    assert!(text.len() > 9 << 20, "{} MiB", text.len() >> 20);
    let read = input::decode("x.json", text.as_bytes()).unwrap();
    let again = exchange::read("x.json", &read.text).unwrap();
    assert_eq!(again.hulls, many.hulls);
}

#[test]
fn the_demo_comes_back_from_a_spreadsheet() {
    let demo = catalogue().hulls;
    let wanted: Vec<HullRecord> = demo.iter().map(tabled).collect();
    let bytes = mangled(&hull_table::write(&demo).unwrap());
    let read = input::decode("sheet.csv", &bytes).unwrap();
    assert_eq!(back(&read.text), wanted);
}

/// Free text without space at its ends, with what troubles tables in it.
fn text() -> impl Strategy<Value = String> {
    let odd = select(vec![
        "=cmd|' /C calc'!A0",
        "+1",
        "-2",
        "@sum(a)",
        "'",
        "''=",
        "1-2",
        "2026",
        "3,5",
        "a\"b",
        "x;y,z",
        "two\nlines",
        "– ünï\u{1f6f6}",
        "NULL",
        "|",
        "(tape)",
        "",
    ]);
    prop_oneof![2 => odd.prop_map(str::to_owned), 3 => "[ -~]{0,24}".prop_map(|t| t.trim().to_owned())]
}

/// The same on one line: a name.
fn line() -> impl Strategy<Value = String> {
    text().prop_map(|text| text.replace('\n', " "))
}

fn readings() -> impl Strategy<Value = BTreeMap<Measure, Vec<Reading>>> {
    let one = (
        0..Measure::ALL.len(),
        any::<f64>(),
        select(Source::ALL),
        0_u8..3,
    );
    prop::collection::vec(one, 0..12).prop_map(|all| {
        let mut out: BTreeMap<Measure, Vec<Reading>> = BTreeMap::new();
        for (measure, share, source, dated) in all {
            let measure = Measure::ALL[measure];
            let row = measure.row();
            let share = if share.is_finite() {
                share.abs().fract()
            } else {
                0.5
            };
            let value = row.lo + share * (row.hi - row.lo);
            let mut reading = Reading::new(measure, value, source).unwrap();
            reading.date = ["", "2026-04-12", "1999-12-31"][usize::from(dated)].to_owned();
            out.entry(measure).or_default().push(reading);
        }
        out
    })
}

fn looked() -> impl Strategy<Value = Looked> {
    let judged =
        prop::collection::btree_map(select(Judgement::ALL), any::<prop::sample::Index>(), 0..6);
    let kept = (text(), text(), text()).prop_map(|(finding, who, why)| Kept {
        finding,
        who,
        date: "2026-11-25".to_owned(),
        why,
    });
    let absent = prop::collection::vec(text(), 0..3);
    let pin = (
        text(),
        0u32..5,
        text(),
        -0.4f64..7.0,
        -0.7f64..0.7,
        any::<bool>(),
    );
    let pin = pin.prop_map(|(thing, nth, place, x, y, turned)| Pin {
        thing,
        nth,
        place,
        x,
        y,
        turned,
    });
    let laid = prop::collection::btree_map(text(), prop::collection::vec(pin, 0..3), 0..3);
    let kept = prop::collection::vec(kept, 0..3);
    let trial = (text(), text(), any::<bool>(), select(Felt::ALL));
    let trial = trial.prop_map(|(who, note, stood, felt)| Trial {
        who,
        date: "2026-11-26".to_owned(),
        stood,
        felt,
        note,
    });
    let trials = prop::collection::vec(trial, 0..3);
    let all = (absent, judged, kept, laid, trials);
    all.prop_map(|(absent, judged, kept, laid, trials)| Looked {
        trials,
        absent,
        judged: judged
            .into_iter()
            .map(|(judgement, answer)| (judgement, answer.get(judgement.answers()).0))
            .collect(),
        kept,
        laid,
    })
}

prop_compose! {
    fn hull()(
        key in "[a-z0-9][a-z0-9-]{0,20}",
        (maker, model, includes, notes) in (line(), line(), text(), text()),
        year in prop::option::of(1950_u16..2100),
        construction in select(Construction::ALL),
        bottom in prop::option::of(select(BottomShape::ALL)),
        propulsion in select(Propulsion::ALL),
        basis in select(CapacityBasis::ALL),
        origin in select(Origin::ALL),
        (lifts, straight, seats) in (any::<bool>(), any::<bool>(), 1_u8..=4),
        readings in readings(),
        looked in looked(),
        colour in text(),
    ) -> HullRecord {
        HullRecord {
            survey: Survey {
                key,
                maker,
                model: if model.is_empty() { "M".to_owned() } else { model },
                year,
                construction,
                bottom,
                propulsion,
                drive_lifts: lifts,
                tracks_straight: straight,
                seats,
                fitted_includes: includes,
                capacity_basis: basis,
                notes,
                origin,
                readings,
                evidence: Vec::new(),
                offsets: Vec::new(),
                fitout: Fitout::default(),
                looked,
            },
            extra: [("colour".to_owned(), colour)].into_iter().filter(|(_, v)| !v.is_empty()).collect(),
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, rng_seed: RngSeed::Fixed(20_261_128), ..ProptestConfig::default() })]

    #[test]
    fn any_record_comes_back_from_csv_and_json(hull in hull()) {
        round_trips(&[hull]);
    }

    #[test]
    fn no_cell_is_a_formula(hull in hull()) {
        let table = hull_table::write(&[hull]).unwrap();
        let mut reader = csv::Reader::from_reader(table.as_bytes());
        for row in reader.records() {
            for cell in &row.unwrap() {
                prop_assert!(!cell.starts_with(['=', '+', '-', '@', '\t', '\r']), "{cell:?}");
            }
        }
    }
}

#[test]
fn bad_exchange_files_are_named_at_their_lines() {
    let demo_json = exchange::write(&catalogue()).unwrap();
    let said = |text: &str| {
        let errors = exchange::read("x.json", text).unwrap_err();
        errors
            .iter()
            .map(ToString::to_string)
            .collect::<Vec<_>>()
            .join("\n")
    };
    assert!(said("").contains("ends before it is complete"));
    assert!(said("[]").contains("a list [ … ]"));
    assert!(said("{}").contains("“galvet” is missing"));
    assert!(said(r#"{"galvet": 9}"#).contains("newer Galvet"));
    assert!(said(&demo_json[..demo_json.len() / 2]).contains("ends before"));
    let broken = demo_json.replacen("\"sit-on-top\"", "\"raft\"", 1);
    let said = said(&broken);
    assert!(said.starts_with("x.json, line 4: "), "{said}");
    assert!(
        said.contains("“raft” is not a construction; accepted: sit-on-top"),
        "{said}"
    );
    assert!(demo("hulls.csv").len() > 100);
}

//! Files as bad as they come: each is refused with what is wrong and where, or
//! taken for what it says.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_store::FileError;
use galvet_store::files::{exchange, hulls, input};

const HEAD: &str = "key,maker,model,construction,length_m,beam_cm,bare_weight_kg,price\n";

/// What is said of a table's rows; empty where it is taken.
fn rows(rows: &str) -> String {
    said(hulls::read("t.csv", &format!("{HEAD}{rows}\n")).map(|_| ()))
}

fn said(result: Result<(), Vec<FileError>>) -> String {
    let errors = result.err().unwrap_or_default();
    errors
        .iter()
        .map(ToString::to_string)
        .collect::<Vec<_>>()
        .join("\n")
}

#[test]
fn cells_that_make_no_sense_are_named_with_line_and_column() {
    for (row, wanted) in [
        (
            "a,M,A,raft,3.7,86,30,",
            "line 2, column construction: “raft”",
        ),
        (
            "a,M,A,,3.7,86,30,",
            "line 2, column construction: must not be empty",
        ),
        ("a,M,A,SIT-ON-TOP!,3.7,86,30,", "column construction"),
        (
            ",M,A,board,3.7,86,30,",
            "line 2, column key: must not be empty",
        ),
        ("A 1,M,A,board,3.7,86,30,", "line 2, column key"),
        ("ä,M,A,board,3.7,86,30,", "line 2, column key"),
        ("../etc,M,A,board,3.7,86,30,", "line 2, column key"),
        (
            "a,M,,board,3.7,86,30,",
            "line 2, column model: must not be empty",
        ),
        ("a,M,A,board,1e309,86,30,", "line 2, column length_m"),
        (
            "a,M,A,board,-3.7,86,30,",
            "column length_m: length must lie between 1.8 and 7 m, not -3.7",
        ),
        ("a,M,A,board,NaN,86,30,", "column length_m"),
        ("a,M,A,board,inf,86,30,", "column length_m"),
        (
            "a,M,A,board,37,86,30,",
            "length must lie between 1.8 and 7 m, not 37",
        ),
        ("a,M,A,board,0,86,30,", "not 0"),
        (
            "a,M,A,board,3.7 furlongs,86,30,",
            "column length_m: “3.7 furlongs”",
        ),
        ("a,M,A,board,3.7.1,86,30,", "column length_m"),
        ("a,M,A,board,three,86,30,", "“three”"),
        ("a,M,A,board,=3+4,86,30,", "column length_m: “=3+4”"),
        (
            "a,M,A,board,3.7,860,30,",
            "column beam_cm: beam must lie between 40 and 150 cm, not 860",
        ),
        ("a,M,A,board,3.7,0.86,30,", "column beam_cm"),
        (
            "a,M,A,board,3.7,86 (rumour),30,",
            "“rumour” is not a source",
        ),
        ("a,M,A,board,3.7,86 (tape,30,", "an open bracket"),
        ("a,M,A,board,3.7,86 | | 87,30,", "column beam_cm"),
        ("a,M,A,board,3.7,86,3,", "column bare_weight_kg"),
        ("a,M,A,board,3.7,86,30 stone,", "column bare_weight_kg"),
        (
            "a,M,A,board,3.7,86,30,\"1,290\"",
            "column price: “1,290” can be read two ways",
        ),
        ("a,M,A,board,3.7,86,30,free", "column price"),
        ("a,M,A,board,3.7,86,30,-1", "column price"),
        ("a,M,A,board,3.7,86", "line 2"),
        ("a,M,A,board,3.7,86,30,1,2,3", "line 2"),
        (
            "a,M,A,board,3.7,86,30,\na,M,B,board,3.7,86,30,",
            "line 3, column key: the key “a” stands twice",
        ),
        (
            "a,M,A,board,3.7,86,30,\nb,M,B,raft,3.7,86,30,",
            "line 3, column construction",
        ),
        (
            "a,\"M\nM\",A,board,3.7,86,30,\nb,M,B,raft,3.7,86,30,",
            "line 4, column construction",
        ),
        (
            "a,M,A,board,3.7,86,30,\r\nb,M,B,raft,3.7,86,30,",
            "line 3, column construction",
        ),
        (
            "a,M,A,board,3.7,86,30,\n\n\nb,M,B,raft,3.7,86,30,",
            "line 5, column construction",
        ),
    ] {
        let found = rows(row);
        assert!(found.contains(wanted), "{row:?}: {found:?}");
        assert!(found.starts_with("t.csv"), "{found}");
    }
}

#[test]
fn files_that_are_no_tables_are_said_to_be_none() {
    let long = "x".repeat(5 << 20);
    let twice = "key,model,construction,length_m,LENGTH_M\na,A,board,3,3\n";
    for (text, wanted) in [
        ("", "t.csv"),
        ("\n\n\n", "t.csv"),
        ("key\n", "no hulls in it"),
        (HEAD, "no hulls in it"),
        ("a,M,A,board,3.7\n", "the first line must name the columns"),
        (
            "maker,model\nM,A\n",
            "the first line must name the columns, key among them",
        ),
        (twice, "the column “length_m” stands twice"),
        ("key,key\na,b\n", "the column “key” stands twice"),
        ("\u{0}\u{0}\u{0}", "the first line must name the columns"),
        (
            "<html><body>404</body></html>",
            "the first line must name the columns",
        ),
        ("PK\u{3}\u{4}", "the first line must name the columns"),
        ("key,model,construction\n\"a,A,board\n", "t.csv"),
        (&long, "t.csv"),
    ] {
        let found = said(hulls::read("t.csv", text).map(|_| ()));
        assert!(
            found.contains(wanted),
            "{:?}: {}",
            &text[..text.len().min(40)],
            &found[..found.len().min(300)]
        );
        assert!(found.len() < 2_000, "{} characters of message", found.len());
    }
    // A cell of 5 MB is told by its length, not by itself.
    let found = rows(&format!("a,M,{long},board,3.7,86,30,"));
    assert!(
        found.contains("line 2, column model: longer than 2000 characters"),
        "{}",
        &found[..200]
    );
    let found = rows(&format!("a,M,A,{},3.7,86,30,", &long[..1_000]));
    assert!(
        found.contains("column construction") && found.len() < 400,
        "{}",
        found.len()
    );
}

#[test]
fn exchange_files_cut_or_twisted_are_named_at_their_lines() {
    let hull = r#"{"key": "a", "maker": "M", "model": "A", "construction": "board", "propulsion": "paddle", "capacity_basis": "unknown"}"#;
    let with = |from: &str, to: &str| {
        let hull = hull.replace(from, to);
        format!("{{\"galvet\": 1,\n\"hulls\": [\n{hull}] }}")
    };
    assert_eq!(
        said(exchange::read("x.json", &with("", "")).map(|_| ())),
        ""
    );
    for (text, wanted) in [
        (String::new(), "ends before it is complete"),
        ("{".to_owned(), "ends before it is complete"),
        ("[]".to_owned(), "a list [ … ] where an object"),
        ("null".to_owned(), "x.json"),
        ("7".to_owned(), "the number 7"),
        ("{}".to_owned(), "“galvet” is missing"),
        (
            r#"{"galvet": "one"}"#.to_owned(),
            "the text “one” where a whole number",
        ),
        (r#"{"galvet": 2}"#.to_owned(), "newer Galvet"),
        (
            r#"{"galvet": 1, "galvet": 1}"#.to_owned(),
            "“galvet” stands twice",
        ),
        (
            r#"{"galvet": 1, "boats": []}"#.to_owned(),
            "“boats” is not known here",
        ),
        (
            r#"{"galvet": 1, "hulls": {}}"#.to_owned(),
            "an object { … } where a list",
        ),
        (r#"{"galvet": 1, "hulls": [7]}"#.to_owned(), "x.json"),
        (
            with("\"board\"", "\"raft\""),
            "line 3: a: “raft” is not a construction",
        ),
        (
            with("\"paddle\"", "\"sail\""),
            "line 3: a: “sail” is not a propulsion",
        ),
        (with("\"a\"", "\"A b\""), "line 3"),
        (
            with("\"a\"", "\"a\", \"seats\": 9"),
            "a kayak has 1 to 4 seats",
        ),
        (with("\"a\"", "\"a\", \"seats\": -1"), "line 3"),
        (
            with("\"a\"", "\"a\", \"wings\": 2"),
            "“wings” is not known here",
        ),
        (
            with("\"a\"", "\"a\", \"readings\": {\"girth\": []}"),
            "“girth” is not a measure",
        ),
        (
            with(
                "\"a\"",
                "\"a\", \"readings\": {\"length\": [{\"value\": 1e300, \"source\": \"tape\"}]}",
            ),
            "length must lie between 1.8 and 7 m",
        ),
        (
            with(
                "\"a\"",
                "\"a\", \"readings\": {\"length\": [[3.7, \"tape\"]]}",
            ),
            "a list [ … ] where an object",
        ),
        (
            with(
                "\"a\"",
                "\"a\", \"offsets\": [{\"x_m\": 0, \"points_m\": []}]",
            ),
            "line 3",
        ),
        (
            format!("{{\"galvet\": 1, \"hulls\": [{hull},\n{hull}] }}"),
            "line 2: the key “a” stands twice",
        ),
    ] {
        let found = said(exchange::read("x.json", &text).map(|_| ()));
        assert!(found.contains(wanted), "{text}: {found}");
        assert!(found.starts_with("x.json"), "{found}");
    }
}

#[test]
fn bytes_of_other_encodings_are_read_or_refused() {
    let text = format!("{HEAD}a,Mälar,A,board,3.7,86,30,\n");
    let utf16: Vec<u8> = [0xff, 0xfe]
        .into_iter()
        .chain(text.encode_utf16().flat_map(u16::to_le_bytes))
        .collect();
    let latin: Vec<u8> = text
        .chars()
        .map(|c| u8::try_from(u32::from(c)).unwrap())
        .collect();
    let marked: Vec<u8> = [0xef, 0xbb, 0xbf].into_iter().chain(text.bytes()).collect();
    for bytes in [text.as_bytes(), &utf16, &latin, &marked] {
        let read = input::decode("t.csv", bytes).unwrap();
        let hulls = hulls::read("t.csv", &read.text).unwrap().hulls;
        assert_eq!(hulls[0].survey.maker, "Mälar");
    }
    // Cut in the middle of a letter, or no text at all: never a panic.
    for bytes in [&utf16[..31], &[0xff; 64][..], &[0x00; 64][..], &[0xc3][..]] {
        if let Ok(read) = input::decode("t.csv", bytes) {
            assert!(hulls::read("t.csv", &read.text).is_err());
        }
    }
}

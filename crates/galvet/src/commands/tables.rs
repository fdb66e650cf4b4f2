//! Somebody's table on the command line: read through a matching, or as far as it is sure
//! without one.

use super::{Problem, read_text};
use crate::survey::{Chosen, Dealt, deal, deal_with};
use galvet_store::FileError;
use galvet_store::files::dealer::{Matching, Question};
use std::path::Path;

/// A matching out of a file, as the page or `galvet check` writes it.
pub(super) fn matching(path: &Path) -> Result<Matching, Problem> {
    let (file, text) = read_text(path)?;
    Matching::read(&file, &text).map_err(|error| Problem::Files(vec![error]))
}

/// A table looked over: as a matching says, else as remembered of its shape, else as
/// guessed from the names of its columns.
pub(super) fn looked_over(
    file: &str,
    text: &str,
    by: Option<&Matching>,
    remembered: &[Matching],
) -> Result<Dealt, Problem> {
    let dealt = match by {
        Some(matching) => deal_with(file, text, matching),
        None => deal(file, text, None::<&Chosen>, remembered),
    };
    dealt.map_err(|error| Problem::Files(vec![error]))
}

/// What a table leaves open, each as a problem at its column.
pub(super) fn open(file: &str, dealt: &Dealt) -> Vec<FileError> {
    let words = |question: &Question| match question {
        Question::Unit { header } => (
            Some(header.clone()),
            "in which unit? Name it in the header, or as \"unit\" of this column".to_owned(),
        ),
        Question::Comma { header, example } => (
            Some(header.clone()),
            format!(
                "“{example}” can be read two ways: say \"comma\": true or false of this column"
            ),
        ),
        Question::Word { target, theirs, .. } => (
            None,
            format!("what does “{theirs}” mean? Say it in \"words\" of \"{target}\""),
        ),
        Question::All { target, rows } => (
            None,
            format!("{rows} rows say no {target}: say it for all of them in \"all\""),
        ),
        Question::Name => (None, "no column says what a row is called".to_owned()),
    };
    let questions = dealt.taken.questions.iter().map(words);
    let mut out: Vec<FileError> = questions
        .map(|(column, problem)| FileError {
            column,
            ..FileError::whole(file, problem)
        })
        .collect();
    if !out.is_empty() {
        out.push(FileError::whole(
            file,
            "answer in a matching: galvet check --write-matching FILE writes one to fill in, \
             galvet import --as FILE reads by it",
        ));
    }
    out
}

/// The rows that wait, each with its reasons.
pub(super) fn held(file: &str, dealt: &Dealt) -> Vec<FileError> {
    let rows = dealt.taken.held.iter().flat_map(|held| {
        held.wrong.iter().map(|(column, problem)| FileError {
            line: Some(held.line),
            column: Some(column.clone()).filter(|c| !c.is_empty()),
            ..FileError::whole(file, problem.clone())
        })
    });
    rows.collect()
}

/// How each column was read.
pub(super) fn columns(dealt: &Dealt) -> Vec<String> {
    let columns = dealt.matching.columns.iter().zip(&dealt.guessed);
    let words = columns.map(|(column, guessed)| {
        let target = dealt.matching.of.target(&column.target);
        let target = target.map_or(column.target.as_str(), |t| t.label);
        let unit = column
            .unit
            .as_ref()
            .map_or(String::new(), |u| format!(", {u}"));
        let guess = if *guessed { " (a guess)" } else { "" };
        format!("{} → {target}{unit}{guess}", column.header)
    });
    words.collect()
}

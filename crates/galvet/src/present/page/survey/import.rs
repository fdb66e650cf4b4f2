//! A file looked over before it is taken in.

use crate::present::page::ranking::facts;
use crate::survey::{Incoming, double};
use galvet_core::base::System;
use galvet_store::FileError;
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::input::Input;
use galvet_store::files::{mend, units_of};

/// Something wrong, with its cell where there is one.
pub struct MistakeLine {
    pub place: String,
    pub problem: String,
    /// Line, column and what stands there, to be put right.
    pub cell: Option<(u64, String, String)>,
    /// What may be chosen for it, each with its label; empty where it is typed.
    pub choices: Vec<(String, &'static str)>,
}

/// A hull in the file.
pub struct IncomingLine {
    pub at: usize,
    pub name: String,
    pub facts: String,
    pub findings: Vec<String>,
    /// The hull that is there already.
    pub double: Option<String>,
}

/// The page; empty before anything has been sent.
#[derive(Default)]
pub struct ImportView {
    pub file: String,
    pub text: String,
    /// How it was read, where that is not plain.
    pub read_as: String,
    pub mistakes: Vec<MistakeLine>,
    pub hulls: Vec<IncomingLine>,
    pub doubles: usize,
    pub unknown_columns: String,
    /// "4 rigs, 13 things": what else is in it.
    pub others: String,
    /// Whether it is the shelf and nothing else.
    pub shelf: bool,
    /// Whether it can be taken in as it stands.
    pub ready: bool,
}

impl ImportView {
    /// A file that could not be read at all.
    #[must_use]
    pub fn unread(error: FileError) -> Self {
        Self {
            file: error.file.clone(),
            mistakes: vec![mistake(error, "")],
            ..Self::default()
        }
    }
}

fn mistake(error: FileError, text: &str) -> MistakeLine {
    let place = match (error.line, &error.column) {
        (Some(mend::HEADER), Some(column)) => format!("the column {column}"),
        (Some(line), Some(column)) => format!("line {line}, {column}"),
        (Some(line), None) => format!("line {line}"),
        _ => String::new(),
    };
    let cell = error.line.zip(error.column).and_then(|at| {
        let found = mend::cell(text, &at)?;
        Some((at.0, at.1, found))
    });
    let choices = match &cell {
        Some((mend::HEADER, column, _)) => units_of(column),
        _ => Vec::new(),
    };
    MistakeLine {
        choices,
        place,
        problem: error.problem,
        cell,
    }
}

/// Makes the page; `there` are the hulls kept already.
#[must_use]
pub fn import(
    read: &Input,
    found: &Result<Incoming, Vec<FileError>>,
    there: &[HullRecord],
    system: System,
) -> ImportView {
    let mut out = ImportView {
        file: read.file.clone(),
        text: read.text.clone(),
        read_as: read.read_as.unwrap_or_default().to_string(),
        ..ImportView::default()
    };
    let incoming = match found {
        Err(errors) => {
            out.mistakes = errors
                .iter()
                .map(|e| mistake(e.clone(), &read.text))
                .collect();
            return out;
        }
        Ok(incoming) => incoming,
    };
    let all = &incoming.catalogue;
    out.hulls = all
        .hulls
        .iter()
        .enumerate()
        .map(|(at, hull)| IncomingLine {
            at,
            name: hull.survey.name(),
            facts: facts(&hull.survey, system),
            findings: hull.survey.findings().into_iter().map(|f| f.text).collect(),
            double: double(hull, there).map(|h| h.survey.name()),
        })
        .collect();
    out.doubles = out.hulls.iter().filter(|h| h.double.is_some()).count();
    out.unknown_columns = incoming.unknown_columns.join(", ");
    out.others = all.others().join(", ");
    out.shelf = crate::survey::is_shelf(&incoming.catalogue);
    out.ready = !out.hulls.is_empty() || !out.others.is_empty();
    out
}

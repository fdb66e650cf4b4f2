//! A field of a form: what it is called, what it takes, and how it is shown and set.

use galvet_core::base::{LONGEST_NAME, NameError, System, one_line, typed_name};
use std::borrow::Cow;

/// How a field is filled in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Takes {
    /// One line.
    Line,
    /// A figure: on a phone, by the keys for numbers.
    Number,
    /// Several.
    Lines,
    /// One of several words: what is sent, and what it is called.
    Words(Offered),
    /// A tick; one that is not set is not sent.
    Tick,
}

/// Words to choose from: what is sent, and what it is called.
pub type Offered = Vec<(Cow<'static, str>, Cow<'static, str>)>;

type Show<D> = Box<dyn Fn(&mut D, System) -> String + Send + Sync>;
type Set<D> = Box<dyn Fn(&mut D, &str, System) -> Result<(), String> + Send + Sync>;

/// A field of what is being typed, `D`.
pub struct Field<D> {
    /// Its name in the form.
    pub name: String,
    /// What it asks.
    pub label: String,
    /// What to look at.
    pub hint: &'static str,
    /// How it is filled in.
    pub takes: Takes,
    pub(super) show: Show<D>,
    pub(super) set: Set<D>,
}

impl<D> Field<D> {
    pub(super) fn new(
        name: impl Into<String>,
        label: impl Into<String>,
        takes: Takes,
        show: impl Fn(&mut D, System) -> String + Send + Sync + 'static,
        set: impl Fn(&mut D, &str, System) -> Result<(), String> + Send + Sync + 'static,
    ) -> Self {
        Self {
            name: name.into(),
            label: label.into(),
            hint: "",
            takes,
            show: Box::new(show),
            set: Box::new(set),
        }
    }

    /// With what to look at.
    pub fn hint(self, hint: &'static str) -> Self {
        Self { hint, ..self }
    }
}

/// Where in `D` a field keeps what it holds.
pub(super) type Place<D, T> = fn(&mut D) -> &mut T;

/// A name, which must be there.
pub fn name<D: 'static>(name: &str, label: &str, at: Place<D, String>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = typed_name(typed).map_err(|problem| problem.to_string())?;
        Ok(())
    };
    Field::new(name, label, Takes::Line, move |d, _| at(d).clone(), set)
}

/// A line that may be empty.
pub fn line<D: 'static>(name: &str, label: &str, at: Place<D, String>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = short_line(typed)?;
        Ok(())
    };
    Field::new(name, label, Takes::Line, move |d, _| at(d).clone(), set)
}

fn short_line(typed: &str) -> Result<String, String> {
    let read = one_line(typed).map_err(|problem| problem.to_string())?;
    if read.chars().count() > LONGEST_NAME {
        return Err(NameError::Long.to_string());
    }
    Ok(read)
}

/// Text of several lines, of at most so many characters.
pub fn note<D: 'static>(name: &str, label: &str, most: usize, at: Place<D, String>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = no_longer(typed, most)?;
        Ok(())
    };
    Field::new(name, label, Takes::Lines, move |d, _| at(d).clone(), set)
}

/// A day; left empty, what stands.
pub fn day<D: 'static>(name: &str, label: &str, at: Place<D, String>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        if !typed.is_empty() {
            *at(d) = galvet_core::base::day(typed).map_err(|odd| odd.to_string())?;
        }
        Ok(())
    };
    Field::new(name, label, Takes::Line, move |d, _| at(d).clone(), set)
}

fn no_longer(typed: &str, most: usize) -> Result<String, String> {
    let typed = typed.replace("\r\n", "\n");
    if typed.chars().count() > most {
        return Err(format!("longer than {most} characters"));
    }
    Ok(typed)
}

/// A list with one entry a line: at most `most` of at most `long` characters.
pub fn lines<D: 'static>(
    name: &str,
    label: &str,
    (most, long): (usize, usize),
    at: Place<D, Vec<String>>,
) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        let all = typed.lines().map(str::trim).filter(|l| !l.is_empty());
        let all: Vec<String> = all.map(|l| no_longer(l, long)).collect::<Result<_, _>>()?;
        if all.len() > most {
            return Err(format!("at most {most} lines"));
        }
        *at(d) = all;
        Ok(())
    };
    Field::new(name, label, Takes::Lines, move |d, _| at(d).join("\n"), set)
}

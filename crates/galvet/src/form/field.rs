//! A field of a form: what it is called, what it takes, and how it is shown and set.

use super::typed::{number as read_number, shown_across, shown_along};
use galvet_core::base::{
    Bounds, Dimension, Keyed, LONGEST_NAME, NameError, System, one_line, typed_name,
};
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

/// Words known beforehand, to choose from.
fn fixed(words: impl IntoIterator<Item = (&'static str, &'static str)>) -> Offered {
    let words = words.into_iter();
    words
        .map(|(key, label)| (key.into(), label.into()))
        .collect()
}

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
    fn new(
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
type Place<D, T> = fn(&mut D) -> &mut T;

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

/// What a figure can be held by. A figure that must be there and is not yet is no number.
pub trait Holds {
    /// The figure; `None` where there is none.
    fn held(&self) -> Option<f64>;
    /// Takes another; whether it can be without one.
    fn hold(&mut self, figure: Option<f64>) -> bool;
}

impl Holds for f64 {
    fn held(&self) -> Option<f64> {
        (!self.is_nan()).then_some(*self)
    }

    fn hold(&mut self, figure: Option<f64>) -> bool {
        *self = figure.unwrap_or(*self);
        figure.is_some()
    }
}

impl Holds for Option<f64> {
    fn held(&self) -> Option<f64> {
        *self
    }

    fn hold(&mut self, figure: Option<f64>) -> bool {
        *self = figure;
        true
    }
}

/// How a figure stands in its field: fine enough to be read back as what it is, to the
/// tape's or the scale's own step.
fn shown(system: System, dimension: Dimension, value: f64) -> String {
    match dimension {
        Dimension::Length => shown_along(system, value),
        Dimension::ShortLength => shown_across(system, value),
        Dimension::FineLength => system.text(dimension, value, 0),
        Dimension::Mass | Dimension::Volume | Dimension::Speed | Dimension::Distance => {
            system.text(dimension, value, 2)
        }
        _ => format!("{value}"),
    }
}

/// A figure within bounds; whether it must be there follows from what holds it.
pub fn number<D: 'static, T: Holds + 'static>(
    name: &str,
    label: &str,
    bounds: Bounds,
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, system| {
        let held = at(d).held();
        held.map_or(String::new(), |v| shown(system, bounds.dimension, v))
    };
    let set = move |d: &mut D, typed: &str, system| {
        if typed.is_empty() && at(d).hold(None) {
            return Ok(());
        }
        let typed = typed.trim_end_matches(['%', '°']).trim();
        let read = read_number(typed, bounds, system)?;
        at(d).hold(Some(read));
        Ok(())
    };
    // Those keys have no minus.
    let takes = if bounds.lo < 0.0 {
        Takes::Line
    } else {
        Takes::Number
    };
    Field::new(name, label, takes, show, set)
}

/// A share, 0 to 1, typed in percent.
pub fn percent<D: 'static, T: Holds + 'static>(
    name: &str,
    label: &str,
    bounds: Bounds,
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, _| {
        let held = at(d).held();
        held.map_or(String::new(), |v| {
            format!("{}", (v * 1000.0).round() / 10.0)
        })
    };
    let set = move |d: &mut D, typed: &str, system| {
        if typed.is_empty() && at(d).hold(None) {
            return Ok(());
        }
        let of_100 = Bounds::new(
            bounds.what,
            Dimension::Ratio,
            bounds.lo * 100.0,
            bounds.hi * 100.0,
        );
        let typed = typed.trim_end_matches('%').trim();
        let read = read_number(typed, of_100, system)? / 100.0;
        at(d).hold(Some(read));
        Ok(())
    };
    Field::new(name, label, Takes::Number, show, set)
}

/// What a whole number can be held by.
pub trait Counts {
    /// The number; `None` where there is none, or none is meant.
    fn held(&self) -> Option<u16>;
    /// Takes another; whether it can.
    fn hold(&mut self, number: Option<u16>) -> bool;
}

impl Counts for u16 {
    fn held(&self) -> Option<u16> {
        (*self > 0).then_some(*self)
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number.unwrap_or(0);
        true
    }
}

impl Counts for u8 {
    fn held(&self) -> Option<u16> {
        (*self > 0).then(|| u16::from(*self))
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        let narrow = Self::try_from(number.unwrap_or(0));
        *self = narrow.unwrap_or(*self);
        narrow.is_ok()
    }
}

impl Counts for u32 {
    fn held(&self) -> Option<u16> {
        u16::try_from(*self).ok().filter(|n| *n > 0)
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number.unwrap_or(0).into();
        true
    }
}

impl Counts for Option<u16> {
    fn held(&self) -> Option<u16> {
        *self
    }

    fn hold(&mut self, number: Option<u16>) -> bool {
        *self = number;
        true
    }
}

/// A whole number within bounds; left empty, none of it where nought is within them, and
/// where it may be missing, nobody knows.
pub fn count<D: 'static, T: Counts + 'static>(
    name: &str,
    label: &str,
    (lo, hi, may_miss): (u16, u16, bool),
    at: Place<D, T>,
) -> Field<D> {
    let show = move |d: &mut D, _| at(d).held().map_or(String::new(), |n| n.to_string());
    let set = move |d: &mut D, typed: &str, _| {
        let read = match typed {
            "" if lo == 0 || may_miss => Some(None),
            typed => typed
                .parse()
                .ok()
                .filter(|n| (lo..=hi).contains(n))
                .map(Some),
        };
        let taken = read.is_some_and(|number| at(d).hold(number));
        let problem = || format!("write a whole number, {lo} to {hi}");
        taken.then_some(()).ok_or_else(problem)
    };
    Field::new(name, label, Takes::Number, show, set)
}

fn known<T: Keyed>(typed: &str) -> Result<T, String> {
    galvet_store::files::word("answer", typed)
}

fn all<T: Keyed>() -> impl Iterator<Item = (&'static str, &'static str)> {
    T::ALL.iter().map(|word| (word.key(), word.label()))
}

/// One of several words.
pub fn choice<D: 'static, T: Keyed>(name: &str, label: &str, at: Place<D, T>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = known(typed)?;
        Ok(())
    };
    Field::new(
        name,
        label,
        Takes::Words(fixed(all::<T>())),
        move |d, _| at(d).key().to_owned(),
        set,
    )
}

/// One of several words, or none of them, which is called `none`.
pub fn maybe_choice<D: 'static, T: Keyed>(
    name: &str,
    label: &str,
    none: &'static str,
    at: Place<D, Option<T>>,
) -> Field<D> {
    let offered = fixed([("", none)].into_iter().chain(all::<T>()));
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = match typed {
            "" => None,
            typed => Some(known(typed)?),
        };
        Ok(())
    };
    let show = move |d: &mut D, _| at(d).map_or(String::new(), |word| word.key().to_owned());
    Field::new(name, label, Takes::Words(offered), show, set)
}

/// Yes, no, or nobody looked.
pub fn yes_no<D: 'static>(name: &str, label: &str, at: Place<D, Option<bool>>) -> Field<D> {
    const WORDS: [(&str, &str); 3] = [("", "nobody looked"), ("yes", "yes"), ("no", "no")];
    let show = move |d: &mut D, _| {
        match at(d) {
            None => "",
            Some(true) => "yes",
            Some(false) => "no",
        }
        .to_owned()
    };
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = match typed {
            "" => None,
            "yes" => Some(true),
            "no" => Some(false),
            _ => return Err("answer yes or no".to_owned()),
        };
        Ok(())
    };
    Field::new(name, label, Takes::Words(fixed(WORDS)), show, set)
}

fn ticked(is: bool) -> String {
    if is { "yes" } else { "" }.to_owned()
}

/// One of words of its own, or none of them.
pub fn answer<D: 'static>(
    name: &str,
    label: &str,
    offered: Vec<(&'static str, &'static str)>,
    show: impl Fn(&mut D) -> String + Send + Sync + 'static,
    set: impl Fn(&mut D, &str) -> Result<(), String> + Send + Sync + 'static,
) -> Field<D> {
    Field::new(
        name,
        label,
        Takes::Words(fixed(offered)),
        move |d, _| show(d),
        move |d, typed, _| set(d, typed),
    )
}

/// One of several records, by its key; one that is not offered is refused unless it stands.
pub fn pick<D: 'static>(
    name: &str,
    label: &str,
    offered: Vec<(String, String)>,
    at: Place<D, String>,
) -> Field<D> {
    let keys: Vec<String> = offered.iter().map(|(key, _)| key.clone()).collect();
    let set = move |d: &mut D, typed: &str, _| {
        if !keys.iter().any(|key| key == typed) && at(d) != typed {
            return Err("choose one of those there are".to_owned());
        }
        typed.clone_into(at(d));
        Ok(())
    };
    let offered = offered
        .into_iter()
        .map(|(key, label)| (key.into(), label.into()));
    let takes = Takes::Words(offered.collect());
    Field::new(name, label, takes, move |d, _| at(d).clone(), set)
}

/// A tick.
pub fn tick<D: 'static>(name: &str, label: &str, at: Place<D, bool>) -> Field<D> {
    let set = move |d: &mut D, typed: &str, _| {
        *at(d) = !typed.is_empty();
        Ok(())
    };
    Field::new(name, label, Takes::Tick, move |d, _| ticked(*at(d)), set)
}

/// A tick that says whether something is on a list.
pub fn tick_in<D: 'static, T>(
    name: String,
    label: String,
    what: T,
    at: Place<D, Vec<T>>,
) -> Field<D>
where
    T: PartialEq + Clone + Send + Sync + 'static,
{
    let listed = what.clone();
    let show = move |d: &mut D, _| ticked(at(d).contains(&listed));
    let set = move |d: &mut D, typed: &str, _| {
        let on = at(d);
        on.retain(|other| *other != what);
        if !typed.is_empty() {
            on.push(what.clone());
        }
        Ok(())
    };
    Field::new(name, label, Takes::Tick, show, set)
}

/// Words of a list, the first one first.
pub fn words<D: 'static, T: Keyed>(name: &str, label: &str, at: Place<D, Vec<T>>) -> Field<D> {
    let show = move |d: &mut D, _| {
        let keys: Vec<&str> = at(d).iter().map(|word| word.key()).collect();
        keys.join(", ")
    };
    let set = move |d: &mut D, typed: &str, _| {
        let split = typed.split([',', ' ']).filter(|word| !word.is_empty());
        let read = split.map(|word| {
            let accepted = || {
                T::ALL
                    .iter()
                    .map(|w| w.key())
                    .collect::<Vec<_>>()
                    .join(", ")
            };
            let none = || format!("“{word}” is none of them; accepted: {}", accepted());
            T::from_key(word).ok_or_else(none)
        });
        *at(d) = read.collect::<Result<_, _>>()?;
        Ok(())
    };
    Field::new(name, label, Takes::Line, show, set)
}

/// A grade given to one of several named things: none, or one of several words.
pub fn grade_of<D: 'static, T: Keyed>(
    name: String,
    label: String,
    none: &'static str,
    what: String,
    at: Place<D, Vec<(String, T)>>,
) -> Field<D> {
    let offered = fixed([("", none)].into_iter().chain(all::<T>()));
    let of = what.clone();
    let show = move |d: &mut D, _| {
        let mut graded = at(d).iter().filter(|(name, _)| *name == of);
        graded
            .next()
            .map_or(String::new(), |(_, grade)| grade.key().to_owned())
    };
    let set = move |d: &mut D, typed: &str, _| {
        let grade = match typed {
            "" => None,
            typed => Some(known::<T>(typed)?),
        };
        let graded = at(d);
        let there = graded.iter_mut().find(|(name, _)| *name == what);
        match (there, grade) {
            (Some(there), Some(grade)) => there.1 = grade,
            (None, Some(grade)) => {
                graded.push((what.clone(), grade));
                graded.sort_by(|a, b| a.0.cmp(&b.0));
            }
            (_, None) => graded.retain(|(name, _)| *name != what),
        }
        Ok(())
    };
    Field::new(name, label, Takes::Words(offered), show, set)
}

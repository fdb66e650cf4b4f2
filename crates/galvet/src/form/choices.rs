//! Fields that offer what can be answered: words and ticks.

use super::field::{Field, Offered, Place, Takes};
use galvet_core::base::Keyed;

/// Words known beforehand, to choose from.
fn fixed(words: impl IntoIterator<Item = (&'static str, &'static str)>) -> Offered {
    let words = words.into_iter();
    words
        .map(|(key, label)| (key.into(), label.into()))
        .collect()
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

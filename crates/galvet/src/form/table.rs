//! The one table of a form: its fields under their headings, and what follows from them.

use super::Sent;
use super::draft::Draft;
use super::field::{Field, Takes};
use super::refusal::{Mistakes, Refusal};
use super::shown::{ORDERS, Shown, clash, clashes_told};
use super::view::{FieldView, FormView, GroupView, NotTaken};
use galvet_core::base::System;
use std::borrow::Cow;

/// Fields under a heading.
pub struct Group<D> {
    /// The heading.
    pub title: &'static str,
    /// What is said beneath it.
    pub hint: &'static str,
    /// Whether it is folded away until somebody opens it.
    pub folded: bool,
    /// The fields, in the order they are asked.
    pub fields: Vec<Field<D>>,
}

/// A form's fields.
pub struct Table<D>(pub Vec<Group<D>>);

impl<D: Draft> Table<D> {
    /// Fields under no heading.
    pub fn plain(fields: Vec<Field<D>>) -> Self {
        Self(vec![Group {
            title: "",
            hint: "",
            folded: false,
            fields,
        }])
    }

    fn fields(&self) -> impl Iterator<Item = &Field<D>> {
        self.0.iter().flat_map(|group| &group.fields)
    }

    /// The form as it stands for a draft.
    pub fn shown(&self, draft: &D, system: System) -> Shown {
        let mut draft = draft.clone();
        Shown::of(self.fields().map(|field| {
            let text = (field.show)(&mut draft, system);
            (field.name.clone(), text)
        }))
    }

    /// Puts what was typed on a record as it stands: only fields whose text is another than
    /// the form showed. Of a form that does not say what it showed, those that differ from
    /// what is kept.
    ///
    /// # Errors
    /// What was not understood, and what somebody else made something else since, field by
    /// field; the record stays as it is then.
    pub fn put(&self, record: &mut D::Record, form: &Sent, system: System) -> Result<(), Refusal> {
        let mut draft = D::of(record);
        let now = || self.shown(&draft, system);
        let (was, form) = match Shown::said(form) {
            Some(was) => (was, Cow::Borrowed(form)),
            None => (now(), Cow::Owned(self.with_ticks(form, &now()))),
        };
        let typed = self.type_in(&mut draft, &form, Some(&was), system);
        *record = made_of(draft, typed)?;
        Ok(())
    }

    /// A form that does not say what it showed, with the ticks it does not send as they
    /// are: nobody knows whether they were on it.
    fn with_ticks(&self, form: &Sent, now: &Shown) -> Sent {
        let mut form = form.clone();
        for field in self.fields().filter(|f| f.takes == Takes::Tick) {
            let set = now.text(&field.name).to_owned();
            form.entry(field.name.clone()).or_insert(set);
        }
        form
    }

    /// A new record as it was typed, from one with what is usual in it.
    ///
    /// # Errors
    /// What was not understood or is missing, field by field.
    pub fn make(
        &self,
        usual: &D::Record,
        form: &Sent,
        system: System,
    ) -> Result<D::Record, Refusal> {
        let mut draft = D::of(usual);
        let mut form = form.clone();
        // What was not sent is asked for where it must be there.
        let stands = self.shown(&draft, system);
        for field in self.fields().filter(|f| f.takes != Takes::Tick) {
            let text = stands.text(&field.name).to_owned();
            form.entry(field.name.clone()).or_insert(text);
        }
        let typed = self.type_in(&mut draft, &form, None, system);
        Ok(made_of(draft, typed)?)
    }

    /// What was typed, over a record as it stands or, without one, as a new one.
    ///
    /// # Errors
    /// See [`Table::put`] and [`Table::make`].
    pub fn typed_over(
        &self,
        there: Option<&D::Record>,
        usual: impl FnOnce() -> D::Record,
        form: &Sent,
        system: System,
    ) -> Result<D::Record, Refusal>
    where
        D::Record: Clone,
    {
        let Some(there) = there else {
            return self.make(&usual(), form, system);
        };
        let mut typed = there.clone();
        self.put(&mut typed, form, system)?;
        Ok(typed)
    }

    /// Whether nobody changed a record since a form showed it, for taking it off.
    ///
    /// # Errors
    /// In words, what is different now.
    pub fn unchanged(
        &self,
        record: &D::Record,
        form: &Sent,
        system: System,
    ) -> Result<(), Refusal> {
        Ok(self.shown(&D::of(record), system).unchanged(form)?)
    }

    /// Types a form into a draft; `was` is what it showed, `None` for a new record's.
    fn type_in(
        &self,
        draft: &mut D,
        form: &Sent,
        was: Option<&Shown>,
        system: System,
    ) -> Result<(), Mistakes> {
        let now = self.shown(draft, system);
        let mut mistakes = Mistakes::new();
        let mut clashes = Mistakes::new();
        for field in self.fields() {
            let Some(typed) = field.sent(form) else {
                continue;
            };
            let was = was.map(|was| was.text(&field.name).trim());
            let now = now.text(&field.name).trim();
            // Left as it stood, or as it stands by now: what is kept is more exact.
            if was == Some(&typed) || was.is_some() && typed == now {
                continue;
            }
            if let Err(problem) = (field.set)(draft, &typed, system) {
                mistakes.insert(field.name.clone(), problem);
                continue;
            }
            // `9.5"` is `24.1 cm`: no clash with oneself.
            let understood = (field.show)(draft, system);
            let agree = understood.trim() == now && !now.is_empty();
            if was.is_some_and(|was| was != now) && !agree {
                clashes.insert(field.name.clone(), clash(now, &typed));
            }
        }
        for (name, typed) in form {
            let known = self.fields().any(|field| field.name == *name);
            // A field that went with what it was about matters where something was typed.
            let was = was.map_or("", |was| was.text(name).trim());
            if !known && !ORDERS.contains(&name.as_str()) && typed.trim() != was {
                let gone = format!("there is no “{}” to say that of", name.replace('-', " "));
                mistakes.insert(String::new(), gone);
            }
        }
        if !mistakes.is_empty() {
            mistakes.extend(clashes);
            return Err(mistakes);
        }
        if !clashes.is_empty() {
            return Err(clashes_told(clashes));
        }
        Ok(())
    }

    /// What is said at the head of a form that was not taken: of the whole, else where to
    /// look, which may be far below.
    fn trouble(&self, not_taken: &NotTaken) -> String {
        let whole = not_taken.mistake("");
        let wrong = self
            .fields()
            .filter(|field| not_taken.mistakes.contains_key(&field.name));
        let wrong: Vec<String> = wrong.map(|f| format!("“{}”", f.label)).collect();
        if whole.is_empty() && !wrong.is_empty() {
            return format!("look at {}", wrong.join(", "));
        }
        whole
    }

    /// The form of a record, or of a new one.
    pub fn form_or_new(
        &self,
        record: Option<&D::Record>,
        usual: impl FnOnce() -> D::Record,
        not_taken: &NotTaken,
        system: System,
    ) -> FormView {
        match record {
            Some(record) => self.form(record, false, not_taken, system),
            None => self.form(&usual(), true, not_taken, system),
        }
    }

    /// The form to be filled in: of a record, or of a new one that has what is usual in it.
    pub fn form(
        &self,
        record: &D::Record,
        is_new: bool,
        not_taken: &NotTaken,
        system: System,
    ) -> FormView {
        let shown = self.shown(&D::of(record), system);
        let groups = self.0.iter().map(|group| GroupView {
            title: group.title,
            hint: group.hint,
            folded: group.folded,
            fields: group
                .fields
                .iter()
                .map(|field| FieldView::of(field, &shown, not_taken))
                .collect(),
        });
        FormView {
            groups: groups.collect(),
            trouble: self.trouble(not_taken),
            shown: if is_new {
                String::new()
            } else {
                shown.sent_along()
            },
        }
    }
}

/// The record of a draft, where all that was typed was understood; else all that is wrong,
/// told at once.
fn made_of<D: Draft>(draft: D, typed: Result<(), Mistakes>) -> Result<D::Record, Mistakes> {
    let Err(mut mistakes) = typed else {
        return draft.made();
    };
    // What is wrong with the whole may come of what was not understood.
    for (field, problem) in draft.made().err().unwrap_or_default() {
        if !field.is_empty() {
            mistakes.entry(field).or_insert(problem);
        }
    }
    Err(mistakes)
}

impl<D> Field<D> {
    /// What was sent of it; `None` where nothing was. A tick that is not set is not sent.
    fn sent(&self, form: &Sent) -> Option<String> {
        match form.get(&self.name) {
            Some(typed) => Some(typed.replace("\r\n", "\n").trim().to_owned()),
            None => (self.takes == Takes::Tick).then(String::new),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::{name, number, tick, yes_no};
    use galvet_core::base::{Bounds, Dimension};

    /// A made-up record, with a figure that no form shows to its last digit.
    #[derive(Debug, Clone, PartialEq)]
    struct Jetty {
        name: String,
        width: f64,
        floor: Option<f64>,
        padded: Option<bool>,
        lit: bool,
        /// No form shows it.
        built: u32,
    }

    impl Draft for Jetty {
        type Record = Self;

        fn of(record: &Self) -> Self {
            record.clone()
        }

        fn made(self) -> Result<Self, Mistakes> {
            Ok(self)
        }
    }

    const WIDE: Bounds = Bounds::new("width", Dimension::ShortLength, 0.02, 1.5);
    const METRIC: System = System::Metric;

    fn table() -> Table<Jetty> {
        Table::plain(vec![
            name("name", "called", |j: &mut Jetty| &mut j.name),
            number("width", "wide", WIDE, |j: &mut Jetty| &mut j.width),
            number("floor", "its floor", WIDE, |j: &mut Jetty| &mut j.floor),
            yes_no("padded", "padded", |j: &mut Jetty| &mut j.padded),
            tick("lit", "lit", |j: &mut Jetty| &mut j.lit),
        ])
    }

    fn jetty() -> Jetty {
        Jetty {
            name: "Old quay".into(),
            width: 0.440_37,
            floor: Some(0.135),
            padded: Some(false),
            lit: true,
            built: 1931,
        }
    }

    /// A form opened on `was`, with some fields typed in, others not sent at all.
    fn opened(was: &Jetty, typed: &[(&str, &str)], off: &[&str]) -> Sent {
        let shown = table().shown(was, METRIC);
        let mut form = shown.fields();
        form.insert("shown".to_owned(), shown.sent_along());
        form.extend(typed.iter().map(|&(n, v)| (n.to_owned(), v.to_owned())));
        form.retain(|name, _| !off.contains(&name.as_str()));
        form
    }

    #[test]
    fn only_what_was_typed_is_set_on_the_record_as_it_stands_now() {
        let was = jetty();
        let mut now = Jetty {
            width: 0.46,
            built: 1932,
            ..was.clone()
        };
        let typed = [("floor", "12"), ("padded", ""), ("name", "Old quay")];
        let form = opened(&was, &typed, &["lit"]);
        let wanted = Jetty {
            // Mine, what I emptied, what I took the tick off; theirs and the rest stay.
            floor: Some(0.12),
            padded: None,
            lit: false,
            ..now.clone()
        };
        table().put(&mut now, &form, METRIC).unwrap();
        assert_eq!(now, wanted);
        // A field that is not sent is not touched, unless it is a tick.
        let part = opened(&now, &[("floor", "11")], &["width", "name", "padded"]);
        table().put(&mut now, &part, METRIC).unwrap();
        assert_eq!(now.floor, Some(0.11));
        assert_eq!((now.width, now.name.as_str()), (0.46, "Old quay"));
        // Opened and saved, nothing is.
        let mut same = was.clone();
        let untouched = opened(&was, &[], &[]);
        table().put(&mut same, &untouched, METRIC).unwrap();
        assert_eq!(same, was);
    }

    #[test]
    fn two_who_typed_into_one_field_are_told() {
        let was = jetty();
        let theirs = Jetty {
            width: 0.46,
            ..was.clone()
        };
        let keep = |theirs: &Jetty, typed: &str| {
            let mut now = theirs.clone();
            let form = opened(&was, &[("width", typed)], &[]);
            let done = table().put(&mut now, &form, METRIC);
            assert!(done.is_ok() || now == *theirs, "changed though refused");
            done.map_err(|refused| refused.0)
        };
        let told = keep(&theirs, "45").unwrap_err();
        assert_eq!(told["width"], "is “46.0\u{a0}cm” now, yours is “45”");
        assert!(told[""].contains("width is “46.0\u{a0}cm” now"), "{told:?}");
        // The same twice is no clash, nor is it in other words.
        assert_eq!(keep(&theirs, "46.0 cm"), Ok(()));
        assert_eq!(keep(&theirs, "0.46 m"), Ok(()));
        // One that was emptied there while it was changed here is one.
        let emptied = Jetty {
            floor: None,
            ..was.clone()
        };
        let mut now = emptied.clone();
        let form = opened(&was, &[("floor", "12")], &[]);
        let told = table().put(&mut now, &form, METRIC).unwrap_err();
        assert!(told.0["floor"].contains("“nothing” now"));
        // What they typed to a digit the form does not show stays.
        let exact = Jetty {
            width: 0.460_12,
            ..was.clone()
        };
        let mut now = exact.clone();
        let form = opened(&was, &[("width", "46.0\u{a0}cm")], &[]);
        table().put(&mut now, &form, METRIC).unwrap();
        assert_eq!(now, exact);
        // A form that does not say what it showed is held against what stands there, and
        // takes no tick off by not sending it.
        let bare: Sent = [("width".to_owned(), "45".to_owned())].into();
        let mut now = theirs.clone();
        table().put(&mut now, &bare, METRIC).unwrap();
        let wanted = Jetty {
            width: 0.45,
            ..was.clone()
        };
        assert_eq!(now, wanted);
    }

    #[test]
    fn a_field_that_is_not_in_the_table_is_refused() {
        let was = jetty();
        let mut now = was.clone();
        let form = opened(&was, &[("colour", "red")], &[]);
        let told = table().put(&mut now, &form, METRIC).unwrap_err();
        assert!(told.0[""].contains("colour"), "{told}");
        assert_eq!(now, was);
        // What says what to do, and the units it was typed in, are no fields.
        let form = opened(&was, &[("action", "keep"), ("units", "metric")], &[]);
        table().put(&mut now, &form, METRIC).unwrap();
        assert_eq!(now, was);
    }

    #[test]
    fn a_new_record_is_asked_for_what_must_be_there() {
        let usual = Jetty {
            name: String::new(),
            width: f64::NAN,
            lit: false,
            ..jetty()
        };
        let told = table().make(&usual, &Sent::new(), METRIC).unwrap_err();
        assert_eq!(told.0.keys().collect::<Vec<_>>(), ["name", "width"]);
        // The head of the form says where to look.
        let not_taken = NotTaken {
            typed: Sent::new(),
            mistakes: told.0,
        };
        let form = table().form(&usual, true, &not_taken, METRIC);
        assert_eq!(form.trouble, "look at “called”, “wide”");
        let form = [("name", "New quay"), ("width", "50")];
        let form = form.map(|(n, v)| (n.to_owned(), v.to_owned())).into();
        let made = table().make(&usual, &form, METRIC).unwrap();
        let wanted = Jetty {
            name: "New quay".into(),
            width: 0.5,
            lit: false,
            ..jetty()
        };
        assert_eq!(made, wanted);
    }

    #[test]
    fn nothing_is_taken_off_that_somebody_changed_meanwhile() {
        let was = jetty();
        let form = opened(&was, &[], &[]);
        assert_eq!(table().unchanged(&was, &form, METRIC), Ok(()));
        let theirs = Jetty { width: 0.46, ..was };
        let told = table().unchanged(&theirs, &form, METRIC).unwrap_err();
        let said = "now width is “46.0\u{a0}cm”. Take";
        assert!(told.to_string().contains(said), "{told}");
    }
}

//! Photos of a hull: what is typed of one, which it may show, and a length read off the tape
//! in it.

use super::{EditError, edit_hull};
use crate::form::{
    Group, Mistakes, Refusal, Table, day, free_slug, line, name, note, number, slug_of, whole,
};
use galvet_core::base::{Bounds, Dimension, Keyed};
use galvet_core::guide::Guides;
use galvet_core::hull::{Measure, PhotoLength, Reading, Source, Survey, TapeInPhoto};
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::photo::{LONGEST_SIDE, Photo, Shows};
use galvet_store::files::sheet::Document;
use galvet_store::{Kind, Record, Store, StoreError};

/// Longest note of a photo, characters.
const LONGEST: usize = 1_000;

whole!(Photo);

/// The form of a photo that is there.
pub(crate) fn photo_form() -> Table<Photo> {
    type P = Photo;
    Table::plain(vec![
        name("name", "called", |p: &mut P| &mut p.name),
        day("date", "day", |p: &mut P| &mut p.date),
        line("who", "who", |p: &mut P| &mut p.who),
        note("note", "note", LONGEST, |p: &mut P| &mut p.note),
    ])
}

/// The lengths that may be read off a photo.
fn lengths() -> impl Iterator<Item = Measure> {
    let long = |m: &Measure| {
        matches!(
            m.bounds().dimension,
            Dimension::Length | Dimension::ShortLength
        )
    };
    Measure::ALL.iter().copied().filter(long)
}

/// Everything on a hull a photo may show: the word in a form, and what it is called.
pub(crate) fn shown_of(survey: &Survey) -> Vec<(String, String)> {
    let mut all = vec![(Shows::Hull, "the hull".to_owned())];
    let zones = survey.fitout.zones.iter();
    all.extend(zones.map(|z| (Shows::Place(z.name.clone()), z.name.clone())));
    let fittings = survey.fitout.fittings.iter();
    all.extend(fittings.map(|f| (Shows::Fitting(f.name.clone()), f.name.clone())));
    let figures = Measure::ALL.iter();
    all.extend(figures.map(|m| {
        let label = m.label().to_owned();
        (Shows::Figure(m.key().to_owned()), label)
    }));
    let word = |(shows, label): (Shows, String)| (shows.word(), label);
    all.into_iter().map(word).collect()
}

/// What a photo shows, in words.
pub(crate) fn shows_in_words(shows: &Shows) -> String {
    match shows {
        Shows::Hull => "the hull".to_owned(),
        Shows::Place(name) | Shows::Fitting(name) => name.clone(),
        Shows::Figure(key) => {
            Measure::from_key(key).map_or_else(|| key.clone(), |m| m.label().to_owned())
        }
    }
}

/// A photo as it is sent, its pixels kept already.
pub(crate) struct NewPhoto {
    pub(crate) picture: String,
    pub(crate) size: (u32, u32),
}

/// Puts photos of a hull in, in one step; what of the hull they show is one of
/// [`shown_of`]. The slug of the first.
///
/// # Errors
/// [`EditError`].
pub(crate) fn add_photos(
    store: &Store,
    who: &str,
    (hull, photo): (&str, &Photo),
    sent: &[NewPhoto],
) -> Result<String, EditError> {
    let count = sent.len();
    let label = match count {
        1 => format!("photo “{}” added", photo.name),
        _ => format!("{count} photos added"),
    };
    let done = store.write(who, &label, |door| {
        if door.find(Kind::Hull, hull)?.is_none() {
            return Ok(Err(EditError::Gone));
        }
        let most = Photo::MOST;
        if door.photos_of(hull)?.len() + count > most {
            let full = format!("{most} photos are kept of a hull: delete some first");
            return Ok(Err(EditError::Refused(full.into())));
        }
        let mut first = String::new();
        for (at, sent) in sent.iter().enumerate() {
            let called = match count {
                1 => photo.name.clone(),
                _ => format!("{} {}", photo.name, at + 1),
            };
            let kind = Kind::of::<Photo>();
            let key = free_slug(door, kind, &slug_of(&format!("{hull} {called}"), "photo"))?;
            let photo = Photo {
                key: key.clone(),
                name: called,
                hull: hull.to_owned(),
                picture: sent.picture.clone(),
                width: sent.size.0,
                height: sent.size.1,
                ..photo.clone()
            };
            door.put(&Record::Sheet(Document::of(&photo)), None)?;
            if first.is_empty() {
                first = key;
            }
        }
        Ok(Ok(first))
    });
    done.map_err(EditError::Store)?
}

/// Changes a photo of a hull as it stands.
///
/// # Errors
/// [`EditError`].
pub(crate) fn edit_photo(
    store: &Store,
    who: &str,
    key: &str,
    change: impl FnOnce(&mut Photo) -> Result<(), Refusal>,
) -> Result<(), EditError> {
    let label = format!("photo “{}” changed", key.replace('-', " "));
    let kind = Kind::of::<Photo>();
    let done = store.edit(who, &label, (kind, key), |record| {
        let Record::Sheet(document) = &*record else {
            return Err(EditError::Gone);
        };
        let photo = document.sheet::<Photo>().cloned();
        let mut photo = photo.ok_or(EditError::Gone)?;
        change(&mut photo).map_err(EditError::Refused)?;
        *record = Record::Sheet(Document::of(&photo));
        Ok(())
    });
    done?.map(|_| ()).ok_or(EditError::Gone)
}

/// A tape in a picture as it is typed or clicked; lengths in m, places in px.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Taped {
    marks: [(f64, f64); 2],
    shows: [f64; 2],
    graduation: f64,
    ends: [Option<f64>; 4],
}

whole!(Taped);

/// A tape nobody has clicked yet.
pub(crate) fn usual_tape() -> Taped {
    Taped {
        marks: [(f64::NAN, f64::NAN); 2],
        shows: [f64::NAN; 2],
        graduation: 0.001,
        ends: [None; 4],
    }
}

/// Accepted places in a picture, px.
const SPOT: Bounds = Bounds::new(
    "a place in the picture",
    Dimension::Ratio,
    0.0,
    LONGEST_SIDE as f64,
);

/// The form of a tape in a picture.
pub(crate) fn tape_form() -> Table<Taped> {
    type T = Taped;
    let group = |title, hint, folded, fields| Group {
        title,
        hint,
        folded,
        fields,
    };
    let figures = vec![
        number(
            "m1",
            "the tape shows at 1",
            TapeInPhoto::SHOWS,
            |t: &mut T| &mut t.shows[0],
        ),
        number("m2", "and at 2", TapeInPhoto::SHOWS, |t: &mut T| {
            &mut t.shows[1]
        }),
        number(
            "lines",
            "its lines stand apart",
            TapeInPhoto::GRADUATION,
            |t: &mut T| &mut t.graduation,
        ),
    ];
    let spots = vec![
        number("x1", "1, across", SPOT, |t: &mut T| &mut t.marks[0].0),
        number("y1", "1, down", SPOT, |t: &mut T| &mut t.marks[0].1),
        number("x2", "2, across", SPOT, |t: &mut T| &mut t.marks[1].0),
        number("y2", "2, down", SPOT, |t: &mut T| &mut t.marks[1].1),
        number("x3", "end A, across", SPOT, |t: &mut T| &mut t.ends[0]),
        number("y3", "end A, down", SPOT, |t: &mut T| &mut t.ends[1]),
        number("x4", "end B, across", SPOT, |t: &mut T| &mut t.ends[2]),
        number("y4", "end B, down", SPOT, |t: &mut T| &mut t.ends[3]),
    ];
    Table(vec![
        group("", "", false, figures),
        group("Places in the picture, in its pixels", "", true, spots),
    ])
}

impl Taped {
    /// The length that is read off.
    ///
    /// # Errors
    /// What is missing, or gives no length, at its field.
    pub(crate) fn read(&self, guides: &Guides) -> Result<PhotoLength, Refusal> {
        let ends = match self.ends {
            [None, None, None, None] => None,
            [Some(a), Some(b), Some(c), Some(d)] => Some([(a, b), (c, d)]),
            _ => {
                let half = "set both ends, or none where they lie at the tape's marks";
                return Err(Refusal(Mistakes::from([(
                    "x4".to_owned(),
                    half.to_owned(),
                )])));
            }
        };
        let tape = TapeInPhoto {
            marks: self.marks,
            shows: self.shows,
            graduation: self.graduation,
            ends,
        };
        let read = tape.read(guides);
        read.map_err(|none| Refusal(Mistakes::from([("m2".to_owned(), none.to_string())])))
    }
}

/// The figures a length may be kept as: word and label.
pub(crate) fn kept_as() -> Vec<(&'static str, &'static str)> {
    lengths().map(|m| (m.key(), m.label())).collect()
}

/// Keeps a length read off a photo as a reading of the hull.
///
/// # Errors
/// [`EditError`].
pub(crate) fn keep_length(
    store: &Store,
    who: &str,
    photo: &Photo,
    (measure, length): (&str, PhotoLength),
) -> Result<(), EditError> {
    let none = || EditError::Refused("choose which figure this is".to_owned().into());
    let measure = lengths().find(|m| m.key() == measure).ok_or_else(none)?;
    let reading = Reading::new(measure, length.value, Source::Photo);
    let reading = reading.map_err(|odd| EditError::Refused(odd.to_string().into()))?;
    let reading = Reading {
        date: photo.date.clone(),
        who: photo.who.clone(),
        note: format!("off the photo “{}”", photo.name),
        error: Some(length.error),
        ..reading
    };
    let label = format!("{} read off a photo", measure.label());
    let add = |hull: &mut HullRecord| -> Result<(), Refusal> {
        super::add_reading(hull, measure, reading);
        Ok(())
    };
    edit_hull(store, who, &photo.hull, &label, add).map(|_| ())
}

/// What a store says to a picture it does not keep.
pub(crate) fn not_kept(error: StoreError) -> EditError {
    match error {
        StoreError::Reference(why) => EditError::Refused(why.into()),
        error => EditError::Store(error),
    }
}

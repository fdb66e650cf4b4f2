//! Photos of a hull: added, looked at, named, and a length read off a tape in one.

use super::edit::{action, came_of};
use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::form::{FormView, NotTaken, Refusal, Sent};
use crate::survey::{self, EditError};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Dimension;
use galvet_core::guide::Guides;
use galvet_core::hull::PhotoLength;
use galvet_store::files::photo::{LARGEST_FILE, Photo, Picture, Shows};
use galvet_store::{Kind, Store};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::{ContentType, Header, Status};
use rocket::response::Redirect;
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::sync::Semaphore;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Responder, Route, State, get, post, routes};

/// Most pictures sent at once.
const AT_ONCE: usize = 12;

/// Pictures are unpacked one after the other, so that many at once take no more room.
static UNPACKING: Semaphore = Semaphore::const_new(1);

/// One of the pictures of a hull.
struct Shot {
    href: String,
    picture: String,
    name: String,
    shows: String,
    date: String,
    size: (u32, u32),
}

/// The photos of a hull.
#[derive(Template, WebTemplate)]
#[template(path = "photos.html")]
struct PhotosPage {
    frame: Frame,
    key: String,
    name: String,
    shots: Vec<Shot>,
    /// What one may show: word, name, whether it is chosen.
    shows: Vec<(String, String, bool)>,
    called: String,
    date: String,
    trouble: String,
}

fn photos_of(visit_records: &galvet_store::Catalogue, hull: &str) -> Vec<Photo> {
    let all = visit_records.sheets_of::<Photo>();
    all.filter(|photo| photo.hull == hull).cloned().collect()
}

async fn photos_page(
    slug: &str,
    visit: &Visit<'_>,
    (at, called, trouble): (&str, &str, String),
) -> Result<PhotosPage, Trouble> {
    let records = visit.shared.records().await?;
    let hull = records.hull(slug)?;
    let path = format!("/hulls/{slug}/photos");
    let shot = |photo: &Photo| Shot {
        href: visit.to(&format!("{path}/{}", photo.key), &[]),
        picture: photo.picture.clone(),
        name: photo.name.clone(),
        shows: survey::shows_in_words(&photo.shows),
        date: photo.date.clone(),
        size: (photo.width, photo.height),
    };
    let shows = survey::shown_of(&hull.survey).into_iter();
    Ok(PhotosPage {
        frame: visit.frame_of("hull", visit.to(&path, &[]), None).await?,
        key: slug.to_owned(),
        name: hull.survey.name(),
        shots: photos_of(&records.catalogue, slug)
            .iter()
            .map(shot)
            .collect(),
        shows: shows
            .map(|(word, label)| {
                let chosen = word == at;
                (word, label, chosen)
            })
            .collect(),
        called: called.to_owned(),
        date: today(),
        trouble,
    })
}

#[get("/hulls/<slug>/photos?<at>")]
async fn page(slug: &str, at: Option<&str>, visit: Visit<'_>) -> Result<PhotosPage, Trouble> {
    photos_page(slug, &visit, (at.unwrap_or_default(), "", String::new())).await
}

#[derive(FromForm)]
struct Upload<'r> {
    #[field(name = "picture")]
    pictures: Vec<TempFile<'r>>,
    #[field(default = String::new())]
    name: String,
    #[field(default = String::new())]
    shows: String,
    #[field(default = String::new())]
    date: String,
    /// The outing they were taken on.
    #[field(default = String::new())]
    outing: String,
}

/// Reads a picture that was sent and keeps its pixels; why it is not one, with its name.
async fn kept(
    file: &TempFile<'_>,
    store: &Store,
) -> Result<Result<survey::NewPhoto, String>, Trouble> {
    let raw = file.raw_name().map_or("the picture".to_owned(), |name| {
        galvet_store::files::echo(name.dangerous_unsafe_unsanitized_raw().as_str())
    });
    let refused = |why: String| Ok(Err(format!("“{raw}”: {why}")));
    let most = LARGEST_FILE as u64;
    if file.len() > most {
        return refused(format!("a picture may have up to {} MiB", most >> 20));
    }
    let mut bytes = Vec::new();
    let read = async {
        let mut open = file.open().await?;
        open.read_to_end(&mut bytes).await
    };
    if let Err(error) = read.await {
        return refused(error.to_string());
    }
    let turn = UNPACKING.acquire().await;
    let store = store.clone();
    let done = spawn_blocking(move || {
        let picture = match Picture::read(&bytes) {
            Ok(picture) => picture,
            Err(none) => return Ok(Err(none.to_string())),
        };
        let size = (picture.width, picture.height);
        let name = store.keep_picture(&picture).map_err(survey::not_kept);
        name.map(|picture| Ok(survey::NewPhoto { picture, size }))
    });
    let done = done.await?;
    drop(turn);
    match came_of(done)? {
        Ok(Ok(photo)) => Ok(Ok(photo)),
        Ok(Err(why)) => refused(why),
        Err(refusal) => refused(refusal.to_string()),
    }
}

/// Adds photos, all of them or none.
#[post("/hulls/<slug>/photos", data = "<form>")]
async fn add(
    slug: &str,
    form: Form<Upload<'_>>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, PhotosPage)>, Trouble> {
    let sent = form.into_inner();
    let records = visit.shared.records().await?;
    let hull = records.hull(slug)?;
    let offered = survey::shown_of(&hull.survey);
    let shown = offered.iter().find(|(word, _)| *word == sent.shows);
    let label = shown.map_or("the hull", |(_, label)| label.as_str());
    let asked = (sent.shows.as_str(), sent.name.as_str());
    let mut wrong = Vec::new();
    let photo = Photo {
        key: String::new(),
        name: match sent.name.trim() {
            "" => label.to_owned(),
            _ => galvet_core::base::name(&sent.name).unwrap_or_else(|odd| {
                wrong.push(format!("called: {odd}"));
                String::new()
            }),
        },
        hull: slug.to_owned(),
        shows: Shows::from_word(&sent.shows)
            .filter(|_| shown.is_some())
            .unwrap_or_default(),
        date: match sent.date.trim() {
            "" => String::new(),
            typed => galvet_core::base::day(typed).unwrap_or_else(|odd| {
                wrong.push(format!("day: {odd}"));
                String::new()
            }),
        },
        who: String::new(),
        note: String::new(),
        outing: sent.outing.clone(),
        picture: String::new(),
        width: 0,
        height: 0,
    };
    let files: Vec<_> = sent.pictures.iter().filter(|f| f.len() > 0).collect();
    if files.is_empty() {
        wrong.push("choose a picture first".to_owned());
    }
    if files.len() > AT_ONCE {
        wrong.push(format!("up to {AT_ONCE} pictures at once"));
    }
    let on = sent.outing.clone();
    let mut shots = Vec::new();
    if wrong.is_empty() {
        for file in files {
            match kept(file, &visit.shared.store).await? {
                Ok(shot) => shots.push(shot),
                Err(why) => wrong.push(why),
            }
        }
    }
    if wrong.is_empty() {
        let (store, hand, slug) = (
            visit.shared.store.clone(),
            visit.reader.hand,
            slug.to_owned(),
        );
        let done = spawn_blocking(move || {
            survey::add_photos(&store, hand.who(), (&slug, &photo), &shots).map(|_| slug)
        });
        match came_of(done.await?)? {
            Ok(slug) => {
                let back = match on.as_str() {
                    "" => format!("/hulls/{slug}/photos"),
                    outing => format!("/log/outings/{outing}"),
                };
                return Ok(Ok(visit.go(&back, &[])));
            }
            Err(refusal) => wrong.push(refusal.to_string()),
        }
    }
    let page = photos_page(slug, &visit, (asked.0, asked.1, wrong.join(". "))).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

/// A length as it was read off.
struct ReadOff {
    /// With its error.
    text: String,
    /// What it may be kept as: word, label, whether it is chosen.
    figures: Vec<(&'static str, &'static str, bool)>,
}

/// A photo.
#[derive(Template, WebTemplate)]
#[template(path = "photo.html")]
struct PhotoPage {
    frame: Frame,
    hull: (String, String),
    photo: Photo,
    shows: Vec<(String, String, bool)>,
    form: FormView,
    tape: FormView,
    read: Option<ReadOff>,
}

/// What was sent to a photo's page and not done, or is to be shown with it.
#[derive(Default)]
struct Came {
    not_taken: NotTaken,
    tape: NotTaken,
    length: Option<PhotoLength>,
}

fn find(catalogue: &galvet_store::Catalogue, slug: &str, key: &str) -> Result<Photo, Trouble> {
    let all = photos_of(catalogue, slug).into_iter();
    all.into_iter().find(|p| p.key == key).ok_or(Trouble::Gone)
}

async fn photo_page(
    (slug, key): (&str, &str),
    visit: &Visit<'_>,
    came: Came,
) -> Result<PhotoPage, Trouble> {
    let records = visit.shared.records().await?;
    let hull = records.hull(slug)?;
    let photo = find(&records.catalogue, slug, key)?;
    let here = visit.to(&format!("/hulls/{slug}/photos/{key}"), &[]);
    let units = visit.reader.units;
    let shown = photo.shows.word();
    let shows = survey::shown_of(&hull.survey).into_iter();
    let read = came.length.map(|length| ReadOff {
        text: format!(
            "{} ± {}",
            units.text(Dimension::ShortLength, length.value, 1),
            units.text(Dimension::ShortLength, length.error, 1)
        ),
        figures: survey::kept_as()
            .into_iter()
            .map(|(word, label)| (word, label, photo.shows.name() == word))
            .collect(),
    });
    Ok(PhotoPage {
        frame: visit
            .frame_of("hull", here, Some((Kind::of::<Photo>(), key)))
            .await?,
        hull: (slug.to_owned(), hull.survey.name()),
        shows: shows
            .map(|(word, label)| {
                let chosen = word == shown;
                (word, label, chosen)
            })
            .collect(),
        form: survey::photo_form().form(&photo, false, &came.not_taken, units),
        tape: survey::tape_form().form(&survey::usual_tape(), true, &came.tape, units),
        photo,
        read,
    })
}

#[get("/hulls/<slug>/photos/<key>")]
async fn one(slug: &str, key: &str, visit: Visit<'_>) -> Result<PhotoPage, Trouble> {
    photo_page((slug, key), &visit, Came::default()).await
}

/// What came of a form on a photo's page.
enum Done {
    /// Go there.
    Go(String),
    /// Read, and to be shown; why it was not kept.
    Read(PhotoLength, Refusal),
}

/// Does what a form on a photo's page asks.
fn apply(
    (store, visit): (&Store, (&str, galvet_core::base::System)),
    photo: &Photo,
    offered: &[(String, String)],
    sent: &Sent,
) -> Result<Done, EditError> {
    let (who, units) = visit;
    let here = format!("/hulls/{}/photos", photo.hull);
    let its = format!("{here}/{}", photo.key);
    match action(sent) {
        "forget" => {
            let gone = store.throw_away(who, (Kind::of::<Photo>(), &photo.key), None)?;
            gone.map(|_| Done::Go(here)).ok_or(EditError::Gone)
        }
        "move" => {
            let word = sent.get("shows").map_or("", String::as_str);
            let known = offered.iter().any(|(w, _)| w == word);
            let shows = Shows::from_word(word).filter(|_| known);
            survey::edit_photo(store, who, &photo.key, |photo| {
                photo.shows = shows.ok_or("that is nothing of this hull")?;
                Ok(())
            })?;
            Ok(Done::Go(its))
        }
        what @ ("read" | "length") => {
            let mut tape = sent.clone();
            let figure = tape.remove("figure").unwrap_or_default();
            let typed = survey::tape_form().make(&survey::usual_tape(), &tape, units);
            let typed = typed.map_err(EditError::Refused)?;
            let length = typed.read(&Guides::default()).map_err(EditError::Refused)?;
            if what == "read" {
                return Ok(Done::Read(length, Refusal::default()));
            }
            match survey::keep_length(store, who, photo, (&figure, length)) {
                Ok(()) => Ok(Done::Go(format!("/hulls/{}/record", photo.hull))),
                Err(EditError::Refused(why)) => Ok(Done::Read(length, why)),
                Err(error) => Err(error),
            }
        }
        _ => {
            survey::edit_photo(store, who, &photo.key, |photo| {
                survey::photo_form().put(photo, sent, units)
            })?;
            Ok(Done::Go(its))
        }
    }
}

/// Changes a photo, deletes it, or reads a length off it.
#[post("/hulls/<slug>/photos/<key>", data = "<form>")]
async fn change(
    slug: &str,
    key: &str,
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, PhotoPage)>, Trouble> {
    let typed = form.into_inner();
    let records = visit.shared.records().await?;
    let photo = find(&records.catalogue, slug, key)?;
    let offered = survey::shown_of(&records.hull(slug)?.survey);
    let (store, hand, units) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        visit.reader.units,
    );
    let sent = typed.clone();
    let done =
        spawn_blocking(move || apply((&store, (hand.who(), units)), &photo, &offered, &sent));
    let taped = matches!(action(&typed), "read" | "length");
    let again = |mistakes| NotTaken {
        typed: typed.clone(),
        mistakes,
    };
    let (status, came) = match came_of(done.await?)? {
        Ok(Done::Go(path)) => return Ok(Ok(visit.go(&path, &[]))),
        Ok(Done::Read(length, why)) => {
            let status = if why.0.is_empty() {
                Status::Ok
            } else {
                Status::UnprocessableEntity
            };
            let came = Came {
                tape: again(why.0),
                length: Some(length),
                ..Came::default()
            };
            (status, came)
        }
        Err(refusal) => {
            let not_taken = again(refusal.0);
            let came = if taped {
                Came {
                    tape: not_taken,
                    ..Came::default()
                }
            } else {
                Came {
                    not_taken,
                    ..Came::default()
                }
            };
            (Status::UnprocessableEntity, came)
        }
    };
    let page = photo_page((slug, key), &visit, came).await?;
    Ok(Err((status, page)))
}

/// A picture: what a name stands for never changes.
#[derive(Responder)]
struct Pixels {
    jpeg: (ContentType, Vec<u8>),
    kept: Header<'static>,
}

#[get("/pictures/<file>")]
async fn picture(file: &str, shared: &State<super::shared::Shared>) -> Result<Pixels, Trouble> {
    let name = file.strip_suffix(".jpg").ok_or(Trouble::Gone)?.to_owned();
    let store = shared.store.clone();
    let jpeg = spawn_blocking(move || store.picture(&name)).await??;
    Ok(Pixels {
        jpeg: (ContentType::JPEG, jpeg.ok_or(Trouble::Gone)?),
        kept: Header::new("cache-control", "private, max-age=31536000, immutable"),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, add, one, change, picture]
}

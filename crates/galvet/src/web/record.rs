//! Working on a hull's record: readings, words, history, throwing away.

use super::edit::{came_of, throw};
use super::errors::Told;
use super::reader::{back_to, today};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::who::Names;
use crate::form::{Refusal, Sent};
use crate::present::page::survey::record::{self, NotTaken, RecordView, reading_name};
use crate::survey::{self, EditError};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::hull::{Kept, Measure};
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Record, Role, Store, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "record.html")]
struct RecordPage {
    frame: Frame,
    /// Said at the top: a change that was not made, and why.
    trouble: String,
    /// Whether there is a simulated scale.
    simulates: bool,
    /// Where the older changes are, if there are more.
    older: Option<String>,
    record: RecordView,
}

/// A page, or where to go.
type Answer = Result<Result<Redirect, (Status, RecordPage)>, Trouble>;

/// Changes of the history on one page.
const CHANGES: usize = 40;

async fn record_page(
    slug: &str,
    visit: &Visit<'_>,
    (older, not_taken): (Option<i64>, &NotTaken),
) -> Result<RecordPage, Trouble> {
    let (store, key, hand) = (
        visit.shared.store.clone(),
        slug.to_owned(),
        visit.reader.hand,
    );
    // Who changed what is for those who change something.
    let works = visit.visitor.role() >= Some(Role::Staff);
    let read = move || -> Result<_, StoreError> {
        let Some((known, Record::Hull(hull))) = store.record(Kind::Hull, &key)? else {
            return Ok(None);
        };
        let most = if works { CHANGES + 1 } else { 0 };
        let mut history = store.history(Kind::Hull, known.id, (most, older))?;
        let names = Names::read(&store, hand)?;
        for change in &mut history {
            change.who = names.call(&change.who).to_owned();
        }
        Ok(Some((known, hull, history)))
    };
    let read = spawn_blocking(read).await??;
    let (known, hull, mut history) = read.ok_or(Trouble::Gone)?;
    let path = format!("/hulls/{slug}/record");
    let here = visit.to(&path, &[]);
    // One more was read than is shown: then there are older ones.
    let more = history.len() > CHANGES;
    history.truncate(CHANGES);
    let last = history.last().map(|change| change.known.revision);
    let older = last.filter(|_| more).map(|revision| {
        let address = visit.to(&path, &[("older", &revision.to_string())]);
        format!("{address}#history-title")
    });
    let about = Some((Kind::Hull, slug));
    Ok(RecordPage {
        frame: visit.frame_of("hull", here, about).await?,
        simulates: visit.shared.simulates,
        older,
        trouble: not_taken.problem.clone(),
        record: record::record(
            &hull,
            known,
            &history,
            not_taken,
            (&today(), visit.reader.units),
        ),
    })
}

/// The record; of a `measure` with the form for another reading open.
#[get("/hulls/<slug>/record?<older>&<measure>")]
async fn page(
    slug: &str,
    older: Option<i64>,
    measure: Option<&str>,
    visit: Visit<'_>,
) -> Result<RecordPage, Trouble> {
    let opened = NotTaken {
        measure: measure.and_then(Measure::from_key),
        ..NotTaken::default()
    };
    record_page(slug, &visit, (older, &opened)).await
}

/// Makes a change off the request's thread, and comes back to the record; a
/// change that is refused comes back as typed.
async fn change(
    slug: &str,
    visit: &Visit<'_>,
    typed: NotTaken,
    make: impl FnOnce(&Store, &str) -> Result<(), EditError> + Send + 'static,
) -> Answer {
    let (store, key) = (visit.shared.store.clone(), slug.to_owned());
    let done = spawn_blocking(move || make(&store, &key));
    let refusal = match came_of(done.await?)? {
        Ok(()) if typed.back.is_empty() => {
            return Ok(Ok(visit.go(&format!("/hulls/{slug}/record"), &[])));
        }
        Ok(()) => return Ok(Ok(Redirect::to(back_to(&typed.back)))),
        Err(refusal) => refusal,
    };
    let mut not_taken = NotTaken {
        problem: refusal.to_string(),
        ..typed
    };
    if !not_taken.form.typed.is_empty() {
        not_taken.form.mistakes = refusal.0;
    }
    let page = record_page(slug, visit, (None, &not_taken)).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

/// Adds a reading; what stood there stays.
#[post("/hulls/<slug>/readings", data = "<form>")]
async fn add_reading(slug: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let mut form = form.into_inner();
    let measure = form.remove("measure");
    let Some(measure) = measure.and_then(|word| Measure::from_key(&word)) else {
        return Err(Trouble::Gone);
    };
    let mut not_taken = NotTaken {
        measure: Some(measure),
        // Where to go when it is kept; the record where it says nothing.
        back: form.get("back").cloned().unwrap_or_default(),
        ..NotTaken::default()
    };
    not_taken.form.typed.clone_from(&form);
    let make = move |store: &Store, slug: &str| {
        let table = survey::reading_form(measure);
        let reading = table.make(&survey::usual_reading(today()), &form, reader.units);
        let reading = reading.map_err(EditError::Refused)?;
        let label = format!("{} noted", measure.label());
        let add = |hull: &mut HullRecord| -> Result<(), Refusal> {
            survey::add_reading(hull, measure, reading);
            Ok(())
        };
        survey::edit_hull(store, reader.hand.who(), slug, &label, add).map(|_| ())
    };
    change(slug, &visit, not_taken, make).await
}

#[derive(FromForm)]
struct OffForm<'r> {
    measure: &'r str,
    reading: &'r str,
}

/// Takes a reading off; the history keeps it.
#[post("/hulls/<slug>/readings/off", data = "<form>")]
async fn take_off(slug: &str, form: Form<OffForm<'_>>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let Some(measure) = Measure::from_key(form.measure) else {
        return Err(Trouble::Gone);
    };
    let named = form.reading.to_owned();
    let make = move |store: &Store, slug: &str| {
        let label = format!("a reading of the {} taken off", measure.label());
        survey::edit_hull(store, reader.hand.who(), slug, &label, |hull| {
            let readings = hull.survey.readings.get(&measure);
            let mine = readings
                .into_iter()
                .flatten()
                .find(|r| reading_name(r) == named);
            let mine = mine
                .cloned()
                .ok_or("that reading is not on the record any more")?;
            survey::forget_reading(hull, measure, &mine)
        })
        .map(|_| ())
    };
    change(slug, &visit, NotTaken::default(), make).await
}

/// Sets the words that were typed anew; what somebody else changed meanwhile stays.
#[post("/hulls/<slug>/words", data = "<form>")]
async fn set_words(slug: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let form = form.into_inner();
    let mut not_taken = NotTaken {
        back: form.get("back").cloned().unwrap_or_default(),
        ..NotTaken::default()
    };
    not_taken.form.typed.clone_from(&form);
    let make = move |store: &Store, slug: &str| {
        survey::edit_hull(store, reader.hand.who(), slug, "described anew", |hull| {
            survey::words_form().put(&mut hull.survey, &form, reader.units)
        })
        .map(|_| ())
    };
    change(slug, &visit, not_taken, make).await
}

/// Stands by an odd figure: it is not asked about again while it stays so.
#[post("/hulls/<slug>/stand-by", data = "<form>")]
async fn stand_by(slug: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let mut form = form.into_inner();
    let nothing = Kept {
        finding: form.remove("finding").unwrap_or_default(),
        who: String::new(),
        date: today(),
        why: String::new(),
    };
    let make = move |store: &Store, slug: &str| {
        let label = "an odd figure kept anyway";
        survey::edit_hull(store, reader.hand.who(), slug, label, |hull| {
            let kept = survey::stand_by_form().make(&nothing, &form, reader.units)?;
            Ok::<_, Refusal>(survey::stand_by(hull, kept)?)
        })
        .map(|_| ())
    };
    change(slug, &visit, NotTaken::default(), make).await
}

/// Asks about an odd figure again.
#[post("/hulls/<slug>/doubt", data = "<form>")]
async fn doubt(slug: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let finding = form.get("finding").cloned().unwrap_or_default();
    let make = move |store: &Store, slug: &str| {
        let label = "an odd figure doubted again";
        let ask = |hull: &mut HullRecord| -> Result<(), Refusal> {
            survey::doubt_again(hull, &finding);
            Ok(())
        };
        survey::edit_hull(store, reader.hand.who(), slug, label, ask).map(|_| ())
    };
    change(slug, &visit, NotTaken::default(), make).await
}

#[derive(FromForm)]
struct BackForm {
    revision: i64,
}

/// Puts the record back to what it was at a revision; that is a change like any
/// other.
#[post("/hulls/<slug>/back", data = "<form>")]
async fn back(slug: &str, form: Form<BackForm>, visit: Visit<'_>) -> Answer {
    let reader = visit.reader;
    let revision = form.revision;
    let make = move |store: &Store, slug: &str| {
        let (known, _) = store.record(Kind::Hull, slug)?.ok_or(EditError::Gone)?;
        match store.back_to(reader.hand.who(), Kind::Hull, known, revision) {
            Ok(_) => Ok(()),
            Err(StoreError::Nothing(why)) => Err(EditError::Refused(why.into())),
            Err(StoreError::Conflict { .. }) => Err(EditError::Refused(
                "somebody changed it at the same moment; try once more".into(),
            )),
            Err(error) => Err(error.into()),
        }
    };
    change(slug, &visit, NotTaken::default(), make).await
}

#[derive(FromForm)]
struct ThrowForm {
    /// The revision that was seen; whatever stands where it says nothing.
    seen: Option<i64>,
}

/// Throws the hull away, as it was seen; it stays in the trash.
#[post("/hulls/<slug>/throw-away", data = "<form>")]
async fn throw_away(
    slug: &str,
    form: Form<ThrowForm>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let thrown = throw(&visit, (Kind::Hull, slug.to_owned()), form.seen).await?;
    Ok(thrown.map(|()| visit.go("/hulls", &[])))
}

pub(super) fn routes() -> Vec<Route> {
    routes![
        page,
        add_reading,
        take_off,
        set_words,
        stand_by,
        doubt,
        back,
        throw_away
    ]
}

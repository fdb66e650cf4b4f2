//! The counter: a few questions in large type, three hulls beside them, and a second screen
//! that follows.

use super::follow::{Counter, Screens};
use super::three::Three;
use crate::account::now;
use crate::customer::customers;
use crate::present::draw::code::{CodeView, code};
use crate::present::page::ranking::sentence::{self, Field, Pick, Sentence};
use crate::web::address::address;
use crate::web::reader::{back_to, today};
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use crate::web::visitor::Base;
use askama::Template;
use askama_web::WebTemplate;
use rocket::form::Form;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, get, post, routes};

/// The counter.
#[derive(Template, WebTemplate)]
#[template(path = "counter.html")]
struct CounterPage {
    frame: Frame,
    sentence: Sentence,
    budget: Option<Field>,
    practice: Option<Pick>,
    three: Three,
    customers: Vec<String>,
    /// The day, ISO 8601: what is kept here is called by it.
    day: String,
    /// The page with all but its question.
    beside: String,
    /// The second screen: its word, where it is, and a code of that.
    screen: String,
    address: String,
    code: Option<CodeView>,
}

impl CounterPage {
    /// What travels along that is not asked here.
    fn carried(&self) -> Vec<(String, String)> {
        const ASKED: [&str; 7] = [
            "mass", "stature", "posture", "rig", "water", "budget", "practice",
        ];
        let mut all = self.frame.carried();
        all.retain(|(name, _)| !ASKED.contains(&name.as_str()));
        all
    }

    /// What is typed.
    fn figures(&self) -> [&Field; 2] {
        [&self.sentence.mass, &self.sentence.stature]
    }

    /// What is chosen.
    fn choices(&self) -> Vec<&Pick> {
        let (first, rest) = (
            &self.sentence.posture,
            [&self.sentence.water, &self.sentence.rig],
        );
        let practice = self.practice.as_ref();
        [first].into_iter().chain(practice).chain(rest).collect()
    }

    /// Whether something typed or chosen was not understood.
    fn unclear(&self) -> bool {
        let typed = self.figures().into_iter().chain(&self.budget);
        let chosen = self.choices().into_iter();
        typed
            .map(|field| &field.error)
            .chain(chosen.map(|pick| &pick.error))
            .any(|e| !e.is_empty())
    }

    /// The address of the same with only what is here, or with all.
    fn only(&self, have: bool) -> String {
        let mut pairs = Vec::new();
        if have {
            pairs.push(("have", "here"));
        }
        if !self.screen.is_empty() {
            pairs.push(("screen", self.screen.as_str()));
        }
        address("/counter", &self.frame.query, &pairs)
    }
}

/// What a counter asks, as its screen shows it.
fn counter(visit: &Visit<'_>, have: bool) -> Counter {
    Counter {
        query: visit.query.clone(),
        have,
        units: visit.reader.units,
    }
}

#[get("/counter?<have>&<screen>")]
async fn page(
    have: Option<&str>,
    screen: Option<&str>,
    base: Base,
    visit: Visit<'_>,
    screens: &State<Screens>,
) -> Result<CounterPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let have = have == Some("here");
    let counter = counter(&visit, have);
    let three = Three::of(&visit, &asked, (&records, &counter)).await?;
    let screen = screen.filter(|word| screens.show(word, counter.clone(), now()));
    let mut sentence = sentence::sentence(
        &asked,
        &records.catalogue,
        "/counter".to_owned(),
        visit.reader.units,
    );
    let budget = take(&mut sentence.limits, |field| field.name == "budget");
    let practice = take(&mut sentence.more, |pick| pick.name == "practice");
    let follows = screen.map_or(String::new(), |word| format!("{}/screen/{word}", base.0));
    let mut shown: Vec<(&str, &str)> = have.then_some(("have", "here")).into_iter().collect();
    shown.extend(screen.map(|word| ("screen", word)));
    Ok(CounterPage {
        day: today(),
        beside: address("/counter", "", &shown),
        frame: visit
            .frame_of("counter", visit.to("/counter", &shown), None)
            .await?,
        code: code(&follows).filter(|_| !follows.is_empty()),
        screen: screen.unwrap_or_default().to_owned(),
        customers: customers(&records.catalogue)
            .into_iter()
            .map(|one| one.name)
            .collect(),
        sentence,
        budget,
        practice,
        three,
        address: follows,
    })
}

/// Takes the one that is sought out of a list.
fn take<T>(all: &mut Vec<T>, sought: impl Fn(&T) -> bool) -> Option<T> {
    let at = all.iter().position(sought)?;
    Some(all.swap_remove(at))
}

#[derive(FromForm)]
struct OpenForm<'r> {
    #[field(default = "")]
    have: &'r str,
}

/// Opens a second screen that follows this counter.
#[post("/counter/screen", data = "<form>")]
async fn open(
    form: Form<OpenForm<'_>>,
    visit: Visit<'_>,
    screens: &State<Screens>,
) -> Result<Redirect, Trouble> {
    let have = form.have == "here";
    let word = screens.open(counter(&visit, have), now())?;
    let mut pairs = vec![("screen", word.as_str())];
    if have {
        pairs.push(("have", "here"));
    }
    Ok(visit.go("/counter", &pairs))
}

/// Closes it: its address leads nowhere from then on.
#[post("/counter/screen/<word>/close", data = "<form>")]
fn close(
    word: &str,
    form: Form<OpenForm<'_>>,
    visit: Visit<'_>,
    screens: &State<Screens>,
) -> Redirect {
    screens.close(word);
    let pairs: &[(&str, &str)] = match form.have {
        "here" => &[("have", "here")],
        _ => &[],
    };
    Redirect::to(back_to(&visit.to("/counter", pairs)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, open, close]
}

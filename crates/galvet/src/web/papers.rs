//! Papers of a hull: which there are, each of them, what is ticked on it.

use super::answered::{Answered, answered};
use super::reader::today;
use super::records::Records;
use super::ticks::answers;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{Afloat, Hull};
use crate::papers::{day_after, handed, is_over};
use crate::present::page::papers::{Asked, LineView, Paper, PaperKind, Terms, ashore_asked, paper};
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::question::{Asked as Question, units_key};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{Bare, Bounds, Keyed, System};
use galvet_core::papers::{Ashore, RuleSet};
use galvet_store::files::event::EventEntry;
use galvet_store::files::handed::Handed;
use galvet_store::files::ticked::Ticked;
use rocket::form::FromForm;
use rocket::response::Redirect;
use rocket::{Route, get, routes};
use std::collections::BTreeMap;
use std::sync::Arc;

/// An address that is out.
struct Out {
    key: String,
    name: String,
    made: String,
    /// Its last day; empty where it is good until it is withdrawn.
    until: String,
    over: bool,
}

impl Out {
    fn of(paper: Handed, today: &str) -> Self {
        Self {
            over: is_over(&paper, today),
            key: paper.key,
            name: paper.name,
            made: paper.made,
            until: paper.until.unwrap_or_default(),
        }
    }
}

/// Where papers begin: which hull, what is out, which events.
#[derive(Template, WebTemplate)]
#[template(path = "papers.html")]
struct StartPage {
    frame: Frame,
    sentence: Sentence,
    /// Key and name of all hulls.
    hulls: Vec<(String, String)>,
    outings: Vec<Ticked>,
    out: Vec<Out>,
}

#[get("/papers")]
async fn start(visit: Visit<'_>) -> Result<Answered<StartPage>, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let hulls = records.named();
    let mut outings: Vec<Ticked> = records.catalogue.sheets_of().cloned().collect();
    outings.sort_by(|a, b| b.begun.cmp(&a.begun));
    let sentence = sentence::sentence(
        &asked,
        &records.catalogue,
        "/papers".to_owned(),
        visit.reader.units,
    );
    let page = StartPage {
        frame: visit
            .frame_of("papers", visit.to("/papers", &[]), None)
            .await?,
        sentence,
        hulls,
        outings,
        out: handed(&records.catalogue)
            .into_iter()
            .map(|paper| Out::of(paper, &today()))
            .collect(),
    };
    Ok(answered(&asked, page))
}

/// A paper among the others of a hull.
struct Offered {
    kind: PaperKind,
    lead: String,
    red: String,
}

/// Papers of one hull.
#[derive(Template, WebTemplate)]
#[template(path = "papers-hull.html")]
struct HullPage {
    frame: Frame,
    sentence: Sentence,
    key: String,
    name: String,
    /// By what they are sorted under; empty where it cannot be floated yet.
    shelves: Vec<(&'static str, Vec<Offered>)>,
}

/// One paper.
#[derive(Template, WebTemplate)]
#[template(path = "paper.html")]
struct PaperPage {
    frame: Frame,
    sentence: Sentence,
    key: String,
    name: String,
    /// The paper's word, and where it is.
    word: &'static str,
    path: String,
    /// `None` where the hull cannot be floated yet.
    paper: Option<Paper>,
    /// What is ticked, and since when.
    ticked: BTreeMap<String, &'static str>,
    why: BTreeMap<String, String>,
    begun: String,
    outing: String,
    /// Whether that was begun on another day.
    stale: bool,
    /// Whether its ticks die with the day.
    of_the_day: bool,
    /// Name, label, what is typed, what is wrong with it.
    fields: Vec<(&'static str, &'static str, String, String)>,
    /// Events: key, name, whether chosen.
    events: Vec<(String, String, bool)>,
    inside: bool,
}

impl PaperPage {
    fn state(&self, line: &LineView) -> &'static str {
        self.ticked.get(&line.id).copied().unwrap_or("open")
    }

    fn because(&self, line: &LineView) -> &str {
        self.why.get(&line.id).map_or("", String::as_str)
    }
}

/// What an address asks of a paper beside the question.
#[derive(FromForm, Default)]
struct Beside {
    limit: Option<String>,
    edge: Option<String>,
    truck: Option<String>,
    corner: Option<String>,
    after: Option<String>,
    steps: Option<String>,
    path: Option<String>,
    tax: Option<String>,
    holds: Option<String>,
    rules: Option<String>,
    notes: Option<String>,
    /// The units of what is typed; a bare number is SI where it says none.
    units: Option<String>,
}

impl Beside {
    fn typed(&self, name: &str) -> &str {
        let field = match name {
            "limit" => &self.limit,
            "edge" => &self.edge,
            "truck" => &self.truck,
            "corner" => &self.corner,
            "after" => &self.after,
            "steps" => &self.steps,
            "path" => &self.path,
            "tax" => &self.tax,
            "holds" => &self.holds,
            _ => &None,
        };
        field.as_deref().unwrap_or("").trim()
    }
}

/// What was typed beside, read; and each field with what is wrong with it.
struct Read {
    ashore: Ashore,
    terms: Terms,
    fields: Vec<(&'static str, &'static str, String, String)>,
}

fn read(kind: PaperKind, beside: &Beside) -> Read {
    let mut out = Read {
        ashore: Ashore::default(),
        terms: Terms {
            today: today(),
            inside: beside.notes.as_deref() == Some("ours"),
            ..Terms::default()
        },
        fields: Vec::new(),
    };
    let sent = beside.units.as_deref().and_then(|units| {
        let all = [System::Metric, System::Imperial];
        all.into_iter().find(|&s| units_key(s) == units)
    });
    let mut field = |name, label, bounds: Bounds| {
        // It goes on in addresses with its unit, whoever reads it there.
        let typed = bounds.with_unit(beside.typed(name), sent);
        let read = match typed.as_str() {
            "" => Ok(None),
            typed => bounds.parse(typed, Bare::SI).map(Some),
        };
        let read = read.map_err(|e| e.to_string());
        let (value, wrong) = match read {
            Ok(value) => (value, String::new()),
            Err(wrong) => (None, wrong),
        };
        out.fields.push((name, label, typed, wrong));
        value
    };
    match kind {
        PaperKind::Transport => {
            let mut ashore = Ashore::default();
            for f in ashore_asked() {
                *(f.at)(&mut ashore) = field(f.name, f.label, f.bounds);
            }
            out.ashore = ashore;
        }
        PaperKind::Quote => {
            let tax = field("tax", "tax in the prices, %", Terms::TAX);
            let days = field("holds", "days it holds", Terms::DAYS);
            out.terms.tax = tax.map(|percent| 0.01 * percent);
            out.terms.days = days;
            out.terms.until = days
                .and_then(|d| day_after(&out.terms.today, d))
                .unwrap_or_default();
        }
        _ => {}
    }
    out
}

/// Event rules kept here, the chosen ones first in line: all where none is.
fn events(records: &Records, chosen: Option<&str>) -> (Vec<RuleSet>, Vec<(String, String, bool)>) {
    let all: Vec<RuleSet> = records
        .catalogue
        .sheets_of::<EventEntry>()
        .cloned()
        .map(EventEntry::rules)
        .collect();
    let known = chosen.filter(|c| all.iter().any(|e| e.key == *c));
    let offered = all
        .iter()
        .map(|e| (e.key.clone(), e.name.clone(), known == Some(e.key.as_str())));
    let offered = offered.collect();
    let sets = all
        .into_iter()
        .filter(|e| known.is_none_or(|k| k == e.key))
        .collect();
    (sets, offered)
}

/// A hull of a slug under the question asked, afloat.
async fn afloat(
    visit: &Visit<'_>,
    hull: Hull,
    asked: &Question,
) -> Result<Option<Arc<Afloat>>, Trouble> {
    let (desk, brief) = (visit.shared.desk.clone(), asked.brief.clone());
    visit
        .shared
        .work(visit.reader.caller, move || desk.afloat(&hull, &brief).ok())
        .await
}

/// The papers of a hull chosen from the list.
#[get("/papers/of?<hull>")]
fn chosen(hull: &str, visit: Visit<'_>) -> Redirect {
    visit.go(&format!("/hulls/{hull}/papers"), &[])
}

#[get("/hulls/<slug>/papers")]
async fn of_hull(slug: &str, visit: Visit<'_>) -> Result<Answered<HullPage>, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let path = format!("/hulls/{slug}/papers");
    let name = hull.survey.name();
    let afloat = afloat(&visit, hull, &asked).await?;
    let system = visit.reader.units;
    let (sets, _) = events(&records, None);
    let terms = read(PaperKind::Quote, &<Beside as Default>::default()).terms;
    let beside = Asked {
        events: sets.iter().collect(),
        quote: terms,
        ..Asked::default()
    };
    let mut shelves: Vec<(&'static str, Vec<Offered>)> = Vec::new();
    for &kind in PaperKind::ALL {
        let Some(afloat) = &afloat else { break };
        let paper = paper(kind, afloat, &asked.brief, &beside, system);
        let offered = Offered {
            kind,
            lead: paper.lead,
            red: paper.red,
        };
        match shelves.iter_mut().find(|(shelf, _)| *shelf == kind.shelf()) {
            Some((_, all)) => all.push(offered),
            None => shelves.push((kind.shelf(), vec![offered])),
        }
    }
    let page = HullPage {
        frame: visit.frame("papers", visit.to(&path, &[])),
        sentence: sentence::sentence(&asked, &records.catalogue, path, system),
        key: slug.to_owned(),
        name,
        shelves,
    };
    Ok(answered(&asked, page))
}

#[get("/hulls/<slug>/papers/<kind>?<beside..>")]
async fn one(
    slug: &str,
    kind: &str,
    beside: Beside,
    visit: Visit<'_>,
) -> Result<Answered<PaperPage>, Trouble> {
    let kind = PaperKind::from_key(kind).ok_or(Trouble::Gone)?;
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let hull = records.hull(slug)?.clone();
    let path = format!("/hulls/{slug}/papers/{}", kind.key());
    let name = hull.survey.name();
    let afloat = afloat(&visit, hull, &asked).await?;
    let system = visit.reader.units;
    let read = read(kind, &beside);
    let asked_event = asked.brief.event.as_ref().map(|e| e.key.as_str());
    let (sets, events) = events(&records, beside.rules.as_deref().or(asked_event));
    let inside = read.terms.inside;
    let here = visit.to(&path, &kept(&read, &beside));
    let given = Asked {
        ashore: read.ashore,
        events: sets.iter().collect(),
        quote: read.terms,
    };
    let paper = afloat.map(|a| paper(kind, &a, &asked.brief, &given, system));
    let (ticked, why, outing) = answers(&records, slug, kind);
    let page = PaperPage {
        frame: visit.frame_of("papers", here, None).await?,
        sentence: sentence::sentence(&asked, &records.catalogue, path.clone(), system),
        key: slug.to_owned(),
        name,
        word: kind.key(),
        path,
        paper,
        ticked,
        why,
        begun: outing.as_ref().map_or(String::new(), |o| o.begun.clone()),
        stale: kind.is_of_the_day() && outing.as_ref().is_some_and(|o| o.begun != today()),
        of_the_day: kind.is_of_the_day(),
        outing: outing.map_or(String::new(), |o| o.key),
        fields: read.fields,
        events: if kind == PaperKind::Event {
            events
        } else {
            Vec::new()
        },
        inside,
    };
    Ok(answered(&asked, page))
}

/// What is typed beside the question, as it stands in an address.
fn kept<'a>(read: &'a Read, beside: &'a Beside) -> Vec<(&'static str, &'a str)> {
    let fields = read.fields.iter();
    let mut all: Vec<_> = fields
        .map(|(name, _, typed, _)| (*name, typed.as_str()))
        .collect();
    all.push(("rules", beside.rules.as_deref().unwrap_or("")));
    all.push(("notes", beside.notes.as_deref().unwrap_or("")));
    all.retain(|(_, v)| !v.is_empty());
    all
}

pub(super) fn routes() -> Vec<Route> {
    routes![start, chosen, of_hull, one]
}

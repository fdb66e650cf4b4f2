//! Hulls side by side under the same question.

use super::answered::{Answered, Part, answered};
use super::moved::{keep_along, moved};
use super::records::Records;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::answer::{Way, outcome, ways};
use crate::present::page::compare::variants::{SideBySide, side_by_side};
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use rocket::{Route, get, routes};

/// Hulls that fit side by side.
const MOST: usize = 4;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "compare.html", blocks = ["answer"])]
struct ComparePage {
    frame: Frame,
    sentence: Sentence,
    /// Keys of the hulls, as they travel along.
    keys: Vec<String>,
    /// What each column may be changed into: value, label, whether it is that now.
    chosen: Vec<Vec<(String, String, bool)>>,
    /// Hulls that may be put beside them.
    others: Vec<(String, String)>,
    /// Hulls asked for beyond those that fit.
    left_out: usize,
    table: SideBySide,
    /// Where they are tried on the pond as well; empty where they were.
    tries: String,
}

/// What parts a hull's slug from the number of one of its ways.
const WAY: char = '~';

/// A hull as it is, by its slug; or one of its ways, by slug and number.
fn way_of(records: &Records, key: &str) -> Option<Way> {
    let (slug, way) = match key.split_once(WAY) {
        Some((slug, number)) => (slug, Some(number.parse::<usize>().ok()?)),
        None => (key, None),
    };
    let hull = records.hulls.iter().find(|h| h.survey.key == slug)?;
    let name = hull.survey.name();
    match way {
        None => Some(Way {
            name,
            hull: hull.clone(),
            seat: None,
        }),
        Some(number) => {
            let mut all = ways(hull);
            let way = (number < all.len()).then(|| all.swap_remove(number))?;
            Some(Way {
                name: format!("{name}, {}", way.name),
                ..way
            })
        }
    }
}

/// What a column may be changed into: its hull's ways, or nothing.
fn choices(records: &Records, key: &str) -> Vec<(String, String, bool)> {
    let slug = key.split(WAY).next().unwrap_or_default();
    let Some(hull) = records.hulls.iter().find(|h| h.survey.key == slug) else {
        return Vec::new();
    };
    let mut all = vec![(slug.to_owned(), hull.survey.name())];
    let ways = ways(hull);
    if ways.len() > 1 {
        let ways = ways.iter().enumerate();
        all.extend(ways.map(|(n, w)| (format!("{slug}{WAY}{n}"), format!("… {}", w.name))));
    }
    all.push((String::new(), "take away".to_owned()));
    let chosen = |(value, label): (String, String)| {
        let now = value == key;
        (value, label, now)
    };
    all.into_iter().map(chosen).collect()
}

/// What stands in the address where hulls are tried on the pond as well.
const TRIED: (&str, &str) = ("pond", "tried");

async fn compare_page(
    (hulls, pond): (Vec<String>, Option<&str>),
    visit: &Visit<'_>,
) -> Result<Answered<ComparePage>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let mut keys: Vec<String> = Vec::new();
    for key in hulls {
        if way_of(&records, &key).is_some() && !keys.contains(&key) {
            keys.push(key);
        }
    }
    let left_out = keys.len().saturating_sub(MOST);
    keys.truncate(MOST);
    let chosen = keys.iter().map(|key| choices(&records, key)).collect();
    let others = records.hulls.iter().map(|h| &h.survey);
    let others = others.map(|s| (s.key.clone(), s.name())).collect();
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let slug = |key: &String| key.split(WAY).next().unwrap_or_default().to_owned();
    // A hull in several ways is told of once.
    let mut about: Vec<String> = Vec::new();
    for key in keys.iter().map(slug) {
        if !about.contains(&key) {
            about.push(key);
        }
    }
    let path = "/compare".to_owned();
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path, reader.units);
    if !about.is_empty() {
        sentence.moved = moved(visit, &answer, &records, &about).await?;
    }
    let tries = pond == Some(TRIED.1);
    let mut pairs: Vec<_> = keys.iter().map(|key| ("hull", key.clone())).collect();
    pairs.extend(tries.then(|| (TRIED.0, TRIED.1.to_owned())));
    keep_along(&mut sentence, &pairs, true);
    let (desk, brief, wanted) = (shared.desk.clone(), asked.brief.clone(), keys.clone());
    let made = shared.work(reader.caller, move || {
        let ways = wanted.iter().filter_map(|key| way_of(&records, key));
        let outcomes: Vec<_> = ways
            .map(|way| outcome(&desk, way, &brief, &answer))
            .collect();
        side_by_side(&outcomes, (&brief, tries), reader.units)
    });
    let pairs: Vec<(&str, &str)> = pairs.iter().map(|(n, v)| (*n, v.as_str())).collect();
    let page = ComparePage {
        frame: visit.frame("compare", visit.to("/compare", &pairs)),
        tries: if tries {
            String::new()
        } else {
            visit.to("/compare", &[&pairs[..], &[TRIED]].concat())
        },
        sentence,
        chosen,
        others,
        left_out,
        table: made.await?,
        keys,
    };
    Ok(answered(&asked, page))
}

#[get("/compare?<hull>&<pond>")]
async fn page(
    hull: Vec<String>,
    pond: Option<&str>,
    visit: Visit<'_>,
) -> Result<Answered<ComparePage>, Trouble> {
    compare_page((hull, pond), &visit).await
}

#[get("/part/compare?<hull>&<pond>")]
async fn part(
    hull: Vec<String>,
    pond: Option<&str>,
    visit: Visit<'_>,
) -> Result<Answered<Part>, Trouble> {
    let page = compare_page((hull, pond), &visit).await?;
    page.part(|page| Part::of(&page.as_answer()))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part]
}

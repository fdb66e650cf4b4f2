//! Who changed what, lately.

use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::who::Names;
use crate::present::page::survey::record::when;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{Kind, Lately, StoreError};
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, routes};

/// Acts on one page.
const ACTS: u32 = 60;

/// Something done.
struct Act {
    when: String,
    who: String,
    label: String,
    /// What it is about, and where that is.
    about: String,
    way: Option<String>,
}

/// Who changed what.
#[derive(Template, WebTemplate)]
#[template(path = "lately.html")]
struct LatelyPage {
    frame: Frame,
    acts: Vec<Act>,
    older: Option<String>,
}

fn act(lately: Lately, names: &Names) -> Act {
    let more = lately.records.saturating_sub(1);
    let (about, way) = match &lately.record {
        Some((kind, slug, name)) => {
            let way = match kind {
                Kind::Hull => Some(format!("/hulls/{slug}/record")),
                Kind::Rig => Some(format!("/rigs/{slug}")),
                _ => None,
            };
            // The label may say it already.
            let name = if lately.label.contains(name.as_str()) {
                String::new()
            } else {
                name.clone()
            };
            (name, way)
        }
        None => (String::new(), None),
    };
    Act {
        when: when(lately.at),
        who: names.call(&lately.who).to_owned(),
        label: lately.label,
        about: match more {
            0 => about,
            more => format!("{about} and {more} more").trim().to_owned(),
        },
        way,
    }
}

#[get("/lately?<before>")]
async fn page(before: Option<i64>, visit: Visit<'_>) -> Result<LatelyPage, Trouble> {
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let look = move || -> Result<_, StoreError> {
        let names = Names::read(&store, hand)?;
        Ok((names, store.lately(ACTS + 1, before)?))
    };
    let (names, mut lately) = spawn_blocking(look).await??;
    let more = lately.len() > ACTS as usize;
    lately.truncate(ACTS as usize);
    let last = lately.last().map(|act| act.group.to_string());
    let older = last
        .filter(|_| more)
        .map(|last| visit.to("/lately", &[("before", &last)]));
    Ok(LatelyPage {
        frame: visit
            .frame_of("lately", visit.to("/lately", &[]), None)
            .await?,
        acts: lately.into_iter().map(|one| act(one, &names)).collect(),
        older,
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}

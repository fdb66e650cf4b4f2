//! Service by hull: what is due, with its list; what was done.

use super::some;
use galvet_core::base::Keyed;
use galvet_core::log::{Due, Standing};
use galvet_store::files::served::ServedEntry;

/// A service.
pub struct DueLine {
    pub care: &'static str,
    pub what: &'static str,
    pub standing: &'static str,
    pub red: bool,
    pub counts: String,
    pub does: &'static str,
    pub tools: &'static str,
    pub spares: &'static str,
    pub afloat: &'static str,
    pub hard: bool,
}

/// A hull's.
pub struct HullDues {
    pub key: String,
    pub name: String,
    /// Due, nearly, or not known.
    pub lines: Vec<DueLine>,
    /// Not yet.
    pub later: Vec<DueLine>,
}

/// The page.
pub struct ServiceView {
    pub lead: String,
    pub hulls: Vec<HullDues>,
    /// Done: key, words, note.
    pub done: Vec<(String, String, String)>,
}

/// Makes the page.
#[must_use]
pub fn view(dues: &[(String, String, Vec<Due>)], done: &[ServedEntry]) -> ServiceView {
    let count = |standing| {
        let all = dues.iter().flat_map(|(_, _, d)| d);
        all.filter(|d| d.standing == standing).count()
    };
    let (due, unknown) = (count(Standing::Due), count(Standing::NotKnown));
    let lead = match (due, unknown) {
        (0, 0) => "Nothing is due.".to_owned(),
        (0, n) => format!(
            "{} nobody noted: do them, or say when they were done",
            some(n, "service", "services")
        ),
        (n, 0) => format!("{} due", some(n, "service is", "services are")),
        (n, m) => format!(
            "{} due; of {m} nobody noted when they were last done",
            some(n, "service is", "services are")
        ),
    };
    let mut done: Vec<&ServedEntry> = done.iter().collect();
    done.sort_by(|a, b| b.day.cmp(&a.day));
    ServiceView {
        lead,
        hulls: dues
            .iter()
            .map(|(key, name, dues)| HullDues {
                key: key.clone(),
                name: name.clone(),
                lines: standing(dues, |s| s != Standing::Later),
                later: standing(dues, |s| s == Standing::Later),
            })
            .collect(),
        done: done
            .into_iter()
            .map(|s| (s.key.clone(), s.name.clone(), s.note.clone()))
            .collect(),
    }
}

fn standing(dues: &[Due], is: impl Fn(Standing) -> bool) -> Vec<DueLine> {
    dues.iter().filter(|d| is(d.standing)).map(line).collect()
}

/// A number of months: whole where it is.
fn tidy(months: f64) -> String {
    let tenth = (months * 10.0).round() / 10.0;
    format!("{tenth}")
}

fn line(d: &Due) -> DueLine {
    let mut counts = Vec::new();
    if let Some((hours, limit)) = d.hours {
        counts.push(format!(
            "{hours:.0} of {limit:.0}\u{a0}h (in salt counted double)"
        ));
    }
    if let Some((months, limit)) = d.months {
        counts.push(format!("{} of {} months", tidy(months), tidy(limit)));
    }
    if d.not_noted > 0 {
        counts.push(format!(
            "{} without hours",
            some(d.not_noted, "outing", "outings")
        ));
    }
    counts.push(match d.last.as_str() {
        "" => "when it was last done nobody noted; hours before the log are not in it".to_owned(),
        day => format!("last on {day}"),
    });
    DueLine {
        care: d.care.id,
        what: d.care.what,
        standing: d.standing.label(),
        red: d.standing == Standing::Due,
        counts: counts.join(" · "),
        does: d.care.does,
        tools: d.care.tools,
        spares: d.care.spares,
        afloat: d.care.afloat,
        hard: d.care.hard,
    }
}

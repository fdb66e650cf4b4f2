//! Checklists, and what is looked after when.

use super::{LineView, Paper, PaperKind, Section, TableView, blank, some};
use galvet_core::base::Keyed;
use galvet_core::papers::{Facts, Line, List, Nine, Words, checklist, due, service};

/// A line of a list as it is shown.
fn view(line: Line) -> LineView {
    LineView {
        id: line.id,
        text: line.text,
        why: line.why,
        known: line.known,
        hard: line.hard,
        red: line.red,
        ..LineView::default()
    }
}

/// Hard lines first, else in working order.
fn section(title: &str, lines: Vec<Line>) -> Section {
    Section {
        title: title.to_owned(),
        lines: lines.into_iter().map(view).collect(),
        ..Section::default()
    }
}

/// What is red before anybody ticks, in words.
fn red_words(sections: &[Section]) -> String {
    let red = sections.iter().flat_map(|s| &s.lines).filter(|l| l.red);
    let red: Vec<&str> = red.map(|l| l.text.as_str()).collect();
    red.join(" · ")
}

const LISTED: &str = "Guidance: maker's instructions, local rules and your own limits come first. A tick dies with the outing: what was shut yesterday is not shut today.";

/// A paper of one list.
pub(super) fn listed(facts: &Facts<'_>, kind: PaperKind, list: List) -> Paper {
    let lines = checklist(facts, list);
    let hard = lines.iter().filter(|l| l.hard).count();
    let mut lead = format!(
        "{}, {hard} never skipped.",
        some(lines.len(), "line", "lines")
    );
    if list == List::Surf && !facts.waters().contains(&Nine::Surf) {
        lead += " This question goes out through no surf.";
    }
    let mut paper = blank(kind, lead, LISTED);
    paper.sections = vec![section(list.label(), lines)];
    paper
}

/// What to look at before a hull is bought.
pub(super) fn buying(facts: &Facts<'_>) -> Paper {
    let (look, trial) = (
        checklist(facts, List::Buying),
        checklist(facts, List::Trial),
    );
    let found = facts.hull().findings();
    let lead = match found.len() {
        0 => "Nothing on its record contradicts itself; look at it all the same, and paddle it."
            .to_owned(),
        n => format!(
            "{} on its record to settle, then look, then paddle it.",
            some(n, "thing", "things")
        ),
    };
    let mut paper = blank(PaperKind::Buying, lead, LISTED);
    let mut words = Words::default();
    let doubts = found.into_iter().map(|f| LineView {
        id: words.of("doubt", &f.text),
        text: f.text,
        why: "its record leaves it open".to_owned(),
        ..LineView::default()
    });
    paper.sections = vec![
        Section {
            title: "To settle on this hull".to_owned(),
            lines: doubts.collect(),
            ..Section::default()
        },
        section("Look at, feel, measure", look),
        section("Test paddle, half an hour", trial),
    ];
    paper.sections.retain(|s| !s.lines.is_empty());
    paper
}

/// The launch list, hard lines and essentials first.
pub(super) fn launch(facts: &Facts<'_>) -> Paper {
    let (asked, rest): (Vec<Line>, Vec<Line>) = checklist(facts, List::Launch)
        .into_iter()
        .partition(|l| l.id.starts_with("essential-"));
    // What a hard line asks anyhow stands there once.
    let twice = |l: &Line| {
        let same = match l.id.as_str() {
            "essential-aid" => "aid-on",
            "essential-leash" => "nobody-tied",
            _ => return false,
        };
        !l.red && rest.iter().any(|r| r.id == same)
    };
    let asked: Vec<Line> = asked.into_iter().filter(|l| !twice(l)).collect();
    let (hard, soft): (Vec<Line>, Vec<Line>) = rest.into_iter().partition(|l| l.hard);
    let water = facts.water().label();
    let sections = vec![
        section("Never skipped", hard),
        section(&format!("Essentials: {water}"), asked),
        section("Then", soft),
    ];
    let red = red_words(&sections);
    let lead = if red.is_empty() {
        format!(
            "What {water} asks is on the rig. {} before you push off.",
            some(sections[0].lines.len(), "hard line", "hard lines")
        )
    } else {
        let n = sections
            .iter()
            .flat_map(|s| &s.lines)
            .filter(|l| l.red)
            .count();
        format!(
            "{} of what {water} asks for: missing, not worn, or not known.",
            some(n, "thing", "things")
        )
    };
    Paper {
        red,
        sections,
        ..blank(PaperKind::Launch, lead, LISTED)
    }
}

/// What is looked after when.
pub(super) fn service_plan(facts: &Facts<'_>) -> Paper {
    let density = facts.brief.water.density;
    let all = service(facts);
    let rows = all.iter().map(|care| {
        let (hours, months) = due(care, density);
        let every = match hours {
            Some(h) => format!("{h:.0} h or {}", span(months)),
            None => span(months),
        };
        vec![
            care.what.to_owned(),
            every,
            care.does.to_owned(),
            care.tools.to_owned(),
            care.spares.to_owned(),
            if care.hard {
                format!("First: {}", care.afloat)
            } else {
                care.afloat.to_owned()
            },
        ]
    });
    let salt = density > 1005.0;
    let soonest = all
        .iter()
        .filter_map(|c| due(c, density).0)
        .fold(f64::INFINITY, f64::min);
    let lead = format!(
        "First look after {soonest:.0} hours on the water{}.",
        if salt { ": salt halves everything" } else { "" }
    );
    let mut paper = blank(
        PaperKind::Service,
        lead,
        "Guide values: the maker's book stands above them. Sealed gearboxes stay shut. Motor unplugged before hands go near it.",
    );
    paper.sections = vec![Section {
        title: "Whichever comes first".to_owned(),
        words: vec![
            "Bought used, and nobody knows its hours: take everything as due now.".to_owned(),
        ],
        table: Some(TableView {
            heads: vec![
                "what",
                "every",
                "look at",
                "tools",
                "spares aboard",
                "mended afloat",
            ],
            rows: rows.collect(),
            sum: Vec::new(),
        }),
        notes: true,
        ..Section::default()
    }];
    paper
}

/// A time of some months as people say it.
fn span(months: f64) -> String {
    if months.fract() == 0.0 {
        some(months as usize, "month", "months")
    } else {
        some((4.0 * months).round() as usize, "week", "weeks")
    }
}

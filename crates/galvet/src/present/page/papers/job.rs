//! The rigging job sheet and the sheet that takes it back.

use super::{Drawn, LineView, Mark, Paper, PaperKind, Section, TableView, blank, minutes, some};
use crate::answer::Afloat;
use crate::present::draw::plan::{AtHand, hull_plan};
use galvet_core::advise::power::power;
use galvet_core::base::{Dimension, System};
use galvet_core::hull::zones;
use galvet_core::papers::{Facts, Step, Trade, Words, job_sheet, to_stock, wire};

const DRILLS: &str = "Guidance. A hole is for good: no hole below the waterline or less than 50 mm above it, a hand beneath each, fuse at the battery. The maker's instructions stand above it; let a qualified person wire what you are unsure of.";

/// The job sheet.
pub(super) fn rigging(facts: &Facts<'_>, afloat: &Afloat) -> Paper {
    let sheet = job_sheet(facts);
    let steps = &sheet.steps;
    let [now, later] = sheet.minutes();
    let holes = sheet.holes() as usize;
    let lead = if steps.is_empty() {
        "Nothing to rig: the rig is empty and no modification is planned.".to_owned()
    } else if holes == 0 {
        format!(
            "{} without a hole, about {}.",
            some(steps.len(), "step", "steps"),
            minutes(now)
        )
    } else {
        format!(
            "Fish it first: about {} without a hole. Drill later: {} in about {}.",
            minutes(now),
            some(holes, "hole", "holes"),
            minutes(later)
        )
    };
    let warned = steps.iter().filter(|s| !s.warns.is_empty()).count();
    let mut paper = blank(PaperKind::Rigging, lead, DRILLS);
    if warned > 0 {
        paper.red = format!(
            "{} as it stands is not good enough: read its line before you drill.",
            some(warned, "fixing", "fixings")
        );
    }
    let numbered: Vec<(usize, &Step)> = steps.iter().enumerate().map(|(n, s)| (n + 1, s)).collect();
    paper.drawn = drawn(afloat, &numbered, facts.system);
    let some_of = |later: bool| -> Vec<LineView> {
        let all = numbered.iter().filter(|(_, s)| s.later == later);
        all.map(|&(n, step)| line(n, step, facts.system)).collect()
    };
    let title = |t: &str| t.to_owned();
    paper.sections = vec![
        Section {
            title: title("Fish it first: no hole"),
            lines: some_of(false),
            ..Section::default()
        },
        Section {
            title: title("Drill later"),
            lines: some_of(true),
            notes: true,
            ..Section::default()
        },
    ];
    paper.sections.retain(|s| !s.lines.is_empty());
    paper.sections.extend(circuits(facts));
    paper
}

/// A place as it is measured: from the bow, from the centreline.
fn place(step: &Step, system: System) -> String {
    let Some([x, y, _]) = step.at else {
        return step.place.clone();
    };
    let across = system.text(Dimension::ShortLength, y.abs(), 0);
    let side = match y {
        y if y > 0.005 => format!("{across} to starboard"),
        y if y < -0.005 => format!("{across} to port"),
        _ => "on the centreline".to_owned(),
    };
    format!(
        "{}, {} from the bow, {side}",
        step.place,
        system.text(Dimension::Length, x, 2)
    )
}

fn line(n: usize, step: &Step, system: System) -> LineView {
    let mut facts = Vec::new();
    let mut say = |name, value: String| {
        if !value.is_empty() {
            facts.push((name, value));
        }
    };
    if step.trade.is_some() {
        say("where", place(step, system));
        say("held", step.held.clone());
    }
    if step.holes > 0 {
        let wide = step
            .hole_mm
            .map_or(String::new(), |mm| format!(" of {mm} mm"));
        say("holes", format!("{}{wide}", step.holes));
    }
    if let Some(torque) = step.torque {
        say("torque", format!("{torque:.0} N·m"));
    }
    // What only stands in its place needs no telling how.
    if let Some(how) = step.how.filter(|h| h.trade != Trade::Stowed) {
        say("how", how.how.to_owned());
        say("try it", how.test.to_owned());
        say("mind", how.mistake.to_owned());
        say("tools", how.tools.to_owned());
        say("undone by", how.undo.to_owned());
    }
    if step.minutes > 0.0 {
        say("about", minutes(step.minutes));
    }
    LineView {
        id: step.id.clone(),
        text: step.what.clone(),
        why: step.why.clone(),
        facts,
        warns: step.warns.clone(),
        hard: step.hard,
        red: !step.warns.is_empty(),
        number: n.to_string(),
        ..LineView::default()
    }
}

/// The hull from above, each step that has a place at it.
fn drawn(afloat: &Afloat, steps: &[(usize, &Step)], system: System) -> Option<Drawn> {
    let lines = &afloat.portrait().side.lines;
    let a = &afloat.assessment;
    let survey = &a.setup.posterior.survey;
    let plan = hull_plan(
        lines,
        &zones(survey),
        &survey.fitout.fittings_now(),
        AtHand::default(),
    );
    let placed = steps
        .iter()
        .filter_map(|&(n, step)| Some((n, step, step.at?)));
    let mut marks: Vec<Mark> = Vec::new();
    let mut at: Vec<(f64, f64)> = Vec::new();
    for (n, _, [x, y, _]) in placed {
        let (mut px, py) = plan.frame.above(x, y);
        // Numbers that would lie on each other stand side by side.
        while at
            .iter()
            .any(|&(qx, qy)| (qx - px).abs() < 23.0 && (qy - py).abs() < 23.0)
        {
            px += 24.0;
        }
        at.push((px, py));
        marks.push(Mark {
            x: format!("{px:.0}"),
            y: format!("{py:.0}"),
            number: n.to_string(),
        });
    }
    let (half, long) = (
        0.5 * a.setup.posterior.form.beam(),
        a.setup.posterior.form.length(),
    );
    // Half units of the reader's: half a metre, a foot.
    let step = match system {
        System::Metric => 0.5,
        System::Imperial => galvet_core::base::FOOT,
    };
    let ticks = (0..)
        .map(|k| f64::from(k) * step)
        .take_while(|&x| x <= long);
    let tape = ticks.map(|x| {
        let (px, _) = plan.frame.above(x, 0.0);
        let decimals = usize::from(system == System::Metric);
        (
            format!("{px:.0}"),
            system.number(Dimension::Length, x, decimals),
        )
    });
    let tape: Vec<(String, String)> = tape.collect();
    let tape_y = format!("{:.0}", plan.frame.above(0.0, half).1 + 18.0);
    let length = system.text(Dimension::Length, a.setup.posterior.form.length(), 2);
    (!marks.is_empty()).then(|| Drawn {
        plan,
        marks,
        tape,
        tape_y,
        words: format!("From above, bow left, {length} long: each number is a step, its place measured from the bow and from the centreline"),
    })
}

/// Circuit by circuit: fuse, wire, cables to order.
fn circuits(facts: &Facts<'_>) -> Option<Section> {
    let a = facts.assessment;
    let power = power(&a.setup, facts.brief, &a.middle)?;
    let rows = power.circuits.iter().flat_map(|fed| {
        let circuit = &fed.circuit;
        let volts = circuit.bank.volts;
        let runs: Vec<_> = power
            .cables
            .iter()
            .filter(|c| c.from == circuit.battery)
            .collect();
        let farthest = runs.iter().map(|c| c.length).fold(0.0, f64::max);
        let motor = circuit.motors() > 0.0;
        let told = match wire(circuit.amperes(), farthest, volts, motor) {
            Some(w) => vec![
                circuit.battery.clone(),
                format!("{volts} V, {:.1} A with all on", w.amperes),
                format!(
                    "{} A{}",
                    w.fuse,
                    if w.coarse {
                        ", the smallest that stands it"
                    } else {
                        ""
                    }
                ),
                format!("{} mm²", w.section),
                format!("{:.1} %", 100.0 * w.drop),
                runs.iter()
                    .map(|c| format!("{} {:.1} m", c.to, c.length))
                    .collect::<Vec<_>>()
                    .join("; "),
            ],
            None => vec![
                circuit.battery.clone(),
                format!("{volts} V, {:.1} A with all on", circuit.amperes()),
                "not to be told: no cable run, or more than a small boat's wiring bears".to_owned(),
                String::new(),
                String::new(),
                runs.iter()
                    .map(|c| format!("{} {:.1} m", c.to, c.length))
                    .collect::<Vec<_>>()
                    .join("; "),
            ],
        };
        [told]
    });
    let rows: Vec<Vec<String>> = rows.collect();
    let steering = power
        .cables
        .iter()
        .filter(|c| !power.circuits.iter().any(|f| f.circuit.battery == c.from));
    let words = steering.map(|c| {
        format!(
            "{} to {}: order {:.1} m, once the seat is set.",
            c.from, c.to, c.length
        )
    });
    let unfed = power
        .unfed
        .iter()
        .map(|l| format!("{} hangs on no battery of the rig.", l.name));
    (!rows.is_empty()).then(|| Section {
        title: "Circuits, fuses, cables to order".to_owned(),
        words: words
            .chain(unfed)
            .chain(["Fuse within 0.2 m of the plus; lengths with slack.".to_owned()])
            .collect(),
        table: Some(TableView {
            heads: vec![
                "pack",
                "carries",
                "fuse",
                "copper",
                "lost on the way",
                "cables",
            ],
            rows,
            sum: Vec::new(),
        }),
        ..Section::default()
    })
}

/// What was changed, taken off again.
pub(super) fn stock(facts: &Facts<'_>) -> Paper {
    let all = to_stock(facts);
    let holes: usize = all.iter().map(|b| usize::from(b.holes)).sum();
    let lead = match all.len() {
        0 => "It is as it was delivered.".to_owned(),
        n => format!(
            "{} to take back; {} to plug, and to tell who buys it.",
            some(n, "change", "changes"),
            some(holes, "hole", "holes")
        ),
    };
    let mut paper = blank(PaperKind::Stock, lead, DRILLS);
    let mut words = Words::default();
    let lines = all.into_iter().map(|back| LineView {
        id: words.of("back", &back.name),
        text: back.name,
        why: "made on this hull".to_owned(),
        facts: [
            ("off, last on first", back.off.join(", ")),
            ("on again", back.on.join(", ")),
            (
                "holes to plug",
                if back.holes > 0 {
                    back.holes.to_string()
                } else {
                    String::new()
                },
            ),
            (
                "weighs",
                if back.mass == 0.0 {
                    String::new()
                } else {
                    facts.system.text(Dimension::Mass, back.mass, 1)
                },
            ),
        ]
        .into_iter()
        .filter(|(_, v)| !v.is_empty())
        .collect(),
        warns: if back.can {
            String::new()
        } else {
            "it cannot be undone: tell who buys the hull".to_owned()
        },
        red: !back.can,
        ..LineView::default()
    });
    paper.sections = vec![Section {
        title: "Taken back, the last first".to_owned(),
        lines: lines.collect(),
        notes: true,
        ..Section::default()
    }];
    paper.sections.retain(|s| !s.lines.is_empty());
    paper
}

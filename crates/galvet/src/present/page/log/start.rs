//! The log's first page: what the boats say back.

use super::{hours, some};
use crate::log::Laden;
use crate::present::draw::log::{Bars, Loaded, Loads, bars, loads};
use crate::present::page::paged::Paged;
use galvet_core::base::{Dimension, System};
use galvet_core::log::{Decision, Due, Hours, Known, Met, Month, Outing, Standing};

/// Something the log says to do, and where.
pub struct Told {
    pub text: String,
    pub why: String,
    pub href: String,
    pub red: bool,
}

impl Told {
    /// Where it is looked at, the question in the address; a place on a page comes last.
    pub fn way(&self, query: &str) -> String {
        match self.href.split_once('#') {
            Some((path, place)) => format!("{path}{query}#{place}"),
            None => format!("{}{query}", self.href),
        }
    }
}

/// An outing in the list.
pub struct OutingLine {
    pub key: String,
    pub name: String,
    pub hull: String,
    pub facts: String,
    pub begun: bool,
}

/// A fault that is known.
pub struct FaultLine {
    pub hull: String,
    pub text: String,
    pub afloat: String,
    pub href: String,
    pub hard: bool,
}

/// The page.
pub struct StartView {
    pub lead: String,
    pub red: String,
    pub told: Vec<Told>,
    pub hulls: Vec<(String, String, String)>,
    /// The outings shown, the newest first.
    pub lines: Vec<OutingLine>,
    /// Which of all they are.
    pub page: Paged,
    pub faults: Vec<FaultLine>,
    pub months: Option<Bars>,
    pub loads: Option<Loads>,
    pub weather: String,
}

/// What the page is made of.
pub struct Sums<'a> {
    pub outings: &'a [Outing],
    /// Hulls of the log: key, name.
    pub names: &'a [(String, String)],
    pub hours: Vec<Hours>,
    pub months: Vec<Month>,
    pub dues: &'a [(String, Vec<Due>)],
    pub decided: Vec<Decision<'a>>,
    pub faults: Vec<Known<'a>>,
    pub laden: Vec<Laden>,
    /// What each outing of a hull cost, noted and with what hull and kit cost.
    pub costs: Vec<(String, f64, Option<f64>)>,
    pub met: Option<Met>,
}

impl Sums<'_> {
    fn name(&self, key: &str) -> String {
        let named = self.names.iter().find(|(k, _)| k == key);
        named.map_or_else(|| key.replace('-', " "), |(_, name)| name.clone())
    }
}

/// A month's name and year.
fn month((year, month): (i32, u8)) -> String {
    const NAMES: [&str; 12] = [
        "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec",
    ];
    let name = NAMES[usize::from(month.clamp(1, 12)) - 1];
    format!("{name}\u{a0}{}", year.rem_euclid(100))
}

/// Makes the page, with the part of the outings in which the one at `from` lies.
#[must_use]
pub fn start(sums: &Sums<'_>, from: usize, system: System) -> StartView {
    let page = Paged::of(sums.outings.len(), from);
    let due: Vec<(String, &Due)> = sums
        .dues
        .iter()
        .flat_map(|(hull, dues)| {
            let up = dues.iter().filter(|d| d.standing == Standing::Due);
            up.map(|d| (sums.name(hull), d))
        })
        .collect();
    let red = match due.as_slice() {
        [] => String::new(),
        [(hull, one)] => format!("Service due: {} of the {hull}", one.care.what),
        [(hull, one), rest @ ..] => format!(
            "Service due: {} of the {hull}, and {} more",
            one.care.what,
            rest.len()
        ),
    };
    StartView {
        lead: lead(sums),
        red,
        told: told(sums, system),
        hulls: sums
            .hours
            .iter()
            .map(|h| hull_line(sums, h, system))
            .collect(),
        lines: page
            .shown(sums.outings)
            .iter()
            .map(|o| line(sums, o, system))
            .collect(),
        page,
        faults: sums.faults.iter().map(|f| fault(sums, f)).collect(),
        months: chart(&sums.months),
        loads: laden(&sums.laden, system),
        weather: sums.met.map_or(String::new(), |m| weather(&m)),
    }
}

fn lead(sums: &Sums<'_>) -> String {
    if sums.outings.is_empty() {
        return "No outing is noted yet.".to_owned();
    }
    let noted: f64 = sums.hours.iter().map(|h| h.noted).sum();
    let silent: usize = sums.hours.iter().map(|h| h.not_noted).sum();
    let first = sums.outings.iter().map(|o| o.day.as_str()).min();
    let left = if silent > 0 {
        format!(" ({} without hours)", silent)
    } else {
        String::new()
    };
    format!(
        "{}, {} on {}{left}, since {}",
        some(sums.outings.len(), "outing", "outings"),
        hours(noted),
        some(sums.hours.len(), "hull", "hulls"),
        first.unwrap_or("")
    )
}

fn told(sums: &Sums<'_>, system: System) -> Vec<Told> {
    let line = |text: String, why: String, href: &str, red: bool| Told {
        text,
        why,
        href: href.to_owned(),
        red,
    };
    let one = |d: &Decision<'_>| {
        Some(match d {
            // They are told hull by hull.
            Decision::Serve(_) => return None,
            Decision::Ashore(kit) => {
                let mass = kit
                    .gear
                    .map(|g| system.text(Dimension::Mass, g.loaded_mass, 1));
                line(
                    format!("Leave ashore: {}", kit.item),
                    format!(
                        "carried {} times, not used once{}",
                        kit.carried,
                        mass.map_or(String::new(), |m| format!("; {m}"))
                    ),
                    "/log/kit",
                    false,
                )
            }
            Decision::Buy(what, times) => line(
                format!("Buy: {what}"),
                format!("missed on {times} outings"),
                "/log#outings",
                false,
            ),
            Decision::Spare(part, times, care) => line(
                format!("Carry a spare: {part}"),
                match care {
                    Some(care) => format!("failed {times} times; spares: {}", care.spares),
                    None => format!("failed {times} times"),
                },
                "/log#faults",
                false,
            ),
            Decision::Battery(times) => line(
                "A bigger battery".to_owned(),
                format!("home with under 30\u{a0}% left {times} times"),
                "/log#outings",
                false,
            ),
            Decision::OwnLimit(wind, times) => line(
                format!(
                    "Your own limit: {}",
                    system.text(Dimension::Speed, *wind, 0)
                ),
                format!(
                    "the wind that turned you back, {}; forecasts and local warnings stand above it",
                    if *times == 1 {
                        "once".to_owned()
                    } else {
                        format!("{times} times, the least of them")
                    }
                ),
                "/log/ahead",
                false,
            ),
        })
    };
    let services = sums.dues.iter().filter_map(|(hull, dues)| {
        let up = dues.iter().filter(|d| d.standing == Standing::Due);
        let up: Vec<&str> = up.map(|d| d.care.what).collect();
        (!up.is_empty()).then(|| {
            line(
                format!("Service of the {}", sums.name(hull)),
                up.join(", "),
                "/log/service",
                true,
            )
        })
    });
    let services: Vec<Told> = services.collect();
    services
        .into_iter()
        .chain(sums.decided.iter().filter_map(one))
        .collect()
}

fn hull_line(sums: &Sums<'_>, h: &Hours, system: System) -> (String, String, String) {
    let mut all = vec![some(h.outings, "outing", "outings"), hours(h.noted)];
    for (part, by) in ["by paddle", "by drive", "by motor"].iter().zip(h.by) {
        if by > 0.0 {
            all.push(format!("{} {part}", hours(by)));
        }
    }
    if h.distance > 0.0 {
        all.push(system.text(Dimension::Distance, h.distance, 0));
    }
    if h.not_noted > 0 {
        all.push(format!("hours not noted on {}", h.not_noted));
    }
    let cost = sums.costs.iter().find(|(key, ..)| *key == h.hull);
    if let Some((_, noted, whole)) = cost {
        let money = |v: f64| system.text(Dimension::Money, v, 0);
        all.push(match whole {
            Some(whole) => format!(
                "an outing cost {}, {} with hull and kit as if sold for nothing",
                money(*noted),
                money(*whole)
            ),
            None => format!("an outing cost {}", money(*noted)),
        });
    }
    (h.hull.clone(), sums.name(&h.hull), all.join(" · "))
}

fn line(sums: &Sums<'_>, o: &Outing, system: System) -> OutingLine {
    let mut facts = Vec::new();
    if let Some(h) = o.hours {
        facts.push(hours(h));
    }
    if let Some(d) = o.distance {
        facts.push(system.text(Dimension::Distance, d, 1));
    }
    if let Some(w) = o.wind {
        facts.push(format!("wind {}", system.text(Dimension::Speed, w, 0)));
    }
    if !o.tape.heights.is_empty() {
        facts.push("draft read".to_owned());
    }
    if !o.faults.is_empty() {
        facts.push(some(o.faults.len(), "fault", "faults"));
    }
    if !o.track.is_empty() {
        facts.push("track".to_owned());
    }
    OutingLine {
        key: o.key.clone(),
        name: match o.place.as_str() {
            "" => o.day.clone(),
            place => format!("{}, {place}", o.day),
        },
        hull: sums.name(&o.hull),
        facts: facts.join(" · "),
        begun: !o.done,
    }
}

fn fault(sums: &Sums<'_>, f: &Known<'_>) -> FaultLine {
    let cause = if f.fault.cause.is_empty() {
        String::new()
    } else {
        format!(": {}", f.fault.cause)
    };
    let times = if f.times > 1 {
        format!(" (failed {} times)", f.times)
    } else {
        String::new()
    };
    FaultLine {
        hull: sums.name(&f.outing.hull),
        text: format!("{}{cause}{times}", f.fault.part),
        afloat: f.care.map_or_else(
            || "nothing is known that mends it afloat: paddle home".to_owned(),
            |c| format!("afloat: {}; spares: {}", c.afloat, c.spares),
        ),
        href: format!("/log/outings/{}", f.outing.key),
        hard: f.care.is_some_and(|c| c.hard),
    }
}

fn chart(months: &[Month]) -> Option<Bars> {
    if months.is_empty() {
        return None;
    }
    let rows: Vec<(String, f64, String, bool)> = months
        .iter()
        .map(|m| {
            let silent = if m.not_noted > 0 {
                format!(", hours not noted on {}", m.not_noted)
            } else {
                String::new()
            };
            let said = format!(
                "{}: {} on {}{silent}",
                month(m.when),
                hours(m.hours),
                some(m.outings, "outing", "outings")
            );
            (month(m.when), m.hours, said, m.not_noted > 0)
        })
        .collect();
    let most = months.iter().max_by(|a, b| a.hours.total_cmp(&b.hours))?;
    let words = format!(
        "Hours by month, {} to {}; most in {}: {}",
        month(months.first()?.when),
        month(months.last()?.when),
        month(most.when),
        hours(most.hours)
    );
    Some(bars(&rows, "h", words))
}

fn laden(all: &[Laden], system: System) -> Option<Loads> {
    if all.is_empty() {
        return None;
    }
    let unit = system.unit(Dimension::Mass);
    let own = |kg: f64| system.convert(Dimension::Mass, kg);
    let rows: Vec<Loaded> = all
        .iter()
        .rev()
        .map(|l| {
            let (low, middle, high) = l.margin;
            let limit = |m: f64| own(l.load + m);
            let said = format!(
                "{}: load {}, {} to the tightest limit, at worst {}",
                l.day,
                system.text(Dimension::Mass, l.load, 0),
                system.text(Dimension::Mass, middle, 0),
                system.text(Dimension::Mass, low, 0)
            );
            let day: String = l.day.chars().skip(2).take(5).collect();
            (
                day,
                own(l.load),
                (limit(low), limit(middle), limit(high)),
                said,
            )
        })
        .collect();
    let over = all.iter().filter(|l| l.margin.1 < 0.0).count();
    let worst = all.iter().map(|l| l.margin.0).fold(f64::INFINITY, f64::min);
    let words = format!(
        "Load of {} against the tightest limit: {} over it in the middle; at worst {}",
        some(all.len(), "outing", "outings"),
        if over == 0 {
            "none".to_owned()
        } else {
            over.to_string()
        },
        if worst < 0.0 {
            format!("{} too much", system.text(Dimension::Mass, -worst, 0))
        } else {
            format!("{} left", system.text(Dimension::Mass, worst, 0))
        }
    );
    Some(loads(&rows, unit, words))
}

fn weather(m: &Met) -> String {
    let [least, middle, most] = m.share.map(|s| 100.0 * s);
    let worse = match m.worse {
        0 => "never a quarter more than foretold".to_owned(),
        1 => "once a quarter more than foretold, or worse".to_owned(),
        n => format!("{n} times a quarter more than foretold, or worse"),
    };
    format!(
        "The wind met was {middle:.0}\u{a0}% of the forecast's ({least:.0} to {most:.0}\u{a0}%) on {}; {worse}; \
         stronger than usual on that water, for which hulls were judged, on {}",
        some(m.count, "outing", "outings"),
        some(m.unusual, "outing", "outings")
    )
}

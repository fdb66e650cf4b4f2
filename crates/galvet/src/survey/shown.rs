//! A form as it stands for what is on the record; and what somebody typed over
//! it, merged with what others kept meanwhile.
//!
//! Every form sends along what it showed. A field left as it stood takes what is
//! on the record now; one that was typed in is kept, unless somebody else made it
//! something else since: then both are said, and nothing is changed.

use super::typed::Mistakes;
use super::walk::{shown_across, shown_along};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::hull::{
    Configuration, Fitting, FittingKind, Judgement, Modification, Opening, Progress, Propulsion,
    SeatSetting, SeatUsed, Station, Survey, Zone, ZoneKind,
};
use std::collections::{BTreeMap, HashMap};
use std::hash::{DefaultHasher, Hash, Hasher};

/// The name of the field in which a form sends along what it showed.
const SHOWN: &str = "shown";
/// Fields that say what to do, not what is so.
const ORDERS: [&str; 6] = [SHOWN, "action", "next", "both", "kind", "anew"];

/// The fields of a form with what stands in them; empty ones are left out.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Shown(BTreeMap<String, String>);

impl Shown {
    pub(crate) fn of<N: Into<String>>(fields: impl IntoIterator<Item = (N, String)>) -> Self {
        let fields = fields.into_iter().map(|(name, text)| (name.into(), text));
        Self(fields.filter(|(_, text)| !text.is_empty()).collect())
    }

    /// What stands in a field; empty where nothing does.
    #[must_use]
    pub fn text(&self, name: &str) -> &str {
        self.0.get(name).map_or("", String::as_str)
    }

    /// The form as it is sent when nothing is typed.
    #[must_use]
    pub fn fields(&self) -> HashMap<String, String> {
        self.0.clone().into_iter().collect()
    }

    /// As a form sends it along.
    #[must_use]
    pub fn sent_along(&self) -> String {
        serde_json::to_string(&self.0).unwrap_or_default()
    }

    /// What a form says it showed; `None` where it does not say.
    fn said(form: &HashMap<String, String>) -> Option<Self> {
        let fields = serde_json::from_str(form.get(SHOWN)?);
        fields.ok().map(Self)
    }

    /// What was typed, with every field left as it stood as it is now: `self` is
    /// what the form would show of the record as it stands, `understood` what it
    /// would show of what was typed (`9.5"` is `24.1 cm`: no clash with itself).
    ///
    /// # Errors
    /// The fields somebody else made something else meanwhile, each with theirs.
    pub fn merge(
        &self,
        form: &HashMap<String, String>,
        understood: &Self,
    ) -> Result<HashMap<String, String>, Mistakes> {
        let was = Self::said(form).unwrap_or_else(|| self.clone());
        let names = self.0.keys().chain(was.0.keys()).chain(form.keys());
        let mut merged = HashMap::new();
        let mut clashes = Mistakes::new();
        for name in names.filter(|name| !ORDERS.contains(&name.as_str())) {
            let typed = form.get(name).map_or("", |text| text.trim());
            let (was, now) = (was.text(name).trim(), self.text(name).trim());
            let takes = if typed == was { now } else { typed };
            let agree = typed == now || understood.text(name) == now && !now.is_empty();
            if typed != was && now != was && !agree {
                clashes.insert(name.clone(), clash(now, typed));
            }
            if !takes.is_empty() {
                merged.insert(name.clone(), takes.to_owned());
            }
        }
        if clashes.is_empty() {
            return Ok(merged);
        }
        let said = clashes.iter().map(|(name, clash)| {
            let name = name.replace('-', " ");
            format!("{name} {clash}")
        });
        let all: Vec<String> = said.collect();
        let whole = format!(
            "somebody else changed this meanwhile: {}. Keep once more to have it your way",
            all.join("; ")
        );
        clashes.insert(String::new(), whole);
        Err(clashes)
    }

    /// Whether nobody changed since what a form showed, for taking it off: `self`
    /// is what the form would show now.
    ///
    /// # Errors
    /// In words, what is different now.
    pub fn unchanged(&self, form: &HashMap<String, String>) -> Result<(), String> {
        let Some(was) = Self::said(form) else {
            return Ok(());
        };
        let names = self.0.keys().chain(was.0.keys());
        let other = names.filter(|name| self.text(name) != was.text(name));
        let mut other: Vec<String> = other
            .map(|name| {
                let now = or_nothing(self.text(name));
                format!("{} is “{now}”", name.replace('-', " "))
            })
            .collect();
        other.dedup();
        if other.is_empty() {
            return Ok(());
        }
        Err(format!(
            "somebody else changed this meanwhile: now {}. Take it off once more if it must go",
            other.join("; ")
        ))
    }

    /// A zone as the walk shows it.
    #[must_use]
    pub fn of_zone(zone: &Zone, system: System) -> Self {
        let along = |m: f64| shown_along(system, m);
        let across = |m: f64| shown_across(system, m);
        let maybe = |m: Option<f64>| m.map_or(String::new(), across);
        let yes = |answer: Option<bool>| match answer {
            Some(true) => "yes".to_owned(),
            Some(false) => "no".to_owned(),
            None => String::new(),
        };
        let (opening, length, width) = match zone.opening {
            None => ("", None, None),
            Some(Opening::Round(d)) => ("round", None, Some(d)),
            Some(Opening::Rectangle(l, w)) => ("rectangle", Some(l), Some(w)),
        };
        Self::of([
            ("from", along(zone.from)),
            ("to", along(zone.to)),
            ("width", across(zone.width)),
            ("offset", across(zone.offset)),
            ("height", maybe(zone.height)),
            ("height-at-lid", maybe(zone.height_at_lid)),
            ("floor", maybe(zone.floor)),
            ("opening", opening.to_owned()),
            ("along", maybe(length)),
            ("across", maybe(width)),
            ("dryness", key(zone.dryness)),
            ("reach", key(zone.reach)),
            ("underside", yes(zone.underside_reachable)),
            ("non-slip", yes(zone.non_slip)),
            ("padded", yes(zone.padded)),
        ])
    }

    /// A fitting as its form shows it.
    #[must_use]
    pub fn of_fitting(fitting: &Fitting, system: System) -> Self {
        let across = |m: f64| shown_across(system, m);
        let place = [
            ("name", fitting.name.clone()),
            ("mount", fitting.mount.clone()),
            ("x", shown_along(system, fitting.x)),
            ("y", across(fitting.y)),
            ("z", fitting.z.map_or(String::new(), across)),
        ];
        Self::of(place.into_iter().chain(sizes(&fitting.kind, system)))
    }

    /// The form of a new fitting: amidships, to be moved.
    #[must_use]
    pub fn of_new_fitting(length: Option<f64>, system: System) -> Self {
        let amidships = length.map_or(1.5, |l| 0.5 * l);
        Self::of([
            ("x", shown_along(system, amidships)),
            ("y", shown_across(system, 0.0)),
        ])
    }

    /// A change as its form shows it.
    #[must_use]
    pub fn of_modification(m: &Modification, system: System) -> Self {
        let along = |m: f64| shown_along(system, m);
        let across = |m: f64| shown_across(system, m);
        let mut fields: Vec<(String, String)> = Vec::new();
        let mut put = |name: &str, text: String| fields.push((name.to_owned(), text));
        put("name", m.name.clone());
        put("mass", system.text(Dimension::Mass, m.mass, 1));
        put("x", along(m.x));
        put("z", across(m.z));
        put("holes", m.holes.to_string());
        put("price", m.price.map_or(String::new(), |p| format!("{p}")));
        put("note", m.note.clone());
        put("done", tick(m.progress == Progress::Done));
        put("undoable", tick(m.can_be_undone));
        for name in &m.removes {
            put(&format!("removes-{name}"), tick(true));
        }
        for (name, grade) in &m.dryness {
            put(&format!("seals-{name}"), grade.key().to_owned());
        }
        if let Some(zone) = m.zones.first() {
            put("zone-from", along(zone.from));
            put("zone-to", along(zone.to));
            put("zone-width", across(zone.width));
            put("zone-height", zone.height.map_or(String::new(), across));
            if let Some(Opening::Round(d)) = zone.opening {
                put("zone-opening", across(d));
            }
            put("zone-kind", zone.kind.key().to_owned());
            put("zone-dryness", key(zone.dryness));
        }
        Self::of(fields)
    }

    /// The form of a new change.
    #[must_use]
    pub fn of_new_modification() -> Self {
        let kind = ZoneKind::SternHatch.key().to_owned();
        Self::of([("undoable", tick(true)), ("zone-kind", kind)])
    }

    /// A configuration as its form shows it.
    #[must_use]
    pub fn of_configuration(c: &Configuration) -> Self {
        let with = c.modifications.iter();
        let with = with.map(|name| (format!("with-{name}"), tick(true)));
        let words = set_up(c.propulsion, c.seat, c.seat_used, c.seats);
        let name = ("name".to_owned(), c.name.clone());
        Self::of(words.into_iter().chain(with).chain([name]))
    }

    /// The form of a new configuration: as she stands.
    #[must_use]
    pub fn of_new_configuration(survey: &Survey) -> Self {
        let with = survey.fitout.done();
        let with = with.map(|m| (format!("with-{}", m.name), tick(true)));
        let (seat, used) = (SeatSetting::Low, SeatUsed::Only);
        let words = set_up(survey.propulsion, seat, used, survey.seats);
        Self::of(words.into_iter().chain(with))
    }

    /// What was judged, each by its key.
    #[must_use]
    pub fn of_judged(survey: &Survey) -> Self {
        let judged = survey.looked.judged.iter();
        Self::of(judged.map(|(what, word)| (what.key(), (*word).to_owned())))
    }

    /// Measured sections: how many, and a mark that tells these from others.
    #[must_use]
    pub fn of_sections(stations: &[Station]) -> Self {
        if stations.is_empty() {
            return Self::default();
        }
        let mut mark = DefaultHasher::new();
        format!("{stations:?}").hash(&mut mark);
        let count = stations.len();
        let sections = format!("{count} of them, {:08x}", mark.finish() as u32);
        Self::of([("sections", sections)])
    }
}

/// The judgements a form answers, with what others answered meanwhile; an empty
/// word takes one off.
///
/// # Errors
/// See [`Shown::merge`].
pub fn judgements(
    survey: &Survey,
    form: &HashMap<String, String>,
) -> Result<HashMap<String, String>, Mistakes> {
    let merged = Shown::of_judged(survey).merge(form, &Shown::default())?;
    let asked = Judgement::ALL.iter().map(|j| j.key());
    let asked = asked.filter(|key| form.contains_key(*key));
    let answer = |key: &str| merged.get(key).cloned().unwrap_or_default();
    Ok(asked.map(|key| (key.to_owned(), answer(key))).collect())
}

fn or_nothing(text: &str) -> &str {
    if text.is_empty() { "nothing" } else { text }
}

fn clash(now: &str, typed: &str) -> String {
    format!(
        "is “{}” now, yours is “{}”",
        or_nothing(now),
        or_nothing(typed)
    )
}

fn tick(is: bool) -> String {
    if is { "yes" } else { "" }.to_owned()
}

fn key<T: Keyed>(word: Option<T>) -> String {
    word.map_or(String::new(), |word| word.key().to_owned())
}

fn set_up(
    propulsion: Propulsion,
    seat: SeatSetting,
    used: SeatUsed,
    seats: u8,
) -> [(String, String); 4] {
    [
        ("propulsion", propulsion.key().to_owned()),
        ("seat", seat.key().to_owned()),
        ("seat-used", used.key().to_owned()),
        ("seats", seats.to_string()),
    ]
    .map(|(name, text)| (name.to_owned(), text))
}

/// How a fitting's sizes stand in their fields.
fn sizes(kind: &FittingKind, system: System) -> HashMap<&'static str, String> {
    let s = |m: f64| shown_across(system, m);
    let maybe = |m: Option<f64>| m.map_or(String::new(), s);
    match *kind {
        FittingKind::Track { length, slot } => {
            [("length", s(length)), ("slot", maybe(slot))].into()
        }
        FittingKind::RodHolder {
            flush,
            angle,
            facing,
            reversible,
        } => [
            ("flush", tick(flush)),
            ("angle", angle.map_or(String::new(), |a| format!("{a:.0}"))),
            ("facing", facing.key().to_owned()),
            ("reversible", tick(reversible)),
        ]
        .into(),
        FittingKind::Tube { length, diameter } => {
            [("length", s(length)), ("diameter", s(diameter))].into()
        }
        FittingKind::CupHolder { depth, drains } => {
            [("depth", s(depth)), ("drains", tick(drains))].into()
        }
        FittingKind::TransducerRecess { length, width } => {
            [("length", s(length)), ("width", s(width))].into()
        }
        FittingKind::Scupper {
            recess,
            diameter,
            state,
            plug,
        } => [
            ("recess", recess.key().to_owned()),
            ("diameter", s(diameter)),
            ("state", state.key().to_owned()),
            ("plug", tick(plug)),
        ]
        .into(),
        FittingKind::Bungee {
            length,
            hooks_per_metre,
        } => [
            ("length", s(length)),
            ("hooks", format!("{hooks_per_metre:.0}")),
        ]
        .into(),
        FittingKind::Seat { slide, low, high } => [
            ("slide", s(slide)),
            ("low", maybe(low)),
            ("high", maybe(high)),
        ]
        .into(),
        FittingKind::FootBraces { slide } => [("slide", s(slide))].into(),
        FittingKind::Insert
        | FittingKind::Plate
        | FittingKind::PadEye
        | FittingKind::DRing
        | FittingKind::Handle
        | FittingKind::AssistStrap
        | FittingKind::DrainPlug => HashMap::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn form(pairs: &[(&str, &str)]) -> HashMap<String, String> {
        let pairs = pairs.iter();
        pairs.map(|&(n, v)| (n.to_owned(), v.to_owned())).collect()
    }

    fn shown(pairs: &[(&str, &str)]) -> Shown {
        Shown::of(pairs.iter().map(|&(n, v)| (n, v.to_owned())))
    }

    #[test]
    fn what_is_left_as_it_stood_takes_what_is_there_now() {
        let was = shown(&[("width", "44.0 cm"), ("floor", "13.5 cm"), ("padded", "no")]);
        let now = shown(&[("width", "46.0 cm"), ("floor", "13.5 cm"), ("padded", "no")]);
        let said = was.sent_along();
        let typed = form(&[("width", "44.0 cm"), ("floor", "12"), ("shown", &said)]);
        let merged = now.merge(&typed, &Shown::default()).unwrap();
        // Theirs, mine, and what I emptied.
        assert_eq!(merged, form(&[("width", "46.0 cm"), ("floor", "12")]));
    }

    #[test]
    fn two_who_typed_into_one_field_are_told() {
        let was = shown(&[("width", "44.0 cm")]).sent_along();
        let now = shown(&[("width", "46.0 cm")]);
        let typed = |text: &str| form(&[("width", text), ("shown", &was)]);
        let merge = |now: &Shown, typed| now.merge(&typed, &Shown::default());
        let told = merge(&now, typed("45")).unwrap_err();
        assert_eq!(told["width"], "is “46.0 cm” now, yours is “45”");
        assert!(told[""].contains("width is “46.0 cm” now"), "{}", told[""]);
        // The same twice is no clash; nor is a form that does not say.
        assert!(merge(&now, typed("46.0 cm")).is_ok());
        assert!(merge(&now, form(&[("width", "45")])).is_ok());
        // Nor is the same in other words.
        let inches = now.merge(&typed("18.1 in"), &now.clone()).unwrap();
        assert_eq!(inches["width"], "18.1 in");
        // One that was emptied there while it was changed here is one.
        let gone = merge(&Shown::default(), typed("45")).unwrap_err();
        assert!(gone["width"].contains("“nothing” now"));
        let nonsense = form(&[("shown", "{nonsense")]);
        assert!(merge(&Shown::default(), nonsense).is_ok());
    }

    #[test]
    fn nothing_is_taken_off_that_somebody_changed_meanwhile() {
        let was = shown(&[("mass", "1.2 kg"), ("holes", "8")]);
        let typed = form(&[("shown", &was.sent_along())]);
        assert_eq!(was.unchanged(&typed), Ok(()));
        let now = shown(&[("mass", "1.2 kg"), ("holes", "4")]);
        let told = now.unchanged(&typed).unwrap_err();
        assert!(told.contains("now holes is “4”. Take"), "{told}");
    }

    #[test]
    fn other_sections_have_another_mark() {
        let hulls = crate::demo_data::catalogue().unwrap().hulls;
        let measured = hulls.iter().find(|h| h.survey.offsets.len() > 3).unwrap();
        let all = &measured.survey.offsets;
        let mark = |stations: &[Station]| Shown::of_sections(stations);
        assert_eq!(mark(all), mark(&all.clone()));
        assert_ne!(mark(all), mark(&all[1..]));
        assert_eq!(mark(&[]), Shown::default());
    }
}

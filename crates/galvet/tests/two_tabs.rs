//! Two people at one hull: what they change in different fields is kept, what
//! they both change is said, and nothing is lost.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_core::base::Keyed;
use galvet_core::hull::Survey;
use rocket::http::{ContentType, RawStr, Status};
use std::collections::BTreeMap;

const HULL: &str = "quarnel-sprannet";

/// What a hidden field of a page says.
fn hidden(page: &str, name: &str) -> Option<String> {
    let mark = format!("name=\"{name}\" value=\"");
    let text = page.split(&mark).nth(1)?.split('"').next()?;
    Some(text.replace("&#34;", "\"").replace("&#38;", "&"))
}

/// A form as a tab shows it: its fields, and what it sends along.
struct Tab<'d> {
    desk: &'d Desk,
    at: String,
    fields: BTreeMap<String, String>,
    shown: String,
}

impl<'d> Tab<'d> {
    fn open(desk: &'d Desk, at: &str) -> Self {
        Self::read(desk, at, &desk.page(at))
    }

    fn read(desk: &'d Desk, at: &str, page: &str) -> Self {
        let shown = hidden(page, "shown").unwrap();
        let mut fields: BTreeMap<String, String> = serde_json::from_str(&shown).unwrap();
        for name in ["kind", "anew"] {
            fields.extend(hidden(page, name).map(|value| (name.to_owned(), value)));
        }
        let at = at.to_owned();
        Self {
            desk,
            at,
            fields,
            shown,
        }
    }

    /// Types into fields, one that is emptied with nothing.
    fn typing(mut self, pairs: &[(&str, &str)]) -> Self {
        let pairs = pairs.iter().map(|&(n, v)| (n.to_owned(), v.to_owned()));
        self.fields.extend(pairs);
        self
    }

    fn send(&self, action: &str) -> (Status, String) {
        let own = [("action", action), ("shown", &self.shown)];
        let fields = self.fields.iter().map(|(n, v)| (n.as_str(), v.as_str()));
        let body: Vec<String> = fields
            .chain(own)
            .map(|(n, v)| {
                let encode = |text| RawStr::new(text).percent_encode().to_string();
                format!("{}={}", encode(n), encode(v))
            })
            .collect();
        let body = body.join("&");
        let answer = self.desk.send(&self.at, ContentType::Form, &body);
        (answer.status(), answer.into_string().unwrap_or_default())
    }

    fn kept(&self) {
        let (status, page) = self.send("keep");
        assert_eq!(status, Status::SeeOther, "{page}");
    }

    /// What is said where it was refused, and the tab as it stands then.
    fn refused(&self, action: &str) -> (String, Self) {
        let (status, page) = self.send(action);
        assert_eq!(status, Status::UnprocessableEntity);
        let said = page.split("Not saved: ").nth(1).unwrap();
        let said = said.split('<').next().unwrap().to_owned();
        let mut again = Self::read(self.desk, &self.at, &page);
        again.fields.clone_from(&self.fields);
        (said, again)
    }
}

fn survey(desk: &Desk) -> Survey {
    let hulls = desk.store.catalogue().unwrap().hulls;
    let mut hulls = hulls.into_iter().map(|h| h.survey);
    hulls.find(|s| s.key == HULL).unwrap()
}

#[test]
fn a_zone_measured_by_two() {
    let desk = Desk::demo();
    let name = survey(&desk).fitout.zones[0].name.clone();
    let at = format!("/hulls/{HULL}/walk?zone={}", name.replace(' ', "%20"));
    let zone = |desk: &Desk| {
        let zones = survey(desk).fitout.zones;
        zones.into_iter().find(|z| z.name == name).unwrap()
    };
    let (mine, yours) = (Tab::open(&desk, &at), Tab::open(&desk, &at));
    let before = zone(&desk);
    yours.typing(&[("width", "31 cm")]).kept();
    let mine = mine.typing(&[("height", "17 cm")]);
    mine.kept();
    let both = zone(&desk);
    assert_eq!((both.width, both.height), (0.31, Some(0.17)));
    // What neither touched keeps its last digit.
    assert_eq!((both.from, both.floor), (before.from, before.floor));
    // Both at one field: said with both, what was typed stays, once more keeps it.
    let mine = mine.typing(&[("width", "33 cm")]);
    let (said, again) = mine.refused("keep");
    assert!(
        said.contains("width is “31.0\u{a0}cm” now, yours is “33 cm”"),
        "{said}"
    );
    assert_eq!(zone(&desk).width, 0.31);
    // What a form on its way sends is refused just so.
    assert!(mine.refused("draft").0.contains("width is"));
    again.kept();
    assert_eq!((zone(&desk).width, zone(&desk).height), (0.33, Some(0.17)));
    // A measurement somebody changed is not taken off unseen.
    let (said, again) = mine.refused("forget");
    assert!(said.contains("width is “33.0\u{a0}cm”"), "{said}");
    assert_eq!(again.send("forget").0, Status::SeeOther);
    assert!(survey(&desk).fitout.zones.iter().all(|z| z.name != name));
}

#[test]
fn a_place_measured_by_one_that_is_not_there_for_the_other() {
    let desk = Desk::demo();
    let at = "/hulls/pellune-rusko/walk?zone=centre%20console";
    let mine = Tab::open(&desk, at).typing(&[("width", "14 cm")]);
    assert_eq!(Tab::open(&desk, at).send("absent").0, Status::SeeOther);
    let (said, _) = mine.refused("keep");
    assert!(
        said.contains("it has none; keeping this says it has"),
        "{said}"
    );
    let (_, page) = mine.send("keep");
    assert!(page.contains("value=\"14 cm\"") && page.contains("name=\"anew\""));
    mine.typing(&[("anew", "yes")]).kept();
    let hulls = desk.store.catalogue().unwrap().hulls;
    let mut hulls = hulls.into_iter().map(|h| h.survey);
    let hull = hulls.find(|s| s.key == "pellune-rusko").unwrap();
    assert_eq!(hull.looked.absent, [""; 0]);
    assert_eq!(hull.fitout.zones[0].width, 0.14);
}

#[test]
fn a_fitting_moved_by_two() {
    let desk = Desk::demo();
    let name = survey(&desk).fitout.fittings[0].name.clone();
    let at = format!("/hulls/{HULL}/fittings?at={}", name.replace(' ', "%20"));
    let fitting = |desk: &Desk| {
        let all = survey(desk).fitout.fittings;
        all.into_iter().find(|f| f.name == name)
    };
    let (mine, yours) = (Tab::open(&desk, &at), Tab::open(&desk, &at));
    yours.typing(&[("mount", "17 mm slot")]).kept();
    let mine = mine.typing(&[("x", "1.11 m")]);
    mine.kept();
    let both = fitting(&desk).unwrap();
    assert_eq!((both.x, both.mount.as_str()), (1.11, "17 mm slot"));
    let (said, again) = mine.refused("forget");
    assert!(said.contains("mount is “17 mm slot”"), "{said}");
    assert_eq!(again.send("forget").0, Status::SeeOther);
    assert_eq!(fitting(&desk), None);
    // Kept by one while another takes it off: said, and nothing comes back unseen.
    let (status, page) = again.send("keep");
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("somebody took this off meanwhile"));
    assert!(page.contains("value=\"1.11 m\"") && page.contains("Put it on"));
    assert_eq!(fitting(&desk), None);
}

#[test]
fn a_change_and_a_set_up_noted_by_two() {
    let desk = Desk::demo();
    let change = &survey(&desk).fitout.modifications[0].name.clone();
    let at = format!(
        "/hulls/{HULL}/changes?change={}",
        change.replace(' ', "%20")
    );
    let (mine, yours) = (Tab::open(&desk, &at), Tab::open(&desk, &at));
    yours.typing(&[("holes", "7"), ("done", "yes")]).kept();
    mine.typing(&[("price", "99"), ("note", "with two tabs")])
        .kept();
    let both = survey(&desk).fitout.modifications[0].clone();
    assert_eq!((both.holes, both.price), (7, Some(99.0)));
    assert_eq!(both.note, "with two tabs");
    let late = Tab::open(&desk, &at).typing(&[("note", "late")]);
    assert_eq!(Tab::open(&desk, &at).send("forget").0, Status::SeeOther);
    let (status, page) = late.send("keep");
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("somebody took this off meanwhile"));
    assert!(page.contains("late</textarea>"), "what was typed is lost");
    assert!(
        survey(&desk)
            .fitout
            .modifications
            .iter()
            .all(|m| m.name != *change)
    );

    let new = desk.post(
        &format!("/hulls/{HULL}/changes?set_up="),
        "name=light&seats=1&seat=low",
    );
    assert_eq!(new, Status::SeeOther);
    let at = format!("/hulls/{HULL}/changes?set_up=light");
    let (mine, yours) = (Tab::open(&desk, &at), Tab::open(&desk, &at));
    yours.typing(&[("seat", "high")]).kept();
    let (said, _) = mine.typing(&[("seat", "travel")]).refused("keep");
    assert!(
        said.contains("seat is “high” now, yours is “travel”"),
        "{said}"
    );
}

#[test]
fn judged_by_two() {
    let desk = Desk::demo();
    let at = format!("/hulls/{HULL}/comfort");
    let word = |desk: &Desk, what: &str| {
        let judged = survey(desk).looked.judged;
        let found = judged.into_iter().find(|(j, _)| Keyed::key(*j) == what);
        found.map(|(_, word)| word)
    };
    assert_eq!(desk.post(&at, "backrest=&snag="), Status::SeeOther);
    let (mine, yours) = (Tab::open(&desk, &at), Tab::open(&desk, &at));
    yours.typing(&[("backrest", "high"), ("snag", "")]).kept();
    let mine = mine.typing(&[("backrest", ""), ("snag", "few")]);
    mine.kept();
    assert_eq!(
        (word(&desk, "backrest"), word(&desk, "snag")),
        (Some("high"), Some("few"))
    );
    let (said, again) = mine.typing(&[("backrest", "low")]).refused("draft");
    assert!(
        said.contains("backrest is “high” now, yours is “low”"),
        "{said}"
    );
    again.kept();
    assert_eq!(word(&desk, "backrest"), Some("low"));
}

#[test]
fn sections_measured_by_two() {
    let desk = Desk::demo();
    let at = format!("/hulls/{HULL}/lines");
    let rows = |half: f64| -> String {
        let station = |x: f64| format!("{x},0,0\n{x},{half},0\n{x},{half},0.3\n{x},0,0.3\n");
        let all: String = [0.0, 1.5, 3.0].map(station).concat();
        format!("station_m,half_breadth_m,height_m\n{all}")
    };
    let shown = |page: &str| hidden(page, "shown").unwrap();
    let send = |shown: &str, half: f64| {
        let kind = ContentType::parse_flexible("multipart/form-data; boundary=cut").unwrap();
        let part = |name: &str, text: &str| {
            format!("--cut\r\nContent-Disposition: form-data; name=\"{name}\"\r\n\r\n{text}\r\n")
        };
        let parts = [
            part("shown", shown),
            part("text", &rows(half)),
            part("action", "keep"),
        ];
        let answer = desk.send(&at, kind, &format!("{}--cut--\r\n", parts.concat()));
        (answer.status(), answer.into_string().unwrap_or_default())
    };
    let half = || {
        survey(&desk).offsets[1]
            .points
            .iter()
            .map(|p| p.0)
            .fold(0.0, f64::max)
    };
    let before = shown(&desk.page(&at));
    assert_eq!(send(&before, 0.4).0, Status::SeeOther);
    let (status, page) = send(&before, 0.42);
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("somebody else put other sections on"));
    assert!(page.contains("0.42"), "what was typed is lost");
    assert_eq!(half(), 0.4);
    assert_eq!(send(&shown(&page), 0.42).0, Status::SeeOther);
    assert_eq!(half(), 0.42);
}

//! Who may ask for what: one line for each route, method and all.
//!
//! A route without a line is the owner's alone, and `tests/doors.rs` fails on it.

use galvet_store::Role;
use rocket::http::Method::{self, Get, Post};

/// Who may.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rule {
    /// Everybody, signed in or not.
    Anyone,
    /// Whoever is signed in, also with a password that has to be changed first.
    Self_,
    /// Whoever is signed in; a page of this kind can be handed out.
    Reads,
    /// The same, of what is a reader's own.
    Keeps,
    /// Staff; a page of this kind can be handed out all the same.
    Shows,
    /// Staff.
    Works,
    /// The owner.
    Owns,
    /// Staff who gave their password a moment ago.
    WorksSurely,
    /// The owner, who gave their password a moment ago.
    OwnsSurely,
}

impl Rule {
    /// The least role that may.
    #[must_use]
    pub const fn least(self) -> Option<Role> {
        match self {
            Self::Anyone => None,
            Self::Self_ | Self::Reads | Self::Keeps => Some(Role::Looker),
            Self::Shows | Self::Works | Self::WorksSurely => Some(Role::Staff),
            Self::Owns | Self::OwnsSurely => Some(Role::Owner),
        }
    }

    /// Whether a page of this kind can be handed out.
    #[must_use]
    pub const fn is_handed_out(self) -> bool {
        matches!(self, Self::Reads | Self::Shows)
    }

    /// Whether the password is asked for again.
    #[must_use]
    pub const fn surely(self) -> bool {
        matches!(self, Self::WorksSurely | Self::OwnsSurely)
    }
}

/// The rules: a route stands in it as it is written at its handler, without its query.
pub const RULES: &[(Rule, Method, &[&str])] = &[
    (
        Rule::Anyone,
        Get,
        &[
            "/assets/<version>/<path..>",
            "/sign-in",
            "/refused/host",
            "/refused/long",
            "/refused/origin",
            "/refused/proxy",
            // Whoever has the word of one.
            "/screen/<word>",
            "/screen/<word>/now",
        ],
    ),
    (Rule::Anyone, Post, &["/sign-in"]),
    (Rule::Self_, Get, &["/account", "/account/prove"]),
    (
        Rule::Self_,
        Post,
        &[
            "/sign-out",
            "/account/password",
            "/account/prove",
            "/account/strength",
            "/account/sessions/<session>/end",
        ],
    ),
    (
        Rule::Reads,
        Get,
        &[
            "/",
            "/ask",
            "/compare",
            "/events",
            "/events/<slug>",
            "/flip",
            "/hulls",
            "/hulls.csv",
            "/hulls/<slug>",
            "/hulls/<slug>/afloat",
            "/hulls/<slug>/card",
            "/hulls/<slug>/changes",
            "/hulls/<slug>/comfort",
            "/hulls/<slug>/drawings/<file>",
            "/hulls/<slug>/figures/<figure>",
            "/hulls/<slug>/fittings",
            "/hulls/<slug>/lines",
            "/hulls/<slug>/offsets.csv",
            "/hulls/<slug>/papers",
            "/hulls/<slug>/papers/<kind>",
            "/hulls/<slug>/photos",
            "/hulls/<slug>/photos/<key>",
            "/hulls/<slug>/pond",
            "/hulls/<slug>/record",
            "/hulls/<slug>/stow",
            "/hulls/<slug>/walk",
            "/kit",
            "/kit.csv",
            "/kit/<slug>",
            "/moving",
            "/papers/of",
            "/part/compare",
            "/part/hulls",
            "/part/hulls/<slug>",
            "/part/hulls/<slug>/changes",
            "/part/hulls/<slug>/stow",
            "/part/ranking",
            "/parts",
            "/pictures/<file>",
            "/pond",
            "/pond/course.json",
            "/pond/help",
            "/pond/strip.svg",
            "/pond/trace.csv",
            "/ranking.csv",
            "/ranking.json",
            "/reckons",
            "/rigs/<slug>",
            "/summary",
            "/tour",
            "/validation",
            "/waters",
            "/waters/<slug>",
        ],
    ),
    // Tries a layout out; nothing is kept.
    (Rule::Keeps, Post, &["/part/hulls/<slug>/stow"]),
    (
        Rule::Keeps,
        Post,
        &["/settings/sunlight", "/settings/units", "/shortlist"],
    ),
    (Rule::Shows, Get, &["/log/outings/<key>"]),
    // What says who came, bought or changed something, and what only leads to a change.
    (
        Rule::Works,
        Get,
        &[
            "/bookings",
            "/bookings.ics",
            "/counter",
            "/customers",
            "/customers/<slug>",
            "/customers/<slug>/data.zip",
            "/everything.json",
            "/everything.zip",
            "/hulls/<slug>/trials",
            "/import",
            "/import/gear-template.csv",
            "/import/table",
            "/import/template.csv",
            "/import/template.xlsx",
            "/lately",
            "/log",
            "/log.csv",
            "/log.ics",
            "/log.json",
            "/log/ahead",
            "/log/import",
            "/log/kit",
            "/log/new",
            "/log/offline.js",
            "/log/outings/<key>/changes",
            "/log/outings/<key>/track.gpx",
            "/log/service",
            "/log/trust",
            "/new-customer",
            "/new-event",
            "/new-hull",
            "/new-place",
            "/new-thing",
            "/new-water",
            "/papers",
            "/part/new-hull",
            "/places",
            "/places/<slug>",
            "/questions",
            "/set-aside",
            "/stock",
            "/stock/<slug>",
            "/trash",
        ],
    ),
    (
        Rule::Works,
        Post,
        &[
            "/bookings",
            "/bookings/<key>/off",
            "/counter/screen",
            "/counter/screen/<word>/close",
            "/customers/<slug>",
            "/new-customer",
            "/events/<slug>",
            "/hulls/<slug>/afloat",
            "/hulls/<slug>/afloat/back",
            "/hulls/<slug>/back",
            "/hulls/<slug>/changes",
            "/hulls/<slug>/comfort",
            "/hulls/<slug>/doubt",
            "/hulls/<slug>/fittings",
            "/hulls/<slug>/lines",
            "/hulls/<slug>/photos",
            "/hulls/<slug>/photos/<key>",
            "/hulls/<slug>/readings",
            "/hulls/<slug>/readings/off",
            "/hulls/<slug>/remedy",
            "/hulls/<slug>/stand-by",
            "/hulls/<slug>/stow",
            "/hulls/<slug>/throw-away",
            "/hulls/<slug>/ticks",
            "/hulls/<slug>/ticks/end",
            "/hulls/<slug>/trials",
            "/hulls/<slug>/walk",
            "/hulls/<slug>/walk/there",
            "/hulls/<slug>/weigh",
            "/hulls/<slug>/words",
            "/import",
            "/import/table",
            "/kit/<slug>",
            "/kit/<slug>/weigh",
            "/kit/starter",
            "/log/import",
            "/log/new",
            "/log/outings/<key>",
            "/log/outings/<key>/evidence",
            "/log/outings/<key>/track",
            "/log/service",
            "/moving",
            "/new-event",
            "/new-hull",
            "/new-hull/leaflet",
            "/new-place",
            "/new-thing",
            "/new-water",
            "/places/<slug>",
            "/questions",
            "/questions/<slug>/throw-away",
            "/rigs",
            "/rigs/<slug>",
            "/set-aside",
            "/shared",
            "/shared/<token>/until",
            "/shared/<token>/withdraw",
            "/stock/<slug>",
            "/trash",
            "/undo",
            "/waters/<slug>",
        ],
    ),
    (Rule::WorksSurely, Get, &["/customers/<slug>/forget"]),
    (Rule::WorksSurely, Post, &["/customers/<slug>/forget"]),
    (Rule::Owns, Get, &["/retention"]),
    (Rule::OwnsSurely, Post, &["/retention"]),
    (
        Rule::OwnsSurely,
        Get,
        &["/people", "/backups", "/backups/galvet.db"],
    ),
    (
        Rule::OwnsSurely,
        Post,
        &[
            "/people",
            "/people/<id>/role",
            "/people/<id>/password",
            "/people/<id>/out",
            "/people/<id>/back",
            "/people/sessions/<session>/end",
            "/backups/restore",
        ],
    ),
];

/// The rule of a route as it is written; the owner's where it has none.
#[must_use]
pub fn rule_of(method: Method, route: &str) -> Rule {
    let lines = RULES.iter().filter(|(_, m, _)| *m == method);
    let found = lines.clone().find(|(_, _, routes)| routes.contains(&route));
    found.map_or(Rule::Owns, |(rule, _, _)| *rule)
}

/// Whether a route as it is written is the one of a path.
pub(super) fn fits(route: &str, path: &[&str]) -> bool {
    let wanted: Vec<&str> = route.split('/').filter(|part| !part.is_empty()).collect();
    let open = wanted.last().is_some_and(|part| part.ends_with("..>"));
    let long_enough = wanted.len() == path.len() || open && path.len() >= wanted.len();
    let each = |(w, p): (&&str, &&str)| w.starts_with('<') || w == p;
    long_enough && wanted.iter().zip(path).all(each)
}

/// The rule of the route a path leads to: of those it fits, the one with most words of its
/// own, as requests are routed. `None` where it leads nowhere.
#[must_use]
pub fn rule_at(method: Method, address: &str) -> Option<Rule> {
    let path = address.split(['?', '#']).next().unwrap_or_default();
    let path: Vec<&str> = path.split('/').filter(|part| !part.is_empty()).collect();
    let words = |route: &str| route.split('/').filter(|p| !p.starts_with('<')).count();
    let lines = RULES.iter().filter(|(_, m, _)| *m == method);
    lines
        .flat_map(|(rule, _, routes)| routes.iter().map(move |route| (*rule, *route)))
        .filter(|(_, route)| fits(route, &path))
        .max_by_key(|(_, route)| words(route))
        .map(|(rule, _)| rule)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_route_stands_twice() {
        let mut seen = Vec::new();
        for (_, method, routes) in RULES {
            for route in *routes {
                assert!(!seen.contains(&(*method, *route)), "{method} {route}");
                seen.push((*method, *route));
            }
        }
    }

    #[test]
    fn a_path_has_the_rule_of_its_route() {
        for (method, address, rule) in [
            (Get, "/?mass=88", Some(Rule::Reads)),
            (Get, "/hulls/a-b", Some(Rule::Reads)),
            (Get, "/hulls/a-b/trials?x=1#y", Some(Rule::Works)),
            (Post, "/hulls/a-b/photos/3", Some(Rule::Works)),
            (Get, "/people", Some(Rule::OwnsSurely)),
            (Get, "/assets/x/fonts/a.woff2", Some(Rule::Anyone)),
            (Get, "/nowhere", None),
            (Post, "/hulls", None),
        ] {
            assert_eq!(rule_at(method, address), rule, "{method} {address}");
        }
        assert_eq!(rule_of(Get, "/nowhere"), Rule::Owns);
    }
}

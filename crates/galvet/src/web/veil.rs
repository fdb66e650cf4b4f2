//! Pages as somebody sees them who may not do everything: without the forms and the ways
//! that would be refused, by the very rules they are refused by.

use super::rules::rule_at;
use super::visitor::Visitor;
use galvet_store::Role;
use lol_html::{RewriteStrSettings, element, rewrite_str};
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::{ContentType, Method};
use rocket::{Request, Response};
use std::io::Cursor;

/// Takes away what would be refused.
pub(super) struct Veil;

/// Whether somebody may follow an address; what is none of ours is nobody's business.
fn may(role: Role, method: Method, address: &str) -> bool {
    let ours = address.starts_with('/') && !address.starts_with("//");
    !ours
        || rule_at(method, address)
            .is_none_or(|rule| rule.least().is_none_or(|least| role >= least))
}

/// A page at `here` without what a role may not.
fn veiled(page: &str, here: &str, role: Role) -> String {
    let settings = RewriteStrSettings {
        element_content_handlers: vec![
            element!("body", |e| {
                e.set_attribute("data-veiled", role.key())?;
                Ok(())
            }),
            element!("form", |e| {
                let posts = e
                    .get_attribute("method")
                    .is_some_and(|m| m.eq_ignore_ascii_case("post"));
                let method = if posts { Method::Post } else { Method::Get };
                let action = e.get_attribute("action");
                let action = action
                    .filter(|a| !a.is_empty())
                    .unwrap_or_else(|| here.to_owned());
                if !may(role, method, &action) {
                    e.remove();
                }
                Ok(())
            }),
            element!("button[formaction]", |e| {
                let action = e.get_attribute("formaction").unwrap_or_default();
                if !may(role, Method::Post, &action) {
                    e.remove();
                }
                Ok(())
            }),
            // What is a customer's, or their owner's alone.
            element!("[data-private]", |e| {
                if role < Role::Staff {
                    e.remove();
                }
                Ok(())
            }),
            element!("a[href]", |e| {
                let href = e.get_attribute("href").unwrap_or_default();
                if !may(role, Method::Get, &href) {
                    e.remove_attribute("href");
                    e.set_attribute("class", "not-yours")?;
                }
                Ok(())
            }),
        ],
        ..RewriteStrSettings::new()
    };
    rewrite_str(page, settings).unwrap_or_default()
}

#[rocket::async_trait]
impl Fairing for Veil {
    fn info(&self) -> Info {
        Info {
            name: "what one may not",
            kind: Kind::Response,
        }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        let Ok(Visitor::Signed(who)) = Visitor::known(request) else {
            return;
        };
        let role = who.person.role;
        if role == Role::Owner || response.content_type() != Some(ContentType::HTML) {
            return;
        }
        let body = response.body_mut().to_string().await.unwrap_or_default();
        let body = veiled(&body, request.uri().path().as_str(), role);
        response.set_sized_body(body.len(), Cursor::new(body.into_bytes()));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn forms_and_ways_that_would_be_refused_are_not_there() {
        let page = r#"<b data-private>Mereth</b> <a href="/trash">Trash</a> <a href="/hulls/a">A</a> <a href="https://x.example/">x</a>
            <form method="post" action="/undo"><button>Undo</button></form>
            <form method="post" action="/shortlist"><button formaction="/trash">T</button><button>Keep</button></form>
            <form action="/hulls"><button>Find</button></form><form method="post"><button>Here</button></form>"#;
        let seen = veiled(page, "/hulls/a/words", Role::Looker);
        for gone in ["Mereth", "href=\"/trash\"", "Undo", ">T<", "Here"] {
            assert!(!seen.contains(gone), "{gone}: {seen}");
        }
        for stays in [
            ">Trash</a>",
            "href=\"/hulls/a\"",
            "x.example",
            "Keep",
            "Find",
        ] {
            assert!(seen.contains(stays), "{stays}: {seen}");
        }
        let staff = veiled(page, "/hulls/a/words", Role::Staff);
        assert_eq!(staff, page);
        let people = r#"<a href="/people">People</a>"#;
        assert!(!veiled(people, "/", Role::Staff).contains("href"));
    }
}

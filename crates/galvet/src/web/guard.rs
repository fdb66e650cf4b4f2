//! The gate every request passes: whose server it thinks this is, whether a
//! change comes from our own pages, and the headers every answer carries.

use super::visitor::Access;
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::uri::Origin;
use rocket::http::{Header, Method};
use rocket::{Data, Request, Response};
use std::collections::BTreeSet;
use std::net::SocketAddr;

/// Where refused requests are sent; the routes answer with an error page.
pub(crate) const WRONG_HOST: &str = "/refused/host";
/// See [`WRONG_HOST`].
pub(crate) const WRONG_ORIGIN: &str = "/refused/origin";

/// See [`WRONG_HOST`].
pub(crate) const THROUGH_PROXY: &str = "/refused/proxy";
/// See [`WRONG_HOST`].
pub(crate) const TOO_LONG: &str = "/refused/long";
/// Longest query, bytes.
const LONGEST_QUERY: usize = 8 * 1024;

/// Scripts, styles, fonts and pictures from here only; nothing inline, no
/// frames, forms go back home.
const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; \
    img-src 'self'; font-src 'self'; connect-src 'self'; form-action 'self'; \
    base-uri 'none'; frame-ancestors 'none'";

/// Refuses unknown hosts and changes asked for by other sites.
#[derive(Debug)]
pub(crate) struct Gate {
    hosts: BTreeSet<String>,
    access: Access,
}

impl Gate {
    /// Lets through localhost, the address listened on, and `names`.
    pub(crate) fn new(listen: SocketAddr, names: &[String], access: Access) -> Self {
        let mut hosts: BTreeSet<String> =
            ["localhost", "127.0.0.1", "::1"].map(str::to_owned).into();
        hosts.insert(listen.ip().to_string());
        hosts.extend(names.iter().map(|name| name.to_lowercase()));
        Self { hosts, access }
    }

    fn knows(&self, host: &str) -> bool {
        self.hosts.contains(&bare_host(host).to_lowercase())
    }
}

/// Host without port and without an IPv6 address' brackets.
fn bare_host(host: &str) -> &str {
    if let Some(rest) = host.strip_prefix('[') {
        return rest.split(']').next().unwrap_or_default();
    }
    host.split(':').next().unwrap_or_default()
}

/// Whether a request that changes something comes from a page of ours: the
/// browser says so itself, or names our own origin.
fn from_our_pages(request: &Request<'_>, host: &str) -> bool {
    let header = |name| request.headers().get_one(name);
    match header("Sec-Fetch-Site") {
        Some(site) => site == "same-origin",
        None => header("Origin").is_some_and(|origin| {
            origin
                .split_once("://")
                .is_some_and(|(_, authority)| authority.eq_ignore_ascii_case(host))
        }),
    }
}

/// Whether another site builds this into a page of its own: a frame, a picture,
/// a script. Its readers would pay for what they never asked.
fn built_in_elsewhere(request: &Request<'_>) -> bool {
    let header = |name| request.headers().get_one(name);
    header("Sec-Fetch-Site") == Some("cross-site")
        && header("Sec-Fetch-Dest").is_some_and(|dest| dest != "document")
}

/// Whether a proxy says that it passes a request on for somebody.
fn is_passed_on(request: &Request<'_>) -> bool {
    [
        "Forwarded",
        "X-Forwarded-For",
        "X-Forwarded-Host",
        "X-Real-IP",
    ]
    .into_iter()
    .any(|name| request.headers().contains(name))
}

#[rocket::async_trait]
impl Fairing for Gate {
    fn info(&self) -> Info {
        Info {
            name: "gate",
            kind: Kind::Request | Kind::Response,
        }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        let host = request
            .headers()
            .get_one("Host")
            .unwrap_or_default()
            .to_owned();
        let changes = !matches!(request.method(), Method::Get | Method::Head);
        let refused = if !self.knows(&host) {
            WRONG_HOST
        } else if self.access == Access::Here && is_passed_on(request) {
            THROUGH_PROXY
        } else if changes && !from_our_pages(request, &host) || built_in_elsewhere(request) {
            WRONG_ORIGIN
        } else if request
            .uri()
            .query()
            .is_some_and(|q| q.as_str().len() > LONGEST_QUERY)
        {
            TOO_LONG
        } else {
            return;
        };
        request.set_method(Method::Get);
        request.set_uri(Origin::const_new(refused, None));
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        for (name, value) in [
            ("Content-Security-Policy", POLICY),
            ("X-Content-Type-Options", "nosniff"),
            ("X-Frame-Options", "DENY"),
            ("Referrer-Policy", "same-origin"),
            ("Cross-Origin-Opener-Policy", "same-origin"),
            ("Cross-Origin-Resource-Policy", "same-origin"),
            (
                "Permissions-Policy",
                "camera=(), geolocation=(), microphone=(), payment=(), usb=()",
            ),
        ] {
            response.set_header(Header::new(name, value));
        }
        if (self.access == Access::Accounts { tls: true }) {
            only_by_tls(response);
        }
        if is_personal(request.uri().path().as_str()) {
            // Nor kept by the browser, for whoever sits before it next.
            response.set_header(Header::new("Cache-Control", "no-store"));
        }
        if !response.headers().contains("Cache-Control") {
            // Pages depend on a cookie and on data that changes.
            response.set_header(Header::new("Cache-Control", "private, no-cache"));
        }
    }
}

/// Whether a page is about people.
fn is_personal(path: &str) -> bool {
    const OF_PEOPLE: [&str; 8] = [
        "account",
        "backups",
        "bookings",
        "customers",
        "lately",
        "people",
        "questions",
        "sign-in",
    ];
    let first = path.trim_start_matches('/').split(['/', '.']).next();
    first.is_some_and(|first| OF_PEOPLE.contains(&first))
}

/// Lets no cookie go where it can be read on the way.
fn only_by_tls(response: &mut Response<'_>) {
    let set = response.headers().get("Set-Cookie");
    let set: Vec<String> = set.map(str::to_owned).collect();
    response.remove_header("Set-Cookie");
    for cookie in set {
        let secure = cookie.split(';').any(|part| part.trim() == "Secure");
        let more = if secure { "" } else { "; Secure" };
        response.adjoin_header(Header::new("Set-Cookie", cookie + more));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hosts_are_compared_without_port_and_case() {
        let gate = Gate::new(
            ([127, 0, 0, 1], 80).into(),
            &["Shop.example".into()],
            Access::Here,
        );
        for known in [
            "localhost",
            "LOCALHOST:7340",
            "127.0.0.1:1",
            "[::1]:80",
            "shop.example",
        ] {
            assert!(gate.knows(known), "{known}");
        }
        for unknown in [
            "",
            "evil.example",
            "localhost.evil.example",
            "127.0.0.1.evil",
            "[::2]",
        ] {
            assert!(!gate.knows(unknown), "{unknown}");
        }
    }
}

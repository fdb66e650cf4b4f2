//! Who is before a page: nobody in particular, nobody yet, or somebody who signed in.

use super::asked::is_shared;
use super::trouble::Trouble;
use crate::account::{Accounts, Knock};
use galvet_store::{Role, Standing, Store};
use rocket::Request;
use rocket::http::{Cookie, SameSite};
use rocket::request::{FromRequest, Outcome};
use rocket::time::Duration;
use rocket::tokio::task::spawn_blocking;
use std::convert::Infallible;
use std::net::{IpAddr, Ipv4Addr};
use std::sync::Arc;

/// Who may come in without signing in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Access {
    /// Whoever sits at this machine, as long as nobody has an account.
    Here,
    /// Everybody who reaches it: said on every page.
    Open,
    /// Nobody.
    Accounts {
        /// Whether a proxy before it ends TLS: cookies then go that way only, and the proxy
        /// says who sent a request.
        tls: bool,
    },
}

/// The door, as requests find it.
pub(super) struct Door {
    pub(super) accounts: Arc<Accounts>,
    pub(super) access: Access,
    store: Store,
}

impl Door {
    pub(super) fn new(accounts: Accounts, access: Access, store: Store) -> Self {
        Self {
            accounts: Arc::new(accounts),
            access,
            store,
        }
    }

    const fn tls(&self) -> bool {
        matches!(self.access, Access::Accounts { tls: true })
    }

    /// What the cookie of a session is called: where TLS is, one that nobody without it
    /// can set.
    const fn cookie(&self) -> &'static str {
        if self.tls() {
            "__Host-galvet-session"
        } else {
            "galvet-session"
        }
    }

    /// The cookie of a session.
    pub(super) fn session(&self, token: String) -> Cookie<'static> {
        Cookie::build((self.cookie(), token))
            .path("/")
            .same_site(SameSite::Lax)
            .http_only(true)
            .secure(self.tls())
            .max_age(Duration::days(30))
            .build()
    }

    /// What the browser of a request keeps.
    pub(super) fn token(&self, request: &Request<'_>) -> Option<String> {
        let kept = request.cookies().get(self.cookie())?;
        Some(kept.value().to_owned())
    }

    /// The cookie that takes the place of a session's when it ends.
    pub(super) fn gone(&self) -> Cookie<'static> {
        let mut gone = self.session(String::new());
        gone.make_removal();
        gone
    }

    async fn visitor(&self, request: &Request<'_>) -> Result<Visitor, Trouble> {
        if self.access == Access::Open {
            return Ok(Visitor::Anybody);
        }
        let (accounts, store) = (self.accounts.clone(), self.store.clone());
        let token = self.token(request).unwrap_or_default();
        let here = self.access == Access::Here;
        let look = move || {
            if here && !store.has_people()? {
                return Ok(Visitor::Anybody);
            }
            let standing = accounts.standing(&token)?;
            Ok(standing.map_or(Visitor::Nobody, |s| Visitor::Signed(Arc::new(s))))
        };
        spawn_blocking(look).await?
    }
}

/// Who is before a page.
#[derive(Debug, Clone)]
pub(super) enum Visitor {
    /// Whoever it is may do everything: there are no accounts.
    Anybody,
    /// Somebody who has not signed in.
    Nobody,
    /// Somebody who has.
    Signed(Arc<Standing>),
}

impl Visitor {
    /// Who sends a request; asked once.
    pub(super) async fn of<'r>(request: &'r Request<'_>) -> &'r Result<Self, Trouble> {
        let look = async {
            match request.rocket().state::<Door>() {
                // A paper handed out is nobody's visit, whoever reads it.
                Some(_) if is_shared(request) => Ok(Self::Nobody),
                Some(door) => door.visitor(request).await,
                None => Ok(Self::Nobody),
            }
        };
        request.local_cache_async(look).await
    }

    /// The same where it was asked already; nobody where it was not.
    pub(super) fn known<'r>(request: &'r Request<'_>) -> &'r Result<Self, Trouble> {
        request.local_cache(|| Ok(Self::Nobody))
    }

    /// What they may do at most; `None` for nobody.
    pub(super) fn role(&self) -> Option<Role> {
        match self {
            Self::Anybody => Some(Role::Owner),
            Self::Nobody => None,
            Self::Signed(standing) => Some(standing.person.role),
        }
    }

    /// Who they are, where they signed in.
    pub(super) fn signed(&self) -> Option<&Arc<Standing>> {
        match self {
            Self::Signed(standing) => Some(standing),
            _ => None,
        }
    }
}

/// How this server is reached by whoever asks: scheme, host and port.
pub(super) struct Base(pub(super) String);

impl Base {
    /// Whether it is reached on this machine only.
    pub(super) fn is_here(&self) -> bool {
        let host = self.0.split_once("://").map_or("", |(_, host)| host);
        ["localhost", "127.", "[::1]"]
            .iter()
            .any(|here| host.starts_with(here))
    }
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Base {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Infallible> {
        let tls = request.rocket().state::<Door>().is_some_and(Door::tls);
        let scheme = if tls { "https" } else { "http" };
        // A host the gate knows: another one was refused.
        let host = request.headers().get_one("Host").unwrap_or("localhost");
        Outcome::Success(Self(format!("{scheme}://{host}")))
    }
}

/// From where a request comes: what the proxy says that it was told to trust, else the
/// other end of the connection.
pub(super) fn from(request: &Request<'_>) -> IpAddr {
    let door = request.rocket().state::<Door>();
    let proxied = door.is_some_and(Door::tls);
    // The last one is the proxy's own word; those before it are the sender's.
    let said = proxied
        .then(|| request.headers().get("X-Forwarded-For").last())
        .flatten()
        .and_then(|all| all.rsplit(',').next()?.trim().parse().ok());
    said.or_else(|| request.remote().map(|remote| remote.ip()))
        .unwrap_or(IpAddr::V4(Ipv4Addr::LOCALHOST))
}

/// Who knocks.
pub(super) fn knock(request: &Request<'_>) -> Knock {
    let browser = request.headers().get_one("User-Agent").unwrap_or_default();
    Knock {
        from: from(request),
        browser: browser.chars().filter(|c| !c.is_control()).collect(),
    }
}

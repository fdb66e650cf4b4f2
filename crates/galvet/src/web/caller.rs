//! Whether the reader a computation is for is still there.
//!
//! The web framework finishes a request whether or not anybody waits for it. So
//! the system is asked for the state of the connection: a browser that has gone
//! away has closed its end. Where the system does not tell, it counts as there.

use super::asked::is_shared;
use super::queue::Turn;
use crate::answer::{Watch, held};
use rocket::Request;
use rocket::http::Method;
#[cfg(target_os = "linux")]
use std::collections::HashSet;
#[cfg(target_os = "linux")]
use std::net::IpAddr;
use std::net::SocketAddr;
use std::sync::Mutex;
use std::time::{Duration, Instant};

/// The other end of a request.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Caller {
    remote: Remote,
    /// Whether they are told how far a long work is instead of waiting for it.
    hurries: bool,
    /// Since when they are known to have been there.
    since: Instant,
}

/// What the system says of the other end.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Remote {
    /// Its address.
    At(SocketAddr),
    /// It hung up before it could be asked for.
    Gone,
    /// There is no connection: a request made in this process.
    Here,
}

/// Kept by a server whose requests come through connections.
pub(super) struct Connected;

impl Caller {
    /// Who sent a request.
    pub(super) fn of(request: &Request<'_>) -> Self {
        // Not what a header of the request claims.
        Self {
            remote: match request.remote() {
                Some(address) => Remote::At(address),
                None if request.rocket().state::<Connected>().is_some() => Remote::Gone,
                None => Remote::Here,
            },
            hurries: hurries(request),
            since: Instant::now(),
        }
    }

    /// One in this process.
    #[cfg(test)]
    pub(super) fn here() -> Self {
        Self {
            remote: Remote::Here,
            hurries: false,
            since: Instant::now(),
        }
    }

    /// Whether they are told how far a long work is instead of waiting for it.
    pub(super) const fn hurries(self) -> bool {
        self.hurries
    }

    /// Whether the connection still stands.
    pub(super) fn is_there(self) -> bool {
        match self.remote {
            Remote::At(address) => connected(address, self.since, LOOK_AWAITED),
            Remote::Gone => false,
            Remote::Here => true,
        }
    }

    /// Looks after this caller during the computation it has its turn for.
    pub(super) fn watched(self, turn: Turn) -> Watched {
        Watched::new(move |_| self.is_there(), turn)
    }
}

/// Whether somebody looks at a page, which can be shown again, or a script says that it
/// asks again (RFC 7240). What is saved as a file, or handed out, is waited for.
fn hurries(request: &Request<'_>) -> bool {
    let headers = request.headers();
    let looks = headers.get_one("Sec-Fetch-Mode") == Some("navigate");
    let again = headers.get("Prefer").any(|v| v == "respond-async");
    let file = request.uri().path().segments().last();
    let file =
        file.is_some_and(|last| last.contains('.')) || request.query_value::<&str>("as").is_some();
    request.method() == Method::Get && (looks || again) && !file && !is_shared(request)
}

/// Somebody asked after now and then.
pub(super) struct Watched {
    is_there: Box<dyn Fn(bool) -> bool + Send + Sync>,
    /// Over with this.
    turn: Mutex<Turn>,
    /// When last looked at, and whether it was there.
    seen: Mutex<(Instant, bool)>,
}

/// Time between two looks: shorter than a ranking, and each costs milliseconds where
/// many connections stand.
const LOOK: Duration = Duration::from_millis(120);
/// The same while somebody else waits for the turn: about a hull.
const LOOK_AWAITED: Duration = Duration::from_millis(5);

impl Watched {
    /// Who waits for a computation that has its turn; they are told whether somebody else
    /// waits for it.
    pub(super) fn new(is_there: impl Fn(bool) -> bool + Send + Sync + 'static, turn: Turn) -> Self {
        Self {
            is_there: Box::new(is_there),
            turn: Mutex::new(turn),
            seen: Mutex::new((Instant::now(), true)),
        }
    }

    fn awaited(&self) -> bool {
        self.turn.try_lock().is_ok_and(|turn| turn.awaited())
    }
}

impl Watch for Watched {
    fn rest(&self) {
        let mut turn = held(&self.turn);
        turn.give_way();
    }

    fn wanted(&self) -> bool {
        // While another thread looks, this one works on.
        let Ok(mut seen) = self.seen.try_lock() else {
            return true;
        };
        let age = seen.0.elapsed();
        let awaited = self.awaited();
        if seen.1 && (age >= LOOK || age >= LOOK_AWAITED && awaited) {
            *seen = (Instant::now(), (self.is_there)(awaited));
        }
        seen.1
    }
}

/// Other ends of connections.
#[cfg(target_os = "linux")]
type Ends = HashSet<(IpAddr, u16)>;

/// Connections as the system last listed them.
#[cfg(target_os = "linux")]
struct Listed {
    /// When the list was begun.
    at: Instant,
    /// How long it took: milliseconds, on a machine with thousands of them.
    took: Duration,
    ends: Ends,
}

#[cfg(target_os = "linux")]
static LISTED: Mutex<Option<Listed>> = Mutex::new(None);

/// Whether a connection stands that was there at `since`, by a list hardly
/// older than `fresh`: listing takes a third of the time at most. A list made after
/// somebody came that has not got them says for good that they have gone.
#[cfg(target_os = "linux")]
fn connected(remote: SocketAddr, since: Instant, fresh: Duration) -> bool {
    let end = (remote.ip().to_canonical(), remote.port());
    let mut listed = held(&LISTED);
    if let Some(list) = listed.as_ref() {
        if !list.ends.contains(&end) {
            if list.at >= since {
                return false;
            }
        } else if list.at.elapsed() < fresh + (3 * list.took).min(LOOK) {
            return true;
        }
    }
    let at = Instant::now();
    let Some(ends) = list() else { return true };
    let there = ends.contains(&end);
    *listed = Some(Listed {
        at,
        took: at.elapsed(),
        ends,
    });
    there
}

/// The other ends of all connections that stand; `None` where the system does not
/// tell.
#[cfg(target_os = "linux")]
fn list() -> Option<Ends> {
    use procfs::net::{TcpState, tcp, tcp6};
    let (four, six) = (tcp(), tcp6());
    if four.is_err() && six.is_err() {
        return None;
    }
    let all = [four, six].into_iter().flatten().flatten();
    let standing = all.filter(|entry| entry.state == TcpState::Established);
    let ends = standing.map(|entry| entry.remote_address);
    Some(
        ends.map(|end| (end.ip().to_canonical(), end.port()))
            .collect(),
    )
}

#[cfg(not(target_os = "linux"))]
fn connected(_: SocketAddr, _: Instant, _: Duration) -> bool {
    true
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::net::{TcpListener, TcpStream};

    #[cfg(target_os = "linux")]
    #[test]
    fn a_caller_who_hangs_up_is_gone() {
        for address in ["127.0.0.1:0", "[::1]:0"] {
            // A machine may have no sixth version.
            let Ok(listener) = TcpListener::bind(address) else {
                continue;
            };
            let there = TcpStream::connect(listener.local_addr().unwrap()).unwrap();
            let (_here, remote) = listener.accept().unwrap();
            let since = Instant::now();
            let caller = Caller {
                remote: Remote::At(remote),
                since,
                ..Caller::here()
            };
            assert!(caller.is_there());
            drop(there);
            // As soon as the list is made anew.
            while caller.is_there() {
                assert!(since.elapsed() < Duration::from_secs(10), "still there");
                std::thread::yield_now();
            }
        }
        for (remote, there) in [(Remote::Here, true), (Remote::Gone, false)] {
            let caller = Caller {
                remote,
                ..Caller::here()
            };
            assert_eq!(caller.is_there(), there);
        }
    }
}

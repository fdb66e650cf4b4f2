//! Whether the reader a computation is for is still there.
//!
//! The web framework finishes a request whether or not anybody waits for it. So
//! the system is asked for the state of the connection: a browser that has gone
//! away has closed its end. Where the system does not tell, it counts as there.

use crate::answer::Watch;
use rocket::Request;
#[cfg(target_os = "linux")]
use std::collections::HashSet;
#[cfg(target_os = "linux")]
use std::net::IpAddr;
use std::net::SocketAddr;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

/// The other end of a request.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Caller {
    remote: Option<SocketAddr>,
    /// Since when they are known to have been there.
    since: Instant,
}

impl Caller {
    /// Who sent a request.
    pub(super) fn of(request: &Request<'_>) -> Self {
        // Not what a header of the request claims.
        Self {
            remote: request.remote(),
            since: Instant::now(),
        }
    }

    /// Whether the connection still stands.
    pub(super) fn is_there(self) -> bool {
        self.remote
            .is_none_or(|remote| connected(remote, self.since))
    }

    /// Looks after this caller during a computation.
    pub(super) fn watched(self) -> Watched {
        Watched {
            caller: self,
            seen: Mutex::new((Instant::now(), true)),
        }
    }
}

/// A caller asked after now and then.
#[derive(Debug)]
pub(super) struct Watched {
    caller: Caller,
    /// When last looked at, and whether it was there.
    seen: Mutex<(Instant, bool)>,
}

/// Time between two looks: shorter than a ranking, as long as a list serves.
const LOOK: Duration = Duration::from_millis(30);

impl Watch for Watched {
    fn wanted(&self) -> bool {
        let mut seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        if seen.1 && seen.0.elapsed() >= LOOK {
            *seen = (Instant::now(), self.caller.is_there());
        }
        seen.1
    }
}

/// Other ends of connections.
#[cfg(target_os = "linux")]
type Ends = HashSet<(IpAddr, u16)>;

/// Connections as the system last listed them, and when.
#[cfg(target_os = "linux")]
static LISTED: Mutex<Option<(Instant, Ends)>> = Mutex::new(None);

/// A list older than this is not looked at again.
#[cfg(target_os = "linux")]
const FRESH: Duration = Duration::from_millis(30);

/// Whether a connection stands that was there at `since`. One list, which costs
/// milliseconds, serves all who ask within moments; but only a list made after
/// somebody came can say that they have gone.
#[cfg(target_os = "linux")]
fn connected(remote: SocketAddr, since: Instant) -> bool {
    let end = (remote.ip().to_canonical(), remote.port());
    let mut listed = LISTED.lock().unwrap_or_else(PoisonError::into_inner);
    if let Some((at, ends)) = listed.as_ref().filter(|l| l.0.elapsed() < FRESH) {
        if ends.contains(&end) {
            return true;
        }
        if *at >= since {
            return false;
        }
    }
    let at = Instant::now();
    let Some(ends) = list() else { return true };
    let there = ends.contains(&end);
    *listed = Some((at, ends));
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
fn connected(_: SocketAddr, _: Instant) -> bool {
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
                remote: Some(remote),
                since,
            };
            assert!(caller.is_there());
            drop(there);
            // As soon as the list is made anew.
            while caller.is_there() {
                assert!(since.elapsed() < Duration::from_secs(10), "still there");
                std::thread::yield_now();
            }
        }
        let nowhere = Caller {
            remote: None,
            since: Instant::now(),
        };
        assert!(nowhere.is_there());
    }
}

//! Whether the reader a computation is for is still there.
//!
//! The web framework finishes a request whether or not anybody waits for it. So
//! the system is asked for the state of the connection: a browser that has gone
//! away has closed its end. Where the system does not tell, it counts as there.

use crate::answer::Watch;
use rocket::Request;
use std::net::SocketAddr;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

/// The other end of a request.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Caller(Option<SocketAddr>);

impl Caller {
    /// Who sent a request.
    pub(super) fn of(request: &Request<'_>) -> Self {
        // Not what a header of the request claims.
        Self(request.remote())
    }

    /// Whether the connection still stands.
    pub(super) fn is_there(self) -> bool {
        self.0.is_none_or(connected)
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

/// Time between two looks: a look reads the system's list of connections.
const LOOK: Duration = Duration::from_millis(50);

impl Watch for Watched {
    fn wanted(&self) -> bool {
        let mut seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        if seen.1 && seen.0.elapsed() >= LOOK {
            *seen = (Instant::now(), self.caller.is_there());
        }
        seen.1
    }
}

#[cfg(target_os = "linux")]
fn connected(remote: SocketAddr) -> bool {
    use procfs::net::{TcpNetEntry, TcpState, tcp, tcp6};
    let stands = |entry: &TcpNetEntry| {
        let there = entry.remote_address;
        there.port() == remote.port()
            && there.ip().to_canonical() == remote.ip().to_canonical()
            && entry.state == TcpState::Established
    };
    match (tcp(), tcp6()) {
        (Err(_), Err(_)) => true,
        (four, six) => [four, six]
            .into_iter()
            .flatten()
            .flatten()
            .any(|e| stands(&e)),
    }
}

#[cfg(not(target_os = "linux"))]
fn connected(_: SocketAddr) -> bool {
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
            let caller = Caller(Some(remote));
            assert!(caller.is_there());
            drop(there);
            // The word that it has closed arrives at once on one machine.
            assert!(!caller.is_there());
        }
        assert!(Caller(None).is_there());
    }
}

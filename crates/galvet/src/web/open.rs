//! Whether this process serves everybody who reaches it. Said once, when it starts, for
//! every page: nothing in it changes that.

use std::sync::atomic::{AtomicBool, Ordering};

/// Said where everybody may change everything, on the terminal and on every page.
pub const OPEN: &str = "Open to everybody: whoever reaches this address may change and delete everything. Nobody has to sign in.";

static IS_OPEN: AtomicBool = AtomicBool::new(false);

/// From now on every page says that everybody may change everything.
pub fn open_to_everybody() {
    IS_OPEN.store(true, Ordering::Relaxed);
}

/// What every page says of it; `None` where it is this machine's alone.
pub(crate) fn notice() -> Option<&'static str> {
    IS_OPEN.load(Ordering::Relaxed).then_some(OPEN)
}

//! Lines for whoever started Galvet. They may have stopped listening (a closed
//! pipe), which is no reason to stop serving.

use std::fmt::Display;
use std::io::Write;

/// A line on the standard output.
pub(crate) fn say(line: impl Display) {
    let _ = writeln!(std::io::stdout(), "{line}");
}

/// A line on the standard error.
pub fn warn(line: impl Display) {
    let _ = writeln!(std::io::stderr(), "galvet: {line}");
}

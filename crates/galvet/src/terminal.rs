//! Lines for whoever started Galvet. They may have stopped listening (a closed
//! pipe), which is no reason to stop serving.

use galvet_store::files::visible;
use std::fmt::Display;
use std::io::Write;

/// A line on the standard output.
pub fn say(line: impl Display) {
    let _ = writeln!(std::io::stdout(), "{line}");
}

/// A line on the standard error. It may repeat what stood in a file: nothing of
/// that does anything to the terminal.
pub fn warn(line: impl Display) {
    let _ = writeln!(std::io::stderr(), "galvet: {}", harmless(&line.to_string()));
}

/// Text with every control character but the line's end made visible.
pub(crate) fn harmless(text: &str) -> String {
    let seen = |c| if c == '\n' { c } else { visible(c) };
    text.chars().map(seen).collect()
}

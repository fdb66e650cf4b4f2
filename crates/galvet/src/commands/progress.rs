//! Progress on the terminal, where there is one and there is much to do; nothing
//! of it reaches a pipe.

use indicatif::{ProgressBar, ProgressStyle};
use std::time::Duration;

/// Gone from the terminal when it is dropped.
#[derive(Debug)]
pub(super) struct Progress(ProgressBar);

/// From so many on it is shown: about half a second's work.
const MANY: usize = 100;

impl Progress {
    /// Over `count` things, "hulls floated".
    pub(super) fn over(count: usize, what: &str) -> Self {
        let bar = match u64::try_from(count) {
            Ok(count) if count >= MANY as u64 => ProgressBar::new(count),
            _ => ProgressBar::hidden(),
        };
        let words = format!("{{pos}} of {{len}} {what}  {{bar:30}}  {{eta}} to go; Ctrl+C stops");
        if let Ok(style) = ProgressStyle::with_template(&words) {
            bar.set_style(style);
        }
        Self(bar)
    }

    /// Of something without parts to be counted.
    pub(super) fn waiting(what: &'static str) -> Self {
        let bar = ProgressBar::new_spinner().with_message(what);
        bar.enable_steady_tick(Duration::from_millis(120));
        Self(bar)
    }

    /// One more is done.
    pub(super) fn step(&self) {
        self.0.inc(1);
    }
}

impl Drop for Progress {
    fn drop(&mut self) {
        self.0.finish_and_clear();
    }
}

//! A long list, so many of it at once.

/// Which part of a list is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Paged {
    /// Where it begins, from 0.
    pub from: usize,
    /// How many there are in all.
    pub of: usize,
}

impl Paged {
    /// Shown at once.
    pub const AT_ONCE: usize = 50;

    /// The part in which the one at `wanted` lies; beyond the end the last.
    #[must_use]
    pub fn of(count: usize, wanted: usize) -> Self {
        let last = count.saturating_sub(1);
        Self {
            from: wanted.min(last) / Self::AT_ONCE * Self::AT_ONCE,
            of: count,
        }
    }

    /// Where it ends: one after the last shown.
    #[must_use]
    pub fn end(&self) -> usize {
        self.of.min(self.from + Self::AT_ONCE)
    }

    /// What of all is shown.
    #[must_use]
    pub fn shown<'a, T>(&self, all: &'a [T]) -> &'a [T] {
        all.get(self.from..self.end()).unwrap_or_default()
    }

    /// Where those before and the next ones begin.
    #[must_use]
    pub fn beside(&self) -> [Option<usize>; 2] {
        [
            self.from.checked_sub(Self::AT_ONCE),
            Some(self.end()).filter(|&next| next < self.of),
        ]
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_one_is_shown_on_one_page_alone() {
        for count in [0, 1, 99, 100, 101, 250, 300] {
            let all: Vec<usize> = (0..count).collect();
            let (mut seen, mut at) = (Vec::new(), Some(0));
            while let Some(from) = at {
                let page = Paged::of(count, from);
                seen.extend_from_slice(page.shown(&all));
                let [before, next] = page.beside();
                assert_eq!(before.is_some(), page.from > 0, "{count} {from}");
                at = next;
            }
            assert_eq!(seen, all);
        }
        assert_eq!(Paged::of(250, usize::MAX).from, 200);
        assert_eq!(
            Paged::of(250, 137).shown(&(0..250).collect::<Vec<_>>())[0],
            100
        );
        assert!(Paged::of(0, 7).shown::<u8>(&[]).is_empty());
    }
}

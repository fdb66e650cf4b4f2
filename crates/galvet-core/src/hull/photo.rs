//! A length read off a photo in which a tape lies: two marks of the tape give the scale,
//! two ends the length, and clicks, graduation and slant what it may be off.

use crate::base::{Bounds, Dimension};
use crate::guide::{Guide, Guides};

/// A place in a picture, px from its left and upper edge.
pub type Spot = (f64, f64);

/// A tape in a picture, and what is measured with it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TapeInPhoto {
    /// Where two marks of the tape are.
    pub marks: [Spot; 2],
    /// What the tape shows at them, m.
    pub shows: [f64; 2],
    /// From one line of the tape to the next, m.
    pub graduation: f64,
    /// Both ends of what is measured; `None` where they lie at the marks.
    pub ends: Option<[Spot; 2]>,
}

/// A length as it was read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PhotoLength {
    /// The length, m.
    pub value: f64,
    /// Its standard error, m.
    pub error: f64,
}

/// Why nothing can be read off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum NoLength {
    /// The marks are so near that a click is a large part of what is between them.
    #[error("the two marks of the tape are too near each other: take ones further apart")]
    Near,
    /// Nothing is between the two figures.
    #[error("the tape shows the same at both marks")]
    Same,
    /// Both ends are one.
    #[error("both ends are at one place")]
    NoEnds,
}

/// Least distance of two marks, px.
const LEAST_PX: f64 = 40.0;

fn distance([a, b]: [Spot; 2]) -> f64 {
    (a.0 - b.0).hypot(a.1 - b.1)
}

impl TapeInPhoto {
    /// Accepted figures of a tape, m.
    pub const SHOWS: Bounds = Bounds::new("what the tape shows", Dimension::Length, 0.0, 10.0);
    /// Accepted graduations, m.
    pub const GRADUATION: Bounds =
        Bounds::new("one line to the next", Dimension::ShortLength, 0.0005, 0.1);

    /// The length, and how far it may be off: the clicks' error over either distance, a
    /// figure read to within half a graduation at either mark (even over it, so its
    /// standard error is a graduation over √12 [Taylor, *Introduction to Error Analysis*]),
    /// and, where it does not lie along the tape, the share by which a slant shortens.
    ///
    /// # Errors
    /// [`NoLength`].
    pub fn read(&self, guides: &Guides) -> Result<PhotoLength, NoLength> {
        let span = (self.shows[1] - self.shows[0]).abs();
        let pixels = distance(self.marks);
        if span <= 0.0 {
            return Err(NoLength::Same);
        }
        if pixels < LEAST_PX {
            return Err(NoLength::Near);
        }
        let click = guides[Guide::PhotoClick] * std::f64::consts::SQRT_2;
        let figures = self.graduation * (2.0_f64 / 12.0).sqrt();
        let Some(ends) = self.ends else {
            let error = figures.hypot(click * span / pixels);
            return Ok(PhotoLength { value: span, error });
        };
        let across = distance(ends);
        if across < 1.0 {
            return Err(NoLength::NoEnds);
        }
        let value = across * span / pixels;
        let shares = [
            click / pixels,
            click / across,
            figures / span,
            guides[Guide::PhotoSlant],
        ];
        let share = shares.iter().map(|s| s * s).sum::<f64>().sqrt();
        Ok(PhotoLength {
            value,
            error: value * share,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    fn tape() -> TapeInPhoto {
        TapeInPhoto {
            marks: [(100.0, 200.0), (400.0, 600.0)],
            shows: [0.10, 0.60],
            graduation: 0.001,
            ends: Some([(0.0, 0.0), (0.0, 800.0)]),
        }
    }

    #[test]
    fn a_scale_of_a_millimetre_a_pixel_reads_as_worked_by_hand() {
        // Marks 3-4-5 apart: 500 px for 0.5 m; ends 800 px apart: 0.8 m. Two clicks 2 px
        // off each: 2.828 px; shares 0.005657, 0.003536, 0.000816, slant 0.02.
        let read = tape().read(&Guides::default()).unwrap();
        assert_relative_eq!(read.value, 0.8, epsilon = 1e-12);
        let share =
            (0.005_657_f64.powi(2) + 0.003_536_f64.powi(2) + 0.000_816_f64.powi(2) + 0.000_4)
                .sqrt();
        assert_relative_eq!(read.error, 0.8 * share, max_relative = 1e-3);
        // Along the tape itself nothing is slanted: 2.828 mm and 0.408 mm.
        let along = TapeInPhoto {
            ends: None,
            ..tape()
        };
        let read = along.read(&Guides::default()).unwrap();
        assert_relative_eq!(read.value, 0.5, epsilon = 1e-12);
        assert_relative_eq!(read.error, 0.002_858, max_relative = 1e-3);
    }

    #[test]
    fn a_shorter_tape_or_a_coarser_one_is_told_less_of() {
        let guides = Guides::default();
        let error = |t: TapeInPhoto| t.read(&guides).unwrap().error;
        let near = TapeInPhoto {
            marks: [(100.0, 200.0), (130.0, 240.0)],
            shows: [0.10, 0.15],
            ..tape()
        };
        let coarse = TapeInPhoto {
            graduation: 0.05,
            ..tape()
        };
        assert!(error(near) > 2.0 * error(tape()));
        assert!(error(coarse) > error(tape()));
    }

    #[test]
    fn nothing_is_read_off_what_gives_no_scale() {
        let guides = Guides::default();
        let with = |change: fn(&mut TapeInPhoto)| {
            let mut t = tape();
            change(&mut t);
            t.read(&guides)
        };
        assert_eq!(with(|t| t.shows = [0.3, 0.3]), Err(NoLength::Same));
        assert_eq!(with(|t| t.marks[1] = (110.0, 200.0)), Err(NoLength::Near));
        assert_eq!(
            with(|t| t.ends = Some([(5.0, 5.0), (5.0, 5.0)])),
            Err(NoLength::NoEnds)
        );
    }
}

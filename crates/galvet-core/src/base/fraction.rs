//! Fractions as a tape has them.

/// `34 1/2`, `34-1/2`, `3/4`: a whole number and a fraction as a tape has them. What is
/// no part of one (`4/3`, `82/85`) is no fraction.
pub(super) fn with_fraction(text: &str) -> Option<f64> {
    let (before, below) = text.split_once('/')?;
    let at = before.rfind([' ', '-']);
    let (whole, above) = at.map_or(("0", before), |at| (&before[..at], &before[at + 1..]));
    let number = |text: &str| -> Option<f64> {
        let digits = (1..=4).contains(&text.len()) && text.bytes().all(|b| b.is_ascii_digit());
        digits.then(|| text.parse().ok()).flatten()
    };
    let (whole, above, below) = (number(whole.trim())?, number(above)?, number(below)?);
    let tape = [2.0, 3.0, 4.0, 8.0, 16.0, 32.0, 64.0].contains(&below);
    (tape && above > 0.0 && above < below).then(|| whole + above / below)
}

#[cfg(test)]
mod tests {
    use crate::base::{Bare, Bounds, Dimension, QuantityError};
    use approx::assert_relative_eq;

    #[test]
    fn fractions_of_a_tape_are_read_and_nothing_else_with_a_stroke() {
        let length = Bounds::new("length", Dimension::Length, 0.0, 10.0);
        for (typed, metres) in [
            ("34 1/2 in", 0.876_3),
            ("34-1/2\"", 0.876_3),
            ("12' 4 1/4\"", 3.765_55),
            ("3/4 in", 0.019_05),
            ("34½ in", 0.876_3),
        ] {
            let read = length.parse(typed, Bare::SI).unwrap();
            assert_relative_eq!(read, metres, max_relative = 1e-9);
        }
        for typed in [
            "82/85",
            "4/3 in",
            "34 5/4 in",
            "1/0 in",
            "34 1/7 in",
            "34/ in",
            "/2",
        ] {
            let read = length.parse(typed, Bare::SI);
            assert!(
                matches!(read, Err(QuantityError::NotUnderstood { .. })),
                "{typed}: {read:?}"
            );
        }
    }
}

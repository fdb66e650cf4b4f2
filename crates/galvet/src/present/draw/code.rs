//! A code that a phone reads: an address as squares (ISO/IEC 18004), made by a kept crate.

use qrcode::{Color, EcLevel, QrCode};
use std::fmt::Write;

/// Squares left white around it, as the standard asks.
const QUIET: usize = 4;

/// A code as a path, each square a unit.
pub struct CodeView {
    /// Its box.
    pub view_box: String,
    /// Its dark squares.
    pub path: String,
}

/// The code of a text; `None` for one that is too long.
#[must_use]
pub fn code(text: &str) -> Option<CodeView> {
    // Read with a quarter of it wet or scratched.
    let made = QrCode::with_error_correction_level(text, EcLevel::Q).ok()?;
    let width = made.width();
    let mut path = String::new();
    for (at, color) in made.to_colors().into_iter().enumerate() {
        if color == Color::Dark {
            let (x, y) = (at % width + QUIET, at / width + QUIET);
            let _ = write!(path, "M{x} {y}h1v1h-1z");
        }
    }
    let whole = width + 2 * QUIET;
    Some(CodeView {
        view_box: format!("0 0 {whole} {whole}"),
        path,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_code_has_its_three_corners_and_its_quiet_zone() {
        let code = code("http://localhost:7341/hulls/a-b").unwrap();
        // Version 3 at this level holds 32 bytes: 29 squares a side, and four around.
        assert_eq!(code.view_box, "0 0 37 37");
        let dark = |x: usize, y: usize| code.path.contains(&format!("M{x} {y}h1"));
        for (x, y) in [(4, 4), (26, 4), (4, 26)] {
            assert!((0..7).all(|n| dark(x + n, y) && dark(x, y + n)), "{x} {y}");
            assert!(!dark(x + 1, y + 1) && dark(x + 3, y + 3));
        }
        assert!(!code.path.contains("M3 ") && !code.path.contains("M33 "));
        assert!(super::code(&"x".repeat(5_000)).is_none());
    }
}

//! Wires and fuses of a circuit. Guide values; a qualified person wires what one is unsure
//! of.

/// Fuses that are sold, A.
const FUSES: [f64; 15] = [
    1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 80.0, 100.0,
];
/// Copper of a section, mm², and what it carries in a bundle, A. Guide values, below those
/// of IEC 60092-352 for small craft's temperatures.
const WIRES: [(f64, f64); 10] = [
    (0.75, 8.0),
    (1.0, 11.0),
    (1.5, 15.0),
    (2.5, 21.0),
    (4.0, 30.0),
    (6.0, 40.0),
    (10.0, 57.0),
    (16.0, 76.0),
    (25.0, 101.0),
    (35.0, 125.0),
];
/// Resistivity of copper at 20 °C, Ω·mm²/m (IEC 60028: 1/58, rounded up).
const COPPER: f64 = 0.0175;
/// Fuse over draw, least and most: handbook, chapter 8.2.
pub const FUSE_OVER_DRAW: [f64; 2] = [1.25, 1.5];
/// Longest way from the battery's plus to its fuse, m.
pub const FUSE_WITHIN: f64 = 0.2;
/// Voltage lost on the way, share of the pack's: electronics, motor.
pub const DROP: [f64; 2] = [0.03, 0.05];

/// The wire and fuse of a run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wire {
    /// Current with all on, A.
    pub amperes: f64,
    /// Fuse, A.
    pub fuse: f64,
    /// Copper, mm².
    pub section: f64,
    /// Voltage lost, share of the pack's.
    pub drop: f64,
    /// Whether the fuse sold next lies over one and a half times the draw.
    pub coarse: bool,
}

/// Voltage lost over `length` m out and back at `amperes` A through `section` mm², V.
#[must_use]
pub fn lost(length: f64, amperes: f64, section: f64) -> f64 {
    2.0 * length * amperes * COPPER / section
}

/// The thinnest wire that carries its fuse and loses little enough, and the smallest fuse
/// that stands the draw: `amperes` A over `length` m one way, at `volts` V. `None` where no
/// wire or fuse that is sold does.
#[must_use]
pub fn wire(amperes: f64, length: f64, volts: f64, motor: bool) -> Option<Wire> {
    if !(amperes > 0.0 && length > 0.0 && volts > 0.0) {
        return None;
    }
    let [least, most] = FUSE_OVER_DRAW;
    let fuse = FUSES.into_iter().find(|&f| f >= least * amperes)?;
    let allowed = DROP[usize::from(motor)] * volts;
    let fits = |&(section, carries): &(f64, f64)| {
        carries >= fuse && lost(length, amperes, section) <= allowed
    };
    let (section, _) = WIRES.into_iter().find(|w| fits(w))?;
    Some(Wire {
        amperes,
        fuse,
        section,
        drop: lost(length, amperes, section) / volts,
        coarse: fuse > most * amperes,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn a_wire_as_worked_by_hand() {
        // 30 A over 2.5 m at 12 V for a motor: fuse 40 (37.5 to 45); at most 0.6 V lost:
        // 2·2.5·30·0.0175/S ≤ 0.6 → S ≥ 4.375; 6 mm² carries 40 A and loses 0.4375 V.
        let w = wire(30.0, 2.5, 12.0, true).unwrap();
        assert_eq!((w.fuse, w.section, w.coarse), (40.0, 6.0, false));
        assert_relative_eq!(w.drop, 0.4375 / 12.0, max_relative = 1e-9);
        // The same for electronics: 0.36 V → S ≥ 7.29.
        assert_eq!(wire(30.0, 2.5, 12.0, false).unwrap().section, 10.0);
        // A sounder of 1 A: no fuse between 1.25 and 1.5, the next is told as coarse.
        let w = wire(1.0, 1.5, 12.0, false).unwrap();
        assert_eq!((w.fuse, w.section, w.coarse), (2.0, 0.75, true));
        assert_eq!(wire(200.0, 1.0, 12.0, true), None);
        assert_eq!(wire(0.0, 1.0, 12.0, true), None);
    }

    #[test]
    fn a_longer_way_never_takes_a_thinner_wire() {
        for motor in [false, true] {
            let sections: Vec<f64> = (1..40)
                .filter_map(|n| wire(20.0, 0.2 * f64::from(n), 12.0, motor))
                .map(|w| w.section)
                .collect();
            assert!(sections.len() > 20);
            assert!(sections.windows(2).all(|w| w[1] >= w[0]));
        }
    }
}

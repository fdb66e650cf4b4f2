//! What holds a fitting to a hull: fasteners, holes, torques, and the strain each takes.
//! Guide values for stainless steel (A4) in polyethylene: handbook, chapter 8.2.

use crate::gear::Strain;

/// A fastening.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fastening {
    /// What it is.
    pub name: &'static str,
    /// Hole, mm; `None` where it is moulded in.
    pub hole: Option<f64>,
    /// Torque, N·m; `None`: by hand, to contact.
    pub torque: Option<f64>,
    /// The greatest strain it takes.
    pub takes: Strain,
    /// Whether a hand must get beneath.
    pub from_beneath: bool,
}

/// Weakest first.
pub static FASTENINGS: [Fastening; 6] = [
    Fastening {
        name: "self-tapper 4.8",
        hole: Some(3.6),
        torque: None,
        takes: Strain::Light,
        from_beneath: false,
    },
    Fastening {
        name: "wide-flange rivet 4.8",
        hole: Some(5.0),
        torque: None,
        takes: Strain::Light,
        from_beneath: false,
    },
    Fastening {
        name: "well nut M5",
        hole: Some(10.0),
        torque: Some(1.0),
        takes: Strain::Light,
        from_beneath: false,
    },
    Fastening {
        name: "bolt M6 into the moulded insert",
        hole: None,
        torque: Some(3.0),
        takes: Strain::Boom,
        from_beneath: false,
    },
    Fastening {
        name: "bolt M5, 20 mm washer, locking nut",
        hole: Some(5.5),
        torque: Some(2.0),
        takes: Strain::Boom,
        from_beneath: true,
    },
    Fastening {
        name: "bolt M6 through a 4 mm plate, locking nut",
        hole: Some(6.5),
        torque: Some(3.0),
        takes: Strain::Heavy,
        from_beneath: true,
    },
];

/// What holds against a strain: the weakest fastening that takes it, and whether it does
/// so where nobody has looked beneath.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Chosen {
    /// Which.
    pub fastening: Fastening,
    /// Whether it takes the strain asked.
    pub holds: bool,
}

/// Chooses for a strain. `insert`: a moulded insert is used (four of them take a heavy
/// thing). `beneath`: whether a nut can be put on from beneath; `None` where nobody looked,
/// which counts as no.
#[must_use]
pub fn fastening(strain: Strain, insert: bool, beneath: Option<bool>) -> Chosen {
    let [_, _, well_nut, moulded, bolt, plate] = FASTENINGS;
    let chosen = |fastening: Fastening, holds| Chosen { fastening, holds };
    if insert {
        // Four inserts take a heavy thing; an anchor's pull asks for a plate.
        return chosen(moulded, strain != Strain::Anchor);
    }
    match (beneath, strain) {
        (Some(true), Strain::Light | Strain::Strike | Strain::Boom) => chosen(bolt, true),
        (Some(true), Strain::Anchor | Strain::Heavy) => chosen(plate, true),
        (_, strain) => chosen(well_nut, strain == Strain::Light),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::base::Keyed;

    #[test]
    fn nothing_is_chosen_for_a_strain_it_does_not_take() {
        for &strain in Strain::ALL {
            for beneath in [None, Some(false), Some(true)] {
                let got = fastening(strain, false, beneath);
                assert_eq!(
                    got.holds,
                    strain <= got.fastening.takes,
                    "{strain:?} {beneath:?}"
                );
                // No nut beneath where no hand goes.
                assert!(!got.fastening.from_beneath || beneath == Some(true));
            }
        }
        // A holder that is self-tapped and then trolled from is the trap.
        assert!(!fastening(Strain::Strike, false, None).holds);
        assert!(fastening(Strain::Strike, true, None).holds);
        assert!(!fastening(Strain::Anchor, true, None).holds);
        assert_eq!(
            fastening(Strain::Anchor, false, Some(true))
                .fastening
                .torque,
            Some(3.0)
        );
    }
}

//! What a hull weighs and where its seats are, as far as the record tells: with
//! everything that it says is fitted.

use super::spread::{Spread, length_sd, weight_sd};
use crate::crew::SeatHeight;
use crate::guide::{Guide, Guides};
use crate::hull::{BottomShape, Construction, Measure, Propulsion, Reading, Survey};

/// Masses of a hull, kg: what is beyond is a wrong record.
fn mass(median: f64, sd: f64) -> Spread {
    Spread::new(median, sd, 5.0, 160.0)
}

/// The bare hull as guessed from its size, kg.
fn bare_guess(survey: &Survey, length: f64, beam: f64, guides: &Guides) -> Spread {
    let per_area = guides[match survey.construction {
        Construction::SitOnTop => Guide::MassPerArea,
        Construction::SitInside => Guide::MassPerAreaInside,
        Construction::Board => Guide::MassPerAreaBoard,
    }];
    let lobed = match survey.bottom {
        Some(BottomShape::Tunnel | BottomShape::TriLobe) => guides[Guide::LobedMass],
        _ => 1.0,
    };
    let middle = length * beam * per_area * lobed;
    mass(middle, middle * guides[Guide::MassPerAreaSd])
}

/// What "fitted" adds to a bare hull as guessed, kg: a seat, the drive or motor the
/// record names, and a rudder or skeg where it has one.
fn kit_guess(survey: &Survey, guides: &Guides) -> Spread {
    let mut parts = vec![(Guide::SeatMass, Guide::SeatMassSd)];
    match survey.propulsion {
        Propulsion::Paddle => {}
        Propulsion::RotaryPedal | Propulsion::FinPedal => {
            parts.push((Guide::DriveMass, Guide::DriveMassSd));
        }
        Propulsion::Motor => parts.push((Guide::MotorMass, Guide::MotorMassSd)),
    }
    if survey.tracks_straight {
        parts.push((Guide::RudderMass, Guide::RudderMassSd));
    }
    let middle = parts.iter().map(|p| guides[p.0]).sum();
    let sd = parts.iter().map(|p| guides[p.1]).fold(0.0, f64::hypot);
    Spread::new(middle, sd, 0.0, 45.0)
}

/// Hull and kit on one account: the mass of the hull (fitted, or bare where the
/// last says so) and of what "fitted" adds to it. The counted load takes the
/// kit from here as well, so that a weight left out is guessed, never nothing.
pub(super) fn masses(
    survey: &Survey,
    length: f64,
    beam: f64,
    guides: &Guides,
) -> (Spread, Spread, bool) {
    let guessed = kit_guess(survey, guides);
    let read = |r: &Reading| mass(r.value, weight_sd(r, guides));
    let (bare, fitted) = (
        survey.best(Measure::BareWeight),
        survey.best(Measure::FittedWeight),
    );
    match (bare, fitted) {
        (Some(bare), Some(fitted)) if fitted.value >= bare.value => {
            let sd = weight_sd(bare, guides).hypot(weight_sd(fitted, guides));
            let kit = Spread::new(fitted.value - bare.value, sd, 0.0, 100.0);
            (read(fitted), kit, false)
        }
        // They contradict each other: the more trusted one; of equals the
        // heavier boat.
        (Some(bare), Some(fitted)) if fitted.source > bare.source => (read(fitted), guessed, false),
        (Some(bare), _) => (read(bare), guessed, true),
        (None, Some(fitted)) => (read(fitted), guessed, false),
        (None, None) => (bare_guess(survey, length, beam, guides), guessed, true),
    }
}

/// How a hull's seat is made, as far as the record tells.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum SeatKind {
    /// Moulded into a paddled hull: one height.
    Moulded,
    /// Low in a sit-inside: one height.
    Inside,
    /// On a frame, with a low and a high place.
    Frame,
    /// On a frame on a board: one height.
    OnBoard,
}

impl SeatKind {
    fn of(survey: &Survey, beam: f64, guides: &Guides) -> Self {
        let weights = [Measure::BareWeight, Measure::FittedWeight];
        let light = weights
            .into_iter()
            .filter_map(|m| survey.value(m))
            .any(|kg| kg < guides[Guide::SeatMouldedWeight]);
        let paddled = survey.propulsion == Propulsion::Paddle;
        match survey.construction {
            Construction::Board => Self::OnBoard,
            Construction::SitInside => Self::Inside,
            _ if paddled && (light || beam < guides[Guide::SeatMouldedBeam]) => Self::Moulded,
            _ => Self::Frame,
        }
    }
}

/// Whether somebody put a tape to the seat at the height it is used: a seat with one
/// height is measured at either.
pub(super) fn seat_is_known(survey: &Survey, beam: f64, guides: &Guides, seat: SeatHeight) -> bool {
    let measured = |m: Measure| survey.best(m).is_some_and(|r| r.source.is_measured());
    let [here, other] = match seat {
        SeatHeight::Low => [Measure::SeatLow, Measure::SeatHigh],
        SeatHeight::High => [Measure::SeatHigh, Measure::SeatLow],
    };
    let one_height = SeatKind::of(survey, beam, guides) != SeatKind::Frame;
    measured(here) || one_height && measured(other)
}

/// The seat's surface over the floor at its low and its high place, m: as measured, or
/// as such seats are. A seat with one height has it at both places.
pub(super) fn seats(survey: &Survey, beam: f64, guides: &Guides) -> [Spread; 2] {
    /// No seat lies higher.
    const HIGHEST: f64 = 0.7;
    let kind = SeatKind::of(survey, beam, guides);
    let guess = |median: Guide, sd: Guide| Spread::new(guides[median], guides[sd], 0.0, HIGHEST);
    let [low, high] = match kind {
        SeatKind::Moulded => [guess(Guide::SeatMoulded, Guide::SeatMouldedSd); 2],
        SeatKind::Inside => [guess(Guide::SeatInside, Guide::SeatInsideSd); 2],
        SeatKind::OnBoard => [guess(Guide::SeatBoard, Guide::SeatBoardSd); 2],
        SeatKind::Frame => [
            guess(Guide::SeatFrameLow, Guide::SeatFrameLowSd)
                .leaning_up(guides[Guide::SeatFrameLowUp]),
            guess(Guide::SeatFrameHigh, Guide::SeatFrameHighSd),
        ],
    };
    let read = |m: Measure| {
        let reading = survey.best(m)?;
        let sd = length_sd(reading, guides);
        Some(Spread::new(reading.value, sd, 0.0, HIGHEST))
    };
    let one_height = kind != SeatKind::Frame;
    match (read(Measure::SeatLow), read(Measure::SeatHigh)) {
        (Some(low), Some(high)) => [low, high],
        (Some(low), None) if one_height => [low, low],
        (Some(low), None) => [low, high],
        (None, Some(high)) if one_height => [high, high],
        // What the low place is not: above the high one.
        (None, Some(high)) => {
            let hi = high.median;
            let median = low.median.min(hi);
            [Spread { median, hi, ..low }, high]
        }
        (None, None) => [low, high],
    }
}

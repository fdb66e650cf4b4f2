//! The rows.

use super::GuideRow;
use crate::base::{Dimension, Keyed, words};

words! {
/// Where a guide value is shown.
pub enum Section {
    /// Crew.
    #[strum(message = "The angler")]
    Crew,
    /// Where masses lie.
    #[strum(message = "Where the masses lie")]
    Loads,
    /// Shape of an estimated hull.
    #[strum(message = "The shape nobody has measured")]
    Shape,
    /// Bottoms nobody looked at.
    #[strum(message = "The bottom nobody looked at")]
    Bottom,
    /// Weights nobody has measured.
    #[strum(message = "The weight nobody has measured")]
    Weight,
    /// What readings are worth.
    #[strum(message = "What readings are worth")]
    Evidence,
    /// Stowing.
    #[strum(message = "Where kit goes, and what is within reach")]
    Stowing,
    /// Stability.
    #[strum(message = "Leaning, reaching, standing")]
    Stability,
    /// Effort.
    #[strum(message = "What it costs to go")]
    Effort,
    /// Handling.
    #[strum(message = "How it lies to the wind")]
    Handling,
    /// Water aboard.
    #[strum(message = "Water aboard")]
    Aboard,
    /// Lifting.
    #[strum(message = "Lifting, dragging, carting")]
    Lifting,
    /// The pond.
    #[strum(message = "The pond: keeping one's balance in time")]
    Pond,
    /// Ranking.
    #[strum(message = "Ruling out and giving points")]
    Ranking,
}
}

macro_rules! guides {
    ($($name:ident = $key:literal, $section:ident, $dim:ident, $value:literal, $lo:literal ..= $hi:literal, $meaning:literal, $source:literal;)*) => {
        words! {
            /// A guide value.
            pub enum Guide {
                $(#[doc = $meaning] $name,)*
            }
        }

        impl Guide {
            /// How many there are.
            pub const COUNT: usize = [$(stringify!($name)),*].len();

            /// Its row in the table.
            #[must_use]
            pub const fn row(self) -> GuideRow {
                match self {
                    $(Self::$name => GuideRow {
                        key: $key,
                        section: Section::$section,
                        meaning: $meaning,
                        dimension: Dimension::$dim,
                        value: $value,
                        lo: $lo,
                        hi: $hi,
                        source: $source,
                    },)*
                }
            }

            /// The value a file's name means.
            #[must_use]
            pub fn named(key: &str) -> Option<Self> {
                Self::ALL.iter().copied().find(|g| g.row().key == key)
            }
        }
    };
}

guides! {
    DressedExtra = "crew.dressed_extra", Crew, Mass, 6.0, 1.0 ..= 20.0, "what clothing, flotation aid, boots and pockets add to the angler", "guide value";
    WetExtra = "crew.wet_extra", Crew, Mass, 9.0, 1.0 ..= 25.0, "the same once it is wet", "handbook, chapter 2";
    SeatedCentre = "crew.seated_centre", Crew, Ratio, 0.14, 0.10 ..= 0.20, "height of a seated body's centre over the seat, share of the stature", "rounded from published body-segment data (Dempster, Space requirements of the seated operator, 1955)";
    StandingCentre = "crew.standing_centre", Crew, Ratio, 0.56, 0.52 ..= 0.60, "height of a standing body's centre over the soles, share of the stature", "Dempster 1955, rounded";
    SittingHeight = "crew.sitting_height", Crew, Ratio, 0.52, 0.48 ..= 0.56, "height of the head over the seat, share of the stature", "published anthropometry, rounded";
    KneeHeight = "crew.knee_height", Crew, Ratio, 0.285, 0.25 ..= 0.32, "knee height, share of the stature", "published anthropometry (Drillis and Contini, Body segment parameters, 1966)";
    UpperBodyShare = "crew.upper_body_share", Crew, Ratio, 0.68, 0.55 ..= 0.75, "share of the body's mass that leans with the torso", "Dempster 1955: trunk, head and arms";
    UpperBodyCentre = "crew.upper_body_centre", Crew, Ratio, 0.20, 0.15 ..= 0.26, "height of the torso's centre over the hips, share of the stature", "Dempster 1955, rounded";
    ReachLean = "crew.reach_lean", Crew, Angle, 20.0, 5.0 ..= 45.0, "how far the torso leans sideways while landing a fish", "guide value";
    CounterLean = "crew.counter_lean", Crew, Ratio, 0.4, 0.0 ..= 0.8, "share of a leaning torso's shift that hips and legs take back: people land fish where a stiff body would go over", "handbook, chapter 2: guide value";
    LevelShift = "crew.level_shift", Crew, ShortLength, 0.03, 0.0 ..= 0.10, "how far somebody seated shifts aside without thinking, to level what lies off the middle", "handbook, chapter 2: guide value";
    SidewaysPlace = "crew.sideways_place", Crew, ShortLength, 0.20, 0.05 ..= 0.45, "how far off the middle the body lies, sitting sideways with the legs over the side", "guide value";
    StandsForward = "crew.stands_forward", Crew, ShortLength, 0.25, 0.0 ..= 0.8, "how far ahead of the seat the angler stands", "the prototype bodies";
    LandedFish = "crew.landed_fish", Crew, Mass, 3.0, 0.0 ..= 30.0, "fish held at the gunwale while it is landed", "guide value";
    SeatedRadius = "crew.seated_radius", Crew, ShortLength, 0.25, 0.1 ..= 0.5, "roll radius of a seated body about its own centre", "guide value";
    StandingRadius = "crew.standing_radius", Crew, ShortLength, 0.48, 0.2 ..= 0.8, "roll radius of a standing body about its own centre", "guide value";

    AdultSway = "crew.adult_sway", Crew, ShortLength, 0.05, 0.0 ..= 0.3, "how far the weight of a second seated adult goes to one side", "guide value";
    ChildSway = "crew.child_sway", Crew, ShortLength, 0.12, 0.0 ..= 0.3, "how far a seated child's weight goes to one side, leaning over to look", "guide value";
    DogSway = "crew.dog_sway", Crew, ShortLength, 0.20, 0.0 ..= 0.45, "how far a dog's weight goes to one side when it gets up", "guide value";
    SeatsApart = "crew.seats_apart", Crew, ShortLength, 1.10, 0.7 ..= 1.8, "distance between two seats where nobody noted the second", "guide value";

    CastingAhead = "crew.casting_ahead", Crew, ShortLength, 0.80, 0.3 ..= 1.5, "how far ahead of the seat the side one casts and lands on is better left clear", "guide value";

    HullPlace = "loads.hull_place", Loads, Ratio, 0.51, 0.40 ..= 0.60, "place of a hull's own centre from the bow, share of the length", "the prototype bodies";
    HullHeight = "loads.hull_height", Loads, ShortLength, 0.18, 0.05 ..= 0.40, "height of a hull's own centre over the bottom", "the prototype bodies";
    BoardHeight = "loads.board_height", Loads, ShortLength, 0.10, 0.03 ..= 0.30, "height of a board's own centre over the bottom", "the prototype bodies";
    SeatPlace = "loads.seat_place", Loads, Ratio, 0.53, 0.40 ..= 0.65, "seat's place from the bow where nobody noted it, share of the length", "the prototype bodies";
    SeatMoulded = "loads.seat_moulded", Loads, ShortLength, 0.03, 0.0 ..= 0.15, "seat over the floor where nobody measured it: moulded into a paddled hull", "handbook, chapter 2: guide value";
    SeatMouldedSd = "loads.seat_moulded_sd", Loads, ShortLength, 0.02, 0.002 ..= 0.10, "its spread, 1 sd", "handbook, chapter 2: guide value";
    RoughMass = "loads.rough_mass", Loads, Ratio, 0.15, 0.0 ..= 0.5, "how far off the mass of kit is that was given as about so much, 1 sd, share of it", "guide value";
    RoughPlace = "loads.rough_place", Loads, Ratio, 0.04, 0.0 ..= 0.2, "how far off its place along the hull is, 1 sd, share of the length", "guide value";
    RoughHeight = "loads.rough_height", Loads, ShortLength, 0.06, 0.0 ..= 0.3, "how far off its height is, 1 sd", "guide value";
    SeatMouldedWeight = "loads.seat_moulded_weight", Loads, Mass, 30.0, 10.0 ..= 60.0, "a paddled sit-on-top lighter than this has its seat moulded in", "handbook, chapter 2: guide value";
    SeatMouldedBeam = "loads.seat_moulded_beam", Loads, ShortLength, 0.80, 0.5 ..= 1.0, "so has one narrower than this", "handbook, chapter 2: guide value";
    SeatFrameLow = "loads.seat_frame_low", Loads, ShortLength, 0.13, 0.0 ..= 0.50, "a frame seat over the floor at its low place where nobody measured it", "handbook, chapter 2: guide value";
    SeatFrameLowSd = "loads.seat_frame_low_sd", Loads, ShortLength, 0.04, 0.005 ..= 0.15, "its spread, 1 sd", "handbook, chapter 2: guide value";
    SeatFrameLowUp = "loads.seat_frame_low_up", Loads, ShortLength, 0.08, 0.005 ..= 0.20, "the same above the middle: some frame seats have one height only, and it is the high one", "guide value: the low place then holds a seat at 25 cm within its 5-95 % range";
    SeatFrameHigh = "loads.seat_frame_high", Loads, ShortLength, 0.26, 0.0 ..= 0.70, "the same at its high place", "handbook, chapter 2: guide value";
    SeatFrameHighSd = "loads.seat_frame_high_sd", Loads, ShortLength, 0.05, 0.005 ..= 0.15, "its spread, 1 sd", "handbook, chapter 2: guide value";
    SeatInside = "loads.seat_inside", Loads, ShortLength, 0.04, 0.0 ..= 0.30, "a sit-inside's seat over its floor where nobody measured it", "handbook, chapter 2: guide value";
    SeatInsideSd = "loads.seat_inside_sd", Loads, ShortLength, 0.02, 0.002 ..= 0.10, "its spread, 1 sd", "handbook, chapter 2: guide value";
    SeatBoard = "loads.seat_board", Loads, ShortLength, 0.40, 0.0 ..= 0.60, "a frame seat over a board's pad where nobody measured it", "the prototype's board, handbook, chapter 2 (which names 0.35 as a first guess)";
    SeatBoardSd = "loads.seat_board_sd", Loads, ShortLength, 0.07, 0.005 ..= 0.20, "its spread, 1 sd", "handbook, chapter 2: guide value";
    HullRadius = "loads.hull_radius", Loads, Ratio, 0.38, 0.2 ..= 0.6, "roll radius of a hull about its own centre, share of the beam", "guide value";

    PlanBow = "shape.plan_bow", Shape, Ratio, 2.6, 1.5 ..= 6.0, "fullness of the plan ahead of mid-length (exponent)", "the prototype bodies";
    PlanStern = "shape.plan_stern", Shape, Ratio, 2.9, 1.5 ..= 6.0, "fullness of the plan aft of mid-length (exponent)", "the prototype bodies";
    PlanBowBoard = "shape.plan_bow_board", Shape, Ratio, 3.5, 1.5 ..= 6.0, "the same of a board, ahead", "the prototype bodies";
    PlanSternBoard = "shape.plan_stern_board", Shape, Ratio, 4.0, 1.5 ..= 6.0, "the same of a board, aft", "the prototype bodies";
    PlanSd = "shape.plan_sd", Shape, Ratio, 0.40, 0.05 ..= 1.0, "how widely the plan's exponents are spread, 1 sd", "guide value";
    SternEnd = "shape.stern_end", Shape, Ratio, 0.12, 0.0 ..= 0.6, "breadth left at the stern's end, share of the beam", "the prototype bodies";
    SternEndBoard = "shape.stern_end_board", Shape, Ratio, 0.40, 0.0 ..= 0.8, "the same of a board", "the prototype bodies";
    SternEndSd = "shape.stern_end_sd", Shape, Ratio, 0.08, 0.01 ..= 0.3, "its spread, 1 sd", "guide value";
    DepthSitOnTop = "shape.depth_sit_on_top", Shape, ShortLength, 0.36, 0.2 ..= 0.6, "depth amidships of a sit-on-top", "the prototype bodies";
    DepthSitInside = "shape.depth_sit_inside", Shape, ShortLength, 0.34, 0.2 ..= 0.6, "depth amidships of a sit-inside", "guide value";
    DepthBoard = "shape.depth_board", Shape, ShortLength, 0.20, 0.1 ..= 0.4, "depth amidships of a board", "the prototype bodies";
    DepthSd = "shape.depth_sd", Shape, ShortLength, 0.025, 0.005 ..= 0.1, "its spread, 1 sd", "guide value";
    RiseBow = "shape.rise_bow", Shape, ShortLength, 0.09, 0.0 ..= 0.25, "rise of the keel at the bow's end", "the prototype bodies";
    RiseStern = "shape.rise_stern", Shape, ShortLength, 0.06, 0.0 ..= 0.20, "rise of the keel at the stern's end", "the prototype bodies";
    RiseSd = "shape.rise_sd", Shape, ShortLength, 0.03, 0.005 ..= 0.1, "their spread, 1 sd", "guide value";
    SheerBow = "shape.sheer_bow", Shape, ShortLength, 0.08, 0.0 ..= 0.3, "rise of the gunwale at the bow over mid-length", "the prototype bodies";
    SheerStern = "shape.sheer_stern", Shape, ShortLength, 0.03, 0.0 ..= 0.3, "rise of the gunwale at the stern over mid-length", "the prototype bodies";
    FloorSitOnTop = "shape.floor_sit_on_top", Shape, ShortLength, 0.135, 0.05 ..= 0.3, "cockpit floor over the bottom, sit-on-top", "the prototype bodies";
    FloorSitInside = "shape.floor_sit_inside", Shape, ShortLength, 0.02, 0.01 ..= 0.2, "cockpit floor over the bottom, sit-inside: one sits near the bottom of a deeper shell", "handbook, chapter 2: guide value";
    FloorSitInsideSd = "shape.floor_sit_inside_sd", Shape, ShortLength, 0.01, 0.002 ..= 0.08, "its spread, 1 sd", "handbook, chapter 2: guide value";
    FloorBoard = "shape.floor_board", Shape, ShortLength, 0.16, 0.05 ..= 0.35, "standing pad over the bottom, board", "the prototype bodies";
    FloorSd = "shape.floor_sd", Shape, ShortLength, 0.02, 0.002 ..= 0.08, "its spread, 1 sd", "guide value";
    FloorStep = "shape.floor_step", Shape, ShortLength, 0.04, 0.0 ..= 0.15, "how much the foot well's and the tank well's floor lies above the cockpit's", "the prototype bodies";
    FullnessSd = "shape.fullness_sd", Shape, Ratio, 0.08, 0.01 ..= 0.2, "spread of a section's fullness, 1 sd", "guide value";
    Flare = "shape.flare", Shape, Ratio, 0.03, 0.0 ..= 0.10, "share of the beam lost at the water because a side leans out", "guide value, from the coverage of ranges (docs/validation.md)";
    FlareSd = "shape.flare_sd", Shape, Ratio, 0.045, 0.005 ..= 0.15, "share of the beam lost at the water because a side leans out: its spread, 1 sd", "handbook, chapter 2: guide value";
    ArchKeeps = "shape.arch_keeps", Shape, Ratio, 0.05, 0.0 ..= 0.12, "share by which an arch is wider at the water than the prototype's section: rounder bottoms keep their width", "guide value, so that arches have 0.89 to 0.92 of their beam 9.5 cm up";
    BeamTapeSd = "evidence.beam_tape_sd", Evidence, FineLength, 0.005, 0.001 ..= 0.03, "error of a beam by tape, 1 sd", "handbook, chapter 2: guide value";
    BeamSheetShare = "evidence.beam_sheet_share", Evidence, Ratio, 0.015, 0.002 ..= 0.06, "error of a printed beam, share, 1 sd", "handbook, chapter 2: guide value";
    BeamTalkShare = "evidence.beam_talk_share", Evidence, Ratio, 0.025, 0.005 ..= 0.1, "error of a beam told or guessed, share, 1 sd", "guide value";

    WideBeam = "bottom.wide_beam", Bottom, ShortLength, 0.84, 0.5 ..= 1.2, "a sit-on-top from this beam counts as wide", "handbook, chapter 2";
    SlimBeam = "bottom.slim_beam", Bottom, ShortLength, 0.72, 0.4 ..= 1.0, "one below this beam counts as slim", "handbook, chapter 2";
    WideTunnel = "bottom.wide_tunnel", Bottom, Ratio, 35.0, 0.0 ..= 100.0, "how often a wide sit-on-top at whose bottom nobody looked is a tunnel, of a hundred", "handbook, chapter 2: guide weight";
    WideFlat = "bottom.wide_flat", Bottom, Ratio, 25.0, 0.0 ..= 100.0, "the same, flat", "handbook, chapter 2: guide weight";
    WideTriLobe = "bottom.wide_tri_lobe", Bottom, Ratio, 20.0, 0.0 ..= 100.0, "the same, three lobes", "handbook, chapter 2: guide weight";
    WideArch = "bottom.wide_arch", Bottom, Ratio, 15.0, 0.0 ..= 100.0, "the same, a shallow arch", "handbook, chapter 2: guide weight";
    WideVee = "bottom.wide_vee", Bottom, Ratio, 5.0, 0.0 ..= 100.0, "the same, a shallow vee", "handbook, chapter 2: guide weight";
    MiddleTunnel = "bottom.middle_tunnel", Bottom, Ratio, 15.0, 0.0 ..= 100.0, "how often one of middling beam is a tunnel", "handbook, chapter 2: guide weight";
    MiddleFlat = "bottom.middle_flat", Bottom, Ratio, 10.0, 0.0 ..= 100.0, "the same, flat", "handbook, chapter 2: guide weight";
    MiddleTriLobe = "bottom.middle_tri_lobe", Bottom, Ratio, 15.0, 0.0 ..= 100.0, "the same, three lobes", "handbook, chapter 2: guide weight";
    MiddleArch = "bottom.middle_arch", Bottom, Ratio, 35.0, 0.0 ..= 100.0, "the same, a shallow arch", "handbook, chapter 2: guide weight";
    MiddleVee = "bottom.middle_vee", Bottom, Ratio, 25.0, 0.0 ..= 100.0, "the same, a shallow vee", "handbook, chapter 2: guide weight";
    SlimTriLobe = "bottom.slim_tri_lobe", Bottom, Ratio, 10.0, 0.0 ..= 100.0, "how often a slim one has three lobes", "handbook, chapter 2: guide weight";
    SlimArch = "bottom.slim_arch", Bottom, Ratio, 45.0, 0.0 ..= 100.0, "the same, a shallow arch", "handbook, chapter 2: guide weight";
    SlimVee = "bottom.slim_vee", Bottom, Ratio, 45.0, 0.0 ..= 100.0, "the same, a shallow vee", "handbook, chapter 2: guide weight";
    InsideArch = "bottom.inside_arch", Bottom, Ratio, 60.0, 0.0 ..= 100.0, "how often a sit-inside is a shallow arch", "handbook, chapter 2: guide weight";
    InsideVee = "bottom.inside_vee", Bottom, Ratio, 40.0, 0.0 ..= 100.0, "the same, a shallow vee", "handbook, chapter 2: guide weight";

    RecessBreadth = "shape.recess_breadth", Shape, Ratio, 0.76, 0.4 ..= 0.95, "half-breadth of the recess, share of the hull's there", "guide value, from bodies taken off";
    OpeningBreadth = "shape.opening_breadth", Shape, Ratio, 0.72, 0.4 ..= 0.95, "the same of a sit-inside's opening", "guide value";
    RecessBreadthSd = "shape.recess_breadth_sd", Shape, Ratio, 0.06, 0.01 ..= 0.2, "its spread, 1 sd", "guide value";
    RecessFrom = "shape.recess_from", Shape, Ratio, 0.18, 0.05 ..= 0.24, "where the recess begins, share of the length", "the prototype bodies";
    RecessTo = "shape.recess_to", Shape, Ratio, 0.93, 0.7 ..= 0.98, "where it ends", "the prototype bodies";
    OpeningFrom = "shape.opening_from", Shape, Ratio, 0.30, 0.1 ..= 0.45, "where a sit-inside's opening begins, share of the length", "guide value";
    OpeningTo = "shape.opening_to", Shape, Ratio, 0.66, 0.55 ..= 0.9, "where it ends", "guide value";
    RecessEndSd = "shape.recess_end_sd", Shape, Ratio, 0.03, 0.005 ..= 0.1, "spread of either end, 1 sd", "guide value";

    MassPerArea = "weight.per_area", Weight, Ratio, 11.0, 4.0 ..= 25.0, "mass of a bare sit-on-top for each m² of length × beam, kg/m²", "guide value, from the demo fleet";
    MassPerAreaInside = "weight.per_area_inside", Weight, Ratio, 9.5, 4.0 ..= 25.0, "the same of a sit-inside, kg/m²", "guide value";
    MassPerAreaBoard = "weight.per_area_board", Weight, Ratio, 9.0, 3.0 ..= 25.0, "the same of a board, kg/m²", "guide value";
    LobedMass = "weight.lobed", Weight, Ratio, 1.05, 1.0 ..= 1.3, "how much more skin a tunnel or three lobes weigh, share", "guide value";
    MassPerAreaSd = "weight.per_area_sd", Weight, Ratio, 0.18, 0.02 ..= 0.5, "spread of a guessed weight, share, 1 sd", "handbook, chapter 2: guide value";
    DriveMass = "weight.drive", Weight, Mass, 11.0, 4.0 ..= 30.0, "what a pedal drive adds to a bare hull", "handbook, chapter 2: guide value";
    DriveMassSd = "weight.drive_sd", Weight, Mass, 3.0, 0.2 ..= 8.0, "its spread, 1 sd", "handbook, chapter 2: guide value";
    MotorMass = "weight.motor", Weight, Mass, 12.0, 4.0 ..= 40.0, "what a fitted motor adds to a bare hull", "handbook, chapter 2: guide value";
    MotorMassSd = "weight.motor_sd", Weight, Mass, 4.0, 0.2 ..= 10.0, "its spread, 1 sd", "handbook, chapter 2: guide value";
    RudderMass = "weight.rudder", Weight, Mass, 1.2, 0.2 ..= 5.0, "what a rudder or skeg adds to a bare hull", "guide value";
    RudderMassSd = "weight.rudder_sd", Weight, Mass, 0.4, 0.05 ..= 2.0, "its spread, 1 sd", "guide value";
    SeatMass = "weight.seat", Weight, Mass, 2.5, 0.3 ..= 10.0, "what a seat and its rails add to a bare hull", "guide value";
    SeatMassSd = "weight.seat_sd", Weight, Mass, 0.8, 0.05 ..= 3.0, "its spread, 1 sd", "guide value";

    PhotoClick = "evidence.photo_click", Evidence, Ratio, 2.0, 0.5 ..= 10.0, "error of a click in a photo, px of the kept picture, 1 sd", "guide value";
    PhotoSlant = "evidence.photo_slant", Evidence, Ratio, 0.02, 0.0 ..= 0.10, "error of a length in a photo away from the tape, share, 1 sd: a slant of 11° shortens by 2 %", "guide value";
    TapeSd = "evidence.tape_sd", Evidence, FineLength, 0.004, 0.001 ..= 0.02, "error of a careful tape over a moulded hull, 1 sd", "guide value";
    SheetSd = "evidence.sheet_sd", Evidence, FineLength, 0.012, 0.002 ..= 0.05, "error of a printed depth or height, 1 sd", "guide value";
    TalkSd = "evidence.talk_sd", Evidence, FineLength, 0.02, 0.004 ..= 0.08, "error of one told or guessed, 1 sd", "guide value";
    ScaleShare = "evidence.scale_share", Evidence, Ratio, 0.005, 0.001 ..= 0.05, "error of a weight on a scale, share, 1 sd", "guide value";
    SheetShare = "evidence.sheet_share", Evidence, Ratio, 0.02, 0.005 ..= 0.10, "error of a printed weight, share, 1 sd", "guide value";
    TalkShare = "evidence.talk_share", Evidence, Ratio, 0.06, 0.01 ..= 0.3, "error of a weight told or guessed, share, 1 sd", "guide value";
    FloatSd = "evidence.float_sd", Evidence, FineLength, 0.006, 0.001 ..= 0.03, "error of a tape to moving water, 1 sd", "guide value";
    WaterlineLengthSd = "evidence.waterline_length_sd", Evidence, FineLength, 0.06, 0.01 ..= 0.3, "error of a length at the water, 1 sd", "guide value";
    WaterlineBeamSd = "evidence.waterline_beam_sd", Evidence, FineLength, 0.012, 0.002 ..= 0.05, "error of a beam at the water, 1 sd", "guide value";
    TiltShare = "evidence.tilt_share", Evidence, Ratio, 0.05, 0.01 ..= 0.3, "least error believed of a tilt test, share of GM, 1 sd", "guide value";
    DriftLogSd = "evidence.drift_log_sd", Evidence, Ratio, 0.30, 0.05 ..= 1.0, "how loosely a drift follows the sides above and below the water, sd of the logarithm", "guide value: the coefficient in the water is 0.5-1.2 about 0.9 (handbook, chapter 10), the wind is met by eye";
    SpeedLogSd = "evidence.speed_log_sd", Evidence, Ratio, 0.15, 0.03 ..= 1.0, "how loosely a speed kept up follows the effort believed, sd of the logarithm", "guide value: efforts of 40-70 W and 60-100 W spread a speed by a tenth, efficiencies by as much";
    DrainLogSd = "evidence.drain_log_sd", Evidence, Ratio, 0.25, 0.05 ..= 1.0, "how loosely a time to drain follows scuppers on record, sd of the logarithm", "guide value: C_d 0.5-0.8 about 0.6 (handbook, chapter 10), a stopwatch and an eye";
    DrainGuessLogSd = "evidence.drain_guess_log_sd", Evidence, Ratio, 0.60, 0.1 ..= 2.0, "the same where nobody noted the scuppers", "guide value: four to eight holes of 25 to 40 mm";
    LabelLogSd = "evidence.label_log_sd", Evidence, Ratio, 0.25, 0.05 ..= 1.0, "how loosely a label follows the load that wets the floor, sd of the logarithm", "guide value: makers choose floors so that the label load sits near it";
    SoldMass = "evidence.sold_mass", Evidence, Mass, 80.0, 50.0 ..= 110.0, "the person any hull for sale is taken to carry seated", "guide value";
    SoldStature = "evidence.sold_stature", Evidence, Length, 1.78, 1.5 ..= 2.0, "how tall that person is", "guide value";
    SoldGm = "evidence.sold_gm", Evidence, ShortLength, 0.05, 0.0 ..= 0.15, "the GM a hull for sale is taken to have with that person aboard, at least", "guide value";
    SoldSd = "evidence.sold_sd", Evidence, ShortLength, 0.03, 0.01 ..= 0.2, "how softly that is believed, 1 sd", "guide value";
    SoldAgree = "evidence.sold_agree", Evidence, Ratio, 0.1, 0.02 ..= 0.5, "share of shapes that must agree with it before it is believed at all", "guide value";
    OffsetShare = "evidence.offset_share", Evidence, Ratio, 0.005, 0.001 ..= 0.05, "error of measured sections as a whole, share of breadth and of height, 1 sd", "guide value";

    ArmLength = "stowing.arm_length", Stowing, Ratio, 0.44, 0.35 ..= 0.55, "arm and hand, share of stature", "body segments: upper arm 0.186, forearm and hand 0.254 (Winter, figure 4.1)";
    StowLean = "stowing.lean", Stowing, Ratio, 0.15, 0.0 ..= 0.3, "how far the shoulder comes forward or round in reaching, share of stature", "guide value";
    InsideLeg = "stowing.inside_leg", Stowing, Ratio, 0.45, 0.40 ..= 0.52, "inside leg, share of stature", "handbook, chapter 3";
    InsideFloor = "stowing.inside_floor", Stowing, ShortLength, 0.03, 0.0 ..= 0.15, "what lies beneath a hatch lies this high over the bottom where nobody measured it", "guide value";
    WellFloor = "stowing.well_floor", Stowing, ShortLength, 0.04, -0.05 ..= 0.2, "tank well's floor above the cockpit's where nobody measured it", "the prototype bodies";
    PocketFloor = "stowing.pocket_floor", Stowing, ShortLength, 0.15, 0.0 ..= 0.3, "side pocket's floor above the cockpit's where nobody measured it", "guide value";
    TrackGap = "stowing.track_gap", Stowing, ShortLength, 0.02, 0.0 ..= 0.1, "least gap between two things on one track", "guide value";
    DrillClear = "stowing.drill_clear", Stowing, ShortLength, 0.20, 0.1 ..= 0.5, "no hole is drilled lower than this over the bottom: too near the waterline", "guide value";
    StrokeAhead = "stowing.stroke_ahead", Stowing, ShortLength, 0.75, 0.3 ..= 1.2, "how far ahead of the seat a paddle's stroke sweeps the sides", "guide value";
    StrokeHeight = "stowing.stroke_height", Stowing, ShortLength, 0.30, 0.1 ..= 0.6, "what stands higher than this over the gunwale is in the stroke's way", "guide value";
    SoftGive = "stowing.soft_give", Stowing, Ratio, 0.10, 0.0 ..= 0.3, "share of each side by which a soft thing gives where it is pressed", "handbook, chapter 4: Remedies";
    TrackPrice = "stowing.track_price", Stowing, Money, 30.0, 0.0 ..= 500.0, "a length of track with its screws", "guide value: invented prices of the demo's coast";
    PlatePrice = "stowing.plate_price", Stowing, Money, 55.0, 0.0 ..= 500.0, "a mounting plate or set of inserts with its bolts", "guide value: likewise";
    HolderPrice = "stowing.holder_price", Stowing, Money, 18.0, 0.0 ..= 500.0, "a flush rod holder", "guide value: likewise";
    EyesPrice = "stowing.eyes_price", Stowing, Money, 12.0, 0.0 ..= 500.0, "two pad eyes and a strap", "guide value: likewise";
    HatchPrice = "stowing.hatch_price", Stowing, Money, 95.0, 0.0 ..= 1000.0, "a hatch with its frame and seal", "guide value: likewise";
    ChangeMinutes = "stowing.change_minutes", Stowing, Ratio, 15.0, 0.0 ..= 240.0, "minutes to mark out and clean up a change of the hull", "guide value";
    HoleMinutes = "stowing.hole_minutes", Stowing, Ratio, 6.0, 1.0 ..= 60.0, "minutes for each hole: drilled, sealed, bolted", "guide value";
    PackingShare = "stowing.packing_share", Stowing, Ratio, 0.85, 0.5 ..= 1.0, "share of a container's inside that can be filled", "guide value";
    GuessedSlack = "stowing.guessed_slack", Stowing, Ratio, 0.15, 0.0 ..= 0.4, "error of a guessed place's length, width and height", "handbook, chapter 3: about 15 %";

    IceMidday = "stowing.ice_midday", Stowing, Ratio, 0.6, 0.0 ..= 1.0, "share of ice and drinks left at midday", "guide value";
    IceReturn = "stowing.ice_return", Stowing, Ratio, 0.3, 0.0 ..= 1.0, "share of ice and drinks left on the way back", "guide value";

    BestTrim = "stowing.best_trim", Stowing, Angle, 0.15, -0.5 ..= 1.0, "trim that is best, bow up: a hair", "guide value";
    TrimWorth = "stowing.trim_worth", Stowing, Angle, 0.15, 0.02 ..= 1.0, "trim that is worth moving something for", "guide value";
    CableSlack = "stowing.cable_slack", Stowing, Length, 0.4, 0.0 ..= 2.0, "slack left on a cable that is ordered", "guide value";
    PaddleBase = "stowing.paddle_base", Stowing, Length, 2.30, 1.9 ..= 2.7, "paddle for a hull 0.75 m wide, a seat on the floor and a person of 1.75 m", "guide value";
    PaddleBeam = "stowing.paddle_beam", Stowing, Ratio, 0.8, 0.0 ..= 2.0, "how much longer for each metre of beam", "guide value";
    PaddleSeat = "stowing.paddle_seat", Stowing, Ratio, 0.5, 0.0 ..= 2.0, "how much longer for each metre of seat height", "guide value";
    PaddleStature = "stowing.paddle_stature", Stowing, Ratio, 0.4, 0.0 ..= 1.0, "how much longer for each metre of stature", "guide value";

    SecantHeel = "stability.secant_heel", Stability, Angle, 5.0, 2.0 ..= 10.0, "heel to which standing support is taken", "guide value";
    StandingLimit = "stability.standing_limit", Stability, Angle, 10.0, 4.0 ..= 10.0, "heel to which the feet may tip the hull", "guide value";
    ReserveLimit = "stability.reserve_limit", Stability, Angle, 40.0, 20.0 ..= 60.0, "heel up to which the reserve is counted", "guide value";
    AddedInertia = "stability.added_inertia", Stability, Ratio, 0.20, 0.0 ..= 0.6, "share added to the roll inertia for water that moves along", "guide value";

    EffortEasy = "effort.easy", Effort, Power, 60.0, 20.0 ..= 150.0, "effort kept up easily, at hand or foot", "guide value: 60-100 W sustained";
    EffortUsual = "effort.usual", Effort, Power, 80.0, 30.0 ..= 200.0, "effort usually kept up", "guide value";
    EffortStrong = "effort.strong", Effort, Power, 100.0, 40.0 ..= 300.0, "effort a strong person keeps up", "guide value";
    MotorCruise = "effort.motor_cruise", Effort, Power, 250.0, 50.0 ..= 1500.0, "electric input a small motor is run at to cruise", "guide value";
    EfficiencyPaddle = "effort.efficiency_paddle", Effort, Ratio, 0.45, 0.2 ..= 0.9, "share of the effort that arrives in the water by paddle", "guide value";
    EfficiencyRotary = "effort.efficiency_rotary", Effort, Ratio, 0.60, 0.2 ..= 0.9, "the same by rotary pedal", "guide value";
    EfficiencyFin = "effort.efficiency_fin", Effort, Ratio, 0.55, 0.2 ..= 0.9, "the same by fin pedal", "guide value";
    EfficiencyMotor = "effort.efficiency_motor", Effort, Ratio, 0.45, 0.1 ..= 0.9, "the same by motor, of the electric input", "guide value";
    DayHours = "power.day_hours", Effort, Ratio, 6.0, 1.0 ..= 16.0, "hours a day on the water lasts, for what the batteries must feed", "guide value";
    BatteryShare = "effort.battery_share", Effort, Ratio, 0.7, 0.3 ..= 1.0, "share of a battery that is used, the rest kept back", "guide value";
    UsableLifepo4 = "power.usable_lifepo4", Effort, Ratio, 0.9, 0.5 ..= 1.0, "share of a lithium iron phosphate battery that can be used", "guide value";
    UsableLead = "power.usable_lead", Effort, Ratio, 0.5, 0.2 ..= 0.8, "share of a lead battery that can be used", "guide value";
    UsableOther = "power.usable_other", Effort, Ratio, 0.8, 0.3 ..= 1.0, "share of any other battery that can be used", "guide value";
    FormFactor = "effort.form_factor", Effort, Ratio, 0.2, 0.0 ..= 0.6, "form factor on the friction line", "guide value";
    DragArea = "effort.drag_area", Effort, Ratio, 0.45, 0.1 ..= 1.2, "drag area of a seated angler with kit in the air, m²", "guide value";

    AirDensity = "handling.air_density", Handling, Ratio, 1.225, 1.0 ..= 1.4, "density of air, kg/m³", "standard air at 15 °C";
    AirDrag = "handling.air_drag", Handling, Ratio, 1.1, 0.6 ..= 1.6, "drag coefficient of hull, people and kit beam-on in the wind", "handbook, chapter 2: guide value";
    SideDrag = "handling.side_drag", Handling, Ratio, 0.9, 0.4 ..= 1.6, "drag coefficient of the side below the water", "handbook, chapter 2: guide value";
    DriveArea = "handling.drive_area", Handling, Ratio, 0.05, 0.0 ..= 0.2, "side area of a drive or motor let down, m²", "guide value";
    DriveReach = "handling.drive_reach", Handling, ShortLength, 0.40, 0.1 ..= 1.0, "how far a drive or motor reaches below the bottom where nobody measured it", "guide value";
    RudderArea = "handling.rudder_area", Handling, Ratio, 0.04, 0.0 ..= 0.2, "side area of a rudder or skeg, m²", "guide value";
    CentreForward = "handling.centre_forward", Handling, Ratio, 0.1, 0.0 ..= 0.25, "share of the length by which the water's centre moves forward under way", "handbook, chapter 2: guide value";
    DragSits = "wind.drag_sits", Handling, Ratio, 0.40, 0.30 ..= 0.55, "drag area of somebody seated from ahead, m², at 1.75 m", "Penwarden, Grigg and Rayment, Build. Environ. (1978); Hoerner, Fluid-Dynamic Drag (1965)";
    DragSitsSide = "wind.drag_sits_side", Handling, Ratio, 0.35, 0.25 ..= 0.55, "the same from the side, m²", "handbook, chapter 10: guide value";
    DragStands = "wind.drag_stands", Handling, Ratio, 0.60, 0.45 ..= 0.85, "drag area of somebody who stands from ahead, m², at 1.75 m", "Penwarden, Grigg and Rayment, Build. Environ. (1978); Hoerner, Fluid-Dynamic Drag (1965)";
    DragStandsSide = "wind.drag_stands_side", Handling, Ratio, 0.45, 0.30 ..= 0.80, "the same from the side, m²", "handbook, chapter 10: guide value";
    HullAhead = "wind.hull_ahead", Handling, Ratio, 0.5, 0.2 ..= 1.0, "drag coefficient of the hull from ahead, on beam times freeboard amidships", "handbook, chapter 10: guide value";
    KitAhead = "wind.kit_ahead", Handling, Ratio, 1.0, 0.5 ..= 1.5, "drag coefficient of kit above the rim, from ahead", "handbook, chapter 10: guide value";
    DriveDrag = "wind.drive_drag", Handling, Ratio, 0.15, 0.05 ..= 0.25, "what a drive or motor let down adds to the hull's resistance, share", "handbook, chapter 10: guide value";
    RudderDrag = "wind.rudder_drag", Handling, Ratio, 0.03, 0.0 ..= 0.10, "what a rudder or skeg adds, share", "handbook, chapter 10: guide value";
    FloatDrag = "wind.float_drag", Handling, Ratio, 0.4, 0.2 ..= 0.8, "drag of an outrigger's float in the water, of its wetted cross-section", "Hoerner 1965: slender bodies with round ends; guide value";
    WindAtBoat = "wind.at_boat", Handling, Ratio, 0.75, 0.6 ..= 1.0, "wind at the boat, share of a forecast's for ten metres up", "Hsu, Meindl, Gilhousen 1994: power 0.11; handbook, chapter 10";
    BackInHand = "wind.back_in_hand", Handling, Ratio, 1.25, 1.0 ..= 2.0, "how much longer than worked out the way back is taken to be when one must turn", "handbook, chapter 10: guide value";
    ChopShare = "wind.chop", Handling, Ratio, 0.5, 0.2 ..= 1.5, "coefficient of the force of chop on the bow", "handbook, chapter 10: guide value";
    SwellHeight = "wind.swell_chop", Handling, ShortLength, 0.15, 0.05 ..= 0.5, "height of the chop where most of the wave is swell", "handbook, chapter 10: guide value";
    DiscPaddle = "wind.disc_paddle", Handling, Ratio, 0.10, 0.03 ..= 0.25, "area of water a paddle pushes against, m²", "handbook, chapter 10: guide value";
    DiscRotary = "wind.disc_rotary", Handling, Ratio, 0.07, 0.03 ..= 0.25, "the same of a rotary pedal drive, m²", "handbook, chapter 10: guide value";
    DiscFin = "wind.disc_fin", Handling, Ratio, 0.09, 0.03 ..= 0.25, "the same of fins, m²", "handbook, chapter 10: guide value";
    DiscMotor = "wind.disc_motor", Handling, Ratio, 0.06, 0.02 ..= 0.25, "the same of a motor's propeller, m²", "handbook, chapter 10: guide value";
    PaddleLasting = "wind.effort_paddle", Handling, Power, 55.0, 30.0 ..= 120.0, "effort kept up for hours with a paddle", "handbook, chapter 2: guide value, 40-70 W at the arms";
    PedalLasting = "wind.effort_pedal", Handling, Power, 80.0, 40.0 ..= 160.0, "effort kept up for hours with pedals", "handbook, chapter 2: guide value, 60-100 W at the legs";
    StreamUnknown = "wind.stream", Handling, Ratio, 0.3, 0.0 ..= 2.0, "stream where a water says none, m/s", "handbook, chapter 10: guide value";
    DepthUnknown = "wind.anchor_depth", Handling, Length, 4.0, 0.5 ..= 40.0, "depth one anchors in where a water says none", "handbook, chapter 10: guide value";
    ScopeCalm = "wind.scope_calm", Handling, Ratio, 3.0, 2.0 ..= 5.0, "anchor line for each metre of depth, calm and a short stop", "handbook, chapter 10: guide value";
    Scope = "wind.scope", Handling, Ratio, 7.0, 4.0 ..= 10.0, "the same in wind or stream", "handbook, chapter 10: guide value";
    ScopeRough = "wind.scope_rough", Handling, Ratio, 10.0, 7.0 ..= 15.0, "the same where it is rough", "handbook, chapter 10: guide value";

    Discharge = "aboard.discharge", Aboard, Ratio, 0.6, 0.5 ..= 0.8, "share of a free jet that a scupper or hatch lets through", "Idelchik, Hydraulic Resistance (1986); guide value";
    TenderGm = "aboard.tender_gm", Aboard, ShortLength, 0.05, 0.0 ..= 0.2, "GM to 5° below which a draining boat counts as unsteady", "handbook, chapter 10: guide value";
    ClearsIn = "aboard.clears_in", Aboard, Time, 90.0, 20.0 ..= 600.0, "seconds in which a deck must be clear of a wave on coast and surf", "guide value";

    RampSlope = "lift.ramp_slope", Lifting, Angle, 7.1, 2.0 ..= 15.0, "slope of a ramp, one in eight", "handbook, chapter 10: guide value";
    RampDrag = "lift.ramp_drag", Lifting, Ratio, 0.45, 0.2 ..= 0.8, "share of the weight that dragging up a ramp costs beside the slope", "handbook, chapter 10: guide value";
    RampRoll = "lift.ramp_roll", Lifting, Ratio, 0.03, 0.01 ..= 0.1, "the same of a cart's wheels", "handbook, chapter 10: guide value";
    BeachSlope = "lift.beach_slope", Lifting, Angle, 5.7, 1.0 ..= 15.0, "slope of a beach", "handbook, chapter 10: guide value";
    BeachDrag = "lift.beach_drag", Lifting, Ratio, 0.55, 0.3 ..= 0.9, "share of the weight that dragging over sand costs beside the slope", "handbook, chapter 10: guide value";
    BeachRoll = "lift.beach_roll", Lifting, Ratio, 0.25, 0.08 ..= 0.4, "the same of narrow wheels; wide ones about half", "handbook, chapter 10: guide value";
    BankSlope = "lift.bank_slope", Lifting, Angle, 14.0, 5.0 ..= 30.0, "slope of a bank", "handbook, chapter 10: guide value";
    BankDrag = "lift.bank_drag", Lifting, Ratio, 0.35, 0.2 ..= 0.6, "share of the weight that dragging over wet grass costs beside the slope", "handbook, chapter 10: guide value";
    BankRoll = "lift.bank_roll", Lifting, Ratio, 0.08, 0.02 ..= 0.2, "the same of a cart's wheels", "handbook, chapter 10: guide value";
    CartHeight = "lift.cart_height", Lifting, ShortLength, 0.25, 0.1 ..= 0.6, "how high a hull's centre lies over the axle of its cart", "handbook, chapter 10: guide value";

    PondDelayNew = "pond.delay_new", Pond, Time, 0.23, 0.05 ..= 0.4, "how late somebody new to it answers a lean", "Peterka, Sensorimotor integration in human postural control, 2002 (0.10-0.25)";
    PondDelaySome = "pond.delay_some", Pond, Time, 0.2, 0.05 ..= 0.4, "how late somebody with some practice answers a lean", "Peterka, Sensorimotor integration in human postural control, 2002 (0.10-0.25)";
    PondDelaySkilled = "pond.delay_skilled", Pond, Time, 0.16, 0.05 ..= 0.4, "how late somebody skilled answers a lean", "Peterka, Sensorimotor integration in human postural control, 2002 (0.10-0.25)";
    PondGainNew = "pond.gain_new", Pond, Ratio, 1.32, 1.0 ..= 2.0, "how strongly somebody new to it answers a lean, of what holds a stiff body up", "Peterka, Sensorimotor integration in human postural control, 2002 (1.1-1.6)";
    PondGainSome = "pond.gain_some", Pond, Ratio, 1.4, 1.0 ..= 2.0, "how strongly somebody with some practice answers a lean, of what holds a stiff body up", "Peterka, Sensorimotor integration in human postural control, 2002 (1.1-1.6)";
    PondGainSkilled = "pond.gain_skilled", Pond, Ratio, 1.5, 1.0 ..= 2.0, "how strongly somebody skilled answers a lean, of what holds a stiff body up", "Peterka, Sensorimotor integration in human postural control, 2002 (1.1-1.6)";
    PondAnkleNew = "pond.ankle_new", Pond, Ratio, 0.42, 0.0 ..= 1.0, "how stiff the ankles of somebody new to it are sideways, of what holds a stiff body up", "Loram and Lakie, Direct measurement of ankle stiffness, 2002; Casadio 2005: fore and aft 0.64-0.91; fear stiffens (Carpenter, The influence of postural threat, 2001); ours less: guide value";
    PondAnkleSome = "pond.ankle_some", Pond, Ratio, 0.35, 0.0 ..= 1.0, "how stiff the ankles of somebody with some practice are sideways, of what holds a stiff body up", "Loram and Lakie, Direct measurement of ankle stiffness, 2002; Casadio 2005: fore and aft 0.64-0.91; fear stiffens (Carpenter, The influence of postural threat, 2001); ours less: guide value";
    PondAnkleSkilled = "pond.ankle_skilled", Pond, Ratio, 0.25, 0.0 ..= 1.0, "how stiff the ankles of somebody skilled are sideways, of what holds a stiff body up", "Loram and Lakie, Direct measurement of ankle stiffness, 2002; Casadio 2005: fore and aft 0.64-0.91; fear stiffens (Carpenter, The influence of postural threat, 2001); ours less: guide value";
    PondDeckNew = "pond.deck_new", Pond, Ratio, 0.18, 0.0 ..= 0.5, "share of the deck's lean that somebody new to it takes for level", "Peterka 2002: re-weighting (0-0.3)";
    PondDeckSome = "pond.deck_some", Pond, Ratio, 0.12, 0.0 ..= 0.5, "share of the deck's lean that somebody with some practice takes for level", "Peterka 2002: re-weighting (0-0.3)";
    PondDeckSkilled = "pond.deck_skilled", Pond, Ratio, 0.05, 0.0 ..= 0.5, "share of the deck's lean that somebody skilled takes for level", "Peterka 2002: re-weighting (0-0.3)";
    PondBracedNew = "pond.braced_new", Pond, Ratio, 0.2, 0.0 ..= 1.0, "share of a cast that somebody new to it braces for", "guide value; Bouisset and Zattara, Anticipatory postural adjustments, 1987";
    PondBracedSome = "pond.braced_some", Pond, Ratio, 0.5, 0.0 ..= 1.0, "share of a cast that somebody with some practice braces for", "guide value; Bouisset and Zattara, Anticipatory postural adjustments, 1987";
    PondBracedSkilled = "pond.braced_skilled", Pond, Ratio, 0.7, 0.0 ..= 1.0, "share of a cast that somebody skilled braces for", "guide value; Bouisset and Zattara, Anticipatory postural adjustments, 1987";
    PondPushNew = "pond.push_new", Pond, FineLength, 0.03, 0.0 ..= 0.1, "how far off the middle somebody new to it pushes in standing up, 1 sd", "guide value";
    PondPushSome = "pond.push_some", Pond, FineLength, 0.017, 0.0 ..= 0.1, "how far off the middle somebody with some practice pushes in standing up, 1 sd", "guide value";
    PondPushSkilled = "pond.push_skilled", Pond, FineLength, 0.01, 0.0 ..= 0.1, "how far off the middle somebody skilled pushes in standing up, 1 sd", "guide value";
    PondHipsNew = "pond.hips_new", Pond, Ratio, 0.3, 0.0 ..= 1.0, "share of what the ankles cannot give that the hips of somebody new to it do", "guide value";
    PondHipsSome = "pond.hips_some", Pond, Ratio, 0.6, 0.0 ..= 1.0, "share of what the ankles cannot give that the hips of somebody with some practice do", "guide value";
    PondHipsSkilled = "pond.hips_skilled", Pond, Ratio, 0.8, 0.0 ..= 1.0, "share of what the ankles cannot give that the hips of somebody skilled do", "guide value";
    PondNoiseNew = "pond.noise_new", Pond, Ratio, 2.5, 0.0 ..= 6.0, "how much more somebody new to it sways than somebody standing quietly on land", "guide value";
    PondNoiseSome = "pond.noise_some", Pond, Ratio, 2.0, 0.0 ..= 6.0, "how much more somebody with some practice sways than somebody standing quietly on land", "guide value";
    PondNoiseSkilled = "pond.noise_skilled", Pond, Ratio, 1.5, 0.0 ..= 6.0, "how much more somebody skilled sways than somebody standing quietly on land", "guide value";
    PondWaveNew = "pond.wave_new", Pond, Ratio, 0.0, 0.0 ..= 1.0, "share of a wave's slope that somebody new to it goes with", "guide value";
    PondWaveSome = "pond.wave_some", Pond, Ratio, 0.25, 0.0 ..= 1.0, "share of a wave's slope that somebody with some practice goes with", "guide value";
    PondWaveSkilled = "pond.wave_skilled", Pond, Ratio, 0.5, 0.0 ..= 1.0, "share of a wave's slope that somebody skilled goes with", "guide value";
    PondRate = "pond.rate", Pond, Time, 0.42, 0.2 ..= 0.7, "how strongly the rate of a lean is answered, of what holds a stiff body up", "Peterka 2002 (0.3-0.5)";
    PondAnkleDamping = "pond.ankle_damping", Pond, Time, 0.06, 0.0 ..= 0.3, "damping of the ankles, of what holds a stiff body up", "guide value";
    PondSway = "pond.sway", Pond, Angle, 0.172, 0.0 ..= 1.0, "sway of a quiet stand on land, 1 sd", "Prieto, Measures of postural steadiness, 1996: a few millimetres";
    PondStance = "pond.stance", Pond, ShortLength, 0.36, 0.15 ..= 0.6, "between the feet of somebody standing", "guide value";
    PondTurning = "pond.turning", Pond, ShortLength, 0.15, 0.05 ..= 0.4, "the same while they turn round", "guide value";
    PondMargin = "pond.margin", Pond, Angle, 9.17, 2.0 ..= 25.0, "how far the moving body may be out of balance until one sits down", "margin of Hof et al., The condition for dynamic stability, 2005; guide value";
    PondTooFar = "pond.too_far", Pond, Angle, 18.0, 5.0 ..= 40.0, "heel at which somebody standing sits down", "guide value";
    PondRise = "pond.rise", Pond, Time, 2.2, 1.0 ..= 5.0, "how long standing up takes", "Pai and Rogers 1990 (1.5-3)";
    PondAdded = "pond.added", Pond, Ratio, 0.2, 0.0 ..= 0.6, "what the water adds to the inertia in roll, share of boat and crew", "guide value (0.1-0.5)";
    PondDampingFlat = "pond.damping_flat", Pond, Ratio, 0.12, 0.02 ..= 0.4, "damping in roll of a flat or tunnel bottom, share of critical", "Himeno, Prediction of ship roll damping, 1981 (0.05-0.15); by shape guide value";
    PondDampingTriLobe = "pond.damping_tri_lobe", Pond, Ratio, 0.11, 0.02 ..= 0.4, "damping in roll of a bottom of three lobes, share of critical", "Himeno, Prediction of ship roll damping, 1981 (0.05-0.15); by shape guide value";
    PondDampingBoard = "pond.damping_board", Pond, Ratio, 0.1, 0.02 ..= 0.4, "damping in roll of a board, share of critical", "Himeno, Prediction of ship roll damping, 1981 (0.05-0.15); by shape guide value";
    PondDampingVee = "pond.damping_vee", Pond, Ratio, 0.08, 0.02 ..= 0.4, "damping in roll of a shallow vee, share of critical", "Himeno, Prediction of ship roll damping, 1981 (0.05-0.15); by shape guide value";
    PondDampingArch = "pond.damping_arch", Pond, Ratio, 0.07, 0.02 ..= 0.4, "damping in roll of a shallow arch, share of critical", "Himeno, Prediction of ship roll damping, 1981 (0.05-0.15); by shape guide value";
    PondSideways = "pond.sideways", Pond, Ratio, 40.0, 5.0 ..= 200.0, "drag of a hull moved sideways by its angler, N s/m", "guide value";
    PondFills = "pond.fills", Pond, Time, 5.0, 1.0 ..= 60.0, "how fast a recess fills through its scuppers past the heel at which its floor gets wet: to 63 per cent", "guide value: eight scuppers of 32 mm by the law of chapter 2";
    PondRuns = "pond.runs", Pond, Time, 0.7, 0.1 ..= 10.0, "the same over the rim", "guide value";
    PondCast = "pond.cast", Pond, Ratio, 10.0, 2.0 ..= 30.0, "a cast, N s", "guide value (4-20)";
    PondStrike = "pond.strike", Pond, Ratio, 4.0, 1.0 ..= 20.0, "a strike, N s", "guide value, untried";
    PondRod = "pond.rod", Pond, Force, 15.0, 2.0 ..= 100.0, "pull of a fish on the rod", "guide value (10-40)";
    PondFish = "pond.fish", Pond, Mass, 4.0, 0.2 ..= 30.0, "a fish held at the side", "guide value";
    PondDog = "pond.dog", Pond, Mass, 20.0, 2.0 ..= 60.0, "a dog that jumps, where none comes along", "guide value";
    PondDogPlace = "pond.dog_place", Pond, ShortLength, 0.3, 0.05 ..= 0.5, "how far off the middle a dog lands", "guide value";
    PondWake = "pond.wake", Pond, ShortLength, 0.2, 0.05 ..= 0.6, "height of a wake crossed", "guide value";
    PondChop = "pond.chop", Pond, ShortLength, 0.2, 0.05 ..= 0.6, "significant height of the chop stood through", "guide value";

    RoofSmall = "ranking.roof_small", Ranking, Mass, 50.0, 30.0 ..= 75.0, "what the roof of a small car bears, bars counted, where nobody looked into its handbook", "guide value";
    RoofLarge = "ranking.roof_large", Ranking, Mass, 75.0, 50.0 ..= 150.0, "the same of an estate car or a van", "guide value";
    BedUsual = "ranking.bed_usual", Ranking, Length, 1.5, 1.2 ..= 2.6, "length of a truck's bed, the flap down, where nobody measured it", "guide value";
    TripYears = "ranking.trip_years", Ranking, Ratio, 5.0, 1.0 ..= 20.0, "years over which a hull's price is told by the trip", "guide value";
    StaySeated = "ranking.stay_seated", Ranking, Ratio, 0.6, 0.3 ..= 1.0, "standing support below which one who stands is told to stay seated", "guide band";
    StandPractised = "ranking.stand_practised", Ranking, Ratio, 0.8, 0.6 ..= 1.5, "standing support below which somebody who stood before is told to stay seated", "handbook, chapter 2: guide bands";
    StandNew = "ranking.stand_new", Ranking, Ratio, 1.0, 0.6 ..= 2.0, "standing support below which somebody new to standing is told to stay seated", "handbook, chapter 2: guide bands";
    SatDownMore = "ranking.sat_down_more", Ranking, Ratio, 0.05, 0.0 ..= 0.5, "how much more standing support than that of a hull one sat down in again is asked for", "guide value";
    FromTheFloor = "ranking.from_the_floor", Ranking, Ratio, 0.6, 0.3 ..= 0.9, "seat height over knee height below which getting up is from the floor", "handbook, chapter 2";
    ReachTold = "ranking.reach_told", Ranking, Ratio, 0.20, 0.0 ..= 1.0, "share of possible shapes in which landing a fish does not hold from which it is told", "handbook, chapter 2: guide value";
    ReachCosts = "ranking.reach_costs", Ranking, Ratio, 0.40, 0.0 ..= 1.0, "share from which it costs the seated stability its points", "handbook, chapter 2: guide value";
    OneDrags = "ranking.one_drags", Ranking, Mass, 35.0, 10.0 ..= 80.0, "weight as carried that one person drags to the water", "handbook, chapter 4: guide value";
    TurnsShort = "ranking.turns_short", Ranking, Length, 3.6, 2.5 ..= 5.0, "length up to which a hull turns short enough for a quick creek", "guide value";
    DemandUnmet = "ranking.demand_unmet", Ranking, Ratio, 10.0, 0.0 ..= 50.0, "points that each thing the water asks and a hull does not meet costs", "handbook, chapter 4: guide value";
    DemandUnknown = "ranking.demand_unknown", Ranking, Ratio, 3.0, 0.0 ..= 50.0, "points that each such thing costs where it is not known", "handbook, chapter 4: guide value";
    SurfFreeboard = "ranking.surf_freeboard", Ranking, ShortLength, 0.22, 0.0 ..= 0.5, "least gunwale freeboard for a launch through surf, whatever the water beyond", "handbook, chapter 4: the surf launch's row";
    SurfFloor = "ranking.surf_floor", Ranking, ShortLength, 0.02, 0.0 ..= 0.2, "least height of the floor over the water for it", "handbook, chapter 4: the surf launch's row";
    SurfShare = "ranking.surf_share", Ranking, Ratio, 0.60, 0.3 ..= 1.0, "share of the label to work with for it", "handbook, chapter 4: the surf launch's row";
    RoofBars = "ranking.roof_bars", Ranking, Mass, 6.0, 0.0 ..= 30.0, "bars, cradles and straps on a car's roof, which count against what it may bear", "guide value";
    BedOverhang = "ranking.bed_overhang", Ranking, Length, 1.2, 0.0 ..= 2.5, "how far a hull may stand out behind a truck's bed: local rules of the road decide", "guide value";
    TwoLift = "ranking.two_lift", Ranking, Mass, 50.0, 20.0 ..= 120.0, "weight that two people usually carry down a bank or steps", "guide value";
    MayNotRest = "ranking.may_not_rest", Ranking, Ratio, 0.20, 0.02 ..= 0.5, "share of possible shapes that capsize, loll, founder or sink from which a hull is ruled out", "guide value";
    SaidInRed = "ranking.said_in_red", Ranking, Ratio, 0.01, 0.001 ..= 0.2, "share of such shapes from which it is said beside the place", "guide value";
    TooTender = "ranking.too_tender", Ranking, ShortLength, 0.01, 0.0 ..= 0.05, "median lean room in a brief lean below which a hull is too tender to use", "guide value";
    SitsTender = "stability.sits_tender", Stability, ShortLength, 0.03, 0.01 ..= 0.10, "room to lean for a moment below which a seated angler is told to sit still", "guide value";
    SitsLively = "stability.sits_lively", Stability, ShortLength, 0.06, 0.02 ..= 0.15, "the same below which it is called lively", "guide value";
    SitsSteady = "stability.sits_steady", Stability, ShortLength, 0.10, 0.03 ..= 0.25, "the same from which it is called steady", "guide value";
    MarginFull = "ranking.margin_full", Ranking, Ratio, 0.5, 0.1 ..= 2.0, "margin, as a share of the load, that earns 100 points (none earns 0)", "guide value";
    SupportNothing = "ranking.support_nothing", Ranking, Ratio, 0.6, 0.0 ..= 1.0, "standing support that earns nothing", "guide value";
    SupportFull = "ranking.support_full", Ranking, Ratio, 1.3, 1.0 ..= 3.0, "standing support that earns 100 points", "guide value";
    LeanNothing = "ranking.lean_nothing", Ranking, ShortLength, 0.02, 0.0 ..= 0.1, "lean room in a brief lean that earns nothing", "guide value";
    LeanFull = "ranking.lean_full", Ranking, ShortLength, 0.16, 0.1 ..= 0.5, "lean room in a brief lean that earns 100 points", "guide value";
    ReserveFull = "ranking.reserve_full", Ranking, Energy, 80.0, 10.0 ..= 400.0, "reserve that earns 100 points (none earns 0)", "guide value, from the reach of the demo fleet";
    FloorFull = "ranking.floor_full", Ranking, Ratio, 0.6, 0.1 ..= 2.0, "clear standing floor that earns half of the deck's 100 points, m² (none earns 0)", "guide value, from the reach of the demo fleet";
    WellFull = "ranking.well_full", Ranking, Ratio, 0.25, 0.05 ..= 1.0, "tank well left that earns the other half, m² (none earns 0)", "guide value, from the reach of the demo fleet";
    StiffnessNothing = "ranking.stiffness_nothing", Ranking, Stiffness, 1.0, 0.0 ..= 5.0, "initial stiffness that earns nothing", "guide value, from the reach of the demo fleet";
    StiffnessFull = "ranking.stiffness_full", Ranking, Stiffness, 14.0, 6.0 ..= 40.0, "initial stiffness that earns 100 points", "guide value, from the reach of the demo fleet";
}

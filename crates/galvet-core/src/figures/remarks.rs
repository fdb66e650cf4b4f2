//! What label, measurements and what stands beside a hull say that a reader must hear.

use super::afloat::Afloat;
use super::assess::Assessment;
use super::quantity::Quantity;
use super::setup::WaterLimit;
use crate::base::Lanes;
use crate::body::Shape;
use crate::float::Accuracy;
use crate::hull::{Fitting, FittingKind};
use crate::load::{Carriage, Stance};
use crate::plausible::LANES;
use crate::rig::RigLine;

impl Assessment {
    /// Share of the possible shapes in which the load the label allows puts the line the
    /// water must stay under in it; 0 where no label is known. Of every fourth shape.
    #[must_use]
    pub fn label_wets(&self) -> f64 {
        const EVERY: usize = 4;
        let Some(label) = self.median(Quantity::LabelMargin) else {
            return 0.0;
        };
        let all = &self.setup.posterior.shapes;
        let mut chosen: Vec<Shape> = self
            .evenly()
            .into_iter()
            .step_by(EVERY)
            .map(|i| all[i])
            .collect();
        chosen.sort_by_key(|shape| shape.bottom);
        let wet = chosen.chunks(LANES).map(|group| {
            let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
            let afloat = Afloat::new(&self.setup, &lanes, Accuracy::SAMPLE);
            let case = afloat.case(self.setup.carriage());
            let further = afloat.further(&case, Some(0.0));
            let wets = |i: &usize| further.is_some_and(|f| f.0[*i] < label);
            (0..group.len()).filter(wets).count()
        });
        wet.sum::<usize>() as f64 / chosen.len().max(1) as f64
    }

    /// "sits 7 mm to port to level the kit", where some shapes would not rest otherwise.
    fn levelling(&self) -> Option<String> {
        let shift = self.range(Quantity::LevelShift)?;
        let y = self
            .setup
            .loads
            .load(Carriage::Seated, &Stance::of(&[self.middle], Lanes::ZERO));
        let to = if y.y.0[0] > 0.0 { "port" } else { "starboard" };
        Some(format!(
            "sits {:.0} mm to {to} to level what lies off the middle: in {:.0} of 100 possible shapes it rests only so",
            (1000.0 * shift.p50).max(1.0),
            (100.0 * shift.share).ceil()
        ))
    }

    /// What floats on arms hang on, where there are some.
    fn steadied(&self) -> Option<String> {
        let fittings = self.setup.posterior.survey.fitout.fittings_now();
        let built = |f: &Fitting| matches!(f.kind, FittingKind::Outriggers { .. });
        let brought = |l: &RigLine| {
            let thing = l.thing.as_ref();
            thing.is_some_and(|g| g.on_water.outriggers.is_some())
        };
        let some = fittings.iter().any(built) || self.setup.brief.rig.lines.iter().any(brought);
        if some && self.setup.outriggers().is_empty() {
            return Some(
                "its outriggers count for nothing: they reach no further than the hull, or found no place"
                    .to_owned(),
            );
        }
        let density = self.setup.brief.water.density;
        let pairs = self.setup.outriggers().iter();
        let force = pairs.map(|(_, o)| o.force(density)).reduce(f64::max)?;
        Some(format!(
            "steadied by outriggers: what they give counts only as far as arms and mounts bear {force:.0} N a side"
        ))
    }

    /// What label and measurements say that a reader must hear.
    #[must_use]
    pub fn remarks(&self) -> &[String] {
        self.remarks.get_or_init(|| self.find_remarks())
    }

    fn find_remarks(&self) -> Vec<String> {
        let mut out = self.setup.posterior.doubts.clone();
        out.extend(self.levelling());
        out.extend(self.steadied());
        let share = self.label_wets();
        // Said where it is likelier than not, with how likely it is.
        if share > 0.5 {
            let said = match self.setup.limit {
                WaterLimit::Floor => {
                    "the label holds only with plugs: loaded to it with open scuppers, the floor is under water"
                }
                WaterLimit::Gunwale => {
                    "the label is more than it carries: loaded to it, the gunwale is under water; is it another hull's, or in another unit?"
                }
                WaterLimit::Deck => {
                    "the label is more than it carries: loaded to it, the deck is under water; is it another hull's, or in another unit?"
                }
            };
            let of = (100.0 * share).round().clamp(51.0, 99.0);
            let of = if share > 0.995 { 100.0 } else { of };
            out.push(format!("{said} (in {of:.0} of 100 possible shapes)"));
        }
        out
    }
}

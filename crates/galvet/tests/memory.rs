//! What is remembered is weighed truly, and forgotten in time: held against what the
//! allocator gave out.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet::answer::{Answered, Desk, Hull, Patient};
use galvet::demo_data;
use galvet::question::Ask;
use galvet_core::guide::Guides;
use galvet_store::{Catalogue, State};
use peak_alloc::PeakAlloc;
use std::sync::Arc;

#[global_allocator]
static TAKEN: PeakAlloc = PeakAlloc;

/// The demo's hulls, as a database keeps them; `times` over, under ids of their own.
fn hulls(demo: &Catalogue, times: usize) -> Vec<Hull> {
    let records = std::iter::repeat_n(&demo.hulls, times).flatten();
    Hull::first_kept(records)
}

struct Asks<'a> {
    desk: Desk,
    demo: &'a Catalogue,
    hulls: &'a [Hull],
}

impl Asks<'_> {
    /// Somebody of so many kg asks with a rig, and looks at a row of each hull.
    fn ask(&self, rig: &str, mass: f64) -> Arc<Answered> {
        let asked = [("rig", rig.to_owned()), ("mass", mass.to_string())];
        let asked = Ask::of(asked.into_iter()).resolve(self.demo).unwrap();
        let state = State {
            epoch: 0,
            change: 1,
        };
        let brief = Arc::new(asked.brief);
        let answer = self.desk.answer(state, &brief, self.hulls, &Patient);
        let answer = answer.unwrap();
        for afloat in answer.afloat.values() {
            afloat.glyph();
            afloat.quick();
        }
        answer
    }
}

/// One test, on one thread: what another allocates meanwhile, or keeps for itself, would
/// count.
#[test]
fn what_is_remembered_weighs_what_it_takes_and_is_forgotten_in_time() {
    let alone = rayon::ThreadPoolBuilder::new().num_threads(1).build();
    alone.unwrap().install(weighed_and_forgotten);
}

fn weighed_and_forgotten() {
    let demo = demo_data::catalogue().unwrap();
    let some = hulls(&demo, 1);
    // Everything that is made once a run.
    let asks = |budget| Asks {
        desk: Desk::remembering(Arc::new(Guides::default()), budget),
        demo: &demo,
        hulls: &some,
    };
    asks(1).ask("sound-trolling", 80.0);

    for rig in ["reed-edge-day", "sound-trolling"] {
        let before = TAKEN.current_usage();
        let asks = asks(usize::MAX);
        for hull in &some {
            // Some cannot be floated; that is remembered too.
            let _ = asks.desk.shapes(hull);
        }
        let (shapes, weighed) = (TAKEN.current_usage() - before, asks.desk.remembered());
        let share = weighed as f64 / shapes as f64;
        assert!(
            (1.0..1.3).contains(&share),
            "shapes: {weighed} for {shapes}"
        );
        for mass in [80.0, 95.0] {
            let (taken, remembered) = (TAKEN.current_usage(), asks.desk.remembered());
            asks.ask(rig, mass);
            let taken = TAKEN.current_usage() - taken;
            // The figures stand in the answer and by themselves.
            let weighed = (asks.desk.remembered() - remembered) / 2;
            let share = weighed as f64 / taken as f64;
            assert!((1.0..1.3).contains(&share), "{rig}: {weighed} for {taken}");
        }
    }

    // Twice as many questions take no more than half as many do.
    let budget = 12_000_000;
    let (before, asks) = (TAKEN.current_usage(), asks(budget));
    let mut most = 0;
    for more in 0..40 {
        asks.ask("reed-edge-day", 70.0 + f64::from(more));
        assert!(asks.desk.remembered() <= budget);
        most = most.max(TAKEN.current_usage().saturating_sub(before));
    }
    assert!(most <= budget, "{most} bytes of {budget}");
    assert!(most > budget / 3, "{most} bytes: the budget is not used");
}

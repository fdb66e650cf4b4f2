//! Whatever stands in an address is a question or a message.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet::demo_data;
use galvet::question::{Ask, PARTS, UNITS, units_key};
use galvet_core::base::System;
use galvet_store::Catalogue;
use proptest::prelude::*;
use proptest::sample::select;
use proptest::test_runner::RngSeed;
use std::sync::LazyLock;

/// Read once for all cases.
static DEMO: LazyLock<Catalogue> = LazyLock::new(|| demo_data::catalogue().unwrap());

/// Cases of one run; more with `GALVET_CASES`.
fn cases() -> ProptestConfig {
    let asked = std::env::var("GALVET_CASES").ok();
    ProptestConfig {
        cases: asked.and_then(|n| n.parse().ok()).unwrap_or(1_000),
        rng_seed: RngSeed::Fixed(20_261_127),
        ..ProptestConfig::default()
    }
}

/// A name that is a part's now and then, and what may stand behind it.
fn pair() -> impl Strategy<Value = (String, String)> {
    let known: Vec<&'static str> = PARTS.iter().map(|p| p.name).chain(["brief"]).collect();
    let name = prop_oneof![3 => select(known).prop_map(str::to_owned), 1 => any::<String>()];
    let bytes = prop::collection::vec(any::<u8>(), 0..60);
    let raw = bytes.prop_map(|b| String::from_utf8_lossy(&b).into_owned());
    let near = "[-+]?[0-9]{0,6}[.,']?[0-9]{0,4} ?(kg|lb|m|ft|in|cm|'|\"|%|€)?( [0-9]{1,2}\")?";
    let value = prop_oneof![raw, near, Just("1e309".to_owned()), Just("NaN".to_owned())];
    (name, value)
}

proptest! {
    #![proptest_config(cases())]

    #[test]
    fn an_address_is_a_question_in_bounds_or_says_where_not(
        pairs in prop::collection::vec(pair(), 0..12),
        said in prop_oneof![Just(None), Just(Some(System::Metric)), Just(Some(System::Imperial))],
    ) {
        let pairs_of = pairs.iter().map(|(n, v)| (n.as_str(), v.clone()));
        let said = said.map(|units| (UNITS, units_key(units).to_owned()));
        let ask = Ask::of(pairs_of.chain(said));
        let asked = ask.resolve(&DEMO).unwrap();
        // Its own address asks the same, shown in whatever units.
        for shown in [System::Metric, System::Imperial] {
            let link = ask.clone().shown_in(shown);
            let again = Ask::of(link.pairs().map(|(n, v)| (n, v.to_owned())));
            prop_assert_eq!(&again.resolve(&DEMO).unwrap().brief, &asked.brief);
        }
        let crew = &asked.brief.crew;
        prop_assert!((25.0..=220.0).contains(&crew.mass()), "{}", crew.mass());
        prop_assert!((1.1..=2.3).contains(&crew.stature()), "{}", crew.stature());
        prop_assert!((0.0..=1.0).contains(&asked.brief.capacity_weight));
        for limit in [asked.brief.must.longest, asked.brief.must.heaviest_lift, asked.brief.must.budget] {
            prop_assert!(limit.is_none_or(|l| l.is_finite() && l >= 0.0));
        }
        for mistake in asked.errors.values() {
            prop_assert!(!mistake.problem.is_empty() && mistake.problem.len() < 400, "{:?}", mistake);
        }
    }
}

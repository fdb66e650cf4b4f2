//! How often somebody may try to come in: from one address, under one name from there, and
//! under one name from everywhere. Whoever came in under a name from an address before is
//! not kept waiting by what others try, so that nobody is locked out for good.

use crate::answer::held;
use governor::clock::Clock;
use governor::state::keyed::HashMapStateStore;
use governor::{Quota, RateLimiter};
use lru::LruCache;
use std::net::IpAddr;
use std::num::NonZeroU32;
use std::sync::Mutex;
use std::time::Duration;

/// A name tried from an address.
type Pair = (String, String);
/// What may be done so often.
type Often<K, C> = RateLimiter<
    K,
    HashMapStateStore<K>,
    C,
    governor::middleware::NoOpMiddleware<<C as Clock>::Instant>,
>;

/// Tries at once and the time after which there is one more, seconds: from an address.
const ADDRESS: (u32, u64) = (20, 10);
/// The same under one name from there.
const PAIR: (u32, u64) = (5, 15);
/// The same under one name from everywhere: 2,880 a day.
const NAME: (u32, u64) = (20, 30);
/// Most keys remembered before those that have recovered are forgotten.
const MANY: usize = 10_000;
/// Names and addresses remembered that went together.
const KNOWN: usize = 1_000;

fn quota((burst, seconds): (u32, u64)) -> Quota {
    let burst = NonZeroU32::new(burst).unwrap_or(NonZeroU32::MIN);
    let usual = Quota::per_second(burst);
    Quota::with_period(Duration::from_secs(seconds)).map_or(usual, |q| q.allow_burst(burst))
}

/// How often somebody may try.
pub(super) struct Patience<C: Clock> {
    clock: C,
    address: Often<String, C>,
    pair: Often<Pair, C>,
    name: Often<String, C>,
    /// Who came in from where.
    known: Mutex<LruCache<Pair, ()>>,
}

/// An address as it is counted: of the sixth version the network, which is one house's.
fn place(address: IpAddr) -> String {
    match address.to_canonical() {
        IpAddr::V4(address) => address.to_string(),
        IpAddr::V6(address) => {
            let s = address.segments();
            format!("{:x}:{:x}:{:x}:{:x}", s[0], s[1], s[2], s[3])
        }
    }
}

/// A name as it is counted.
fn called(name: &str) -> String {
    name.trim().to_lowercase().chars().take(60).collect()
}

impl<C: Clock + Clone> Patience<C> {
    pub(super) fn new(clock: C) -> Self {
        let many = std::num::NonZeroUsize::new(KNOWN).unwrap_or(std::num::NonZeroUsize::MIN);
        Self {
            address: RateLimiter::hashmap_with_clock(quota(ADDRESS), clock.clone()),
            pair: RateLimiter::hashmap_with_clock(quota(PAIR), clock.clone()),
            name: RateLimiter::hashmap_with_clock(quota(NAME), clock.clone()),
            clock,
            known: Mutex::new(LruCache::new(many)),
        }
    }

    /// Whether a name may be tried from an address now.
    ///
    /// # Errors
    /// How long to wait.
    pub(super) fn may_try(&self, name: &str, address: IpAddr) -> Result<(), Duration> {
        self.tidy();
        let (name, place) = (called(name), place(address));
        let pair = (name, place);
        let wait = |not: governor::NotUntil<C::Instant>| not.wait_time_from(self.clock.now());
        self.address.check_key(&pair.1).map_err(wait)?;
        self.pair.check_key(&pair).map_err(wait)?;
        if held(&self.known).get(&pair).is_some() {
            return Ok(());
        }
        self.name.check_key(&pair.0).map_err(wait)
    }

    /// Somebody came in under a name from an address.
    pub(super) fn came_in(&self, name: &str, address: IpAddr) {
        let _ = held(&self.known).put((called(name), place(address)), ());
    }

    /// Forgets who has waited long enough.
    fn tidy(&self) {
        if self.address.len() + self.pair.len() + self.name.len() > MANY {
            self.address.retain_recent();
            self.pair.retain_recent();
            self.name.retain_recent();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use governor::clock::FakeRelativeClock;

    fn at(last: u8) -> IpAddr {
        IpAddr::from([10, 0, 0, last])
    }

    #[test]
    fn five_tries_of_a_name_then_one_every_quarter_minute() {
        let clock = FakeRelativeClock::default();
        let patience = Patience::new(clock.clone());
        for _ in 0..5 {
            patience.may_try("Runa", at(1)).unwrap();
        }
        let wait = patience.may_try(" RUNA", at(1)).unwrap_err();
        assert!(
            wait <= Duration::from_secs(15) && wait > Duration::from_secs(14),
            "{wait:?}"
        );
        // Another name from there, and the name from elsewhere, are not kept waiting.
        patience.may_try("Mads", at(1)).unwrap();
        patience.may_try("Runa", at(2)).unwrap();
        clock.advance(Duration::from_secs(15));
        patience.may_try("Runa", at(1)).unwrap();
        assert!(patience.may_try("Runa", at(1)).is_err());
    }

    #[test]
    fn an_address_that_tries_every_name_waits() {
        let patience = Patience::new(FakeRelativeClock::default());
        let tried = (0..100).filter(|n| patience.may_try(&format!("n{n}"), at(1)).is_ok());
        assert_eq!(tried.count(), 20);
        // Of the sixth version a house has more addresses than it can count.
        let tried = (0..100).filter(|n| {
            let address = format!("2001:db8:1:2::{n:x}").parse().unwrap();
            patience.may_try(&format!("m{n}"), address).is_ok()
        });
        assert_eq!(tried.count(), 20);
    }

    #[test]
    fn who_came_in_before_is_not_locked_out_by_what_others_try() {
        let clock = FakeRelativeClock::default();
        let patience = Patience::new(clock.clone());
        patience.may_try("Runa", at(200)).unwrap();
        patience.came_in("runa", at(200));
        // A hundred strangers try for an hour.
        for _ in 0..60 {
            for last in 0..100 {
                let _ = patience.may_try("Runa", at(last));
            }
            clock.advance(Duration::from_secs(60));
        }
        for last in 100..104 {
            let _ = patience.may_try("Runa", at(last));
        }
        assert!(patience.may_try("Runa", at(150)).is_err(), "strangers wait");
        patience.may_try("Runa", at(200)).unwrap();
    }
}

//! Wrong secrets in a row, and until when the next is not looked at.
//!
//! They are counted by person, browser and kind of secret. Somebody who tries another's PIN from a browser of their own makes
//! that browser wait, not the bench; and where they try it at the bench itself, the passphrase still opens.

use std::collections::HashMap;
use std::sync::{Mutex, MutexGuard, PoisonError};

use mend_core::shop::people::patience::wait_after;

/// So many are remembered; those that are longest past go first.
const MOST: usize = 10_000;

/// Whose secret is tried, where, and which.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) struct AttemptKey {
    /// None: a name that nobody has.
    pub(super) person: Option<i64>,
    /// The hash of its browser; none: one that nobody has signed in at.
    pub(super) device: Option<String>,
    pub(super) is_pin: bool,
}

#[derive(Debug, Clone, Copy, Default)]
struct Tries {
    wrong: u32,
    /// Not looked at before this, ms on a clock that nobody sets.
    next_ms: i64,
}

/// All of them.
#[derive(Debug, Default)]
pub(super) struct Attempts(Mutex<HashMap<AttemptKey, Tries>>);

impl Attempts {
    fn lock(&self) -> MutexGuard<'_, HashMap<AttemptKey, Tries>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// How long one still waits, ms; none: the secret is looked at. It counts as wrong until it is known to be right, so that
    /// many at the same moment are as slow as one after the other.
    pub(super) fn begin(&self, key: &AttemptKey, now_ms: i64) -> Result<(), i64> {
        let mut all = self.lock();
        if all.len() >= MOST && !all.contains_key(key) {
            let oldest = all.iter().min_by_key(|(_, tries)| tries.next_ms).map(|(key, _)| key.clone());
            oldest.map(|key| all.remove(&key));
        }
        let tries = all.entry(key.clone()).or_default();
        if now_ms < tries.next_ms {
            return Err(tries.next_ms - now_ms);
        }
        tries.wrong += 1;
        #[allow(clippy::cast_possible_truncation, reason = "a minute at most")]
        let wait_ms = (wait_after(tries.wrong).in_seconds() * 1000.0) as i64;
        tries.next_ms = now_ms + wait_ms;
        Ok(())
    }

    /// It was right.
    pub(super) fn right(&self, key: &AttemptKey) {
        self.lock().remove(key);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn key(person: i64, device: &str) -> AttemptKey {
        AttemptKey { person: Some(person), device: Some(device.to_owned()), is_pin: true }
    }

    #[test]
    fn who_guesses_waits_and_nobody_else_does() {
        let (attempts, mut now_ms, mut looked_at) = (Attempts::default(), 0, 0);
        // A guess every tenth of a second for ten minutes.
        for _ in 0..6000 {
            looked_at += i32::from(attempts.begin(&key(1, "theirs"), now_ms).is_ok());
            now_ms += 100;
        }
        assert!((10..25).contains(&looked_at), "{looked_at}");
        assert!(attempts.begin(&key(1, "bench"), now_ms).is_ok(), "the right person at the bench");
        assert!(attempts.begin(&key(2, "theirs"), now_ms).is_ok());
        let phrase = AttemptKey { is_pin: false, ..key(1, "theirs") };
        assert!(attempts.begin(&phrase, now_ms).is_ok(), "a passphrase is counted apart");
    }

    #[test]
    fn the_right_one_is_forgiven_its_slips() {
        let attempts = Attempts::default();
        for _ in 0..4 {
            attempts.begin(&key(1, "bench"), 0).expect("looked at");
        }
        attempts.begin(&key(1, "bench"), 0).expect("the fifth too");
        assert_eq!(attempts.begin(&key(1, "bench"), 0), Err(1000));
        attempts.begin(&key(1, "bench"), 1000).expect("after a second");
        attempts.right(&key(1, "bench"));
        assert!(attempts.begin(&key(1, "bench"), 1001).is_ok());
    }

    #[test]
    fn no_more_than_so_many_are_remembered() {
        let attempts = Attempts::default();
        for person in 0..20_000 {
            attempts.begin(&key(person, "theirs"), person).expect("looked at");
        }
        assert_eq!(attempts.lock().len(), MOST);
    }
}

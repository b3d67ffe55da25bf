//! Rework: how often a job went back after a test, and how long that took in all.

use crate::units::Duration;

/// Loops, counted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReworkLoops {
    /// How often it went back.
    pub times: usize,
    /// In all: each from going back until something was tried again.
    pub took: Duration,
    /// Is it back now, with nothing tried yet?
    pub is_back: bool,
}

/// The loops of a job. Moments are ms of one clock: when it went back, when each test was tried last, and now.
///
/// ```
/// use mend_core::inspection::rework::rework_loops;
/// let found = rework_loops(&[60_000], &[240_000, 250_000], 900_000);
/// assert_eq!((found.times, found.took.in_seconds(), found.is_back), (1, 180.0, false));
/// ```
pub fn rework_loops(went_back_ms: &[i64], tried_ms: &[i64], now_ms: i64) -> ReworkLoops {
    let mut backs = went_back_ms.to_vec();
    backs.sort_unstable();
    let ends = |k: usize| {
        // A test is kept as it was tried last: of an earlier loop the next going back is its end at the latest.
        let next = backs.get(k + 1).copied();
        let tried = tried_ms.iter().copied().filter(|at| *at > backs[k]).min();
        tried.into_iter().chain(next).min()
    };
    let took = |k: usize| (ends(k).unwrap_or(now_ms) - backs[k]).max(0);
    let total: i64 = (0..backs.len()).map(took).sum();
    let is_back = backs.len().checked_sub(1).is_some_and(|last| ends(last).is_none());
    ReworkLoops { times: backs.len(), took: Duration::seconds(total as f64 / 1000.0), is_back }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_loop_has_its_own_end_and_the_last_one_may_still_run() {
        let two = rework_loops(&[100_000, 400_000], &[], 460_000);
        assert_eq!((two.times, two.took.in_seconds(), two.is_back), (2, 360.0, true));
        let over = rework_loops(&[100_000, 400_000], &[430_000, 440_000], 999_000);
        assert_eq!((over.took.in_seconds(), over.is_back), (330.0, false));
        assert_eq!(rework_loops(&[], &[5], 9).times, 0);
    }
}

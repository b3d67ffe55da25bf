//! How far a computation has come, and whether anybody still wants it. Shared between who computes and who waits.
//!
//! Counts pieces done of pieces expected, and carries a wish to stop. It knows no time, and promises none.

use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Progress and cancelling of one computation. Says nothing about time: it counts pieces of work.
#[derive(Debug, Default)]
pub struct Watch {
    cancelled: AtomicBool,
    done: AtomicUsize,
    all: AtomicUsize,
}

/// It was cancelled: there is no result.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("cancelled")]
pub struct Cancelled;

impl Watch {
    /// Nobody cancels.
    pub const fn new() -> Self {
        Self { cancelled: AtomicBool::new(false), done: AtomicUsize::new(0), all: AtomicUsize::new(0) }
    }

    /// There are `pieces` more to do.
    pub fn expect(&self, pieces: usize) {
        self.all.fetch_add(pieces, Ordering::Relaxed);
    }

    /// One piece is done.
    pub fn one_done(&self) {
        self.done.fetch_add(1, Ordering::Relaxed);
    }

    /// Share of the work that is done, 0-1.
    pub fn share(&self) -> f64 {
        let (done, all) = (self.done.load(Ordering::Relaxed), self.all.load(Ordering::Relaxed));
        if all == 0 { 0.0 } else { (done as f64 / all as f64).min(1.0) }
    }

    /// Nobody wants it any more.
    pub fn cancel(&self) {
        self.cancelled.store(true, Ordering::Relaxed);
    }

    /// Does nobody want it any more?
    pub fn is_cancelled(&self) -> bool {
        self.cancelled.load(Ordering::Relaxed)
    }

    /// An error once nobody wants it.
    pub fn wanted(&self) -> Result<(), Cancelled> {
        if self.is_cancelled() { Err(Cancelled) } else { Ok(()) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn progress_counts_pieces_and_a_cancelled_one_is_no_longer_wanted() {
        let watch = Watch::new();
        assert_eq!(watch.share(), 0.0);
        watch.expect(4);
        watch.one_done();
        assert_eq!((watch.share(), watch.wanted()), (0.25, Ok(())));
        watch.cancel();
        assert_eq!(watch.wanted(), Err(Cancelled));
    }
}

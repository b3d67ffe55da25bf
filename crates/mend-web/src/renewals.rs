//! Ensembles of twins that were drawn anew while the air was on: of each heating the last, until the application ends. What is seen and
//! read is told to it from the beginning, so a restart only falls back to the first one.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use mend_core::planning::live::Watching;

/// A heating: the run, and when its air went on.
pub(crate) type HeatingKey = (i64, i64);

/// An ensemble is drawn anew so often in a heating, at the most.
const MOST: usize = 3;
/// Heatings that are remembered.
const REMEMBERED: usize = 100;

/// Of one heating.
#[derive(Debug, Default)]
struct Renewal {
    watching: Option<Arc<Watching>>,
    times: usize,
    under_way: bool,
}

/// Of all.
#[derive(Debug, Default)]
pub(crate) struct Renewals(Mutex<HashMap<HeatingKey, Renewal>>);

impl Renewals {
    fn lock(&self) -> MutexGuard<'_, HashMap<HeatingKey, Renewal>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// The last that was drawn of a heating.
    pub(crate) fn last(&self, heating: HeatingKey) -> Option<Arc<Watching>> {
        self.lock().get(&heating)?.watching.clone()
    }

    /// May one be drawn now? It counts as under way then, until [`Self::drawn`].
    pub(crate) fn begin(&self, heating: HeatingKey) -> bool {
        let mut all = self.lock();
        if all.len() >= REMEMBERED {
            all.retain(|_, renewal| renewal.under_way);
        }
        let renewal = all.entry(heating).or_default();
        let may = !renewal.under_way && renewal.times < MOST;
        if may {
            (renewal.under_way, renewal.times) = (true, renewal.times + 1);
        }
        may
    }

    /// It is there, or came to nothing.
    pub(crate) fn drawn(&self, heating: HeatingKey, watching: Option<Arc<Watching>>) {
        let mut all = self.lock();
        let renewal = all.entry(heating).or_default();
        renewal.under_way = false;
        renewal.watching = watching.or_else(|| renewal.watching.take());
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_is_drawn_at_a_time_and_three_in_a_heating() {
        let renewals = Renewals::default();
        let of = |heating| (0..5).filter(|_| renewals.begin(heating)).count();
        assert_eq!(of((1, 1000)), 1, "until it is there");
        for _ in 0..4 {
            renewals.drawn((1, 1000), None);
            renewals.begin((1, 1000));
        }
        renewals.drawn((1, 1000), None);
        assert!(!renewals.begin((1, 1000)) && renewals.last((1, 1000)).is_none());
        assert!(renewals.begin((1, 9000)), "another heating has its own");
    }
}

//! What was taken out and put back, folded from taps in whatever order they came.

use std::collections::BTreeMap;

/// Where a thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum ItemState {
    /// Where it belongs, untouched.
    #[default]
    In,
    /// Taken out.
    Out,
    /// Put back.
    Back,
}

/// A tap of a person. Out of what is out already, and back of what was never out, change nothing: two hands may tap the same.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum OpeningTap {
    /// A thing is out.
    Out(u32),
    /// A thing is back.
    Back(u32),
    /// Takes the last tap back that changed anything and was not taken back.
    Undo,
}

/// Where all things are.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Taps {
    states: BTreeMap<u32, ItemState>,
    /// What was changed, with how it was before.
    changed: Vec<(u32, ItemState)>,
}

impl Taps {
    /// After some taps.
    ///
    /// ```
    /// use mend_core::opening::taps::{ItemState, OpeningTap, Taps};
    /// let taps = Taps::after(&[OpeningTap::Out(1), OpeningTap::Out(2), OpeningTap::Undo, OpeningTap::Back(1)]);
    /// assert_eq!([taps.state(1), taps.state(2)], [ItemState::Back, ItemState::In]);
    /// ```
    pub fn after(taps: &[OpeningTap]) -> Self {
        let mut now = Self::default();
        taps.iter().for_each(|tap| now.tap(*tap));
        now
    }

    fn tap(&mut self, tap: OpeningTap) {
        let (id, to) = match tap {
            OpeningTap::Out(id) => (id, ItemState::Out),
            OpeningTap::Back(id) => (id, ItemState::Back),
            OpeningTap::Undo => {
                if let Some((id, was)) = self.changed.pop() {
                    self.states.insert(id, was);
                }
                return;
            }
        };
        let was = self.state(id);
        let changes = match to {
            ItemState::Out => was != ItemState::Out,
            ItemState::Back => was == ItemState::Out,
            ItemState::In => false,
        };
        if changes {
            self.changed.push((id, was));
            self.states.insert(id, to);
        }
    }

    /// Where a thing is.
    pub fn state(&self, id: u32) -> ItemState {
        self.states.get(&id).copied().unwrap_or_default()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_same_tap_twice_is_one_and_an_undo_takes_back_what_it_changed() {
        let twice = Taps::after(&[OpeningTap::Out(1), OpeningTap::Out(1), OpeningTap::Undo]);
        assert_eq!(twice.state(1), ItemState::In);
        assert_eq!(Taps::after(&[OpeningTap::Back(1)]).state(1), ItemState::In, "it was never out");
        assert_eq!(
            Taps::after(&[OpeningTap::Undo, OpeningTap::Out(1)]).state(1),
            ItemState::Out,
            "nothing to take back"
        );
    }

    #[test]
    fn any_order_of_taps_ends_with_a_consistent_count() {
        // A linear congruence: 500 lists of 40 taps on five things.
        let mut seed = 7_u64;
        let mut next = move || {
            seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (seed >> 33) as u32
        };
        for _ in 0..500 {
            let taps: Vec<OpeningTap> = (0..40)
                .map(|_| match next() % 5 {
                    0 | 1 => OpeningTap::Out(next() % 5),
                    2 | 3 => OpeningTap::Back(next() % 5),
                    _ => OpeningTap::Undo,
                })
                .collect();
            let now = Taps::after(&taps);
            // Read anew in two parts it is the same, and undoing all of it leaves the device as it was.
            let (first, rest) = taps.split_at(17);
            let mut again = Taps::after(first);
            rest.iter().for_each(|tap| again.tap(*tap));
            assert_eq!(again, now);
            (0..40).for_each(|_| again.tap(OpeningTap::Undo));
            assert!((0..5).all(|id| again.state(id) == ItemState::In), "{taps:?}");
        }
    }
}

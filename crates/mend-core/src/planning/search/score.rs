//! What is better: to work for a weak, a usual and a strong jet; then an open window with fewer shields; then margin, as far
//! as it counts; then a gentle ramp; then time.

use std::cmp::Ordering;

use serde::{Deserialize, Serialize};

/// A margin from which a window is open, K (E: components are known to about so much).
pub const OPEN_K: f64 = 10.0;
/// Margins are compared in steps of this, K: below it nobody can tell them apart.
const STEP_K: f64 = 5.0;
/// More headroom than this is worth nothing, K (E).
pub const ENOUGH_K: f64 = 40.0;
/// What never melts lies this far below what hurts, K.
pub(super) const NEVER_K: f64 = 1000.0;

/// How some settings do.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Score {
    /// Of a weak, a usual and a strong jet, with how many everything melts before anything is damaged.
    pub works: u8,
    /// Does it with the usual one?
    pub usual: bool,
    /// Least headroom to a limit at release, K, of these three; a body that nothing limits has 1000. Not molten: less than -1000.
    pub headroom_k: f64,
    /// Time to release with the usual one, s of the last stage.
    pub release_s: Option<f64>,
    /// All of heat, stages before included, s.
    pub heat_s: f64,
    /// Shields that are on.
    pub shields: usize,
    /// Does a package or ceramic nearby warm faster than it should?
    pub steep: bool,
}

impl Score {
    /// Everything melts, with headroom, whatever the jet is.
    pub fn is_open(&self) -> bool {
        self.works == 3 && self.headroom_k >= OPEN_K
    }

    /// As computed without any spread, does it work?
    pub fn works_as_computed(&self) -> bool {
        self.usual
    }

    /// Greater is better.
    pub fn order(&self, other: &Self) -> Ordering {
        let step = |s: &Self| (s.headroom_k.min(ENOUGH_K) / STEP_K).floor();
        let fewer = if self.is_open() && other.is_open() { other.shields.cmp(&self.shields) } else { Ordering::Equal };
        let open = self.is_open().cmp(&other.is_open());
        let works = (self.usual, self.works).cmp(&(other.usual, other.works));
        let margin = step(self).total_cmp(&step(other));
        let gentle = other.steep.cmp(&self.steep);
        works.then(open).then(fewer).then(margin).then(gentle).then(other.heat_s.total_cmp(&self.heat_s))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const OPEN: Score = Score {
        works: 3,
        usual: true,
        headroom_k: 22.0,
        release_s: Some(50.0),
        heat_s: 50.0,
        shields: 1,
        steep: false,
    };

    #[test]
    fn margin_comes_before_time_and_time_decides_where_margins_are_alike() {
        let roomier = Score { headroom_k: 31.0, heat_s: 90.0, ..OPEN };
        assert_eq!(roomier.order(&OPEN), Ordering::Greater);
        let quicker = Score { headroom_k: 21.0, heat_s: 40.0, ..OPEN };
        assert_eq!(quicker.order(&OPEN), Ordering::Greater);
        let steep = Score { heat_s: 30.0, steep: true, ..OPEN };
        assert_eq!(steep.order(&OPEN), Ordering::Less, "twenty seconds are not worth a cracked capacitor");
        let vast = [45.0, 300.0].map(|headroom_k| Score { headroom_k, ..OPEN });
        assert_eq!(vast[0].order(&vast[1]), Ordering::Equal, "beyond enough, headroom is worth nothing");
    }

    #[test]
    fn an_open_window_with_fewer_shields_is_better_and_one_that_works_always_beats_one_that_does_not() {
        let bare = Score { shields: 0, headroom_k: 12.0, ..OPEN };
        assert_eq!(bare.order(&OPEN), Ordering::Greater);
        let tight = Score { shields: 0, headroom_k: 4.0, ..OPEN };
        assert_eq!(tight.order(&OPEN), Ordering::Less, "not open without its shield");
        let sometimes = Score { works: 2, headroom_k: 39.0, ..OPEN };
        assert_eq!(sometimes.order(&OPEN), Ordering::Less);
    }
}

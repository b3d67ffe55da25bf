//! Is what a job needs there?

/// What a job needs of an item, and what was done about it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PartNeed {
    /// So much.
    pub wanted: f64,
    /// Promised to it.
    pub reserved: f64,
    /// Used up by it.
    pub used: f64,
}

/// How that stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PartState {
    /// Used.
    Used,
    /// Lies ready for it.
    Ready,
    /// It waits.
    Waits,
}

/// Where a part stands.
///
/// ```
/// use mend_core::shop::stock::{PartNeed, PartState, part_kept_for};
/// let need = PartNeed { wanted: 1.0, reserved: 0.0, used: 0.0 };
/// assert_eq!(part_kept_for(need), PartState::Waits);
/// assert_eq!(part_kept_for(PartNeed { reserved: 1.0, ..need }), PartState::Ready);
/// ```
pub fn part_kept_for(need: PartNeed) -> PartState {
    let enough = |quantity: f64| quantity + 1e-3 >= need.wanted;
    if enough(need.used) {
        PartState::Used
    } else if enough(need.used + need.reserved) {
        PartState::Ready
    } else {
        PartState::Waits
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_part_waits_until_all_of_it_is_there() {
        let need = PartNeed { wanted: 2.0, reserved: 1.0, used: 0.0 };
        assert_eq!(part_kept_for(need), PartState::Waits);
        assert_eq!(part_kept_for(PartNeed { used: 1.0, ..need }), PartState::Ready);
        assert_eq!(part_kept_for(PartNeed { used: 2.0, reserved: 0.0, ..need }), PartState::Used);
    }
}

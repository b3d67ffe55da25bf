//! How much metal a joint holds and takes.

use super::braid::Left;
use super::joint_composition::{Feed, JointComposition};
use crate::board::JointGroup;

/// A spool's length at most, mm: more than that for one connector is a slip (E: 100 g of 0.3 mm wire).
const SPOOL_MM: f64 = 200_000.0;

/// Feeding, wicking and feeding again more often than this is no plan.
const MOST_ROUNDS: usize = 6;

/// What one joint gets.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Amount {
    /// Alloy in all rounds, mg.
    pub mass_mg: f64,
    /// Wire in all rounds, mm.
    pub length_mm: f64,
    /// Rounds: feed, wick, feed again.
    pub rounds: usize,
}

/// The amount for one joint of a group. None where even rounds don't get there, or it is more than a spool.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::groups;
/// use mend_core::solder::{CompositionEntry, FeedEntry, amount};
/// let feed = FeedEntry {
///     alloy: "Sn42Bi58".to_owned(),
///     mixing_fraction: 0.4,
///     wire_mm: 0.5,
///     flux_share: 0.02,
///     rows: vec!["anchors".to_owned()],
/// };
/// let entry = CompositionEntry { alloy: "SAC305".to_owned(), feed: Some(feed), ..CompositionEntry::default() };
/// let composition = entry.composition().expect("alloys of the table");
/// let anchors = groups(&bench.board).into_iter().find(|group| group.holes).expect("plated anchors");
/// let fed = amount(&composition, &anchors).expect("they can take it");
/// assert!(fed.length_mm > 1.0 && fed.rounds >= 1);
/// ```
pub fn amount(composition: &JointComposition, group: &JointGroup) -> Option<Amount> {
    let feed = composition.feeds(group)?;
    let old = factory_mg(composition, group);
    let wanted = old * feed.mixing_fraction / (1.0 - feed.mixing_fraction);
    // Room for fed metal, by volume.
    let density = feed.metal.composition.density();
    let room = (group.most - group.volume) * density;
    let (mass_mg, rounds) = if wanted <= room { (wanted, 1) } else { in_rounds(feed, group, old, room)? };
    let length_mm = feed.wire.length_of(&feed.metal.composition, mass_mg);
    (length_mm * group.joints.len() as f64 <= SPOOL_MM).then_some(Amount { mass_mg, length_mm, rounds })
}

/// Factory metal of one joint, mg.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::groups;
/// use mend_core::solder::factory_mg;
/// let anchors = groups(&bench.board).into_iter().find(|group| group.holes).expect("plated anchors");
/// let density = bench.composition.factory.composition.density();
/// assert_eq!(factory_mg(&bench.composition, &anchors), anchors.volume * density);
/// ```
pub fn factory_mg(composition: &JointComposition, group: &JointGroup) -> f64 {
    group.volume * composition.factory.composition.density()
}

/// Filled up, wicked to what braid leaves with the pins in, filled up again: the old metal's share falls by that each time.
fn in_rounds(feed: &Feed, group: &JointGroup, old: f64, room: f64) -> Option<(f64, usize)> {
    let left = Left::with_pins_in(group).usual;
    let (full, mut share_of_old, mut fed) = (old + room, old / (old + room), room);
    for rounds in 2..=MOST_ROUNDS {
        share_of_old *= left;
        fed += (1.0 - left) * full;
        if share_of_old <= 1.0 - feed.mixing_fraction {
            return Some((fed, rounds));
        }
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::groups;
    use crate::example::Bench;
    use crate::solder::{CompositionEntry, FeedEntry};

    fn fed(mixing_fraction: f64, wire_mm: f64) -> Option<Amount> {
        let feed = FeedEntry {
            alloy: "Sn42Bi58".to_owned(),
            mixing_fraction,
            wire_mm,
            flux_share: 0.02,
            rows: vec!["anchors".to_owned()],
        };
        let entry = CompositionEntry { alloy: "SAC305".to_owned(), feed: Some(feed), ..CompositionEntry::default() };
        let bench = Bench::try_new().expect("the example");
        let anchors = groups(&bench.board).into_iter().find(|group| group.holes).expect("plated anchors");
        amount(&entry.composition().expect("alloys of the table"), &anchors)
    }

    #[test]
    fn more_is_more_wire_and_thinner_wire_is_longer() {
        let (little, much) = (fed(0.2, 0.5).expect("fits"), fed(0.5, 0.5).expect("fits"));
        assert!(much.mass_mg > little.mass_mg && much.length_mm > little.length_mm);
        let thin = fed(0.2, 0.25).expect("fits");
        assert!((thin.length_mm / little.length_mm - 4.0).abs() < 0.01, "half the diameter is four times the length");
        assert_eq!(thin.mass_mg, little.mass_mg);
    }

    #[test]
    fn what_a_joint_can_not_hold_at_once_comes_in_rounds() {
        assert!(fed(0.2, 0.5).is_some_and(|fed| fed.rounds == 1));
        assert!(fed(0.85, 0.5).is_some_and(|fed| fed.rounds > 1), "{:?}", fed(0.85, 0.5));
    }
}

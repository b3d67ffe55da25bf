//! How much to feed: by joint, by row, in rounds where a joint can't hold it at once; and what it takes to get to a
//! wanted working temperature.

use super::charge::{Charge, Feed, MOST_SHARE, MeltTarget, Mixing};
use super::melt_curve::working_temperature;
use super::residue::Left;
use crate::board::JointGroup;
use crate::materials::Composition;
use crate::units::Temperature;

/// A spool's length at most, mm: more than that for one connector is a slip (E: 100 g of 0.3 mm wire).
const SPOOL_MM: f64 = 200_000.0;
/// Feeding, wicking and feeding again more often than this is no plan.
const MOST_ROUNDS: usize = 6;

/// A row of the feed table.
#[derive(Debug, Clone, PartialEq)]
pub struct GroupFeed {
    /// Row.
    pub name: String,
    /// How many joints.
    pub count: usize,
    /// Factory metal of one joint, mg.
    pub factory_mg: f64,
    /// What it gets; none: it melts as the factory left it.
    pub fed: Option<Amount>,
    /// Where it then melts.
    pub target: Option<MeltTarget>,
    /// Why so, in words.
    pub reason: String,
}

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
pub fn amount(charge: &Charge, group: &JointGroup) -> Option<Amount> {
    let feed = charge.feeds(group)?;
    let old = factory_mg(charge, group);
    let wanted = old * feed.share / (1.0 - feed.share);
    // Room for fed metal, by volume.
    let density = feed.metal.composition.density();
    let room = (group.most - group.volume) * density;
    let (mass_mg, rounds) = if wanted <= room { (wanted, 1) } else { in_rounds(feed, group, (old, room))? };
    let length_mm = feed.wire.length_of(&feed.metal.composition, mass_mg);
    (length_mm * group.joints.len() as f64 <= SPOOL_MM).then_some(Amount { mass_mg, length_mm, rounds })
}

/// Factory metal of one joint, mg.
pub fn factory_mg(charge: &Charge, group: &JointGroup) -> f64 {
    group.volume * charge.factory.composition.density()
}

/// Filled up, wicked to what braid leaves with the pins in, filled up again: the old metal's share falls by that each time.
fn in_rounds(feed: &Feed, group: &JointGroup, (old, room): (f64, f64)) -> Option<(f64, usize)> {
    let left = Left::with_pins_in(group).usual;
    let (full, mut share_of_old, mut fed) = (old + room, old / (old + room), room);
    for rounds in 2..=MOST_ROUNDS {
        share_of_old *= left;
        fed += (1.0 - left) * full;
        if share_of_old <= 1.0 - feed.share {
            return Some((fed, rounds));
        }
    }
    None
}

/// The feed table of a charge.
pub fn feed_table(charge: &Charge, groups: &[JointGroup]) -> Vec<GroupFeed> {
    let row = |group: &JointGroup| {
        let fed = amount(charge, group);
        GroupFeed {
            name: group.name.clone(),
            count: group.joints.len(),
            factory_mg: factory_mg(charge, group),
            fed,
            target: charge.target(group),
            reason: reason(charge, group, fed),
        }
    };
    groups.iter().map(row).collect()
}

fn reason(charge: &Charge, group: &JointGroup, fed: Option<Amount>) -> String {
    let Mixing([least, _, most]) = Mixing::of(group);
    let mixes = format!("{:.0}–{:.0} % of it mixes in", least * 100.0, most * 100.0);
    match (charge.feeds(group), fed) {
        (None, _) if group.hidden => "Hidden: no tip gets there, it melts as the factory left it.".to_owned(),
        (None, _) => "Not fed: it melts as the factory left it.".to_owned(),
        (Some(_), None) => "More than these joints can take: feed less, or clear them first.".to_owned(),
        (Some(_), Some(Amount { rounds: 1, .. })) if group.holes => {
            format!("Barrel and two fillets; hold the tip until the far side runs, {mixes}.")
        }
        (Some(_), Some(Amount { rounds: 1, .. })) => format!("Film and fillet of a pad; {mixes}."),
        (Some(_), Some(Amount { rounds, .. })) => {
            format!("More than it holds at once: feed, wick, feed again, {rounds} rounds; {mixes}.")
        }
    }
}

/// The least share of `fed` in `factory` with which the working temperature, the mixing as usual and the model's band
/// on top, is no higher than `wanted`. None: this alloy can't get there.
pub fn share_for((factory, fed): (&Composition, &Composition), mixing: f64, wanted: Temperature) -> Option<f64> {
    let reaches = |share: f64| {
        let mix = Composition::mixed(&[(*factory, 1.0 - share), (*fed, share * mixing)])?;
        let margin = super::band::band(&mix).liquidus;
        Some(working_temperature(&mix)? + margin <= wanted)
    };
    // The curve of T98 over the share may rise again: scan for the first that does, then halve.
    const STEPS: usize = 19;
    let share = |k: usize| MOST_SHARE * k as f64 / STEPS as f64;
    let first = (0..=STEPS).find(|k| reaches(share(*k)) == Some(true))?;
    if first == 0 {
        return Some(0.0);
    }
    let (mut short, mut enough) = (share(first - 1), share(first));
    for _ in 0..6 {
        let middle = (short + enough) / 2.0;
        *(if reaches(middle) == Some(true) { &mut enough } else { &mut short }) = middle;
    }
    Some(enough)
}

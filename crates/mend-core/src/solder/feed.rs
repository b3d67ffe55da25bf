//! How much to feed: by joint, by row, in rounds where a joint can't hold it at once; and what it takes to get to a
//! wanted working temperature.

use super::amount::{Amount, amount, factory_mg};
use super::joint_composition::{JointComposition, MOST_SHARE, MeltTarget, Mixing};
use super::melt_curve::working_temperature;
use crate::board::JointGroup;
use crate::materials::Composition;
use crate::units::Temperature;

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

/// The feed table of a charge.
pub fn feed_table(composition: &JointComposition, groups: &[JointGroup]) -> Vec<GroupFeed> {
    let row = |group: &JointGroup| {
        let fed = amount(composition, group);
        GroupFeed {
            name: group.name.clone(),
            count: group.joints.len(),
            factory_mg: factory_mg(composition, group),
            fed,
            target: composition.target(group),
            reason: reason(composition, group, fed),
        }
    };
    groups.iter().map(row).collect()
}

fn reason(composition: &JointComposition, group: &JointGroup, fed: Option<Amount>) -> String {
    let Mixing([least, _, most]) = Mixing::of(group);
    let mixes = format!("{:.0}–{:.0} % of it mixes in", least * 100.0, most * 100.0);
    match (composition.feeds(group), fed) {
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

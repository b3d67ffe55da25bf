//! How much to feed: by joint, by row, in rounds where a joint can't hold it at once; and what it takes to get to a
//! wanted working temperature.

use super::amount::{Amount, amount, factory_mg};
use super::joint_composition::{JointComposition, MOST_MIXING_FRACTION, Mixing};
use super::melt_curve::working_temperature;
use super::melt_target::MeltTarget;
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
    /// Why so.
    pub reason: FeedReason,
}

/// Why a row gets what it gets, and what to mind when feeding it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FeedReason {
    /// Hidden: no tip gets there.
    Hidden,
    /// Nothing is fed to it.
    NotFed,
    /// More than these joints can take.
    TooMuch,
    /// Barrels: the tip stays until the far side runs.
    Barrel(MixesIn),
    /// Pads.
    Pad(MixesIn),
    /// More than a joint holds at once: in rounds.
    InRounds {
        /// How many.
        rounds: usize,
        /// How much mixes in.
        mixes: MixesIn,
    },
}

/// How much of what is fed mixes in, 0-1: least and most.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MixesIn {
    /// Least.
    pub least: f64,
    /// Most.
    pub most: f64,
}

/// The feed table of a composition.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::groups;
/// use mend_core::solder::{FeedReason, feed_table};
/// let table = feed_table(&bench.composition, &groups(&bench.board));
/// assert!(table.iter().all(|row| row.fed.is_none()), "nothing is fed");
/// assert!(table.iter().any(|row| row.reason == FeedReason::NotFed));
/// ```
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

fn reason(composition: &JointComposition, group: &JointGroup, fed: Option<Amount>) -> FeedReason {
    let Mixing([least, _, most]) = Mixing::for_group(group);
    let mixes = MixesIn { least, most };
    match (composition.feeds(group), fed) {
        (None, _) if group.hidden => FeedReason::Hidden,
        (None, _) => FeedReason::NotFed,
        (Some(_), None) => FeedReason::TooMuch,
        (Some(_), Some(Amount { rounds: 1, .. })) if group.holes => FeedReason::Barrel(mixes),
        (Some(_), Some(Amount { rounds: 1, .. })) => FeedReason::Pad(mixes),
        (Some(_), Some(Amount { rounds, .. })) => FeedReason::InRounds { rounds, mixes },
    }
}

/// The least share of `fed` in `factory` with which the working temperature, the mixing as usual and the model's band
/// on top, is no higher than `wanted`. None: this alloy can't get there.
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::share_for;
/// use mend_core::units::Temperature;
/// let metal = |name| Metal::parse("alloy", name).expect("in the table").composition;
/// let (factory, fed) = (metal("SAC305"), metal("Sn42Bi58"));
/// let share = share_for(&factory, &fed, 0.9, Temperature::celsius(190.0)).expect("bismuth gets there");
/// assert!((0.2..0.95).contains(&share));
/// assert_eq!(share_for(&factory, &fed, 0.9, Temperature::celsius(60.0)), None, "no mix of these melts at 60 °C");
/// ```
pub fn share_for(factory: &Composition, fed: &Composition, mixing: f64, wanted: Temperature) -> Option<f64> {
    let reaches = |share: f64| {
        let mix = Composition::mixed(&[(*factory, 1.0 - share), (*fed, share * mixing)])?;
        let margin = super::band::band(&mix).liquidus;
        Some(working_temperature(&mix)? + margin <= wanted)
    };
    // The curve of T98 over the share may rise again: scan for the first that does, then halve.
    const STEPS: usize = 19;
    let share = |k: usize| MOST_MIXING_FRACTION * k as f64 / STEPS as f64;
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

//! What a lesson does to a plan: when the part comes away, before and after.

use super::weights::RunWeights;
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::known::Belief;
use crate::heat::parameters::ParameterSample;
use crate::watch::Cancelled;

/// Runs behind a band that is only shown.
pub(super) const SHOWN: usize = 64;

/// When a part comes away, s of all its heating: one in ten, the middle, nine in ten; none: may never.
pub type ReleaseBand = [Option<f64>; 3];

/// When the part comes away with what each of two cases knows.
///
/// ```
/// use mend_core::calibration::next_release::releases;
/// use mend_core::example::Bench;
/// use mend_core::heat::case::Case;
/// use mend_core::heat::known::{Knowledge, Teachable};
/// let bench = Bench::try_new().expect("the example");
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let known = Knowledge::one(Teachable::Jet, 0.3, 0.05);
/// let order = bench.order();
/// let before = order.case(&melting);
/// let [blind, taught] = releases([&before, &Case { known: &known, ..before }]).expect("nobody cancels");
/// assert!(taught[1] < blind[1], "a strong jet is sooner");
/// ```
pub fn releases([before, after]: [&Case<'_>; 2]) -> Result<[ReleaseBand; 2], Cancelled> {
    Ok([release_of(before, &Belief::from_case(before))?, release_of(after, &Belief::from_case(after))?])
}

/// When the part comes away if this is believed.
pub(crate) fn release_of(case: &Case<'_>, belief: &Belief) -> Result<ReleaseBand, Cancelled> {
    let runs = run_all(case, &ParameterSample::samples_of(SHOWN, case, belief), &|_| true);
    case.watch.wanted()?;
    Ok(RunWeights::even(runs.len()).band(|k| runs[k].release))
}

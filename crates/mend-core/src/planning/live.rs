//! A plan under the eyes of its twin: the ensemble that a run at the bench is watched with.

use super::limits::{first_damage_of, limits};
use super::order::{Order, Unplanned};
use crate::calibration::twin::Twin;
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::heat::thermocouple::Thermocouple;

/// Runs of a twin.
const RUNS: usize = 256;

/// The twin of an order, with thermocouples where they are taped.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::planning::live::twin_of;
/// let bench = Bench::try_new().expect("the example");
/// let twin = twin_of(&bench.order(), &[]).expect("it can be computed");
/// let [low, mid, high] = twin.state(0.0).release_s;
/// assert!(low < mid && high.is_none_or(|high| Some(high) > mid));
/// ```
pub fn twin_of(order: &Order<'_>, thermocouples: &[Thermocouple]) -> Result<Twin, Unplanned> {
    order.checked()?;
    let melting = order.composition.targets(order.board)?;
    let case = Case { thermocouples, ..order.case(&melting) };
    let limits = limits(order, &case);
    let damage = |run: &Run| first_damage_of(&limits, run);
    case.watch.expect(RUNS);
    let runs = run_all(&case, &ParameterSample::samples(RUNS, &case), &|run| damage(run).is_some());
    case.watch.wanted()?;
    let damages = runs.iter().map(|run| damage(run).map(|damage| damage.at_s)).collect();
    Ok(Twin::new(runs, damages))
}

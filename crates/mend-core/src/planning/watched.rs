//! The replay of a plan: the run to look at, and at each second what is nearest to its limit.

use super::damaged::Damaged;
use super::limits::{Limit, limits};
use super::order::{Order, Unplanned};
use crate::heat::replay::{self, Replay as Recording};

/// Frames that are kept of a run, at the most.
const FRAMES: usize = 121;

/// A recording with its judgement.
#[derive(Debug, Clone)]
pub struct JudgedReplay {
    /// The run.
    pub recording: Recording,
    /// What can be damaged, by place; the laminate once.
    pub limits: Vec<Damaged>,
    /// At each second what is nearest to its limit, by place, and how far off it is, K.
    pub tightest: Vec<(usize, f64)>,
}

/// Runs an order to its release, or to the maximum heating time.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::watched::replay;
/// let replay = replay(&bench.order()).expect("it can be computed");
/// assert_eq!(replay.tightest.len(), replay.recording.traces.len(), "one a second");
/// assert!(replay.tightest.iter().all(|(limit, _)| *limit < replay.limits.len()));
/// ```
pub fn replay(order: &Order<'_>) -> Result<JudgedReplay, Unplanned> {
    order.checked()?;
    let melting = order.composition.targets(order.board)?;
    let case = order.case(&melting);
    let recording = replay::replay(&case, FRAMES)?;
    let limits = limits(order, &case);
    let traces = &recording.traces;
    let curve = |limit: &Limit| limit.watched.curve(traces).iter().map(|t| f64::from(*t)).collect::<Vec<f64>>();
    let left: Vec<Vec<f64>> = limits.iter().map(|limit| limit.stands.headrooms(curve(limit).into_iter())).collect();
    let at = |second: usize| {
        let left = left.iter().enumerate().map(|(k, left)| (k, left[second]));
        left.min_by(|a, b| a.1.total_cmp(&b.1))
    };
    let tightest = (0..traces.len()).filter_map(at).collect();
    Ok(JudgedReplay { tightest, limits: limits.iter().map(|limit| limit.of.clone()).collect(), recording })
}

//! The replay of a plan: the run to look at, and at each second what is nearest to its limit.

use super::damaged::Damaged;
use super::limits::{Limit, limits};
use super::order::{Order, Unplanned};
use crate::heat::replay::{self, Replay as Recording};
use crate::heat::traces::Traces;

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
    // A limit that is stood for a while is not passed at a moment.
    let limits: Vec<Limit> = limits(order, &case).into_iter().filter(|limit| limit.stands_s == 0).collect();
    let tightest =
        (0..recording.traces.len()).filter_map(|second| tightest(&limits, &recording.traces, second)).collect();
    Ok(JudgedReplay { recording, tightest, limits: limits.into_iter().map(|limit| limit.of).collect() })
}

fn tightest(limits: &[Limit], traces: &Traces, second: usize) -> Option<(usize, f64)> {
    let headroom = |(k, limit): (usize, &Limit)| (k, limit.celsius - f64::from(limit.watched.curve(traces)[second]));
    limits.iter().enumerate().map(headroom).min_by(|a, b| a.1.total_cmp(&b.1))
}

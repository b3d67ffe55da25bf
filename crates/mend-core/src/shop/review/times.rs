//! Where the time of jobs went: at the stops, and while they stood still.

use std::collections::HashMap;

use super::outcome::{JobOutcome, WaitCause};

/// A stop's time against its estimate.
#[derive(Debug, Clone, PartialEq)]
pub struct StageSummary {
    /// The stop's name.
    pub stop: String,
    /// Jobs.
    pub n: usize,
    /// Together, s.
    pub seconds: f64,
    /// How many times the estimate, by the median.
    pub factor: f64,
}

/// How long jobs stood still for a cause.
#[derive(Debug, Clone, PartialEq)]
pub struct WaitSummary {
    /// Why.
    pub cause: WaitCause,
    /// Jobs that did.
    pub n: usize,
    /// Together, s.
    pub seconds: f64,
    /// The median of those that did, s.
    pub median_s: f64,
}

/// Stops against their estimates, the most time first.
pub(super) fn stages(outcomes: &[JobOutcome]) -> Vec<StageSummary> {
    let mut by: HashMap<&str, Vec<(f64, f64)>> = HashMap::new();
    for stage in outcomes.iter().flat_map(|outcome| &outcome.stages).filter(|stage| stage.expected_s > 0.0) {
        by.entry(&stage.stop).or_default().push((stage.seconds, stage.seconds / stage.expected_s));
    }
    let summary = |(stop, mut times): (&str, Vec<(f64, f64)>)| {
        let (seconds, n) = (times.iter().map(|(seconds, _)| seconds).sum(), times.len());
        let (_, median, _) = times.select_nth_unstable_by(n / 2, |a, b| a.1.total_cmp(&b.1));
        StageSummary { stop: stop.to_owned(), n, seconds, factor: median.1 }
    };
    let mut stages: Vec<StageSummary> = by.into_iter().map(summary).collect();
    stages.sort_by(|a, b| b.seconds.total_cmp(&a.seconds).then_with(|| a.stop.cmp(&b.stop)));
    stages
}

/// Causes of standing still, the longest first.
pub(super) fn waits(outcomes: &[JobOutcome]) -> Vec<WaitSummary> {
    let all = || outcomes.iter().flat_map(|outcome| &outcome.waited);
    let summary = |cause: WaitCause| {
        let mut waited: Vec<f64> = all().filter(|waited| waited.cause == cause).map(|waited| waited.seconds).collect();
        let (n, seconds) = (waited.len(), waited.iter().sum());
        let median_s = (n > 0).then(|| *waited.select_nth_unstable_by(n / 2, f64::total_cmp).1)?;
        Some(WaitSummary { cause, n, seconds, median_s })
    };
    let mut waits: Vec<WaitSummary> = WaitCause::ALL.into_iter().filter_map(summary).collect();
    waits.sort_by(|a, b| b.seconds.total_cmp(&a.seconds));
    waits
}

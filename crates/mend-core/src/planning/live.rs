//! A plan under the eyes of its twin: the ensemble that a run at the bench is watched with.

use std::sync::Arc;

use super::bench_run::Cue;
use super::damaged::Damaged;
use super::limits::{Limit, first_damage_of, limits};
use super::order::{Order, Unplanned};
use crate::board::Board;
use crate::calibration::observation::Observation;
use crate::calibration::twin::Twin;
use crate::calibration::watched_run::WatchedRun;
use crate::calibration::weights::RunWeights;
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::known::{Belief, TeachableValues};
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::heat::thermocouple::Thermocouple;

/// Runs of a twin.
const RUNS: usize = 256;
/// Runs of one that is drawn anew while the air is on: half as many are there in half the time, and more of them agree (measured: half
/// way through with a thermocouple 35 in play for 29, and the release off by 7 % for 10).
const RUNS_ANEW: usize = 128;
/// A new ensemble is drawn so far back towards what was believed at first, 0-1, and so much wider, so that its tails are drawn. The
/// weights are exact all the same; a tenth back left fewer runs in play than there had been (measured).
const SHRUNK: f64 = 0.02;
const WIDENED: f64 = 1.15;
/// With fewer runs in play than this an ensemble is drawn anew (the same).
pub const FEW_IN_PLAY: f64 = 40.0;

/// What a run at the bench is watched with.
#[derive(Debug, Clone, PartialEq)]
pub struct Watching {
    /// The ensemble.
    pub runs: Arc<[WatchedRun]>,
    /// What is nearest to its limit, in most of its runs; none where nothing has one.
    pub tightest: Option<Damaged>,
    /// When the stage begins in which the part comes away, s from the first tool.
    pub last_from_s: f64,
    /// What was believed at first.
    pub believed: Belief,
    /// Each run's parameters, as far as they can be taught, and the logarithm of what it counts for having been drawn from another
    /// belief than the first.
    drawn: Vec<(TeachableValues, f64)>,
}

impl Watching {
    /// The ensemble of an order, with thermocouples where they are taped.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::planning::live::Watching;
    /// let bench = Bench::try_new().expect("the example");
    /// let watching = Watching::try_new(&bench.order(), &[]).expect("it can be computed");
    /// let [low, mid, high] = watching.twin().state(0.0).release_s;
    /// assert!(low < mid && high.is_none_or(|high| Some(high) > mid));
    /// ```
    pub fn try_new(order: &Order<'_>, thermocouples: &[Thermocouple]) -> Result<Self, Unplanned> {
        order.checked()?;
        Self::run(order, thermocouples, RUNS, None)
    }

    /// A new ensemble, drawn from what the runs say that are weighed like this.
    pub fn renewed(
        &self,
        order: &Order<'_>,
        thermocouples: &[Thermocouple],
        weights: &RunWeights,
    ) -> Result<Self, Unplanned> {
        let points: Vec<(TeachableValues, f64)> = self.drawn.iter().map(|(at, _)| *at).zip(weights.iter()).collect();
        let proposal = Belief::from_points(&points).towards(&self.believed, SHRUNK).widened(WIDENED);
        Self::run(order, thermocouples, RUNS_ANEW, Some((&self.believed, &proposal)))
    }

    /// So many runs of an order; from the first belief, or drawn from another.
    fn run(
        order: &Order<'_>,
        thermocouples: &[Thermocouple],
        count: usize,
        anew: Option<(&Belief, &Belief)>,
    ) -> Result<Self, Unplanned> {
        let melting = order.composition.targets(order.board)?;
        let case = Case { thermocouples, ..order.case(&melting) };
        let limits = limits(order, &case);
        case.watch.expect(count);
        let believed = anew.map_or_else(|| Belief::from_case(&case), |(first, _)| *first);
        let proposal = anew.map_or(believed, |(_, proposal)| *proposal);
        let samples = ParameterSample::samples_of(count, &case, &proposal);
        let counts = |at: &TeachableValues| match anew {
            Some(_) => believed.log_density(at) - proposal.log_density(at),
            None => 0.0,
        };
        let drawn = samples.iter().map(ParameterSample::teachable).map(|at| (at, counts(&at))).collect();
        let runs = run_all(&case, &samples, &|run| first_damage_of(&limits, run).is_some());
        case.watch.wanted()?;
        let tightest = tightest(&limits, &runs);
        let watched = |run: &Run| WatchedRun {
            damage_s: first_damage_of(&limits, run).map(|damage| damage.at_s),
            tightest: tightest.map_or_else(Vec::new, |limit| limit.watched.curve(&run.traces).to_vec()),
            ..WatchedRun::from(run)
        };
        Ok(Self {
            runs: runs.iter().map(watched).collect(),
            tightest: tightest.map(|limit| limit.of.clone()),
            last_from_s: order.recipe.seconds_before() as f64,
            believed,
            drawn,
        })
    }

    /// The twin, before anything was seen.
    pub fn twin(&self) -> Twin {
        let logs: Vec<f64> = self.drawn.iter().map(|(_, log)| *log).collect();
        Twin::weighted(self.runs.clone(), RunWeights::from_logs(&logs))
    }
}

/// What was seen in an attempt whose air went on so many seconds after the first tool.
///
/// ```
/// use mend_core::calibration::observation::Observation;
/// use mend_core::example::Bench;
/// use mend_core::planning::{bench_run::Cue, live::seen};
/// let bench = Bench::try_new().expect("the example");
/// let cue = Cue { step: 2, begun_ms: 0, row: "row A".to_owned(), seconds: 30.0 };
/// let told = seen(&bench.board, 45.0, &[cue]);
/// assert!(matches!(&told[..], [Observation::Shone { at_s: 75.0, joints }] if !joints.is_empty()));
/// ```
pub fn seen<'a>(board: &Board, from_s: f64, cues: impl IntoIterator<Item = &'a Cue>) -> Vec<Observation> {
    let of = |cue: &Cue| {
        // Those under the body can't be seen.
        let joints = board.connector.joints.iter().enumerate();
        let joints = joints.filter(|(_, joint)| joint.row == cue.row && !joint.hidden);
        Observation::Shone { joints: joints.map(|(k, _)| k).collect(), at_s: from_s + cue.seconds }
    };
    cues.into_iter().map(of).collect()
}

/// What has the least headroom until release in most runs.
fn tightest<'a>(limits: &'a [Limit], runs: &[Run]) -> Option<&'a Limit> {
    let mut times = vec![0; limits.len()];
    for run in runs {
        let seconds = run.release.map_or(run.traces.len(), |release| release as usize + 1);
        let headroom = |limit: &Limit| limit.headroom(&run.traces, seconds);
        let least = limits.iter().enumerate().map(|(k, limit)| (k, headroom(limit)));
        if let Some((k, _)) = least.min_by(|a, b| a.1.total_cmp(&b.1)) {
            times[k] += 1;
        }
    }
    times.iter().enumerate().max_by_key(|(_, times)| **times).map(|(k, _)| &limits[k])
}

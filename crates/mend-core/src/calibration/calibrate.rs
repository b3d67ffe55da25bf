//! From observations to a belief: an ensemble is weighed by them, and drawn anew where too few of its runs agree, until they
//! count in full.
//!
//! It is importance sampling whose proposal follows (population Monte Carlo): runs are drawn from what is believed so far, and each
//! counts by prior times likelihood over the density that it was drawn with, so that neither the order of the rounds nor the widening of
//! the proposal changes what comes out. What is drawn besides (mixing, where joints let go, what materials stand) is no part of the
//! belief: it is drawn as it always is, and so counts as noise.

use super::observation::Observation;
use super::watched_run::WatchedRun;
use super::weights::{RunWeights, most_that_leaves};
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::known::{Belief, TeachableValues};
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::watch::Cancelled;

/// More rounds bring nothing: the ensemble has settled, or the observations contradict each other.
const MOST_ROUNDS: usize = 7;
/// An observation counts as far as so many of the runs stay in play, of all.
const IN_PLAY: f64 = 0.12;
/// A new ensemble is drawn so far back towards the prior, 0-1. The weights are exact, so this only has to keep the tails: a tenth
/// tripled the variance in the directions that are known best, and the rounds never settled (measured).
const SHRUNK: f64 = 0.02;
/// The proposal is wider than what is believed by this factor, so that its tails are drawn.
const WIDENED: f64 = 1.15;

/// What came of it.
#[derive(Debug, Clone)]
pub struct Calibrated {
    /// What was believed before.
    pub before: Belief,
    /// And after.
    pub after: Belief,
    /// The last ensemble.
    pub runs: Vec<Run>,
    /// Its weights.
    pub weights: RunWeights,
    /// With which exponent the observations counted, 0-1: below 1 they contradict the model.
    pub counted: f64,
}

/// Weighs `count` runs of a case by what was observed.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::calibration::{calibrate::calibrate, observation::Observation};
/// use mend_core::heat::known::Teachable;
/// let bench = Bench::try_new().expect("the example");
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let moved = [Observation::Moved { at_s: 200.0 }];
/// let learnt = calibrate(&bench.order().case(&melting), &moved, 64).expect("nobody cancels");
/// let jet = Teachable::Jet as usize;
/// assert!(learnt.after.mean[jet] < 0.0, "it came late: the jet is weaker than by the book");
/// assert!(learnt.after.spread(Teachable::Jet) < learnt.before.spread(Teachable::Jet));
/// ```
pub fn calibrate(case: &Case<'_>, observations: &[Observation], count: usize) -> Result<Calibrated, Cancelled> {
    let before = Belief::from_case(case);
    let (mut proposal, mut counted, mut rounds) = (before, 0.0, 0);
    case.watch.expect(count * 3);
    loop {
        let samples = ParameterSample::samples_of(count, case, &proposal);
        let runs = run_all(case, &samples, &|_| true);
        case.watch.wanted()?;
        rounds += 1;
        let at: Vec<TeachableValues> = samples.iter().map(ParameterSample::teachable).collect();
        let logs: Vec<[f64; 2]> = runs
            .iter()
            .zip(&at)
            .map(|(run, at)| {
                let run = WatchedRun::from(run);
                let agrees = observations.iter().map(|observation| observation.log_likelihood(&run)).sum();
                [agrees, before.log_density(at) - proposal.log_density(at)]
            })
            .collect();
        let weights = |exponent: f64| {
            RunWeights::from_logs(&logs.iter().map(|[agrees, drawn]| exponent * agrees + drawn).collect::<Vec<f64>>())
        };
        let least = IN_PLAY * count as f64;
        let reached = most_that_leaves(least, |exponent| weights(exponent).effective());
        counted = if rounds == MOST_ROUNDS { reached.max(counted) } else { reached };
        let weights = weights(counted);
        let points: Vec<(TeachableValues, f64)> = at.into_iter().zip(weights.iter()).collect();
        if counted >= 1.0 || rounds == MOST_ROUNDS {
            return Ok(Calibrated { before, after: Belief::from_points(&points), runs, weights, counted });
        }
        proposal = Belief::from_points(&points).towards(&before, SHRUNK).widened(WIDENED);
    }
}

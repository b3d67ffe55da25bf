//! What a probe found: what is believed now, how its curve was expected before and after, and what that does to the next plan.

use super::calibrate::{Calibrated, calibrate};
use super::next_release::{ReleaseBand, SHOWN, release_of};
use super::probe::{ON_S, observations};
use super::reading_fault::WITHIN_MM;
use super::weights::RunWeights;
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::known::{Belief, Knowledge};
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::watch::Cancelled;

/// Runs of an ensemble.
const RUNS: usize = 256;
/// The band is drawn every so many seconds.
const EVERY_S: usize = 4;

/// A moment of an expected curve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Seconds from air on.
    pub at_s: f64,
    /// Eight in ten lie between the first and the last, °C.
    pub celsius: [f64; 3],
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Probed {
    /// What is believed before and after.
    pub beliefs: [Belief; 2],
    /// What it teaches.
    pub says: Knowledge,
    /// What was expected before, and after.
    pub expected: [Vec<Expected>; 2],
    /// Root of the mean square of what the middle is off after, K.
    pub residual_k: f64,
    /// With which exponent the readings counted, 0-1: below 1 they contradict the model.
    pub counted: f64,
    /// The next plan's release before and after.
    pub release_s: Option<[ReleaseBand; 2]>,
}

/// A curve that is missed by more than this is no curve of a station and a board like these, K (E: three times what a bead, its place
/// and a wandering jet explain together on a warm board).
const MOST_RESIDUAL_K: f64 = 10.0;
/// And so is one whose readings counted for less than this.
const LEAST_COUNTED: f64 = 0.9;

impl Probed {
    /// Do the readings fit a station and a board like these at all? Else nothing should be learnt from them.
    pub fn fits(&self) -> bool {
        self.residual_k <= MOST_RESIDUAL_K && self.counted >= LEAST_COUNTED
    }
}

/// What is asked.
#[derive(Debug, Clone, Copy)]
pub struct ProbeRequest<'a> {
    /// The probe's own case, with its thermocouple.
    pub case: &'a Case<'a>,
    /// Seconds from air on, and °C.
    pub readings: &'a [[f64; 2]],
    /// What is planned next with the same station.
    pub next: Option<&'a Case<'a>>,
}

/// Learns from a probe.
///
/// ```
/// use mend_core::calibration::probe::{place, recipe};
/// use mend_core::calibration::probed::{ProbeRequest, probed};
/// use mend_core::example::Bench;
/// use mend_core::heat::case::Case;
/// let bench = Bench::try_new().expect("the example");
/// let (recipe, taped) = (recipe(&bench.station, &bench.board), [place(&bench.board)]);
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let case = Case { recipe: &recipe, thermocouples: &taped, ..bench.order().case(&melting) };
/// let cold: Vec<[f64; 2]> = (0..120).map(|k| [f64::from(k), 24.0]).collect();
/// let found = probed(&ProbeRequest { case: &case, readings: &cold, next: None }).expect("nobody cancels");
/// assert!(!found.fits(), "the bead has come off: nothing arrives");
/// ```
pub fn probed(request: &ProbeRequest<'_>) -> Result<Probed, Cancelled> {
    let ProbeRequest { case, readings, next } = *request;
    let Calibrated { before, after, runs, weights, counted, .. } =
        calibrate(case, &observations(readings, WITHIN_MM), RUNS)?;
    let blind = run_all(case, &ParameterSample::samples_of(SHOWN, case, &before), &|_| true);
    case.watch.wanted()?;
    let expected = [expected(&blind, &RunWeights::even(blind.len())), expected(&runs, &weights)];
    let release_s = next.map(|next| -> Result<_, Cancelled> {
        let says = after.lesson(&before);
        let now = Belief::from_case(next);
        Ok([release_of(next, &now)?, release_of(next, &now.taught(&says))?])
    });
    Ok(Probed {
        beliefs: [before, after],
        says: after.lesson(&before),
        residual_k: residual(readings, &expected[1]),
        expected,
        counted,
        release_s: release_s.transpose()?,
    })
}

fn expected(runs: &[Run], weights: &RunWeights) -> Vec<Expected> {
    let seconds = (0..=2 * ON_S as usize).step_by(EVERY_S);
    let curve = |k: usize| runs[k].traces.thermocouples.first().map(|taped| &taped.celsius);
    let at = |second: usize| Expected {
        at_s: second as f64,
        celsius: weights.band(|k| Some(f64::from(*curve(k)?.get(second)?))).map(|celsius| celsius.unwrap_or(f64::NAN)),
    };
    seconds.map(at).collect()
}

/// Readings against the nearest moment of the expected curve.
fn residual(readings: &[[f64; 2]], expected: &[Expected]) -> f64 {
    let off = |[at_s, celsius]: &[f64; 2]| {
        let near = expected.iter().min_by(|a, b| (a.at_s - at_s).abs().total_cmp(&(b.at_s - at_s).abs()))?;
        ((near.at_s - at_s).abs() <= EVERY_S as f64 / 2.0 && *at_s <= 2.0 * ON_S)
            .then(|| (celsius - near.celsius[1]).powi(2))
    };
    let squares: Vec<f64> = readings.iter().filter_map(off).collect();
    (squares.iter().sum::<f64>() / squares.len().max(1) as f64).sqrt()
}

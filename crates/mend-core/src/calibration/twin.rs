//! A run that is watched: what is likely now, from what was read and seen so far.

use std::sync::Arc;

use super::observation::{Observation, sits};
use super::reading_fault::{APART_S, ReadingFault, SoundReadings, WITHIN_MM};
use super::watched_run::WatchedRun;
use super::weights::RunWeights;

/// Damage within this is near, s.
const SOON_S: f64 = 5.0;
/// From this chance of it on there is a warning, and from this one on the air goes away.
const WARNING: f64 = 0.10;
const AIR_AWAY: f64 = 0.30;

/// What a jet that wanders by a tenth does to the time that is left, as three points of a bell and their weights: 0 and its spread times
/// the root of three either way (Gauss and Hermite). A tenth of the transfer is 0.11 of the time: a release goes with the power
/// 1.1 of it or so where practice works (E, 1 far from the balance with the losses, 2 near it).
const WANDERS_ON: [(f64, f64); 3] = [(-0.1905, 1.0 / 6.0), (0.0, 2.0 / 3.0), (0.1905, 1.0 / 6.0)];

/// What a person should do.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TwinAdvice {
    /// Nothing is near.
    GoOn,
    /// Something may be damaged soon.
    Warning,
    /// It goes on at its peril.
    AirAway,
}

/// A run as it is likely to stand.
#[derive(Debug, Clone, PartialEq)]
pub struct TwinState {
    /// Now, s from the first tool.
    pub at_s: f64,
    /// When the part comes away, s from the first tool: one in ten, the middle, nine in ten; none: may never.
    pub release_s: [Option<f64>; 3],
    /// Chance that something is damaged within the next 5 s, 0-1.
    pub damage_soon: f64,
    /// The joint that is last most often, and how often, 0-1.
    pub last_joint: Option<(usize, f64)>,
    /// The coldest joint now, °C: one in ten, the middle, nine in ten.
    pub coldest_c: [f64; 3],
    /// What is nearest to its limit, now, °C, likewise; none where nothing is looked at.
    pub tightest_c: Option<[f64; 3]>,
    /// Each thermocouple as the runs expect it now, °C: one in ten, the middle, nine in ten.
    pub expected_c: Vec<[f64; 3]>,
    /// What to do.
    pub advice: TwinAdvice,
    /// Runs in play.
    pub effective: f64,
}

/// An ensemble under observation.
#[derive(Debug, Clone)]
pub struct Twin {
    runs: Arc<[WatchedRun]>,
    weights: RunWeights,
    readings: Vec<SoundReadings>,
    counted_s: Vec<f64>,
}

impl Twin {
    /// Begins with an ensemble.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::calibration::{twin::{Twin, TwinAdvice}, watched_run::WatchedRun};
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::run};
    /// let melting = bench.composition.targets(&bench.board).expect("computed");
    /// let done = run(&bench.order().case(&melting), &ParameterSample::nominal(), Resolution::COARSE);
    /// let twin = Twin::new(vec![WatchedRun::from(&done).damaged_at(Some(20.0)); 8]);
    /// assert_eq!((twin.state(5.0).advice, twin.state(17.0).advice), (TwinAdvice::GoOn, TwinAdvice::AirAway));
    /// ```
    pub fn new(runs: impl Into<Arc<[WatchedRun]>>) -> Self {
        let runs = runs.into();
        let even = RunWeights::even(runs.len());
        Self::weighted(runs, even)
    }

    /// The same with an ensemble whose runs do not count alike from the start.
    pub fn weighted(runs: Arc<[WatchedRun]>, weights: RunWeights) -> Self {
        let taped = runs.first().map_or(0, |run| run.thermocouples.len());
        let readings = vec![SoundReadings::default(); taped];
        Self { runs, weights, readings, counted_s: vec![f64::NEG_INFINITY; taped] }
    }

    /// The weights of its runs after so many seconds, the part still sitting.
    pub fn weights_at(&self, at_s: f64) -> RunWeights {
        self.weights.times(|k| sits(at_s, self.runs[k].release_s))
    }

    /// Takes a reading of a thermocouple, or says why it is none.
    pub fn read(&mut self, thermocouple: usize, [at_s, celsius]: [f64; 2]) -> Result<(), ReadingFault> {
        let expected_k = self.expected(thermocouple, at_s)[1] - self.expected(thermocouple, at_s - APART_S)[1];
        let Some(readings) = self.readings.get_mut(thermocouple) else { return Err(ReadingFault::Open) };
        readings.take([at_s, celsius], expected_k)?;
        if at_s >= self.counted_s[thermocouple] + APART_S {
            self.counted_s[thermocouple] = at_s;
            self.observe(&Observation::Reading { thermocouple, at_s, celsius, within_mm: WITHIN_MM });
        }
        Ok(())
    }

    /// Takes what was seen. That the part still sits is no event: [`Self::state`] is told how late it is.
    pub fn observe(&mut self, observation: &Observation) {
        let logs: Vec<f64> = self.runs.iter().map(|run| observation.log_likelihood(run)).collect();
        self.weights.weigh(&logs);
    }

    /// How it stands after so many seconds, the part still sitting and nothing seen to be damaged.
    pub fn state(&self, at_s: f64) -> TwinState {
        let undamaged = |k: usize| self.runs[k].damage_s.is_none_or(|damage| damage > at_s);
        let now = self.weights_at(at_s);
        // Of the runs in which nothing is damaged yet; where there are none, it is as if all were about to be.
        let left = now.share(undamaged);
        let soon = |k: usize| self.runs[k].damage_s.is_some_and(|damage| damage > at_s && damage <= at_s + SOON_S);
        let damage_soon = if left > 0.0 { now.share(soon) / left } else { 1.0 };
        TwinState {
            at_s,
            release_s: self.release_from(&now, at_s),
            damage_soon,
            last_joint: self.last_joint(&now),
            coldest_c: now.band(|k| at(&self.runs[k].coldest, at_s)).map(|celsius| celsius.unwrap_or(f64::NAN)),
            tightest_c: whole(now.band(|k| at(&self.runs[k].tightest, at_s))),
            expected_c: (0..self.readings.len()).map(|k| self.expected_by(&now, k, at_s)).collect(),
            advice: match damage_soon {
                chance if chance >= AIR_AWAY => TwinAdvice::AirAway,
                chance if chance >= WARNING => TwinAdvice::Warning,
                _ => TwinAdvice::GoOn,
            },
            effective: now.effective(),
        }
    }

    /// When the part comes away: the runs' own moments, what is left of each wandering as a jet does.
    fn release_from(&self, now: &RunWeights, at_s: f64) -> [Option<f64>; 3] {
        let left = |k: usize| Some((self.runs[k].release_s? - at_s).max(0.0));
        let moment = |k: usize| Some(at_s + left(k / WANDERS_ON.len())? * WANDERS_ON[k % WANDERS_ON.len()].0.exp());
        let all = now.product(WANDERS_ON.map(|(_, weight)| weight));
        all.band(moment)
    }

    fn expected(&self, thermocouple: usize, at_s: f64) -> [f64; 3] {
        self.expected_by(&self.weights, thermocouple, at_s)
    }

    fn expected_by(&self, weights: &RunWeights, thermocouple: usize, at_s: f64) -> [f64; 3] {
        let read = |k: usize| at(&self.runs[k].thermocouples.get(thermocouple)?.celsius, at_s);
        weights.band(read).map(|celsius| celsius.unwrap_or(f64::NAN))
    }

    fn last_joint(&self, weights: &RunWeights) -> Option<(usize, f64)> {
        let joints = self.runs.first()?.melted.len();
        let last = |run: &WatchedRun| {
            let late = |k: &usize| run.melted[*k].unwrap_or(f64::INFINITY);
            (0..joints).max_by(|a, b| late(a).total_cmp(&late(b)))
        };
        let of: Vec<Option<usize>> = self.runs.iter().map(last).collect();
        let share = |joint: usize| (joint, weights.share(|k| of[k] == Some(joint)));
        (0..joints).map(share).max_by(|a, b| a.1.total_cmp(&b.1))
    }
}

/// A band of which nothing is missing.
fn whole(band: [Option<f64>; 3]) -> Option<[f64; 3]> {
    let [low, middle, high] = band;
    Some([low?, middle?, high?])
}

/// A curve at a moment, at its last full second; at its end for one beyond it.
fn at(curve: &[f32], at_s: f64) -> Option<f64> {
    let last = curve.len().checked_sub(1)?;
    Some(f64::from(curve[(at_s.max(0.0) as usize).min(last)]))
}

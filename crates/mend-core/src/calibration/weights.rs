//! The weights of an ensemble of runs, and what the runs say with them.

/// In one step an observation never leaves fewer effective runs than this: it counts for less instead (the design's floor).
const LEAST_EFFECTIVE: f64 = 20.0;
/// Halvings of the exponent by which an observation counts.
const HALVINGS: usize = 40;
/// A run that fits worse than this beside the best is as good as none; it also keeps everything finite.
const WORST: f64 = -700.0;

/// RunWeights of runs, in their order. They sum to 1.
#[derive(Debug, Clone, PartialEq)]
pub struct RunWeights(Vec<f64>);

impl RunWeights {
    /// Before anything was observed.
    pub fn even(count: usize) -> Self {
        Self(vec![1.0 / count.max(1) as f64; count])
    }

    /// By logarithms; what is no number counts as the worst.
    pub fn from_logs(logs: &[f64]) -> Self {
        let sound: Vec<f64> = logs.iter().map(|log| if log.is_nan() { f64::NEG_INFINITY } else { *log }).collect();
        let best = sound.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        if !best.is_finite() {
            return Self::even(logs.len());
        }
        let weights: Vec<f64> = sound.iter().map(|log| (log - best).max(WORST).exp()).collect();
        let sum: f64 = weights.iter().sum();
        Self(weights.into_iter().map(|weight| weight / sum).collect())
    }

    /// Weighs by the logarithms of how likely an observation is in each run; tempered, so that enough runs stay in play. Answers with
    /// which exponent it counted, 0-1.
    ///
    /// ```
    /// use mend_core::calibration::weights::RunWeights;
    /// let mut weights = RunWeights::even(100);
    /// let counted = weights.weigh(&(0..100).map(|k| -f64::from(k)).collect::<Vec<f64>>());
    /// assert!(counted < 1.0 && weights.effective() > 19.0);
    /// ```
    pub fn weigh(&mut self, logs: &[f64]) -> f64 {
        let least = LEAST_EFFECTIVE.min(self.effective() * 0.999);
        let at = |exponent: f64| {
            Self::from_logs(
                &self.0.iter().zip(logs).map(|(w, log)| w.ln() + exponent * log.max(WORST)).collect::<Vec<f64>>(),
            )
        };
        let exponent = most_that_leaves(least, |exponent| at(exponent).effective());
        *self = at(exponent);
        exponent
    }

    /// How many runs of one weight would know as much: 1 / sum of squares.
    pub fn effective(&self) -> f64 {
        1.0 / self.0.iter().map(|w| w * w).sum::<f64>().max(f64::MIN_POSITIVE)
    }

    /// One after the other.
    pub fn iter(&self) -> impl Iterator<Item = f64> + '_ {
        self.0.iter().copied()
    }

    /// The same with each times a factor, 0-1; as they are where nothing would be left.
    #[must_use]
    pub fn times(&self, factor: impl Fn(usize) -> f64) -> Self {
        Self::from_logs(&self.0.iter().enumerate().map(|(k, w)| w.ln() + factor(k).ln()).collect::<Vec<f64>>())
    }

    /// Each run's weight split into parts of it that sum to 1, which come one after the other.
    pub(super) fn product<const PARTS: usize>(&self, parts: [f64; PARTS]) -> Self {
        Self(self.0.iter().flat_map(|weight| parts.map(|part| weight * part)).collect())
    }

    /// Weight of the runs of which something holds, 0-1.
    pub fn share(&self, holds: impl Fn(usize) -> bool) -> f64 {
        self.0.iter().enumerate().filter(|(k, _)| holds(*k)).map(|(_, w)| w).sum()
    }

    /// A figure of the runs as a band: one in ten, the middle, nine in ten.
    pub fn band(&self, figure: impl Fn(usize) -> Option<f64>) -> [Option<f64>; 3] {
        [0.1, 0.5, 0.9].map(|at| self.quantile(at, &figure))
    }

    /// A quantile of a figure of the runs; a run that has none counts as beyond all that have. None where the quantile lies there.
    pub fn quantile(&self, at: f64, figure: impl Fn(usize) -> Option<f64>) -> Option<f64> {
        let mut all: Vec<(f64, f64)> = self.0.iter().enumerate().filter_map(|(k, w)| Some((figure(k)?, *w))).collect();
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
        let mut below = 0.0;
        for (value, weight) in all {
            below += weight;
            if below >= at {
                return Some(value);
            }
        }
        None
    }
}

/// The greatest exponent up to 1 that leaves so many effective runs.
pub(super) fn most_that_leaves(least: f64, effective: impl Fn(f64) -> f64) -> f64 {
    if effective(1.0) >= least {
        return 1.0;
    }
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if effective(middle) >= least { low = middle } else { high = middle }
    }
    low
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn weights_stay_finite_whatever_comes_in() {
        for log in [f64::NAN, f64::NEG_INFINITY, f64::INFINITY, -1e300, 1e300] {
            let mut weights = RunWeights::even(30);
            let mut logs = vec![0.0; 30];
            logs[3] = log;
            weights.weigh(&logs);
            let sum: f64 = weights.iter().sum();
            assert!((sum - 1.0).abs() < 1e-9 && weights.iter().all(f64::is_finite), "{log}: {weights:?}");
            weights.weigh(&[f64::NAN; 30]);
            assert!(weights.iter().all(f64::is_finite) && weights.effective() > 1.0);
        }
    }

    #[test]
    fn an_observation_that_agrees_with_one_run_alone_leaves_twenty_in_play() {
        let mut weights = RunWeights::even(256);
        let mut logs = vec![-400.0; 256];
        logs[7] = 0.0;
        let counted = weights.weigh(&logs);
        assert!(counted < 0.05 && (weights.effective() - 20.0).abs() < 0.1, "{counted} {}", weights.effective());
    }

    #[test]
    fn runs_that_never_come_to_it_lie_beyond_all_that_do() {
        let weights = RunWeights::even(10);
        let figure = |k: usize| (k < 6).then_some(k as f64);
        assert_eq!((weights.quantile(0.1, figure), weights.quantile(0.5, figure)), (Some(0.0), Some(4.0)));
        assert_eq!(weights.quantile(0.9, figure), None);
    }
}

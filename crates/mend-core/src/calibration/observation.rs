//! How likely an observation is in a run: the logarithm, up to what is the same for all runs.

use crate::heat::thermocouple::ThermocoupleCurve;
use statrs::distribution::{ContinuousCDF, Normal};

use super::watched_run::WatchedRun;

/// Of a thermocouple itself, K (D, type K by class 2 and its logger).
const READING_K: f64 = 1.5;
/// A bead that was placed by eye is off by so much of what was said, of the slope there (design of the station's pages).
const PLACED: f64 = 0.6;
/// What no parameter explains, above all a jet that wanders: K, and of the rise (measured on a surrogate of four lumps).
const WANDERS_K: f64 = 2.0;
const WANDERS: f64 = 0.04;
/// Of a time at which something was seen, of its logarithm, and of the hand that presses, s (E).
const SEEN: f64 = 0.12;
const PRESSED_S: f64 = 1.5;
/// Of the run itself at the bench, of the logarithm of its times: it, and not only the eye, is off (E).
const MODEL: f64 = 0.10;
/// Nothing speaks more strongly against a run than this: anything can be a slip.
const WORST: f64 = -12.0;

/// What was observed. Seconds count from the first tool.
#[derive(Debug, Clone, PartialEq)]
pub enum Observation {
    /// A thermocouple, by its place in the case's list, read so much; its bead lies within so many mm of where it is said to.
    Reading { thermocouple: usize, at_s: f64, celsius: f64, within_mm: f64 },
    /// All of these joints were seen to be liquid for the first time.
    Shone { joints: Vec<usize>, at_s: f64 },
    /// The part has not moved until then.
    Sits { until_s: f64 },
    /// The part came away.
    Moved { at_s: f64 },
    /// So long after all went off the joints had frozen.
    Froze { after_s: f64 },
}

impl Observation {
    /// How likely it is in a run.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::calibration::{observation::Observation, watched_run::WatchedRun};
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::run};
    /// let melting = bench.composition.targets(&bench.board).expect("computed");
    /// let done = run(&bench.order().case(&melting), &ParameterSample::nominal(), Resolution::COARSE);
    /// let done = WatchedRun::from(&done);
    /// let at_s = done.release_s.expect("it melts");
    /// let likely = |at_s| Observation::Moved { at_s }.log_likelihood(&done);
    /// assert!(likely(at_s) > likely(2.0 * at_s));
    /// ```
    pub fn log_likelihood(&self, run: &WatchedRun) -> f64 {
        let log = match self {
            Self::Reading { thermocouple, at_s, celsius, within_mm } => {
                run.thermocouples.get(*thermocouple).map_or(WORST, |curve| reading(curve, *at_s, *celsius, *within_mm))
            }
            Self::Shone { joints, at_s } => {
                let liquid = joints.iter().map(|k| run.melted.get(*k).copied().flatten());
                let last = liquid.collect::<Option<Vec<f64>>>().map(|all| all.into_iter().fold(0.0, f64::max));
                // How far the run itself is off is counted once, in what is left until release.
                seen_within(SEEN, *at_s, last)
            }
            Self::Sits { until_s } => sits(*until_s, run.release_s).max(f64::MIN_POSITIVE).ln(),
            Self::Moved { at_s } => seen(*at_s, run.release_s),
            Self::Froze { after_s } => seen(*after_s, run.hold_s),
        };
        if log.is_nan() { WORST } else { log.max(WORST) }
    }
}

/// A reading against the run's own curve.
fn reading(curve: &ThermocoupleCurve, at_s: f64, celsius: f64, within_mm: f64) -> f64 {
    let (Some(begins), Some(is), Some(per_mm)) =
        (curve.celsius.first(), between(&curve.celsius, at_s), between(&curve.per_mm, at_s))
    else {
        return WORST;
    };
    let rise = is - f64::from(*begins);
    let spreads = [READING_K, PLACED * within_mm * per_mm, WANDERS_K, WANDERS * rise];
    let variance: f64 = spreads.iter().map(|spread| spread * spread).sum();
    let off = celsius - is;
    -off * off / (2.0 * variance) - 0.5 * variance.ln()
}

/// A curve of full seconds at any moment; at its end for a moment after it: the run was over, which is said elsewhere.
fn between(curve: &[f32], at_s: f64) -> Option<f64> {
    let last = curve.len().checked_sub(1)?;
    let at = at_s.clamp(0.0, last as f64);
    let (low, part) = (at.floor() as usize, at.fract());
    let (a, b) = (f64::from(curve[low]), f64::from(curve[(low + 1).min(last)]));
    Some(a + (b - a) * part)
}

/// A moment that was seen against the run's own.
fn seen(at_s: f64, own: Option<f64>) -> f64 {
    seen_within(SEEN.hypot(MODEL), at_s, own)
}

/// The same by an eye that is off by so much, of the logarithm, and a hand.
fn seen_within(spread: f64, at_s: f64, own: Option<f64>) -> f64 {
    let Some(own) = own.filter(|own| *own > 0.0) else { return WORST };
    let spread = spread.hypot(PRESSED_S / own.max(1.0));
    let off = (at_s.max(0.1) / own).ln() / spread;
    -off * off / 2.0 - spread.ln()
}

/// Of the logarithm of a time, by eye, hand and model together.
fn spread(own: f64) -> f64 {
    SEEN.hypot(MODEL).hypot(PRESSED_S / own.max(1.0))
}

/// Chance that a run has not come to its release by then, 0-1.
pub(super) fn sits(until_s: f64, release: Option<f64>) -> f64 {
    let Some(own) = release.filter(|own| *own > 0.0) else { return 1.0 };
    let later = (own / until_s.max(0.1)).ln() / spread(own);
    Normal::standard().cdf(later)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_curve_is_read_between_its_seconds_and_not_beyond_its_ends() {
        let curve = [20.0_f32, 30.0, 50.0];
        assert_eq!([-1.0, 0.5, 1.25, 9.0].map(|at| between(&curve, at)), [20.0, 25.0, 35.0, 50.0].map(Some));
        assert_eq!(between(&[], 1.0), None);
    }

    #[test]
    fn what_sits_longer_speaks_for_a_later_release_and_never_against_none() {
        assert_eq!(sits(500.0, None), 1.0);
        assert!(sits(30.0, Some(60.0)) > 0.99 && sits(60.0, Some(60.0)) > 0.49 && sits(120.0, Some(60.0)) < 0.01);
    }

    #[test]
    fn a_moment_counts_by_its_ratio_and_never_more_than_a_slip() {
        assert!(seen(60.0, Some(60.0)) > seen(75.0, Some(60.0)));
        assert!((seen(50.0, Some(60.0)) - seen(72.0, Some(60.0))).abs() < 1e-9, "a sixth less and a fifth more");
        assert_eq!(seen(60.0, None), WORST);
    }
}

//! A time as usual and as "eight in ten within"; several together.

use super::pooled::PooledEffect;
use super::prior::PriorTime;

/// The standard normal quantile of eight in ten.
const EIGHT_IN_TEN: f64 = 0.841_621;

/// A log-normal time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StageTime {
    /// As often less as more, s.
    pub usual_s: f64,
    /// Standard deviation of its logarithm.
    pub spread: f64,
}

impl StageTime {
    /// What the prior says, as the past corrects it.
    pub fn new(prior: PriorTime, past: PooledEffect) -> Self {
        Self { usual_s: prior.usual_s * past.factor, spread: past.spread }
    }

    /// In eight of ten it takes no longer than this, s.
    ///
    /// ```
    /// use mend_core::shop::estimate::stage_time::StageTime;
    /// let time = StageTime { usual_s: 600.0, spread: 0.4 };
    /// assert!((time.within_s() - 840.0).abs() < 1.0);
    /// ```
    pub fn within_s(&self) -> f64 {
        self.usual_s * (EIGHT_IN_TEN * self.spread).exp()
    }

    /// Several one after the other, as one log-normal time of the same mean and variance (Fenton and Wilkinson). They are taken
    /// as independent: what makes all of a shop's times longer is in their middles already.
    pub fn together(times: &[Self]) -> Self {
        let mean = |time: &Self| time.usual_s * (time.spread * time.spread / 2.0).exp();
        let variance = |time: &Self| mean(time).powi(2) * ((time.spread * time.spread).exp() - 1.0);
        let (sum, spread): (f64, f64) = (times.iter().map(mean).sum(), times.iter().map(variance).sum());
        if sum <= 0.0 {
            return Self { usual_s: 0.0, spread: 0.0 };
        }
        let square = (1.0 + spread / (sum * sum)).ln();
        Self { usual_s: sum * (-square / 2.0).exp(), spread: square.sqrt() }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn times_together_are_relatively_surer_than_each() {
        let each = StageTime { usual_s: 600.0, spread: 0.5 };
        let all = StageTime::together(&[each; 6]);
        assert!(all.usual_s > 3600.0 && all.spread < 0.3, "{all:?}");
        let one = StageTime::together(&[each]);
        assert!((one.usual_s - 600.0).abs() < 1e-6 && (one.spread - 0.5).abs() < 1e-9);
        assert_eq!(StageTime::together(&[]).within_s(), 0.0);
    }
}

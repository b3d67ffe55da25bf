//! Bands over the samples: the tenth, fiftieth and ninetieth of a hundred.

use serde::{Deserialize, Serialize};

/// Where eight of ten samples fall.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Band {
    /// One in ten is below.
    pub low: f64,
    /// The middle one.
    pub mid: f64,
    /// One in ten is above.
    pub high: f64,
}

impl Band {
    /// The band of some values; none for an empty list.
    pub fn from_values(values: &[f64]) -> Option<Self> {
        let mut sorted = values.to_vec();
        sorted.sort_by(f64::total_cmp);
        let pick = |share| quantile(&sorted, share);
        Some(Self { low: pick(0.1)?, mid: pick(0.5)?, high: pick(0.9)? })
    }

    /// Moved by a difference.
    pub fn shifted(self, by: f64) -> Self {
        Self { low: self.low + by, mid: self.mid + by, high: self.high + by }
    }
}

/// A band of a time that may never come.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct TimeBand {
    /// One in ten is sooner, s. None: fewer than that come at all.
    pub low_s: Option<f64>,
    /// The middle one, s.
    pub mid_s: Option<f64>,
    /// One in ten is later or never, s.
    pub high_s: Option<f64>,
    /// Share of the samples in which it comes, 0-1.
    pub share: f64,
}

impl TimeBand {
    /// Over times of which some never come, each scaled by `factor`.
    pub fn from_times(times: &[Option<f64>], factor: f64) -> Self {
        let mut sorted: Vec<f64> = times.iter().map(|t| t.map_or(f64::INFINITY, |t| t * factor)).collect();
        sorted.sort_by(f64::total_cmp);
        let pick = |share| quantile(&sorted, share).filter(|t| t.is_finite());
        let came = times.iter().flatten().count() as f64 / times.len().max(1) as f64;
        Self { low_s: pick(0.1), mid_s: pick(0.5), high_s: pick(0.9), share: came }
    }

    /// May it fail to come?
    pub fn may_fail(&self) -> bool {
        self.high_s.is_none()
    }
}

/// The value below which a share of a sorted list lies, linear between neighbours; an infinite neighbour wins.
pub(crate) fn quantile(sorted: &[f64], share: f64) -> Option<f64> {
    let place = share * (sorted.len().checked_sub(1)?) as f64;
    let (low, high) = (sorted[place.floor() as usize], sorted[place.ceil() as usize]);
    if low == high || !high.is_finite() {
        return Some(if place.fract() == 0.0 { low } else { high });
    }
    Some(low + (high - low) * place.fract())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_band_is_eight_of_ten() {
        let values: Vec<f64> = (0..=10).rev().map(f64::from).collect();
        assert_eq!(Band::from_values(&values), Some(Band { low: 1.0, mid: 5.0, high: 9.0 }));
        assert_eq!(Band::from_values(&[]), None);
    }

    #[test]
    fn a_time_that_may_not_come_has_no_late_end() {
        let times: Vec<Option<f64>> = (0..10).map(|k| (k < 7).then_some(40.0 + f64::from(k))).collect();
        let band = TimeBand::from_times(&times, 1.0);
        assert!(band.may_fail());
        assert_eq!(band.share, 0.7);
        assert_eq!(band.mid_s, Some(44.5));
    }
}

//! Which guess widens the band most, from the samples themselves.

use serde::{Deserialize, Serialize};

use super::runs::PlanRuns;
use crate::heat::latin_hypercube::rank_correlation;
use crate::heat::uncertainty::{UncertainInput, Uncertainty};

/// Shares below this are not told from chance by so few samples.
const TELLING: f64 = 0.04;

/// What one guess does to the time to release.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Sensitivity {
    /// Which.
    pub input: UncertainInput,
    /// Its share of how differently the samples come out, 0-1: first order, of the ranks.
    pub share: f64,
    /// How wide the band would be once it was measured, against now, 0-1; 1 where nothing can be measured.
    pub narrows_to: f64,
}

/// What can be told of every guess, the one that widens most first.
///
/// The samples are spread so that no two inputs run together: the square of an input's rank correlation with the time to release is
/// its share of the variance, but for what chance does to as many samples, which is taken off (as of a regression, adjusted R²). A
/// release that never comes is later than any that does.
pub(super) fn sensitivities(outcome: &PlanRuns<'_>) -> Vec<Sensitivity> {
    let known = Uncertainty::from_case(&outcome.case);
    let released: Vec<f64> = outcome.samples.iter().map(|run| run.release.unwrap_or(f64::MAX)).collect();
    let mut found: Vec<Sensitivity> = UncertainInput::ALL
        .into_iter()
        .filter_map(|input| {
            let columns = outcome.samples.iter().map(|run| run.parameters.said_of(input)).collect::<Vec<_>>();
            let share = share(&columns, &released);
            let ratio = known.measured_against_now(input);
            let narrows_to = (1.0 - share * (1.0 - ratio * ratio)).max(0.0).sqrt();
            (share >= TELLING).then_some(Sensitivity { input, share, narrows_to })
        })
        .collect();
    found.sort_by(|a, b| b.share.total_cmp(&a.share));
    found
}

/// Share of the variance of `of` that an input accounts for, which each sample says as one number or as several.
fn share(said: &[Vec<f64>], of: &[f64]) -> f64 {
    let numbers = said.first().map_or(0, Vec::len);
    let count = of.len() as f64;
    let of_number = |k: usize| {
        let column: Vec<f64> = said.iter().map(|said| said[k]).collect();
        let r = rank_correlation(&column, of);
        (r * r - (1.0 - r * r) / (count - 2.0).max(1.0)).max(0.0)
    };
    (0..numbers).map(of_number).sum::<f64>().min(1.0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::latin_hypercube::latin_hypercube;

    #[test]
    fn what_decides_has_the_larger_share_and_what_does_nothing_none() {
        let columns = latin_hypercube(64, 3);
        let released: Vec<f64> = (0..64).map(|k| 3.0 * columns[0][k] + columns[1][k]).collect();
        let [most, some, none] =
            [0, 1, 2].map(|d| share(&columns[d].iter().map(|x| vec![*x]).collect::<Vec<_>>(), &released));
        assert!((most - 0.9).abs() < 0.05 && (some - 0.1).abs() < 0.05 && none < TELLING, "{most} {some} {none}");
    }
}

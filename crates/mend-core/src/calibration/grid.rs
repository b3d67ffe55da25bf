//! What is believed of a few things at once after readings that do not go with them in a straight line: a grid over what they may
//! be, each point weighed by the guess and by the readings. The same weighing as of an ensemble, with its members in rows.

/// Points along each thing.
const POINTS: usize = 13;
/// The grid reaches so many standard deviations either way.
const REACHES: f64 = 3.0;
/// So often it is laid anew over what was left: a reading says more than a guess, and falls between the points of the first.
const TIMES: usize = 4;
/// A grid is laid so much wider than what was left.
const WIDER: f64 = 1.4;

/// What is guessed of a thing, or believed of it afterwards: mean and standard deviation of a bell.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Bell {
    pub(super) mean: f64,
    pub(super) spread: f64,
}

impl Bell {
    /// Of the logarithm of a thing about `middle`.
    pub(super) fn ln(middle: f64, spread: f64) -> Self {
        Self { mean: middle.ln(), spread }
    }

    /// Where eight in ten begin, the middle, and where they end, of a thing whose logarithm this is.
    pub(super) fn eight_in_ten_of_ln(&self) -> [f64; 3] {
        let half = crate::heat::spread::EIGHT_IN_TEN * self.spread;
        [self.mean - half, self.mean, self.mean + half].map(f64::exp)
    }

    /// Logarithm of its density, up to what is the same everywhere.
    pub(super) fn log_density(&self, at: f64) -> f64 {
        -0.5 * ((at - self.mean) / self.spread).powi(2)
    }
}

/// What is believed after readings of such likelihood (its logarithm), from what was guessed.
pub(super) fn weighed<const N: usize>(guessed: [Bell; N], likelihood: &dyn Fn(&[f64; N]) -> f64) -> [Bell; N] {
    let mut laid = guessed;
    for _ in 0..TIMES {
        let points = grid(&laid);
        let prior = |at: &[f64; N]| guessed.iter().zip(at).map(|(bell, at)| bell.log_density(*at)).sum::<f64>();
        let logs: Vec<f64> = points.iter().map(|at| prior(at) + likelihood(at)).collect();
        let most = logs.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        if !most.is_finite() {
            return guessed;
        }
        let weights: Vec<f64> = logs.iter().map(|log| (log - most).exp()).collect();
        let all: f64 = weights.iter().sum();
        let mean =
            |of: &dyn Fn(&[f64; N]) -> f64| points.iter().zip(&weights).map(|(at, w)| w * of(at)).sum::<f64>() / all;
        laid = std::array::from_fn(|k| {
            let middle = mean(&|at| at[k]);
            let spread = mean(&|at| (at[k] - middle).powi(2)).sqrt();
            // A likelihood that falls between two points leaves nothing of a spread: it may be as wide as they are apart.
            Bell { mean: middle, spread: spread.max(0.5 * step(&laid[k])) }
        });
    }
    laid
}

/// From point to point of a bell's grid.
fn step(bell: &Bell) -> f64 {
    2.0 * REACHES * WIDER * bell.spread / (POINTS - 1) as f64
}

fn grid<const N: usize>(over: &[Bell; N]) -> Vec<[f64; N]> {
    let along = |bell: &Bell, k: usize| bell.mean + step(bell) * (k as f64 - (POINTS - 1) as f64 / 2.0);
    let point = |number: usize| {
        let mut left = number;
        over.each_ref().map(|bell| {
            let at = along(bell, left % POINTS);
            left /= POINTS;
            at
        })
    };
    (0..POINTS.pow(N as u32)).map(point).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_bell_that_is_told_by_a_bell_is_their_product() {
        let told = Bell { mean: 1.0, spread: 0.1 };
        let [first, second] =
            weighed([Bell { mean: 0.0, spread: 1.0 }, Bell { mean: 5.0, spread: 2.0 }], &|at| told.log_density(at[0]));
        assert!(
            (first.mean - 1.0 / 1.01).abs() < 0.01 && (first.spread - (1.0_f64 / 101.0).sqrt()).abs() < 0.02,
            "{first:?}"
        );
        assert!(
            (second.mean - 5.0).abs() < 0.01 && (second.spread - 2.0).abs() < 0.15,
            "nothing was said of it: {second:?}"
        );
    }

    #[test]
    fn what_is_told_between_two_points_is_found() {
        let told = Bell { mean: 0.37, spread: 0.002 };
        let [found] = weighed([Bell { mean: 0.0, spread: 1.0 }], &|at| told.log_density(at[0]));
        assert!((found.mean - 0.37).abs() < 0.02 && found.spread < 0.03, "{found:?}");
        assert_eq!(weighed([told], &|_| f64::NEG_INFINITY), [told], "no such thing can be: it stays a guess");
    }
}

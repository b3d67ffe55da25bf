//! How far off predictions are, with its interval.

/// How far off predictions are.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bias {
    /// Releases with a prediction.
    pub n: usize,
    /// Mean of the logarithm of actual over predicted: 0.1 is a tenth later.
    pub mean: f64,
    /// Ends of its 95 % interval.
    pub low: f64,
    /// The upper end.
    pub high: f64,
}

/// Logarithms of actual over predicted: how many, their sum and the sum of their squares. They are of the order of one, so the
/// squares don't cancel.
#[derive(Default)]
pub(super) struct LatenessSums {
    n: usize,
    sum: f64,
    squares: f64,
}

impl LatenessSums {
    pub(super) fn add(&mut self, late: f64) {
        (self.n, self.sum, self.squares) = (self.n + 1, self.sum + late, self.squares + late * late);
    }

    /// None below two: one alone has no spread.
    pub(super) fn bias(&self) -> Option<Bias> {
        let (n, count) = (self.n, self.n as f64);
        if n < 2 {
            return None;
        }
        let mean = self.sum / count;
        let free = (n - 1) as f64;
        let variance = (self.squares - count * mean * mean).max(0.0) / free;
        // The normal quantile, widened for few as Student's is: 2.78 at four degrees of freedom, 2.26 at nine.
        let half = (1.96 + 2.4 / free + 2.5 / (free * free)) * (variance / count).sqrt();
        Some(Bias { n, mean, low: mean - half, high: mean + half })
    }
}

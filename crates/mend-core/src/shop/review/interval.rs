//! A share of so many, with an interval that is honest where there are few.

/// 95 % of a normal distribution lie within so many standard deviations.
const Z: f64 = 1.959_964;
/// Fewer than this say nothing yet: it is said with every figure.
pub const FEW: usize = 5;

/// A share, 0-1.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Share {
    /// So many.
    pub of: usize,
    /// Of so many.
    pub n: usize,
    /// Ends of the 95 % interval.
    pub low: f64,
    /// The upper end.
    pub high: f64,
}

impl Share {
    /// Wilson's interval of a share (E. B. Wilson, J. Am. Stat. Assoc. 22, 1927, 209-212): it never leaves 0-1, and is wide where
    /// there are few.
    ///
    /// ```
    /// use mend_core::shop::review::interval::Share;
    /// let all = Share::new(4, 4);
    /// assert!((all.low - 0.51).abs() < 0.01 && all.high == 1.0 && all.is_few());
    /// ```
    pub fn new(of: usize, n: usize) -> Self {
        if n == 0 {
            return Self { of, n, low: 0.0, high: 1.0 };
        }
        let (count, p, square) = (n as f64, of as f64 / n as f64, Z * Z);
        let middle = (p + square / (2.0 * count)) / (1.0 + square / count);
        let half = Z * (p * (1.0 - p) / count + square / (4.0 * count * count)).sqrt() / (1.0 + square / count);
        Self { of, n, low: (middle - half).max(0.0), high: if of == n { 1.0 } else { (middle + half).min(1.0) } }
    }

    /// The share itself; half where there is none.
    pub fn value(&self) -> f64 {
        if self.n == 0 { 0.5 } else { self.of as f64 / self.n as f64 }
    }

    /// Too few to say anything?
    pub const fn is_few(&self) -> bool {
        self.n < FEW
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_interval_is_wilsons() {
        // 8 of 10: 0.490 to 0.943, as tables of the score interval have it.
        let share = Share::new(8, 10);
        assert!((share.low - 0.490).abs() < 1e-3 && (share.high - 0.943).abs() < 1e-3, "{share:?}");
        assert_eq!((Share::new(0, 12).low, Share::new(0, 0).high), (0.0, 1.0));
    }

    #[test]
    fn more_of_the_same_narrows_it() {
        let width = |n: usize| Share::new(8 * n, 10 * n).high - Share::new(8 * n, 10 * n).low;
        assert!(width(1) > width(10) && width(10) > width(100));
    }
}

//! The number in which the temperature field is kept: f32 in use, f64 in the energy check.

use num_traits::Float;

/// Such a number.
pub trait Real: Float + Send + Sync + std::fmt::Debug + 'static {
    /// From f64, rounded.
    fn from_f64(value: f64) -> Self;
    /// To f64.
    fn wide(self) -> f64;
}

impl Real for f32 {
    fn from_f64(value: f64) -> Self {
        value as Self
    }
    fn wide(self) -> f64 {
        f64::from(self)
    }
}

impl Real for f64 {
    fn from_f64(value: f64) -> Self {
        value
    }
    fn wide(self) -> f64 {
        self
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_number_survives_what_its_kind_can_hold() {
        assert_eq!(f64::from_f64(0.1).wide(), 0.1);
        let narrow = f32::from_f64(0.1).wide();
        assert!(narrow != 0.1 && (narrow - 0.1).abs() < 1e-8);
    }
}

//! How a spread is stated.

/// Half width of the middle eight in ten of a bell, in standard deviations (T).
pub(crate) const EIGHT_IN_TEN: f64 = 1.281_6;
/// However often it was measured, nothing is known better than this, of the logarithm (E: the design's floor).
pub(crate) const FLOOR: f64 = 0.05;

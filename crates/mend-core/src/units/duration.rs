//! Spans of time in the computation. Not `std::time::Duration`: a predicted time may be fractional and is never a clock.

use std::ops::{Add, Sub};

use serde::{Deserialize, Serialize};

/// A span of time. Kept in s.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Duration(f64);

impl Duration {
    /// From seconds.
    pub const fn seconds(value: f64) -> Self {
        Self(value)
    }
    /// In seconds.
    pub const fn in_seconds(self) -> f64 {
        self.0
    }
}

impl Add for Duration {
    type Output = Self;
    fn add(self, rhs: Self) -> Self {
        Self(self.0 + rhs.0)
    }
}
impl Sub for Duration {
    type Output = Self;
    fn sub(self, rhs: Self) -> Self {
        Self(self.0 - rhs.0)
    }
}

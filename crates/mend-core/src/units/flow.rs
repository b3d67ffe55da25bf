//! Air flow, as a station states it: volume at room conditions.

use serde::{Deserialize, Serialize};

/// A volume flow at room conditions. Kept in L/min.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Flow(f64);

impl Flow {
    /// From litres per minute.
    pub const fn litres_per_minute(value: f64) -> Self {
        Self(value)
    }
    /// In litres per minute.
    pub const fn in_litres_per_minute(self) -> f64 {
        self.0
    }
    /// In cubic metres per second.
    pub fn in_cubic_metres_per_second(self) -> f64 {
        self.0 / 60_000.0
    }
}

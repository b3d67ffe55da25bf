//! Lengths. The board is spoken of in millimetres, the physics in metres.

use serde::{Deserialize, Serialize};

/// A length. Kept in mm.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Length(f64);

impl Length {
    /// From millimetres.
    pub const fn mm(value: f64) -> Self {
        Self(value)
    }
    /// In millimetres.
    pub const fn in_mm(self) -> f64 {
        self.0
    }
    /// In metres.
    pub fn in_m(self) -> f64 {
        self.0 * 1e-3
    }
}

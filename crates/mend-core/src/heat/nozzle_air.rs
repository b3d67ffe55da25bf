//! What leaves a nozzle against what is set: efficiency of the heater's control, and what is lost on the way.

use serde::{Deserialize, Serialize};

/// The two figures of equation 4 of the heat model: excess at the nozzle = share x set excess x exp(-loss / (mass flow x c)).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct NozzleAir {
    /// Of what is set over ambient, what arrives at full flow: efficiency.
    pub share: f64,
    /// Lost by the nozzle, W/K: the less air, the cooler it leaves.
    #[serde(rename = "loss_w_per_k")]
    pub loss: f64,
}

impl NozzleAir {
    /// Of a station that nobody has measured: 0.9-1.0 (E) and 0.01-0.06 W/K (E, tuned).
    pub const USUAL: Self = Self { share: 0.98, loss: 0.025 };
    /// What can be.
    pub const SHARE: (f64, f64) = (0.5, 1.2);
    /// What can be, W/K.
    pub const LOSS_W_PER_K: (f64, f64) = (0.001, 0.5);

    /// Is it as that of a station that nobody has measured?
    pub fn is_usual(&self) -> bool {
        *self == Self::USUAL
    }
}

impl Default for NozzleAir {
    fn default() -> Self {
        Self::USUAL
    }
}

//! What drives a tip: how much its heater gives at the most, and what lies between heater and tip.

use serde::{Deserialize, Serialize};

use crate::units::TempDelta;

/// The heater of an iron.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct IronHeater {
    /// From heater to tip, K/W.
    #[serde(rename = "to_tip_k_per_w")]
    pub to_tip: f64,
    /// What it gives at the most, W.
    #[serde(rename = "most_w")]
    pub most: f64,
}

impl IronHeater {
    /// Of an iron that nobody has measured: a cartridge (E, 0.8-2 K/W; a passive tip 2.5-6), and the power of usual bench irons
    /// (E, 60-80 W).
    pub const USUAL: Self = Self { to_tip: 1.2, most: 65.0 };
    /// What can be: from a direct-heated cartridge to a passive tip, K/W.
    pub const TO_TIP_K_PER_W: (f64, f64) = (0.1, 20.0);
    /// From a battery iron to a stout bench iron, W.
    pub const MOST_W: (f64, f64) = (5.0, 500.0);

    /// Is it as one that nobody has measured?
    pub fn is_usual(&self) -> bool {
        *self == Self::USUAL
    }

    /// What it gives to a tip that is so far below what it is set to, W.
    ///
    /// ```
    /// use mend_core::heat::iron_heater::IronHeater;
    /// use mend_core::units::TempDelta;
    /// let usual = IronHeater::USUAL;
    /// assert_eq!(usual.gives(TempDelta::kelvin(12.0)), 10.0);
    /// assert_eq!(usual.gives(TempDelta::kelvin(300.0)), usual.most, "it gives no more");
    /// ```
    pub fn gives(&self, below: TempDelta) -> f64 {
        (below.in_kelvin() / self.to_tip).min(self.most)
    }
}

impl Default for IronHeater {
    fn default() -> Self {
        Self::USUAL
    }
}

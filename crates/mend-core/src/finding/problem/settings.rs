//! Settings that can't be computed, or deserve a word before they are.

use serde::{Deserialize, Serialize};

/// What settings can't be computed, or deserve a word before they are.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum SettingsProblem {
    /// No air in the last stage, and so no process window of flow and temperature.
    NoAir,
    /// Neither air nor preheater nor iron in the last stage.
    NothingHot,
    /// More preheat stages than anybody does.
    TooManyStages { count: usize, most: usize },
    /// More shields than anybody lays.
    TooManyShields { count: usize, most: usize },
    /// A shield over joints of the part. `shield` counts from 0.
    CoveredJoints { shield: usize, joints: Vec<String>, x_mm: f64, y_mm: f64 },
    /// A station that was never measured.
    NotMeasured { station: String },
    /// A nozzle that the station does not own.
    NoSuchNozzle { station: String, nozzle_mm: f64, owned_mm: Vec<f64> },
    /// A tip that is to touch one joint and is wider than twice the pitch: it drags or floods.
    TipTooWide { joint: String, tip_mm: f64, pitch_mm: f64 },
}

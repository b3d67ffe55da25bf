//! A single change of a plan, as a value: proposed as the next move, looked at in what if, or as what more would buy.

use serde::{Deserialize, Serialize};

use crate::board::Face;
use crate::heat::shield::ShieldKind;

/// A change. Temperatures in °C, lengths in mm, flows in L/min.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "change", rename_all = "kebab-case")]
pub enum Change {
    /// The air set to another temperature.
    AirSet { set_c: f64 },
    /// Another flow.
    Flow { lpm: f64 },
    /// Another nozzle.
    Nozzle { mm: f64 },
    /// The same air from above, onto this face.
    FromAbove { face: Face },
    /// Air from below.
    FromBelow { distance_mm: f64, nozzle_mm: f64, lpm: f64 },
    /// The iron set to another temperature.
    IronSet { set_c: f64 },
    /// Another tip.
    Tip { mm: f64 },
    /// A soak from below before.
    Soak { s: f64, set_c: f64 },
    /// A preheater below, so long ahead.
    Preheater { set_c: f64, ahead_s: f64 },
    /// A shield over a component.
    Shield { shield: ShieldKind, over: String },
    /// A layer of tape more on a shield at this place.
    TapeLayer { x_mm: f64, y_mm: f64 },
    /// So much of an alloy in the joints, %; instead of so much before, where something is fed.
    Feed { percent: f64, alloy: String, instead_of: Option<f64> },
    /// Nothing fed.
    FeedNothing,
    /// As an older plan wrote it.
    #[serde(untagged)]
    Written(String),
}

//! What a heat run showed beyond its margins.

use serde::{Deserialize, Serialize};

/// What a heat run showed beyond its margins.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum PlanProblem {
    /// A lithium cell or a display near the jet.
    NearJet { component: String, material: String, mm: f64 },
    /// A board of so many layers that it melts later than computed.
    DenseBoard { layers: u32 },
    /// All joints molten before the last stage begins.
    EarlyRelease { s: f64 },
    /// A shield on a face that no air meets. It counts from 0.
    IdleShield { shield: usize },
    /// A microphone or sensor into whose port the jet blows.
    BlownInto { component: String, pa: f64 },
    /// Components whose own joints melt with the part's.
    OwnJointsMelt { components: Vec<String> },
    /// Components that warm faster than they should.
    SteepRamp { components: Vec<String>, k_per_s: f64, most_k_per_s: f64 },
}

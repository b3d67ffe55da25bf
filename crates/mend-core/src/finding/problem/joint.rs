//! What is wrong with a finished joint.

use serde::{Deserialize, Serialize};

/// What is wrong with a finished joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum JointProblem {
    /// Lead in a bismuth-rich joint, wt% of lead.
    LeadInBismuth { percent: f64 },
    /// Bismuth in a joint with lead, wt% of bismuth.
    BismuthWithLead { percent: f64 },
    /// Bismuth in tin, wt%.
    BismuthInTin { percent: f64 },
    /// So much bismuth that the joint is brittle, wt%.
    Brittle { percent: f64 },
    /// So much indium that the joint is soft, wt%.
    Soft { percent: f64 },
    /// A joint that may be partly liquid at 100 °C: how much, %, and down to which temperature, °C.
    LiquidWhenWarm { percent: f64, down_to_c: Option<f64> },
}

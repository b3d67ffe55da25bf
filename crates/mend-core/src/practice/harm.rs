//! What is harmed, and when.

use serde::{Deserialize, Serialize};

/// What is harmed.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Harmed {
    /// A land came off the laminate.
    PadLifted {
        /// The joint.
        joint: String,
    },
    /// A barrel came out of its hole.
    BarrelPulled {
        /// The joint.
        joint: String,
    },
    /// The part, that was to come through whole, is damaged.
    Part,
    /// A component is damaged by heat.
    Component {
        /// Its name.
        name: String,
    },
    /// A component was touched while its own joints were liquid.
    Floated {
        /// Its name.
        name: String,
    },
    /// The jet took it.
    BlownAway {
        /// Its name.
        name: String,
    },
    /// It hung, and fell.
    Dropped {
        /// Its name.
        name: String,
    },
    /// The laminate blistered.
    Laminate,
    /// A row keeps more of what was fed than may stay: found by the pin walk, a week later.
    AlloyLeft {
        /// The row.
        row: String,
    },
    /// A joint of the new part was never wetted: found by the pin walk.
    ColdJoint {
        /// The joint.
        joint: String,
    },
    /// The new part was moved while its joints were liquid.
    PartMoved,
}

/// A harm with its moment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Harm {
    /// What.
    pub what: Harmed,
    /// s from the beginning.
    pub at_s: f64,
    /// Since when it could have been seen coming, s; none: it could not.
    pub seen_s: Option<f64>,
    /// The force that tore it, N; none: nothing was pulled.
    pub force_n: Option<f64>,
}

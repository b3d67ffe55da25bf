//! What can be damaged, and when it is.

use serde::{Deserialize, Serialize};

/// What is damaged when a limit is passed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "what", rename_all = "kebab-case")]
pub enum Damaged {
    /// The part's own body.
    PartBody,
    /// A component's body.
    Component {
        /// Its name.
        name: String,
    },
    /// A component that the jet blows away once its joints are molten.
    BlownAway {
        /// Its name.
        name: String,
    },
    /// A component that drops off once its joints are molten.
    DropsOff {
        /// Its name.
        name: String,
    },
    /// The laminate.
    Laminate,
    /// As an older plan wrote it.
    #[serde(untagged)]
    Written(String),
}

impl Damaged {
    /// The component's name, where it is one.
    pub fn component(&self) -> Option<&str> {
        match self {
            Self::Component { name } | Self::BlownAway { name } | Self::DropsOff { name } => Some(name),
            Self::PartBody | Self::Laminate | Self::Written(_) => None,
        }
    }
}

/// The first damage of a run: when, and to what.
#[derive(Debug, Clone, PartialEq)]
pub struct Damage {
    /// Second at which the limit is passed, from the first tool.
    pub at_s: f64,
    /// Whose limit.
    pub to: Damaged,
}

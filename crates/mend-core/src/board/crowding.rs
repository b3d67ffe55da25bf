//! How crowded a board is with small parts that nobody describes: what they take up of the heat.

use serde::{Deserialize, Serialize};

/// How crowded.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Crowding {
    /// Bare laminate with a part here and there.
    Sparse,
    /// As boards usually are.
    #[default]
    Usual,
    /// Small parts side by side, on both faces.
    Crowded,
}

impl Crowding {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Sparse, Self::Usual, Self::Crowded];

    /// What the small parts add to the heat capacity of the bare board (E: 0.05-0.4).
    pub const fn adds(self) -> f64 {
        match self {
            Self::Sparse => 0.05,
            Self::Usual => 0.15,
            Self::Crowded => 0.35,
        }
    }

    /// As a person says it.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Sparse => "sparse",
            Self::Usual => "usual",
            Self::Crowded => "crowded",
        }
    }
}

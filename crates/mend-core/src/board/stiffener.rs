//! A stiffener under the part: what a flexible circuit carries its connector on.

use serde::{Deserialize, Serialize};

use crate::units::Length;

/// What it is made from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum StiffenerMaterial {
    /// Polyimide film.
    Film,
    /// Glass-epoxy laminate.
    Laminate,
    /// Stainless steel sheet.
    Steel,
}

impl StiffenerMaterial {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Film, Self::Laminate, Self::Steel];

    /// Heat capacity, J/m3K (D, +-10 %).
    pub const fn capacity(self) -> f64 {
        match self {
            Self::Film => 1.55e6,
            Self::Laminate => 2.15e6,
            Self::Steel => 3.9e6,
        }
    }

    /// Conductivity, W/mK (D, +-15 %).
    pub const fn conductivity(self) -> f64 {
        match self {
            Self::Film => 0.2,
            Self::Laminate => 0.35,
            Self::Steel => 16.0,
        }
    }

    /// As a person says it.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Film => "polyimide film",
            Self::Laminate => "laminate",
            Self::Steel => "steel",
        }
    }
}

/// A stiffener, glued on the far face under the part's body and a little beyond.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Stiffener {
    /// What it is made from.
    pub material: StiffenerMaterial,
    /// Its thickness.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
}

//! A preheater under the board: a hot surface that warms one face.

use serde::{Deserialize, Serialize};

use crate::board::{Face, Point, Rect};
use crate::units::{Length, Temperature};

/// How its heat gets to the board.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Coupling {
    /// Through a soft pad that touches the board.
    Pad,
    /// Across an air gap of about 5 mm, by conduction, convection and radiation.
    Gap,
    /// Warm air blown up through it, and radiation.
    ForcedAir,
}

/// The preheater.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Preheater {
    /// What it is set to.
    #[serde(rename = "set_c")]
    pub set: Temperature,
    /// How it couples.
    pub coupling: Coupling,
    /// The face it warms.
    pub face: Face,
    /// Its side, mm: a square about the part.
    #[serde(rename = "side_mm")]
    pub side: Length,
}

impl Coupling {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Gap, Self::Pad, Self::ForcedAir];

    /// Its name in running text.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Pad => "soft pad",
            Self::Gap => "air gap",
            Self::ForcedAir => "warm air",
        }
    }

    /// W/m²K: gap of 5 mm 10 (T), pad 200-1000 (E), forced air 25-40 (E).
    pub const fn transfer(self) -> f64 {
        match self {
            Self::Pad => 400.0,
            Self::Gap => 10.0,
            Self::ForcedAir => 30.0,
        }
    }

    /// Does the face see the preheater? Emissivity 0.9 on both sides (T/E); a pad leaves nothing to see.
    pub const fn radiates(self) -> bool {
        !matches!(self, Self::Pad)
    }
}

impl Preheater {
    /// The square it warms, about the middle of the part.
    pub fn area(&self, middle: Point) -> Rect {
        Rect { centre: middle, width: self.side.in_mm(), depth: self.side.in_mm() }
    }
}

//! Something near the connector that heat could hurt.

use super::geometry::{Face, Rect};
use crate::materials::BodyMaterial;
use crate::units::{Length, Temperature};

/// A body on the board.
#[derive(Debug, Clone, PartialEq)]
pub struct Neighbour {
    /// `C12`, `keyboard latch`.
    pub name: String,
    /// Where it stands, mm.
    pub body: Rect,
    /// The face it stands on.
    pub face: Face,
    /// Its height.
    pub height: Length,
    /// What it is made of.
    pub material: BodyMaterial,
    /// A limit of its own, where the datasheet or experience says so.
    pub own_limit: Option<Temperature>,
}

impl Neighbour {
    /// The most it stands: its own limit, else its material's.
    pub fn limit(&self) -> Temperature {
        self.own_limit.unwrap_or(self.material.limit())
    }
}

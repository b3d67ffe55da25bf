//! Something near the connector that heat could hurt.

use super::geometry::{Face, Rect};
use super::{ComponentKind, NominalValue};
use crate::materials::BodyMaterial;
use crate::units::{Length, Temperature};

/// A body on the board.
#[derive(Debug, Clone, PartialEq)]
pub struct Component {
    /// `C12`, `keyboard latch`.
    pub name: String,
    /// What it is, where somebody said so.
    pub what: Option<ComponentKind>,
    /// Where it stands, mm; of a round one the square round it.
    pub body: Rect,
    /// Is it round, seen from above?
    pub round: bool,
    /// The face it stands on.
    pub face: Face,
    /// Its height.
    pub height: Length,
    /// What it is made of.
    pub material: BodyMaterial,
    /// A limit of its own, where the datasheet or experience says so.
    pub own_limit: Option<Temperature>,
    /// Share of its footprint that is soldered to the board, 0-1, where it differs from its material's.
    pub own_joints: Option<f64>,
    /// What it is worth, where that is known: it is measured after the heat.
    pub value: Option<NominalValue>,
}

impl Component {
    /// The most it stands: its own limit, else its material's.
    pub fn limit(&self) -> Temperature {
        self.own_limit.unwrap_or(self.material.limit())
    }

    /// Share of its footprint that is soldered, 0-1; 0 is a thing that is glued, plugged or screwed on.
    pub fn soldered(&self) -> f64 {
        self.own_joints.unwrap_or(self.material.pad_share())
    }

    /// What it covers, as the heat run sees it: of a round one the square of the same area, so that what it holds, takes
    /// from the air and gives to the board is that of the circle.
    pub fn covers(&self) -> Rect {
        let side = if self.round { std::f64::consts::FRAC_PI_4.sqrt() } else { 1.0 };
        Rect { centre: self.body.centre, width: self.body.width * side, depth: self.body.depth * side }
    }
}

impl ComponentKind {
    /// Such a thing at a place, with everything that it usually has.
    pub fn at(self, name: impl Into<String>, face: Face, body: Rect) -> Component {
        let usual = self.usual();
        Component {
            name: name.into(),
            what: Some(self),
            body,
            round: matches!(self, Self::ElectrolyticCan),
            face,
            height: Length::mm(usual.height_mm),
            material: usual.material,
            own_limit: None,
            own_joints: Some(usual.soldered),
            value: None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::Point;

    #[test]
    fn a_round_one_covers_its_circle() {
        let body = Rect { centre: Point { x: 5.0, y: 5.0 }, width: 6.0, depth: 6.0 };
        let can = Component { round: true, ..ComponentKind::ElectrolyticCan.at("C1", Face::Top, body) };
        assert!((can.covers().area() - std::f64::consts::PI * 9.0).abs() < 1e-9);
        assert_eq!(can.covers().centre, body.centre);
        assert_eq!(Component { round: false, ..can }.covers(), body);
    }
}

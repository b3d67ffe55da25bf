//! Quarter turns: how a part of the library is put on a board.

use serde::{Deserialize, Serialize};

use super::geometry::{Face, Point, Rect};
use super::{Connector, Joint, JointShape};

/// A turn to the left (against the clock, seen from the top face), in quarters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Turn {
    /// As it is made: its mouth towards the reader.
    #[default]
    None,
    /// Mouth to the right.
    Quarter,
    /// Mouth away from the reader.
    Half,
    /// Mouth to the left.
    ThreeQuarters,
}

impl Turn {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::None, Self::Quarter, Self::Half, Self::ThreeQuarters];

    /// One quarter further.
    pub const fn next(self) -> Self {
        match self {
            Self::None => Self::Quarter,
            Self::Quarter => Self::Half,
            Self::Half => Self::ThreeQuarters,
            Self::ThreeQuarters => Self::None,
        }
    }

    /// Where the mouth of a port looks.
    pub const fn mouth(self) -> &'static str {
        match self {
            Self::None => "towards you",
            Self::Quarter => "to the right",
            Self::Half => "away from you",
            Self::ThreeQuarters => "to the left",
        }
    }

    /// A point turned about the origin.
    pub fn point(self, p: Point) -> Point {
        let Point { x, y } = p;
        match self {
            Self::None => p,
            Self::Quarter => Point { x: -y, y: x },
            Self::Half => Point { x: -x, y: -y },
            Self::ThreeQuarters => Point { x: y, y: -x },
        }
    }

    /// Width and depth after the turn.
    pub const fn size(self, width: f64, depth: f64) -> (f64, f64) {
        match self {
            Self::None | Self::Half => (width, depth),
            Self::Quarter | Self::ThreeQuarters => (depth, width),
        }
    }

    fn shape(self, shape: JointShape) -> JointShape {
        match shape {
            JointShape::Pad { width, depth } => {
                let (width, depth) = self.size(width, depth);
                JointShape::Pad { width, depth }
            }
            hole @ JointShape::Hole { .. } => hole,
        }
    }
}

/// How a part stands on a board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// The middle of its body.
    pub at: Point,
    /// Its turn.
    pub turn: Turn,
    /// Its face.
    pub face: Face,
}

impl Connector {
    /// The connector with its body's middle at a place, turned, on a face. On the bottom face its left is its right: one
    /// looks through the board.
    pub fn placed(&self, pose: Pose) -> Self {
        let Pose { at, turn, face } = pose;
        let middle = self.body.centre;
        let flip = if face == self.face { 1.0 } else { -1.0 };
        let place = |p: Point| {
            let turned = turn.point(Point { x: flip * (p.x - middle.x), y: p.y - middle.y });
            Point { x: at.x + turned.x, y: at.y + turned.y }
        };
        let (width, depth) = turn.size(self.body.width, self.body.depth);
        let joint = |j: &Joint| Joint { at: place(j.at), shape: turn.shape(j.shape), ..j.clone() };
        Self {
            face,
            body: Rect { centre: at, width, depth },
            joints: self.joints.iter().map(joint).collect(),
            ..self.clone()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::library;

    #[test]
    fn four_quarters_and_two_faces_bring_a_part_back() {
        let made = library::kind("power-jack").expect("a kind").make(&library::Values::new()).expect("usual");
        let at = Point { x: 0.0, y: 0.0 };
        let round = (0..4).fold(made.clone(), |part, _| part.placed(Pose { at, turn: Turn::Quarter, face: Face::Top }));
        assert_eq!(round, made);
        let over = made.placed(Pose { at, turn: Turn::None, face: Face::Bottom });
        assert_ne!(over.joints[0].at, made.joints[0].at);
        assert_eq!(over.placed(Pose { at, turn: Turn::None, face: Face::Top }), made);
    }

    #[test]
    fn a_quarter_turn_brings_the_mouth_to_the_right() {
        let made = library::kind("usb-c-top").expect("a kind").make(&library::Values::new()).expect("usual");
        let turned = made.placed(Pose { at: Point { x: 50.0, y: 20.0 }, turn: Turn::Quarter, face: Face::Top });
        // Pins stood behind the body (+y): now they stand to its left.
        assert!(turned.joints[0].at.x < turned.body.left() + 0.1);
        assert_eq!((turned.body.width, turned.body.depth), (made.body.depth, made.body.width));
        assert!(matches!(turned.joints[0].shape, JointShape::Pad { width, depth } if width > depth));
    }
}

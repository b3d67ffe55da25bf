//! What can be done to a draft, as data.

use serde::{Deserialize, Serialize};

use crate::board::{ComponentKind, Face, Point, Rect};

/// What an act is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Target {
    /// Name, maker and rim.
    Board,
    /// Thickness and copper.
    Stack,
    /// What was seen of the copper.
    Looked,
    /// The part.
    Part,
    /// A size that the part was made from.
    Size,
    /// A component, by its place in the list.
    Component(usize),
    /// A photograph, by its number.
    Photo(i64),
}

/// An act. Places are mm on the map, as they lie now.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "do", rename_all = "kebab-case", deny_unknown_fields)]
pub enum Edit {
    /// A field is typed or chosen.
    Set { of: Target, field: String, value: String },
    /// The rim, corner by corner.
    Outline { corners: Vec<Point> },
    /// A new component is drawn.
    Add { face: Face, round: bool, body: Rect, what: ComponentKind },
    /// A thing is moved.
    Move { of: Target, dx: f64, dy: f64 },
    /// A component gets another size, about its middle.
    Resize { of: Target, width: f64, depth: f64 },
    /// A thing is removed.
    Remove { of: Target },
    /// A component is there again, a little beside.
    Copy { of: Target },
    /// The part is turned a quarter to the left.
    Turn,
    /// Two places of a photograph are so far apart: in mm as typed, or `part` for the width of the part's body.
    Scale { id: i64, a: Point, b: Point, length: String },
    /// The line between two places is level or upright.
    Level { id: i64, a: Point, b: Point },
    /// A photograph is turned to the left, degrees.
    TurnPhoto { id: i64, degrees: f64 },
    /// Left and right of a photograph are changed.
    Mirror { id: i64 },
    /// Places that will be found again on the other face.
    Mark { points: Vec<Point> },
    /// The same places, as a photograph shows them now, in the same order.
    LineUp { id: i64, points: Vec<Point> },
}

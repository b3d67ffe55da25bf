//! What a board must not be, and what is asked about it.

use serde::{Deserialize, Serialize};

/// What bears a name on a board.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Named {
    /// A joint of the part.
    Joint,
    /// A component near it.
    Component,
}

/// What a board must not be, and what is asked about it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum BoardProblem {
    /// An outline of fewer than three corners.
    TooFewCorners { count: usize },
    /// An outline of more corners than are computed.
    TooManyCorners { count: usize, most: usize },
    /// A board longer than any that is mended.
    TooLarge { mm: f64, most_mm: f64 },
    /// An outline that encloses next to nothing, or crosses itself.
    NoArea { mm2: f64 },
    /// A joint beyond the outline.
    OutsideOutline { x_mm: f64, y_mm: f64 },
    /// A part without joints.
    NoJoints,
    /// A pad of sizes that can't be.
    PadSize { width_mm: f64, depth_mm: f64, low_mm: f64, high_mm: f64 },
    /// A plated hole of sizes that can't be.
    HoleSize { drill_mm: f64, land_mm: f64, low_mm: f64, high_mm: f64 },
    /// A hole as wide as its land.
    DrillTooWide { drill_mm: f64, land_mm: f64 },
    /// A name that is there twice.
    NameTwice { what: Named },
    /// A body of sizes that can't be.
    BodySize { width_mm: f64, depth_mm: f64, height_mm: f64, low_mm: f64, high_mm: f64 },
    /// A body that stands beside the board.
    OffBoard { x_mm: f64, y_mm: f64 },
    /// A body in the place of others.
    Overlaps { part: bool, components: Vec<String> },
    /// A component inside the part's body: it may be on the other face.
    InsidePart { part: String },
    /// A component where a joint of the part comes out: it may be on the part's face.
    OnJoint { joint: String },
}

//! What can't be done to a draft, and what it still lacks.

use serde::{Deserialize, Serialize};

/// What can't be done to a draft, and what it still lacks.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum DraftProblem {
    /// No name yet.
    NoName,
    /// No outline yet.
    NoOutline,
    /// No part yet.
    NoPart,
    /// The component is not there any more.
    ComponentGone,
    /// The photograph is not there any more.
    PhotoGone,
    /// No more components can be added.
    TooManyComponents { most: usize },
    /// A component drawn too small or too large.
    DrawnSize { width_mm: f64, depth_mm: f64, low_mm: f64, high_mm: f64 },
    /// A move out of this world.
    MovedTooFar { x_mm: f64, y_mm: f64, most_mm: f64 },
    /// This can't be moved.
    NotMovable,
    /// This has no size to draw.
    NotResizable,
    /// This can't be removed.
    NotRemovable,
    /// This can't be duplicated.
    NotCopyable,
    /// A component of that name is there.
    NameTaken { name: String },
    /// The part was not made from sizes.
    NoSizes,
    /// A scale that no photograph has.
    PixelSize { mm: f64 },
    /// Both clicks are on one place.
    OnePlace,
    /// Not three points.
    NotThreePoints { count: usize },
    /// The points fit, were the photograph mirrored.
    Mirrored { off_mm: f64 },
    /// The points don't fit.
    PointsOff { off_mm: f64 },
    /// A line that holds no corner.
    NotACorner { text: String },
    /// A board of known weight without its name.
    UnknownBoard,
}

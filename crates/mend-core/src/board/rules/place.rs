//! A place as findings name it.

use crate::board::Point;

/// A place to a hundredth of a millimetre: `(500, 8.25)`.
pub(super) fn place(p: Point) -> String {
    let round = |mm: f64| (mm * 100.0).round() / 100.0;
    format!("({}, {})", round(p.x), round(p.y))
}

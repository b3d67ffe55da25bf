//! Outline and stack-up within what the shop takes.

use crate::board::{Board, Outline, StackUp};
use crate::finding::Finding;

const RULE: &str = "board_sizes";
/// Sides longer than any device board the shop takes, mm: beyond it a unit was mixed up.
const LONGEST_SIDE_MM: f64 = 600.0;
/// Corners of an outline; more are noise of a drawing.
const MOST_CORNERS: usize = 2000;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    [outline(&board.outline), stack(&board.stack)].concat()
}

fn object(place: &str, message: String, hint: &str) -> Finding {
    Finding::blocking(RULE, place, message).hint(hint)
}

/// What can't be about an outline.
pub fn outline(outline: &Outline) -> Vec<Finding> {
    let count = outline.corners.len();
    if count < 3 {
        return vec![object("outline", format!("{count} corners"), "give at least three corners")];
    }
    if count > MOST_CORNERS {
        return vec![object("outline", format!("{count} corners"), "leave out small ones: up to 2000")];
    }
    let bounds = outline.bounds();
    let longest = bounds.width.max(bounds.depth);
    if !(longest.is_finite() && longest <= LONGEST_SIDE_MM) {
        let hint = "coordinates are in mm; boards up to 600 mm";
        return vec![object("outline", format!("{longest:.0} mm across"), hint)];
    }
    let area = outline.area();
    if area < 25.0 {
        let hint = "list the corners in order, in mm; the rim must not cross itself";
        return vec![object("outline", format!("an area of {area:.1} mm²"), hint)];
    }
    Vec::new()
}

/// What can't be about a stack-up.
pub fn stack(stack: &StackUp) -> Vec<Finding> {
    let mut found = Vec::new();
    let mut within = |place: &str, value: f64, (low, high): (f64, f64), unit: &str| {
        if !(low..=high).contains(&value) {
            found.push(object(place, format!("{value}{unit} can't be"), &format!("between {low} and {high}{unit}")));
        }
    };
    within("thickness_mm", stack.thickness.in_mm(), (0.2, 5.0), " mm");
    within("copper.layers", f64::from(stack.layers), (1.0, 32.0), " layers");
    within("copper.planes", f64::from(stack.planes), (0.0, f64::from(stack.layers)), " planes");
    within("copper.foil_um", stack.foil_um, (5.0, 210.0), " µm");
    within("copper.plane_coverage", stack.plane_coverage, (0.0, 1.0), "");
    within("copper.signal_coverage", stack.signal_coverage, (0.0, 1.0), "");
    within("copper.vias_per_mm2", stack.vias_per_mm2.unwrap_or(0.0), (0.0, 4.0), " holes/mm²");
    within("copper.spread", stack.spread.unwrap_or(0.3), (0.05, 1.0), "");
    found
}

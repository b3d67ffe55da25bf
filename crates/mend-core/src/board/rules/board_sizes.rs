//! Outline and stack-up within what the shop takes.

use crate::board::{Board, Outline, StackUp};
use crate::finding::Finding;
use crate::finding::problem::{BoardProblem, ValueProblem};
use crate::units::Unit;

const RULE: &str = "board_sizes";
/// Sides longer than any device board the shop takes, mm: beyond it a unit was mixed up.
const LONGEST_SIDE_MM: f64 = 600.0;
/// Corners of an outline; more are noise of a drawing.
const MOST_CORNERS: usize = 2000;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    [outline(&board.outline), stack(&board.stack)].concat()
}

fn of_outline(problem: BoardProblem) -> Vec<Finding> {
    vec![Finding::blocking(RULE, "outline", problem)]
}

/// What can't be about an outline.
pub(crate) fn outline(outline: &Outline) -> Vec<Finding> {
    let count = outline.corners.len();
    if count < 3 {
        return of_outline(BoardProblem::TooFewCorners { count });
    }
    if count > MOST_CORNERS {
        return of_outline(BoardProblem::TooManyCorners { count, most: MOST_CORNERS });
    }
    let bounds = outline.bounds();
    let longest = bounds.width.max(bounds.depth);
    if !(longest.is_finite() && longest <= LONGEST_SIDE_MM) {
        return of_outline(BoardProblem::TooLarge { mm: longest, most_mm: LONGEST_SIDE_MM });
    }
    let area = outline.area();
    if area < 25.0 {
        return of_outline(BoardProblem::NoArea { mm2: area });
    }
    Vec::new()
}

/// Thicknesses of stiffeners, mm.
pub(crate) const STIFFENERS_MM: (f64, f64) = (0.05, 2.0);

/// What can't be about a stack-up.
pub(crate) fn stack(stack: &StackUp) -> Vec<Finding> {
    let mut found = Vec::new();
    let mut within = |place: &str, value: f64, range: (f64, f64), unit: Unit| {
        let outside = ValueProblem::outside(value, range, unit);
        found.extend(outside.map(|problem| Finding::blocking(RULE, place, problem)));
    };
    within("thickness_mm", stack.thickness.in_mm(), (0.1, 5.0), Unit::Millimetres);
    if let Some(stiffener) = &stack.stiffener {
        within("copper.stiffener.thickness_mm", stiffener.thickness.in_mm(), STIFFENERS_MM, Unit::Millimetres);
    }
    within("copper.layers", f64::from(stack.layers), (1.0, 32.0), Unit::Layers);
    within("copper.planes", f64::from(stack.planes), (0.0, f64::from(stack.layers)), Unit::Planes);
    within("copper.foil_um", stack.foil_um, (5.0, 210.0), Unit::Micrometres);
    within("copper.plane_coverage", stack.plane_coverage, (0.0, 1.0), Unit::One);
    within("copper.signal_coverage", stack.signal_coverage, (0.0, 1.0), Unit::One);
    within("copper.vias_per_mm2", stack.vias_per_mm2.unwrap_or(0.0), (0.0, 4.0), Unit::HolesPerSquareMillimetre);
    within("copper.spread", stack.spread.unwrap_or(0.3), (0.05, 1.0), Unit::One);
    found
}

//! A body that can't be that large, stands beside the board, or has a limit that nothing has.

use crate::board::{Board, Point, Rect};
use crate::finding::Finding;
use crate::finding::problem::{BoardProblem, ValueProblem};
use crate::units::Unit;

const RULE: &str = "body_off_board";
/// Limits that a body can have, °C.
const LIMITS_C: (f64, f64) = (40.0, 400.0);
/// Sides of a body, mm.
const SIDES_MM: (f64, f64) = (0.1, 300.0);
/// A body hangs over the rim by so much at most: ports do, by far.
const LEAST_ON_BOARD: f64 = 0.2;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let part = &board.connector;
    let part =
        std::iter::once(Standing { place: "connector.body".to_owned(), body: &part.body, height: part.height.in_mm() });
    let components = board.components.iter();
    let bodies = part.chain(components.map(|n| Standing {
        place: format!("component {}", n.name),
        body: &n.body,
        height: n.height.in_mm(),
    }));
    let bounds = board.outline.bounds();
    let limits = board.components.iter().filter_map(|n| {
        let problem = ValueProblem::outside(n.limit().in_celsius(), LIMITS_C, Unit::Celsius)?;
        Some(Finding::blocking(RULE, format!("component {}", n.name), problem))
    });
    bodies.filter_map(|body| object(&bounds, body)).chain(limits).collect()
}

/// A body as this rule looks at it: its name in findings, what it covers, its height in mm.
struct Standing<'a> {
    place: String,
    body: &'a Rect,
    height: f64,
}

fn object(bounds: &Rect, standing: Standing<'_>) -> Option<Finding> {
    let Standing { place, body, height } = standing;
    let sizes = [body.width, body.depth, height];
    if sizes.iter().any(|size| !(SIDES_MM.0..=SIDES_MM.1).contains(size)) {
        let [width_mm, depth_mm, height_mm] = sizes;
        let (low_mm, high_mm) = SIDES_MM;
        let problem = BoardProblem::BodySize { width_mm, depth_mm, height_mm, low_mm, high_mm };
        return Some(Finding::blocking(RULE, place, problem));
    }
    if body.shared(bounds) >= LEAST_ON_BOARD * body.area() {
        return None;
    }
    let Point { x, y } = body.centre;
    Some(Finding::blocking(RULE, place, BoardProblem::OffBoard { x_mm: x, y_mm: y }))
}

//! A joint that stands beside the board.

use crate::board::Board;
use crate::finding::Finding;
use crate::finding::problem::BoardProblem;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    if board.outline.corners.len() < 3 {
        return Vec::new();
    }
    let outside = board.connector.joints.iter().filter(|joint| !board.outline.holds(joint.at));
    let object = |joint: &crate::board::Joint| {
        let problem = BoardProblem::OutsideOutline { x_mm: joint.at.x, y_mm: joint.at.y };
        Finding::blocking("outside_outline", format!("joint {}", joint.name), problem)
    };
    outside.map(object).collect()
}

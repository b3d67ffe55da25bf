//! A joint that stands beside the board.

use crate::board::{Board, Point};
use crate::finding::Finding;

pub(super) fn said(board: &Board) -> Vec<Finding> {
    if board.outline.corners.len() < 3 {
        return Vec::new();
    }
    let outside = board.connector.joints.iter().filter(|joint| !board.outline.holds(joint.at));
    let object = |joint: &crate::board::Joint| {
        let Point { x, y } = joint.at;
        let message = format!("stands at ({x:.2}, {y:.2}) mm, outside the outline");
        Finding::blocking("outside_outline", format!("joint {}", joint.name), message)
            .hint("move the part inside the outline, or widen the outline")
    };
    outside.map(object).collect()
}

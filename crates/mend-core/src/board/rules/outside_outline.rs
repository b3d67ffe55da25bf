//! A joint that stands beside the board.

use crate::board::Board;
use crate::finding::Finding;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    if board.outline.corners.len() < 3 {
        return Vec::new();
    }
    let outside = board.connector.joints.iter().filter(|joint| !board.outline.holds(joint.at));
    let object = |joint: &crate::board::Joint| {
        let message = format!("stands at {} mm, outside the outline", super::place::place(joint.at));
        Finding::blocking("outside_outline", format!("joint {}", joint.name), message)
            .hint("move it inside the outline, or widen the outline")
    };
    outside.map(object).collect()
}

//! A hole that leaves nothing of its land.

use crate::board::{Board, JointShape};
use crate::finding::Finding;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let object = |joint: &crate::board::Joint| match joint.shape {
        JointShape::Hole { drill, pad } if pad > 0.0 && drill >= pad => {
            let message = format!("has a {drill} mm hole in a {pad} mm land");
            let place = format!("joint {}", joint.name);
            Some(Finding::blocking("drill_larger_than_pad", place, message).hint("the land is wider than its hole"))
        }
        _ => None,
    };
    board.connector.joints.iter().filter_map(object).collect()
}

//! A hole that leaves nothing of its land.

use crate::board::{Board, JointShape};
use crate::finding::Finding;
use crate::finding::problem::BoardProblem;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let object = |joint: &crate::board::Joint| match joint.shape {
        JointShape::Hole { drill, pad } if pad > 0.0 && drill >= pad => {
            let problem = BoardProblem::DrillTooWide { drill_mm: drill, land_mm: pad };
            Some(Finding::blocking("drill_larger_than_pad", format!("joint {}", joint.name), problem))
        }
        _ => None,
    };
    board.connector.joints.iter().filter_map(object).collect()
}

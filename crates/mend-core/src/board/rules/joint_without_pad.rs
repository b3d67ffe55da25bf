//! A joint with nothing to be soldered to: a pad without copper, a hole without a land.

use crate::board::{Board, JointShape};
use crate::finding::Finding;
use crate::finding::problem::BoardProblem;

/// Lands smaller and larger than this are none, or a unit was mixed up, mm.
const LANDS_MM: (f64, f64) = (0.05, 20.0);

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let object = |joint: &crate::board::Joint| {
        let (low_mm, high_mm) = LANDS_MM;
        let (land, problem) = match joint.shape {
            JointShape::Pad { width, depth } => {
                ([width, depth], BoardProblem::PadSize { width_mm: width, depth_mm: depth, low_mm, high_mm })
            }
            JointShape::Hole { drill, pad } => {
                ([pad, drill], BoardProblem::HoleSize { drill_mm: drill, land_mm: pad, low_mm, high_mm })
            }
        };
        let fits = land.iter().all(|size| (low_mm..=high_mm).contains(size));
        (!fits).then(|| Finding::blocking("joint_without_pad", format!("joint {}", joint.name), problem))
    };
    board.connector.joints.iter().filter_map(object).chain(none(board)).collect()
}

fn none(board: &Board) -> Option<Finding> {
    let none = Finding::blocking("joint_without_pad", "connector.joints", BoardProblem::NoJoints);
    board.connector.joints.is_empty().then_some(none)
}

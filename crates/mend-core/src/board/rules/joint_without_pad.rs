//! A joint with nothing to be soldered to: a pad without copper, a hole without a land.

use crate::board::{Board, JointShape};
use crate::finding::Finding;

/// Lands smaller and larger than this are none, or a unit was mixed up, mm.
const LANDS_MM: (f64, f64) = (0.05, 20.0);

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let object = |joint: &crate::board::Joint| {
        let (land, sizes) = match joint.shape {
            JointShape::Pad { width, depth } => ([width, depth], format!("{width} x {depth} mm")),
            JointShape::Hole { drill, pad } => ([pad, drill], format!("{pad} mm round a {drill} mm hole")),
        };
        let fits = land.iter().all(|size| (LANDS_MM.0..=LANDS_MM.1).contains(size));
        let found =
            Finding::blocking("joint_without_pad", format!("joint {}", joint.name), format!("has a land of {sizes}"));
        (!fits).then(|| found.hint("lands and holes are between 0.05 and 20 mm; a peg is no joint"))
    };
    board.connector.joints.iter().filter_map(object).chain(none(board)).collect()
}

fn none(board: &Board) -> Option<Finding> {
    let object =
        Finding::blocking("joint_without_pad", "connector.joints", "no joints").hint("list at least one joint");
    board.connector.joints.is_empty().then_some(object)
}

//! A shield over a joint of the part: that joint would not melt.

use crate::board::{Board, Point};
use crate::finding::Finding;
use crate::finding::problem::SettingsProblem;
use crate::heat::shield::Shield;

/// Blocks every shield that lies over a joint: a pad on its face, a hole on either.
pub(crate) fn covered_joints(board: &Board, shields: &[Shield]) -> Vec<Finding> {
    shields.iter().enumerate().filter_map(|(k, shield)| covered(board, k, shield)).collect()
}

fn covered(board: &Board, k: usize, shield: &Shield) -> Option<Finding> {
    let area = shield.area();
    let under = board.connector.joints.iter().filter(|joint| {
        (joint.shape.is_hole() || shield.face == board.connector.face) && area.shared(&joint.covers()) > 0.0
    });
    let joints: Vec<String> = under.map(|joint| joint.name.clone()).collect();
    let Point { x, y } = area.centre;
    let problem = SettingsProblem::CoveredJoints { shield: k, x_mm: x, y_mm: y, joints: joints.clone() };
    (!joints.is_empty()).then(|| Finding::blocking("covered_joint", format!("shields[{k}]"), problem))
}

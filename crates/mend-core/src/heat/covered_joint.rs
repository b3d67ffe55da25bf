//! A shield over a joint of the part: that joint would not melt.

use crate::board::{Board, Point};
use crate::finding::{Finding, list};
use crate::heat::shield::Shield;

/// Blocks every shield that lies over a joint: a pad on its face, a hole on either.
pub fn covered_joints(board: &Board, shields: &[Shield]) -> Vec<Finding> {
    shields.iter().enumerate().filter_map(|(k, shield)| covered(board, (k, shield))).collect()
}

fn covered(board: &Board, (k, shield): (usize, &Shield)) -> Option<Finding> {
    let area = shield.area();
    let under = board.connector.joints.iter().filter(|joint| {
        (joint.shape.is_hole() || shield.face == board.connector.face) && area.shared(&joint.covers()) > 0.0
    });
    let names: Vec<&str> = under.map(|joint| joint.name.as_str()).collect();
    if names.is_empty() {
        return None;
    }
    let Point { x, y } = area.centre;
    let message = format!("{} at ({x}, {y}) mm lies over {}", shield.kind.name(), list(&names));
    let object = Finding::blocking("covered_joint", format!("shields[{k}]"), message);
    Some(object.hint("a covered joint will not melt: draw the shield back from it"))
}

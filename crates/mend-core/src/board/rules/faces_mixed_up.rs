//! A thing that can only stand on the other face: inside the part, or where a leg comes out.

use crate::board::{Board, Component, Rect};
use crate::finding::Finding;
use crate::finding::problem::BoardProblem;

const RULE: &str = "faces_mixed_up";
/// From this share of it inside the part it is inside, not beside.
const INSIDE: f64 = 0.6;

/// Is `own` inside `body`?
pub(super) fn is_inside(body: &Rect, own: &Rect) -> bool {
    own.area() < body.area() && body.shared(own) > INSIDE * own.area()
}

pub(super) fn check(board: &Board) -> Vec<Finding> {
    board.components.iter().filter_map(|n| inside(board, n).or_else(|| on_a_leg(board, n))).collect()
}

fn inside(board: &Board, component: &Component) -> Option<Finding> {
    let part = &board.connector;
    let found = component.face == part.face && is_inside(&part.body, &component.covers());
    let problem = BoardProblem::InsidePart { part: part.name.clone() };
    found.then(|| Finding::warning(RULE, format!("component {}", component.name), problem))
}

fn on_a_leg(board: &Board, component: &Component) -> Option<Finding> {
    let part = &board.connector;
    if component.face == part.face {
        return None;
    }
    let own = component.covers();
    let pierced = part.joints.iter().find(|j| j.shape.is_hole() && own.covers(j.at))?;
    let problem = BoardProblem::OnJoint { joint: pierced.name.clone() };
    Some(Finding::warning(RULE, format!("component {}", component.name), problem))
}

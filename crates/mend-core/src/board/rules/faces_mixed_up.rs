//! A thing that can only stand on the other face: inside the part, or where a leg comes out.

use crate::board::{Board, Neighbour, Rect};
use crate::finding::Finding;

const RULE: &str = "faces_mixed_up";
/// From this share of it inside the part it is inside, not beside.
const INSIDE: f64 = 0.6;

/// Is `own` inside `body`?
pub(super) fn is_inside(body: &Rect, own: &Rect) -> bool {
    own.area() < body.area() && body.shared(own) > INSIDE * own.area()
}

pub(super) fn said(board: &Board) -> Vec<Finding> {
    board.neighbours.iter().filter_map(|n| inside(board, n).or_else(|| on_a_leg(board, n))).collect()
}

fn inside(board: &Board, neighbour: &Neighbour) -> Option<Finding> {
    let part = &board.connector;
    let found = neighbour.face == part.face && is_inside(&part.body, &neighbour.covers());
    let message = format!("stands inside the {}", part.name);
    let warning = Finding::warning(RULE, format!("neighbour {}", neighbour.name), message);
    found.then(|| warning.hint(format!("is it on the {} face?", part.face.other().name())))
}

fn on_a_leg(board: &Board, neighbour: &Neighbour) -> Option<Finding> {
    let part = &board.connector;
    if neighbour.face == part.face {
        return None;
    }
    let own = neighbour.covers();
    let pierced = part.joints.iter().find(|j| j.shape.is_hole() && own.covers(j.at))?;
    let message = format!("stands where {} comes out", pierced.name);
    let warning = Finding::warning(RULE, format!("neighbour {}", neighbour.name), message);
    Some(warning.hint(format!("is it on the {} face, or beside it?", part.face.name())))
}

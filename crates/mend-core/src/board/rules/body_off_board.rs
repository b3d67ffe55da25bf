//! A body that can't be that large, stands beside the board, or has a limit that nothing has.

use crate::board::{Board, Rect};
use crate::finding::Finding;

const RULE: &str = "body_off_board";
/// A body hangs over the rim by so much at most: ports do, by far.
const LEAST_ON_BOARD: f64 = 0.2;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let part = &board.connector;
    let part =
        std::iter::once(Standing { place: "connector.body".to_owned(), body: &part.body, height: part.height.in_mm() });
    let components = board.components.iter();
    let bodies = part.chain(components.map(|n| Standing {
        place: format!("component {}", n.name),
        body: &n.body,
        height: n.height.in_mm(),
    }));
    let bounds = board.outline.bounds();
    let limits = board.components.iter().filter_map(|n| {
        let limit = n.limit().in_celsius();
        let object =
            Finding::blocking(RULE, format!("component {}", n.name), format!("a limit of {limit} °C can't be"));
        (!(40.0..=400.0).contains(&limit)).then(|| object.hint("limits are between 40 and 400 °C"))
    });
    bodies.filter_map(|body| object(&bounds, body)).chain(limits).collect()
}

/// A body as this rule looks at it: its name in findings, what it covers, its height in mm.
struct Standing<'a> {
    place: String,
    body: &'a Rect,
    height: f64,
}

fn object(bounds: &Rect, standing: Standing<'_>) -> Option<Finding> {
    let Standing { place, body, height } = standing;
    let sizes = [body.width, body.depth, height];
    if sizes.iter().any(|size| !(0.1..=300.0).contains(size)) {
        let message = format!("measures {} x {} x {height} mm", body.width, body.depth);
        return Some(
            Finding::blocking(RULE, place, message).hint("width, depth and height are between 0.1 and 300 mm"),
        );
    }
    if body.shared(bounds) >= LEAST_ON_BOARD * body.area() {
        return None;
    }
    let message = format!("at {} mm is off the board", super::place::place(body.centre));
    Some(Finding::blocking(RULE, place, message).hint("at least a fifth of it stands on the board"))
}

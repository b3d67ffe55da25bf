//! Is this a board that can exist? Every objection names what, its value and the remedy.

use super::geometry::{Point, Rect};
use super::{Board, JointShape, StackUp};
use crate::finding::Finding;

const RULE: &str = "board_check";
/// Sides longer than any device board the shop takes, mm: beyond it a unit was mixed up.
const LONGEST_SIDE_MM: f64 = 600.0;

/// All objections to the board, none if it can be computed on.
pub fn check(board: &Board) -> Vec<Finding> {
    let mut found = Vec::new();
    outline(board, &mut found);
    stack(&board.stack, &mut found);
    joints(board, &mut found);
    bodies(board, &mut found);
    found
}

fn object(place: impl Into<String>, message: String, hint: &str) -> Finding {
    Finding::blocking(RULE, place, message).hint(hint)
}

fn outline(board: &Board, found: &mut Vec<Finding>) {
    let corners = &board.outline.corners;
    if corners.len() < 3 {
        found.push(object("outline", format!("{} corners", corners.len()), "give at least three corners"));
        return;
    }
    let bounds = board.outline.bounds();
    let longest = bounds.width.max(bounds.depth);
    if !(longest.is_finite() && longest <= LONGEST_SIDE_MM) {
        let hint = "coordinates are in mm; boards up to 600 mm";
        found.push(object("outline", format!("{longest:.0} mm across"), hint));
    }
    if board.outline.area() < 25.0 {
        let message = format!("an area of {:.1} mm²", board.outline.area());
        found.push(object("outline", message, "list the corners in order, in mm; the rim must not cross itself"));
    }
}

fn stack(stack: &StackUp, found: &mut Vec<Finding>) {
    let mut within = |place: &str, value: f64, (low, high): (f64, f64), unit: &str| {
        if !(low..=high).contains(&value) {
            let hint = format!("between {low} and {high}{unit}");
            found.push(object(place, format!("{value}{unit} can't be"), &hint));
        }
    };
    within("thickness_mm", stack.thickness.in_mm(), (0.2, 5.0), " mm");
    within("copper.layers", f64::from(stack.layers), (1.0, 32.0), " layers");
    within("copper.planes", f64::from(stack.planes), (0.0, f64::from(stack.layers)), " planes");
    within("copper.foil_um", stack.foil_um, (5.0, 210.0), " µm");
    within("copper.plane_coverage", stack.plane_coverage, (0.0, 1.0), "");
    within("copper.signal_coverage", stack.signal_coverage, (0.0, 1.0), "");
    within("copper.vias_per_mm2", stack.vias_per_mm2.unwrap_or(0.0), (0.0, 4.0), " holes/mm²");
}

fn joints(board: &Board, found: &mut Vec<Finding>) {
    let joints = &board.connector.joints;
    if joints.is_empty() {
        found.push(object("connector.joints", "no joints".to_owned(), "list at least one joint"));
    }
    for joint in joints {
        let place = format!("joint {}", joint.name);
        if !board.outline.holds(joint.at) {
            let Point { x, y } = joint.at;
            let hint = "move it inside the outline, or widen the outline";
            found.push(object(&place, format!("stands at ({x}, {y}) mm, outside the outline"), hint));
        }
        let sizes = match joint.shape {
            JointShape::Pad { width, depth } => [width, depth],
            JointShape::Hole { drill, pad } => [drill, pad],
        };
        if sizes.iter().any(|size| !(0.05..=20.0).contains(size)) {
            let message = format!("has a land of {} x {} mm", sizes[0], sizes[1]);
            found.push(object(&place, message, "lands are between 0.05 and 20 mm"));
        }
        if let JointShape::Hole { drill, pad } = joint.shape
            && drill >= pad
        {
            let message = format!("has a {drill} mm hole in a {pad} mm land");
            found.push(object(&place, message, "the land is wider than its hole"));
        }
        if joints.iter().filter(|other| other.name == joint.name).count() > 1 {
            found.push(object(&place, "is there twice".to_owned(), "give each joint a name of its own"));
        }
    }
}

fn bodies(board: &Board, found: &mut Vec<Finding>) {
    let bounds = board.outline.bounds();
    let mut fits = |place: String, body: &Rect, height: f64| {
        let sizes = [body.width, body.depth, height];
        if sizes.iter().any(|size| !(0.1..=300.0).contains(size)) {
            let message = format!("measures {} x {} x {height} mm", body.width, body.depth);
            found.push(object(&place, message, "width, depth and height are between 0.1 and 300 mm"));
        } else if body.shared(&bounds) < 0.2 * body.area() {
            let Point { x, y } = body.centre;
            let hint = "at least a fifth of it stands on the board";
            found.push(object(&place, format!("at ({x}, {y}) mm is off the board"), hint));
        }
    };
    fits("connector.body".to_owned(), &board.connector.body, board.connector.height.in_mm());
    for neighbour in &board.neighbours {
        fits(format!("neighbour {}", neighbour.name), &neighbour.body, neighbour.height.in_mm());
    }
    for neighbour in &board.neighbours {
        let limit = neighbour.limit().in_celsius();
        if !(40.0..=400.0).contains(&limit) {
            let message = format!("a limit of {limit} °C can't be");
            found.push(object(format!("neighbour {}", neighbour.name), message, "limits are between 40 and 400 °C"));
        }
    }
}

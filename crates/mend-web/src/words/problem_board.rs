//! What is wrong with a board, in words.

use mend_core::finding::problem::{BoardProblem, Named};

use super::quantity::{list, place, plain};
use super::{ProblemWords, Words, problem};

const CORNERS: &str = "list the corners in order, in mm; the rim must not cross itself";

impl Words {
    pub(super) fn board_problem(&self, found: &BoardProblem) -> ProblemWords {
        match found {
            BoardProblem::TooFewCorners { count } => problem(format!("{count} corners"), "give at least three corners"),
            BoardProblem::TooManyCorners { count, most } => {
                problem(format!("{count} corners"), format!("leave out small ones: up to {most}"))
            }
            BoardProblem::TooLarge { mm, most_mm } => problem(
                format!("{} mm across", plain(mm.round())),
                format!("coordinates are in mm; boards up to {most_mm} mm"),
            ),
            BoardProblem::NoArea { mm2 } => problem(format!("an area of {mm2:.1} mm²"), CORNERS),
            BoardProblem::OutsideOutline { x_mm, y_mm } => problem(
                format!("stands at {}, outside the outline", place(*x_mm, *y_mm)),
                "move it inside the outline, or widen the outline",
            ),
            BoardProblem::NoJoints => problem("no joints", "list at least one joint"),
            BoardProblem::PadSize { width_mm, depth_mm, low_mm, high_mm } => problem(
                format!("has a land of {width_mm} x {depth_mm} mm"),
                format!("lands are between {low_mm} and {high_mm} mm; a peg is no joint"),
            ),
            BoardProblem::HoleSize { drill_mm, land_mm, low_mm, high_mm } => problem(
                format!("has a land of {land_mm} mm round a {drill_mm} mm hole"),
                format!("lands and holes are between {low_mm} and {high_mm} mm; a peg is no joint"),
            ),
            BoardProblem::DrillTooWide { drill_mm, land_mm } => {
                problem(format!("has a {drill_mm} mm hole in a {land_mm} mm land"), "the land is wider than its hole")
            }
            BoardProblem::NameTwice { what: Named::Joint } => {
                problem("is there twice", "give each joint a name of its own")
            }
            BoardProblem::NameTwice { what: Named::Component } => {
                problem("is there twice", "give each component a name of its own")
            }
            BoardProblem::BodySize { width_mm, depth_mm, height_mm, low_mm, high_mm } => problem(
                format!("measures {width_mm} x {depth_mm} x {height_mm} mm"),
                format!("width, depth and height are between {low_mm} and {high_mm} mm"),
            ),
            BoardProblem::OffBoard { x_mm, y_mm } => problem(
                format!("at {} is off the board", place(*x_mm, *y_mm)),
                "at least a fifth of it stands on the board",
            ),
            BoardProblem::Overlaps { part, components } => {
                let part = part.then(|| "the part".to_owned());
                let names: Vec<String> = part.into_iter().chain(components.iter().cloned()).collect();
                problem(
                    format!("stands in the place of {}", list(&names)),
                    "move or shrink one of them, or put it on the other face",
                )
            }
            BoardProblem::InsidePart { part } => {
                problem(format!("stands inside the {part}"), "is it on the other face?")
            }
            BoardProblem::OnJoint { joint } => {
                problem(format!("stands where {joint} comes out"), "is it on the part's face, or beside the part?")
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_and_sizes_are_said_to_a_hundredth_with_their_unit() {
        let said = |found: BoardProblem| Words::default().board_problem(&found).message;
        assert_eq!(
            said(BoardProblem::OutsideOutline { x_mm: 500.0, y_mm: 8.254_9 }),
            "stands at (500, 8.25) mm, outside the outline"
        );
        let bodies = BoardProblem::Overlaps { part: true, components: vec!["C7".to_owned()] };
        assert_eq!(said(bodies), "stands in the place of the part, C7");
    }

    #[test]
    fn everything_has_its_way_out() {
        for found in [
            BoardProblem::TooFewCorners { count: 2 },
            BoardProblem::TooManyCorners { count: 2001, most: 2000 },
            BoardProblem::TooLarge { mm: 700.0, most_mm: 600.0 },
            BoardProblem::NoArea { mm2: 3.0 },
            BoardProblem::NoJoints,
            BoardProblem::PadSize { width_mm: 0.0, depth_mm: 1.0, low_mm: 0.05, high_mm: 20.0 },
            BoardProblem::HoleSize { drill_mm: 1.0, land_mm: 0.0, low_mm: 0.05, high_mm: 20.0 },
            BoardProblem::DrillTooWide { drill_mm: 2.0, land_mm: 1.6 },
            BoardProblem::NameTwice { what: Named::Joint },
            BoardProblem::NameTwice { what: Named::Component },
            BoardProblem::BodySize { width_mm: 1.0, depth_mm: 1.0, height_mm: 0.0, low_mm: 0.1, high_mm: 300.0 },
            BoardProblem::OffBoard { x_mm: -9.0, y_mm: 0.0 },
            BoardProblem::InsidePart { part: "port".to_owned() },
            BoardProblem::OnJoint { joint: "leg 1".to_owned() },
        ] {
            let ProblemWords { message, hint } = Words::default().board_problem(&found);
            assert!(!message.is_empty() && !hint.is_empty(), "{found:?}");
        }
    }
}

//! What can't be done to a draft, in words.

use mend_core::finding::problem::DraftProblem;

use super::{ProblemWords, Words, problem};

impl Words {
    pub(super) fn draft_problem(&self, found: &DraftProblem) -> ProblemWords {
        match found {
            DraftProblem::NoName => problem("the board has no name yet", "say what the shop calls it"),
            DraftProblem::NoOutline => problem("no outline yet", "click its corners, or give width and depth"),
            DraftProblem::NoPart => problem("no part to replace yet", "take one from the connector library"),
            DraftProblem::ComponentGone => problem("is not there any more", "choose it on the map"),
            DraftProblem::PhotoGone => problem("is not there any more", "add it again"),
            DraftProblem::TooManyComponents { most } => {
                problem(format!("there are {most} already"), "remove those far from the part")
            }
            DraftProblem::DrawnSize { width_mm, depth_mm, low_mm, high_mm } => problem(
                format!("{width_mm:.1} x {depth_mm:.1} mm can't be"),
                format!("draw it on the board, {low_mm} to {high_mm} mm wide and deep"),
            ),
            DraftProblem::MovedTooFar { x_mm, y_mm, most_mm } => {
                problem(format!("a move by {x_mm}, {y_mm} mm can't be"), format!("move it by less than {most_mm} mm"))
            }
            DraftProblem::NotMovable => problem("this can't be moved", "choose a part, a component or a photograph"),
            DraftProblem::NotResizable => problem("this has no size to draw", "the part's sizes are typed"),
            DraftProblem::NotRemovable => problem("this can't be removed", "choose a component or a photograph"),
            DraftProblem::NotCopyable => problem("this can't be duplicated", "choose a component"),
            DraftProblem::NameTaken { name } => problem(format!("“{name}” is there already"), "give it another name"),
            DraftProblem::NoSizes => problem("this part was not made from sizes", "take one from the library"),
            DraftProblem::PixelSize { mm } => problem(
                format!("a pixel would be {mm:.4} mm"),
                "click two places further apart, and give their distance in mm",
            ),
            DraftProblem::OnePlace => {
                problem("both clicks are on one place", "click two places as far apart as can be")
            }
            DraftProblem::NotThreePoints { count } => {
                problem(format!("{count} points"), "click three places that both faces show: holes, corners")
            }
            DraftProblem::Mirrored { off_mm } => problem(
                format!("the points are {off_mm:.1} mm off, and would fit were the photograph mirrored"),
                "mirror it, then click them again",
            ),
            DraftProblem::PointsOff { off_mm } => {
                problem(format!("the points are {off_mm:.1} mm off"), "click the same three places in the same order")
            }
            DraftProblem::NotACorner { text } => {
                problem(format!("“{text}” is no corner"), "x and y in mm, a corner a line")
            }
            DraftProblem::UnknownBoard => problem("a board without a name", "choose one of the list"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_act_that_can_not_be_says_what_to_do_instead() {
        let mirrored = Words::default().draft_problem(&DraftProblem::Mirrored { off_mm: 4.26 });
        assert!(mirrored.message.starts_with("the points are 4.3 mm off"));
        assert_eq!(mirrored.hint, "mirror it, then click them again");
        let drawn = DraftProblem::DrawnSize { width_mm: 0.0, depth_mm: 1.0, low_mm: 0.2, high_mm: 300.0 };
        assert!(Words::default().draft_problem(&drawn).hint.ends_with("0.2 to 300 mm wide and deep"));
    }
}

//! Can this board be, and is it the one on the bench? A rule is a file; each names what, its value and the remedy.
//!
//! What can't be computed on blocks; what is likely a slip warns.

mod board_sizes;
mod body_off_board;
mod drill_larger_than_pad;
mod faces_mixed_up;
mod joint_without_pad;
mod outside_outline;
mod overlapping_bodies;
mod same_name;

use super::Board;
use crate::finding::Finding;

pub(crate) use board_sizes::{STIFFENERS_MM, outline, stack};

/// Everything that the rules have to say of a board.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::rules;
/// let mut board = bench.board.clone();
/// assert!(rules::check(&board).is_empty());
/// board.connector.joints[0].at.y = -5.0;
/// assert_eq!(rules::check(&board)[0].rule, "outside_outline");
/// ```
pub fn check(board: &Board) -> Vec<Finding> {
    let rules: [fn(&Board) -> Vec<Finding>; 8] = [
        board_sizes::check,
        outside_outline::check,
        joint_without_pad::check,
        drill_larger_than_pad::check,
        same_name::check,
        body_off_board::check,
        overlapping_bodies::check,
        faces_mixed_up::check,
    ];
    rules.iter().flat_map(|rule| rule(board)).collect()
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;
    use crate::board::turn::Pose;
    use crate::board::{Component, ComponentKind, Face, JointShape, Outline, Point, Rect, StackUp, library};
    use crate::units::Length;

    pub(crate) fn rect(x: f64, y: f64, width: f64, depth: f64) -> Rect {
        Rect { centre: Point { x, y }, width, depth }
    }

    /// A video port at (30, 6) on a 60 x 40 mm board, a chip well away from it.
    pub(crate) fn board() -> Board {
        let part = library::kind("video-port").expect("a kind").make(&library::Values::new()).expect("usual");
        Board {
            name: "test".to_owned(),
            maker: "none".to_owned(),
            outline: Outline::rectangle(60.0, 40.0),
            stack: StackUp::usual(Length::mm(1.6)),
            connector: part.placed(Pose {
                at: Point { x: 30.0, y: 6.0 },
                turn: crate::board::Turn::None,
                face: Face::Top,
            }),
            components: vec![ComponentKind::Chip.at("U1", Face::Top, rect(45.0, 30.0, 5.0, 5.0))],
        }
    }

    /// What the rules say of the board after a change, as rule and place.
    fn found(change: impl FnOnce(&mut Board)) -> Vec<(String, String)> {
        let mut board = board();
        change(&mut board);
        check(&board).into_iter().map(|f| (f.rule, f.place)).collect()
    }

    fn one(rule: &str, place: &str) -> Vec<(String, String)> {
        vec![(rule.to_owned(), place.to_owned())]
    }

    fn with(component: Component) -> impl FnOnce(&mut Board) {
        move |board| board.components.push(component)
    }

    #[test]
    fn a_sound_board_has_nothing_said_of_it() {
        assert_eq!(found(|_| {}), vec![]);
    }

    #[test]
    fn a_joint_outside_the_outline_is_named() {
        assert_eq!(found(|b| b.connector.joints[3].at.y = -2.0), one("outside_outline", "joint 4"));
        // In the notch of an outline is outside as well.
        let at = |x, y| Point { x, y };
        let notched = vec![at(0.0, 0.0), at(28.0, 0.0), at(28.0, 12.0), at(60.0, 12.0), at(60.0, 40.0), at(0.0, 40.0)];
        let found = found(|b| b.outline.corners = notched);
        assert!(found.len() > 5 && found.iter().all(|f| f.0 == "outside_outline"), "{found:?}");
    }

    #[test]
    fn bodies_that_overlap_on_one_face_are_named_and_those_under_a_can_are_not() {
        let over = ComponentKind::Chip.at("U2", Face::Top, rect(47.0, 31.0, 5.0, 5.0));
        assert_eq!(found(with(over.clone())), one("overlapping_bodies", "component U2"));
        assert_eq!(found(with(Component { face: Face::Bottom, ..over })), vec![]);
        assert_eq!(found(with(ComponentKind::ShieldCan.at("can", Face::Top, rect(45.0, 30.0, 9.0, 9.0)))), vec![]);
        let touching = ComponentKind::Chip.at("U3", Face::Top, rect(50.0, 30.0, 5.0, 5.0));
        assert_eq!(found(with(touching)), vec![]);
    }

    #[test]
    fn a_joint_without_a_land_and_a_drill_that_leaves_none_are_told_apart() {
        let bare = |b: &mut Board| b.connector.joints[0].shape = JointShape::Pad { width: 0.0, depth: 1.0 };
        assert_eq!(found(bare), one("joint_without_pad", "joint 1"));
        let bored = |b: &mut Board| b.connector.joints[20].shape = JointShape::Hole { drill: 2.0, pad: 1.6 };
        assert_eq!(found(bored), one("drill_larger_than_pad", "joint leg 2"));
        let unplated = |b: &mut Board| b.connector.joints[20].shape = JointShape::Hole { drill: 1.2, pad: 0.0 };
        assert_eq!(found(unplated), one("joint_without_pad", "joint leg 2"));
    }

    #[test]
    fn faces_that_were_mixed_up_are_asked_about() {
        let inside = ComponentKind::CeramicChip.at("C1", Face::Top, rect(30.0, 5.0, 1.0, 0.5));
        assert_eq!(found(with(inside.clone())), one("faces_mixed_up", "component C1"));
        assert_eq!(found(with(Component { face: Face::Bottom, ..inside })), vec![], "below the part there is room");
        // A leg at (37.25, 9.2) comes out on the far face: nothing can stand there.
        let on_leg = ComponentKind::Chip.at("U9", Face::Bottom, rect(38.0, 10.0, 4.0, 4.0));
        assert_eq!(found(with(on_leg)), one("faces_mixed_up", "component U9"));
    }

    #[test]
    fn a_name_twice_and_a_body_off_the_board_block() {
        assert_eq!(
            found(with(ComponentKind::Chip.at("U1", Face::Top, rect(10.0, 30.0, 2.0, 2.0)))),
            one("same_name", "component U1")
        );
        assert_eq!(
            found(with(ComponentKind::Chip.at("U4", Face::Top, rect(90.0, 30.0, 2.0, 2.0)))),
            one("body_off_board", "component U4")
        );
    }
}

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

use super::{Board, Point};
use crate::finding::Finding;

pub use board_sizes::{outline, stack};

/// Everything that the rules have to say of a board.
pub fn check(board: &Board) -> Vec<Finding> {
    let rules: [fn(&Board) -> Vec<Finding>; 8] = [
        board_sizes::said,
        outside_outline::said,
        joint_without_pad::said,
        drill_larger_than_pad::said,
        same_name::said,
        body_off_board::said,
        overlapping_bodies::said,
        faces_mixed_up::said,
    ];
    rules.iter().flat_map(|rule| rule(board)).collect()
}

/// A place to a hundredth of a millimetre: `(500, 8.25)`.
fn place(p: Point) -> String {
    let round = |mm: f64| (mm * 100.0).round() / 100.0;
    format!("({}, {})", round(p.x), round(p.y))
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;
    use crate::board::{Face, JointShape, Neighbour, Outline, Point, Rect, StackUp, Thing, library};
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
            connector: part.placed((Point { x: 30.0, y: 6.0 }, crate::board::Turn::None, Face::Top)),
            neighbours: vec![Thing::Chip.at("U1", Face::Top, rect(45.0, 30.0, 5.0, 5.0))],
        }
    }

    /// What the rules say of the board after a change, as rule and place.
    fn said(change: impl FnOnce(&mut Board)) -> Vec<(String, String)> {
        let mut board = board();
        change(&mut board);
        check(&board).into_iter().map(|f| (f.rule, f.place)).collect()
    }

    fn one(rule: &str, place: &str) -> Vec<(String, String)> {
        vec![(rule.to_owned(), place.to_owned())]
    }

    fn with(neighbour: Neighbour) -> impl FnOnce(&mut Board) {
        move |board| board.neighbours.push(neighbour)
    }

    #[test]
    fn a_sound_board_has_nothing_said_of_it() {
        assert_eq!(said(|_| {}), vec![]);
    }

    #[test]
    fn a_joint_outside_the_outline_is_named() {
        assert_eq!(said(|b| b.connector.joints[3].at.y = -2.0), one("outside_outline", "joint 4"));
        // In the notch of an outline is outside as well.
        let at = |x, y| Point { x, y };
        let notched = vec![at(0.0, 0.0), at(28.0, 0.0), at(28.0, 12.0), at(60.0, 12.0), at(60.0, 40.0), at(0.0, 40.0)];
        let found = said(|b| b.outline.corners = notched);
        assert!(found.len() > 5 && found.iter().all(|f| f.0 == "outside_outline"), "{found:?}");
    }

    #[test]
    fn bodies_that_overlap_on_one_face_are_named_and_those_under_a_can_are_not() {
        let over = Thing::Chip.at("U2", Face::Top, rect(47.0, 31.0, 5.0, 5.0));
        assert_eq!(said(with(over.clone())), one("overlapping_bodies", "neighbour U2"));
        assert_eq!(said(with(Neighbour { face: Face::Bottom, ..over })), vec![]);
        assert_eq!(said(with(Thing::ShieldCan.at("can", Face::Top, rect(45.0, 30.0, 9.0, 9.0)))), vec![]);
        let touching = Thing::Chip.at("U3", Face::Top, rect(50.0, 30.0, 5.0, 5.0));
        assert_eq!(said(with(touching)), vec![]);
    }

    #[test]
    fn a_joint_without_a_land_and_a_drill_that_leaves_none_are_told_apart() {
        let bare = |b: &mut Board| b.connector.joints[0].shape = JointShape::Pad { width: 0.0, depth: 1.0 };
        assert_eq!(said(bare), one("joint_without_pad", "joint 1"));
        let bored = |b: &mut Board| b.connector.joints[20].shape = JointShape::Hole { drill: 2.0, pad: 1.6 };
        assert_eq!(said(bored), one("drill_larger_than_pad", "joint leg 2"));
        let unplated = |b: &mut Board| b.connector.joints[20].shape = JointShape::Hole { drill: 1.2, pad: 0.0 };
        assert_eq!(said(unplated), one("joint_without_pad", "joint leg 2"));
    }

    #[test]
    fn faces_that_were_mixed_up_are_asked_about() {
        let inside = Thing::CeramicChip.at("C1", Face::Top, rect(30.0, 5.0, 1.0, 0.5));
        assert_eq!(said(with(inside.clone())), one("faces_mixed_up", "neighbour C1"));
        assert_eq!(said(with(Neighbour { face: Face::Bottom, ..inside })), vec![], "below the part there is room");
        // A leg at (37.25, 9.2) comes out on the far face: nothing can stand there.
        let on_leg = Thing::Chip.at("U9", Face::Bottom, rect(38.0, 10.0, 4.0, 4.0));
        assert_eq!(said(with(on_leg)), one("faces_mixed_up", "neighbour U9"));
    }

    #[test]
    fn a_name_twice_and_a_body_off_the_board_block() {
        assert_eq!(
            said(with(Thing::Chip.at("U1", Face::Top, rect(10.0, 30.0, 2.0, 2.0)))),
            one("same_name", "neighbour U1")
        );
        assert_eq!(
            said(with(Thing::Chip.at("U4", Face::Top, rect(90.0, 30.0, 2.0, 2.0)))),
            one("body_off_board", "neighbour U4")
        );
    }
}

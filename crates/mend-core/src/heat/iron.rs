//! A soldering iron held on joints while the air works.

use serde::{Deserialize, Serialize};

use super::bridge::reachable;
use super::tip_patch::TipPatch;
use crate::board::route::{WayEnds, by_place, shortest_way};
use crate::board::{Board, Joint, Point};
use crate::units::{Duration, Length, Temperature};

/// Tip and the metal it is on, J/K (E).
pub const TIP_CAPACITY: f64 = 1.5;

/// Ways to lay a tip on one joint that are tried, over half a turn: as many as a hand can tell apart (E).
const TURNS: usize = 12;
/// Joints this close to each other are one place, mm: rounding.
const RIM_MM: f64 = 1e-6;

/// The iron.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Iron {
    /// What it is set to.
    #[serde(rename = "set_c")]
    pub set: Temperature,
    /// Width of the tip.
    #[serde(rename = "tip_mm")]
    pub tip: Length,
    /// The row it is held on, [`EVERY_ROW`], or the name of a single joint. One tip goes from place to place by the shortest
    /// way round.
    pub row: String,
    /// On each place before it goes on to the next, whole seconds.
    #[serde(rename = "dwell_s", default = "usual_dwell", skip_serializing_if = "is_usual_dwell")]
    pub dwell: Duration,
}

/// On each place before it goes on to the next (E, 0.5-2 s).
pub const USUAL_DWELL: Duration = Duration::seconds(1.0);

fn usual_dwell() -> Duration {
    USUAL_DWELL
}

fn is_usual_dwell(dwell: &Duration) -> bool {
    *dwell == USUAL_DWELL
}

/// All that a tip gets to.
pub const EVERY_ROW: &str = "every joint";

/// A tip wider than so many times the pitch does not touch one pin (E).
pub const TOO_WIDE: f64 = 2.0;

/// From a joint to the nearest other that a tip gets to, mm.
pub fn pitch_at(joint: &Joint, board: &Board) -> Option<f64> {
    let others = board.connector.joints.iter().filter(|other| reachable(other) && !std::ptr::eq(*other, joint));
    others.map(|other| other.at.distance_to(joint.at)).min_by(f64::total_cmp)
}

impl Iron {
    /// Is it meant for this joint? A tip held on a single one by name is meant for no other, and none gets under the part.
    pub fn is_on(&self, joint: &Joint) -> bool {
        reachable(joint) && (joint.row == self.row || joint.name == self.row || self.row == EVERY_ROW)
    }

    /// The one joint that it is held on, where it is held on one alone.
    pub fn one_joint<'b>(&self, board: &'b Board) -> Option<&'b Joint> {
        let mut on = board.connector.joints.iter().filter(|joint| self.is_on(joint));
        on.next().filter(|_| on.next().is_none())
    }

    /// The pitch, mm, where it is meant for a single joint and is so wide that it would flood or drag.
    pub fn too_wide_for(&self, board: &Board) -> Option<f64> {
        let pitch = pitch_at(self.one_joint(board)?, board)?;
        (self.tip.in_mm() > TOO_WIDE * pitch).then_some(pitch)
    }

    /// On each place, whole seconds.
    pub fn dwell_s(&self) -> usize {
        (self.dwell.in_seconds().round() as usize).max(1)
    }

    /// The places that it goes round by the shortest way, each with the joints that its patch touches there: those that it is
    /// meant for, and whatever else a tip so wide can't help touching.
    pub fn visits(&self, board: &Board) -> Vec<Vec<usize>> {
        let joints = &board.connector.joints;
        let mut left: Vec<usize> = (0..joints.len()).filter(|k| self.is_on(&joints[*k])).collect();
        left.sort_by(|a, b| by_place(&joints[*a].at, &joints[*b].at));
        let mut visits = Vec::new();
        while let Some(first) = left.first().copied() {
            let patch = self.patch_from(first, &left, joints);
            left.retain(|k| *k != first && !patch.touches(joints[*k].at));
            visits.push(patch);
        }
        let middles: Vec<Point> = visits.iter().map(|patch| patch.middle).collect();
        let touched = |visit: usize| {
            (0..joints.len()).filter(|k| reachable(&joints[*k]) && visits[visit].touches(joints[*k].at)).collect()
        };
        shortest_way(&middles, WayEnds::Joined).into_iter().map(touched).collect()
    }

    /// The tip laid from the first of some joints along those that it covers most of; on a joint for itself so that it touches
    /// the fewest others.
    fn patch_from(&self, first: usize, left: &[usize], joints: &[Joint]) -> TipPatch {
        let (at, width) = (joints[first].at, self.tip.in_mm());
        let wanted = |patch: &TipPatch| left.iter().filter(|k| patch.touches(joints[**k].at)).count();
        let near =
            left.iter().map(|k| joints[*k].at).filter(|to| (RIM_MM..=width + RIM_MM).contains(&at.distance_to(*to)));
        let along = near.map(|to| TipPatch::from_end(at, (to.y - at.y).atan2(to.x - at.x), width));
        let most = along.fold(None, |most: Option<(usize, TipPatch)>, patch| match most {
            Some((count, _)) if count >= wanted(&patch) => most,
            _ => Some((wanted(&patch), patch)),
        });
        let others = |patch: &TipPatch| joints.iter().filter(|j| reachable(j) && patch.touches(j.at)).count();
        let turned = (0..TURNS).map(|k| std::f64::consts::PI * k as f64 / TURNS as f64);
        let alone = turned.map(|angle| TipPatch { middle: at, angle, width }).min_by_key(others);
        most.map(|(_, patch)| patch).or(alone).unwrap_or(TipPatch { middle: at, angle: 0.0, width })
    }

    /// Wetted tip to joint, W/K.
    pub fn wetted(&self) -> f64 {
        wetted(self.tip)
    }
}

/// A wetted tip to what it touches, W/K, by its width: 1, 2, 4, 6 mm give 0.1, 0.3, 0.6, 1.0 (E, x0.5-2), linear between.
pub(crate) fn wetted(tip: Length) -> f64 {
    const TABLE: [(f64, f64); 5] = [(0.0, 0.03), (1.0, 0.1), (2.0, 0.3), (4.0, 0.6), (6.0, 1.0)];
    let width = tip.in_mm().clamp(0.0, 6.0);
    let above = TABLE.iter().position(|(w, _)| *w >= width).unwrap_or(TABLE.len() - 1).max(1);
    let ((w0, g0), (w1, g1)) = (TABLE[above - 1], TABLE[above]);
    g0 + (g1 - g0) * (width - w0) / (w1 - w0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    fn tip(mm: f64, row: &str) -> Iron {
        Iron { set: Temperature::celsius(380.0), tip: Length::mm(mm), row: row.to_owned(), dwell: USUAL_DWELL }
    }

    /// The example's board with pads in a row, 1 mm apart from each other.
    fn pads(count: usize) -> Board {
        let mut board = Bench::try_new().expect("the example").board;
        let pad = board.connector.joints.iter().find(|joint| !joint.hidden).expect("one in reach").clone();
        let at = |k: usize| Point { x: 20.0 + k as f64, y: 10.0 };
        board.connector.joints = (0..count)
            .map(|k| Joint { name: format!("P{k}"), row: "P".to_owned(), at: at(k), ..pad.clone() })
            .collect();
        board
    }

    #[test]
    fn a_stout_tip_gives_more() {
        let wetted = |mm| tip(mm, "").wetted();
        assert!((wetted(4.0) - 0.6).abs() < 1e-12 && (wetted(3.0) - 0.45).abs() < 1e-12);
        assert!(wetted(0.5) < wetted(1.0) && wetted(9.0) == 1.0);
    }

    #[test]
    fn a_tip_covers_what_lies_under_its_width_and_goes_on_to_the_next() {
        let board = pads(7);
        assert_eq!(tip(2.0, "P").visits(&board), [vec![0, 1, 2], vec![3, 4, 5], vec![6]]);
        assert_eq!(tip(0.5, "P").visits(&board).len(), 7);
        assert_eq!(tip(0.5, "P3").visits(&board), [[3]], "turned along or across, it is on one");
        assert_eq!(tip(4.0, "P3").visits(&board), [[3]], "laid across the row");
        let mut fine = pads(7);
        fine.connector.joints.iter_mut().for_each(|joint| joint.at.x = 20.0 + (joint.at.x - 20.0) / 2.0);
        assert_eq!(tip(4.0, "P3").visits(&fine), [[2, 3, 4]], "its depth is on the neighbours too");
    }

    #[test]
    fn the_places_are_the_same_however_the_joints_are_listed() {
        let board = pads(7);
        let mut other = board.clone();
        other.connector.joints.rotate_left(3);
        other.connector.joints.reverse();
        let names = |board: &Board| -> Vec<Vec<String>> {
            let sorted = |visit: Vec<usize>| {
                let mut names: Vec<String> = visit.iter().map(|k| board.connector.joints[*k].name.clone()).collect();
                names.sort();
                names
            };
            tip(2.0, "P").visits(board).into_iter().map(sorted).collect()
        };
        assert_eq!(names(&board), names(&other));
    }

    #[test]
    fn a_tip_wider_than_twice_the_pitch_is_for_no_single_joint() {
        let board = pads(7);
        assert_eq!(tip(2.1, "P3").too_wide_for(&board), Some(1.0));
        assert_eq!(tip(2.0, "P3").too_wide_for(&board), None);
        assert_eq!(tip(4.0, "P").too_wide_for(&board), None, "a row may be flooded or dragged");
        assert_eq!(tip(4.0, "P0").too_wide_for(&pads(1)), None, "there is no other");
    }

    #[test]
    fn a_dwell_is_written_where_it_is_not_the_usual() {
        let usual = serde_json::to_value(tip(2.0, "P")).expect("written");
        assert_eq!(usual.get("dwell_s"), None);
        let read: Iron = serde_json::from_value(usual).expect("read");
        assert_eq!(read.dwell_s(), 1);
    }
}

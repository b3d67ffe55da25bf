//! A soldering iron held on joints while the air works.

use serde::{Deserialize, Serialize};

use super::bridge::reachable;
use crate::board::{Board, Joint};
use crate::units::{Length, Temperature};

/// Tip and the metal it is on, J/K (E).
pub const TIP_CAPACITY: f64 = 1.5;
/// Heater to tip, K/W: a cartridge (E, 0.8-2; a passive tip 2.5-6).
pub const TIP_RESISTANCE: f64 = 1.2;
/// What the heater gives at the most, W (E, usual bench irons 60-80).
pub const TIP_POWER: f64 = 65.0;

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
    /// The row it is held on, [`EVERY_ROW`], or the name of a single joint. One tip goes from joint to joint: each has it
    /// for its share of the time.
    pub row: String,
}

/// On each place before it goes on to the next, s (E, 0.5-2).
pub const DWELL_S: usize = 1;

/// All that a tip gets to.
pub const EVERY_ROW: &str = "every joint";

impl Iron {
    /// Is it held on this joint? A tip held on a single one by name is on no other.
    pub fn is_on(&self, joint: &Joint) -> bool {
        joint.row == self.row || joint.name == self.row || (self.row == EVERY_ROW && reachable(joint))
    }

    /// The one joint that it is held on, where it is held on one alone.
    pub fn one_joint<'b>(&self, board: &'b Board) -> Option<&'b Joint> {
        let mut on = board.connector.joints.iter().filter(|joint| self.is_on(joint));
        on.next().filter(|_| on.next().is_none())
    }

    /// The places that it goes round, each with the joints that lie under the tip's width there, in the order in which the
    /// board has them.
    pub fn visits(&self, board: &Board) -> Vec<Vec<usize>> {
        let joints = &board.connector.joints;
        let mut visits: Vec<Vec<usize>> = Vec::new();
        for k in (0..joints.len()).filter(|k| self.is_on(&joints[*k])) {
            let from = visits.last().and_then(|visit| visit.first()).map(|first| joints[*first].at);
            let near = from.is_some_and(|from| {
                (joints[k].at.x - from.x).hypot(joints[k].at.y - from.y) <= self.tip.in_mm().max(f64::EPSILON)
            });
            match visits.last_mut().filter(|_| near) {
                Some(visit) => visit.push(k),
                None => visits.push(vec![k]),
            }
        }
        visits
    }

    /// Wetted tip to joint, W/K, by the tip's width: 1, 2, 4, 6 mm give 0.1, 0.3, 0.6, 1.0 (E, x0.5-2), linear between.
    pub fn wetted(&self) -> f64 {
        const TABLE: [(f64, f64); 5] = [(0.0, 0.03), (1.0, 0.1), (2.0, 0.3), (4.0, 0.6), (6.0, 1.0)];
        let width = self.tip.in_mm().clamp(0.0, 6.0);
        let above = TABLE.iter().position(|(w, _)| *w >= width).unwrap_or(TABLE.len() - 1).max(1);
        let ((w0, g0), (w1, g1)) = (TABLE[above - 1], TABLE[above]);
        g0 + (g1 - g0) * (width - w0) / (w1 - w0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_stout_tip_gives_more() {
        let wetted = |mm| Iron { set: Temperature::celsius(380.0), tip: Length::mm(mm), row: String::new() }.wetted();
        assert!((wetted(4.0) - 0.6).abs() < 1e-12 && (wetted(3.0) - 0.45).abs() < 1e-12);
        assert!(wetted(0.5) < wetted(1.0) && wetted(9.0) == 1.0);
    }
}

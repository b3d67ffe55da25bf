//! What joins the joints so that one tip heats them all: solder flooded over them, with or without a wire laid in.

use serde::{Deserialize, Serialize};

use crate::board::route::{WayEnds, shortest_way};
use crate::board::{Board, Joint, Point};

/// Copper, W/mK (T), and solder (D).
const COPPER: f64 = 390.0;
const SOLDER: f64 = 50.0;
/// Copper, J/m³K (T).
pub(super) const COPPER_CAPACITY: f64 = 3.45e6;
/// Joints farther apart than this are not joined by solder alone: surface tension tears the pool, mm (E, 4-8).
const POOL_REACHES_MM: f64 = 5.0;

/// Solder along the joints, and what lies in it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Bridge {
    /// Diameter of the tinned copper wire, mm; 0 where solder alone joins them.
    pub wire_mm: f64,
    /// Section of the solder, mm².
    pub bead_mm2: f64,
}

impl Bridge {
    /// Section of the wire, mm².
    pub(super) fn wire_mm2(&self) -> f64 {
        std::f64::consts::FRAC_PI_4 * self.wire_mm * self.wire_mm
    }

    /// k A of wire and bead together, W m/K (heating.md, equation 15).
    pub fn conducts(&self) -> f64 {
        (COPPER * self.wire_mm2() + SOLDER * self.bead_mm2) * 1e-6
    }

    /// The joints in the order in which it goes along them, by the shortest way. Hidden joints are out of its reach.
    pub fn way(board: &Board) -> Vec<usize> {
        let joints = &board.connector.joints;
        let reached: Vec<usize> = (0..joints.len()).filter(|k| reachable(&joints[*k])).collect();
        let places: Vec<Point> = reached.iter().map(|k| joints[*k].at).collect();
        shortest_way(&places, WayEnds::Open).into_iter().map(|k| reached[k]).collect()
    }

    /// Joints next to each other on its way that it joins, and how far apart they are, mm. A wire goes on from row to row,
    /// solder alone does not.
    pub fn spans(&self, board: &Board) -> Vec<(usize, usize, f64)> {
        let joints = &board.connector.joints;
        let span = |pair: &[usize]| {
            let apart = joints[pair[0]].at.distance_to(joints[pair[1]].at).max(0.1);
            (self.wire_mm > 0.0 || apart <= POOL_REACHES_MM).then_some((pair[0], pair[1], apart))
        };
        Self::way(board).windows(2).filter_map(span).collect()
    }
}

/// Can a tip get at it?
pub(crate) fn reachable(joint: &Joint) -> bool {
    !joint.hidden
}

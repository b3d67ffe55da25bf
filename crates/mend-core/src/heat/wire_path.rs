//! The way of a bridge wire over a part's joints: how long it is, and how it is bent.

use serde::{Deserialize, Serialize};

use super::bridge::Bridge;
use crate::board::{Board, Point};

/// A piece counts as a leg from this share of the longest on; what is shorter is a step within a leg or a corner (E).
const LEG: f64 = 0.25;
/// A bend of less than this is still straight on, degrees (E).
const STRAIGHT: f64 = 60.0;
/// From this turn on a wire goes round three sides or more, degrees (E).
const ROUND: f64 = 225.0;

/// How a wire is bent.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum WireShape {
    /// Straight along a row.
    Straight,
    /// Along two rows, folded between them.
    Folded,
    /// Round two corners: past fixing pads at the ends of a row.
    U,
    /// Round all sides.
    Cage,
}

/// The way of a wire.
#[derive(Debug, Clone, PartialEq)]
pub struct WirePath {
    /// The joints that it passes, in their order.
    pub places: Vec<Point>,
    /// From the first to the last, mm.
    pub length_mm: f64,
    /// How it is bent.
    pub shape: WireShape,
}

impl WirePath {
    /// Over the joints of a board's part that a wire reaches; none where these are fewer than two.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::heat::wire_path::WirePath;
    /// let bench = Bench::try_new().expect("the example");
    /// let path = WirePath::from_board(&bench.board).expect("it has anchors and a row in reach");
    /// assert!(path.length_mm > 5.0 && path.length_mm < 60.0);
    /// ```
    pub fn from_board(board: &Board) -> Option<Self> {
        let places: Vec<Point> = Bridge::way(board).into_iter().map(|k| board.connector.joints[k].at).collect();
        let length_mm = places.windows(2).map(|pair| pair[0].distance_to(pair[1])).sum();
        (places.len() > 1).then(|| Self { shape: shape(&places), length_mm, places })
    }
}

/// A straight piece of a wire.
#[derive(Debug, Clone, Copy)]
struct Leg {
    length: f64,
    /// Where it goes, degrees.
    heading: f64,
}

fn shape(places: &[Point]) -> WireShape {
    let legs = legs(places);
    let turns: Vec<f64> = legs.windows(2).map(|pair| turn(pair[0].heading, pair[1].heading)).collect();
    let round = turns.iter().sum::<f64>().abs();
    // Between two rows a wire turns back at once; round the end of a part it goes along it.
    let back = turns.iter().any(|turn| turn.abs() > 180.0 - STRAIGHT);
    match round {
        round if round < STRAIGHT => WireShape::Straight,
        round if round >= ROUND => WireShape::Cage,
        _ if back => WireShape::Folded,
        _ => WireShape::U,
    }
}

/// Straight pieces that count, longer than the steps between neighbouring joints.
fn legs(places: &[Point]) -> Vec<Leg> {
    let mut legs: Vec<Leg> = Vec::new();
    for pair in places.windows(2) {
        let (dx, dy) = (pair[1].x - pair[0].x, pair[1].y - pair[0].y);
        let piece = Leg { length: dx.hypot(dy), heading: dy.atan2(dx).to_degrees() };
        match legs.last_mut().filter(|leg| turn(leg.heading, piece.heading).abs() < STRAIGHT / 2.0) {
            Some(leg) => leg.length += piece.length,
            None => legs.push(piece),
        }
    }
    let longest = legs.iter().map(|leg| leg.length).fold(0.0, f64::max);
    legs.retain(|leg| leg.length >= LEG * longest);
    legs
}

/// From one heading to another, -180 to 180 degrees.
fn turn(from: f64, to: f64) -> f64 {
    (to - from + 540.0).rem_euclid(360.0) - 180.0
}

#[cfg(test)]
mod tests {
    use super::*;

    fn path(points: &[(f64, f64)]) -> WireShape {
        shape(&points.iter().map(|(x, y)| Point { x: *x, y: *y }).collect::<Vec<_>>())
    }

    #[test]
    fn a_wire_is_straight_folded_a_u_or_a_cage() {
        assert_eq!(path(&[(0.0, 0.0), (2.0, 0.0), (4.0, 0.1), (6.0, 0.0)]), WireShape::Straight);
        let rows = [(0.0, 0.0), (5.0, 0.0), (10.0, 0.0), (10.0, 2.0), (5.0, 2.0), (0.0, 2.0)];
        assert_eq!(path(&rows), WireShape::Folded);
        let fixing = [(0.0, -5.0), (0.0, 0.0), (5.0, 0.0), (10.0, 0.0), (10.0, -5.0)];
        assert_eq!(path(&fixing), WireShape::U);
        let around =
            [(0.0, 1.0), (0.0, 9.0), (1.0, 10.0), (9.0, 10.0), (10.0, 9.0), (10.0, 1.0), (9.0, 0.0), (1.0, 0.0)];
        assert_eq!(path(&around), WireShape::Cage);
    }

    #[test]
    fn a_turn_is_the_shorter_way_round() {
        assert_eq!((turn(170.0, -170.0), turn(0.0, 90.0), turn(0.0, -90.0)), (20.0, 90.0, -90.0));
    }
}

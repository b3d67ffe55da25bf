//! A nozzle at work: its jet, the face it meets, the places it visits.

use super::jet::Jet;
use crate::board::{Face, Point, Rect};

/// A nozzle at work.
#[derive(Debug, Clone)]
pub struct Blowing {
    /// The jet.
    pub jet: Jet,
    /// The face.
    pub face: Face,
    /// Where the axis goes, mm; each place for the same share of the time.
    pub path: Vec<Point>,
}

impl Blowing {
    /// Mean h and mean h x gas excess at a place. Exact where a sweep is quick against the board (heating.md, equation 8).
    pub fn at(&self, place: Point) -> (f64, f64) {
        let share = 1.0 / self.path.len() as f64;
        self.path.iter().fold((0.0, 0.0), |(h, q), axis| {
            let r = (axis.x - place.x).hypot(axis.y - place.y) * 1e-3;
            let transfer = self.jet.transfer(r) * share;
            (h + transfer, q + transfer * self.jet.gas_excess(r))
        })
    }

    /// Mean over a rectangle, 3 x 3 points.
    pub fn over(&self, rect: &Rect) -> (f64, f64) {
        let thirds = [-1.0 / 3.0, 0.0, 1.0 / 3.0];
        let points = thirds.iter().flat_map(|a| thirds.iter().map(move |b| (a, b)));
        let sum = points.fold((0.0, 0.0), |(h, q), (a, b)| {
            let p = Point { x: rect.centre.x + a * rect.width, y: rect.centre.y + b * rect.depth };
            let (dh, dq) = self.at(p);
            (h + dh, q + dq)
        });
        (sum.0 / 9.0, sum.1 / 9.0)
    }

    /// How near the axis comes to a place on its way, mm.
    pub fn nearest(&self, place: Point) -> f64 {
        let off = |axis: &Point| (axis.x - place.x).hypot(axis.y - place.y);
        self.path.iter().map(off).fold(f64::INFINITY, f64::min)
    }

    /// Radius within which each place of the path gives at least half of the heat that it gives on its axis, mm: the
    /// footprint that is drawn. By halving between the axis and fifteen diameters.
    pub fn half_heat_mm(&self) -> f64 {
        let heat = |r: f64| self.jet.transfer(r) * self.jet.gas_excess(r);
        let (mut near, mut far) = (0.0, 15.0 * self.jet.diameter);
        for _ in 0..40 {
            let middle = (near + far) / 2.0;
            if heat(middle) > 0.5 * heat(0.0) { near = middle } else { far = middle }
        }
        near * 1e3
    }
}

//! The rim of the board: a simple polygon.

use super::geometry::{Point, Rect};

/// A closed polygon; the last corner joins the first.
#[derive(Debug, Clone, PartialEq)]
pub struct Outline {
    /// Corners in order, either way round, mm.
    pub corners: Vec<Point>,
}

impl Outline {
    /// A rectangle from the origin.
    pub fn rectangle(width: f64, depth: f64) -> Self {
        let whole = Rect { centre: Point { x: width / 2.0, y: depth / 2.0 }, width, depth };
        Self { corners: whole.corners().to_vec() }
    }

    /// The smallest rectangle round it; without corners it is nowhere, and its sides are no lengths.
    pub fn bounds(&self) -> Rect {
        let nowhere =
            Rect { centre: Point { x: f64::NAN, y: f64::NAN }, width: f64::NEG_INFINITY, depth: f64::NEG_INFINITY };
        Rect::around(self.corners.iter().copied()).unwrap_or(nowhere)
    }

    /// Area, mm² (shoelace formula).
    pub fn area(&self) -> f64 {
        self.sides().map(|(a, b)| a.x * b.y - b.x * a.y).sum::<f64>().abs() / 2.0
    }

    /// Is the point inside? Crossing-number test; points on the rim may fall either way.
    pub fn holds(&self, p: Point) -> bool {
        let crosses =
            |(a, b): (Point, Point)| (a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x;
        self.sides().filter(|side| crosses(*side)).count() % 2 == 1
    }

    /// Sides as pairs of corners, the closing one included.
    pub fn sides(&self) -> impl Iterator<Item = (Point, Point)> + '_ {
        let next = self.corners.iter().cycle().skip(1);
        self.corners.iter().copied().zip(next.copied())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_notched_board_holds_what_is_on_it() {
        let at = |x, y| Point { x, y };
        let notched = Outline {
            corners: vec![at(0.0, 0.0), at(40.0, 0.0), at(40.0, 10.0), at(20.0, 10.0), at(20.0, 30.0), at(0.0, 30.0)],
        };
        assert!(notched.holds(at(10.0, 20.0)));
        assert!(!notched.holds(at(30.0, 20.0)), "the notch is air");
        assert_eq!(notched.area(), 800.0);
        assert_eq!(notched.bounds().width, 40.0);
    }
}

//! Where a tip lies, and what it touches there: nothing outside of its patch is heated by it.

use crate::board::Point;

/// A tip's face is so deep, mm (E, 1-2.5: the flat of a chisel); its width is the tip's.
const DEPTH_MM: f64 = 1.5;
/// Joints this little outside of the patch are on its rim, mm: rounding.
const RIM_MM: f64 = 1e-6;

/// A tip that lies on the board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TipPatch {
    /// Its middle.
    pub middle: Point,
    /// How its width is turned, rad from the x axis.
    pub angle: f64,
    /// Its width, mm.
    pub width: f64,
}

impl TipPatch {
    /// With one end over a place.
    pub fn from_end(end: Point, angle: f64, width: f64) -> Self {
        let middle = Point { x: end.x + angle.cos() * width / 2.0, y: end.y + angle.sin() * width / 2.0 };
        Self { middle, angle, width }
    }

    /// Does it touch a joint whose middle is here?
    pub fn touches(&self, at: Point) -> bool {
        let (dx, dy) = (at.x - self.middle.x, at.y - self.middle.y);
        let (sin, cos) = self.angle.sin_cos();
        let (along, across) = (dx * cos + dy * sin, dy * cos - dx * sin);
        along.abs() <= self.width / 2.0 + RIM_MM && across.abs() <= DEPTH_MM / 2.0 + RIM_MM
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_touches_what_lies_under_it_and_nothing_beside() {
        let end = Point { x: 10.0, y: 10.0 };
        let patch = TipPatch::from_end(end, std::f64::consts::FRAC_PI_2, 4.0);
        assert!(patch.touches(end) && patch.touches(Point { x: 10.7, y: 14.0 }));
        assert!(!patch.touches(Point { x: 10.8, y: 12.0 }) && !patch.touches(Point { x: 10.0, y: 14.1 }));
    }
}

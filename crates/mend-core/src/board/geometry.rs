//! Points, faces and axis-parallel rectangles, in mm.

use serde::{Deserialize, Serialize};

/// A place on the board, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Point {
    /// To the right, mm.
    pub x: f64,
    /// Away from the technician, mm.
    pub y: f64,
}

impl Point {
    /// How far another is, mm.
    pub fn distance_to(self, other: Self) -> f64 {
        (self.x - other.x).hypot(self.y - other.y)
    }
}

/// A face of the board.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Face {
    /// The face drawn as seen.
    Top,
    /// The face seen through the board.
    Bottom,
}

impl Face {
    /// The face on the other side.
    pub const fn other(self) -> Self {
        match self {
            Self::Top => Self::Bottom,
            Self::Bottom => Self::Top,
        }
    }
    /// Its name in running text.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Top => "top",
            Self::Bottom => "bottom",
        }
    }
}

/// A rectangle by its centre and full size, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Rect {
    /// Centre.
    pub centre: Point,
    /// Full width along x, mm.
    pub width: f64,
    /// Full depth along y, mm.
    pub depth: f64,
}

impl Rect {
    /// The smallest rectangle round some places; none where there are none.
    pub fn around(places: impl IntoIterator<Item = Point>) -> Option<Self> {
        let grown = |range: Option<(Point, Point)>, p: Point| {
            let (a, b) = range.unwrap_or((p, p));
            Some((Point { x: a.x.min(p.x), y: a.y.min(p.y) }, Point { x: b.x.max(p.x), y: b.y.max(p.y) }))
        };
        let (a, b) = places.into_iter().fold(None, grown)?;
        let centre = Point { x: (a.x + b.x) / 2.0, y: (a.y + b.y) / 2.0 };
        Some(Self { centre, width: b.x - a.x, depth: b.y - a.y })
    }

    /// Left edge, mm.
    pub fn left(&self) -> f64 {
        self.centre.x - self.width / 2.0
    }
    /// Right edge, mm.
    pub fn right(&self) -> f64 {
        self.centre.x + self.width / 2.0
    }
    /// Near edge, mm.
    pub fn near(&self) -> f64 {
        self.centre.y - self.depth / 2.0
    }
    /// Far edge, mm.
    pub fn far(&self) -> f64 {
        self.centre.y + self.depth / 2.0
    }
    /// Area, mm².
    pub fn area(&self) -> f64 {
        self.width * self.depth
    }
    /// Does it cover the point? The rim counts.
    pub fn covers(&self, p: Point) -> bool {
        (p.x - self.centre.x).abs() <= self.width / 2.0 && (p.y - self.centre.y).abs() <= self.depth / 2.0
    }
    /// Area shared with another, mm².
    pub fn shared(&self, other: &Self) -> f64 {
        let x = self.right().min(other.right()) - self.left().max(other.left());
        let y = self.far().min(other.far()) - self.near().max(other.near());
        x.max(0.0) * y.max(0.0)
    }
    /// The four corners.
    pub fn corners(&self) -> [Point; 4] {
        [
            Point { x: self.left(), y: self.near() },
            Point { x: self.right(), y: self.near() },
            Point { x: self.right(), y: self.far() },
            Point { x: self.left(), y: self.far() },
        ]
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rectangle_is_drawn_round_places_and_round_none_there_is_none() {
        let at = |x, y| Point { x, y };
        let found = Rect::around([at(3.0, -1.0), at(-1.0, 4.0), at(0.0, 0.0)]).expect("three places");
        assert_eq!(found, Rect { centre: at(1.0, 1.5), width: 4.0, depth: 5.0 });
        assert_eq!(Rect::around(found.corners()), Some(found));
        assert_eq!(Rect::around([]), None);
    }
}

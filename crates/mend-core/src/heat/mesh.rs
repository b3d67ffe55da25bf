//! The grid laid over a board: cells in x, y and through the thickness, and what they are made of.

use super::axis::Axis;
use super::axis::FineCells;
use crate::board::{Board, Point, Rect};

/// Half width of the fine zone about the part, mm (heating.md section 1, equation 1).
const FINE_ZONE_MM: f64 = 20.0;

/// How fine a run is: the plan's own, or the screening grid of the samples.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Resolution {
    /// Cell size near the part, mm.
    pub cell_mm: f64,
    /// Cells through the thickness.
    pub layers: usize,
    /// Time step, s.
    pub step_s: f64,
}

impl Resolution {
    /// 1 mm, 6 layers, 1 s: melt time within -1.4 % of 0.5 mm, 8 layers.
    pub const FINE: Self = Self { cell_mm: 1.0, layers: 6, step_s: 1.0 };
    /// 2 mm, 3 layers, 1 s: -4.6 %, for the samples of a band.
    pub const COARSE: Self = Self { cell_mm: 2.0, layers: 3, step_s: 1.0 };
}

/// The laminate as the solver sees it, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slab {
    /// Thickness, m.
    pub thickness: f64,
    /// In-plane conductivity, W/mK.
    pub in_plane: f64,
    /// Through-plane conductivity, W/mK.
    pub through: f64,
    /// Heat capacity, J/m³K.
    pub capacity: f64,
}

/// The grid.
#[derive(Debug, Clone, PartialEq)]
pub struct Mesh {
    /// Cells along x, mm.
    pub x: Axis,
    /// Cells along y, mm.
    pub y: Axis,
    /// Cells through the thickness; layer 0 is the top face.
    pub layers: usize,
    /// The material.
    pub slab: Slab,
    /// Which columns are board, `y * x.len() + x`.
    pub inside: Vec<bool>,
}

impl Mesh {
    /// A whole rectangular plate, as the checks want it.
    pub fn plate(x: Axis, y: Axis, layers: usize, slab: Slab) -> Self {
        let inside = vec![true; x.len() * y.len()];
        Self { x, y, layers, slab, inside }
    }

    /// The grid of a board, its in-plane conductivity scaled by `conduction` (1 as computed).
    pub fn from_board(board: &Board, resolution: Resolution, conduction: f64) -> Self {
        let bounds = board.outline.bounds();
        let body = &board.connector.body;
        let half = (body.width.max(body.depth) / 2.0 + 8.0).max(FINE_ZONE_MM);
        let graded = |at: f64, low: f64, high: f64| {
            let fine = FineCells { centre: on(at, low, high), within: half, size: resolution.cell_mm };
            Axis::graded(low, high, fine)
        };
        let x = graded(body.centre.x, bounds.left(), bounds.right());
        let y = graded(body.centre.y, bounds.near(), bounds.far());
        let mut inside = Vec::with_capacity(x.len() * y.len());
        for j in 0..y.len() {
            inside.extend((0..x.len()).map(|i| board.outline.holds(Point { x: x.middle(i), y: y.middle(j) })));
        }
        let slab = Slab {
            thickness: board.stack.thickness.in_m(),
            in_plane: board.stack.in_plane() * conduction,
            through: board.stack.through(),
            capacity: board.stack.capacity(),
        };
        Self { x, y, layers: resolution.layers, slab, inside }
    }

    /// Thickness of one layer, m.
    pub fn layer_thickness(&self) -> f64 {
        self.slab.thickness / self.layers as f64
    }
    /// The column's index in arrays without a rim.
    pub fn column(&self, i: usize, j: usize) -> usize {
        j * self.x.len() + i
    }
    /// Face area of a column, m².
    pub fn area(&self, i: usize, j: usize) -> f64 {
        self.x.width(i) * self.y.width(j) * 1e-6
    }
    /// Heat capacity of one cell of a column, J/K.
    pub fn cell_capacity(&self, i: usize, j: usize) -> f64 {
        self.slab.capacity * self.area(i, j) * self.layer_thickness()
    }
    /// The board column nearest to a place: the one it stands in, or the closest that is board.
    pub fn column_at(&self, p: Point) -> (usize, usize) {
        let (i, j) = (self.x.cell_at(p.x), self.y.cell_at(p.y));
        if self.inside[self.column(i, j)] {
            return (i, j);
        }
        let far = |(a, b): &(usize, usize)| (self.x.middle(*a) - p.x).hypot(self.y.middle(*b) - p.y);
        let all = (0..self.y.len()).flat_map(|b| (0..self.x.len()).map(move |a| (a, b)));
        all.filter(|(a, b)| self.inside[self.column(*a, *b)]).min_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or((i, j))
    }
    /// Columns under a rectangle with the share of the rectangle that each holds; the shares sum to 1.
    pub fn under(&self, body: &Rect) -> Vec<((usize, usize), f64)> {
        let mut found = Vec::new();
        for j in 0..self.y.len() {
            let deep = self.y.overlap(j, body.near(), body.far());
            for i in 0..self.x.len() {
                let area = deep * self.x.overlap(i, body.left(), body.right());
                if area > 0.0 && self.inside[self.column(i, j)] {
                    found.push(((i, j), area));
                }
            }
        }
        if found.is_empty() {
            return vec![(self.column_at(body.centre), 1.0)];
        }
        let total: f64 = found.iter().map(|(_, area)| area).sum();
        found.into_iter().map(|(at, area)| (at, area / total)).collect()
    }
}

/// `value` moved onto the board: a part may overhang the rim. A board narrower than a millimetre is met in its middle: its two
/// ends once crossed, and the clamp panicked.
fn on(value: f64, low: f64, high: f64) -> f64 {
    let inset = 0.5_f64.min((high - low) / 2.0);
    value.clamp(low + inset, high - inset)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_strip_narrower_than_a_cell_still_has_a_middle() {
        assert_eq!(on(5.0, 0.0, 0.9), 0.45);
        assert_eq!(on(-3.0, 0.0, 30.0), 0.5);
        assert_eq!(on(12.0, 0.0, 30.0), 12.0);
    }
}

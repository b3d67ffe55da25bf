//! One direction of the grid: fine near the part, growing towards the rim.

/// Growth from cell to cell outside the fine zone.
const GROWTH: f64 = 1.25;
/// Widest cell, mm.
const WIDEST_MM: f64 = 12.0;

/// Cell borders along one direction, mm, ascending.
#[derive(Debug, Clone, PartialEq)]
pub struct Axis {
    borders: Vec<f64>,
}

/// Where an axis has fine cells, mm.
#[derive(Debug, Clone, Copy)]
pub struct FineCells {
    /// Their middle.
    pub centre: f64,
    /// So far to either side.
    pub within: f64,
    /// How wide each is.
    pub size: f64,
}

impl Axis {
    /// `count` equal cells of `size` mm from 0.
    pub fn uniform(count: usize, size: f64) -> Self {
        Self { borders: (0..=count).map(|i| i as f64 * size).collect() }
    }

    /// From `low` to `high` mm: fine cells, growing by 1.25 to 12 mm outside.
    pub fn graded(low: f64, high: f64, fine: FineCells) -> Self {
        let FineCells { centre, within: fine, size } = fine;
        let mut borders: Vec<f64> = outward(centre - low, fine, size).iter().rev().map(|d| centre - d).collect();
        borders.push(centre);
        borders.extend(outward(high - centre, fine, size).iter().map(|d| centre + d));
        Self { borders }
    }

    /// How many cells.
    pub fn len(&self) -> usize {
        self.borders.len() - 1
    }
    /// Never: an axis has at least one cell.
    pub fn is_empty(&self) -> bool {
        self.len() == 0
    }
    /// All borders, mm, ascending.
    pub fn borders(&self) -> &[f64] {
        &self.borders
    }
    /// Low border of cell `i`, mm.
    pub fn low(&self, i: usize) -> f64 {
        self.borders[i]
    }
    /// Width of cell `i`, mm.
    pub fn width(&self, i: usize) -> f64 {
        self.borders[i + 1] - self.borders[i]
    }
    /// Middle of cell `i`, mm.
    pub fn middle(&self, i: usize) -> f64 {
        (self.borders[i] + self.borders[i + 1]) / 2.0
    }
    /// The cell at `place` mm; the nearest one when it is off the axis.
    pub fn cell_at(&self, place: f64) -> usize {
        self.borders.partition_point(|border| *border <= place).saturating_sub(1).min(self.len() - 1)
    }
    /// How much of cell `i` lies between `low` and `high`, mm.
    pub fn overlap(&self, i: usize, low: f64, high: f64) -> f64 {
        (self.borders[i + 1].min(high) - self.borders[i].max(low)).max(0.0)
    }
}

/// Distances of the borders from the centre, on one side, ending at `reach`.
fn outward(reach: f64, fine: f64, size: f64) -> Vec<f64> {
    let mut borders = Vec::new();
    let (mut at, mut width) = (0.0, size);
    while reach - at > width * 1.5 {
        at += width;
        borders.push(at);
        if at >= fine {
            width = (width * GROWTH).min(WIDEST_MM);
        }
    }
    if reach > 0.0 {
        borders.push(reach);
    }
    borders
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_large_board_is_fine_where_the_part_is_and_coarse_at_the_rim() {
        let axis = Axis::graded(0.0, 290.0, FineCells { centre: 60.0, within: 20.0, size: 1.0 });
        assert!((60..=85).contains(&axis.len()), "{} cells", axis.len());
        assert_eq!(axis.width(axis.cell_at(55.0)), 1.0);
        assert!(axis.width(axis.len() - 1) > 8.0);
        assert_eq!(axis.low(0), 0.0);
        assert_eq!(axis.low(axis.len() - 1) + axis.width(axis.len() - 1), 290.0);
    }

    #[test]
    fn a_part_at_the_rim_loses_no_board() {
        let axis = Axis::graded(0.0, 30.0, FineCells { centre: 1.2, within: 20.0, size: 1.0 });
        let total: f64 = (0..axis.len()).map(|i| axis.width(i)).sum();
        assert!((total - 30.0).abs() < 1e-9);
        assert_eq!(axis.cell_at(-5.0), 0);
        assert_eq!(axis.cell_at(99.0), axis.len() - 1);
    }
}

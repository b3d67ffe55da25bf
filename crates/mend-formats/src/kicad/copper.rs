//! How much of each layer is copper near a place: filled zones and tracks, laid on a grid.

use std::collections::BTreeMap;

use mend_core::board::{Outline, Point, Rect};

use super::sexpr::Sexpr;

/// So far round the part the copper counts, mm: heat runs about that far in the time of a job (E).
pub(super) const ROUND_MM: f64 = 15.0;
/// Cells of the grid, mm.
const CELL: f64 = 0.25;
const SIDE: usize = (2.0 * ROUND_MM / CELL) as usize;

/// Copper near a place.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Near {
    /// Of each copper layer, its share of the board there, 0-1, in the file's order.
    pub(super) cover: Vec<f64>,
    /// Vias per mm² of the board there.
    pub(super) vias_per_mm2: f64,
}

/// Crossings of edges and rows that are counted in all: a board of a laptop has some ten thousand, and a file that was made
/// to keep us busy stops here.
const MOST_CROSSINGS: usize = 4_000_000;

/// The grid round a place.
struct Grid {
    corner: Point,
    left: usize,
    board: Vec<bool>,
    copper: Vec<Vec<bool>>,
}

/// Copper round a place, by layer.
pub(super) fn near(board: &Sexpr, layers: &[String], outline: &Outline, at: Point) -> Near {
    let corner = Point { x: at.x - ROUND_MM, y: at.y - ROUND_MM };
    let mut grid = Grid::new(corner, layers.len());
    grid.fill(None, &outline.corners);
    let names: BTreeMap<&str, usize> = layers.iter().enumerate().map(|(k, name)| (name.as_str(), k)).collect();
    for zone in board.all("zone").filter(|zone| zone.find("keepout").is_none()) {
        for polygon in zone.all("filled_polygon") {
            let points: Vec<Point> =
                polygon.find("pts").into_iter().flat_map(|p| p.all("xy")).filter_map(Sexpr::place).collect();
            let on = polygon.layers().into_iter().chain(zone.layers()).find_map(|name| names.get(name));
            if let Some(layer) = on {
                grid.fill(Some(*layer), &points);
            }
        }
    }
    for track in board.all("segment") {
        let layer = track.layers().first().and_then(|name| names.get(name));
        if let (Some(layer), Some(a), Some(b)) = (layer, track.at("start"), track.at("end")) {
            let half = track.value("width").unwrap_or(0.2).abs() / 2.0;
            grid.fill(Some(*layer), &ribbon(a, b, half));
        }
    }
    let area = grid.board.iter().filter(|inside| **inside).count().max(1) as f64;
    let share = |copper: &Vec<bool>| copper.iter().zip(&grid.board).filter(|(c, b)| **c && **b).count() as f64 / area;
    let window = Rect { centre: at, width: 2.0 * ROUND_MM, depth: 2.0 * ROUND_MM };
    let vias = board.all("via").filter_map(|via| via.at("at")).filter(|p| window.covers(*p)).count() as f64;
    let cover = grid.copper.iter().map(share).collect();
    Near { cover, vias_per_mm2: vias / (area * CELL * CELL) }
}

/// A track as a rectangle along it.
fn ribbon(a: Point, b: Point, half: f64) -> [Point; 4] {
    let (dx, dy) = (b.x - a.x, b.y - a.y);
    let length = dx.hypot(dy).max(1e-9);
    let (nx, ny) = (-dy / length * half, dx / length * half);
    let at = |p: Point, sign: f64| Point { x: p.x + sign * nx, y: p.y + sign * ny };
    [at(a, 1.0), at(b, 1.0), at(b, -1.0), at(a, -1.0)]
}

impl Grid {
    fn new(corner: Point, layers: usize) -> Self {
        let empty = vec![false; SIDE * SIDE];
        Self { corner, left: MOST_CROSSINGS, board: empty.clone(), copper: vec![empty; layers] }
    }

    /// Fills the cells of a layer, or of the board, whose middles lie inside a polygon: between every other crossing of a
    /// row it is inside.
    fn fill(&mut self, layer: Option<usize>, polygon: &[Point]) {
        if polygon.len() < 3 {
            return;
        }
        let mut crossings: BTreeMap<usize, Vec<f64>> = BTreeMap::new();
        let next = polygon.iter().cycle().skip(1);
        for (a, b) in polygon.iter().zip(next) {
            let (low, high) = if a.y < b.y { (a, b) } else { (b, a) };
            for row in index(low.y - self.corner.y)..index(high.y - self.corner.y) {
                self.left = self.left.saturating_sub(1);
                if self.left == 0 {
                    return;
                }
                let y = self.corner.y + (row as f64 + 0.5) * CELL;
                let x = low.x + (high.x - low.x) * (y - low.y) / (high.y - low.y);
                crossings.entry(row).or_default().push(x - self.corner.x);
            }
        }
        let cells = layer.map_or(&mut self.board, |layer| &mut self.copper[layer]);
        for (row, mut xs) in crossings {
            xs.sort_by(f64::total_cmp);
            for pair in xs.chunks_exact(2) {
                let (from, to) = (index(pair[0]), index(pair[1]));
                cells[row * SIDE + from..row * SIDE + to.max(from)].fill(true);
            }
        }
    }
}

/// The first cell whose middle is not before a distance from the corner.
fn index(distance: f64) -> usize {
    (distance / CELL - 0.5).ceil().clamp(0.0, SIDE as f64) as usize
}

#[cfg(test)]
mod tests {
    use super::super::sexpr::read;
    use super::*;

    #[test]
    fn a_half_filled_layer_covers_half() {
        let text = r#"(kicad_pcb
            (zone (net 1) (layer "F.Cu") (filled_polygon (layer "F.Cu") (pts (xy 0 0) (xy 30 0) (xy 30 -60) (xy 0 -60))))
            (zone (layer "B.Cu") (keepout (tracks not_allowed)) (filled_polygon (pts (xy 0 0) (xy 60 0) (xy 60 -60))))
            (segment (start 15 -30) (end 45 -30) (width 3) (layer "B.Cu"))
            (via (at 30 -30)) (via (at 31 -31)) (via (at 59 -59)))"#;
        let board = read(text.as_bytes()).expect("sound");
        let layers = ["F.Cu", "B.Cu"].map(str::to_owned);
        let outline = Outline::rectangle(60.0, 60.0);
        let found = near(&board, &layers, &outline, Point { x: 30.0, y: 30.0 });
        assert!((found.cover[0] - 0.5).abs() < 0.01, "{found:?}");
        // A 3 mm track across the 30 mm window: a tenth; the keep-out is no copper.
        assert!((found.cover[1] - 0.1).abs() < 0.01, "{found:?}");
        assert!((found.vias_per_mm2 - 2.0 / 900.0).abs() < 1e-4, "{found:?}");
    }

    #[test]
    fn what_lies_outside_the_board_is_no_board() {
        let board = read(b"(kicad_pcb)").expect("sound");
        let outline = Outline::rectangle(60.0, 60.0);
        let found = near(&board, &["F.Cu".to_owned()], &outline, Point { x: 500.0, y: 500.0 });
        assert_eq!(found.cover, [0.0]);
    }
}

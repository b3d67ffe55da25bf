//! A face's temperatures as steps of one even scale, and the line along which solder melts.

use mend_core::board::{Face, Point, Rect};
use mend_core::planning::plan::HeatMap;
use mend_core::units::Scale;

use super::contour::{ScalarField, path};
use super::n;
use crate::words::Words;

/// Steps of the scale; its colours are classes h0 to h15 in the styles.
pub(crate) const STEPS: usize = 16;

/// All cells of one step as one path.
pub(crate) struct ColourLevel {
    pub(crate) step: usize,
    pub(crate) path: String,
}

/// A face ready to draw.
pub(crate) struct Isotherms {
    pub(crate) levels: Vec<ColourLevel>,
    pub(crate) melt_lines: Vec<String>,
}

/// The range of a heat map: the same for both faces.
#[derive(Clone, Copy)]
pub(crate) struct Range {
    low: f64,
    high: f64,
}

impl Range {
    /// From the coolest to the hottest cell within a frame, to full tens of °C: all steps go to what is looked at.
    pub(crate) fn within(frame: &Rect, map: &HeatMap) -> Self {
        let nx = map.x_mm.len() - 1;
        let middle = |borders: &[f64], i: usize| (borders[i] + borders[i + 1]) / 2.0;
        let seen = |k: usize| frame.covers(Point { x: middle(&map.x_mm, k % nx), y: middle(&map.y_mm, k / nx) });
        let all = (0..map.top_c.len()).filter(|k| seen(*k)).flat_map(|k| [map.top_c[k], map.bottom_c[k]]);
        let all = all.flatten().map(f64::from);
        let (low, high) = all.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), t| (low.min(t), high.max(t)));
        Self { low: (low / 10.0).floor() * 10.0, high: (high / 10.0).ceil() * 10.0 }
    }

    fn step(&self, t: f64) -> usize {
        let share = (t - self.low) / (self.high - self.low).max(1.0);
        ((share * STEPS as f64) as usize).min(STEPS - 1)
    }

    /// Labels under the scale: lowest, middle, highest.
    pub(crate) fn labels(&self, scale: Scale) -> [String; 3] {
        [self.low, (self.low + self.high) / 2.0, self.high].map(|t| Words { scale }.temperature(t))
    }

    /// Where a temperature lies on the scale, 0-1.
    pub(crate) fn place(&self, t: f64) -> f64 {
        ((t - self.low) / (self.high - self.low).max(1.0)).clamp(0.0, 1.0)
    }
}

/// The face of a map, with the line at `melts_at_c`.
pub(crate) fn isotherms(map: &HeatMap, face: Face, range: Range, melts_at_c: f64) -> Isotherms {
    let cells = if face == Face::Top { &map.top_c } else { &map.bottom_c };
    let (nx, ny) = (map.x_mm.len() - 1, map.y_mm.len() - 1);
    let mut paths = vec![String::new(); STEPS];
    for j in 0..ny {
        let row = &cells[j * nx..(j + 1) * nx];
        let mut from = 0;
        while from < nx {
            let Some(step) = row[from].map(|t| range.step(f64::from(t))) else {
                from += 1;
                continue;
            };
            let same = row[from..].iter().take_while(|t| t.map(|t| range.step(f64::from(t))) == Some(step)).count();
            let (x, y) = ([map.x_mm[from], map.x_mm[from + same]], [map.y_mm[j], map.y_mm[j + 1]]);
            paths[step] += &format!("M{} {}H{}V{}H{}z", n(x[0]), n(-y[1]), n(x[1]), n(-y[0]), n(x[0]));
            from += same;
        }
    }
    let levels =
        paths.into_iter().enumerate().filter(|(_, p)| !p.is_empty()).map(|(step, path)| ColourLevel { step, path });
    Isotherms { levels: levels.collect(), melt_lines: contour(map, cells, melts_at_c as f32) }
}

/// The line at which the face is `at` °C, as one path.
fn contour(map: &HeatMap, cells: &[Option<f32>], at: f32) -> Vec<String> {
    let field = ScalarField { values: cells, columns: map.x_mm.len() - 1 };
    let pieces = field.pieces(at, |x, y| (on_axis(&map.x_mm, x), -on_axis(&map.y_mm, y)));
    if pieces.is_empty() { vec![] } else { vec![path(&pieces)] }
}

/// A position in cells on an axis of uneven ones, mm: whole numbers are the middles.
fn on_axis(borders: &[f64], at: f64) -> f64 {
    let middle = |i: usize| (borders[i] + borders[i + 1]) / 2.0;
    let before = at.floor() as usize;
    match at.fract() {
        0.0 => middle(before),
        part => middle(before) + (middle(before + 1) - middle(before)) * part,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_melt_line_lies_between_what_is_below_and_above() {
        let map = HeatMap {
            x_mm: vec![0.0, 1.0, 2.0],
            y_mm: vec![0.0, 1.0, 2.0],
            top_c: vec![Some(100.0), Some(200.0), Some(100.0), Some(200.0)],
            bottom_c: vec![Some(20.0), None, None, None],
        };
        let whole = Rect { centre: Point { x: 1.0, y: 1.0 }, width: 2.0, depth: 2.0 };
        let range = Range::within(&whole, &map);
        let drawn = isotherms(&map, Face::Top, range, 150.0);
        assert_eq!(drawn.melt_lines, ["M1 -0.5L1 -1.5"]);
        assert_eq!(drawn.levels.len(), 2);
        assert!(isotherms(&map, Face::Bottom, range, 150.0).melt_lines.is_empty());
    }
}

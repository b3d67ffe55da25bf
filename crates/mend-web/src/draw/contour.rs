//! Lines of equal value over a grid, by marching squares over the cells' middles.

use super::n;

/// Values row by row; some cells have none.
pub(crate) struct Field<'a> {
    pub(crate) values: &'a [Option<f32>],
    pub(crate) columns: usize,
}

impl Field<'_> {
    /// The line at `at` as one path; `place` puts a grid position (in cells, whole numbers at their middles) on paper.
    pub(crate) fn line(&self, at: f32, place: impl Fn(f64, f64) -> (f64, f64)) -> String {
        let (nx, ny) = (self.columns, self.values.len() / self.columns);
        let mut path = String::new();
        for (j, i) in (0..ny.saturating_sub(1)).flat_map(|j| (0..nx.saturating_sub(1)).map(move |i| (j, i))) {
            let corners = [(i, j), (i + 1, j), (i + 1, j + 1), (i, j + 1)];
            let values: Vec<f32> = corners.iter().filter_map(|(a, b)| self.values[b * nx + a]).collect();
            if values.len() < 4 {
                continue;
            }
            let mut crossings = (0..4).filter_map(|side| {
                let (a, b) = (values[side], values[(side + 1) % 4]);
                if (a >= at) == (b >= at) {
                    return None;
                }
                let part = f64::from((at - a) / (b - a));
                let ((ai, aj), (bi, bj)) = (corners[side], corners[(side + 1) % 4]);
                let along = |from: usize, to: usize| from as f64 + (to as f64 - from as f64) * part;
                let (x, y) = place(along(ai, bi), along(aj, bj));
                Some(format!("{} {}", n(x), n(y)))
            });
            // Two crossings are a piece; a saddle has four, drawn as two pieces.
            while let (Some(from), Some(to)) = (crossings.next(), crossings.next()) {
                path += &format!("M{from}L{to}");
            }
        }
        path
    }
}

//! Lines of equal value over a grid, by marching squares over the cells' middles.

use super::n;

/// A piece of a line on paper, from and to.
pub(crate) type Segment = [(f64, f64); 2];

/// Pieces as one path.
pub(crate) fn path(pieces: &[Segment]) -> String {
    let written = |[(ax, ay), (bx, by)]: &Segment| format!("M{} {}L{} {}", n(*ax), n(*ay), n(*bx), n(*by));
    pieces.iter().map(written).collect()
}

/// Values row by row; some cells have none.
pub(crate) struct ScalarField<'a> {
    pub(crate) values: &'a [Option<f32>],
    pub(crate) columns: usize,
}

impl ScalarField<'_> {
    /// The line at `at` in pieces; `place` puts a grid position (in cells, whole numbers at their middles) on paper.
    pub(crate) fn pieces(&self, at: f32, place: impl Fn(f64, f64) -> (f64, f64)) -> Vec<Segment> {
        let (nx, ny) = (self.columns, self.values.len() / self.columns);
        let mut pieces = Vec::new();
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
                Some(place(along(ai, bi), along(aj, bj)))
            });
            // Two crossings are a piece; a saddle has four, drawn as two pieces.
            while let (Some(from), Some(to)) = (crossings.next(), crossings.next()) {
                pieces.push([from, to]);
            }
        }
        pieces
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_line_runs_between_what_is_below_and_above_and_stops_where_nothing_is() {
        let values = [Some(0.0), Some(4.0), None, Some(0.0), Some(4.0), Some(4.0)];
        let field = ScalarField { values: &values, columns: 3 };
        let pieces = field.pieces(1.0, |x, y| (10.0 * x, y));
        assert_eq!(pieces, [[(2.5, 0.0), (2.5, 1.0)]]);
        assert_eq!(path(&pieces), "M2.5 0L2.5 1");
        assert!(field.pieces(9.0, |x, y| (x, y)).is_empty());
    }

    #[test]
    fn a_saddle_is_two_pieces() {
        let values = [Some(0.0), Some(2.0), Some(2.0), Some(0.0)];
        assert_eq!(ScalarField { values: &values, columns: 2 }.pieces(1.0, |x, y| (x, y)).len(), 2);
    }
}

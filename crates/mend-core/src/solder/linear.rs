//! Small dense systems of a known largest size, without allocation.

/// Most elements, and so most components of a phase and most phases at once.
pub(super) const N: usize = 8;
/// One number per component.
pub(super) type Vector = [f64; N];
/// One number per pair of components.
pub(super) type Matrix = [[f64; N]; N];

/// ParameterSample of the equilibrium: potentials and amounts.
pub(super) const SIZE: usize = 2 * N;
/// Rows of the equilibrium with their right sides. Rows are worked on at their whole width, zeros included: of a length
/// that is known they go by in a few wide steps.
#[derive(Debug, Clone, Copy)]
pub(super) struct Rows {
    pub(super) of: [[f64; SIZE]; SIZE],
    pub(super) right: [f64; SIZE],
}

impl Rows {
    pub(super) const ZERO: Self = Self { of: [[0.0; SIZE]; SIZE], right: [0.0; SIZE] };
}

/// Pivots below this are taken for zero. Matrices come scaled to ones on the diagonal, or to phase amounts from 1e-7 up.
const SMALLEST_PIVOT: f64 = 1e-13;

/// Solves the leading n rows for their n unknowns; none where they are singular.
pub(super) fn solve(rows: &mut Rows, n: usize) -> Option<[f64; SIZE]> {
    for k in 0..n {
        let pivot = (k..n).max_by(|a, b| rows.of[*a][k].abs().total_cmp(&rows.of[*b][k].abs()))?;
        let size = rows.of[pivot][k].abs();
        if size.is_nan() || size <= SMALLEST_PIVOT {
            return None;
        }
        rows.of.swap(k, pivot);
        rows.right.swap(k, pivot);
        let (lead, right) = (rows.of[k], rows.right[k]);
        for r in k + 1..n {
            let factor = rows.of[r][k] / lead[k];
            if factor != 0.0 {
                let row = &mut rows.of[r];
                (0..SIZE).for_each(|c| row[c] -= factor * lead[c]);
                rows.right[r] -= factor * right;
            }
        }
    }
    let mut found = [0.0; SIZE];
    for k in (0..n).rev() {
        let known: f64 = (k + 1..n).map(|c| rows.of[k][c] * found[c]).sum();
        found[k] = (rows.right[k] - known) / rows.of[k][k];
    }
    Some(found)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn rows_are_solved_in_any_order() {
        let mut rows = Rows::ZERO;
        // y = 3; x + y = 5.
        (rows.of[0][1], rows.right[0]) = (1.0, 3.0);
        (rows.of[1][0], rows.of[1][1], rows.right[1]) = (1.0, 1.0, 5.0);
        let found = solve(&mut rows, 2).expect("regular");
        assert_eq!((found[0], found[1]), (2.0, 3.0));
    }
}

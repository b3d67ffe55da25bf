//! How the composition of a solution answers to potentials: `dy = E (mu - slope)`, which keeps the sum of y.
//!
//! With the largest share m left out, the curvature along the others is `R_ab = H_ab - H_am - H_bm + H_mm`; E is its
//! inverse, with m's row and column so that each sums to zero. R is positive definite exactly outside the spinodal: there
//! its root exists (Cholesky). R is scaled by the roots of y from both sides, so traces of 1e-14 do no harm.

use super::linear::{Matrix, N, Vector};
use super::phase::Solution;

/// The answer of one phase at one composition.
#[derive(Debug, Clone, Copy)]
pub(super) struct Response {
    n: usize,
    y: Vector,
    /// None inside the spinodal, where that of an ideal solution is used.
    root: Option<Root>,
}

/// The lower root of the scaled R.
#[derive(Debug, Clone, Copy)]
struct Root {
    /// The largest share.
    most: usize,
    /// The others.
    others: [usize; N],
    scale: Vector,
    lower: Matrix,
}

impl Response {
    /// Of an ideal solution: `E_ab = y_a d_ab - y_a y_b`.
    pub(super) const fn ideal(n: usize, y: &Vector) -> Self {
        Self { n, y: *y, root: None }
    }

    /// Of a solution.
    pub(super) fn from_solution(solution: &Solution, y: &Vector) -> Self {
        Self { n: solution.n, y: *y, root: Root::from_solution(solution, y) }
    }

    /// The change of composition that a pull asks for.
    pub(super) fn to(&self, pull: &Vector) -> Vector {
        let mut change = [0.0; N];
        let Some(root) = &self.root else {
            let mean: f64 = (0..self.n).map(|k| self.y[k] * pull[k]).sum();
            (0..self.n).for_each(|k| change[k] = self.y[k] * (pull[k] - mean));
            return change;
        };
        let mut along = [0.0; N];
        for a in 0..self.n - 1 {
            along[a] = (pull[root.others[a]] - pull[root.most]) * root.scale[a];
        }
        root.solve(self.n - 1, &mut along);
        for a in 0..self.n - 1 {
            let moved = along[a] * root.scale[a];
            change[root.others[a]] = moved;
            change[root.most] -= moved;
        }
        change
    }

    /// E itself.
    pub(super) fn matrix(&self) -> Matrix {
        let mut e = [[0.0; N]; N];
        let Some(root) = &self.root else {
            for (a, row) in e.iter_mut().enumerate().take(self.n) {
                row.iter_mut().zip(self.y).take(self.n).for_each(|(e, y)| *e = -self.y[a] * y);
                row[a] += self.y[a];
            }
            return e;
        };
        let (inner, inverse) = (self.n - 1, root.inverse(self.n - 1));
        for (a, row) in inverse.iter().enumerate().take(inner) {
            let i = root.others[a];
            for b in 0..inner {
                let value = row[b] * root.scale[a] * root.scale[b];
                e[i][root.others[b]] = value;
                e[i][root.most] -= value;
            }
            let out = e[i][root.most];
            e[root.most][i] = out;
            e[root.most][root.most] -= out;
        }
        e
    }
}

impl Root {
    fn from_solution(solution: &Solution, y: &Vector) -> Option<Self> {
        let n = solution.n;
        let most = (0..n).max_by(|a, b| y[*a].total_cmp(&y[*b]))?;
        let (mut others, mut scale) = ([0; N], [0.0; N]);
        for (a, k) in (0..n).filter(|k| *k != most).enumerate() {
            (others[a], scale[a]) = (k, y[k].sqrt());
        }
        let h = solution.excess_curvature(y);
        let rest = h[most][most] + 1.0 / y[most];
        let mut lower = [[0.0; N]; N];
        for a in 0..n - 1 {
            let (i, row) = (others[a], &h[others[a]]);
            for b in 0..a {
                let j = others[b];
                lower[a][b] = (row[j] - row[most] - h[j][most] + rest) * scale[a] * scale[b];
            }
            lower[a][a] = 1.0 + (row[i] - 2.0 * row[most] + rest) * scale[a] * scale[a];
        }
        root_in_place(&mut lower, n - 1).then_some(Self { most, others, scale, lower })
    }

    /// `(L L')^-1`, from the inverse of L.
    fn inverse(&self, n: usize) -> Matrix {
        let mut low = [[0.0; N]; N];
        for a in 0..n {
            low[a][a] = 1.0 / self.lower[a][a];
            for b in 0..a {
                let known: f64 = (b..a).map(|k| self.lower[a][k] * low[k][b]).sum();
                low[a][b] = -known * low[a][a];
            }
        }
        let mut inverse = [[0.0; N]; N];
        for a in 0..n {
            for b in 0..=a {
                let sum = (a..n).map(|k| low[k][a] * low[k][b]).sum();
                (inverse[a][b], inverse[b][a]) = (sum, sum);
            }
        }
        inverse
    }

    /// Solves `L L' x = x`, in place.
    fn solve(&self, n: usize, x: &mut Vector) {
        for a in 0..n {
            let known: f64 = (0..a).map(|b| self.lower[a][b] * x[b]).sum();
            x[a] = (x[a] - known) / self.lower[a][a];
        }
        for a in (0..n).rev() {
            let known: f64 = (a + 1..n).map(|b| self.lower[b][a] * x[b]).sum();
            x[a] = (x[a] - known) / self.lower[a][a];
        }
    }
}

/// Cholesky's root of the lower triangle; false where the matrix is not positive definite.
fn root_in_place(m: &mut Matrix, n: usize) -> bool {
    for a in 0..n {
        for b in 0..=a {
            let known: f64 = (0..b).map(|k| m[a][k] * m[b][k]).sum();
            let left = m[a][b] - known;
            if a != b {
                m[a][b] = left / m[b][b];
            } else if left > 0.0 {
                m[a][a] = left.sqrt();
            } else {
                return false;
            }
        }
    }
    true
}

#[cfg(test)]
mod tests {
    use super::super::phase_name::Phase;
    use super::*;
    use crate::materials::Element;
    use crate::solder::parameters::fusion;

    #[test]
    fn an_answer_is_that_of_the_slopes() {
        let present = [Element::Sn, Element::Pb, Element::Bi];
        let mut liquid = Solution::among(Phase::Liquid, &present).expect("holds them");
        let mut melting = [0.0; N];
        present.iter().enumerate().for_each(|(k, e)| melting[k] = fusion(*e, 470.0));
        liquid.set(470.0, &melting);
        let y = [0.6, 0.3, 0.1, 0.0, 0.0, 0.0, 0.0, 0.0];
        let pull = [2e-5, -1e-5, 3e-5, 0.0, 0.0, 0.0, 0.0, 0.0];
        let change = Response::from_solution(&liquid, &y).to(&pull);
        assert!(change.iter().sum::<f64>().abs() < 1e-18);
        // Moved by it, the slopes differ by the pull, but for what all of them have in common.
        let moved = std::array::from_fn(|k| y[k] + change[k]);
        let ((_, before), (_, after)) = (liquid.slopes(&y), liquid.slopes(&moved));
        let rise = |k: usize| after[k] - before[k] - pull[k];
        assert!((rise(0) - rise(1)).abs() < 1e-8 && (rise(0) - rise(2)).abs() < 1e-8);
        let (e, again) = (Response::from_solution(&liquid, &y).matrix(), Response::from_solution(&liquid, &y));
        let by_matrix: Vector = std::array::from_fn(|a| (0..N).map(|b| e[a][b] * pull[b]).sum());
        assert!(by_matrix.iter().zip(again.to(&pull)).all(|(m, c)| (m - c).abs() < 1e-18));
    }
}

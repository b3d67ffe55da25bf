//! Packages and ceramics that warm faster than they should.

use super::input::RuleInput;
use crate::board::Board;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;

/// A ramp is read over so many seconds.
const OVER_S: usize = 5;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let components = seen.order.board.components.iter().zip(&seen.fine.traces.components);
    let steep = components.filter_map(|(n, curve)| {
        let (ramp, most) = (steepest(&curve[..curve.len().min(seen.off + 1)]), n.material.fastest_ramp()?);
        (ramp > most).then_some((n.name.clone(), ramp, most))
    });
    let steep: Vec<(String, f64, f64)> = steep.collect();
    let k_per_s = steep.iter().map(|(_, ramp, _)| *ramp).fold(0.0, f64::max);
    let most_k_per_s = steep.iter().map(|(_, _, most)| *most).fold(f64::INFINITY, f64::min);
    let components: Vec<String> = steep.into_iter().map(|(name, _, _)| name).collect();
    if components.is_empty() {
        return Vec::new();
    }
    vec![Finding::warning("ramp", "settings", PlanProblem::SteepRamp { components, k_per_s, most_k_per_s })]
}

/// Do any of these components, by their curves, warm faster than they should?
pub(in crate::planning) fn is_steep(board: &Board, curves: &[Vec<f32>]) -> bool {
    let pairs = board.components.iter().zip(curves);
    pairs.into_iter().any(|(n, curve)| n.material.fastest_ramp().is_some_and(|most| steepest(curve) > most))
}

/// Steepest rise of a curve, K/s.
fn steepest(curve: &[f32]) -> f64 {
    let rise = |w: &[f32]| f64::from(w[OVER_S] - w[0]) / OVER_S as f64;
    curve.windows(OVER_S + 1).map(rise).fold(0.0, f64::max)
}

#[cfg(test)]
mod tests {
    use super::steepest;

    #[test]
    fn a_ramp_is_read_over_five_seconds() {
        let curve: Vec<f32> = (0..30).map(|t| if t < 10 { 20.0 } else { 20.0 + 4.0 * (t - 10) as f32 }).collect();
        assert!((steepest(&curve) - 4.0).abs() < 1e-6);
        assert_eq!(steepest(&[20.0, 90.0]), 0.0);
    }
}

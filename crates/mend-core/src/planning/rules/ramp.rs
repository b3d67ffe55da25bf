//! Packages and ceramics that warm faster than they should.

use super::input::RuleInput;
use crate::board::Board;
use crate::finding::{Finding, list};

/// A ramp is read over so many seconds.
const OVER_S: usize = 5;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let components = seen.order.board.components.iter().zip(&seen.fine.traces.components);
    let steep = components.filter_map(|(n, curve)| {
        let (ramp, most) = (steepest(&curve[..curve.len().min(seen.off + 1)]), n.material.fastest_ramp()?);
        (ramp > most).then_some((n.name.as_str(), ramp))
    });
    let steep: Vec<(&str, f64)> = steep.collect();
    let Some(worst) = steep.iter().map(|(_, ramp)| *ramp).max_by(f64::total_cmp) else { return Vec::new() };
    let names: Vec<&str> = steep.iter().map(|(name, _)| *name).collect();
    let message = format!("{} warm by up to {worst:.1} K/s, more than 3 K/s", list(&names));
    vec![Finding::warning("ramp", "settings", message).hint("soak the board first, or begin further away")]
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

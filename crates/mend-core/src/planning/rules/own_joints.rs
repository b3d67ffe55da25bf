//! Components whose own joints melt with the part's: they stay by surface tension alone.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let melts = seen.factory_melts_c as f32;
    let components = seen.order.board.components.iter().zip(&seen.fine.traces.own_joints);
    let molten =
        components.filter(|(n, curve)| n.soldered() > 0.0 && curve.iter().take(seen.off + 1).any(|t| *t >= melts));
    let components: Vec<String> = molten.map(|(n, _)| n.name.clone()).collect();
    if components.is_empty() {
        return Vec::new();
    }
    vec![Finding::note("own_joints", "components", PlanProblem::OwnJointsMelt { components })]
}

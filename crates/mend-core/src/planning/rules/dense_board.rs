//! A board of many layers: the model is known to run fast on it.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let stack = &seen.order.board.stack;
    let problem = PlanProblem::DenseBoard { layers: stack.layers };
    stack.is_dense().then(|| Finding::warning("dense_board", "copper.layers", problem)).into_iter().collect()
}
